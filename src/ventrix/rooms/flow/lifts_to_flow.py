"""The lifts that a cut is flowed at."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import Final

from ventrix.bench.procedure.lift_plan import Rung, rungs
from ventrix.core.model.cut import Cut
from ventrix.core.model.kinds import RungNoteKind
from ventrix.core.model.run import FlowRun
from ventrix.core.quantity.units import from_si, tidy, to_si
from ventrix.rooms.display_units import Units
from ventrix.workspace.workspace import Workspace

RUNGS: Final = 12
MOST_USUAL: Final = 40
WITNESS_RUNGS: Final = (3, 6, 9)  # of the usual plan, that a witness port is flowed at


def usual_lifts(space: Workspace | None, units: Units) -> list[float]:
    """Even steps of the units on screen [m]: as far as the port's cam lifts and one beyond, where that is known."""
    step, unit = (1.0, "mm") if units.name == "metric" else (0.05, "in")
    count: Sequence[int] = range(1, RUNGS + 1)
    if space is not None and space.port is not None:
        cam = space.findings.cam_of(space.port.kind)
        if cam is not None:
            far = min(math.ceil(from_si(cam.peak_lift, unit) / step - 1e-6) + 1, MOST_USUAL)
            count = range(1, far + 1)
        if space.port.witness:
            count = WITNESS_RUNGS
    return [tidy(to_si(step * i, unit)) for i in count]


def lifts_to_flow(
    run: FlowRun | None, against: Cut | None, own: Sequence[float], usual: Sequence[float], come_back: bool
) -> list[Rung]:
    """The user's own lifts [m], else the pinned cut's, else the usual ones; and whatever the run has besides."""
    readings = run.readings if run else ()
    source = against.runs[-1].readings if against is not None and against.runs else ()
    wanted = own or sorted({r.lift for r in source if r.lift > 0}) or usual
    stops = [n.lift for n in run.rung_notes if n.kind == RungNoteKind.OUT_OF_TRAVEL] if run else []
    wanted = [x for x in wanted if not stops or x <= min(stops) + 1e-6]  # the valve goes no further
    lifts = {round(x * 1e6) for x in (*wanted, *(r.lift for r in readings if not r.returned))}
    back = come_back or any(r.returned for r in readings)
    return rungs([x * 1e-6 for x in sorted(lifts) if x > 0], come_back=back)

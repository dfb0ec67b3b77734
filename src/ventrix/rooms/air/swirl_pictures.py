"""Swirl as curves: against lift for two cuts, and against peak flow from cut to cut."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from ventrix.core.model.cut import Cut, Port
from ventrix.core.quantity.units import from_si_array
from ventrix.core.runs.reduced_run import ReducedRun
from ventrix.rooms.display_units import Units
from ventrix.rooms.shared.plot_values import Line, Picture


def swirl_over_lift(port: Port, sides: Sequence[tuple[Cut | None, ReducedRun | None]], units: Units) -> Picture:
    """What was read of swirl at each lift, of the cut held against dashed, of the one looked at solid."""
    lines = []
    for (cut, run), style, width in zip(sides, ("dashed", "solid"), (2.0, 3.0), strict=True):
        if cut is None or run is None or not np.any(np.isfinite(run.swirl)):
            continue
        known = np.isfinite(run.swirl)
        x = from_si_array(run.lift[known], units.lift.unit)
        y = from_si_array(run.swirl[known], "rpm")
        lines.append(Line(x, y, port.kind, width, style, (x, y) if width > 2 else None, str(cut.number)))
    return Picture(lines, digits=units.lift.digits, value_digits=0)


def swirl_trade(path: Sequence[tuple[int, float, float]]) -> Picture:
    """Swirl against peak flow, cut by cut: number, flow and swirl as they are shown."""
    if not path:
        return Picture([])
    x, y = np.array([p[1] for p in path]), np.array([p[2] for p in path])
    spots = [(float(a), float(b), str(n)) for n, a, b in path]
    low, high = float(y.min()), float(y.max())
    room = 0.3 * max(high - low, 0.02 * abs(high))
    return Picture([Line(x, y, "brass", 2, points=(x, y))], spots=spots, y_range=(low - room, high + room))

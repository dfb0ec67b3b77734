"""What the invented shop probed, saw and heard on the invented head, read from the simulator's own picture."""

from __future__ import annotations

from typing import Final

import numpy as np

from ventrix.bench.simulator import air_picture
from ventrix.bench.simulator.physics import SimulatedPort
from ventrix.core.air.layouts import CLOCK, NINE, Layout, Place
from ventrix.core.air.sections import places_on, size_of
from ventrix.core.metal.unrolled import UnrolledPort
from ventrix.core.model.kinds import Direction
from ventrix.core.model.traverse import Observation, ProbePoint, Traverse
from ventrix.core.quantity.units import from_si, to_si

LIFT: Final = to_si(0.5, "in")
PROBED: Final[tuple[tuple[str, Layout], ...]] = (
    ("opening", NINE),
    ("pinch", NINE),
    ("short side", NINE),
    ("seat", CLOCK),
)
CUTS: Final = (1, 2)  # of the intake: before and after the short side was laid back
BALL: Final = ("pinch", "short side")
_SEEN: Final = {
    1: ((12, "wet"), (1, "wet"), (3, "wet"), (5, "dry"), (6, "dry"), (7, "splash"), (9, "streak"), (11, "wet")),
    2: ((12, "wet"), (1, "wet"), (3, "wet"), (5, "streak"), (6, "wet"), (7, "wet"), (9, "streak"), (11, "wet")),
}


def traverses(
    direction: Direction, number: int, truth: SimulatedPort, pressure: float, here: UnrolledPort
) -> tuple[Traverse, ...]:
    """The traverses of a cut, with the scatter of a hand-held probe; the same ones every time."""
    if direction != "intake" or number not in CUTS:
        return ()
    random = np.random.default_rng([22, number])
    base = float(truth.flow(LIFT, pressure))
    found = []
    for station, layout in PROBED:
        points = []
        size = size_of(here, station)
        for place in places_on(layout, size):
            u, v = (np.array([place.u, place.v]) + 0.02 * random.standard_normal(2)).tolist()
            exact = air_picture.probe_pressure(truth, station, LIFT, pressure, u, v)
            seen = round(from_si(exact * (1 + 0.02 * float(random.standard_normal())), "inH2O"), 1)
            points.append(_point(f"{direction}-{number}-{station}-{place.name}", place, reading=to_si(seen, "inH2O")))
        found.append(_traverse(direction, number, station, layout, tuple(points)))
    for station in BALL:
        points = []
        for place in places_on(NINE, size_of(here, station)):
            drop = air_picture.ball_drop(truth, station, LIFT, place.u, place.v)
            seen = round(from_si(base * (1 - drop) + 1e-4 * float(random.standard_normal()), "cfm"), 1)
            name = f"{direction}-{number}-{station}-ball-{place.name}"
            points.append(_point(name, place, flow=to_si(seen, "cfm")))
        found.append(_traverse(direction, number, station, NINE, tuple(points), base))
    return tuple(found)


def _point(name: str, place: Place, reading: float | None = None, flow: float | None = None) -> ProbePoint:
    return ProbePoint(id=name, name=place.name, u=round(place.u, 6), v=round(place.v, 6), reading=reading, flow=flow)


def _traverse(
    direction: Direction, number: int, station: str, layout: Layout, points: tuple[ProbePoint, ...],
    base: float | None = None,
) -> Traverse:  # fmt: skip
    kind = "pitot" if base is None else "ball"
    return Traverse(
        id=f"{direction}-{number}-{station}-{kind}",
        station=station,
        kind=kind,
        layout=layout.name,
        setup_id=f"setup-{direction}",
        lift=LIFT,
        probe="ball" if base is not None else "curved" if station in ("short side", "seat") else "straight",
        coefficient=1.0 if base is None else None,
        base_flow=None if base is None else to_si(round(from_si(base, "cfm"), 1), "cfm"),
        date=f"2026-05-{4 + number:02d}",
        points=points,
    )


def observations(direction: Direction, number: int) -> tuple[Observation, ...]:
    """Dye and ear: before the short side was laid back its side of the seat stayed dry and the port got loud."""
    if direction != "intake" or number not in CUTS:
        return ()
    date = f"2026-05-{4 + number:02d}"
    seen = tuple(
        Observation(
            id=f"wet-{number}-{hour}", kind="wet", text=state, place="seat", clock=float(hour), lift=LIFT, date=date
        )
        for hour, state in _SEEN[number]
    )
    if number == 2:
        return seen
    return (*seen, Observation(id="noise-1", kind="noise", lift=to_si(0.55, "in"), date=date))

"""The invented head that ships with the program: its ports' hidden truth, cut by cut."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Final

from ventrix.bench.simulator.physics import SimulatedPort
from ventrix.core.model.kinds import Direction, Place
from ventrix.core.quantity.units import to_si

Work = tuple[str, str, str, float, float | None]  # place, what, tool, minutes, depth in mm


@dataclass(frozen=True, slots=True)
class SimulatedCut:
    """One state of a port: what the job document says of it, and the truth behind it. SI."""

    name: str
    work: tuple[Work, ...]
    volume: float
    throat_diameter: float
    truth: SimulatedPort


def _cut(name: str, work: tuple[Work, ...], volume_cc: float, truth: SimulatedPort) -> SimulatedCut:
    return SimulatedCut(name, work, to_si(volume_cc, "cc"), truth.throat_diameter, truth)


_INTAKE: Final = SimulatedPort(
    valve_diameter=0.0460,
    seat_width=0.0016,
    seat_angle=to_si(45, "deg"),
    throat_diameter=0.0395,
    stem_diameter=0.0070,
    port_area=1.10e-3,
    stall_loss=0.06,
)
_INTAKE_BLENDED: Final = replace(_INTAKE, port_area=1.20e-3, valve_coefficient=0.965)
_INTAKE_LAID_BACK: Final = replace(
    _INTAKE_BLENDED,
    throat_diameter=0.0418,
    port_area=1.40e-3,
    low_lift=0.925,
    stall_ratio=0.33,
    stall_loss=0.04,
    swirl=0.24,
)
_INTAKE_FIN: Final = replace(_INTAKE_LAID_BACK, port_area=1.407e-3)

_EXHAUST: Final = SimulatedPort(
    valve_diameter=0.0375,
    seat_width=0.0019,
    seat_angle=to_si(45, "deg"),
    throat_diameter=0.0325,
    stem_diameter=0.0070,
    port_area=0.72e-3,
    stall_ratio=0.30,
    stall_loss=0.05,
)
_EXHAUST_BLENDED: Final = replace(_EXHAUST, port_area=0.78e-3, valve_coefficient=0.96)
_EXHAUST_SMOOTHED: Final = replace(_EXHAUST_BLENDED, port_area=0.782e-3)

HEADS: Final[dict[Direction, tuple[SimulatedCut, ...]]] = {
    Direction.INTAKE: (
        _cut("as cast", (), 118.0, _INTAKE),
        _cut(
            "bowl blend",
            (
                ("bowl", "ridge under the seat taken out", "oval carbide burr", 35, 0.6),
                ("guide", "boss narrowed", "tree carbide burr", 15, 0.8),
            ),
            119.6,
            _INTAKE_BLENDED,
        ),
        _cut(
            "throat and short side",
            (
                ("throat", "opened to 91 percent", "ball stone", 40, 1.1),
                ("short side", "laid back and widened", "cylinder stone", 55, 1.0),
            ),
            121.9,
            _INTAKE_LAID_BACK,
        ),
        _cut("guide to a fin", (("guide", "boss to a fin", "small flame burr", 45, 1.5),), 122.3, _INTAKE_FIN),
    ),
    Direction.EXHAUST: (
        _cut("as cast", (), 64.0, _EXHAUST),
        _cut(
            "bowl blend",
            (("bowl", "ridge under the seat taken out", "oval carbide burr", 30, 0.7),),
            65.1,
            _EXHAUST_BLENDED,
        ),
        _cut("80 grit", ((Place.ALL_OVER.value, "roll, 80 grit", "abrasive roll", 25, None),), 65.2, _EXHAUST_SMOOTHED),
    ),
}


def worked(cut: SimulatedCut, place: str) -> SimulatedCut:
    """What a cut becomes when it is worked at a place; a place it does not know is polished."""
    t = cut.truth
    changed: dict[str, tuple[SimulatedPort, float]] = {
        Place.BOWL: (
            replace(t, port_area=t.port_area * 1.04, valve_coefficient=t.valve_coefficient * 1.005),
            1.2,
        ),
        Place.THROAT: (
            replace(
                t,
                throat_diameter=min(t.throat_diameter * 1.02, t.valve_diameter * 0.93),
                low_lift=t.low_lift * 0.97,
            ),
            0.8,
        ),
        Place.SHORT_SIDE: (replace(t, stall_ratio=t.stall_ratio + 0.02, stall_loss=t.stall_loss * 0.6), 1.4),
        Place.GUIDE: (replace(t, port_area=t.port_area * 1.005), 0.4),
        Place.PINCH: (replace(t, port_area=t.port_area * 1.03), 1.6),
    }
    truth, grown = changed.get(place, (replace(t, port_area=t.port_area * 1.001), 0.1))
    return SimulatedCut(
        place, ((place, "worked", "burr", 30, None),), cut.volume + to_si(grown, "cc"), truth.throat_diameter, truth
    )

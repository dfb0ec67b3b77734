"""What the invented shop measured on the invented head, cut by cut, beside the simulator's throats and volumes."""

from __future__ import annotations

from dataclasses import replace
from typing import Any, Final

from ventrix.core.model.cut import Pour, Station, WallReading
from ventrix.core.model.kinds import Direction
from ventrix.core.quantity.units import to_si


def _mm(**figures: float) -> dict[str, float]:
    return {key: to_si(value, "mm") for key, value in figures.items()}


def _wall(
    name: str, place: str, band: str, along: float, across: float, inches: float, behind: str, date: str
) -> WallReading:
    return WallReading(
        id=name,
        place=place,
        band=band,
        along=to_si(along, "mm"),
        across=across,
        thickness=to_si(inches, "in"),
        behind=behind,
        probe="5 MHz, 6 mm",
        sound_speed=6320.0,
        date=date,
    )


_FIRST_INTAKE: Final = _mm(
    guide_diameter=12.5,
    guide_length=9.0,
    boss_width=17.0,
    opening_width=30.0,
    opening_height=42.0,
    opening_corner=8.0,
    gasket_land=6.5,
    pinch_width=25.8,
    pinch_height=42.5,
    hole_spacing=33.4,
    short_side_height=24.0,
    short_side_radius=9.0,
    bowl_diameter=39.0,
    seat_margin=0.6,
)
_FIRST_EXHAUST: Final = _mm(
    guide_diameter=12.5,
    guide_length=11.0,
    boss_width=16.0,
    opening_width=33.0,
    opening_height=30.0,
    opening_corner=9.0,
    short_side_height=18.0,
    short_side_radius=7.0,
    bowl_diameter=33.5,
)
_STATIONS: Final = (
    Station(id="station-1", name="before the pinch", along=to_si(20, "mm"), width=to_si(28.0, "mm"),
            height=to_si(42.2, "mm"), corner_radius=to_si(8, "mm")),
    Station(id="station-2", name="guide", along=to_si(69, "mm"), width=to_si(32.5, "mm"),
            height=to_si(38.5, "mm"), corner_radius=to_si(11, "mm")),
    Station(id="station-3", name="short side", along=to_si(84, "mm"), width=to_si(36.0, "mm"),
            height=to_si(33.5, "mm"), corner_radius=to_si(14, "mm")),
)  # fmt: skip
_WORKED_STATIONS: Final = (
    *(replace(s, id=f"{s.id}-again") for s in _STATIONS[:2]),
    Station(id="station-4", name="short side", along=to_si(84, "mm"), width=to_si(38.6, "mm"),
            height=to_si(34.5, "mm"), corner_radius=to_si(15, "mm")),
)  # fmt: skip
_INTAKE: Final[dict[int, dict[str, Any]]] = {
    0: {
        **_FIRST_INTAKE,
        "port_angle": to_si(28, "deg"),
        "boss_shape": "round",
        "stations": _STATIONS,
        "walls": (
            _wall("wall-1", "pinch", "left", 34, 0.0, 0.134, "a pushrod hole", "2026-05-03"),
            _wall("wall-2", "pinch", "left", 46, 0.1, 0.139, "a pushrod hole", "2026-05-03"),
            _wall("wall-3", "roof", "roof", 40, 0.0, 0.210, "", "2026-05-03"),
            _wall("wall-4", "short side", "floor", 82, -0.2, 0.168, "water", "2026-05-03"),
            _wall("wall-5", "bowl", "right", 93, 0.2, 0.158, "water", "2026-05-03"),
        ),
    },
    1: {
        **_mm(bowl_diameter=40.4, boss_width=15.4),
        "expected_gain": to_si(5, "cfm"),
        "expected_growth": to_si(1.5, "cc"),
        "expected_time": to_si(45, "min"),
    },
    2: {
        **_mm(bowl_diameter=42.6, short_side_radius=12.0, seat_width=1.4),
        "stations": _WORKED_STATIONS,
        "expected_gain": to_si(8, "cfm"),
        "expected_growth": to_si(2.0, "cc"),
        "expected_time": to_si(70, "min"),
        "walls": (_wall("wall-6", "short side", "floor", 80, 0.2, 0.121, "water", "2026-05-06"),),
    },
    3: {**_mm(boss_width=9.0), "boss_shape": "fin"},
}
_EXHAUST: Final[dict[int, dict[str, Any]]] = {
    0: {
        **_FIRST_EXHAUST,
        "port_angle": to_si(22, "deg"),
        "walls": (_wall("wall-7", "roof", "roof", 30, 0.0, 0.180, "water", "2026-05-08"),),
    },
    1: _mm(bowl_diameter=34.4),
}


def measured(direction: Direction, number: int) -> dict[str, Any]:
    """Figures, stations and walls of a cut of the demo's ports, as fields of `Cut`."""
    return (_INTAKE if direction == "intake" else _EXHAUST).get(number, {})


def pours_of(name: str, volume: float, direction: Direction, number: int) -> tuple[Pour, ...]:
    """The pours of a cut: the first intake was poured twice."""
    how = "burette and plate, valve in"
    if direction == "intake" and number == 0:
        return tuple(
            Pour(id=f"{name}-pour-{i}", volume=volume + to_si(d, "cc"), how=how) for i, d in ((1, 0.1), (2, -0.1))
        )
    return (Pour(id=f"{name}-pour", volume=volume, how=how),)

"""Where a probe is held: layouts of points over a section."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final, NamedTuple

import numpy as np

from ventrix.core.model.kept_words import LayoutName
from ventrix.core.model.kinds import StationName


class Place(NamedTuple):
    """A named point of a layout, its place and what share of the section it speaks for."""

    name: str
    u: float
    v: float
    weight: float


@dataclass(frozen=True, slots=True)
class Layout:
    """Points of a section. `error` bounds its mean on smooth profiles of the kinds tested, relative."""

    name: str
    places: tuple[Place, ...]
    ring: bool = False
    error: float = 0.0


_R5, _A5 = 0.85, 1 / (6 * 0.85**2)  # exact for polynomials of degree three over a square

_G: Final = (0.6) ** 0.5  # Gauss-Legendre of three points: exact to degree five along each side

_ROWS: Final = (("roof", _G), ("middle", 0.0), ("floor", -_G))

_COLUMNS: Final = (("left", -_G), ("centre", 0.0), ("right", _G))


def _nine() -> tuple[Place, ...]:
    weight = {0.0: 8 / 18, _G: 5 / 18, -_G: 5 / 18}
    names = {("middle", "centre"): "centre"}
    return tuple(
        Place(names.get((row, column), f"{row} {column}"), u, v, weight[u] * weight[v])
        for row, v in _ROWS
        for column, u in _COLUMNS
    )


_RING: Final = 0.758  # of the radius: there a turbulent profile reads its mean (ISO 7145)


def _ring(names: list[str]) -> tuple[Place, ...]:
    n = len(names)
    return tuple(
        Place(name, _RING * float(np.sin(2 * np.pi * i / n)), _RING * float(np.cos(2 * np.pi * i / n)), 1 / n)
        for i, name in enumerate(names)
    )


FIVE: Final = Layout(
    LayoutName.FIVE,
    (
        Place("centre", 0.0, 0.0, 1 - 4 * _A5),
        Place("roof", 0.0, _R5, _A5),
        Place("floor", 0.0, -_R5, _A5),
        Place("left", -_R5, 0.0, _A5),
        Place("right", _R5, 0.0, _A5),
    ),
    error=0.12,
)

NINE: Final = Layout(LayoutName.NINE, _nine(), error=0.06)

EIGHT_RING: Final = Layout(
    LayoutName.EIGHT_RING,
    _ring(["12 o'clock", "1:30", "3 o'clock", "4:30", "6 o'clock", "7:30", "9 o'clock", "10:30"]),
    ring=True,
    error=0.10,
)

CLOCK: Final = Layout(LayoutName.CLOCK, _ring([f"{h or 12} o'clock" for h in range(12)]), ring=True, error=0.10)

LAYOUTS: Final = (FIVE, NINE, EIGHT_RING, CLOCK)


def layout_named(name: str) -> Layout | None:
    """The layout of that name, or None: points of the user's own then."""
    return next((x for x in LAYOUTS if x.name == name), None)


def usual_layout(station: str) -> Layout:
    """What a station is usually probed with: rings in the bowl and at the seat."""
    usual: dict[str, Layout] = {StationName.BOWL: EIGHT_RING, StationName.SEAT: CLOCK}
    return usual.get(station, NINE)

"""Faces as they are typed: ports with their middles, or with each edge's distance from a bolt; and points."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import parse_quantity

Point = tuple[float, float]


@dataclass(frozen=True, slots=True)
class TypedSpot:
    """A name, and where it is [m]: nothing, its middle, or its edges left, right, floor, roof about the face's zero."""

    name: str
    at: Point | None = None
    edges: tuple[float, float, float, float] | None = None

    @property
    def middle(self) -> Point | None:
        if self.edges is None:
            return self.at
        left, right, floor, roof = self.edges
        return (left + right) / 2, (floor + roof) / 2


def typed_spots(text: str, unit: str, bolts: Mapping[str, Point] | None = None) -> tuple[TypedSpot, ...]:
    """What stands between semicolons: a name alone, a name with x and y, or a name with a bolt and how far its left,
    right, floor and roof edges lie from that bolt's middle (left and down negative).

    ValueError, in words, for a spot without a name, or edges the wrong way round.
    """
    return tuple(_spot(part.strip(), unit, bolts or {}) for part in text.split(";") if part.strip())


def _spot(part: str, unit: str, bolts: Mapping[str, Point]) -> TypedSpot:
    cells = part.split()
    figures = _figures(cells[-4:], unit)
    known = {name.lower(): at for name, at in bolts.items()}
    if len(cells) > 5 and figures is not None and len(figures) == 4 and cells[-5].lower() in known:
        x, y = known[cells[-5].lower()]
        left, right, floor, roof = figures
        name = " ".join(cells[:-5])
        if left >= right or floor >= roof:
            raise Refused("{}: left, right, floor and roof from bolt {}, in that order", name, cells[-5])
        return TypedSpot(name, edges=(x + left, x + right, y + floor, y + roof))
    pair = _figures(cells[-2:], unit)
    if pair is None or len(pair) < 2:
        return TypedSpot(part)  # a name alone, as a drawing wants it
    if len(cells) < 3:
        raise Refused("'{}' has no name", part[:40])
    return TypedSpot(" ".join(cells[:-2]), (pair[0], pair[1]))


def typed_point(text: str, unit: str, of: str) -> Point:
    """x and y of one point. ValueError in words, naming what it is the middle of."""
    pair = _figures(text.split(), unit)
    if pair is None or len(pair) != 2:
        raise Refused("{}: x and y, with a space between", of)
    return pair[0], pair[1]


def _figures(cells: list[str], unit: str) -> list[float] | None:
    try:
        return [parse_quantity(cell, unit) for cell in cells]
    except Refused:
        return None

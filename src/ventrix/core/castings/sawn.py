"""The metal around a port where a head was sawn through, from its two outlines."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Final

from ventrix.core.model.kinds import Band
from ventrix.core.quantity.refused import Refused

Points = Sequence[tuple[float, float]]
_WAYS: Final = {Band.ROOF: (0.0, 1.0), Band.FLOOR: (0.0, -1.0), Band.LEFT: (-1.0, 0.0), Band.RIGHT: (1.0, 0.0)}
FAR: Final = 10.0  # m


def thicknesses(inner: Points, outer: Points) -> tuple[tuple[str, float], ...]:
    """Metal between the port's own outline and what lies around it, by side.

    Parameters
    ----------
    inner, outer : sequence of (float, float)
        Of the port and of the metal around it [m], y up, each closed, shape (n, 2).

    Returns
    -------
    tuple of (str, float)
        By side, along a straight line from the port's centre [m].

    Raises
    ------
    ValueError
        An outline that crosses itself, or a port that does not lie inside the metal.

    References
    ----------
    Definition of this project.
    """
    from shapely import LineString, Polygon  # late: only a traced section needs it

    port, metal = Polygon(inner), Polygon(outer)
    if not (port.is_valid and metal.is_valid):
        raise Refused("an outline crosses itself: trace it again")
    if not metal.contains(port):
        raise Refused("the port lies outside the metal: trace the port, then the metal around it")
    x, y = port.centroid.x, port.centroid.y
    found = []
    for side, (along, up) in _WAYS.items():
        ray = LineString([(x, y), (x + FAR * along, y + FAR * up)])
        found.append((side.value, float(ray.intersection(metal).length - ray.intersection(port).length)))
    return tuple(found)


def by_size(outlines: Sequence[Points]) -> tuple[Points, Points]:
    """The two traced outlines, the port's first. ValueError where there are not two."""
    from shapely import Polygon

    if len(outlines) != 2:
        raise Refused("{} outlines were traced: the port's, and that of the metal around it", len(outlines))
    inner, outer = sorted(outlines, key=lambda o: Polygon(o).area)
    return inner, outer

"""An opening as a closed curve in its face's own axes [m]: rectangle with radii, round, D, oval, traced points."""

from __future__ import annotations

from typing import Final

import numpy as np
from shapely.geometry import Polygon

from ventrix.core.model.job_parts import Outline
from ventrix.core.model.kinds import OutlineShape
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.refused import Refused

OVAL: Final = 2.5  # exponent of the superellipse that a cast oval is taken for (common practice, no source)
ROUND: Final = 96  # points of a full circle


def polygon_of(outline: Outline) -> Polygon:
    """The outline as a polygon.

    Parameters
    ----------
    outline : Outline
        As it was measured.

    Returns
    -------
    Polygon
        Counter-clockwise, in the face's axes [m].

    Raises
    ------
    ValueError
        A size that its shape needs is missing, or points that cross themselves, in words.

    References
    ----------
    Geometry; areas by shapely.
    """
    x, y = (*outline.centre, 0.0, 0.0)[:2]
    shape = OutlineShape(outline.shape)
    if shape is OutlineShape.POLYGON:
        pairs = np.array(outline.points, dtype=float)
        if len(pairs) < 6 or len(pairs) % 2:
            raise Refused("the outline of {} needs three points at least, x and y of each", outline.port)
        curve = pairs.reshape(-1, 2) + np.array([x, y])
    else:
        width = outline.width
        height = width if shape is OutlineShape.ROUND else outline.height
        if width is None or height is None:
            raise Refused("the outline of {} needs its width and height", outline.port)
        curve = _curve(shape, width, height, outline.corner) + np.array([x, y])
    found = Polygon(curve)
    if not found.is_valid or found.area <= 0:
        raise Refused("the outline of {} crosses itself", outline.port)
    return Polygon(found.exterior if found.exterior.is_ccw else list(found.exterior.coords)[::-1])


def _curve(shape: OutlineShape, width: float, height: float, corner: tuple[float, ...]) -> Array:
    """Points about the middle, counter-clockwise, shape (n, 2)."""
    if shape is OutlineShape.ROUND:
        return _arc(0.0, 0.0, width / 2, 0.0, 2 * np.pi)[:-1]
    if shape is OutlineShape.OVAL:
        t = np.linspace(0, 2 * np.pi, 2 * ROUND, endpoint=False)
        c, s = np.cos(t), np.sin(t)
        power = 2 / OVAL
        return np.column_stack(
            [width / 2 * np.sign(c) * np.abs(c) ** power, height / 2 * np.sign(s) * np.abs(s) ** power]
        )
    if shape is OutlineShape.D:
        if height < width / 2:
            raise Refused("a D is at least half as high as it is wide")
        top = _arc(0.0, height / 2 - width / 2, width / 2, 0.0, np.pi)
        return np.vstack([top, [[-width / 2, -height / 2], [width / 2, -height / 2]]])
    radii = corner if len(corner) == 4 else (corner[0] if corner else 0.0,) * 4
    most = min(width, height) / 2
    if any(r > most + 1e-9 for r in radii):
        raise Refused("a corner's radius is at most half of the opening's smaller side")
    # From the roof's left on clockwise as typed; the curve runs counter-clockwise from the roof's right.
    roof_left, roof_right, floor_right, floor_left = radii
    parts = []
    for sx, sy, r, start in ((1, 1, roof_right, 0.0), (-1, 1, roof_left, 0.5), (-1, -1, floor_left, 1.0),
                             (1, -1, floor_right, 1.5)):  # fmt: skip
        parts.append(_arc(sx * (width / 2 - r), sy * (height / 2 - r), r, start * np.pi, (start + 0.5) * np.pi))
    return np.vstack(parts)


def _arc(x: float, y: float, radius: float, start: float, end: float) -> Array:
    if radius == 0:
        return np.array([[x, y]])
    n = max(int(ROUND * (end - start) / (2 * np.pi)), 6) + 1
    t = np.linspace(start, end, n)
    return np.column_stack([x + radius * np.cos(t), y + radius * np.sin(t)])

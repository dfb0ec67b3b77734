"""Where labels go beside their points so that none lies over another label or point."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Final, NamedTuple

import numpy as np

from ventrix.core.quantity.arrays import Array

# Tried in this order: right, left, below right, above right, below left, above left, below, above.
_SIDES: Final = ((1, 0), (-1, 0), (1, 1), (1, -1), (-1, 1), (-1, -1), (0, 1), (0, -1))


class Box(NamedTuple):
    """A rectangle [px]."""

    left: float
    top: float
    width: float
    height: float


def place_labels(points: Array, widths: Sequence[float], height: float, field: Box, dot: float) -> list[Box | None]:
    """A free place beside each point for its label.

    Parameters
    ----------
    points : ndarray
        Where the points are [px], shape (n, 2). Those that come first have the first choice.
    widths : sequence of float
        Of the labels [px].
    height : float
        Of every label [px].
    field : Box
        What labels stay inside.
    dot : float
        Radius kept clear around every point [px].

    Returns
    -------
    list of Box or None
        None where there is no free place: the point stands alone.
    """
    count = len(widths)
    sides = np.array(_SIDES, dtype=float)
    beside = sides[:, 0] != 0
    taken = np.empty((2 * count, 4))  # left, top, right, bottom
    taken[:count, 0:2], taken[:count, 2:4] = points - dot, points + dot
    used = count
    found: list[Box | None] = []
    for (x, y), wide in zip(points, widths, strict=True):
        left = x + sides[:, 0] * (dot + 3) - wide * (1 - sides[:, 0]) / 2
        top = y + sides[:, 1] * np.where(beside, 0.8 * height, dot + 2 + height / 2) - height / 2
        right, bottom = left + wide, top + height
        inside = (left >= field.left) & (top >= field.top)
        inside &= (right <= field.left + field.width) & (bottom <= field.top + field.height)
        rows = taken[:used, :, None]
        over = (rows[:, 0] < right) & (rows[:, 2] > left) & (rows[:, 1] < bottom) & (rows[:, 3] > top)
        free = np.flatnonzero(inside & ~over.any(axis=0))
        if len(free) == 0:
            found.append(None)
            continue
        i = free[0]
        taken[used] = left[i], top[i], right[i], bottom[i]
        used += 1
        found.append(Box(float(left[i]), float(top[i]), float(wide), float(height)))
    return found

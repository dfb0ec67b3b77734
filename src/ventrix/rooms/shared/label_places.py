"""Where labels go beside their points so that none lies over another label or point."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Final, NamedTuple

import numpy as np
from numpy.typing import NDArray

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
    low, high = _candidates(np.asarray(points, dtype=float).reshape(-1, 2), widths, height, dot)
    edge = np.array([(field.left, field.top), (field.left + field.width, field.top + field.height)])
    open_to = ((low >= edge[0]) & (high <= edge[1])).all(axis=2)
    open_to &= ~_over(low, high, points - dot, points + dot)
    placed_low, placed_high = np.empty((len(low), 2)), np.empty((len(low), 2))
    count = 0
    found: list[Box | None] = []
    for i, wide in enumerate(widths):
        taken = _over(low[i][None], high[i][None], placed_low[:count], placed_high[:count])[0]
        free = np.flatnonzero(open_to[i] & ~taken)
        if len(free) == 0:
            found.append(None)
            continue
        side = free[0]
        placed_low[count], placed_high[count] = low[i, side], high[i, side]
        count += 1
        found.append(Box(float(low[i, side, 0]), float(low[i, side, 1]), float(wide), float(height)))
    return found


def _candidates(points: Array, widths: Sequence[float], height: float, dot: float) -> tuple[Array, Array]:
    """Upper left and lower right corners of every label at every side [px], shape (n, 8, 2) each."""
    sides = np.array(_SIDES, dtype=float)
    wide = np.asarray(widths, dtype=float)[:, None]
    left = points[:, :1] + sides[:, 0] * (dot + 3) - wide * (1 - sides[:, 0]) / 2
    down = np.where(sides[:, 0] != 0, 0.8 * height, dot + 2 + height / 2)
    top = points[:, 1:] + sides[:, 1] * down - height / 2
    return np.stack([left, top], axis=2), np.stack([left + wide, top + height], axis=2)


def _over(low: Array, high: Array, taken_low: Array, taken_high: Array) -> NDArray[np.bool_]:
    """Which boxes, corners of shape (n, 8, 2), lie over any of m taken ones, corners of shape (m, 2): shape (n, 8)."""
    across = (taken_low[:, 0] < high[..., :1]) & (taken_high[:, 0] > low[..., :1])
    down = (taken_low[:, 1] < high[..., 1:]) & (taken_high[:, 1] > low[..., 1:])
    return np.asarray((across & down).any(axis=2))

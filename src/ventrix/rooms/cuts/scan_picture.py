"""A scan seen from a side: which spot of its surface every pixel shows, and how steeply. No interface code."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property
from typing import Final, NamedTuple

import numpy as np

from ventrix.core.quantity.arrays import Array, Ints

SPOTS: Final = 40_000  # of the surface, spread evenly over it
STEP: Final = np.radians(15)  # that a key turns by


class Seen(NamedTuple):
    """A picture: which spot every pixel shows, shape (high, wide), -1 for none; and where a point of the file lies in
    it: the turn, what is in the middle, and pixels to its unit."""

    spot: Ints
    turn: Array
    middle: Array
    scale: float

    def place(self, point: Array) -> tuple[float, float]:
        """Where a point lies in the picture [px]."""
        x, y, _ = self.turn @ (point - self.middle)
        high, wide = self.spot.shape
        return wide / 2 + self.scale * float(x), high / 2 - self.scale * float(y)


@dataclass(frozen=True)
class ScanPicture:
    """Spots of a surface with their normals, shapes (n, 3), in the file's own coordinates."""

    spots: Array
    normals: Array

    @cached_property
    def axes(self) -> Array:
        """Along the port, up and across, shape (3, 3): the longest and the next of the surface's extents."""
        found = np.linalg.svd(self.spots - self.spots.mean(axis=0), full_matrices=False)[2]
        return np.array([found[0], found[1], np.cross(found[0], found[1])])

    @cached_property
    def size(self) -> float:
        """Of the ball that it turns in, in the file's unit."""
        return 2 * float(np.linalg.norm(self.spots - self.middle, axis=1).max())

    @cached_property
    def middle(self) -> Array:
        return np.asarray((self.spots.max(axis=0) + self.spots.min(axis=0)) / 2)

    def sides(self) -> dict[str, Array]:
        """Turns, rows across, up and towards who looks: from a side, from above, and on either end."""
        along, up, across = self.axes
        return {
            "from the side": np.array([along, up, across]),
            "from above": np.array([along, -across, up]),
            "on one end": np.array([across, up, -along]),
            "on the other": np.array([-across, up, along]),
        }

    def seen(self, turn: Array, wide: int, high: int) -> Seen:
        """The picture from a side: of spots on one pixel the nearest is seen."""
        scale = 0.96 * min(wide, high * 1.6) / self.size
        x, y, near = turn @ (self.spots - self.middle).T
        column = np.rint(wide / 2 + scale * x).astype(int)
        row = np.rint(high / 2 - scale * y).astype(int)
        rank = np.empty(len(self.spots), dtype=int)
        order = np.argsort(near)
        rank[order] = np.arange(len(order))
        shown = np.full((high + 2, wide + 2), -1)
        for down in (-1, 0, 1):
            for right in (-1, 0, 1):
                i, j = row + down + 1, column + right + 1
                inside = (i >= 0) & (i < high + 2) & (j >= 0) & (j < wide + 2)
                np.maximum.at(shown, (i[inside], j[inside]), rank[inside])
        shown = shown[1:-1, 1:-1]
        return Seen(np.where(shown >= 0, order[shown], -1), turn, self.middle, scale)

    def light(self, seen: Seen) -> Array:
        """How squarely every pixel's spot faces who looks, 0 to 1, shape (high, wide)."""
        return np.asarray(np.abs(self.normals @ seen.turn[2])[seen.spot])


def picture_of(points: Array, faces: Ints) -> ScanPicture:
    """A mesh as spots spread over its surface by area: as many for a coarse mesh as for a fine one."""
    a, b, c = (points[faces[:, i]] for i in range(3))
    cross = np.cross(b - a, c - a)
    areas = np.linalg.norm(cross, axis=1)
    random = np.random.default_rng(4)
    ends = np.cumsum(areas)
    # Even steps over the surface, each a little off: no stripes, and no bare patches.
    at = (np.arange(SPOTS) + random.random(SPOTS)) / SPOTS * ends[-1]
    chosen = np.minimum(np.searchsorted(ends, at), len(faces) - 1)
    u, v = random.random((2, SPOTS))
    over = u + v > 1
    u[over], v[over] = 1 - u[over], 1 - v[over]
    spots = a[chosen] + u[:, None] * (b - a)[chosen] + v[:, None] * (c - a)[chosen]
    normals = cross[chosen] / np.maximum(areas[chosen], 1e-300)[:, None]
    return ScanPicture(spots, normals)


def turned(turn: Array, right: float, down: float) -> Array:
    """A turn after a drag: to the right about the picture's upright, down about its level [rad]."""
    c, s = np.cos(right), np.sin(right)
    about_up = np.array([[c, 0, s], [0, 1, 0], [-s, 0, c]])
    c, s = np.cos(down), np.sin(down)
    about_level = np.array([[1, 0, 0], [0, c, -s], [0, s, c]])
    return np.asarray(about_level @ about_up @ turn)

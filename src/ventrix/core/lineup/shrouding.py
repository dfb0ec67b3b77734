"""How near the bore or the chamber's wall stands to a valve: round the clock, and the share of its curtain that is too
close at a lift."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import ArrayLike
from shapely.geometry import LineString, Point, Polygon

from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.refused import Refused

AROUND: Final = 360
FAR: Final = 0.5  # m: how far out a ray looks


def needed_gap(radius: float, lift: ArrayLike) -> Array:
    """The least gap between a valve's edge and a wall that does not limit its curtain at a lift.

    .. math:: (r + g)^2 - r^2 = 2 r L

    Parameters
    ----------
    radius : float
        Of the valve's head [m].
    lift : array_like
        [m].

    Returns
    -------
    ndarray
        Gap [m]: the ring outside the valve passes as much as its curtain there.

    Raises
    ------
    ValueError
        A radius not above zero, or a lift below it.

    References
    ----------
    Geometry: area of the ring against that of the curtain, angle by angle.
    """
    x = np.asarray(lift, dtype=float)
    if radius <= 0 or np.any(x < 0):
        raise Refused("a valve has a radius, and lifts from zero up")
    return np.asarray(np.sqrt(radius**2 + 2 * radius * x) - radius)


@dataclass(frozen=True, slots=True)
class Shroud:
    """Gap from the valve's edge to what is nearest at each angle [m] and which wall that is, both of shape (360,),
    counter-clockwise from x; and the share of the curtain that is too close at lifts, shape (n,)."""

    angle: Array
    gap: Array
    nearest: Array
    lift: Array
    share: Array


def shrouding(centre: tuple[float, float], radius: float, walls: Sequence[Polygon], lift: ArrayLike) -> Shroud:
    """How a valve is shrouded by the walls around it: the nearest counts, angle by angle.

    Parameters
    ----------
    centre : tuple of float
        Of the valve [m].
    radius : float
        Of its head [m].
    walls : sequence of Polygon
        Bore and chamber outline [m], one at least.
    lift : array_like
        Lifts [m], shape (n,).

    Returns
    -------
    Shroud

    Raises
    ------
    ValueError
        No wall, or the valve's middle lies outside one.

    References
    ----------
    `needed_gap`, angle by angle.
    """
    x, y = centre
    if not walls:
        raise Refused("shrouding needs a wall: the bore, or the chamber's outline")
    if not all(wall.contains(Point(x, y)) for wall in walls):
        raise Refused("the valve is outside the chamber")
    angle = np.linspace(0, 2 * np.pi, AROUND, endpoint=False)
    gaps = np.empty((len(walls), AROUND))
    for i, a in enumerate(angle):
        ray = LineString([(x, y), (x + FAR * np.cos(a), y + FAR * np.sin(a))])
        for k, wall in enumerate(walls):
            gaps[k, i] = ray.intersection(wall.exterior).distance(Point(x, y)) - radius
    gap = gaps.min(axis=0)
    lifts = np.atleast_1d(np.asarray(lift, dtype=float))
    needed = needed_gap(radius, lifts)
    share = np.array([float(np.mean(gap < n - 1e-9)) for n in needed])
    return Shroud(angle, gap, gaps.argmin(axis=0), lifts, share)

"""How near the bore or the chamber's wall stands to a valve: round the clock, and the share of its curtain that is too
close at a lift."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import ArrayLike
from shapely.geometry import LineString, Point, Polygon

from ventrix.core.quantity.arrays import Array

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
        raise ValueError("a valve has a radius, and lifts from zero up")
    return np.asarray(np.sqrt(radius**2 + 2 * radius * x) - radius)


@dataclass(frozen=True, slots=True)
class Shroud:
    """Gap from the valve's edge to what is nearest at each angle [m], shape (360,), counter-clockwise from x; and the
    share of the curtain that is too close at lifts, shape (n,)."""

    angle: Array
    gap: Array
    lift: Array
    share: Array


def shrouding(centre: tuple[float, float], radius: float, wall: Polygon, lift: ArrayLike) -> Shroud:
    """How a valve is shrouded by a wall around it.

    Parameters
    ----------
    centre : tuple of float
        Of the valve [m].
    radius : float
        Of its head [m].
    wall : Polygon
        Bore or chamber outline [m].
    lift : array_like
        Lifts [m], shape (n,).

    Returns
    -------
    Shroud

    Raises
    ------
    ValueError
        The valve's middle lies outside the wall.

    References
    ----------
    `needed_gap`, angle by angle.
    """
    x, y = centre
    if not wall.contains(Point(x, y)):
        raise ValueError("the valve stands outside the chamber")
    angle = np.linspace(0, 2 * np.pi, AROUND, endpoint=False)
    ring = wall.exterior
    gap = np.empty(AROUND)
    for i, a in enumerate(angle):
        ray = LineString([(x, y), (x + FAR * np.cos(a), y + FAR * np.sin(a))])
        gap[i] = ray.intersection(ring).distance(Point(x, y)) - radius
    lifts = np.atleast_1d(np.asarray(lift, dtype=float))
    needed = needed_gap(radius, lifts)
    share = np.array([float(np.mean(gap < n - 1e-9)) for n in needed])
    return Shroud(angle, gap, lifts, share)

"""Seats before and after: width lost, what a recut would need. All SI."""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike

from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.limits import not_negative, positive
from ventrix.core.quantity.refused import Refused
from ventrix.words import tr


def seat_width_lost(width_before: ArrayLike, width_after: ArrayLike) -> Array:
    """Share of the seat's face that is gone [-]; negative where it grew.

    Parameters
    ----------
    width_before, width_after : array_like
        Along the face [m].

    Returns
    -------
    ndarray
        1 - after/before [-].

    Raises
    ------
    ValueError
        A width before not above zero, or a width after below zero.

    References
    ----------
    Definition.
    """
    before = positive(width_before, tr("seat width before"))
    return np.asarray(1 - not_negative(width_after, tr("seat width after")) / before)


def recut_depth(
    width_now: ArrayLike, width_wanted: ArrayLike, seat_angle: ArrayLike, top_angle: ArrayLike = 0.0
) -> Array:
    """How far a recut sinks the valve to give the face its width again.

    .. math:: d = (w_{wanted} - w_{now}) \\frac{\\sin(\\beta - \\tau)}{\\cos\\tau}

    Cutting the cone of angle beta deeper by d along the stem moves its outer edge out along the face above it, which
    lies at the angle tau of the top cut (nought: a flat chamber, where d = w sin beta).

    Parameters
    ----------
    width_now, width_wanted : array_like
        Along the face [m].
    seat_angle, top_angle : array_like
        From the plane square to the stem [rad].

    Returns
    -------
    ndarray
        Depth along the stem [m], nought where the face is wide enough.

    Raises
    ------
    ValueError
        A wanted width not above zero, an angle outside 0-90 degrees, or a top cut not shallower than the seat.

    References
    ----------
    Geometry.
    """
    angle, top = np.asarray(seat_angle, dtype=float), np.asarray(top_angle, dtype=float)
    if np.any((angle <= 0) | (angle >= np.pi / 2)):
        raise Refused("seat angle must lie between 0 and 90 degrees")
    if np.any((top < 0) | (top >= angle)):
        raise Refused("the top cut must be shallower than the seat")
    short = positive(width_wanted, tr("seat width wanted")) - not_negative(width_now, tr("seat width now"))
    return np.asarray(np.maximum(short, 0.0) * np.sin(angle - top) / np.cos(top))

"""Valve, seat and throat: areas and the ratios the trade speaks in.

All SI: lengths [m], areas [m2], angles [rad]. Sources are numbered as in ``docs/sources.md``.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike, NDArray

from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.limits import not_negative, positive
from ventrix.core.quantity.refused import Refused
from ventrix.words import tr

STAGES = ("seat", "curtain", "throat")


def _count(valves: ArrayLike) -> Array:
    array = np.asarray(valves, dtype=float)
    if np.any(array < 1) or np.any(array != np.round(array)):
        raise Refused("the number of valves must be a whole number from 1")
    return array


def _times(valves: Array, one: Array) -> Array:
    """`one` valve's area times their number; a single valve costs nothing."""
    return one if valves.ndim == 0 and valves == 1 else np.asarray(valves * one)


def curtain_area(valve_diameter: ArrayLike, lift: ArrayLike, valves: ArrayLike = 1) -> Array:
    """Area of the cylinder between valve edge and seat, n pi D L.

    Parameters
    ----------
    valve_diameter : array_like
        Valve head diameter [m].
    lift : array_like
        Lift from seat contact [m].
    valves : array_like
        Number of equal valves [-].

    Returns
    -------
    ndarray
        Area [m2].

    Raises
    ------
    ValueError
        Diameter not above zero, lift negative.

    References
    ----------
    [3] Heywood (1988), section 6.3.2.
    """
    return np.asarray(
        _count(valves) * np.pi * positive(valve_diameter, tr("valve diameter")) * not_negative(lift, "lift")
    )


def lift_ratio(lift: ArrayLike, valve_diameter: ArrayLike) -> Array:
    """Lift over valve diameter, L/D [-].

    Parameters
    ----------
    lift, valve_diameter : array_like
        [m].

    Returns
    -------
    ndarray
        Ratio [-]. At 0.25 the curtain equals the valve head's own area.

    Raises
    ------
    ValueError
        Diameter not above zero, lift negative.

    References
    ----------
    Geometry.
    """
    return np.asarray(not_negative(lift, "lift") / positive(valve_diameter, tr("valve diameter")))


def valve_head_area(valve_diameter: ArrayLike, valves: ArrayLike = 1) -> Array:
    """Area of the valve heads, n pi D^2 / 4.

    Parameters
    ----------
    valve_diameter : array_like
        [m].
    valves : array_like
        Number of equal valves.

    Returns
    -------
    ndarray
        Area [m2].

    Raises
    ------
    ValueError
        A diameter not above zero.

    References
    ----------
    Geometry.
    """
    return np.asarray(_count(valves) * np.pi / 4 * positive(valve_diameter, tr("valve diameter")) ** 2)


@dataclass(frozen=True, slots=True)
class FlowArea:
    """Least geometric area under a valve [m2], and which part of the valve sets it."""

    area: Array
    on_seat: NDArray[np.bool_]
    at_throat: NDArray[np.bool_]
    notes: tuple[str, ...] = ()

    @property
    def stage(self) -> NDArray[np.int64]:
        """1 seat, 2 curtain, 3 throat; shape of `area`."""
        return np.where(self.at_throat, 3, np.where(self.on_seat, 1, 2)).astype(np.int64)


def seat_opening_area(
    valve_diameter: ArrayLike, seat_width: ArrayLike, seat_angle: ArrayLike, lift: ArrayLike, valves: ArrayLike = 1
) -> Array:
    """Area between valve and seat alone, before the throat limits it: stages 1 and 2 of `valve_flow_area`.

    Parameters
    ----------
    valve_diameter, seat_width : array_like
        Seat's outer diameter and width along the face [m].
    seat_angle : array_like
        From the plane square to the stem [rad].
    lift : array_like
        Lift [m].
    valves : array_like
        Number of equal valves.

    Returns
    -------
    ndarray
        Area [m2].

    Raises
    ------
    ValueError
        As `valve_flow_area`.

    References
    ----------
    [3] Heywood (1988), section 6.3.1, eqs. 6.7-6.8.
    """
    return np.asarray(_count(valves) * _opening(valve_diameter, seat_width, seat_angle, lift)[0])


def _opening(
    valve_diameter: ArrayLike, seat_width: ArrayLike, seat_angle: ArrayLike, lift: ArrayLike
) -> tuple[Array, NDArray[np.bool_]]:
    """Stages 1 and 2 for one valve: area [m2], and where the seat itself sets it."""
    dv = positive(valve_diameter, tr("valve diameter"))
    face = positive(seat_width, tr("seat width"))
    beta = np.asarray(seat_angle, dtype=float)
    x = not_negative(lift, "lift")
    if np.any((beta <= 0) | (beta >= np.pi / 2)):
        raise Refused("seat angle must lie between 0 and 90 degrees")
    w = face * np.cos(beta)
    if np.any(dv <= 2 * w):
        raise Refused("the seat is too wide for this valve: twice its radial width reaches the middle")
    seat = np.pi * x * np.cos(beta) * (dv - 2 * w + x / 2 * np.sin(2 * beta))
    beyond = x - w * np.tan(beta)
    curtain = np.pi * (dv - w) * np.sqrt(beyond * beyond + w * w)
    on_seat = np.asarray(x < w / (np.sin(beta) * np.cos(beta)))
    return np.where(on_seat, seat, curtain), on_seat


def valve_flow_area(
    valve_diameter: ArrayLike,
    seat_width: ArrayLike,
    seat_angle: ArrayLike,
    throat_diameter: ArrayLike,
    stem_diameter: ArrayLike,
    lift: ArrayLike,
    valves: ArrayLike = 1,
) -> FlowArea:
    """Least geometric flow area of a poppet valve, in three stages.

    .. math::
        A_1 &= \\pi L \\cos\\beta (D_v - 2w + \\tfrac{L}{2}\\sin 2\\beta),
            \\quad L < w/(\\sin\\beta\\cos\\beta) \\\\
        A_2 &= \\pi D_m \\sqrt{(L - w\\tan\\beta)^2 + w^2} \\\\
        A_3 &= \\tfrac{\\pi}{4}(D_p^2 - D_s^2)

    Parameters
    ----------
    valve_diameter : array_like
        Seat's outer diameter Dv, the valve head's where the head does not overhang [m].
    seat_width : array_like
        Width measured along the seat face, as the trade does [m]; w = width cos(beta).
    seat_angle : array_like
        beta, from the plane square to the stem [rad].
    throat_diameter, stem_diameter : array_like
        Dp, Ds [m].
    lift : array_like
        Lift [m].
    valves : array_like
        Number of equal valves.

    Returns
    -------
    FlowArea
        Area [m2] and stage (1 seat, 2 curtain, 3 throat), broadcast shape of the inputs.

    Raises
    ------
    ValueError
        Seat wider than the valve carries, angle outside 0-90 degrees, a stem not smaller than its
        throat, a throat not smaller than its valve.

    References
    ----------
    [3] Heywood (1988), section 6.3.1, eqs. 6.7-6.9.
    """
    n = _count(valves)
    opening, on_seat = _opening(valve_diameter, seat_width, seat_angle, lift)
    dv = np.asarray(valve_diameter, dtype=float)
    dp = positive(throat_diameter, tr("throat diameter"))
    ds = not_negative(stem_diameter, tr("stem diameter"))
    if np.any(ds >= dp):
        raise Refused("the stem must be smaller than the throat")
    if np.any(dp >= dv):
        raise Refused("the throat must be smaller than the valve")
    throat = np.pi / 4 * (dp**2 - ds**2)
    area = np.minimum(opening, throat)
    inner = dv - 2 * np.asarray(seat_width, dtype=float) * np.cos(np.asarray(seat_angle, dtype=float))
    notes = (tr("the throat is wider than the seat's inner edge: check both"),) if np.any(dp > inner) else ()
    return FlowArea(_times(n, area), np.asarray(on_seat), np.asarray(throat < opening), notes)


def throat_ratio(valve_diameter: ArrayLike, throat_diameter: ArrayLike) -> Array:
    """Throat over valve diameter [-], the trade's throat percent.

    Parameters
    ----------
    valve_diameter, throat_diameter : array_like
        [m].

    Returns
    -------
    ndarray
        Ratio [-].

    Raises
    ------
    ValueError
        Diameters not above zero.

    References
    ----------
    Common practice, no source: 1.77 under 2.02 is "88 percent"; a bowl is about 101 percent.
    """
    return np.asarray(positive(throat_diameter, tr("throat diameter")) / positive(valve_diameter, tr("valve diameter")))


def throat_area(throat_diameter: ArrayLike, stem_diameter: ArrayLike = 0.0, valves: ArrayLike = 1) -> Array:
    """Area of the throat less the stem, n pi/4 (Dt^2 - Ds^2).

    Parameters
    ----------
    throat_diameter, stem_diameter : array_like
        [m].
    valves : array_like
        Number of equal throats.

    Returns
    -------
    ndarray
        Area [m2].

    Raises
    ------
    ValueError
        A stem not smaller than its throat.

    References
    ----------
    Geometry.
    """
    dt = positive(throat_diameter, tr("throat diameter"))
    ds = np.asarray(stem_diameter, dtype=float)
    if np.any(ds < 0):
        raise Refused("stem diameter cannot be negative")
    if np.any(ds >= dt):
        raise Refused("the stem must be smaller than the throat")
    return np.asarray(_count(valves) * np.pi / 4 * (dt**2 - ds**2))


def seat_throat(
    valve_diameter: ArrayLike, seat_width: ArrayLike, seat_angle: ArrayLike, margin: ArrayLike = 0.0
) -> Array:
    """Largest throat that leaves the whole seat, Dv - 2 (margin + width cos beta).

    Parameters
    ----------
    valve_diameter : array_like
        Valve head diameter [m].
    seat_width : array_like
        Width along the face [m].
    seat_angle : array_like
        From the plane square to the stem [rad].
    margin : array_like
        How far the seat's outer edge stands in from the valve's, radially [m].

    Returns
    -------
    ndarray
        Throat diameter [m].

    Raises
    ------
    ValueError
        Where nothing is left for a throat, or the angle is outside 0-90 degrees.

    References
    ----------
    Geometry.
    """
    dv = positive(valve_diameter, tr("valve diameter"))
    beta = np.asarray(seat_angle, dtype=float)
    m = np.asarray(margin, dtype=float)
    if np.any((beta <= 0) | (beta >= np.pi / 2)):
        raise Refused("seat angle must lie between 0 and 90 degrees")
    if np.any(m < 0):
        raise Refused("margin cannot be negative")
    throat = dv - 2 * (m + positive(seat_width, tr("seat width")) * np.cos(beta))
    if np.any(throat <= 0):
        raise Refused("the seat leaves no room for a throat")
    return np.asarray(throat)

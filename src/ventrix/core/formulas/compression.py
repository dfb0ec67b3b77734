"""Compression, and what milling does to chamber and intake face."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np
from numpy.typing import ArrayLike

from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.limits import not_negative, positive
from ventrix.core.quantity.refused import Refused
from ventrix.words import tr


def compression_ratio(
    bore: ArrayLike,
    stroke: ArrayLike,
    chamber: ArrayLike,
    gasket_bore: ArrayLike,
    gasket_thickness: ArrayLike,
    deck_clearance: ArrayLike = 0.0,
    piston_volume: ArrayLike = 0.0,
) -> Array:
    """Compression ratio, (swept + clearance) / clearance.

    Parameters
    ----------
    bore, stroke : array_like
        [m].
    chamber : array_like
        [m3].
    gasket_bore, gasket_thickness, deck_clearance : array_like
        [m]; deck clearance is negative where the piston stands proud.
    piston_volume : array_like
        [m3]; a dish is positive, a dome negative.

    Returns
    -------
    ndarray
        [-].

    Raises
    ------
    ValueError
        Figures not above zero, or no clearance volume left.

    References
    ----------
    [3] Heywood (1988), section 2.2.
    """
    piston = np.pi / 4 * positive(bore, "bore") ** 2
    gasket = (
        np.pi
        / 4
        * positive(gasket_bore, tr("gasket bore")) ** 2
        * not_negative(gasket_thickness, tr("gasket thickness"))
    )
    clearance = positive(chamber, "chamber") + gasket + piston * np.asarray(deck_clearance, dtype=float)
    clearance = clearance + np.asarray(piston_volume, dtype=float)
    if np.any(clearance <= 0):
        raise Refused("no clearance volume is left")
    return np.asarray((piston * positive(stroke, "stroke") + clearance) / clearance)


def chamber_mill(chamber_before: ArrayLike, chamber_after: ArrayLike, face_area: ArrayLike) -> Array:
    """Cut off the face that takes a chamber from one volume to another, (V1 - V2) / A.

    Parameters
    ----------
    chamber_before, chamber_after : array_like
        [m3].
    face_area : array_like
        Area of the chamber at the face [m2].

    Returns
    -------
    ndarray
        Cut [m].

    Raises
    ------
    ValueError
        A chamber that would grow, or figures not above zero.

    References
    ----------
    Geometry of a chamber with upright walls near the face.
    """
    taken = positive(chamber_before, tr("chamber before")) - positive(chamber_after, tr("chamber after"))
    if np.any(taken < 0):
        raise Refused("milling makes a chamber smaller, not larger")
    return np.asarray(taken / positive(face_area, tr("face area")))


def chamber_after_mill(chamber_before: ArrayLike, cut: ArrayLike, face_area: ArrayLike) -> Array:
    """Chamber left after a cut off the face: the reverse of `chamber_mill`.

    Parameters
    ----------
    chamber_before : array_like
        [m3].
    cut : array_like
        [m].
    face_area : array_like
        Area of the chamber at the face [m2].

    Returns
    -------
    ndarray
        Volume [m3].

    Raises
    ------
    ValueError
        Nothing would be left, or figures not above zero.

    References
    ----------
    As `chamber_mill`.
    """
    left = positive(chamber_before, tr("chamber before")) - not_negative(cut, "cut") * positive(
        face_area, tr("face area")
    )
    if np.any(left <= 0):
        raise Refused("nothing of the chamber would be left")
    return np.asarray(left)


class IntakeFace(NamedTuple):
    """What comes off the intake face and off the valley of a V engine [m]."""

    face_cut: Array
    valley_cut: Array


def intake_face(deck_cut: ArrayLike, face_angle: ArrayLike, bank_half_angle: ArrayLike = np.pi / 4) -> IntakeFace:
    """What a V engine's intake face and valley need after its heads came down.

    .. math:: face = x \\sin a / \\cos(a + e), \\quad valley = x \\cos e / \\cos(a + e)

    Parameters
    ----------
    deck_cut : array_like
        Sum of head, deck and gasket changes [m].
    face_angle : array_like
        e: lean of the intake face past square [rad], positive where it lies flatter.
    bank_half_angle : array_like
        a [rad].

    Returns
    -------
    IntakeFace
        Both cuts [m].

    Raises
    ------
    ValueError
        Angles that add up to 90 degrees or more.

    References
    ----------
    Geometry; machine-shop table (common practice) for 45 degree halves.
    """
    a, e = np.asarray(bank_half_angle, dtype=float), np.asarray(face_angle, dtype=float)
    if np.any(a + e >= np.pi / 2 - 1e-12) or np.any(a <= 0):
        raise Refused("bank half angle and face angle must add up to less than 90 degrees")
    x = not_negative(deck_cut, tr("deck cut"))
    return IntakeFace(np.asarray(x * np.sin(a) / np.cos(a + e)), np.asarray(x * np.cos(e) / np.cos(a + e)))

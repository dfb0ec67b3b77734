"""Swirl: coefficients from a paddle or an impulse meter, and the ratio over an intake stroke.

All SI. Sign: looking down on the piston, anticlockwise is positive. Sources as in ``docs/sources.md``.
"""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike

from ventrix.core.formulas.atmosphere import REFERENCE_DENSITY
from ventrix.core.formulas.bench_flow import ideal_velocity
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.limits import positive
from ventrix.core.quantity.refused import Refused
from ventrix.words import tr


def paddle_coefficient(
    speed: ArrayLike, bore: ArrayLike, test_pressure: ArrayLike, density: ArrayLike = REFERENCE_DENSITY
) -> Array:
    """Swirl coefficient from a paddle wheel, Cs = omega B / v0, v0 = sqrt(2 dp / rho).

    Parameters
    ----------
    speed : array_like
        Of the paddle [rad/s], signed.
    bore : array_like
        [m].
    test_pressure, density : array_like
        [Pa], [kg/m3].

    Returns
    -------
    ndarray
        Cs [-], signed as the speed.

    Raises
    ------
    ValueError
        Bore, pressure or density not above zero.

    References
    ----------
    [3] Heywood (1988), section 8.3.1, eq. 8.28.
    """
    v0 = ideal_velocity(positive(test_pressure, tr("test pressure")), density)
    return np.asarray(np.asarray(speed, dtype=float) * positive(bore, "bore") / v0)


def impulse_coefficient(
    torque: ArrayLike,
    mass_flow: ArrayLike,
    bore: ArrayLike,
    test_pressure: ArrayLike,
    density: ArrayLike = REFERENCE_DENSITY,
) -> Array:
    """Swirl coefficient from an impulse (torque) meter, Cs = 8 T / (m v0 B).

    Parameters
    ----------
    torque : array_like
        [N m], signed.
    mass_flow : array_like
        [kg/s].
    bore : array_like
        [m].
    test_pressure, density : array_like
        [Pa], [kg/m3].

    Returns
    -------
    ndarray
        Cs [-], signed as the torque.

    Raises
    ------
    ValueError
        Mass flow, bore, pressure or density not above zero.

    References
    ----------
    [3] Heywood (1988), section 8.3.1, eq. 8.29.
    """
    v0 = ideal_velocity(positive(test_pressure, tr("test pressure")), density)
    below = positive(mass_flow, tr("mass flow")) * v0 * positive(bore, "bore")
    return np.asarray(8 * np.asarray(torque, dtype=float) / below)


def swirl_ratio(
    angle: ArrayLike,
    coefficient: ArrayLike,
    effective_area: ArrayLike,
    bore: float,
    stroke: float,
    volumetric_efficiency: float = 1.0,
) -> float:
    """Swirl ratio at the end of the intake stroke, from conservation of angular momentum.

    .. math:: R_s = \\eta_v \\frac{\\pi}{4} B S
              \\frac{\\int C_s A_f \\, d\\theta}{\\left(\\int A_f \\, d\\theta\\right)^2}

    Parameters
    ----------
    angle : array_like
        Crank angle from intake opening to closing [rad], rising, shape (n,).
    coefficient : array_like
        Swirl coefficient at each angle [-], shape (n,).
    effective_area : array_like
        Cd A at each angle [m2], shape (n,).
    bore, stroke : float
        [m].
    volumetric_efficiency : float
        [-].

    Returns
    -------
    float
        Rs: air's turns a turn of the crank [-], signed.

    Raises
    ------
    ValueError
        Angles that do not rise, an area below zero, or no area at all.

    References
    ----------
    [3] Heywood (1988), section 8.3.1; derived for a constant pressure drop in this project's formula book.
    """
    theta = np.asarray(angle, dtype=float)
    area = np.asarray(effective_area, dtype=float)
    if len(theta) < 2 or np.any(np.diff(theta) <= 0):
        raise Refused("crank angles must rise")
    if np.any(area < 0):
        raise Refused("effective area cannot be negative")
    whole = float(np.trapezoid(area, theta))
    if whole <= 0:
        raise Refused("the valve never opens: there is no effective area")
    turned = float(np.trapezoid(np.asarray(coefficient, dtype=float) * area, theta))
    size = float(positive(bore, "bore") * positive(stroke, "stroke"))
    return float(positive(volumetric_efficiency, tr("volumetric efficiency"))) * np.pi / 4 * size * turned / whole**2


def reference_speed(speed: ArrayLike, measured_at: ArrayLike, density: ArrayLike, wanted_at: ArrayLike) -> Array:
    """Paddle speed as it would be at a nominal pressure in reference air.

    .. math:: \\omega_{ref} = \\omega\\, v_0(\\Delta p_{nominal}, 1.225) / v_0(\\Delta p, \\rho)

    Parameters
    ----------
    speed : array_like
        As it was read [rad/s], signed.
    measured_at : array_like
        Pressure drop at the reading [Pa].
    density : array_like
        Of the air entering the test piece [kg/m3].
    wanted_at : array_like
        Nominal pressure drop [Pa].

    Returns
    -------
    ndarray
        [rad/s].

    Raises
    ------
    ValueError
        A pressure or density not above zero.

    References
    ----------
    The swirl coefficient of [3] Heywood (1988), section 8.3.1, does not depend on pressure or air.
    """
    had = ideal_velocity(positive(measured_at, tr("measured pressure")), positive(density, "density"))
    wanted = ideal_velocity(positive(wanted_at, tr("wanted pressure")))
    return np.asarray(np.asarray(speed, dtype=float) * wanted / had)


def torque_speed(
    torque: ArrayLike,
    mass_flow: ArrayLike,
    bore: float,
    measured_at: ArrayLike,
    density: ArrayLike,
    wanted_at: float,
) -> Array:
    """Speed at which a paddle would show an impulse meter's torque, at nominal pressure in reference air.

    Parameters
    ----------
    torque : array_like
        [N m], signed.
    mass_flow : array_like
        Corrected mass flow of the same reading [kg/s].
    bore : float
        [m].
    measured_at, density : array_like
        Pressure drop [Pa] and density of the air entering [kg/m3] at the reading.
    wanted_at : float
        Nominal pressure drop [Pa].

    Returns
    -------
    ndarray
        omega = Cs v0 / B [rad/s].

    Raises
    ------
    ValueError
        As `impulse_coefficient`.

    References
    ----------
    Both coefficients of [3] Heywood (1988), section 8.3.1, made equal.
    """
    coefficient = impulse_coefficient(torque, mass_flow, bore, measured_at, density)
    return np.asarray(coefficient * ideal_velocity(positive(wanted_at, tr("wanted pressure"))) / bore)

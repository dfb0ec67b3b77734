"""Swirl: coefficients from a paddle or an impulse meter, and the ratio over an intake stroke.

All SI. Sign: looking down on the piston, anticlockwise is positive. Sources as in ``docs/sources.md``.
"""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike

from ventrix.core.air import REFERENCE_DENSITY, Array
from ventrix.core.bench_flow import ideal_velocity
from ventrix.core.checks import positive


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
    [3] Heywood (1988), section 8.3.1, eq. 8.28 (numbers from memory).
    """
    v0 = ideal_velocity(positive(test_pressure, "test pressure"), density)
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
    [3] Heywood (1988), section 8.3.1, eq. 8.29 (numbers from memory).
    """
    v0 = ideal_velocity(positive(test_pressure, "test pressure"), density)
    below = positive(mass_flow, "mass flow") * v0 * positive(bore, "bore")
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
        raise ValueError("crank angles must rise")
    if np.any(area < 0):
        raise ValueError("effective area cannot be negative")
    whole = float(np.trapezoid(area, theta))
    if whole <= 0:
        raise ValueError("the valve never opens: there is no effective area")
    turned = float(np.trapezoid(np.asarray(coefficient, dtype=float) * area, theta))
    size = float(positive(bore, "bore") * positive(stroke, "stroke"))
    return float(positive(volumetric_efficiency, "volumetric efficiency")) * np.pi / 4 * size * turned / whole**2


def convert_swirl(speed: ArrayLike, measured_at: ArrayLike, wanted_at: ArrayLike) -> Array:
    """Paddle speed at another test pressure, times sqrt(dp2 / dp1): a converted figure.

    Parameters
    ----------
    speed : array_like
        [rad/s].
    measured_at, wanted_at : array_like
        [Pa].

    Returns
    -------
    ndarray
        [rad/s].

    Raises
    ------
    ValueError
        A pressure not above zero.

    References
    ----------
    Paddle speed goes with the jet's speed (common practice).
    """
    ratio = positive(wanted_at, "wanted pressure") / positive(measured_at, "measured pressure")
    return np.asarray(np.asarray(speed, dtype=float) * np.sqrt(ratio))

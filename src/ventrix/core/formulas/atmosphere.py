"""Air: density, speed of sound, and the reference air that reported flow stands on.

Sources are numbered as in ``docs/sources.md``.
"""

from __future__ import annotations

from typing import Final

import numpy as np
from numpy.typing import ArrayLike

from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.refused import Refused
from ventrix.words import tr

GAMMA: Final = 1.4  # ratio of specific heats of dry air [ISO 2533]

GAS_CONSTANT: Final = 287.05  # J/(kg K), dry air [ISO 2533: 287.05287]

REFERENCE_DENSITY: Final = 1.225  # kg/m3, dry air at 15 degC and 101 325 Pa [ISO 2533]

REFERENCE_PRESSURE: Final = 101_325.0  # Pa

REFERENCE_TEMPERATURE: Final = 288.15  # K

# CIPM-2007 with the molar mass of dry air at 400 ppm CO2 [1]
_MOLAR_GAS_CONSTANT = 8.314472  # J/(mol K), the value the 2007 formula was fitted with

_CO2 = 400e-6

_MOLAR_MASS_DRY = (28.96546 + 12.011 * (_CO2 - 0.0004)) * 1e-3  # kg/mol

_MOLAR_MASS_WATER = 18.01528e-3  # kg/mol


def vapour_fraction(temperature: ArrayLike, pressure: ArrayLike, humidity: ArrayLike) -> Array:
    """Mole fraction of water vapour in moist air: what stays when the air is heated, squeezed or drawn thin.

    Parameters
    ----------
    temperature, pressure : array_like
        Where the humidity was read [K], [Pa].
    humidity : array_like
        Relative humidity there, 0 to 1 [-].

    Returns
    -------
    ndarray
        x_v [-], broadcast shape of the inputs.

    Raises
    ------
    ValueError
        Pressure not above zero, humidity outside 0 to 100 %, a temperature no shop has, or more water than air
        can hold.

    References
    ----------
    [1] Picard, Davis, Gläser, Fujii, Metrologia 45 (2008) 149-155, app. A1.2.
    """
    t, p = _air_state(temperature, pressure)
    h = np.asarray(humidity, dtype=float)
    if np.any((h < 0) | (h > 1)):
        raise Refused("relative humidity must lie between 0 and 100 %")
    tc = t - 273.15
    saturation = np.exp(1.2378847e-5 * t**2 - 1.9121316e-2 * t + 33.93711047 - 6.3431645e3 / t)
    enhancement = 1.00062 + 3.14e-8 * p + 5.6e-7 * tc**2
    x_v = h * enhancement * saturation / p
    if np.any(x_v >= 1):
        raise Refused("air cannot hold that much water at this pressure")
    return np.asarray(x_v)


def moist_air_density(temperature: ArrayLike, pressure: ArrayLike, vapour: ArrayLike = 0.0) -> Array:
    """Density of air that carries a known share of water vapour, by the CIPM-2007 formula.

    .. math:: \\rho = \\frac{p M_a}{Z R T} \\left[1 - x_v (1 - M_v/M_a)\\right]

    Parameters
    ----------
    temperature, pressure : array_like
        [K], [Pa].
    vapour : array_like
        Mole fraction of vapour, from `vapour_fraction` [-].

    Returns
    -------
    ndarray
        Density [kg/m3], broadcast shape of the inputs.

    Raises
    ------
    ValueError
        Pressure not above zero, or a temperature no shop has.

    References
    ----------
    [1] Picard, Davis, Gläser, Fujii, Metrologia 45 (2008) 149-155, eq. 1 and app. A1.
    """
    t, p = _air_state(temperature, pressure)
    x_v = np.asarray(vapour, dtype=float)
    tc = t - 273.15
    z = (
        1
        - (p / t)
        * (
            1.58123e-6
            - 2.9331e-8 * tc
            + 1.1043e-10 * tc**2
            + (5.707e-6 - 2.051e-8 * tc) * x_v
            + (1.9898e-4 - 2.376e-6 * tc) * x_v**2
        )
        + (p / t) ** 2 * (1.83e-11 - 0.765e-8 * x_v**2)
    )
    dry = p * _MOLAR_MASS_DRY / (z * _MOLAR_GAS_CONSTANT * t)
    return np.asarray(dry * (1 - x_v * (1 - _MOLAR_MASS_WATER / _MOLAR_MASS_DRY)))


def _air_state(temperature: ArrayLike, pressure: ArrayLike) -> tuple[Array, Array]:
    t, p = np.asarray(temperature, dtype=float), np.asarray(pressure, dtype=float)
    if np.any(p <= 0):
        raise Refused("barometric pressure must be above zero")
    if np.any((t < 200) | (t > 400)):
        raise Refused("air temperature must lie between -73 and 127 degC")
    return t, p


def air_density(temperature: ArrayLike, pressure: ArrayLike, humidity: ArrayLike = 0.0) -> Array:
    """Density of moist air by the CIPM-2007 formula.

    Parameters
    ----------
    temperature : array_like
        Air temperature [K].
    pressure : array_like
        Barometric pressure [Pa].
    humidity : array_like
        Relative humidity, 0 to 1 [-].

    Returns
    -------
    ndarray
        Density [kg/m3], broadcast shape of the inputs.

    Raises
    ------
    ValueError
        Pressure not above zero, humidity outside 0 to 100 %, or a temperature no shop has.

    Notes
    -----
    Stated range 600-1100 hPa and 15-27 degC; see `air_range_note`. Valid beyond it with more
    uncertainty.

    References
    ----------
    [1] Picard, Davis, Gläser, Fujii, Metrologia 45 (2008) 149-155, app. A.
    """
    return moist_air_density(temperature, pressure, vapour_fraction(temperature, pressure, humidity))


def air_range_note(temperature: float, pressure: float) -> str | None:
    """A sentence where `air_density` is used outside the formula's stated range, else None.

    Parameters: temperature [K], pressure [Pa]. Range: 600-1100 hPa, 15-27 degC [1].
    """
    if 288.15 - 1e-9 <= temperature <= 300.15 + 1e-9 and 60_000 <= pressure <= 110_000:
        return None
    return tr("outside the formula's stated range (CIPM-2007: 15 to 27 degC, 600 to 1100 hPa)")


def ideal_gas_density(temperature: ArrayLike, pressure: ArrayLike) -> Array:
    """Density of dry air as an ideal gas, p / (R T).

    Parameters
    ----------
    temperature : array_like
        [K].
    pressure : array_like
        [Pa].

    Returns
    -------
    ndarray
        Density [kg/m3].

    Raises
    ------
    ValueError
        Temperature not above zero.

    References
    ----------
    [2] ISO 2533:1975 (gas constant).
    """
    return np.asarray(np.asarray(pressure, dtype=float) / (GAS_CONSTANT * np.asarray(temperature, dtype=float)))


def speed_of_sound(temperature: ArrayLike) -> Array:
    """Speed of sound in dry air, sqrt(gamma R T).

    Parameters
    ----------
    temperature : array_like
        Air temperature [K].

    Returns
    -------
    ndarray
        Speed [m/s].

    Raises
    ------
    ValueError
        A temperature at or below absolute zero.

    References
    ----------
    [2] ISO 2533:1975, standard atmosphere: 340.294 m/s at 15 degC.
    """
    t = np.asarray(temperature, dtype=float)
    if np.any(t <= 0):
        raise Refused("temperature must be above absolute zero")
    return np.asarray(np.sqrt(GAMMA * GAS_CONSTANT * t))


def air_viscosity(temperature: ArrayLike) -> Array:
    """Dynamic viscosity of air by Sutherland's formula.

    Parameters
    ----------
    temperature : array_like
        [K].

    Returns
    -------
    ndarray
        Viscosity [Pa s].

    Raises
    ------
    ValueError
        Temperature not above zero.

    References
    ----------
    [2] ISO 2533:1975, clause 2.13.
    """
    t = np.asarray(temperature, dtype=float)
    if np.any(t <= 0):
        raise Refused("temperature must be above absolute zero")
    return np.asarray(1.458e-6 * t**1.5 / (t + 110.4))

"""What the engine asks of a port, and the sums of deck and chamber. All SI; sources in ``docs/sources.md``."""

from __future__ import annotations

from typing import Final, NamedTuple

import numpy as np
from numpy.typing import ArrayLike

from ventrix.core.formulas.atmosphere import REFERENCE_TEMPERATURE, speed_of_sound
from ventrix.core.formulas.bench_flow import convert_pressure
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.limits import positive
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import CFM, HORSEPOWER, INCH_OF_WATER
from ventrix.words import tr

MACH_INDEX_LIMIT: Final = 0.6  # volumetric efficiency falls off beyond [13]
MACH_LIMIT: Final = 0.55  # of the mean air speed at the smallest section (common practice)
POWER_COEFFICIENT: Final = 0.257  # hp a CFM at 28 inH2O a cylinder (common practice)


def horsepower_potential(
    flow: ArrayLike, test_pressure: ArrayLike, cylinders: ArrayLike, coefficient: ArrayLike = POWER_COEFFICIENT
) -> Array:
    """Ceiling of power that a head's flow allows, coefficient x CFM at 28 inH2O x cylinders.

    Parameters
    ----------
    flow : array_like
        Peak flow of one cylinder's intake [m3/s].
    test_pressure : array_like
        It was read at [Pa]; converted by sqrt(dp).
    cylinders : array_like
        [-].
    coefficient : array_like
        Horsepower a CFM at 28 inH2O [-].

    Returns
    -------
    ndarray
        Power [W]. A ceiling: the engine around the head decides what is reached.

    Raises
    ------
    ValueError
        Figures not above zero.

    References
    ----------
    Common practice, no source.
    """
    at28 = convert_pressure(positive(flow, "flow"), test_pressure, 28 * INCH_OF_WATER) / CFM
    share = positive(coefficient, "coefficient") * positive(cylinders, "cylinders")
    return np.asarray(share * at28 * HORSEPOWER)


class MachIndex(NamedTuple):
    """Taylor's inlet Mach index Z [-], and the crank speed [rad/s] at which it is 0.6."""

    z: Array
    limit_speed: Array


def mach_index(
    bore: ArrayLike,
    stroke: ArrayLike,
    speed: ArrayLike,
    valve_diameter: ArrayLike,
    mean_flow_coefficient: ArrayLike,
    valves: ArrayLike = 1,
    temperature: ArrayLike = REFERENCE_TEMPERATURE,
) -> MachIndex:
    """Inlet-valve Mach index, Z = (b/D)^2 s / (Ci a), s the mean piston speed.

    Parameters
    ----------
    bore, stroke : array_like
        [m].
    speed : array_like
        Of the crank [rad/s].
    valve_diameter : array_like
        [m].
    mean_flow_coefficient : array_like
        Ci: Cd on the valve head's area, mean over the open period [-].
    valves : array_like
        Equal inlet valves a cylinder [-].
    temperature : array_like
        Of the inlet air [K].

    Returns
    -------
    MachIndex
        Z [-] and the crank speed where it is 0.6 [rad/s].

    Raises
    ------
    ValueError
        Figures not above zero.

    References
    ----------
    [13] Taylor, The Internal-Combustion Engine in Theory and Practice, vol. 1, ch. 6.
    """
    area_ratio = (positive(bore, "bore") / positive(valve_diameter, tr("valve diameter"))) ** 2 / positive(
        valves, "valves"
    )
    piston = positive(stroke, "stroke") * positive(speed, "speed") / np.pi
    sound = positive(mean_flow_coefficient, tr("mean flow coefficient")) * speed_of_sound(temperature)
    index = area_ratio * piston / sound
    return MachIndex(np.asarray(index), np.asarray(np.asarray(speed, dtype=float) * MACH_INDEX_LIMIT / index))


def piston_speed(angle: ArrayLike, stroke: float, rod_length: float, speed: float) -> Array:
    """Speed of the piston away from the head, exact slider-crank.

    .. math:: v = r\\omega\\left(\\sin\\theta +
              \\frac{r\\sin\\theta\\cos\\theta}{\\sqrt{l^2 - r^2\\sin^2\\theta}}\\right)

    Parameters
    ----------
    angle : array_like
        Crank angle after top dead centre [rad].
    stroke, rod_length : float
        [m].
    speed : float
        Of the crank [rad/s].

    Returns
    -------
    ndarray
        [m/s], shape of `angle`.

    Raises
    ------
    ValueError
        A rod not longer than half the stroke.

    References
    ----------
    Geometry of the slider-crank; [3] Heywood (1988), section 2.2.
    """
    r = float(positive(stroke, "stroke")) / 2
    if rod_length <= r:
        raise Refused("the rod must be longer than half the stroke")
    theta = np.asarray(angle, dtype=float)
    sine, cosine = np.sin(theta), np.cos(theta)
    return np.asarray(r * speed * (sine + r * sine * cosine / np.sqrt(rod_length**2 - (r * sine) ** 2)))


class Demand(NamedTuple):
    """Air speed through an area that the piston's motion asks for: greatest and mean [m/s], Mach [-]."""

    peak_velocity: Array
    mean_velocity: Array
    peak_mach: Array


CHOKED: Final = 0.5787  # Q/(A a) of stagnation air at Mach 1, ((gamma+1)/2)^(-(gamma+1)/(2(gamma-1))) [4]


def demand_velocity(
    bore: ArrayLike,
    stroke: ArrayLike,
    rod_length: ArrayLike,
    speed: ArrayLike,
    area: ArrayLike,
    temperature: ArrayLike = REFERENCE_TEMPERATURE,
) -> Demand:
    """Air speed through an area if the air followed the piston, over the intake stroke.

    Parameters
    ----------
    bore, stroke, rod_length : array_like
        [m].
    speed : array_like
        Of the crank [rad/s].
    area : array_like
        Smallest section [m2].
    temperature : array_like
        Of the air there [K].

    Returns
    -------
    Demand
        Greatest and mean speed [m/s]; Mach number of the greatest [-].

    Raises
    ------
    ValueError
        Figures not above zero, a rod not longer than half the stroke.

    References
    ----------
    Exact slider-crank, incompressible; [3] Heywood (1988), section 2.2.
    """
    ratio = np.pi / 4 * positive(bore, "bore") ** 2 / positive(area, "area")
    crank = positive(speed, "speed")
    peak = np.vectorize(_peak_piston_speed, otypes=[float])(stroke, rod_length, crank) * ratio
    mean = np.asarray(stroke, dtype=float) * crank / np.pi * ratio
    return Demand(np.asarray(peak), np.asarray(mean), np.asarray(peak / speed_of_sound(temperature)))


def _peak_piston_speed(stroke: float, rod_length: float, speed: float) -> float:
    """Greatest piston speed [m/s], by golden search over the first half turn."""
    from scipy.optimize import minimize_scalar  # late: slow to load

    def slower(angle: float) -> float:
        return -float(piston_speed(angle, stroke, rod_length, speed))

    return -float(minimize_scalar(slower, bounds=(0.0, np.pi), method="bounded", options={"xatol": 1e-9}).fun)


def demand_area(
    bore: ArrayLike,
    stroke: ArrayLike,
    rod_length: ArrayLike,
    speed: ArrayLike,
    mach: ArrayLike = MACH_LIMIT,
    temperature: ArrayLike = REFERENCE_TEMPERATURE,
) -> Array:
    """Section at which the greatest demand velocity is a chosen Mach number.

    Parameters
    ----------
    bore, stroke, rod_length : array_like
        [m].
    speed : array_like
        Of the crank [rad/s].
    mach : array_like
        Limit [-].
    temperature : array_like
        Of the air there [K].

    Returns
    -------
    ndarray
        Area [m2].

    Raises
    ------
    ValueError
        A Mach number not between 0 and 1; otherwise as `demand_velocity`.

    References
    ----------
    As `demand_velocity`; the usual limit is common practice.
    """
    limit = np.asarray(mach, dtype=float)
    if np.any((limit <= 0) | (limit >= 1)):
        raise Refused("the Mach limit must lie between 0 and 1")
    unit = demand_velocity(bore, stroke, rod_length, speed, 1.0, temperature)
    return np.asarray(unit.peak_mach / limit)

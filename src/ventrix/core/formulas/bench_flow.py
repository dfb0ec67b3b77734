"""From what a flow bench shows to flow that can be compared: ideal flow, scales, leak, pressure.

All SI: flow [m3/s], pressure drop [Pa] as a positive number, area [m2], density [kg/m3].
Sources are numbered as in ``docs/sources.md``.
"""

from __future__ import annotations

from enum import StrEnum
from typing import Final

import numpy as np
from numpy.typing import ArrayLike

from ventrix.core.formulas.atmosphere import (
    GAMMA,
    GAS_CONSTANT,
    REFERENCE_DENSITY,
    REFERENCE_PRESSURE,
    REFERENCE_TEMPERATURE,
    ideal_gas_density,
)
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.limits import not_negative, positive
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.words import percent_text
from ventrix.words import tr

PLATE_EXPANSION: Final = 0.351  # expansibility of a sharp plate, ISO 5167-2:2003 at a diameter ratio of nought
CONVERSION_GRAIN: Final = 0.03  # |ln| of a pressure ratio up to which a conversion costs no doubt
REYNOLDS_DOUBT: Final = 0.005  # relative, times ln of the pressure ratio: a coefficient drifts with speed
PRESSURE_FLAG: Final = 0.03  # off nominal


class FlowModel(StrEnum):
    """How a pressure drop gives a speed."""

    ISENTROPIC = "isentropic"
    INCOMPRESSIBLE = "incompressible"


def ideal_velocity(pressure_drop: ArrayLike, density: ArrayLike = REFERENCE_DENSITY) -> Array:
    """Speed that a pressure drop gives to air without loss, incompressible: sqrt(2 dp / rho).

    Parameters
    ----------
    pressure_drop : array_like
        Pressure drop [Pa].
    density : array_like
        Density [kg/m3].

    Returns
    -------
    ndarray
        Speed [m/s].

    Raises
    ------
    ValueError
        A negative drop, or a density not above zero.

    References
    ----------
    Bernoulli; 28 inH2O in reference air gives 350 ft/s (common practice).
    """
    dp = not_negative(pressure_drop, tr("pressure drop"))
    return np.asarray(np.sqrt(2 * dp / positive(density, "density")))


def isentropic_mass_flux(
    pressure_drop: ArrayLike,
    pressure: ArrayLike = REFERENCE_PRESSURE,
    temperature: ArrayLike = REFERENCE_TEMPERATURE,
) -> Array:
    """Mass flow per area through an ideal nozzle, dry air as an ideal gas.

    .. math:: G = \\frac{p_0}{\\sqrt{R T_0}} \\sqrt{\\frac{2\\gamma}{\\gamma-1}
              \\left(pr^{2/\\gamma} - pr^{(\\gamma+1)/\\gamma}\\right)}

    Parameters
    ----------
    pressure_drop : array_like
        Drop from the upstream pressure [Pa].
    pressure : array_like
        Absolute pressure upstream [Pa].
    temperature : array_like
        Temperature upstream [K].

    Returns
    -------
    ndarray
        Mass flux [kg/(s m2)]; choked (constant) below the critical pressure ratio.

    Raises
    ------
    ValueError
        A drop that is negative or not smaller than the pressure upstream.

    References
    ----------
    [3] Heywood, Internal Combustion Engine Fundamentals, 1988, app. C; [4] Anderson, Modern
    Compressible Flow.
    """
    p0 = positive(pressure, tr("upstream pressure"))
    t0 = positive(temperature, "temperature")
    dp = not_negative(pressure_drop, tr("pressure drop"))
    if np.any(dp >= p0):
        raise Refused("the pressure drop must be smaller than the pressure upstream")
    critical = (2 / (GAMMA + 1)) ** (GAMMA / (GAMMA - 1))
    pr = np.maximum((p0 - dp) / p0, critical)
    bracket = pr ** (2 / GAMMA) - pr ** ((GAMMA + 1) / GAMMA)
    return np.asarray(p0 / np.sqrt(GAS_CONSTANT * t0) * np.sqrt(2 * GAMMA / (GAMMA - 1) * bracket))


def ideal_flux(
    pressure_drop: ArrayLike,
    model: FlowModel = FlowModel.ISENTROPIC,
    density: ArrayLike | None = None,
    pressure: ArrayLike = REFERENCE_PRESSURE,
    temperature: ArrayLike = REFERENCE_TEMPERATURE,
) -> Array:
    """Volume flow per area at upstream density that an ideal opening would pass.

    Parameters
    ----------
    pressure_drop : array_like
        Pressure drop [Pa].
    model : {"isentropic", "incompressible"}
        Which ideal. The incompressible one is the trade's 146 CFM/in2 at 28 inH2O.
    density : array_like, optional
        Density [kg/m3] for the incompressible ideal; by default the ideal gas of the state given.
    pressure, temperature : array_like
        State upstream [Pa], [K].

    Returns
    -------
    ndarray
        Flow per area [m/s].

    Raises
    ------
    ValueError
        As `isentropic_mass_flux` and `ideal_velocity`.

    References
    ----------
    [3] Heywood (1988), app. C.
    """
    rho = ideal_gas_density(temperature, pressure) if density is None else np.asarray(density, dtype=float)
    if model == FlowModel.INCOMPRESSIBLE:
        return ideal_velocity(pressure_drop, rho)
    return np.asarray(isentropic_mass_flux(pressure_drop, pressure, temperature) / rho)


def convert_pressure(flow: ArrayLike, measured_at: ArrayLike, wanted_at: ArrayLike) -> Array:
    """Flow at another test pressure as the trade does it, Q sqrt(dp2 / dp1); see `convert_flow`.

    Parameters
    ----------
    flow : array_like
        Flow [m3/s].
    measured_at, wanted_at : array_like
        Test pressures [Pa].

    Returns
    -------
    ndarray
        Flow [m3/s]: a converted figure, to be marked as such wherever it is shown.

    Raises
    ------
    ValueError
        A pressure not above zero.

    References
    ----------
    Incompressible orifice law; common practice (10 to 28 inH2O is 1.673).
    """
    ratio = positive(wanted_at, tr("wanted pressure")) / positive(measured_at, tr("measured pressure"))
    return np.asarray(np.sqrt(ratio) * flow)


def _two_laws(measured_at: ArrayLike, wanted_at: ArrayLike) -> tuple[Array, Array]:
    """Ratio of flows [-] between two test pressures [Pa] through a perfect nozzle and through a plate."""
    first, second = positive(measured_at, tr("measured pressure")), positive(wanted_at, tr("wanted pressure"))
    nozzle = isentropic_mass_flux(second) / isentropic_mass_flux(first)
    expansion = [
        1 - PLATE_EXPANSION * (1 - ((REFERENCE_PRESSURE - dp) / REFERENCE_PRESSURE) ** (1 / GAMMA))
        for dp in (first, second)
    ]
    return np.asarray(nozzle), np.asarray(np.sqrt(second / first) * expansion[1] / expansion[0])


def conversion_ratio(measured_at: ArrayLike, wanted_at: ArrayLike) -> Array:
    """What a port's flow is multiplied by at another test pressure: between a nozzle and a plate.

    .. math:: r = \\sqrt{r_n r_p}, \\quad r_n = G_2/G_1, \\quad
              r_p = \\sqrt{\\Delta p_2/\\Delta p_1}\\,\\varepsilon_2/\\varepsilon_1

    Parameters
    ----------
    measured_at, wanted_at : array_like
        Test pressures [Pa].

    Returns
    -------
    ndarray
        r [-], reference air upstream.

    Raises
    ------
    ValueError
        A pressure not above zero, or not smaller than the pressure upstream.

    References
    ----------
    [3] Heywood (1988), app. C (nozzle); [11] ISO 5167-2:2003 (expansibility of a plate); their geometric mean is
    this project's formula book.
    """
    nozzle, plate = _two_laws(measured_at, wanted_at)
    return np.asarray(np.sqrt(nozzle * plate))


def conversion_doubt(measured_at: ArrayLike, wanted_at: ArrayLike) -> tuple[Array, Array]:
    """The two parts of a conversion's relative standard uncertainty, signed by its direction.

    Parameters
    ----------
    measured_at, wanted_at : array_like
        Test pressures [Pa].

    Returns
    -------
    tuple of ndarray
        ln(r_n/r_p) / (2 sqrt 3), since a port lies somewhere between nozzle and plate; and 0.005 ln(dp2/dp1), since a
        coefficient drifts with speed. Both nought within 3 % of pressure. Their root sum of squares is the
        uncertainty [-]; two figures of one port converted alike share each part.

    Raises
    ------
    ValueError
        As `conversion_ratio`.

    References
    ----------
    [6] JCGM 100:2008, 4.3.7 (rectangular); formula book of this project.
    """
    nozzle, plate = _two_laws(measured_at, wanted_at)
    size = np.log(np.asarray(wanted_at, dtype=float) / np.asarray(measured_at, dtype=float))
    counts = np.abs(size) > CONVERSION_GRAIN
    law = np.where(counts, np.log(nozzle / plate) / (2 * np.sqrt(3)), 0.0)
    return np.asarray(law), np.asarray(np.where(counts, REYNOLDS_DOUBT * size, 0.0))


def conversion_uncertainty(measured_at: ArrayLike, wanted_at: ArrayLike) -> Array:
    """Relative standard uncertainty of `convert_flow` [-].

    Parameters
    ----------
    measured_at, wanted_at : array_like
        Test pressures [Pa].

    Returns
    -------
    ndarray
        u_r [-]; nought within 3 % of pressure.

    Raises
    ------
    ValueError
        As `conversion_ratio`.

    References
    ----------
    `conversion_doubt`.
    """
    return np.asarray(np.hypot(*conversion_doubt(measured_at, wanted_at)))


def convert_flow(flow: ArrayLike, measured_at: ArrayLike, wanted_at: ArrayLike) -> Array:
    """Flow at another test pressure, air being compressible: what Ventrix itself converts by.

    Parameters
    ----------
    flow : array_like
        Flow [m3/s].
    measured_at, wanted_at : array_like
        Test pressures [Pa].

    Returns
    -------
    ndarray
        Flow [m3/s]: a converted figure, to be marked as such wherever it is shown.

    Raises
    ------
    ValueError
        As `conversion_ratio`.

    References
    ----------
    `conversion_ratio`.
    """
    return np.asarray(conversion_ratio(measured_at, wanted_at) * np.asarray(flow, dtype=float))


def conversion_note(measured_at: float, wanted_at: float) -> str | None:
    """How sure a converted figure is, else None where it was not converted far; pressures [Pa]."""
    u = float(conversion_uncertainty(measured_at, wanted_at))
    return tr("converted, known to ± {}", percent_text(2 * u)) if u > 0 else None


def discharge_coefficient(
    flow: ArrayLike,
    test_pressure: ArrayLike,
    area: ArrayLike,
    model: FlowModel = FlowModel.ISENTROPIC,
    pressure: ArrayLike = REFERENCE_PRESSURE,
    temperature: ArrayLike = REFERENCE_TEMPERATURE,
) -> Array:
    """Flow over what an ideal opening of the same area would pass, Cd = Q / (A vi).

    Parameters
    ----------
    flow : array_like
        Volume flow at upstream density [m3/s].
    test_pressure : array_like
        Pressure drop [Pa].
    area : array_like
        Reference area [m2]; which one (curtain, valve head, least, throat) is the caller's choice
        and must be named wherever the figure is shown.
    model : {"isentropic", "incompressible"}
        Which ideal.
    pressure, temperature : array_like
        Absolute state upstream of the test piece [Pa], [K].

    Returns
    -------
    ndarray
        Discharge coefficient [-]. Above 1 is possible with a poor reference area; not clipped.

    Raises
    ------
    ValueError
        Area or pressure not above zero.

    References
    ----------
    [3] Heywood (1988), section 6.3.2 and app. C.
    """
    a = positive(area, "area")
    dp = positive(test_pressure, tr("test pressure"))
    vi = ideal_flux(dp, model, pressure=pressure, temperature=temperature)
    return np.asarray(np.asarray(flow, dtype=float) / (a * vi))

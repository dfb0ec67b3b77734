"""Flow through an orifice plate: in a pipe by ISO 5167-2, and in the wall of a plenum.

All SI. Sources are numbered as in ``docs/sources.md``.
"""

from __future__ import annotations

from enum import StrEnum
from typing import Any, NamedTuple

import numpy as np
from numpy.typing import ArrayLike

from ventrix.core.formulas.atmosphere import GAMMA, REFERENCE_PRESSURE, air_viscosity, moist_air_density
from ventrix.core.formulas.bench_flow import ideal_velocity
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.limits import not_negative, positive
from ventrix.core.quantity.refused import Refused
from ventrix.words import tr


class Taps(StrEnum):
    """Where an orifice plate's pressure drop is tapped; D is D and D/2."""

    CORNER = "corner"
    D = "D"
    FLANGE = "flange"


class OrificeFlow(NamedTuple):
    """Flow through an orifice plate: upstream volume flow [m3/s], mass flow [kg/s], Cd [-], notes."""

    flow: Array
    mass_flow: Array
    discharge_coefficient: Array
    notes: tuple[str, ...]


def orifice_flow(
    orifice_diameter: ArrayLike,
    pipe_diameter: ArrayLike,
    pressure_drop: ArrayLike,
    pressure: ArrayLike = REFERENCE_PRESSURE,
    temperature: ArrayLike = 293.15,
    taps: Taps = Taps.CORNER,
    vapour: ArrayLike = 0.0,
) -> OrificeFlow:
    """Air through an orifice plate in a pipe, by ISO 5167-2:2003.

    Reader-Harris/Gallagher discharge coefficient and expansibility, solved for the Reynolds number by
    iteration (package ``fluids``), element by element.

    Parameters
    ----------
    orifice_diameter, pipe_diameter : array_like
        Bore of the plate and inside of the pipe [m].
    pressure_drop : array_like
        Between the tappings [Pa].
    pressure, temperature : array_like
        Upstream, absolute [Pa], [K].
    taps : {"corner", "D", "flange"}
        Tappings; "D" is D and D/2.
    vapour : array_like
        Mole fraction of water vapour in the air [-]; dry by default.

    Returns
    -------
    OrificeFlow
        Broadcast shape of the inputs. Limits of the standard that are not met are said in its notes.

    Raises
    ------
    ValueError
        An orifice not smaller than its pipe, or a drop not smaller than the pressure.

    References
    ----------
    [11] ISO 5167-2:2003, via fluids.
    """
    d, pipe = positive(orifice_diameter, tr("orifice diameter")), positive(pipe_diameter, tr("pipe diameter"))
    dp, p1 = positive(pressure_drop, tr("pressure drop")), positive(pressure, tr("upstream pressure"))
    if np.any(d >= pipe):
        raise Refused("the orifice must be smaller than its pipe")
    if np.any(dp >= p1):
        raise Refused("the pressure drop must be smaller than the pressure upstream")
    density, viscosity = moist_air_density(temperature, p1, vapour), air_viscosity(temperature)
    solve = np.vectorize(_solve_orifice, excluded={"taps"}, otypes=[float, float])
    mass, coefficient = solve(d, pipe, dp, p1, density, viscosity, taps=taps)
    reynolds = 4 * mass / (np.pi * pipe * viscosity)
    notes = _orifice_notes(d, pipe, reynolds, 1 - dp / p1, taps)
    return OrificeFlow(np.asarray(mass / density), np.asarray(mass), np.asarray(coefficient), notes)


def _solve_orifice(
    d: float, pipe: float, dp: float, p1: float, density: float, viscosity: float, taps: str
) -> tuple[float, float]:
    """Mass flow [kg/s] and discharge coefficient [-] of one plate."""
    from fluids.flow_meter import C_Reader_Harris_Gallagher, differential_pressure_meter_solver  # late: slow to load
    from fluids.numerics import UnconvergedError

    state: dict[str, Any] = {"D": pipe, "rho": density, "mu": viscosity, "taps": taps}
    meter = tr("ISO 5167 orifice")
    try:
        mass = differential_pressure_meter_solver(D2=d, P1=p1, P2=p1 - dp, k=GAMMA, meter_type=meter, **state)
    except (UnconvergedError, ArithmeticError):
        raise Refused("the plate's iteration finds no flow for these figures") from None
    return float(mass), float(C_Reader_Harris_Gallagher(Do=d, m=mass, **state))


def _orifice_notes(d: Array, pipe: Array, reynolds: Array, pressure_ratio: Array, taps: Taps) -> tuple[str, ...]:
    """Limits of use of ISO 5167-2:2003, clause 5.3.1, in sentences."""
    beta = d / pipe
    low = np.where((beta <= 0.56) | (taps == "flange"), 5000.0, 16_000 * beta**2)
    if taps == "flange":
        low = np.maximum(low, 170 * beta**2 * pipe * 1000)
    limits = (
        (d < 0.0125, tr("orifice under 12.5 mm")),
        ((pipe < 0.05) | (pipe > 1.0), tr("pipe outside 50 to 1000 mm")),
        ((beta < 0.10) | (beta > 0.75), tr("diameter ratio outside 0.10 to 0.75")),
        (reynolds < low, tr("Reynolds number too low for this plate")),
        (pressure_ratio < 0.75, tr("pressure ratio under 0.75")),
    )
    return tuple(tr("outside ISO 5167-2: {}", words) for broken, words in limits if np.any(broken))


def plenum_orifice_flow(
    orifice_diameter: ArrayLike,
    pressure_drop: ArrayLike,
    pressure: ArrayLike = REFERENCE_PRESSURE,
    temperature: ArrayLike = 293.15,
    coefficient: ArrayLike = 0.60,
    vapour: ArrayLike = 0.0,
) -> Array:
    """Upstream volume flow [m3/s] through a sharp-edged plate in the wall of a plenum, no pipe.

    .. math:: Q = C_d \\varepsilon A \\sqrt{2 \\Delta p/\\rho}, \\quad
              \\varepsilon = 1 - 0.351 (1 - (p_2/p_1)^{1/\\gamma})

    Parameters
    ----------
    orifice_diameter : array_like
        [m].
    pressure_drop, pressure : array_like
        [Pa], upstream absolute [Pa].
    temperature : array_like
        Upstream [K].
    coefficient : array_like
        Discharge coefficient of the user's plate [-].
    vapour : array_like
        Mole fraction of water vapour in the air [-]; dry by default.

    Returns
    -------
    ndarray
        Flow [m3/s].

    Raises
    ------
    ValueError
        A drop not smaller than the pressure upstream.

    References
    ----------
    [11] ISO 5167-2:2003, expansibility at a diameter ratio of nought.
    """
    dp, p1 = not_negative(pressure_drop, tr("pressure drop")), positive(pressure, tr("upstream pressure"))
    if np.any(dp >= p1):
        raise Refused("the pressure drop must be smaller than the pressure upstream")
    expansibility = 1 - 0.351 * (1 - ((p1 - dp) / p1) ** (1 / GAMMA))
    area = np.pi / 4 * positive(orifice_diameter, tr("orifice diameter")) ** 2
    speed = ideal_velocity(dp, moist_air_density(temperature, p1, vapour))
    return np.asarray(positive(coefficient, "coefficient") * expansibility * area * speed)

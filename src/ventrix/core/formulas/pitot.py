"""Air speed from a pitot probe, and what a flow ball says. All SI; sources as in ``docs/sources.md``."""

from __future__ import annotations

from typing import Final, NamedTuple

import numpy as np
from numpy.typing import ArrayLike

from ventrix.core.formulas.atmosphere import (
    GAMMA,
    GAS_CONSTANT,
    REFERENCE_DENSITY,
    REFERENCE_PRESSURE,
    REFERENCE_TEMPERATURE,
    speed_of_sound,
)
from ventrix.core.formulas.bench_flow import ideal_velocity
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.limits import not_negative, positive
from ventrix.core.quantity.refused import Refused
from ventrix.words import tr

VAPOUR_LIGHTER: Final = 0.378  # 1 - M_v/M_a: moist air is lighter by this times its share of vapour [1]


def pitot_velocity(reading: ArrayLike, density: ArrayLike = REFERENCE_DENSITY, coefficient: ArrayLike = 1.0) -> Array:
    """Speed from a probe's pressure difference, K sqrt(2 dp / rho): incompressible.

    Parameters
    ----------
    reading : array_like
        Total less static pressure [Pa].
    density : array_like
        Of the air at the probe [kg/m3].
    coefficient : array_like
        Of the probe, outside the root [-].

    Returns
    -------
    ndarray
        Speed [m/s].

    Raises
    ------
    ValueError
        A negative reading, a density or coefficient not above zero.

    References
    ----------
    [12] ISO 3966:2008. Under 2 % high at Mach 0.3; `pitot_velocity_compressible` beyond.
    """
    difference = not_negative(reading, "reading")
    return np.asarray(positive(coefficient, tr("probe coefficient")) * ideal_velocity(difference, density))


def pitot_velocity_compressible(
    reading: ArrayLike, static_pressure: ArrayLike, temperature: ArrayLike, coefficient: ArrayLike = 1.0
) -> Array:
    """Speed from a probe in subsonic, isentropic flow.

    .. math:: M = \\sqrt{\\tfrac{2}{\\gamma-1}\\left[(1 + \\Delta p/p)^{(\\gamma-1)/\\gamma} - 1\\right]},
              \\quad v = K M a

    Parameters
    ----------
    reading : array_like
        Total less static pressure [Pa].
    static_pressure : array_like
        Absolute [Pa].
    temperature : array_like
        Static temperature of the air at the probe [K].
    coefficient : array_like
        Of the probe [-].

    Returns
    -------
    ndarray
        Speed [m/s].

    Raises
    ------
    ValueError
        A negative reading, a static pressure not above zero, or a reading that means Mach 1 or more.

    References
    ----------
    [12] ISO 3966:2008; [4] Anderson, Modern Compressible Flow.
    """
    ratio = not_negative(reading, "reading") / positive(static_pressure, tr("static pressure"))
    mach = np.sqrt(2 / (GAMMA - 1) * ((1 + ratio) ** ((GAMMA - 1) / GAMMA) - 1))
    if np.any(mach >= 1):
        raise Refused("the reading means sonic speed or more: the subsonic form does not hold")
    return np.asarray(positive(coefficient, tr("probe coefficient")) * mach * speed_of_sound(temperature))


class ProbedAir(NamedTuple):
    """Air at a probe: its own speed there [m/s], and its mass flux as a speed in reference air [m/s]."""

    local: Array
    reference: Array


def probed_air(
    reading: ArrayLike,
    blown: bool = False,
    room_pressure: float = REFERENCE_PRESSURE,
    temperature: float = REFERENCE_TEMPERATURE,
    entering_pressure: float | None = None,
    static: ArrayLike | None = None,
    coefficient: float = 1.0,
    vapour: float = 0.0,
) -> ProbedAir:
    """What a probe in a port on a flow bench means, by one isentropic form for every reading.

    .. math:: M^2 = \\tfrac{2}{\\gamma-1}\\left[(p_t/p_s)^{(\\gamma-1)/\\gamma} - 1\\right], \\quad
              v_{ref} = \\rho v / \\sqrt{\\rho_{entering}\\,\\rho_{ref}}

    Parameters
    ----------
    reading : array_like
        Total less static pressure [Pa].
    blown : bool
        Drawn: the total is the room's. Blown: the static is the room's. Ends of the truth both; see `static`.
    room_pressure : float
        Barometer [Pa].
    temperature : float
        Total temperature, that of the air entering the test piece [K].
    entering_pressure : float, optional
        Absolute pressure of the air entering [Pa]: the room's unless said otherwise.
    static : array_like, optional
        How far the static pressure there is off the room's, below it on draw and above it on blow [Pa], where it was
        read; NaN elsewhere.
    coefficient : float
        Of the probe, outside the root [-].
    vapour : float
        Mole fraction of water vapour in the air [-].

    Returns
    -------
    ProbedAir
        Shapes of `reading`. The reference speed times the section's area is reported flow: it holds from day to
        day, where rho v / 1.225 would go with the root of the day's density.

    Raises
    ------
    ValueError
        A negative reading, one that means Mach 1 or more, or pressures that cannot be.

    References
    ----------
    [12] ISO 3966:2008; [4] Anderson, Modern Compressible Flow (isentropic relations).
    """
    dp = not_negative(reading, "reading")
    room = float(positive(room_pressure, tr("barometric pressure")))
    entering = (
        room if entering_pressure is None else float(positive(entering_pressure, tr("pressure of the air entering")))
    )
    off = np.full(dp.shape, np.nan) if static is None else np.broadcast_to(np.asarray(static, dtype=float), dp.shape)
    known = np.isfinite(off)
    if blown:
        low = np.where(known, room + np.nan_to_num(off), room)
    else:
        low = np.where(known, room - np.nan_to_num(off), room - dp)
    if np.any(low <= 0):
        raise Refused("the reading is larger than the barometer allows")
    mach2 = 2 / (GAMMA - 1) * ((1 + dp / low) ** ((GAMMA - 1) / GAMMA) - 1)
    if np.any(mach2 >= 1):
        raise Refused("the reading means sonic speed or more: the subsonic form does not hold")
    gas = GAS_CONSTANT / (1 - VAPOUR_LIGHTER * vapour)
    there = positive(temperature, "temperature") / (1 + (GAMMA - 1) / 2 * mach2)
    local = positive(coefficient, tr("probe coefficient")) * np.sqrt(mach2 * GAMMA * gas * there)
    flux = local * low / (gas * there)
    return ProbedAir(np.asarray(local), np.asarray(flux / np.sqrt(entering / (gas * temperature) * REFERENCE_DENSITY)))


def local_to_reference(
    speed: ArrayLike, temperature: float = REFERENCE_TEMPERATURE, entering_pressure: float = REFERENCE_PRESSURE
) -> Array:
    """The reference speed of `probed_air` behind a speed that was read as such.

    Parameters
    ----------
    speed : array_like
        Local speed [m/s].
    temperature, entering_pressure : float
        Of the air entering the test piece [K], [Pa].

    Returns
    -------
    ndarray
        [m/s], shape of `speed`.

    Raises
    ------
    ValueError
        A speed below zero, or sonic.

    References
    ----------
    [4] Anderson, Modern Compressible Flow: no loss of total pressure up to there, which is the draw's usual state.
    """
    v = not_negative(speed, "speed")
    cp = GAMMA / (GAMMA - 1) * GAS_CONSTANT
    share = 1 - v**2 / (2 * cp * temperature)
    if np.any(share <= 2 / (GAMMA + 1)):
        raise Refused("that is sonic speed or more")
    entering = entering_pressure / (GAS_CONSTANT * temperature)
    return np.asarray(v * share ** (1 / (GAMMA - 1)) * np.sqrt(entering / REFERENCE_DENSITY))


def reference_to_local(
    speed: ArrayLike, temperature: float = REFERENCE_TEMPERATURE, entering_pressure: float = REFERENCE_PRESSURE
) -> Array:
    """The air's own speed behind a reference speed: the inverse of `local_to_reference`.

    Parameters
    ----------
    speed : array_like
        Reference speed [m/s].
    temperature, entering_pressure : float
        Of the air entering the test piece [K], [Pa].

    Returns
    -------
    ndarray
        [m/s], shape of `speed`.

    Raises
    ------
    Refused
        A speed below zero, or more mass than air at the speed of sound carries.

    References
    ----------
    `local_to_reference`, by Newton's method (slopes by finite difference).
    """
    wanted = not_negative(speed, "speed")
    found = np.asarray(wanted, dtype=float).copy()
    for _ in range(30):
        here = local_to_reference(found, temperature, entering_pressure)
        step = 1e-3
        slope = (local_to_reference(found + step, temperature, entering_pressure) - here) / step
        found = np.maximum(found - (here - wanted) / slope, 0.0)
    return found


def ball_drop(flow: ArrayLike, flow_with_ball: ArrayLike) -> Array:
    """Share of the flow that a ball in one place takes away [-]: busy places take most.

    Parameters
    ----------
    flow, flow_with_ball : array_like
        Without and with the ball [m3/s].

    Returns
    -------
    ndarray
        1 - Q_ball / Q; negative where the ball helped.

    Raises
    ------
    ValueError
        Flow not above zero.

    References
    ----------
    Common practice, no source.
    """
    return np.asarray(1 - not_negative(flow_with_ball, tr("flow with the ball")) / positive(flow, "flow"))

"""Air speed from a pitot probe, and what a flow ball says. All SI; sources as in ``docs/sources.md``."""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike

from ventrix.core.air import GAMMA, REFERENCE_DENSITY, Array, speed_of_sound
from ventrix.core.bench_flow import ideal_velocity
from ventrix.core.checks import not_negative, positive


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
    return np.asarray(positive(coefficient, "probe coefficient") * ideal_velocity(difference, density))


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
    ratio = not_negative(reading, "reading") / positive(static_pressure, "static pressure")
    mach = np.sqrt(2 / (GAMMA - 1) * ((1 + ratio) ** ((GAMMA - 1) / GAMMA) - 1))
    if np.any(mach >= 1):
        raise ValueError("the reading means sonic speed or more: the subsonic form does not hold")
    return np.asarray(positive(coefficient, "probe coefficient") * mach * speed_of_sound(temperature))


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
    return np.asarray(1 - not_negative(flow_with_ball, "flow with the ball") / positive(flow, "flow"))

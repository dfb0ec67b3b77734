"""What a bench's element shows, as flow: ranges, leaks, other air, mass flow, two columns of water. All SI."""

from __future__ import annotations

from typing import Final

import numpy as np
from numpy.typing import ArrayLike

from ventrix.core.formulas.atmosphere import (
    REFERENCE_DENSITY,
)
from ventrix.core.formulas.bench_flow import convert_pressure
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.limits import not_negative, positive
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.words import percent_text
from ventrix.words import tr

LEAK_FLAG: Final = 0.02  # of the smallest reading

LEAK_PRESSURE_RATIO: Final = 1.5


def range_flow(percent: ArrayLike, full_scale: ArrayLike) -> Array:
    """Percent of a range into flow.

    Parameters
    ----------
    percent : array_like
        Reading as a fraction of the scale [-].
    full_scale : array_like
        Flow at 100 % of the range [m3/s].

    Returns
    -------
    ndarray
        Flow [m3/s].

    Raises
    ------
    ValueError
        A negative reading, or a range not above zero.

    References
    ----------
    Definition of the scale (common practice).
    """
    return np.asarray(not_negative(percent, "percent") * positive(full_scale, "range"))


def leak_correct(flow: ArrayLike, leak: ArrayLike, test_pressure: ArrayLike, leak_pressure: ArrayLike) -> Array:
    """Take the bench's leak off a reading, the leak scaled by sqrt(dp).

    The leak is the one read with the valve shut **and the opening sealed**: a leaking seat is no
    leak once the valve is open, and is never subtracted.

    Parameters
    ----------
    flow : array_like
        Reading [m3/s].
    leak : array_like
        Leak [m3/s] at `leak_pressure`.
    test_pressure, leak_pressure : array_like
        Pressure drops [Pa].

    Returns
    -------
    ndarray
        Flow through the test piece [m3/s].

    Raises
    ------
    ValueError
        A leak not smaller than the reading, or negative figures.

    References
    ----------
    Common practice, no source.
    """
    q = positive(flow, "flow")
    scaled = convert_pressure(not_negative(leak, "leak"), leak_pressure, test_pressure)
    if np.any(scaled >= q):
        raise Refused("the leak is not smaller than the reading")
    return np.asarray(q - scaled)


def leak_notes(smallest_flow: float, leak: float, test_pressure: float, leak_pressure: float) -> list[str]:
    """Sentences about a leak that is large or was taken at another pressure; SI inputs."""
    notes = []
    scaled = float(convert_pressure(leak, leak_pressure, test_pressure))
    if scaled > LEAK_FLAG * smallest_flow:
        notes.append(
            tr("leak is {} of the smallest reading: over 2 %, find it first", percent_text(scaled / smallest_flow))
        )
    ratio = max(test_pressure, leak_pressure) / min(test_pressure, leak_pressure)
    if leak > 0 and ratio > LEAK_PRESSURE_RATIO:
        notes.append(
            tr(
                "leak was taken at a pressure {:.1f} times off: a small leak can scale with the "
                "pressure itself rather than its root",
                ratio,
            )
        )
    return notes


def element_correction(
    indicated: ArrayLike,
    scale_density: ArrayLike,
    element_density: ArrayLike,
    test_density: ArrayLike,
) -> Array:
    """Flow referred to reference air, from an element that senses a pressure drop.

    .. math:: Q_{ref} = Q_i \\sqrt{\\rho_{scale} \\rho_{element} / (\\rho_{test} \\rho_{ref})}

    Parameters
    ----------
    indicated : array_like
        What the scale says [m3/s].
    scale_density : array_like
        Density the scale was made for [kg/m3]; 1.2014 for a "0.075 lb/ft3" scale.
    element_density, test_density : array_like
        Density at the element, and of the air entering the test piece [kg/m3].

    Returns
    -------
    ndarray
        Reported flow [m3/s].

    Raises
    ------
    ValueError
        A density not above zero.

    References
    ----------
    Orifice equation at two densities, [3] Heywood (1988), app. C.
    """
    product = positive(scale_density, tr("scale density")) * positive(element_density, tr("density at the element"))
    below = positive(test_density, tr("density at the test piece")) * REFERENCE_DENSITY
    return np.asarray(np.asarray(indicated, dtype=float) * np.sqrt(product / below))


def mass_flow_correction(mass_flow: ArrayLike, test_density: ArrayLike) -> Array:
    """Reported flow from a mass-flow element, m / sqrt(rho_test rho_ref).

    Parameters
    ----------
    mass_flow : array_like
        [kg/s].
    test_density : array_like
        Of the air entering the test piece [kg/m3].

    Returns
    -------
    ndarray
        Reported flow [m3/s].

    Raises
    ------
    ValueError
        A density not above zero.

    References
    ----------
    As `element_correction`.
    """
    root = np.sqrt(positive(test_density, tr("density at the test piece")) * REFERENCE_DENSITY)
    return np.asarray(np.asarray(mass_flow, dtype=float) / root)


def flow_index(element_column: ArrayLike, port_column: ArrayLike) -> Array:
    """Index of an uncalibrated bench with two columns of water, sqrt(h_element / h_port).

    Parameters
    ----------
    element_column, port_column : array_like
        Both in one unit [any].

    Returns
    -------
    ndarray
        Index [-]: good for ratios on one bench, never a flow.

    Raises
    ------
    ValueError
        A port column not above zero, an element column below zero.

    References
    ----------
    Orifice law at the element and at the port (common practice).
    """
    top = not_negative(element_column, tr("element column"))
    return np.asarray(np.sqrt(top / positive(port_column, tr("port column"))))

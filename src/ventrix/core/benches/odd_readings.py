"""What checks of a bench say: its scatter from an unchanged head, its drift from a plate, its odd readings.

All SI. Sources are numbered as in ``docs/sources.md``.
"""

from __future__ import annotations

from collections.abc import Sequence
from typing import Final

import numpy as np
from numpy.typing import ArrayLike

from ventrix.core.formulas.flow_curve import FlowCurve
from ventrix.core.formulas.uncertainty import Scatter
from ventrix.core.quantity.limits import positive
from ventrix.core.quantity.units import from_si

NEIGHBOUR_LIMIT: Final = 0.04  # relative distance of a reading from its neighbours' curve

REPEAT_LIMIT: Final = 3.0  # standard deviations of a difference of two readings


def neighbour_distance(lift: ArrayLike, flow: ArrayLike, at: int) -> float | None:
    """How far one reading lies from the curve through the others, relative; None where they cannot say.

    Parameters
    ----------
    lift, flow : array_like
        Readings at rising lifts [m], [m3/s], shape (n,).
    at : int
        Which one is asked about.

    Returns
    -------
    float or None
        (Q - Q_others) / Q_others [-]; None at the lowest and highest lift and with fewer than three others.

    Raises
    ------
    ValueError
        Lifts that do not rise.

    References
    ----------
    [5] through the other readings.
    """
    x, q = np.asarray(lift, dtype=float), np.asarray(flow, dtype=float)
    if at in (0, len(x) - 1) or len(x) < 4:
        return None
    others = np.delete(np.arange(len(x)), at)
    expected = float(FlowCurve(x[others], q[others]).at(x[at]))
    return float(q[at] / expected - 1)


def repeat_distance(flow: float, others: Sequence[float], scatter: Scatter) -> float | None:
    """How far a reading lies from earlier ones at its lift, in standard deviations of that difference.

    Parameters
    ----------
    flow : float
        [m3/s].
    others : sequence of float
        Earlier readings at the lift [m3/s].
    scatter : Scatter
        Of this bench.

    Returns
    -------
    float or None
        None without earlier readings.

    Raises
    ------
    ValueError
        A flow not above zero.

    References
    ----------
    [6] JCGM 100:2008, 4.2.
    """
    if not others:
        return None
    mean = float(positive(np.mean(others), "flow"))
    return abs(flow / mean - 1) / (scatter.repeat * float(np.sqrt(1 + 1 / len(others))))


def range_advice(ranges: Sequence[float], full_scale: float, flow: float, usual: float | None) -> str | None:
    """What to say about the range chosen, or None: near an end of its scale a range reads differently.

    Parameters
    ----------
    ranges : sequence of float
        Full scales of the bench [m3/s], rising.
    full_scale, flow : float
        Range in use and reading [m3/s].
    usual : float or None
        Range the pinned cut was read on at this lift [m3/s].

    Returns
    -------
    str or None
        A sentence.

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    Common practice, no source: read between 25 and 90 % of a scale, and on the same range as before.
    """
    top = f"{from_si(full_scale, 'cfm'):.0f}"
    larger = [r for r in ranges if r > full_scale * 1.001]
    smaller = [r for r in ranges if r < full_scale * 0.999]
    if flow > 0.97 * full_scale and larger:
        return f"This range ends at {top}: take the next one up."
    if usual is not None and abs(usual / full_scale - 1) > 1e-3 and flow < 0.97 * usual:
        return f"The pinned cut was read on the {from_si(usual, 'cfm'):.0f} range here: take that one."
    if usual is None and flow > 0.9 * full_scale and larger:
        return f"Near the end of the {top} range: the next one up reads truer."
    if usual is None and flow < 0.25 * full_scale and smaller and flow < 0.9 * smaller[-1]:
        return f"Low on the {top} range: the next one down reads truer."
    return None

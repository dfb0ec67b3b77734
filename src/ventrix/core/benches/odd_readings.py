"""What checks of a bench say: its scatter from an unchanged head, its drift from a plate, its odd readings.

All SI. Sources are numbered as in ``docs/sources.md``.
"""

from __future__ import annotations

from collections.abc import Sequence
from typing import Final, NamedTuple

import numpy as np
from numpy.typing import ArrayLike

from ventrix.core.formulas.flow_curve import FlowCurve
from ventrix.core.formulas.uncertainty import Scatter
from ventrix.core.quantity.limits import positive
from ventrix.core.quantity.said import Amount, Said
from ventrix.words import tr

NEIGHBOUR_LIMIT: Final = 0.04  # relative distance of a reading from the curve through its neighbours
SHAPE_LIMIT: Final = 0.2  # from the shape of another cut, which work may have changed
SLACK: Final = 0.25  # beyond what a curve that only bends one way allows: a decimal point, not a doubt
FEWEST: Final = 3  # other readings that a curve is drawn through

_GRAIN: Final = 1e-6  # m
REPEAT_LIMIT: Final = 3.0  # standard deviations of a difference of two readings


class Expected(NamedTuple):
    """The flow that the other readings expect at a lift [m3/s], by how much of a ratio it may differ, either way, less
    one, and who says so."""

    flow: float
    limit: float
    by: str

    def distance(self, flow: float) -> float:
        """(Q - Q_expected) / Q_expected [-]."""
        return flow / self.flow - 1

    def is_odd(self, flow: float, least: float = 0.0) -> bool:
        """Whether a flow [m3/s] lies farther off than it may, and than `least`."""
        return flow <= 0 or max(flow / self.flow, self.flow / flow) - 1 > max(self.limit, least)


def expected_flow(
    at: float, lift: ArrayLike, flow: ArrayLike, plan: Sequence[float], pinned: FlowCurve | None = None
) -> Expected | None:
    """What a reading at a lift is held against, from the others of its run and the cut that is pinned.

    Both neighbours of the plan, where they are read: then a curve says it closely. Else the shape of the pinned
    cut, scaled by the readings there are. Else that flow rises with lift, and ever less steeply.

    Parameters
    ----------
    at : float
        Lift asked about [m].
    lift, flow : array_like
        The other readings, at rising lifts [m], [m3/s], shape (n,); a reading at `at` itself left out.
    plan : sequence of float
        Lifts of the plan, rising [m].
    pinned : FlowCurve, optional
        Of the cut it is held against, at this test pressure.

    Returns
    -------
    Expected or None
        None where nothing says anything about it.

    Raises
    ------
    ValueError
        Lifts that do not rise.

    References
    ----------
    [5] through the other readings; the limits of the rest are common practice, no source.
    """
    x, q = np.asarray(lift, dtype=float), np.asarray(flow, dtype=float)
    beside = (*[p for p in plan if p < at - _GRAIN][-1:], *[p for p in plan if p > at + _GRAIN][:1])
    if len(x) >= FEWEST and len(beside) == 2 and all(np.abs(x - near).min() < _GRAIN for near in beside):
        return Expected(float(FlowCurve(x, q).at(at)), NEIGHBOUR_LIMIT, tr("its neighbours"))
    if pinned is not None and at <= pinned.highest * (1 + 1e-9):
        shared = x <= pinned.highest * (1 + 1e-9)
        scale = float(np.median(q[shared] / pinned.at(x[shared]))) if shared.any() else 1.0
        limit = SHAPE_LIMIT if shared.any() else 2 * SHAPE_LIMIT
        return Expected(scale * float(pinned.at(at)), limit, tr("the shape of the pinned cut"))
    under, over = x < at, x > at
    least = max([*q[under], *(q[over] * at / x[over])], default=0.0)
    most = min([*(q[under] * at / x[under]), *q[over]], default=0.0)
    if len(x) == 0:
        return None
    low, high = sorted((float(least), float(most)))
    middle = (low * high) ** 0.5
    return Expected(middle, high / middle * (1 + SLACK) - 1, tr("the other readings"))


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
    top = Amount(full_scale, "flow", "cfm", ".0f")
    larger = [r for r in ranges if r > full_scale * 1.001]
    smaller = [r for r in ranges if r < full_scale * 0.999]
    if flow > 0.97 * full_scale and larger:
        return Said("This range ends at {}: take the next one up.", top)
    if usual is not None and abs(usual / full_scale - 1) > 1e-3 and flow < 0.97 * usual:
        pinned = Amount(usual, "flow", "cfm", ".0f")
        return Said("The pinned cut was read on the {} range here: take that one.", pinned)
    if usual is None and flow > 0.9 * full_scale and larger:
        return Said("Near the end of the {} range: the next one up reads truer.", top)
    if usual is None and flow < 0.25 * full_scale and smaller and flow < 0.9 * smaller[-1]:
        return Said("Low on the {} range: the next one down reads truer.", top)
    return None

"""A run as a curve of flow against lift: interpolation, the cam's share, stall and dips.

SI: lift [m], flow [m3/s], crank angle [rad]. Sources are numbered as in ``docs/sources.md``.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import ArrayLike, NDArray

from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.refused import Refused


def pchip(knots: Array, values: Array, at: Array) -> Array:
    """Monotone piecewise cubic through knots.

    Parameters
    ----------
    knots, values : ndarray
        Rising knots and their values, shape (n,), two at least.
    at : ndarray
        Within the knots, any shape.

    Returns
    -------
    ndarray
        Shape of `at`.

    Raises
    ------
    ValueError
        Never, for rising knots.

    References
    ----------
    [5] Fritsch and Butland (1984); see `FlowCurve`.
    """
    t, h, y0, y1, d0, d1 = _piece(knots, values, pchip_slopes(knots, values), at)
    step = y1 - y0
    return np.asarray(y0 + t * (h * d0 + t * (3 * step - h * (2 * d0 + d1) + t * (h * (d0 + d1) - 2 * step))))


def _piece(x: Array, y: Array, d: Array, at: Array) -> tuple[Array, Array, Array, Array, Array, Array]:
    """Place in its interval (0 to 1), width, and values and slopes at both ends, for each place."""
    i = np.clip(np.searchsorted(x, at, side="right") - 1, 0, len(x) - 2)
    width = x[i + 1] - x[i]
    return (at - x[i]) / width, width, y[i], y[i + 1], d[i], d[i + 1]


@dataclass(frozen=True)
class FlowCurve:
    """Flow through (0, 0) and the tested lifts, by monotone piecewise cubics (PCHIP).

    Parameters
    ----------
    lift, flow : ndarray
        Tested lifts [m], rising and above zero, and flows [m3/s], shape (n,).

    Raises
    ------
    ValueError
        No point, or lifts that do not rise from above zero.

    References
    ----------
    [5] Fritsch and Butland, SIAM J. Sci. Stat. Comput. 5 (1984) 300-304. Written out here, since
    SciPy's interpolation costs a second at every start; a test holds it to SciPy's to the last bits.
    """

    lift: Array
    flow: Array

    def __post_init__(self) -> None:
        if len(self.lift) == 0:
            raise Refused("a curve needs at least one reading that counts")
        if self.lift[0] <= 0 or np.any(np.diff(self.lift) <= 0):
            raise Refused("lifts must rise from above zero")

    @cached_property
    def _knots(self) -> tuple[Array, Array, Array]:
        """Lifts, flows and slopes at the knots, nought first."""
        x, y = np.concatenate(([0.0], self.lift)), np.concatenate(([0.0], self.flow))
        return x, y, pchip_slopes(x, y)

    def _within(self, lift: ArrayLike) -> tuple[Array, Array, Array, Array, Array, Array]:
        """The piece that each lift lies in, none past the highest tested one."""
        return _piece(*self._knots, np.clip(np.asarray(lift, dtype=float), 0.0, self.highest))

    @property
    def highest(self) -> float:
        """Highest tested lift [m]."""
        return float(self.lift[-1])

    def at(self, lift: ArrayLike) -> Array:
        """Flow [m3/s] at any lift [m]; past the highest tested lift it stays there, never beyond."""
        t, h, y0, y1, d0, d1 = self._within(lift)
        step = y1 - y0
        return np.asarray(y0 + t * (h * d0 + t * (3 * step - h * (2 * d0 + d1) + t * (h * (d0 + d1) - 2 * step))))

    def slope(self, lift: ArrayLike) -> Array:
        """dQ/dL [m2/s] at lifts [m] within the tested range."""
        t, h, y0, y1, d0, d1 = self._within(lift)
        step = (y1 - y0) / h
        return np.asarray(d0 + t * (6 * step - 4 * d0 - 2 * d1 + t * (3 * (d0 + d1) - 6 * step)))

    def area_between(self, low: float, high: float) -> float:
        """Integral of Q dL between two lifts [m4/s]. ValueError past the highest tested lift."""
        if not 0 <= low <= high:
            raise Refused("the lower lift must come first")
        if high > self.highest * (1 + 1e-9):
            raise Refused("the area would reach past the highest tested lift")
        x = self._knots[0]
        edges = np.unique(np.r_[low, x[(x > low) & (x < high)], min(high, self.highest)])
        ends, middle = self.at(edges), self.at((edges[1:] + edges[:-1]) / 2)
        return float(np.sum(np.diff(edges) / 6 * (ends[:-1] + 4 * middle + ends[1:])))  # Simpson: exact for cubics


def pchip_slopes(x: Array, y: Array) -> Array:
    """Slopes at the knots of one curve or of many: weighted harmonic means inside, three-point with limits at the ends.

    Parameters
    ----------
    x : ndarray
        Knots, rising [any unit], shape (n,).
    y : ndarray
        Values at them [any unit], shape (..., n).

    Returns
    -------
    ndarray
        dy/dx, shape (..., n).

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    [5] Fritsch, Butland (1984).
    """
    h, delta = np.diff(x), np.diff(y) / np.diff(x)
    if len(h) == 1:
        return np.repeat(delta, 2, axis=-1)
    slopes = np.zeros(y.shape)
    before, after = delta[..., :-1], delta[..., 1:]
    same = before * after > 0
    w1, w2 = 2 * h[1:] + h[:-1], h[1:] + 2 * h[:-1]
    safe = [np.where(same, d, 1.0) for d in (before, after)]
    slopes[..., 1:-1] = np.where(same, (w1 + w2) / (w1 / safe[0] + w2 / safe[1]), 0.0)
    slopes[..., [0, -1]] = _end_slopes(h[[0, -1]], h[[1, -2]], delta[..., [0, -1]], delta[..., [1, -2]])
    return slopes


def _end_slopes(h0: Array, h1: Array, delta0: Array, delta1: Array) -> Array:
    slope = ((2 * h0 + h1) * delta0 - h0 * delta1) / (h0 + h1)
    over = (delta0 * delta1 <= 0) & (np.abs(slope) > 3 * np.abs(delta0))
    return np.asarray(np.where(slope * delta0 <= 0, 0.0, np.where(over, 3 * delta0, slope)))


def stall_index(flow: Array, uncertainty: Array) -> int | None:
    """Where the flow stops growing: the lowest lift beyond which nothing is gained.

    Parameters
    ----------
    flow, uncertainty : ndarray
        Flow and its standard uncertainty, in one unit, shape (n,).

    Returns
    -------
    int or None
        The lowest i, not the last, for which max over j > i of Q_j - Q_i is under
        max(0.02 Q_peak, 2 u_i); None where there is none.

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    Definition of this project's formula book.
    """
    if len(flow) < 2:
        return None
    best_after = np.maximum.accumulate(flow[::-1])[::-1][1:]
    gain = best_after - flow[:-1]
    found = np.flatnonzero(gain < np.maximum(0.02 * flow.max(), 2 * uncertainty[:-1]))
    return int(found[0]) if len(found) else None


def dips(flow: Array, expanded: Array) -> NDArray[np.int64]:
    """Readings that lie below the running maximum by more than they could by chance.

    Parameters
    ----------
    flow : ndarray
        Shape (n,).
    expanded : ndarray
        Expanded uncertainty of each point's difference from the highest before it, same unit.

    Returns
    -------
    ndarray
        Indices.

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    Definition of this project's formula book.
    """
    before = np.maximum.accumulate(np.r_[-np.inf, flow[:-1]])
    return np.flatnonzero(before - flow > expanded)

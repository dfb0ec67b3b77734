"""How sure a difference is: repeat, re-mount and dial scatter, each with its degrees of freedom.

Relative scatters are fractions. Follows JCGM 100:2008 ("GUM") [6]; components with their own
degrees of freedom are joined as Banerjee (1960) [7] does, which errs to the careful side.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from typing import Final

import numpy as np
from numpy.typing import ArrayLike, NDArray

from ventrix.core.formulas.flow_curve import FlowCurve
from ventrix.core.formulas.quantiles import t_quantile
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.limits import positive
from ventrix.core.quantity.units import CFM, INCH, INCH_OF_WATER

ASSUMED_REPEAT: Final = 0.010
ASSUMED_FREEDOM: Final = 8.0
ASSUMED_MOUNT: Final = 0.007
ASSUMED_MOUNT_FREEDOM: Final = 4.0
ENOUGH_MOUNT_FREEDOM: Final = 4
ENOUGH_FREEDOM: Final = 5
OWN_VARIANCE_QUANTILE: Final = 0.70
ASSUMED_TILT: Final = 0.004  # relative, from lowest to highest lift: centring and entry (common practice, no source)
LIFTS_FOR_TILT: Final = 5  # of a set of mounts, before each is allowed a tilt and a dial zero of its own
DIAL_ZERO: Final = 0.0005 * INCH  # m: common practice, no source
CONFIDENCE: Final = 0.05  # two-sided alpha of every verdict


@dataclass(frozen=True, slots=True)
class Scatter:
    """What this bench is known, or assumed, to scatter by: relative, with degrees of freedom.

    `repeat` is with the head left on and lift and pressure set anew; `mount` is what taking the
    head off and putting it back adds, from `mounts` bolting-downs of unchanged heads besides what is assumed; `tilt`
    is how far it turns the curve, from its lowest to its highest lift.
    """

    repeat: float = ASSUMED_REPEAT
    repeat_freedom: float = ASSUMED_FREEDOM
    mount: float = ASSUMED_MOUNT
    mount_freedom: float = ASSUMED_MOUNT_FREEDOM
    repeat_assumed: bool = True
    mount_assumed: bool = True
    mounts: int = 0
    tilt: float = ASSUMED_TILT


@dataclass(frozen=True, slots=True)
class Instrument:
    """Standard uncertainties of what a reading is set and read with.

    lift : finding the dial's zero [m]: worse than reading it; one zero a run, so common to all its lifts.
    pressure : the gauge [Pa]; common to a run as well.
    flow : the readout's last digit [m3/s] (rectangular, [6] 4.3.7); separate at each lift.
    step : of a readout that comes in coarse steps [m3/s], likewise; repeats fall on one step: they don't average it.
    """

    lift: float = DIAL_ZERO
    pressure: float = 0.05 * INCH_OF_WATER
    flow: float = 0.1 * CFM / np.sqrt(12)
    step: float = 0.0


def student_t(alpha: float, freedom: ArrayLike) -> Array:
    """Two-sided Student t factor, t(1 - alpha/2, nu).

    Parameters
    ----------
    alpha : float
        Chance of being outside [-].
    freedom : array_like
        Degrees of freedom nu [-]; may be infinite.

    Returns
    -------
    ndarray
        Factor [-], shape of `freedom`.

    Raises
    ------
    ValueError
        A nu not above zero.

    References
    ----------
    [6] JCGM 100:2008, app. G, table G.2.
    """
    nu = np.asarray(freedom, dtype=float)
    if nu.ndim == 0:
        return np.asarray(t_quantile(1 - alpha / 2, float(nu)))
    known = {v: t_quantile(1 - alpha / 2, v) for v in set(nu.ravel().tolist())}
    return np.asarray([known[v] for v in nu.ravel().tolist()]).reshape(nu.shape)


@dataclass(frozen=True, slots=True)
class Repeats:
    """What repeats at each of k lifts say: sums of squared relative residuals, and degrees of freedom."""

    squares: Array
    freedom: Array

    @classmethod
    def of(cls, flow: Array, starts: NDArray[np.int64], step: float = 0.0) -> Repeats:
        """From readings sorted by lift, shape (n,), and where each lift starts, shape (k,). Readings that come in steps
        scatter by the step over root twelve at least: two equal ones prove no repeat."""
        counts = np.diff(np.r_[starts, len(flow)])
        mean = np.add.reduceat(flow, starts) / counts
        residual = flow / np.repeat(mean, counts) - 1
        least = (counts - 1.0) * (step / np.sqrt(12) / mean) ** 2
        return cls(np.maximum(np.add.reduceat(residual**2, starts), least), counts - 1.0)


def repeat_scatter(repeats: Sequence[Repeats]) -> tuple[float, int]:
    """Pooled relative standard deviation of repeats, and its degrees of freedom.

    .. math:: s_w^2 = \\sum (q_{ij}/\\bar q_i - 1)^2 / \\nu, \\quad \\nu = \\sum (n_i - 1)

    Parameters
    ----------
    repeats : sequence of Repeats
        One a run.

    Returns
    -------
    tuple of float and int
        s_w [-] (0 where nothing was repeated) and nu.

    Raises
    ------
    ValueError
        Never: no repeats at all give nought and no freedom.

    References
    ----------
    [6] JCGM 100:2008, H.3.6 and 4.2.4 (pooled variance).
    """
    freedom = round(sum(float(r.freedom.sum()) for r in repeats))
    total = sum(float(r.squares.sum()) for r in repeats)
    return (float(np.sqrt(total / freedom)) if freedom else 0.0), freedom


@dataclass(frozen=True, slots=True)
class MountSets:
    """What sets of mounts of unchanged heads say: sum of squares about each set's own mean, its degrees of freedom,
    and how many mounts there were."""

    squares: float = 0.0
    freedom: float = 0.0
    mounts: int = 0

    @classmethod
    def of_tilts(cls, tilts: ArrayLike, variance: float) -> MountSets:
        """From how far each of m mounts tilts the curve [-], less the variance that reading alone gives a tilt."""
        b = np.asarray(tilts, dtype=float)
        if len(b) < 2:
            return cls()
        freedom = float(len(b) - 1)
        return cls(max(float(np.sum((b - b.mean()) ** 2)) - freedom * variance, 0.0), freedom, len(b))

    @classmethod
    def of(cls, means: ArrayLike) -> MountSets:
        """From the means of two or more mounts of one unchanged state [any flow unit], shape (m,)."""
        q = np.asarray(means, dtype=float)
        if len(q) < 2:
            return cls()
        return cls(float(np.sum((q / q.mean() - 1) ** 2)), float(len(q) - 1), len(q))

    def __add__(self, other: MountSets) -> MountSets:
        return MountSets(self.squares + other.squares, self.freedom + other.freedom, self.mounts + other.mounts)


@dataclass(frozen=True, slots=True)
class TwoWay:
    """What one unchanged state flowed in several mounts, one reading a lift, says: repeats (sum of squares, degrees of
    freedom) and how far each mount tilted the curve."""

    squares: float = 0.0
    freedom: float = 0.0
    tilts: MountSets = field(default_factory=MountSets)


def two_way(flow: ArrayLike, lift: ArrayLike) -> TwoWay:
    """Repeat scatter out of single readings, once each mount's own factor is taken out.

    .. math:: r_{ij} = q_{ij}/\\bar q_j - \\bar r_i - b_i x_j - z_i q'_j/\\bar q_j

    Parameters
    ----------
    flow : array_like
        m mounts by n lifts, one reading each [m3/s], shape (m, n).
    lift : array_like
        [m], shape (n,).

    Returns
    -------
    TwoWay
        With (m-1)(n-1) degrees of freedom; (m-1)(n-3) from five lifts on, where each mount has a tilt b and a dial zero
        z of its own.

    Raises
    ------
    Refused
        A flow not above zero.

    References
    ----------
    Two-way layout without repetition (Scheffe, The Analysis of Variance, ch. 4).
    """
    q, x = positive(flow, "flow"), np.asarray(lift, dtype=float)
    m, n = q.shape
    if m < 2 or n < 2:
        return TwoWay()
    r = q / q.mean(axis=0)
    r = r - r.mean(axis=1, keepdims=True)
    r = r - r.mean(axis=0)
    if n < LIFTS_FOR_TILT:
        return TwoWay(float(np.sum(r**2)), float((m - 1) * (n - 1)))
    along = (x - x.mean()) / (x.max() - x.min())
    curve = FlowCurve(x, q.mean(axis=0))
    dial = curve.slope(x) / q.mean(axis=0)
    shapes = np.stack([along, dial - dial.mean()], axis=1)
    normal = np.linalg.inv(shapes.T @ shapes)
    found = r @ shapes @ normal
    left = r - found @ shapes.T
    squares, freedom = float(np.sum(left**2)), float((m - 1) * (n - 3))
    return TwoWay(squares, freedom, MountSets.of_tilts(found[:, 0], squares / freedom * float(normal[0, 0])))


def tilt_scatter(seen: MountSets) -> float:
    """How far bolting down tilts a curve: what was seen on this bench pooled with what is assumed of any.

    Parameters
    ----------
    seen : MountSets
        Of tilts, from lowest to highest lift.

    Returns
    -------
    float
        Standard deviation [-].

    Raises
    ------
    Refused
        Never.

    References
    ----------
    As `mount_scatter`; the prior is common practice, no source.
    """
    own = seen.squares / seen.freedom if seen.freedom else 0.0
    if seen.freedom >= ENOUGH_MOUNT_FREEDOM and own > ASSUMED_TILT**2:
        return float(np.sqrt(own))
    pooled = ASSUMED_MOUNT_FREEDOM * ASSUMED_TILT**2 + seen.squares
    return float(np.sqrt(pooled / (ASSUMED_MOUNT_FREEDOM + seen.freedom)))


def mount_scatter(seen: MountSets) -> tuple[float, float]:
    """Re-mount scatter to judge with: what was seen on this bench, pooled with what is assumed of any.

    .. math:: s_b^2 = (\\nu_0 s_0^2 + SS) / (\\nu_0 + \\nu)

    Parameters
    ----------
    seen : MountSets
        Every set of mounts of unchanged heads on this bench.

    Returns
    -------
    tuple of float
        s_b [-] and its degrees of freedom. With four or more of its own that exceed the assumed 0.7 %, the
        bench's own stands alone: a poor bench is not flattered.

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    [6] JCGM 100:2008, 4.2.4 (pooled variance); the prior is common practice, no source.
    """
    own = seen.squares / seen.freedom if seen.freedom else 0.0
    if seen.freedom >= ENOUGH_MOUNT_FREEDOM and own > ASSUMED_MOUNT**2:
        return float(np.sqrt(own)), seen.freedom
    freedom = ASSUMED_MOUNT_FREEDOM + seen.freedom
    return float(np.sqrt((ASSUMED_MOUNT_FREEDOM * ASSUMED_MOUNT**2 + seen.squares) / freedom)), freedom


def known_scatter(
    repeats: Sequence[Repeats],
    prior: Scatter | None = None,
    seen: MountSets | None = None,
    tilts: MountSets | None = None,
) -> Scatter:
    """The scatter to judge with: measured repeats once there are enough, and mounts as far as they were seen.

    Parameters
    ----------
    repeats : sequence of Repeats
        Of this bench.
    prior : Scatter, optional
        What was known before; the assumed scatters without one.
    seen : MountSets, optional
        Mounts of unchanged heads on this bench; `prior` keeps its own without them.
    tilts : MountSets, optional
        How far these mounts tilted the curve.

    Returns
    -------
    Scatter
        With measured repeats where nu is 5 or more and `prior` was assumed.

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    Formula book of this project.
    """
    found = prior or Scatter()
    if seen is not None and seen.freedom:
        mount, freedom = mount_scatter(seen)
        found = replace(found, mount=mount, mount_freedom=freedom, mount_assumed=False, mounts=seen.mounts)
    if tilts is not None and tilts.freedom:
        found = replace(found, tilt=tilt_scatter(tilts))
    measured, repeat_freedom = repeat_scatter(repeats)
    if not found.repeat_assumed or repeat_freedom < ENOUGH_FREEDOM:
        return found
    return replace(found, repeat=measured, repeat_freedom=float(repeat_freedom), repeat_assumed=False)

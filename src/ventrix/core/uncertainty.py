"""How sure a difference is: repeat, re-mount and dial scatter, each with its degrees of freedom.

Relative scatters are fractions. Follows JCGM 100:2008 ("GUM") [6]; components with their own
degrees of freedom are joined as Banerjee (1960) [7] does, which errs to the careful side.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import ArrayLike, NDArray

from ventrix.core.air import Array
from ventrix.core.units import CFM, INCH, INCH_OF_WATER

ASSUMED_REPEAT: Final = 0.010
ASSUMED_MOUNT: Final = 0.005
ASSUMED_FREEDOM: Final = 8.0
ENOUGH_FREEDOM: Final = 5
OWN_VARIANCE_QUANTILE: Final = 0.70
CONFIDENCE: Final = 0.05  # two-sided alpha of every verdict


@dataclass(frozen=True, slots=True)
class Scatter:
    """What this bench is known, or assumed, to scatter by: relative, with degrees of freedom.

    `repeat` is with the head left on and lift and pressure set anew; `mount` is what taking the
    head off and putting it back adds.
    """

    repeat: float = ASSUMED_REPEAT
    repeat_freedom: float = ASSUMED_FREEDOM
    mount: float = ASSUMED_MOUNT
    mount_freedom: float = ASSUMED_FREEDOM
    repeat_assumed: bool = True
    mount_assumed: bool = True


@dataclass(frozen=True, slots=True)
class Instrument:
    """Standard uncertainties of what a reading is set and read with (rectangular, [6] 4.3.7).

    lift : the dial's zero and graduation [m]; one zero a run, so common to all its lifts.
    pressure : the manometer's graduation [Pa]; common to a run as well.
    flow : the readout's last digit [m3/s]; separate at each lift.
    """

    lift: float = 0.001 * INCH / np.sqrt(12)
    pressure: float = 0.1 * INCH_OF_WATER / np.sqrt(12)
    flow: float = 0.1 * CFM / np.sqrt(12)


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
        Never; NaN for a nu not above zero.

    References
    ----------
    [6] JCGM 100:2008, app. G, table G.2.
    """
    from scipy.special import ndtri, stdtrit  # late: SciPy costs a third of a second

    nu = np.asarray(freedom, dtype=float)
    finite = np.where(np.isinf(nu), 1.0, nu)
    normal = ndtri(1 - alpha / 2)
    return np.asarray(np.where(np.isinf(nu), normal, stdtrit(finite, 1 - alpha / 2)))


@dataclass(frozen=True, slots=True)
class Repeats:
    """What repeats at each of k lifts say: sums of squared relative residuals, and degrees of freedom."""

    squares: Array
    freedom: Array

    @classmethod
    def of(cls, flow: Array, starts: NDArray[np.int64]) -> Repeats:
        """From readings sorted by lift, shape (n,), and where each lift starts, shape (k,)."""
        counts = np.diff(np.r_[starts, len(flow)])
        mean = np.add.reduceat(flow, starts) / counts
        residual = flow / np.repeat(mean, counts) - 1
        return cls(np.add.reduceat(residual**2, starts), counts - 1.0)


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


def mount_scatter(run_means: ArrayLike) -> tuple[float, int]:
    """Re-mount scatter: relative standard deviation of run means of one unchanged head.

    Parameters
    ----------
    run_means : array_like
        Mean of each mount [any flow unit], shape (m,).

    Returns
    -------
    tuple of float and int
        s_b [-] and its degrees of freedom, m - 1.

    Raises
    ------
    ValueError
        Fewer than three mounts.

    References
    ----------
    [6] JCGM 100:2008, 4.2.2.
    """
    q = np.asarray(run_means, dtype=float)
    if len(q) < 3:
        raise ValueError("re-mount scatter needs at least three mounts of one unchanged head")
    return float(np.std(q, ddof=1) / q.mean()), len(q) - 1


def known_scatter(repeats: Sequence[Repeats], prior: Scatter | None = None) -> Scatter:
    """The scatter to judge with: measured repeats once there are enough, the assumed until then.

    Parameters
    ----------
    repeats : sequence of Repeats
        One a run of this bench.
    prior : Scatter, optional
        What was known before; the assumed scatters without one.

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
    prior = prior or Scatter()
    measured, freedom = repeat_scatter(repeats)
    if not prior.repeat_assumed or freedom < ENOUGH_FREEDOM:
        return prior
    return Scatter(measured, float(freedom), prior.mount, prior.mount_freedom, False, prior.mount_assumed)


@dataclass(frozen=True, slots=True)
class LiftScatter:
    """Relative repeat scatter of each lift and its degrees of freedom, shape (k,)."""

    repeat: Array
    freedom: Array


def scatter_by_lift(repeats: Repeats, scatter: Scatter) -> LiftScatter:
    """The repeat scatter of each lift; a lift much noisier than the rest answers for itself.

    Parameters
    ----------
    repeats : Repeats
        Of both runs together, at k lifts.
    scatter : Scatter
        What holds for the rest.

    Returns
    -------
    LiftScatter
        Relative scatter and degrees of freedom, shape (k,).

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    F test of two variances; formula book of this project.

    Notes
    -----
    A lift with repeats uses its own variance where it exceeds the others' by the 0.70 quantile of F:
    air that separates makes one lift noisier than its neighbours, and pooling would hide it. Where
    the others were repeated too little, the scatter handed in stands for them.
    """
    own = repeats.freedom > 0
    s2 = np.full(len(own), scatter.repeat**2)
    nu = np.full(len(own), float(scatter.repeat_freedom))
    if not np.any(own):
        return LiftScatter(np.sqrt(s2), nu)
    from scipy.special import fdtri  # late: SciPy costs a third of a second

    rest_nu = repeats.freedom.sum() - repeats.freedom
    enough = (rest_nu >= ENOUGH_FREEDOM) & (not scatter.repeat_assumed)
    rest_s2 = np.where(enough, (repeats.squares.sum() - repeats.squares) / np.maximum(rest_nu, 1), scatter.repeat**2)
    rest_nu = np.where(enough, rest_nu, min(scatter.repeat_freedom, 1e9))
    own_s2 = repeats.squares / np.maximum(repeats.freedom, 1)
    limit = rest_s2 * fdtri(np.maximum(repeats.freedom, 1), rest_nu, OWN_VARIANCE_QUANTILE)
    noisier = own & (own_s2 > limit)
    return LiftScatter(np.sqrt(np.where(noisier, own_s2, s2)), np.where(noisier, repeats.freedom, nu))


@dataclass(frozen=True, slots=True)
class Side:
    """One side of a comparison at k common lifts, its mounts averaged.

    flow, slope : mean flow [m3/s] and dQ/dL [m2/s]; shape (k,)
    readings : how many readings are in each mean; shape (k,)
    pressure : nominal test pressure [Pa]
    mounts : how many bolting-downs were averaged
    conversion : relative standard uncertainty of a conversion between test pressures
    """

    flow: Array
    slope: Array
    readings: Array
    pressure: float
    mounts: int = 1
    conversion: float = 0.0


@dataclass(frozen=True)
class Difference:
    """After less before at k lifts, with the parts of its standard uncertainty [m3/s]."""

    before: Side
    after: Side
    lift_scatter: LiftScatter
    scatter: Scatter
    instrument: Instrument
    same_mount: bool

    @property
    def value(self) -> Array:
        return self.after.flow - self.before.flow

    def _common_terms(self, side: Side) -> list[Array]:
        """Terms shared by every lift of one side: dial zero, pressure, conversion."""
        root = np.sqrt(side.mounts)
        return [
            self.instrument.lift * side.slope / root,
            side.flow * 0.5 * self.instrument.pressure / side.pressure / root,
            side.flow * side.conversion,
        ]

    def _repeat_variance(self) -> Array:
        before, after = self.before, self.after
        s2 = self.lift_scatter.repeat**2
        return np.asarray(s2 * (before.flow**2 / before.readings + after.flow**2 / after.readings))

    def _resolution_variance(self) -> Array:
        return np.asarray(self.instrument.flow**2 * (1 / self.before.readings + 1 / self.after.readings))

    def noise(self) -> Array:
        """Standard uncertainty of the difference from repeats and resolution alone [m3/s], shape (k,)."""
        return np.asarray(np.sqrt(self._repeat_variance() + self._resolution_variance()))

    def _mount_scatter(self) -> float:
        return 0.0 if self.same_mount else self.scatter.mount

    def expanded(self, alpha: float = CONFIDENCE) -> Array:
        """Expanded uncertainty U(alpha) of the difference at each lift [m3/s], shape (k,)."""
        mount = self._mount_scatter() ** 2 * sum(s.flow**2 / s.mounts for s in (self.before, self.after))
        dial = sum(term**2 for side in (self.before, self.after) for term in self._common_terms(side))
        return self._join(alpha, self._repeat_variance(), mount, dial + self._resolution_variance())

    def weighted(self, weights: Array) -> float:
        """The run's one number, sum of weight times difference [m3/s]."""
        return float(weights @ self.value)

    def weighted_expanded(self, weights: Array, alpha: float = CONFIDENCE) -> float:
        """Expanded uncertainty of `weighted` [m3/s].

        Repeat terms add in squares; mount, dial, pressure and conversion are common to a run and
        add linearly within it, then in quadrature between the two.
        """
        sides = (self.before, self.after)
        mount = self._mount_scatter() ** 2 * sum(float(weights @ s.flow) ** 2 / s.mounts for s in sides)
        common = sum(float(weights @ term) ** 2 for side in sides for term in self._common_terms(side))
        t2 = student_t(alpha, self.lift_scatter.freedom) ** 2
        repeat = float(np.sum(t2 * weights**2 * self._repeat_variance()))
        resolution = float(weights**2 @ self._resolution_variance())
        t_mount = float(student_t(alpha, self.scatter.mount_freedom))
        z = float(student_t(alpha, np.inf))
        return float(np.sqrt(repeat + t_mount**2 * mount + z**2 * (common + resolution)))

    def _join(self, alpha: float, repeat: Array, mount: ArrayLike, exact: ArrayLike) -> Array:
        t_repeat = student_t(alpha, self.lift_scatter.freedom)
        t_mount = student_t(alpha, self.scatter.mount_freedom)
        z = student_t(alpha, np.inf)
        return np.asarray(np.sqrt(t_repeat**2 * repeat + t_mount**2 * np.asarray(mount) + z**2 * np.asarray(exact)))


def point_uncertainty(side: Side, scatter: LiftScatter, mount: float, instrument: Instrument) -> Array:
    """Combined standard uncertainty (k = 1) of each point of one side.

    Parameters
    ----------
    side : Side
        Flows and slopes at k lifts.
    scatter : LiftScatter
        Repeat scatter of each lift.
    mount : float
        Re-mount scatter, relative [-].
    instrument : Instrument
        What readings are set and read with.

    Returns
    -------
    ndarray
        [m3/s], shape (k,).

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    [6] JCGM 100:2008, 5.1.2 (root sum of squares).
    """
    repeat = scatter.repeat**2 * side.flow**2 / side.readings
    mounting = mount**2 * side.flow**2 / side.mounts
    dial = (instrument.lift * side.slope) ** 2 / side.mounts
    pressure = (side.flow * 0.5 * instrument.pressure / side.pressure) ** 2 / side.mounts
    conversion = (side.flow * side.conversion) ** 2
    return np.asarray(np.sqrt(repeat + mounting + dial + pressure + conversion + instrument.flow**2 / side.readings))

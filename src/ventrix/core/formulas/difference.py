"""The uncertainty of a difference of two curves: repeat scatter by lift, both sides, and what each adds. All SI."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

import numpy as np

from ventrix.core.formulas.quantiles import f_quantile
from ventrix.core.formulas.uncertainty import (
    CONFIDENCE,
    ENOUGH_FREEDOM,
    OWN_VARIANCE_QUANTILE,
    Instrument,
    Repeats,
    Scatter,
    student_t,
)
from ventrix.core.quantity.arrays import Array


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
    rest_nu = repeats.freedom.sum() - repeats.freedom
    enough = (rest_nu >= ENOUGH_FREEDOM) & (not scatter.repeat_assumed)
    rest_s2 = np.where(enough, (repeats.squares.sum() - repeats.squares) / np.maximum(rest_nu, 1), scatter.repeat**2)
    rest_nu = np.where(enough, rest_nu, min(scatter.repeat_freedom, 1e9))
    own_s2 = repeats.squares / np.maximum(repeats.freedom, 1)
    pairs = zip(np.maximum(repeats.freedom, 1).tolist(), np.maximum(rest_nu, 1e-9).tolist(), strict=True)
    limit = rest_s2 * np.array([f_quantile(OWN_VARIANCE_QUANTILE, d1, d2) for d1, d2 in pairs])
    noisier = own & (own_s2 > limit)
    return LiftScatter(np.sqrt(np.where(noisier, own_s2, s2)), np.where(noisier, repeats.freedom, nu))


@dataclass(frozen=True, slots=True)
class Side:
    """One side of a comparison at k common lifts, its mounts averaged.

    flow, slope : mean flow [m3/s] and dQ/dL [m2/s]; shape (k,)
    readings : how many readings are in each mean; shape (k,)
    pressure : nominal test pressure [Pa]
    mounts : how many bolting-downs were averaged
    law, size : the two parts of a pressure conversion's relative doubt, signed, that both sides of one port share
        (see `bench_flow.conversion_doubt`); shape (k,)
    adjusted : relative standard uncertainty of what was adjusted on this side alone; shape (k,)
    """

    flow: Array
    slope: Array
    readings: Array
    pressure: float
    mounts: int = 1
    law: Array | float = 0.0
    size: Array | float = 0.0
    adjusted: Array | float = 0.0


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

    @property
    def sides(self) -> tuple[Side, Side]:
        return self.before, self.after

    @cached_property
    def common_terms(self) -> tuple[Array, ...]:
        """Terms that every lift shares [m3/s], each shape (k,): dial, gauge and adjustment of each side, and the doubt
        of converting pressures, in which only what the sides do not share is left."""
        terms: list[Array] = []
        for side in self.sides:
            root = np.sqrt(side.mounts)
            terms += [
                self.instrument.lift * side.slope / root,
                side.flow * 0.5 * self.instrument.pressure / side.pressure / root,
                np.asarray(side.flow * side.adjusted),
            ]
        for name in ("law", "size"):
            had, has = (s.flow * np.asarray(getattr(s, name)) for s in self.sides)
            terms.append(np.asarray(has - had))
        return tuple(terms)

    @cached_property
    def repeat_variance(self) -> Array:
        """Variance of the difference from repeats [m6/s2], shape (k,)."""
        s2 = self.lift_scatter.repeat**2
        return np.asarray(s2 * sum(s.flow**2 / s.readings for s in self.sides))

    @cached_property
    def resolution_variance(self) -> Array:
        """Variance of the difference from the readout's last digit or steps [m6/s2], shape (k,)."""
        return np.asarray(
            self.instrument.flow**2 * sum(1 / s.readings for s in self.sides) + 2 * self.instrument.step**2
        )

    def mount_scatter(self) -> float:
        """Relative scatter that bolting down adds to this difference; nought within one mount."""
        return 0.0 if self.same_mount else self.scatter.mount

    def covariance(self) -> Array:
        """Covariance of the differences [m6/s2], shape (k, k): repeat, resolution, mount, dial and the rest."""
        found = np.diag(self.repeat_variance + self.resolution_variance)
        for side in self.sides:
            found += self.mount_scatter() ** 2 / side.mounts * np.outer(side.flow, side.flow)
        for term in self.common_terms:
            found += np.outer(term, term)
        return np.asarray(found)

    def expanded(self, alpha: float = CONFIDENCE) -> Array:
        """Expanded uncertainty U(alpha) of the difference at each lift [m3/s], shape (k,)."""
        mount = self.mount_scatter() ** 2 * sum(s.flow**2 / s.mounts for s in self.sides)
        exact = sum(term**2 for term in self.common_terms) + self.resolution_variance
        t_repeat = student_t(alpha, self.lift_scatter.freedom)
        t_mount = student_t(alpha, self.scatter.mount_freedom)
        z = student_t(alpha, np.inf)
        return np.asarray(np.sqrt(t_repeat**2 * self.repeat_variance + t_mount**2 * mount + z**2 * exact))

    def weighted(self, weights: Array) -> float:
        """Sum of weight times difference [m3/s]."""
        return float(weights @ self.value)

    def weighted_parts(self, weights: Array, alpha: float = CONFIDENCE) -> tuple[float, float, float]:
        """Repeat part of the squared expanded uncertainty of a weighted difference, mount variance for a relative
        scatter of one, and variance of all the rest [m6/s2].

        Repeat terms add in squares; mount, dial, pressure and conversion are common to a run and
        add linearly within it, then in quadrature between the two.
        """
        t2 = student_t(alpha, self.lift_scatter.freedom) ** 2
        repeat = float(np.sum(t2 * weights**2 * self.repeat_variance))
        mount = 0.0 if self.same_mount else sum(float(weights @ s.flow) ** 2 / s.mounts for s in self.sides)
        rest = sum(float(weights @ term) ** 2 for term in self.common_terms)
        return repeat, mount, rest + float(weights**2 @ self.resolution_variance)

    def weighted_expanded(self, weights: Array, alpha: float = CONFIDENCE) -> float:
        """Expanded uncertainty of a weighted difference [m3/s]; see `weighted_parts`."""
        repeat, mount, rest = self.weighted_parts(weights, alpha)
        t_mount = float(student_t(alpha, self.scatter.mount_freedom)) * self.scatter.mount
        z = float(student_t(alpha, np.inf))
        return float(np.sqrt(repeat + t_mount**2 * mount + z**2 * rest))

    def weighted_standard(self, weights: Array) -> float:
        """Standard uncertainty (k = 1) of a weighted difference [m3/s]."""
        repeat = float(weights**2 @ self.repeat_variance)
        _, mount, rest = self.weighted_parts(weights)
        return float(np.sqrt(repeat + self.scatter.mount**2 * mount + rest))


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
    conversion = side.flow**2 * (
        np.asarray(side.law) ** 2 + np.asarray(side.size) ** 2 + np.asarray(side.adjusted) ** 2
    )
    resolution = instrument.flow**2 / side.readings + instrument.step**2
    return np.asarray(np.sqrt(repeat + mounting + dial + pressure + conversion + resolution))

"""Two runs or cuts held against each other: may they be compared, and what is proven.

Whether they may be compared at all is decided in `conditions`. All SI; sources as in ``docs/sources.md``.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Final, NamedTuple

import numpy as np
from numpy.typing import NDArray

from ventrix.core.formulas.cam import AnyCam, cam_mean
from ventrix.core.formulas.difference import Difference
from ventrix.core.formulas.knowledge import Adjustment, Known
from ventrix.core.formulas.uncertainty import CONFIDENCE, Repeats, Scatter
from ventrix.core.judging.comparability import Comparability, Level
from ventrix.core.judging.schools import school_weights
from ventrix.core.judging.single_readings import LoneReading, lone_readings
from ventrix.core.model.bench_kinds import FlowKind
from ventrix.core.model.kinds import ExpectedAs, Result, School
from ventrix.core.quantity.arrays import Array
from ventrix.core.runs.reduced_run import LIFT_GRAIN, ReducedRun

Runs = Sequence[ReducedRun]


_NAMES: Final = {1: Result.BETTER, -1: Result.WORSE, 0: Result.NOT_PROVEN}


class BandChange(NamedTuple):
    """Mean before and after over a band of lifts, the difference and its U(0.05), in the unit of the runs' flow."""

    before: float
    after: float
    change: float
    expanded: float

    @property
    def result(self) -> Result:
        if self.change > self.expanded:
            return Result.BETTER
        return Result.WORSE if self.change < -self.expanded else Result.NOT_PROVEN


@dataclass(frozen=True)
class RunComparison:
    """Two sides at every lift both reach. Arrays have shape (k,); flows in the unit of the runs.

    before_runs, after_runs : the runs that speak, brought to one test pressure
    repeats : what the repeats of both sides say at each lift
    """

    comparability: Comparability
    kind: FlowKind
    lift: Array
    before: Array
    after: Array
    interpolated: NDArray[np.bool_]
    difference: Difference
    cam: AnyCam | None
    known: Known
    repeats: Repeats
    before_runs: tuple[ReducedRun, ...]
    after_runs: tuple[ReducedRun, ...]
    notes: tuple[str, ...] = ()
    adjustments: tuple[Adjustment, ...] = ()
    school: str = School.CAM
    claimed: str = ""
    own_lifts: tuple[float, ...] = ()
    house: str = ""

    def by(self, school: str) -> RunComparison:
        """The same pair, judged by another school."""
        return self if school == self.school else replace(self, school=school)

    def over(self, low: float, high: float, together: int = 1) -> BandChange | None:
        """The mean over tested lifts between two lifts [m], None where none was tested there; its U is that of
        `together` such bands looked at at once."""
        inside = self.tested & (self.lift > low * (1 - 1e-9)) & (self.lift <= high * (1 + 1e-9))
        if not np.any(inside):
            return None
        weights = inside / np.sum(inside)
        return BandChange(
            float(weights @ self.before),
            float(weights @ self.after),
            self.difference.weighted(weights),
            self.difference.weighted_expanded(weights, CONFIDENCE / together),
        )

    @property
    def scatter(self) -> Scatter:
        return self.known.scatter

    @property
    def pressure(self) -> float:
        """The one test pressure of the pair [Pa]."""
        return self.difference.after.pressure

    @cached_property
    def tested(self) -> NDArray[np.bool_]:
        """Lifts that were tested on both sides: the only ones anything is proven at."""
        return ~self.interpolated

    @property
    def change(self) -> Array:
        return self.after - self.before

    @cached_property
    def expanded(self) -> Array:
        """U(0.05) of the difference at each lift."""
        return self.difference.expanded()

    @property
    def allowed(self) -> bool:
        return self.comparability.level in (Level.YES, Level.CONVERTED) and not self.claimed

    def _signs(self, expanded: Array) -> NDArray[np.int64]:
        sign = np.where(self.change > expanded, 1, np.where(self.change < -expanded, -1, 0))
        return np.where(self.tested & self.allowed, sign, 0)

    @cached_property
    def results(self) -> tuple[Result, ...]:
        """Better, worse or not proven at each lift, taken alone: what a document tells. Screens show `marks`."""
        return tuple(_NAMES[int(s)] for s in self._signs(self.expanded))

    @cached_property
    def expanded_together(self) -> Array:
        """U of the difference at each lift where all tested lifts are looked at together: U(0.05 / K)."""
        return self.difference.expanded(CONFIDENCE / max(int(np.sum(self.tested)), 1))

    @cached_property
    def marks(self) -> tuple[Result, ...]:
        """What is drawn at each lift: the one rule for sentence, marks, bands and tables. Better or worse only where it
        stands among all lifts tested; never one odd reading."""
        return tuple(_NAMES[int(s)] for s in self.nameable)

    @cached_property
    def lone(self) -> tuple[LoneReading, ...]:
        """Lifts whose difference stands off both neighbours: they rest on one reading, to be taken again."""
        tested = self.tested
        if not self.allowed or int(np.sum(tested)) < 3:
            return ()
        repeats = Repeats(self.repeats.squares[tested], self.repeats.freedom[tested])
        return lone_readings(self.lift[tested], self.difference, tested, repeats, self.before_runs, self.after_runs)

    @cached_property
    def nameable(self) -> NDArray[np.int64]:
        """+1, -1 or 0 by lift, strict enough that a verdict may name lifts: U(0.05 / K); never one odd reading."""
        signs = self._signs(self.expanded_together)
        odd = {round(x.lift / LIFT_GRAIN) for x in self.lone}
        return np.where([grain in odd for grain in grains(self.lift)], 0, signs) if odd else signs

    @cached_property
    def is_trade(self) -> bool:
        """Gains here and loses there: two neighbouring lifts proven each way."""
        signs = self.nameable[self.tested]
        return _neighbours(signs, 1) and _neighbours(signs, -1)

    @cached_property
    def weights(self) -> Array:
        """What each lift counts in the one number, shape (k,); zero where interpolated."""
        weights = np.zeros(len(self.lift))
        tested = self.tested
        if np.any(tested):
            middle = (self.before[tested] + self.after[tested]) / 2
            weights[tested] = school_weights(self.school, self.lift[tested], middle, self.cam, self.own_lifts)
        return weights

    def _one_number(self, flow: Array) -> float:
        """The school's one number of a side: by the cam the mean of its own monotone curve."""
        tested = self.tested
        if self.school == School.CAM and self.cam is not None and np.any(tested):
            return cam_mean(self.lift[tested], flow[tested], self.cam)
        return float(self.weights @ flow)

    @cached_property
    def weighted_before(self) -> float:
        return self._one_number(self.before)

    @cached_property
    def weighted_after(self) -> float:
        return self._one_number(self.after)

    @property
    def weighted(self) -> float:
        return self.weighted_after - self.weighted_before

    @cached_property
    def weighted_expanded(self) -> float:
        return self.difference.weighted_expanded(self.weights)

    def result_among(self, looks: int) -> Result:
        """What the one number proves where it is one of several looked at in a row: U(0.05 / looks)."""
        expanded = self.difference.weighted_expanded(self.weights, CONFIDENCE / max(looks, 1))
        if not self.allowed or abs(self.weighted) <= expanded:
            return Result.NOT_PROVEN
        return Result.BETTER if self.weighted > 0 else Result.WORSE

    def gain_as(self, meant: str, lift: float | None = None) -> BandChange | None:
        """Before, after, gain and its U(0.05) as the number a prediction was meant as: across the lifts that count, at
        peak, or at one lift [m]; None where that was not flowed on both sides."""
        if meant == ExpectedAs.PEAK:
            i, j = int(np.argmax(self.before)), int(np.argmax(self.after))
            had, has = float(self.before[i]), float(self.after[j])
            return BandChange(had, has, has - had, float(max(self.expanded[i], self.expanded[j])))
        if meant == ExpectedAs.LIFT:
            if lift is None or not self.lift[0] - LIFT_GRAIN <= lift <= self.lift[-1] + LIFT_GRAIN:
                return None
            had, has, u = (float(np.interp(lift, self.lift, v)) for v in (self.before, self.after, self.expanded))
            return BandChange(had, has, has - had, u)
        return BandChange(self.weighted_before, self.weighted_after, self.weighted, self.weighted_expanded)

    @cached_property
    def weighted_standard(self) -> float:
        return self.difference.weighted_standard(self.weights)


def _neighbours(signs: NDArray[np.int64], wanted: int) -> bool:
    hit = signs == wanted
    return bool(np.any(hit[1:] & hit[:-1]))


def grains(lift: Array) -> Array:
    return np.round(lift / LIFT_GRAIN)

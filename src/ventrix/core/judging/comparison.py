"""Two runs or cuts held against each other: may they be compared, and what is proven.

Whether they may be compared at all is decided in `conditions`. All SI; sources as in ``docs/sources.md``.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Final, Literal, NamedTuple

import numpy as np
from numpy.typing import NDArray

from ventrix.core.formulas.cam import AnyCam, cam_mean
from ventrix.core.formulas.knowledge import Adjustment, Check, Known
from ventrix.core.formulas.uncertainty import (
    CONFIDENCE,
    Difference,
    Repeats,
    Scatter,
    Side,
    known_scatter,
    scatter_by_lift,
)
from ventrix.core.judging.comparability import Comparability, comparability
from ventrix.core.judging.schools import school_weights
from ventrix.core.judging.single_readings import LoneReading, lone_readings
from ventrix.core.model.kinds import CutKind, ExpectedAs, Result, School
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.words import percent_text
from ventrix.core.runs.reduction import LIFT_GRAIN, ReducedRun, instrument_for

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
    kind: Literal["flow", "index"]
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
        return self.comparability.level in ("yes", "converted") and not self.claimed

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
        return np.where([grain in odd for grain in _grains(self.lift)], 0, signs) if odd else signs

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


def _mounts(runs: Runs) -> int:
    """How many bolting-downs speak; a run without one counts as its own."""
    return len({r.mount if r.mount is not None else f"?{i}" for i, r in enumerate(runs)})


def _lift_ids(runs: Runs) -> NDArray[np.int64]:
    """Lifts tested in every run of one side, in grains of a micrometre."""
    sets = [set(np.round(r.lift / LIFT_GRAIN).astype(int).tolist()) for r in runs]
    return np.array(sorted(set.intersection(*sets)), dtype=np.int64)


def _side(runs: Runs, lift: Array, adjustments: Sequence[Adjustment] = (), check: Check | None = None) -> Side:
    """One side at lifts; `adjustments` are in its runs already, their uncertainty and the check's are counted here."""
    counts = np.zeros(len(lift))
    careful = [a.careful_at(lift) for a in adjustments]
    careful += [np.full(len(lift), check.counts)] if check is not None else []
    adjusted = np.sqrt(np.sum(np.square(careful), axis=0)) if careful else 0.0
    parts: list[list[Array]] = [[], [], [], []]
    for run in runs:
        doubts = (np.interp(lift, run.lift, d) for d in run.conversion)
        for kept, found in zip(parts, (run.curve.at(lift), run.curve.slope(lift), *doubts), strict=True):
            kept.append(np.asarray(found))
        here = _grains(lift)[:, None] == _grains(run.lift)[None, :]
        counts += np.where(here.any(axis=1), here @ run.readings, 1.0)
    flow, slope, law, size = (np.mean(p, axis=0) for p in parts)
    pressure = runs[0].test_pressure
    return Side(flow, slope, counts, pressure, _mounts(runs), law, size, adjusted)


def _repeats(runs: Runs, lift: Array) -> Repeats:
    """The repeats of all runs together at each of the lifts."""
    squares, freedom = np.zeros(len(lift)), np.zeros(len(lift))
    for run in runs:
        here = _grains(lift)[:, None] == _grains(run.lift)[None, :]
        squares += here @ run.repeats.squares
        freedom += here @ run.repeats.freedom
    return Repeats(squares, freedom)


def _grains(lift: Array) -> Array:
    return np.round(lift / LIFT_GRAIN)


def at_one_pressure(
    before: Runs, after: Runs, wanted: float | None = None
) -> tuple[tuple[ReducedRun, ...], tuple[ReducedRun, ...]]:
    """Both sides brought to one test pressure as a whole, before any figure is taken from them.

    Parameters
    ----------
    before, after : sequence of ReducedRun
        Runs of each side.
    wanted : float, optional
        The job's own pressure [Pa]; else that of the last run after.

    Returns
    -------
    tuple of tuple
        Both sides, runs that stood there already as they were.

    Raises
    ------
    ValueError
        A pressure that a bench cannot have.

    References
    ----------
    `bench_flow.conversion_ratio`.
    """
    last = after[-1]
    pressure = wanted or (last.as_tested or last).test_pressure
    return tuple(r.at_pressure(pressure) for r in before), tuple(r.at_pressure(pressure) for r in after)


def compare_runs(
    before: Runs,
    after: Runs,
    changes: Iterable[CutKind] = (CutKind.PORT,),
    cam: AnyCam | None = None,
    known: Known | None = None,
    school: str = School.CAM,
    pressure: float | None = None,
    own_lifts: tuple[float, ...] = (),
) -> RunComparison:
    """Hold the runs of one cut against those of another, mounts averaged.

    Parameters
    ----------
    before, after : sequence of ReducedRun
        Runs of each side, under one set-up a side (the first's set-up speaks for the side).
    changes : iterable of CutKind
        What was declared between the two: a valve, seat or cleaning cut allows its own conditions to differ.
    cam : Cam or TabledCam, optional
        Weights the run's one number; equal weights without.
    known : Known, optional
        What is known of the bench and of what lies between the sides; the usual otherwise.
    school : str
        Whose number the run's verdict rests on; see `schools`.
    pressure : float, optional
        Test pressure that the pair is shown at [Pa]; the after run's without one.
    own_lifts : tuple of float
        The porter's own lifts [m], for the school that counts these.

    Raises
    ------
    ValueError
        No run on a side, or a flow held against an index.
    """
    if not before or not after:
        raise Refused("both sides need a run")
    kinds = {r.kind for r in (*before, *after)}
    if len(kinds) > 1:
        raise Refused("an index of an uncalibrated bench cannot be held against a flow")
    kind = before[0].kind
    k = known or Known()
    verdict = comparability(
        before[0].setup, after[0].setup, changes, k.transfer, k.bridge, (before[0].geometry, after[0].geometry)
    )
    before, after = at_one_pressure(before, after, pressure)
    carried_over = {d.key for d in verdict.differences if d.level == "converted"}
    adjustments = tuple(
        a
        for a in (
            k.transfer if "bench" in carried_over else None,
            k.bridge if "bridge" in carried_over else None,
            k.witness,
        )
        if a is not None
    )
    ids_before, ids_after = _lift_ids(before), _lift_ids(after)
    reach = int(min(r.highest for r in (c.curve for c in (*before, *after))) / LIFT_GRAIN + 0.5)
    union = np.union1d(ids_before, ids_after)
    left_out = int(np.sum(union > reach))
    union = union[union <= reach]
    lift = np.asarray(union * LIFT_GRAIN, dtype=np.float64)
    interpolated = ~(np.isin(union, ids_before) & np.isin(union, ids_after))
    after = tuple(r.carried_over([a.factor_at(r.lift) for a in adjustments]) for r in after)
    sides = _side(before, lift), _side(after, lift, adjustments, k.check)
    every = [*before, *after]
    scatter = known_scatter([r.repeats for r in every], k.scatter)
    repeats = _repeats(every, lift)
    mounts = {r.mount for r in every}
    difference = Difference(
        before=sides[0],
        after=sides[1],
        lift_scatter=scatter_by_lift(repeats, scatter),
        scatter=scatter,
        instrument=instrument_for(kind, k.instrument, max(r.step for r in every)),
        same_mount=len(mounts) == 1 and None not in mounts,
    )
    notes = []
    if left_out:
        notes.append(f"{left_out} lift{'s' * (left_out > 1)} past the other side's highest tested lift: left out")
    if np.any(interpolated):
        notes.append(f"{int(np.sum(interpolated))} interpolated on one side: never proven, not in the verdict")
    return RunComparison(
        verdict,
        kind,
        lift,
        sides[0].flow,
        sides[1].flow,
        interpolated,
        difference,
        cam,
        replace(k, scatter=scatter),
        repeats,
        before,
        after,
        (*notes, *(f"after: {a.sentence}" for a in adjustments)),
        adjustments,
        school,
        next((r.claimed for r in every if r.claimed), ""),
        own_lifts,
    )


FEWEST_WITNESS_LIFTS: Final = 2


def witness_adjustment(before: ReducedRun, after: ReducedRun, scatter: Scatter) -> Adjustment | None:
    """What an untouched port flowed at both settings-up says that changed, to be taken out of the side after.

    Parameters
    ----------
    before, after : ReducedRun
        Runs of the witness port, at least two lifts in common.
    scatter : Scatter
        Of the bench.

    Returns
    -------
    Adjustment or None
        Factor before/after [-], the mean of the lifts in common; None where too few are.

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    Difference of differences; repeat and re-mount scatter of both witness runs go into its uncertainty.
    """
    if before.kind != after.kind:
        return None
    after = after.at_pressure(before.test_pressure)
    ids, there = (np.round(r.lift / LIFT_GRAIN).astype(int) for r in (before, after))
    common, at, on = np.intersect1d(ids, there, return_indices=True)
    if len(common) < FEWEST_WITNESS_LIFTS:
        return None
    factor = float((before.flow[at] / after.flow[on]).mean())
    repeats = float(np.sum(1 / before.readings[at] + 1 / after.readings[on])) / len(common) ** 2
    mounts = 0.0 if before.mount is not None and before.mount == after.mount else 2.0
    law, size = (float(a[at].mean() - b[on].mean()) for a, b in zip(before.conversion, after.conversion, strict=True))
    doubt = float(np.hypot(law, size))
    uncertainty = float(np.sqrt(scatter.repeat**2 * repeats + scatter.mount**2 * mounts + doubt**2))
    moved = percent_text(1 / factor - 1, sign=True)
    sentence = f"the untouched witness port read {moved}, which is taken out"
    return Adjustment(factor, uncertainty, min(scatter.repeat_freedom, scatter.mount_freedom), sentence)

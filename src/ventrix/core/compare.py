"""Two runs or cuts held against each other: may they be compared, and what is proven.

Whether they may be compared at all is decided in `conditions`. All SI; sources as in ``docs/sources.md``.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Final, Literal, NamedTuple

import numpy as np
from numpy.typing import NDArray

from ventrix.core import bench_flow
from ventrix.core.air import Array
from ventrix.core.conditions import Adjustment, Comparability, comparability
from ventrix.core.curve import AnyCam
from ventrix.core.model import CutKind
from ventrix.core.reduction import LIFT_GRAIN, ReducedRun, instrument_for
from ventrix.core.schools import CAM, school_weights
from ventrix.core.uncertainty import (
    Difference,
    Instrument,
    Repeats,
    Scatter,
    Side,
    known_scatter,
    scatter_by_lift,
)

PointResult = Literal["better", "worse", "not proven"]

CONVERSION_UNCERTAINTY: Final = 0.01  # times ln of the pressure ratio, relative


class BandChange(NamedTuple):
    """Mean before and after over a band of lifts, the difference and its U(0.05), in the unit of the runs' flow."""

    before: float
    after: float
    change: float
    expanded: float

    @property
    def result(self) -> PointResult:
        if self.change > self.expanded:
            return "better"
        return "worse" if self.change < -self.expanded else "not proven"


@dataclass(frozen=True)
class RunComparison:
    """Two sides at every lift both reach. Arrays have shape (k,); flows in the unit of the runs."""

    comparability: Comparability
    kind: Literal["flow", "index"]
    lift: Array
    before: Array
    after: Array
    interpolated: NDArray[np.bool_]
    difference: Difference
    cam: AnyCam | None
    scatter: Scatter
    notes: tuple[str, ...] = ()
    adjustments: tuple[Adjustment, ...] = ()
    school: str = CAM
    claimed: str = ""

    def by(self, school: str) -> RunComparison:
        """The same pair, judged by another school."""
        return self if school == self.school else replace(self, school=school)

    def over(self, low: float, high: float) -> BandChange | None:
        """The mean over tested lifts between two lifts [m], None where none was tested there."""
        inside = self.tested & (self.lift > low * (1 - 1e-9)) & (self.lift <= high * (1 + 1e-9))
        if not np.any(inside):
            return None
        weights = inside / np.sum(inside)
        return BandChange(
            float(weights @ self.before),
            float(weights @ self.after),
            self.difference.weighted(weights),
            self.difference.weighted_expanded(weights),
        )

    @property
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
    def results(self) -> tuple[PointResult, ...]:
        """Better, worse or not proven at each lift, taken alone."""
        names: dict[int, PointResult] = {1: "better", -1: "worse", 0: "not proven"}
        return tuple(names[int(s)] for s in self._signs(self.expanded))

    @cached_property
    def nameable(self) -> NDArray[np.int64]:
        """+1, -1 or 0 by lift, strict enough that a verdict may name lifts: U(0.05 / K)."""
        k = max(int(np.sum(self.tested)), 1)
        return self._signs(self.difference.expanded(0.05 / k))

    @cached_property
    def weights(self) -> Array:
        """What each lift counts in the one number, shape (k,); zero where interpolated."""
        weights = np.zeros(len(self.lift))
        if np.any(self.tested):
            weights[self.tested] = school_weights(self.school, self.lift[self.tested], self.cam)
        return weights

    @cached_property
    def weighted(self) -> float:
        return self.difference.weighted(self.weights)

    @cached_property
    def weighted_expanded(self) -> float:
        return self.difference.weighted_expanded(self.weights)

    @property
    def weighted_before(self) -> float:
        return float(self.weights @ self.before)

    @property
    def weighted_after(self) -> float:
        return float(self.weights @ self.after)


def _mounts(runs: Sequence[ReducedRun]) -> int:
    """How many bolting-downs speak; a run without one counts as its own."""
    return len({r.mount if r.mount is not None else f"?{i}" for i, r in enumerate(runs)})


def _lift_ids(runs: Sequence[ReducedRun]) -> NDArray[np.int64]:
    """Lifts tested in every run of one side, in grains of a micrometre."""
    sets = [set(np.round(r.lift / LIFT_GRAIN).astype(int).tolist()) for r in runs]
    return np.array(sorted(set.intersection(*sets)), dtype=np.int64)


def _side(runs: Sequence[ReducedRun], lift: Array, pressure: float, adjustments: Sequence[Adjustment] = ()) -> Side:
    flows, slopes, counts = [], [], np.zeros(len(lift))
    conversion = 0.0
    adjusted = float(np.prod([a.factor for a in adjustments]))
    for run in runs:
        factor = adjusted
        if run.kind == "flow" and abs(run.test_pressure / pressure - 1) >= 1e-3:
            factor *= float(bench_flow.convert_pressure(1.0, run.test_pressure, pressure))
            conversion = max(conversion, CONVERSION_UNCERTAINTY * abs(float(np.log(pressure / run.test_pressure))))
        flows.append(run.curve.at(lift) * factor)
        slopes.append(run.curve.slope(lift) * factor)
        here = _grains(lift)[:, None] == _grains(run.lift)[None, :]
        counts += np.where(here.any(axis=1), here @ run.readings, 1.0)
    return Side(
        flow=np.mean(flows, axis=0),
        slope=np.mean(slopes, axis=0),
        readings=counts,
        pressure=pressure,
        mounts=_mounts(runs),
        conversion=float(np.sqrt(conversion**2 + sum(a.careful**2 for a in adjustments))),
    )


def _repeats(runs: Sequence[ReducedRun], lift: Array) -> Repeats:
    """The repeats of all runs together at each of the lifts."""
    squares, freedom = np.zeros(len(lift)), np.zeros(len(lift))
    for run in runs:
        here = _grains(lift)[:, None] == _grains(run.lift)[None, :]
        squares += here @ run.repeats.squares
        freedom += here @ run.repeats.freedom
    return Repeats(squares, freedom)


def _grains(lift: Array) -> Array:
    return np.round(lift / LIFT_GRAIN)


def compare_runs(
    before: Sequence[ReducedRun],
    after: Sequence[ReducedRun],
    change: CutKind = "port",
    cam: AnyCam | None = None,
    scatter: Scatter | None = None,
    instrument: Instrument | None = None,
    transfer: Adjustment | None = None,
    witness: Adjustment | None = None,
    school: str = CAM,
) -> RunComparison:
    """Hold the runs of one cut against those of another, mounts averaged.

    Parameters
    ----------
    before, after : sequence of ReducedRun
        Runs of each side, under one set-up a side (the first's set-up speaks for the side).
    change : CutKind
        What the cut was: a valve or cleaning cut allows its own condition to differ.
    cam : Cam or TabledCam, optional
        Weights the run's one number; equal weights without.
    scatter : Scatter, optional
        What the bench is known to scatter by.
    instrument : Instrument, optional
        What this bench is set and read with; the usual graduations otherwise.
    transfer : Adjustment, optional
        Carries the side after over to the bench of the side before.
    witness : Adjustment, optional
        What an uncut port says that the setting-up changed: taken out of the side after.
    school : str
        Whose number the run's verdict rests on; see `schools`.

    Raises
    ------
    ValueError
        No run on a side, or a flow held against an index.
    """
    if not before or not after:
        raise ValueError("both sides need a run")
    kinds = {r.kind for r in (*before, *after)}
    if len(kinds) > 1:
        raise ValueError("an index of an uncalibrated bench cannot be held against a flow")
    kind = before[0].kind
    verdict = comparability(before[0].setup, after[0].setup, change, transfer)
    other_bench = any(d.key == "bench" and d.level == "converted" for d in verdict.differences)
    adjustments = tuple(a for a in (transfer if other_bench else None, witness) if a is not None)
    ids_before, ids_after = _lift_ids(before), _lift_ids(after)
    reach = int(min(r.highest for r in (c.curve for c in (*before, *after))) / LIFT_GRAIN + 0.5)
    union = np.union1d(ids_before, ids_after)
    left_out = int(np.sum(union > reach))
    union = union[union <= reach]
    lift = np.asarray(union * LIFT_GRAIN, dtype=np.float64)
    interpolated = ~(np.isin(union, ids_before) & np.isin(union, ids_after))
    pressure = before[0].test_pressure
    sides = _side(before, lift, pressure), _side(after, lift, pressure, adjustments)
    every = [*before, *after]
    known = known_scatter([r.repeats for r in every], scatter)
    mounts = {r.mount for r in every}
    difference = Difference(
        before=sides[0],
        after=sides[1],
        lift_scatter=scatter_by_lift(_repeats(every, lift), known),
        scatter=known,
        instrument=instrument if instrument is not None and kind == "flow" else instrument_for(kind),
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
        known,
        (*notes, *(f"after: {a.sentence}" for a in adjustments)),
        adjustments,
        school,
        next((r.claimed for r in every if r.claimed), ""),
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
    ids, there = (np.round(r.lift / LIFT_GRAIN).astype(int) for r in (before, after))
    common, at, on = np.intersect1d(ids, there, return_indices=True)
    if len(common) < FEWEST_WITNESS_LIFTS or before.kind != after.kind:
        return None
    ratio = before.flow[at] / after.flow[on]
    if before.kind == "flow":
        ratio = ratio * float(bench_flow.convert_pressure(1.0, after.test_pressure, before.test_pressure))
    factor = float(ratio.mean())
    repeats = float(np.sum(1 / before.readings[at] + 1 / after.readings[on])) / len(common) ** 2
    mounts = 0.0 if before.mount is not None and before.mount == after.mount else 2.0
    uncertainty = float(np.sqrt(scatter.repeat**2 * repeats + scatter.mount**2 * mounts))
    moved = f"{100 * (1 / factor - 1):+.1f} %".replace("-", "−")
    sentence = f"the untouched witness port read {moved}, which is taken out"
    return Adjustment(factor, uncertainty, min(scatter.repeat_freedom, scatter.mount_freedom), sentence)

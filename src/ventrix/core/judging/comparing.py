"""Two sets of runs held against each other: brought to one pressure, and to the lifts they share. All SI."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import replace
from typing import Final

import numpy as np
from numpy.typing import NDArray

from ventrix.core.formulas.cam import AnyCam
from ventrix.core.formulas.difference import Difference, Side, scatter_by_lift
from ventrix.core.formulas.knowledge import Adjustment, Check, Known
from ventrix.core.formulas.uncertainty import Repeats, Scatter, known_scatter
from ventrix.core.judging.comparability import Level, comparability
from ventrix.core.judging.comparison import RunComparison, Runs, grains
from ventrix.core.judging.paper import on_paper
from ventrix.core.model.kinds import CutKind, School
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.words import percent_text
from ventrix.core.runs.reduced_run import LIFT_GRAIN, ReducedRun, instrument_for
from ventrix.words import tr


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
        here = grains(lift)[:, None] == grains(run.lift)[None, :]
        counts += np.where(here.any(axis=1), here @ run.readings, 1.0)
    flow, slope, law, size = (np.mean(p, axis=0) for p in parts)
    pressure = runs[0].test_pressure
    return Side(flow, slope, counts, pressure, _mounts(runs), law, size, adjusted)


def _repeats(runs: Runs, lift: Array) -> Repeats:
    """The repeats of all runs together at each of the lifts."""
    squares, freedom = np.zeros(len(lift)), np.zeros(len(lift))
    for run in runs:
        here = grains(lift)[:, None] == grains(run.lift)[None, :]
        squares += here @ run.repeats.squares
        freedom += here @ run.repeats.freedom
    return Repeats(squares, freedom)


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
        raise Refused("an index of an uncalibrated bench cannot be compared with a flow")
    kind = before[0].kind
    k = known or Known()
    verdict = comparability(
        before[0].setup, after[0].setup, changes, k.transfer, k.bridge, (before[0].geometry, after[0].geometry)
    )
    verdict, paper, house = on_paper(verdict, (*before, *after), k.house)
    before, after = at_one_pressure(before, after, pressure)
    carried_over = {d.key for d in verdict.differences if d.level == Level.CONVERTED}
    adjustments = tuple(
        a
        for a in (
            k.transfer if "bench" in carried_over else None,
            k.bridge if "bridge" in carried_over else None,
            k.witness,
            k.house if house else None,
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
        notes.append(
            tr("{} lift{} past the other side's highest tested lift: left out", left_out, "s" * (left_out > 1))
        )
    if np.any(interpolated):
        notes.append(tr("{} interpolated on one side: never proven, not in the verdict", int(np.sum(interpolated))))
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
        (*notes, *(tr("after: {}", a.sentence) for a in adjustments)),
        adjustments,
        school,
        next((r.claimed for r in every if r.claimed), paper),
        own_lifts,
        house,
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
    sentence = tr("the untouched witness port read {}, which is taken out", moved)
    return Adjustment(factor, uncertainty, min(scatter.repeat_freedom, scatter.mount_freedom), sentence)

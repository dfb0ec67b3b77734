"""What the readings of a job say: runs of a cut reduced, two cuts held against each other, judged.

One is made for each state of a job and answers from memory what was asked before.
"""

from __future__ import annotations

import threading
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field, replace
from itertools import product
from operator import is_
from typing import Final

import numpy as np

from ventrix.core.benches.study import Evidence, of_mounts, studied
from ventrix.core.benches.transfer import transfer_between
from ventrix.core.formulas.cam import CHECKING_LIFT, AnyCam, Cam, TabledCam
from ventrix.core.formulas.flow_curve import dips
from ventrix.core.formulas.knowledge import Adjustment, Check, EasyMistakes, Known
from ventrix.core.formulas.uncertainty import Instrument, Scatter
from ventrix.core.judging.bridge import bridge_adjustment, under, wants_bridge
from ventrix.core.judging.checks import (
    CheckKind,
    Offer,
    again_check,
    check_offer,
    plate_check,
    witness_check,
    witness_of,
)
from ventrix.core.judging.comparability import Comparability, comparability
from ventrix.core.judging.comparison import RunComparison, compare_runs, witness_adjustment
from ventrix.core.judging.expectation import Outcome, outcome_of
from ventrix.core.judging.my_lifts import swirl_wish_sentences
from ventrix.core.judging.pours import volumes_of
from ventrix.core.judging.verdict import Verdict, Wording, judge
from ventrix.core.model.bench import Bench, bench_named, same_name
from ventrix.core.model.cut import OTHER_SIDE, Cut, Port, changes_between, poured_volume, trial_as_cut
from ventrix.core.model.job import Job
from ventrix.core.model.kinds import CutKind, Result
from ventrix.core.model.noun import Direction
from ventrix.core.model.run import UNDONE, FlowRun, SetUp
from ventrix.core.model.school_questions import side_taken
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.words import sentence
from ventrix.core.runs.geometry import Geometry, geometry_of
from ventrix.core.runs.reduction import LIFT_GRAIN, SAME_PRESSURE, ReducedRun, reduce_run


@dataclass(frozen=True, slots=True)
class Pair:
    """Two cuts held against each other, through the runs whose set-ups match best.

    `comparison` is None where it cannot be made, and `missing` says why in a sentence.
    """

    port: Port
    before: Cut
    after: Cut
    before_runs: tuple[ReducedRun, ...]
    after_runs: tuple[ReducedRun, ...]
    comparison: RunComparison | None
    missing: str = ""


@dataclass(frozen=True, slots=True)
class Gain:
    """What a cut did, as every place shows it: gain and U(0.05) in flow [m3/s], or as a share of the cut held against
    where the bench is uncalibrated (`is_share`); both None where the two may not be compared. `result` is the pair's
    own; `mark` is what its plate shows, which is one of a row."""

    value: float | None
    expanded: float | None
    is_share: bool
    result: str
    mark: str
    comparable: bool
    verdict: Verdict


_RANK = {"yes": 0, "converted": 1, "unknown": 2, "no": 3}


Runs = tuple[ReducedRun, ...]


@dataclass(frozen=True, slots=True)
class _Compared:
    """A comparison and what it was made from."""

    had: Runs
    has: Runs
    rest: tuple[object, ...]
    comparison: RunComparison

    def is_of(self, had: Runs, has: Runs, rest: tuple[object, ...]) -> bool:
        """Made from these very runs and settings."""
        same = all(len(a) == len(b) and all(map(is_, a, b)) for a, b in ((self.had, had), (self.has, has)))
        return same and self.rest == rest


@dataclass(slots=True)
class _Memory:
    """What was answered about earlier states of the job, each with what it was answered from. One thread at a time
    works an answer out: every state of a job asks under the same lock."""

    lock: threading.RLock = field(default_factory=threading.RLock)

    raw: dict[str, tuple[FlowRun, SetUp, Geometry, ReducedRun, float]] = field(default_factory=dict)
    runs: dict[str, ReducedRun] = field(default_factory=dict)
    pairs: dict[tuple[str, str], _Compared] = field(default_factory=dict)


class Findings:
    """Answers about one state of a job. `earlier` lends what it knew of parts that did not change.

    `elsewhere` is what other jobs of the book have seen of the benches' scatter, by bench in small letters. Any thread
    may ask: nothing is shared before it is whole, and no switch is turned afterwards.
    """

    judge_by_witness: bool

    def __init__(
        self,
        job: Job,
        earlier: Findings | None = None,
        benches: tuple[Bench, ...] = (),
        elsewhere: Mapping[str, Evidence] | None = None,
        judge_by_witness: bool | None = None,
    ) -> None:
        self.job = job
        self.benches = benches
        self.elsewhere: Mapping[str, Evidence] = elsewhere or {}
        self._memory: _Memory = earlier._memory if earlier is not None else _Memory()
        self._runs: dict[str, tuple[ReducedRun, ...]] = {}
        self._problems: dict[str, str] = {}
        self._pairs: dict[tuple[str, str], Pair] = {}
        self._known: dict[str | None, Known] = {}
        self._seen: dict[str, Evidence] | None = None
        if judge_by_witness is None:
            judge_by_witness = earlier is not None and earlier.judge_by_witness
        self.judge_by_witness = judge_by_witness

    @property
    def school(self) -> str:
        """Whose number verdicts rest on: the job's own side of the question which lifts count."""
        return str(side_taken(self.job, "lifts").value)

    def cam_of(self, kind: Direction) -> AnyCam | None:
        """The job's cam for a kind of port: its table, else its lift and duration; None without either.

        An exhaust port without figures of its own takes the intake's.
        """
        job = self.job
        points = sorted((p.angle, p.lift) for p in job.cam_points if p.kind == kind)
        lift, duration = job.cam_lift, job.cam_duration
        if kind == "exhaust" and job.exhaust_cam_lift is not None and job.exhaust_cam_duration is not None:
            lift, duration = job.exhaust_cam_lift, job.exhaust_cam_duration
        try:
            if len(points) >= 3:
                return TabledCam(np.array([a for a, _ in points]), np.array([x for _, x in points]))
            return None if lift is None or duration is None else Cam(lift, duration, self.checking_lift)
        except Refused:
            return None  # the Head room says so at the field

    @property
    def checking_lift(self) -> float:
        """The valve lift at which durations at 0.050 in are quoted [m]: more than that where it is the tappet's."""
        at_tappet = self.job.cam_checked_at == "tappet"
        return CHECKING_LIFT * (self.job.rocker_ratio or 1.0) if at_tappet else CHECKING_LIFT

    def runs_of(self, cut: Cut, port: Port) -> tuple[ReducedRun, ...]:
        """Every run of a cut that can be reduced, oldest first."""
        with self._memory.lock:
            return self._runs_of(cut, port)

    def _runs_of(self, cut: Cut, port: Port) -> tuple[ReducedRun, ...]:
        if cut.id not in self._runs:
            measured = [run for run in cut.runs if not run.claimed]  # a claim never counts: see `claims_of`
            geometry = geometry_of(self.job, port, cut) if measured else None
            found = []
            for run in measured:
                assert geometry is not None
                try:
                    found.append(self._reduce(run, geometry))
                except Refused as error:
                    self._problems[cut.id] = str(error)
            self._runs[cut.id] = tuple(found)
        return self._runs[cut.id]

    def claims_of(self, cut: Cut, port: Port) -> tuple[ReducedRun, ...]:
        """Curves that somebody claims for a cut, reduced like runs and marked as what they are."""
        with self._memory.lock:
            return self._claims_of(cut, port)

    def _claims_of(self, cut: Cut, port: Port) -> tuple[ReducedRun, ...]:
        found = []
        for run in cut.runs:
            if run.claimed:
                try:
                    found.append(self._reduce(run, geometry_of(self.job, port, cut)))
                except Refused:
                    continue
        return tuple(found)

    def compare_across(self, before: tuple[ReducedRun, ...], port: Port, after: Cut) -> Pair:
        """Hold a cut against runs from anywhere: another port, head or bench, or a claim."""
        with self._memory.lock:
            return self._across(before, port, after)

    def _across(self, before: tuple[ReducedRun, ...], port: Port, after: Cut) -> Pair:
        has = self.runs_of(after, port)
        stand_in = Cut(id=OTHER_SIDE, number=0, name="the other side")
        if not before or not has:
            said = f"Cut {after.number} has not been flowed yet." if not has else "The other side was not flowed."
            return Pair(port, stand_in, after, before, has, None, said)
        had, has = speaking_runs(before, has, frozenset(after.kinds))
        return self._made(Pair(port, stand_in, after, had, has, None))

    def _reduce(self, run: FlowRun, geometry: Geometry) -> ReducedRun:
        """A run reduced, with what is known of its bench."""
        raw = self._raw(run, geometry)
        known = self.known(raw.setup.bench)
        had = self._memory.runs.get(run.id)
        if had is None or had.lift is not raw.lift or had.geometry is not raw.geometry or had.known != known:
            had = replace(raw, known=known)
            self._memory.runs[run.id] = had
        return had

    def _raw(self, run: FlowRun, geometry: Geometry) -> ReducedRun:
        setup = self.job.setup(run.setup_id)
        record = bench_named(self.benches, setup.bench)
        step = (record.reading_step if record is not None else None) or 0.0
        known = self._memory.raw.get(run.id)
        if known is not None and known[0] is run and known[1] is setup and known[2] == geometry and known[4] == step:
            return known[3]
        reduced = reduce_run(run, setup, geometry, run.mount_id, step=step)
        self._memory.raw[run.id] = run, setup, geometry, reduced, step
        return reduced

    def problem(self, cut: Cut) -> str:
        """Why a run of this cut could not be reduced, or an empty string."""
        return self._problems.get(cut.id, "")

    # -- what is known of a bench, as one object

    def evidence(self) -> Mapping[str, Evidence]:
        """What this job has seen of each bench's scatter, by bench in small letters: repeats, and mounts of states
        that did not change in between."""
        with self._memory.lock:
            if self._seen is None:
                seen: dict[str, Evidence] = {}
                for port, cut in self._states():
                    for bench, found in self._seen_of(port, cut):
                        seen[bench] = seen.get(bench, Evidence()) + found
                self._seen = seen
            return self._seen

    def _states(self) -> Iterator[tuple[Port, Cut]]:
        for port in self.job.ports:
            for cut in port.cuts:
                yield port, cut
                for trial in cut.trials:
                    yield port, trial_as_cut(cut, trial)

    def _seen_of(self, port: Port, cut: Cut) -> Iterator[tuple[str, Evidence]]:
        runs = []
        for run in cut.runs:
            if run.claimed:
                continue
            try:
                runs.append(self._raw(run, geometry_of(self.job, port, cut)))
            except Refused:
                continue  # `runs_of` says why
        for each in runs:
            squares, freedom = (float(v.sum()) for v in (each.repeats.squares, each.repeats.freedom))
            if freedom:
                yield bench_key(each.setup.bench), Evidence(squares, freedom)
        while len(runs) > 1:
            first = runs[0]
            same = [r for r in runs if r is first or _unchanged(first, r)]
            runs = [r for r in runs if all(r is not s for s in same)]
            yield bench_key(first.setup.bench), mount_evidence(same)

    def known(self, bench: str | None) -> Known:
        """Everything known of a bench: its scatter by its studies and by every job, its dial, its easy mistakes."""
        with self._memory.lock:
            return self._known_of(bench)

    def _known_of(self, bench: str | None) -> Known:
        if bench not in self._known:
            record, key = bench_named(self.benches, bench), bench_key(bench)
            nothing = Evidence()
            seen = studied(record) + self.evidence().get(key, nothing) + self.elsewhere.get(key, nothing)
            usual, easy = Instrument(), EasyMistakes()
            if record is not None:
                if record.dial_resolution is not None:
                    usual = replace(usual, lift=max(usual.lift, float(record.dial_resolution / np.sqrt(12))))
                easy = EasyMistakes(
                    record.easy_dial or easy.dial, record.easy_factor or easy.factor, record.easy_leak or easy.leak
                )
            self._known[bench] = Known(seen.scatter, usual, easy)
        return self._known[bench]

    def scatter(self, bench: str | None) -> Scatter:
        """What a bench is known to scatter by."""
        return self.known(bench).scatter

    def between(self, had: Runs, has: Runs, port: Port | None = None) -> Known:
        """What is known of the bench after, and of what lies between two sides; of one port, its bridges too."""
        first, last = had[-1], has[-1]
        known = self.known(last.setup.bench)
        seen = self.witness(first, last, known.scatter)
        bridge = self.bridge(first.setup, last.setup, port) if port is not None else None
        return replace(
            known,
            transfer=self.transfer(first.setup, last.setup),
            witness=seen if self.judge_by_witness else None,
            bridge=bridge,
            checks=tuple(self._checks(had, has, seen, known.scatter)),
        )

    def _checks(self, had: Runs, has: Runs, witness: Adjustment | None, scatter: Scatter) -> Iterator[Check]:
        """What was flowed at both settings-up to see whether the bench changed."""
        runs = {r.id: r for r in self.job.runs()}
        first, last = runs.get(had[-1].run_id), runs.get(has[-1].run_id)
        if witness is not None and self.judge_by_witness:
            yield Check(CheckKind.WITNESS, 0.0, 0.0, witness.freedom)  # what it says is taken out, and counted there
        elif witness is not None:
            yield witness_check(witness)
        if first is not None and last is not None and same_name(had[-1].setup.bench, has[-1].setup.bench):
            plate = plate_check(first, last, bench_named(self.benches, has[-1].setup.bench), scatter)
            if plate is not None:
                yield plate
        again = again_check(had, has, scatter)
        if again is not None:
            yield again

    def bridge(self, before: SetUp, after: SetUp, port: Port) -> Adjustment | None:
        """What carries runs of a port under one set of conditions over to another: its last cut flowed both ways."""
        if not wants_bridge(before, after):
            return None
        for cut in reversed(port.cuts):
            runs = self.runs_of(cut, port)
            old, new = under(before, runs), under(after, runs)
            if old and new:
                found = bridge_adjustment(old, new, self.scatter(after.bench), f"cut {cut.number}")
                if found is not None:
                    return found
        return None

    def transfer(self, here: SetUp, there: SetUp) -> Adjustment | None:
        """What carries flows of the bench `there` over to the bench `here`, from parts flowed on both."""
        if here.bench is None or there.bench is None or same_name(here.bench, there.bench):
            return None
        for owner, other, back in ((here.bench, there.bench, False), (there.bench, here.bench, True)):
            bench = bench_named(self.benches, owner)
            for transfer in reversed(bench.transfers) if bench is not None else ():
                if same_name(transfer.other, other) and transfer.parts:
                    found = transfer_between(transfer, self.scatter(owner))
                    return _across_weather(found.turned() if back else found, here, there)
        return None

    def witness(self, before: ReducedRun, after: ReducedRun, scatter: Scatter) -> Adjustment | None:
        """What the witness port says of two settings-up of the bench, where it was flowed at both."""
        runs = {r.id: r for r in self.job.runs()}
        named = [witness_of(self.job, runs[r.run_id]) if r.run_id in runs else None for r in (before, after)]
        if named[0] is None or named[1] is None or named[0].id == named[1].id:
            return None
        try:
            had, has = (self._reduce(r, Geometry()) for r in named if r is not None)
        except Refused:
            return None
        return witness_adjustment(had, has, scatter)

    def check_offer(self, pair: Pair, today: str) -> Offer | None:
        """The check that would settle a pair's small gain, where its verdict hangs on one and it can be made today."""
        verdict = self.verdict(pair)
        if verdict is None or not verdict.needs_check or not (pair.before.runs and pair.after.runs):
            return None
        bench = bench_named(self.benches, self.job.setup(pair.after.runs[-1].setup_id).bench)
        return check_offer(self.job, pair.port, pair.before, pair.after, bench, today)

    def pair(self, port: Port, before: Cut, after: Cut) -> Pair:
        """Hold two cuts of a port against each other."""
        key = before.id, after.id
        with self._memory.lock:
            if key not in self._pairs:
                self._pairs[key] = self._pair(port, before, after)
            return self._pairs[key]

    def _pair(self, port: Port, before: Cut, after: Cut) -> Pair:
        had, has = self.runs_of(before, port), self.runs_of(after, port)
        for cut, runs in ((before, had), (after, has)):
            if not runs:
                why = self.problem(cut)
                said = f"Cut {cut.number}: {why}." if why else f"Cut {cut.number} has not been flowed yet."
                return Pair(port, before, after, had, has, None, said)
        had, has = speaking_runs(had, has, changes_between(port, before, after))
        return self._made(Pair(port, before, after, had, has, None))

    def _made(self, pair: Pair) -> Pair:
        """The pair with its comparison, its runs brought to one test pressure; or with why there is none."""
        try:
            comparison = self._compare(
                pair.port, pair.before_runs, pair.after_runs, changes_between(pair.port, pair.before, pair.after)
            )
        except Refused as error:
            return replace(pair, missing=sentence(str(error)))
        return replace(
            pair, before_runs=comparison.before_runs, after_runs=comparison.after_runs, comparison=comparison
        )

    def _compare(self, port: Port, had: Runs, has: Runs, changes: frozenset[CutKind]) -> RunComparison:
        key = had[0].run_id, has[0].run_id
        rest = (
            changes,
            self.cam_of(port.kind),
            self.between(had, has, port),
            self.school,
            self.job.test_pressure,
            tuple(m.lift for m in self.job.my_lifts if m.kind == port.kind),
        )
        known = self._memory.pairs.get(key)
        if known is not None and known.is_of(had, has, rest):
            return known.comparison
        comparison = compare_runs(had, has, *rest)
        self._memory.pairs[key] = _Compared(had, has, rest, comparison)
        return comparison

    def left_out(self, pair: Pair) -> list[str]:
        """Runs of either cut that do not speak, and why: a sentence each."""
        said = []
        for cut, speaking in ((pair.before, pair.before_runs), (pair.after, pair.after_runs)):
            if cut.id == OTHER_SIDE or not speaking:
                continue
            ids = {r.run_id for r in speaking}
            for run in (r for r in self.runs_of(cut, pair.port) if r.run_id not in ids):
                why = next((d.sentence for d in comparability(run.setup, speaking[-1].setup).differences), "")
                if run.kind != speaking[-1].kind:
                    why = "It was read on an uncalibrated bench."
                when = next((r.date for r in cut.runs if r.id == run.run_id and r.date), None)
                named = f" of {when[:10]}" if when else ""
                said.append(f"Cut {cut.number}'s run{named} is left out. {why or 'Another matches better.'}")
        return said

    def gain(self, pair: Pair) -> Gain | None:
        """What is said of a pair wherever it is shown: on its plate, in the whole row, in Compare. None where one side
        was not flowed."""
        verdict = self.verdict(pair)
        c = pair.comparison
        if c is None or verdict is None:
            return None
        if not c.allowed or verdict.weighted is None or verdict.expanded is None:
            return Gain(None, None, c.kind == "index", "", "", False, verdict)
        base = c.weighted_before if c.kind == "index" else 1.0
        proven = verdict.result in (Result.BETTER, Result.WORSE)
        result = verdict.result if proven else Result.NOT_PROVEN
        looks = sum(bool(self.runs_of(each, pair.port)) for each in pair.port.cuts) - 1
        mark = c.result_among(looks)
        return Gain(verdict.weighted / base, verdict.expanded / base, c.kind == "index", result, mark, True, verdict)

    def dip_of_the_bench(self, port: Port, bench: str | None, lift: float) -> str | None:
        """The name of a second bench on which the untouched head shows no dip at a lift [m] where this one does; None
        where there is none that says so."""
        first = port.cuts[0] if port.cuts else None
        runs = self.runs_of(first, port) if first is not None else ()
        own = [r for r in runs if bench_key(r.setup.bench) == bench_key(bench)]
        if not any(_dips_at(r, lift) for r in own):
            return None
        for run in runs:
            other = bench_key(run.setup.bench) != bench_key(bench)
            if other and run.lift[0] < lift < run.curve.highest and not _dips_at(run, lift):
                return run.setup.bench
        return None

    def outcome(self, port: Port, cut: Cut) -> Outcome:
        """What was said of a cut before the work, and what came of it against the cut before."""
        at = next((i for i, c in enumerate(port.cuts) if c.id == cut.id), 0)
        if at == 0:
            return outcome_of(cut, None, None)
        before = port.cuts[at - 1]
        comparison = self.pair(port, before, cut).comparison if before.runs and cut.runs else None
        volumes = poured_volume(before), poured_volume(cut)
        growth = None if volumes[0] is None or volumes[1] is None else volumes[1] - volumes[0]
        if comparison is None or comparison.kind != "flow" or not comparison.allowed:
            return outcome_of(cut, None, growth)
        gain = comparison.gain_as(cut.expected_as, cut.expected_lift)
        return outcome_of(cut, None if gain is None else gain.change, growth, 0.0 if gain is None else gain.expanded)

    def outcomes(self) -> list[Outcome]:
        """Every cut of the job of which something was said first."""
        return [
            self.outcome(port, cut)
            for port in self.job.ports
            for cut in port.cuts
            if cut.expected_gain is not None or cut.expected_time is not None
        ]

    def verdict(self, pair: Pair, wording: Wording | None = None) -> Verdict | None:
        """The judgement of a pair, None where it cannot be compared at all."""
        if pair.comparison is None:
            return None
        volumes = volumes_of(pair.before, pair.after)
        least = self.job.worthwhile_gain if pair.comparison.kind == "flow" else None
        verdict = judge(pair.comparison, least, volumes, wording)
        unit = wording.lift_unit if wording is not None else "in"
        swirl = swirl_wish_sentences(self.job, pair.port.kind, pair.before_runs[-1], pair.after_runs[-1], unit)
        verdict = replace(verdict, warnings=(*verdict.warnings, *swirl)) if swirl else verdict
        struck = self._with_struck(pair)
        if struck is None:
            return verdict
        other = judge(struck, least, volumes, wording)
        if other.kind == verdict.kind:
            return verdict
        said = f"With the struck readings counted it would say: {other.headline} {other.sentence}"
        return replace(verdict, warnings=(*verdict.warnings, said))

    def _with_struck(self, pair: Pair) -> RunComparison | None:
        """The pair with its struck readings counted, by the same knowledge; None where nothing was struck, or it
        cannot be made."""
        runs = {r.id: r for r in self.job.runs()}
        mine = [[runs.get(r.run_id) for r in side] for side in (pair.before_runs, pair.after_runs)]
        if not any(
            r.struck is not None and r.struck != UNDONE for side in mine for run in side if run for r in run.readings
        ):
            return None
        sides = []
        for side, originals in zip((pair.before_runs, pair.after_runs), mine, strict=True):
            again = []
            for reduced, run in zip(side, originals, strict=True):
                if run is None:
                    return None
                readings = tuple(r if r.struck == UNDONE else replace(r, struck=None) for r in run.readings)
                try:
                    setup = self.job.setup(run.setup_id)
                    counted = replace(run, readings=readings)
                    again.append(
                        reduce_run(counted, setup, reduced.geometry, reduced.mount, reduced.known, reduced.step)
                    )
                except Refused:
                    return None
            sides.append(tuple(again))
        try:
            changes = changes_between(pair.port, pair.before, pair.after)
            return self._compare(pair.port, sides[0], sides[1], changes)
        except Refused:
            return None


def _dips_at(run: ReducedRun, lift: float) -> bool:
    found = dips(run.flow, DIP_FACTOR * run.uncertainty)
    near = float(np.min(np.diff(np.r_[0.0, run.lift])))
    return any(abs(float(run.lift[i]) - lift) < near for i in found)


DIP_FACTOR: Final = 1.96 * 2**0.5  # U of a difference of two points


def bench_key(bench: str | None) -> str:
    """What makes two bench names one."""
    return (bench or "").strip().lower()


def _unchanged(first: ReducedRun, other: ReducedRun) -> bool:
    """Two runs of one state under one set-up: what differs is the bolting-down and the reading."""
    if first.kind != other.kind or abs(first.test_pressure / other.test_pressure - 1) > SAME_PRESSURE:
        return False
    return comparability(first.setup, other.setup).level in ("yes", "unknown") and all(
        getattr(first.setup, key) == getattr(other.setup, key) for key in ("bench", "bore", "entry", "pipe", "valve")
    )


def mount_evidence(runs: list[ReducedRun]) -> Evidence:
    """What the mounts of one unchanged state say, over the lifts that all of them were flowed at.

    Runs of one mount are averaged; runs without one are left out. Source: `study.of_mounts`.
    """
    by_mount: dict[str, list[ReducedRun]] = {}
    for run in runs:
        if run.mount is not None:
            by_mount.setdefault(run.mount, []).append(run)
    if len(by_mount) < 2:
        return Evidence()
    grains = [set(np.round(r.lift / LIFT_GRAIN).astype(int).tolist()) for each in by_mount.values() for r in each]
    common = np.array(sorted(set.intersection(*grains)), dtype=float) * LIFT_GRAIN
    if not len(common):
        return Evidence()
    flows = np.array([np.mean([r.curve.at(common) for r in each], axis=0) for each in by_mount.values()])
    single = all(len(each) == 1 and bool(np.all(each[0].readings == 1)) for each in by_mount.values())
    return of_mounts(flows, common, single=single)


WEATHER: Final = 5000.0  # Pa of barometer across which a transfer counts a further doubt

WEATHER_DOUBT: Final = 0.003


def _across_weather(found: Adjustment, here: SetUp, there: SetUp) -> Adjustment:
    """A transfer between days whose barometers differ by more than 50 hPa is that much less sure."""
    if here.pressure is None or there.pressure is None or abs(here.pressure - there.pressure) <= WEATHER:
        return found
    return replace(
        found,
        uncertainty=float(np.hypot(found.uncertainty, WEATHER_DOUBT)),
        uncertainties=tuple(float(np.hypot(u, WEATHER_DOUBT)) for u in found.uncertainties),
    )


def speaking_runs(
    before: tuple[ReducedRun, ...], after: tuple[ReducedRun, ...], changes: frozenset[CutKind]
) -> tuple[tuple[ReducedRun, ...], tuple[ReducedRun, ...]]:
    """The runs of both sides whose set-ups match best; mounts under the same set-up speak together.

    Of equal matches the latest pair wins.
    """

    def rank(pair: tuple[ReducedRun, ReducedRun]) -> tuple[int, int]:
        found = comparability(pair[0].setup, pair[1].setup, changes, sizes=(pair[0].geometry, pair[1].geometry))
        return _RANK[found.level], len(found.differences)

    best = min(product(reversed(before), reversed(after)), key=rank)
    return _like(best[0], before), _like(best[1], after)


def _like(wanted: ReducedRun, runs: tuple[ReducedRun, ...]) -> tuple[ReducedRun, ...]:
    def same(found: Comparability) -> bool:
        return found.level == "yes"

    return tuple(
        r for r in runs if r is wanted or (r.kind == wanted.kind and same(comparability(r.setup, wanted.setup)))
    )

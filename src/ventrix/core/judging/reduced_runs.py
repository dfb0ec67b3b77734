"""Every run of a job reduced, with all that is known of its bench: kept while the job is edited beside it."""

from __future__ import annotations

import threading
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field, replace
from operator import is_

import numpy as np

from ventrix.core.benches.study import Evidence, of_mounts, studied
from ventrix.core.formulas.cam import CHECKING_LIFT, AnyCam, Cam, TabledCam
from ventrix.core.formulas.knowledge import EasyMistakes, Known
from ventrix.core.formulas.uncertainty import Instrument, Scatter
from ventrix.core.judging.comparability import Level, comparability
from ventrix.core.judging.comparison import RunComparison
from ventrix.core.model.bench import Bench, bench_named
from ventrix.core.model.cut import Cut, Port, trial_as_cut
from ventrix.core.model.job import Job
from ventrix.core.model.kinds import Direction
from ventrix.core.model.run import FlowRun, SetUp
from ventrix.core.quantity.refused import Refused
from ventrix.core.runs.geometry import Geometry, geometry_of
from ventrix.core.runs.reduced_run import LIFT_GRAIN, SAME_PRESSURE, ReducedRun
from ventrix.core.runs.reduction import reduce_run

Runs = tuple[ReducedRun, ...]


@dataclass(frozen=True, slots=True)
class Compared:
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
class Memory:
    """What was answered about earlier states of the job, each with what it was answered from. One thread at a time
    works an answer out: every state of a job asks under the same lock."""

    lock: threading.RLock = field(default_factory=threading.RLock)

    raw: dict[str, tuple[FlowRun, SetUp, Geometry, ReducedRun, float]] = field(default_factory=dict)
    runs: dict[str, ReducedRun] = field(default_factory=dict)
    pairs: dict[tuple[str, str], Compared] = field(default_factory=dict)


class ReducedRuns:
    """Reduced runs of one state of a job, and what the benches are known for. `earlier` lends what it knew of parts
    that did not change.

    `elsewhere` is what other jobs of the book have seen of the benches' scatter, by bench in small letters. Any thread
    may ask: nothing is shared before it is whole, and no switch is turned afterwards.
    """

    judge_by_witness: bool

    def __init__(
        self,
        job: Job,
        earlier: ReducedRuns | None = None,
        benches: tuple[Bench, ...] = (),
        elsewhere: Mapping[str, Evidence] | None = None,
        judge_by_witness: bool | None = None,
    ) -> None:
        self.job = job
        self.benches = benches
        self.elsewhere: Mapping[str, Evidence] = elsewhere or {}
        self._memory: Memory = earlier._memory if earlier is not None else Memory()
        self._runs: dict[str, tuple[ReducedRun, ...]] = {}
        self._problems: dict[str, str] = {}
        self._known: dict[str | None, Known] = {}
        self._seen: dict[str, Evidence] | None = None
        if judge_by_witness is None:
            judge_by_witness = earlier is not None and earlier.judge_by_witness
        self.judge_by_witness = judge_by_witness

    def cam_of(self, kind: Direction) -> AnyCam | None:
        """The job's cam for a kind of port: its table, else its lift and duration; None without either.

        An exhaust port without figures of its own takes the intake's.
        """
        job = self.job
        points = sorted((p.angle, p.lift) for p in job.cam_points if p.kind == kind)
        lift, duration = job.cam_lift, job.cam_duration
        if kind == Direction.EXHAUST and job.exhaust_cam_lift is not None and job.exhaust_cam_duration is not None:
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


def bench_key(bench: str | None) -> str:
    """What makes two bench names one."""
    return (bench or "").strip().lower()


def _unchanged(first: ReducedRun, other: ReducedRun) -> bool:
    """Two runs of one state under one set-up: what differs is the bolting-down and the reading."""
    if first.kind != other.kind or abs(first.test_pressure / other.test_pressure - 1) > SAME_PRESSURE:
        return False
    return comparability(first.setup, other.setup).level in (Level.YES, Level.UNKNOWN) and all(
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

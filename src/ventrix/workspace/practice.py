"""A practice at work: its document on disk, the head that does not exist behind it, and the ordinary job that it fills.

An act is written to the document before anything is told of it. A pass is whatever work the job's cuts hold and the
document does not: it is made in Cuts like any other, and the metal does not come back.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from functools import partial
from pathlib import Path
from typing import Final

import numpy as np

from ventrix.bench.simulator.heads.virtual import WORKED
from ventrix.bench.simulator.practice.head import PracticeHead
from ventrix.bench.simulator.practice.play import LIFT, Act, Done, OwnersClock, Practice, played
from ventrix.bench.simulator.practice.virtual_job import (
    SOURCE,
    as_measured,
    bench_of,
    job_of,
    told_by_owner,
    with_flow,
)
from ventrix.core.edits.cuts import edit_port
from ventrix.core.model.bench_kinds import ActKind
from ventrix.core.model.cut import Cut, Trial, Work
from ventrix.core.model.job import Job
from ventrix.core.model.kinds import Place, TrialKind
from ventrix.core.model.run import FlowRun
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import from_si, to_si
from ventrix.records.bad_input import InputError
from ventrix.records.book.book import Book
from ventrix.records.book.store import default_book_path
from ventrix.records.files.practice_document import PracticeAct, PracticeDocument, read_practice, write_practice
from ventrix.words import tr
from ventrix.workspace.ids import now_text
from ventrix.workspace.workspace import Workspace

CLAY_ALONE: Final = tr("in practice clay is the only trial: look at the cut itself to flow it")
FEWEST: Final = 6  # lifts of a live test that counts as one
BY_EYE: Final = 0.5e-3  # m: what a pass without a depth is taken for
FOLDER: Final = "practice"
SUFFIX: Final = ".practice.json"
_PLACES: Final = {p.value: p for p in WORKED}


def practice_of(document: PracticeDocument) -> Practice:
    """The practice that a document tells, played. ValueError, in words, where it tells none."""
    found = played(document.head, document.seed, [_act(a) for a in document.acts], document.hours)
    found.live = {run: flow for run, pairs in document.live.items() if (flow := _over_lifts(pairs)) is not None}
    return found


def _over_lifts(pairs: Sequence[tuple[float, float]]) -> Array | None:
    """A live test over the lifts that every test is compared at [m3/s]; None for one that was hardly begun."""
    if len(pairs) < FEWEST:
        return None
    lift, flow = (np.array(column) for column in zip(*sorted(pairs), strict=True))
    at = [from_si(float(x), "mm") for x in LIFT]
    return np.asarray([to_si(float(q), "cfm") for q in np.interp(at, [0.0, *lift], [0.0, *flow])])


def _act(a: PracticeAct) -> Act:
    if a.place is not None and a.place not in _PLACES:
        raise Refused("'{}' is not one of {}", a.place[:40], ", ".join(_PLACES))
    return Act(a.act, None if a.place is None else _PLACES[a.place], a.depth, a.said, a.record, a.area, a.port)


def _written(act: Act) -> PracticeAct:
    return PracticeAct(
        act=act.kind,
        place=None if act.place is None else act.place.value,
        depth_mm=from_si(act.depth, "mm"),
        said_cfm=None if act.said is None else from_si(act.said, "cfm"),
        record=act.record,
        area_mm2=from_si(act.area, "mm2"),
        port=act.port,
    )


class PracticeAtWork:
    """A practice and where its document lies."""

    def __init__(self, path: Path, document: PracticeDocument) -> None:
        self.path, self.document = path, document
        self.practice = practice_of(document)

    @classmethod
    def begin(cls, folder: Path, head: str, seed: int) -> PracticeAtWork:
        """The practice of a head and seed in a folder: gone on with where there is one. InputError where it cannot be
        written or read, ValueError for no such head."""
        path = folder / f"{head}-{seed}{SUFFIX}"
        if path.exists():
            return cls.open(path)
        document = PracticeDocument(head=head, seed=seed)
        found = cls(path, document)
        try:
            folder.mkdir(parents=True, exist_ok=True)
        except OSError as error:
            raise InputError(tr("cannot be made: {}", error.strerror or error), file=str(folder)) from None
        write_practice(document, path)
        return found

    @classmethod
    def open(cls, path: Path) -> PracticeAtWork:
        """A practice from its document. InputError where it is none."""
        try:
            return cls(path, read_practice(path))
        except InputError:
            raise
        except Refused as error:
            raise InputError(str(error), file=path.name) from None

    @classmethod
    def bring_in(cls, folder: Path, path: Path) -> PracticeAtWork:
        """A practice from elsewhere, copied into the folder under a name of its own. InputError where it is none."""
        found = cls.open(path)
        if path.parent == folder:
            return found
        stem = f"{found.document.head}-{found.document.seed}"
        number = 1
        while (to := folder / f"{stem}{'' if number == 1 else f'-{number}'}{SUFFIX}").exists():
            number += 1
        folder.mkdir(parents=True, exist_ok=True)
        # What the first one's job keeps under these ids is its own.
        acts = [
            a.model_copy(update={"record": f"{a.record}-{number}" if a.record else ""}) for a in found.document.acts
        ]
        live = {f"{run}-{number}": pairs for run, pairs in found.document.live.items()}
        document = found.document.model_copy(update={"acts": acts, "live": live})
        write_practice(document, to)
        return cls(to, document)

    @property
    def head(self) -> PracticeHead:
        return self.practice.head

    @property
    def over(self) -> bool:
        return self.document.over

    @property
    def minutes_left(self) -> float:
        return max(60 * self.practice.hours - self.practice.minutes, 0.0)

    @property
    def job_id(self) -> str:
        """Of its job in the practice book."""
        return f"practice-{self.path.name.removesuffix(SUFFIX)}"

    def workspace(self, book: Book) -> Workspace:
        """Its job in the practice book; made of its acts where it is not there."""
        key = self.job_id
        if all(e.id != key for e in book.jobs()):
            benches = () if any(b.id == bench_of(self.head).id for b in book.benches()) else (bench_of(self.head),)
            job = job_of(self.practice, now_text(), key)
            book.add_job(told_by_owner(job, self.head) if self.document.asked else job, benches=benches)
        return Workspace.open(book, key)

    # -- acts

    def do(self, act: Act) -> Done:
        """Do an act: written first. ValueError, in words, where it cannot be done; InputError where it is not kept."""
        self.catch_up()
        if self.over:
            raise Refused("this practice has its result: its truth is open. Begin another seed")
        if not self.practice.fits(act):
            raise OwnersClock(tr("the owner's {:g} hours are over: see the result in Practice", self.practice.hours))
        document = self.document.model_copy(update={"acts": [*self.document.acts, _written(act)]})
        write_practice(document, self.path)
        self.document = document
        return self.practice.do(act)

    def catch_up(self) -> None:
        """Take in what another window did to the same metal. InputError where the document cannot be read any more."""
        now = read_practice(self.path)
        if now != self.document:
            at, self.document, self.practice = self.practice.at, now, practice_of(now)
            self.practice.at = at

    def flow(self, space: Workspace) -> Done:
        """A flow test run for the learner by the procedure: twelve rungs, kept with the last cut, or with the clay
        that is looked at. ValueError for another trial, in words."""
        self._own(space)
        if space.trial is not None:
            return self._flow_clay(space, space.trial)
        self.take_in(space)  # nothing that was cut is left out of the test
        done = self.do(Act(ActKind.FLOW, port=self.port_of(space)))
        space.apply(tr("a flow test"), with_flow(space.job, self.practice, done, now_text()))
        return done

    def _own(self, space: Workspace) -> None:
        if space.job.id != self.job_id:
            raise Refused("'{}' is not this window's practice: open that one again (Ctrl+K)", space.job.title)

    def _flow_clay(self, space: Workspace, trial: Trial) -> Done:
        if trial.kind != TrialKind.CLAY:
            raise Refused(CLAY_ALONE)
        if trial.place not in _PLACES or not trial.area_taken:
            raise Refused("clay needs its place ({}) and how much of the section it takes", ", ".join(_PLACES))
        which = self.port_of(space)
        done = self.do(Act(ActKind.CLAY, _PLACES[trial.place], record=trial.id, area=trial.area_taken, port=which))
        space.apply(tr("a flow test with clay"), with_flow(space.job, self.practice, done, now_text(), trial.id))
        return done

    def port_of(self, space: Workspace) -> int:
        """Which of the head's ports is looked at, counted from 0: it lies on the bench."""
        ids = [p.id for p in space.job.ports[: self.head.count]]
        looked_at = "" if space.port is None else space.port.id
        return ids.index(looked_at) if looked_at in ids else 0

    def put_on_bench(self, space: Workspace) -> None:
        """Have the port that is looked at flowed by the live bench."""
        if space.job.id == self.job_id:
            self.practice.at = self.port_of(space)

    def read_wall(self, place: str, port: int = 0) -> Done:
        """What the gauge reads at a place of a port; it is kept by who asked. ValueError for a place that has no wall
        to read."""
        if place not in _PLACES:
            raise Refused("the gauge does not get at the {}: {}", place, ", ".join(_PLACES))
        return self.do(Act(ActKind.WALL, _PLACES[place], port=port))

    def pour(self, port: int = 0) -> Done:
        """What the burette says a port holds."""
        return self.do(Act(ActKind.POUR, port=port))

    def new_work(self, job: Job) -> list[tuple[int, Cut, Work]]:
        """Works of real cuts that the metal has not seen, in this window or another, and at which port."""
        self.catch_up()
        seen = {a.record for a in self.practice.acts}
        return [
            (n, c, w)
            for n, port in enumerate(job.ports[: self.head.count])
            for c in port.cuts
            for op in c.operations
            for w in op.works
            if w.id not in seen and w.place in _PLACES and op.started_at is None
        ]

    def beyond(self, job: Job) -> tuple[str, ...]:
        """Places of the last cuts that these heads have no metal at: what is done there moves nothing."""
        operations = (op for port in job.ports[: self.head.count] for op in port.cuts[-1].operations)
        return tuple(dict.fromkeys(w.place for op in operations for w in op.works if w.place not in _PLACES))

    def _runs(self, job: Job) -> list[tuple[int, FlowRun]]:
        return [(n, r) for n, port in enumerate(job.ports[: self.head.count]) for c in port.cuts for r in c.runs]

    def _new_tests(self, job: Job) -> list[tuple[int, FlowRun]]:
        """Runs that were begun live on the bench, and cost nothing yet, and at which port."""
        seen = {a.record for a in self.practice.acts}
        return [(n, r) for n, r in self._runs(job) if r.source != SOURCE and r.readings and r.id not in seen]

    def _keep_live(self, job: Job) -> None:
        """What live tests have read by now, kept with the acts."""
        acted = {a.record for a in self.practice.acts if a.kind == ActKind.LIVE}
        live = {r.id: _read(r) for _, r in self._runs(job) if r.id in acted}
        if live != self.document.live:
            document = self.document.model_copy(update={"live": live})
            write_practice(document, self.path)
            self.document = document
            self.practice.live = practice_of(document).live

    def take_in(self, space: Workspace) -> list[Done]:
        """Every new pass done to the metal; then what can be measured on it is kept with its cut."""
        if space.job.id != self.job_id:
            return []  # another job of the practice book is looked at
        found = [self.do(Act(ActKind.LIVE, record=run.id, port=n)) for n, run in self._new_tests(space.job)]
        self._keep_live(space.job)
        while new := self.new_work(space.job):  # asked anew each time: what is kept below may have more taken in
            n, cut, work = new[0]
            depth = work.depth if work.depth is not None else BY_EYE
            done = self.do(Act(ActKind.CUT, Place(work.place), depth, cut.expected_gain, work.id, port=n))
            found.append(done)
            port, metal = space.job.ports[n], self.practice.ports[n]
            cuts = tuple(as_measured(_timed(c, work, done.minutes), metal) if c.id == cut.id else c for c in port.cuts)
            job = edit_port(space.job, port.id, partial(replace, cuts=cuts))
            space.apply(tr("measured after the pass"), job)
        self.put_on_bench(space)  # whatever was cut on others
        return found

    def ask_owner(self, space: Workspace) -> str:
        """What the engine is for; its sizes go into the job."""
        if not self.document.asked:
            self._own(space)
            self._write(asked=True)
            space.apply(tr("what the owner says"), told_by_owner(space.job, self.head))
        return self.head.owner

    def finish(self) -> None:
        """Nothing more is done: the truth may be opened."""
        self._write(over=True)

    def _write(self, **changed: bool) -> None:
        self.catch_up()
        document = self.document.model_copy(update=changed)
        write_practice(document, self.path)
        self.document = document


def _timed(cut: Cut, work: Work, minutes: float) -> Cut:
    """A cut whose operation with a work took so many minutes, where nobody said how long it took."""
    operations = tuple(
        replace(op, duration=to_si(minutes, "min")) if op.duration is None and work in op.works else op
        for op in cut.operations
    )
    return replace(cut, operations=operations)


def _read(run: FlowRun) -> list[tuple[float, float]]:
    """Lift [mm] and mean flow [CFM] of the readings that count."""
    by_lift: dict[float, list[float]] = {}
    for r in run.readings:
        if r.struck is None and r.flow is not None:
            by_lift.setdefault(round(from_si(r.lift, "mm"), 4), []).append(from_si(r.flow, "cfm"))
    return [(lift, sum(flows) / len(flows)) for lift, flows in sorted(by_lift.items())]


def practice_folder(book: Book) -> Path:
    """Where practices lie: beside the book, or the user's own where that is a server."""
    here = (book.path or default_book_path()).parent
    return here if here.name == FOLDER else here / FOLDER


def practices_in(folder: Path) -> list[Path]:
    """Documents of practices in a folder, last written first."""
    if not folder.is_dir():
        return []
    return sorted(folder.glob(f"*{SUFFIX}"), key=lambda p: p.stat().st_mtime, reverse=True)

"""The open job: applies edits, commits them, undoes them, tells whoever listens. Knows no widget."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from enum import Enum, auto

from ventrix.core.edits.undo import keep_measured
from ventrix.core.judging.findings import Findings, Pair
from ventrix.core.model.bench import Bench
from ventrix.core.model.cut import Cut, Port, Trial, trial_as_cut
from ventrix.core.model.job import Job
from ventrix.core.quantity.words import sentence
from ventrix.records.bad_input import ActGone, BookError
from ventrix.records.book.acts import Act, new_act
from ventrix.records.book.book import Book
from ventrix.records.book.merging import merged, shared
from ventrix.words import tr
from ventrix.workspace.ids import now_text
from ventrix.workspace.kept_runs import KeptRuns
from ventrix.workspace.new_job import new_job
from ventrix.workspace.selection import OtherSide, Selection, first_selection, select_port
from ventrix.workspace.shop_figures import ShopFigures
from ventrix.workspace.work_clock import WorkClock


class Told(Enum):
    """What listeners are told."""

    JOB = auto()  # the job changed
    SELECTION = auto()  # another port, cut or pinned cut is looked at
    SAID = auto()  # there is a new sentence for the foot of the window


@dataclass(frozen=True, slots=True)
class State:
    """What an edit may change: the job in hand, and the shop's benches."""

    job: Job
    benches: tuple[Bench, ...]


@dataclass(frozen=True, slots=True)
class Edit:
    """An accepted edit: what it is called, and the job and benches before and after."""

    name: str
    before: State
    after: State
    act: Act | None = None  # what the book keeps it as


class Workspace:
    """One job of one book. Every accepted edit is on disk before a listener hears of it."""

    def __init__(self, book: Book, job: Job) -> None:
        self.book = book
        self.job = job
        self.benches = book.benches(follow=True)
        self.shop = ShopFigures(self)
        self.runs = KeptRuns(self)
        self.clock = WorkClock(self)
        self.elsewhere = self.shop.seen_elsewhere()
        self.findings = Findings(job, benches=self.benches, elsewhere=self.elsewhere)
        self.selection = first_selection(job)
        self.other: OtherSide | None = None
        self.said = ""
        self.saved_at: str | None = None
        self._done: list[Edit | Act] = list(book.acts(job.id))  # the acts of earlier days come first
        self._undone: list[Edit] = []
        self._listeners: list[Callable[[Told], None]] = []
        self.study_lifts: dict[str, tuple[float, ...]] = {}  # lifts [m] of each study begun here, by its id
        self._writing = False

    @classmethod
    def create(cls, book: Book, title: str) -> Workspace:
        """A new job, in the book at once."""
        job = new_job(title)
        book.add_job(job)
        return cls(book, job)

    @classmethod
    def open(cls, book: Book, job_id: str) -> Workspace:
        """A job of the book. KeyError if it is not there."""
        return cls(book, book.load(job_id, follow=True))

    # -- listening

    def subscribe(self, listener: Callable[[Told], None]) -> Callable[[], None]:
        """Have `listener` called on every change; returns what ends that."""
        self._listeners.append(listener)
        return lambda: self._listeners.remove(listener)

    def _tell(self, *what: Told) -> None:
        for each in what:
            for listener in list(self._listeners):
                listener(each)

    def say(self, sentence: str) -> None:
        """Put a sentence at the foot of the window."""
        self.said = sentence
        self._tell(Told.SAID)

    # -- edits

    def apply(
        self, name: str, job: Job | None = None, said: str = "", benches: tuple[Bench, ...] | None = None
    ) -> None:
        """Accept an edit: commit it, then tell.

        Parameters
        ----------
        name : str
            What undo calls it: "keep 0.300".
        job : Job, optional
            The job after it; as it was without one.
        said : str
            What the foot of the window says; the name if empty.
        benches : tuple of Bench, optional
            The shop's benches after it; as they were without them.

        Raises
        ------
        ValueError
            A figure that cannot be written; nothing has changed then.
        BookError
            The book did not take it; nothing has changed then.
        """
        after = State(self.job if job is None else job, self.benches if benches is None else benches)
        before = State(self.job, self.benches)
        act = new_act(name) if after.benches == before.benches else None
        self._commit(after, act)
        # As it was meant: what another window wrote meanwhile came in with it, and is not this edit's to undo.
        self._done.append(Edit(name, before, after, act))
        self._undone.clear()
        self.said = said or sentence(name)
        self._tell(Told.JOB, Told.SAID)

    def _commit(self, state: State, act: Act | None = None, undone: str = "") -> None:
        """Store a state, brought together with what another window wrote meanwhile; then take it as ours."""
        if self._writing:
            raise BookError(tr("the book is still waiting for the edit before this one"))
        had = {b.id: b for b in self.benches}
        has = {b.id: b for b in state.benches}
        ids = list(dict.fromkeys((*had, *has)))
        self._writing = True
        try:
            stored = self.book.write(
                (self.job, state.job), *((had.get(i), has.get(i)) for i in ids), act=act, undone=undone
            )
        finally:
            self._writing = False
        job = stored[0]
        assert isinstance(job, Job)
        self._take(job, tuple(b for b in stored[1:] if isinstance(b, Bench)))
        self.saved_at = now_text()

    def _take(self, job: Job, benches: tuple[Bench, ...]) -> None:
        self.job, self.benches = job, benches
        self.findings = Findings(self.job, self.findings, self.benches, self.elsewhere)
        self._mend_selection()

    def look_for_changes(self) -> bool:
        """Take in what other windows wrote; True where there was something. BookError where the book is silent."""
        return self.take_in(*self.book.changed_elsewhere(self.job.id))

    def take_in(self, job_changed: bool, benches_changed: bool) -> bool:
        """Take in the job or the benches as other windows left them; nothing while an edit is on its way."""
        if self._writing or not (job_changed or benches_changed):
            return False
        try:
            job = shared(self.job, self.book.load(self.job.id, follow=True)) if job_changed else self.job
        except KeyError:
            raise BookError(tr("this job was deleted in another window")) from None
        had = {b.id: b for b in self.benches}
        benches = tuple(shared(had[b.id], b) if b.id in had else b for b in self.book.benches(follow=True))
        self._take(job, benches)
        self.said = tr("Brought up to date: another window changed this job.")
        self._tell(Told.JOB, Told.SAID)
        return True

    def _mend_selection(self) -> None:
        """Keep looking at something that exists."""
        chosen = self.selection
        ports = {p.id: {c.id for c in p.cuts} for p in self.job.ports}
        if chosen is None or chosen.port_id not in ports or chosen.cut_id not in ports[chosen.port_id]:
            self.selection = first_selection(self.job)
        elif chosen.trial_id is not None and not self.job.is_trial(chosen.trial_id):
            self.selection = replace(chosen, trial_id=None)
        elif chosen.against_id is not None and chosen.against_id not in ports[chosen.port_id]:
            self.selection = replace(chosen, against_id=None)

    @property
    def undo_name(self) -> str | None:
        return self._done[-1].name if self._done else None

    @property
    def redo_name(self) -> str | None:
        return self._undone[-1].name if self._undone else None

    def undo(self) -> bool:
        """Take back the last edit, and nothing that came in between. A reading it brought stays, struck as undone.

        Raises BookError where another window has changed since what it would take back, or took it back itself.
        """
        if not self._done:
            return False
        try:
            edit = self._recalled(self._done[-1])
        except ActGone:
            self._done.pop()  # said once; the next undo goes on with what came before it
            self._tell(Told.JOB)
            raise
        self._undone.append(self._turn_back(edit, undone=edit.act.id if edit.act is not None else ""))
        self._done.pop()
        self.said = tr("Undone: {}.", edit.name)
        self._tell(Told.JOB, Told.SAID)
        return True

    def redo(self) -> bool:
        """Do again what was undone; errors as `undo`."""
        if not self._undone:
            return False
        edit = self._undone[-1]
        self._done.append(self._turn_back(edit, act=edit.act))
        self._undone.pop()
        self.said = tr("Done again: {}.", edit.name)
        self._tell(Told.JOB, Told.SAID)
        return True

    def _recalled(self, done: Edit | Act) -> Edit:
        """An edit of this day as it is; one of an earlier day from what the book kept of it."""
        if isinstance(done, Edit):
            return done
        before, after = self.book.recall(done, self.job)
        return Edit(done.name, State(before, self.benches), State(after, self.benches), done)

    def _turn_back(self, edit: Edit, act: Act | None = None, undone: str = "") -> Edit:
        """Store the present with an edit's change reversed; returns what reverses that again."""
        present = State(self.job, self.benches)
        brought = {r.id for run in edit.after.job.runs() for r in run.readings}
        target = keep_measured(edit.before.job, self.job, brought)
        job = merged(edit.after.job, target, self.job)
        back = State(job, self._benches_back(edit))
        self._commit(back, act, undone)
        return Edit(edit.name, present, back, edit.act)

    def _benches_back(self, edit: Edit) -> tuple[Bench, ...]:
        """The present benches with an edit's change of them reversed."""
        was, then = ({b.id: b for b in state.benches} for state in (edit.before, edit.after))
        found = []
        for bench in self.benches:
            if bench.id not in then:
                found.append(bench)
            elif bench.id in was:
                found.append(merged(then[bench.id], was[bench.id], bench))
        return (*found, *(b for i, b in was.items() if i not in then))

    # -- what is looked at

    @property
    def port(self) -> Port | None:
        return self.job.port(self.selection.port_id) if self.selection else None

    @property
    def cut(self) -> Cut | None:
        """The cut looked at; while one of its trials is, a stand-in with that trial's runs."""
        if self.selection is None:
            return None
        cut = self.job.cut_of(self.selection.cut_id)[1]
        trial = self.trial
        return cut if trial is None else trial_as_cut(cut, trial)

    @property
    def real_cut(self) -> Cut | None:
        """The cut looked at, or the one that the trial looked at hangs from."""
        return self.job.cut_of(self.selection.cut_id)[1] if self.selection else None

    @property
    def trial(self) -> Trial | None:
        """The trial looked at, None while it is the cut itself."""
        if self.selection is None or self.selection.trial_id is None:
            return None
        return self.job.cut_of_trial(self.selection.trial_id)[2]

    @property
    def against(self) -> Cut | None:
        if self.selection is None or self.selection.against_id is None:
            return None
        return self.job.cut_of(self.selection.against_id)[1]

    def look_at_port(self, port_id: str) -> None:
        self.selection = select_port(self.job.port(port_id))
        self._tell(Told.SELECTION)

    def look_at(self, cut_id: str) -> None:
        """Look at a cut; held against itself makes no sense, so the pinned one then steps back."""
        port, cut = self.job.cut_of(cut_id)
        against = self.selection.against_id if self.selection else None
        if against == cut_id or against not in {c.id for c in port.cuts}:
            at = port.cuts.index(cut)
            against = port.cuts[at - 1].id if at else None
        self.selection = Selection(port.id, cut_id, against)
        self._tell(Told.SELECTION)

    def look_at_trial(self, trial_id: str) -> None:
        """Look at a trial, held against the cut that it hangs from."""
        port, cut, _ = self.job.cut_of_trial(trial_id)
        self.selection = Selection(port.id, cut.id, cut.id, trial_id)
        self._tell(Told.SELECTION)

    def hold_against_other(self, job_id: str, cut_id: str, *, claimed: bool = False) -> bool:
        """Hold against a cut of any job of the book, or what is claimed for it; False where it has no flow."""
        job = self.job if job_id == self.job.id else self.book.load(job_id)
        findings = self.findings if job_id == self.job.id else Findings(job, benches=self.benches)
        port, cut = job.cut_of(cut_id)
        runs = findings.claims_of(cut, port) if claimed else findings.runs_of(cut, port)
        if not runs:
            return False
        whose = tr("claimed by {}, ", runs[-1].claimed) if claimed else ""
        self.other = OtherSide(tr("{}{}, {}, cut {} {}", whose, job.title, port.name, cut.number, cut.name), runs)
        self._tell(Told.SELECTION)
        return True

    def let_go_of_other(self) -> None:
        """Hold against the pinned cut again."""
        self.other = None
        self._tell(Told.SELECTION)

    @property
    def pair(self) -> Pair | None:
        """What is held against what: the cut looked at and the pinned one, or the other side."""
        if self.port is None or self.cut is None:
            return None
        if self.other is not None:
            return self.findings.compare_across(self.other.runs, self.port, self.cut)
        return None if self.against is None else self.findings.pair(self.port, self.against, self.cut)

    def hold_against(self, cut_id: str) -> None:
        """Pin the cut that the one looked at is held against."""
        self.other = None
        port, _ = self.job.cut_of(cut_id)
        if self.selection is None or (cut_id == self.selection.cut_id and self.selection.trial_id is None):
            return
        self.selection = replace(self.selection, port_id=port.id, against_id=cut_id)
        self._tell(Told.SELECTION)

    # -- benches

    def change_bench(self, name: str, bench: Bench) -> None:
        """Put a bench in the shop's list, in place of the one with its id."""
        if all(b.id != bench.id for b in self.benches):
            self.apply(name, benches=(*self.benches, bench))
        else:
            self.apply(name, benches=tuple(bench if b.id == bench.id else b for b in self.benches))

    def look_elsewhere(self) -> bool:
        """Take in what other jobs have seen of the benches since; True where that says something new."""
        self.shop.read_anew()
        seen = self.shop.seen_elsewhere()
        if seen == self.elsewhere:
            return False
        self.elsewhere = seen
        self._take(self.job, self.benches)
        self._tell(Told.JOB)
        return True

    def judge_by_witness(self, on: bool) -> None:
        """Take what the witness port says the setting-up changed out of comparisons, or leave it in."""
        self.findings = Findings(self.job, self.findings, self.benches, self.elsewhere, judge_by_witness=on)
        self._tell(Told.JOB)

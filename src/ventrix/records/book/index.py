"""The book's index: jobs listed, searched, and cuts held beside cuts of other jobs, and nothing opened for it.

An entry says which revisions it was made from; one that is behind is still found by its title, and made anew.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, fields
from typing import Any, Final

from sqlalchemy import ColumnElement, Connection, Row, and_, cast, exists, func, or_, select

from ventrix.core.judging.findings import Findings
from ventrix.core.judging.job_summary import CutSummary, JobSummary, summary_of
from ventrix.core.judging.like_sizes import FAR, flow_at, size_distance, why_left_out
from ventrix.core.model.bench import Bench
from ventrix.core.model.job import Job
from ventrix.core.model.kinds import JobState
from ventrix.core.model.run import SetUp
from ventrix.records.book.book import BENCHES, Book, revision_of
from ventrix.records.book.loading import load_benches, load_job
from ventrix.records.book.tables import CUT_INDEX, JOB_INDEX, REVISION, TABLES

_CUT_FIELDS: Final = tuple(f.name for f in fields(CutSummary) if f.name not in ("lifts", "flows", "setup"))
SIZES: Final = ("section", "throat", "valve", "volume")


@dataclass(frozen=True, slots=True)
class Wish:
    """A figure that was asked for: between `low` and `high`, best at `wanted`; a flow at a lift. SI."""

    key: str
    wanted: float
    low: float
    high: float
    lift: float | None = None


@dataclass(frozen=True, slots=True)
class Question:
    """What is searched for: words that all must be there, figures that one flowed cut must all meet."""

    words: tuple[str, ...] = ()
    wishes: tuple[Wish, ...] = ()


@dataclass(frozen=True, slots=True)
class Entry:
    """A job in the book's list."""

    id: str
    title: str
    customer: str
    casting: str
    material: str | None
    cylinders: int | None
    state: JobState
    waits_for: str
    promise_date: str | None
    handed_over: str | None
    archived: bool
    binned: str | None
    date: str | None
    cuts: int
    runs: int
    seconds: float | None
    current: bool  # the index has it as it is now
    best: CutSummary | None = None  # the cut that met what was asked for, nearest first
    off: float = 0.0  # how far that one is from what was asked for


@dataclass(frozen=True, slots=True)
class Neighbour:
    """A flowed cut of the book beside the one asked about, and why it is left out of the figure, if it is."""

    job_id: str
    title: str
    cut: CutSummary
    distance: float
    left_out: str = ""


class Index:
    """The index of an open book."""

    def __init__(self, book: Book) -> None:
        self._book = book

    # -- keeping it

    def behind(self) -> list[str]:
        """Ids of jobs that were written since they were indexed, or never were."""
        if self._book.read_only:
            return []
        job = TABLES[Job]
        with self._book.reading() as connection:
            now = _state()
            found = (
                select(job.c.id)
                .outerjoin(JOB_INDEX, JOB_INDEX.c.job_id == job.c.id)
                .outerjoin(REVISION, REVISION.c.owner == job.c.id)
                .where(or_(JOB_INDEX.c.state.is_(None), JOB_INDEX.c.state != now))
            )
            return [row.id for row in connection.execute(found.order_by(job.c.id))]

    def renew(self, job_id: str, benches: tuple[Bench, ...] | None = None) -> None:
        """Make a job's entry anew. Nothing happens where the job is gone."""
        with self._book.reading() as connection:
            job = load_job(connection, job_id)
            state = f"{revision_of(connection, job_id)}/{revision_of(connection, BENCHES)}"
            shop = load_benches(connection) if benches is None else benches
        if job is not None:
            self.take(job, summary_of(Findings(job, benches=shop)), state)

    def take(self, job: Job, summary: JobSummary, state: str) -> None:
        """Put a job's entry in the place of the one it has."""
        with self._book.writing() as connection:
            if connection.execute(select(TABLES[Job].c.id).where(TABLES[Job].c.id == job.id)).first() is None:
                return
            connection.execute(JOB_INDEX.delete().where(JOB_INDEX.c.job_id == job.id))
            connection.execute(CUT_INDEX.delete().where(CUT_INDEX.c.job_id == job.id))
            connection.execute(
                JOB_INDEX.insert().values(
                    job_id=job.id,
                    state=state,
                    text=summary.text,
                    casting=summary.casting,
                    date=summary.date,
                    cuts=summary.cuts,
                    runs=summary.runs,
                    hours=summary.seconds,
                )
            )
            there = {cut.id for port in job.ports for cut in port.cuts}
            rows = [_cut_row(job.id, cut) for cut in summary.flowed if cut.cut_id in there]
            if rows:
                connection.execute(CUT_INDEX.insert(), rows)

    # -- asking it

    def find(self, question: Question | None = None) -> list[Entry]:
        """Jobs that answer a question, nearest first where figures were asked for, else by title; all without one."""
        asked = question or Question()
        with self._book.reading() as connection:
            rows = connection.execute(_listing(asked)).all()
            if not asked.wishes:
                return [_entry(row) for row in rows]
            best = _nearest(connection, asked.wishes)
        entries = [_entry(row, *best[row.id]) for row in rows if row.id in best]
        return sorted(entries, key=lambda e: (e.off, e.title.lower()))

    def counts(self) -> tuple[int, int]:
        """Jobs and runs of the book, what is in the bin left aside."""
        job = TABLES[Job]
        with self._book.reading() as connection:
            found = select(func.count(), func.sum(JOB_INDEX.c.runs)).select_from(
                job.outerjoin(JOB_INDEX, JOB_INDEX.c.job_id == job.c.id)
            )
            row = connection.execute(found.where(job.c.binned.is_(None))).one()
            return int(row[0]), int(row[1] or 0)

    def newest_cuts(self, job_ids: Sequence[str]) -> dict[str, list[CutSummary]]:
        """The last flowed cut of every port of these jobs."""
        found: dict[str, list[CutSummary]] = {job_id: [] for job_id in job_ids}
        with self._book.reading() as connection:
            asked = select(CUT_INDEX).where(CUT_INDEX.c.job_id.in_(list(job_ids)), CUT_INDEX.c.newest)
            for row in connection.execute(asked.order_by(CUT_INDEX.c.port_name)):
                found[row.job_id].append(_cut(row))
        return found

    def flowed(self) -> list[tuple[str, str, CutSummary]]:
        """Job id, title and summary of every flowed cut, for what is reckoned over the whole book."""
        job = TABLES[Job]
        asked = select(CUT_INDEX, job.c.title).join(job, job.c.id == CUT_INDEX.c.job_id).where(job.c.binned.is_(None))
        with self._book.reading() as connection:
            return [(row.job_id, row.title, _cut(row)) for row in connection.execute(asked)]

    def neighbours(self, of: CutSummary, most: int = 24) -> list[Neighbour]:
        """Cuts of the book nearest in size to one: section, throat and valve, as far as both are known."""
        found = []
        for job_id, title, cut in self.flowed():
            if cut.cut_id == of.cut_id or cut.direction != of.direction:
                continue
            distance = size_distance(of, cut)
            if distance is not None and distance <= FAR:
                found.append(Neighbour(job_id, title, cut, distance, why_left_out(of, cut)))
        return sorted(found, key=lambda n: (n.distance, n.title, n.cut.number))[:most]


def _state() -> ColumnElement[str]:
    """What an entry of a job must say to be the newest, as the database makes it."""
    benches = select(REVISION.c.number).where(REVISION.c.owner == BENCHES).scalar_subquery()
    text = TABLES[Job].c.title.type
    mine = cast(func.coalesce(REVISION.c.number, 0), text)
    return mine.concat("/").concat(cast(func.coalesce(benches, 0), text))


def _listing(question: Question) -> Any:
    job = TABLES[Job]
    columns = (
        *(job.c[n] for n in ("id", "title", "customer", "material", "cylinders", "state", "waits_for")),
        *(job.c[n] for n in ("promise_date", "handed_over", "archived", "binned")),
        *(JOB_INDEX.c[n] for n in ("casting", "date", "cuts", "runs", "hours")),
        JOB_INDEX.c.state.is_not(None).label("current"),
    )
    asked = select(*columns).outerjoin(JOB_INDEX, JOB_INDEX.c.job_id == job.c.id)
    for word in question.words:
        like = f"%{_escaped(word.lower())}%"
        asked = asked.where(
            or_(JOB_INDEX.c.text.like(like, escape="!"), func.lower(job.c.title).like(like, escape="!"))
        )
    if question.wishes:
        met = [_meets(w) for w in question.wishes if w.key in SIZES]
        asked = asked.where(exists().where(and_(CUT_INDEX.c.job_id == job.c.id, *met)))
    return asked.order_by(func.lower(job.c.title), job.c.id)


def _escaped(word: str) -> str:
    return word.replace("!", "!!").replace("%", "!%").replace("_", "!_")


def _meets(wish: Wish) -> ColumnElement[bool]:
    return CUT_INDEX.c[wish.key].between(wish.low, wish.high)


def _nearest(connection: Connection, wishes: tuple[Wish, ...]) -> dict[str, tuple[CutSummary, float]]:
    """Of each job the cut that meets every wish and comes nearest to them, and how far off it is."""
    asked = select(CUT_INDEX).where(*(_meets(w) for w in wishes if w.key in SIZES))
    found: dict[str, tuple[CutSummary, float]] = {}
    for row in connection.execute(asked):
        cut = _cut(row)
        off = 0.0
        for wish in wishes:
            has = flow_at(cut, wish.lift) if wish.lift is not None else getattr(cut, wish.key)
            if has is None or not wish.low <= has <= wish.high or (wish.lift is not None and cut.is_share):
                break
            off += abs(has / wish.wanted - 1)
        else:
            if row.job_id not in found or off < found[row.job_id][1]:
                found[row.job_id] = cut, off
    return found


def _entry(row: Row[Any], best: CutSummary | None = None, off: float = 0.0) -> Entry:
    known = tuple(JobState)
    return Entry(
        row.id,
        row.title,
        row.customer,
        row.casting or "",
        row.material,
        row.cylinders,
        JobState(row.state) if row.state in known else JobState.OPEN,
        row.waits_for,
        row.promise_date,
        row.handed_over,
        row.archived,
        row.binned,
        row.date,
        row.cuts or 0,
        row.runs or 0,
        row.hours,
        bool(row.current),
        best,
        off,
    )


def _cut_row(job_id: str, cut: CutSummary) -> dict[str, Any]:
    values = {name: getattr(cut, name) for name in _CUT_FIELDS}
    said = {f.name: v for f in fields(SetUp) if f.name != "extra" and (v := getattr(cut.setup, f.name)) is not None}
    return values | {"job_id": job_id, "curve": [list(cut.lifts), list(cut.flows)], "setup": said}


def _cut(row: Row[Any]) -> CutSummary:
    lifts, flows = row.curve
    values = {name: getattr(row, name) for name in _CUT_FIELDS}
    return CutSummary(**values, setup=SetUp(**row.setup), lifts=tuple(lifts), flows=tuple(flows))

"""The book's index: jobs listed, searched, and cuts held beside cuts of other jobs, and nothing opened for it.

An entry says which revisions it was made from; one that is behind is still found by its title, and made anew.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, fields, is_dataclass
from typing import Any, Final

from sqlalchemy import ColumnElement, Connection, Row, and_, cast, exists, func, or_, select

from ventrix.core.benches.study import Evidence
from ventrix.core.formulas.uncertainty import MountSets
from ventrix.core.judging.expectation import Outcome, Scored
from ventrix.core.judging.findings import Findings
from ventrix.core.judging.job_summary import CutSummary, JobSummary, summary_of
from ventrix.core.judging.like_sizes import FAR, between_lifts, size_distance, why_left_out
from ventrix.core.model.bench import Bench
from ventrix.core.model.job import Job
from ventrix.core.model.kinds import JobState
from ventrix.core.model.run import Reading, SetUp
from ventrix.core.planning.reflow import span_of
from ventrix.records.book.book import BENCHES, Book, revision_of
from ventrix.records.book.loading import load_benches, load_job
from ventrix.records.book.tables import CUT_INDEX, JOB_INDEX, REVISION, TABLES

_CUT_FIELDS: Final = tuple(f.name for f in fields(CutSummary) if f.name not in ("lifts", "flows", "setup"))
FEW: Final = 3  # jobs behind that are read anew while one waits, a tenth of a second each
LONGEST_WORD: Final = 200  # characters of a word that is searched for: a store takes no endless pattern
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
    best_cut_id: str = ""  # the cut that met what was asked for, nearest first
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
        with self._book.store.reading() as connection:
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
        with self._book.store.reading() as connection:
            job = load_job(connection, job_id)
            state = f"{revision_of(connection, job_id)}/{revision_of(connection, BENCHES)}"
            shop = load_benches(connection) if benches is None else benches
        if job is not None:
            self.take(job, summary_of(Findings(job, benches=shop)), state)

    def take(self, job: Job, summary: JobSummary, state: str) -> None:
        """Put a job's entry in the place of the one it has."""
        with self._book.store.writing() as connection:
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
                    evidence={bench: _plain(seen) for bench, seen in summary.evidence.items()},
                    outcomes=[_plain(o) for o in summary.outcomes],
                    powers=list(summary.powers),
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
        with self._book.store.reading() as connection:
            rows = connection.execute(_listing(asked)).all()
            if not asked.wishes:
                return [_entry(row) for row in rows]
            best = _nearest(connection, asked.wishes)
        entries = [_entry(row, *best[row[0]]) for row in rows if row[0] in best]
        return sorted(entries, key=lambda e: (e.off, e.title.lower()))

    def counts(self) -> tuple[int, int]:
        """Jobs and runs of the book, what is in the bin left aside."""
        job = TABLES[Job]
        with self._book.store.reading() as connection:
            found = select(func.count(), func.sum(JOB_INDEX.c.runs)).select_from(
                job.outerjoin(JOB_INDEX, JOB_INDEX.c.job_id == job.c.id)
            )
            row = connection.execute(found.where(job.c.binned.is_(None))).one()
            return int(row[0]), int(row[1] or 0)

    def newest_cuts(self, job_ids: Sequence[str]) -> dict[str, list[CutSummary]]:
        """The last flowed cut of every port of these jobs."""
        found: dict[str, list[CutSummary]] = {job_id: [] for job_id in job_ids}
        with self._book.store.reading() as connection:
            asked = select(CUT_INDEX).where(CUT_INDEX.c.job_id.in_(list(job_ids)), CUT_INDEX.c.newest)
            for row in connection.execute(asked.order_by(CUT_INDEX.c.port_name)):
                found[row.job_id].append(_cut(row))
        return found

    def cuts(self, cut_ids: Sequence[str]) -> dict[str, CutSummary]:
        """Flowed cuts by their ids."""
        with self._book.store.reading() as connection:
            asked = select(CUT_INDEX).where(CUT_INDEX.c.cut_id.in_(list(cut_ids)))
            return {row.cut_id: _cut(row) for row in connection.execute(asked)}

    def seen_elsewhere(self, but: str) -> dict[str, Evidence]:
        """What the book's other jobs have seen of each bench's scatter."""
        found: dict[str, Evidence] = {}
        with self._book.store.reading() as connection:
            asked = select(JOB_INDEX.c.evidence).where(JOB_INDEX.c.job_id != but)
            for row in connection.execute(asked):
                for bench, seen in row.evidence.items():
                    one = Evidence(
                        seen["repeat_squares"],
                        seen["repeat_freedom"],
                        MountSets(**seen["seen"]),
                        MountSets(**seen["tilts"]),
                    )
                    found[bench] = found.get(bench, Evidence()) + one
        return found

    def flow_spans(self) -> list[float]:
        """From the first to the last reading of every run of the book that tells its times [s]."""
        reading = TABLES[Reading]
        asked = (
            select(func.min(reading.c.time), func.max(reading.c.time))
            .where(reading.c.time.is_not(None))
            .group_by(reading.c.flow_run_id)
        )
        with self._book.store.reading() as connection:
            rows = connection.execute(asked).all()
        return [span for first, last in rows if (span := span_of(first, last)) is not None]

    def outcomes_elsewhere(self, but: str) -> list[Outcome]:
        """What was said of cuts of the book's other jobs before the work, and came."""
        with self._book.store.reading() as connection:
            rows = connection.execute(select(JOB_INDEX.c.outcomes).where(JOB_INDEX.c.job_id != but)).all()
        return [
            Outcome(
                tuple(o["places"]), Scored(*o["gain"]), Scored(*o["growth"]), Scored(*o["time"]), bool(o["by_plan"])
            )
            for row in rows
            for o in row.outcomes
        ]

    def powers_elsewhere(self, but: str) -> list[float]:
        """Power for flow [W s/m3] of the book's other jobs: see `core.judging.engine_results`."""
        with self._book.store.reading() as connection:
            rows = connection.execute(select(JOB_INDEX.c.powers).where(JOB_INDEX.c.job_id != but)).all()
        return [float(p) for row in rows for p in row.powers]

    def catch_up(self, but: str = "", most: int = FEW) -> None:
        """Make the entries of a few other jobs again that are behind; of many none: that is the window's to do."""
        behind = [job_id for job_id in self.behind() if job_id != but]
        if len(behind) <= most:
            for job_id in behind:
                self.renew(job_id)

    def flowed(self) -> list[tuple[str, str, CutSummary]]:
        """Job id, title and summary of every flowed cut, for what is reckoned over the whole book."""
        job = TABLES[Job]
        asked = select(CUT_INDEX, job.c.title).join(job, job.c.id == CUT_INDEX.c.job_id).where(job.c.binned.is_(None))
        with self._book.store.reading() as connection:
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


# The columns of a list, in the order of `Entry`.
_JOB_COLUMNS: Final = (
    *("id", "title", "customer", "material", "cylinders", "state", "waits_for"),
    *("promise_date", "handed_over", "archived", "binned"),
)
_INDEX_COLUMNS: Final = ("casting", "date", "cuts", "runs", "hours")
_STATES: Final = {state.value: state for state in JobState}


def _listing(question: Question) -> Any:
    job = TABLES[Job]
    columns = (*(job.c[n] for n in _JOB_COLUMNS), *(JOB_INDEX.c[n] for n in _INDEX_COLUMNS))
    asked = select(*columns).outerjoin(JOB_INDEX, JOB_INDEX.c.job_id == job.c.id)
    for word in (each[:LONGEST_WORD] for each in question.words):
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


def _nearest(connection: Connection, wishes: tuple[Wish, ...]) -> dict[str, tuple[str, float]]:
    """Of each job the cut that meets every wish and comes nearest to them, by its id, and how far off it is."""
    sizes = [w for w in wishes if w.key in SIZES]
    flows = [w for w in wishes if w.lift is not None]
    columns = [CUT_INDEX.c.job_id, CUT_INDEX.c.cut_id, *(CUT_INDEX.c[w.key] for w in sizes)]
    asked = select(*columns, *((CUT_INDEX.c.curve, CUT_INDEX.c.is_share) if flows else ()))
    found: dict[str, tuple[str, float]] = {}
    for row in connection.execute(asked.where(*(_meets(w) for w in sizes))):
        off = sum(abs(has / wish.wanted - 1) for has, wish in zip(row[2:], sizes, strict=False))
        if flows:
            more = None if row.is_share else _flows_off(row.curve, flows)
            if more is None:
                continue
            off += more
        known = found.get(row[0])
        if known is None or off < known[1]:
            found[row[0]] = row[1], off
    return found


def _flows_off(curve: list[list[float]], wishes: list[Wish]) -> float | None:
    """How far a curve is from the flows asked for; None where it misses one."""
    off = 0.0
    for wish in wishes:
        has = between_lifts(wish.lift or 0.0, *curve)
        if has is None or not wish.low <= has <= wish.high:
            return None
        off += abs(has / wish.wanted - 1)
    return off


def _entry(row: Any, best: str = "", off: float = 0.0) -> Entry:
    job_id, title, customer, material, cylinders, state, waits, promise, handed, archived, binned = row[:11]
    casting, date, cuts, runs, hours = row[11:]
    return Entry(
        job_id, title, customer, casting or "", material, cylinders, _STATES.get(state, JobState.OPEN), waits, promise,
        handed, archived, binned, date, cuts or 0, runs or 0, hours, best, off,
    )  # fmt: skip


def _plain(value: Any) -> Any:
    """A value of the core as JSON takes it."""
    if is_dataclass(value) and not isinstance(value, type):
        return {f.name: _plain(getattr(value, f.name)) for f in fields(value)}
    if isinstance(value, tuple):
        return [_plain(v) for v in value]
    return value


def _cut_row(job_id: str, cut: CutSummary) -> dict[str, Any]:
    values = {name: getattr(cut, name) for name in _CUT_FIELDS}
    said = {f.name: v for f in fields(SetUp) if f.name != "extra" and (v := getattr(cut.setup, f.name)) is not None}
    return values | {"job_id": job_id, "curve": [list(cut.lifts), list(cut.flows)], "setup": said}


def _cut(row: Row[Any]) -> CutSummary:
    lifts, flows = row.curve
    values = {name: getattr(row, name) for name in _CUT_FIELDS}
    return CutSummary(**values, setup=SetUp(**row.setup), lifts=tuple(lifts), flows=tuple(flows))

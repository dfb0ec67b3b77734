"""The book's plates: a job in a glance, from its line in the index."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from datetime import date
from typing import Final

from ventrix.core.judging.job_summary import CutSummary
from ventrix.core.judging.like_sizes import flow_at
from ventrix.core.judging.my_lifts import lifts_of
from ventrix.core.model.job import Job
from ventrix.core.model.kinds import Direction, JobState
from ventrix.records.book.index import Entry, Question
from ventrix.rooms.book.question import shown_for
from ventrix.rooms.display_units import Units
from ventrix.words import tr

USUAL_LIFT: Final = 0.45 * 0.0254  # m, where nobody asked for another


@dataclass(frozen=True, slots=True)
class Filter:
    """A row of states above the plates."""

    key: str
    words: str
    takes: Callable[[Entry, date], bool]


def _about(entry: Entry) -> bool:
    return not entry.archived and entry.binned is None


FILTERS: Final = (
    Filter("all", tr("all states"), lambda e, _d: _about(e)),
    Filter("open", tr("on the bench"), lambda e, _d: _about(e) and e.state == JobState.OPEN),
    Filter("waiting", tr("waiting"), lambda e, _d: _about(e) and e.state == JobState.WAITING),
    Filter("promised", tr("promised"), lambda e, _d: _about(e) and promised(e) is not None),
    Filter("late", tr("late"), lambda e, d: _about(e) and days_late(e, d) > 0),
    Filter("handed over", tr("handed over"), lambda e, _d: _about(e) and e.state == JobState.HANDED_OVER),
    Filter("archive", tr("archive"), lambda e, _d: e.archived and e.binned is None),
    Filter("bin", tr("bin"), lambda e, _d: e.binned is not None),
)
SORTS: Final = (
    ("nearest", tr("nearest")),
    ("newest", tr("newest first")),
    ("title", tr("by title")),
    ("promise", tr("by due date")),
)


@dataclass(frozen=True, slots=True)
class Figure:
    """A figure of a plate; `asked` where the question named it."""

    text: str
    caption: str
    asked: bool = False


@dataclass(frozen=True, slots=True)
class StateWords:
    """Where a job stands: a shape, words, and what is said beside them. The shape tells it without colour."""

    shape: str  # square, hatched, tick, late, dashed, box
    words: str
    beside: str = ""


@dataclass(frozen=True, slots=True)
class Plate:
    """A job as its plate says it. `curves` are lifts and flows in SI by kind of port."""

    job_id: str
    title: str
    line: str
    figures: tuple[Figure, ...]
    state: StateWords
    curves: tuple[tuple[str, tuple[float, ...], tuple[float, ...]], ...]
    lift: float

    @property
    def spoken(self) -> str:
        """For a screen reader."""
        figures = ", ".join(f"{f.caption} {f.text}" for f in self.figures)
        return f"{self.title}. {self.line}. {figures}. {self.state.words} {self.state.beside}".strip()


def promised(entry: Entry) -> date | None:
    """The day a job is promised for, while it is not handed over."""
    return None if entry.state == JobState.HANDED_OVER else read_day(entry.promise_date)


def days_late(entry: Entry, today: date) -> int:
    """Whole days past the promise; zero or less where it holds, or nothing was promised."""
    day = promised(entry)
    return (today - day).days if day is not None else 0


def read_day(text: str | None) -> date | None:
    """A day as documents write it, None where there is none or it cannot be read."""
    try:
        return date.fromisoformat((text or "")[:10])
    except ValueError:
        return None


def day_words(day: date, today: date) -> str:
    """A day as a shop says it: "Fri" within the week, else "12 Mar", with the year where it is another."""
    if 0 <= (day - today).days < 7:
        return f"{day:%a}"
    return f"{day.day} {day:%b}" + (f" {day.year}" if day.year != today.year else "")


def state_words(entry: Entry, today: date) -> StateWords:
    """Where a job stands, in a shape and words."""
    day, late = promised(entry), days_late(entry, today)
    if entry.binned is not None:
        return StateWords("box", tr("in the bin"), _on(entry.binned, today))
    if entry.archived:
        return StateWords("box", tr("archive"), _on(entry.handed_over or entry.date, today))
    if entry.state == JobState.HANDED_OVER:
        return StateWords("tick", tr("handed over"), _on(entry.handed_over or entry.date, today))
    if late > 0 and day is not None:
        return StateWords("late", tr("{} day{} late", late, "s" * (late > 1)), tr("promised {}", day_words(day, today)))
    beside = tr("promised {}", day_words(day, today)) if day is not None else _on(entry.date, today)
    if entry.state == JobState.WAITING:
        return StateWords("hatched", tr("waits: {}", entry.waits_for) if entry.waits_for else "waits", beside)
    if entry.state == JobState.LEFT:
        return StateWords("dashed", tr("not finished"), _on(entry.date, today))
    return StateWords("square", tr("on the bench"), beside)


def _on(text: str | None, today: date) -> str:
    day = read_day(text)
    return day_words(day, today) if day is not None else ""


def speaking_cut(newest: Sequence[CutSummary], best: CutSummary | None) -> CutSummary | None:
    """The cut whose figures a plate shows: the one that met the question, else the newest intake, else any."""
    if best is not None:
        return best
    return next((c for c in newest if c.direction == Direction.INTAKE), newest[0] if newest else None)


def lift_of_plates(question: Question, job: Job | None) -> float:
    """The lift [m] that plates say flow at: the one asked for, else the open job's highest own, else the usual."""
    asked = next((w.lift for w in question.wishes if w.lift is not None), None)
    if asked is not None:
        return asked
    mine = lifts_of(job, Direction.INTAKE) if job is not None else ()
    return mine[-1].lift if mine else USUAL_LIFT


def why_empty(jobs: int, question: Question) -> str:
    """Why no plate is shown of a book with this many jobs."""
    if jobs == 0:
        return tr("The book is empty.\n\nBegin a job, or drop a job document or a table here.")
    if question.words or question.wishes:
        return tr("Nothing in the book matches that.\n\nEsc empties the line; a figure may be a range: 1.6-1.8.")
    return tr("No job stands here.")


def why_no_size(title: str, cut: CutSummary | None) -> str:
    """Why a job has no size that others could be near; "" where it has one."""
    if cut is None:
        return tr("{} has not been flowed: there is no size to go by yet.", title)
    if cut.section is None and cut.throat is None and cut.valve is None:
        return tr("{}: neither section nor throat nor valve was measured.", title)
    return ""


def plate_of(
    entry: Entry,
    newest: Sequence[CutSummary],
    best: CutSummary | None,
    question: Question,
    lift: float,
    units: Units,
    today: date,
) -> Plate:
    """A job's plate; `lift` [m] is the one its flow is said at."""
    cut = speaking_cut(newest, best)
    parts = [entry.customer or "own"]
    head = ", ".join(p for p in (tr("{} cyl", entry.cylinders) if entry.cylinders else "", entry.material or "") if p)
    parts += [p for p in (head, entry.casting) if p]
    if cut is not None:
        parts.append(tr("{}, cut {}", cut.port_name.lower(), cut.number))
    other = next((c for c in newest if cut is not None and c.direction != cut.direction), None)
    curves = [(c.direction, c.lifts, c.flows) for c in (cut, other) if c is not None and not c.is_share]
    return Plate(
        entry.id,
        entry.title,
        " · ".join(parts),
        _figures(cut, question, lift, units),
        state_words(entry, today),
        tuple(curves),
        lift,
    )


def _figures(cut: CutSummary | None, question: Question, lift: float, units: Units) -> tuple[Figure, ...]:
    if cut is None:
        return (Figure("–", tr("not flowed yet")),)
    asked = [w.key for w in question.wishes if w.key != "flow"]
    keys = [*asked, *(k for k in ("section", "throat", "valve", "volume") if k not in asked)]
    known = [k for k in keys if getattr(cut, k) is not None][:2]
    found = []
    for key in known:
        shown = shown_for(key, units)
        digits = shown.text(getattr(cut, key))
        caption = shown.label if key in ("section", "volume") else f"{key}, {shown.label}"
        found.append(Figure(digits, caption, key in asked))
    flow = flow_at(cut, lift)
    asked_flow = any(w.key == "flow" for w in question.wishes)
    if cut.is_share:
        found.append(Figure("%", tr("index only")))
    elif flow is None:
        found.append(Figure("–", tr("at {}", units.lift.text(lift))))
    else:
        found.append(Figure(units.flow.text(flow), tr("at {}", units.lift.text(lift)), asked_flow))
    return tuple(found)


def sorted_entries(entries: list[Entry], by: str) -> list[Entry]:
    """Entries in an order; "nearest" leaves them as the search gave them."""
    if by == "newest":
        return sorted(entries, key=lambda e: e.date or "", reverse=True)
    if by == "title":
        return sorted(entries, key=lambda e: e.title.lower())
    if by == "promise":
        far = date.max
        return sorted(entries, key=lambda e: (promised(e) or far, e.title.lower()))
    return entries

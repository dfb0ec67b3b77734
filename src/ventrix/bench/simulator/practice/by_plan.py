"""A practice as Plan would have it done: flow, then the best open move again and again, walls read where it asks."""

from __future__ import annotations

from datetime import date
from typing import Final

from ventrix.bench.simulator.practice.play import Act, Practice
from ventrix.bench.simulator.practice.virtual_job import bench_of, job_of, kept, practice_job
from ventrix.core.judging.findings import Findings
from ventrix.core.judging.model_port import developed_port
from ventrix.core.matching.copying import copies
from ventrix.core.model.bench_kinds import ActKind
from ventrix.core.model.job import Job
from ventrix.core.model.kinds import Place
from ventrix.core.next_hour.evening import evening
from ventrix.core.next_hour.work_item import ItemKind, WorkItem
from ventrix.core.next_hour.work_list import work_list
from ventrix.core.planning.moves import READ_FIRST, Move, MoveKind
from ventrix.core.planning.next_moves import plan_port

AS_ALWAYS: Final = date(2026, 1, 5)  # a head that does not exist is promised for no day
DOABLE: Final = (MoveKind.CUT, MoveKind.WALL, MoveKind.MOUNT)
MOUNTS: Final = 2  # of one state: a third tells little more


def advice(job: Job, practice: Practice) -> tuple[Move, ...]:
    """What Plan says of a practice's job as it stands, best hour first: what can be done in a practice."""
    return tuple(m for m in _candidates(job, practice) if m.kind in DOABLE)


def _candidates(job: Job, practice: Practice) -> tuple[Move, ...]:
    """Everything that can be done in a practice, sets of passes too."""
    found = plan_port(Findings(job, benches=(bench_of(practice.head),)), job.ports[0])
    return tuple(m for m in found.candidates if m.kind in (*DOABLE, MoveKind.BATCH) and not m.named)


def next_act(moves: tuple[Move, ...], flows_of_state: int) -> Act | None:
    """The act that a plan comes to: its best open move; what is blocked by an unread wall is read first."""
    for move in moves:
        if move.kind is MoveKind.MOUNT:
            if flows_of_state < MOUNTS:
                return Act(ActKind.FLOW)
        elif move.kind is MoveKind.WALL:
            return Act(ActKind.WALL, Place(move.place))
        elif not move.blocked_by:
            if move.gain <= 0 or move.depth is None:
                return None
            return Act(ActKind.CUT, Place(move.place), move.depth)
        elif READ_FIRST in move.blocked_by:
            return Act(ActKind.WALL, Place(move.place))
    return None


def next_acts(job: Job, practice: Practice, flows_of_state: int) -> tuple[Act, ...]:
    """What a plan comes to next, up to its flow test: a set of passes, one pass, or a look; nothing where it stops."""
    for move in _candidates(job, practice):
        if move.kind is MoveKind.BATCH:
            cuts = (Act(ActKind.CUT, Place(each.place), each.depth or 0.0) for each in move.passes)
            return (*cuts, Act(ActKind.FLOW))
        act = next_act((move,), flows_of_state)
        if act is not None:
            return (act, Act(ActKind.FLOW)) if act.kind == ActKind.CUT else (act,)
        if move.kind is MoveKind.CUT and not move.blocked_by:
            return ()  # the best that is open brings nothing
    return ()


def by_plan(head: str, seed: int, hours: float | None = None) -> Practice:
    """A whole practice done by the plan, knowing nothing of the truth: a head of several ports by the whole head's
    list."""
    practice = Practice(head, seed, hours)
    if practice.head.count > 1:
        return _by_list(practice)
    job = practice_job(practice.head, seed)
    acts: tuple[Act, ...] = (Act(ActKind.FLOW),)
    flows = 0
    while acts:
        # The last hour may be cut into without a test of it; a set that does not fit is begun.
        ways = (acts, acts[:-1], (acts[0], Act(ActKind.FLOW)), acts[:1])
        fitting = next((way for way in ways if way and practice.fits(*way)), ())
        for each in fitting:
            job = kept(job, practice, practice.do(each))
            flows = 0 if each.kind == ActKind.CUT else flows + (each.kind == ActKind.FLOW)
        acts = next_acts(job, practice, flows) if fitting else ()
    return practice


def first_item(job: Job, practice: Practice) -> WorkItem | None:
    """What stands first on a head's list among what can be done in a practice and fits into the owner's hours, or is a
    copy: that is begun, and goes as far as the time does."""
    left = 60 * (60 * practice.hours - practice.minutes)
    if left <= 0:
        return None
    found = work_list(Findings(job, benches=(bench_of(practice.head),)), AS_ALWAYS, left=left)
    items = [i for i in found.items if _can_be_done(i)]
    fits = next(iter(evening(items, left)), None)
    begun = (i for i in items if i is fits or (i.kind is ItemKind.COPY and not i.waits))
    return next(begun, None)


def _can_be_done(item: WorkItem) -> bool:
    if item.kind is ItemKind.CUT and item.move is not None:
        return item.move.kind in (MoveKind.CUT, MoveKind.BATCH) and not item.move.named
    return item.kind is ItemKind.COPY or item.key.startswith(("wall ", "flow "))


def _acts_of(item: WorkItem, job: Job) -> tuple[Act, ...]:
    """What an item of the list is in a practice; a cut on the model is flowed after, a copy is not."""
    assert item.port is not None
    n = job.ports.index(item.port)
    if item.kind is ItemKind.CUT and item.move is not None:
        works = [(Place(m.place), m.depth or 0.0) for m in item.move.passes or (item.move,)]
        return (*(Act(ActKind.CUT, place, depth, port=n) for place, depth in works), Act(ActKind.FLOW, port=n))
    if item.kind is ItemKind.COPY:
        model = developed_port(Findings(job), item.port.kind)
        assert model is not None
        each = copies(job, model, model.cuts[-1], item.port)
        return tuple(
            Act(ActKind.CUT, Place(c.place), c.depth, port=n) for c in each if c.depth and c.place in item.places
        )
    return (
        (Act(ActKind.FLOW, port=n),)
        if item.key.startswith("flow ")
        else (Act(ActKind.WALL, Place(item.place), port=n),)
    )


def _by_list(practice: Practice) -> Practice:
    job = practice_job(practice.head, practice.seed)
    while (item := first_item(job, practice)) is not None:
        acts = _acts_of(item, job)
        before = len(practice.done)
        for act in acts:
            if practice.fits(act):
                job = kept(job, practice, practice.do(act))
        if len(practice.done) == before:
            return practice
    return practice


def said_at(practice: Practice, act: int) -> str:
    """What Plan would have said before an act of a practice (counted from 0), by what the book held then: of a head of
    several ports the first of its list. Empty where everything is blocked or brings nothing."""
    then = Practice(practice.head.id, practice.seed, practice.hours)
    then.live = practice.live
    for each in practice.acts[:act]:
        then.do(each)
    job = job_of(then)
    if practice.head.count > 1:
        item = first_item(job, then)
        return "" if item is None else item.sentence
    return next((m.sentence for m in advice(job, then) if not m.blocked_by), "")

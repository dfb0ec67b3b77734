"""A practice as Plan would have it done: flow, then the best open move again and again, walls read where it asks."""

from __future__ import annotations

from typing import Final

from ventrix.bench.simulator.practice.play import Act, Practice
from ventrix.bench.simulator.practice.virtual_job import bench_of, job_of, kept, practice_job
from ventrix.core.judging.findings import Findings
from ventrix.core.model.job import Job
from ventrix.core.model.kinds import Place
from ventrix.core.planning.moves import READ_FIRST, Move, MoveKind
from ventrix.core.planning.next_moves import plan_port

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
                return Act("flow")
        elif move.kind is MoveKind.WALL:
            return Act("wall", Place(move.place))
        elif not move.blocked_by:
            if move.gain <= 0 or move.depth is None:
                return None
            return Act("cut", Place(move.place), move.depth)
        elif READ_FIRST in move.blocked_by:
            return Act("wall", Place(move.place))
    return None


def next_acts(job: Job, practice: Practice, flows_of_state: int) -> tuple[Act, ...]:
    """What a plan comes to next, up to its flow test: a set of passes, one pass, or a look; nothing where it stops."""
    for move in _candidates(job, practice):
        if move.kind is MoveKind.BATCH:
            cuts = (Act("cut", Place(each.place), each.depth or 0.0) for each in move.passes)
            return (*cuts, Act("flow"))
        act = next_act((move,), flows_of_state)
        if act is not None:
            return (act, Act("flow")) if act.kind == "cut" else (act,)
        if move.kind is MoveKind.CUT and not move.blocked_by:
            return ()  # the best that is open brings nothing
    return ()


def by_plan(head: str, seed: int, hours: float | None = None) -> Practice:
    """A whole practice done by the plan, knowing nothing of the truth."""
    practice = Practice(head, seed, hours)
    job = practice_job(practice.head, seed)
    acts: tuple[Act, ...] = (Act("flow"),)
    flows = 0
    while acts:
        # The last hour may be cut into without a test of it; a set that does not fit is begun.
        ways = (acts, acts[:-1], (acts[0], Act("flow")), acts[:1])
        fitting = next((way for way in ways if way and practice.fits(*way)), ())
        for each in fitting:
            job = kept(job, practice, practice.do(each))
            flows = 0 if each.kind == "cut" else flows + (each.kind == "flow")
        acts = next_acts(job, practice, flows) if fitting else ()
    return practice


def advice_at(practice: Practice, act: int) -> tuple[Move, ...]:
    """What Plan would have said before an act of a practice (counted from 0), by what the book held then."""
    then = Practice(practice.head.id, practice.seed, practice.hours)
    then.live = practice.live
    for each in practice.acts[:act]:
        then.do(each)
    return advice(job_of(then), then)

"""The stage board: which stage each port has done, how long it took, what runs, and what waits for whom."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

from ventrix.core.model.cut import Operation, Port
from ventrix.core.model.job import Job
from ventrix.core.model.job_parts import Wait

# The usual stages of a head (common practice, no source).
USUAL_STAGES: Final = (
    "rough",
    "bowl",
    "short side",
    "guide",
    "valve job",
    "re-blend",
    "finish",
    "chamber",
    "deburr",
    "wash",
)


@dataclass(frozen=True, slots=True)
class Box:
    """A stage of one port: done with its time [s] where one was noted, running since a date, or waiting."""

    stage: str
    port: Port
    done: bool
    seconds: float | None
    running_since: str | None
    wait: Wait | None


def stages_of(job: Job) -> tuple[str, ...]:
    """The stages of a job's board: its own list, else the usual one."""
    return job.stages or USUAL_STAGES


def worked_at(port: Port, stage: str) -> tuple[Operation, ...]:
    """What was marked at a stage of a port, in order."""
    return tuple(op for c in port.cuts for op in c.operations if op.stage.lower() == stage.lower())


def waits_now(job: Job, stage: str | None = None) -> tuple[Wait, ...]:
    """What waits still, of one stage or of all."""
    return tuple(w for w in job.waits if w.ended is None and stage in (None, w.stage))


def board(job: Job) -> dict[tuple[str, str], Box]:
    """Every box by stage and the port's id.

    Parameters
    ----------
    job : Job
        Whose.

    Returns
    -------
    dict
        (stage, port id) to Box, stages in order, ports of the head in theirs.

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    Definitions of this project: a stage is done by an operation marked with its name, or closed by hand.
    """
    by_hand = {(m.stage, m.port_id) for m in job.stage_marks}
    found = {}
    for stage in stages_of(job):
        waiting = waits_now(job, stage)
        for port in (p for p in job.ports if p.of_head):
            ops = worked_at(port, stage)
            running = next((op.started_at for op in ops if op.started_at is not None and op.duration is None), None)
            times = [op.duration for op in ops if op.duration is not None]
            done = running is None and (bool(ops) or (stage, port.id) in by_hand)
            wait = next((w for w in waiting if not w.port_ids or port.id in w.port_ids), None)
            seconds = sum(times) if times else None
            found[stage, port.id] = Box(stage, port, done, seconds, running, None if done else wait)
    return found

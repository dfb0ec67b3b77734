"""Edits of the stage board: a stage marked for one port or many, a wait begun and ended, copies logged, parts."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import replace

from ventrix.core.edits.cuts import add_cut, add_operation
from ventrix.core.model.cut import Cut, Operation, Port, Work
from ventrix.core.model.job import Job
from ventrix.core.model.job_parts import StageMark, Wait
from ventrix.core.quantity.refused import Refused


def mark_stage(
    job: Job,
    ports: Sequence[Port],
    stage: str,
    new_id: Callable[[], str],
    date: str,
    seconds: float | None = None,
    beyond_quote: bool = False,
) -> Job:
    """A stage done on ports, its time shared among them.

    Parameters
    ----------
    job, ports, stage : Job, sequence of Port, str
        What is marked.
    new_id, date : callable, str
        For the operations.
    seconds : float, optional
        All of it together [s].
    beyond_quote : bool
        Chosen, and not quoted.

    Returns
    -------
    Job

    Raises
    ------
    KeyError
        A port is not there.
    ValueError
        A port has no state yet.
    """
    ids = tuple(p.id for p in ports) if len(ports) > 1 else ()
    for port in ports:
        if not port.cuts:
            raise Refused("{} has no state yet", port.name)
        share = None if seconds is None else seconds / len(ports)
        work = Operation(
            id=new_id(),
            kind=stage,
            stage=stage,
            duration=share,
            date=date,
            at=date,
            port_ids=ids,
            beyond_quote=beyond_quote,
        )
        job = add_operation(job, port.cuts[-1].id, work)
    return job


def log_copies(
    job: Job,
    port: Port,
    name: str,
    works: Sequence[Work],
    new_id: Callable[[], str],
    date: str,
    seconds: float | None,
    stage: str = "",
) -> Job:
    """A cut of a port that copies work of the developed one.

    Parameters
    ----------
    job, port, name : Job, Port, str
        The port, and what the cut is called.
    works : sequence of Work
        What was taken off there.
    new_id, date : callable, str
        For cut and operation.
    seconds : float, optional
        The port's own share [s].
    stage : str
        Of the board.

    Returns
    -------
    Job

    Raises
    ------
    KeyError
        The port is not there.
    ValueError
        Nothing was taken off.
    """
    if not works:
        raise Refused("nothing was chosen to copy")
    done = Operation(id=new_id(), kind=name, works=tuple(works), duration=seconds, date=date, at=date, stage=stage)
    return add_cut(job, port.id, Cut(id=new_id(), number=0, name=name, date=date, operations=(done,)))


def end_wait(job: Job, wait: Wait, date: str) -> Job:
    """A wait is over: it came back.

    Parameters
    ----------
    job, wait, date : Job, Wait, str
        Which, and when.

    Returns
    -------
    Job

    Raises
    ------
    ValueError
        Never.
    """
    return replace(job, waits=tuple(replace(w, ended=date) if w.id == wait.id else w for w in job.waits))


def close_stage(job: Job, mark: StageMark) -> Job:
    """A stage closed by hand; in place of an earlier closing of the same."""
    same = (mark.stage, mark.unit, mark.of, mark.port_id)
    kept = (m for m in job.stage_marks if (m.stage, m.unit, m.of, m.port_id) != same)
    return replace(job, stage_marks=(*kept, mark))


def open_stage(job: Job, mark_id: str) -> Job:
    """A closing by hand taken back."""
    return replace(job, stage_marks=tuple(m for m in job.stage_marks if m.id != mark_id))

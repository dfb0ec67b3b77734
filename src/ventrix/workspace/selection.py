"""What is looked at: the port, the cut, and what it is held against."""

from __future__ import annotations

from dataclasses import dataclass

from ventrix.core.model.cut import Port
from ventrix.core.model.job import Job
from ventrix.core.runs.reduced_run import ReducedRun


@dataclass(frozen=True, slots=True)
class OtherSide:
    """What a cut is held against in place of the pinned one: runs from anywhere in the book, or a claim."""

    words: str
    runs: tuple[ReducedRun, ...]


@dataclass(frozen=True, slots=True)
class Selection:
    """The port looked at, the cut looked at, the cut it is held against, and the trial of the cut, if
    that is what is looked at."""

    port_id: str
    cut_id: str
    against_id: str | None
    trial_id: str | None = None


def first_selection(job: Job) -> Selection | None:
    """The first port, its last cut, held against the one before."""
    return select_port(job.ports[0]) if job.ports else None


def select_port(port: Port) -> Selection:
    """A port's last flowed cut, held against the one before it."""
    flowed = [c for c in port.cuts if c.runs] or list(port.cuts)
    at = port.cuts.index(flowed[-1])
    return Selection(port.id, port.cuts[at].id, port.cuts[at - 1].id if at else None)

"""What the record of work says, for tests that hold only a job."""

from __future__ import annotations

from ventrix.core.judging.findings import Findings
from ventrix.core.model.job import Job
from ventrix.core.work.record import Record, StageState, record_of


def record(job: Job) -> Record:
    """The whole record of a job."""
    return record_of(Findings(job))


def at(job: Job, stage: str, port_id: str) -> StageState:
    """What a stage is at for a port."""
    return record(job).at(stage, job.port(port_id))

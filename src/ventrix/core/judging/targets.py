"""What is wanted of a port, and how far a run is from it: at the pressure that the target is meant at. SI."""

from __future__ import annotations

from ventrix.core.formulas.bench_flow import convert_flow
from ventrix.core.model.job import Job
from ventrix.core.model.job_parts import Target
from ventrix.core.runs.reduced_run import ReducedRun


def target_pressure(target: Target, job: Job, run: ReducedRun) -> float:
    """The test pressure a target is meant at [Pa]: its own, else the job's, else that of the run it is held to.

    Raises ValueError never. Source: definition of this project.
    """
    return target.test_pressure or job.test_pressure or (run.as_tested or run).test_pressure


def target_at(target: Target, job: Job, run: ReducedRun) -> float:
    """A target's flow at the pressure that a run's flows stand at [m3/s].

    Raises ValueError for pressures no bench has. Source: `bench_flow.convert_flow`.
    """
    return float(convert_flow(target.flow, target_pressure(target, job, run), run.test_pressure))


def target_reach(run: ReducedRun, target: Target, job: Job) -> float | None:
    """How far a run's flow is over a target [m3/s], at the run's pressure; None where the run is an index, or does not
    reach the target's lift.

    Raises ValueError as `target_at`. Source: there.
    """
    if run.kind != "flow" or target.lift > run.curve.highest * (1 + 1e-9):
        return None
    return float(run.curve.at(target.lift)) - target_at(target, job, run)

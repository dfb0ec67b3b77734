"""What is wanted of a port, and how far a run is from it: at the pressure that the target is meant at. SI."""

from __future__ import annotations

import math
from dataclasses import dataclass
from enum import StrEnum
from typing import Final

import numpy as np

from ventrix.core.formulas.bench_flow import convert_flow
from ventrix.core.judging.wording import Wording
from ventrix.core.model.bench_kinds import FlowKind
from ventrix.core.model.job import Job
from ventrix.core.model.job_parts import Target
from ventrix.core.model.kinds import Direction
from ventrix.core.model.school_questions import side_taken
from ventrix.core.runs.reduced_run import ReducedRun
from ventrix.words import tr

COVERS: Final = 1.96
MOST_MOUNTS: Final = 20  # as many as anybody flows


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
    if run.kind != FlowKind.FLOW or target.lift > run.curve.highest * (1 + 1e-9):
        return None
    return float(run.curve.at(target.lift)) - target_at(target, job, run)


class TargetState(StrEnum):
    """What a run says of a target: short of it, met as read and not proven, or proven."""

    SHORT = "short"
    READ = "read"
    PROVEN = "proven"


@dataclass(frozen=True, slots=True)
class JudgedTarget:
    """A target against a run: how far over it the flow reads [m3/s], U(0.05) of that, and how many further mounts would
    prove it; None where it is short, proven, or no number that anybody flows would do."""

    target: Target
    over: float
    expanded: float
    state: TargetState
    mounts: int | None

    def words(self, wording: Wording) -> str:
        """As every room, sheet and command says it."""
        if self.state is TargetState.SHORT:
            return tr("{} {} short", wording.flow(-self.over), wording.flow_name)
        if self.state is TargetState.PROVEN:
            return tr("met, and proven")
        if self.mounts is None:
            return tr("met as read, not proven")
        many = tr("1 more mount") if self.mounts == 1 else tr("{} more mounts", self.mounts)
        return tr("met as read, not proven: {} would prove it", many)


def judge_target(run: ReducedRun, target: Target, job: Job) -> JudgedTarget | None:
    """What a run says of a target.

    Parameters
    ----------
    run, target, job : ReducedRun, Target, Job
        As `target_reach`.

    Returns
    -------
    JudgedTarget or None
        None where the run is an index, or does not reach the target's lift.

    Raises
    ------
    ValueError
        As `target_at`.

    References
    ----------
    JCGM 100:2008, 6.3 for U; k mounts narrow it by the root of k.
    """
    over = target_reach(run, target, job)
    if over is None:
        return None
    u = COVERS * float(np.interp(target.lift, run.lift, run.uncertainty))
    if over < 0:
        return JudgedTarget(target, over, u, TargetState.SHORT, None)
    if over >= u:
        return JudgedTarget(target, over, u, TargetState.PROVEN, None)
    more = math.ceil((u / over) ** 2) - 1 if over > 0 else MOST_MOUNTS + 1
    return JudgedTarget(target, over, u, TargetState.READ, more if more <= MOST_MOUNTS else None)


def judged_targets(run: ReducedRun, job: Job, kind: Direction) -> tuple[JudgedTarget, ...]:
    """Every target of a kind of port that a run can be held to."""
    judged = (judge_target(run, target, job) for target in job.targets if target.kind == kind)
    return tuple(each for each in judged if each is not None)


def stops_at(job: Job, state: TargetState) -> bool:
    """Whether a target in this state is enough for this porter to stop: as read, unless he wants it proven."""
    proven = bool(side_taken(job, "target").value)
    return state is TargetState.PROVEN or (state is TargetState.READ and not proven)

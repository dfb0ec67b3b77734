"""Did the bench change between two runs? What was flowed at both settings-up says: the plate, the witness, or the
earlier state again on the later day. No scatter of a bench shows a leak, a sleeve or an entry that changed."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Final, NamedTuple

import numpy as np

from ventrix.core.formulas.knowledge import Adjustment, Check
from ventrix.core.formulas.uncertainty import Scatter
from ventrix.core.model.bench import Bench, same_name
from ventrix.core.model.cut import Cut, Port
from ventrix.core.model.job import Job
from ventrix.core.model.kinds import KeptWord, StepKind
from ventrix.core.model.run import FlowRun
from ventrix.core.quantity.moments import DAY
from ventrix.core.runs.reduced_run import LIFT_GRAIN, ReducedRun
from ventrix.words import tr

NEEDS_ONE_BELOW: Final = 0.04  # of the flow before: a smaller gain is never plainly kept without a check


class CheckKind(KeptWord):
    """What was flowed to see whether the bench changed."""

    PLATE = "reference plate"
    WITNESS = "witness port"
    AGAIN = "earlier cut, flowed again"


def plate_check(before: FlowRun, after: FlowRun, bench: Bench | None, scatter: Scatter) -> Check | None:
    """The reference plate at both runs: how much more of its nominal it read at the later one.

    Parameters
    ----------
    before, after : FlowRun
        With their steps of preparing; else the bench's record of that day speaks.
    bench : Bench or None
        With its plate checks.
    scatter : Scatter
        Of the bench.

    Returns
    -------
    Check or None
        None where either run has no plate of its own.

    References
    ----------
    [6] JCGM 100:2008, 5.1.2.
    """
    read = [_plate_of(run, bench) for run in (before, after)]
    if read[0] is None or read[1] is None or read[0][0] == read[1][0]:
        return None
    drift = (1 + read[1][1]) / (1 + read[0][1]) - 1
    return Check(CheckKind.PLATE, drift, scatter.repeat * 2**0.5, scatter.repeat_freedom)


def witness_check(found: Adjustment) -> Check:
    """What the witness port read more at the later setting-up, from the factor that would take it out.

    Parameters
    ----------
    found : Adjustment
        As `comparison.witness_adjustment` answers.

    Returns
    -------
    Check

    References
    ----------
    The factor's inverse.
    """
    return Check(CheckKind.WITNESS, 1 / found.factor - 1, found.uncertainty, found.freedom)


def _plate_of(run: FlowRun, bench: Bench | None) -> tuple[str, float] | None:
    """What identifies a run's plate reading, and how far it was off nominal."""
    step = run.step(StepKind.PLATE)
    if step is not None and step.drift is not None:
        return step.id, step.drift
    if bench is None or run.date is None:
        return None
    that_day = [p for p in bench.plates if p.struck is None and (p.date or "")[:DAY] == run.date[:DAY]]
    return (that_day[-1].id, that_day[-1].flow / that_day[-1].nominal - 1) if that_day else None


def again_check(before: Sequence[ReducedRun], after: Sequence[ReducedRun], scatter: Scatter) -> Check | None:
    """The earlier state flowed again on the later one's day: how much more it read then than it had.

    Parameters
    ----------
    before, after : sequence of ReducedRun
        Of like set-ups.
    scatter : Scatter
        Of the bench.

    Returns
    -------
    Check or None
        None where the earlier state was flowed on one day only, or not on the later one's.

    References
    ----------
    Difference of means over the lifts in common; repeat and re-mount scatter of both.
    """
    day = (after[-1].date or "")[:DAY]
    then = [r for r in before if (r.date or "")[:DAY] == day and day]
    first = [r for r in before if r.date and r.date[:DAY] != day]
    if not then or not first:
        return None
    grains = [set(np.round(r.lift / LIFT_GRAIN).astype(int).tolist()) for r in (*then, *first)]
    common = np.array(sorted(set.intersection(*grains)), dtype=float) * LIFT_GRAIN
    if not len(common):
        return None
    had, has = (np.mean([r.curve.at(common) for r in runs], axis=0) for runs in (first, then))
    mounts = 1 / len(then) + 1 / len(first)
    u = np.sqrt(mounts * (scatter.mount**2 + scatter.repeat**2 / len(common)))
    freedom = min(scatter.mount_freedom, scatter.repeat_freedom)
    return Check(CheckKind.AGAIN, float(np.mean(has / had)) - 1, float(u), freedom)


def witness_of(job: Job, run: FlowRun) -> FlowRun | None:
    """The witness port's run of the same setting-up: the one that was named, else the last of that day on the same
    bench in the same direction. None where it was not flowed then."""
    runs = {r.id: r for r in job.runs()}
    if run.witness_id is not None:
        return runs.get(run.witness_id)
    mine, day = job.setup(run.setup_id), (run.date or "")[:DAY]
    found = None
    for each in (r for p in job.ports if p.witness for c in p.cuts for r in c.runs):
        theirs = job.setup(each.setup_id)
        like = same_name(theirs.bench, mine.bench) and theirs.direction == mine.direction
        if day and (each.date or "")[:DAY] == day and like and any(r.struck is None for r in each.readings):
            found = each
    return found


class Offer(NamedTuple):
    """A check that can be made now: what is flowed, at which cut, and how many minutes it takes (common practice, no
    source)."""

    kind: CheckKind
    cut_id: str
    minutes: int

    @property
    def words(self) -> str:
        """As a button says it."""
        return tr("Flow the {}, {} min", self.kind, self.minutes)


def check_offer(job: Job, port: Port, before: Cut, after: Cut, bench: Bench | None, today: str) -> Offer | None:
    """The check that settles whether the bench changed between two cuts' last runs: what was flowed with the earlier
    one, once more with the later. None where nothing was, or the later one is not of today.

    Parameters
    ----------
    job, port : Job, Port
        Whose.
    before, after : Cut
        Both flowed.
    bench : Bench or None
        Its record.
    today : str
        As dates are written.

    Returns
    -------
    Offer or None

    References
    ----------
    Definitions of this project.
    """
    first, last = before.runs[-1], after.runs[-1]
    if (last.date or "")[:DAY] != today[:DAY]:
        return None
    witness = next((p for p in job.ports if p.witness and p.kind == port.kind and p.cuts), None)
    if witness is not None and witness_of(job, first) is not None:
        return Offer(CheckKind.WITNESS, witness.cuts[0].id, 6)
    if bench is not None and bench.plate_flow is not None and _plate_of(first, bench) is not None:
        return Offer(CheckKind.PLATE, after.id, 3)
    return None

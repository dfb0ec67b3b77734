"""The lifts that a porter looks at first, and whether a gain there costs the swirl that is wished for."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ventrix.core.air.swirl_over_lift import SWIRL_SCATTER
from ventrix.core.formulas.uncertainty import CONFIDENCE
from ventrix.core.judging.comparison import RunComparison
from ventrix.core.judging.schools import own_weights
from ventrix.core.model.job import Job
from ventrix.core.model.job_parts import MyLift
from ventrix.core.model.kinds import Direction, Result
from ventrix.core.quantity.units import from_si
from ventrix.core.runs.reduced_run import ReducedRun
from ventrix.words import tr


@dataclass(frozen=True, slots=True)
class LiftFigure:
    """A pair at one of the porter's own lifts: flows, difference and U(0.05) in the unit of the runs. Between tested
    lifts it is interpolated, and then nothing is proven."""

    name: str
    lift: float
    before: float
    after: float
    expanded: float
    result: Result
    interpolated: bool

    @property
    def change(self) -> float:
        return self.after - self.before


def lifts_of(job: Job, kind: Direction) -> tuple[MyLift, ...]:
    """The porter's own lifts for a kind of port, rising."""
    return tuple(sorted((m for m in job.my_lifts if m.kind == kind), key=lambda m: m.lift))


def at_my_lifts(comparison: RunComparison, lifts: tuple[MyLift, ...]) -> tuple[LiftFigure, ...]:
    """What a pair did at each of these lifts; those that it does not reach are left out.

    Parameters
    ----------
    comparison : RunComparison
        The pair.
    lifts : tuple of MyLift
        Lifts [m].

    Returns
    -------
    tuple of LiftFigure

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    Straight lines between neighbouring tested lifts; their uncertainty as of any weighted mean: [6] JCGM 100:2008,
    5.1.2.
    """
    tested = comparison.tested
    lift = comparison.lift[tested]
    alpha = CONFIDENCE / max(int(np.sum(tested)), 1)  # as the marks at the tested lifts have it
    found = []
    for mine in lifts:
        weights = own_weights(lift, (mine.lift,))
        if not np.any(weights):
            continue
        every = np.zeros(len(comparison.lift))
        every[tested] = weights
        before, after = float(every @ comparison.before), float(every @ comparison.after)
        expanded = comparison.difference.weighted_expanded(every, alpha)
        between = int(np.count_nonzero(weights)) > 1
        result = Result.NOT_PROVEN
        if comparison.allowed and not between and abs(after - before) > expanded:
            result = Result.BETTER if after > before else Result.WORSE
        found.append(LiftFigure(mine.name, mine.lift, before, after, expanded, result, between))
    return tuple(found)


def swirl_wish_sentences(
    job: Job, kind: Direction, before: ReducedRun, after: ReducedRun, lift_unit: str = "in"
) -> tuple[str, ...]:
    """What a cut did to swirl where swirl is wished for: a sentence for each wish that is missed or that it cost.

    Parameters
    ----------
    job : Job
        Its wishes.
    kind : str
        Kind of the port.
    before, after : ReducedRun
        Of the pair, at one pressure.
    lift_unit : str
        Unit of the sentences' lifts.

    Returns
    -------
    tuple of str

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    Repeatability of a paddle as in `swirl_over_lift`: common practice, no source.
    """
    said = []
    for wish in (w for w in job.swirl_wishes if w.kind == kind):
        had, has = (_mean_swirl(run, wish.low, wish.high) for run in (before, after))
        if has is None:
            continue
        rpm = from_si(has, "rpm")
        span = tr("{:g} to {:g} {}", from_si(wish.low, lift_unit), from_si(wish.high, lift_unit), lift_unit)
        lost = had - has if had is not None else 0.0
        proven = had is not None and lost > 2 * SWIRL_SCATTER * float(np.hypot(had, has))
        cost = tr(", {:.0f} less than before: the flow was bought with it", from_si(lost, "rpm")) if proven else ""
        if has < wish.swirl:
            said.append(
                tr("Swirl at {} is {:.0f} of the {:.0f} rpm wished{}.", span, rpm, from_si(wish.swirl, "rpm"), cost)
            )
        elif proven:
            said.append(tr("Swirl at {} is {:.0f} rpm{}; it still has what is wished.", span, rpm, cost))
    return tuple(said)


def _mean_swirl(run: ReducedRun, low: float, high: float) -> float | None:
    inside = (run.lift >= low * (1 - 1e-9)) & (run.lift <= high * (1 + 1e-9)) & np.isfinite(run.swirl)
    return float(np.mean(np.abs(run.swirl[inside]))) if np.any(inside) else None

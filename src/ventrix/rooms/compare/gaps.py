"""What was not recorded of a pair's two sides, and how it is recorded afterwards."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from typing import Any, Final

from ventrix.core.edits.corrections import correct_conditions
from ventrix.core.judging.comparability import Level
from ventrix.core.judging.findings import Pair
from ventrix.core.model.job import Job
from ventrix.core.quantity.refused import Refused
from ventrix.core.runs.reduced_run import ReducedRun
from ventrix.words import tr

HOUSE: Final = "house"  # the gap that one tick closes
RECORDED_LATER: Final = tr("recorded later: it was missing")


@dataclass(frozen=True, slots=True)
class Gap:
    """A condition that one side or both do not tell: its key, why it matters, and the value of each side, None where
    missing."""

    key: str
    why: str
    values: tuple[Any, Any]

    @property
    def missing(self) -> tuple[int, ...]:
        """The sides that do not tell it: 0 before, 1 after."""
        return tuple(side for side in (0, 1) if self.values[side] is None)


def gaps_of(pair: Pair) -> tuple[Gap, ...]:
    """Everything that keeps a pair from being compared because it was not recorded, each once."""
    if pair.comparison is None or pair.comparison.claimed:
        return ()
    before, after = pair.before_runs[0].setup, pair.after_runs[0].setup
    return tuple(
        Gap(d.key, d.sentence, (getattr(before, d.key), getattr(after, d.key)))
        for d in pair.comparison.comparability.differences
        if d.level == Level.UNKNOWN and d.key != HOUSE
    )


def one_house(pair: Pair) -> str:
    """The other shop whose paper both sides are, not yet declared flowed the same way; empty where they are not."""
    if pair.comparison is None or pair.comparison.house:
        return ""
    houses = {run.house for run in (*pair.before_runs, *pair.after_runs)}
    return next(iter(houses)) if len(houses) == 1 else ""


def declare_one_house(job: Job, pair: Pair) -> Job:
    """Both sides of a pair declared flowed the same way by the shop whose paper they are."""
    ids = tuple(dict.fromkeys(run.run_id for run in (*pair.before_runs, *pair.after_runs)))
    return replace(job, same_house=(*job.same_house, ids))


def record(
    job: Job,
    pair: Pair,
    told: tuple[Mapping[str, Any], Mapping[str, Any]],
    date: str,
    new_id: Callable[[], str],
    words: Callable[[str, Any], str],
) -> Job:
    """The job with what was missing recorded for every run of each side; what a run told already stays.

    Parameters
    ----------
    job, pair : Job, Pair
        Whose; a side that is another job's is left as it is.
    told : pair of mapping
        By side, the values by key; None is not told.
    date, new_id, words : str, callable, callable
        As `correct_conditions`.

    Raises
    ------
    ValueError
        Nothing is told.
    """
    own = {run.id for run in job.runs()}
    changed = job
    for runs, values in zip((pair.before_runs, pair.after_runs), told, strict=True):
        for run in runs:
            missing = _missing(run, values)
            if run.run_id in own and missing:
                changed = correct_conditions(changed, run.run_id, missing, RECORDED_LATER, date, new_id, words)
    if changed is job:
        raise Refused("choose at least one of the missing conditions")
    return changed


def _missing(run: ReducedRun, values: Mapping[str, Any]) -> dict[str, Any]:
    return {key: value for key, value in values.items() if value is not None and getattr(run.setup, key) is None}

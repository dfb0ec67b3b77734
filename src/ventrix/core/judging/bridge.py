"""Across a change of sleeve, entry, pipe or bench: one cut flowed both ways carries the rest over."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from ventrix.core.formulas.knowledge import Adjustment
from ventrix.core.formulas.uncertainty import Scatter
from ventrix.core.judging.comparability import BRIDGED, comparability, same_condition
from ventrix.core.model.run import SetUp
from ventrix.core.quantity.words import percent_text
from ventrix.core.runs.reduced_run import LIFT_GRAIN, ReducedRun
from ventrix.words import tr

FEWEST_LIFTS = 2


def wants_bridge(before: SetUp, after: SetUp) -> bool:
    """Whether two set-ups are known to differ in something that a bridge can carry over."""
    for key in BRIDGED:
        a, b = getattr(before, key), getattr(after, key)
        if a is not None and b is not None and not same_condition(key, a, b):
            return True
    return False


def under(setup: SetUp, runs: Sequence[ReducedRun]) -> list[ReducedRun]:
    """The runs that were flowed as `setup` has it; another test pressure is no matter."""
    return [
        r for r in runs if all(d.key == "test_pressure" for d in comparability(r.setup, setup).differences)
    ]  # fmt: skip


def bridge_adjustment(
    old: Sequence[ReducedRun], new: Sequence[ReducedRun], scatter: Scatter, named: str
) -> Adjustment | None:
    """What a change of conditions did to one cut flowed both ways, to be taken out of the side after.

    Parameters
    ----------
    old, new : sequence of ReducedRun
        Runs of the cut under the conditions before and after the change.
    scatter : Scatter
        Of the bench.
    named : str
        The cut, for the sentence: "cut 2".

    Returns
    -------
    Adjustment or None
        Factor old/new [-] at each lift in common, mounts averaged; None where fewer than two lifts are.

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    Quotient of two means: [6] JCGM 100:2008, 5.1.2. Re-mount scatter is one error of the whole run, repeat scatter one
    of each lift, counted as if it were the run's too: a little on the safe side.
    """
    if not old or not new or len({r.kind for r in (*old, *new)}) > 1:
        return None
    pressure = old[0].test_pressure
    sides = [[r.at_pressure(pressure) for r in runs] for runs in (old, new)]
    grains = [set.intersection(*({round(float(x) / LIFT_GRAIN) for x in r.lift} for r in side)) for side in sides]
    common = np.array(sorted(grains[0] & grains[1]))
    if len(common) < FEWEST_LIFTS:
        return None
    flows, counts = [], []
    for side in sides:
        at = [np.isin(np.round(r.lift / LIFT_GRAIN), common) for r in side]
        flows.append(np.mean([r.flow[i] for r, i in zip(side, at, strict=True)], axis=0))
        counts.append(np.sum([r.readings[i] for r, i in zip(side, at, strict=True)], axis=0))
    factors = flows[0] / flows[1]
    mounts = [len({r.mount if r.mount is not None else f"?{i}" for i, r in enumerate(side)}) for side in sides]
    shared = {r.mount for r in (*old, *new)}
    apart = 0.0 if len(shared) == 1 and None not in shared else 1 / mounts[0] + 1 / mounts[1]
    doubts = np.sqrt(scatter.repeat**2 * (1 / counts[0] + 1 / counts[1]) + scatter.mount**2 * apart)
    factor = float(np.mean(factors))
    moved = percent_text(1 / factor - 1, sign=True)
    sentence = tr("{} was flowed both ways, and bridges the two: the change reads {}, which is taken out", named, moved)
    freedom = min(scatter.repeat_freedom, scatter.mount_freedom)
    return Adjustment(
        factor,
        float(np.sqrt(np.mean(doubts**2))),
        freedom,
        sentence,
        tuple(float(x) for x in common * LIFT_GRAIN),
        tuple(float(f) for f in factors),
        tuple(float(d) for d in doubts),
    )

"""How the plan itself has done: how often what came lay in its interval, its bias by place; and what that corrects."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from ventrix.core.judging.expectation import Outcome

EIGHT_IN_TEN: Final = 1.2816  # standard deviations on each side
PRIOR_COUNT: Final = 6.0  # cuts that the interval's own width counts for, before any came
FEWEST: Final = 3  # cuts before a place has a bias of its own
COVERS: Final = 1.96
REFLOW: Final = 30 * 60.0  # s, where the shop has no own tests with their times (common practice, no source)


@dataclass(frozen=True, slots=True)
class PlaceBias:
    """What came over what the plan said at a place, and of how many cuts."""

    place: str
    ratio: float
    cuts: int


@dataclass(frozen=True, slots=True)
class OwnRecord:
    """Of `cuts` that the plan said something of, `inside` came inside eight in ten; `widen` is what its intervals are
    multiplied by from here on, and `biases` its ratios by place, most cuts first. `reflow` is what taking a head off,
    bolting it down and flowing it takes here [s]."""

    cuts: int = 0
    inside: int = 0
    widen: float = 1.0
    biases: tuple[PlaceBias, ...] = ()
    reflow: float = REFLOW


def own_record(outcomes: Sequence[Outcome], reflow: float | None = None) -> OwnRecord:
    """The record of the plan over any number of jobs.

    .. math:: w^2 = \\frac{\\nu_0 + \\sum_i z_i^2}{\\nu_0 + n}, \\quad
              z_i = \\frac{came_i - said_i}{\\sqrt{s_i^2 + u_i^2}}

    with s the half width over 1.28, u the standard uncertainty of what came, and nu_0 = 6.

    Parameters
    ----------
    outcomes : sequence of Outcome
        Those that the plan said are counted.
    reflow : float, optional
        What `reflow_time` found [s].

    Returns
    -------
    OwnRecord

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    Scaled inverse chi-squared about a known mean: Gelman et al., *Bayesian Data Analysis*, ch. 2.6.
    """
    scores: list[float] = []
    inside = 0
    sums: dict[str, list[float]] = {}
    for outcome in (o for o in outcomes if o.by_plan):
        gain = outcome.gain
        if gain.said is None or gain.came is None or gain.low is None or gain.high is None or gain.high <= gain.low:
            continue
        spread = (gain.high - gain.low) / 2 / EIGHT_IN_TEN
        scores.append((gain.came - gain.said) / float(np.hypot(spread, gain.doubt / COVERS)))
        inside += gain.low <= gain.came <= gain.high
        for place in outcome.places:
            row = sums.setdefault(place, [0.0, 0.0, 0.0])
            row[0] += gain.came
            row[1] += gain.said
            row[2] += 1
    widen = np.sqrt((PRIOR_COUNT + sum(z**2 for z in scores)) / (PRIOR_COUNT + len(scores)))
    biases = [PlaceBias(p, r[0] / r[1], int(r[2])) for p, r in sums.items() if r[1] > 0]
    return OwnRecord(len(scores), inside, float(widen), tuple(sorted(biases, key=lambda b: -b.cuts)), reflow or REFLOW)

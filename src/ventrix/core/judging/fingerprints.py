"""What fakes a gain: a dial zero, a pressure or bench factor, a leak. Warns, never corrects."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from typing import Final

import numpy as np

from ventrix.core.formulas.quantiles import chi_squared_quantile
from ventrix.core.judging.comparison import RunComparison
from ventrix.core.model.bench_kinds import FlowKind
from ventrix.core.quantity.arrays import Array

QUANTILE: Final = 0.99
FEWEST_LIFTS: Final = 3


class Cause(StrEnum):
    """What alone would look like a difference."""

    DIAL_ZERO = "dial zero"
    FACTOR = "factor"
    LEAK = "leak"


@dataclass(frozen=True, slots=True)
class Fingerprint:
    """One cause that alone would look exactly like the difference.

    `amount` is a lift [m] for a dial zero, a share [-] for a factor, a flow [m3/s] for a leak. `hides`: with the
    largest mistake of that kind that passes unnoticed taken off, nothing is proven any more.
    """

    cause: Cause
    amount: float
    hides: bool


def fingerprints(comparison: RunComparison) -> tuple[Fingerprint, ...]:
    """Causes each of which alone explains the difference, under everything that is known of its scatter.

    The difference is fitted as dQ(L) = delta dQ/dL, or k Q, or c, one at a time, by generalised least squares under
    the full covariance (repeat, resolution, mount, dial). A cause is named where what it leaves is no more than
    scatter (chi-squared at 0.99), and it either takes away more than scatter would, or hides the gain: see `hides`.
    A factor is not asked where a witness port or a bridge has taken it out; neither that nor a leak where a check
    between the two runs has counted what it left open. A real cut can look the same, and two mistakes together can
    still pass.

    Parameters
    ----------
    comparison : RunComparison
        With at least three lifts tested on both sides; fewer give nothing.

    Raises
    ------
    ValueError
        Never for a comparison that `compare_runs` made.

    References
    ----------
    [6] JCGM 100:2008, H.3 (least-squares calibration); formula book of this project.
    """
    c = comparison
    tested = c.tested
    k = int(np.sum(tested))
    if k < FEWEST_LIFTS:
        return ()
    covariance = c.difference.covariance()[np.ix_(tested, tested)]
    change = c.change[tested]
    mean_flow = (c.before[tested] + c.after[tested]) / 2
    slope = (c.difference.before.slope[tested] + c.difference.after.slope[tested]) / 2
    easy = c.known.easy
    shapes: list[tuple[Cause, Array, float]] = [(Cause.DIAL_ZERO, slope, easy.dial)]
    if not c.known.factor_is_out:
        shapes.append((Cause.FACTOR, mean_flow, easy.factor))
    if c.kind == FlowKind.FLOW and not c.known.checks:
        shapes.append((Cause.LEAK, np.ones(k), easy.leak))
    inverse = np.linalg.inv(covariance)
    whole = float(change @ inverse @ change)
    proven = abs(c.weighted) > c.weighted_expanded
    found = []
    for cause, shape, limit in shapes:
        amount = float(shape @ inverse @ change / (shape @ inverse @ shape))
        left = change - amount * shape
        rest = float(left @ inverse @ left)
        if rest > chi_squared_quantile(QUANTILE, k - 1):
            continue
        moved = limit * abs(float(c.weights[tested] @ shape))
        hides = proven and abs(c.weighted) - moved <= c.weighted_expanded
        if hides or whole - rest > chi_squared_quantile(QUANTILE, 1):
            found.append(Fingerprint(cause, amount, hides))
    return tuple(found)

"""What fakes a gain: a dial zero, a pressure or bench factor, a leak. Warns, never corrects."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final, Literal

import numpy as np

from ventrix.core.air import Array
from ventrix.core.compare import RunComparison

Cause = Literal["dial zero", "factor", "leak"]
QUANTILE: Final = 0.95


@dataclass(frozen=True, slots=True)
class Fingerprint:
    """One cause that alone would look exactly like the difference.

    `amount` is a lift [m] for a dial zero, a share [-] for a factor, a flow [m3/s] for a leak.
    """

    cause: Cause
    amount: float


def fingerprints(comparison: RunComparison) -> tuple[Fingerprint, ...]:
    """Causes each of which alone explains a difference within the noise of the readings.

    The difference is fitted as dQ(L) = delta dQ/dL, or k Q, or c, one at a time, weighted by repeat
    and resolution scatter. A cause is named where what it leaves is no more than noise (chi-squared
    at 0.95) and the difference itself is more. A real cut can look the same.

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
    from scipy.special import chdtri  # late: SciPy costs a third of a second

    c = comparison
    tested = c.tested
    k = int(np.sum(tested))
    if k < 3 or c.kind != "flow":
        return ()
    change, noise = c.change[tested], c.difference.noise()[tested]
    if not np.all(noise > 0) or float(np.sum((change / noise) ** 2)) <= float(chdtri(k, 1 - QUANTILE)):
        return ()
    mean_flow = (c.before[tested] + c.after[tested]) / 2
    slope = (c.difference.before.slope[tested] + c.difference.after.slope[tested]) / 2
    shapes: dict[Cause, Array] = {"dial zero": slope, "factor": mean_flow, "leak": np.ones(k)}
    limit = float(chdtri(k - 1, 1 - QUANTILE))
    found = []
    for cause, shape in shapes.items():
        weighted = shape / noise
        amount = float(weighted @ (change / noise) / (weighted @ weighted))
        if float(np.sum(((change - amount * shape) / noise) ** 2)) <= limit:
            found.append(Fingerprint(cause, amount))
    return tuple(found)

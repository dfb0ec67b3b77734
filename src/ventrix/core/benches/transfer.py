"""What carries the flows of one bench over to another."""

from __future__ import annotations

from typing import Final

import numpy as np

from ventrix.core.formulas.knowledge import Adjustment
from ventrix.core.formulas.uncertainty import Scatter
from ventrix.core.model.bench import Transfer
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.limits import positive
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.words import percent_text
from ventrix.words import tr


def transfer_between(transfer: Transfer, scatter: Scatter | None = None) -> Adjustment:
    """What carries flows of another bench over to this one.

    .. math:: f = \\exp\\overline{\\ln(q_{here}/q_{there})}, \\quad
              u^2 = s^2/n + \\max(s^2 - 2(s_w^2 + s_b^2), 0)

    Parameters
    ----------
    transfer : Transfer
        Parts flowed on both benches. Where at least three lifts were, the factor follows the lift by straight lines.
    scatter : Scatter, optional
        Of this bench, where it is known: what of the parts' disagreement is only reading and mounting.

    Returns
    -------
    Adjustment
        With how the parts disagree among themselves beyond what readings and mounts explain: the part that is
        carried over is one more such part. With one part, that of two mounts and readings and 1 % between parts.

    Raises
    ------
    ValueError
        No part, or a flow not above zero.

    References
    ----------
    [6] JCGM 100:2008, 4.2.3 (mean of independent observations); excess variance as in a random-effects mean
    (DerSimonian and Laird, Controlled Clinical Trials 7 (1986) 177-188).
    """
    if not transfer.parts:
        raise Refused("no part was flowed on both benches yet")
    here = positive([p.here for p in transfer.parts], tr("flow here"))
    there = positive([p.there for p in transfer.parts], tr("flow there"))
    logs = np.log(here / there)
    n = len(logs)
    usual = Scatter()
    least = 2 * (usual.repeat**2 + usual.mount**2)
    known = scatter is not None and not scatter.repeat_assumed and not scatter.mount_assumed
    # What is not known to be reading and mounting alone is counted as the parts' own disagreement.
    one = 2 * (scatter.repeat**2 + scatter.mount**2) if known and scatter is not None else 0.0
    lifts = np.array([np.nan if p.lift is None else p.lift for p in transfer.parts])
    told = tr("{} part{} flowed on both", n, "s" * (n > 1))
    if n < 2:
        u = float(np.sqrt((one or least) + BETWEEN_PARTS**2))
        return Adjustment(float(np.exp(logs[0])), u, Scatter().mount_freedom, _transferred(told, u))
    if len(np.unique(lifts[np.isfinite(lifts)])) >= FEWEST_TRANSFER_LIFTS and np.all(np.isfinite(lifts)):
        return _by_lift(lifts, logs, one, 0.01 * least, told)
    # A handful of parts that happen to agree is no proof: their scatter is never taken below a tenth of the usual.
    scatter2 = max(float(np.var(logs, ddof=1)), 0.01 * least)
    u = float(np.sqrt(scatter2 / n + max(scatter2 - one, 0.0)))
    return Adjustment(float(np.exp(logs.mean())), u, float(n - 1), _transferred(told, u))


BETWEEN_PARTS: Final = 0.01  # relative: two benches differ by 1 to 4 %, by part and lift (common practice, no source)

FEWEST_TRANSFER_LIFTS: Final = 3


def _by_lift(lifts: Array, logs: Array, one: float, least: float, told: str) -> Adjustment:
    """A factor for each lift that parts were flowed at; what is left about those means says how parts disagree."""
    at = np.unique(lifts)
    means = np.array([logs[lifts == x].mean() for x in at])
    counts = np.array([np.sum(lifts == x) for x in at])
    left = logs - means[np.searchsorted(at, lifts)]
    freedom = len(logs) - len(at)
    # One part a lift leaves nothing about its mean: then the course over the lifts, less its straight line, tells.
    if freedom < 2:
        line = np.polyval(np.polyfit(at, means, 1), at)
        left, freedom = means - line, max(len(at) - 2, 1)
    scatter2 = max(float(left @ left) / freedom, least)
    u = np.sqrt(scatter2 / counts + max(scatter2 - one, 0.0))
    whole = float(np.sqrt(scatter2 / len(logs) + max(scatter2 - one, 0.0)))
    return Adjustment(
        float(np.exp(logs.mean())),
        whole,
        float(freedom),
        _transferred(tr("{}, lift by lift", told), float(u.max())),
        tuple(float(x) for x in at),
        tuple(float(f) for f in np.exp(means)),
        tuple(float(v) for v in u),
    )


def _transferred(told: str, u: float) -> str:
    return tr("transferred by {} (± {})", told, percent_text(2 * u))

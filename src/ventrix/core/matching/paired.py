"""Ports that share a cylinder: whether their volume, flow and swirl balance; and chambers against each other."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ventrix.core.judging.findings import Findings
from ventrix.core.matching.alike import Alike
from ventrix.core.model.cut import Port, mean_poured
from ventrix.core.model.job import Job


@dataclass(frozen=True, slots=True)
class Balance:
    """Two ports of one kind on one cylinder: the second less the first, in volume [m3], flow at the highest of my lifts
    both reached (share of the first), and swirl there [rad/s]; None where one is missing."""

    first: Port
    second: Port
    volume: float | None
    flow: float | None
    swirl: float | None


def paired_ports(findings: Findings, alike: tuple[Alike, ...]) -> tuple[Balance, ...]:
    """Every pair of a kind on one cylinder of one head.

    Parameters
    ----------
    findings : Findings
        Of the job.
    alike : tuple of Alike
        The ports of one kind.

    Returns
    -------
    tuple of Balance

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    Definitions.
    """
    found = []
    for i, one in enumerate(alike):
        for other in alike[i + 1 :]:
            same = one.port.cylinder is not None and (one.port.cylinder, one.port.head_id) == (
                other.port.cylinder,
                other.port.head_id,
            )
            if same:
                found.append(_balance(findings, one, other))
    return tuple(found)


def _balance(findings: Findings, one: Alike, other: Alike) -> Balance:
    both = [x for x in one.flow if x in other.flow]
    volume = None if one.volume is None or other.volume is None else other.volume - one.volume
    flow = other.flow[max(both)] / one.flow[max(both)] - 1 if both else None
    swirls = [_swirl(findings, a, max(both)) if both else None for a in (one, other)]
    swirl = None if swirls[0] is None or swirls[1] is None else swirls[1] - swirls[0]
    return Balance(one.port, other.port, volume, flow, swirl)


def _swirl(findings: Findings, a: Alike, lift: float) -> float | None:
    run = findings.runs_of(a.cut, a.port)[-1]
    known = np.isfinite(run.swirl)
    return float(np.interp(lift, run.lift[known], run.swirl[known])) if np.any(known) else None


@dataclass(frozen=True, slots=True)
class Chambers:
    """Poured chambers by cylinder [m3], and how far the largest is over the least."""

    volumes: dict[int, float]
    spread: float


def chambers_of(job: Job) -> Chambers | None:
    """Chambers that were poured, by cylinder; None where fewer than two were."""
    found = {c.cylinder: v for c in job.chambers if (v := mean_poured(c.pours)) is not None}
    return Chambers(found, max(found.values()) - min(found.values())) if len(found) > 1 else None

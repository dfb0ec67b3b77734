"""Chambers against each other: what makes them equal with the least removed, and compression cylinder by cylinder."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ventrix.core.formulas.compression import compression_ratio
from ventrix.core.model.cut import mean_poured
from ventrix.core.model.job import Job


@dataclass(frozen=True, slots=True)
class ChamberLine:
    """One chamber: its mean pour, what to take out so that it is as large as the largest [m3], and the compression as
    it is and then; None where it cannot be worked out."""

    cylinder: int
    volume: float
    take_out: float
    compression: float | None
    compression_then: float | None


def compression_of(job: Job, chamber: float, deck_cut: float = 0.0, gasket_thinner: float = 0.0) -> float | None:
    """Compression of a cylinder with a chamber of a volume: the one basis for milling and chambers alike.

    Parameters
    ----------
    job : Job
        With bore, stroke, and either gasket, deck clearance and piston, or a stated ratio (then the poured chambers'
        mean is what it was stated for).
    chamber : float
        Its volume [m3].
    deck_cut, gasket_thinner : float
        What else brings the head nearer to the piston [m].

    Returns
    -------
    float or None
        [-]; None where neither basis is there.

    Raises
    ------
    Refused
        Figures that leave no clearance.

    References
    ----------
    `compression.compression_ratio`.
    """
    if job.bore is None or job.stroke is None:
        return None
    area = np.pi / 4 * job.bore**2
    if job.gasket_thickness is not None:
        rest = area * (job.gasket_thickness + (job.deck_clearance or 0.0)) + (job.piston_volume or 0.0)
    elif job.compression_ratio is not None and job.compression_ratio > 1:
        poured = [v for c in job.chambers if (v := mean_poured(c.pours)) is not None]
        if not poured:
            return None
        rest = area * job.stroke / (job.compression_ratio - 1) - float(np.mean(poured))
    else:
        return None
    rest -= area * (deck_cut + gasket_thinner)
    return float(compression_ratio(job.bore, job.stroke, chamber, job.bore, 0.0, 0.0, rest))


def chamber_lines(job: Job) -> tuple[ChamberLine, ...]:
    """Every chamber that was poured.

    Parameters
    ----------
    job : Job
        With chambers; for compression as `compression_of`.

    Returns
    -------
    tuple of ChamberLine
        By cylinder. Metal only comes off: all are brought to the largest.

    Raises
    ------
    Refused
        Figures that leave no clearance.

    References
    ----------
    `compression_of`.
    """
    poured = {c.cylinder: v for c in job.chambers if (v := mean_poured(c.pours)) is not None}
    most = max(poured.values(), default=0.0)
    return tuple(
        ChamberLine(n, volume, most - volume, compression_of(job, volume), compression_of(job, most))
        for n, volume in sorted(poured.items())
    )

"""Chambers against each other: what makes them equal with the least removed, and compression cylinder by cylinder."""

from __future__ import annotations

from dataclasses import dataclass

from ventrix.core.formulas.engine import compression_ratio
from ventrix.core.model.cut import mean_poured
from ventrix.core.model.job import Job


@dataclass(frozen=True, slots=True)
class ChamberLine:
    """One chamber: its mean pour, what to take out so that it is as large as the largest [m3], and the compression as
    it is and then; None where bore or stroke is not known."""

    cylinder: int
    volume: float
    take_out: float
    compression: float | None
    compression_then: float | None


def chamber_lines(
    job: Job, gasket_thickness: float = 0.0, deck_clearance: float = 0.0, piston_volume: float = 0.0
) -> tuple[ChamberLine, ...]:
    """Every chamber that was poured.

    Parameters
    ----------
    job : Job
        With chambers, bore and stroke.
    gasket_thickness, deck_clearance : float
        [m].
    piston_volume : float
        A dish is positive [m3].

    Returns
    -------
    tuple of ChamberLine
        By cylinder. Metal only comes off: all are brought to the largest.

    Raises
    ------
    ValueError
        Figures that leave no clearance.

    References
    ----------
    `compression_ratio`.
    """
    poured = {c.cylinder: v for c in job.chambers if (v := mean_poured(c.pours)) is not None}
    most = max(poured.values(), default=0.0)

    def ratio(volume: float) -> float | None:
        if job.bore is None or job.stroke is None:
            return None
        return float(
            compression_ratio(job.bore, job.stroke, volume, job.bore, gasket_thickness, deck_clearance, piston_volume)
        )

    return tuple(
        ChamberLine(n, volume, most - volume, ratio(volume), ratio(most)) for n, volume in sorted(poured.items())
    )

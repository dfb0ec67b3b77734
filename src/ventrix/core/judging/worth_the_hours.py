"""A ready casting against one's own hours: what reaching its claimed curve would take at the pace of one's own book."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from ventrix.core.judging.job_summary import CutSummary
from ventrix.core.model.kinds import Direction

FEWEST_CUTS: Final = 4  # timed, flowed and comparable, before a pace is named


@dataclass(frozen=True, slots=True)
class Pace:
    """Flow gained an hour of work over one's own timed cuts [m3/s per s]: all together, and the middle half."""

    mean: float
    low: float
    high: float
    cuts: int


@dataclass(frozen=True, slots=True)
class Hours:
    """Hours of work that a gain would take [s], at the pace of the middle half of one's own cuts; None as `high` where
    a quarter of them gained nothing."""

    low: float
    likely: float
    high: float | None


def own_pace(cuts: Sequence[CutSummary], kind: Direction) -> Pace | None:
    """One's own gain an hour, from every cut of a kind that was timed and could be compared.

    Parameters
    ----------
    cuts : sequence of CutSummary
        Of the whole book.
    kind : str
        Kind of port.

    Returns
    -------
    Pace or None
        [m3/s per s]; None with fewer than four cuts, or where they gained nothing in all.

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    Ratio of sums; quartiles by Hyndman & Fan (1996), definition 7.
    """
    known = [(c.gain, c.seconds) for c in cuts if c.direction == kind and c.gain is not None and c.seconds]
    if len(known) < FEWEST_CUTS:
        return None
    gain, seconds = np.array(known).T
    mean = float(gain.sum() / seconds.sum())
    low, high = np.quantile(gain / seconds, [0.25, 0.75])
    return Pace(mean, float(low), float(high), len(known)) if mean > 0 else None


def hours_for(gain: float, pace: Pace) -> Hours:
    """What a gain would take at a pace.

    Parameters
    ----------
    gain : float
        Flow wanted above the present cut [m3/s].
    pace : Pace
        One's own.

    Returns
    -------
    Hours
        [s]. Later gains come slower than earlier ones: it is a least figure.

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    That gains come slower: common practice, no source.
    """
    wanted = max(gain, 0.0)
    high = wanted / pace.low if pace.low > 0 else None
    return Hours(wanted / max(pace.high, pace.mean), wanted / pace.mean, high)

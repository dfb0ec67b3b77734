"""How often more a cut would have to be bolted down to settle what is not proven."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Final

from ventrix.core.judging.comparison import RunComparison
from ventrix.words import tr

MOST_MOUNTS: Final = 20

FOUR_IN_FIVE: Final = 0.8416  # the normal quantile of 0.8


@dataclass(frozen=True, slots=True)
class Further:
    """Mounts more of each side for even odds of proof, and for four in five; None where over twenty, or never."""

    even: int | None
    sure: int | None
    never_sure: bool = False


def further_mounts(comparison: RunComparison) -> Further:
    """Further bolting-downs of each side that would prove the difference if it is as large as it looks.

    .. math:: P(k) = \\Phi\\left(\\frac{|d| - U/\\sqrt k}{u\\sqrt{1 - 1/k}}\\right)

    Parameters
    ----------
    comparison : RunComparison
        Of two sides; k is the mounts there would be over those there are.

    Returns
    -------
    Further
        Four in five never comes where |d| is under 0.84 u: not by mounts.

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    Predictive probability of a mean of further observations; formula book of this project.
    """
    c = comparison
    d, u, wide = abs(c.weighted), c.weighted_standard, c.weighted_expanded
    have = min(s.mounts for s in c.difference.sides)
    even = sure = None
    for more in range(1, MOST_MOUNTS + 1):
        k = (have + more) / have
        odds = (d - wide / math.sqrt(k)) / (u * math.sqrt(1 - 1 / k))
        if even is None and odds >= 0:
            even = more
        if sure is None and odds >= FOUR_IN_FIVE:
            sure = more
    return Further(even, sure, d < FOUR_IN_FIVE * u)


def odds_words(further: Further) -> str:
    """What further mounts would buy."""
    if further.even is None:
        return tr(
            "More than {} re-mounts of each cut would be needed: repeating the test won't settle this.", MOST_MOUNTS
        )
    mounts = tr("{} more re-mount{} of each: 50 % chance of settling it", further.even, "s" * (further.even != 1))
    if further.sure is not None:
        return f"{mounts[0].upper()}{mounts[1:]}; {further.sure}: 80 %."
    never = tr("80 % does not come by re-mounting") if further.never_sure else tr("80 % needs over {}", MOST_MOUNTS)
    return f"{mounts[0].upper()}{mounts[1:]}; {never}."

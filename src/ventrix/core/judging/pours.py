"""Poured volumes of a pair, and how well they are known."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

import numpy as np

from ventrix.core.model.cut import Cut, poured_volume


def volumes_of(before: Cut, after: Cut) -> Volumes | None:
    """The pours of two cuts with their doubt; None unless both were poured at their own cut."""
    poured = poured_volume(before), poured_volume(after)
    if poured[0] is None or poured[1] is None:
        return None
    doubts = [pour_uncertainty(cut) for cut in (before, after)]
    return Volumes(poured[0], poured[1], *doubts)


def pour_uncertainty(cut: Cut) -> float:
    """Standard uncertainty of the mean of a cut's pours [m3]: their own scatter from two on, never under a third
    of one filling's usual doubt."""
    n = len(cut.pours)
    if n < 2:
        return POUR_UNCERTAINTY
    own = float(np.std([p.volume for p in cut.pours], ddof=1))
    return float(max(own, POUR_UNCERTAINTY / 3) / n**0.5)


POUR_UNCERTAINTY: Final = 0.3e-6  # m3, of one filling by burette: common practice, no source


@dataclass(frozen=True, slots=True)
class Volumes:
    """Poured volumes of the pair [m3], each measured at its own cut, and the standard uncertainty of each."""

    before: float
    after: float
    uncertainty_before: float = POUR_UNCERTAINTY
    uncertainty_after: float = POUR_UNCERTAINTY

    @property
    def growth_uncertainty(self) -> float:
        """Relative standard uncertainty of after over before [-]."""
        return float(np.hypot(self.uncertainty_before / self.before, self.uncertainty_after / self.after))

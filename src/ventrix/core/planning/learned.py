"""What finished ports of a casting told, as the chain of the next one begins with it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Final

import numpy as np

from ventrix.core.quantity.arrays import Array

RESIDUAL_AT: Final = np.linspace(0.0, 0.45, 19)  # L/D


@dataclass(frozen=True, slots=True)
class CastingPrior:
    """What is begun with on the next port of a casting, over the standardised parameters that ports share (`shared` of
    a layout: every ln K, ln Cd, separation).

    ports : how many finished ports it stands on
    mean, covariance : of the next port, in units of the book's own spread, shape (m,) and (m, m)
    removal : by place, what the logit of a pass's share shifts by
    residual : mean of ln Q that the chain cannot say, at `RESIDUAL_AT`, shape (19,)
    whose : the shop whose ports they are, empty for one's own
    """

    ports: int
    mean: Array
    covariance: Array
    removal: Mapping[str, float]
    residual: Array
    whose: str = ""

    def residual_at(self, x: Array) -> Array:
        """The residual at L/D, shape of `x`."""
        return np.asarray(np.interp(x, RESIDUAL_AT, self.residual))

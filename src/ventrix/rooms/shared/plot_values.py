"""What a plot is drawn from: lines, bands and bars."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

Values = NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class Line:
    """A curve in display units. `points` are drawn on it as squares; `label` stands at its end."""

    x: Values
    y: Values
    colour: str
    width: float = 2.0
    style: str = "solid"
    points: tuple[Values, Values] | None = None
    label: str = ""
    alpha: float = 1.0


@dataclass(frozen=True, slots=True)
class Band:
    """A filled band between two curves, in display units."""

    x: Values
    low: Values
    high: Values
    colour: str
    alpha: float = 0.28


@dataclass(frozen=True, slots=True)
class Bars:
    """Upright bars from zero with their text above."""

    x: Values
    heights: Values
    colours: Sequence[str]
    texts: Sequence[str]
    width: float

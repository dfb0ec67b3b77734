"""What a plot is drawn from: a picture of lines, bands, bars and marks, as values."""

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


Mark = tuple[float, str]  # where on its axis, and its words


@dataclass(frozen=True, slots=True)
class Picture:
    """Everything a plot shows, in display units. `verticals` and `horizontals` are marker lines with their words,
    `spots` letters at places of the curves; `digits` are those of the bottom axis, `value_digits` of the curves."""

    lines: Sequence[Line] = ()
    bands: Sequence[Band] = ()
    bars: Bars | None = None
    verticals: Sequence[Mark] = ()
    horizontals: Sequence[Mark] = ()
    spots: Sequence[tuple[float, float, str]] = ()
    x_range: tuple[float, float] | None = None
    y_range: tuple[float, float] | None = None
    x_ticks: Sequence[float] | None = None
    digits: int = 1
    value_digits: int = 1

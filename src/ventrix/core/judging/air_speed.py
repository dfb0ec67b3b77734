"""What a cut did to the speed of the air, where both cuts were poured."""

from __future__ import annotations

import numpy as np

from ventrix.core.formulas.port import break_even_flow
from ventrix.core.judging.comparison import RunComparison
from ventrix.core.judging.pours import Volumes
from ventrix.core.quantity.words import percent_text
from ventrix.words import tr


def speed_change(c: RunComparison, volumes: Volumes) -> tuple[float, float]:
    """Relative change of the mean air speed, and its expanded uncertainty from flow and both pours [-]."""
    flow = c.weighted_after / c.weighted_before
    speed = flow * volumes.before / volumes.after - 1
    return speed, float(np.hypot(c.weighted_expanded / c.weighted_before, 2 * volumes.growth_uncertainty))


def break_even(c: RunComparison, before: float, after: float) -> tuple[float, float]:
    """Weighted flow that keeps the air speed of a port that went from one volume [m3] to another, and how far the cut
    held is over it [m3/s]."""
    needed = float(break_even_flow(c.weighted_before, before, after))
    return needed, c.weighted_after - needed


def speed_words(c: RunComparison, volumes: Volumes) -> str:
    grown = volumes.after / volumes.before - 1
    flow = c.weighted_after / c.weighted_before - 1
    speed, doubt = speed_change(c, volumes)
    moved = "grew" if grown >= 0 else "shrank"
    size = tr("The port {} {}, flow {}", moved, percent_text(abs(grown)), percent_text(flow, sign=True))
    if abs(speed) <= doubt:
        return tr("{}: no change of air speed is proven.", size)
    return tr("{}: the air is {} than before.", size, "faster" if speed > 0 else "slower")

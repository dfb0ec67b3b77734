"""What a cut did at every lift, as bars over what the bench can tell."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import Final

import numpy as np

from ventrix.core.judging.comparison import RunComparison
from ventrix.core.model.bench_kinds import FlowKind
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.units import from_si_array
from ventrix.core.quantity.words import number_text
from ventrix.rooms.display_units import Units
from ventrix.rooms.shared.plot_values import Band, Bars, Picture

MOST_TICKS: Final = 14
HEAD_ROOM: Final = 0.75  # of what is drawn, for the words at the bars' ends


def lift_ticks(c: RunComparison, units: Units) -> list[float]:
    """Tested lifts that an axis names, as many as fit."""
    step = max(1, int(np.ceil(len(c.lift) / MOST_TICKS)))
    return [float(x) for x in from_si_array(c.lift, units.lift.unit)[::step]]


def ribbon(c: RunComparison, units: Units, shade: Callable[[str], str]) -> Picture:
    """Gains over their uncertainty, in flow, or in percent of the cut held against on an uncalibrated bench; `shade`
    says the colour of a result."""

    def values(array: Array) -> Array:
        return from_si_array(array, units.flow.unit) if c.kind == FlowKind.FLOW else 100 * array / c.before

    x = from_si_array(c.lift, units.lift.unit)
    change, u = values(c.change), values(c.expanded_together)
    band = Band(np.r_[0.0, x], -np.r_[0.0, u], np.r_[0.0, u], "unproven", 0.32)
    shades: Sequence[str] = [shade(r) for r in c.marks]
    texts = [number_text(v, 1, sign=True) for v in change]
    above, below = max(float(change.max()), float(u.max())), max(-float(change.min()), float(u.max()))
    room = HEAD_ROOM * (above + below)
    width = float(np.min(np.diff(np.r_[0.0, x]))) * 0.16
    return Picture(
        [],
        bands=[band],
        bars=Bars(x, change, shades, texts, width),
        x_range=(0.0, float(x[-1]) * 1.05),
        y_range=(-below - (room if float(change.min()) < 0 else 0.0), above + room),
        x_ticks=lift_ticks(c, units),
        digits=units.lift.digits,
    )

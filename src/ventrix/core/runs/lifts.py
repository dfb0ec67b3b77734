"""Is that a lift? What is asked about before it is taken, and what thousandths typed as whole numbers mean. SI."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Final

from ventrix.core.quantity.said import Amount, Said
from ventrix.core.quantity.thousandths import LEAST
from ventrix.core.quantity.units import INCH
from ventrix.words import tr

SHARE_OF_VALVE: Final = 0.6  # of the valve's diameter: no cam lifts further (common practice, no source)
USUAL_LIFT: Final = 0.030  # m: the same where the valve's diameter is not known


def lift_doubt(lift: float, valve_diameter: float | None) -> str:
    """What is asked about a lift [m], or nothing: past 0.6 of the valve's diameter [m], or 30 mm where that is unknown.

    Raises ValueError never. Source: common practice, no source.
    """
    most = SHARE_OF_VALVE * valve_diameter if valve_diameter is not None else USUAL_LIFT
    if lift <= most * (1 + 1e-9):
        return ""
    usual = Amount(USUAL_LIFT, "lift", "mm")
    whose = tr("{:g} of the valve's diameter", SHARE_OF_VALVE) if valve_diameter is not None else usual
    return Said("a lift of {} is past {}", Amount(lift, "lift", "mm"), whose)


def as_thousandths(lifts: Sequence[float], unit: str) -> list[float] | None:
    """Lifts [m] that were typed as inches and only make sense as thousandths, so read; None where inches make sense.

    Raises ValueError never. Source: the trade says "three hundred" for 0.300 in (common practice, no source).
    """
    inches = [x / INCH for x in lifts]
    if unit != "in" or not inches or min(inches) < LEAST:
        return None
    return [x / 1000 for x in lifts]

"""A pair's gain in the user's units, the same words wherever it stands: plate, whole row, Compare."""

from __future__ import annotations

from ventrix.core.judging.findings import Gain
from ventrix.rooms.display_units import Shown, Units

SHARE = Shown("%", "%", 1)


def shown_of(gain: Gain | None, units: Units) -> Shown:
    """The unit that a gain is shown in: flow, or percent of the cut held against on an uncalibrated bench."""
    return SHARE if gain is not None and gain.is_share else units.flow


def gain_text(gain: Gain | None, units: Units) -> str:
    """ "+2.1", "+1.3 %", "not comparable", or nothing where there is no pair."""
    if gain is None:
        return ""
    if not gain.comparable:
        return "not comparable"
    text = shown_of(gain, units).text(gain.value, sign=True)
    return f"{text} %" if gain.is_share else text


def doubt_text(gain: Gain | None, units: Units) -> str:
    """U(0.05) of a gain without its sign, in the unit of the gain."""
    if gain is None or gain.expanded is None:
        return ""
    text = shown_of(gain, units).text(gain.expanded)
    return f"{text} %" if gain.is_share else text

"""The whole row of a port's cuts: what each added, what all of them added, and where the hours went.

A cumulative gain is the first run against the last, never a sum of steps: steps share readings.
"""

from __future__ import annotations

from dataclasses import dataclass
from itertools import pairwise

from ventrix.core.analysis import Analysis
from ventrix.core.expectation import time_worked
from ventrix.core.model import Cut, Port, poured_volume
from ventrix.core.verdict import Verdict


@dataclass(frozen=True, slots=True)
class Step:
    """One cut of the row, SI: its own gain over the cut flowed before it and over the first, with U(0.05) of each;
    cam-weighted flow, volume, time; None where it cannot be said."""

    cut: Cut
    before: Cut
    gain: float | None
    gain_expanded: float | None
    verdict: Verdict | None
    total: float | None
    total_expanded: float | None
    total_verdict: Verdict | None
    flow: float | None
    volume: float | None
    time: float | None

    @property
    def gain_per_hour(self) -> float | None:
        """Gain over the time it took [m3/s per hour]; None without both."""
        if self.gain is None or not self.time:
            return None
        return self.gain / (self.time / 3600)


@dataclass(frozen=True, slots=True)
class Row:
    """The flowed cuts of a port in order, and the first of them."""

    first: Cut | None
    first_flow: float | None
    first_volume: float | None
    steps: tuple[Step, ...]

    @property
    def flows(self) -> list[tuple[int, float, float | None]]:
        """Number, weighted flow and volume of every cut that has a flow."""
        found = []
        if self.first is not None and self.first_flow is not None:
            found.append((self.first.number, self.first_flow, self.first_volume))
        found += [(s.cut.number, s.flow, s.volume) for s in self.steps if s.flow is not None]
        return found


def row_of(analysis: Analysis, port: Port) -> Row:
    """The whole row of a port, from its flowed cuts."""
    flowed = [c for c in port.cuts if analysis.runs_of(c, port)]
    if not flowed:
        return Row(None, None, None, ())
    first = flowed[0]
    first_flow: float | None = None
    steps = []
    for before, cut in pairwise(flowed):
        own, total = analysis.pair(port, before, cut), analysis.pair(port, first, cut)
        if total.comparison is not None and total.comparison.allowed and first_flow is None:
            first_flow = total.comparison.weighted_before
        own_c = own.comparison if own.comparison is not None and own.comparison.allowed else None
        total_c = total.comparison if total.comparison is not None and total.comparison.allowed else None
        steps.append(
            Step(
                cut=cut,
                before=before,
                gain=own_c.weighted if own_c else None,
                gain_expanded=own_c.weighted_expanded if own_c else None,
                verdict=analysis.verdict(own),
                total=total_c.weighted if total_c else None,
                total_expanded=total_c.weighted_expanded if total_c else None,
                total_verdict=analysis.verdict(total),
                flow=total_c.weighted_after if total_c else None,
                volume=poured_volume(cut),
                time=time_worked(cut),
            )
        )
    return Row(first, first_flow, poured_volume(first), tuple(steps))


def last_together(analysis: Analysis, port: Port, count: int) -> tuple[Cut, Cut, Verdict | None] | None:
    """The last `count` cuts tested together: the one before them against the last.

    Five unproven gains of six tenths of a percent may make a proven three. None where fewer were flowed.
    """
    flowed = [c for c in port.cuts if analysis.runs_of(c, port)]
    if count < 1 or len(flowed) <= count:
        return None
    before, last = flowed[-1 - count], flowed[-1]
    return before, last, analysis.verdict(analysis.pair(port, before, last))

"""The whole row of a port's cuts: what each added, what all of them added, and where the hours went.

A cumulative gain is the first run against the last, never a sum of steps: steps share readings.
"""

from __future__ import annotations

from dataclasses import dataclass
from itertools import pairwise
from typing import Final

from ventrix.core.judging.expectation import time_worked
from ventrix.core.judging.findings import Findings, Gain
from ventrix.core.judging.verdict import Verdict
from ventrix.core.model.bench_kinds import FlowKind
from ventrix.core.model.cut import Cut, Port, poured_volume

LUCK: Final = 0.025  # chance that one verdict of nothing says better: half of the 5 % it may be wrong


@dataclass(frozen=True, slots=True)
class CutStep:
    """One cut of the row: what it did to the cut flowed before it, and over the first, as `Findings.gain` has them;
    weighted flow, volume, time in SI; None where it cannot be said."""

    cut: Cut
    before: Cut
    own: Gain | None
    total: Gain | None
    flow: float | None
    volume: float | None
    time: float | None

    @property
    def gain_per_hour(self) -> float | None:
        """Gain over the time it took [m3/s per hour, or share per hour]; None without both."""
        if self.own is None or self.own.value is None or not self.time:
            return None
        return self.own.value / (self.time / 3600)


@dataclass(frozen=True, slots=True)
class RowOfCuts:
    """The flowed cuts of a port in order, and the first of them."""

    first: Cut | None
    first_flow: float | None
    first_volume: float | None
    steps: tuple[CutStep, ...]

    @property
    def flows(self) -> list[tuple[int, float, float | None]]:
        """Number, weighted flow and volume of every cut that has a flow."""
        found = []
        if self.first is not None and self.first_flow is not None:
            found.append((self.first.number, self.first_flow, self.first_volume))
        found += [(s.cut.number, s.flow, s.volume) for s in self.steps if s.flow is not None]
        return found

    @property
    def looks(self) -> int:
        """How many verdicts of one step each the row holds."""
        return sum(s.own is not None and s.own.comparable for s in self.steps)

    @property
    def luck(self) -> float:
        """Chance that at least one of them says better where no cut did anything [-]."""
        return 1 - (1 - LUCK) ** self.looks


def row_of_cuts(findings: Findings, port: Port) -> RowOfCuts:
    """The whole row of a port, from its flowed cuts."""
    flowed = [c for c in port.cuts if findings.runs_of(c, port)]
    if not flowed:
        return RowOfCuts(None, None, None, ())
    first = flowed[0]
    first_flow: float | None = None
    steps = []
    for before, cut in pairwise(flowed):
        own, total = findings.pair(port, before, cut), findings.pair(port, first, cut)
        c = total.comparison
        measured = c if c is not None and c.allowed and c.kind == FlowKind.FLOW else None
        if measured is not None and first_flow is None:
            first_flow = measured.weighted_before
        steps.append(
            CutStep(
                cut=cut,
                before=before,
                own=findings.gain(own),
                total=findings.gain(total),
                flow=measured.weighted_after if measured is not None else None,
                volume=poured_volume(cut),
                time=time_worked(cut),
            )
        )
    return RowOfCuts(first, first_flow, poured_volume(first), tuple(steps))


def last_together(findings: Findings, port: Port, count: int) -> tuple[Cut, Cut, Verdict | None] | None:
    """The last `count` cuts tested together: the one before them against the last.

    Five unproven gains of six tenths of a percent may make a proven three. None where fewer were flowed.
    """
    flowed = [c for c in port.cuts if findings.runs_of(c, port)]
    if count < 1 or len(flowed) <= count:
        return None
    before, last = flowed[-1 - count], flowed[-1]
    return before, last, findings.verdict(findings.pair(port, before, last))

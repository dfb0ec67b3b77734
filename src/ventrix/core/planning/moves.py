"""What a move is, and the ground that moves of a port stand on."""

from __future__ import annotations

import itertools
from collections.abc import Sequence
from dataclasses import dataclass, field
from enum import StrEnum
from functools import cached_property
from typing import Final, NamedTuple

import numpy as np

from ventrix.core.judging.expectation import Factor
from ventrix.core.judging.findings import Findings
from ventrix.core.judging.wording import Wording
from ventrix.core.metal.unrolled import UnrolledPort, unroll
from ventrix.core.model.cut import Cut, Port
from ventrix.core.planning.loss_chain import ChainFit
from ventrix.core.planning.of_job import Planned, edges_of, worked_before
from ventrix.core.planning.own_record import OwnRecord
from ventrix.core.quantity.arrays import Array
from ventrix.words import tr

HOUR: Final = 3600.0
FEWEST_OF_HIS: Final = 3  # cuts before a porter's own factors count
# What blocks a place that was not read on this port.
READ_FIRST: Final = tr("read the wall first")


class MoveKind(StrEnum):
    """What kind of move it is."""

    CUT = "cut"
    SEAT = "seat"
    VALVE = "valve"
    ENTRY = "entry"
    CLAY = "clay"
    WALL = "wall"
    MOUNT = "mount"
    FLOW = "flow"
    BATCH = "batch"


# Moves that bring flow by themselves.
WORKS: Final = (MoveKind.CUT, MoveKind.SEAT, MoveKind.VALVE, MoveKind.ENTRY, MoveKind.BATCH)

# Moves that grind metal away: one pass, or several.
CUTS: Final = (MoveKind.CUT, MoveKind.BATCH)


class Brought(NamedTuple):
    """What the last cut at a place brought with its U(0.05), in the unit of the runs' flow, and that cut's number."""

    gain: float
    doubt: float
    cut: int


class Asked(NamedTuple):
    """A pass that is asked about: where, how deep [m], on which side or hours as typed, and what share of the edge
    that is."""

    place: str
    depth: float
    side: str | None = None
    edge: float = 1.0


@dataclass(frozen=True, slots=True)
class Point:
    """A gain at a lift with its 80 % interval [m, m3/s or share]."""

    lift: float
    gain: float
    low: float
    high: float


@dataclass(frozen=True, slots=True)
class Move:
    """A candidate. Gains in the unit of the runs' flow over the goal's weights; `share` of the flow as it is. `rate`
    is gain an hour [flow/s]; `section` the smallest measured section it would leave [m2], `speed` the mean air speed
    there at the top of the engine's range [m/s]; `blocked_by` says in words what stands in the way. `named` tells
    moves of one kind and place apart."""

    place: str
    side: str | None
    depth: float | None
    kind: MoveKind
    gain: float
    low: float
    high: float
    low95: float
    high95: float
    share: float
    points: tuple[Point, ...]
    seconds: float
    volume: float
    rate: float
    wall_left: float | None
    blocked_by: tuple[str, ...]
    sentence: str
    draws: Array  # of the gain, shape (400,)
    section: float | None = None
    speed: float | None = None
    named: str = ""
    guess: bool = False  # what it brings is a guess of the trade, not this port's data
    brought: Brought | None = None  # by the pass before it at this place
    passes: tuple[Move, ...] = ()  # of a batch
    flowing: float = 0.0  # of `seconds`, those to flow it again


@dataclass(frozen=True)
class Ground:
    """What every move of a port is made from."""

    findings: Findings
    port: Port
    planned: Planned
    fit: ChainFit
    factors: Sequence[Factor]
    words: Wording
    record: OwnRecord = field(default_factory=OwnRecord)
    logged: tuple[Cut, ...] = ()  # after the state planned from, and not flowed

    @property
    def cut(self) -> Cut:
        """The state that is planned from."""
        return self.planned.cuts[-1]

    @cached_property
    def here(self) -> UnrolledPort:
        return unroll(self.port, self.cut, self.findings.job.valve_of(self.port, self.cut))

    @cached_property
    def edges(self) -> dict[str, float]:
        return edges_of(self.here)

    @cached_property
    def worth(self) -> float:
        """The goal's number as it is."""
        return float(self.planned.weights @ self.planned.flow)

    @cached_property
    def his(self) -> dict[str, Factor]:
        """The porter's own factors by place, where there are enough cuts."""
        return {f.place: f for f in self.factors if f.cuts >= FEWEST_OF_HIS}

    @cached_property
    def before(self) -> frozenset[str]:
        """Places that were worked before."""
        return worked_before(self.port, self.cut.number)

    def logged_at(self, place: str) -> Cut | None:
        """The cut that is logged at a place and not flowed, None where none is."""
        return next((c for c in self.logged if place in _places(c)), None)

    def brought(self, place: str) -> Brought | None:
        """What the last flowed cut at a place brought over the one before it; None where none is, or none can say."""
        findings, port = self.findings, self.port
        flowed = [c for c in port.cuts if c.number <= self.cut.number and findings.runs_of(c, port)]
        for before, after in reversed(list(itertools.pairwise(flowed))):
            between = (c for c in port.cuts if before.number < c.number <= after.number)
            if any(place in _places(c) for c in between):
                gain = findings.gain(findings.pair(port, before, after))
                if gain is None or gain.value is None or gain.expanded is None:
                    return None
                unit = self.worth if gain.is_share else 1.0
                return Brought(gain.value * unit, gain.expanded * unit, after.number)
        return None

    def move(
        self,
        place: str,
        kind: MoveKind,
        gains: Array,
        seconds: float,
        sentence: str,
        depth: float | None = None,
        volume: float = 0.0,
        wall_left: float | None = None,
    ) -> Move:
        """A move that brings flow and is flowed again: relative gains by draws at the lifts, shape (400, n), and what
        the work takes [s]. Its spread is widened by what the plan's own record says of its intervals."""
        flowing = self.record.reflow
        middle = gains.mean(axis=0)
        gains = middle + self.record.widen * (gains - middle)
        by_lift = gains * self.planned.flow
        draws = by_lift @ self.planned.weights
        low95, low, high, high95 = (float(v) for v in np.quantile(draws, [0.025, 0.1, 0.9, 0.975]))
        gain = float(np.mean(draws))
        quantiles = np.quantile(by_lift, [0.5, 0.1, 0.9], axis=0)
        points = tuple(
            Point(float(x), *(float(v) for v in row)) for x, row in zip(self.planned.lift, quantiles.T, strict=True)
        )
        return Move(
            place, None, depth, kind, gain, low, high, low95, high95, gain / self.worth, points, seconds + flowing,
            volume, gain / (seconds + flowing), wall_left, (), sentence, draws, flowing=flowing,
        )  # fmt: skip


def _places(cut: Cut) -> set[str]:
    """Places that a cut's operations worked."""
    return {work.place for operation in cut.operations for work in operation.works}

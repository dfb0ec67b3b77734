"""What a port's chain of losses begins with: valve, works, flowed states, and clay tried on them. SI throughout."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from ventrix.core.planning import priors
from ventrix.core.planning.learned import CastingPrior
from ventrix.core.quantity.arrays import Array


@dataclass(frozen=True, slots=True)
class ChainValve:
    """The valve that a port was flowed with [m, rad]."""

    diameter: float
    stem: float
    seat_width: float
    seat_angle: float
    valves: int = 1


@dataclass(frozen=True, slots=True)
class ChainWork:
    """What was taken off one place on the way to a state: how deep [m], whether it had been worked before, and over
    what share of the edge that is worked there. `takes` is the median share of K, where no depth says it."""

    place: str
    depth: float
    before: bool = False
    edge: float = 1.0
    takes: float | None = None

    @property
    def taken(self) -> float:
        """Median share of the place's K that it takes away [-]."""
        if self.takes is not None:
            return self.takes
        return self.edge * priors.share_taken(self.place, self.depth, self.before)


@dataclass(frozen=True, slots=True)
class ChainState:
    """One flowed state of a port.

    areas : section by place [m2]; `measured` names those that were measured
    widths : how much of a section's edge is worked, by place [m]
    lift, flow : tested lifts [m] and flows [m3/s, or an index], shape (n,)
    repeat, mount : relative scatter of a reading and of the bolting-down
    works : what was taken off since the state before
    """

    areas: Mapping[str, float]
    measured: frozenset[str]
    widths: Mapping[str, float]
    valve: ChainValve
    lift: Array
    flow: Array
    repeat: float
    mount: float
    works: tuple[ChainWork, ...] = ()


@dataclass(frozen=True, slots=True)
class ChainClay:
    """A state flowed again with clay at a place: the share of the section it took and how well that is known
    (relative), lifts [m] and ln(Q'/Q), shape (n,), and the scatter of that: of a reading, and common to all."""

    state: int
    place: str
    taken: float
    spread: float
    lift: Array
    ratio: Array
    repeat: float
    common: float


@dataclass(frozen=True, slots=True)
class ChainSurvey:
    """Total head read behind a place of a state at a lift [m]: the share of the test pressure lost up to there, and how
    well that is known (relative)."""

    state: int
    place: str
    lift: float
    share: float
    doubt: float


@dataclass(frozen=True, slots=True)
class Chain:
    """What a port's chain begins with: its medians of K and its states, in order, clay tried on them, and total head
    surveyed in them. `pressure` is the drop [Pa]; on an uncalibrated bench (`is_index`) the scale of flow is a
    parameter of the fit. `learned` is what finished ports of its casting told: the book's own prior without."""

    medians: Mapping[str, float]
    states: tuple[ChainState, ...]
    pressure: float
    is_index: bool = False
    clays: tuple[ChainClay, ...] = ()
    surveys: tuple[ChainSurvey, ...] = ()
    learned: CastingPrior | None = None

"""A practice that goes on: the truth behind the metal, what every act costs and gives, and the luck that a seed makes.

An act is kept in the practice's document; what it gave follows from head, seed and the acts before it.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from ventrix.bench.simulator.heads.virtual import MINUTES, WORKED, VirtualPort
from ventrix.bench.simulator.practice.catalogue import head_named
from ventrix.core.model.bench_kinds import ActKind
from ventrix.core.model.kinds import Place
from ventrix.core.next_hour.metal_items import COPY_LEARNS
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import to_si
from ventrix.words import tr

LIFT: Final[Array] = np.linspace(1.0, 12.0, 12) * to_si(0.05, "in")
FLOWING, AGAIN, READING, POURING = 30.0, 12.0, 5.0, 8.0  # minutes; again: bolted down once more, nothing cut
GAUGE: Final = 0.02  # relative scatter of a wall reading
BURETTE: Final = to_si(0.2, "cc")
SLIP: Final = 0.02  # chance that a pass at the throat nicks the seat
NICKED: Final = 0.985  # of the flow at the lowest rungs past a nicked seat
LOW: Final = 3  # rungs that a nicked seat is felt at
WARM: Final = 2.0  # hours until a bench that drifts is warm

CLAYING: Final = 15.0  # minutes to lay it and to take it out again
LEAST_LEFT: Final = 0.3  # of a section: more than the rest is no clay but a plug


TESTS: Final = (ActKind.FLOW, ActKind.LIVE)


@dataclass(frozen=True, slots=True)
class Act:
    """Something the learner did: a flow test run for him or live on the bench, a wall reading, a pour, a flow test with
    clay that takes an area [m2] at a place, or a pass of a depth [m], with the gain that he said first [m3/s]. `record`
    is the id of what the job keeps of it; `port` which of the head's it was done to, counted from 0."""

    kind: ActKind
    place: Place | None = None
    depth: float = 0.0
    said: float | None = None
    record: str = ""
    area: float = 0.0
    port: int = 0


@dataclass(frozen=True, slots=True)
class Done:
    """What an act gave: flows over LIFT [m3/s], a wall [m] or a volume [m3] as it was read; what a pass broke; when it
    was over [h], and the minutes that it took; and the true mean flow before and after it, summed over the ports
    [m3/s]."""

    act: Act
    at: float
    before: float
    after: float
    flow: Array | None = None
    reading: float | None = None
    broke: bool = False
    nicked: bool = False
    minutes: float = 0.0


class OwnersClock(Refused):
    """The act does not fit into the owner's hours any more."""


class Practice:
    """One practice, act by act.

    Parameters
    ----------
    head : str
        Of the catalogue.
    seed : int
        The same seed is the same truth, and the same luck act by act.
    hours : float, optional
        Other than the owner's [h].

    Raises
    ------
    ValueError
        No such head.

    References
    ----------
    Minutes, slips and scatters: common practice, no source.
    """

    def __init__(self, head: str, seed: int, hours: float | None = None) -> None:
        self.head = head_named(head)
        self.seed = seed
        self.hours = self.head.hours if hours is None else hours
        self.began: tuple[VirtualPort, ...] = self.head.ports(seed)
        self.ports: list[VirtualPort] = list(self.began)
        self.at = 0  # which of them lies on the bench
        self.done: list[Done] = []
        self.minutes = 0.0
        self.nicks_of = [0] * self.head.count
        self.live: dict[
            str, Array
        ] = {}  # flows over LIFT of live tests, by the id of their run: as the bench read them

    @property
    def acts(self) -> tuple[Act, ...]:
        return tuple(d.act for d in self.done)

    @property
    def walls_broken(self) -> int:
        return sum(d.broke for d in self.done)

    @property
    def port(self) -> VirtualPort:
        """The one on the bench."""
        return self.ports[self.at]

    @property
    def nicks(self) -> int:
        return sum(self.nicks_of)

    @property
    def nicked(self) -> float:
        """What a nicked seat leaves of the flow at the lowest rungs of the port on the bench."""
        return float(NICKED ** self.nicks_of[self.at])

    @property
    def cold(self) -> float:
        """What a bench that drifts makes of the flow, so long after the start."""
        return 1 + self.head.drift * max(1 - self.minutes / 60 / WARM, 0.0)

    def flow_of(self, done: Done) -> Array | None:
        """What a flow test read over LIFT [m3/s], run for the learner or live; None for anything else."""
        if done.act.kind == ActKind.LIVE:
            return self.live.get(done.act.record)
        return done.flow if done.act.kind == ActKind.FLOW else None

    def fits(self, *acts: Act) -> bool:
        """Whether there is time for acts one after the other."""
        acted = list(self.acts)
        minutes = 0.0
        for act in acts:
            minutes += minutes_of(act, acted)
            acted.append(act)
        return self.minutes + minutes <= 60 * self.hours + 1e-9

    def do(self, act: Act) -> Done:
        """Do an act. OwnersClock where there is no time for it, ValueError where it makes no sense; then nothing was
        done."""
        n = len(self.done)
        if act.kind in (ActKind.WALL, ActKind.CUT, ActKind.CLAY) and act.place not in WORKED:
            raise Refused("act {} needs a place of {}", n + 1, ", ".join(p.value for p in WORKED))
        if not 0 <= act.port < len(self.ports):
            raise Refused("act {} is of port {}, and the head has {}", n + 1, act.port + 1, len(self.ports))
        if not self.fits(act):
            raise OwnersClock(tr("the owner's {:g} hours are over", self.hours))
        luck = np.random.default_rng((self.seed, n, 71))
        self.at, minutes = act.port, minutes_of(act, self.acts)
        self.minutes += minutes
        at, before = self.minutes / 60, self._mean()
        flow, reading, broke, nicked = None, None, False, False
        if act.kind == ActKind.FLOW:
            flow = self._flowed(luck)
        elif act.kind == ActKind.LIVE:
            pass  # the bench says what it says, rung by rung
        elif act.kind == ActKind.CLAY and act.place is not None:
            flow = self._flowed(luck, self._with_clay(act.place, act.area))
        elif act.kind == ActKind.POUR:
            reading = volume_of(self.port) + BURETTE * float(luck.standard_normal())
        elif act.place is not None and act.kind == ActKind.WALL:
            reading = self.port.metal.walls[act.place] * (1 + GAUGE * float(luck.standard_normal()))
        elif act.place is not None:
            was = self.port.metal.walls[act.place]
            self.ports[self.at] = self.port.work(act.place, act.depth, luck)
            broke = self.port.metal.walls[act.place] <= 0 < was
            nicked = act.place is Place.THROAT and bool(luck.random() < SLIP)
            self.nicks_of[self.at] += nicked
        found = Done(act, at, before, self._mean(), flow, reading, broke, nicked, minutes)
        self.done.append(found)
        return found

    def true_flow(self, port: int | None = None) -> Array:
        """What a port flows in truth over LIFT, nicks and all [m3/s]; the one on the bench without one."""
        n = self.at if port is None else port
        return self._nicked(self.ports[n].flow(LIFT), n)

    def _with_clay(self, place: Place, area: float) -> VirtualPort:
        """The port with so much of a section filled."""
        metal = self.port.metal
        left = max(metal.sizes.areas[place] - area, LEAST_LEFT * metal.sizes.areas[place])
        return self.port.with_metal(replace(metal, sizes=replace(metal.sizes, areas=metal.sizes.areas | {place: left})))

    def _flowed(self, luck: np.random.Generator, port: VirtualPort | None = None) -> Array:
        read = (port or self.port).measured(LIFT, luck, self.head.mount, self.head.repeat)
        return self._nicked(read, self.at) * self.cold

    def _nicked(self, flow: Array, port: int) -> Array:
        felt = np.where(np.arange(len(LIFT)) < LOW, NICKED ** self.nicks_of[port], 1.0)
        return np.asarray(flow * felt)

    def _mean(self) -> float:
        return sum(float(np.mean(self.true_flow(n))) for n in range(len(self.ports)))


def played(head: str, seed: int, acts: Sequence[Act], hours: float | None = None) -> Practice:
    """A practice with its acts done, up to the first that the owner's hours have no room for."""
    found = Practice(head, seed, hours)
    for act in acts:
        try:
            found.do(act)
        except OwnersClock:
            break
    return found


def minutes_of(act: Act, before: Sequence[Act] = ()) -> float:
    """What an act costs after others [min]: a test of metal that was flowed since its last cut is but bolted down
    again, unless another port was meanwhile; a pass that another port had is quicker, as copies are."""
    if act.kind in TESTS:
        since = next(
            (a for a in reversed(before) if a.kind in TESTS or (a.kind == ActKind.CUT and a.port == act.port)), None
        )
        return AGAIN if since is not None and since.kind in TESTS and since.port == act.port else FLOWING
    if act.kind != ActKind.CUT:
        return {"wall": READING, "pour": POURING, "clay": CLAYING + FLOWING}[act.kind]
    each, begin = MINUTES[act.place or Place.BOWL]
    copied = any(a.kind == ActKind.CUT and a.place is act.place and a.port != act.port for a in before)
    return (COPY_LEARNS if copied else 1.0) * (begin + each * act.depth * 1e3)


def volume_of(port: VirtualPort) -> float:
    """What a port holds [m3]: its mean section over its length."""
    s = port.metal.sizes
    return float(np.mean([s.areas[p] for p in WORKED])) * s.length

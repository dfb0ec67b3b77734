"""A practice played through: every act costs its minutes, may go wrong, and is the same for the same seed; and what it
came to in the end."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final, Literal

import numpy as np

from ventrix.bench.simulator.heads.virtual import MINUTES, WORKED, VirtualPort
from ventrix.bench.simulator.practice.catalogue import head_named
from ventrix.bench.simulator.practice.head import PracticeHead
from ventrix.core.model.kinds import Place
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.units import to_si

LIFT: Final[Array] = np.linspace(1.0, 12.0, 12) * to_si(0.05, "in")
FLOWING, READING = 30.0, 5.0  # minutes
GAUGE: Final = 0.02  # relative scatter of a wall reading
SLIP: Final = 0.02  # chance that a pass at the throat nicks the seat
LEAST: Final = to_si(0.3, "cfm")  # a gain that is none
DEPTH: Final = 0.5e-3
LIMIT: Final = 1.0e-3  # m of wall that an oracle leaves

Kind = Literal["flow", "wall", "cut"]


@dataclass(frozen=True, slots=True)
class Act:
    """Something the learner did: a flow test, a wall reading, or a pass of a depth [m] at a place, with the gain that
    he said first [m3/s]."""

    kind: Kind
    place: Place | None = None
    depth: float = 0.0
    said: float | None = None


@dataclass(frozen=True, slots=True)
class Belief:
    """A cut as the learner must have seen it, by his own flow tests before and after, and as it was [m3/s]; None where
    he never flowed it. `verdict`: right, in vain (kept, and nothing), lost (it cost, unseen), unseen."""

    cut: int
    place: Place
    seen: float | None
    true: float
    verdict: str


@dataclass(frozen=True, slots=True)
class Reckoning:
    """What a practice came to: gains over LIFT [m3/s], hours, walls broken, seats nicked, and what was believed."""

    gain: float
    oracle: float
    hours: float
    walls_broken: int
    seats_nicked: int
    beliefs: tuple[Belief, ...]
    readings: tuple[tuple[int, float], ...]  # of walls: act and metres
    flows: tuple[tuple[int, Array], ...]


def replay(head: str, seed: int, acts: Sequence[Act], hours: float | None = None) -> Reckoning:
    """Play a practice through.

    Parameters
    ----------
    head : str
        Of the catalogue.
    seed : int
        The same seed is the same truth, and the same luck act by act.
    acts : sequence of Act
        In order; what does not fit into the owner's hours any more is not done.
    hours : float, optional
        Other than the owner's [h].

    Returns
    -------
    Reckoning

    Raises
    ------
    ValueError
        No such head, or a pass without its place, in words.

    References
    ----------
    Minutes: common practice, no source. The oracle knows the truth, works greedily in the same hours, flows every cut
    and leaves a millimetre of every wall.
    """
    it = head_named(head)
    until = 60 * (it.hours if hours is None else hours)
    port = it.make(seed)
    start, clock = _mean(port), 0.0
    broken, nicked = 0, 0
    cuts: list[tuple[Place, float, int]] = []  # place, true gain, act
    flows: list[tuple[int, Array]] = []
    readings: list[tuple[int, float]] = []
    for i, act in enumerate(acts):
        luck = np.random.default_rng((seed, i, 71))
        minutes = minutes_of(act)
        if clock + minutes > until:
            break
        clock += minutes
        if act.kind == "flow":
            flows.append((i, port.measured(LIFT, luck, it.mount, it.repeat)))
        elif act.place is None or act.place not in WORKED:
            raise ValueError(f"act {i + 1} wants a place of {', '.join(p.value for p in WORKED)}")
        elif act.kind == "wall":
            readings.append((i, port.metal.walls[act.place] * (1 + GAUGE * float(luck.standard_normal()))))
        else:
            before = port
            port = port.work(act.place, act.depth, luck)
            broken += port.metal.walls[act.place] <= 0 < before.metal.walls[act.place]
            nicked += act.place is Place.THROAT and bool(luck.random() < SLIP)
            cuts.append((act.place, _mean(port) - _mean(before), i))
    return Reckoning(
        gain=_mean(port) - start,
        oracle=oracle_gain(it, seed, until / 60),
        hours=clock / 60,
        walls_broken=broken,
        seats_nicked=nicked,
        beliefs=_beliefs(it, cuts, flows),
        readings=tuple(readings),
        flows=tuple(flows),
    )


def minutes_of(act: Act) -> float:
    """What an act costs [min]."""
    if act.kind == "flow":
        return FLOWING
    if act.kind == "wall":
        return READING
    each, begin = MINUTES[act.place or Place.BOWL]
    return begin + each * act.depth * 1e3


def oracle_gain(head: PracticeHead, seed: int, hours: float) -> float:
    """What was to be had in these hours by one who knows the truth [m3/s]."""
    port = head.make(seed)
    start, left = _mean(port), 60 * hours - FLOWING
    while True:
        tried = []
        for place in WORKED:
            minutes = minutes_of(Act("cut", place, DEPTH)) + FLOWING
            if minutes > left or port.metal.walls[place] - 1.3 * DEPTH < LIMIT:
                continue
            after = port.work(place, DEPTH)
            tried.append(((_mean(after) - _mean(port)) / minutes, minutes, after))
        best = max(tried, key=lambda t: t[0], default=None)
        if best is None or best[0] <= 0:
            return _mean(port) - start
        port, left = best[2], left - best[1]


def _mean(port: VirtualPort) -> float:
    return float(np.mean(port.flow(LIFT)))


def _beliefs(
    head: PracticeHead, cuts: Sequence[tuple[Place, float, int]], flows: Sequence[tuple[int, Array]]
) -> tuple[Belief, ...]:
    found = []
    for n, (place, true, at) in enumerate(cuts, 1):
        before = [q for i, q in flows if i < at]
        later = next((j for _, _, j in cuts if j > at), len(cuts) + 10**6)
        after = [q for i, q in flows if at < i < later]
        if not before or not after:
            found.append(Belief(n, place, None, true, "unseen"))
            continue
        seen = float(np.mean(after[-1]) - np.mean(before[-1]))
        doubt = 1.96 * 2**0.5 * float(np.hypot(head.mount, head.repeat / len(LIFT) ** 0.5)) * float(np.mean(before[-1]))
        if seen > doubt and true < LEAST:
            verdict = "in vain"
        elif true < -LEAST and seen > -doubt:
            verdict = "lost"
        elif seen <= doubt and true > doubt:
            verdict = "missed"
        else:
            verdict = "right"
        found.append(Belief(n, place, seen, true, verdict))
    return tuple(found)

"""What a practice came to: the gain against what was to be had in the same hours, what was believed, and every decision
with what could be known then and what was true."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import product
from typing import Final

import numpy as np

from ventrix.bench.simulator.heads.virtual import WORKED
from ventrix.bench.simulator.practice.head import PracticeHead
from ventrix.bench.simulator.practice.play import FLOWING, LIFT, Act, Done, Practice, minutes_of, played
from ventrix.core.metal.walls import DEFAULT_LIMIT
from ventrix.core.model.kinds import Place
from ventrix.core.planning.batches import MOST
from ventrix.core.planning.cut_moves import DEPTHS
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.units import to_si

LEAST: Final = to_si(0.3, "cfm")  # a gain that is none
Stair = tuple[tuple[float, float], ...]  # hours, gain [m3/s]: from each hour on


@dataclass(frozen=True, slots=True)
class Belief:
    """A cut as the learner must have seen it, by his own flow tests of the states before and after, and as it was
    [m3/s]; None where one of the two was never flowed by itself. `doubt` is what so many tests on this bench differ by
    at 95 %. `verdict`: right, in vain (seen, and nothing), lost (it cost, unseen), missed (there, not seen), unseen.
    `curves` are the changes over LIFT, seen and true; `at` is when [h], `act` which, counted from 0; `left` is the wall
    afterwards [m]."""

    cut: int
    place: Place
    seen: float | None
    true: float
    doubt: float
    verdict: str
    at: float
    act: int
    seen_curve: Array | None
    true_curve: Array
    wall_known: bool
    left: float
    broke: bool
    nicked: bool


@dataclass(frozen=True, slots=True)
class Reckoning:
    """Gains over LIFT [m3/s] of the learner and of one who knows the truth, in the same hours; hours spent; and what
    was done to the metal. Stairs: what was true, what was believed, and what was to be had."""

    gain: float
    oracle: float
    believed: float
    hours: float
    walls_broken: int
    seats_nicked: int
    thinnest: float
    beliefs: tuple[Belief, ...]
    true_stair: Stair
    believed_stair: Stair
    oracle_stair: Stair

    @property
    def share(self) -> float:
        """Of what was to be had; nothing where a wall was cut through: that head is scrap, or a welder's."""
        if self.walls_broken:
            return 0.0
        return self.gain / self.oracle if self.oracle > 0 else 0.0


def reckon(practice: Practice) -> Reckoning:
    """Reckon a practice as it stands.

    Parameters
    ----------
    practice : Practice
        With its acts done.

    Returns
    -------
    Reckoning

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    The oracle knows the truth, takes the same passes and sets of passes as the planner knows, best hour first, flows
    after each set and stops at the usual limit of metal, as the learner is meant to.
    """
    beliefs = beliefs_of(practice)
    start = float(np.mean(practice.began.flow(LIFT)))
    now = float(np.mean(practice.true_flow()))
    true = [(0.0, 0.0), *((d.at, d.after - start) for d in practice.done if d.act.kind == "cut")]
    tests = ((d.at, practice.flow_of(d)) for d in practice.done)
    flows = [(at, float(np.mean(q))) for at, q in tests if q is not None]
    seen = [(at, q - flows[0][1]) for at, q in flows] or [(0.0, 0.0)]
    stair = oracle_stair(practice.head, practice.seed, practice.hours)
    return Reckoning(
        gain=now - start,
        oracle=stair[-1][1],
        believed=seen[-1][1],
        hours=practice.minutes / 60,
        walls_broken=practice.walls_broken,
        seats_nicked=practice.nicks,
        thinnest=min(practice.port.metal.walls.values()),
        beliefs=beliefs,
        true_stair=tuple(true),
        believed_stair=((0.0, 0.0), *seen),
        oracle_stair=stair,
    )


def oracle_gain(head: PracticeHead, seed: int, hours: float) -> float:
    """What was to be had in these hours by one who knows the truth [m3/s]."""
    return oracle_stair(head, seed, hours)[-1][1]


def oracle_stair(head: PracticeHead, seed: int, hours: float) -> Stair:
    """What was to be had over the hours, cut by cut."""
    port = head.make(seed)

    def mean(of: object) -> float:
        return float(np.mean(of.flow(LIFT)))  # type: ignore[attr-defined]

    start, clock = mean(port), FLOWING
    stair = [(0.0, 0.0)]
    while True:
        level, found, spent = mean(port), port, FLOWING
        rate = 0.0
        for _ in range(MOST):  # a set of passes is flowed once, and grows while its hour gets better
            tried = []
            for place, depth in product(WORKED, DEPTHS):
                minutes = spent + minutes_of(Act("cut", place, depth))
                if clock + minutes > 60 * hours or found.metal.walls[place] - depth < DEFAULT_LIMIT:
                    continue
                after = found.work(place, depth)
                tried.append(((mean(after) - level) / minutes, minutes, after))
            best = max(tried, key=lambda t: t[0], default=None)
            if best is None or best[0] <= rate:
                break
            rate, spent, found = best
        if found is port:
            return tuple(stair)
        port, clock = found, clock + spent
        stair.append((clock / 60, mean(port) - start))


def two_tests(head: PracticeHead, level: float, before: int = 1, after: int = 1) -> float:
    """What the means of so many flow tests of the same metal differ by on its bench, 95 % [m3/s]."""
    one = float(np.hypot(head.mount, head.repeat / len(LIFT) ** 0.5)) * level
    return 1.96 * one * float(np.sqrt(1 / max(before, 1) + 1 / max(after, 1)))


def _tests(practice: Practice, done: Sequence[Done]) -> list[Array]:
    """Flow tests without clay among what was done."""
    return [q for d in done if (q := practice.flow_of(d)) is not None]


def beliefs_of(practice: Practice) -> tuple[Belief, ...]:
    """Every cut as it was seen and as it was."""
    done = practice.done
    cuts = [i for i, d in enumerate(done) if d.act.kind == "cut"]
    port = practice.began
    again = Practice(practice.head.id, practice.seed, practice.hours)  # the truth of each moment, by playing once more
    found: list[Belief] = []
    for n, i in enumerate(cuts, 1):
        while len(again.done) < i:
            again.do(done[len(again.done)].act)
        was = again.true_flow()
        again.do(done[i].act)
        true_curve = again.true_flow() - was
        since = cuts[n - 2] if n > 1 else -1
        later = cuts[n] if n < len(cuts) else len(done)
        before, after = _tests(practice, done[since + 1 : i]), _tests(practice, done[i:later])
        true = float(np.mean(true_curve))
        place = done[i].act.place
        assert place is not None
        seen_curve = np.mean(after, axis=0) - np.mean(before, axis=0) if before and after else None
        seen = None if seen_curve is None else float(np.mean(seen_curve))
        level = float(np.mean(before[-1] if before else port.flow(LIFT)))
        doubt = two_tests(practice.head, level, len(before), len(after))
        wall_known = any(d.act.kind == "wall" and d.act.place is place for d in done[:i])
        found.append(
            Belief(n, place, seen, true, doubt, verdict_of(seen, true, doubt), done[i].at, i, seen_curve, true_curve,
                   wall_known, again.port.metal.walls[place], done[i].broke, done[i].nicked)
        )  # fmt: skip
    return tuple(found)


def verdict_of(seen: float | None, true: float, doubt: float) -> str:
    """How a belief stands to the truth."""
    if seen is None:
        return "unseen"
    if seen > doubt and true < LEAST:
        return "in vain"
    if true < -LEAST and seen > -doubt:
        return "lost"
    return "missed" if seen <= doubt and true > doubt else "right"


def replay(head: str, seed: int, acts: Sequence[Act], hours: float | None = None) -> Reckoning:
    """Play a practice through and reckon it. ValueError for a head that is none, or a pass without its place."""
    return reckon(played(head, seed, acts, hours))

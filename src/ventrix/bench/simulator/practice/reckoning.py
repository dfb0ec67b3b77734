"""What a practice came to: the gain against what was to be had in the same hours, what was believed, and every decision
with what could be known then and what was true."""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import product
from typing import Final

import numpy as np

from ventrix.bench.simulator.heads.virtual import WORKED, VirtualPort
from ventrix.bench.simulator.practice.head import PracticeHead
from ventrix.bench.simulator.practice.play import FLOWING, LIFT, Act, Done, Practice, minutes_of, played
from ventrix.core.metal.walls import DEFAULT_LIMIT
from ventrix.core.model.bench_kinds import ActKind
from ventrix.core.model.kinds import Place
from ventrix.core.next_hour.metal_items import COPY_LEARNS
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
    afterwards [m]; `port` which of the head's, counted from 0."""

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
    port: int = 0


@dataclass(frozen=True, slots=True)
class Reckoning:
    """Mean gains over LIFT, summed over the ports [m3/s], of the learner and of one who knows the truth, in the same
    hours; hours spent; and what was done to the metal. Stairs: what was true, what was believed, and what was to be
    had."""

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
    start = sum(float(np.mean(port.flow(LIFT))) for port in practice.began)
    now = sum(float(np.mean(practice.true_flow(n))) for n in range(len(practice.ports)))
    true = [(0.0, 0.0), *((d.at, d.after - start) for d in practice.done if d.act.kind == ActKind.CUT)]
    seen = _believed(practice)
    stair = oracle_stair(practice.head, practice.seed, practice.hours)
    return Reckoning(
        gain=now - start,
        oracle=stair[-1][1],
        believed=seen[-1][1],
        hours=practice.minutes / 60,
        walls_broken=practice.walls_broken,
        seats_nicked=practice.nicks,
        thinnest=min(wall for port in practice.ports for wall in port.metal.walls.values()),
        beliefs=beliefs,
        true_stair=tuple(true),
        believed_stair=((0.0, 0.0), *seen),
        oracle_stair=stair,
    )


def _believed(practice: Practice) -> list[tuple[float, float]]:
    """Hours and the gain that his tests had told by then, port by port against the first test of each [m3/s]."""
    first: dict[int, float] = {}
    gained: dict[int, float] = {}
    found = []
    for d in practice.done:
        flow = practice.flow_of(d)
        if flow is not None:
            mean = float(np.mean(flow))
            gained[d.act.port] = mean - first.setdefault(d.act.port, mean)
            found.append((d.at, sum(gained.values())))
    return found or [(0.0, 0.0)]


def oracle_gain(head: PracticeHead, seed: int, hours: float) -> float:
    """What was to be had in these hours by one who knows the truth [m3/s]."""
    return oracle_stair(head, seed, hours)[-1][1]


def oracle_stair(head: PracticeHead, seed: int, hours: float) -> Stair:
    """What was to be had over the hours, cut by cut: of sets of passes at any port, each flowed after, and of copies
    of what another port has had, which he need not flow, the best hour first."""
    ports = list(head.ports(seed))
    had: list[list[Act]] = [[] for _ in ports]
    start, clock = sum(_mean(p) for p in ports), FLOWING
    stair = [(0.0, 0.0)]
    while True:
        left = 60 * hours - clock
        open_ = [(*_best_set(port, left), n) for n, port in enumerate(ports)]
        open_ += [(*_copied(ports[n], had[n], other, left), n) for n in range(len(ports)) for other in had if other]
        best = max(open_, key=lambda found: found[0])
        rate, spent, passes, port, n = best
        if rate <= 0:
            return tuple(stair)
        ports[n], clock = port, clock + spent
        had[n] += passes
        stair.append((clock / 60, sum(_mean(p) for p in ports) - start))


def _mean(port: VirtualPort) -> float:
    return float(np.mean(port.flow(LIFT)))


Way = tuple[float, float, list[Act], VirtualPort]  # gain a minute [m3/s], minutes, passes, and the port after them


def _best_set(port: VirtualPort, left: float) -> Way:
    """The set of passes with the best hour: it is flowed once, and grows while its hour gets better."""
    level, best = _mean(port), (0.0, FLOWING, list[Act](), port)
    for _ in range(MOST):
        _, spent, passes, found = best
        tried = []
        for place, depth in product(WORKED, DEPTHS):
            act = Act(ActKind.CUT, place, depth)
            minutes = spent + minutes_of(act)
            if minutes <= left and found.metal.walls[place] - depth >= DEFAULT_LIMIT:
                after = found.work(place, depth)
                tried.append(((_mean(after) - level) / minutes, minutes, [*passes, act], after))
        grown = max(tried, key=lambda t: t[0], default=best)
        if grown[0] <= best[0]:
            break
        best = grown
    return best


def _copied(port: VirtualPort, had: Sequence[Act], other: Sequence[Act], left: float) -> Way:
    """What another port has had and this one has not, as far as its walls allow and it pays."""
    wanted, has = ([(a.place, a.depth) for a in acts] for acts in (other, had))
    missing = Counter(wanted) - Counter(has)
    level, spent, passes, found = _mean(port), 0.0, list[Act](), port
    for place, depth in missing.elements():
        assert place is not None
        act = Act(ActKind.CUT, place, depth)
        minutes = COPY_LEARNS * minutes_of(act)
        after = found.work(place, depth)
        if spent + minutes <= left and after.metal.walls[place] >= DEFAULT_LIMIT and _mean(after) > _mean(found):
            spent, found = spent + minutes, after
            passes.append(act)
    return ((_mean(found) - level) / spent if spent else 0.0), spent, passes, found


def two_tests(head: PracticeHead, level: float, before: int = 1, after: int = 1) -> float:
    """What the means of so many flow tests of the same metal differ by on its bench, 95 % [m3/s]."""
    one = float(np.hypot(head.mount, head.repeat / len(LIFT) ** 0.5)) * level
    return 1.96 * one * float(np.sqrt(1 / max(before, 1) + 1 / max(after, 1)))


def _tests(practice: Practice, done: Sequence[Done], port: int) -> list[Array]:
    """Flow tests of a port, without clay, among what was done."""
    return [q for d in done if d.act.port == port and (q := practice.flow_of(d)) is not None]


def beliefs_of(practice: Practice) -> tuple[Belief, ...]:
    """Every cut as it was seen and as it was."""
    done = practice.done
    cuts = [i for i, d in enumerate(done) if d.act.kind == ActKind.CUT]
    again = Practice(practice.head.id, practice.seed, practice.hours)  # the truth of each moment, by playing once more
    found: list[Belief] = []
    for n, i in enumerate(cuts, 1):
        port, place = done[i].act.port, done[i].act.place
        assert place is not None
        while len(again.done) < i:
            again.do(done[len(again.done)].act)
        was = again.true_flow(port)
        again.do(done[i].act)
        true_curve = again.true_flow(port) - was
        of_port = [c for c in cuts if done[c].act.port == port]
        nth = of_port.index(i)
        since = of_port[nth - 1] if nth else -1
        later = of_port[nth + 1] if nth + 1 < len(of_port) else len(done)
        before, after = _tests(practice, done[since + 1 : i], port), _tests(practice, done[i:later], port)
        true = float(np.mean(true_curve))
        seen_curve = np.mean(after, axis=0) - np.mean(before, axis=0) if before and after else None
        seen = None if seen_curve is None else float(np.mean(seen_curve))
        level = float(np.mean(before[-1])) if before else _mean(practice.began[port])
        doubt = two_tests(practice.head, level, len(before), len(after))
        wall_known = any(d.act.kind == ActKind.WALL and d.act.place is place and d.act.port == port for d in done[:i])
        found.append(
            Belief(n, place, seen, true, doubt, verdict_of(seen, true, doubt), done[i].at, i, seen_curve, true_curve,
                   wall_known, again.port.metal.walls[place], done[i].broke, done[i].nicked, port)
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

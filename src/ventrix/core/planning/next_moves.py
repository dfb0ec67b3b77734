"""What to do next: cuts, seat and valve work, and looks, best hour first; and whether to stop. Blocked moves stay in
sight."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from enum import StrEnum
from functools import partial
from typing import Final, NamedTuple

import numpy as np

from ventrix.core.judging.expectation import Factor
from ventrix.core.judging.findings import Findings
from ventrix.core.judging.verdict import Wording
from ventrix.core.metal.unrolled import ZONES, UnrolledPort, unroll
from ventrix.core.metal.walls import limit_for, spare_at, walls_at
from ventrix.core.model.cut import Cut, Port, carried_figure
from ventrix.core.model.kinds import CutKind, Place
from ventrix.core.model.school_questions import side_taken
from ventrix.core.planning.loss_chain import DRAWS, SEED, ChainFit, ChainWork, fit_chain
from ventrix.core.planning.of_job import Planned, edges_of, planned_port, worked_before
from ventrix.core.planning.priors import KNOTS, VALVE
from ventrix.core.planning.stop_rule import HOUR, Stop, stop_rule
from ventrix.core.planning.value_of_looking import Look, value_of_look
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.units import from_si

REFLOW: Final = 30 * 60.0  # s to take the head off, bolt it down and flow it again
DEPTHS: Final = (0.25e-3, 0.5e-3, 0.75e-3, 1.0e-3)
# Minutes to begin with, and for each millimetre, by place (common practice, no source).
MINUTES: Final = {
    Place.OPENING.value: (10.0, 30.0),
    Place.PINCH.value: (10.0, 40.0),
    Place.GUIDE.value: (10.0, 25.0),
    Place.SHORT_SIDE.value: (15.0, 50.0),
    Place.BOWL.value: (10.0, 35.0),
    Place.THROAT.value: (15.0, 35.0),
}
LEAST_LAND: Final = 2.5e-3  # m of gasket land (common practice, no source)
LEAST_BOSS: Final = 3.0e-3  # m of boss around the stem, both sides together (common practice, no source)
FEWEST_OF_HIS: Final = 3  # cuts before a porter's own factors count
# What a seat recipe and a back cut do to ln Cd, over which L/D: median and spread (common practice, no source).
SEAT_WORK: Final = {"seat": (0.02, 0.02, 0.34), "valve": (0.015, 0.015, 0.18)}
SEAT_MINUTES: Final = {"seat": 30.0, "valve": 20.0}
GOVERNS: Final = 2 * HOUR  # of work that a choice decides about


class MoveKind(StrEnum):
    """What kind of move it is."""

    CUT = "cut"
    SEAT = "seat"
    VALVE = "valve"
    ENTRY = "entry"
    CLAY = "clay"
    WALL = "wall"
    MOUNT = "mount"


WORKS: Final = (MoveKind.CUT, MoveKind.SEAT, MoveKind.VALVE)  # moves that bring flow by themselves
READ_FIRST: Final = "read the wall first"  # what blocks a place that was not read on this port


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
    is gain an hour [flow/s]; `blocked_by` says in words what stands in the way."""

    place: str
    side: str | None
    depth: float | None
    kind: MoveKind
    gain: float
    low: float
    high: float
    share: float
    points: tuple[Point, ...]
    seconds: float
    volume: float
    rate: float
    wall_left: float | None
    blocked_by: tuple[str, ...]
    sentence: str
    draws: Array  # of the gain, shape (400,)


@dataclass(frozen=True, slots=True)
class Plan:
    """The plan of a port: the fitted chain, every move best first, and the stop rule."""

    planned: Planned
    fit: ChainFit
    moves: tuple[Move, ...]
    stop: Stop
    worth: float  # the goal's number as it is, in the unit of the runs' flow


def plan_port(
    findings: Findings,
    port: Port,
    factors: Sequence[Factor] = (),
    least: float | None = None,
    up_to: Cut | None = None,
    what: Sequence[Asked] = (),
    words: Wording | None = None,
) -> Plan:
    """Plan a port from its last flowed cut.

    Parameters
    ----------
    findings : Findings
        Of the job.
    port : Port
        Which.
    factors : sequence of Factor
        The porter's own, by place.
    least : float, optional
        Gain an hour under which one stops [m3/s per s].
    up_to : Cut, optional
        The state to plan from.
    what : sequence of Asked
        These moves only, where any is named.
    words : Wording, optional
        Units of the sentences; inches and CFM without.

    Returns
    -------
    Plan

    Raises
    ------
    ValueError
        As `planned_port`.

    References
    ----------
    Formula book of this project; guesses are named in `priors`.
    """
    planned = planned_port(findings, port, up_to)
    fit = fit_chain(planned.chain)
    words = words or Wording()
    maker = _Moves(findings, port, planned, fit, factors, words)
    if what:
        moves = [maker.cut(w.place, w.depth, w.side, w.edge) for w in what]
        return Plan(planned, fit, tuple(moves), Stop(False, "asked about these moves alone"), maker.worth)
    moves = [*maker.cuts(), *maker.seat_work()]
    moves += maker.looks(moves)
    ordered = sorted(moves, key=lambda m: (bool(m.blocked_by), -m.rate))
    rates = [m.draws / m.seconds for m in ordered if not m.blocked_by and m.kind in WORKS]
    blocked = [f"{m.place}: {m.blocked_by[0]}" for m in ordered if m.blocked_by and m.kind is MoveKind.CUT]
    stop = stop_rule(findings, port, planned, rates, blocked, least, words)
    return Plan(planned, fit, tuple(ordered), stop, maker.worth)


class _Moves:
    """Makes the moves of one port."""

    def __init__(
        self,
        findings: Findings,
        port: Port,
        planned: Planned,
        fit: ChainFit,
        factors: Sequence[Factor],
        words: Wording,
    ) -> None:
        self.findings, self.port, self.planned, self.fit = findings, port, planned, fit
        self.words = words
        self.cut_now = planned.cuts[-1]
        self.lift, self.flow = planned.lift, planned.flow
        self.here: UnrolledPort = unroll(port, self.cut_now, findings.job.valve_of(port, self.cut_now))
        self.edges = edges_of(self.here)
        self.worth = float(planned.weights @ self.flow)
        self.his = {f.place: f for f in factors if f.cuts >= FEWEST_OF_HIS}
        self.before = worked_before(port, self.cut_now.number)

    # -- cuts

    def cuts(self) -> list[Move]:
        """For each place the depth whose hour is best, or what blocks it."""
        found = []
        for place in MINUTES:
            allowed, blocked = self._allowed(place)
            depths = [d for d in DEPTHS if d <= allowed + 1e-9] if not blocked else []
            tried = [self.cut(place, d) for d in (depths or [DEPTHS[1]])]
            best = max(tried, key=lambda m: m.rate)
            if not depths:
                why = blocked or self._spent(place, allowed)
                best = replace(best, blocked_by=(why,), sentence=f"{best.sentence} Blocked: {why}.")
            found.append(best)
        return found

    def cut(self, place: str, depth: float, side: str | None = None, edge: float = 1.0) -> Move:
        """What a pass at a place, or at a share of its edge, is expected to bring."""
        gains = self.fit.gain([ChainWork(place, depth, place in self.before, edge)], self.lift)
        start, each = MINUTES.get(place, (10.0, 35.0))
        seconds = 60 * (start + edge * each * from_si(depth, "mm"))
        factor = self.his.get(place)
        if factor is not None and factor.gain is not None:
            gains = gains * factor.gain
        if factor is not None and factor.time is not None:
            seconds *= factor.time
        wall = self._wall(place)
        left = None if wall is None else wall - depth
        volume = depth * edge * self.edges.get(place, 0.0) * self._reach(place)
        move = self._move(place, depth, MoveKind.CUT, gains, seconds + REFLOW, volume, left)
        return replace(move, side=side)

    def _move(
        self,
        place: str,
        depth: float | None,
        kind: MoveKind,
        gains: Array,
        seconds: float,
        volume: float,
        wall_left: float | None = None,
    ) -> Move:
        by_lift = gains * self.flow
        draws = by_lift @ self.planned.weights
        low, high = (float(v) for v in np.quantile(draws, [0.1, 0.9]))
        gain = float(np.mean(draws))
        quantiles = np.quantile(by_lift, [0.1, 0.5, 0.9], axis=0)
        points = tuple(
            Point(float(x), float(m), float(a), float(b)) for x, a, m, b in zip(self.lift, *quantiles, strict=True)
        )
        return Move(
            place, None, depth, kind, gain, low, high, gain / self.worth, points, seconds, volume,
            gain / seconds, wall_left, (), _says(place, kind), draws,
        )  # fmt: skip

    def _reach(self, place: str) -> float:
        zone = next((z for z in ZONES if z.name == place), None)
        return 0.1 * self.here.length if zone is None else (zone.end - zone.start) * self.here.length

    def _wall(self, place: str) -> float | None:
        """The thinnest metal known to be left at a place [m]."""
        left = [w.left for w in walls_at(self.findings.job, self.port, self.cut_now) if w.reading.place == place]
        return min(left) if left else None

    def _allowed(self, place: str) -> tuple[float, str]:
        """How deep a pass may be [m], and what blocks every one."""
        job, port, cut = self.findings.job, self.port, self.cut_now

        figure = partial(carried_figure, port, cut)
        if place == Place.GUIDE.value:
            boss, stem = figure("boss_width"), self.planned.chain.states[-1].valve.stem
            return (1.0e-3 if boss is None else max((boss - stem - LEAST_BOSS) / 2, 0.0)), ""
        if place == Place.OPENING.value:
            land = figure("gasket_land")
            return (0.0, "the gasket land was not measured") if land is None else (max(land - LEAST_LAND, 0.0), "")
        if place == Place.THROAT.value:
            throat, most = figure("throat_diameter"), side_taken(job, "throat").value
            if throat is None:
                return 0.0, "the throat was not measured"
            head = self.planned.chain.states[-1].valve.diameter
            wide = max((float(most[1]) * head - throat) / 2, 0.0)
            spare = spare_at(job, port, cut, place)
            return (0.0, READ_FIRST) if spare is None else (min(wide, spare), "")
        spare = spare_at(job, port, cut, place)
        return (0.0, READ_FIRST) if spare is None else (spare, "")

    def _spent(self, place: str, allowed: float) -> str:
        job = self.findings.job
        spare = spare_at(job, self.port, self.cut_now, place)
        if place == Place.THROAT.value and (spare is None or spare > allowed):
            return f"the throat is at your {side_taken(job, 'throat').words}"
        if place == Place.GUIDE.value:
            return "the boss is down to the guide"
        if place == Place.OPENING.value:
            return "the gasket land is spent"
        left, limit = (f"{self.words.lift(v)} {self.words.lift_unit}" for v in (allowed, limit_for(job, place)))
        return f"{left} to your limit of {limit}"

    # -- seats and valves

    def seat_work(self) -> list[Move]:
        """A seat recipe and a back cut, where neither was done yet."""
        done = {k for c in self.port.cuts if c.number <= self.cut_now.number for k in c.kinds}
        x = self.lift / self.planned.chain.states[-1].valve.diameter
        terms = self.fit.terms(self.lift)
        whole = np.sum(list(terms.values()), axis=0)
        share = terms[VALVE] / whole
        found = []
        for name, (median, spread, up_to) in SEAT_WORK.items():
            kind = MoveKind(name)
            random = np.random.default_rng(SEED + 3)
            better = median + spread * random.standard_normal(DRAWS)
            fades = np.clip(1 - (x - up_to) / (KNOTS[-1] - KNOTS[0]), 0, 1) * (x <= up_to + 0.12)
            gains = np.expm1(0.5 * share * 2 * better[:, None] * fades[None, :])
            move = self._move("valve", None, kind, gains, 60 * SEAT_MINUTES[name] + REFLOW, 0.0)
            if CutKind(name) in done:
                move = replace(move, blocked_by=("it was done before: its own figures are in the row",))
            elif (
                name == "valve" and self.port.kind == "exhaust" and not side_taken(self.findings.job, "back_cut").value
            ):
                move = replace(move, blocked_by=("you leave exhaust valves without a back cut",))
            found.append(move)
        return found

    # -- looks

    def looks(self, moves: Sequence[Move]) -> list[Move]:
        """Clay, a wall reading, one more mount: what each is worth for the choice among the cuts."""
        open_moves = [m for m in moves if not m.blocked_by and m.kind in WORKS]
        found = []
        for move in moves:
            if move.kind is MoveKind.CUT and READ_FIRST in move.blocked_by:
                found.append(self._look_at_wall(move, open_moves))
        if len(open_moves) >= 2 and self.planned.run is not None:
            rates = np.array([m.draws / m.seconds for m in open_moves]).T
            best = max((m for m in open_moves if m.kind is MoveKind.CUT), key=lambda m: m.rate, default=None)
            for move in [m for m in (best, *self._guessed(open_moves)) if m is not None][:2]:
                found.append(self._clay(move, rates))
            found.append(self._mount(rates))
        return found

    def _guessed(self, moves: Sequence[Move]) -> list[Move]:
        """Cuts at places whose loss only the book knows."""
        limits = self.fit.limits(np.array([self.lift[-1]]))[0]
        return [m for m in moves if m.kind is MoveKind.CUT and m.place in limits and not limits[m.place].from_data]

    def _look(self, place: str, kind: MoveKind, seconds: float, worth: float, sentence: str) -> Move:
        nothing = np.zeros(DRAWS)
        rate = worth * GOVERNS / max(seconds, 1.0)
        return Move(place, None, None, kind, 0.0, 0.0, 0.0, 0.0, (), seconds, 0.0, rate, None, (), sentence, nothing)

    def _clay(self, move: Move, rates: Array) -> Move:
        """Clay at a place tells its loss: a tenth of the section blocked, and flowed again."""
        terms = self.fit.terms(self.lift)
        share = (terms[move.place] / np.sum(list(terms.values()), axis=0)) @ self.planned.weights
        look = Look(0.5 * share * (1 / 0.9**2 - 1), 0.015)
        worth = value_of_look(rates, look)
        said = f"Clay at the {move.place}: settles whether it is worth its hour."
        return self._look(move.place, MoveKind.CLAY, 15 * 60.0 + REFLOW / 2, worth, said)

    def _mount(self, rates: Array) -> Move:
        """One more bolting-down tells the flow as it is a little better."""
        state = self.planned.chain.states[-1]
        level = np.asarray(rates @ np.ones(rates.shape[1]))
        spread = float(np.std(level)) or 1.0
        worth = value_of_look(rates, Look(level / spread * state.mount, state.mount * 2))
        return self._look("", MoveKind.MOUNT, 12 * 60.0, worth, "Mount it again: is what was seen real?")

    def _look_at_wall(self, move: Move, open_moves: Sequence[Move]) -> Move:
        """A reading opens a place that is blocked: worth what it may be better by than the best that is open."""
        best = max((m.rate for m in open_moves), default=0.0)
        better = np.maximum(move.draws / move.seconds - best, 0.0)
        worth = 0.7 * float(np.mean(better))  # a wall is thick enough about seven times in ten (guess)
        said = f"Read the wall at the {move.place}: nothing is cut there before."
        return self._look(move.place, MoveKind.WALL, 5 * 60.0, worth, said)


def _says(place: str, kind: MoveKind) -> str:
    return {
        MoveKind.SEAT: "A three-angle seat, or a radius: what it brings is a guess of the trade.",
        MoveKind.VALVE: "A 30 degree back cut on the valve: what it brings is a guess of the trade.",
    }.get(kind, f"A pass at the {place}, flowed again.")


def open_places(plan: Plan) -> Mapping[str, Move]:
    """The cut of each place of a plan."""
    return {m.place: m for m in plan.moves if m.kind is MoveKind.CUT}

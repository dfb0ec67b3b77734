"""Metal: passes, seats and valves on the model ports, copies onto the others, and stages that neither covers."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import replace
from itertools import pairwise
from typing import Final

from ventrix.core.judging.model_port import developed_port
from ventrix.core.matching.copying import Answer, Copy, copies, not_copied
from ventrix.core.model.cut import Cut, Port
from ventrix.core.model.kinds import Direction, Use
from ventrix.core.next_hour.maker import BLENDING, LATER, STAGE_OF, Maker, stage_key, usual, wall_key
from ventrix.core.next_hour.work_item import ItemKind, WaitsFor, WorkItem
from ventrix.core.planning.moves import CUTS, READ_FIRST, Move, MoveKind
from ventrix.core.planning.next_moves import Plan, plan_port
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.words import listed
from ventrix.core.work.hours import MINUTE
from ventrix.core.work.record import unread
from ventrix.core.work.stages import Stage
from ventrix.words import tr

COPY_LEARNS: Final = 0.7  # of the model's minutes, for each copy after it (common practice, no source)
_NAMED: Final = {
    "recipe": tr("cut a three-angle seat"),
    "back cut": tr("back-cut the valve"),
    "larger": tr("fit a valve 1 mm larger"),
    "shape": tr("taper the guide boss"),
    "manifold": tr("match the manifold's joint"),
}
_AS: Final = {
    MoveKind.CUT: ItemKind.CUT,
    MoveKind.SEAT: ItemKind.SEAT,
    MoveKind.VALVE: ItemKind.VALVE,
    MoveKind.ENTRY: ItemKind.CUT,
    MoveKind.BATCH: ItemKind.CUT,
}


class MetalItems:
    """Items that take metal off, kind by kind."""

    def __init__(self, maker: Maker) -> None:
        self.maker = maker
        self.findings, self.job, self.ports, self.words = maker.findings, maker.job, maker.ports, maker.words

    def of_kind(self, kind: Direction) -> Iterator[WorkItem]:
        """Everything of one kind of port, and every wall that something of it waits for: also one that was read and
        worked since, which closes no stage."""
        made = [*self._cuts(kind), *self._copies(kind)]
        yield from made
        for item in made:
            for place in _walls_waited_for(item):
                assert item.port is not None
                yield self.maker.read_wall(item.port, place)
        yield from self._stages_of_metal(kind, made)

    def _plan_of(self, port: Port) -> Plan | None:
        try:
            learner = self.maker.learners.get(port.kind)
            return plan_port(
                self.findings,
                port,
                self.maker.factors,
                words=self.words,
                record=self.maker.plan_record,
                learned=None if learner is None else learner(),
            )
        except Refused:
            return None

    def _cuts(self, kind: Direction) -> Iterator[WorkItem]:
        """Passes, seats and valves on the model port, worth what they bring on all ports of its kind."""
        model = developed_port(self.findings, kind) or next((p for p in self.ports if p.kind == kind), None)
        plan = self._plan_of(model) if model is not None else None
        if model is None or plan is None or plan.stop.now:
            return
        together = max(plan.batches, key=lambda m: m.rate, default=None)
        inside = () if together is None else together.passes  # done with the set, and not again by themselves
        begin = [self._first_flow(model, plan)] if self.job.setups and plan.planned.run is None else []
        yield from begin
        before = [WaitsFor(tr("{} is flowed as it is", model.name), item.key) for item in begin]
        for move in plan.candidates:
            if any(move is each for each in inside) or (move.kind is MoveKind.BATCH and move is not together):
                continue
            if move.kind is MoveKind.FLOW:
                yield self._reflow(model, move)
            elif move.kind in _AS and move.gain > 0 and not plan.planned.chain.is_index:
                yield self._cut(model, move, before)

    def _reflow(self, model: Port, move: Move) -> WorkItem:
        what = tr("flow {} as it is now", model.name)
        return self.maker.item(f"flow {model.id}", what, ItemKind.LOOK, "walls and roof", move.seconds, model)

    def _first_flow(self, model: Port, plan: Plan) -> WorkItem:
        """A shop with a bench flows a port before it cuts it: what was never flowed as cast has no before."""
        what, because = tr("flow {} as it is", model.name), tr("Without a before, no cut on it can be judged.")
        waits = [WaitsFor(tr("the head is cleaned"), "clean")]
        return self.maker.item(
            f"flow {model.id}",
            what,
            ItemKind.LOOK,
            "walls and roof",
            plan.record.reflow,
            model,
            waits=waits,
            because=because,
        )

    def _cut(self, model: Port, move: Move, before: Sequence[WaitsFor]) -> WorkItem:
        n = sum(p.kind == model.kind for p in self.ports)
        own = move.seconds - move.flowing
        copying = (n - 1) * COPY_LEARNS * own if move.kind in CUTS else 0.0
        title = _NAMED.get(move.named) or tr("cut the {}", move.place)
        if move.passes:
            title = tr("cut {}, then flow once,", move.place)
        depth = "" if move.depth is None else f", {self.words.lift(move.depth)} {self.words.lift_unit}"
        waits = [*before, *(self._blocked(model, move, words) for words in move.blocked_by)]
        waits += self.maker.before_metal(model)
        waits += next(filter(None, (self._truck(model, m.place) for m in move.passes or (move,))), [])
        brings = f"{self.words.flow(move.gain)} {self.words.flow_name}"
        many = tr(" on each of {} ports", n) if n > 1 else ""
        then = tr("; copying it takes {:.0f} min more", copying / MINUTE) if copying else ""
        return WorkItem(
            key=f"cut {model.id} {move.place!s} {move.named}",
            what=tr("{} on {}{}", title, model.name, depth),
            kind=_AS[move.kind],
            port=model,
            place=move.place,
            seconds=move.seconds,
            copying=copying,
            others=n - 1,
            stage="valve job" if move.kind is MoveKind.SEAT else "walls and roof",
            rank=self.maker.rank.get("walls and roof", 0),
            worth=n * move.gain * self.maker.weights.weights[model.kind],
            flowing=move.flowing,
            depth=move.depth,
            waits=tuple(waits),
            because=tr("Brings {}{}{}.", brings, many, then),
            guess=move.guess,
            move=move,
        )

    def _blocked(self, port: Port, move: Move, words: str) -> WaitsFor:
        return WaitsFor(words, wall_key(port, move.place)) if words.startswith(READ_FIRST) else WaitsFor(words)

    def _truck(self, port: Port, place: str) -> list[WaitsFor]:
        if self.job.use == Use.TRUCK and port.kind == Direction.INTAKE and place not in BLENDING:
            return [WaitsFor(tr("a truck's exhausts come first, and its intakes stay small"))]
        return []

    def _copies(self, kind: Direction) -> Iterator[WorkItem]:
        """The model's proven state brought onto each port that is behind."""
        model = developed_port(self.findings, kind)
        if model is None or len(model.cuts) < 2:
            return
        for port in (p for p in self.ports if p.kind == kind and p.id != model.id and p.cuts):
            wanted = [c for c in copies(self.job, model, model.cuts[-1], port) if c.answer is not Answer.NO]
            if wanted:
                missing = not_copied(model, model.cuts[-1], port)
                whole = self._copy(model, port, wanted, missing, self._gained(model, missing))
                yield replace(whole, part=self._best_part(model, port, wanted, missing))

    def _best_part(self, model: Port, port: Port, wanted: Sequence[Copy], missing: Sequence[Cut]) -> WorkItem | None:
        """Of what is to be copied the places with the best hour; None where the tests of the model tell none apart."""
        flowed = [c for c in model.cuts if self.findings.runs_of(c, model)]
        sets: list[tuple[set[str], float]] = []  # places that were worked between two tests, and what that brought
        for before, after in pairwise(flowed):
            worked = [c for c in missing if before.number < c.number <= after.number]
            gain = self.findings.gain(self.findings.pair(model, before, after))
            if worked and gain is not None and gain.value is not None and not gain.is_share:
                sets.append(({p for c in worked for op in c.operations for p in op.places}, gain.value))
        parts = []
        for places, _ in sets:
            part = [c for c in wanted if c.place in places]
            if part and len(part) < len(wanted):
                cuts = [c for c in missing if places & {p for op in c.operations for p in op.places}]
                gained = sum(gain for others, gain in sets if others <= places)
                parts.append(self._copy(model, port, part, cuts, max(gained, 0.0)))
        return max(parts, key=lambda item: item.rate, default=None)

    def _copy(
        self, model: Port, port: Port, wanted: Sequence[Copy], missing: Sequence[Cut], gained: float | None
    ) -> WorkItem:
        places = list(dict.fromkeys(c.place for c in wanted))
        waits = [
            WaitsFor(tr("the {} wall of {} is read", place, port.name), wall_key(port, place))
            for place in dict.fromkeys(c.place for c in wanted if c.answer is Answer.READ_FIRST)
        ]
        waits += self.maker.before_metal(port)
        whole, part = _timed(missing, places), _allowed(wanted)
        if gained is not None:
            gained *= part
        seconds = COPY_LEARNS * whole * part or sum(usual(STAGE_OF.get(p, "guide")) for p in places)
        because = (
            ""
            if gained is None
            else tr("Brings {} {}, as {}.", self.words.flow(gained), self.words.flow_name, model.name)
        )
        return WorkItem(
            key=f"copy {port.id}",
            what=tr("copy {} from {} onto {}", listed(places), model.name, port.name),
            kind=ItemKind.COPY,
            port=port,
            place=places[0],
            places=tuple(places),
            seconds=seconds,
            stage=STAGE_OF.get(places[0], "walls and roof"),
            rank=self.maker.rank.get(STAGE_OF.get(places[0], "walls and roof"), 0),
            worth=None if gained is None else gained * self.maker.weights.weights[port.kind],
            waits=tuple(waits),
            because=because,
        )

    def _gained(self, model: Port, missing: Sequence[Cut]) -> float | None:
        """What the model gained from before the first cut that is still to be copied up to its last flowed state
        [m3/s]."""
        flowed = [c for c in model.cuts if self.findings.runs_of(c, model)]
        before = [c for c in flowed if missing and c.number < missing[0].number]
        if not before or flowed[-1].number <= before[-1].number:
            return None
        gain = self.findings.gain(self.findings.pair(model, before[-1], flowed[-1]))
        return None if gain is None or gain.value is None or gain.is_share else max(gain.value, 0.0)

    def _stages_of_metal(self, kind: Direction, made: Sequence[WorkItem]) -> Iterator[WorkItem]:
        """Open stages that neither a move nor a copy covers: first on the model port, on the others after it."""
        model = developed_port(self.findings, kind) or next(p for p in self.ports if p.kind == kind)
        covered = {(item.port.id, item.stage) for item in made if item.port is not None and item.kind is ItemKind.COPY}
        covered |= {(model.id, STAGE_OF.get(i.place, "walls and roof")) for i in made if i.kind is ItemKind.CUT}
        for stage in (s for s in self.maker.record.stages if s.places and s.key not in (*LATER, "valve job")):
            for state in self.maker.open_at(stage.key):
                port = state.ports[0]
                if port.kind == kind and (port.id, stage.key) not in covered:
                    yield self._stage_of_metal(stage, port, model)

    def _stage_of_metal(self, stage: Stage, port: Port, model: Port) -> WorkItem:
        waits = self.maker.before_metal(port) + self._truck(port, stage.places[0])
        unread_there = [p for p in unread(self.findings, port) if p in stage.places]
        waits += [WaitsFor(tr("the {} wall of {} is read", p, port.name), wall_key(port, p)) for p in unread_there]
        if port.id != model.id:
            waits.append(WaitsFor(tr("{} is developed first", model.name), stage_key(stage, model)))
        what, seconds = tr("work the {} of {}", stage.name, port.name), usual(stage.key)
        return self.maker.item(
            stage_key(stage, port), what, ItemKind.CUT, stage.key, seconds, port, stage.places[0], waits
        )


def _timed(cuts: Sequence[Cut], places: Sequence[str]) -> float:
    """What cuts took at places [s]."""
    works = [op for cut in cuts for op in cut.operations if set(op.places) & set(places)]
    return sum(op.duration or 0.0 for op in works)


def _allowed(wanted: Sequence[Copy]) -> float:
    """How much of the depth to be copied the port's own walls allow; what was not read counts in full."""
    planned = sum(c.planned or 0.0 for c in wanted)
    allowed = sum((c.planned if c.depth is None else c.depth) or 0.0 for c in wanted)
    return allowed / planned if planned else 1.0


def _walls_waited_for(item: WorkItem) -> list[str]:
    """Places whose wall an item waits for."""
    ahead = "" if item.port is None else wall_key(item.port, "")
    return [wait.key.removeprefix(ahead) for wait in item.waits if ahead and wait.key.startswith(ahead)]

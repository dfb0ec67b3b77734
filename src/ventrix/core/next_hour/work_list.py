"""The whole head's list: looks, cuts on the model ports, copies, faults, seats, parts, outside work, finishing."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from datetime import date
from functools import cached_property
from typing import Final

from ventrix.core.engine.breathing import Side, engine_of
from ventrix.core.engine.kind_weight import exhaust_weight
from ventrix.core.judging.exhaust_share import exhaust_share
from ventrix.core.judging.expectation import Factor
from ventrix.core.judging.findings import Findings
from ventrix.core.judging.model_port import developed_port
from ventrix.core.judging.wording import Wording
from ventrix.core.matching.copying import Answer, Copy, copies
from ventrix.core.model.cut import Port
from ventrix.core.model.kinds import FaultKind, FaultState, PartState, Place, Use
from ventrix.core.next_hour.work_item import ItemKind, WaitsFor, WorkItem, linked
from ventrix.core.planning.moves import READ_FIRST, Move, MoveKind
from ventrix.core.planning.next_moves import Plan, plan_port
from ventrix.core.planning.own_record import OwnRecord
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.words import listed
from ventrix.core.work.hours import MINUTE, USUAL_MINUTES, Hours, Paces, hours_of
from ventrix.core.work.record import LINES, Record, StageState, WorkState, record_of, unread
from ventrix.core.work.route import ports_in_order
from ventrix.core.work.stages import Stage

WALL: Final = 5 * MINUTE  # one place read
FAULT: Final = 8 * MINUTE
CALL: Final = 5 * MINUTE  # a telephone call
MET: Final = 0.3  # of the intake's: what an exhaust counts once its share is met (a guess)
COPY_LEARNS: Final = 0.7  # of the model's minutes, for each copy after it (common practice, no source)
MACHINE_SHOP: Final = (FaultKind.CRACK, FaultKind.CORROSION)
BLENDING: Final = (Place.BOWL, Place.THROAT)  # as far as a truck's intake is cut
LATER: Final = ("re-blend", "finish", "chamber", "deburr", "wash", "end list")


@dataclass(frozen=True, slots=True)
class WorkList:
    """What is next on a head, best first; those that wait stand behind. `weights` are what a percent of a kind's flow
    counts, `weighed_by` says by what."""

    record: Record
    items: tuple[WorkItem, ...]
    hours: Hours
    weights: Mapping[str, float]
    weighed_by: str

    @property
    def next(self) -> WorkItem | None:
        """The one answer: the first that nothing holds up."""
        return next((item for item in self.items if not item.waits), None)


def work_list(
    findings: Findings,
    today: date,
    factors: Sequence[Factor] = (),
    plan_record: OwnRecord | None = None,
    paces: Paces | None = None,
    words: Wording | None = None,
) -> WorkList:
    """Everything that is left on a head, in the order it is best done in.

    What keeps people safe or the casting whole comes first, then what others wait for, then worth an hour, then the
    order of the stages. A cut on the model of n ports is worth n times its gain and costs its own minutes and those of
    n - 1 copies, flowed again once; a copy is worth what the state it brings gained.

    Parameters
    ----------
    findings : Findings
        Of the job.
    today : date
        Where one stands.
    factors, plan_record : sequence of Factor, OwnRecord, optional
        The porter's own, as `plan_port`.
    paces : mapping, optional
        What stages took on this shop's finished heads.
    words : Wording, optional
        Units of the sentences; inches and CFM without.

    Returns
    -------
    WorkList

    Raises
    ------
    ValueError
        The job's own list of stages cannot be read.

    References
    ----------
    Formula book of this project; minutes of looks and the share of a copy are common practice, no source.
    """
    record = record_of(findings)
    maker = _Maker(findings, record, today, factors, plan_record, words or Wording())
    ordered = tuple(sorted(linked(list(maker.all())), key=lambda item: (bool(item.waits), item.place_in_line)))
    return WorkList(record, ordered, hours_of(record, today, paces=paces), maker.weights, maker.weighed_by)


class _Maker:
    """Makes the items of one job."""

    def __init__(
        self,
        findings: Findings,
        record: Record,
        today: date,
        factors: Sequence[Factor],
        plan_record: OwnRecord | None,
        words: Wording,
    ) -> None:
        self.findings, self.record, self.job = findings, record, record.job
        self.today, self.factors, self.plan_record, self.words = today, factors, plan_record, words
        self.rank = {stage.key: i for i, stage in enumerate(record.stages)}
        self.ports = ports_in_order(self.job)

    def all(self) -> Iterator[WorkItem]:
        yield from self._preparing()
        yield from self._faults()
        for kind in dict.fromkeys(p.kind for p in self.ports):
            made = [*self._cuts(kind), *self._copies(kind)]
            yield from made
            yield from self._stages_of_metal(kind, made)
        yield from self._seats()
        yield from self._parts()
        yield from self._outside()
        yield from self._finishing()

    # -- weights

    @cached_property
    def _weighed(self) -> tuple[dict[str, float], str]:
        """What a percent of a kind's flow counts, and by what it was found."""
        by_engine = self._by_engine()
        if by_engine is not None:
            return {"intake": 1.0, "exhaust": by_engine}, "by the engine's volumetric efficiency"
        wanted, share = self._share_wanted()
        if share is None:
            return {"intake": 1.0, "exhaust": 1.0}, "exhaust share not known: both kinds count alike, an estimate"
        if share < wanted:
            return {
                "intake": 1.0,
                "exhaust": 1.0,
            }, f"exhaust share {100 * share:.0f} %, short: an estimate"
        return {"intake": 1.0, "exhaust": MET}, f"exhaust share {100 * share:.0f} %, met: an estimate"

    @property
    def weights(self) -> dict[str, float]:
        return self._weighed[0]

    @property
    def weighed_by(self) -> str:
        return self._weighed[1]

    def _flowed(self, kind: str) -> Iterator[tuple[Port, int]]:
        for port in (p for p in self.ports if p.kind == kind):
            for i in reversed(range(len(port.cuts))):
                if any(run.kind == "flow" for run in self.findings.runs_of(port.cuts[i], port)):
                    yield port, i
                    break

    def _by_engine(self) -> float | None:
        intake, exhaust = next(self._flowed("intake"), None), next(self._flowed("exhaust"), None)
        if intake is None or exhaust is None:
            return None
        port, i = intake
        run = self.findings.runs_of(port.cuts[i], port)[-1]
        try:
            engine = engine_of(self.findings, port, run)
            return None if engine.missing or engine.guessed else exhaust_weight(engine, Side(run, engine.cam))
        except Refused:
            return None

    def _share_wanted(self) -> tuple[float, float | None]:
        low, found = 0.70, next(self._flowed("exhaust"), None)
        if found is None:
            return low, None
        port, i = found
        share = exhaust_share(self.findings, port, port.cuts[i])
        return low, None if share is None else float(share.ratios.cam_weighted or share.ratios.at_peak)

    # -- looks and faults

    def _item(
        self,
        key: str,
        what: str,
        kind: ItemKind,
        stage: str,
        seconds: float,
        port: Port | None = None,
        place: str = "",
        waits: Sequence[WaitsFor] = (),
        because: str = "",
        urgent: bool = False,
    ) -> WorkItem:
        rank = self.rank.get(stage, len(self.rank))
        return WorkItem(
            key, what, kind, port, place, seconds, stage, rank, waits=tuple(waits), because=because, urgent=urgent
        )

    def _open(self, stage: str) -> tuple[StageState, ...]:
        """A stage wherever it is neither done nor out."""
        return tuple(s for s in self.record.of_stage(stage) if not s.done and s.state is not WorkState.WAITING)

    def _preparing(self) -> Iterator[WorkItem]:
        """What comes before metal is cut: cleaning, the finger and the lamp, the gauge, the scribe."""
        for state in self._open("clean"):
            yield self._item("clean", f"clean {state.of}", ItemKind.FINISH, "clean", _usual("clean"))
        for state in self._open("faults"):
            port = state.ports[0]
            what, waits = f"look {port.name} over for faults", [WaitsFor("the head is cleaned", "clean")]
            yield self._item(f"faults {port.id}", what, ItemKind.LOOK, "faults", _usual("faults"), port, waits=waits)
        for state in self._open("walls"):
            port = state.ports[0]
            for place in unread(self.findings, port):
                yield self._item(
                    _wall_key(port, place), f"read the {place} wall of {port.name}", ItemKind.LOOK, "walls", WALL, port,
                    place, [WaitsFor("the head is cleaned", "clean")],
                )  # fmt: skip
        for state in self._open("scribe"):
            port = state.ports[0]
            yield self._item(
                f"scribe {port.id}", f"scribe {port.name}", ItemKind.LOOK, "scribe", _usual("scribe"), port
            )

    def _faults(self) -> Iterator[WorkItem]:
        for port in self.ports:
            for fault in (f for f in port.faults if f.state == FaultState.OPEN):
                shop = fault.kind in MACHINE_SHOP
                name = (
                    f"{fault.kind!s} at the {fault.place} of {port.name}"
                    if fault.place
                    else f"{fault.kind} of {port.name}"
                )
                yield self._item(
                    f"fault {fault.id}",
                    f"show the machine shop the {name}" if shop else f"take off the {name}",
                    ItemKind.FAULT,
                    "casting lines" if fault.kind in LINES else "ridge",
                    FAULT,
                    port,
                    fault.place,
                    because="Nothing else on this port before it is known to be sound." if shop else "",
                    urgent=shop,
                )

    # -- metal

    def _plan_of(self, port: Port) -> Plan | None:
        try:
            return plan_port(self.findings, port, self.factors, words=self.words, record=self.plan_record)
        except Refused:
            return None

    def _cuts(self, kind: str) -> Iterator[WorkItem]:
        """Passes, seats and valves on the model port, worth what they bring on all ports of its kind."""
        model = developed_port(self.findings, kind) or next((p for p in self.ports if p.kind == kind), None)
        plan = self._plan_of(model) if model is not None else None
        if model is None or plan is None or plan.stop.now:
            return
        for move in plan.moves:
            if move.kind is MoveKind.FLOW:
                yield self._reflow(model, move)
            elif move.kind in _AS and move.gain > 0 and not plan.planned.chain.is_index:
                yield self._cut(model, move)

    def _reflow(self, model: Port, move: Move) -> WorkItem:
        what = f"flow {model.name} as it is now"
        return self._item(f"flow {model.id}", what, ItemKind.LOOK, "walls and roof", move.seconds, model)

    def _cut(self, model: Port, move: Move) -> WorkItem:
        n = sum(p.kind == model.kind for p in self.ports)
        own = move.seconds - move.flowing
        seconds = own + move.flowing + (n - 1) * COPY_LEARNS * own if move.kind is MoveKind.CUT else move.seconds
        title = _NAMED.get(move.named) or f"cut the {move.place}"
        depth = "" if move.depth is None else f", {self.words.lift(move.depth)} {self.words.lift_unit}"
        waits = [self._blocked(model, move, words) for words in move.blocked_by]
        waits += self._before_metal(model) + self._truck(model, move.place)
        brings = f"{self.words.flow(move.gain)} {self.words.flow_name}"
        many = f" on each of {n} ports, copies counted" if n > 1 else ""
        return WorkItem(
            key=f"cut {model.id} {move.place} {move.named}",
            what=f"{title} on {model.name}{depth}",
            kind=_AS[move.kind],
            port=model,
            place=move.place,
            seconds=seconds,
            stage="valve job" if move.kind is MoveKind.SEAT else "walls and roof",
            rank=self.rank.get("walls and roof", 0),
            worth=n * move.gain * self.weights[model.kind],
            flowing=move.flowing,
            depth=move.depth,
            waits=tuple(waits),
            because=f"Brings {brings}{many}.",
            guess=move.guess,
            move=move,
        )

    def _blocked(self, port: Port, move: Move, words: str) -> WaitsFor:
        return WaitsFor(words, _wall_key(port, move.place)) if words.startswith(READ_FIRST) else WaitsFor(words)

    def _before_metal(self, port: Port) -> list[WaitsFor]:
        """Nothing is cut on a head that is dirty, on a port that was not looked over, or that the machine shop has to
        see."""
        found = [WaitsFor("the head is cleaned", "clean")]
        found.append(WaitsFor(f"{port.name} is looked over for faults", f"faults {port.id}"))
        shop = [f for f in port.faults if f.state == FaultState.OPEN and f.kind in MACHINE_SHOP]
        return found + [WaitsFor(f"the machine shop sees its {f.kind}", f"fault {f.id}") for f in shop]

    def _truck(self, port: Port, place: str) -> list[WaitsFor]:
        if self.job.use == Use.TRUCK and port.kind == "intake" and place not in BLENDING:
            return [WaitsFor("a truck's exhausts come first, and its intakes stay small")]
        return []

    def _copies(self, kind: str) -> Iterator[WorkItem]:
        """The model's proven state brought onto each port that is behind."""
        model = developed_port(self.findings, kind)
        if model is None or len(model.cuts) < 2:
            return
        for port in (p for p in self.ports if p.kind == kind and p.id != model.id and p.cuts):
            wanted = [c for c in copies(self.job, model, model.cuts[-1], port) if c.answer is not Answer.NO]
            if wanted:
                yield self._copy(model, port, wanted)

    def _copy(self, model: Port, port: Port, wanted: Sequence[Copy]) -> WorkItem:
        places = list(dict.fromkeys(c.place for c in wanted))
        waits = [
            WaitsFor(f"the {place} wall of {port.name} is read", _wall_key(port, place))
            for place in dict.fromkeys(c.place for c in wanted if c.answer is Answer.READ_FIRST)
        ]
        waits += self._before_metal(port)
        gained = self._gained(model, set(places))
        timed = [op.duration for c in model.cuts if c.number for op in c.operations if op.duration]
        seconds = COPY_LEARNS * sum(timed) if timed else sum(_usual(_STAGE_OF.get(p, "guide")) for p in places)
        because = "" if gained is None else f"Brings {self.words.flow(gained)} {self.words.flow_name}, as {model.name}."
        return WorkItem(
            key=f"copy {port.id}",
            what=f"copy {listed(places)} from {model.name} onto {port.name}",
            kind=ItemKind.COPY,
            port=port,
            place=places[0],
            seconds=seconds,
            stage=_STAGE_OF.get(places[0], "walls and roof"),
            rank=self.rank.get(_STAGE_OF.get(places[0], "walls and roof"), 0),
            worth=None if gained is None else gained * self.weights[port.kind],
            waits=tuple(waits),
            because=because,
        )

    def _gained(self, model: Port, places: set[str]) -> float | None:
        """What the model gained by its work at places, from before the first of them up to its last flowed state
        [m3/s]."""
        first = next(c.number for c in model.cuts if any(places & set(op.places) for op in c.operations))
        flowed = [c for c in model.cuts if self.findings.runs_of(c, model)]
        before = [c for c in flowed if c.number < first]
        if not before or flowed[-1].number <= before[-1].number:
            return None
        gain = self.findings.gain(self.findings.pair(model, before[-1], flowed[-1]))
        return None if gain is None or gain.value is None or gain.is_share else max(gain.value, 0.0)

    def _stages_of_metal(self, kind: str, made: Sequence[WorkItem]) -> Iterator[WorkItem]:
        """Open stages that neither a move nor a copy covers: first on the model port, on the others after it."""
        model = developed_port(self.findings, kind) or next(p for p in self.ports if p.kind == kind)
        covered = {(item.port.id, item.stage) for item in made if item.port is not None and item.kind is ItemKind.COPY}
        covered |= {(model.id, _STAGE_OF.get(i.place, "walls and roof")) for i in made if i.kind is ItemKind.CUT}
        for stage in (s for s in self.record.stages if s.places and s.key not in (*LATER, "valve job")):
            for state in self._open(stage.key):
                port = state.ports[0]
                if port.kind == kind and (port.id, stage.key) not in covered:
                    yield self._stage_of_metal(stage, port, model)

    def _stage_of_metal(self, stage: Stage, port: Port, model: Port) -> WorkItem:
        waits = self._before_metal(port) + self._truck(port, stage.places[0])
        unread_there = [p for p in unread(self.findings, port) if p in stage.places]
        waits += [WaitsFor(f"the {p} wall of {port.name} is read", _wall_key(port, p)) for p in unread_there]
        if port.id != model.id:
            waits.append(WaitsFor(f"{model.name} is developed first", _stage_key(stage, model)))
        what, usual = f"work the {stage.name} of {port.name}", _usual(stage.key)
        return self._item(_stage_key(stage, port), what, ItemKind.CUT, stage.key, usual, port, stage.places[0], waits)

    # -- the shop, parts, and the end

    def _seats(self) -> Iterator[WorkItem]:
        for state in self._open("valve job"):
            what = f"cut the seats: {state.of}"
            yield self._item(
                f"seats {state.of}", what, ItemKind.SEAT, "valve job", _usual("valve job"), None, "seat",
                self._earlier(state.stage, state),
                "The maker's data go first; a seat sunk or too narrow is for the machine shop.",
            )  # fmt: skip

    def _parts(self) -> Iterator[WorkItem]:
        for part in (p for p in self.job.parts if p.state == PartState.NEEDED):
            name = part.name or part.kind
            yield self._item(f"part {part.id}", f"order {part.count} {name}", ItemKind.PART, "", CALL, place=name)

    def _outside(self) -> Iterator[WorkItem]:
        for wait in (w for w in self.job.waits if w.ended is None):
            promised = (wait.promised or "")[:10]
            if promised and date.fromisoformat(promised) < self.today:
                who = wait.who or "the shop that has it"
                what = f"ask {who} about the {wait.stage}, promised for {promised}"
                yield self._item(f"wait {wait.id}", what, ItemKind.OUTSIDE, wait.stage, CALL)

    def _finishing(self) -> Iterator[WorkItem]:
        """The stages after the cuts, each where it is open; a stage of the head waits for all of its ports."""
        for stage in self.record.stages:
            if stage.key in LATER or stage.key == "pour":
                for state in self._open(stage.key):
                    yield self._finish(stage, state)

    def _finish(self, stage: Stage, state: StageState) -> WorkItem:
        port = state.ports[0] if len(state.ports) == 1 else None
        waits = self._earlier(stage, state)
        what = f"{_ORDER.get(stage.key, stage.name)} {_of_what(state)}".strip()
        kind = ItemKind.CUT if stage.key == "chamber" else ItemKind.LOOK if stage.key == "pour" else ItemKind.FINISH
        return self._item(
            f"{stage.key} {state.of}", what, kind, stage.key, _usual(stage.key), port, waits=waits,
            because=f"{state.missing[:1].upper()}{state.missing[1:]}." if state.missing else "",
        )  # fmt: skip

    def _earlier(self, stage: Stage, state: StageState) -> list[WaitsFor]:
        """The stages before one that are still open on its ports, told as one."""
        ports = {p.id for p in state.ports}
        waits = [
            WaitsFor(f"{other.stage.name}, {other.of}")
            for other in self.record.states
            if self.rank[other.stage.key] < self.rank[stage.key]
            and other.stage.key not in _NO_HURRY
            and not other.done
            and {p.id for p in other.ports} & ports
        ]
        return waits[:1] if len(waits) < 2 else [WaitsFor(f"{waits[0].words} and {len(waits) - 1} more before it")]


_NAMED: Final = {
    "recipe": "cut a three-angle seat",
    "back cut": "back-cut the valve",
    "larger": "fit a valve 1 mm larger",
    "shape": "taper the guide boss",
    "manifold": "match the manifold's joint",
}
_AS: Final = {
    MoveKind.CUT: ItemKind.CUT,
    MoveKind.SEAT: ItemKind.SEAT,
    MoveKind.VALVE: ItemKind.VALVE,
    MoveKind.ENTRY: ItemKind.CUT,
}
_STAGE_OF: Final[Mapping[str, str]] = {
    Place.BOWL: "ridge",
    Place.THROAT: "ridge",
    Place.SHORT_SIDE: "short side",
    Place.GUIDE: "guide",
    Place.ALL_OVER: "finish",
    Place.CHAMBER: "chamber",
    Place.SEAT: "valve job",
}
_ORDER: Final = {
    "re-blend": "blend again under the seat of",
    "finish": "finish the surface of",
    "chamber": "soften the edges of chamber",
    "pour": "pour",
    "deburr": "deburr",
    "wash": "wash",
    "end list": "go through the end list",
}
_NO_HURRY: Final = ("faults", "walls", "scribe", "clean")


def _of_what(state: StageState) -> str:
    if state.stage.key == "pour" and state.unit == "chamber":
        return f"chamber {state.of}"
    return "" if state.unit == "job" else state.of


def _stage_key(stage: Stage, port: Port) -> str:
    return f"{stage.key} {port.id}"


def _wall_key(port: Port, place: str) -> str:
    return f"wall {port.id} {place}"


def _usual(stage: str) -> float:
    return MINUTE * USUAL_MINUTES.get(stage, 15)

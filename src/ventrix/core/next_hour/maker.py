"""What every item of a head's list is made from: the record, the ports in their order, and what waits for what."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import replace
from datetime import date
from typing import Final

from ventrix.core.judging.expectation import Factor
from ventrix.core.judging.findings import Findings
from ventrix.core.judging.wording import Wording
from ventrix.core.model.cut import Port
from ventrix.core.model.kinds import Direction, FaultKind, FaultState, PartState, Place
from ventrix.core.next_hour.weights import KindWeights
from ventrix.core.next_hour.work_item import ItemKind, WaitsFor, WorkItem
from ventrix.core.planning.learned import CastingPrior
from ventrix.core.planning.own_record import OwnRecord
from ventrix.core.work.hours import MINUTE, USUAL_MINUTES
from ventrix.core.work.record import Record, StageState, WorkState
from ventrix.core.work.route import ports_in_order
from ventrix.core.work.stages import Stage
from ventrix.words import tr

WALL: Final = 5 * MINUTE  # one place read
MACHINE_SHOP: Final = (FaultKind.CRACK, FaultKind.CORROSION)
LATER: Final = ("re-blend", "finish", "chamber", "deburr", "wash", "end list")
BLENDING: Final = (Place.BOWL, Place.THROAT)  # as far as a truck's intake is cut
_IS: Final = ("are", "is")
_NO_HURRY: Final = ("faults", "walls", "scribe", "clean")
STAGE_OF: Final[Mapping[str, str]] = {
    Place.BOWL: "ridge",
    Place.THROAT: "ridge",
    Place.SHORT_SIDE: "short side",
    Place.GUIDE: "guide",
    Place.ALL_OVER: "finish",
    Place.CHAMBER: "chamber",
    Place.SEAT: "valve job",
}


Learners = Mapping[Direction, Callable[[], CastingPrior | None]]


class Maker:
    """Makes items of one job."""

    def __init__(
        self,
        findings: Findings,
        record: Record,
        today: date,
        factors: Sequence[Factor],
        plan_record: OwnRecord | None,
        words: Wording,
        learners: Learners,
    ) -> None:
        self.findings, self.record, self.job = findings, record, record.job
        self.today, self.factors, self.plan_record, self.words = today, factors, plan_record, words
        self.learners = learners
        self.rank = {stage.key: i for i, stage in enumerate(record.stages)}
        self.ports = ports_in_order(self.job)
        self.weights = KindWeights(findings, self.ports)

    def item(
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
        named_fault: bool = False,
    ) -> WorkItem:
        rank = self.rank.get(stage, len(self.rank))
        return WorkItem(
            key, what, kind, port, place, seconds, stage, rank, waits=tuple(waits), because=because, urgent=urgent,
            named_fault=named_fault,
        )  # fmt: skip

    def held_by_parts(self, item: WorkItem) -> WorkItem:
        """An item that waits for parts, where its stage needs some that are not here."""
        waits = []
        for part in self.record.awaited:
            stage = self.record.waits_for(part)
            for_it = not part.port_ids or item.port is None or item.port.id in part.port_ids
            if stage is not None and stage.key == item.stage and for_it:
                until = tr(", promised for {}", part.due[:10]) if part.due else ""
                key = f"part {part.id}" if part.state == PartState.NEEDED and not part.due else ""
                waits.append(
                    WaitsFor(
                        tr("{} {} {} here{}", part.count, part.name or part.kind, _IS[part.count == 1], until), key
                    )
                )
        return replace(item, waits=(*item.waits, *waits)) if waits else item

    def open_at(self, stage: str) -> tuple[StageState, ...]:
        """A stage wherever it is neither done nor out."""
        return tuple(s for s in self.record.of_stage(stage) if not s.done and s.state is not WorkState.WAITING)

    def read_wall(self, port: Port, place: str) -> WorkItem:
        """A look at one wall of a port."""
        what, waits = tr("read the {} wall of {}", place, port.name), [WaitsFor(tr("the head is cleaned"), "clean")]
        return self.item(wall_key(port, place), what, ItemKind.LOOK, "walls", WALL, port, place, waits)

    def before_metal(self, port: Port) -> list[WaitsFor]:
        """Nothing is cut on a head that is dirty, on a port that was not looked over, or that the machine shop has to
        see."""
        found = [WaitsFor(tr("the head is cleaned"), "clean")]
        found.append(WaitsFor(tr("{} is looked over for faults", port.name), f"faults {port.id}"))
        shop = [f for f in port.faults if f.state == FaultState.OPEN and f.kind in MACHINE_SHOP]
        return found + [WaitsFor(tr("the machine shop sees its {}", f.kind), f"fault {f.id}") for f in shop]

    def earlier(self, stage: Stage, state: StageState) -> list[WaitsFor]:
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
        return (
            waits[:1] if len(waits) < 2 else [WaitsFor(tr("{} and {} more before it", waits[0].words, len(waits) - 1))]
        )


def stage_key(stage: Stage, port: Port) -> str:
    return f"{stage.key} {port.id}"


def wall_key(port: Port, place: str) -> str:
    return f"wall {port.id} {place!s}"


def usual(stage: str) -> float:
    return MINUTE * USUAL_MINUTES.get(stage, 15)

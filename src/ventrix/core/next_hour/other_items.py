"""Everything else: what comes before metal, faults, the seat shop, parts, outside work, and finishing."""

from __future__ import annotations

from collections.abc import Iterator
from datetime import date
from typing import Final

from ventrix.core.model.kinds import FaultState, PartState
from ventrix.core.next_hour.maker import LATER, MACHINE_SHOP, Maker, usual
from ventrix.core.next_hour.work_item import ItemKind, WaitsFor, WorkItem
from ventrix.core.work.hours import MINUTE
from ventrix.core.work.record import LINES, StageState, unread
from ventrix.core.work.stages import Stage
from ventrix.words import tr

FAULT: Final = 8 * MINUTE
CALL: Final = 5 * MINUTE  # a telephone call
_ORDER: Final = {
    "re-blend": tr("blend again under the seat of"),
    "finish": tr("finish the surface of"),
    "chamber": tr("soften the edges of chamber"),
    "pour": "pour",
    "deburr": "deburr",
    "wash": "wash",
    "end list": tr("go through the end list"),
}


class OtherItems:
    """Items around the metal."""

    def __init__(self, maker: Maker) -> None:
        self.maker = maker
        self.findings, self.job, self.record, self.ports = maker.findings, maker.job, maker.record, maker.ports

    def before(self) -> Iterator[WorkItem]:
        """What comes before metal is cut."""
        yield from self._preparing()
        yield from self._faults()

    def after(self) -> Iterator[WorkItem]:
        """What comes after it, and beside it."""
        yield from self._seats()
        yield from self._parts()
        yield from self._outside()
        yield from self._finishing()

    def _preparing(self) -> Iterator[WorkItem]:
        """What comes before metal is cut: cleaning, the finger and the lamp, the gauge, the scribe."""
        for state in self.maker.open_at("clean"):
            yield self.maker.item("clean", tr("clean {}", state.of), ItemKind.FINISH, "clean", usual("clean"))
        for state in self.maker.open_at("faults"):
            port = state.ports[0]
            what, waits = tr("look {} over for faults", port.name), [WaitsFor(tr("the head is cleaned"), "clean")]
            yield self.maker.item(
                f"faults {port.id}", what, ItemKind.LOOK, "faults", usual("faults"), port, waits=waits,
                named_fault=any(f.state == FaultState.OPEN for f in port.faults),
            )  # fmt: skip
        for state in self.maker.open_at("walls"):
            port = state.ports[0]
            for place in unread(self.findings, port):
                yield self.maker.read_wall(port, place)
        for state in self.maker.open_at("scribe"):
            port = state.ports[0]
            yield self.maker.item(
                f"scribe {port.id}", tr("scribe {}", port.name), ItemKind.LOOK, "scribe", usual("scribe"), port
            )

    def _faults(self) -> Iterator[WorkItem]:
        for port in self.ports:
            for fault in (f for f in port.faults if f.state == FaultState.OPEN):
                shop = fault.kind in MACHINE_SHOP
                name = (
                    tr("{!s} at the {} of {}", fault.kind, fault.place, port.name)
                    if fault.place
                    else tr("{} of {}", fault.kind, port.name)
                )
                yield self.maker.item(
                    f"fault {fault.id}",
                    tr("show the machine shop the {}", name) if shop else tr("take off the {}", name),
                    ItemKind.FAULT,
                    "casting lines" if fault.kind in LINES else "ridge",
                    FAULT,
                    port,
                    fault.place,
                    [] if shop else [WaitsFor(tr("{} is looked over for faults", port.name), f"faults {port.id}")],
                    because=tr("Nothing else on this port before it is known to be sound.") if shop else "",
                    urgent=shop,
                    named_fault=True,
                )

    def _seats(self) -> Iterator[WorkItem]:
        for state in self.maker.open_at("valve job"):
            what = tr("cut the seats: {}", state.of)
            yield self.maker.item(
                f"seats {state.of}", what, ItemKind.SEAT, "valve job", usual("valve job"), None, "seat",
                self.maker.earlier(state.stage, state),
                tr("The maker's data go first; a seat sunk or too narrow is for the machine shop."),
            )  # fmt: skip

    def _parts(self) -> Iterator[WorkItem]:
        for part in (p for p in self.job.parts if p.state == PartState.NEEDED):
            name = part.name or part.kind
            yield self.maker.item(
                f"part {part.id}", tr("order {} {}", part.count, name), ItemKind.PART, "", CALL, place=name
            )
        for part in (p for p in self.job.parts if p.state == PartState.ORDERED and p.due):
            if date.fromisoformat((part.due or "")[:10]) < self.maker.today:
                what = tr("ask about the {}, promised for {}", part.name or part.kind, (part.due or "")[:10])
                yield self.maker.item(f"late {part.id}", what, ItemKind.OUTSIDE, "", CALL, place=part.name or part.kind)

    def _outside(self) -> Iterator[WorkItem]:
        for wait in (w for w in self.job.waits if w.ended is None):
            promised = (wait.promised or "")[:10]
            if promised and date.fromisoformat(promised) < self.maker.today:
                who = wait.who or tr("the shop that has it")
                what = tr("ask {} about the {}, promised for {}", who, wait.stage, promised)
                yield self.maker.item(f"wait {wait.id}", what, ItemKind.OUTSIDE, wait.stage, CALL)

    def _finishing(self) -> Iterator[WorkItem]:
        """The stages after the cuts, each where it is open; a stage of the head waits for all of its ports."""
        for stage in self.record.stages:
            if stage.key in LATER or stage.key == "pour":
                for state in self.maker.open_at(stage.key):
                    yield self._finish(stage, state)

    def _finish(self, stage: Stage, state: StageState) -> WorkItem:
        port = state.ports[0] if len(state.ports) == 1 else None
        waits = self.maker.earlier(stage, state)
        what = f"{_ORDER.get(stage.key, stage.name)} {_of_what(state)}".strip()
        kind = ItemKind.CUT if stage.key == "chamber" else ItemKind.LOOK if stage.key == "pour" else ItemKind.FINISH
        return self.maker.item(
            f"{stage.key} {state.of}", what, kind, stage.key, usual(stage.key), port, waits=waits,
            because=f"{state.missing[:1].upper()}{state.missing[1:]}." if state.missing else "",
        )  # fmt: skip


def _of_what(state: StageState) -> str:
    if state.stage.key == "pour" and state.unit == "chamber":
        return tr("chamber {}", state.of)
    return "" if state.unit == "job" else state.of

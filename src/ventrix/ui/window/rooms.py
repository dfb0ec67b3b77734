"""Every room, in the order of work: its key, its name, the digit that opens it, and where it lives. The only list of
rooms; none is imported before it is first entered."""

from __future__ import annotations

from typing import TYPE_CHECKING, Final, NamedTuple

from ventrix.ui.window.registry import Named

if TYPE_CHECKING:
    from ventrix.ui.air.room import AirRoom
    from ventrix.ui.flow.room import FlowRoom
    from ventrix.ui.sheet.room import SheetRoom


class Door(NamedTuple):
    """A room in the rail: `apart` ones stand at its foot. `benched` ones read the bench; `keyed` ones have the keyboard
    as soon as they are entered."""

    key: str
    name: str
    digit: str
    lives: str
    apart: bool = False
    benched: bool = False
    keyed: bool = False


ROOMS: Final = (
    Door("head", "Head", "1", "ventrix.ui.head.room:HeadRoom"),
    Door("flow", "Flow", "2", "ventrix.ui.flow.room:FlowRoom", benched=True, keyed=True),
    Door("cuts", "Cuts", "3", "ventrix.ui.cuts.room:CutsRoom"),
    Door("compare", "Compare", "4", "ventrix.ui.compare.room:CompareRoom"),
    Door("air", "Air", "5", "ventrix.ui.air.room:AirRoom", benched=True, keyed=True),
    Door("plan", "Plan", "6", "ventrix.ui.plan.room:PlanRoom", keyed=True),
    Door("match", "Match", "7", "ventrix.ui.match.room:MatchRoom"),
    Door("lineup", "Line-up", "8", "ventrix.ui.lineup.room:LineUpRoom"),
    Door("sheet", "Sheet", "9", "ventrix.ui.sheet.room:SheetRoom", keyed=True),
    Door("book", "Book", "0", "ventrix.ui.book.room:BookRoom", apart=True, keyed=True),
    Door("practice", "Practice", "-", "ventrix.ui.practice.room:PracticeRoom", apart=True, keyed=True),
)

FLOW: Final[Named[FlowRoom]] = Named("flow")
AIR: Final[Named[AirRoom]] = Named("air")
SHEET: Final[Named[SheetRoom]] = Named("sheet")

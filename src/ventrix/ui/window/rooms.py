"""Every room, in the order of work: its key, its name, the digit that opens it, and where it lives. The only list of
rooms; none is imported before it is first entered."""

from __future__ import annotations

from typing import TYPE_CHECKING, Final, NamedTuple

from ventrix.ui.window.registry import Named
from ventrix.words import tr

if TYPE_CHECKING:
    from ventrix.ui.air.room import AirRoom
    from ventrix.ui.flow.room import FlowRoom
    from ventrix.ui.sheet.room import SheetRoom


class Door(NamedTuple):
    """A room in the rail, and what it `is_for`: `apart` ones stand at its foot. `benched` ones read the bench; `keyed`
    ones have the keyboard as soon as they are entered."""

    key: str
    name: str
    digit: str
    lives: str
    is_for: str
    apart: bool = False
    benched: bool = False
    keyed: bool = False


ROOMS: Final = (
    Door("head", tr("Head"), "1", "ventrix.ui.head.room:HeadRoom", tr("its sizes, walls, valves and faults")),
    Door(
        "flow",
        tr("Flow"),
        "2",
        "ventrix.ui.flow.room:FlowRoom",
        tr("readings at the bench, lift by lift"),
        benched=True,
        keyed=True,
    ),
    Door(
        "cuts", tr("Cuts"), "3", "ventrix.ui.cuts.room:CutsRoom", tr("what was ground where, and the wall that is left")
    ),
    Door(
        "compare",
        tr("Compare"),
        "4",
        "ventrix.ui.compare.room:CompareRoom",
        tr("what a cut did, and whether that is proven"),
    ),
    Door(
        "air",
        tr("Air"),
        "5",
        "ventrix.ui.air.room:AirRoom",
        tr("air speed and swirl across the port"),
        benched=True,
        keyed=True,
    ),
    Door(
        "plan",
        tr("Plan"),
        "6",
        "ventrix.ui.plan.room:PlanRoom",
        tr("the next hour, and what limits a port"),
        keyed=True,
    ),
    Door("match", tr("Match"), "7", "ventrix.ui.match.room:MatchRoom", tr("all ports alike: the board, copies, hours")),
    Door("lineup", tr("Line-up"), "8", "ventrix.ui.lineup.room:LineUpRoom", tr("manifold and gasket against the port")),
    Door(
        "sheet",
        tr("Sheet"),
        "9",
        "ventrix.ui.sheet.room:SheetRoom",
        tr("the paper that goes home with the head"),
        keyed=True,
    ),
    Door(
        "book",
        tr("Book"),
        "0",
        "ventrix.ui.book.room:BookRoom",
        tr("every job of the shop, castings, customers"),
        apart=True,
        keyed=True,
    ),
    Door(
        "practice",
        tr("Practice"),
        "-",
        "ventrix.ui.practice.room:PracticeRoom",
        tr("a head that does not exist, and lessons"),
        apart=True,
        keyed=True,
    ),
)

FLOW: Final[Named[FlowRoom]] = Named("flow")
AIR: Final[Named[AirRoom]] = Named("air")
SHEET: Final[Named[SheetRoom]] = Named("sheet")

"""Every room, in the order of work: its key, its class, the digit that opens it. The only list of rooms."""

from __future__ import annotations

from typing import Final, NamedTuple

from ventrix.ui.air.room import AirRoom
from ventrix.ui.book.room import BookRoom
from ventrix.ui.compare.room import CompareRoom
from ventrix.ui.cuts.room import CutsRoom
from ventrix.ui.flow.room import FlowRoom
from ventrix.ui.head.room import HeadRoom
from ventrix.ui.lineup.room import LineUpRoom
from ventrix.ui.match.room import MatchRoom
from ventrix.ui.plan.room import PlanRoom
from ventrix.ui.practice.room import PracticeRoom
from ventrix.ui.sheet.room import SheetRoom
from ventrix.ui.widgets.room import Room


class Door(NamedTuple):
    """A room in the rail: `apart` ones stand at its foot."""

    key: str
    room: type[Room]
    digit: str
    apart: bool = False


ROOMS: Final = (
    Door("head", HeadRoom, "1"),
    Door("flow", FlowRoom, "2"),
    Door("cuts", CutsRoom, "3"),
    Door("compare", CompareRoom, "4"),
    Door("air", AirRoom, "5"),
    Door("plan", PlanRoom, "6"),
    Door("match", MatchRoom, "7"),
    Door("lineup", LineUpRoom, "8"),
    Door("sheet", SheetRoom, "9"),
    Door("book", BookRoom, "0", apart=True),
    Door("practice", PracticeRoom, "-", apart=True),
)

"""Where an entry of the list, or a move of the plan, is done: a sheet with what is known filled in, or Flow."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any, Final, NamedTuple

from ventrix.core.model.kinds import TrialKind
from ventrix.core.next_hour.work_item import ItemKind, WorkItem
from ventrix.core.planning.moves import READ_FIRST, Move, MoveKind


class DoneAt(NamedTuple):
    """A sheet, and what it is opened with; without one a flow test, which is Flow's."""

    sheet: str = ""
    what: tuple[object, ...] = ()
    named: Mapping[str, Any] = {}


_OF_ITEM: Final = {
    ItemKind.COPY: "copy",
    ItemKind.SEAT: "seat",
    ItemKind.VALVE: "valves",
    ItemKind.PART: "job_parts",
    ItemKind.OUTSIDE: "wait",
}


def item_done_at(item: WorkItem) -> DoneAt:
    """Where an entry of the head's list is done."""
    if item.kind is ItemKind.LOOK:
        return {
            "walls": DoneAt("wall", (item.place,)),
            "faults": DoneAt("fault"),
            "pour": DoneAt("pour"),
            "scribe": DoneAt("stage", (item.stage,)),
        }.get(item.stage, DoneAt())
    if item.kind is ItemKind.CUT:
        return DoneAt("cut", (item.place,), {} if item.move is None else {"planned": item.move})
    if item.kind is ItemKind.FAULT:
        return DoneAt("fault", (item.place,))
    if item.kind is ItemKind.FINISH:
        return DoneAt("stage", (item.stage,))
    return DoneAt(_OF_ITEM.get(item.kind, "stage"))


def move_done_at(move: Move, *, is_index: bool) -> DoneAt:
    """Where a move is done; its wall is read first where that blocks it. `is_index`: its gain is in percent."""
    if READ_FIRST in move.blocked_by:
        return DoneAt("wall", (move.place,))
    if move.kind in (MoveKind.CUT, MoveKind.BATCH):
        return DoneAt("cut", (move.place,), {"planned": move, "is_index": is_index})
    if move.named == "larger":
        return DoneAt("trial", named={"kind": TrialKind.VALVE})
    return {
        MoveKind.WALL: DoneAt("wall", (move.place,)),
        MoveKind.SEAT: DoneAt("seat"),
        MoveKind.VALVE: DoneAt("valves"),
        MoveKind.CLAY: DoneAt("trial", (move.place,)),
        MoveKind.ENTRY: DoneAt("trial", named={"kind": TrialKind.ENTRY}),
    }.get(move.kind, DoneAt())

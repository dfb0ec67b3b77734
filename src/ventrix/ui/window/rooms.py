"""Every room, in the order of work: its key, its name, the digit that opens it. The only list of rooms; where a room
lives is known to the one that makes it, which imports it when it is first entered."""

from __future__ import annotations

from typing import Final, NamedTuple


class Door(NamedTuple):
    """A room in the rail: `apart` ones stand at its foot. `benched` ones read the bench; `keyed` ones have the keyboard
    as soon as they are entered."""

    key: str
    name: str
    digit: str
    apart: bool = False
    benched: bool = False
    keyed: bool = False


ROOMS: Final = (
    Door("head", "Head", "1"),
    Door("flow", "Flow", "2", benched=True, keyed=True),
    Door("cuts", "Cuts", "3"),
    Door("compare", "Compare", "4"),
    Door("air", "Air", "5", benched=True, keyed=True),
    Door("plan", "Plan", "6", keyed=True),
    Door("match", "Match", "7"),
    Door("lineup", "Line-up", "8"),
    Door("sheet", "Sheet", "9", keyed=True),
    Door("book", "Book", "0", apart=True, keyed=True),
    Door("practice", "Practice", "-", apart=True, keyed=True),
)

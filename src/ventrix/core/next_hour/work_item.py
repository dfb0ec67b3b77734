"""One thing to do next on a head: what, where, its minutes, what it is worth, and what it waits for."""

from __future__ import annotations

from dataclasses import dataclass, replace
from enum import StrEnum

from ventrix.core.model.cut import Port
from ventrix.core.planning.moves import Move
from ventrix.words import tr


class ItemKind(StrEnum):
    """What kind of thing it is."""

    LOOK = "look"
    CUT = "cut"
    COPY = "copy"
    FAULT = "fault"
    SEAT = "seat"
    VALVE = "valve"
    PART = "part"
    OUTSIDE = "outside"
    FINISH = "finish"


@dataclass(frozen=True, slots=True)
class WaitsFor:
    """What stands in the way: in words, and the key of the item that clears it, empty where none on the list does."""

    words: str
    key: str = ""


@dataclass(frozen=True, slots=True)
class WorkItem:
    """An entry of the list.

    key : its name on the list; what waits for it holds this
    what : in words, as an order; `sentence` says it with its minutes and what hangs on it
    seconds : what it takes now [s], `flowing` of it re-flowing; `copying` what bringing it onto `others` ports takes
    worth : gain over all ports, weighted by kind [m3/s], None where not known
    urgent : the casting, or somebody, is hurt without it; `named_fault` is a fault that somebody named, or the look at
        its port
    frees : how many other items wait for this one; `leads` is what an hour of the best of them is worth, with all that
        has to be cleared for it counted [m3/s per s]
    move : what a cut is made of, with its gain by lift; `places` what a copy is of, and `part` the part of it with the
        best hour, for when there is no time for all
    stage : the stage it belongs to, and `rank` that stage's place in the list
    """

    key: str
    what: str
    kind: ItemKind
    port: Port | None
    place: str
    seconds: float
    stage: str
    rank: int
    worth: float | None = None
    flowing: float = 0.0
    copying: float = 0.0
    others: int = 0
    depth: float | None = None
    waits: tuple[WaitsFor, ...] = ()
    urgent: bool = False
    named_fault: bool = False
    frees: int = 0
    leads: float = 0.0
    because: str = ""
    guess: bool = False
    move: Move | None = None
    places: tuple[str, ...] = ()
    part: WorkItem | None = None

    @property
    def rate(self) -> float:
        """Worth an hour, copies counted [m3/s per s]; zero where it is not known."""
        return 0.0 if self.worth is None else self.worth / (self.seconds + self.copying)

    @property
    def place_in_line(self) -> tuple[bool, bool, bool, float, int]:
        """Where it stands among what can be done: what is urgent, what is out and late, faults that were named, then
        worth an hour by itself or by what it frees, then the order of the stages."""
        out = self.kind is ItemKind.OUTSIDE
        return (not self.urgent, not out, not self.named_fault, -max(self.rate, self.leads), self.rank)

    @property
    def sentence(self) -> str:
        """What, how long, and what waits for it or what it waits for."""
        said = f"{self.what[:1].upper()}{self.what[1:]}, {self.seconds / 60:.0f} min."
        if self.waits:
            return tr("{} Waits for: {}.", said, "; ".join(w.words for w in self.waits))
        if self.frees:
            waiting = tr("1 thing waits") if self.frees == 1 else tr("{} things wait", self.frees)
            said = tr("{} {} for it.", said, waiting)
        return f"{said} {self.because}".rstrip()


def in_time(items: list[WorkItem], left: float) -> list[WorkItem]:
    """The items as they are worth with so much time left [s]: what is cut on a model port now counts on the others as
    far as it can still be copied, after what is there to be copied already; where there is no time to copy all of that,
    the part with the best hour comes first."""
    keys = {item.key: item for item in items}
    to_copy = sum(
        item.seconds + sum(keys[w.key].seconds for w in item.waits if w.key in keys)
        for item in items
        if item.kind is ItemKind.COPY
    )
    if to_copy > left:
        items = [item if item.part is None else item.part for item in items]
    return [_in_time(item, left - to_copy) for item in items]


def _in_time(item: WorkItem, left: float) -> WorkItem:
    if not item.others or item.copying <= 0:
        return item
    each = item.copying / item.others
    onto = int(min(max((left - item.seconds) / each, 0.0), item.others))
    if onto == item.others:
        return item
    worth = None if item.worth is None else item.worth * (1 + onto) / (1 + item.others)
    said = tr("{} There is time to bring it onto {} of the other {}.", item.because, onto or "none", item.others)
    return replace(item, worth=worth, copying=onto * each, because=said)


def linked(items: list[WorkItem]) -> list[WorkItem]:
    """The items, each told how many others wait for it and what they are worth. A wait for something that is not on the
    list is over; what only something off the list clears is freed by nothing."""
    by_key = {item.key: item for item in items}
    kept = [replace(i, waits=tuple(w for w in i.waits if not w.key or w.key in by_key)) for i in items]
    counts: dict[str, int] = {}
    leads: dict[str, float] = {}
    for item in kept:
        clearing = [by_key[wait.key] for wait in item.waits if wait.key]
        can_be_freed = item.worth is not None and len(clearing) == len(item.waits)
        takes = item.seconds + item.copying + sum(c.seconds for c in clearing)
        rate = (item.worth or 0.0) / takes if can_be_freed else 0.0
        for each in clearing:
            counts[each.key] = counts.get(each.key, 0) + 1
            leads[each.key] = max(leads.get(each.key, 0.0), rate)
    return [replace(i, frees=counts.get(i.key, 0), leads=leads.get(i.key, 0.0)) for i in kept]

"""The whole head's next hour as the Plan room shows it: one answer, a line an entry, and an evening."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from ventrix.core.next_hour.evening import evening
from ventrix.core.next_hour.work_item import WorkItem
from ventrix.core.next_hour.work_list import WorkList
from ventrix.core.quantity.units import from_si
from ventrix.core.quantity.words import sentence
from ventrix.rooms.display_units import Units
from ventrix.words import tr

HOUR: Final = 3600.0


@dataclass(frozen=True, slots=True)
class HeadLine:
    """An entry as texts: what, minutes, what it is worth and an hour of it, and what it waits for."""

    item: WorkItem
    what: str
    minutes: str
    worth: str
    an_hour: str
    waits: str


@dataclass(frozen=True, slots=True)
class HeadAnswer:
    """The strip on top, the lines below, and one sentence about the hours there are."""

    verdict: str
    reason: str
    to_go: str
    to_go_below: str
    lines: tuple[HeadLine, ...]
    filled: str


def head_answer(work: WorkList, units: Units, seconds: float | None = None) -> HeadAnswer:
    """Everything of the head's page; with so much time [s] only what fits into it."""
    chosen = work.items if seconds is None else evening(work.items, seconds)
    first, hours = work.next, work.hours
    if first is None:
        verdict, reason = tr("Nothing left that can be done now"), tr("What waits stands below.")
        if not work.items:
            verdict, reason = tr("Every stage is closed"), ""
    else:
        verdict = tr("Next: {}", first.what)
        freed = tr("{} for it. ", _things(first.frees)) if first.frees else ""
        reason = f"{from_si(first.seconds, 'min'):.0f} min. {freed}{first.because}".strip()
    first_guess = (
        tr("first guess by {} finished heads", hours.own_heads) if hours.own_heads else tr("first guess by the table")
    )
    return HeadAnswer(
        verdict,
        reason,
        tr("{:.0f} to {:.0f} h", from_si(hours.low, "h"), from_si(hours.high, "h")),
        tr("to go, {}", first_guess),
        tuple(_line(item, chosen[:i], units) for i, item in enumerate(chosen)),
        "" if seconds is None else _filled(chosen, units),
    )


def _line(item: WorkItem, before: Sequence[WorkItem], units: Units) -> HeadLine:
    cleared = {each.key for each in before} if not any(w.key == "" for w in item.waits) else set()
    waits = [w.words for w in item.waits if w.key not in cleared]
    guess = "~" if item.guess else ""
    return HeadLine(
        item,
        sentence(item.what).rstrip("."),
        f"{from_si(item.seconds, 'min'):.0f}",
        "" if item.worth is None else f"{guess}{units.flow.text(item.worth, sign=True)}",
        _an_hour(item, units),
        "; ".join(waits),
    )


def _an_hour(item: WorkItem, units: Units) -> str:
    """What an hour of it brings, or of what it frees."""
    if item.worth is not None:
        return units.flow.text(item.rate * HOUR, sign=True)
    return tr("frees {}", units.flow.text(item.leads * HOUR, sign=True)) if item.leads > 0 else ""


def _filled(chosen: Sequence[WorkItem], units: Units) -> str:
    if not chosen:
        return tr("Nothing on the list fits into that.")
    minutes = from_si(sum(item.seconds for item in chosen), "min")
    worth = sum(item.worth or 0.0 for item in chosen)
    gained = tr(", {} {} over all ports", units.flow.text(worth, sign=True), units.flow.label) if worth > 0 else ""
    things = tr("1 thing") if len(chosen) == 1 else tr("{} things", len(chosen))
    return f"{things}, {minutes:.0f} min{gained}"


def _things(count: int) -> str:
    return tr("1 thing waits") if count == 1 else tr("{} things wait", count)

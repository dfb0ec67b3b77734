"""What is next on a head as a JSON document (a contract) and as text."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from ventrix.core.next_hour.work_item import WorkItem
from ventrix.core.next_hour.work_list import WorkList
from ventrix.core.quantity.units import from_si
from ventrix.core.work.record import StageState
from ventrix.words import tr


def work_document(work: WorkList, chosen: Sequence[WorkItem]) -> dict[str, Any]:
    """JSON of a head's record, of what is next, and of its hours: minutes, h, CFM."""
    hours = work.hours
    return {
        "stages": [_stage(state) for state in work.record.states],
        "next": [_item(item) for item in chosen],
        "hours": {
            "used": from_si(hours.used, "h"),
            "low": from_si(hours.low, "h"),
            "likely": from_si(hours.likely, "h"),
            "high": from_si(hours.high, "h"),
        },
        "weights": dict(work.weights),
        "weighed_by": work.weighed_by,
    }


def _stage(state: StageState) -> dict[str, Any]:
    return {
        "stage": state.stage.key,
        "unit": state.unit.value,
        "of": state.of,
        "state": state.state.value,
        "missing": state.missing or None,
        "minutes": None if state.seconds is None else from_si(state.seconds, "min"),
        "closed_by": state.closed_by or None,
    }


def _item(item: WorkItem) -> dict[str, Any]:
    worth = None if item.worth is None else from_si(item.worth, "cfm")
    minutes = from_si(item.seconds, "min")
    return {
        "what": item.what,
        "kind": item.kind.value,
        "port": None if item.port is None else item.port.name,
        "place": item.place or None,
        "minutes": minutes,
        "worth_cfm": worth,
        "an_hour": None if worth is None else from_si(item.rate * 3600, "cfm"),
        "waits_for": [wait.words for wait in item.waits],
        "sentence": item.sentence,
    }


def work_text(work: WorkList, chosen: Sequence[WorkItem]) -> str:
    """The answer, the list, and the hours, in lines; what an entry waits for, unless one before it clears that."""
    first, hours = work.next, work.hours
    lines = [tr("Next: {}", first.sentence) if first is not None else tr("Nothing is left that can be done now.")]
    cleared: set[str] = set()
    for item in chosen:
        waits = [wait for wait in item.waits if wait.key not in cleared]
        cleared.add(item.key)
        worth = "" if item.worth is None else f"{from_si(item.worth, 'cfm'):+.1f} CFM"
        mark = "x" if waits else " "
        lines.append(f"{mark} {from_si(item.seconds, 'min'):4.0f} min {worth:>10}  {item.what}")
        lines += [tr("                       waits for: {}", wait.words) for wait in waits]
    low, high = from_si(hours.low, "h"), from_si(hours.high, "h")
    guess = tr("{} finished heads of this shop", hours.own_heads) if hours.own_heads else tr("the usual table")
    lines.append(
        tr(
            "Hours: {:.1f} used, {:.1f} to go ({:.0f} to {:.0f}, 8 in 10; first guess by {}).",
            from_si(hours.used, "h"),
            from_si(hours.likely, "h"),
            low,
            high,
            guess,
        )
    )
    lines.append(tr("Exhaust counts {:.2f} of the intake: {}.", work.weights["exhaust"], work.weighed_by))
    return "\n".join(lines)

"""Which of two moments came first, as documents write them: a day, or a day with its hour and zone."""

from __future__ import annotations

from datetime import datetime
from typing import Final

DAY: Final = len("2026-05-02")


def came_after(one: str | None, other: str | None) -> bool | None:
    """Whether `one` came after `other`; None where that is not known: one is missing, or only their common day is."""
    if not one or not other:
        return None
    try:
        moments = datetime.fromisoformat(one), datetime.fromisoformat(other)
    except ValueError:
        return None
    if all(len(text) > DAY and m.tzinfo is not None for text, m in zip((one, other), moments, strict=True)):
        return moments[0] > moments[1]
    days = one[:DAY], other[:DAY]
    return None if days[0] == days[1] else days[0] > days[1]

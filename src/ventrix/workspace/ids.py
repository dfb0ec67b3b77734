"""Ids, and the present as documents write it."""

from __future__ import annotations

import math
import uuid
from datetime import datetime


def new_id() -> str:
    """An id that no other noun has, anywhere."""
    return uuid.uuid4().hex


def now_text() -> str:
    """The present as documents write it, to the second, with the zone."""
    return datetime.now().astimezone().isoformat(timespec="seconds")


def hours_since(text: str) -> float:
    """Hours from a date as documents write it to now; infinity where it cannot be read."""
    try:
        then = datetime.fromisoformat(text)
    except ValueError:
        return math.inf
    if then.tzinfo is None:
        then = then.astimezone()
    return (datetime.now().astimezone() - then).total_seconds() / 3600

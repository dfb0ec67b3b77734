"""What every noun is: an id that never changes, and numbers in SI that know the unit documents write them in."""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any

from ventrix.words import tr

# What a porter calls nouns whose own names are not the trade's.
_CALLED = {
    "SetUp": "set-up",
    "PartOfJob": "part",
    "Binned": tr("thing in the bin"),
    "CheckMark": tr("tick of the end list"),
    "RungNote": tr("note at a lift"),
    "StepRecord": tr("step of preparing"),
    "Work": tr("work at a place"),
    "Call": "prediction",
}


def words_of(kind: type[Noun]) -> str:
    """What a porter calls a noun: "flow run"."""
    return _CALLED.get(kind.__name__, re.sub(r"(?<=[a-z])(?=[A-Z])", " ", kind.__name__).lower())


def quantity(unit: str) -> Any:
    """A dataclass field holding an SI number that documents write in `unit`."""
    return field(default=None, metadata={"unit": unit})


@dataclass(frozen=True, slots=True, kw_only=True)
class Noun:
    """Anything the book keeps: an id that never changes, and keys we did not understand."""

    id: str
    extra: Mapping[str, Any] = field(default_factory=dict)

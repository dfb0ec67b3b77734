"""What every noun is: an id that never changes, and numbers in SI that know the unit documents write them in."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any, Literal

Direction = Literal["intake", "exhaust"]


def quantity(unit: str) -> Any:
    """A dataclass field holding an SI number that documents write in `unit`."""
    return field(default=None, metadata={"unit": unit})


@dataclass(frozen=True, slots=True, kw_only=True)
class Noun:
    """Anything the book keeps: an id that never changes, and keys we did not understand."""

    id: str
    extra: Mapping[str, Any] = field(default_factory=dict)

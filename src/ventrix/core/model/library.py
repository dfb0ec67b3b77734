"""What the book keeps for every job: claimed curves, seat recipes, outlines of gaskets and faces."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any

from ventrix.core.model.kinds import Direction, LibraryKind
from ventrix.core.model.noun import Noun, quantity


@dataclass(frozen=True, slots=True, kw_only=True)
class LibraryItem(Noun):
    """One thing of the library. `document` is what it is, as job documents write it: of a claim "run" and "setup", of
    a seat recipe "seat". `price` is of a ready casting, in whatever money the shop counts in."""

    kind: LibraryKind
    name: str
    source: str = ""
    of: Direction | None = None
    price: float | None = quantity("-")
    note: str = ""
    date: str | None = None
    document: Mapping[str, Any] = field(default_factory=dict)

"""What the fields of nouns are called in a document."""

from __future__ import annotations

from dataclasses import fields
from typing import Final

from ventrix.core.model.noun import Noun
from ventrix.records.book.tables import TABLES

_UNIT_WORDS: Final = {"%": "percent"}


def _keys_of(kind: type[Noun]) -> dict[str, tuple[str, str | None]]:
    found: dict[str, tuple[str, str | None]] = {}
    for each in fields(kind):
        if each.name == "extra":
            continue
        unit = each.metadata.get("unit")
        suffix = "" if unit in (None, "-") else f"_{_UNIT_WORDS.get(unit, unit)}"
        found[each.name] = each.metadata.get("key", each.name) + suffix, unit
    return found


# Of each noun: field name to (document key, unit or None).
KEYS: Final = {kind: _keys_of(kind) for kind in TABLES}

"""Between the nouns of `core.model` and rows of the book: flattening and differences."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Any

from ventrix.core.model.noun import Noun
from ventrix.core.quantity.refused import Refused
from ventrix.records.book.tables import CHILDREN, PLAIN_FIELDS, TABLES

Key = tuple[type[Noun], str]


@dataclass(frozen=True, slots=True)
class Flat:
    """A noun with where it hangs: enough to make its row."""

    noun: Noun
    parent: str | None
    parent_id: str | None
    position: int

    @property
    def key(self) -> Key:
        return type(self.noun), self.noun.id

    def row(self) -> dict[str, Any]:
        """Column values. ValueError for a number that is not finite: it is never written."""
        values: dict[str, Any] = {"position": self.position}
        if self.parent is not None:
            values[f"{self.parent}_id"] = self.parent_id
        for name in PLAIN_FIELDS[type(self.noun)]:
            value = getattr(self.noun, name)
            for number in value if isinstance(value, tuple) else (value,):
                if isinstance(number, float) and not math.isfinite(number):
                    raise Refused("{}: not a finite number, and is not written", name)
            values[name] = list(value) if isinstance(value, tuple) else value
            if isinstance(value, Mapping):
                values[name] = dict(value)
        return values


def flatten(noun: Noun, parent: str | None = None, parent_id: str | None = None, position: int = 0) -> Iterator[Flat]:
    """A noun and everything below it, parents first."""
    yield Flat(noun, parent, parent_id, position)
    kind = type(noun)
    for name in CHILDREN.get(kind, {}):
        for i, child in enumerate(getattr(noun, name)):
            yield from flatten(child, TABLES[kind].name, noun.id, i)


@dataclass(frozen=True, slots=True)
class Changes:
    """What turns one job into another: rows to add, to change and to take away."""

    added: list[Flat]
    changed: list[Flat]
    removed: list[Flat]
    had: list[Flat]  # what the changed ones were, in their order


def changes(old: Noun | None, new: Noun | None) -> Changes:
    """The rows in which two states of a job or bench differ. Parts that are the same object are not walked."""
    before: dict[Key, Flat] = {}
    after: dict[Key, Flat] = {}
    if new is None:
        before = {f.key: f for f in flatten(old)} if old is not None else {}
    elif old is None:
        after = {f.key: f for f in flatten(new)}
    else:
        _walk(old, new, None, None, 0, 0, before, after)
    added = [f for key, f in after.items() if key not in before]
    removed = [f for key, f in before.items() if key not in after]
    changed = [f for key, f in after.items() if key in before and before[key].row() != f.row()]
    return Changes(added, changed, removed, [before[f.key] for f in changed])


def _walk(
    old: Noun,
    new: Noun,
    parent: str | None,
    parent_id: str | None,
    old_position: int,
    new_position: int,
    before: dict[Key, Flat],
    after: dict[Key, Flat],
) -> None:
    if old is new and old_position == new_position:
        return
    had_row, has_row = Flat(old, parent, parent_id, old_position), Flat(new, parent, parent_id, new_position)
    before[had_row.key] = had_row
    after[has_row.key] = has_row
    if old is new:
        return
    kind = type(new)
    table = TABLES[kind].name
    for name in CHILDREN.get(kind, {}):
        had = {child.id: (i, child) for i, child in enumerate(getattr(old, name))}
        for i, child in enumerate(getattr(new, name)):
            if child.id in had:
                j, was = had.pop(child.id)
                _walk(was, child, table, new.id, j, i, before, after)
            else:
                after.update((f.key, f) for f in flatten(child, table, new.id, i))
        for j, gone in had.values():
            before.update((f.key, f) for f in flatten(gone, table, old.id, j))

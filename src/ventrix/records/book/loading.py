"""Nouns from the book's rows: one question a table and level, whatever the number of rows."""

from __future__ import annotations

import json
from collections.abc import Sequence
from typing import Any, Final

from sqlalchemy import Column, Connection, select

from ventrix.core.model.bench import Bench
from ventrix.core.model.job import Job
from ventrix.core.model.library import LibraryItem
from ventrix.core.model.noun import Noun
from ventrix.records.book.tables import CHILDREN, LISTS, PLAIN_FIELDS, TABLES

MOST_ASKED: Final = 500  # SQLite takes a limited number of parameters


def read_json(text: str) -> Any:
    """A JSON column; nearly all of them are empty."""
    return {} if text == "{}" else [] if text == "[]" else json.loads(text)


def load_job(connection: Connection, job_id: str) -> Job | None:
    """A whole job, or None where it is not in the book."""
    table = TABLES[Job]
    rows = connection.execute(select(*_columns(Job)).where(table.c.id == job_id)).all()
    found = _nouns(connection, Job, rows)
    return found[0] if found else None


def load_benches(connection: Connection) -> tuple[Bench, ...]:
    """Every bench of the shop, by name, with the history of its checks."""
    table = TABLES[Bench]
    rows = connection.execute(select(*_columns(Bench)).order_by(table.c.name, table.c.id)).all()
    return tuple(_nouns(connection, Bench, rows))


def load_library(connection: Connection) -> tuple[LibraryItem, ...]:
    """Everything of the book's library, by kind and name."""
    table = TABLES[LibraryItem]
    asked = select(*_columns(LibraryItem)).order_by(table.c.kind, table.c.name, table.c.id)
    return tuple(_nouns(connection, LibraryItem, connection.execute(asked).all()))


def _columns(kind: type[Noun]) -> list[Column[Any]]:
    return [TABLES[kind].c[name] for name in PLAIN_FIELDS[kind]]


def _nouns(connection: Connection, kind: type[Noun], rows: Sequence[Sequence[Any]]) -> list[Any]:
    """Nouns of one kind from their rows (plain fields first), with everything that hangs from them."""
    names, lists = PLAIN_FIELDS[kind], LISTS[kind]
    at = names.index("id")
    ids = [row[at] for row in rows]
    below = {name: _below(connection, kind, child, ids) for name, child in CHILDREN.get(kind, {}).items()}
    nothing: tuple[Any, ...] = ()
    found = []
    for row in rows:
        values = dict(zip(names, row, strict=False))
        for name in lists:
            values[name] = tuple(tuple(v) if isinstance(v, list) else v for v in values[name])
        for name, children in below.items():
            values[name] = children.get(row[at], nothing)
        found.append(kind(**values))
    return found


def _below(
    connection: Connection, kind: type[Noun], child: type[Noun], ids: Sequence[str]
) -> dict[str, tuple[Any, ...]]:
    """The children of one kind by the id of what they hang from, in order."""
    table = TABLES[child]
    link = table.c[f"{TABLES[kind].name}_id"]
    rows: list[Any] = []
    for start in range(0, len(ids), MOST_ASKED):
        asked = select(*_columns(child), link).where(link.in_(ids[start : start + MOST_ASKED]))
        rows += connection.execute(asked.order_by(table.c.position, table.c.id)).all()
    if not rows:
        return {}
    found: dict[str, list[Any]] = {}
    for row, noun in zip(rows, _nouns(connection, child, rows), strict=True):
        found.setdefault(row[-1], []).append(noun)
    return {parent: tuple(nouns) for parent, nouns in found.items()}

"""Nouns from the book's rows: one question a table and level, whatever the number of rows."""

from __future__ import annotations

import json
from collections.abc import Sequence
from typing import Any, Final, NamedTuple

from sqlalchemy import JSON, Boolean, Connection

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
    found = _nouns(connection, Job, _rows(connection, Job, "id", [job_id]))
    return found[0] if found else None


def load_benches(connection: Connection) -> tuple[Bench, ...]:
    """Every bench of the shop, by name, with the history of its checks."""
    return tuple(_nouns(connection, Bench, _rows(connection, Bench, order=("name", "id"))))


def load_library(connection: Connection) -> tuple[LibraryItem, ...]:
    """Everything of the book's library, by kind and name."""
    return tuple(_nouns(connection, LibraryItem, _rows(connection, LibraryItem, order=("kind", "name", "id"))))


class _Asked(NamedTuple):
    """What is asked of a table, in plain SQL since its compiling took longer than its answer; and which of its columns
    stores keep in a form of their own."""

    start: str
    flags: tuple[int, ...]
    texts: tuple[int, ...]


_KNOWN: Final[dict[tuple[type[Noun], str], _Asked]] = {}


def _asked(kind: type[Noun], link: str) -> _Asked:
    """What is asked of a noun's table, made once."""
    if (kind, link) not in _KNOWN:
        _KNOWN[kind, link] = _made(kind, link)
    return _KNOWN[kind, link]


def _made(kind: type[Noun], link: str) -> _Asked:
    table = TABLES[kind]
    names = (*PLAIN_FIELDS[kind], *((link,) if link else ()))
    types = [table.c[name].type for name in names]
    return _Asked(
        f"SELECT {', '.join(map(_quoted, names))} FROM {_quoted(table.name)}",
        tuple(i for i, t in enumerate(types) if isinstance(t, Boolean)),
        tuple(i for i, t in enumerate(types) if isinstance(t, JSON)),
    )


def _quoted(name: str) -> str:
    return f'"{name}"'


def _rows(
    connection: Connection,
    kind: type[Noun],
    where: str = "",
    values: Sequence[str] = (),
    order: Sequence[str] = (),
    *,
    linked: bool = False,
) -> list[list[Any]]:
    """Rows of a noun's plain fields, and with `linked` what they hang from; those whose column is one of the values, or
    all."""
    start, flags, texts = _asked(kind, where if linked else "")
    mark = "?" if connection.dialect.paramstyle == "qmark" else "%s"
    among = f" WHERE {_quoted(where)} IN ({', '.join([mark] * len(values))})" if where else ""
    sorted_by = f" ORDER BY {', '.join(map(_quoted, order))}" if order else ""
    rows = [list(row) for row in connection.exec_driver_sql(f"{start}{among}{sorted_by}", tuple(values))]
    for row in rows:
        for i in flags:
            row[i] = None if row[i] is None else bool(row[i])
        for i in texts:
            row[i] = read_json(row[i]) if isinstance(row[i], str) else row[i]
    return rows


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
    link = f"{TABLES[kind].name}_id"
    rows: list[Any] = []
    for start in range(0, len(ids), MOST_ASKED):
        some = ids[start : start + MOST_ASKED]
        rows += _rows(connection, child, link, some, ("position", "id"), linked=True)
    if not rows:
        return {}
    found: dict[str, list[Any]] = {}
    for row, noun in zip(rows, _nouns(connection, child, rows), strict=True):
        found.setdefault(row[-1], []).append(noun)
    return {parent: tuple(nouns) for parent, nouns in found.items()}

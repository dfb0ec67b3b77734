"""The shop's book as tables, made from the nouns: one table a noun, its columns the noun's plain fields, in SI.

A noun hangs from the noun whose field holds it, by `<table>_id`; where several may hold it, exactly one of these is
set. Children keep their order in `position`. `extra` holds keys of documents that we did not understand.
"""

from __future__ import annotations

import re
import types
from collections.abc import Iterator, Mapping
from dataclasses import fields
from typing import Any, Final, Union, get_args, get_origin, get_type_hints

from sqlalchemy import JSON, Boolean, Column, Double, ForeignKey, Integer, MetaData, String, Table
from sqlalchemy.types import TypeEngine

from ventrix.core.model.bench import Bench
from ventrix.core.model.job import Job
from ventrix.core.model.library import LibraryItem
from ventrix.core.model.noun import Noun, words_of

METADATA: Final = MetaData(
    naming_convention={
        "ix": "ix_%(column_0_label)s",
        "uq": "uq_%(table_name)s_%(column_0_name)s",
        "ck": "ck_%(table_name)s_%(constraint_name)s",
        "fk": "fk_%(table_name)s_%(column_0_name)s_%(referred_table_name)s",
        "pk": "pk_%(table_name)s",
    }
)

# Fields that name another noun's row and are held to it. The others (a port's valve, a run's witness) may name what
# the document or a later edit still has to bring.
REFERENCES: Final = {
    ("flow_run", "setup_id"): "setup",
    ("flow_run", "mount_id"): "mount",
    ("traverse", "setup_id"): "setup",
    ("traverse", "mount_id"): "mount",
}
# What runs stand on is written before the ports that hold the runs.
FIRST: Final = ("setups", "mounts")


def table_name(kind: type[Noun]) -> str:
    """A noun's name as its table has it: `FlowRun` is "flow_run"."""
    return "setup" if kind.__name__ == "SetUp" else re.sub(r"(?<=[a-z])(?=[A-Z])", "_", kind.__name__).lower()


def words_of_table(name: str) -> str:
    """What a porter calls what a table holds: "flow run"."""
    kind = next((kind for kind in TABLES if table_name(kind) == name), None)
    return name.replace("_", " ") if kind is None else words_of(kind)


def _children_of(kind: type[Noun]) -> dict[str, type[Noun]]:
    """The fields of a noun that hold other nouns."""
    found: dict[str, type[Noun]] = {}
    for name, hint in get_type_hints(kind).items():
        inner = get_args(hint)[0] if get_origin(hint) is tuple else None
        if isinstance(inner, type) and issubclass(inner, Noun):
            found[name] = inner
    return dict(sorted(found.items(), key=lambda item: item[0] not in FIRST))


def _below(kind: type[Noun]) -> Iterator[type[Noun]]:
    yield kind
    for child in _children_of(kind).values():
        yield from _below(child)


NOUNS: Final = tuple(dict.fromkeys((*_below(Job), *_below(Bench), *_below(LibraryItem))))
CHILDREN: Final = {kind: found for kind in NOUNS if (found := _children_of(kind))}
# The fields that are columns.
PLAIN_FIELDS: Final = {
    kind: tuple(f.name for f in fields(kind) if f.name not in CHILDREN.get(kind, {})) for kind in NOUNS
}
_HINTS: Final = {kind: get_type_hints(kind) for kind in NOUNS}
# Of these, the ones that hold several values.
LISTS: Final = {
    kind: tuple(n for n in names if get_origin(_HINTS[kind][n]) is tuple) for kind, names in PLAIN_FIELDS.items()
}

_TYPES: Final[dict[Any, type[TypeEngine[Any]]]] = {str: String, float: Double, bool: Boolean, int: Integer}


def _column(table: str, name: str, hint: Any) -> Column[Any]:
    """A field as a column. TypeError for a field of a kind that no book holds."""
    options = get_args(hint) if get_origin(hint) in (Union, types.UnionType) else (hint,)
    null = type(None) in options
    (plain,) = (o for o in options if o is not type(None))
    reference = REFERENCES.get((table, name))
    if reference is not None:
        return Column(name, ForeignKey(f"{reference}.id"), nullable=null)
    if get_origin(plain) in (tuple, Mapping):
        return Column(name, JSON, nullable=False)
    for known, kind in _TYPES.items():
        if isinstance(plain, type) and issubclass(plain, known):
            return Column(name, kind, primary_key=name == "id", nullable=null)
    raise TypeError(f"{table}.{name}: {hint} has no column")


def _table(kind: type[Noun]) -> Table:
    name = table_name(kind)
    hints = _HINTS[kind]
    parents = [table_name(p) for p, held in CHILDREN.items() if kind in held.values()]
    links: list[Column[str]] = [
        Column(f"{p}_id", ForeignKey(f"{p}.id", ondelete="CASCADE"), index=True, nullable=len(parents) > 1)
        for p in parents
    ]
    own = [_column(name, field, hints[field]) for field in PLAIN_FIELDS[kind]]
    return Table(name, METADATA, *own, Column("position", Integer, nullable=False, default=0), *links)


TABLES: Final = {kind: _table(kind) for kind in NOUNS}

# How often a job, or the shop's benches, were written: how windows notice each other's edits.
REVISION: Final = Table(
    "revision",
    METADATA,
    Column("owner", String, primary_key=True),
    Column("number", Integer, nullable=False),
)

# The last edits of a job, by number: the rows each of them changed, before and after. How undo survives a restart.
ACT: Final = Table(
    "act",
    METADATA,
    Column("id", String, primary_key=True),
    Column("job_id", ForeignKey("job.id", ondelete="CASCADE"), index=True, nullable=False),
    Column("number", Integer, nullable=False),
    Column("name", String, nullable=False),
    Column("changes", JSON, nullable=False),
)

# What is found without opening a job. Made from the job by `index.py`, and made anew where the job has been written
# since: `state` says from which revisions.
JOB_INDEX: Final = Table(
    "job_index",
    METADATA,
    Column("job_id", ForeignKey("job.id", ondelete="CASCADE"), primary_key=True),
    Column("state", String, nullable=False),
    Column("text", String, nullable=False),
    Column("casting", String, nullable=False),
    Column("date", String),
    Column("cuts", Integer, nullable=False),
    Column("runs", Integer, nullable=False),
    Column("hours", Double),
    Column("evidence", JSON, nullable=False),
    Column("outcomes", JSON, nullable=False),
    Column("powers", JSON, nullable=False),
)

# Every flowed cut, by its last run: sizes, conditions, and the curve as tested.
CUT_INDEX: Final = Table(
    "cut_index",
    METADATA,
    Column("cut_id", ForeignKey("cut.id", ondelete="CASCADE"), primary_key=True),
    Column("job_id", ForeignKey("job.id", ondelete="CASCADE"), index=True, nullable=False),
    Column("port_name", String, nullable=False),
    Column("direction", String, nullable=False),
    Column("number", Integer, nullable=False),
    Column("name", String, nullable=False),
    Column("newest", Boolean, nullable=False),
    Column("section", Double, index=True),
    Column("throat", Double, index=True),
    Column("valve", Double, index=True),
    Column("volume", Double, index=True),
    Column("is_share", Boolean, nullable=False),
    Column("setup", JSON, nullable=False),
    Column("gain", Double),
    Column("seconds", Double),
    Column("curve", JSON, nullable=False),
)

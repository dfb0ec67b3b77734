"""The last edits of a job as the book keeps them: which rows each changed, so that undo survives a restart."""

from __future__ import annotations

import uuid
from collections.abc import Mapping
from typing import Any, Final, NamedTuple

from sqlalchemy import Connection, delete, func, insert, select

from ventrix.core.model.job import Job
from ventrix.core.model.noun import Noun
from ventrix.core.quantity.refused import Refused
from ventrix.records.book.rows import Changes, flatten
from ventrix.records.book.tables import ACT, CHILDREN, LISTS, NOUNS, PLAIN_FIELDS, TABLES

KEPT: Final = 50  # acts of a job


class Act(NamedTuple):
    """An edit that was stored: its id, and what undo calls it."""

    id: str
    name: str


Row = dict[str, Any]
Key = tuple[str, str]  # name of the noun's kind, id
_KINDS: Final = {kind.__name__: kind for kind in NOUNS}


def store_act(connection: Connection, act: Act, job_id: str, changes: Changes) -> None:
    """Keep an edit with the rows it changed; the oldest of more than fifty goes."""
    rows: list[dict[str, Any]] = []
    for flat in changes.removed:
        rows.append({"kind": type(flat.noun).__name__, "id": flat.noun.id, "before": flat.row(), "after": None})
    for flat in changes.added:
        rows.append({"kind": type(flat.noun).__name__, "id": flat.noun.id, "before": None, "after": flat.row()})
    for had, has in zip(changes.had, changes.changed, strict=True):
        rows.append({"kind": type(has.noun).__name__, "id": has.noun.id, "before": had.row(), "after": has.row()})
    last = connection.execute(select(func.max(ACT.c.number)).where(ACT.c.job_id == job_id)).scalar() or 0
    connection.execute(insert(ACT).values(id=act.id, job_id=job_id, number=last + 1, name=act.name, changes=rows))
    connection.execute(delete(ACT).where(ACT.c.job_id == job_id, ACT.c.number <= last + 1 - KEPT))


def forget_act(connection: Connection, act_id: str) -> None:
    """Take an act out: it was undone."""
    connection.execute(delete(ACT).where(ACT.c.id == act_id))


def acts_of(connection: Connection, job_id: str) -> list[Act]:
    """The kept acts of a job, oldest first."""
    found = select(ACT.c.id, ACT.c.name).where(ACT.c.job_id == job_id).order_by(ACT.c.number)
    return [Act(row.id, row.name) for row in connection.execute(found)]


def changes_of(connection: Connection, act_id: str) -> list[dict[str, Any]] | None:
    """The rows an act changed, or None where it is no longer kept."""
    return connection.execute(select(ACT.c.changes).where(ACT.c.id == act_id)).scalar()


def new_act(name: str) -> Act:
    """An act with an id of its own."""
    return Act(uuid.uuid4().hex, name)


def recalled(job: Job, changes: list[dict[str, Any]]) -> tuple[Job, Job]:
    """The job as an act found it and as it left it: the present one, with the rows of that act as they were.

    Raises
    ------
    ValueError
        What the act changed hangs from something that is no longer there.
    """
    now: dict[Key, Row] = {(type(f.noun).__name__, f.noun.id): f.row() for f in flatten(job)}
    sides = []
    for side in ("before", "after"):
        rows = dict(now)
        for change in changes:
            key = str(change["kind"]), str(change["id"])
            rows.pop(key, None)
            if change[side] is not None:
                rows[key] = change[side]
        sides.append(_rebuilt(rows, job.id))
    return sides[0], sides[1]


def _rebuilt(rows: Mapping[Key, Row], job_id: str) -> Job:
    below: dict[tuple[type[Noun], str, str], list[Row]] = {}
    for (name, _), row in rows.items():
        kind = _KINDS[name]
        for parent, held in CHILDREN.items():
            link = row.get(f"{TABLES[parent].name}_id")
            if kind in held.values() and link is not None:
                below.setdefault((kind, TABLES[parent].name, link), []).append(row)
    found = rows.get((Job.__name__, job_id))
    if found is None:
        raise Refused("the job is no longer there")
    built = _noun(Job, found, below)
    assert isinstance(built, Job)
    return built


def _noun(kind: type[Noun], row: Row, below: Mapping[tuple[type[Noun], str, str], list[Row]]) -> Any:
    values = {name: row[name] for name in PLAIN_FIELDS[kind] if name in row}
    for name in LISTS[kind]:
        values[name] = tuple(values[name])
    for name, child in CHILDREN.get(kind, {}).items():
        held = sorted(below.get((child, TABLES[kind].name, row["id"]), []), key=lambda r: (r["position"], r["id"]))
        values[name] = tuple(_noun(child, each, below) for each in held)
    return kind(**values)

"""Between the nouns of `core.model` and rows of the book: flattening, differences, rebuilding."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, fields
from typing import Any

from ventrix.core import bench_record, model
from ventrix.records import tables

TABLES: dict[type[model.Noun], type[tables.Base]] = {
    model.Job: tables.JobRow,
    model.Valve: tables.ValveRow,
    model.SetUp: tables.SetUpRow,
    model.Mount: tables.MountRow,
    model.Port: tables.PortRow,
    model.Cut: tables.CutRow,
    model.Operation: tables.OperationRow,
    model.Trial: tables.TrialRow,
    model.FlowRun: tables.FlowRunRow,
    model.Reading: tables.ReadingRow,
    model.Pour: tables.PourRow,
    model.WallReading: tables.WallReadingRow,
    model.Traverse: tables.TraverseRow,
    model.ProbePoint: tables.ProbePointRow,
    model.Observation: tables.ObservationRow,
    model.StepRecord: tables.StepRecordRow,
    model.RungNote: tables.RungNoteRow,
    model.Station: tables.StationRow,
    model.Photo: tables.PhotoRow,
    model.CamPoint: tables.CamPointRow,
    model.Target: tables.TargetRow,
    model.WallLimit: tables.WallLimitRow,
    model.CheckMark: tables.CheckMarkRow,
    bench_record.Bench: tables.BenchRow,
    bench_record.PlateCheck: tables.PlateCheckRow,
    bench_record.ScatterStudy: tables.ScatterStudyRow,
    bench_record.StudyReading: tables.StudyReadingRow,
    bench_record.Transfer: tables.TransferRow,
    bench_record.TransferPart: tables.TransferPartRow,
}
# The fields of a noun that hold other nouns.
CHILDREN: dict[type[model.Noun], dict[str, type[model.Noun]]] = {
    model.Job: {
        "setups": model.SetUp,  # before the runs that stand on them
        "mounts": model.Mount,
        "valves": model.Valve,
        "ports": model.Port,
        "cam_points": model.CamPoint,
        "targets": model.Target,
        "wall_limits": model.WallLimit,
        "check_marks": model.CheckMark,
        "photos": model.Photo,
    },
    model.Port: {"cuts": model.Cut},
    model.Cut: {
        "operations": model.Operation,
        "trials": model.Trial,
        "runs": model.FlowRun,
        "pours": model.Pour,
        "stations": model.Station,
        "photos": model.Photo,
        "walls": model.WallReading,
        "traverses": model.Traverse,
        "observations": model.Observation,
    },
    model.Trial: {"runs": model.FlowRun},
    model.FlowRun: {"readings": model.Reading, "steps": model.StepRecord, "rung_notes": model.RungNote},
    model.Traverse: {"points": model.ProbePoint},
    bench_record.Bench: {
        "plates": bench_record.PlateCheck,
        "studies": bench_record.ScatterStudy,
        "transfers": bench_record.Transfer,
    },
    bench_record.ScatterStudy: {"readings": bench_record.StudyReading},
    bench_record.Transfer: {"parts": bench_record.TransferPart},
}


# The fields that are columns.
PLAIN_FIELDS: dict[type[model.Noun], tuple[str, ...]] = {
    kind: tuple(f.name for f in fields(kind) if f.name not in CHILDREN.get(kind, {})) for kind in TABLES
}


def table_name(kind: type[model.Noun]) -> str:
    return str(TABLES[kind].__tablename__)


Key = tuple[type[model.Noun], str]


@dataclass(frozen=True, slots=True)
class Flat:
    """A noun with where it hangs: enough to make its row."""

    noun: model.Noun
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
                    raise ValueError(f"{name}: not a finite number, and is not written")
            values[name] = list(value) if isinstance(value, tuple) else value
            if isinstance(value, Mapping):
                values[name] = dict(value)
        return values


def flatten(
    noun: model.Noun, parent: str | None = None, parent_id: str | None = None, position: int = 0
) -> Iterator[Flat]:
    """A noun and everything below it, parents first."""
    yield Flat(noun, parent, parent_id, position)
    kind = type(noun)
    for name in CHILDREN.get(kind, {}):
        for i, child in enumerate(getattr(noun, name)):
            yield from flatten(child, table_name(kind), noun.id, i)


@dataclass(frozen=True, slots=True)
class Changes:
    """What turns one job into another: rows to add, to change and to take away."""

    added: list[Flat]
    changed: list[Flat]
    removed: list[Flat]


def changes(old: model.Noun | None, new: model.Noun | None) -> Changes:
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
    return Changes(added, changed, removed)


def _walk(
    old: model.Noun,
    new: model.Noun,
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
    table = table_name(kind)
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


Children = Mapping[tuple[str, str, str], list[Any]]


def build(kind: type[model.Noun], row: Any, children: Children) -> Any:
    """A noun from its row of columns; `children` holds rows by (table, parent table, parent id)."""
    values = {name: row[name] for name in PLAIN_FIELDS[kind]}
    for name, value in values.items():
        if isinstance(value, list):
            values[name] = tuple(value)
    for name, child in CHILDREN.get(kind, {}).items():
        rows = children.get((table_name(child), table_name(kind), row["id"]), [])
        values[name] = tuple(build(child, r, children) for r in rows)
    return kind(**values)

"""The matching of a foreign table: what was guessed, what can be changed about it, and what is remembered."""

from __future__ import annotations

import json
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

from ventrix.core.model.job import Job
from ventrix.core.model.kinds import Direction
from ventrix.records.files.column_guess import guess_layout
from ventrix.records.files.grid import Grid
from ventrix.records.files.layout import ColumnPlan, DecimalMark, Layout, Role, layout_sentence, letters, signature
from ventrix.records.files.layout_reading import Read, Refused, read_by
from ventrix.words import tr
from ventrix.workspace.bring_in_table import Goal

ROLE_WORDS = {
    Role.LIFT: "lift",
    Role.FLOW: "flow",
    Role.PERCENT: tr("percent of a range"),
    Role.PRESSURE: tr("test pressure"),
    Role.SWIRL: "swirl",
    Role.NOTHING: "nothing",
}
_NEVER = tr("no column or row of it rises like lifts do: choose which one holds the lifts")


@dataclass(frozen=True, slots=True)
class Match:
    """A table being matched: the grid, how it is read, and what that gives."""

    grid: Grid
    layout: Layout
    read: Read
    guessed: str
    remembered: bool = False

    def blocking(self, goals: Sequence[Goal]) -> tuple[Refused, ...]:
        """The refused cells that stand in the way: those of runs that are left out do not."""
        out = {run.column for run, goal in zip(self.read.runs, goals, strict=False) if goal.left_out}
        across = self.layout.across
        return tuple(c for c in self.read.refused if (c.row if across else c.column) not in out)

    def problem(self, goals: Sequence[Goal]) -> str:
        """Why it cannot be brought in as it is read now; empty where it can."""
        if not self.read.runs:
            return tr("No run can be read: choose the lifts and at least one flow.")
        count = len(self.blocking(goals))
        if count:
            cells = tr("{} cell{} cannot be taken", count, "s" * (count != 1))
            return tr("{}: type over what is marked, or leave its run out.", cells)
        return ""


def begin(grid: Grid, flow_unit: str, memory: str = "") -> Match:
    """Guess a table, or read it as one of its layout was read last time."""
    layout = guess_layout(grid, flow_unit)
    if layout is None:
        columns = tuple(
            ColumnPlan(Role.NOTHING, name=tr("column {}", letters(i)), unit=flow_unit) for i in range(grid.width)
        )
        layout = Layout(False, 0, len(grid.rows), DecimalMark.POINT, "in", columns)
        return Match(grid, layout, Read((), ()), _NEVER)
    kept = remembered(memory).get(signature(grid, layout))
    if kept is not None:
        known = _restored(layout, kept)
        if known is not None:
            said = tr("Read as last time: {}.", layout_sentence(grid, known))
            return Match(grid, known, read_by(grid, known), said, True)
    said = layout_sentence(grid, layout)
    return Match(grid, layout, read_by(grid, layout), tr("Guessed: {}.", said))


def changed(match: Match, layout: Layout) -> Match:
    """The table read another way."""
    said = tr("Chosen: {}.", layout_sentence(match.grid, layout)) if layout.lift_columns else match.guessed
    return replace(match, layout=layout, read=read_by(match.grid, layout), guessed=said)


def with_cell(match: Match, row: int, column: int, text: str) -> Match:
    """The table with one cell put right."""
    rows = [list(r) for r in match.grid.rows]
    rows[row][column] = " ".join(text.removeprefix("✕").split())
    grid = match.grid._replace(rows=tuple(tuple(r) for r in rows))
    return changed(replace(match, grid=grid), match.layout)


def with_role(match: Match, column: int, role: Role) -> Match:
    """A column taken for something else. There is one column of lifts to the left of each flow."""
    columns = list(match.layout.columns)
    columns[column] = replace(columns[column], role=role)
    return changed(match, replace(match.layout, columns=tuple(columns)))


def turned_round(match: Match, flow_unit: str) -> Match:
    """Lifts along the other way: guessed anew with rows for columns."""
    layout = match.layout
    table = Grid(tuple(zip(*match.grid.rows, strict=True)), match.grid.name) if not layout.across else match.grid
    found = guess_layout(table, flow_unit)
    if found is not None and not found.across:
        return changed(match, replace(found, across=not layout.across))
    width = table.width
    columns = tuple(ColumnPlan(Role.NOTHING, name=tr("column {}", letters(i)), unit=flow_unit) for i in range(width))
    return changed(match, Layout(not layout.across, 0, len(table.rows), layout.decimal, layout.lift_unit, columns))


def remembered(memory: str) -> Mapping[str, Any]:
    """Layouts as they were chosen before, by what makes a table of that layout."""
    try:
        found = json.loads(memory) if memory else {}
    except ValueError:
        return {}
    return found if isinstance(found, dict) else {}


def remember(memory: str, match: Match) -> str:
    """The memory with this table's layout in it; the oldest of more than forty goes."""
    found = dict(remembered(memory))
    key = signature(match.grid, match.layout)
    found.pop(key, None)
    found[key] = {
        "lift_unit": match.layout.lift_unit,
        "decimal": match.layout.decimal,
        "roles": [c.role.value for c in match.layout.columns],
        "units": [c.unit for c in match.layout.columns],
        "kinds": [c.kind for c in match.layout.columns],
        "scales": [c.full_scale for c in match.layout.columns],
    }
    return json.dumps(dict(list(found.items())[-40:]))


def _restored(layout: Layout, kept: Any) -> Layout | None:
    """The layout with what was chosen before; None where what was kept does not fit it."""
    try:
        columns = tuple(
            replace(c, role=Role(role), unit=str(unit), kind=Direction(kind) if kind else None,
                    full_scale=float(scale) if isinstance(scale, int | float) else None)
            for c, role, unit, kind, scale in zip(
                layout.columns, kept["roles"], kept["units"], kept["kinds"], kept["scales"], strict=True
            )
        )  # fmt: skip
        lift_unit = str(kept["lift_unit"])
    except (KeyError, TypeError, ValueError):
        return None
    if lift_unit not in ("in", "mm", "thou"):
        return None
    return replace(layout, columns=columns, lift_unit=lift_unit)


def goal_choices(job: Job) -> list[tuple[str, Goal]]:
    """Everywhere that a run may go, in words."""
    found: list[tuple[str, Goal]] = []
    for port in (p for p in job.ports if p.of_head):
        for cut in port.cuts:
            name = tr("{}, cut {} {}", port.name, cut.number, cut.name).strip()
            found.append((name + (" (flowed)" if cut.runs else ""), Goal(port.kind, port.id, cut.id)))
        found.append((tr("{}, a new cut", port.name), Goal(port.kind, port.id)))
    found.append((tr("a new intake port"), Goal(Direction.INTAKE)))
    found.append((tr("a new exhaust port"), Goal(Direction.EXHAUST)))
    found.append((tr("leave it out"), Goal(Direction.INTAKE, left_out=True)))
    return found

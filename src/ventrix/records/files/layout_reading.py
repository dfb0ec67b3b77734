"""A foreign table read by its layout: runs, and every cell that could not be taken."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import NamedTuple

from ventrix.core.model.kinds import Direction
from ventrix.core.quantity.units import from_si, parse_quantity
from ventrix.core.runs.lifts import USUAL_LIFT
from ventrix.records.files.grid import Grid
from ventrix.records.files.layout import ColumnPlan, Layout, Role, number_in, turned
from ventrix.words import tr


class Refused(NamedTuple):
    """A cell that cannot be taken, and why."""

    row: int
    column: int
    text: str
    why: str


class ReadRow(NamedTuple):
    """A lift [m] and what was read there: a flow [m3/s], or a share of a range; SI."""

    lift: float
    flow: float | None
    share: float | None
    full_scale: float | None
    pressure: float | None
    swirl: float | None


@dataclass(frozen=True, slots=True)
class ReadRun:
    """One run of a table."""

    column: int
    name: str
    kind: Direction | None
    rows: tuple[ReadRow, ...]


@dataclass(frozen=True, slots=True)
class Read:
    """What a layout makes of a table: runs, and every cell that was refused. Runs count only where none was."""

    runs: tuple[ReadRun, ...]
    refused: tuple[Refused, ...]


def read_by(grid: Grid, layout: Layout) -> Read:
    """Every run of a table by a layout, and every cell that could not be taken."""
    table = turned(grid) if layout.across else grid
    refused: list[Refused] = []
    runs: list[ReadRun] = []
    lift_at: int | None = None
    extra = _beside(layout)
    for i, plan in enumerate(layout.columns[: table.width]):
        if plan.role is Role.LIFT:
            lift_at = i
        if plan.role not in (Role.FLOW, Role.PERCENT):
            continue
        at = lift_at if lift_at is not None else next(iter(layout.lift_columns), None)
        if at is None:
            continue
        rows = []
        for r in range(layout.first_row, min(layout.last_row, len(table.rows))):
            row = _read_row(table, layout, r, at, i, plan, extra, refused)
            if row is not None:
                rows.append(row)
        if rows:
            runs.append(ReadRun(i, plan.name, plan.kind, tuple(rows)))
    once = dict.fromkeys(Refused(*_turned_cell(c, layout.across)) for c in refused)
    return Read(tuple(runs), tuple(once))


def _turned_cell(cell: Refused, across: bool) -> Refused:
    return cell._replace(row=cell.column, column=cell.row) if across else cell


def _beside(layout: Layout) -> dict[Role, int | None]:
    """Columns of pressure and swirl: they speak for every run where there is one of a kind."""
    found: dict[Role, int | None] = {}
    for role in (Role.PRESSURE, Role.SWIRL):
        at = [i for i, c in enumerate(layout.columns) if c.role is role]
        found[role] = at[0] if len(at) == 1 else None
    return found


def _read_row(
    table: Grid,
    layout: Layout,
    r: int,
    lift_at: int,
    at: int,
    plan: ColumnPlan,
    extra: dict[Role, int | None],
    refused: list[Refused],
) -> ReadRow | None:
    """A row of one run; None where its flow is empty, or something in it was refused."""
    cell, lift_cell = table.at(r, at), table.at(r, lift_at)
    if not cell.strip() or cell.strip() in ("-", "–", "n/a", "N/A"):
        return None

    def refuse(column: int, why: str) -> None:
        refused.append(Refused(r, column, table.at(r, column), why))

    lift, value = number_in(lift_cell, layout.decimal), number_in(cell, layout.decimal)
    if lift is None:
        refuse(lift_at, tr("is not a lift") if lift_cell.strip() else tr("has a flow beside it and no lift"))
        return None
    metres = parse_quantity(f"{lift:.12g}", layout.lift_unit)
    if not 0 < metres <= USUAL_LIFT * (1 + 1e-9):
        if lift == 0:
            return None  # a row of nothing at lift nought
        refuse(lift_at, tr("is {:.4g} mm: a valve does not lift that far", from_si(metres, "mm")))
        return None
    if value is None:
        refuse(at, tr("is not a number"))
        return None
    if value < 0 or (value == 0 and plan.role is Role.FLOW):
        refuse(at, tr("is not above zero"))
        return None
    flow = share = scale = None
    if plan.role is Role.PERCENT:
        if plan.full_scale is None:
            refuse(at, tr("is percent, and its range is not given"))
            return None
        share, scale = value / 100, parse_quantity(f"{plan.full_scale:.12g}", "cfm")
    else:
        flow = parse_quantity(f"{value:.12g}", plan.unit or "cfm")
        if from_si(flow, "cfm") > 4000:
            refuse(at, tr("is more than any bench flows"))
            return None
    pressure = _side_figure(table, layout, r, extra[Role.PRESSURE], refuse)
    swirl = _side_figure(table, layout, r, extra[Role.SWIRL], refuse)
    return ReadRow(metres, flow, share, scale, pressure, swirl)


def _side_figure(
    table: Grid, layout: Layout, r: int, column: int | None, refuse: Callable[[int, str], None]
) -> float | None:
    if column is None or not table.at(r, column).strip():
        return None
    value = number_in(table.at(r, column), layout.decimal)
    plan = layout.columns[column]
    if value is None or (plan.role is Role.PRESSURE and value <= 0):
        refuse(column, tr("is not a number") if value is None else tr("is not above zero"))
        return None
    return parse_quantity(f"{value:.12g}", plan.unit)

"""A pasted table of lifts and readings, by its headings where it has them."""

from __future__ import annotations

import re
from dataclasses import dataclass
from typing import Final, NamedTuple

from ventrix.core.model.kinds import Direction
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import parse_quantity
from ventrix.records.files.column_guess import kind_said, lift_unit_said, role_said
from ventrix.records.files.layout import FLOW_UNITS, PRESSURE_UNITS, Role, unit_in
from ventrix.words import tr

MOST_ROWS: Final = 400


class Row(NamedTuple):
    """A lift [m], its reading [SI], the test pressure [Pa] and the swirl [rad/s] where they stood beside it."""

    lift: float
    reading: float
    pressure: float | None = None
    swirl: float | None = None


@dataclass(frozen=True, slots=True)
class Pasted:
    """The rows of a table, and what was said of its columns: which was read, which were left out."""

    rows: list[Row]
    said: str = ""


class Unnamed(Refused):
    """A table whose third column nobody named."""


@dataclass(frozen=True, slots=True)
class _Columns:
    """Which column holds what, and the units that the headings name."""

    lift: int
    reading: int
    pressure: int | None
    swirl: int | None
    lift_unit: str
    reading_unit: str
    pressure_unit: str
    said: str = ""


def parse_pasted(
    text: str,
    lift_unit: str,
    reading_unit: str,
    pressure_unit: str,
    kind: Direction | None = None,
    *,
    third_is_pressure: bool = False,
) -> Pasted:
    """A table from the clipboard or a box: lift, reading, and what else its headings name.

    `kind` is the port's: of a table with a column for intakes and one for exhausts, its own is read. Units are those of
    the headings, else the ones given. Without headings a third column is the pressure only where that was said.

    Raises
    ------
    Unnamed
        Three columns and no headings.
    Refused
        With a sentence that names the row: nothing there, one column, or not a number.
    """
    lines = [line for line in text.splitlines() if line.strip()]
    if not lines:
        raise Refused("the clipboard holds no table")
    if len(lines) > MOST_ROWS:
        raise Refused("the table has more than {} rows", MOST_ROWS)
    table = [_cells(line) for line in lines]
    usual = _Columns(0, 1, None, None, lift_unit, reading_unit, pressure_unit)
    first = 0
    if not re.search(r"\d", table[0][0]) and table[0][0]:
        first = 1
        columns = _named(table[0], usual, kind)
    else:
        columns = _unnamed(table, usual, third_is_pressure)
    rows = [_row(n, cells, columns) for n, cells in enumerate(table[first:], first + 1)]
    if not rows:
        raise Refused("the table has no rows of figures")
    return Pasted(rows, columns.said)


def _cells(line: str) -> list[str]:
    cells = [c.strip() for c in re.split(r"\t|;|,(?=\s)|\s{2,}", line.strip())]
    return cells if len(cells) > 1 else line.replace(",", " ").split() or [""]


def _unnamed(table: list[list[str]], usual: _Columns, third_is_pressure: bool) -> _Columns:
    width = max(len(cells) for cells in table)
    if width == 2 or (width == 3 and third_is_pressure):
        return _Columns(0, 1, 2 if width == 3 else None, None, usual.lift_unit, usual.reading_unit, usual.pressure_unit)
    if width < 2:
        raise Refused("row 1 has one column: lift and reading are needed")
    raise Unnamed(
        tr("{} columns without headings: put a first row above them, as lift, intake, exhaust or lift, CFM, inH2O"),
        width,
    )


def _named(headings: list[str], usual: _Columns, kind: Direction | None) -> _Columns:
    roles = [role_said(h) for h in headings]
    lift = next((i for i, r in enumerate(roles) if r is Role.LIFT), 0)
    flows = [i for i, r in enumerate(roles) if i != lift and r in (None, Role.PERCENT)]
    own = [i for i in flows if kind_said(headings[i]) in (kind, None)]
    if not flows or not own:
        raise Refused("no column is headed by this {}'s flow: {}", kind or "port", ", ".join(headings))
    named = [i for i in own if kind_said(headings[i]) is not None] or own
    if len(named) > 1:
        raise Refused("which column is this port's? The table has {}", ", ".join(headings[i] for i in named))
    reading = named[0]
    found = {r: i for i, r in enumerate(roles) if r in (Role.PRESSURE, Role.SWIRL)}
    pressure, swirl = found.get(Role.PRESSURE), found.get(Role.SWIRL)
    left = [headings[i] for i in flows if i != reading]
    return _Columns(
        lift,
        reading,
        pressure,
        swirl,
        lift_unit_said(headings[lift], []) or usual.lift_unit,
        unit_in(headings[reading], FLOW_UNITS, usual.reading_unit),
        usual.pressure_unit if pressure is None else unit_in(headings[pressure], PRESSURE_UNITS, usual.pressure_unit),
        tr("Read from the column {}; {} was left out.", headings[reading], ", ".join(left)) if left else "",
    )


def _row(number: int, cells: list[str], columns: _Columns) -> Row:
    def figure(at: int | None, unit: str) -> float | None:
        return parse_quantity(cells[at], unit) if at is not None and at < len(cells) and cells[at] else None

    try:
        lift, reading = figure(columns.lift, columns.lift_unit), figure(columns.reading, columns.reading_unit)
        pressure = figure(columns.pressure, columns.pressure_unit)
        swirl = figure(columns.swirl, "rpm")
    except Refused as error:
        raise Refused("row {}: {}", number, error) from None
    if lift is None or reading is None:
        raise Refused("row {} has one column: lift and reading are needed", number)
    if lift <= 0 or reading <= 0 or (pressure is not None and pressure <= 0):
        raise Refused("row {}: figures must be above zero", number)
    return Row(lift, reading, pressure, swirl)

"""Which column of a table is what: guessed from headings and figures."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import replace
from itertools import pairwise
from typing import Final

from ventrix.core.model.kinds import Direction
from ventrix.records.files.grid import Grid
from ventrix.records.files.layout import (
    FLOW_UNITS,
    PRESSURE_UNITS,
    ColumnPlan,
    DecimalMark,
    Layout,
    Role,
    letters,
    number_in,
    turned,
    unit_in,
)
from ventrix.records.files.table_conditions import conditions_beside, states_something
from ventrix.words import tr

LARGEST_IN: Final = 1.2  # a lift in inches; what is larger is millimetres or thousandths
LARGEST_MM: Final = 30.0
# Words of headings, in small letters.
_LIFT_WORDS: Final = re.compile(r"\blift\b|\bl/d\b|valve opening|\bopening\b")
_PERCENT_WORDS: Final = re.compile(r"%|percent|\bpct\b")
_PRESSURE_WORDS: Final = re.compile(r"in ?h2o|mm ?h2o|inwc|\bpa\b|\bkpa\b|mbar|depression|test press|\bpressure\b")
_SWIRL_WORDS: Final = re.compile(r"swirl|tumble|\brpm\b")
_INTAKE_WORDS: Final = re.compile(r"\bint(ake)?s?\b|\binlets?\b|\bin\.? port\b")
_EXHAUST_WORDS: Final = re.compile(r"\bexh?(aust)?s?\b|\boutlets?\b")
_NOTHING_WORDS: Final = re.compile(
    r"\bcd\b|gain|differ|\bavg\b|average|velocity|\bft/s\b|\bnote|remark|comment|ratio|\be/i\b"
)
_UNIT_WORDS: Final = re.compile(
    r"\(?\b(cfm|l/s|lps|m3/h|inches|inch|thou|thousandths|mm|percent|%|flow|lift|@)\b\)?|[%\"()\[\]]", re.IGNORECASE
)


def role_said(heading: str) -> Role | None:
    """What a heading says its column holds; None where it says nothing of the sort, as flows mostly do."""
    low = heading.lower()
    if _LIFT_WORDS.search(low):
        return Role.LIFT
    if _NOTHING_WORDS.search(low):
        return Role.NOTHING
    if _SWIRL_WORDS.search(low):
        return Role.SWIRL
    if _PERCENT_WORDS.search(low):
        return Role.PERCENT
    if _PRESSURE_WORDS.search(low) and "cfm" not in low and "@" not in low and " at " not in low:
        return Role.PRESSURE
    return None


def kind_said(heading: str) -> Direction | None:
    """Which kind of port a heading names."""
    low = heading.lower()
    if _EXHAUST_WORDS.search(low):
        return Direction.EXHAUST
    return Direction.INTAKE if _INTAKE_WORDS.search(low) else None


def decimal_of(grid: Grid) -> DecimalMark:
    """Whether the table's numbers have a decimal comma: where any has one, and none has a point that parts decimals."""
    commas = points = 0
    for row in grid.rows:
        for cell in row:
            text = cell.strip()
            commas += bool(re.fullmatch(r"[+-]?\d*,\d+", text)) and not re.fullmatch(r"[+-]?\d{1,3},\d{3}", text)
            points += bool(re.fullmatch(r"[+-]?\d*\.\d+", text))
    if not commas and not points:
        commas = sum(bool(re.fullmatch(r"0,\d+", c.strip())) for r in grid.rows for c in r)
    return DecimalMark.COMMA if commas > points else DecimalMark.POINT


def guess_layout(grid: Grid, flow_unit: str = "cfm") -> Layout | None:
    """The likeliest reading of a table; None where no column or row of it rises like lifts do.

    `flow_unit` is what flows are in where no heading says so.
    """
    decimal = decimal_of(grid)
    down, across = _guess_down(grid, decimal, flow_unit, False), _guess_down(turned(grid), decimal, flow_unit, True)
    if down is None or across is None:
        return down if across is None else across
    return across if _worth(across) > _worth(down) else down


def _worth(layout: Layout) -> tuple[bool, int]:
    """Which of two readings is the likelier: one whose lifts are named so, then the one with more lifts."""
    named = any(_LIFT_WORDS.search(layout.columns[i].heading.lower()) for i in layout.lift_columns)
    return named, layout.last_row - layout.first_row


def _guess_down(grid: Grid, decimal: DecimalMark, flow_unit: str, across: bool) -> Layout | None:
    block = _figures_block(grid, decimal)
    if block is None:
        return None
    first, last = block
    headings = _headings(grid, first)
    columns = [_column(grid, i, first, last, headings[i], decimal) for i in range(grid.width)]
    lifts = [i for i, c in enumerate(columns) if c.role is Role.LIFT]
    if not lifts:
        found = _rising_column(grid, first, last, decimal, columns)
        if found is None:
            return None
        columns[found] = replace(columns[found], role=Role.LIFT)
        lifts = [found]
    else:
        for i in lifts[1:]:  # a second one is of another kind of port, or is none
            columns[i] = columns[i] if _rises(_values(grid, i, first, last, decimal)) else _flow_like(columns[i])
    unit = lift_unit_said(columns[lifts[0]].heading, _values(grid, lifts[0], first, last, decimal))
    if unit is None:
        return None
    named = [_named(c, i, headings, flow_unit) for i, c in enumerate(columns)]
    spread = _kinds_spread(named)
    if not any(c.role in (Role.FLOW, Role.PERCENT) for c in spread):
        return None
    return Layout(across, first, last, decimal, unit, tuple(spread), conditions_beside(grid, first, last))


def _figures_block(grid: Grid, decimal: DecimalMark) -> tuple[int, int] | None:
    """The longest stretch of rows of figures: from and to. A single row that is not one does not end it."""
    good = [_is_figures(row, decimal) for row in grid.rows]
    for r in range(1, len(good) - 1):
        if not good[r] and good[r - 1] and good[r + 1] and any(number_in(c, decimal) is not None for c in grid.rows[r]):
            good[r] = True
    best: tuple[int, int] | None = None
    start: int | None = None
    for r, fits in enumerate((*good, False)):
        if fits and start is None:
            start = r
        if not fits and start is not None:
            if best is None or r - start > best[1] - best[0]:
                best = start, r
            start = None
    return best if best is not None and best[1] - best[0] >= 2 else None


def _is_figures(row: Sequence[str], decimal: DecimalMark) -> bool:
    numbers = sum(number_in(c, decimal) is not None for c in row)
    words = sum(bool(c.strip()) and number_in(c, decimal) is None for c in row)
    return numbers >= 2 and words <= max(1, numbers)


def _headings(grid: Grid, first: int) -> list[str]:
    """The words above each column, down to the figures; a word that spans several columns is carried to the right."""
    found = [""] * grid.width
    for r in range(max(first - 3, 0), first):
        row = grid.rows[r]
        filled = sum(bool(c.strip()) for c in row)
        if states_something(row) or (filled < 2 and (r < first - 1 or grid.width > 1)):
            continue  # a title, or a condition by itself
        spans = r < first - 1 and filled < grid.width
        carried = ""
        for i, cell in enumerate(row):
            carried = cell.strip() or (carried if spans else "")
            if carried and carried not in found[i]:
                found[i] = f"{found[i]} {carried}".strip()
    return found


def _values(grid: Grid, column: int, first: int, last: int, decimal: DecimalMark) -> list[float]:
    cells = (number_in(grid.at(r, column), decimal) for r in range(first, last))
    return [v for v in cells if v is not None]


def _rises(values: Sequence[float]) -> bool:
    return len(values) >= 2 and all(b > a for a, b in pairwise(values)) and values[0] >= 0


def _column(grid: Grid, i: int, first: int, last: int, heading: str, decimal: DecimalMark) -> ColumnPlan:
    low, values = heading.lower(), _values(grid, i, first, last, decimal)
    if len(values) < max(2, (last - first) // 3):
        return ColumnPlan(Role.NOTHING, heading)
    role = role_said(heading)
    if role is Role.LIFT and _rises(values):
        return ColumnPlan(Role.LIFT, heading)
    if role is Role.NOTHING:
        return ColumnPlan(Role.NOTHING, heading)
    if role is Role.SWIRL:
        return ColumnPlan(Role.SWIRL, heading, unit="rpm")
    if role is Role.PERCENT:
        return ColumnPlan(Role.PERCENT, heading, full_scale=_range_in(low))
    if role is Role.PRESSURE:
        return ColumnPlan(Role.PRESSURE, heading, unit=unit_in(low, PRESSURE_UNITS, "inH2O"))
    if max(values) <= 0:
        return ColumnPlan(Role.NOTHING, heading)
    return ColumnPlan(Role.FLOW, heading)


def _flow_like(column: ColumnPlan) -> ColumnPlan:
    return replace(column, role=Role.FLOW)


def _range_in(heading: str) -> float | None:
    """A range named in a heading, in CFM: "percent of 300"."""
    found = re.search(r"(?:of|range\D{0,8}?=?)\s*(\d{2,4}(?:\.\d+)?)\s*(?:cfm)?", heading)
    return float(found[1]) if found else None


def _rising_column(
    grid: Grid, first: int, last: int, decimal: DecimalMark, columns: Sequence[ColumnPlan]
) -> int | None:
    """The leftmost column that rises all the way in even steps: lifts that nobody named."""
    for i, c in enumerate(columns):
        values = _values(grid, i, first, last, decimal)
        full = c.role in (Role.FLOW, Role.NOTHING) and len(values) >= last - first - 1
        if full and _rises(values) and lift_unit_said("", values) is not None:
            return i
    return None


def lift_unit_said(heading: str, values: Sequence[float]) -> str | None:
    """The unit of lifts: as the heading says, else by their size; None for what no lift is."""
    low = heading.lower()
    top = max(values, default=0.0)
    if "mm" in low:
        return "mm"
    if re.search(r"thou|\.001|mils?\b", low):
        return "thou"
    if re.search(r"\bin(ch(es)?)?\b|\"", low):
        return "thou" if top > 25 else "in"
    if top <= 0:
        return None
    if top <= LARGEST_IN:
        return "in"
    if top <= LARGEST_MM:
        return "mm"
    return "thou" if top <= 1200 and all(float(v).is_integer() for v in values) else None


def _named(c: ColumnPlan, i: int, headings: Sequence[str], flow_unit: str) -> ColumnPlan:
    low, kind = c.heading.lower(), kind_said(c.heading)
    name = " ".join(_UNIT_WORDS.sub(" ", c.heading).split()) or tr("column {}", letters(i))
    unit = c.unit
    if c.role is Role.FLOW:
        unit = unit_in(low, FLOW_UNITS, flow_unit)
    return replace(c, kind=kind, name=name[:60], unit=unit)


def _kinds_spread(columns: Sequence[ColumnPlan]) -> list[ColumnPlan]:
    """A flow column without a kind takes that of the lift column it stands behind."""
    found: list[ColumnPlan] = []
    behind: Direction | None = None
    for c in columns:
        if c.role is Role.LIFT:
            behind = c.kind
        found.append(replace(c, kind=c.kind or behind) if c.role in (Role.FLOW, Role.PERCENT) else c)
    return found

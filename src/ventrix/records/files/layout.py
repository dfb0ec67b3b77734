"""How a foreign table is read: which of its columns holds what, and what stands beside it."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass, field
from enum import StrEnum
from typing import Final, NamedTuple

from ventrix.core.model.kinds import Direction, KeptWord
from ventrix.core.quantity.units import from_si
from ventrix.records.files.grid import Grid
from ventrix.words import tr


class Role(KeptWord):
    """What a column holds."""

    LIFT = "lift"
    FLOW = "flow"
    PERCENT = "percent"
    PRESSURE = "pressure"
    SWIRL = "swirl"
    NOTHING = "nothing"


LIFT_UNITS: Final = ("in", "thou", "mm")
FLOW_UNITS: Final = ("cfm", "l/s", "m3/h")
PRESSURE_UNITS: Final = ("inH2O", "mmH2O", "Pa", "kPa", "mbar")


@dataclass(frozen=True, slots=True)
class ColumnPlan:
    """One column (or row, where lifts run across): what it holds, of which kind of port, what its run is called, and
    the range that a percent is of, in CFM."""

    role: Role
    heading: str = ""
    kind: Direction | None = None
    name: str = ""
    unit: str = ""
    full_scale: float | None = None


class Conditions(NamedTuple):
    """Conditions that stood beside the table, SI."""

    test_pressure: float | None = None
    bore: float | None = None
    bench: str | None = None
    entry: str | None = None
    pipe: str | None = None
    temperature: float | None = None
    barometer: float | None = None
    date: str | None = None
    title: str | None = None


class DecimalMark(StrEnum):
    """What parts a number's decimals."""

    POINT = "."
    COMMA = ","


@dataclass(frozen=True, slots=True)
class Layout:
    """How a table is read."""

    across: bool  # lifts run along a row, and each run is a row
    first_row: int  # where figures begin
    last_row: int  # one past where they end
    decimal: DecimalMark
    lift_unit: str
    columns: tuple[ColumnPlan, ...]
    conditions: Conditions = field(default_factory=Conditions)

    @property
    def lift_columns(self) -> tuple[int, ...]:
        return tuple(i for i, c in enumerate(self.columns) if c.role is Role.LIFT)


def turned(grid: Grid) -> Grid:
    """Rows as columns."""
    return Grid(tuple(zip(*grid.rows, strict=True)), grid.name, grid.sheet, grid.sheets)


def number_in(cell: str, decimal: DecimalMark) -> float | None:
    """A cell as a plain number; None for what is none. Blanks part thousands, a unit behind it is passed over."""
    text = cell.strip().replace("−", "-").replace("\u00a0", " ")
    text = re.sub(r"(?<=\d) (?=\d{3}\b)", "", text)
    if decimal == ",":
        text = text.replace(".", "") if re.search(r"\.\d{3}\b", text) and "," in text else text
        text = text.replace(",", ".")
    elif re.fullmatch(r"[+-]?\d{1,3}(,\d{3})+(\.\d+)?", text):
        text = text.replace(",", "")
    if re.fullmatch(r"[+-]?(\d+(\.\d*)?|\.\d+)([eE][+-]?\d{1,3})?", text):
        return float(text)
    return None


def letters(column: int) -> str:
    """A column as spreadsheets name it: A, B, ... AA."""
    name = ""
    n = column + 1
    while n:
        n, rest = divmod(n - 1, 26)
        name = chr(65 + rest) + name
    return name


def unit_in(heading: str, units: Sequence[str], usual: str) -> str:
    """The unit that a heading names, else the usual one."""
    plain = heading.replace(" ", "").lower().replace("lps", "l/s").replace("inwc", "inh2o")
    return next((u for u in units if u.lower() in plain), usual)


def layout_sentence(grid: Grid, layout: Layout) -> str:
    """What was guessed, in a sentence."""
    words = {"in": "inches", "thou": "thousandths", "mm": "mm"}[layout.lift_unit]
    along = tr("across, a run a row") if layout.across else tr("down, a run a column")
    flows = [c for c in layout.columns if c.role in (Role.FLOW, Role.PERCENT)]
    kinds = {k: sum(c.kind == k for c in flows) for k in Direction}
    said = [tr("lifts run {}, in {}", along, words)]
    said.append(
        tr("{} run{}", len(flows), "s" * (len(flows) != 1)) + "".join(f", {n} {k}" for k, n in kinds.items() if n)
    )
    if any(c.role is Role.PERCENT for c in flows):
        said.append(tr("percent of a range"))
    else:
        said.append(tr("flows in {}", ", ".join(dict.fromkeys(c.unit for c in flows))))
    if layout.decimal == DecimalMark.COMMA:
        said.append(tr("decimal comma"))
    c = layout.conditions
    if c.test_pressure is not None:
        said.append(tr("{:.4g} inH2O stands beside it", from_si(c.test_pressure, "inH2O")))
    return "; ".join(said)


def signature(grid: Grid, layout: Layout) -> str:
    """What makes two tables of one layout: its width and its headings, without figures."""
    heads = [re.sub(r"[\d.,]+", "#", c.heading.lower()) for c in layout.columns]
    return f"{'across' if layout.across else 'down'}|{grid.width if not layout.across else ''}|{'|'.join(heads)}"[:400]

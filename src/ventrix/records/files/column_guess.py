"""Which column of a table is what: guessed from headings and figures, said in words, and applied all or nothing."""

from __future__ import annotations

import re
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field, replace
from enum import StrEnum
from itertools import pairwise
from typing import Final, Literal, NamedTuple

from ventrix.core.model.kinds import Entry, Pipe
from ventrix.core.model.noun import Direction
from ventrix.core.quantity.units import from_si, parse_quantity
from ventrix.core.runs.lifts import USUAL_LIFT
from ventrix.records.files.grid import Grid


class Role(StrEnum):
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
LARGEST_IN: Final = 1.2  # a lift in inches; what is larger is millimetres or thousandths
LARGEST_MM: Final = 30.0
_NUMBER: Final = re.compile(r"[+-]?\d+(?:[.,]\d+)?|[+-]?[.,]\d+")
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


@dataclass(frozen=True, slots=True)
class Layout:
    """How a table is read."""

    across: bool  # lifts run along a row, and each run is a row
    first_row: int  # where figures begin
    last_row: int  # one past where they end
    decimal: Literal[".", ","]
    lift_unit: str
    columns: tuple[ColumnPlan, ...]
    conditions: Conditions = field(default_factory=Conditions)

    @property
    def lift_columns(self) -> tuple[int, ...]:
        return tuple(i for i, c in enumerate(self.columns) if c.role is Role.LIFT)


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


def turned(grid: Grid) -> Grid:
    """Rows as columns."""
    return Grid(tuple(zip(*grid.rows, strict=True)), grid.name, grid.sheet, grid.sheets)


def number_in(cell: str, decimal: str) -> float | None:
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


def decimal_of(grid: Grid) -> Literal[".", ","]:
    """Whether the table's numbers have a decimal comma: where any has one, and none has a point that parts decimals."""
    commas = points = 0
    for row in grid.rows:
        for cell in row:
            text = cell.strip()
            commas += bool(re.fullmatch(r"[+-]?\d*,\d+", text)) and not re.fullmatch(r"[+-]?\d{1,3},\d{3}", text)
            points += bool(re.fullmatch(r"[+-]?\d*\.\d+", text))
    if not commas and not points:
        commas = sum(bool(re.fullmatch(r"0,\d+", c.strip())) for r in grid.rows for c in r)
    return "," if commas > points else "."


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


def _guess_down(grid: Grid, decimal: Literal[".", ","], flow_unit: str, across: bool) -> Layout | None:
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
    unit = _lift_unit(columns[lifts[0]].heading, _values(grid, lifts[0], first, last, decimal))
    if unit is None:
        return None
    named = [_named(c, i, headings, flow_unit) for i, c in enumerate(columns)]
    spread = _kinds_spread(named)
    if not any(c.role in (Role.FLOW, Role.PERCENT) for c in spread):
        return None
    return Layout(across, first, last, decimal, unit, tuple(spread), _conditions(grid, first, last))


def _figures_block(grid: Grid, decimal: str) -> tuple[int, int] | None:
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


def _is_figures(row: Sequence[str], decimal: str) -> bool:
    numbers = sum(number_in(c, decimal) is not None for c in row)
    words = sum(bool(c.strip()) and number_in(c, decimal) is None for c in row)
    return numbers >= 2 and words <= max(1, numbers)


def _headings(grid: Grid, first: int) -> list[str]:
    """The words above each column, down to the figures; a word that spans several columns is carried to the right."""
    found = [""] * grid.width
    for r in range(max(first - 3, 0), first):
        row = grid.rows[r]
        filled = sum(bool(c.strip()) for c in row)
        if _states_something(row) or (filled < 2 and (r < first - 1 or grid.width > 1)):
            continue  # a title, or a condition by itself
        spans = r < first - 1 and filled < grid.width
        carried = ""
        for i, cell in enumerate(row):
            carried = cell.strip() or (carried if spans else "")
            if carried and carried not in found[i]:
                found[i] = f"{found[i]} {carried}".strip()
    return found


def _states_something(row: Sequence[str]) -> bool:
    """A row that states a condition: "Bore: 89 mm", or "Bore" with its figure in the cell beside it."""
    if any(re.search(r"\w\s*[:=]", c) for c in row):
        return True
    filled = [c.strip().lower() for c in row if c.strip()]
    labels = [words for _, words, *_ in (*_LABELS, *_TEXT_LABELS)]
    return len(filled) == 2 and any(w.search(filled[0]) for w in labels)


def _values(grid: Grid, column: int, first: int, last: int, decimal: str) -> list[float]:
    cells = (number_in(grid.at(r, column), decimal) for r in range(first, last))
    return [v for v in cells if v is not None]


def _rises(values: Sequence[float]) -> bool:
    return len(values) >= 2 and all(b > a for a, b in pairwise(values)) and values[0] >= 0


def _column(grid: Grid, i: int, first: int, last: int, heading: str, decimal: str) -> ColumnPlan:
    low, values = heading.lower(), _values(grid, i, first, last, decimal)
    if len(values) < max(2, (last - first) // 3):
        return ColumnPlan(Role.NOTHING, heading)
    if _LIFT_WORDS.search(low) and _rises(values):
        return ColumnPlan(Role.LIFT, heading)
    if _NOTHING_WORDS.search(low):
        return ColumnPlan(Role.NOTHING, heading)
    if _SWIRL_WORDS.search(low):
        return ColumnPlan(Role.SWIRL, heading, unit="rpm")
    if _PERCENT_WORDS.search(low):
        return ColumnPlan(Role.PERCENT, heading, full_scale=_range_in(low))
    if _PRESSURE_WORDS.search(low) and "cfm" not in low and "@" not in low and " at " not in low:
        return ColumnPlan(Role.PRESSURE, heading, unit=_unit_in(low, PRESSURE_UNITS, "inH2O"))
    if max(values) <= 0:
        return ColumnPlan(Role.NOTHING, heading)
    return ColumnPlan(Role.FLOW, heading)


def _flow_like(column: ColumnPlan) -> ColumnPlan:
    return replace(column, role=Role.FLOW)


def _range_in(heading: str) -> float | None:
    """A range named in a heading, in CFM: "percent of 300"."""
    found = re.search(r"(?:of|range\D{0,8}?=?)\s*(\d{2,4}(?:\.\d+)?)\s*(?:cfm)?", heading)
    return float(found[1]) if found else None


def _rising_column(grid: Grid, first: int, last: int, decimal: str, columns: Sequence[ColumnPlan]) -> int | None:
    """The leftmost column that rises all the way in even steps: lifts that nobody named."""
    for i, c in enumerate(columns):
        values = _values(grid, i, first, last, decimal)
        full = c.role in (Role.FLOW, Role.NOTHING) and len(values) >= last - first - 1
        if full and _rises(values) and _lift_unit("", values) is not None:
            return i
    return None


def _lift_unit(heading: str, values: Sequence[float]) -> str | None:
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


def _unit_in(heading: str, units: Sequence[str], usual: str) -> str:
    plain = heading.replace(" ", "").lower().replace("lps", "l/s").replace("inwc", "inh2o")
    return next((u for u in units if u.lower() in plain), usual)


def _named(c: ColumnPlan, i: int, headings: Sequence[str], flow_unit: str) -> ColumnPlan:
    low = c.heading.lower()
    kind: Direction | None = None
    if _EXHAUST_WORDS.search(low):
        kind = "exhaust"
    elif _INTAKE_WORDS.search(low):
        kind = "intake"
    name = " ".join(_UNIT_WORDS.sub(" ", c.heading).split()) or f"column {letters(i)}"
    unit = c.unit
    if c.role is Role.FLOW:
        unit = _unit_in(low, FLOW_UNITS, flow_unit)
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


def letters(column: int) -> str:
    """A column as spreadsheets name it: A, B, ... AA."""
    name = ""
    n = column + 1
    while n:
        n, rest = divmod(n - 1, 26)
        name = chr(65 + rest) + name
    return name


# -- conditions beside the table

_LABELS: Final = (
    (
        "test_pressure",
        re.compile(r"test press|depression|pressure drop|^pressure\b|tested at|water"),
        "inH2O",
        PRESSURE_UNITS,
    ),
    ("bore", re.compile(r"\bbore\b|sleeve|cylinder dia"), "in", ("mm", "in", "cm")),
    ("temperature", re.compile(r"\btemp"), "degC", ("degC", "degF")),
    ("barometer", re.compile(r"barometer|baro\b|air press|atmos"), "hPa", ("hPa", "mbar", "inHg", "kPa", "mmHg")),
)
_TEXT_LABELS: Final = (
    ("bench", re.compile(r"\bbench\b")),
    ("date", re.compile(r"\bdate\b|tested on")),
    ("title", re.compile(r"\bhead\b|casting|\bjob\b|customer|engine")),
    ("entry", re.compile(r"\bentry\b|inlet radius")),
    ("pipe", re.compile(r"\bpipe\b|stub")),
)


def _conditions(grid: Grid, first: int, last: int) -> Conditions:
    """What stands above and below the figures with a label before it: "Test pressure: 28 inH2O"."""
    found: dict[str, object] = {}
    for r in (*range(first), *range(last, len(grid.rows))):
        row = grid.rows[r]
        if r == first - 1 and not _states_something(row) and sum(bool(c.strip()) for c in row) > 1:
            continue  # headings
        for i, cell in enumerate(row):
            label, colon, inside = cell.partition(":") if ":" in cell else cell.partition("=")
            value = inside.strip() if colon and inside.strip() else grid.at(r, i + 1).strip()
            if value and label.strip():
                _take_condition(found, label.strip().lower(), value)
    for r in range(first):
        for cell in grid.rows[r]:
            stated = re.search(
                r"(?:@|at)\s*(\d+(?:\.\d+)?)\s*(?:\"|in(?:ches)?\b)?\s*(?:in)?(?:h2o|wc|water)", cell.lower()
            )
            if stated and "test_pressure" not in found:
                found["test_pressure"] = parse_quantity(stated[1], "inH2O")
    return Conditions(**found)  # type: ignore[arg-type]


def _take_condition(found: dict[str, object], label: str, value: str) -> None:
    for key, words, usual, units in _LABELS:
        if key in found or not words.search(label):
            continue
        number = _NUMBER.search(value)
        if number is None:
            continue
        unit = _unit_in(f"{label} {value}", units, usual)
        if key == "temperature" and re.search(r"\df\b|°f|degf", f"{label} {value}".lower().replace(" ", "")):
            unit = "degF"
        if key == "bore" and "mm" not in f"{label} {value}".lower() and float(number[0].replace(",", ".")) > 12:
            unit = "mm"
        try:
            found[key] = parse_quantity(number[0], unit)
        except ValueError:
            continue
        return
    for key, words in _TEXT_LABELS:
        if key in found or not words.search(label):
            continue
        if key == "entry":
            found[key] = next((e.value for e in Entry if e.value in value.lower()), None)
        elif key == "pipe":
            found[key] = next((p.value for p in Pipe if p.value in value.lower()), None)
        elif key == "date":
            found[key] = _day(value)
        else:
            found[key] = value[:120]
        return


def _day(text: str) -> str | None:
    found = re.search(r"(\d{4})-(\d{1,2})-(\d{1,2})", text)
    if found is None:
        return None
    year, month, day = (int(v) for v in found.groups())
    return f"{year:04d}-{month:02d}-{day:02d}" if 1 <= month <= 12 and 1 <= day <= 31 else None


# -- reading by a layout


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
        refuse(lift_at, "is no lift" if lift_cell.strip() else "has a flow beside it and no lift")
        return None
    metres = parse_quantity(f"{lift:.12g}", layout.lift_unit)
    if not 0 < metres <= USUAL_LIFT * (1 + 1e-9):
        if lift == 0:
            return None  # a row of nothing at lift nought
        refuse(lift_at, f"is {from_si(metres, 'mm'):.4g} mm: no lift of a valve")
        return None
    if value is None:
        refuse(at, "is no number")
        return None
    if value < 0 or (value == 0 and plan.role is Role.FLOW):
        refuse(at, "is not above zero")
        return None
    flow = share = scale = None
    if plan.role is Role.PERCENT:
        if plan.full_scale is None:
            refuse(at, "is percent, and the range it is of is not said")
            return None
        share, scale = value / 100, parse_quantity(f"{plan.full_scale:.12g}", "cfm")
    else:
        flow = parse_quantity(f"{value:.12g}", plan.unit or "cfm")
        if from_si(flow, "cfm") > 4000:
            refuse(at, "is more than any bench flows")
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
        refuse(column, "is no number" if value is None else "is not above zero")
        return None
    return parse_quantity(f"{value:.12g}", plan.unit)


def layout_sentence(grid: Grid, layout: Layout) -> str:
    """What was guessed, in a sentence."""
    words = {"in": "inches", "thou": "thousandths", "mm": "mm"}[layout.lift_unit]
    along = "across, a run a row" if layout.across else "down, a run a column"
    flows = [c for c in layout.columns if c.role in (Role.FLOW, Role.PERCENT)]
    kinds = {k: sum(c.kind == k for c in flows) for k in ("intake", "exhaust")}
    said = [f"lifts run {along}, in {words}"]
    said.append(f"{len(flows)} run{'s' * (len(flows) != 1)}" + "".join(f", {n} {k}" for k, n in kinds.items() if n))
    if any(c.role is Role.PERCENT for c in flows):
        said.append("percent of a range")
    else:
        said.append(f"flows in {', '.join(dict.fromkeys(c.unit for c in flows))}")
    if layout.decimal == ",":
        said.append("decimal comma")
    c = layout.conditions
    if c.test_pressure is not None:
        said.append(f"{from_si(c.test_pressure, 'inH2O'):.4g} inH2O stands beside it")
    return "; ".join(said)


def signature(grid: Grid, layout: Layout) -> str:
    """What makes two tables of one layout: its width and its headings, without figures."""
    heads = [re.sub(r"[\d.,]+", "#", c.heading.lower()) for c in layout.columns]
    return f"{'across' if layout.across else 'down'}|{grid.width if not layout.across else ''}|{'|'.join(heads)}"[:400]

"""Run tables: one flow run as a CSV text with its conditions above it. The format is in docs/formats."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field, fields
from pathlib import Path
from typing import Any, Final

from ventrix.core.formulas.knowledge import Known
from ventrix.core.model.cut import Cut, Port, Pour
from ventrix.core.model.job_parts import Valve
from ventrix.core.model.kinds import Entry, Pipe, RunBasis
from ventrix.core.model.noun import Noun
from ventrix.core.model.plausible import limit_of
from ventrix.core.model.run import FlowRun, Reading, SetUp
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import from_si, parse_quantity
from ventrix.core.runs.geometry import Geometry
from ventrix.core.runs.lifts import USUAL_LIFT, lift_doubt
from ventrix.core.runs.reduced_run import ReducedRun
from ventrix.core.runs.reduction import reduce_run
from ventrix.records.bad_input import InputError
from ventrix.records.files.text_cells import LONGEST_CELL, from_one_line, lines_of, rows_of, text_of
from ventrix.records.files.whole_file import read_whole
from ventrix.words import tr

VERSION: Final = 1
LARGEST_FILE: Final = 16 * 1024 * 1024  # bytes: a run is a few kilobytes
MOST_ROWS: Final = 20_000

Parse = Callable[[str], Any]


def _quantity(default_unit: str, *, least: float | None = None, above: bool = False) -> Parse:
    def parse(text: str) -> float:
        value = parse_quantity(text, default_unit)
        if least is not None and (value < least or (above and value == least)):
            raise Refused("'{}' must be {}", text, tr("above zero") if above else tr("zero or more"))
        return value

    return parse


def _choice(*allowed: str) -> Parse:
    def parse(text: str) -> str:
        if text.lower() not in allowed:
            raise Refused("'{}' is not one of {}", text, ", ".join(allowed))
        return text.lower()

    return parse


def _yes_no(text: str) -> bool:
    return bool(_choice("yes", "no")(text) == "yes")


def _basis(text: str) -> RunBasis:
    if text not in tuple(RunBasis):
        raise Refused("'{}' is not one of {}", text[:20], ", ".join(RunBasis))
    return RunBasis(text)


def _short_text(text: str) -> str:
    if len(text) > 200:
        raise Refused("is longer than any name")
    return text


def _whole(text: str) -> int:
    if not (text.isascii() and text.isdigit()) or len(text) > 9 or int(text) < 1:
        raise Refused("'{}' is not a whole number from 1", text[:40])
    return int(text)


def _length() -> Parse:
    return _quantity("mm", least=0.0, above=True)


def _pressure() -> Parse:
    return _quantity("inH2O", least=0.0, above=True)


SETUP_KEYS: Final[dict[str, Parse]] = {
    "direction": _choice("intake", "exhaust"),
    "test_pressure": _pressure(),
    "bench": _short_text,
    "bore": _length(),
    "centred": _yes_no,
    "entry": _choice(*Entry),
    "pipe": _choice(*Pipe),
    "valve": _short_text,
    "plug": _choice("in", "out"),
    "clean": _yes_no,
    "temperature": _quantity("degC"),
    "pressure": _quantity("hPa", least=0.0, above=True),
    "humidity": _quantity("%", least=0.0),
    "leak": _quantity("cfm", least=0.0),
    "leak_pressure": _pressure(),
    "seat_leak": _quantity("cfm", least=0.0),
    "leak_taken_off": _yes_no,
    "swirl_axis": _choice("swirl", "tumble"),
}
UNSAID: Final = {"leak_taken_off": False}  # what stands where a line is left out
GEOMETRY_KEYS: Final[dict[str, Parse]] = {
    "valves": _whole,
    "valve_diameter": _length(),
    "stem_diameter": _length(),
    "throat_diameter": _length(),
    "seat_width": _length(),
    "seat_angle": _quantity("deg", least=0.0, above=True),
    "port_volume": _quantity("cc", least=0.0, above=True),
    "port_length": _length(),
}
_OTHER_KEYS: Final[dict[str, Parse]] = {
    "ventrix-run": _whole,
    "mount": _short_text,
    "date": _short_text,
    "basis": _basis,
    "house": _short_text,
    "paper_date": _short_text,
}
_KEYS: Final = SETUP_KEYS | GEOMETRY_KEYS | _OTHER_KEYS

# column name without its unit -> field of Reading, and the units a column may carry
_COLUMNS: Final[dict[str, tuple[str, tuple[str, ...]]]] = {
    "lift": ("lift", ("mm", "in")),
    "reading": ("flow", ("cfm", "l_s", "m3_h")),
    "range": ("full_scale", ("cfm", "l_s", "m3_h")),
    "element": ("element_column", ("mm", "in")),
    "port": ("port_column", ("mm", "in")),
    "measured_pressure": ("measured_pressure", ("inH2O", "mmH2O", "Pa", "kPa")),
    "swirl": ("swirl", ("rpm",)),
    "torque": ("swirl_torque", ("Nm",)),
}
_UNIT_WORDS: Final = {"l_s": "l/s", "m3_h": "m3/h", "percent": "%", "Nm": "N.m"}
_MAY_BE_BLANK: Final = ("measured_pressure", "swirl", "swirl_torque")
_SIGNED: Final = ("swirl", "swirl_torque")
_WATER_COLUMNS: Final = {"mm": "mmH2O", "in": "inH2O"}


@dataclass(frozen=True, slots=True)
class Column:
    name: str
    field: str
    unit: str


@dataclass(frozen=True)
class RunTable:
    """A run table as read: the run, its conditions, and what is known of its port and valve."""

    run: FlowRun
    setup: SetUp
    geometry: Geometry
    mount: str | None = None
    lift_unit: str = "mm"
    extra: dict[str, str] = field(default_factory=dict)

    def reduce(self, known: Known | None = None) -> ReducedRun:
        """Corrected results; errors as `reduce_run`."""
        return reduce_run(self.run, self.setup, self.geometry, self.mount, known)


def read_run_table(path: Path) -> RunTable:
    """Read a run table from a file. Raises InputError that names the file, line and field."""
    return parse_run_table(read_whole(path, LARGEST_FILE, tr("a run table")), path.name)


def is_run_table(path: Path) -> bool:
    """Whether a file says of itself that it is a run table of ours; False too where it cannot be read."""
    try:
        with open(path, "rb") as file:
            return b"ventrix-run" in file.read(4096)
    except OSError:
        return False


def parse_run_table(data: bytes, name: str = "") -> RunTable:
    """Read a run table from bytes; see `read_run_table`. `name` is used in errors only."""
    if not data.strip():
        raise InputError(tr("is empty"), file=name)
    lines = lines_of(data, name)
    keys, extra, start = _read_keys(lines, name)
    for required in ("ventrix-run", "direction", "test_pressure"):
        if required not in keys:
            raise InputError(tr("the required line is missing"), file=name, field=required)
    if keys["ventrix-run"] > VERSION:
        raise InputError(
            tr("version {} was written by a newer Ventrix", keys["ventrix-run"]), file=name, field="ventrix-run"
        )
    if start is None:
        raise InputError(tr("has no header line and no readings"), file=name)
    readings, lift_unit = _read_rows(lines, start, name, keys.get("valve_diameter"))
    setup = SetUp(id="setup", **{k: keys[k] for k in SETUP_KEYS if k in keys})
    return RunTable(
        run=FlowRun(
            id="run",
            setup_id="setup",
            source=name or tr("run table"),
            date=keys.get("date"),
            basis=keys.get("basis", RunBasis.BENCH),
            house=keys.get("house", ""),
            paper_date=keys.get("paper_date"),
            readings=readings,
        ),
        setup=setup,
        geometry=Geometry(**{k: keys[k] for k in GEOMETRY_KEYS if k in keys}),
        mount=keys.get("mount"),
        lift_unit=lift_unit,
        extra=extra,
    )


# Where the table of plausible figures has what a key says.
_PLAUSIBLE: Final[dict[str, tuple[type[Noun], str]]] = {
    **{key: (SetUp, key) for key in SETUP_KEYS},
    "valves": (Port, "valves"),
    "valve_diameter": (Valve, "head_diameter"),
    "stem_diameter": (Valve, "stem_diameter"),
    "throat_diameter": (Cut, "throat_diameter"),
    "seat_width": (Valve, "seat_width"),
    "seat_angle": (Valve, "seat_angle"),
    "port_volume": (Pour, "volume"),
    "port_length": (Cut, "floor_length"),
}


def _plausible(value: Any, kind: type[Noun], name: str) -> None:
    limit = limit_of(kind, name)
    if limit is not None and isinstance(value, int | float) and not limit.allows(value):
        raise Refused(limit.sentence)


def _read_keys(lines: list[str], name: str) -> tuple[dict[str, Any], dict[str, str], int | None]:
    keys: dict[str, Any] = {}
    extra: dict[str, str] = {}
    for number, line in enumerate(lines, 1):
        if not line.strip():
            continue
        if not line.lstrip().startswith("#"):
            return keys, extra, number - 1
        key, colon, value = line.lstrip()[1:].partition(":")
        key, value = key.strip(), from_one_line(value.strip())
        if not colon:
            continue  # a plain remark
        if len(key) > 200 or len(value) > LONGEST_CELL:
            raise InputError(tr("is too long a line"), file=name, line=number)
        if key in keys or key in extra:
            raise InputError(tr("stands here a second time"), file=name, line=number, field=key)
        if key not in _KEYS:
            extra[key] = value
            continue
        if not value:
            continue  # nothing behind the colon: not recorded
        try:
            keys[key] = _KEYS[key](value)
            if key in _PLAUSIBLE:
                _plausible(keys[key], *_PLAUSIBLE[key])
        except Refused as error:
            raise InputError(str(error), file=name, line=number, field=key) from None
    return keys, extra, None


def _delimiter(header: str) -> str:
    return next((mark for mark in (",", ";", "\t") if mark in header), ",")


def _read_header(cells: list[str], name: str, line: int) -> list[Column]:
    columns: list[Column] = []
    for raw in cells:
        title = raw.strip()
        if title in [c.name for c in columns]:
            raise InputError(tr("this column stands twice"), file=name, line=line, field=title)
        columns.append(_column(title, name, line))
    have = {c.field for c in columns}
    if "lift" not in have:
        raise InputError(tr("this column is missing"), file=name, line=line, field="lift_mm or lift_in")
    if "percent" in have and "full_scale" not in have:
        raise InputError(tr("a reading in percent needs this column"), file=name, line=line, field="range_cfm")
    if ("element_column" in have) != ("port_column" in have):
        missing = "port_mm" if "element_column" in have else "element_mm"
        raise InputError(
            tr("two columns of water are needed, this one is missing"), file=name, line=line, field=missing
        )
    repeated = {c.field for c in columns if c.field and [d.field for d in columns].count(c.field) > 1}
    if repeated:
        both = ", ".join(c.name for c in columns if c.field in repeated)
        raise InputError(
            tr("these columns say the same thing: more than one kind of reading"), file=name, line=line, field=both
        )
    ways = [way for way in ("flow", "percent", "element_column") if way in have]
    if not ways:
        raise InputError(tr("no column of readings"), file=name, line=line, field="reading_cfm")
    if len(ways) > 1:
        raise InputError(tr("more than one kind of reading in one table"), file=name, line=line, field=", ".join(ways))
    return columns


def _column(title: str, name: str, line: int) -> Column:
    if title == "reading_percent":
        return Column(title, "percent", "%")
    for stem, (target, units) in _COLUMNS.items():
        if title == stem:
            raise InputError(tr("needs a unit, as in {}_{}", stem, units[0]), file=name, line=line, field=title)
        if not title.startswith(stem + "_"):
            continue
        suffix = title[len(stem) + 1 :]
        if suffix in units:
            water = stem in ("element", "port")
            return Column(title, target, _WATER_COLUMNS[suffix] if water else _UNIT_WORDS.get(suffix, suffix))
        if stem in ("lift", "reading", "range", "measured_pressure", "swirl", "torque"):
            raise InputError(tr("there is no unit '{}' for {}", suffix, stem), file=name, line=line, field=title)
    return Column(title, "note" if title == "note" else "", "")


def _read_rows(
    lines: list[str], start: int, name: str, valve_diameter: float | None
) -> tuple[tuple[Reading, ...], str]:
    rows = rows_of(lines, start, _delimiter(lines[start]), MOST_ROWS, name)
    number, header = next(rows)
    columns = _read_header(header, name, number)
    readings: list[Reading] = []
    wanted = len(columns)
    for number, cells in rows:
        if len(cells) == wanted - 1 and columns[-1].field == "note":
            cells = [*cells, ""]
        if len(cells) != wanted:
            raise InputError(
                tr("{} field{} where the header has {}", len(cells), "s" * (len(cells) != 1), wanted),
                file=name,
                line=number,
                field=columns[min(len(cells), wanted - 1)].name,
            )
        readings.append(_reading(columns, cells, number, name, valve_diameter))
    if not readings:
        raise InputError(tr("has a header and no readings"), file=name)
    return tuple(readings), next(c.unit for c in columns if c.field == "lift")


def _reading(columns: list[Column], cells: list[str], line: int, name: str, valve_diameter: float | None) -> Reading:
    values: dict[str, Any] = {}
    extra: dict[str, str] = {}
    for column, cell in zip(columns, (c.strip() for c in cells), strict=True):
        if column.field == "note" and cell.lower().startswith("struck"):
            values["struck"] = text_of(cell.partition(":")[2].strip()) or tr("no reason given")
        elif column.field in ("", "note"):
            if cell:
                extra[_extra_key(column.name)] = text_of(cell)
        elif cell:
            values[column.field] = _number(cell, column, line, name)
        elif column.field not in _MAY_BE_BLANK:
            raise InputError(tr("is empty"), file=name, line=line, field=column.name)
    doubt = lift_doubt(values["lift"], valve_diameter)
    if doubt and values["lift"] > USUAL_LIFT:
        column = next(c for c in columns if c.field == "lift")
        raise InputError(f"{doubt}{_meant(values['lift'], column.unit)}", file=name, line=line, field=column.name)
    return Reading(id=f"line-{line}", extra=extra, **values)


def _meant(lift: float, unit: str) -> str:
    """What a lift that cannot be was probably meant to be."""
    typed = from_si(lift, unit)
    if unit == "in" and 5 <= typed <= 1200:
        return tr(": did you mean {:.3f}?", typed / 1000)
    return tr(": did you mean {:g} mm?", typed) if unit == "in" else tr(": did you mean {:g}?", typed / 10)


def _extra_key(title: str) -> str:
    """A column of the user's own never takes the name of a figure that documents have."""
    return tr("column {}", title) if title in _OWN_NAMES else title


_OWN_NAMES: Final = frozenset(f.name for f in fields(Reading)) | {"lift_mm", "flow_cfm"}


def _number(cell: str, column: Column, line: int, name: str) -> float:
    try:
        value = parse_quantity(cell, column.unit)
        if cell[-1:].isalpha():
            raise Refused("'{}' is not a plain number: the unit stands in the header", cell[:40])
        if column.field not in _SIGNED and value < 0:
            raise Refused("'{}' is negative", cell[:40])
        if column.field in ("measured_pressure", "full_scale", "port_column") and value == 0:
            raise Refused("must be above zero")
        if column.field != "lift":  # a lift is asked about by itself
            _plausible(value, Reading, column.field)
    except Refused as error:
        raise InputError(str(error), file=name, line=line, field=column.name) from None
    return value

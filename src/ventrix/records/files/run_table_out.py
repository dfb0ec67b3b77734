"""A run table written, so that reading it back gives the same."""

from __future__ import annotations

import csv
import io
from typing import Any, Final

from ventrix.core.model.kinds import RunBasis
from ventrix.core.quantity.units import from_si
from ventrix.records.files.run_table import GEOMETRY_KEYS, SETUP_KEYS, UNSAID, VERSION, RunTable
from ventrix.records.files.text_cells import cell_of, one_line

_UNITS_OUT: Final = {
    "test_pressure": "inH2O",
    "leak_pressure": "inH2O",
    "bore": "mm",
    "temperature": "degC",
    "pressure": "hPa",
    "humidity": "%",
    "leak": "cfm",
    "seat_leak": "cfm",
    "valve_diameter": "mm",
    "stem_diameter": "mm",
    "throat_diameter": "mm",
    "seat_width": "mm",
    "seat_angle": "deg",
    "port_volume": "cc",
    "port_length": "mm",
}


def _key_text(key: str, value: Any) -> str:
    if isinstance(value, bool):
        return "yes" if value else "no"
    if key in _UNITS_OUT:
        return f"{_trim(from_si(value, _UNITS_OUT[key]))} {_UNITS_OUT[key]}"
    return one_line(str(value))


def _trim(value: float) -> str:
    return f"{value:.12g}"  # enough digits that reading it back changes nothing that was measured


_ROW_FIELDS: Final = (
    ("reading_cfm", "flow", "cfm"),
    ("reading_percent", "percent", "%"),
    ("range_cfm", "full_scale", "cfm"),
    ("element_mm", "element_column", "mmH2O"),
    ("port_mm", "port_column", "mmH2O"),
    ("measured_pressure_inH2O", "measured_pressure", "inH2O"),
    ("swirl_rpm", "swirl", "rpm"),
    ("torque_Nm", "swirl_torque", "N.m"),
)


def write_run_table(table: RunTable) -> str:
    """The text of a run table, ready to be read back."""
    lines = [f"# ventrix-run: {VERSION}"]
    for source, keys in ((table.setup, SETUP_KEYS), (table.geometry, GEOMETRY_KEYS)):
        for key in keys:
            value = getattr(source, key)
            if value is not None and (key not in UNSAID or value != UNSAID[key]):
                lines.append(f"# {key}: {_key_text(key, value)}")
    paper = table.run.basis == RunBasis.PAPER
    of_paper = {
        "basis": str(table.run.basis) if paper else None,
        "house": table.run.house or None,
        "paper_date": table.run.paper_date,
    }
    for key, value in (("mount", table.mount), ("date", table.run.date), *of_paper.items(), *table.extra.items()):
        if value is not None:
            lines.append(f"# {one_line(key)}: {one_line(str(value))}")
    readings = table.run.readings
    used = [f for f in _ROW_FIELDS if any(getattr(r, f[1]) is not None for r in readings)]
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow([f"lift_{table.lift_unit}", *(f[0] for f in used), "note"])
    for r in readings:
        row = [_trim(from_si(r.lift, table.lift_unit))]
        for _, name, symbol in used:
            value = getattr(r, name)
            row.append("" if value is None else _trim(from_si(value, symbol)))
        note = f"struck: {cell_of(r.struck)}" if r.struck else cell_of(str(r.extra.get("note", "")))
        writer.writerow([*row, note])
    return "\n".join(lines) + "\n" + out.getvalue()

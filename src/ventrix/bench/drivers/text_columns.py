"""The columns of a streaming bench as a person types them: "flow 1 cfm; pressure 2 inH2O x 1.02 + 0.5"."""

from __future__ import annotations

import re

from ventrix.bench.drivers.text_lines import FIELDS, TextColumn
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import unit

_COLUMN = re.compile(
    r"(?P<name>[a-z]+)\s+(?P<place>\d{1,4})(?:\s+(?P<unit>[^\s×x+]+))?"
    r"(?:\s*[x×]\s*(?P<scale>-?[\d.]+(?:[eE][+-]?\d+)?))?(?:\s*(?P<sign>[+-])\s*(?P<offset>[\d.]+))?",
    re.IGNORECASE,
)
USUAL = {"flow": "cfm", "pressure": "inH2O", "lift": "mm", "temperature": "degC", "swirl": "rpm", "probe": "inH2O"}


def parse_columns(text: str) -> tuple[TextColumn, ...]:
    """Columns from text. ValueError with a sentence that names the part that is wrong."""
    found = []
    for part in (p.strip() for p in text.split(";")):
        if not part:
            continue
        match = _COLUMN.fullmatch(part)
        if match is None:
            raise Refused("'{}' is not: figure, column, unit, and if need be x scale + offset", part)
        name = match["name"].lower()
        if name not in FIELDS:
            raise Refused("'{}' is not one of {}", name, ", ".join(FIELDS))
        symbol = match["unit"] or USUAL[name]
        unit(symbol)
        offset = float(match["offset"] or 0) * (-1 if match["sign"] == "-" else 1)
        found.append(TextColumn(name, int(match["place"]), symbol, float(match["scale"] or 1), offset))
    return tuple(found)


def columns_text(columns: tuple[TextColumn, ...]) -> str:
    """Columns as they would be typed."""
    parts = []
    for c in columns:
        text = f"{c.name} {c.place} {c.unit}"
        if c.scale != 1:
            text += f" x {c.scale:g}"
        if c.offset:
            text += f" {'+' if c.offset > 0 else '-'} {abs(c.offset):g}"
        parts.append(text)
    return "; ".join(parts)

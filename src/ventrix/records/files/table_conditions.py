"""Conditions that stand beside a foreign table: "Test pressure: 28 inH2O", or a label and its figure beside it."""

from __future__ import annotations

import re
from collections.abc import Sequence
from typing import Final

from ventrix.core.model.kinds import Entry, Pipe
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import parse_quantity
from ventrix.records.files.grid import Grid
from ventrix.records.files.layout import PRESSURE_UNITS, Conditions, unit_in

_NUMBER: Final = re.compile(r"[+-]?\d+(?:[.,]\d+)?|[+-]?[.,]\d+")
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


# "@ 28 inH2O", "at 7 kPa": a test pressure that stands in a heading.
_STATED: Final = re.compile(
    r"(?:@|\bat)\s*(\d+(?:[.,]\d+)?)\s*"
    r"(kpa|pa\b|mbar|hpa|mm ?(?:h2o|wc)|(?:\"|in(?:ches)?)?\s*(?:of )?(?:h2o|wc|water))"
)


def _unit_stated(words: str) -> str:
    plain = words.replace(" ", "")
    if plain.startswith("mm"):
        return "mmH2O"
    return {"kpa": "kPa", "pa": "Pa", "mbar": "hPa", "hpa": "hPa"}.get(plain, "inH2O")


def conditions_beside(grid: Grid, first: int, last: int) -> Conditions:
    """What stands above and below the figures with a label before it: "Test pressure: 28 inH2O"."""
    found: dict[str, object] = {}
    for r in (*range(first), *range(last, len(grid.rows))):
        row = grid.rows[r]
        if r == first - 1 and not states_something(row) and sum(bool(c.strip()) for c in row) > 1:
            continue  # headings
        for i, cell in enumerate(row):
            label, colon, inside = cell.partition(":") if ":" in cell else cell.partition("=")
            value = inside.strip() if colon and inside.strip() else grid.at(r, i + 1).strip()
            if value and label.strip():
                _take_condition(found, label.strip().lower(), value)
    for r in range(first):
        for cell in grid.rows[r]:
            stated = _STATED.search(cell.lower())
            if stated and "test_pressure" not in found:
                found["test_pressure"] = parse_quantity(stated[1].replace(",", "."), _unit_stated(stated[2]))
    return Conditions(**found)  # type: ignore[arg-type]


def _take_condition(found: dict[str, object], label: str, value: str) -> None:
    for key, words, usual, units in _LABELS:
        if key in found or not words.search(label):
            continue
        number = _NUMBER.search(value)
        if number is None:
            continue
        unit = unit_in(f"{label} {value}", units, usual)
        if key == "temperature" and re.search(r"\df\b|°f|degf", f"{label} {value}".lower().replace(" ", "")):
            unit = "degF"
        if key == "bore" and "mm" not in f"{label} {value}".lower() and float(number[0].replace(",", ".")) > 12:
            unit = "mm"
        try:
            found[key] = parse_quantity(number[0], unit)
        except Refused:
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


def states_something(row: Sequence[str]) -> bool:
    """A row that states a condition: "Bore: 89 mm", or "Bore" with its figure in the cell beside it."""
    if any(re.search(r"\w\s*[:=]", c) for c in row):
        return True
    filled = [c.strip().lower() for c in row if c.strip()]
    labels = [words for _, words, *_ in (*_LABELS, *_TEXT_LABELS)]
    return len(filled) == 2 and any(w.search(filled[0]) for w in labels)

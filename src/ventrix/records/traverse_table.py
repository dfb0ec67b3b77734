"""Air speeds as CSV: one row a point, with its station, lift and conditions; out and in again."""

from __future__ import annotations

import csv
import io
from collections.abc import Callable
from dataclasses import replace
from pathlib import Path
from typing import Final

from ventrix.core.model import Cut, ProbePoint, Traverse
from ventrix.core.units import from_si, parse_quantity
from ventrix.records.errors import InputError

COLUMNS: Final = (
    "station", "kind", "layout", "lift_mm", "probe", "coefficient", "base_flow_cfm", "date", "point", "u", "v",
    "reading_Pa", "speed_m_s", "flow_cfm", "struck",
)  # fmt: skip
FIRST: Final = "# ventrix-air: 1"


def write_traverses(cut: Cut) -> str:
    """The text of a table of every traverse of a cut."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(COLUMNS)
    for t in cut.traverses:
        head = [t.station, t.kind, t.layout, _text(t.lift, "mm"), t.probe, _text(t.coefficient, "-"),
                _text(t.base_flow, "cfm"), t.date or ""]  # fmt: skip
        for p in t.points:
            figures = [_text(p.reading, "Pa"), _text(p.speed, "m/s"), _text(p.flow, "cfm")]
            writer.writerow([*head, p.name, f"{p.u:.6g}", f"{p.v:.6g}", *figures, p.struck or ""])
    return f"{FIRST}\n{out.getvalue()}"


def _text(value: float | None, unit: str) -> str:
    return "" if value is None else f"{from_si(value, unit):.12g}"


def read_traverses(path: Path, new_id: Callable[[], str]) -> tuple[Traverse, ...]:
    """Traverses from such a table; `new_id` makes ids. InputError that names the file, line and field."""
    name = path.name
    try:
        lines = path.read_text(encoding="utf-8-sig").splitlines()
    except OSError as error:
        raise InputError(f"cannot be read: {(error.strerror or '').lower()}", file=name) from None
    except UnicodeDecodeError:
        raise InputError("is not a text file in UTF-8", file=name) from None
    if not lines or lines[0].strip() != FIRST:
        raise InputError("is no table of air speeds: its first line is missing", file=name, line=1)
    rows = list(csv.reader(lines[1:]))
    if not rows or tuple(rows[0]) != COLUMNS:
        raise InputError("the header is not the one of air speeds", file=name, line=2)
    found: dict[tuple[str, ...], Traverse] = {}
    for number, cells in enumerate(rows[1:], 3):
        if not cells:
            continue
        if len(cells) != len(COLUMNS):
            raise InputError(f"{len(cells)} fields where the header has {len(COLUMNS)}", file=name, line=number)
        row = dict(zip(COLUMNS, (c.strip() for c in cells), strict=True))

        def figure(key: str, unit: str, line: int = number, values: dict[str, str] = row) -> float | None:
            if not values[key]:
                return None
            try:
                value = parse_quantity(values[key], unit)
                if value < 0 and key not in ("u", "v"):
                    raise ValueError(f"'{values[key]}' is negative")
                if key in ("u", "v") and abs(value) > 1:
                    raise ValueError("a place lies between -1 and 1")
                return value
            except ValueError as error:
                raise InputError(str(error), file=name, line=line, field=key) from None

        if row["kind"] not in ("", "pitot", "ball"):
            raise InputError(f"'{row['kind']}' is not pitot or ball", file=name, line=number, field="kind")
        key = tuple(cells[:8])
        if key not in found:
            found[key] = Traverse(
                id=new_id(), station=row["station"], kind=row["kind"] or "pitot", layout=row["layout"],
                lift=figure("lift_mm", "mm"), probe=row["probe"], coefficient=figure("coefficient", "-"),
                base_flow=figure("base_flow_cfm", "cfm"), date=row["date"] or None,
            )  # fmt: skip
        point = ProbePoint(
            id=new_id(), name=row["point"], u=figure("u", "-") or 0.0, v=figure("v", "-") or 0.0,
            reading=figure("reading_Pa", "Pa"), speed=figure("speed_m_s", "m/s"), flow=figure("flow_cfm", "cfm"),
            struck=row["struck"] or None,
        )  # fmt: skip
        found[key] = replace(found[key], points=(*found[key].points, point))
    return tuple(found.values())

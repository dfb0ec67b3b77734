"""Air speeds as CSV: one row a point, with its station, lift and conditions; out and in again."""

from __future__ import annotations

import csv
import io
from collections.abc import Callable
from dataclasses import replace
from pathlib import Path
from typing import Final

from ventrix.core.model.bench_kinds import TraverseKind
from ventrix.core.model.cut import Cut
from ventrix.core.model.kept_words import SpeedsAt
from ventrix.core.model.noun import Noun
from ventrix.core.model.plausible import limit_of
from ventrix.core.model.traverse import ProbePoint, Traverse
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import from_si, parse_quantity
from ventrix.records.bad_input import InputError
from ventrix.records.files.text_cells import cell_of, lines_of, rows_of, text_of
from ventrix.records.files.whole_file import read_whole
from ventrix.words import tr

COLUMNS: Final = (
    "station", "kind", "layout", "lift_mm", "probe", "probe_diameter_mm", "coefficient", "base_flow_cfm", "date",
    "speeds_at", "point", "u", "v", "reading_Pa", "static_Pa", "speed_m_s", "flow_cfm", "struck",
)  # fmt: skip
HEAD: Final = COLUMNS[:10]  # what makes a traverse
LATER: Final = ("probe_diameter_mm", "static_Pa", "speeds_at")  # columns that older tables lack
FIRST_COLUMNS: Final = tuple(c for c in COLUMNS if c not in LATER)
LARGEST_FILE: Final = 16 * 1024 * 1024  # bytes
MOST_ROWS: Final = 20_000
FIRST: Final = "# ventrix-air: 1"


def write_traverses(cut: Cut) -> str:
    """The text of a table of every traverse of a cut."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(COLUMNS)
    for t in cut.traverses:
        head = [cell_of(t.station), t.kind, cell_of(t.layout), _text(t.lift, "mm"), cell_of(t.probe),
                _text(t.probe_diameter, "mm"), _text(t.coefficient, "-"), _text(t.base_flow, "cfm"),
                cell_of(t.date or ""), t.speeds_at]  # fmt: skip
        for p in t.points:
            figures = [_text(p.reading, "Pa"), _text(p.static, "Pa"), _text(p.speed, "m/s"), _text(p.flow, "cfm")]
            writer.writerow([*head, cell_of(p.name), f"{p.u:.6g}", f"{p.v:.6g}", *figures, cell_of(p.struck or "")])
    return f"{FIRST}\n{out.getvalue()}"


def _text(value: float | None, unit: str) -> str:
    return "" if value is None else f"{from_si(value, unit):.12g}"


def read_traverses(path: Path, new_id: Callable[[], str]) -> tuple[Traverse, ...]:
    """Traverses from such a table; `new_id` makes ids. InputError that names the file, line and field."""
    name = path.name
    lines = lines_of(read_whole(path, LARGEST_FILE, tr("a table of air speeds")), name)
    if lines[0].strip() != FIRST:
        raise InputError(tr("is not a table of air speeds: its first line is missing"), file=name, line=1)
    rows = rows_of(lines, 1, ",", MOST_ROWS, name)
    header = tuple(next(rows, (2, []))[1])
    if not set(FIRST_COLUMNS) <= set(header) <= set(COLUMNS) or len(set(header)) != len(header):
        raise InputError(tr("the header is not the one of air speeds"), file=name, line=2)
    heads: dict[tuple[str, ...], Traverse] = {}
    points: dict[tuple[str, ...], list[ProbePoint]] = {}
    for number, cells in rows:
        if len(cells) != len(header):
            raise InputError(tr("{} fields where the header has {}", len(cells), len(header)), file=name, line=number)
        row = dict.fromkeys(COLUMNS, "") | dict(zip(header, (c.strip() for c in cells), strict=True))
        figure = _Figures(row, name, number)
        if row["kind"] not in ("", *TraverseKind):
            raise InputError(
                tr("'{}' is not {}", row["kind"][:40], ", ".join(TraverseKind)), file=name, line=number, field="kind"
            )
        if row["speeds_at"] not in ("", *SpeedsAt):
            said = tr("'{}' is not {}", row["speeds_at"][:40], " or ".join(SpeedsAt))
            raise InputError(said, file=name, line=number, field="speeds_at")
        key = tuple(row[c] for c in HEAD)
        if key not in heads:
            heads[key] = Traverse(
                id=new_id(),
                station=text_of(row["station"]),
                kind=row["kind"] or TraverseKind.PITOT.value,
                layout=text_of(row["layout"]),
                lift=figure("lift_mm", "mm", Traverse, "lift"),
                probe=text_of(row["probe"]),
                probe_diameter=figure("probe_diameter_mm", "mm", Traverse, "probe_diameter"),
                coefficient=figure("coefficient", "-", Traverse, "coefficient"),
                base_flow=figure("base_flow_cfm", "cfm", Traverse, "base_flow"),
                date=text_of(row["date"]) or None,
                speeds_at=SpeedsAt(row["speeds_at"] or SpeedsAt.STANDARD),
            )
        points.setdefault(key, []).append(
            ProbePoint(
                id=new_id(),
                name=text_of(row["point"]),
                u=figure("u", "-", ProbePoint, "u") or 0.0,
                v=figure("v", "-", ProbePoint, "v") or 0.0,
                reading=figure("reading_Pa", "Pa", ProbePoint, "reading"),
                static=figure("static_Pa", "Pa", ProbePoint, "static"),
                speed=figure("speed_m_s", "m/s", ProbePoint, "speed"),
                flow=figure("flow_cfm", "cfm", ProbePoint, "flow"),
                struck=text_of(row["struck"]) or None,
            )
        )
    return tuple(replace(heads[key], points=tuple(points[key])) for key in heads)


class _Figures:
    """Figures of one row, each checked; InputError names file, line and field."""

    def __init__(self, row: dict[str, str], name: str, line: int) -> None:
        self._row, self._name, self._line = row, name, line

    def __call__(self, key: str, unit: str, kind: type[Noun], field: str) -> float | None:
        text = self._row[key]
        if not text:
            return None
        try:
            value = parse_quantity(text, unit)
            limit = limit_of(kind, field)
            if limit is not None and not limit.allows(value):
                if value < 0 <= limit.low:
                    raise Refused("'{}' is negative", text[:40])
                raise Refused(limit.sentence)
            return value
        except Refused as error:
            raise InputError(str(error), file=self._name, line=self._line, field=key) from None

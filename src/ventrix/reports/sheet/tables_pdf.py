"""Tables of the page: every lift, its uncertainty, all ports."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import Final

from ventrix.reports.sheet.contents import LiftFigures, PairPart, Sheet
from ventrix.reports.sheet.pen import MM, Pen, elided
from ventrix.words import tr

MOST_COLUMNS: Final = 14  # lifts beside each other
GAP: Final = 4 * MM


def draw_lifts(pen: Pen, sheet: Sheet) -> None:
    """Before, after and gain at every lift, the lifts beside each other; long tables in blocks."""
    heads = list(dict.fromkeys(r.lift for p in sheet.pairs for r in p.lifts))
    heads.sort(key=float)
    for start in range(0, len(heads), MOST_COLUMNS):
        lifts = heads[start : start + MOST_COLUMNS]
        pen.room((4 + 13 * len(sheet.pairs)) * MM)
        name = 24 * MM
        step = (pen.width - name) / max(len(lifts), 8)
        pen.y -= 10
        pen.text(pen.left, pen.y, tr("lift, {}", sheet.lift_label), 8, "quiet")
        for i, lift in enumerate(lifts):
            pen.text(pen.left + name + step * (i + 1) - 2, pen.y, lift, 8, "quiet", "narrow", "r")
        pen.y -= 3
        pen.rule("scribe", 0.5)
        for p in sheet.pairs:
            _lift_rows(pen, p, lifts, name, step)
    pen.y -= 1.5 * MM


def _lift_rows(pen: Pen, p: PairPart, lifts: Sequence[str], name: float, step: float) -> None:
    by_lift = {r.lift: r for r in p.lifts}
    pen.room(13 * MM)
    rows: tuple[tuple[str, str, str, Callable[[LiftFigures], str]], ...] = (
        (tr("{}{}, before", p.kind, p.sign), p.kind, "narrow", lambda r: r.before),
        ("after", "text", "narrow-bold", lambda r: r.after),
        ("gain", "quiet", "narrow", lambda r: r.gain),
    )
    if p.before == p.after:
        rows = ((f"{p.kind}{p.sign}, {p.unit}", p.kind, "narrow-bold", lambda r: r.after),)
    for caption, role, font, pick in rows:
        pen.y -= 10.5
        pen.text(pen.left, pen.y, elided(caption, "medium" if role == p.kind else "text", 8, name), 8, role,
                 "medium" if role == p.kind else "text")  # fmt: skip
        for i, lift in enumerate(lifts):
            row = by_lift.get(lift)
            if row is None:
                continue
            shade = row.result if caption == "gain" and row.result else "quiet" if caption == "gain" else "text"
            shown = pick(row) + (row.mark if caption != "gain" else "")
            pen.text(pen.left + name + step * (i + 1) - 2, pen.y, shown, 8.5, shade, font, "r")
    pen.y -= 3
    pen.rule("hair", 0.5)


def draw_doubts(pen: Pen, sheet: Sheet) -> None:
    """Every lift with the doubt of its gain, both kinds of port beside each other."""
    pairs = [p for p in sheet.pairs if any(r.doubt for r in p.lifts)]
    if not pairs:
        return
    rows = max(len(p.lifts) for p in pairs)
    pen.heading(tr("Every lift with its uncertainty (95 %)"), min(rows, 24) * 10 + 60)
    width = (pen.width - GAP * (len(pairs) - 1)) / max(len(pairs), 2)
    for first in range(0, rows, 50):
        pen.room(min(rows - first, 50) * 10 + 24)
        start = lowest = pen.y
        for i, p in enumerate(pairs):
            pen.y = start
            _doubt_column(pen, sheet.lift_label, p, p.lifts[first : first + 50], pen.left + i * (width + GAP), width)
            lowest = min(lowest, pen.y)
        pen.y = lowest - 2 * MM


def _doubt_column(pen: Pen, lift_label: str, p: PairPart, rows: Sequence[LiftFigures], x: float, width: float) -> None:
    pen.y -= 11
    pen.text(x, pen.y, elided(p.states, "medium", 8.5, width), 8.5, p.kind, "medium")
    ends = [x + width * share for share in (0.15, 0.32, 0.49, 0.76)]
    pen.y -= 10
    heads = (tr("lift, {}", lift_label), "before", "after", "gain")
    for end, words in zip(ends, heads, strict=True):
        pen.text(end, pen.y, words, 7.5, "quiet", align="r")
    for row in rows:
        pen.y -= 10
        cells = (row.lift, row.before, row.after + row.mark, row.doubt)
        for end, words, font in zip(ends, cells, ("narrow", "narrow", "narrow-bold", "narrow"), strict=True):
            pen.text(end, pen.y, words, 8.5, font=font, align="r")
        pen.arrow(ends[3] + 2 * MM, pen.y, row.result, 4.5)
        said = {"better": tr("proven more"), "worse": tr("proven less")}.get(row.result, "not proven")
        pen.text(ends[3] + 4.5 * MM, pen.y, said, 7.5, row.result or "quiet", "narrow")


def draw_ports(pen: Pen, sheet: Sheet) -> None:
    """Every port of the head, a row each."""
    if not sheet.ports:
        return
    pen.heading(tr("All ports"), 24 * MM)
    shares = (0.2, 0.3, 0.11, 0.16, 0.13, 0.1)
    lefts = [pen.left + pen.width * sum(shares[:i]) for i in range(len(shares))]
    for r, row in enumerate((sheet.ports_head, *sheet.ports)):
        pen.room(11)
        pen.y -= 11
        for i, (x, words) in enumerate(zip(lefts, row, strict=True)):
            room = pen.width * shares[i] - 4
            size, role, font = (7.5, "quiet", "text") if r == 0 else (8.5, "text", "text" if i < 2 else "narrow")
            shown = elided(words, font, size, room)
            if i < 2:
                pen.text(x, pen.y, shown, size, role, font)
            else:
                pen.text(x + room, pen.y, shown, size, role, font, "r")
    pen.y -= 3 * MM

"""A grinder card as a page for the wall: large enough to read with gloves on, and sections at true size."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Final

from ventrix.reports.sheet.card_contents import Card, Template
from ventrix.reports.sheet.pen import MM, Pen, elided
from ventrix.words import tr

BAR: Final = 100 * MM
M: Final = 1000 * MM  # points in a metre
MOST_TEMPLATES: Final = 8


def card_pdf(cards: Sequence[Card]) -> bytes:
    """One page a card."""
    first = cards[0]
    pen = Pen(first.paper, first.ink, tr("Grinder card: {}", first.title), "Ventrix", tr("Grinder card of a port"))
    for i, card in enumerate(cards):
        if i:
            pen.new_page()
        _draw(pen, card)
    return pen.finish()


def _draw(pen: Pen, card: Card) -> None:
    pen.y = pen.top
    pen.corners(pen.left - 4 * MM, pen.bottom - 8 * MM, pen.width + 8 * MM, pen.top - pen.bottom + 12 * MM)
    pen.y -= 18
    pen.text(pen.left, pen.y, elided(card.title, "bold", 18, pen.width * 0.76), 18, font="bold")
    pen.text(pen.right, pen.y, card.date, 10, "quiet", align="r")
    pen.y -= 13
    pen.text(pen.left, pen.y, elided(tr("grinder card · {}", card.line), "text", 10, pen.width), 10, "quiet")
    pen.y -= 4
    pen.rule("text", 1.0)
    templates = card.templates[:MOST_TEMPLATES]
    floor = pen.bottom + _templates_height(pen, templates) + 4 * MM
    half = pen.width * 0.6
    start = pen.y
    _stops(pen, card, half, floor)
    left = pen.y
    pen.y = start
    _right(pen, card, pen.left + half + 6 * MM, pen.width - half - 6 * MM, floor)
    pen.y = min(left, pen.y)
    _gauges(pen, card, floor)
    _templates(pen, templates)


def _heading(pen: Pen, words: str, x: float, width: float) -> None:
    pen.y -= 16
    pen.text(x, pen.y, words, 11, font="bold")
    pen.y -= 3
    pen.line(x, pen.y, x + width, pen.y, "hair", 0.6)


def _stops(pen: Pen, card: Card, width: float, floor: float) -> None:
    _heading(pen, tr("Stop depth, {}", card.length_label), pen.left, width)
    ends = [pen.left + width * s for s in (0.64, 0.79, 1.0)]
    pen.y -= 11
    for end, words in zip(ends, ("left", "limit", tr("may come off")), strict=True):
        pen.text(end, pen.y, words, 8.5, "quiet", align="r")
    for i, stop in enumerate(card.stops):
        if pen.y - 26 < floor + 70 * MM and i + 1 < len(card.stops) and pen.y - 26 < floor + 30 * MM:
            pen.y -= 12
            pen.text(pen.left, pen.y, tr("and {} readings more: see Cuts", len(card.stops) - i), 9, "quiet")
            break
        pen.y -= 14
        role = "worse" if stop.first or stop.stops else "text"
        pen.text(pen.left, pen.y, elided(stop.place, "medium", 11, width * 0.46), 11, font="medium")
        pen.text(ends[0], pen.y, stop.left, 11, font="narrow", align="r")
        pen.text(ends[1], pen.y, stop.limit, 11, "quiet", "narrow", "r")
        pen.text(ends[2], pen.y, stop.take, 12, role, "narrow-bold", "r")
        behind = tr(" · {} behind it", stop.behind) if stop.behind else ""
        if stop.read:
            pen.y -= 9
            pen.text(pen.left, pen.y, elided(f"{stop.read}{behind}", "text", 7.8, width * 0.75), 7.8, "quiet")


def _right(pen: Pen, card: Card, x: float, width: float, floor: float) -> None:
    _heading(pen, "Seat", x, width)
    for words in card.seat:
        pen.paragraph(words, 10, x=x, width=width)
    if card.seat_line:
        _seat(pen, card.seat_line, x, width)
    _heading(pen, tr("Faults left"), x, width)
    for words in card.faults[:8]:
        pen.paragraph(words, 9.5, x=x, width=width)
    if len(card.faults) > 8:
        pen.paragraph(tr("and {} more: see Cuts", len(card.faults) - 8), 8.5, "quiet", x=x, width=width)
    _heading(pen, tr("Caution"), x, width)
    for words in card.cautions:
        if pen.y - 40 > floor:
            pen.paragraph(words, 8.2, "quiet", x=x, width=width)


def _seat(pen: Pen, line: Sequence[tuple[float, float]], x: float, width: float) -> None:
    """The seat's line, enlarged: its scale is said."""
    wide, deep = max(p[0] for p in line) or 1e-3, max(p[1] for p in line) or 1e-3
    scale = min(width * 0.7 / wide, 22 * MM / deep)
    top = pen.y - 6
    pen.curve([(x + p[0] * scale, top - p[1] * scale) for p in line], "text", 1.6)
    pen.y = top - deep * scale - 10
    pen.text(x, pen.y, tr("drawn {:.0f} times its size", scale / M), 8, "quiet")


def _gauges(pen: Pen, card: Card, floor: float) -> None:
    if not card.gauges:
        return
    _heading(pen, tr("Gauges, {}", card.length_label), pen.left, pen.width)
    half = (len(card.gauges) + 1) // 2
    width = (pen.width - 8 * MM) / 2
    start, lowest = pen.y, pen.y
    for c, rows in enumerate((card.gauges[:half], card.gauges[half:])):
        pen.y = start
        x = pen.left + c * (width + 8 * MM)
        ends = [x + width * s for s in (0.6, 0.8, 1.0)]
        if rows:
            pen.y -= 11
            for end, words in zip(ends, ("now", "go", "no-go"), strict=True):
                pen.text(end, pen.y, words, 8.5, "quiet", align="r")
        for row in rows:
            if pen.y - 14 < floor:
                break
            pen.y -= 14
            pen.text(x, pen.y, row.what, 10.5)
            pen.text(ends[0], pen.y, row.now, 11, "quiet", "narrow", "r")
            pen.text(ends[1], pen.y, row.go, 12, "better", "narrow-bold", "r")
            pen.text(ends[2], pen.y, row.no_go, 12, "worse", "narrow-bold", "r")
        lowest = min(lowest, pen.y)
    pen.y = lowest - 10
    if pen.y > floor:
        pen.text(pen.left, pen.y, elided(card.gauge_note, "text", 8, pen.width), 8, "quiet")


def _rows_of(pen: Pen, templates: Sequence[Template]) -> list[list[Template]]:
    """Templates in rows as wide as the page, beside the upright bar."""
    rows: list[list[Template]] = [[]]
    used = 0.0
    for t in templates:
        wide = t.width * M + 5 * MM
        if rows[-1] and used + wide > pen.width - 22 * MM:
            rows.append([])
            used = 0.0
        rows[-1].append(t)
        used += wide
    return [r for r in rows if r]


def _templates_height(pen: Pen, templates: Sequence[Template]) -> float:
    rows = _rows_of(pen, templates)
    return max(sum(max(t.height for t in r) * M + 9 * MM for r in rows) + 14 * MM, BAR + 16 * MM)


def _templates(pen: Pen, templates: Sequence[Template]) -> None:
    """Sections at true size at the foot of the page, and a bar of 100 mm each way that says whether it is true."""
    height = _templates_height(pen, templates)
    top = pen.bottom + height
    pen.y = top
    pen.rule("scribe", 0.8)
    pen.text(pen.left, top - 11, tr("True size, as the developed port measures"), 10, font="bold")
    x = pen.right - 3 * MM
    pen.line(x, pen.bottom + 6 * MM, x, pen.bottom + 6 * MM + BAR, "text", 1.2)
    for y in (pen.bottom + 6 * MM, pen.bottom + 6 * MM + BAR):
        pen.line(x - 2 * MM, y, x + 2 * MM, y, "text", 1.2)
    pen.canvas.saveState()
    pen.canvas.translate(x - 3 * MM, pen.bottom + 6 * MM + BAR / 2)
    pen.canvas.rotate(90)
    pen.text(0, 0, tr("100 mm; measured: ________ mm"), 8.5, "text", align="c")
    pen.canvas.restoreState()
    y = pen.bottom + 1.5 * MM
    pen.line(pen.left, y, pen.left + BAR, y, "text", 1.2)
    for at in (pen.left, pen.left + BAR):
        pen.line(at, y - 2 * MM, at, y + 2 * MM, "text", 1.2)
    pen.text(pen.left + BAR + 3 * MM, y - 3, tr("100 mm; measured: ________ mm. Not 100: print at 100 %."), 8.5)
    if not templates:
        pen.text(pen.left, top - 30, tr("No section of this port was measured: Head and Cuts keep them."), 9, "quiet")
    at = top - 14 * MM
    for row in _rows_of(pen, templates):
        high = max(t.height for t in row) * M
        x = pen.left
        for t in row:
            wide, tall = t.width * M, t.height * M
            below = at - high
            if t.round:
                pen.canvas.setStrokeColor(pen.shade("text"))
                pen.canvas.setLineWidth(0.8)
                pen.canvas.circle(x + wide / 2, below + tall / 2, wide / 2, stroke=1, fill=0)
            else:
                pen.canvas.setStrokeColor(pen.shade("text"))
                pen.canvas.setLineWidth(0.8)
                pen.canvas.roundRect(x, below, wide, tall, t.corner * M, stroke=1, fill=0)
            pen.text(x + wide / 2, below + tall / 2 + 2, elided(t.name, "medium", 8.5, wide - 4), 8.5, font="medium",
                     align="c")  # fmt: skip
            pen.text(x + wide / 2, below + tall / 2 - 9, elided(t.words, "narrow", 8.5, wide - 2), 8.5, "quiet",
                     "narrow", "c")  # fmt: skip
            x += wide + 5 * MM
        at -= high + 6 * MM

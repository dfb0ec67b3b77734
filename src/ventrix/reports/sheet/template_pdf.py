"""Openings of two faces at true size, port by port, with bars of 100 mm each way and the scribe that is set from a
bolt."""

from __future__ import annotations

from typing import Final

import numpy as np

from ventrix.core.lineup.of_job import LineUp
from ventrix.core.lineup.outlines import polygon_of
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.units import from_si
from ventrix.reports.sheet.pen import MM, Pen

BAR: Final = 100 * MM
M: Final = 1000 * MM
CAUTION: Final = (
    "Measure both bars: not 100 mm, print at 100 %. Scribe from machined edges or bolts, never from the casting; stop "
    "at the scribe, at the land, and where the wall was not read."
)


def template_pdf(found: LineUp, paper: str = "A4") -> bytes:
    """Two openings a page, the head's solid and the other's dashed, as the fit lays them.

    Raises ValueError where an outline cannot be drawn.
    """
    pen = Pen(paper, "colour", f"Template: {found.other.name} on {found.head.name}", "Ventrix", "True-size template")
    theirs = {o.port: np.array(polygon_of(o).exterior.coords) for o in found.other.outlines}
    both = [o for o in found.head.outlines if o.port in theirs]
    for i, outline in enumerate(both):
        if i % 2 == 0:
            if i:
                pen.new_page()
            _head(pen, found)
        head = np.array(polygon_of(outline).exterior.coords)
        other = found.fit.place(theirs[outline.port])
        _opening(pen, found, outline.port, head, other, i % 2)
    if not both:
        _head(pen, found)
    return pen.finish()


def _head(pen: Pen, found: LineUp) -> None:
    pen.y = pen.top - 16
    pen.text(pen.left, pen.y, f"{found.other.name} on {found.head.name}, true size", 16, font="bold")
    pen.y -= 14
    pen.text(pen.left, pen.y, f"head solid, {found.other.part} dashed; laid on by {found.by}", 10, "quiet")
    pen.y -= 4
    pen.rule("text", 1.0)
    pen.paragraph(CAUTION, 9)
    y = pen.bottom + 4 * MM
    pen.line(pen.left, y, pen.left + BAR, y, "text", 1.2)
    for at in (pen.left, pen.left + BAR):
        pen.line(at, y - 2 * MM, at, y + 2 * MM, "text", 1.2)
    pen.text(pen.left + BAR + 3 * MM, y - 3, "100 mm; measured: ________ mm", 9)
    x = pen.right - 3 * MM
    pen.line(x, y, x, y + BAR, "text", 1.2)
    for at in (y, y + BAR):
        pen.line(x - 2 * MM, at, x + 2 * MM, at, "text", 1.2)


def _opening(pen: Pen, found: LineUp, port: str, head: Array, other: Array, place: int) -> None:
    room = (pen.top - pen.bottom - 40 * MM) / 2
    x = pen.left + 55 * MM
    y = pen.top - 32 * MM - room * (place + 0.5)
    middle = head.mean(axis=0)
    for curve, dash, width in ((head, (), 1.4), (other, (4, 3), 1.0)):
        points = [(x + M * float(px - middle[0]), y + M * float(py - middle[1])) for px, py in curve]
        pen.curve(points, "text", width, dash)
    at = pen.left + 105 * MM
    pen.text(at, y + 24, port, 13, font="bold")
    lines = [p for p in found.proposals if p.port == port]
    for i, p in enumerate(lines or []):
        pen.text(at, y + 8 - 13 * i, p.sentence[:70], 9)
        if p.from_bolt is not None and p.depth > 0:
            far = from_si(abs(p.from_bolt), "mm")
            pen.text(at, y - 3 - 13 * i, f"scribe {far:.2f} mm from bolt {p.bolt}", 9, "quiet")
    if not lines:
        pen.text(at, y + 8, "nothing is to come off", 9, "quiet")

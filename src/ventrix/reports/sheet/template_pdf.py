"""Openings at true size, two a page, with bars of 100 mm each way: a joint's with the scribe that is set from a bolt,
or those of one face, a gasket's to cut out."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from ventrix.core.lineup.of_job import LineUp
from ventrix.core.lineup.outlines import polygon_of
from ventrix.core.lineup.steps import ACROSS
from ventrix.core.model.job import Face
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import from_si, to_si
from ventrix.reports.sheet.pen import MM, Pen

BAR: Final = to_si(100, "mm")
FARTHEST: Final = 0.1  # how far a printer may be off before it is another mistake
M: Final = 1000 * MM
CAUTION: Final = (
    "Measure both bars: not 100 mm, type what they measure (Line-up, T) and print again at 100 %. Scribe from machined "
    "edges or bolts, never from the casting; stop at the scribe, at the land, and where the wall was not read."
)


@dataclass(frozen=True, slots=True)
class Printer:
    """What the bars of 100 mm measured on the last print, across and up [m]."""

    across: float = BAR
    up: float = BAR

    def __post_init__(self) -> None:
        for bar, words in ((self.across, "across"), (self.up, "up")):
            if not abs(bar / BAR - 1) <= FARTHEST:
                raise Refused("the bar {} is 100 mm long: what it measured lies between 90 and 110 mm", words)

    @property
    def true(self) -> bool:
        """Whether nothing is to be set right."""
        return self.across == BAR == self.up

    @property
    def scale(self) -> tuple[float, float]:
        """Points on paper for a metre, each way."""
        return M * BAR / self.across, M * BAR / self.up


@dataclass(frozen=True, slots=True)
class _Piece:
    """One opening: its name, what is drawn (curve [m], dash, width), and lines beside it (text, quiet)."""

    name: str
    curves: tuple[tuple[Array, tuple[float, ...], float], ...]
    lines: tuple[tuple[str, bool], ...]


def template_pdf(found: LineUp, paper: str = "A4", printer: Printer = Printer()) -> bytes:
    """The head's openings solid and the other's dashed, as the fit lays them. ValueError where one cannot be drawn."""
    theirs = {o.port: np.array(polygon_of(o).exterior.coords) for o in found.other.outlines}
    pieces = []
    for outline in (o for o in found.head.outlines if o.port in theirs):
        head = np.array(polygon_of(outline).exterior.coords)
        other = found.fit.place(theirs[outline.port])
        pieces.append(_Piece(outline.port, ((head, (), 1.4), (other, (4, 3), 1.0)), _proposed(found, outline.port)))
    below = f"head solid, {found.other.part} dashed; laid on by {found.by}"
    return _pages(f"{found.other.name} on {found.head.name}", below, pieces, paper, printer)


def face_pdf(face: Face, paper: str = "A4", printer: Printer = Printer()) -> bytes:
    """The openings of one face, each by itself. ValueError where one cannot be drawn."""
    pieces = []
    for outline in face.outlines:
        curve = np.array(polygon_of(outline).exterior.coords)
        wide, high = (from_si(float(v), "mm") for v in np.ptp(curve, axis=0))
        lines = ((f"{wide:.2f} mm wide, {high:.2f} mm high", False), (f"{outline.shape}, {face.source}", True))
        pieces.append(_Piece(outline.port, ((curve, (), 1.4),), lines))
    return _pages(face.name, f"{face.part}, each opening by itself", pieces, paper, printer)


def _proposed(found: LineUp, port: str) -> tuple[tuple[str, bool], ...]:
    lines: list[tuple[str, bool]] = []
    for p in (p for p in found.proposals if p.port == port):
        lines.append((p.sentence[:70], False))
        if p.from_bolt is not None and p.depth > 0:
            lines.append((f"scribe {from_si(abs(p.from_bolt), 'mm'):.2f} mm from bolt {p.bolt}", True))
        if p.from_edge is not None and p.depth > 0:
            lines.append((f"{from_si(p.from_edge, 'mm'):.2f} mm from the {ACROSS[p.edge]}'s edge", True))
    return tuple(lines) or (("nothing is to come off", True),)


def _pages(title: str, below: str, pieces: Sequence[_Piece], paper: str, printer: Printer) -> bytes:
    pen = Pen(paper, "colour", f"Template: {title}", "Ventrix", "True-size template")
    for i, piece in enumerate(pieces):
        if i % 2 == 0:
            if i:
                pen.new_page()
            _head(pen, title, below, printer)
        _draw(pen, piece, i % 2, printer)
    if not pieces:
        _head(pen, title, below, printer)
    return pen.finish()


def _head(pen: Pen, title: str, below: str, printer: Printer) -> None:
    pen.y = pen.top - 16
    pen.text(pen.left, pen.y, f"{title}, true size", 16, font="bold")
    pen.y -= 14
    pen.text(pen.left, pen.y, below, 10, "quiet")
    pen.y -= 4
    pen.rule("text", 1.0)
    pen.paragraph(CAUTION, 9)
    if not printer.true:
        across, up = (from_si(v, "mm") for v in (printer.across, printer.up))
        pen.paragraph(f"Set right for a printer whose bars measured {across:.2f} mm across and {up:.2f} mm up.", 9)
    wide, high = (BAR * s for s in printer.scale)
    y = pen.bottom + 4 * MM
    pen.line(pen.left, y, pen.left + wide, y, "text", 1.2)
    for at in (pen.left, pen.left + wide):
        pen.line(at, y - 2 * MM, at, y + 2 * MM, "text", 1.2)
    pen.text(pen.left + wide + 3 * MM, y - 3, "100 mm; measured: ________ mm", 9)
    x = pen.right - 3 * MM
    pen.line(x, y, x, y + high, "text", 1.2)
    for at in (y, y + high):
        pen.line(x - 2 * MM, at, x + 2 * MM, at, "text", 1.2)


def _draw(pen: Pen, piece: _Piece, place: int, printer: Printer) -> None:
    room = (pen.top - pen.bottom - 40 * MM) / 2
    x = pen.left + 55 * MM
    y = pen.top - 32 * MM - room * (place + 0.5)
    sx, sy = printer.scale
    middle = piece.curves[0][0].mean(axis=0)
    for curve, dash, width in piece.curves:
        points = [(x + sx * float(px - middle[0]), y + sy * float(py - middle[1])) for px, py in curve]
        pen.curve(points, "text", width, dash)
    at = pen.left + 105 * MM
    pen.text(at, y + 24, piece.name, 13, font="bold")
    for i, (text, quiet) in enumerate(piece.lines):
        pen.text(at, y + 8 - 12 * i, text, 9, "quiet" if quiet else "text")

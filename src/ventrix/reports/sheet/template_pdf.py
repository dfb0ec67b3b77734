"""Openings at true size, as many a page as fit, with bars of 100 mm each way: a joint's with the scribe that is set
from a bolt, or those of one face, a gasket's to cut out."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from ventrix.core.lineup.of_job import LineUp
from ventrix.core.lineup.outlines import polygon_of
from ventrix.core.lineup.steps import ACROSS, FLUSH
from ventrix.core.model.job_parts import Face
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import from_si, to_si
from ventrix.reports.sheet.pen import MM, Pen, wrapped
from ventrix.words import tr

BAR: Final = to_si(100, "mm")
FARTHEST: Final = 0.1  # how far a printer may be off before it is another mistake
M: Final = 1000 * MM
FOOT: Final = 10 * MM  # for the bar across
SIDE: Final = 9 * MM  # for the bar up
LEAST_WORDS: Final = 50 * MM  # beside an opening
Lengths = Callable[[float], str]
CAUTION: Final = tr(
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


def in_millimetres(length: float) -> str:
    """A length [m] as text."""
    return f"{from_si(length, 'mm'):.2f} mm"


def template_pdf(
    found: LineUp, paper: str = "A4", printer: Printer = Printer(), length: Lengths = in_millimetres
) -> bytes:
    """The head's openings solid and the other's dashed, as the fit lays them; `length` writes one [m]. Refused where
    one cannot be drawn, or is larger than the paper."""
    theirs = {o.port: np.array(polygon_of(o).exterior.coords) for o in found.other.outlines}
    pieces = []
    for outline in (o for o in found.head.outlines if o.port in theirs):
        head = np.array(polygon_of(outline).exterior.coords)
        other = found.fit.place(theirs[outline.port])
        lines = _proposed(found, outline.port, length)
        pieces.append(_Piece(outline.port, ((head, (), 1.4), (other, (4, 3), 1.0)), lines))
    below = tr("head solid, {} dashed; laid on by {}", found.other.part, found.by)
    return _pages(tr("{} on {}", found.other.name, found.head.name), below, pieces, paper, printer)


def face_pdf(face: Face, paper: str = "A4", printer: Printer = Printer(), length: Lengths = in_millimetres) -> bytes:
    """The openings of one face, each by itself; `length` writes one [m]. Refused as `template_pdf`."""
    pieces = []
    for outline in face.outlines:
        curve = np.array(polygon_of(outline).exterior.coords)
        wide, high = (length(float(v)) for v in np.ptp(curve, axis=0))
        lines = ((tr("{} wide, {} high", wide, high), False), (f"{outline.shape}, {face.source}", True))
        pieces.append(_Piece(outline.port, ((curve, (), 1.4),), lines))
    return _pages(face.name, tr("{}, each opening by itself", face.part), pieces, paper, printer)


def _proposed(found: LineUp, port: str, length: Lengths) -> tuple[tuple[str, bool], ...]:
    lines: list[tuple[str, bool]] = []
    for p in (p for p in found.proposals if p.port == port):
        stopped = f": {p.stopped_by}" if p.stopped_by else ""
        said = tr("take {} off the {}", length(p.depth), p.part) if p.depth > FLUSH else tr("leave it")
        lines.append((f"{p.edge}: {said}{stopped}", False))
        if p.from_bolt is not None and p.depth > 0:
            lines.append((tr("scribe {} from bolt {}", length(abs(p.from_bolt)), p.bolt), True))
        if p.from_edge is not None and p.depth > 0:
            lines.append((tr("{} from the {}'s edge", length(p.from_edge), ACROSS[p.edge]), True))
    return tuple(lines) or ((tr("nothing is to come off"), True),)


def _pages(title: str, below: str, pieces: Sequence[_Piece], paper: str, printer: Printer) -> bytes:
    pen = Pen(paper, "colour", tr("Template: {}", title), "Ventrix", tr("True-size template"))
    _head(pen, title, below, printer)
    y = pen.y
    for i, piece in enumerate(pieces):
        high = _height(pen, piece, printer)
        if y - high < pen.bottom + FOOT:
            if i:
                pen.new_page()
                _head(pen, title, below, printer)
            y = pen.y
        if y - high < pen.bottom + FOOT or _size(piece, printer)[0] > pen.width - SIDE:
            raise Refused("{} is larger than {} paper at true size: choose a larger one", piece.name, paper)
        _draw(pen, piece, y, printer)
        y -= high
    return pen.finish()


def _size(piece: _Piece, printer: Printer) -> tuple[float, float]:
    """What an opening takes of the paper, across and up [pt]."""
    points = np.vstack([curve for curve, _, _ in piece.curves])
    wide, high = np.ptp(points, axis=0) * np.array(printer.scale)
    return float(wide), float(high)


def _beside(pen: Pen, piece: _Piece, printer: Printer) -> tuple[float, float, bool]:
    """Where the words stand and how wide they may be [pt], and whether beside the opening; below it where it leaves no
    room."""
    at = pen.left + _size(piece, printer)[0] + 10 * MM
    wide = pen.right - SIDE - at
    return (at, wide, True) if wide >= LEAST_WORDS else (pen.left, pen.width - SIDE, False)


def _words(pen: Pen, piece: _Piece, printer: Printer) -> list[tuple[str, bool]]:
    wide = _beside(pen, piece, printer)[1]
    return [(part, quiet) for text, quiet in piece.lines for part in wrapped(text, "text", 9, wide)]


def _height(pen: Pen, piece: _Piece, printer: Printer) -> float:
    """What an opening takes with its words [pt]."""
    words = 24 + 12 * len(_words(pen, piece, printer))
    high = _size(piece, printer)[1]
    return 10 * MM + (max(high, words) if _beside(pen, piece, printer)[2] else high + words)


def _head(pen: Pen, title: str, below: str, printer: Printer) -> None:
    pen.y = pen.top - 16
    pen.text(pen.left, pen.y, tr("{}, true size", title), 16, font="bold")
    pen.y -= 14
    pen.text(pen.left, pen.y, below, 10, "quiet")
    pen.y -= 4
    pen.rule("text", 1.0)
    pen.paragraph(CAUTION, 9)
    if not printer.true:
        across, up = (from_si(v, "mm") for v in (printer.across, printer.up))
        pen.paragraph(
            tr("Corrected for a printer whose bars measured {:.2f} mm across and {:.2f} mm up.", across, up), 9
        )
    wide, high = (BAR * s for s in printer.scale)
    y = pen.bottom + 4 * MM
    pen.line(pen.left, y, pen.left + wide, y, "text", 1.2)
    for at in (pen.left, pen.left + wide):
        pen.line(at, y - 2 * MM, at, y + 2 * MM, "text", 1.2)
    pen.text(pen.left + wide + 3 * MM, y - 3, tr("100 mm; measured: ________ mm"), 9)
    x = pen.right - 3 * MM
    pen.line(x, y, x, y + high, "text", 1.2)
    for at in (y, y + high):
        pen.line(x - 2 * MM, at, x + 2 * MM, at, "text", 1.2)


def _draw(pen: Pen, piece: _Piece, top: float, printer: Printer) -> None:
    """An opening with its words, from `top` downwards."""
    sx, sy = printer.scale
    points = np.vstack([curve for curve, _, _ in piece.curves])
    left, high = points[:, 0].min(), points[:, 1].max()
    y = top - 5 * MM
    for curve, dash, width in piece.curves:
        drawn = [(pen.left + sx * float(px - left), y - sy * float(high - py)) for px, py in curve]
        pen.curve(drawn, "text", width, dash)
    at, _, beside = _beside(pen, piece, printer)
    y = y - 13 if beside else y - _size(piece, printer)[1] - 18
    pen.text(at, y, piece.name, 13, font="bold")
    for i, (text, quiet) in enumerate(_words(pen, piece, printer)):
        pen.text(at, y - 16 - 12 * i, text, 9, "quiet" if quiet else "text")

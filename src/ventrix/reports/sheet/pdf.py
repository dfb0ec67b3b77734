"""A sheet as pages: what a shop hands over with a head. Drawn for paper; the screen shows these very pages."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from functools import partial
from typing import Final

from ventrix.reports.sheet.contents import (
    ALWAYS,
    FigureRow,
    PaperKind,
    Part,
    Sheet,
    offered,
)
from ventrix.reports.sheet.curves_pdf import draw_curves
from ventrix.reports.sheet.pen import MM, Pen, elided, width_of, wrapped
from ventrix.reports.sheet.scan_pdf import draw_scan
from ventrix.reports.sheet.tables_pdf import GAP, draw_doubts, draw_lifts, draw_ports
from ventrix.words import tr

# What goes into detail stands below the notes: a reader of the first page finds every mark explained there.
_DETAILS: Final = (Part.DOUBT, Part.ENGINE, Part.PORTS, Part.HOURS, Part.PHOTOS)
_SECTIONS: Final = {
    Part.SUITS: tr("What it suits"),
    Part.LIMITS: tr("What limits it, what it would take"),
    Part.METAL: tr("Walls, faults, slips"),
    Part.ENGINE: tr("On the engine"),
    Part.HOURS: tr("Hours"),
}


def sheet_pdf(sheet: Sheet) -> bytes:
    """The pages of a sheet."""
    return _Drawing(sheet).draw()


class _Drawing:
    """One sheet being drawn, part by part in the order that was chosen."""

    def __init__(self, sheet: Sheet) -> None:
        self.sheet = sheet
        chosen = sheet.choices
        self.pen = Pen(chosen.paper, chosen.ink, sheet.title, sheet.author, sheet.subject)
        self.pages = 0

    def draw(self) -> bytes:
        """Twice: once to know how many pages there are, once with that number on each."""
        self._through()
        self.pages = self.pen.page
        chosen = self.sheet.choices
        self.pen = Pen(chosen.paper, chosen.ink, self.sheet.title, self.sheet.author, self.sheet.subject)
        self._through()
        return self.pen.finish()

    def _through(self) -> None:
        self.pen.on_page = self._head
        self._head()
        self._title()
        drawn: dict[Part, Callable[[], None]] = {
            Part.MINE: self._large,
            Part.VERDICT: self._verdict,
            Part.CURVES: lambda: draw_curves(self.pen, self.sheet),
            Part.LIFTS: lambda: draw_lifts(self.pen, self.sheet),
            Part.FIGURES: self._figures,
            Part.DONE: self._done,
            Part.DOUBT: lambda: draw_doubts(self.pen, self.sheet),
            Part.SCAN: self._scan,
            Part.PORTS: lambda: draw_ports(self.pen, self.sheet),
            Part.PHOTOS: self._photos,
            **{part: partial(self._section, part) for part in _SECTIONS},
        }
        parts = [p for p in self.sheet.choices.parts if p not in ALWAYS and p in offered(self.sheet.kind)]
        done: set[Part] = set()
        noted = False
        for i, part in enumerate(parts):
            if part in _DETAILS and not noted:
                self._foot_notes()
                noted = True
            beside = parts[i + 1] if i + 1 < len(parts) else None
            if part in done:
                continue
            if {part, beside} == {Part.FIGURES, Part.DONE} and beside is not None:
                self._figures_beside_done()
                done |= {part, beside}
                continue
            drawn[part]()
            done.add(part)
        if not noted:
            self._foot_notes()
        self._conditions()

    # -- what stands on every page

    def _head(self) -> None:
        pen, shop = self.pen, self.sheet.shop
        pen.corners(pen.left - 4 * MM, pen.bottom - 8 * MM, pen.width + 8 * MM, pen.top - pen.bottom + 12 * MM)
        size = 10 * MM
        x = pen.left
        if shop.logo and pen.picture(shop.logo, x, pen.top - size, size * 1.6, size):
            x += size * 1.6 + 3 * MM
        elif shop.name:
            self._emblem(x, pen.top - size, size)
            x += size + 3 * MM
        name = shop.name or self.sheet.subject
        room = pen.width * 0.6
        pen.text(x, pen.top - 4.2 * MM, elided(name, "bold", 11, room), 11, font="bold")
        below = shop.line or (self.sheet.subject[0].lower() + self.sheet.subject[1:] if shop.name else "")
        pen.text(x, pen.top - 8.6 * MM, elided(below, "text", 8, room), 8, "quiet")
        if self.sheet.customer:
            who = elided(tr("for {}", self.sheet.customer), "medium", 8.5, pen.width * 0.35)
            pen.text(pen.right, pen.top - 4.2 * MM, who, 8.5, font="medium", align="r")
        of = tr(" of {}", self.pages) if self.pages else ""
        pen.text(
            pen.right, pen.top - 8.6 * MM, tr("{} · page {}{}", self.sheet.date, pen.page, of), 8, "quiet", align="r"
        )
        pen.y = pen.top - size - 2.4 * MM
        pen.rule("text", 0.9)
        pen.y -= 1 * MM
        foot = elided(tr("{} · made with Ventrix", self.sheet.title), "text", 7, pen.width)
        pen.text(pen.left, pen.bottom - 5 * MM, foot, 7, "quiet")

    def _emblem(self, x: float, y: float, size: float) -> None:
        """A port in section, where the shop has no picture of its own."""
        pen = self.pen
        pen.box(x, y, size, size, "scribe", 0.8)
        for i in range(3):
            at = size * (0.25 + 0.25 * i)
            pen.line(x + 2, y + at - size * 0.12, x + size - 2, y + at + size * 0.12, "scribe", 0.8)

    def _title(self) -> None:
        pen, sheet = self.pen, self.sheet
        pen.y -= 2 * MM
        for line in wrapped(sheet.title, "bold", 14, pen.width)[:2]:
            pen.y -= 14 * 1.2
            pen.text(pen.left, pen.y, line, 14, font="bold")
        pen.y -= 1.5
        pen.paragraph(f"{sheet.kind.words[0].upper()}{sheet.kind.words[1:]}: {sheet.kind.below}", 9, font="medium")
        for words in (sheet.casting, *sheet.conditions):
            if words:
                pen.paragraph(words, 8, "quiet")
        pen.y -= 1.5 * MM

    # -- parts

    def _large(self) -> None:
        pen, large = self.pen, self.sheet.large
        if not large:
            return
        pen.room(17 * MM)
        step = pen.width / max(len(large), 3)
        for i, each in enumerate(large):
            x, y = pen.left + i * step, pen.y
            pen.text(x, y - 8, elided(each.caption, "text", 8, step - 6), 8, "quiet")
            wide = pen.text(x, y - 30, each.text, 23, font="narrow-bold")
            if each.mark:
                pen.text(x + wide + 1, y - 20, each.mark, 9, "brass")
                wide += width_of(each.mark, "text", 9)
            if each.change and each.result:
                pen.arrow(x + wide + 6, y - 29, each.result, 6)
                pen.text(x + wide + 15, y - 30, each.change, 12, each.result, "medium")
            elif each.change:
                pen.text(x + wide + 6, y - 30, tr("{}, not proven", each.change), 9, "quiet")
            pen.text(x, y - 40, each.was, 8, "quiet")
        pen.y -= 15.5 * MM
        pen.rule("hair")
        pen.y -= 1 * MM

    def _verdict(self) -> None:
        pen = self.pen
        if not self.sheet.pairs:
            pen.paragraph(tr("Nothing to compare: {}.", self.sheet.not_ready), 9, font="medium")
            return
        for part in self.sheet.pairs:
            words = f"{part.port}{part.sign}: {part.verdict}"
            pen.paragraph(words, 9.5, font="bold")
            if part.sentence:
                pen.paragraph(part.sentence, 8.5)
            for warning in part.warnings[:3]:
                pen.paragraph(warning, 8, "brass")
        pen.y -= 1.5 * MM

    def _figure_rows(self, x: float, width: float, rows: Sequence[FigureRow]) -> None:
        pen = self.pen
        first, second = x + width * 0.76, x + width
        if any(row.before for row in rows):
            pen.y -= 10
            pen.text(first, pen.y, "before", 7.5, "quiet", align="r")
            pen.text(second, pen.y, "after", 7.5, "quiet", align="r")
        for row in rows:
            pen.room(11)
            pen.y -= 10.8
            pen.text(x, pen.y, elided(row.caption, "text", 8, width * 0.55), 8, "quiet")
            if row.missing:
                pen.text(second, pen.y, row.after, 8, "quiet", align="r")
                continue
            pen.text(first, pen.y, f"{row.before}{row.mark}", 9, font="narrow", align="r")
            pen.text(second, pen.y, f"{row.after}{row.mark}", 9, font="narrow-bold", align="r")

    def _figures(self) -> None:
        if self.sheet.figures:
            self.pen.heading(tr("Volume, sections, speed") if self.sheet.pairs else tr("What was measured"), 22 * MM)
            self._figure_rows(self.pen.left, self.pen.width * 0.6, self.sheet.figures)
            self.pen.y -= 2 * MM

    def _done_lines(self, x: float, width: float) -> None:
        pen = self.pen
        pen.y -= 10
        pen.text(x, pen.y, tr("What was done"), 8, "quiet", "medium")
        for line in self.sheet.done or (tr("Nothing was logged between the two."),):
            pen.paragraph(line, 8.2, x=x, width=width, lead=1.28)

    def _done(self) -> None:
        self.pen.room(16 * MM)
        self._done_lines(self.pen.left, self.pen.width)
        self.pen.y -= 2 * MM

    def _figures_beside_done(self) -> None:
        """Figures left, what was done right, each as long as it is; where it does not fit, one below the other."""
        pen = self.pen
        half = (pen.width - GAP * 2) / 2
        lines = sum(len(wrapped(t, "text", 8.2, half)) for t in self.sheet.done) or 1
        height = max(len(self.sheet.figures) * 10.8 + 12, lines * 8.2 * 1.28 + 14)
        if height > pen.top - pen.bottom - 40 * MM:
            self._figures()
            self._done()
            return
        pen.room(height)
        start = pen.y
        self._figure_rows(pen.left, half, self.sheet.figures)
        left = pen.y
        pen.y = start
        self._done_lines(pen.left + half + GAP * 2, half)
        pen.y = min(left, pen.y) - 2.5 * MM

    def _section(self, part: Part) -> None:
        """A heading with its lines: sentences, or captions with a figure."""
        pen, lines = self.pen, self.sheet.sections.get(part, ())
        if not lines:
            return
        self.pen.heading(_SECTIONS[part], 20 * MM)
        for line in lines:
            if line.figure is None:
                pen.paragraph(line.words, 8.5)
                continue
            pen.room(11)
            pen.y -= 11
            wide = pen.text(pen.left + pen.width * 0.85, pen.y, line.figure, 8.5, font="narrow", align="r")
            pen.text(pen.left, pen.y, elided(line.words, "text", 8.5, pen.width * 0.85 - wide - GAP), 8.5)
        pen.y -= 2 * MM

    def _scan(self) -> None:
        if self.sheet.scan is not None:
            self.pen.heading(tr("By scan"), (60 if self.sheet.scan.sections else 20) * MM)
            draw_scan(self.pen, self.sheet.scan)

    def _photos(self) -> None:
        pen = self.pen
        if not self.sheet.photos:
            return
        self.pen.heading(tr("Photos"), 66 * MM)
        width, height = (pen.width - GAP) / 2, 56 * MM
        for i, photo in enumerate(self.sheet.photos):
            if i % 2 == 0:
                pen.room(height + 7 * MM)
                pen.y -= height
            x = pen.left + (i % 2) * (width + GAP)
            if not pen.picture(photo.data, x, pen.y, width, height):
                pen.box(x, pen.y, width, height, "hair")
                pen.text(x + 6, pen.y + height / 2, tr("this picture cannot be read"), 8, "quiet")
            pen.text(x, pen.y - 9, elided(photo.caption, "text", 8, width), 8, "quiet")
            if i % 2 or i + 1 == len(self.sheet.photos):
                pen.y -= 7 * MM

    # -- what cannot be left out

    def _foot_notes(self) -> None:
        """Every mark that stands on the sheet, explained; and what was left out."""
        pen = self.pen
        said = []
        if self.sheet.kind is PaperKind.PAIR:
            said = [tr("gains marked up or down are proven over the scatter of bench and mounts; – is inside it.")]
        said += [f"{m.sign} {m.words}." for m in self.sheet.marks]
        words = "  ".join(said)
        pen.room(12 * MM)
        pen.y -= 1 * MM
        pen.rule("scribe", 0.5)
        if words:
            pen.paragraph(words[0].upper() + words[1:], 7.4, "quiet")
        for note in self.sheet.notes[:12]:
            pen.paragraph(note, 7.4, "quiet")
        if len(self.sheet.notes) > 12:
            pen.paragraph(tr("And {} notes more, in the job document.", len(self.sheet.notes) - 12), 7.4, "quiet")
        missing = [f.caption.lower() for f in self.sheet.figures if f.missing]
        if missing:
            pen.paragraph(tr("Not measured: {}.", ", ".join(missing)), 7.4, "quiet")
        for words in self.sheet.cautions:
            pen.paragraph(words, 7.4, "quiet", "medium")

    def _conditions(self) -> None:
        pen = self.pen
        if not self.sheet.pairs:
            return
        self.pen.heading(tr("Conditions in full"), 40 * MM)
        columns = len(self.sheet.pairs)
        width = (pen.width - GAP * (columns - 1)) / columns
        start, lowest = pen.y, pen.y
        for i, p in enumerate(self.sheet.pairs):
            pen.y = start
            x = pen.left + i * (width + GAP)
            pen.y -= 10
            pen.text(
                x,
                pen.y,
                elided(p.states, "medium", 8, width),
                8,
                p.kind,
                "medium",
            )
            for words in (*p.conditions, *((p.comparability,) if p.comparability else ())):
                for line in wrapped(words, "text", 7.8, width):
                    if pen.y - 10 < pen.bottom:
                        break
                    pen.y -= 9.8
                    pen.text(x, pen.y, line, 7.8, "text")
            lowest = min(lowest, pen.y)
        pen.y = lowest - 2 * MM
        if self.sheet.faults:
            pen.paragraph(tr("Faults of the casting that are left"), 8, "quiet", "medium")
            for fault in self.sheet.faults[:10]:
                pen.paragraph(fault, 8)

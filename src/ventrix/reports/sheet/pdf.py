"""A sheet as pages: what a shop hands over with a head. Drawn for paper; the screen shows these very pages."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from functools import partial
from typing import Final

from ventrix.reports.sheet.contents import (
    ALWAYS,
    Curve,
    FigureRow,
    LiftFigures,
    PairPart,
    PaperKind,
    Part,
    Sheet,
    offered,
)
from ventrix.reports.sheet.pen import MM, Pen, elided, width_of, wrapped
from ventrix.reports.sheet.scan_pdf import draw_scan

MOST_COLUMNS: Final = 14  # lifts beside each other
GAP: Final = 4 * MM
_DASH: Final = (3.2, 2.2)
# What goes into detail stands below the notes: a reader of the first page finds every mark explained there.
_DETAILS: Final = (Part.DOUBT, Part.ENGINE, Part.PORTS, Part.HOURS, Part.PHOTOS)
_SECTIONS: Final = {
    Part.SUITS: "What it suits",
    Part.LIMITS: "What limits it, what it would take",
    Part.METAL: "Walls, faults, slips",
    Part.ENGINE: "On the engine",
    Part.HOURS: "Hours",
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
            Part.CURVES: self._curves,
            Part.LIFTS: self._lifts,
            Part.FIGURES: self._figures,
            Part.DONE: self._done,
            Part.DOUBT: self._doubt,
            Part.SCAN: self._scan,
            Part.PORTS: self._ports,
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
            who = elided(f"for {self.sheet.customer}", "medium", 8.5, pen.width * 0.35)
            pen.text(pen.right, pen.top - 4.2 * MM, who, 8.5, font="medium", align="r")
        of = f" of {self.pages}" if self.pages else ""
        pen.text(pen.right, pen.top - 8.6 * MM, f"{self.sheet.date} · page {pen.page}{of}", 8, "quiet", align="r")
        pen.y = pen.top - size - 2.4 * MM
        pen.rule("text", 0.9)
        pen.y -= 1 * MM
        foot = elided(f"{self.sheet.title} · made with Ventrix", "text", 7, pen.width)
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
                pen.text(x + wide + 6, y - 30, f"{each.change}, not proven", 9, "quiet")
            pen.text(x, y - 40, each.was, 8, "quiet")
        pen.y -= 15.5 * MM
        pen.rule("hair")
        pen.y -= 1 * MM

    def _verdict(self) -> None:
        pen = self.pen
        if not self.sheet.pairs:
            pen.paragraph(f"Nothing to hold beside each other: {self.sheet.not_ready}.", 9, font="medium")
            return
        for part in self.sheet.pairs:
            words = f"{part.port}{part.sign}: {part.verdict}"
            pen.paragraph(words, 9.5, font="bold")
            if part.sentence:
                pen.paragraph(part.sentence, 8.5)
            for warning in part.warnings[:3]:
                pen.paragraph(warning, 8, "brass")
        pen.y -= 1.5 * MM

    def _curves(self) -> None:
        pairs = [p for p in self.sheet.pairs if len(p.after.x) > 1]
        if not pairs:
            return
        units = list(dict.fromkeys(p.unit for p in pairs))
        height = 62 * MM if len(units) == 1 else 50 * MM
        for unit in units:  # an index and a flow have no axis in common
            self.pen.room(height + 6 * MM)
            self._plot([p for p in pairs if p.unit == unit], unit, height)

    def _plot(self, pairs: Sequence[PairPart], unit: str, height: float) -> None:
        pen = self.pen
        x0, x1 = pen.left + 9 * MM, pen.right - 22 * MM
        y1 = pen.y - 3 * MM
        y0 = y1 - height + 6 * MM
        right = max(c.x[-1] for p in pairs for c in (p.before, p.after)) or 1.0
        top = max(max(c.y) for p in pairs for c in (p.before, p.after)) * 1.06 or 1.0

        def at(x: float, y: float) -> tuple[float, float]:
            return x0 + (x1 - x0) * x / right, y0 + (y1 - y0) * y / top

        for value in _ticks(top, 5):
            px, py = at(0, value)
            pen.line(px, py, x1, py, "hair", 0.4)
            pen.text(px - 3, py - 2.4, f"{value:g}", 7.5, "quiet", "narrow", "r")
        for value in _ticks(right, 7):
            px, py = at(value, 0)
            pen.line(px, y0, px, y1, "hair", 0.4)
            pen.text(px, y0 - 9, f"{value:g}", 7.5, "quiet", "narrow", "c")
        pen.line(x0, y0, x1, y0, "text", 0.8)
        pen.line(x0, y0, x0, y1, "text", 0.8)
        pen.text(x0 + 3, y1 - 7, unit, 8, "quiet")
        pen.text(x1, y0 - 17, f"lift, {self.sheet.lift_label}", 7.5, "quiet", align="r")
        ends: list[float] = []
        for p in pairs:
            for curve, name, width, dash in ((p.after, "after", 1.7, ()), (p.before, "before", 1.1, _DASH)):
                if curve is p.before and p.before == p.after:
                    continue
                pen.curve([at(x, y) for x, y in zip(curve.x, curve.y, strict=True)], p.kind, width, dash)
                if curve is p.after:
                    self._squares(p, curve, at)
                _, end = at(curve.x[-1], curve.y[-1])
                while any(abs(end - e) < 8.5 for e in ends):
                    end -= 1.0
                ends.append(end)
                px = at(curve.x[-1], 0)[0] + 4
                font = "medium" if curve is p.after else "text"
                words = f"{p.kind}{p.sign}" + (f", {name}" if p.before != p.after else "")
                pen.text(px, end - 2.5, words, 7.5, p.kind, font)
        pen.y = y0 - 7 * MM

    def _squares(self, part: PairPart, curve: Curve, at: Callable[[float, float], tuple[float, float]]) -> None:
        """The tested lifts on a curve: squares for intake, discs for exhaust, so that both read without colour."""
        pen = self.pen
        pen.canvas.setStrokeColor(pen.shade(part.kind))
        pen.canvas.setFillColor(pen.shade("paper"))
        pen.canvas.setLineWidth(0.8)
        for row in part.lifts:
            x = float(row.lift)
            y = _on(curve, x)
            if y is None or row.mark:
                continue
            px, py = at(x, y)
            if part.kind == "intake":
                pen.canvas.rect(px - 1.6, py - 1.6, 3.2, 3.2, stroke=1, fill=1)
            else:
                pen.canvas.circle(px, py, 1.7, stroke=1, fill=1)

    def _lifts(self) -> None:
        """Before, after and gain at every lift, the lifts beside each other; long tables in blocks."""
        pen = self.pen
        heads = list(dict.fromkeys(r.lift for p in self.sheet.pairs for r in p.lifts))
        heads.sort(key=float)
        for start in range(0, len(heads), MOST_COLUMNS):
            lifts = heads[start : start + MOST_COLUMNS]
            pen.room((4 + 13 * len(self.sheet.pairs)) * MM)
            name = 24 * MM
            step = (pen.width - name) / max(len(lifts), 8)
            pen.y -= 10
            pen.text(pen.left, pen.y, f"lift, {self.sheet.lift_label}", 8, "quiet")
            for i, lift in enumerate(lifts):
                pen.text(pen.left + name + step * (i + 1) - 2, pen.y, lift, 8, "quiet", "narrow", "r")
            pen.y -= 3
            pen.rule("scribe", 0.5)
            for p in self.sheet.pairs:
                self._lift_rows(p, lifts, name, step)
        pen.y -= 1.5 * MM

    def _lift_rows(self, p: PairPart, lifts: Sequence[str], name: float, step: float) -> None:
        pen = self.pen
        by_lift = {r.lift: r for r in p.lifts}
        pen.room(13 * MM)
        rows: tuple[tuple[str, str, str, Callable[[LiftFigures], str]], ...] = (
            (f"{p.kind}{p.sign}, before", p.kind, "narrow", lambda r: r.before),
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
            self._heading("Volume, sections, speed" if self.sheet.pairs else "What was measured", 22 * MM)
            self._figure_rows(self.pen.left, self.pen.width * 0.6, self.sheet.figures)
            self.pen.y -= 2 * MM

    def _done_lines(self, x: float, width: float) -> None:
        pen = self.pen
        pen.y -= 10
        pen.text(x, pen.y, "What was done", 8, "quiet", "medium")
        for line in self.sheet.done or ("Nothing was logged between the two.",):
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

    def _doubt(self) -> None:
        """Every lift with the doubt of its gain, both kinds of port beside each other."""
        pen = self.pen
        pairs = [p for p in self.sheet.pairs if any(r.doubt for r in p.lifts)]
        if not pairs:
            return
        rows = max(len(p.lifts) for p in pairs)
        self._heading("Every lift with its uncertainty (95 %)", min(rows, 24) * 10 + 60)
        width = (pen.width - GAP * (len(pairs) - 1)) / max(len(pairs), 2)
        for first in range(0, rows, 50):
            pen.room(min(rows - first, 50) * 10 + 24)
            start = lowest = pen.y
            for i, p in enumerate(pairs):
                pen.y = start
                self._doubt_column(p, p.lifts[first : first + 50], pen.left + i * (width + GAP), width)
                lowest = min(lowest, pen.y)
            pen.y = lowest - 2 * MM

    def _doubt_column(self, p: PairPart, rows: Sequence[LiftFigures], x: float, width: float) -> None:
        pen = self.pen
        pen.y -= 11
        pen.text(x, pen.y, elided(p.states, "medium", 8.5, width), 8.5, p.kind, "medium")
        ends = [x + width * share for share in (0.15, 0.32, 0.49, 0.76)]
        pen.y -= 10
        heads = (f"lift, {self.sheet.lift_label}", "before", "after", "gain")
        for end, words in zip(ends, heads, strict=True):
            pen.text(end, pen.y, words, 7.5, "quiet", align="r")
        for row in rows:
            pen.y -= 10
            cells = (row.lift, row.before, row.after + row.mark, row.doubt)
            for end, words, font in zip(ends, cells, ("narrow", "narrow", "narrow-bold", "narrow"), strict=True):
                pen.text(end, pen.y, words, 8.5, font=font, align="r")
            pen.arrow(ends[3] + 2 * MM, pen.y, row.result, 4.5)
            said = {"better": "proven more", "worse": "proven less"}.get(row.result, "not proven")
            pen.text(ends[3] + 4.5 * MM, pen.y, said, 7.5, row.result or "quiet", "narrow")

    def _ports(self) -> None:
        pen = self.pen
        if not self.sheet.ports:
            return
        self._heading("All ports", 24 * MM)
        shares = (0.2, 0.3, 0.11, 0.16, 0.13, 0.1)
        lefts = [pen.left + pen.width * sum(shares[:i]) for i in range(len(shares))]
        for r, row in enumerate((self.sheet.ports_head, *self.sheet.ports)):
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

    def _section(self, part: Part) -> None:
        """A heading with its lines: sentences, or captions with a figure."""
        pen, lines = self.pen, self.sheet.sections.get(part, ())
        if not lines:
            return
        self._heading(_SECTIONS[part], 20 * MM)
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
            self._heading("By scan", (60 if self.sheet.scan.sections else 20) * MM)
            draw_scan(self.pen, self.sheet.scan)

    def _photos(self) -> None:
        pen = self.pen
        if not self.sheet.photos:
            return
        self._heading("Photos", 66 * MM)
        width, height = (pen.width - GAP) / 2, 56 * MM
        for i, photo in enumerate(self.sheet.photos):
            if i % 2 == 0:
                pen.room(height + 7 * MM)
                pen.y -= height
            x = pen.left + (i % 2) * (width + GAP)
            if not pen.picture(photo.data, x, pen.y, width, height):
                pen.box(x, pen.y, width, height, "hair")
                pen.text(x + 6, pen.y + height / 2, "this picture cannot be read", 8, "quiet")
            pen.text(x, pen.y - 9, elided(photo.caption, "text", 8, width), 8, "quiet")
            if i % 2 or i + 1 == len(self.sheet.photos):
                pen.y -= 7 * MM

    # -- what cannot be left out

    def _foot_notes(self) -> None:
        """Every mark that stands on the sheet, explained; and what was left out."""
        pen = self.pen
        said = []
        if self.sheet.kind is PaperKind.PAIR:
            said = ["gains marked up or down are proven over the scatter of bench and mounts; – is inside it."]
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
            pen.paragraph(f"And {len(self.sheet.notes) - 12} notes more, in the job document.", 7.4, "quiet")
        missing = [f.caption.lower() for f in self.sheet.figures if f.missing]
        if missing:
            pen.paragraph(f"Not measured: {', '.join(missing)}.", 7.4, "quiet")
        for words in self.sheet.cautions:
            pen.paragraph(words, 7.4, "quiet", "medium")

    def _conditions(self) -> None:
        pen = self.pen
        if not self.sheet.pairs:
            return
        self._heading("Conditions in full", 40 * MM)
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
            pen.paragraph("Faults of the casting that are left", 8, "quiet", "medium")
            for fault in self.sheet.faults[:10]:
                pen.paragraph(fault, 8)

    def _heading(self, words: str, height: float) -> None:
        """A heading that stays with at least `height` of what follows."""
        pen = self.pen
        pen.room(height)
        pen.y -= 4.5 * MM
        pen.text(pen.left, pen.y, words, 9.5, font="bold")
        pen.y -= 1.2 * MM
        pen.rule("hair", 0.5)


def _ticks(top: float, wanted: int) -> list[float]:
    """Round values up to a top, about as many as wanted."""
    if top <= 0:
        return []
    raw = top / wanted
    power = 10.0 ** (len(f"{int(raw)}") - 1 if raw >= 1 else -next(n for n in range(1, 12) if raw * 10**n >= 1))
    step = next(s * power for s in (1, 2, 2.5, 5, 10) if s * power >= raw)
    return [round(step * i, 10) for i in range(1, int(top / step) + 1)]


def _on(curve: Curve, x: float) -> float | None:
    """A curve's value at a place, on a straight line between its points; None past its ends."""
    for (x0, y0), (x1, y1) in zip(
        zip(curve.x, curve.y, strict=True), zip(curve.x[1:], curve.y[1:], strict=True), strict=False
    ):
        if x0 <= x <= x1 * (1 + 1e-9) and x1 > x0:
            return y0 + (y1 - y0) * (x - x0) / (x1 - x0)
    return None

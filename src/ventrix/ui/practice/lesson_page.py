"""A lesson as a page: what was read, looks that cost minutes, answers, and the grade with why."""

from __future__ import annotations

from html import escape
from typing import Final

from PySide6.QtCore import QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QPainter, QPaintEvent, QPen, QPolygonF
from PySide6.QtWidgets import QHBoxLayout, QLabel, QVBoxLayout, QWidget

from ventrix.bench.simulator.practice.lessons.catalogue import puzzle
from ventrix.bench.simulator.practice.lessons.lesson import BEST, LIFTS, Exhibit, Grade, Lesson, Puzzle, grade
from ventrix.core.quantity.words import number_text
from ventrix.rooms.display_units import US, Units
from ventrix.ui.look import theme
from ventrix.ui.widgets.painted_text import paint_text
from ventrix.ui.widgets.rich_label import RichLabel
from ventrix.ui.widgets.scroll_area import ScrollArea
from ventrix.words import tr

ANSWERS: Final = "ABCD"


class ExhibitView(QWidget):
    """Two tests rung by rung: figures, and the difference drawn over the lifts."""

    def __init__(self) -> None:
        super().__init__()
        self.exhibit: Exhibit | None = None
        self.units: Units | None = None
        self.setMinimumHeight(210)
        self.setAccessibleName(tr("Both tests"))

    def sizeHint(self) -> QSize:
        return QSize(420, 330)

    def show_exhibit(self, exhibit: Exhibit | None, units: Units) -> None:
        self.exhibit, self.units = exhibit, units
        self.setVisible(exhibit is not None)
        if exhibit is not None:
            told = (
                tr(
                    "at {} {}, then {}",
                    units.lift.with_unit(float(x)),
                    units.flow.text(float(a)),
                    units.flow.text(float(b)),
                )
                for x, a, b in zip(LIFTS, exhibit.before, exhibit.after, strict=True)
            )
            self.setAccessibleDescription("; ".join(told))
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        e, units = self.exhibit, self.units
        if e is None or units is None:
            return
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        wide = float(self.width())
        columns = tuple(share * wide for share in (0.17, 0.40, 0.62, 0.83, 1.0))
        heads = (tr("lift, {}", units.lift.label), *e.names, "change", "%")
        for x, words in zip(columns, heads, strict=True):
            paint_text(painter, QRectF(x - 0.2 * wide, 0, 0.2 * wide - 4, 20), words, "quiet", 12, right=True)
        change = e.after - e.before
        for i, x in enumerate(LIFTS):
            y = 22 + 22 * i
            cells = (
                units.lift.text(float(x)),
                units.flow.text(float(e.before[i])),
                units.flow.text(float(e.after[i])),
                units.flow.text(float(change[i]), sign=True),
                number_text(100 * change[i] / e.before[i], 1, sign=True),
            )
            for at, text in zip(columns, cells, strict=True):
                box = QRectF(at - 0.2 * wide, y, 0.2 * wide - 4, 22)
                paint_text(painter, box, text, "text", 15, right=True, narrow=True)
        box = QRectF(70, 22 + 22 * len(LIFTS) + 16, wide - 90, max(self.height() - 22 * len(LIFTS) - 68, 40))
        low, high = min(float(change.min()), 0.0), max(float(change.max()), 0.0)
        span = max(high - low, 1e-5)

        def at_(i: int, value: float) -> QPointF:
            across = i / (len(LIFTS) - 1)
            return QPointF(box.left() + box.width() * across, box.bottom() - box.height() * (value - low) / span)

        painter.setPen(QPen(theme.colour("scribe", 0.5), 1))
        painter.drawLine(at_(0, 0), at_(len(LIFTS) - 1, 0))
        for value in {0.0, low, high}:
            row = QRectF(0, at_(0, value).y() - 9, 62, 18)
            words = units.flow.text(value, sign=True) if value else "0"
            paint_text(painter, row, words, "quiet", 12, right=True)
        painter.setPen(QPen(theme.colour("brass"), 2.5))
        painter.drawPolyline(QPolygonF([at_(i, float(v)) for i, v in enumerate(change)]))
        words = tr("change over the lifts, {}", units.flow.label)
        paint_text(painter, QRectF(70, box.bottom() + 8, wide - 90, 18), words, "quiet", 12)


class LessonPage(QWidget):
    """The page. It grades; who keeps the progress is told by `answered`."""

    answered = Signal(object, int)  # the lesson and the points

    def __init__(self) -> None:
        super().__init__()
        self.lesson: Lesson | None = None
        self.puzzle: Puzzle | None = None
        self.looked: list[int] = []
        self.answer: int | None = None
        self.graded: Grade | None = None
        self.units = US
        self.title, self.story = QLabel(), QLabel()
        self.title.setStyleSheet("font-size: 22px; font-weight: 600")
        self.story.setStyleSheet("font-size: 16px")
        self.exhibit = ExhibitView()
        self.words = RichLabel()
        self.words.linkActivated.connect(self._press)
        for label in (self.title, self.story, self.words):
            label.setWordWrap(True)
        self.words.setAlignment(Qt.AlignmentFlag.AlignTop)
        scroll = ScrollArea(self.words)
        self._scroll = scroll
        below = QHBoxLayout()
        below.setSpacing(24)
        below.addWidget(self.exhibit, 2)
        below.addWidget(scroll, 3)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(10)
        column.addWidget(self.title)
        column.addWidget(self.story)
        column.addLayout(below, 1)

    def put(self, lesson: Lesson, seed: int) -> None:
        """The puzzle of a lesson, nothing looked at and nothing answered."""
        self.lesson, self.puzzle = lesson, puzzle(lesson, seed)
        self.looked, self.answer, self.graded = [], None, None

    def look(self, number: int) -> None:
        """Look at one more thing; it costs its minutes once."""
        if self.puzzle is None or number >= len(self.puzzle.looks) or self.graded is not None:
            return
        if number not in self.looked:
            self.looked.append(number)

    def take(self, number: int) -> None:
        """Answer; it can be answered once."""
        if self.puzzle is None or self.lesson is None or number >= len(self.puzzle.choices) or self.graded is not None:
            return
        self.answer = number
        self.graded = grade(self.puzzle, number, len(self.looked))
        self.answered.emit(self.lesson, self.graded.points)

    def _press(self, link: str) -> None:
        kind, number = link[:1], int(link[1:])
        (self.look if kind == "l" else self.take)(number)
        self.show_puzzle(self.units)

    def show_puzzle(self, units: Units) -> None:
        """Draw it as it stands."""
        self.units = units
        if self.puzzle is None or self.lesson is None:
            return
        t, p = theme.current(), self.puzzle
        self.title.setText(self.lesson.title)
        self.story.setText(p.story)
        self.exhibit.show_exhibit(p.exhibit, units)
        rows = [tr("<p style='color:{}'>Look first, where you like (a good eye needs two at most):</p>", t.quiet)]
        spent = sum(p.looks[i].minutes for i in self.looked)
        for i, look in enumerate(p.looks):
            key = f"<b style='color:{t.brass}'>{i + 1}</b>"
            if i in self.looked:
                rows.append(f"<p>{key} {escape(look.words)}: <b>{escape(look.shows)}</b></p>")
            else:
                link = f"<a href='l{i}' style='color:{t.text}; text-decoration:none'>{escape(look.words)}</a>"
                rows.append(f"<p>{key} {link}, {look.minutes} min</p>")
        rows.append(tr("<p style='color:{}'>{} minutes spent. What is it?</p>", t.quiet, spent))
        for i, choice in enumerate(p.choices):
            key = f"<b style='color:{t.brass}'>{ANSWERS[i]}</b>"
            words = escape(choice.words)
            if self.graded is None:
                rows.append(f"<p>{key} <a href='a{i}' style='color:{t.text}; text-decoration:none'>{words}</a></p>")
            else:
                mark = (
                    tr("◀ your answer") if i == self.answer else tr("the best answer") if choice.points == BEST else ""
                )
                shade = t.better if choice.points == BEST else t.text if i == self.answer else t.quiet
                rows.append(f"<p style='color:{shade}'>{key} {words} <b>{mark}</b></p>")
        if self.graded is not None:
            shade = t.better if self.graded.points == BEST else t.worse if self.graded.points == 0 else t.text
            rows.append(
                tr(
                    "<p style='font-size:19px; color:{}'><b>{} of {}.</b> {}</p><p>{}</p>",
                    shade,
                    self.graded.points,
                    BEST,
                    escape(self.graded.said),
                    escape(p.explains),
                )
            )
        self.words.setText("".join(rows))
        self.words.setStyleSheet("font-size: 15px")
        if self.graded is not None:
            bar = self._scroll.verticalScrollBar()
            bar.setValue(bar.maximum())

"""The next moves, a line each: a mark, what it is, its gain as a thin bar on one scale, and what it costs."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Final

from PySide6.QtCore import QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QMouseEvent, QPainter, QPaintEvent, QPen, QPolygonF
from PySide6.QtWidgets import QWidget

from ventrix.rooms.plan.shows import MoveLine
from ventrix.ui.look import theme
from ventrix.ui.widgets.painted_text import paint_text
from ventrix.ui.widgets.spoken_rows import SpokenRows, lines_of
from ventrix.words import tr

ROW: Final = 46
HEAD: Final = 22
WIDE, NARROW = 540.0, 400.0  # px: below each, columns give way


class MoveList(QWidget):
    """Lines best first; the picked one is bracketed."""

    picked = Signal(int)
    taken = Signal()

    def __init__(self) -> None:
        super().__init__()
        self.lines: tuple[MoveLine, ...] = ()
        self.at = 0
        self.heads: tuple[str, ...] = ("gain", tr("an hour"), "min", "cc", tr("wall left"))
        self.setAccessibleName(tr("Next moves"))
        self.told = SpokenRows(self)
        self.setMinimumWidth(220)

    def sizeHint(self) -> QSize:
        return QSize(600, HEAD + ROW * max(len(self.lines), 1))

    def show_lines(self, lines: Sequence[MoveLine], at: int, heads: tuple[str, ...]) -> None:
        self.lines, self.at, self.heads = tuple(lines), at, heads
        self.setMinimumHeight(HEAD + ROW * max(len(self.lines), 1))
        self.setAccessibleDescription(self.spoken)
        self.told.say(lines_of(self, HEAD, ROW, map(self._words, range(len(self.lines)))))
        self.update()

    @property
    def spoken(self) -> str:
        """The picked line, for a screen reader."""
        return self._words(self.at) if self.lines else ""

    def _words(self, at: int) -> str:
        line = self.lines[at]
        return tr("{}: {}, {}, gain {}, {} an hour", at + 1, line.title, line.below, line.gain or "none", line.rate)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        row = int((event.position().y() - HEAD) // ROW)
        if 0 <= row < len(self.lines):
            self.picked.emit(row)

    def mouseDoubleClickEvent(self, event: QMouseEvent) -> None:
        self.taken.emit()

    def _columns(self) -> dict[str, QRectF]:
        w = float(self.width())
        wide = w >= WIDE
        right = {"min": 54.0, "rate": 56.0} if w >= NARROW else {}
        right = {"wall": 78.0, "cc": 44.0} | right if wide else right
        found, x = {}, w - 6
        for name, width in right.items():
            found[name] = QRectF(x - width, 0, width, ROW)
            x -= width
        bar = 130.0 if wide else 100.0 if w >= NARROW else 80.0
        found["bar"] = QRectF(x - bar - 8, 0, bar, ROW)
        found["title"] = QRectF(58, 0, x - bar - 74, ROW)
        return found

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        columns = self._columns()
        for name, words in zip(("bar", "rate", "min", "cc", "wall"), self.heads, strict=True):
            if name in columns:
                paint_text(
                    painter, columns[name].adjusted(0, 0, -4, HEAD - ROW), words, "quiet", 12, right=name != "bar"
                )
        spans = [(line.low, line.high) for line in self.lines if line.gain]
        low = min([0.0, *(a for a, _ in spans)])
        high = max([1e-9, *(b for _, b in spans)])
        for i, line in enumerate(self.lines):
            self._line(painter, i, line, columns, low, high)

    def _line(
        self, painter: QPainter, i: int, line: MoveLine, columns: dict[str, QRectF], low: float, high: float
    ) -> None:
        top = HEAD + i * ROW
        chosen = i == self.at
        if chosen:
            painter.fillRect(QRectF(0, top, self.width(), ROW), theme.colour("raised"))
            painter.fillRect(QRectF(0, top, 3, ROW), theme.colour("brass"))
        role = "brass" if chosen and line.mark != "cross" else "text" if line.mark != "cross" else "quiet"
        paint_text(painter, QRectF(8, top, 22, ROW), str(i + 1), "quiet", 16, weight=600, narrow=True)
        self._mark(painter, QRectF(34, top + 16, 13, 13), line.mark)
        title = columns["title"].translated(0, top)
        paint_text(painter, title.adjusted(0, 4, 0, -ROW / 2), line.title, role, 14, weight=600)
        below = "worse" if line.mark == "cross" else "quiet"
        paint_text(painter, title.adjusted(0, ROW / 2 - 2, 0, -4), line.below, below, 12)
        bar = columns["bar"].translated(0, top)
        if line.gain:
            self._bar(painter, bar, line, low, high)
        for name, words in (("rate", line.rate), ("min", line.minutes), ("cc", line.volume), ("wall", line.wall)):
            if name in columns:
                shade = "brass" if name == "rate" and chosen else "text" if words and words[0].isdigit() else "quiet"
                size = 17 if name == "rate" else 14
                cell = columns[name].translated(0, top).adjusted(0, 0, -4, 0)
                paint_text(
                    painter, cell, words, shade, size, right=True, weight=600 if name == "rate" else 400, narrow=True
                )
        painter.setPen(QPen(theme.colour("raised"), 1))
        painter.drawLine(QPointF(0, top + ROW - 0.5), QPointF(self.width(), top + ROW - 0.5))

    def _bar(self, painter: QPainter, box: QRectF, line: MoveLine, low: float, high: float) -> None:
        def x(value: float) -> float:
            return box.left() + (value - low) / (high - low) * box.width()

        shade = theme.current().better if line.mark != "cross" else theme.current().quiet
        paint_text(painter, QRectF(x(line.mean) - 40, box.top() + 3, 80, 18), line.gain,
                   "better" if line.mark != "cross" else "quiet", 15, centre=True, weight=600, narrow=True)  # fmt: skip
        y = box.top() + 32
        pen = QPen(theme.colour(shade), 4, Qt.PenStyle.DotLine if line.guess else Qt.PenStyle.SolidLine)
        pen.setCapStyle(Qt.PenCapStyle.FlatCap)
        painter.setPen(pen)
        painter.drawLine(QPointF(x(line.low), y), QPointF(x(line.high), y))
        painter.setPen(QPen(theme.colour("text"), 2))
        painter.drawLine(QPointF(x(line.mean), y - 6), QPointF(x(line.mean), y + 6))
        painter.setPen(QPen(theme.colour("quiet"), 1))
        painter.drawLine(QPointF(x(0.0), box.top() + 6), QPointF(x(0.0), box.bottom() - 6))

    def _mark(self, painter: QPainter, box: QRectF, mark: str) -> None:
        painter.save()
        if mark == "square":
            painter.fillRect(box, theme.colour("brass"))
        elif mark == "diamond":
            painter.setPen(QPen(theme.colour("scribe"), 1.8))
            c = box.center()
            painter.drawPolygon(QPolygonF([QPointF(c.x(), box.top()), QPointF(box.right(), c.y()),
                                           QPointF(c.x(), box.bottom()), QPointF(box.left(), c.y())]))  # fmt: skip
        else:
            painter.setPen(QPen(theme.colour("worse"), 2))
            painter.drawLine(box.topLeft(), box.bottomRight())
            painter.drawLine(box.topRight(), box.bottomLeft())
        painter.restore()

"""What of the developed port may be copied onto the port in hand: tick whole, half-square part, cross leave, diamond
read first."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Final

from PySide6.QtCore import QPointF, QRectF, QSize
from PySide6.QtGui import QFontMetricsF, QPainter, QPaintEvent, QPen, QPolygonF
from PySide6.QtWidgets import QWidget

from ventrix.rooms.match.shows import CopyLine
from ventrix.ui.look import theme
from ventrix.ui.widgets.painted_text import paint_text
from ventrix.ui.widgets.spoken_rows import SpokenRows, lines_of
from ventrix.words import tr

HEAD: Final = 22.0
ROW: Final = 26.0


class CopyList(QWidget):
    """A line a place."""

    def __init__(self) -> None:
        super().__init__()
        self.lines: tuple[CopyLine, ...] = ()
        self.heading = self.unit = ""
        self.setAccessibleName(tr("What may be copied"))
        self.told = SpokenRows(self)

    def sizeHint(self) -> QSize:
        return QSize(520, int(HEAD + ROW * max(len(self.lines), 1)))

    def show_lines(self, lines: Sequence[CopyLine], heading: str, unit: str) -> None:
        self.lines, self.heading, self.unit = tuple(lines), heading, unit
        self.setMinimumHeight(int(HEAD + ROW * max(len(lines), 1)))
        told = [f"{line.place}: {line.words}" for line in lines]
        self.setAccessibleDescription("; ".join(told))
        self.told.say(lines_of(self, HEAD, ROW, told))
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        paint_text(painter, QRectF(0, 0, self.width() - 110, HEAD), self.heading, "text", 13, weight=600)
        if self.lines:
            head = QRectF(self.width() - 110, 0, 106, HEAD)
            paint_text(painter, head, tr("thinnest there, {}", self.unit), "quiet", 12, right=True)
        names = QFontMetricsF(theme.font(13, weight=500))
        wide = max((names.horizontalAdvance(line.place) for line in self.lines), default=0.0) + 4
        words, ends = 26 + wide + 14, self.width() - 56  # the reason takes what the longest name leaves
        for i, line in enumerate(self.lines):
            top = HEAD + i * ROW
            self._mark(painter, QRectF(2, top + 6, 13, 13), line.mark)
            paint_text(painter, QRectF(26, top, wide, ROW), line.place, "text", 13, weight=500)
            role = {"tick": "better", "cross": "worse", "diamond": "brass"}.get(line.mark, "text")
            paint_text(painter, QRectF(words, top, ends - words, ROW), line.words, role, 13)
            paint_text(painter, QRectF(ends, top, 52, ROW), line.wall, "quiet", 13, right=True, narrow=True)
            painter.setPen(QPen(theme.colour("raised"), 1))
            painter.drawLine(QPointF(0, top + ROW - 0.5), QPointF(self.width(), top + ROW - 0.5))

    def _mark(self, painter: QPainter, box: QRectF, mark: str) -> None:
        if mark == "tick":
            painter.setPen(QPen(theme.colour("better"), 2.2))
            painter.drawPolyline([QPointF(box.left(), box.center().y()), QPointF(box.left() + 5, box.bottom() - 1),
                                  QPointF(box.right(), box.top())])  # fmt: skip
        elif mark == "half":
            painter.setPen(QPen(theme.colour("text"), 1.6))
            painter.drawRect(box)
            painter.fillRect(QRectF(box.left(), box.center().y(), box.width(), box.height() / 2), theme.colour("text"))
        elif mark == "cross":
            painter.setPen(QPen(theme.colour("worse"), 2.2))
            painter.drawLine(box.topLeft(), box.bottomRight())
            painter.drawLine(box.topRight(), box.bottomLeft())
        else:
            painter.setPen(QPen(theme.colour("brass"), 1.8))
            c = box.center()
            painter.drawPolygon(QPolygonF([QPointF(c.x(), box.top()), QPointF(box.right(), c.y()),
                                           QPointF(c.x(), box.bottom()), QPointF(box.left(), c.y())]))  # fmt: skip

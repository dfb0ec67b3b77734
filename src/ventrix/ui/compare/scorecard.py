"""The scorecard of a pair: one figure a row, before, after, what changed, and how sure that is."""

from __future__ import annotations

from PySide6.QtCore import QEvent, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QHelpEvent, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QSizePolicy, QToolTip, QWidget

from ventrix.rooms.compare.scorecard import Score
from ventrix.ui.look import theme
from ventrix.ui.look.marks import draw_mark
from ventrix.words import tr

ROW = 24


class Scorecard(QWidget):
    """Paints scores in four columns. A click goes to the room that a figure comes from."""

    room_wanted = Signal(str)

    def __init__(self) -> None:
        super().__init__()
        self.rows: list[Score] = []
        self.at = -1
        self._heads = ("", "")
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        self.setCursor(Qt.CursorShape.PointingHandCursor)

    def sizeHint(self) -> QSize:
        return QSize(360, ROW * (len(self.rows) + 1))

    def show_rows(self, rows: list[Score], before: str, after: str) -> None:
        self.rows, self._heads = rows, (before, after)
        self.setAccessibleName(tr("Scorecard"))
        said = [tr("{}: {} to {} {} {}", r.caption, r.before, r.after, r.change, r.result) for r in rows]
        self.setAccessibleDescription("; ".join(said))
        self.updateGeometry()
        self.setFixedHeight(self.sizeHint().height())
        self.update()

    def event(self, event: QEvent) -> bool:
        if isinstance(event, QHelpEvent):
            row = event.pos().y() // ROW - 1
            if 0 <= row < len(self.rows):
                QToolTip.showText(event.globalPos(), tr("From {}. Click goes there.", self.rows[row].source), self)
            return True
        return super().event(event)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        row = int(event.position().y() // ROW) - 1
        if 0 <= row < len(self.rows) and self.rows[row].room:
            self.room_wanted.emit(self.rows[row].room)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() in (Qt.Key.Key_Up, Qt.Key.Key_Down):
            self.at = (self.at + (1 if event.key() == Qt.Key.Key_Down else -1)) % max(len(self.rows), 1)
            self.update()
        elif event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter) and 0 <= self.at < len(self.rows):
            self.room_wanted.emit(self.rows[self.at].room)
        else:
            super().keyPressEvent(event)

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        right = Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter
        left = Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter
        edges = (196.0, 252.0, 316.0, self.width() - 6.0)
        painter.setFont(theme.font(14, narrow=True))
        painter.setPen(theme.colour("quiet"))
        painter.drawText(QRectF(0, 0, edges[0], ROW), right, self._heads[0])
        painter.setPen(theme.colour("text"))
        painter.drawText(QRectF(0, 0, edges[1], ROW), right, self._heads[1])
        for i, row in enumerate(self.rows):
            top = ROW * (i + 1)
            painter.setPen(QPen(theme.colour("quiet", 0.35), 1))
            painter.drawLine(0, top, self.width(), top)
            painter.setFont(theme.font(13))
            painter.setPen(theme.colour("brass" if i == self.at and self.hasFocus() else "quiet"))
            painter.drawText(QRectF(0, top, 156, ROW), left, row.caption)
            painter.setFont(theme.font(14, narrow=True))
            painter.drawText(QRectF(0, top, edges[0], ROW), right, row.before)
            painter.setFont(theme.font(15, narrow=True, weight=600))
            painter.setPen(theme.colour("text"))
            painter.drawText(QRectF(0, top, edges[1], ROW), right, row.after)
            if row.result:
                painter.setPen(theme.colour(theme.current().result(row.result)))
            painter.drawText(QRectF(0, top, edges[2], ROW), right, row.change)
            if row.result:
                width = painter.fontMetrics().horizontalAdvance(row.change)
                draw_mark(painter, QRectF(edges[2] - width - 14, top + ROW / 2 - 5, 10, 10), row.result)
            painter.setFont(theme.font(13, narrow=True))
            painter.setPen(theme.colour("quiet"))
            from_left = edges[2] + 4 if row.change or row.after else edges[0] - 40
            painter.drawText(QRectF(from_left, top, edges[3] - from_left, ROW), right, row.band)

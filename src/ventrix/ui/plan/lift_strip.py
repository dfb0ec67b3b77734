"""The tested lifts as a ruler: where the flow separates, and what was heard, seen or unsteady there."""

from __future__ import annotations

from PySide6.QtCore import QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QMouseEvent, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QWidget

from ventrix.rooms.plan.lift_marks import LiftMarks
from ventrix.ui.look import theme
from ventrix.ui.widgets.painted_text import paint_text
from ventrix.words import tr

SIDE = 10  # px
RULER = 16  # px from the top


class LiftStrip(QWidget):
    """A click looks at the nearest lift."""

    picked = Signal(int)

    def __init__(self) -> None:
        super().__init__()
        self.marks: LiftMarks | None = None
        self.at = 0
        self.setFixedHeight(42)
        self.setAccessibleName(tr("Tested lifts"))

    def sizeHint(self) -> QSize:
        return QSize(240, 42)

    def show_marks(self, marks: LiftMarks, at: int) -> None:
        self.marks, self.at = marks, at
        self.setAccessibleDescription(marks.said)
        self.setToolTip(marks.said)
        self.update()

    def _x(self, lift: float) -> float:
        assert self.marks is not None
        return SIDE + (self.width() - 2 * SIDE) * lift / max(self.marks.lifts[-1], 1e-9)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        if self.marks is not None:
            x = event.position().x()
            lifts = self.marks.lifts
            self.picked.emit(min(range(len(lifts)), key=lambda i: abs(self._x(lifts[i]) - x)))

    def paintEvent(self, event: QPaintEvent) -> None:
        marks = self.marks
        if marks is None:
            return
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        if marks.separates is not None:
            low, at, high = (self._x(v) for v in marks.separates)
            painter.fillRect(QRectF(low, 2, max(high - low, 2.0), RULER + 4), theme.colour("worse", 0.25))
            painter.setPen(QPen(theme.colour("worse"), 2))
            painter.drawLine(QPointF(at, 2), QPointF(at, RULER + 6))
        painter.setPen(QPen(theme.colour("quiet"), 1))
        painter.drawLine(QPointF(SIDE, RULER), QPointF(self.width() - SIDE, RULER))
        for i, lift in enumerate(marks.lifts):
            chosen = i == self.at
            painter.setPen(QPen(theme.colour("brass" if chosen else "quiet"), 3 if chosen else 1))
            painter.drawLine(QPointF(self._x(lift), RULER - (8 if chosen else 4)), QPointF(self._x(lift), RULER + 4))
        painter.setPen(Qt.PenStyle.NoPen)
        for lift, letter in marks.noticed:
            box = QRectF(self._x(lift) - 14, RULER + 7, 28, 16)
            paint_text(painter, box, letter, "text", 12, weight=600, centre=True)

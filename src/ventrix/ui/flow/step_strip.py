"""The steps before the lifts as one narrow list: done with its figure, skipped, or open. Click stands on one."""

from __future__ import annotations

from PySide6.QtCore import QRectF, QSize, Qt, Signal
from PySide6.QtGui import QMouseEvent, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QSizePolicy, QWidget

from ventrix.rooms.flow.pictures import StepLine
from ventrix.ui.look import theme
from ventrix.ui.widgets.spoken_rows import SpokenRows, lines_of
from ventrix.words import tr

LINE = 19


class StepStrip(QWidget):
    """Paints the steps; the one stood on in brass."""

    step_chosen = Signal(int)

    def __init__(self) -> None:
        super().__init__()
        self.lines: list[StepLine] = []
        self.at: int | None = None
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.setAccessibleName(tr("Steps before the lifts"))
        self.told = SpokenRows(self)
        self.setCursor(Qt.CursorShape.PointingHandCursor)

    def sizeHint(self) -> QSize:
        return QSize(236, LINE * len(self.lines) + 4)

    def show_steps(self, lines: list[StepLine], at: int | None) -> None:
        self.lines, self.at = lines, at
        told = [f"{x.name}: {x.figure or x.state}" for x in lines]
        self.setAccessibleDescription("; ".join(told))
        self.told.say(lines_of(self, 0, LINE, told))
        self.setFixedHeight(self.sizeHint().height())
        self.update()

    def mousePressEvent(self, event: QMouseEvent) -> None:
        row = int(event.position().y() // LINE)
        if 0 <= row < len(self.lines):
            self.step_chosen.emit(row)

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        right = Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter
        left = Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter
        for i, line in enumerate(self.lines):
            box = QRectF(8, i * LINE, self.width() - 24, LINE)
            here = i == self.at
            mark = {"done": "✓", "skipped": "–", "open": "·"}[line.state]
            painter.setFont(theme.font(13, narrow=True, weight=600 if here else 400))
            painter.setPen(theme.colour("brass" if here else "text" if line.state == "done" else "quiet"))
            painter.drawText(box, left, f"{mark}  {line.name}")
            painter.drawText(box, right, line.figure)
        painter.setPen(QPen(theme.colour("quiet", 0.4), 1))
        painter.drawLine(1, self.height() - 2, self.width() - 2, self.height() - 2)

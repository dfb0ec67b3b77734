"""A room's few words as large as the window lets them: read at two metres, with gloves on."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Final, NamedTuple

from PySide6.QtCore import QRectF, Qt
from PySide6.QtGui import QFontMetricsF, QPainter, QPaintEvent
from PySide6.QtWidgets import QWidget

from ventrix.ui.look import theme
from ventrix.words import tr

SIDE: Final = 28  # px
FOOT: Final = 30
LEAST: Final = 18.0  # px of type
BACK: Final = tr("Esc or F11: everything around it again")


class FarLine(NamedTuple):
    """Words, how large they are beside the others, and their role in the theme."""

    words: str
    large: float = 1.0
    role: str = "text"


class FarPage(QWidget):
    """Lies over a room and shows its lines, one below the other."""

    def __init__(self, over: QWidget) -> None:
        super().__init__(over)
        self.lines: tuple[FarLine, ...] = ()
        self.setAttribute(Qt.WidgetAttribute.WA_TransparentForMouseEvents)
        self.setAccessibleName(tr("Far view"))

    def show_lines(self, lines: Sequence[FarLine]) -> None:
        self.lines = tuple(line for line in lines if line.words)
        self.setAccessibleDescription(". ".join(line.words for line in self.lines))
        self.update()

    def type_size(self) -> float:
        """Of a line of 1.0 [px]: the largest at which all of them fit."""
        low, high = LEAST, 0.5 * self.height()
        for _ in range(12):
            middle = (low + high) / 2
            low, high = (middle, high) if self._height(middle) <= self.height() - FOOT - SIDE else (low, middle)
        return low

    def _height(self, size: float) -> float:
        return sum(self._box(line, size).height() + 0.25 * size * line.large for line in self.lines)

    def _box(self, line: FarLine, size: float) -> QRectF:
        metrics = QFontMetricsF(theme.font(size * line.large, weight=600, narrow=True))
        room = QRectF(0, 0, self.width() - 2 * SIDE, 1e5)
        found = metrics.boundingRect(room, int(Qt.TextFlag.TextWordWrap), line.words)
        too_wide = max(metrics.horizontalAdvance(word) for word in line.words.split()) > room.width()
        return QRectF(0, 0, room.width(), 1e5) if too_wide else found

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), theme.colour("ground"))
        size, y = self.type_size(), float(SIDE)
        for line in self.lines:
            painter.setFont(theme.font(size * line.large, weight=600, narrow=True))
            painter.setPen(theme.colour(line.role))
            height = self._box(line, size).height()
            box = QRectF(SIDE, y, self.width() - 2 * SIDE, height)
            painter.drawText(box, int(Qt.TextFlag.TextWordWrap | Qt.AlignmentFlag.AlignLeft), line.words)
            y += height + 0.25 * size * line.large
        painter.setFont(theme.font(14))
        painter.setPen(theme.colour("quiet"))
        painter.drawText(QRectF(SIDE, self.height() - FOOT, self.width() - 2 * SIDE, FOOT - 6), BACK)

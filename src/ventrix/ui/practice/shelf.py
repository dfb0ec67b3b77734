"""Lists of two-line rows that are walked by arrows: heads to practise on, lessons, practices that were begun."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Final, NamedTuple

from PySide6.QtCore import QRectF, QSize, Signal
from PySide6.QtGui import QMouseEvent, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QWidget

from ventrix.ui.look import theme
from ventrix.ui.widgets.painted_text import paint_text
from ventrix.ui.widgets.spoken_rows import SpokenRows, lines_of

ROW: Final = 46.0
ONE: Final = 27.0
HEAD: Final = 26.0


class Row(NamedTuple):
    """A row: its title, a quiet line beneath (none makes the row low), and what stands at its right."""

    title: str
    below: str
    right: str


class RowList(QWidget):
    """Rows under a heading; the chosen one is raised, and in brass while its list is the active one."""

    picked = Signal(int)
    taken = Signal(int)

    def __init__(self, heading: str) -> None:
        super().__init__()
        self.heading = heading
        self.rows: tuple[Row, ...] = ()
        self.chosen, self.active = 0, False
        self.setAccessibleName(heading)
        self.told = SpokenRows(self)

    @property
    def high(self) -> float:
        return ROW if any(r.below for r in self.rows) else ONE

    def sizeHint(self) -> QSize:
        return QSize(420, int(HEAD + self.high * max(len(self.rows), 1)) + 4)

    def middle_of(self, row: int) -> int:
        """Where a row stands [px from the top]."""
        return int(HEAD + self.high * (row + 0.5))

    def show_rows(self, rows: Sequence[Row], chosen: int, active: bool) -> None:
        self.rows, self.chosen, self.active = tuple(rows), chosen, active
        self.setMinimumHeight(self.sizeHint().height())
        told = [f"{r.title}: {r.below} {r.right}" for r in self.rows]
        self.setAccessibleDescription("; ".join(told))
        self.told.say(lines_of(self, HEAD, self.high, told))
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        wide, high = float(self.width()), self.high
        shade = "text" if self.active else "quiet"
        paint_text(painter, QRectF(0, 0, wide, HEAD - 4), self.heading, shade, 15, weight=600)
        for i, row in enumerate(self.rows):
            y = HEAD + i * high
            if i == self.chosen and self.active:
                painter.fillRect(QRectF(0, y, wide, high - 1), theme.colour("raised"))
                painter.fillRect(QRectF(0, y, 3, high - 1), theme.colour("brass"))
            painter.setPen(QPen(theme.colour("scribe", 0.2), 1))
            painter.drawLine(0, int(y + high - 1), int(wide), int(y + high - 1))
            role = "brass" if i == self.chosen and self.active else "text"
            paint_text(painter, QRectF(12, y + 2, wide - 130, 24), row.title, role, 15, weight=500)
            paint_text(painter, QRectF(wide - 116, y + 2, 108, 24), row.right, "text", 14, right=True, narrow=True)
            if row.below:
                paint_text(painter, QRectF(12, y + 23, wide - 20, 20), row.below, "quiet", 12)

    def _row(self, event: QMouseEvent) -> int:
        return int((event.position().y() - HEAD) // self.high)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        if 0 <= self._row(event) < len(self.rows):
            self.picked.emit(self._row(event))

    def mouseDoubleClickEvent(self, event: QMouseEvent) -> None:
        if 0 <= self._row(event) < len(self.rows):
            self.taken.emit(self._row(event))

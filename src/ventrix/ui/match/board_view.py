"""The stage board: stages down, ports across; minutes in the boxes, one band where a stage waits for the whole head."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Final

from PySide6.QtCore import QRectF, QSize, Qt, Signal
from PySide6.QtGui import QBrush, QMouseEvent, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QWidget

from ventrix.rooms.match.board_rows import BoardRow
from ventrix.rooms.match.shows import Cell
from ventrix.ui.look import theme
from ventrix.ui.widgets.painted_text import paint_text

NAMES: Final = 110.0
HEAD: Final = 22.0
ROW: Final = 24.0
GAP: Final = 4.0


class BoardView(QWidget):
    """The chosen box is framed in brass; a click chooses."""

    picked = Signal(int, int)  # stage, port

    def __init__(self) -> None:
        super().__init__()
        self.rows: tuple[BoardRow, ...] = ()
        self.cells: tuple[Cell, ...] = ()
        self.stage, self.port = 0, 0
        self.clock = ""  # what runs, as it is read
        self.setAccessibleName("Stage board")

    def sizeHint(self) -> QSize:
        return QSize(580, int(HEAD + ROW * max(len(self.rows), 1)))

    def show_rows(self, rows: Sequence[BoardRow], cells: Sequence[Cell], stage: int, port: int) -> None:
        self.rows, self.cells, self.stage, self.port = tuple(rows), tuple(cells), stage, port
        self.setMinimumHeight(int(HEAD + ROW * max(len(rows), 1)))
        self.setAccessibleDescription(self.spoken)
        self.update()

    @property
    def spoken(self) -> str:
        """The chosen box, for a screen reader."""
        if not self.rows or not self.cells:
            return ""
        row = self.rows[self.stage]
        text = row.texts[self.port] or row.states[self.port]
        return f"{self.cells[self.port].port.name}, {row.stage}: {text}"

    def box(self, stage: int, port: int) -> QRectF:
        """Where a box stands."""
        n = max(len(self.cells), 1)
        wide = (self.width() - NAMES - GAP * (n - 1)) / n
        return QRectF(NAMES + port * (wide + GAP), HEAD + stage * ROW + 2, wide, ROW - 4)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        for i in range(len(self.rows)):
            for j in range(len(self.cells)):
                if self.box(i, j).contains(event.position()):
                    self.picked.emit(i, j)

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        paint_text(painter, QRectF(0, 0, NAMES, HEAD), "Stages, minutes", "text", 13, weight=600)
        small = self.box(0, 0).width() < 34
        told = ""
        for j, cell in enumerate(self.cells):
            at = self.box(0, j)
            if small:
                if cell.group != told:
                    paint_text(painter, QRectF(at.left(), 0, 160, HEAD), cell.group, cell.port.kind, 13, weight=600)
                told = cell.group
                continue
            paint_text(painter, QRectF(at.left(), 0, at.width(), HEAD), cell.short, cell.port.kind, 15,
                       centre=True, weight=600, narrow=True)  # fmt: skip
        for i, row in enumerate(self.rows):
            role = "brass" if i == self.stage else "text"
            name = QRectF(0, HEAD + i * ROW, NAMES - 6, ROW)
            paint_text(painter, name, row.stage, role, 13, weight=600 if i == self.stage else 400)
            for j, cell in enumerate(self.cells):
                self._box(painter, i, j, row, cell.port.kind, small)
            if row.band:
                self._band(painter, i, row)

    def _box(self, painter: QPainter, i: int, j: int, row: BoardRow, kind: str, small: bool) -> None:
        box, state = self.box(i, j), row.states[j]
        chosen = (i, j) == (self.stage, self.port)
        if state == "done":
            painter.fillRect(box, theme.colour(kind, 0.32))
            painter.fillRect(QRectF(box.left(), box.top(), 3, box.height()), theme.colour(kind))
        elif state == "waiting" and not row.band:
            painter.setPen(QPen(theme.colour("scribe"), 1))
            painter.setBrush(QBrush(theme.colour("quiet"), Qt.BrushStyle.BDiagPattern))
            painter.drawRect(box)
            painter.setBrush(Qt.BrushStyle.NoBrush)
        if not row.band or chosen:
            painter.setPen(QPen(theme.colour("brass" if chosen else "quiet"), 2.5 if chosen else 1))
            painter.drawRect(box)
        words = self.clock if state == "running" else "" if small else row.texts[j]
        if words and not row.band:
            role = "brass" if state == "running" else "text"
            paint_text(painter, box, words, role, 15, centre=True, weight=500, narrow=True)

    def _band(self, painter: QPainter, i: int, row: BoardRow) -> None:
        first, last = self.box(i, 0), self.box(i, len(self.cells) - 1)
        band = QRectF(first.topLeft(), last.bottomRight())
        painter.setPen(QPen(theme.colour("scribe"), 1))
        painter.setBrush(QBrush(theme.colour("quiet"), Qt.BrushStyle.BDiagPattern))
        painter.drawRect(band)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.setFont(theme.font(13))
        wide = min(painter.fontMetrics().horizontalAdvance(row.band) + 20.0, band.width() - 8)
        words = QRectF(band.center().x() - wide / 2, band.top() + 1, wide, band.height() - 2)
        painter.fillRect(words, theme.colour("ground"))
        paint_text(painter, words, row.band, "text", 13, centre=True)
        if i == self.stage:
            painter.setPen(QPen(theme.colour("brass"), 2.5))
            painter.drawRect(self.box(i, self.port))

"""The stage board: stages down, ports across; minutes in the boxes, one band where a stage waits for the whole head."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Final

from PySide6.QtCore import QPoint, QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QBrush, QMouseEvent, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QWidget

from ventrix.core.model.kinds import Direction
from ventrix.rooms.match.board_rows import BoardRow
from ventrix.rooms.match.shows import Cell
from ventrix.ui.look import theme
from ventrix.ui.widgets.painted_text import paint_text
from ventrix.ui.widgets.spoken_rows import SpokenRows, lines_of
from ventrix.words import tr

NAMES: Final = 110.0
HEAD: Final = 22.0
ROW: Final = 24.0
GAP: Final = 4.0
END: Final = 7.0  # px of a box's end that it is drawn out by
STEP, A_STEP = 5, 8.0  # minutes, and px for each


class BoardView(QWidget):
    """The chosen box is framed in brass. A click chooses, a second marks; the right button asks what may be done; the
    chosen box drawn out by its end is given minutes."""

    picked = Signal(int, int)  # stage, port
    marked = Signal()
    asked = Signal(QPoint)  # where on the screen
    given = Signal(int)  # minutes

    def __init__(self) -> None:
        super().__init__()
        self.rows: tuple[BoardRow, ...] = ()
        self.cells: tuple[Cell, ...] = ()
        self.stage, self.port = 0, 0
        self.clock = ""  # what runs, as it is read
        self._drawn: int | None = None  # minutes of the box that is being drawn out
        self.setAccessibleName(tr("Stage board"))
        self.told = SpokenRows(self)

    def sizeHint(self) -> QSize:
        return QSize(580, int(HEAD + ROW * max(len(self.rows), 1)))

    def show_rows(self, rows: Sequence[BoardRow], cells: Sequence[Cell], stage: int, port: int) -> None:
        self.rows, self.cells, self.stage, self.port = tuple(rows), tuple(cells), stage, port
        self.setMinimumHeight(int(HEAD + ROW * max(len(rows), 1)))
        self.setAccessibleDescription(self.spoken)
        told = (f"{row.stage}: {', '.join(map(self._words, [i] * len(cells), range(len(cells))))}"
                for i, row in enumerate(self.rows))  # fmt: skip
        self.told.say(lines_of(self, HEAD, ROW, told))
        self.update()

    @property
    def spoken(self) -> str:
        """The chosen box, for a screen reader."""
        if not self.rows or not self.cells:
            return ""
        return f"{self.cells[self.port].port.name}, {self.rows[self.stage].stage}: {self._state(self.stage, self.port)}"

    def _state(self, stage: int, port: int) -> str:
        row = self.rows[stage]
        return row.texts[port] or row.states[port]

    def _words(self, stage: int, port: int) -> str:
        return f"{self.cells[port].port.name} {self._state(stage, port)}"

    def box(self, stage: int, port: int) -> QRectF:
        """Where a box stands."""
        n = max(len(self.cells), 1)
        wide = (self.width() - NAMES - GAP * (n - 1)) / n
        return QRectF(NAMES + port * (wide + GAP), HEAD + stage * ROW + 2, wide, ROW - 4)

    def at(self, where: QPointF) -> tuple[int, int] | None:
        """The stage and port of the box at a place."""
        boxes = ((i, j) for i in range(len(self.rows)) for j in range(len(self.cells)))
        return next((each for each in boxes if self.box(*each).contains(where)), None)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        found = self.at(event.position())
        if found is None:
            return
        chosen = found == (self.stage, self.port)
        if event.button() == Qt.MouseButton.RightButton:
            self.picked.emit(*found)
            self.asked.emit(event.globalPosition().toPoint())
        elif chosen and event.position().x() > self.box(*found).right() - END:
            self._drawn = 0
        elif chosen:
            self.marked.emit()
        else:
            self.picked.emit(*found)

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        if self._drawn is not None:
            out = event.position().x() - self.box(self.stage, self.port).right()
            self._drawn = max(0, round(out / A_STEP) * STEP)
            self.update()

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        minutes, self._drawn = self._drawn, None
        self.update()
        if minutes:
            self.given.emit(minutes)

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        paint_text(painter, QRectF(0, 0, NAMES, HEAD), tr("Stages, minutes"), "text", 13, weight=600)
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
        if self._drawn is not None:
            box = self.box(self.stage, self.port)
            drawn = box.adjusted(0, 0, A_STEP * self._drawn / STEP, 0)
            painter.fillRect(drawn, theme.colour("brass", 0.35))
            paint_text(painter, drawn, f"{self._drawn} min", "text", 15, centre=True, weight=600, narrow=True)

    def _box(self, painter: QPainter, i: int, j: int, row: BoardRow, kind: Direction, small: bool) -> None:
        if row.joined and row.joined[j]:
            return  # one box with the one before it: a chamber's, or the head's
        last = next((k for k in range(j + 1, len(self.cells)) if not (row.joined and row.joined[k])), len(self.cells))
        box, state = QRectF(self.box(i, j).topLeft(), self.box(i, last - 1).bottomRight()), row.states[j]
        chosen = i == self.stage and j <= self.port < last
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

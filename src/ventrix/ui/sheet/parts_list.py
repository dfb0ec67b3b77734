"""The parts of the sheet, one a line: on or off, and in which order."""

from __future__ import annotations

from typing import Final

from PySide6.QtCore import QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QMouseEvent, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QWidget

from ventrix.reports.sheet.contents import ALWAYS, PaperKind, Part, offered
from ventrix.ui.look import theme
from ventrix.ui.widgets.spoken_rows import SpokenRows, lines_of
from ventrix.words import tr

ROW: Final = 29  # px of a line, where there is room
TIGHT: Final = 25
_TICK: Final = (QPointF(3, 7), QPointF(6, 11), QPointF(12, 2))


class PartsList(QWidget):
    """Every part; those that cannot be left out say so. `changed` after a switch or a move."""

    changed = Signal()
    picked = Signal()

    def __init__(self) -> None:
        super().__init__()
        self.order: list[Part] = [p for p in offered(PaperKind.PAIR) if p not in ALWAYS]
        self.on: set[Part] = set()
        self.beside: dict[Part, str] = {}
        self.at = 0
        self.setAccessibleName(tr("What goes on the sheet"))
        self.told = SpokenRows(self)
        self.row = ROW
        self.tighten(False)

    def tighten(self, on: bool) -> None:
        """Lower lines, in a small window."""
        self.row = TIGHT if on else ROW
        self._fit()

    def show_parts(self, order: list[Part], on: set[Part]) -> None:
        """The parts that this kind of paper has, in an order; those that are on."""
        self.order, self.on = order, on
        self.at = min(self.at, len(self.rows) - 1)
        self._fit()

    def _fit(self) -> None:
        self.setMinimumHeight(self.row * len(self.rows) + 4)
        self._tell()
        self.updateGeometry()
        self.update()

    def sizeHint(self) -> QSize:
        return QSize(330, self.row * len(self.rows) + 4)

    @property
    def rows(self) -> list[Part]:
        return [*self.order, *ALWAYS]

    @property
    def chosen(self) -> tuple[Part, ...]:
        """The parts that are on, in their order."""
        return tuple(p for p in self.order if p in self.on)

    @property
    def spoken(self) -> str:
        """The line the cursor is on, for a screen reader and the foot of the window."""
        return self._words(self.rows[self.at])

    def _words(self, part: Part) -> str:
        state = (
            tr("always on it") if part in ALWAYS else tr("on the sheet") if part in self.on else tr("not on the sheet")
        )
        return f"{part.words}: {state}"

    def _tell(self) -> None:
        self.told.say(lines_of(self, 0, self.row, map(self._words, self.rows)))

    def move_cursor(self, by: int) -> None:
        self.at = max(0, min(self.at + by, len(self.rows) - 1))
        self.setAccessibleDescription(self.spoken)
        self.update()
        self.picked.emit()

    def switch(self) -> None:
        """The part under the cursor on or off."""
        part = self.rows[self.at]
        if part in ALWAYS:
            return
        self.on ^= {part}
        self._say_changed()

    def move_part(self, by: int) -> None:
        """The part under the cursor up or down the page."""
        part, to = self.rows[self.at], self.at + by
        if part in ALWAYS or not 0 <= to < len(self.order):
            return
        self.order.remove(part)
        self.order.insert(to, part)
        self.at = to
        self._say_changed()

    def _say_changed(self) -> None:
        self.setAccessibleDescription(self.spoken)
        self._tell()
        self.update()
        self.changed.emit()

    def mousePressEvent(self, event: QMouseEvent) -> None:
        row = int(event.position().y()) // self.row
        if 0 <= row < len(self.rows):
            self.at = row
            self.switch()
            self.picked.emit()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        for i, part in enumerate(self.rows):
            top = i * self.row
            if i == self.at:
                painter.fillRect(QRectF(0, top, self.width(), self.row), theme.colour("raised"))
                painter.fillRect(QRectF(0, top, 3, self.row), theme.colour("brass"))
            always = part in ALWAYS
            on = always or part in self.on
            box = QRectF(12, top + (self.row - 14) / 2, 14, 14)
            shade = "quiet" if always else "brass"
            painter.setPen(QPen(theme.colour(shade), 1.6))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRect(box)
            if on:
                painter.setPen(QPen(theme.colour(shade), 2.4))
                painter.drawPolyline([box.topLeft() + d for d in _TICK])
            painter.setPen(theme.colour("text" if on else "quiet"))
            painter.setFont(theme.font(15))
            flags = Qt.AlignmentFlag.AlignVCenter | Qt.AlignmentFlag.AlignLeft
            painter.drawText(QRectF(38, top, self.width() - 120, self.row), flags, part.words)
            painter.setPen(theme.colour("quiet"))
            painter.setFont(theme.font(12))
            right = Qt.AlignmentFlag.AlignVCenter | Qt.AlignmentFlag.AlignRight
            words = "always" if always else self.beside.get(part, "")
            painter.drawText(QRectF(self.width() - 130, top, 122, self.row), right, words)
            painter.setPen(QPen(theme.colour("raised"), 1))
            painter.drawLine(0, top + self.row - 1, self.width(), top + self.row - 1)

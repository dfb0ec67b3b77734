"""A sheet beside the rooms: it takes room, and lies over nothing."""

from __future__ import annotations

from typing import Any

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QKeyEvent, QPainter, QPaintEvent, QPen, QShowEvent
from PySide6.QtWidgets import QWidget

from ventrix.ui.look import theme


class SideSheet(QWidget):
    """Esc asks to put it away; what was typed stays in it."""

    closed = Signal()
    shown = Signal()

    def __init__(self, width: int = 372) -> None:
        super().__init__()
        self.setObjectName("panel")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.setFixedWidth(width)

    def open(self, *what: Any, **named: Any) -> None:
        """Come up, for what it is opened with."""
        self.come_up()

    def close_workers(self) -> None:
        """The window closes: what runs behind is ended."""

    def come_up(self) -> None:
        """Show the sheet; another one that stood there goes."""
        for other in self._others():
            other.hide()
        self.show()

    def _others(self) -> list[SideSheet]:
        owner = self.parentWidget()
        found = owner.findChildren(SideSheet, options=Qt.FindChildOption.FindDirectChildrenOnly) if owner else []
        return [each for each in found if each is not self]

    def showEvent(self, event: QShowEvent) -> None:
        super().showEvent(event)
        self.shown.emit()

    def paintEvent(self, event: QPaintEvent) -> None:
        super().paintEvent(event)
        painter = QPainter(self)
        painter.setPen(QPen(theme.colour("brass"), 2))
        painter.drawLine(1, 0, 1, self.height())

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Escape:
            self.closed.emit()
        else:
            super().keyPressEvent(event)

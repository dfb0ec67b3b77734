"""A sheet that lies over the right edge of the rooms, so that the room beneath keeps its layout."""

from __future__ import annotations

from PySide6.QtCore import QEvent, QObject, Qt, Signal
from PySide6.QtGui import QKeyEvent, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QWidget

from ventrix.ui import theme


class SideSheet(QWidget):
    """Follows the size of what it stands over. Esc asks to put it away; what was typed stays in it."""

    closed = Signal()

    def __init__(self, width: int = 372) -> None:
        super().__init__()
        self.setObjectName("panel")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.setFixedWidth(width)

    def stand_over(self, owner: QWidget) -> None:
        """Lie over the right edge of `owner`."""
        self.setParent(owner)
        self.hide()
        owner.installEventFilter(self)

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        if watched is self.parentWidget() and event.type() == QEvent.Type.Resize:
            self._place()
        return super().eventFilter(watched, event)

    def _place(self) -> None:
        owner = self.parentWidget()
        assert owner is not None
        self.setGeometry(owner.width() - self.width(), 0, self.width(), owner.height())

    def come_up(self) -> None:
        """Show the sheet above everything else in its owner."""
        self._place()
        self.show()
        self.raise_()

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

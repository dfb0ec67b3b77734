"""What a room stands in: it tells the room how much there is, and scrolls what cannot give way any more."""

from __future__ import annotations

from PySide6.QtCore import QSize, Qt
from PySide6.QtGui import QResizeEvent
from PySide6.QtWidgets import QFrame, QScrollArea

from ventrix.ui.widgets.room import Room


class RoomFrame(QScrollArea):
    """Holds one room. Nothing of a room ever leaves the window or lies over another part of it."""

    def __init__(self, room: Room) -> None:
        super().__init__()
        self.room = room
        self.setObjectName("room")
        self.setFrameShape(QFrame.Shape.NoFrame)
        self.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.setWidgetResizable(True)
        self.setWidget(room)

    def sizeHint(self) -> QSize:
        return QSize(900, 600)

    def resizeEvent(self, event: QResizeEvent) -> None:
        self.room.fit(event.size())
        super().resizeEvent(event)

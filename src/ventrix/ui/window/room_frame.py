"""What a room stands in: it tells the room how much there is, and scrolls what cannot give way any more."""

from __future__ import annotations

from PySide6.QtCore import QEvent, QObject, QSize, Qt
from PySide6.QtGui import QResizeEvent
from PySide6.QtWidgets import QFrame, QScrollArea

from ventrix.ui.widgets.room import Room


class RoomFrame(QScrollArea):
    """Holds one room. Nothing of a room ever leaves the window or lies over another part of it.

    The room is sized here: Qt's own way would give it the height it likes best, and not the least it can do with.
    """

    def __init__(self, room: Room) -> None:
        super().__init__()
        self.room = room
        self.setObjectName("room")
        self.setFrameShape(QFrame.Shape.NoFrame)
        self.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.setWidget(room)
        room.installEventFilter(self)

    def sizeHint(self) -> QSize:
        return QSize(900, 600)

    def resizeEvent(self, event: QResizeEvent) -> None:
        self.room.fit(self.maximumViewportSize())
        super().resizeEvent(event)
        self._size_room()

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        if watched is self.room and event.type() == QEvent.Type.LayoutRequest:
            self._size_room()
        return super().eventFilter(watched, event)

    def _size_room(self) -> None:
        there, layout = self.maximumViewportSize(), self.room.layout()
        least = QSize() if layout is None else layout.totalMinimumSize()
        bar = self.verticalScrollBar().sizeHint().width()

        def needs(width: int) -> int:  # words that go on in a further line want more height in less width
            if layout is None or not self.room.folds or not layout.hasHeightForWidth():
                return least.height()
            return layout.totalMinimumHeightForWidth(width)

        wide, width = least.width() > there.width(), max(there.width(), least.width())
        if needs(width) > there.height():
            width = max(there.width() - bar, least.width())
        self.room.resize(width, max(there.height() - (bar if wide else 0), needs(width)))

"""A layout that puts widgets side by side and goes on in the next line, as words do."""

from __future__ import annotations

from PySide6.QtCore import QPoint, QRect, QSize, Qt
from PySide6.QtWidgets import QLayout, QLayoutItem


class FlowLayout(QLayout):
    """As many lines as the width wants."""

    def __init__(self, gap: int = 12, line_gap: int = 2) -> None:
        super().__init__()
        self._items: list[QLayoutItem] = []
        self._gap, self._line_gap = gap, line_gap
        self.setContentsMargins(0, 0, 0, 0)

    def addItem(self, item: QLayoutItem) -> None:
        self._items.append(item)

    def count(self) -> int:
        return len(self._items)

    def itemAt(self, index: int) -> QLayoutItem | None:
        return self._items[index] if 0 <= index < len(self._items) else None

    def takeAt(self, index: int) -> QLayoutItem | None:
        return self._items.pop(index) if 0 <= index < len(self._items) else None

    def expandingDirections(self) -> Qt.Orientation:
        return Qt.Orientation(0)

    def hasHeightForWidth(self) -> bool:
        return True

    def heightForWidth(self, width: int) -> int:
        return self._lay_out(QRect(0, 0, width, 0), move=False)

    def setGeometry(self, rect: QRect) -> None:
        super().setGeometry(rect)
        self._lay_out(rect, move=True)

    def sizeHint(self) -> QSize:
        return self.minimumSize()

    def minimumSize(self) -> QSize:
        found = QSize()
        for item in self._items:
            found = found.expandedTo(item.minimumSize())
        return found

    def _lay_out(self, rect: QRect, *, move: bool) -> int:
        """Put every visible item in its place; the height that all of them take."""
        x, y, line = rect.x(), rect.y(), 0
        for item in self._items:
            if item.isEmpty():
                continue
            size = item.sizeHint()
            if x > rect.x() and x + size.width() > rect.right() + 1:
                x, y, line = rect.x(), y + line + self._line_gap, 0
            if move:
                item.setGeometry(QRect(QPoint(x, y), size))
            x, line = x + size.width() + self._gap, max(line, size.height())
        return y + line - rect.y()

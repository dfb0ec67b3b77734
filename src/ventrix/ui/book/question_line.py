"""The line that the book is searched with: it keeps the keyboard, and hands on the keys that act on plates."""

from __future__ import annotations

from PySide6.QtCore import QEvent, Qt, Signal
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QLineEdit

from ventrix.ui.widgets.command import keys_of


class QuestionLine(QLineEdit):
    """Letters narrow the list; `pressed` tells every other key that the room has a use for."""

    pressed = Signal(str)

    def __init__(self, keys: frozenset[str]) -> None:
        super().__init__()
        self.setObjectName("question")
        self.setMaxLength(200)
        self._keys = keys

    def event(self, event: QEvent) -> bool:
        if isinstance(event, QKeyEvent) and event.type() == QEvent.Type.ShortcutOverride and self._mine(event):
            event.accept()  # before a menu takes it
            return True
        return super().event(event)

    def _mine(self, event: QKeyEvent) -> bool:
        return keys_of(event) in self._keys

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if self._mine(event):
            self.pressed.emit(keys_of(event))
        elif event.key() == Qt.Key.Key_Escape and self.text():
            self.clear()
            self.textEdited.emit("")  # the answer goes with the question
        else:
            super().keyPressEvent(event)

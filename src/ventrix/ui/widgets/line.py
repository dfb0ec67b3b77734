"""A line of text that gives undo on to the window where nothing typed into it can be undone."""

from __future__ import annotations

from PySide6.QtCore import QEvent
from PySide6.QtGui import QKeyEvent, QKeySequence
from PySide6.QtWidgets import QLineEdit

_UNDO, _REDO = QKeySequence.StandardKey.Undo, QKeySequence.StandardKey.Redo


class Line(QLineEdit):
    """Undo and redo are the text's own while it has any."""

    def event(self, event: QEvent) -> bool:
        if isinstance(event, QKeyEvent) and event.type() == QEvent.Type.ShortcutOverride:
            theirs = event.matches(_UNDO) and not self.isUndoAvailable()
            theirs |= event.matches(_REDO) and not self.isRedoAvailable()
            if theirs:
                event.ignore()  # a menu of the window takes it
                return True
        return super().event(event)

"""Rows of a painted list for who hears the screen: over each a part that draws nothing, takes no click, and speaks."""

from __future__ import annotations

from collections.abc import Iterable

from PySide6.QtCore import QRectF, Qt
from PySide6.QtWidgets import QLabel, QWidget


class SpokenRows:
    """The rows of one painted list, told anew with it."""

    def __init__(self, over: QWidget) -> None:
        self._over = over
        self.parts: list[QLabel] = []

    def say(self, rows: Iterable[tuple[QRectF, str]]) -> None:
        """Each row's place in the list, and what it says."""
        told = list(rows)
        while len(self.parts) > len(told):
            gone = self.parts.pop()
            gone.hide()
            gone.deleteLater()
        while len(self.parts) < len(told):
            part = QLabel(self._over)
            part.setAttribute(Qt.WidgetAttribute.WA_TransparentForMouseEvents)
            part.setAttribute(Qt.WidgetAttribute.WA_NoSystemBackground)
            part.show()
            self.parts.append(part)
        for part, (box, words) in zip(self.parts, told, strict=True):
            part.setGeometry(box.toAlignedRect())
            part.setAccessibleName(words)


def lines_of(over: QWidget, top: float, high: float, words: Iterable[str]) -> Iterable[tuple[QRectF, str]]:
    """Rows of one height below a heading."""
    return ((QRectF(0, top + i * high, over.width(), high), each) for i, each in enumerate(words))

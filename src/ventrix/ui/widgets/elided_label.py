"""A line of words that ends in an ellipsis where it has no room."""

from __future__ import annotations

from PySide6.QtCore import Qt
from PySide6.QtGui import QResizeEvent
from PySide6.QtWidgets import QLabel, QSizePolicy


class ElidedLabel(QLabel):
    """Takes what room it gets; the whole line is its tip where that is too little."""

    def __init__(self) -> None:
        super().__init__()
        self._whole = ""
        self.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Preferred)

    def say(self, words: str) -> None:
        """Show these words."""
        self._whole = words
        self._fit()

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self._fit()

    def _fit(self) -> None:
        shown = self.fontMetrics().elidedText(self._whole, Qt.TextElideMode.ElideRight, self.width())
        self.setText(shown)
        self.setToolTip(self._whole if shown != self._whole else "")

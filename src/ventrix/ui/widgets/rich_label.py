"""The one label whose words are marked up."""

from __future__ import annotations

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QLabel


class RichLabel(QLabel):
    """Words with markup, everything typed in them escaped.

    Every other label shows what was typed as it was typed: the style of the house makes it plain text.
    """

    def __init__(self) -> None:
        super().__init__()
        self.setProperty("markup", True)
        self.setTextFormat(Qt.TextFormat.RichText)

"""A scroll area that is no stop of its own for Tab: what is in it has the keyboard, and brings itself into sight."""

from __future__ import annotations

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QScrollArea, QWidget


class ScrollArea(QScrollArea):
    """Scrolls by wheel, bar, and by what is focused inside."""

    def __init__(self, inside: QWidget | None = None, *, sideways: bool = True) -> None:
        super().__init__()
        self.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        if inside is not None:  # it takes the room there is
            self.setWidget(inside)
            self.setWidgetResizable(True)
        if not sideways:
            self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)

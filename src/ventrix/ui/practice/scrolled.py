"""A page that scrolls downwards alone, and leaves the keyboard to its room."""

from __future__ import annotations

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QScrollArea, QWidget

from ventrix.ui.widgets.scroll_area import ScrollArea


def scrolled(widget: QWidget) -> QScrollArea:
    """The widget where it may be higher than there is room."""
    area = ScrollArea()
    area.setWidget(widget)
    area.setWidgetResizable(True)
    area.setFocusPolicy(Qt.FocusPolicy.NoFocus)
    area.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
    return area

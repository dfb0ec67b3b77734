"""A sheet beside the rooms: it takes room, and lies over nothing."""

from __future__ import annotations

from typing import Any

from PySide6.QtCore import QPoint, Qt, Signal
from PySide6.QtGui import QKeyEvent, QPainter, QPaintEvent, QPen, QShowEvent
from PySide6.QtWidgets import QAbstractItemView, QAbstractSpinBox, QComboBox, QScrollArea, QWidget

from ventrix.ui.look import theme

SAME_ROW = 14  # px: what stands within them is read from left to right


def _is_inside(widget: QWidget) -> bool:
    """A part of a box or list that takes the focus itself; a bare scrolled page is no stop."""
    parent = widget.parentWidget()
    if isinstance(widget, QScrollArea):
        return True
    return isinstance(parent, QComboBox | QAbstractSpinBox | QAbstractItemView)


def next_owner(here: QWidget, stops: list[QWidget]) -> QWidget | None:
    """The stop that has the focus: itself, or the box that it is a part of."""
    found: QWidget | None = here
    while found is not None and found not in stops:
        found = found.parentWidget()
    return found


class SideSheet(QWidget):
    """Esc asks to put it away; what was typed stays in it."""

    closed = Signal()
    shown = Signal()

    def __init__(self, width: int = 372) -> None:
        super().__init__()
        self.setObjectName("panel")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.setFixedWidth(width)

    def open(self, *what: Any, **named: Any) -> None:
        """Come up, for what it is opened with."""
        self.come_up()

    def close_workers(self) -> None:
        """The window closes: what runs behind is ended."""

    def come_up(self) -> None:
        """Show the sheet; another one that stood there goes."""
        for other in self._others():
            other.hide()
        self.show()

    def _others(self) -> list[SideSheet]:
        owner = self.parentWidget()
        found = owner.findChildren(SideSheet, options=Qt.FindChildOption.FindDirectChildrenOnly) if owner else []
        return [each for each in found if each is not self]

    def showEvent(self, event: QShowEvent) -> None:
        super().showEvent(event)
        self.shown.emit()

    def tab_stops(self) -> list[QWidget]:
        """What Tab goes to, as it is read: from the top down, nothing that is hidden or greyed."""
        stops = [
            w for w in self.findChildren(QWidget)
            if w.focusPolicy() & Qt.FocusPolicy.TabFocus and w.focusProxy() is None and w.isEnabled()
            and w.isVisibleTo(self) and w.window() is self.window() and not _is_inside(w)
        ]  # fmt: skip
        return sorted(stops, key=self._place)

    def _place(self, widget: QWidget) -> tuple[int, int, int]:
        """Where a stop is read: what scrolls by its place on its page, wherever that stands just now."""
        holder = widget.parentWidget()
        while holder is not None and holder is not self:
            page = holder.widget() if isinstance(holder, QScrollArea) else None
            if page is not None:
                at = widget.mapTo(page, widget.rect().center())
                return holder.mapTo(self, QPoint()).y(), at.y() // SAME_ROW, at.x()
            holder = holder.parentWidget()
        at = widget.mapTo(self, widget.rect().center())
        return at.y(), 0, at.x()

    def focusNextPrevChild(self, forward: bool) -> bool:
        """Tab walks the sheet and wraps inside; Esc leaves it."""
        stops = self.tab_stops()
        here = self.focusWidget()
        if not stops or here is None:
            return super().focusNextPrevChild(forward)
        owner = next_owner(here, stops)
        at = stops.index(owner) if owner is not None else (-1 if forward else 0)
        to = stops[(at + (1 if forward else -1)) % len(stops)]
        to.setFocus(Qt.FocusReason.TabFocusReason if forward else Qt.FocusReason.BacktabFocusReason)
        holder = to.parentWidget()
        while holder is not None and holder is not self:
            if isinstance(holder, QScrollArea):
                holder.ensureWidgetVisible(to)
            holder = holder.parentWidget()
        return True

    def paintEvent(self, event: QPaintEvent) -> None:
        super().paintEvent(event)
        painter = QPainter(self)
        painter.setPen(QPen(theme.colour("brass"), 2))
        painter.drawLine(1, 0, 1, self.height())

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Escape:
            self.closed.emit()
        else:
            super().keyPressEvent(event)

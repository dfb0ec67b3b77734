"""Which jobs of the book are shown: those at work, ready, late; with how many there are of each."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date

from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import QButtonGroup, QHBoxLayout, QPushButton, QWidget

from ventrix.records.book.index import Entry
from ventrix.rooms.book.plates import FILTERS, Filter


class StateChoice(QWidget):
    """`chosen` brings the key of a filter that was clicked."""

    chosen = Signal(str)

    def __init__(self) -> None:
        super().__init__()
        self.filter: Filter = FILTERS[0]
        self._buttons = QButtonGroup(self)
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(0)
        for i, each in enumerate(FILTERS):
            button = QPushButton(each.words)
            button.setObjectName("choice")
            button.setCheckable(True)
            button.setFocusPolicy(Qt.FocusPolicy.TabFocus)
            self._buttons.addButton(button, i)
            row.addWidget(button)
        row.addStretch()
        self._buttons.button(0).setChecked(True)
        self._buttons.idClicked.connect(lambda i: self.chosen.emit(FILTERS[i].key))

    def choose(self, key: str) -> None:
        at = next(i for i, each in enumerate(FILTERS) if each.key == key)
        self.filter = FILTERS[at]
        self._buttons.button(at).setChecked(True)

    def show_counts(self, entries: Sequence[Entry], today: date) -> None:
        """A state that no job is in has no button, unless it is chosen."""
        for button, each in zip(self._buttons.buttons(), FILTERS, strict=True):
            count = sum(each.takes(e, today) for e in entries)
            button.setText(f"{each.words} {count}" if each.key != "all" else each.words)
            button.setVisible(count > 0 or each.key == "all" or each is self.filter)

"""The book's library: claimed curves, seat recipes, outlines; and whether a ready casting is worth the hours."""

from __future__ import annotations

from collections.abc import Sequence

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QHBoxLayout, QLabel, QPushButton, QVBoxLayout, QWidget

from ventrix.core.model.library import LibraryItem
from ventrix.rooms.book.library import ItemRow
from ventrix.rooms.display_units import Units
from ventrix.ui.widgets.quantity_field import QuantityField
from ventrix.ui.widgets.table import Table

EMPTY = (
    "Nothing here yet. A maker's claim (Cut menu) and a valve job (Ctrl+J) each have a box that keeps them for every "
    "job; what is kept stands here."
)


class LibraryPage(QWidget):
    """A table of what is kept, and beneath it what a chosen claim would be worth."""

    chosen = Signal(object)  # a LibraryItem
    removed = Signal(object)
    rate_typed = Signal(object)

    def __init__(self, units: Units) -> None:
        super().__init__()
        self.rows: list[ItemRow] = []
        self.table = Table("The library")
        self.table.setSelectionBehavior(self.table.SelectionBehavior.SelectRows)
        self.table.itemSelectionChanged.connect(self._choose)
        self.empty = QLabel(EMPTY)
        self.empty.setWordWrap(True)
        self.rate = QuantityField("What an hour of yours costs", units.ratio)
        self.rate.edited.connect(self.rate_typed)
        self.worth = QLabel()
        self.worth.setWordWrap(True)
        self.take_out = QPushButton("Take it out of the library")
        self.take_out.clicked.connect(self._take_out)
        foot = QHBoxLayout()
        foot.addWidget(self.take_out)
        foot.addStretch()
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.addWidget(self.empty)
        column.addWidget(self.table, 1)
        column.addWidget(self.rate)
        column.addWidget(self.worth)
        column.addLayout(foot)

    @property
    def item(self) -> LibraryItem | None:
        row = self.table.currentRow()
        return self.rows[row].item if 0 <= row < len(self.rows) else None

    def show_rows(self, rows: Sequence[ItemRow]) -> None:
        had = self.item.id if self.item is not None else ""
        self.rows = list(rows)
        for part in (self.table, self.rate, self.worth, self.take_out):
            part.setVisible(bool(rows))
        self.empty.setVisible(not rows)
        cells = [[r.kind, r.name, r.says, r.price] for r in rows]
        self.table.fill(cells, ["what", "name", "says", "price"], right=range(3, 4))
        self.table.resizeColumnsToContents()
        at = next((i for i, r in enumerate(rows) if r.item.id == had), 0)
        if rows:
            self.table.selectRow(at)

    def _choose(self) -> None:
        if self.item is not None:
            self.chosen.emit(self.item)

    def _take_out(self) -> None:
        if self.item is not None:
            self.removed.emit(self.item)

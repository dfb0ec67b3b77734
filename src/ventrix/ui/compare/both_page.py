"""Exhaust and intake on one page."""

from __future__ import annotations

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QHBoxLayout, QLabel, QVBoxLayout, QWidget

from ventrix.rooms.compare.both_kinds import BothKinds
from ventrix.ui.widgets.plot import Plot
from ventrix.ui.widgets.table import Table
from ventrix.words import tr


class BothPage(QWidget):
    """Both curves, the table of their ratio, and what each port has gained."""

    def __init__(self) -> None:
        super().__init__()
        self.words = QLabel()
        self.words.setWordWrap(True)
        self.words.setStyleSheet("font-size: 15px")
        self.words.setTextInteractionFlags(Qt.TextInteractionFlag.TextSelectableByMouse)
        self.plot = Plot(tr("Flow of both kinds of port against lift"))
        self.table = Table(tr("Exhaust over intake"))
        self.table.verticalHeader().hide()
        self.table.setShowGrid(False)
        below = QHBoxLayout()
        below.setSpacing(14)
        below.addWidget(self.plot, 3)
        below.addWidget(self.table, 2)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.addWidget(self.words)
        column.addLayout(below, 1)

    def show_both(self, page: BothKinds) -> None:
        """Show the page, or what is missing for it."""
        self.words.setText(page.missing or "\n".join(page.sentences))
        for part in (self.plot, self.table):
            part.setVisible(not page.missing)
        if not page.missing:
            self.plot.show_picture(page.picture)
            self.table.fill([list(row) for row in page.rows], list(page.heads), right=range(4))
            for column, width in enumerate((70, 130, 90, 120)):
                self.table.setColumnWidth(column, width)

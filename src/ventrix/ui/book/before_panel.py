"""What did that size flow before: one figure, the curves, and the cuts it rests on."""

from __future__ import annotations

from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import QHBoxLayout, QHeaderView, QLabel, QVBoxLayout, QWidget

from ventrix.rooms.book.before import Before
from ventrix.ui.look import theme
from ventrix.ui.widgets.plot import Plot
from ventrix.ui.widgets.table import Table
from ventrix.words import tr


class BeforePanel(QWidget):
    """Shows a `Before`, or the sentence that says why there is none."""

    said = Signal(str)

    def __init__(self) -> None:
        super().__init__()
        heading = QLabel(tr("What did that size flow before"))
        heading.setObjectName("heading")
        self.figure = QLabel()
        self.beside = QLabel()
        self.beside.setObjectName("quiet")
        self.beside.setWordWrap(True)
        row = QHBoxLayout()
        row.setSpacing(12)
        row.addWidget(self.figure)
        row.addWidget(self.beside, 1)
        self.caption = QLabel()
        self.caption.setObjectName("caption")
        self.caption.setWordWrap(True)
        self.plot = Plot(tr("Curves of cuts of this size"))
        self.table = Table(tr("Cuts of this size"), sorts=True)
        self.table.verticalHeader().hide()
        self.table.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.table.said.connect(self.said)
        self.left_out = QLabel()
        self.left_out.setObjectName("caption")
        self.left_out.setWordWrap(True)
        self.nothing = QLabel()
        self.nothing.setWordWrap(True)
        self.nothing.setObjectName("quiet")
        column = QVBoxLayout(self)
        column.setContentsMargins(16, 0, 0, 0)
        column.setSpacing(4)
        column.addWidget(heading)
        column.addLayout(row)
        column.addWidget(self.caption)
        column.addWidget(self.plot, 3)
        column.addWidget(self.table, 2)
        column.addWidget(self.left_out)
        column.addWidget(self.nothing)
        column.addStretch()

    def show_before(self, before: Before, marked: bool) -> None:
        """The panel filled; `marked` says that those left out are shown too."""
        self._show_parts(True)
        self.figure.setFont(theme.font(40, narrow=True, weight=600))
        self.figure.setStyleSheet(f"font-size: 40px; font-family: '{theme.NARROW}'; font-weight: 600")
        self.figure.setText(before.figure)
        self.beside.setText(before.beside)
        self.caption.setText(before.caption)
        self.plot.show_picture(before.picture)
        rows = [[f"{r.name}{f' ({r.left_out})' if r.left_out else ''}", r.sizes, r.flow] for r in before.rows]
        self.table.fill(rows, ["cut", tr("section · throat"), "flow"], right=range(1, 3))
        self.table.horizontalHeader().setSectionResizeMode(0, QHeaderView.ResizeMode.Stretch)
        for i, width in ((1, 90), (2, 54)):
            self.table.setColumnWidth(i, width)
        key = tr("Ctrl+U hides them.") if marked else tr("Ctrl+U shows them, marked.")
        self.left_out.setText(f"{before.left_out} {key}" if before.left_out else "")

    def say_nothing(self, why: str) -> None:
        self._show_parts(False)
        self.nothing.setText(why)

    def _show_parts(self, shown: bool) -> None:
        for part in (self.figure, self.beside, self.caption, self.plot, self.table, self.left_out):
            part.setVisible(shown)
        self.nothing.setVisible(not shown)

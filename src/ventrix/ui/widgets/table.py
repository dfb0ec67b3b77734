"""The table that every table is: it copies, takes a paste, sorts where that makes sense, writes itself as CSV, and
lets Tab go on to the next field."""

from __future__ import annotations

import csv
import io
from pathlib import Path

from PySide6.QtCore import QPoint, Qt, Signal
from PySide6.QtGui import QKeyEvent, QKeySequence
from PySide6.QtWidgets import QAbstractItemView, QApplication, QFileDialog, QMenu, QTableWidget, QTableWidgetItem

from ventrix.records.bad_input import InputError, sentence_of
from ventrix.records.files.whole_file import write_whole
from ventrix.words import tr

MARKS = "▲▼ "  # before a figure, for the eye alone


class Table(QTableWidget):
    """A table of texts. `edits` lets cells be typed in; `sorts` orders rows by a click on a heading."""

    pasted = Signal(list)  # rows of cells
    row_removed = Signal(int)
    said = Signal(str)

    def __init__(self, name: str, *, edits: bool = False, sorts: bool = False) -> None:
        super().__init__()
        self._edits, self._sorts = edits, sorts
        self.setAccessibleName(name)
        self.setTabKeyNavigation(False)
        self.setCornerButtonEnabled(False)
        if not edits:
            self.setEditTriggers(QAbstractItemView.EditTrigger.NoEditTriggers)
        self.setContextMenuPolicy(Qt.ContextMenuPolicy.CustomContextMenu)
        self.customContextMenuRequested.connect(self._menu)

    def fill(self, rows: list[list[str]], heads: list[str], *, right: range | None = None) -> None:
        """Show these rows; columns in `right` are set to the right."""
        self.setSortingEnabled(False)
        self.setColumnCount(len(heads))
        self.setHorizontalHeaderLabels(heads)
        self.setRowCount(len(rows))
        for r, cells in enumerate(rows):
            for c, text in enumerate(cells):
                item = _Cell(text)
                side = Qt.AlignmentFlag.AlignRight if right is not None and c in right else Qt.AlignmentFlag.AlignLeft
                item.setTextAlignment(side | Qt.AlignmentFlag.AlignVCenter)
                self.setItem(r, c, item)
        self.setSortingEnabled(self._sorts)
        if self._sorts:
            self.horizontalHeader().setSortIndicator(-1, Qt.SortOrder.AscendingOrder)

    # -- what is in it

    def text_at(self, row: int, column: int) -> str:
        item = self.item(row, column)
        return item.text().strip() if item is not None else ""

    def rows(self) -> list[list[str]]:
        """Headings and every row, as they are read: without marks, with a plain minus. Row headings come first."""
        down, across = Qt.Orientation.Vertical, Qt.Orientation.Horizontal
        model = self.model()
        named = not self.verticalHeader().isHidden()
        heads = [str(model.headerData(c, across) or "") for c in range(self.columnCount())]
        found = [["", *heads] if named else heads]
        for r in range(self.rowCount()):
            cells = [self.text_at(r, c).lstrip(MARKS).replace("−", "-") for c in range(self.columnCount())]
            found.append([str(model.headerData(r, down)), *cells] if named else cells)
        return found

    def copy(self) -> None:
        """The whole table to the clipboard, tab-separated."""
        QApplication.clipboard().setText("\n".join("\t".join(row) for row in self.rows()))
        self.said.emit(tr("{} copied.", self.accessibleName()))

    def write(self, path: Path) -> bool:
        """The whole table as CSV; a cell that a spreadsheet would take for a formula is quoted as text."""
        text = io.StringIO()
        csv.writer(text, lineterminator="\n").writerows([[_plain(cell) for cell in row] for row in self.rows()])
        try:
            write_whole(path, text.getvalue())
        except InputError as error:
            self.said.emit(sentence_of(error))
            return False
        self.said.emit(tr("{} written to {}.", self.accessibleName(), path.name))
        return True

    # -- hands

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.matches(QKeySequence.StandardKey.Copy):
            self.copy()
        elif self._edits and event.matches(QKeySequence.StandardKey.Paste):
            self.paste()
        elif self._edits and event.key() == Qt.Key.Key_Delete and self.currentRow() >= 0:
            self.row_removed.emit(self.currentRow())
        else:
            super().keyPressEvent(event)

    def paste(self) -> None:
        """Hand on what the clipboard holds, as rows of cells."""
        lines = QApplication.clipboard().text().splitlines()
        self.pasted.emit([[cell.strip() for cell in line.split("\t")] for line in lines if line.strip()])

    def _menu(self, at: QPoint) -> None:
        menu = QMenu(self)
        menu.addAction(tr("Copy (Ctrl+C)"), self.copy)
        if self._edits:
            menu.addAction(tr("Paste (Ctrl+V)"), self.paste)
        menu.addAction(tr("Write as CSV…"), self._choose_file)
        menu.exec(self.viewport().mapToGlobal(at))

    def _choose_file(self) -> None:
        start = f"{self.accessibleName().lower()}.csv"
        name, _ = QFileDialog.getSaveFileName(self, tr("Write the table"), start, tr("Tables (*.csv)"))
        if name:
            self.write(Path(name))


class _Cell(QTableWidgetItem):
    """Sorts by the figure it begins with, where it begins with one."""

    def __lt__(self, other: QTableWidgetItem) -> bool:
        return _order(self.text()) < _order(other.text())


def _order(text: str) -> tuple[int, float, str]:
    head = text.lstrip(MARKS).replace("−", "-").split(" ")[0].rstrip("%")
    try:
        return 0, float(head), ""
    except ValueError:
        return 1, 0.0, text


def _plain(cell: str) -> str:
    """A cell as a spreadsheet shows it: text that begins like a formula gets an apostrophe, figures stay figures."""
    if cell[:1] in ("=", "+", "-", "@", "\t"):
        try:
            float(cell)
        except ValueError:
            return f"'{cell}"
    return cell

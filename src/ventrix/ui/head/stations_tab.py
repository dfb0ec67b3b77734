"""The Head room's tab of stations: sections along the centreline, as a table that copies and pastes."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent, QKeySequence
from PySide6.QtWidgets import (
    QApplication,
    QLabel,
    QPushButton,
    QTableWidget,
    QTableWidgetItem,
)

from ventrix.core.edits.cuts import edit_cut
from ventrix.core.model.cut import Cut, Port, Station, carried
from ventrix.core.model.job import Job
from ventrix.core.quantity.units import parse_quantity
from ventrix.ui.head.tab import MeasuringSheet, Tab
from ventrix.workspace.ids import new_id


class StationTable(QTableWidget):
    """Cells that copy and paste as tab-separated values."""

    def __init__(self, tab: StationsTab) -> None:
        super().__init__(0, 6)
        self._tab = tab

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.matches(QKeySequence.StandardKey.Copy):
            self._tab.copy()
        elif event.matches(QKeySequence.StandardKey.Paste):
            self._tab.paste()
        elif event.key() == Qt.Key.Key_Delete:
            self._tab.remove_row()
        else:
            super().keyPressEvent(event)


class StationsTab(Tab):
    """Sections along the centreline: a table that takes a paste from a spreadsheet."""

    title = "Stations"
    COLUMNS = ("along", "name", "width", "height", "corner_radius", "area")

    def __init__(self, room: MeasuringSheet) -> None:
        super().__init__(room)
        self._filling = False
        self.note = QLabel()
        self.note.setWordWrap(True)
        self.note.setObjectName("caption")
        self.table = StationTable(self)
        self.table.setAccessibleName("Stations along the centreline")
        self.table.verticalHeader().hide()
        self.table.setMinimumHeight(260)
        self.table.itemChanged.connect(self._changed)
        add = QPushButton("One more station")
        add.clicked.connect(self.add_row_at_end)
        self.column.addWidget(self.note)
        self.column.addWidget(self.table, 1)
        self.column.addWidget(add)
        self.column.addWidget(self.problem)

    def show_job(self, job: Job, port: Port, cut: Cut) -> None:
        if self.problem.text():
            return  # what was typed and makes no sense yet stays
        units = self.room.open_book.units
        found = carried(port, cut, "stations")
        stations = found.value if found is not None else ()
        self._filling = True
        unit, area = units.length.label, units.area.label
        self.table.setHorizontalHeaderLabels(["along", "name", "width", "height", "corner", f"area {area}"])
        self.table.setRowCount(len(stations))
        for row, station in enumerate(stations):
            for column, key in enumerate(self.COLUMNS):
                value = getattr(station, key)
                shown = units.area if key == "area" else units.length
                text = value if key == "name" else ("" if value is None else shown.text(value))
                self.table.setItem(row, column, QTableWidgetItem(text))
        for column, width in enumerate((48, 62, 46, 46, 46, 52)):
            self.table.setColumnWidth(column, width)
        self._filling = False
        where = ""
        if found is not None and found.cut_number != cut.number:
            where = f" Carried from cut {found.cut_number}; a change makes them this cut's own."
        self.note.setText(
            f"Distance from the opening and size, in {unit}. Paste from a spreadsheet with Ctrl+V.{where}"
        )

    def add_row_at_end(self) -> None:
        self._filling = True
        self.table.insertRow(self.table.rowCount())
        self._filling = False
        self.table.setFocus()
        self.table.setCurrentCell(self.table.rowCount() - 1, 0)

    def remove_row(self) -> None:
        if self.table.currentRow() >= 0:
            self.table.removeRow(self.table.currentRow())
            self._store()

    def _changed(self, _item: object) -> None:
        if not self._filling:
            self._store()

    def _cell(self, row: int, column: int) -> str:
        item = self.table.item(row, column)
        return item.text().strip() if item is not None else ""

    def _store(self) -> None:
        units = self.room.open_book.units
        stations = []
        try:
            for row in range(self.table.rowCount()):
                cells = [self._cell(row, c) for c in range(6)]
                if not any(cells):
                    continue
                values: dict[str, Any] = {}
                for key, text in zip(self.COLUMNS, cells, strict=True):
                    if key == "name":
                        values[key] = text
                    elif text:
                        values[key] = self._figure(
                            text, units.area.unit if key == "area" else units.length.unit, row, key
                        )
                if "along" not in values:
                    return  # still being typed
                stations.append(Station(id=new_id(), **values))
        except ValueError as error:
            self.say(error)
            return
        self.say(None)
        ordered = tuple(sorted(stations, key=lambda s: s.along))
        self.room.change("stations", lambda j, _p, c: edit_cut(j, c.id, lambda x: replace(x, stations=ordered)))

    def _figure(self, text: str, unit: str, row: int, key: str) -> float:
        try:
            value = parse_quantity(text, unit)
        except ValueError as error:
            raise ValueError(f"row {row + 1}, {key}: {error}") from None
        if value < 0 or (value == 0 and key not in ("along", "corner_radius")):
            raise ValueError(f"row {row + 1}, {key}: must be above zero")
        return value

    def copy(self) -> None:
        """The whole table as tab-separated values."""
        rows = [[self._cell(r, c) for c in range(6)] for r in range(self.table.rowCount())]
        QApplication.clipboard().setText("\n".join("\t".join(row) for row in [list(self.COLUMNS), *rows]))
        self.room.open_book.say("Stations copied.")

    def paste(self) -> None:
        """A table from a spreadsheet: along, name, width, height, corner, area; a first row of words is passed over."""
        lines = [line.split("\t") for line in QApplication.clipboard().text().splitlines() if line.strip()]
        lines = [cells for cells in lines if any(ch.isdigit() for ch in cells[0])]
        if not lines:
            self.say(ValueError("the clipboard holds no table with a distance in its first column"))
            return
        self._filling = True
        self.table.setRowCount(len(lines))
        for row, cells in enumerate(lines):
            for column in range(6):
                self.table.setItem(row, column, QTableWidgetItem(cells[column].strip() if column < len(cells) else ""))
        self._filling = False
        self._store()

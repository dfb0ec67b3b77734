"""The Head room's tab of stations: sections along the centreline, as a table."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from PySide6.QtWidgets import QLabel, QPushButton

from ventrix.core.edits.cuts import edit_cut
from ventrix.core.model.cut import Cut, Port, Station, carried
from ventrix.core.model.job import Job
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import parse_quantity
from ventrix.rooms.shared.shape_words import shape_sentences
from ventrix.ui.head.tab import MeasuringSheet, Tab
from ventrix.ui.widgets.table import Table
from ventrix.words import tr
from ventrix.workspace.ids import new_id


class StationsTab(Tab):
    """Sections along the centreline: a table that takes a paste from a spreadsheet."""

    title = tr("Stations")
    COLUMNS = ("along", "name", "width", "height", "corner_radius", "area")

    def __init__(self, room: MeasuringSheet) -> None:
        super().__init__(room)
        self._filling = False
        self.note = QLabel()
        self.note.setWordWrap(True)
        self.note.setObjectName("caption")
        self.table = Table(tr("Stations along the centerline"), edits=True)
        self.table.pasted.connect(self.take_paste)
        self.table.row_removed.connect(self.remove_row)
        self.table.said.connect(room.open_book.say)
        self.table.verticalHeader().hide()
        self.table.setMinimumHeight(260)
        self.table.itemChanged.connect(self._changed)
        add = QPushButton(tr("One more station"))
        add.clicked.connect(self.add_row_at_end)
        self.shape = QLabel()
        self.shape.setWordWrap(True)
        self.column.addWidget(self.note)
        self.column.addWidget(self.table, 1)
        self.column.addWidget(add)
        self.column.addWidget(self.shape)
        self.column.addWidget(self.problem)

    def show_job(self, job: Job, port: Port, cut: Cut) -> None:
        if self.problem.text():
            return  # what was typed and makes no sense yet stays
        units, space = self.room.open_book.units, self.room.open_book.workspace
        runs = space.findings.runs_of(cut, port) if space is not None else ()
        self.shape.setText("\n\n".join(shape_sentences(job, port, cut, runs[-1] if runs else None, units)))
        found = carried(port, cut, "stations")
        stations = found.value if found is not None else ()
        self._filling = True
        unit = units.length.label
        self.table.fill([[self._text(s, key) for key in self.COLUMNS] for s in stations], self._heads())
        for column, width in enumerate((48, 62, 46, 46, 46, 52)):
            self.table.setColumnWidth(column, width)
        self._filling = False
        where = ""
        if found is not None and found.cut_number != cut.number:
            where = tr(" Carried from cut {}; a change makes them this cut's own.", found.cut_number)
        self.note.setText(
            tr("Distance from the opening and size, in {}. Paste from a spreadsheet with Ctrl+V.{}", unit, where)
        )

    def _heads(self) -> list[str]:
        area = self.room.open_book.units.area.label
        return ["along", "name", "width", "height", "corner", tr("area {}", area)]

    def _text(self, station: Station, key: str) -> str:
        value, units = getattr(station, key), self.room.open_book.units
        if key == "name":
            return str(value)
        return "" if value is None else (units.area if key == "area" else units.length).text(value)

    def add_row_at_end(self) -> None:
        self._filling = True
        self.table.insertRow(self.table.rowCount())
        self._filling = False
        self.table.setFocus()
        self.table.setCurrentCell(self.table.rowCount() - 1, 0)

    def remove_row(self, row: int) -> None:
        self.table.removeRow(row)
        self._store()

    def _changed(self, _item: object) -> None:
        if not self._filling:
            self._store()

    def _store(self) -> None:
        units = self.room.open_book.units
        stations = []
        try:
            for row in range(self.table.rowCount()):
                cells = [self.table.text_at(row, c) for c in range(6)]
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
        except Refused as error:
            self.say(error)
            return
        self.say(None)
        ordered = tuple(sorted(stations, key=lambda s: s.along))
        self.room.change("stations", lambda j, _p, c: edit_cut(j, c.id, lambda x: replace(x, stations=ordered)))

    def _figure(self, text: str, unit: str, row: int, key: str) -> float:
        try:
            value = parse_quantity(text, unit)
        except Refused as error:
            raise Refused("row {}, {}: {}", row + 1, key, error) from None
        if value < 0 or (value == 0 and key not in ("along", "corner_radius")):
            raise Refused("row {}, {}: must be above zero", row + 1, key)
        return value

    def take_paste(self, rows: list[list[str]]) -> None:
        """A table from a spreadsheet: along, name, width, height, corner, area; a first row of words is passed over."""
        rows = [cells for cells in rows if any(ch.isdigit() for ch in cells[0])]
        if not rows:
            self.say(Refused("the clipboard holds no table with a distance in its first column"))
            return
        self._filling = True
        self.table.fill([[*cells, *[""] * 6][:6] for cells in rows], self._heads())
        self._filling = False
        self._store()

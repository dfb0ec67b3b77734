"""Set right, renamed, taken out: any part of the cut looked at; and the bin."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QLabel, QLineEdit, QListWidget, QListWidgetItem, QPushButton

from ventrix.core.edits.anywhere import edit_part
from ventrix.core.model.cut import WallReading, Work
from ventrix.core.model.job import Job
from ventrix.core.model.noun import Noun
from ventrix.core.model.plausible import check_of, implausible
from ventrix.core.model.run import FlowRun
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import parse_quantity
from ventrix.core.quantity.words import sentence
from ventrix.rooms.cuts.parts import FIELDS, Part, field_text, must_stand, parts_of
from ventrix.ui.cuts.work_rows import parse_places
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.form_sheet import FormSheet
from ventrix.words import tr
from ventrix.workspace.bin import empty_bin, put_back, take_out

FEWEST_FIELDS = 4  # boxes that are there for whatever is chosen
ROLE = Qt.ItemDataRole.UserRole


class PartsSheet(FormSheet):
    """A list of parts; the fields of the one chosen; taking out with a reason; the bin below."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book, tr("Correct it"), 460)
        self._parts: list[Part] = []
        self.list = QListWidget()
        self.list.setAccessibleName(tr("Parts of this cut"))
        self.list.setFixedHeight(210)
        self.list.currentRowChanged.connect(lambda _r: self._show_fields())
        self.column.addWidget(self.list)
        self.boxes: list[tuple[QLabel, QLineEdit]] = []
        for _ in range(FEWEST_FIELDS):
            box = QLineEdit()
            box.setMaxLength(160)
            label = self._captioned("–", box)
            self.boxes.append((label, box))
        self.conditions = QPushButton(tr("Correct its conditions…"))
        self.conditions.clicked.connect(self._ask_conditions)
        self.column.addWidget(self.conditions)
        self.reason = self.add_text(tr("Why it goes"), tr("typing mistake"))
        self.out = QPushButton(tr("Delete it, into the bin"))
        self.out.clicked.connect(self.take_out)
        self.column.addWidget(self.out)
        heading = QLabel(tr("The bin"))
        heading.setObjectName("heading")
        self.bin = QListWidget()
        self.bin.setAccessibleName(tr("The bin"))
        self.bin.setFixedHeight(84)
        back, empty = QPushButton(tr("Put back")), QPushButton(tr("Empty the bin"))
        back.clicked.connect(self.put_back)
        empty.clicked.connect(self.empty)
        for widget in (heading, self.bin, back, empty):
            self.column.addWidget(widget)
        self.finish()
        self.caution.setText(
            tr(
                "What was measured is never changed: a reading is struck with its reason, and a run's conditions are "
                "corrected with theirs. What is deleted waits in the bin until that is emptied."
            )
        )
        for signal in (open_book.job_changed, open_book.selection_changed):
            signal.connect(self._refresh)

    def open(self) -> None:
        """Show the parts of the cut looked at; the cut itself is chosen."""
        space = self.open_book.workspace
        if space is None or space.port is None or space.real_cut is None:
            return
        self.begin_about(space.real_cut.id)
        self._refresh()
        self.list.setCurrentRow(2)
        self.come_up()
        self.list.setFocus()

    def _refresh(self) -> None:
        space = self.open_book.workspace
        if space is None or space.port is None or space.real_cut is None:
            return
        chosen = self._chosen()
        cut = space.real_cut
        self.title.setText(tr("Correct: {}, cut {}", space.port.name.lower(), cut.number))
        self._parts = parts_of(space.job, space.port, cut, self.open_book.units)
        self.list.blockSignals(True)
        self.list.clear()
        row = 2
        for i, part in enumerate(self._parts):
            self.list.addItem("   " * part.depth + part.label)
            if chosen is not None and (type(part.noun), part.noun.id) == (type(chosen.noun), chosen.noun.id):
                row = i
        self.list.setCurrentRow(row)
        self.list.blockSignals(False)
        self.bin.clear()
        for binned in space.job.bin:
            why = f": {binned.reason}" if binned.reason else ""
            item = QListWidgetItem(f"{binned.name}{why}")
            item.setData(ROLE, binned.id)
            self.bin.addItem(item)
        self._show_fields()

    def _chosen(self) -> Part | None:
        row = self.list.currentRow()
        return self._parts[row] if 0 <= row < len(self._parts) else None

    def _show_fields(self) -> None:
        part = self._chosen()
        fields = FIELDS[type(part.noun)] if part is not None else ()
        for i, (label, box) in enumerate(self.boxes):
            there = i < len(fields)
            label.setVisible(there)
            box.setVisible(there)
            if there and part is not None:
                unit = self.open_book.units[fields[i].unit].label if fields[i].unit else ""
                label.setText(f"{fields[i].caption}, {unit}" if unit else fields[i].caption)
                box.setAccessibleName(fields[i].caption)
                box.setText(field_text(part.noun, fields[i], self.open_book.units))
        self.conditions.setVisible(part is not None and isinstance(part.noun, FlowRun) and not part.noun.claimed)
        self.out.setEnabled(part is not None and not isinstance(part.noun, Job))
        self.problem.clear()

    def _ask_conditions(self) -> None:
        part = self._chosen()
        if part is not None:
            self.open_book.ways.sheet("correct", part.noun.id)

    def _typed(self, part: Part) -> dict[str, Any]:
        """Fields whose text was changed. ValueError with a sentence for a figure that makes no sense."""
        units = self.open_book.units
        values: dict[str, Any] = {}
        for field, (_, box) in zip(FIELDS[type(part.noun)], self.boxes, strict=False):
            text = box.text().strip()
            if text == field_text(part.noun, field, units):
                continue
            if not text and must_stand(type(part.noun), field.key):
                raise Refused("{}: is missing", field.caption.lower())
            if not field.unit:
                if isinstance(part.noun, Work | WallReading) and field.key == "place":
                    (text,) = parse_places(text)
                values[field.key] = text or (None if getattr(part.noun, field.key) is None else "")
                continue
            value = parse_quantity(text, units[field.unit].unit) if text else None
            if value is not None:
                check_of(type(part.noun), field.key)(value)
            values[field.key] = value
        return values

    def take(self) -> None:
        """Set right what was changed of the part chosen."""
        space, part = self.open_book.workspace, self._chosen()
        if space is None or part is None:
            return
        try:
            values = self._typed(part)
            if not values:
                self.problem.setText(tr("Nothing was changed."))
                return
            noun = replace(part.noun, **values)
            for _, said in implausible(noun):
                raise Refused(said)
        except Refused as error:
            self.problem.setText(sentence(str(error)))
            return

        def edit(_had: Noun) -> Noun:
            return noun

        job = noun if isinstance(noun, Job) else edit_part(space.job, type(noun), noun.id, edit)
        space.apply(tr("{} corrected", part.label.split(":")[0]), job)

    def take_out(self) -> None:
        """Put the part chosen into the bin."""
        space, part = self.open_book.workspace, self._chosen()
        if space is None or part is None or isinstance(part.noun, Job):
            return
        try:
            take_out(space, type(part.noun), part.noun.id, part.label, self.reason.text())
        except Refused as error:
            self.problem.setText(sentence(str(error)))
            return
        self.reason.clear()

    def put_back(self) -> None:
        """Put back what is chosen in the bin."""
        space, item = self.open_book.workspace, self.bin.currentItem()
        if space is None or item is None:
            self.problem.setText(tr("Choose something in the bin first."))
            return
        try:
            put_back(space, str(item.data(ROLE)))
        except Refused as error:
            self.problem.setText(sentence(str(error)))

    def empty(self) -> None:
        """Let go of everything in the bin."""
        if self.open_book.workspace is not None:
            empty_bin(self.open_book.workspace)

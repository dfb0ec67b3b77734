"""Faults of the casting: noted at a place of the port, set gone or left; and the grid of all ports."""

from __future__ import annotations

from functools import partial

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QLabel, QListWidget, QListWidgetItem, QPushButton, QWidget

from ventrix.core.edits.faults import add_fault, gone_through, set_fault_state, state_at
from ventrix.core.model.cut import Fault
from ventrix.core.model.kinds import Band, FaultKind, FaultState, Place
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.words import sentence
from ventrix.rooms.cuts.fault_grid import fault_grid, fault_words
from ventrix.ui.cuts.work_rows import ALL_ROUND, side_of
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.form_sheet import FormSheet
from ventrix.ui.widgets.kept_choice import choose, taken
from ventrix.ui.widgets.photo_button import PhotoButton
from ventrix.ui.widgets.table import Table
from ventrix.words import tr
from ventrix.workspace.ids import new_id, now_text


class FaultSheet(FormSheet):
    """Notes a fault; below, those of this port with what became of each, and the grid of the whole casting."""

    stays = True

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book, tr("Note the fault"), 460)
        self.kind = self.add_choice(tr("What it is"), [(k.words, k) for k in FaultKind])
        self.place = self.add_choice(tr("Where"), [(p, p) for p in Place])
        self.side = self.add_choice(tr("Side, or hours"), [(s, s) for s in (ALL_ROUND, *Band)])
        self.side.setEditable(True)
        self.extent = self.add_figure(tr("How far, how much"), "length", small=True)
        self.note = self.add_text(tr("Note"), tr("growing along the head"))
        self.photo = PhotoButton(open_book, tr("the fault"))
        self.photo.refused.connect(self.problem.setText)
        self.column.addWidget(self.photo)
        self.finish()
        self.caution.setText(
            tr(
                "Cracks and corrosion: treat corroded metal as thin. Whether a cracked casting can be used is for a "
                "licensed machine shop."
            )
        )
        heading = QLabel(tr("At this port"))
        heading.setObjectName("heading")
        self.list = QListWidget()
        self.list.setAccessibleName(tr("Faults of this port"))
        self.list.setFixedHeight(120)
        at = self.column.count() - 1  # before the stretch
        self.column.insertWidget(at, heading)
        self.column.insertWidget(at + 1, self.list)
        for i, (words, state) in enumerate(
            (
                (tr("Gone"), FaultState.GONE),
                (tr("Left on purpose"), FaultState.LEFT),
                (tr("Open again"), FaultState.OPEN),
            )
        ):
            button = QPushButton(words)
            button.clicked.connect(partial(self.set_state, state))
            self.column.insertWidget(at + 2 + i, button)
        self.looked = QPushButton(tr("Gone through all round"))
        self.looked.clicked.connect(self.go_through)
        self.column.insertWidget(at + 5, self.looked)
        everywhere = QLabel(tr("The whole casting"))
        everywhere.setObjectName("heading")
        self.grid = Table("Faults of the casting", sorts=True)
        self.grid.verticalHeader().hide()
        self.grid.setFixedHeight(180)
        self.grid.said.connect(open_book.say)
        self.column.insertWidget(at + 6, everywhere)
        self.column.insertWidget(at + 7, self.grid)
        open_book.job_changed.connect(self._show)

    def open(self, place: str = "", side: str = "") -> None:
        """Show the sheet for a place of the port in hand."""
        space = self.open_book.workspace
        if space is None or space.port is None:
            return
        self.begin_about(space.port.id)
        self.title.setText(tr("Faults, {}", space.port.name.lower()))
        if place in tuple(Place):
            choose(self.place, place)
        if side:
            choose(self.side, side)
        self._show()
        self.come_up()
        self.kind.setFocus()

    def _show(self) -> None:
        space = self.open_book.workspace
        if space is None or space.port is None or space.real_cut is None:
            return
        day = (space.port.faults_looked_at or "")[:10]
        count = len(space.port.faults)
        all_of_them = tr("no fault found") if not count else tr("this is all") if count == 1 else tr("these are all")
        self.looked.setText(
            tr("Gone through on {}: take it back", day) if day else tr("Gone through all round: {}", all_of_them)
        )
        chosen = self._chosen()
        self.list.clear()
        for fault in space.port.faults:
            state = state_at(fault, space.real_cut)
            words = f"{fault_words(fault, self.open_book.units)}   {state.words if state else tr('seen later')}"
            item = QListWidgetItem(words)
            item.setData(Qt.ItemDataRole.UserRole, fault.id)
            self.list.addItem(item)
            if fault.id == chosen:
                self.list.setCurrentItem(item)
        heads, rows = fault_grid(space.job)
        self.grid.fill(rows, heads)
        self.grid.resizeColumnsToContents()

    def go_through(self) -> None:
        """The whole port was looked over; or it was not after all."""
        space = self.open_book.workspace
        if space is None or space.port is None:
            return
        day = None if space.port.faults_looked_at else now_text()
        space.apply(tr("{} gone through for faults", space.port.name), gone_through(space.job, space.port.id, day))

    def _chosen(self) -> str:
        item = self.list.currentItem()
        return str(item.data(Qt.ItemDataRole.UserRole)) if item is not None else ""

    def set_state(self, state: FaultState) -> None:
        """Say what became of the fault chosen in the list."""
        space = self.open_book.workspace
        if space is None or space.real_cut is None:
            return
        if not self._chosen():
            self.problem.setText(tr("Choose one of this port's faults first."))
            return
        self.problem.clear()
        space.apply(tr("fault {}", state.words), set_fault_state(space.job, self._chosen(), state, space.real_cut))

    def first_field(self) -> QWidget:
        return self.kind

    def take(self) -> None:
        """Note the fault at the cut looked at."""
        space = self.open_book.workspace
        if space is None or space.port is None or space.real_cut is None or not self.settle_fields():
            return
        try:
            side, start, end = side_of(taken(self.side))
        except Refused as error:
            self.problem.setText(sentence(str(error)))
            return
        fault = Fault(
            id=new_id(),
            kind=self.kind.currentData(),
            place=self.place.currentData(),
            side=side,
            from_hour=start,
            to_hour=end,
            size=self.extent.value,
            seen_at_cut=space.real_cut.number,
            date=now_text(),
            note=self.note.text().strip(),
            photo=self.photo.file,
        )
        space.apply(
            tr("fault: {}", fault_words(fault, self.open_book.units)), add_fault(space.job, space.port.id, fault)
        )
        self.clear_fields()
        choose(self.side, ALL_ROUND)
        self.photo.use("")
        self.was_kept()

"""A claimed curve typed in: whose claim, how it is stated, its lifts and flows. It never counts as measured."""

from __future__ import annotations

from dataclasses import replace
from datetime import date
from pathlib import Path

from PySide6.QtWidgets import QFileDialog, QPlainTextEdit, QPushButton

from ventrix.core.edits.runs import start_run
from ventrix.core.model.kinds import Entry, LibraryKind, RunBasis
from ventrix.core.model.library import LibraryItem
from ventrix.core.model.run import FlowRun, Reading, SetUp
from ventrix.core.quantity.days import read_day
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import parse_quantity
from ventrix.core.quantity.words import sentence
from ventrix.records.bad_input import InputError, sentence_of
from ventrix.records.files.pasted_table import parse_pasted
from ventrix.records.library.items import claim_item, claim_of
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.form_sheet import FormSheet
from ventrix.ui.widgets.photo_window import PhotoWindow
from ventrix.words import tr
from ventrix.workspace.ids import new_id, now_text


class ClaimSheet(FormSheet):
    """Hangs a claim from the cut looked at."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book, tr("Keep the claim"))
        self.known = self.add_choice(tr("From the library"), [(tr("none"), None)])
        self.known.activated.connect(lambda _i: self._take_known())
        self.of = self.add_choice(
            tr("What it is"),
            [(tr("a claim: nobody measured it here"), ""), (tr("another shop's flow sheet"), RunBasis.PAPER)],
        )
        self.of.currentIndexChanged.connect(lambda _i: self._of_paper())
        self.who = self.add_text(tr("Claimed by"), tr("the seller's sheet"))
        self.day = self.add_text(tr("Date on it"), tr("4 dec"))
        self.pressure = self.add_figure(tr("Stated test pressure"), "pressure")
        self.bore = self.add_figure(tr("Stated bore"), "length")
        self.entry = self.add_choice(tr("Stated entry"), [(tr("not stated"), None), *((e.words, e) for e in Entry)])
        self.beside = QPushButton(tr("Hold a photo of it beside this…"))
        self.beside.clicked.connect(self._choose_photo)
        self.column.addWidget(self.beside)
        self.held = PhotoWindow(self)
        self.closed.connect(self.held.hide)
        self.rows = QPlainTextEdit()
        self.rows.setTabChangesFocus(True)
        self.rows.setPlaceholderText(tr("lift and flow, a line each:\n0.1  62\n0.2  125"))
        self.rows.setFixedHeight(220)
        self._captioned(tr("Lift and flow"), self.rows)
        self.keep_it = self.add_check(tr("keep it in the library, for every job"))
        self.name = self.add_text(tr("Its name there"), tr("ready casting, stage two"))
        self.price = self.add_figure(tr("Its price, as you count"), "ratio")
        self.finish()
        self.caution.setText(
            tr(
                "A claim is drawn dotted, says whose it is, and never counts as measured: nothing can be "
                "proven against it."
            )
        )

    def open(self) -> None:
        space = self.open_book.workspace
        if space is None or space.real_cut is None or space.port is None:
            return
        self.begin_about(space.real_cut.id)
        self.title.setText(tr("A claim about cut {} of {}", space.real_cut.number, space.port.name.lower()))
        if self.pressure.value is None:
            self.pressure.set_value(parse_quantity("28", "inH2O"))
        self.known.clear()
        self.known.addItem(tr("none"), None)
        for item in self.open_book.book.library():
            if item.kind == LibraryKind.CLAIM and item.of == space.port.kind:
                self.known.addItem(f"{item.name}, {item.source}", item)
        self._of_paper()
        self.come_up()
        self.who.setFocus()

    def _choose_photo(self) -> None:
        name, _ = QFileDialog.getOpenFileName(self, tr("A photo of the sheet"), "", tr("Pictures (*.jpg *.jpeg *.png)"))
        if name:
            self.hold(Path(name))

    def hold(self, path: Path) -> bool:
        """Show a photo of the sheet in a window that stays on top while its figures are typed here."""
        shown = self.held.hold(path)
        self.problem.setText("" if shown else tr("{} is not a picture that can be read.", path.name))
        return shown

    def _of_paper(self) -> None:
        """A sheet of another shop has a house and a date; a claim has somebody who says so, and may be kept."""
        paper = self.of.currentData() == RunBasis.PAPER
        self.name_row(self.who, tr("House") if paper else tr("Claimed by"))
        self.show_row(self.day, paper)
        for field in (self.known, self.name):
            self.show_row(field, not paper)
        self.price.setVisible(not paper)
        self.keep_it.setVisible(not paper)
        self.take_button.setText(tr("Keep the sheet") if paper else tr("Keep the claim"))

    def _take_known(self) -> None:
        """Fill the sheet from a claim of the library."""
        item = self.known.currentData()
        if not isinstance(item, LibraryItem):
            return
        try:
            run, setup = claim_of(item)
        except InputError as error:
            self.problem.setText(sentence_of(error))
            return
        units = self.open_book.units
        self.who.setText(item.source)
        self.pressure.set_value(setup.test_pressure)
        self.bore.set_value(setup.bore)
        self.entry.setCurrentIndex(max(self.entry.findData(setup.entry), 0))
        rows = [f"{units.lift.text(r.lift)}  {units.flow.text(r.flow)}" for r in run.readings if r.flow is not None]
        self.rows.setPlainText("\n".join(rows))

    def take(self) -> None:
        space = self.open_book.workspace
        if space is None or space.real_cut is None or space.port is None or not self.settle_fields():
            return
        who = self.who.text().strip()
        paper = self.of.currentData() == RunBasis.PAPER
        if not who:
            self.problem.setText(tr("Which shop's sheet is it?") if paper else tr("Whose claim is it?"))
            return
        if not self.rows.toPlainText().strip():
            self.problem.setText(tr("No figures yet: a lift and its flow a line, typed or pasted."))
            self.rows.setFocus()
            return
        day = read_day(self.day.text(), date.today(), ahead=False) if paper else None
        units = self.open_book.units
        try:
            table = parse_pasted(
                self.rows.toPlainText(), units.lift.unit, units.flow.unit, units.pressure.unit, space.port.kind
            )
        except Refused as error:
            self.problem.setText(sentence(str(error)))
            return
        setup = SetUp(
            id=new_id(),
            direction=space.port.kind,
            test_pressure=self.pressure.value,
            bore=self.bore.value,
            entry=self.entry.currentData(),
        )
        readings = tuple(Reading(id=new_id(), lift=r.lift, flow=r.reading) for r in table.rows)
        run = FlowRun(id=new_id(), setup_id=setup.id, date=now_text(), source="claimed", claimed=who, readings=readings)
        if paper:
            run = replace(run, source="paper", claimed=None, basis=RunBasis.PAPER, house=who, paper_date=day, date=day)
        job = start_run(space.job, space.real_cut.id, run, setup, None)
        space.apply(tr("sheet of {}", who) if paper else tr("claim by {}", who), job)
        if self.keep_it.isChecked():
            item = claim_item(run, setup, self.name.text().strip() or who, self.price.value, now_text())
            self.open_book.book.write((None, item))
            self.keep_it.setChecked(False)
        self.clear_fields()
        self.rows.clear()
        self.was_kept()

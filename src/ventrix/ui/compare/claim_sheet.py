"""A claimed curve typed in: whose claim, how it is stated, its lifts and flows. It never counts as measured."""

from __future__ import annotations

from PySide6.QtWidgets import QPlainTextEdit

from ventrix.core.edits.runs import start_run
from ventrix.core.model.kinds import Entry
from ventrix.core.model.run import FlowRun, Reading, SetUp
from ventrix.core.quantity.units import parse_quantity
from ventrix.core.quantity.words import sentence
from ventrix.records.files.pasted_table import parse_pasted
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.form_sheet import FormSheet
from ventrix.workspace.ids import new_id, now_text


class ClaimSheet(FormSheet):
    """Hangs a claim from the cut looked at."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book, "Keep the claim")
        self.who = self.add_text("Claimed by", "the seller's sheet")
        self.pressure = self.add_figure("Stated test pressure", "pressure")
        self.bore = self.add_figure("Stated bore", "length")
        self.entry = self.add_choice("Stated entry", [("not stated", None), *((e.words, e) for e in Entry)])
        self.rows = QPlainTextEdit()
        self.rows.setTabChangesFocus(True)
        self.rows.setPlaceholderText("lift and flow, a line each:\n0.1  62\n0.2  125")
        self.rows.setFixedHeight(220)
        self._captioned("Lift and flow", self.rows)
        self.finish()
        self.caution.setText(
            "A claim is drawn dotted, says whose it is, and never counts as measured: what is held against it "
            "can't be said."
        )

    def open(self) -> None:
        space = self.open_book.workspace
        if space is None or space.real_cut is None or space.port is None:
            return
        self.title.setText(f"A claim about cut {space.real_cut.number} of {space.port.name.lower()}")
        if self.pressure.value is None:
            self.pressure.set_value(parse_quantity("28", "inH2O"))
        self.come_up()
        self.who.setFocus()

    def take(self) -> None:
        space = self.open_book.workspace
        if space is None or space.real_cut is None or space.port is None or not self.settle_fields():
            return
        who = self.who.text().strip()
        if not who:
            self.problem.setText("Whose claim is it?")
            return
        units = self.open_book.units
        try:
            rows = parse_pasted(self.rows.toPlainText(), units.lift.unit, units.flow.unit, units.pressure.unit)
        except ValueError as error:
            self.problem.setText(sentence(str(error)))
            return
        setup = SetUp(
            id=new_id(),
            direction=space.port.kind,
            test_pressure=self.pressure.value,
            bore=self.bore.value,
            entry=self.entry.currentData(),
        )
        readings = tuple(Reading(id=new_id(), lift=lift, flow=flow) for lift, flow, _ in rows)
        run = FlowRun(id=new_id(), setup_id=setup.id, date=now_text(), source="claimed", claimed=who, readings=readings)
        job = start_run(space.job, space.real_cut.id, run, setup, None)
        space.apply(f"claim by {who}", job)
        self.clear_fields()
        self.rows.clear()
        self.closed.emit()

"""What milling moves: drop, slide, valley, line-up, chamber and compression."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
from PySide6.QtWidgets import QLabel

from ventrix.core.lineup.milling import CAUTION, Milling
from ventrix.core.model.kept_words import EngineLayout
from ventrix.core.quantity.field_checks import Check
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.words import sentence
from ventrix.rooms.lineup.milling_shows import milling_rows
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.form_sheet import FormSheet
from ventrix.words import tr


def _anything(value: float) -> None:
    """Any figure."""


class MillingSheet(FormSheet):
    """What milled head, deck, gasket and manifold do to line-up, chamber and compression; nothing is kept."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book, tr("Calculate"))
        self.title.setText(tr("What milling moves"))
        none: Check = _anything
        self.head = self.add_figure(tr("Off the head"), "length", none, small=True)
        self.deck = self.add_figure(tr("Off the deck"), "length", none, small=True)
        self.gasket = self.add_figure(tr("Gasket thinner by"), "length", none, small=True)
        self.manifold = self.add_figure(tr("Off the manifold's face"), "length", none, small=True)
        self.layout_of = self.add_choice(
            tr("Cylinders stand"), [(tr("choose"), None), *((each.words, each.value) for each in EngineLayout)]
        )
        self.layout_of.activated.connect(lambda _i: self._say_layout())
        self.bank = self.add_figure(tr("Half of the bank's angle"), "angle")
        self.lean = self.add_figure(tr("Intake face past square"), "angle", none)
        self.area = self.add_figure(tr("Chamber's outline, area"), "area")
        self.told = QLabel()
        self.told.setWordWrap(True)
        self.column.addWidget(self.told)
        self.finish()
        self.caution.setText(CAUTION)
        self.edited.connect(self.reckon)

    def open(self) -> None:
        space = self.open_book.workspace
        if space is None:
            return
        self.layout_of.setCurrentIndex(max(self.layout_of.findData(space.job.engine_layout), 0))
        self.bank.set_value(space.job.bank_half_angle or float(np.radians(45)))
        self.lean.set_value(self.lean.value or 0.0)
        self._show_angles()
        self.come_up()
        self.reckon()
        self.head.box.setFocus()

    def _say_layout(self) -> None:
        """Keep how the cylinders stand: it is the engine's, not this sheet's."""
        space, layout = self.open_book.workspace, self.layout_of.currentData()
        if space is not None and layout != space.job.engine_layout:
            space.apply(tr("how the cylinders stand"), replace(space.job, engine_layout=layout))
        self._show_angles()
        self.reckon()

    def _show_angles(self) -> None:
        for field in (self.bank, self.lean, self.manifold):
            field.setVisible(self.layout_of.currentData() == EngineLayout.V)

    def take(self) -> None:
        space = self.open_book.workspace
        if space is None or not self.settle_fields():
            return
        if self.layout_of.currentData() == EngineLayout.V and self.bank.value != space.job.bank_half_angle:
            space.apply(tr("half of the bank's angle"), replace(space.job, bank_half_angle=self.bank.value))
        self.reckon()

    def reckon(self) -> None:
        """Answer what stands in the boxes."""
        space = self.open_book.workspace
        if space is None:
            return
        head, deck, gasket, manifold = (
            field.typed() or 0.0 for field in (self.head, self.deck, self.gasket, self.manifold)
        )
        bank = self.bank.typed() or float(np.radians(45))
        milling = Milling(head, deck, gasket, manifold, bank, self.lean.typed() or 0.0)
        try:
            rows = milling_rows(space.job, milling, self.area.typed(), self.open_book.units)
        except Refused as error:
            self.problem.setText(sentence(str(error)))
            return
        self.problem.clear()
        self.told.setText("\n\n".join(rows))

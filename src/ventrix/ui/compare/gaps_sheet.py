"""Conditions that were not recorded of a pair, each once, with a field; recorded for both sides at once."""

from __future__ import annotations

from typing import Any, Final

from PySide6.QtWidgets import QComboBox, QLabel

from ventrix.core.judging.comparability import CONDITIONS
from ventrix.core.judging.findings import Pair
from ventrix.core.model.plausible import check_of
from ventrix.core.model.run import SetUp
from ventrix.core.quantity.units import tidy
from ventrix.rooms.compare.gaps import Gap, declare_one_house, gaps_of, one_house, record
from ventrix.rooms.shared.conditions import CHOICES, FIGURES, condition_words
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.form_sheet import FormSheet
from ventrix.ui.widgets.quantity_field import QuantityField
from ventrix.words import tr
from ventrix.workspace.ids import new_id, now_text

SIDES: Final = ("before", "after")
Field = QComboBox | QuantityField


class GapsSheet(FormSheet):
    """A field a missing condition; two where the sides were not flowed the same way."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book, tr("Record for both runs"), 400)
        self.title.setText(tr("Conditions that weren't recorded"))
        self.bench = self.add_text(tr("Bench"), tr("its name"))
        self.why: dict[str, QLabel] = {}
        self.fields: dict[tuple[str, int], Field] = {}
        for key in (c.key for c in CONDITIONS if not c.optional and c.key not in ("bench", "direction")):
            note = self.why[key] = QLabel()
            note.setObjectName("caption")
            note.setWordWrap(True)
            self.column.addWidget(note)
            for side in (0, 1):
                self.fields[key, side] = self._add_field(key, side)
        self.one_house = self.add_check(tr("same house, flowed the same way"))
        self.apart = self.add_check(tr("they differed: record each by itself"))
        self.apart.toggled.connect(lambda _on: self._show_rows())
        self.finish()
        self.caution.setText(tr("Only what you know. What stays empty still may have differed."))
        self._gaps: tuple[Gap, ...] = ()

    def _add_field(self, key: str, side: int) -> Field:
        figure = next((f for f in FIGURES if f.key == key), None)
        if figure is not None:
            return self.add_figure(figure.caption, figure.unit, check_of(SetUp, key, figure.check))
        choice = next(c for c in CHOICES if c.key == key)
        return self.add_choice(choice.caption, [(tr("choose"), None), *choice.options])

    def open(self) -> None:
        """Show the pair looked at."""
        pair = self._pair()
        self._gaps = gaps_of(pair) if pair is not None else ()
        house = one_house(pair) if pair is not None else ""
        if pair is None or not (self._gaps or house):
            self.open_book.say(tr("Every condition that these two need is recorded."))
            return
        self.begin_about((pair.before.id, pair.after.id))
        self.one_house.setVisible(bool(house))
        self.one_house.setText(tr("{} flowed both the same way: judge them as the house says", house))
        self.apart.setChecked(False)
        self.come_up()
        self._show_rows()

    def _pair(self) -> Pair | None:
        space = self.open_book.workspace
        return space.pair if space is not None else None

    def _show_rows(self) -> None:
        """The missing ones only; a second field each where the sides are told apart."""
        gaps = {gap.key: gap for gap in self._gaps}
        apart = self.apart.isChecked()
        self.apart.setVisible(any(len(gap.missing) > 1 for gap in self._gaps))
        self.show_row(self.bench, "bench" in gaps)
        for key, note in self.why.items():
            gap = gaps.get(key)
            note.setVisible(gap is not None)
            note.setText(gap.why if gap is not None else "")
            for side in (0, 1):
                missing = gap is not None and side in gap.missing
                first = gap is not None and side == gap.missing[0]
                field = self.fields[key, side]
                self.show_row(field, missing and (apart or first))
                self.name_row(field, f"{self._caption(key)}{f', {SIDES[side]}' if apart else ''}")
        every = (self.bench, *self.fields.values(), self.one_house)
        asked = next(f for f in every if f.isVisibleTo(self))
        (asked.box if isinstance(asked, QuantityField) else asked).setFocus()

    def _caption(self, key: str) -> str:
        return next(each.caption for each in (*CHOICES, *FIGURES) if each.key == key)

    def take(self) -> None:
        space, pair = self.open_book.workspace, self._pair()
        if space is None or pair is None or not self.settle_fields():
            return
        units = self.open_book.units
        told = (self._told(0), self._told(1))
        declared = self.one_house.isChecked()
        job = declare_one_house(space.job, pair) if declared else space.job
        if not declared or any(value is not None for side in told for value in side.values()):
            job = record(job, pair, told, now_text(), new_id, lambda key, value: condition_words(key, value, units))
        space.apply(tr("same house") if declared else tr("conditions recorded"), job)
        self.clear_fields()
        self.was_kept()

    def _told(self, side: int) -> dict[str, Any]:
        """What is said of one side: its own field, else the one that stands for both."""
        told: dict[str, Any] = {"bench": self.bench.text().strip() or None}
        for gap in self._gaps:
            if gap.key in self.why and side in gap.missing:
                asked = side if self.apart.isChecked() else gap.missing[0]
                told[gap.key] = _value(self.fields[gap.key, asked])
        return told


def _value(field: Field) -> Any:
    if isinstance(field, QComboBox):
        return field.currentData()
    return None if field.value is None else tidy(field.value)

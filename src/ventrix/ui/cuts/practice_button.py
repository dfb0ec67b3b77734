"""A button that reads for the learner, in a practice alone: gauge or burette, at its cost in minutes."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtWidgets import QPushButton

from ventrix.bench.simulator.practice.play import Done
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.words import sentence
from ventrix.ui.widgets.form_sheet import FormSheet
from ventrix.ui.widgets.quantity_field import QuantityField
from ventrix.workspace.practice import PracticeAtWork


class PracticeButton(QPushButton):
    """What it reads goes into a field of its sheet; why it could not, stands where the sheet's problems do."""

    def __init__(
        self, sheet: FormSheet, words: str, act: Callable[[PracticeAtWork, int], Done], field: QuantityField
    ) -> None:
        super().__init__(words)
        self._sheet, self._act, self._field = sheet, act, field
        self.clicked.connect(self._read)

    def appear(self) -> None:
        """Only where there is a practice."""
        self.setVisible(self._sheet.open_book.practice is not None)

    def _read(self) -> None:
        sheet = self._sheet
        practice = sheet.open_book.practice
        space = sheet.open_book.workspace
        if practice is None or space is None:
            return
        try:
            done = self._act(practice, practice.port_of(space))
        except Refused as error:
            sheet.problem.setText(sentence(str(error)))
            return
        sheet.problem.clear()
        self._field.set_value(done.reading)
        sheet.open_book.job_changed.emit()  # the owner's clock went on
        sheet.take_button.setFocus()

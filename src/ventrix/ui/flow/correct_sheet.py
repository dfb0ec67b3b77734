"""Conditions of a finished run, completed or set right; what was measured stays as it was."""

from __future__ import annotations

from typing import Any

from PySide6.QtWidgets import QComboBox, QLabel

from ventrix.core.edits.corrections import correct_conditions
from ventrix.core.model.plausible import check_of
from ventrix.core.model.run import SetUp
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import tidy
from ventrix.core.quantity.words import sentence
from ventrix.rooms.shared.conditions import CHOICES, FIGURES, NOT_RECORDED, condition_words
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.form_sheet import FormSheet
from ventrix.ui.widgets.quantity_field import QuantityField
from ventrix.words import tr
from ventrix.workspace.ids import new_id, now_text


class CorrectSheet(FormSheet):
    """Every condition of one run, and why it is set right."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book, tr("Correct the conditions"), 420)
        self._run_id = ""
        self.bench = self.add_text(tr("Bench"), tr("back-room"))
        self.choices: dict[str, QComboBox] = {}
        for choice in CHOICES:
            options = [(NOT_RECORDED, None), *choice.options]
            self.choices[choice.key] = self.add_choice(choice.caption, options)
        self.figures: dict[str, QuantityField] = {}
        for figure in FIGURES:
            field = self.add_figure(figure.caption, figure.unit, check_of(SetUp, figure.key, figure.check))
            self.figures[figure.key] = field
        self.reason = self.add_text(tr("Why"), tr("found on the sheet of that day"))
        self.kept = QLabel()
        self.kept.setObjectName("caption")
        self.kept.setWordWrap(True)
        self.column.addWidget(self.kept)
        self.finish()
        self.caution.setText(
            tr(
                "The readings stay as they were measured; what was recorded before is kept with the reason, and every "
                "figure that rests on the conditions is worked out again."
            )
        )

    def open(self, run_id: str) -> None:
        """Show the conditions of a run."""
        space = self.open_book.workspace
        run = next((r for r in space.job.runs() if r.id == run_id), None) if space is not None else None
        if space is None or run is None:
            return
        self._run_id = run_id
        setup = space.job.setup(run.setup_id)
        self.title.setText(tr("Conditions of the run of {}", run.date[:10] if run.date else tr("an unrecorded day")))
        self.bench.setText(setup.bench or "")
        for key, box in self.choices.items():
            box.setCurrentIndex(max(box.findData(getattr(setup, key)), 0))
        self.come_up()
        for key, field in self.figures.items():
            field.forget()
            field.set_value(getattr(setup, key))
        self.kept.setText(
            "\n".join(
                tr("{}  {}: {} became {} ({})", (c.date or "")[:10], c.what, c.was, c.became, c.reason)
                for c in run.corrections
            )
        )
        self.reason.setFocus()

    def take(self) -> None:
        space = self.open_book.workspace
        if space is None or not self.settle_fields():
            return
        values: dict[str, Any] = {"bench": self.bench.text().strip() or None}
        values |= {key: box.currentData() for key, box in self.choices.items()}
        values |= {key: None if f.value is None else tidy(f.value) for key, f in self.figures.items()}
        try:
            job = correct_conditions(
                space.job, self._run_id, values, self.reason.text(), now_text(), new_id, self._words
            )
        except Refused as error:
            self.problem.setText(sentence(str(error)))
            self.reason.setFocus()
            return
        if job is space.job:
            self.problem.setText(tr("Nothing was changed."))
            return
        space.apply(tr("conditions corrected"), job)
        self.reason.clear()
        self.was_kept()

    def _words(self, key: str, value: Any) -> str:
        return condition_words(key, value, self.open_book.units)

"""What is looked at before the head goes out."""

from __future__ import annotations

from PySide6.QtWidgets import (
    QCheckBox,
    QLabel,
    QLineEdit,
)

from ventrix.core.judging.fits import fit_checks
from ventrix.core.model.cut import Cut, Port
from ventrix.core.model.finish_list import CHECKS, surface_agreed
from ventrix.core.model.job import Job
from ventrix.core.model.job_parts import CheckMark
from ventrix.ui.head.tab import MeasuringSheet, Tab
from ventrix.words import tr
from ventrix.workspace.ids import new_id, now_text


class FinishTab(Tab):
    """The list for the end of a head, ticked with date and initials."""

    title = tr("Finish")

    def __init__(self, room: MeasuringSheet) -> None:
        super().__init__(room)
        self.initials = QLineEdit()
        self.initials.setMaxLength(6)
        self.add_row(tr("Your initials"), self.initials, 80)
        self.boxes: dict[str, QCheckBox] = {}
        for check in CHECKS:
            box = QCheckBox(check.item)
            box.setToolTip(check.why)
            box.clicked.connect(lambda on, i=check.item: self._tick(i, on))
            self.boxes[check.item] = box
            self.column.addWidget(box)
        self.column.addWidget(self.problem)
        self.fits = QLabel()
        self.fits.setObjectName("error")
        self.fits.setWordWrap(True)
        self.column.addWidget(self.fits)
        caution = QLabel(
            tr(
                "A gasket land left too thin does not seal; milled heads sit lower, so the manifold may not line up; "
                "a sharp chamber edge glows; chips left in a passage end an engine. Assembly follows the maker's data."
            )
        )
        caution.setObjectName("caption")
        caution.setWordWrap(True)
        self.column.addWidget(caution)
        self.column.addStretch()

    def show_job(self, job: Job, port: Port, cut: Cut) -> None:
        out = [c.says for c in fit_checks(job, self.room.open_book.units.wording) if c.holds is False]
        self.fits.setText("\n".join(out))
        marks = {m.item: m for m in job.check_marks}
        for item, box in self.boxes.items():
            mark = marks.get(item)
            box.setChecked(mark is not None)
            words = f"{item}: {surface_agreed(job)}" if item == "surface as agreed" else item
            box.setText(words if mark is None else f"{words}   {mark.initials} {(mark.date or '')[:10]}")

    def _tick(self, item: str, on: bool) -> None:
        space = self.room.open_book.workspace
        if space is None:
            return
        if on and not self.initials.text().strip():
            self.boxes[item].setChecked(False)
            self.problem.setText(tr("Whose tick is it? Type your initials first."))
            self.initials.setFocus()
            return
        self.problem.clear()
        rest = tuple(m for m in space.job.check_marks if m.item != item)
        mark = CheckMark(id=new_id(), item=item, initials=self.initials.text().strip(), date=now_text())
        self.room.change_job(f"{item}{'' if on else tr(', not done')}", check_marks=(*rest, mark) if on else rest)

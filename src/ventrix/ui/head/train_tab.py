"""The Head room's tab of the valve train: springs, guides, lapped contact and heights, held against their limits."""

from __future__ import annotations

from PySide6.QtWidgets import QComboBox, QLabel, QLineEdit

from ventrix.core.judging.fits import fit_checks
from ventrix.core.model.cut import Cut, Port
from ventrix.core.model.job import Job
from ventrix.core.model.kinds import ValveMetal
from ventrix.core.quantity.refused import Refused
from ventrix.rooms.head.fit_limits import fit_limit_text, fit_limit_typed
from ventrix.ui.head.tab import MeasuringSheet, Tab, unless_typing
from ventrix.words import tr
from ventrix.workspace.ids import new_id


class TrainTab(Tab):
    """Figures of this port's valve, then every fit of the head that was measured."""

    title = tr("Valves")

    def __init__(self, room: MeasuringSheet) -> None:
        super().__init__(room)
        self.metal = QComboBox()
        self.metal.addItem(tr("choose"), "")
        for metal in ValveMetal:
            self.metal.addItem(metal.words, metal.value)
        self.metal.activated.connect(lambda _i: room.change_valve(tr("valve's metal"), metal=self.metal.currentData()))
        self.add_row(tr("Valve's metal"), self.metal)
        self.add_group("train")
        self.limits = QLineEdit()
        self.limits.setPlaceholderText(tr("guide exhaust 0.0015-0.003; coil bind 0.060-"))
        self.limits.setToolTip(
            tr(
                "Your own limits in place of the usual: coil bind, guide, lap, heights or flatness, a kind of port or "
                "a valve's metal where it matters, and least-most"
            )
        )
        self.limits.editingFinished.connect(self._limits_typed)
        self.add_row(tr("Limits"), self.limits, 170)
        self.column.addWidget(self.problem)
        self.add_heading(tr("Measured so far"))
        self.checks = QLabel()
        self.checks.setWordWrap(True)
        self.column.addWidget(self.checks)
        caution = QLabel(
            tr(
                "Springs are under force: use the right compressor, and eye protection. Clearances, forces and "
                "heights are the maker's to say; a licensed shop fits what you can't measure."
            )
        )
        caution.setObjectName("caption")
        caution.setWordWrap(True)
        self.column.addWidget(caution)
        self.column.addStretch()

    def show_job(self, job: Job, port: Port, cut: Cut) -> None:
        units = self.room.open_book.units
        valve = job.valve_of(port, cut)
        self.metal.setCurrentIndex(max(self.metal.findData(valve.metal if valve is not None else ""), 0))
        unless_typing(self.limits, "; ".join(fit_limit_text(m, units.length.unit) for m in job.fit_limits))
        found = fit_checks(job, units.wording)
        lines = [f"{'✗' if c.holds is False else '✓' if c.holds else '·'}  {c.says}" for c in found]
        self.checks.setText("\n".join(lines) or tr("Nothing yet: what is typed above is checked here."))

    def _limits_typed(self) -> None:
        if not self.limits.isModified():
            return
        unit = self.room.open_book.units.length.unit
        try:
            typed = [t for t in self.limits.text().split(";") if t.strip()]
            found = tuple(fit_limit_typed(t, unit, new_id()) for t in typed)
        except Refused as error:
            self.say(error)
            return
        self.keep_typed(self.limits, tr("limits of fits"), fit_limits=found)

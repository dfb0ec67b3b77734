"""The engine beside the Plan room: the rev-limit card in full, another cam or rocker, and results on the engine."""

from __future__ import annotations

from PySide6.QtWidgets import QLabel, QPushButton

from ventrix.core.engine.of_job import OnTheEngine, on_the_engine
from ventrix.core.engine.other_cam import other_cam
from ventrix.core.model.job import Job
from ventrix.core.model.plausible import check_of
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.words import sentence
from ventrix.rooms.plan.engine_shows import engine_caption, engine_lines, engine_picture
from ventrix.rooms.plan.results_shows import engine_results_words
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.form_sheet import FormSheet
from ventrix.ui.widgets.planner import Planner
from ventrix.ui.widgets.plot import Plot
from ventrix.words import tr


class EngineSheet(FormSheet):
    """Reckons beside the window; Enter asks about the cam or the rocker that is typed, and about the cut where none
    is."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book, tr("Calculate"))
        self.planner = Planner()
        self.planner.planned.connect(self._took)
        self.title.setText(tr("On the engine"))
        self.plot_caption = QLabel()
        self.plot_caption.setObjectName("caption")
        self.plot_caption.setWordWrap(True)
        self.column.addWidget(self.plot_caption)
        self.plot = Plot(tr("VE over engine speed, in full"))
        self.plot.setFixedHeight(180)
        self.plot.hide()  # until there is something on it
        self.column.addWidget(self.plot)
        self.told = QLabel()
        self.told.setWordWrap(True)
        self.column.addWidget(self.told)
        heading = QLabel(tr("What if the cam, or the rocker"))
        heading.setObjectName("heading")
        self.column.addWidget(heading)
        self.lift = self.add_figure(tr("Another lift at the valve"), "lift", check_of(Job, "cam_lift"))
        self.duration = self.add_figure(tr("Its duration at 0.050 in"), "angle", check_of(Job, "cam_duration"))
        self.rocker = self.add_figure(tr("Another rocker ratio"), "ratio", check_of(Job, "rocker_ratio"))
        heading = QLabel(tr("Results"))
        heading.setObjectName("heading")
        self.column.addWidget(heading)
        self.results = QLabel()
        self.results.setWordWrap(True)
        self.column.addWidget(self.results)
        self.add_result = QPushButton(tr("A result on the engine (T)"))
        self.add_result.clicked.connect(lambda: self.open_book.ways.sheet("result"))
        self.column.addWidget(self.add_result)
        self.finish()
        self.caution.setText(tr("Springs, clearances and speeds are the maker's to say; lift may meet a piston."))
        open_book.job_changed.connect(self._again)
        open_book.selection_changed.connect(self._again)

    def open(self) -> None:
        self.come_up()
        self._again()
        self.lift.box.setFocus()

    def _again(self) -> None:
        if self.isVisible():
            self.problem.clear()
            self._show_results()
            self._reckon()

    def take(self) -> None:
        if self.settle_fields():
            self._reckon()

    def _reckon(self) -> None:
        space = self.open_book.workspace
        if space is None or space.port is None:
            return
        findings, port, cut = space.findings, space.port, space.real_cut
        asked = [field.typed() for field in (self.lift, self.duration, self.rocker)]
        cam = None
        try:
            if any(v is not None for v in asked):
                cam = other_cam(findings, *asked)
        except Refused as error:
            self.problem.setText(sentence(str(error)))
            return
        flowed = [c for c in port.cuts if findings.runs_of(c, port) and (cut is None or c.number <= cut.number)]
        after = flowed[-1] if flowed else None
        self.plot_caption.setText(tr("Calculating …"))
        self.planner.ask(lambda: on_the_engine(findings, port, after, None, cam))

    def _took(self, found: object) -> None:
        units = self.open_book.units
        there = isinstance(found, OnTheEngine)
        self.plot.setVisible(there)
        if isinstance(found, OnTheEngine):
            self.plot_caption.setText(engine_caption(found))
            self.plot.show_picture(engine_picture(found))
            self.told.setText("\n".join(engine_lines(found, units)))
        else:
            self.plot_caption.setText("")
            self.told.setText(sentence(str(found)))

    def _show_results(self) -> None:
        space = self.open_book.workspace
        if space is not None:
            lines = engine_results_words(space.findings, space.shop.power(), self.open_book.units)
            self.results.setText("\n".join(lines) or tr("None was entered yet."))

    def close_workers(self) -> None:
        """Wait for what is still being reckoned."""
        self.planner.close()

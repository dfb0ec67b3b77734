"""Know your bench: a study of an untouched head."""

from __future__ import annotations

from dataclasses import replace

from PySide6.QtWidgets import QLabel, QLineEdit, QPushButton

from ventrix.core.benches.study import study_result, study_sentence
from ventrix.core.formulas.uncertainty import ASSUMED_MOUNT, ASSUMED_REPEAT
from ventrix.core.model.bench import Bench, ScatterStudy, StudyReading
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import parse_quantity
from ventrix.core.quantity.words import sentence
from ventrix.ui.benches.page import HistoryPage, caption_label
from ventrix.ui.open_book import OpenBook
from ventrix.words import tr
from ventrix.workspace.ids import new_id, now_text

STUDY_MOUNTS = 5

STUDY_REPEATS = 2


class StudyPage(HistoryPage):
    """Know your bench: one unchanged head, five mounts, three lifts, read twice each."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book)
        self.said = QLabel()
        self.said.setWordWrap(True)
        self.said.setStyleSheet("font-size: 15px")
        self.lifts = QLineEdit()
        self.lifts.setAccessibleName(tr("Lifts of the study"))
        self.lifts.setPlaceholderText(tr("three lifts, as 0.2, 0.4, 0.5"))
        self.begin = QPushButton(tr("Begin a study"))
        self.begin.clicked.connect(self.start)
        self.asks = QLabel()
        self.asks.setWordWrap(True)
        self.asks.setObjectName("title")
        self.reading = QLineEdit()
        self.reading.setAccessibleName(tr("Reading of the study"))
        self.reading.returnPressed.connect(lambda: self.take(self.reading.text()))
        self.from_bench = QPushButton(tr("Take from the bench"))
        self.from_bench.clicked.connect(self._take_live)
        self.problem = QLabel()
        self.problem.setObjectName("error")
        self.column.addWidget(
            caption_label(
                tr(
                    "Half an hour with one head that nobody touches: bolt it down five times, and each time set three "
                    "lifts and the pressure again, twice. What comes out is used by every verdict on this bench."
                )
            )
        )
        for widget in (self.said, self.lifts, self.begin, self.asks, self.reading, self.from_bench, self.problem):
            self.column.addWidget(widget)
        self.column.addStretch()

    @property
    def plan(self) -> list[tuple[int, float]]:
        """Mount and lift [m] of every reading that the study begun last still wants."""
        space = self.open_book.workspace
        if space is None or self.bench is None or not self.bench.studies:
            return []
        study = self.bench.studies[-1]
        lifts = space.study_lifts.get(study.id, ())
        whole = [(mount, lift) for mount in range(1, STUDY_MOUNTS + 1) for _ in range(STUDY_REPEATS) for lift in lifts]
        return whole[len(study.readings) :]

    def show_bench(self, bench: Bench) -> None:
        super().show_bench(bench)
        units = self.open_book.units
        assumed = tr("{:.1f} % repeat and {:.1f} % re-mounting error", 100 * ASSUMED_REPEAT, 100 * ASSUMED_MOUNT)
        self.said.setText(
            tr("This bench has not been studied: {} are assumed until the book has seen better.", assumed)
        )
        for study in reversed(bench.studies):
            try:
                said = study_sentence(study_result(study), units.lift.unit, units.flow.unit)
            except Refused:
                continue
            self.said.setText(f"{sentence(said)} ({(study.date or '')[:10]})")
            break
        self._show_next()

    def start(self) -> None:
        """Begin: five mounts of three lifts, each read twice."""
        space = self.open_book.workspace
        if self.bench is None or space is None:
            return
        try:
            unit = self.open_book.units.lift.unit
            lifts = [parse_quantity(t, unit) for t in self.lifts.text().split(",") if t.strip()]
            if not lifts or any(x <= 0 for x in lifts):
                raise Refused("name the lifts to read, three of them")
        except Refused as error:
            self.problem.setText(sentence(str(error)))
            return
        self.problem.clear()
        study = ScatterStudy(id=new_id(), date=now_text())
        space.study_lifts[study.id] = tuple(lifts)
        self.change(tr("study of the bench"), replace(self.bench, studies=(*self.bench.studies, study)))
        self._show_next()

    def _show_next(self) -> None:
        plan = self.plan
        going = bool(plan)
        for widget in (self.asks, self.reading):
            widget.setVisible(going)
        self.from_bench.setVisible(going and self.open_book.bench.live_flow is not None)
        self.lifts.setVisible(not going)
        self.begin.setVisible(not going)
        if going:
            mount, lift = plan[0]
            done = len(self.bench.studies[-1].readings) if self.bench is not None else 0
            units = self.open_book.units
            self.asks.setText(
                tr(
                    "Mount {} of {}: set {} and the pressure again, and read. ({} of {})",
                    mount,
                    STUDY_MOUNTS,
                    units.lift.with_unit(lift),
                    done + 1,
                    done + len(plan),
                )
            )

    def _take_live(self) -> None:
        flow = self.open_book.bench.live_flow
        if flow is not None:
            self._keep(flow)

    def take(self, text: str) -> None:
        """Take a reading typed by hand."""
        try:
            flow = parse_quantity(text, self.open_book.units.flow.unit)
            if flow <= 0:
                raise Refused("the flow must be above zero")
        except Refused as error:
            self.problem.setText(sentence(str(error)))
            return
        self.problem.clear()
        self.reading.clear()
        self._keep(flow)

    def _keep(self, flow: float) -> None:
        plan = self.plan
        if self.bench is None or not plan:
            return
        mount, lift = plan[0]
        study = self.bench.studies[-1]
        reading = StudyReading(id=new_id(), mount=mount, lift=lift, flow=flow)
        grown = replace(study, readings=(*study.readings, reading))
        self.change(tr("study reading"), replace(self.bench, studies=(*self.bench.studies[:-1], grown)))
        if self.bench is not None:
            self.show_bench(self.bench)

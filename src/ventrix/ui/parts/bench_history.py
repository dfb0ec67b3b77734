"""What is known of a bench from checks: its plate over time, what it sees, and its way to another bench."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

import numpy as np
from PySide6.QtWidgets import QComboBox, QLabel, QLineEdit, QPushButton, QVBoxLayout, QWidget

from ventrix.core.benches.plate import plate_chart, plate_sentence
from ventrix.core.benches.study import study_result, study_sentence
from ventrix.core.benches.transfer import transfer_between
from ventrix.core.formulas.uncertainty import ASSUMED_MOUNT, ASSUMED_REPEAT
from ventrix.core.model.bench import Bench, PlateCheck, ScatterStudy, StudyReading, Transfer, TransferPart, same_name
from ventrix.core.quantity.units import parse_quantity
from ventrix.core.quantity.words import percent_text
from ventrix.ui.parts.field import QuantityField, positive
from ventrix.ui.parts.plot import Band, LiftPlot, Line
from ventrix.ui.session import Session
from ventrix.ui.units import Units
from ventrix.workspace.ids import new_id, now_text

STUDY_MOUNTS = 5
STUDY_REPEATS = 2


def _caption(words: str = "") -> QLabel:
    label = QLabel(words)
    label.setWordWrap(True)
    label.setObjectName("quiet")
    return label


def _sentence(text: str) -> str:
    return f"{text[:1].upper()}{text[1:]}."


class HistoryPage(QWidget):
    """A page about one bench. `change` puts an edited bench in the book."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.bench: Bench | None = None
        self.column = QVBoxLayout(self)
        self.column.setContentsMargins(0, 0, 0, 0)
        self.column.setSpacing(8)

    def show_bench(self, bench: Bench) -> None:
        self.bench = bench

    def change(self, name: str, bench: Bench) -> None:
        space = self.session.workspace
        if space is not None:
            self.bench = bench
            space.change_bench(name, bench)


class PlatePage(HistoryPage):
    """The reference plate's history with its limits: a control chart."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.said = QLabel()
        self.said.setWordWrap(True)
        self.flowed = QuantityField("The plate flows now", session.units.flow, positive)
        self.flowed.accepted.connect(self._flowed)
        self.chart = LiftPlot("Plate flow over nominal, check by check")
        self.chart.setMinimumHeight(260)
        words = "Flow the plate before a day's work, as the first thing. Limits are nominal ± 1 % until six "
        self.column.addWidget(_caption(words + "checks are there, then the bench's own: mean and three sigma."))
        self.column.addWidget(self.said)
        self.column.addWidget(self.flowed)
        self.column.addWidget(self.chart, 1)

    def show_bench(self, bench: Bench) -> None:
        super().show_bench(bench)
        self.flowed.use(self.session.units.flow)
        self.flowed.setEnabled(bench.plate_flow is not None)
        self.chart.setVisible(bool(bench.plates))
        if bench.plate_flow is None:
            self.said.setText("Say on the first page what the plate flows.")
            return
        if not bench.plates:
            self.said.setText(f"Nominal {self.session.units.flow.with_unit(bench.plate_flow)}. Not flowed yet.")
            return
        inside, said = plate_sentence(bench.plates)
        self.said.setText(("✓ " if inside else "▼ ") + _sentence(said))
        chart = plate_chart(bench.plates)
        x = np.arange(1, len(chart.ratio) + 1, dtype=float)
        reach = np.array([0.5, len(x) + 0.5])
        flat = np.ones(2)
        band = Band(reach, 100 * chart.low * flat, 100 * chart.high * flat, "unproven", 0.3)
        middle = Line(reach, 100 * chart.centre * flat, "quiet", 1, "dashed")
        checks = Line(x, 100 * chart.ratio, "brass", 2, points=(x, 100 * chart.ratio))
        low = min(100 * chart.low, 100 * float(chart.ratio.min()))
        high = max(100 * chart.high, 100 * float(chart.ratio.max()))
        room = 0.3 * (high - low)
        self.chart.show_values(
            [middle, checks],
            bands=[band],
            x_range=(0.5, len(x) + 0.5),
            y_range=(low - room, high + room),
            x_ticks=[float(v) for v in x[:: max(1, len(x) // 12)]],
            digits=0,
        )

    def _flowed(self, value: float | None) -> None:
        if self.bench is None or self.bench.plate_flow is None or value is None:
            return
        check = PlateCheck(id=new_id(), nominal=self.bench.plate_flow, flow=value, date=now_text())
        self.flowed.box.clear()
        self.flowed.set_value(None)
        self.change("plate check", replace(self.bench, plates=(*self.bench.plates, check)))


class StudyPage(HistoryPage):
    """Know your bench: one unchanged head, five mounts, three lifts, read twice each."""

    def __init__(self, session: Session, live_flow: Callable[[], float | None]) -> None:
        super().__init__(session)
        self._live = live_flow
        self.said = QLabel()
        self.said.setWordWrap(True)
        self.said.setStyleSheet("font-size: 15px")
        self.lifts = QLineEdit()
        self.lifts.setAccessibleName("Lifts of the study")
        self.lifts.setPlaceholderText("three lifts, as 0.2, 0.4, 0.5")
        self.begin = QPushButton("Begin a study")
        self.begin.clicked.connect(self.start)
        self.asks = QLabel()
        self.asks.setWordWrap(True)
        self.asks.setObjectName("title")
        self.reading = QLineEdit()
        self.reading.setAccessibleName("Reading of the study")
        self.reading.returnPressed.connect(lambda: self.take(self.reading.text()))
        self.from_bench = QPushButton("Take from the bench")
        self.from_bench.clicked.connect(self._take_live)
        self.problem = QLabel()
        self.problem.setObjectName("error")
        self.column.addWidget(
            _caption(
                "Half an hour with one head that nobody touches: bolt it down five times, and each time set three "
                "lifts and the pressure anew, twice. What comes out is used by every verdict on this bench."
            )
        )
        for widget in (self.said, self.lifts, self.begin, self.asks, self.reading, self.from_bench, self.problem):
            self.column.addWidget(widget)
        self.column.addStretch()
        self._plan: list[tuple[int, float]] = []

    def show_bench(self, bench: Bench) -> None:
        if self.bench is not None and bench.id != self.bench.id:
            self._plan = []
        super().show_bench(bench)
        units = self.session.units
        assumed = f"{100 * ASSUMED_REPEAT:.1f} % repeat and {100 * ASSUMED_MOUNT:.1f} % mount scatter"
        self.said.setText(f"This bench has not been studied: {assumed} are assumed until the book has seen better.")
        for study in reversed(bench.studies):
            try:
                said = study_sentence(study_result(study), units.lift.unit, units.flow.unit)
            except ValueError:
                continue
            self.said.setText(f"{_sentence(said)} ({(study.date or '')[:10]})")
            break
        self._show_next()

    def start(self) -> None:
        """Begin: five mounts of three lifts, each read twice."""
        if self.bench is None:
            return
        try:
            unit = self.session.units.lift.unit
            lifts = [parse_quantity(t, unit) for t in self.lifts.text().split(",") if t.strip()]
            if not lifts or any(x <= 0 for x in lifts):
                raise ValueError("name the lifts to read, three of them")
        except ValueError as error:
            self.problem.setText(_sentence(str(error)))
            return
        self.problem.clear()
        self._plan = [
            (mount, lift) for mount in range(1, STUDY_MOUNTS + 1) for _ in range(STUDY_REPEATS) for lift in lifts
        ]
        study = ScatterStudy(id=new_id(), date=now_text())
        self.change("study of the bench", replace(self.bench, studies=(*self.bench.studies, study)))
        self._show_next()

    def _show_next(self) -> None:
        going = bool(self._plan)
        for widget in (self.asks, self.reading):
            widget.setVisible(going)
        self.from_bench.setVisible(going and self._live() is not None)
        self.lifts.setVisible(not going)
        self.begin.setVisible(not going)
        if going:
            mount, lift = self._plan[0]
            total = STUDY_MOUNTS * STUDY_REPEATS * len({x for _, x in self._plan}) if self._plan else 0
            done = len(self.bench.studies[-1].readings) if self.bench is not None and self.bench.studies else 0
            units = self.session.units
            self.asks.setText(
                f"Mount {mount} of {STUDY_MOUNTS}: set {units.lift.with_unit(lift)} and the pressure anew, and read. "
                f"({done + 1} of {max(total, done + len(self._plan))})"
            )

    def _take_live(self) -> None:
        flow = self._live()
        if flow is not None:
            self._keep(flow)

    def take(self, text: str) -> None:
        """Take a reading typed by hand."""
        try:
            flow = parse_quantity(text, self.session.units.flow.unit)
            if flow <= 0:
                raise ValueError("the flow must be above zero")
        except ValueError as error:
            self.problem.setText(_sentence(str(error)))
            return
        self.problem.clear()
        self.reading.clear()
        self._keep(flow)

    def _keep(self, flow: float) -> None:
        if self.bench is None or not self._plan:
            return
        mount, lift = self._plan.pop(0)
        study = self.bench.studies[-1]
        reading = StudyReading(id=new_id(), mount=mount, lift=lift, flow=flow)
        grown = replace(study, readings=(*study.readings, reading))
        self.change("study reading", replace(self.bench, studies=(*self.bench.studies[:-1], grown)))
        if self.bench is not None:
            self.show_bench(self.bench)


def _at(part: TransferPart, units: Units) -> str:
    return "" if part.lift is None else f" at {units.lift.text(part.lift)}"


class TransferPage(HistoryPage):
    """Parts flowed on both benches, and what carries the other's numbers over to this one."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.other = QComboBox()
        self.other.setEditable(True)
        self.other.setAccessibleName("The other bench")
        self.other.currentTextChanged.connect(lambda _t: self._show_parts())
        self.part = QLineEdit()
        self.part.setAccessibleName("Part flowed on both")
        self.part.setPlaceholderText("what was flowed: a plate, a head at one lift")
        self.here = QuantityField("It flows on this bench", session.units.flow, positive)
        self.there = QuantityField("It flows on the other", session.units.flow, positive)
        self.lift = QuantityField("At lift (none: a plate)", session.units.lift, positive)
        self.problem = QLabel()
        self.problem.setObjectName("error")
        add = QPushButton("Add the part")
        add.clicked.connect(self.add)
        self.said = QLabel()
        self.said.setWordWrap(True)
        self.parts = _caption()
        self.column.addWidget(
            _caption("Two benches differ by several CFM on the very same head. Flow the same parts on both, under like "
                     "conditions; what is compared across benches then is marked transferred, with its own doubt.")
        )  # fmt: skip
        for widget in (
            self.other,
            self.part,
            self.lift,
            self.here,
            self.there,
            self.problem,
            add,
            self.said,
            self.parts,
        ):
            self.column.addWidget(widget)
        self.column.addStretch()

    def show_bench(self, bench: Bench) -> None:
        super().show_bench(bench)
        space = self.session.workspace
        for field in (self.here, self.there):
            field.use(self.session.units.flow)
        self.lift.use(self.session.units.lift)
        chosen = self.other.currentText()
        names = [b.name for b in space.benches if b.id != bench.id] if space is not None else []
        names += [t.other for t in bench.transfers if t.other not in names]
        self.other.blockSignals(True)
        self.other.clear()
        self.other.addItems(names)
        self.other.setCurrentText(chosen or (names[0] if names else ""))
        self.other.blockSignals(False)
        self._show_parts()

    def _transfer(self) -> Transfer | None:
        found = [t for t in self.bench.transfers if same_name(t.other, self.other.currentText())] if self.bench else []
        return found[-1] if found else None

    def _show_parts(self) -> None:
        transfer = self._transfer()
        if transfer is None or not transfer.parts:
            self.said.setText("No part was flowed on both yet.")
            self.parts.clear()
            return
        space = self.session.workspace
        scatter = space.analysis.scatter(self.bench.name) if space is not None and self.bench is not None else None
        found = transfer_between(transfer, scatter)
        units = self.session.units
        self.said.setText(
            f"Numbers of {transfer.other} times {found.factor:.4f} (± {percent_text(2 * found.uncertainty)}) are "
            f"numbers of this bench{', lift by lift' if found.lifts else ''}."
        )
        lines = [
            f"{p.name or 'part'}{_at(p, units)}: {units.flow.text(p.here)} here, {units.flow.text(p.there)} there"
            for p in transfer.parts
        ]
        self.parts.setText("\n".join(lines))

    def add(self) -> None:
        """Add the part typed in."""
        name, bench = self.other.currentText().strip(), self.bench
        if bench is None or not name or same_name(name, bench.name):
            self.problem.setText("Name the other bench.")
            return
        here, there = self.here.value, self.there.value
        if here is None or there is None:
            self.problem.setText("Both figures are wanted.")
            return
        self.problem.clear()
        part = TransferPart(id=new_id(), name=self.part.text().strip(), here=here, there=there, lift=self.lift.value)
        had = self._transfer()
        if had is None:
            transfers = (*bench.transfers, Transfer(id=new_id(), other=name, date=now_text(), parts=(part,)))
        else:
            grown = replace(had, parts=(*had.parts, part), date=now_text())
            transfers = tuple(grown if t.id == had.id else t for t in bench.transfers)
        for field in (self.here, self.there, self.lift):
            field.box.clear()
            field.set_value(None)
        self.part.clear()
        self.change(f"part flowed on '{bench.name}' and '{name}'", replace(bench, transfers=transfers))

"""The conditions of the next run, changed in seconds; what differs from the pinned cut's is said here."""

from __future__ import annotations

from dataclasses import replace
from typing import Any, Final

from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import (
    QCheckBox,
    QComboBox,
    QHBoxLayout,
    QLabel,
    QLineEdit,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

from ventrix.bench.procedure.lift_plan import lifts_in_words, parse_lifts
from ventrix.core.judging.comparability import same_condition
from ventrix.core.model.bench import Bench, bench_named
from ventrix.core.model.kinds import Direction
from ventrix.core.model.plausible import check_of
from ventrix.core.model.run import SetUp
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.words import sentence
from ventrix.core.runs.lifts import lift_doubt
from ventrix.records.bad_input import sentence_of
from ventrix.rooms.display_units import Shown, Units
from ventrix.rooms.shared.conditions import CHOICES, FIGURES, NOT_RECORDED, Choice, Figure
from ventrix.ui.widgets.quantity_field import QuantityField, show_beside
from ventrix.ui.widgets.scroll_area import ScrollArea
from ventrix.words import tr
from ventrix.workspace.ids import now_text

AIR: Final = ("temperature", "pressure", "humidity", "plenum_temperature")


class ConditionsPanel(QWidget):
    """Edits a set-up in place of the curve; every accepted change is told at once.

    The pinned cut's value stands beside each, and is marked where it differs.
    """

    changed = Signal(object)  # SetUp
    bench_chosen = Signal(object)  # Bench
    plan_changed = Signal(object, bool)  # lifts [m] or None, come back at the end
    closed = Signal()

    def __init__(self, units: Units) -> None:
        super().__init__()
        self._units = units
        self._setup = SetUp(id="", direction=Direction.INTAKE)
        self._benches: tuple[Bench, ...] = ()
        self._valve_diameter: float | None = None
        self._asked = ""
        self.fields: dict[str, QuantityField] = {}
        self.choices: dict[str, QComboBox] = {}
        self._beside: dict[str, QLabel] = {}
        self._rows: dict[str, QWidget] = {}
        column = QVBoxLayout()
        column.setSpacing(5)
        column.setContentsMargins(0, 0, 10, 0)
        column.addWidget(_heading(tr("Conditions of the next reading")))
        held = QLabel(tr("Beside each stands what the pinned cut was flowed under; ≠ marks what differs."))
        held.setObjectName("caption")
        held.setWordWrap(True)
        column.addWidget(held)
        self.bench = QComboBox()
        self.bench.setEditable(True)
        self.bench.setInsertPolicy(QComboBox.InsertPolicy.NoInsert)
        self.bench.setFixedWidth(136)
        self.bench.setAccessibleName(tr("Bench"))
        self.bench.activated.connect(lambda _i: self._bench_named())
        line = self.bench.lineEdit()
        assert line is not None
        line.setAccessibleName(tr("Bench"))
        line.editingFinished.connect(self._bench_named)
        column.addWidget(self._row("bench", "Bench", self.bench))
        for figure in FIGURES:
            column.addWidget(self._figure(figure, units[figure.unit]))
        for choice in CHOICES:
            column.addWidget(self._choice(choice))
        column.addSpacing(8)
        column.addWidget(_heading(tr("Lift plan")))
        self.plan = QLineEdit()
        self.plan.setAccessibleName(tr("Lift plan"))
        self.plan.setToolTip(tr("0.05 to 0.6 by 0.05, or a list: 0.1, 0.2, 0.3. Empty takes the pinned cut's lifts."))
        self.plan.editingFinished.connect(self._plan_typed)
        self.come_back = QCheckBox(tr("come back to a low lift at the end"))
        self.come_back.setToolTip(tr("A head or dial that moved during the run shows there"))
        self.come_back.clicked.connect(self._plan_typed)
        self.plan_problem = QLabel()
        self.plan_problem.setObjectName("error")
        self.plan_problem.setWordWrap(True)
        self._notes = QLabel()
        self._notes.setWordWrap(True)
        for widget in (self.plan, self.plan_problem, self.come_back, self._notes):
            column.addWidget(widget)
        column.addStretch()
        holder = QWidget()
        holder.setLayout(column)
        scroll = ScrollArea(holder, sideways=False)
        done = QPushButton(tr("Done (Esc)"))
        done.clicked.connect(self.closed)
        outer = QVBoxLayout(self)
        outer.setContentsMargins(0, 0, 0, 0)
        outer.addWidget(scroll, 1)
        outer.addWidget(done)

    def _row(self, key: str, caption: str, widget: QWidget) -> QWidget:
        row = QWidget()
        line = QHBoxLayout(row)
        line.setContentsMargins(0, 0, 0, 0)
        label = QLabel(caption)
        label.setWordWrap(True)
        beside = QLabel()
        beside.setAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
        line.addWidget(label, 1)
        line.addWidget(beside)
        line.addWidget(widget)
        self._rows[key], self._beside[key] = row, beside
        return row

    def _figure(self, figure: Figure, shown: Shown) -> QWidget:
        field = QuantityField(figure.caption, shown, check_of(SetUp, figure.key, figure.check))
        field.accepted.connect(lambda value: self._change(**{figure.key: value}))
        self.fields[figure.key] = self._rows[figure.key] = field
        return field

    def _choice(self, choice: Choice) -> QWidget:
        box = QComboBox()
        box.setFixedWidth(136)
        box.setAccessibleName(choice.caption)
        box.addItem(NOT_RECORDED, None)
        for words, value in choice.options:
            box.addItem(words, value)
        box.activated.connect(lambda _i, key=choice.key, b=box: self._change(**{key: b.currentData()}))
        self.choices[choice.key] = box
        return self._row(choice.key, choice.caption, box)

    def _bench_named(self) -> None:
        name = self.bench.currentText().strip() or None
        if name == self._setup.bench:
            return
        known = bench_named(self._benches, name)
        if known is not None:
            self._setup = replace(self._setup, bench=known.name)
            self.bench_chosen.emit(known)
        else:
            self._change(bench=name)

    def _change(self, **values: Any) -> None:
        if "leak" in values:
            values["leak_pressure"] = self._setup.test_pressure if values["leak"] is not None else None
        if any(key in values for key in AIR):
            values["air_read_at"] = now_text()
        self._setup = replace(self._setup, **values)
        self.changed.emit(self._setup)

    def _plan_typed(self) -> None:
        text = self.plan.text().strip()
        try:
            read = parse_lifts(text, self._units.lift.unit) if text else None
        except Refused as error:
            self.plan_problem.setText(sentence_of(error))
            self.plan.selectAll()
            return
        lifts = None if read is None else read.lifts
        doubt = lift_doubt(lifts[-1], self._valve_diameter) if lifts else ""
        if doubt and self._asked != text:
            self._asked = text
            self.plan_problem.setText(tr("{} Enter again takes it.", sentence(self._units.say(doubt))))
            self.plan.selectAll()
            return
        self._asked = ""
        self.plan_problem.setText(
            tr("Read as thousandths of an inch.") if read is not None and read.thousandths else ""
        )
        self.plan.setModified(False)
        self.plan_changed.emit(lifts, self.come_back.isChecked())

    def show_setup(self, setup: SetUp, pinned: SetUp | None, units: Units) -> None:
        """Show a set-up, and beside it the pinned cut's."""
        self._setup, self._units = setup, units
        exhaust = setup.direction == Direction.EXHAUST

        def beside(key: str) -> tuple[Any, bool]:
            theirs, ours = (None if pinned is None else getattr(pinned, key)), getattr(setup, key)
            known = theirs is not None and key not in AIR and key not in ("leak", "seat_leak")
            return theirs, known and (ours is None or not same_condition(key, theirs, ours))

        for figure in FIGURES:
            field = self.fields[figure.key]
            field.use(units[figure.unit])
            field.set_value(getattr(setup, figure.key))
            value, differs = beside(figure.key)
            field.show_beside(value, differs=differs)
            field.setVisible(exhaust or not figure.exhaust_only)
        for choice in CHOICES:
            box = self.choices[choice.key]
            value = getattr(setup, choice.key)
            at = next((i for i in range(box.count()) if box.itemData(i) == value), -1)
            if at < 0:  # a name of the user's own, from a run table
                box.addItem(str(value), value)
                at = box.count() - 1
            box.setCurrentIndex(at)
            theirs, differs = beside(choice.key)
            words = next((w for w, v in choice.options if v == theirs), "" if theirs is None else str(theirs))
            show_beside(self._beside[choice.key], words, differs=differs)
            self._rows[choice.key].setVisible(exhaust or not choice.exhaust_only)
        theirs, differs = beside("bench")
        show_beside(self._beside["bench"], theirs or "", differs=differs)

    def show_benches(self, benches: tuple[Bench, ...], chosen: str | None) -> None:
        """The shop's benches, and the one in use."""
        self._benches = benches
        line = self.bench.lineEdit()
        if self.bench.hasFocus() or (line is not None and line.hasFocus()):
            return
        self.bench.clear()
        self.bench.addItems([b.name for b in benches])
        self.bench.setCurrentText(chosen or "")

    def show_plan(
        self, lifts: list[float], units: Units, *, come_back: bool, valve_diameter: float | None = None
    ) -> None:
        """The lifts of the run in hand; the valve says how far a lift may go before it is asked about."""
        self._valve_diameter = valve_diameter
        self.come_back.setChecked(come_back)
        if not self.plan.isModified():
            self.plan.setText(lifts_in_words(lifts, units.lift.text))

    def show_notes(self, notes: list[str]) -> None:
        """Sentences about air and witness."""
        self._notes.setText("\n".join(n for n in notes if n))


def _heading(words: str) -> QLabel:
    label = QLabel(words)
    label.setObjectName("heading")
    return label

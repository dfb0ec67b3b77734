"""The Reckoner: any calculator of the registry in a narrow sheet, its answers live while typing."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from PySide6.QtCore import Qt
from PySide6.QtGui import QFontMetrics
from PySide6.QtWidgets import (
    QApplication,
    QComboBox,
    QGridLayout,
    QHBoxLayout,
    QLabel,
    QLineEdit,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

from ventrix.core.calculators.answer import evaluate, read_input
from ventrix.core.calculators.bare_numbers import ask_unit
from ventrix.core.calculators.contract import Calculator, Input
from ventrix.core.calculators.from_job import known_inputs
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import from_si, parse_quantity, unit
from ventrix.core.quantity.words import sentence
from ventrix.rooms.display_units import Units
from ventrix.ui.look import theme
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.scroll_area import ScrollArea
from ventrix.ui.widgets.side_sheet import SideSheet
from ventrix.words import tr

# Dimensions that follow the units of the screen; the rest stay in the contract's own unit.
FOLLOWED = {"length", "area", "flow", "speed", "pressure"}


def shown_unit(symbol: str, units: Units) -> str:
    """The unit a calculator's figure is shown in on this screen. Barometer and plate pressures keep theirs."""
    if units.name == "us" and symbol in ("mm", "cm2"):
        return {"mm": "in", "cm2": "in2"}[symbol]
    dimension = unit(symbol).dimension
    if units.name == "us" or dimension not in FOLLOWED or symbol in ("hPa", "Pa"):
        return symbol
    return units[dimension].unit


def plain_name(name: str) -> str:
    return name.replace("_", " ")


class InputRow(QWidget):
    """One input: its name, a box that takes any unit, and what the job knows of it."""

    def __init__(self, spec: Input, units: Units, changed: Callable[[], None]) -> None:
        super().__init__()
        self.spec = spec
        self.unit = shown_unit(spec.unit, units)
        self._known: Any = None
        name = QLabel(plain_name(spec.name))
        self.choice = QComboBox()
        self.box = QLineEdit()
        self.take = QPushButton(tr("take"))
        self.take.setStyleSheet("padding: 3px 6px")
        self.take.setAccessibleName(tr("Take {} from this job", plain_name(spec.name)))
        self.take.hide()
        self.take.clicked.connect(self.take_known)
        words = "" if self.unit == "-" else self.unit
        symbol = QLabel(words if not spec.many else f"{words}, …")
        symbol.setObjectName("quiet")
        symbol.setFixedWidth(52)
        self.error = QLabel()
        self.error.setObjectName("error")
        self.error.setWordWrap(True)
        self.error.hide()
        grid = QGridLayout(self)
        grid.setContentsMargins(0, 0, 0, 0)
        grid.setHorizontalSpacing(6)
        grid.setVerticalSpacing(0)
        grid.addWidget(name, 0, 0)
        grid.addWidget(self.take, 0, 1)
        if spec.choices:
            self.choice.addItems(spec.choices)
            self.choice.setFixedWidth(150)
            self.choice.setAccessibleName(plain_name(spec.name))
            self.choice.currentIndexChanged.connect(changed)
            grid.addWidget(self.choice, 0, 2, 1, 2)
        else:
            self.box.setFixedWidth(92)
            self.box.setAlignment(Qt.AlignmentFlag.AlignRight)
            self.box.setAccessibleName(plain_name(spec.name))
            if spec.default is not None:
                number = from_si(parse_quantity(spec.default, spec.unit), self.unit)
                self.box.setPlaceholderText(f"{number:.6g}")
            elif spec.optional:
                self.box.setPlaceholderText(tr("if known"))
            self.box.textChanged.connect(changed)
            grid.addWidget(self.box, 0, 2)
            grid.addWidget(symbol, 0, 3)
        grid.addWidget(self.error, 1, 0, 1, 4)
        grid.setColumnStretch(0, 1)

    def offer(self, value: Any) -> None:
        """What the job knows of this input, or None."""
        self._known = value
        self.take.setVisible(value is not None and not self.spec.choices)
        if value is not None:
            self.take.setToolTip(tr("{} {}, from this job", self._text(value), self.unit))

    def _text(self, value: Any) -> str:
        numbers = value if isinstance(value, list) else [value]
        return ", ".join(f"{from_si(v, self.unit):.6g}" for v in numbers)

    def take_known(self) -> None:
        if self._known is not None and not self.spec.choices:
            self.box.setText(self._text(self._known))

    def value(self) -> Any:
        """SI value, or None where nothing is typed. ValueError with a sentence."""
        if self.spec.choices:
            return self.choice.currentText()
        text = self.box.text().strip()
        if not text:
            return None
        if self.spec.many:
            return [parse_quantity(part, self.unit) for part in text.split(",")]
        ask_unit(self.spec.name, self.unit, text)
        return parse_quantity(text, self.unit)

    def say(self, sentence: str) -> None:
        self.error.setText(sentence)
        self.error.setVisible(bool(sentence))
        self.box.setProperty("wrong", bool(sentence))
        self.box.style().unpolish(self.box)
        self.box.style().polish(self.box)


class Reckoner(SideSheet):
    """Shows one calculator: inputs, live answers, the equation and its source."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__()
        self._open_book = open_book
        self.calculator: Calculator | None = None
        self.rows: dict[str, InputRow] = {}
        self.answers: dict[str, QLabel] = {}
        self._copied = ""
        self.title = QLabel()
        self.title.setObjectName("heading")
        self.title.setWordWrap(True)
        self._body = QVBoxLayout()
        self._body.setSpacing(4)
        holder = QWidget()
        holder.setLayout(self._body)
        scroll = ScrollArea(holder, sideways=False)
        self.take_all = QPushButton(tr("Take all from this job"))
        self.take_all.clicked.connect(self._take_all)
        self.copy = QPushButton(tr("Copy with units"))
        self.copy.clicked.connect(self.copy_answers)
        buttons = QHBoxLayout()
        buttons.addWidget(self.take_all)
        buttons.addWidget(self.copy)
        hint = QLabel(tr("Esc puts it away · Ctrl+K finds another"))
        hint.setObjectName("caption")
        column = QVBoxLayout(self)
        column.setContentsMargins(20, 16, 16, 12)
        column.addWidget(self.title)
        column.addWidget(scroll, 1)
        column.addLayout(buttons)
        column.addWidget(hint)
        for signal in (open_book.opened, open_book.job_changed, open_book.selection_changed):
            signal.connect(self._offer)
        open_book.look_changed.connect(self._rebuild)

    def open(self, calculator: Calculator) -> None:
        """Show a calculator, empty, with the keyboard in its first box."""
        self.calculator = calculator
        self._rebuild()
        self.come_up()
        first = next((r for r in self.rows.values() if not r.spec.choices), None)
        if first is not None:
            first.box.setFocus()

    def _rebuild(self) -> None:
        calculator = self.calculator
        if calculator is None:
            return
        self._clear()
        units = self._open_book.units
        self.title.setText(calculator.title)
        for spec in calculator.inputs:
            row = InputRow(spec, units, self.reckon)
            self.rows[spec.name] = row
            self._body.addWidget(row)
        self._body.addSpacing(12)
        for out in calculator.outputs:
            answer = QLabel("–")
            answer.setObjectName("figure")
            answer.setAlignment(Qt.AlignmentFlag.AlignRight)
            answer.setAccessibleName(plain_name(out.name))
            line = QHBoxLayout()
            line.addWidget(QLabel(plain_name(out.name)))
            line.addWidget(answer, 1)
            self._body.addLayout(line)
            self.answers[out.name] = answer
        self.notes = self._words("")
        self._words(calculator.formula)
        self._words(tr("source: {}", calculator.source))
        self._body.addStretch()
        self._offer()
        self.reckon()

    def _words(self, text: str) -> QLabel:
        label = QLabel(text)
        label.setObjectName("quiet")
        label.setWordWrap(True)
        label.setTextInteractionFlags(Qt.TextInteractionFlag.TextSelectableByMouse)
        self._body.addWidget(label)
        return label

    def _clear(self) -> None:
        def empty(layout: Any) -> None:
            while (item := layout.takeAt(0)) is not None:
                if (widget := item.widget()) is not None:
                    widget.hide()
                    widget.deleteLater()
                elif (inner := item.layout()) is not None:
                    empty(inner)

        empty(self._body)
        self.rows, self.answers = {}, {}

    def _offer(self) -> None:
        """Tell every row what the job knows."""
        space = self._open_book.workspace
        known: dict[str, Any] = {}
        if space is not None and space.port is not None and space.cut is not None:
            known = known_inputs(space.findings, space.port, space.cut, space.against, self.rows.keys())
        for name, row in self.rows.items():
            row.offer(known.get(name))
        self.take_all.setEnabled(any(name in known for name in self.rows))

    def _take_all(self) -> None:
        for row in self.rows.values():
            row.take_known()

    def reckon(self) -> None:
        """Answer what is typed so far; what is missing leaves dashes, what is wrong says so."""
        calculator = self.calculator
        if calculator is None or not self.answers:
            return
        values: dict[str, Any] = {}
        complete = True
        for name, row in self.rows.items():
            try:
                value = row.value()
                row.say("")
            except Refused as error:
                row.say(sentence(str(error)))
                complete = False
                continue
            if value is not None:
                values[name] = value
            elif row.spec.required:
                complete = False
        notes: list[str] = []
        outputs: dict[str, float] = {}
        if complete:
            try:
                outputs, notes = evaluate(calculator, values)
            except Refused as error:
                notes = [sentence(str(error))]
        self._show(outputs, notes, values)

    def _show(self, outputs: dict[str, float], notes: list[str], values: dict[str, Any]) -> None:
        calculator = self.calculator
        assert calculator is not None
        lines = [calculator.title]
        for spec in calculator.inputs:
            value = values.get(spec.name, read_input(spec, spec.default) if spec.default is not None else None)
            if value is not None:
                lines.append(f"{plain_name(spec.name)}: {_with_unit(value, self.rows[spec.name].unit)}")
        for out in calculator.outputs:
            text = "–"
            if out.name in outputs:
                text = _with_unit(outputs[out.name], shown_unit(out.unit, self._open_book.units))
                lines.append(f"{plain_name(out.name)} = {text}")
            self.answers[out.name].setText(text)
        self.notes.setText("\n".join(notes))
        self.notes.setVisible(bool(notes))
        self._copied = "\n".join([*lines, *notes])
        self.copy.setEnabled(bool(outputs))

    def copy_answers(self) -> None:
        """Inputs and answers to the clipboard, each with its unit."""
        QApplication.clipboard().setText(self._copied)
        metrics = QFontMetrics(theme.font(13))
        self._open_book.say(
            metrics.elidedText(tr("Copied: {}", self._copied.splitlines()[-1]), Qt.TextElideMode.ElideRight, 500)
        )


def _with_unit(value: Any, symbol: str) -> str:
    if isinstance(value, str):
        return value
    numbers = value if isinstance(value, list) else [value]
    text = ", ".join(f"{from_si(v, symbol):.6g}" for v in numbers)
    return text if symbol == "-" else f"{text} {symbol}"

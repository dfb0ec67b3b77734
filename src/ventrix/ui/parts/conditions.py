"""The conditions of the next run, changed in seconds; what differs from the pinned cut's is said here."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any, Final

from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import (
    QComboBox,
    QHBoxLayout,
    QLabel,
    QLineEdit,
    QPushButton,
    QScrollArea,
    QVBoxLayout,
    QWidget,
)

from ventrix.core.model import SetUp
from ventrix.ui.parts.field import Check, QuantityField, positive
from ventrix.ui.units import Shown, Units

NOT_RECORDED: Final = "not recorded"


@dataclass(frozen=True, slots=True)
class Choice:
    """A condition chosen from a list: words on screen and the value they stand for."""

    key: str
    caption: str
    options: tuple[tuple[str, Any], ...]
    exhaust_only: bool = False


CHOICES: Final = (
    Choice("centred", "Head centred on the bore", (("yes", True), ("no", False))),
    Choice(
        "entry",
        "Entry",
        (("radius", "radius"), ("bare edge", "bare"), ("manifold", "manifold"), ("entry plate", "plate")),
    ),
    Choice("pipe", "Exhaust pipe", (("none", "none"), ("stub", "stub")), exhaust_only=True),
    Choice("valve", "Valve fitted", (("the job's own", "job"), ("test valve", "test"), ("valve out", "out"))),
    Choice("plug", "Plug hole", (("plug in", "in"), ("open", "out"))),
    Choice("clean", "Valve and chamber", (("clean", True), ("carbon on", False))),
)


def _any(value: float) -> None:
    """Every finite figure is allowed."""


def _not_negative(value: float) -> None:
    if value < 0:
        raise ValueError("cannot be negative")


def _share(value: float) -> None:
    if not 0 <= value <= 1:
        raise ValueError("must lie between 0 and 100 %")


FIGURES: Final[tuple[tuple[str, str, str, Check], ...]] = (
    ("test_pressure", "Test pressure", "pressure", positive),
    ("bore", "Bore sleeve", "length", positive),
    ("leak", "Leak, valve shut and opening sealed", "flow", _not_negative),
    ("temperature", "Air temperature", "temperature", _any),
)
_PLAIN: Final[tuple[tuple[str, str, Shown, Check], ...]] = (
    ("pressure", "Barometer", Shown("hPa", "hPa", 0), positive),
    ("humidity", "Humidity", Shown("%", "%", 0), _share),
)


def in_words(setup: SetUp, mount: int | None, units: Units) -> str:
    """The conditions as one line: "28 inH2O · 89 mm sleeve, centred · radius entry · job valve · mount 7"."""
    parts = [units.pressure.with_unit(setup.test_pressure)] if setup.test_pressure is not None else []
    if setup.bore is not None:
        centred = {True: ", centred", False: ", off centre", None: ""}[setup.centred]
        parts.append(f"{units.length.with_unit(setup.bore)} sleeve{centred}")
    if setup.entry is not None:
        parts.append(f"{setup.entry} entry")
    if setup.direction == "exhaust" and setup.pipe is not None:
        parts.append("no pipe" if setup.pipe == "none" else f"{setup.pipe} pipe")
    if setup.valve is not None:
        parts.append("job valve" if setup.valve == "job" else f"{setup.valve} valve")
    if mount is not None:
        parts.append(f"mount {mount}")
    return " · ".join(parts)


class ConditionsPanel(QWidget):
    """Edits a set-up in place of the curve; every accepted change is told at once."""

    changed = Signal(object)  # SetUp
    closed = Signal()

    def __init__(self, units: Units) -> None:
        super().__init__()
        self._setup = SetUp(id="", direction="intake")
        self._fields: dict[str, QuantityField] = {}
        self._choices: dict[str, QComboBox] = {}
        self._rows: dict[str, QWidget] = {}
        column = QVBoxLayout()
        column.setSpacing(6)
        title = QLabel("Conditions of the next reading")
        title.setObjectName("heading")
        column.addWidget(title)
        self._bench = QLineEdit()
        self._bench.setAccessibleName("Bench")
        self._bench.setFixedWidth(136)
        self._bench.editingFinished.connect(self._bench_named)
        column.addWidget(self._row("bench", "Bench", self._bench))
        for key, caption, unit, check in FIGURES:
            column.addWidget(self._figure(key, caption, units[unit], check))
        for key, caption, shown, check in _PLAIN:
            column.addWidget(self._figure(key, caption, shown, check))
        for choice in CHOICES:
            column.addWidget(self._choice(choice))
        self._differs = QLabel()
        self._differs.setWordWrap(True)
        column.addWidget(self._differs)
        column.addStretch()
        holder = QWidget()
        holder.setLayout(column)
        scroll = QScrollArea()
        scroll.setWidget(holder)
        scroll.setWidgetResizable(True)
        scroll.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        done = QPushButton("Done (Esc)")
        done.clicked.connect(self.closed)
        outer = QVBoxLayout(self)
        outer.setContentsMargins(0, 0, 0, 0)
        outer.addWidget(scroll, 1)
        outer.addWidget(done)

    def _row(self, key: str, caption: str, widget: QWidget) -> QWidget:
        row = QWidget()
        line = QHBoxLayout(row)
        line.setContentsMargins(0, 0, 0, 0)
        line.addWidget(QLabel(caption), 1)
        line.addWidget(widget)
        self._rows[key] = row
        return row

    def _figure(self, key: str, caption: str, shown: Shown, check: Check) -> QWidget:
        field = QuantityField(caption, shown, check)
        field.accepted.connect(lambda value: self._change(**{key: value}))
        self._fields[key] = field
        return field

    def _choice(self, choice: Choice) -> QWidget:
        box = QComboBox()
        box.setFixedWidth(136)
        box.setAccessibleName(choice.caption)
        box.addItem(NOT_RECORDED, None)
        for words, value in choice.options:
            box.addItem(words, value)
        box.activated.connect(lambda _i, key=choice.key, b=box: self._change(**{key: b.currentData()}))
        self._choices[choice.key] = box
        return self._row(choice.key, choice.caption, box)

    def _bench_named(self) -> None:
        name = self._bench.text().strip() or None
        if name != self._setup.bench:
            self._change(bench=name)

    def _change(self, **values: Any) -> None:
        if "leak" in values:
            values["leak_pressure"] = self._setup.test_pressure if values["leak"] is not None else None
        self._setup = replace(self._setup, **values)
        self.changed.emit(self._setup)

    def show_setup(self, setup: SetUp, units: Units, differs: str) -> None:
        """Show a set-up, and in words what differs from the pinned cut's."""
        self._setup = setup
        if not self._bench.hasFocus():
            self._bench.setText(setup.bench or "")
        for key, _, unit, _ in FIGURES:
            self._fields[key].use(units[unit])
            self._fields[key].set_value(getattr(setup, key))
        for key, _, _, _ in _PLAIN:
            self._fields[key].set_value(getattr(setup, key))
        for choice in CHOICES:
            box = self._choices[choice.key]
            value = getattr(setup, choice.key)
            at = next((i for i in range(box.count()) if box.itemData(i) == value), -1)
            if at < 0:  # a name of the user's own, from a run table
                box.addItem(str(value), value)
                at = box.count() - 1
            box.setCurrentIndex(at)
            self._rows[choice.key].setVisible(not choice.exhaust_only or setup.direction == "exhaust")
        self._differs.setText(differs)

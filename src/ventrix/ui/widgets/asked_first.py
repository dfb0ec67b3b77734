"""The five conditions that a first flow test is asked for, over the far view and for a table brought in."""

from __future__ import annotations

from dataclasses import replace
from typing import Any, Final

from PySide6.QtCore import QSettings, Signal
from PySide6.QtWidgets import QComboBox, QLabel, QPushButton, QVBoxLayout, QWidget

from ventrix.core.model.kinds import Direction
from ventrix.core.model.plausible import check_of
from ventrix.core.model.run import SetUp
from ventrix.rooms.display_units import Units
from ventrix.rooms.shared.conditions import ASKED_FIRST, CHOICES, FIGURES, asked_first, condition_words
from ventrix.ui.widgets.flow_layout import FlowLayout
from ventrix.ui.widgets.quantity_field import QuantityField
from ventrix.words import tr

SHORT: Final = {
    "bore": tr("Sleeve"),
    "entry": tr("Entry"),
    "pipe": tr("Pipe"),
    "valve": tr("Valve"),
    "plug": tr("Plug hole"),
    "centred": tr("Centered"),
}
WORDS: Final = tr("How is it bolted down? A later cut can only be compared with this one when these five are recorded.")


class AskedFirst(QWidget):
    """Asks what the set-up in hand does not tell yet; what this shop answered last is offered, never taken unasked."""

    changed = Signal(object)  # SetUp

    def __init__(self, units: Units, settings: QSettings, words: str = WORDS) -> None:
        super().__init__()
        self._settings = settings
        self._setup = SetUp(id="", direction=Direction.INTAKE)
        self._units = units
        self.fields: dict[str, QuantityField | QComboBox] = {}
        self._cells: dict[str, QWidget] = {}
        line = FlowLayout(14, 4)
        for key in ASKED_FIRST:
            self._cells[key] = self._cell(key)
            line.addWidget(self._cells[key])
        self.as_last = QPushButton(tr("As last time"))
        self.as_last.clicked.connect(self._take_last)
        line.addWidget(self.as_last)
        holder = QWidget()
        holder.setLayout(line)
        self._words = QLabel(words)
        self._words.setWordWrap(True)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 4)
        column.addWidget(self._words)
        column.addWidget(holder)

    def _cell(self, key: str) -> QWidget:
        figure = next((f for f in FIGURES if f.key == key), None)
        if figure is not None:
            field = QuantityField(SHORT[key], self._units[figure.unit], check_of(SetUp, key, figure.check), width=72)
            field.accepted.connect(lambda value: self._answer(**{key: value}))
            self.fields[key] = field
            return field
        choice = next(c for c in CHOICES if c.key == key)
        box = QComboBox()
        box.setAccessibleName(choice.caption)
        box.addItem(f"{SHORT[key]} …", None)
        for words, value in choice.options:
            box.addItem(f"{SHORT[key]}: {words}", value)
        box.activated.connect(lambda _i: self._answer(**{key: box.currentData()}))
        self.fields[key] = box
        return box

    def _answer(self, **values: Any) -> None:
        if any(getattr(self._setup, key) != value for key, value in values.items()):
            self.changed.emit(replace(self._setup, **values))

    def show_setup(self, setup: SetUp, units: Units, *, begun: bool) -> None:
        """Ask for what is missing of a set-up; nothing is asked once everything is told, or the test has `begun`."""
        self._setup, self._units = setup, units
        asked = asked_first(setup)
        self.setVisible(not begun and any(getattr(setup, key) is None for key in asked))
        for key, field in self.fields.items():
            self._cells[key].setVisible(key in asked)
            value = getattr(setup, key)
            if isinstance(field, QuantityField):
                field.use(units["length"])
                field.set_value(value)
            else:
                field.setCurrentIndex(max(field.findData(value), 0))
        last = self._last()
        said = ", ".join(condition_words(key, value, units) for key, value in last.items())
        self.as_last.setToolTip(said)
        self.as_last.setVisible(bool(last))

    def _last(self) -> dict[str, Any]:
        """What this shop answered last, of what is not told yet."""
        found = {}
        for key in asked_first(self._setup):
            kept = self._settings.value(_place(self._setup, key))
            value = None if kept is None else _read(key, str(kept))
            if value is not None and getattr(self._setup, key) is None:
                found[key] = value
        return found

    def _take_last(self) -> None:
        self._answer(**self._last())

    def remember(self, setup: SetUp) -> None:
        """Keep what a set-up tells as this shop's last answers."""
        for key in asked_first(setup):
            value = getattr(setup, key)
            if value is not None:
                self._settings.setValue(_place(setup, key), str(value))


def _place(setup: SetUp, key: str) -> str:
    return f"asked_first/{setup.direction}/{key}"


def _read(key: str, kept: str) -> Any:
    """A kept answer, None where it is none of today's."""
    choice = next((c for c in CHOICES if c.key == key), None)
    if choice is not None:
        return next((value for _, value in choice.options if str(value) == kept), None)
    try:
        return float(kept)
    except ValueError:
        return None

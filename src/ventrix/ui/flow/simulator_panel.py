"""The simulated bench's own small control: its valve opener, blower and head. Shown only for it."""

from __future__ import annotations

from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import QHBoxLayout, QLabel, QMenu, QPushButton, QSlider, QVBoxLayout, QWidget

from ventrix.bench.simulator.lies import WORDS, Lie
from ventrix.rooms.display_units import Units
from ventrix.words import tr

STEPS_PER_MM = 100
GREATEST_MM = 16


class SimulatorControl(QWidget):
    """What the hands would do at a real bench."""

    lift_set = Signal(float)  # m
    blower_set = Signal(float)  # Pa
    remounted = Signal()
    lie_told = Signal(str, bool)

    def __init__(self) -> None:
        super().__init__()
        self._units: Units | None = None
        title = QLabel(tr("Simulated bench: your hands"))
        title.setObjectName("caption")
        self._slider = QSlider(Qt.Orientation.Horizontal)
        self._slider.setRange(0, GREATEST_MM * STEPS_PER_MM)
        self._slider.setAccessibleName(tr("Valve opener of the simulated bench"))
        self._slider.setToolTip(tr("Valve opener of the simulated bench"))
        self._shown = QLabel()
        self._shown.setFixedWidth(64)
        self._shown.setAlignment(Qt.AlignmentFlag.AlignRight)
        self._slider.valueChanged.connect(self._moved)
        self.to_rung = QPushButton(tr("Open (L)"))
        self.blower = QPushButton(tr("Blower on (B)"))
        self.remount = QPushButton(tr("Mount (M)"))
        self.lies = QPushButton(tr("Simulated faults ▾"))
        self.lies.setToolTip(tr("Ways in which the simulated bench can mislead: see what each does to the numbers"))
        menu = QMenu(self.lies)
        for lie, words in WORDS.items():
            action = menu.addAction(words)
            action.setCheckable(True)
            action.toggled.connect(lambda on, each=lie: self._tell(each, on))
        self.lies.setMenu(menu)
        self._told: set[Lie] = set()
        lift = QHBoxLayout()
        lift.addWidget(self._slider, 1)
        lift.addWidget(self._shown)
        buttons = QHBoxLayout()
        buttons.setSpacing(6)
        for button in (self.to_rung, self.blower, self.remount, self.lies):
            button.setFocusPolicy(Qt.FocusPolicy.TabFocus)
            button.setStyleSheet("padding: 5px 6px")
            buttons.addWidget(button)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(4)
        column.addWidget(title)
        column.addLayout(lift)
        column.addLayout(buttons)
        self.remount.clicked.connect(self.remounted)

    def _tell(self, lie: Lie, on: bool) -> None:
        self._told ^= {lie}
        self.lies.setText(tr("Simulated faults: {} ▾", len(self._told)) if self._told else tr("Simulated faults ▾"))
        self.lie_told.emit(lie.value, on)

    def _moved(self, steps: int) -> None:
        lift = steps / STEPS_PER_MM / 1000
        self._show(lift)
        self.lift_set.emit(lift)

    def _show(self, lift: float) -> None:
        self._shown.setText(self._units.lift.text(lift) if self._units else "")

    def open_to(self, lift: float) -> None:
        """Move the opener to a lift [m], to its own graduation or exactly where between two."""
        self._slider.blockSignals(True)
        self._slider.setValue(round(lift * 1000 * STEPS_PER_MM))
        self._slider.blockSignals(False)
        self._show(lift)
        self.lift_set.emit(lift)

    def use(self, units: Units) -> None:
        self._units = units
        self._show(self._slider.value() / STEPS_PER_MM / 1000)

"""The choices below the parts of a sheet: paper, ink, units, and for whom; kept in the settings."""

from __future__ import annotations

from typing import Final

from PySide6.QtCore import QSettings, Qt, Signal
from PySide6.QtWidgets import QButtonGroup, QHBoxLayout, QLabel, QPushButton, QWidget

from ventrix.ui.widgets.flow_layout import FlowLayout
from ventrix.words import tr

# Setting, caption, its options as (key, words), the usual one.
OPTIONS: Final = (
    ("sheet_paper", tr("paper"), (("A4", "A4"), ("Letter", tr("Letter"))), "A4"),
    ("sheet_ink", tr("ink"), (("colour", tr("color")), ("grey", tr("gray"))), "colour"),
    ("sheet_units", tr("units"), (("", tr("screen's")), ("us", "US"), ("metric", tr("metric"))), ""),
    ("sheet_for", tr("for"), (("customer", tr("customer")), ("shop", tr("shop"))), "customer"),
)


class OptionsBar(QWidget):
    """One group of buttons a choice."""

    changed = Signal()

    def __init__(self, settings: QSettings) -> None:
        super().__init__()
        self._settings = settings
        self.groups: dict[str, QButtonGroup] = {}
        line = FlowLayout(14, 4)
        self.setLayout(line)
        for key, caption, choices, _ in OPTIONS:
            together = QWidget()  # a caption and its choices go on to the next line as one
            row = QHBoxLayout(together)
            row.setContentsMargins(0, 0, 0, 0)
            row.setSpacing(4)
            label = QLabel(caption)
            label.setObjectName("quiet")
            row.addWidget(label)
            self.groups[key] = self._group(row, key, caption, choices)
            line.addWidget(together)

    def _group(self, row: QHBoxLayout, key: str, caption: str, choices: tuple[tuple[str, str], ...]) -> QButtonGroup:
        group = QButtonGroup(self)
        now = self.value(key)
        for i, (value, words) in enumerate(choices):
            button = QPushButton(words)
            button.setCheckable(True)
            button.setChecked(value == now)
            button.setObjectName("choice")
            button.setFocusPolicy(Qt.FocusPolicy.TabFocus)
            button.setAccessibleName(f"{caption}: {words}")
            group.addButton(button, i)
            row.addWidget(button)
        group.idClicked.connect(lambda i: self._choose(key, choices[i][0]))
        return group

    def _choose(self, key: str, value: str) -> None:
        self._settings.setValue(key, value)
        self.changed.emit()

    def value(self, key: str) -> str:
        """What is chosen; the usual one before anything was."""
        return str(self._settings.value(key, next(o[3] for o in OPTIONS if o[0] == key)))

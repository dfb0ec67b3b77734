"""The Head room's tabs: engine, goal, casting, stations, and the list for the end of a head."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, Protocol

from PySide6.QtWidgets import (
    QHBoxLayout,
    QLabel,
    QLineEdit,
    QVBoxLayout,
    QWidget,
)

from ventrix.core.model.cut import Cut, Port
from ventrix.core.model.job import Job
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.words import sentence
from ventrix.rooms.head.figures import SPECS
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.quantity_field import QuantityField


class MeasuringSheet(Protocol):
    """What a page asks of the room it stands in."""

    open_book: OpenBook
    fields: dict[str, QuantityField]

    def change(self, name: str, edit: Callable[[Job, Port, Cut], Job]) -> None: ...
    def change_job(self, name: str, **values: Any) -> None: ...
    def change_valve(self, name: str, **values: Any) -> None: ...


class Tab(QWidget):
    """A page of the Head room."""

    title = ""

    def __init__(self, room: MeasuringSheet) -> None:
        super().__init__()
        self.room = room
        self.column = QVBoxLayout(self)
        self.column.setContentsMargins(0, 4, 8, 0)
        self.column.setSpacing(4)
        self.problem = QLabel()
        self.problem.setObjectName("error")
        self.problem.setWordWrap(True)

    def add_group(self, group: str) -> None:
        """The figures of a group, in order."""
        for spec in SPECS:
            if spec.group == group:
                self.column.addWidget(self.room.fields[spec.key])

    def add_row(self, caption: str, widget: QWidget, width: int = 150) -> None:
        label = QLabel(caption)
        label.setWordWrap(True)
        label.setBuddy(widget)
        widget.setAccessibleName(caption)
        widget.setFixedWidth(width)
        row = QHBoxLayout()
        row.addWidget(label, 1)
        row.addWidget(widget)
        self.column.addLayout(row)

    def add_heading(self, words: str) -> QLabel:
        label = QLabel(words)
        label.setObjectName("heading")
        self.column.addWidget(label)
        return label

    def show_job(self, job: Job, port: Port, cut: Cut) -> None:
        raise AssertionError("every tab shows the job")

    def keep_typed(self, box: QLineEdit, name: str, **values: Any) -> None:
        """Set fields of the job from what was typed in a box; what it does not take is said, and the text stays."""
        try:
            self.room.change_job(name, **values)
        except Refused as error:
            self.say(error)
            return
        box.setModified(False)
        self.say(None)

    def say(self, error: Refused | None) -> None:
        self.problem.setText("" if error is None else sentence(str(error)))


def unless_typing(box: QLineEdit, text: str) -> None:
    if not (box.hasFocus() and box.isModified()):
        box.setText(text)

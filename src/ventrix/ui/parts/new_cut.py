"""The side sheet that logs a new cut: name, what kind of change, where, how long, and what it poured after."""

from __future__ import annotations

from typing import Final

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QComboBox, QHBoxLayout, QLabel, QLineEdit, QPushButton, QVBoxLayout

from ventrix.core import edits
from ventrix.core.model import Cut, Operation, Pour
from ventrix.ui.parts.field import QuantityField, positive
from ventrix.ui.parts.side_sheet import SideSheet
from ventrix.ui.session import Session
from ventrix.workspace import new_id, now_text

PLACES: Final = ("bowl", "throat", "short side", "guide", "pinch", "opening", "chamber", "seat", "all over")
KINDS: Final = (
    ("metal off the port", "port"),
    ("valve or valve job", "valve"),
    ("chamber", "chamber"),
    ("cleaning", "clean"),
    ("finish only", "finish"),
)
CAUTIONS: Final = {
    "port": "Eye protection and respirator on; no loose gloves at the burr; keep to the burr's speed limit. "
    "Read the wall before metal comes off: water, oil or a pushrod hole may be behind it.",
    "valve": "Valve and seat limits, hardened or sodium-filled valves: "
    "follow the maker's data and a licensed machine shop.",
    "chamber": "Eye protection and respirator on. Protect the seats with old valves; leave no sharp edge.",
    "clean": "Solvents need ventilation; carbon dust needs a respirator.",
    "finish": "Eye protection and respirator on: abrasive grit and dust. Wash every passage afterwards.",
}


class NewCutSheet(SideSheet):
    """Logs a cut of the port in hand. Enter logs it, Esc puts the sheet away with what was typed kept."""

    logged = Signal(str, str)  # cut id, place

    def __init__(self, session: Session) -> None:
        super().__init__()
        self._session = session
        self.title = QLabel()
        self.title.setObjectName("heading")
        self.name = QLineEdit()
        self.name.setMaxLength(120)
        self.kind = QComboBox()
        for words, value in KINDS:
            self.kind.addItem(words, value)
        self.place = QComboBox()
        self.place.addItems(PLACES)
        self.minutes = QuantityField("Minutes of work", session.units.duration, positive)
        self.volume = QuantityField("Poured volume after", session.units.volume, positive)
        self.problem = QLabel()
        self.problem.setObjectName("error")
        self.caution = QLabel()
        self.caution.setWordWrap(True)
        self.caution.setObjectName("quiet")
        self.kind.currentIndexChanged.connect(self._say_caution)
        log = QPushButton("Log the cut")
        log.clicked.connect(self.log)
        away = QPushButton("Not now (Esc)")
        away.clicked.connect(self.closed)
        buttons = QHBoxLayout()
        buttons.addWidget(log)
        buttons.addWidget(away)
        column = QVBoxLayout(self)
        column.setContentsMargins(20, 16, 20, 16)
        column.setSpacing(8)
        column.addWidget(self.title)
        for caption, widget in (("Name", self.name), ("What kind of change", self.kind), ("Where", self.place)):
            label = QLabel(caption)
            label.setBuddy(widget)
            widget.setAccessibleName(caption)
            column.addWidget(label)
            column.addWidget(widget)
        column.addWidget(self.problem)
        column.addWidget(self.minutes)
        column.addWidget(self.volume)
        column.addWidget(self.caution)
        column.addLayout(buttons)
        column.addStretch()
        self.name.returnPressed.connect(self.log)

    def open(self) -> None:
        """Show the sheet for the port in hand."""
        space = self._session.workspace
        if space is None or space.port is None:
            return
        self.title.setText(f"New cut of {space.port.name.lower()}")
        self._say_caution()
        self.come_up()
        self.name.setFocus()

    def _say_caution(self) -> None:
        self.caution.setText(CAUTIONS[self.kind.currentData()])

    def log(self) -> None:
        """Put the cut at the end of the row and look at it, held against the one before."""
        space = self._session.workspace
        name = self.name.text().strip()
        if space is None or space.port is None:
            return
        if not name:
            self.problem.setText("Give the cut a short name: what was done.")
            self.name.setFocus()
            return
        place = self.place.currentText()
        work = Operation(id=new_id(), kind=self.kind.currentText(), places=(place,), duration=self.minutes.value)
        volume = self.volume.value
        cut = Cut(
            id=new_id(),
            number=0,
            name=name,
            kind=self.kind.currentData(),
            date=now_text(),
            operations=(work,),
            pours=() if volume is None else (Pour(id=new_id(), volume=volume),),
        )
        space.apply(f"cut '{name}'", edits.add_cut(space.job, space.port.id, cut))
        self.name.clear()
        self.problem.clear()
        for field in (self.minutes, self.volume):
            field.box.clear()
            field.set_value(None)
        self.logged.emit(cut.id, place)
        space.look_at(cut.id)
        self.closed.emit()

"""Every reading of the run in hand: any of them can be struck with a reason, or taken up again."""

from __future__ import annotations

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QLabel, QLineEdit, QListWidget, QListWidgetItem, QPushButton, QVBoxLayout, QWidget

from ventrix.core.edits.corrections import correct_lift
from ventrix.core.model.run import UNDONE
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.thousandths import read_small
from ventrix.core.quantity.units import tidy
from ventrix.core.quantity.words import sentence
from ventrix.records.bad_input import sentence_of
from ventrix.ui.flow.control import FlowControl
from ventrix.ui.flow.control_shows import reading_text
from ventrix.words import tr
from ventrix.workspace.ids import new_id

STRUCK_HERE = tr("struck at the bench")


class ReadingsPage(QWidget):
    """A list of readings; Backspace strikes the one chosen with the reason typed, Enter takes a struck one up."""

    closed = Signal()

    def __init__(self, control: FlowControl) -> None:
        super().__init__()
        self._control = control
        self._run_id = ""
        heading = QLabel(tr("Readings of this run"))
        heading.setObjectName("heading")
        self.list = QListWidget()
        self.list.setAccessibleName(tr("Readings of this run"))
        self.list.installEventFilter(self)
        self.reason = QLineEdit()
        self.reason.setPlaceholderText(tr("why is it struck?"))
        self.reason.setAccessibleName(tr("Why the reading is struck"))
        self.reason.returnPressed.connect(self.strike)
        strike = QPushButton(tr("Strike (Backspace)"))
        strike.clicked.connect(self.strike)
        take_up = QPushButton(tr("Restore (Enter)"))
        take_up.clicked.connect(self.take_up)
        self.lift = QLineEdit()
        self.lift.setPlaceholderText(tr("the lift it was really taken at"))
        self.lift.setAccessibleName(tr("Lift corrected"))
        lift = QPushButton(tr("Correct its lift"))
        lift.clicked.connect(self.set_lift)
        self.problem = QLabel()
        self.problem.setObjectName("error")
        self.problem.setWordWrap(True)
        done = QPushButton(tr("Done (Esc)"))
        done.clicked.connect(self.closed)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        for widget in (heading, self.list, self.reason, strike, take_up, self.lift, lift, self.problem, done):
            column.addWidget(widget)

    def show_run(self) -> None:
        """The readings of the run in sight, in the order they were taken."""
        run, units = self._control.hand.in_sight, self._control.open_book.units
        chosen = self._id()
        if (run.id if run is not None else "") != self._run_id:  # a reason is of one run, as a reading is
            self._run_id = run.id if run is not None else ""
            self._say("")
        self.list.clear()
        for reading in run.readings if run is not None else ():
            words = f"{units.lift.text(reading.lift)}   {reading_text(self._control, reading)}"
            if reading.struck is not None:
                words += tr("   struck: {}", "undone" if reading.struck == UNDONE else reading.struck)
            item = QListWidgetItem(words)
            item.setData(Qt.ItemDataRole.UserRole, reading.id)
            self.list.addItem(item)
            if reading.id == chosen:
                self.list.setCurrentItem(item)
        if self.list.currentRow() < 0:
            self.list.setCurrentRow(self.list.count() - 1)

    def _id(self) -> str:
        item = self.list.currentItem()
        return "" if item is None else str(item.data(Qt.ItemDataRole.UserRole))

    def strike(self) -> None:
        """Strike the reading chosen, with its reason."""
        if not self._id():
            return
        try:
            self._control.hand.strike(self._id(), self.reason.text().strip() or STRUCK_HERE)
        except Refused as error:
            self._control.open_book.say(sentence_of(error))
            return
        self.reason.clear()
        self._control.ground.clear()
        self._control.redraw.emit()

    def set_lift(self) -> None:
        """Set the lift of the reading chosen right: the wrong one stays, struck."""
        space, run = self._control.open_book.workspace, self._control.hand.in_sight
        if not self._id() or space is None or run is None:
            return
        try:
            units = self._control.open_book.units
            lift = read_small(self.lift.text().strip(), units.lift.unit).value
            job = correct_lift(space.job, run.id, self._id(), tidy(lift), self.reason.text().strip(), new_id())
            space.apply(tr("lift corrected to {}", units.lift.text(lift)), job)
        except (KeyError, Refused) as error:
            self._say(sentence(str(error)))
            return
        self._say("")

    def _say(self, words: str) -> None:
        """What is wrong with what was asked; nothing where it was done."""
        self.problem.setText(words)
        if not words:
            self.lift.clear()
            self.reason.clear()

    def take_up(self) -> None:
        """Count the reading chosen again."""
        if self._id():
            self._control.hand.take_up(self._id())
            self._control.redraw.emit()

    def eventFilter(self, watched: object, event: object) -> bool:
        if isinstance(event, QKeyEvent) and event.type() == QKeyEvent.Type.KeyPress:
            if event.key() in (Qt.Key.Key_Backspace, Qt.Key.Key_Delete):
                self.strike()
                return True
            if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
                self.take_up()
                return True
        return False

"""The whole head's next hour: one answer, the list of what is left, and an evening filled from it."""

from __future__ import annotations

from typing import Final

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QAbstractItemView, QHBoxLayout, QHeaderView, QLabel, QVBoxLayout, QWidget

from ventrix.core.next_hour.work_item import WorkItem
from ventrix.core.next_hour.work_list import WorkList
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import parse_quantity
from ventrix.core.quantity.words import sentence
from ventrix.rooms.display_units import Units
from ventrix.rooms.plan.head_shows import HeadAnswer, head_answer
from ventrix.ui.look import theme
from ventrix.ui.widgets.answer_strip import AnswerStrip, say_large
from ventrix.ui.widgets.line import Line
from ventrix.ui.widgets.table import Table
from ventrix.words import tr

MOST_HOURS: Final = 24.0
WHAT, WAITS = 0, 4  # columns that take the room there is


class WorkTable(Table):
    """Enter takes the row that is chosen; arrows choose."""

    taken = Signal()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.taken.emit()
        elif event.text() and not event.modifiers() and event.text().isalpha():
            event.ignore()  # a room's letter, no search in the list
        else:
            super().keyPressEvent(event)


class HeadPage(QWidget):
    """Shows a work list. `taken` brings the entry that is to be done."""

    taken = Signal(object)  # WorkItem

    def __init__(self) -> None:
        super().__init__()
        self.work: WorkList | None = None
        self.answer: HeadAnswer | None = None
        self._units: Units | None = None
        self.strip = AnswerStrip(figures=1)
        self.have = Line()
        self.have.setFixedWidth(70)
        self.have.setAccessibleName(tr("Hours that I have"))
        self.have.setPlaceholderText("2")
        self.have.editingFinished.connect(self._show)
        self.filled = QLabel()
        self.filled.setObjectName("quiet")
        self.weights = QLabel()
        self.weights.setObjectName("caption")
        self.weights.setWordWrap(True)
        self.table = WorkTable(tr("What is left on the head"))
        self.table.setSelectionBehavior(QAbstractItemView.SelectionBehavior.SelectRows)
        self.table.setSelectionMode(QAbstractItemView.SelectionMode.SingleSelection)
        self.table.verticalHeader().hide()
        self.table.setWordWrap(False)
        self.table.setStyleSheet("font-size: 16px")
        self.table.taken.connect(self.take)
        self.table.itemDoubleClicked.connect(lambda _i: self.take())
        row = QHBoxLayout()
        for widget in (QLabel(tr("I have")), self.have, QLabel("h"), self.filled):
            row.addWidget(widget)
        row.addStretch()
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.addWidget(self.strip)
        column.addLayout(row)
        column.addWidget(self.table, 1)
        column.addWidget(self.weights)

    def show_work(self, work: WorkList, units: Units) -> None:
        """Show what is left of a head."""
        self.work, self._units = work, units
        self._show()

    def _seconds(self) -> float | None:
        """The hours that were typed [s]; None where none were. ValueError where they make no sense."""
        text = self.have.text().strip()
        if not text:
            return None
        seconds = parse_quantity(text, "h")
        if not 0 < seconds <= MOST_HOURS * 3600:
            raise Refused("an evening has more than 0 hours and no more than 24")
        return seconds

    def _show(self) -> None:
        work, units, t = self.work, self._units, theme.current()
        if work is None or units is None:
            return
        wrong = ""
        try:
            seconds = self._seconds()
        except Refused as error:
            seconds, wrong = None, sentence(str(error))
        answer = self.answer = head_answer(work, units, seconds)
        self.strip.verdict.say(answer.verdict, 40, t.text)
        self.strip.reason.setText(answer.reason)
        ((figure, below),) = self.strip.figures
        say_large(figure, answer.to_go, 30, t.text)
        below.setText(answer.to_go_below)
        self.filled.setText(wrong or answer.filled)
        self.filled.setObjectName("error" if wrong else "quiet")
        self.filled.style().polish(self.filled)
        rows = [[line.what, line.minutes, line.worth, line.an_hour, line.waits] for line in answer.lines]
        at = max(self.table.currentRow(), 0)
        heads = [tr("What"), "min", tr("worth, {}", units.flow.label), tr("an hour"), tr("Waits for")]
        self.table.fill(rows, heads, right=range(1, 4))
        header = self.table.horizontalHeader()
        for column in range(len(heads)):
            stretch = column in (WHAT, WAITS)
            mode = QHeaderView.ResizeMode
            header.setSectionResizeMode(column, mode.Stretch if stretch else mode.ResizeToContents)
        for r, line in enumerate(answer.lines):
            for column in range(len(heads)):
                item = self.table.item(r, column)
                if item is not None:
                    item.setToolTip(line.item.sentence)
                    item.setForeground(theme.colour("quiet" if line.waits else "text"))
        if rows:
            self.table.selectRow(min(at, len(rows) - 1))
        counts = work.weights["exhaust"]
        self.weights.setText(
            tr(
                "Worth is summed over all ports; a percent of exhaust flow counts {:.2f} of the intake's, {}.",
                counts,
                work.weighed_by,
            )
        )

    @property
    def chosen(self) -> WorkItem | None:
        """The entry that is chosen."""
        row = self.table.currentRow()
        lines = self.answer.lines if self.answer is not None else ()
        return lines[row].item if 0 <= row < len(lines) else None

    def pick(self, by: int) -> None:
        """Another row."""
        count = self.table.rowCount()
        if count:
            self.table.selectRow(max(0, min(self.table.currentRow() + by, count - 1)))

    def take(self) -> None:
        """Go where the chosen entry is done."""
        if self.chosen is not None:
            self.taken.emit(self.chosen)

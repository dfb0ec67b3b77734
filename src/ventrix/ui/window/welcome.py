"""What stands in the rooms' place while no job is open: a place to begin."""

from __future__ import annotations

from functools import partial

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QResizeEvent
from PySide6.QtWidgets import QGridLayout, QHBoxLayout, QLabel, QPushButton, QVBoxLayout, QWidget

from ventrix.ui.window.rooms import ROOMS
from ventrix.words import tr

MOST_RECENT = 5
FLAT = 600  # px of height under which the rooms are not listed
WORDS = tr(
    "A job is a head. Flow its ports as received, make a cut, flow it again, and Compare says what the cut did. "
    "Nothing has to be measured before the first reading."
)
FIRST = (
    (
        tr("With a bench"),
        tr("New job, Flow (Ctrl+2): P prepares the bench, Space keeps. Then + cut, and flow it again."),
    ),
    (
        tr("With a home-built bench"),
        tr(
            "New job, then Benches (Ctrl+Shift+B): say how it reads; two columns of water are enough. Gains "
            "are percent."
        ),
    ),
    (
        tr("Without one"),
        tr("By stages: what to look at, cut and leave, closed by gauge, cc, feel or photo. Nothing must be measured."),
    ),
)


class Welcome(QWidget):
    """New job, the demo head, a document; jobs opened lately; and what each kind of user does first."""

    new_job = Signal()
    by_stages = Signal()
    demo = Signal()
    bring_in = Signal()
    chosen = Signal(str)  # a job's id

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("room")
        title = QLabel(tr("No job is open"))
        title.setObjectName("title")
        self.start = QPushButton(tr("New job (Ctrl+N)"))
        self.start.clicked.connect(self.new_job)
        self.stages = QPushButton(tr("By stages, no bench"))
        self.stages.clicked.connect(self.by_stages)
        self.look = QPushButton(tr("The demo head"))
        self.look.clicked.connect(self.demo)
        self.document = QPushButton(tr("A document (Ctrl+O)"))
        self.document.clicked.connect(self.bring_in)
        buttons = QHBoxLayout()
        for button in (self.start, self.stages, self.look, self.document):
            buttons.addWidget(button)
        buttons.addStretch()
        dropped = QLabel(tr("Or drop a job document or a run table here."))
        dropped.setObjectName("caption")
        self.recent = QVBoxLayout()
        self.recent.setSpacing(4)
        middle = QWidget()
        middle.setFixedWidth(620)
        column = QVBoxLayout(middle)
        column.setSpacing(12)
        column.addWidget(title)
        column.addWidget(_wrapped(WORDS))
        column.addLayout(buttons)
        column.addWidget(dropped)
        column.addLayout(self.recent)
        for who, what in FIRST:
            heading = QLabel(who)
            heading.setObjectName("heading")
            column.addWidget(heading)
            column.addWidget(_wrapped(what))
        self.rooms = _what_rooms_are_for()
        column.addWidget(self.rooms)
        outer = QVBoxLayout(self)
        outer.addWidget(middle, 0, Qt.AlignmentFlag.AlignCenter)

    def resizeEvent(self, event: QResizeEvent) -> None:
        """In a flat window the rooms' own words give way: each room says them when it is empty."""
        super().resizeEvent(event)
        self.rooms.setVisible(self.height() >= FLAT)

    def show_recent(self, jobs: list[tuple[str, str]]) -> None:
        """Jobs of the book to open, by id and title; the last opened first."""
        while (item := self.recent.takeAt(0)) is not None:
            widget = item.widget()
            if widget is not None:
                widget.hide()
                widget.deleteLater()
        for job_id, name in jobs[:MOST_RECENT]:
            button = QPushButton(name)
            button.setObjectName("flat")
            button.setAccessibleName(tr("Open {}", name))
            button.clicked.connect(partial(self.chosen.emit, job_id))
            self.recent.addWidget(button, 0, Qt.AlignmentFlag.AlignLeft)


def _what_rooms_are_for() -> QWidget:
    """Every room and what it is for, in two columns."""
    found = QWidget()
    grid = QGridLayout(found)
    grid.setContentsMargins(0, 0, 0, 0)
    grid.setHorizontalSpacing(10)
    grid.setVerticalSpacing(2)
    rows = (len(ROOMS) + 1) // 2
    for i, door in enumerate(ROOMS):
        name, words = QLabel(door.name), QLabel(door.is_for)
        words.setObjectName("caption")
        grid.addWidget(name, i % rows, 2 * (i // rows))
        grid.addWidget(words, i % rows, 2 * (i // rows) + 1)
    grid.setColumnStretch(1, 1)
    grid.setColumnStretch(3, 1)
    return found


def _wrapped(words: str) -> QLabel:
    label = QLabel(words)
    label.setWordWrap(True)
    label.setFixedWidth(600)
    label.setMinimumHeight(label.heightForWidth(600))
    return label

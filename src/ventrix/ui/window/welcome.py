"""What stands in the rooms' place while no job is open: what to do first, and the means to do it."""

from __future__ import annotations

from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import QHBoxLayout, QLabel, QPushButton, QVBoxLayout, QWidget

WORDS = (
    "A job is a head. It begins with one intake port as received: flow it, make a cut, flow it again, "
    "and Compare says what the cut did. Nothing has to be measured before the first reading."
)


class Welcome(QWidget):
    """Offers a new job, or one from a document."""

    new_job = Signal()
    bring_in = Signal()

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("room")
        title = QLabel("No job is open")
        title.setObjectName("title")
        words = QLabel(WORDS)
        words.setWordWrap(True)
        words.setFixedWidth(460)
        words.setMinimumHeight(words.heightForWidth(460))
        self.start = QPushButton("New job (Ctrl+N)")
        self.start.clicked.connect(self.new_job)
        document = QPushButton("Bring in a job document (Ctrl+O)")
        document.clicked.connect(self.bring_in)
        buttons = QHBoxLayout()
        buttons.addWidget(self.start)
        buttons.addWidget(document)
        buttons.addStretch()
        middle = QWidget()
        column = QVBoxLayout(middle)
        column.setSpacing(16)
        column.addWidget(title)
        column.addWidget(words)
        column.addLayout(buttons)
        outer = QVBoxLayout(self)
        outer.addWidget(middle, 0, Qt.AlignmentFlag.AlignCenter)

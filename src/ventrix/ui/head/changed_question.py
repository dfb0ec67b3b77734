"""Corrected, or changed at this cut? Asked beside the drawing where a new size could mean either."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtWidgets import QHBoxLayout, QLabel, QPushButton, QWidget

from ventrix.words import tr


class ChangedQuestion(QWidget):
    """The question and its answers; hidden until it is asked."""

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("panel")
        self.words = QLabel()
        self.words.setWordWrap(True)
        self.corrected = QPushButton(tr("It always was"))
        self.changed = QPushButton(tr("Changed at this cut"))
        self.neither = QPushButton(tr("Leave it as it was"))
        self._answers: dict[QPushButton, Callable[[], object]] = {}
        row = QHBoxLayout(self)
        row.setContentsMargins(10, 4, 10, 4)
        row.addWidget(self.words, 1)
        for button in (self.corrected, self.changed, self.neither):
            button.clicked.connect(lambda _on=False, b=button: self._answer(b))
            row.addWidget(button)
        self.hide()

    def ask(
        self, words: str, corrected: Callable[[], object], changed: Callable[[], object], neither: Callable[[], object]
    ) -> None:
        """Ask, and do what is answered."""
        self._answers = {self.corrected: corrected, self.changed: changed, self.neither: neither}
        self.words.setText(words)
        self.show()
        self.changed.setFocus()

    def put_away(self) -> None:
        """Nothing is asked any more: another cut is looked at."""
        self._answers = {}
        self.hide()

    def _answer(self, button: QPushButton) -> None:
        do = self._answers.get(button)
        self.put_away()
        if do is not None:
            do()

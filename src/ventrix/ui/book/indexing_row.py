"""How far the book's index has come; kept up with what this window and others write while it is looked at."""

from __future__ import annotations

from typing import Final

from PySide6.QtCore import QTimer, Signal
from PySide6.QtWidgets import QHBoxLayout, QLabel, QPushButton, QWidget

from ventrix.records.book.index import Index
from ventrix.ui.book.indexer import Indexer
from ventrix.ui.open_book import OpenBook
from ventrix.words import tr

LOOKS_EVERY: Final = 1500  # ms


class IndexingRow(QWidget):
    """`went_on` when more is found than before."""

    went_on = Signal()

    def __init__(self, open_book: OpenBook, index: Index) -> None:
        super().__init__()
        self._open_book = open_book
        self._seen: tuple[tuple[str, int], ...] = ()
        self.progress = QLabel()
        self.progress.setObjectName("caption")
        self.stop_button = QPushButton(tr("Stop"))
        self.stop_button.clicked.connect(self.give_up)
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.addWidget(self.progress, 1)
        row.addWidget(self.stop_button)
        self.indexer = Indexer(index)
        self.indexer.went_on.connect(self.went_on)
        self.indexer.told.connect(self._tell)
        self.indexer.refused.connect(open_book.not_kept)
        self._watch = QTimer(self)
        self._watch.setInterval(LOOKS_EVERY)
        self._watch.timeout.connect(self._look_for_changes)

    def start(self) -> None:
        self._watch.start()
        self.indexer.start()

    def stop(self) -> int:
        """Returns how many jobs are still to be read."""
        self._watch.stop()
        return self.indexer.stop()

    def give_up(self) -> None:
        """Stop reading jobs; what others write is still looked for."""
        self._open_book.say(tr("Stopped: {} jobs are found by their titles alone.", self.indexer.stop()))

    def _tell(self, words: str) -> None:
        self.stop_button.setVisible(bool(words))
        self.progress.setText(words)

    def _look_for_changes(self) -> None:
        """Take in what this window and others wrote."""
        try:
            now = tuple(sorted(self._open_book.book.revisions().items()))
        except Exception:  # the window's own watch says so
            return
        if now != self._seen:
            self._seen = now
            if not self.indexer.active:
                self.indexer.start()
                self.went_on.emit()

"""Brings the book's index up to date, one job between two breaths of the window."""

from __future__ import annotations

from typing import Final

from PySide6.QtCore import QObject, QTimer, Signal

from ventrix.records.bad_input import BookError
from ventrix.records.book.index import Index
from ventrix.words import tr

EVERY: Final = 25  # jobs after which what is on screen is brought up to date too


class Indexer(QObject):
    """`went_on` after some jobs and at the end; `told` says how far it is, empty when it is done."""

    went_on = Signal()
    told = Signal(str)
    done = Signal()
    refused = Signal(str)

    def __init__(self, index: Index) -> None:
        super().__init__()
        self._index = index
        self._behind: list[str] = []
        self._all = 0
        self._at_one = False
        self._timer = QTimer(self)
        self._timer.setInterval(0)
        self._timer.timeout.connect(self._one)

    @property
    def active(self) -> bool:
        return self._timer.isActive()

    def start(self) -> None:
        """Look what is behind, and begin."""
        try:
            self._behind = self._index.behind()
        except BookError as error:
            self._behind = []
            self.refused.emit(str(error))
        self._all = len(self._behind)
        self._tell()
        if self._behind:
            self._timer.start()

    def read_all(self) -> None:
        """All that is behind, at once."""
        self.start()
        while self._behind:
            self._one()

    def stop(self) -> int:
        """Stop; how many jobs are left as they were."""
        self._timer.stop()
        left = len(self._behind)
        self._behind.clear()
        self._tell()
        return left

    def _one(self) -> None:
        if self._at_one:  # a server is slow: the clock of this goes on meanwhile
            return
        if not self._behind:
            self._timer.stop()
            return
        self._at_one = True
        try:
            self._index.renew(self._behind.pop())
        except BookError as error:
            self._behind.clear()
            self.refused.emit(str(error))
        finally:
            self._at_one = False
        if not self._behind:
            self._timer.stop()
            self.done.emit()
        if len(self._behind) % EVERY == 0:
            self.went_on.emit()
        self._tell()

    def _tell(self) -> None:
        left = len(self._behind)
        self.told.emit(tr("reading {} of {} jobs again", self._all - left, self._all) if left > 1 else "")

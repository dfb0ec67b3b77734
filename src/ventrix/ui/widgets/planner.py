"""Calculates beside the window: a plan or a filling runs in a thread of its own; an answer out of date is let go of."""

from __future__ import annotations

import logging
from collections.abc import Callable, Hashable

from PySide6.QtCore import QObject, QRunnable, QThreadPool, Signal

from ventrix.core.quantity.refused import Refused
from ventrix.ui.log_file import log_path
from ventrix.words import tr

log = logging.getLogger("ventrix")


class _Signals(QObject):
    done = Signal(int, object)


class _Work(QRunnable):
    def __init__(self, number: int, make: Callable[[], object], signals: _Signals) -> None:
        super().__init__()
        self._number, self._make, self._signals = number, make, signals

    def run(self) -> None:
        found: object
        try:
            found = self._make()
        except Refused as error:
            found = error
        except Exception:  # told in the room: a thread's own error would end the program
            log.exception("the calculation failed")
            found = tr("this failed; {} says why, and nothing is lost", log_path())
        self._signals.done.emit(self._number, found)


class Planner(QObject):
    """`planned` brings what was asked for, or the refusal that says why there is none."""

    planned = Signal(object)

    def __init__(self) -> None:
        super().__init__()
        self._pool = QThreadPool(self)
        self._pool.setMaxThreadCount(1)
        self._number = 0
        self._signals = _Signals()
        self._signals.done.connect(self._took)
        self.busy = False
        self._asked: Hashable = None
        self._about: object = None
        self._known: dict[Hashable, object] = {}

    def ask(self, make: Callable[[], object], about: object = None, of: Hashable = None) -> None:
        """Calculate; whatever was asked before is no longer wanted. Asked again `of` the same part of what it is
        `about`, it is known; what is about something else is forgotten."""
        self.stop()
        if about is not self._about:
            self._about, self._known = about, {}
        self._asked = of
        if of in self._known:
            self.planned.emit(self._known[of])
            return
        self.busy = True
        self._pool.start(_Work(self._number, make, self._signals))

    def stop(self) -> None:
        """Let go of what is being planned."""
        self._number += 1
        self._pool.clear()
        self.busy = False

    def close(self) -> None:
        """Wait for the thread to end."""
        self.stop()
        self._pool.waitForDone(5000)

    def _took(self, number: int, found: object) -> None:
        if number == self._number:
            self.busy = False
            if self._asked is not None and not isinstance(found, str):  # a failure is tried again
                self._known[self._asked] = found
            self.planned.emit(found)

"""Nothing ends silently: what went wrong is said at the foot and written to a log in the state folder."""

from __future__ import annotations

import faulthandler
import logging
import sys
import threading
from logging.handlers import RotatingFileHandler
from types import TracebackType
from typing import IO

from ventrix.core.quantity.refused import Refused
from ventrix.records.bad_input import BookError, sentence_of
from ventrix.ui.log_file import log_path
from ventrix.ui.open_book import OpenBook
from ventrix.words import tr

log = logging.getLogger("ventrix")
LARGEST = 1024 * 1024  # bytes of a log before it begins anew


class Safety:
    """Takes what nobody caught: the book's refusals to the foot, everything else to the log and the foot."""

    def __init__(self) -> None:
        self._open_book: OpenBook | None = None
        self._had = sys.excepthook, threading.excepthook
        self._handler: logging.Handler | None = None
        self._faults: IO[str] | None = None

    def install(self) -> None:
        """Watch from now on. A state folder that cannot be written leaves standard error."""
        try:
            path = log_path()
            path.parent.mkdir(parents=True, exist_ok=True)
            self._handler = RotatingFileHandler(path, maxBytes=LARGEST, backupCount=2, encoding="utf-8", delay=True)
            self._faults = path.with_suffix(".fault").open("w", encoding="utf-8")
            faulthandler.enable(self._faults)
        except OSError:
            self._handler = logging.StreamHandler()
        self._handler.setFormatter(logging.Formatter("%(asctime)s %(levelname)s %(message)s"))
        log.addHandler(self._handler)
        log.propagate = False
        sys.excepthook = self.caught
        threading.excepthook = lambda given: self.caught(given.exc_type, given.exc_value, given.exc_traceback)

    def watch(self, open_book: OpenBook) -> None:
        """Say at this window's foot what is caught."""
        self._open_book = open_book

    def remove(self) -> None:
        """Put back what was there before."""
        sys.excepthook, threading.excepthook = self._had
        if self._handler is not None:
            log.removeHandler(self._handler)
            self._handler.close()
        if self._faults is not None:
            faulthandler.disable()
            self._faults.close()

    def caught(self, kind: type[BaseException], error: BaseException | None, trace: TracebackType | None) -> None:
        """An exception that nobody caught: an edit that the book refused, or a fault of ours."""
        if issubclass(kind, KeyboardInterrupt) or error is None:
            self._had[0](kind, error or kind(), trace)
            return
        if isinstance(error, BookError | Refused):
            log.warning("%s", error)
            self._say(sentence_of(error))
            return
        log.error("not caught", exc_info=(kind, error, trace))
        where = log_path() if isinstance(self._handler, RotatingFileHandler) else tr("standard error")
        self._say(tr("Something went wrong ({}); what was kept is on disk. The log has it: {}", kind.__name__, where))

    def _say(self, sentence: str) -> None:
        if self._open_book is None or threading.current_thread() is not threading.main_thread():
            print(tr("ventrix: {}", sentence), file=sys.stderr)
        else:
            self._open_book.not_kept(sentence)

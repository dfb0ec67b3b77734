"""Work that waits for a server, done in a thread of its own: the window draws on, and keys come when it is over."""

from __future__ import annotations

import time
from collections.abc import Callable
from concurrent.futures import Future, ThreadPoolExecutor, wait
from typing import Any, Final, TypeVar

from PySide6.QtCore import QEventLoop, QObject, Qt, QThread, QTimer, Signal

from ventrix.words import tr

AT_ONCE: Final = 0.03  # s that an answer is waited for without any of it: most come sooner
HELD: Final = 0.1  # s of such waits after which the window draws in between
SAYS_AFTER: Final = 1000  # ms of waiting before it is said
SENTENCE: Final = tr("Waiting for the book's server.")
Found = TypeVar("Found")


class Aside(QObject):
    """Calls work and gives back what it finds, or raises what it raised."""

    _over = Signal(object, object)  # what was done later, and who is told

    def __init__(self, says: Callable[[str], None]) -> None:
        super().__init__()
        self._says = says
        self._closed = False
        self._held, self._counting = 0.0, False  # s that the window was held for since it last drew
        self._threads = ThreadPoolExecutor(4, thread_name_prefix="book")
        self._over.connect(self._tell, Qt.ConnectionType.QueuedConnection)

    def __call__(self, work: Callable[[], Found]) -> Found:
        """Do it now, and come back with it. Called in another thread than the window's it is simply done."""
        if self._closed or QThread.currentThread() is not self.thread():
            return work()
        future = self._threads.submit(work)
        began = time.monotonic()
        done = wait([future], AT_ONCE).done
        self._held += time.monotonic() - began
        if not self._counting:
            self._counting = True
            QTimer.singleShot(0, self, self._count_anew)
        if not done or self._held > HELD:  # many quick answers in a row hold the window as one slow one does
            self._live_on_until(future)
        return future.result()

    def _count_anew(self) -> None:
        self._held, self._counting = 0.0, False

    def _live_on_until(self, future: Future[Found]) -> None:
        loop = QEventLoop()
        patience = QTimer()
        patience.setSingleShot(True)
        patience.timeout.connect(lambda: self._says(SENTENCE))
        patience.start(SAYS_AFTER)
        future.add_done_callback(lambda done: self._over.emit(done, lambda _done: loop.quit()))
        loop.exec(QEventLoop.ProcessEventsFlag.ExcludeUserInputEvents)
        patience.stop()

    def _tell(self, future: Future[Any], then: Callable[[Future[Any]], None]) -> None:
        if not self._closed and not future.cancelled():
            then(future)

    def later(self, work: Callable[[], Found], then: Callable[[Future[Found]], None]) -> None:
        """Do it and go on; `then` is called in the window's thread when it is over."""
        self._threads.submit(work).add_done_callback(lambda future: self._over.emit(future, then))

    def close(self) -> None:
        """What has not begun is left undone; what has is waited for."""
        self._closed = True
        self._threads.shutdown(cancel_futures=True)

"""The demo's earlier jobs, put into its book once its first picture stands, one between two breaths of the window."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from datetime import date
from functools import partial

from PySide6.QtCore import QObject, QTimer

from ventrix.records.bad_input import BookError
from ventrix.records.book.book import Book
from ventrix.ui.window.main_window import MainWindow


class DemoShelf(QObject):
    """Fills the shelf of a window's book, then has the window read what it says. Ends with the window."""

    def __init__(self, window: MainWindow) -> None:
        super().__init__(window)
        self._window = window
        self._left = _earlier(window.open_book.book)
        self._timer = QTimer(self)
        self._timer.setInterval(0)
        self._timer.timeout.connect(self._put_one_in)

    def start(self) -> None:
        self._timer.start()

    def put_all_in(self) -> None:
        """At once, and read: for pictures, which show the whole book."""
        for put_in in self._left:
            put_in()
        self._window.indexer.read_all()

    def _put_one_in(self) -> None:
        put_in = None if self._window.closed else next(self._left, None)
        try:
            if put_in is not None:
                put_in()
                return
        except BookError as error:
            self._window.open_book.not_kept(str(error))
        self._timer.stop()
        if not self._window.closed:
            self._window.indexer.start()


def _earlier(book: Book) -> Iterator[Callable[[], object]]:
    """What puts each of them in; a job is made when it is asked for."""
    from ventrix.demo.shelf import demo_claim, shelf  # late: the first picture needs none of them
    from ventrix.demo.whole_head import whole_head

    for job in shelf(date.today()):
        yield partial(book.add_job, job)
    yield partial(book.add_job, whole_head(date.today()))
    yield partial(book.write, (None, demo_claim()))

"""A window on a server's book: it lives while the server is slow, and what other stations write comes in."""

from __future__ import annotations

import threading
from collections.abc import Callable
from concurrent.futures import Future
from dataclasses import replace
from pathlib import Path

import pytest
from PySide6.QtCore import QEventLoop, QTimer

from tests.ui.stand_in import Open
from ventrix.demo.job import demo_benches, demo_job
from ventrix.records.bad_input import InputError
from ventrix.records.book.book import Book
from ventrix.ui import aside as of_aside
from ventrix.ui.aside import Aside
from ventrix.ui.window.main_window import MainWindow
from ventrix.workspace.workspace import Workspace

TICKS = 10  # of the window's clock that the server is silent for


@pytest.fixture
def window(open_window: Open, postgres_url: str) -> MainWindow:
    with Book.open(postgres_url) as book:
        book.add_job(demo_job(), benches=demo_benches())
    return open_window(at=postgres_url)


def silent(book: Book, window: MainWindow) -> tuple[list[bool], Callable[[], None]]:
    """A server that answers nothing until the window's clock has ticked so often: whether it had, each time; and what
    makes it quick again."""
    lived: list[bool] = []
    ticked, quick = threading.Event(), threading.Event()
    clock, ticks = QTimer(window), [0]

    def tick() -> None:
        ticks[0] += 1
        if ticks[0] % TICKS == 0:
            ticked.set()

    clock.timeout.connect(tick)
    clock.start(5)

    def hold(*_asked: object) -> None:
        ticked.clear()
        if not quick.is_set():
            lived.append(ticked.wait(20))

    assert book.store.line is not None
    real = book.store.line.aside

    def slow(work: Callable[[], object]) -> object:
        def later() -> object:
            hold()
            return work()

        return real(later)

    book.store.line.aside = slow

    def be_quick() -> None:
        quick.set()
        ticked.set()

    return lived, be_quick


def test_the_window_lives_while_the_server_is_slow(window: MainWindow) -> None:
    """Every question and the commit too: the clock of the window goes on through each of them."""
    open_book = window.open_book
    space = open_book.workspace
    assert space is not None
    lived, be_quick = silent(open_book.book, window)
    space.apply("title", replace(space.job, title="Slowly kept"))
    assert len(lived) > 3 and all(lived)
    assert space.job.title == "Slowly kept"
    be_quick()


def test_many_quick_answers_hold_the_window_no_longer_than_one(window: MainWindow, monkeypatch) -> None:  # type: ignore[no-untyped-def]
    """Each comes at once, and the window draws in between all the same."""
    monkeypatch.setattr(of_aside, "HELD", 0.0)
    lived: list[QEventLoop] = []
    real = QEventLoop.exec
    monkeypatch.setattr(QEventLoop, "exec", lambda loop, *flags: (lived.append(loop), real(loop, *flags))[1])
    window.open_book.book.load(demo_job().id)
    assert len(lived) > 5


def test_what_another_station_writes_comes_in_without_a_wait(window: MainWindow, qtbot, postgres_url: str) -> None:  # type: ignore[no-untyped-def]
    with Book.open(postgres_url) as book:
        there = Workspace.open(book, demo_job().id)
        there.apply("title", replace(there.job, title="From the other bench"))
    qtbot.waitUntil(lambda: "From the other bench" in window.windowTitle())


def test_an_answer_that_an_edit_of_ones_own_has_overtaken_says_nothing(window: MainWindow, monkeypatch) -> None:  # type: ignore[no-untyped-def]
    open_book = window.open_book
    space = open_book.workspace
    assert space is not None
    open_book._watch.stop()
    answers: list[Callable[[Future[tuple[bool, bool]]], None]] = []
    monkeypatch.setattr(open_book.aside, "later", lambda _work, then: answers.append(then))
    open_book._asked = False
    open_book.look_for_changes()
    open_book.look_for_changes()  # one question at a time
    space.apply("title", replace(space.job, title="My own"))
    late: Future[tuple[bool, bool]] = Future()
    late.set_result((True, True))
    (answer,) = answers
    answer(late)
    assert "another window" not in open_book.last_said + space.said


def test_an_address_is_tried_while_the_window_lives(window: MainWindow, monkeypatch) -> None:  # type: ignore[no-untyped-def]
    sheet = window.sheets.get("station")
    asked_in: list[threading.Thread] = []

    def refused(_where: Path | str) -> Book:
        asked_in.append(threading.current_thread())
        raise InputError("the database cannot be reached: it does not answer", file="there")

    monkeypatch.setattr("ventrix.ui.book.station_sheet.Book.open", refused)
    sheet.open()
    sheet.where.setText("postgresql://there/heads")
    sheet.take()
    assert "does not answer" in sheet.problem.text()
    assert asked_in[0] is not threading.main_thread()


def test_a_long_wait_is_said_and_what_is_raised_is_raised_here(styled, monkeypatch) -> None:  # type: ignore[no-untyped-def]
    monkeypatch.setattr(of_aside, "SAYS_AFTER", 0)
    said: list[str] = []
    told = threading.Event()
    aside = Aside(lambda sentence: (said.append(sentence), told.set())[0])

    def fails() -> None:
        assert told.wait(20)
        raise InputError("no")

    with pytest.raises(InputError, match="no"):
        aside(fails)
    assert said == [of_aside.SENTENCE]
    aside.close()
    assert aside(lambda: 3) == 3

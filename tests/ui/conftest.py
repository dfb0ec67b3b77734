"""The real window, offscreen, with the demo or an empty book."""

from __future__ import annotations

import shutil
import sqlite3
from collections.abc import Callable, Iterator
from datetime import date
from pathlib import Path
from typing import Final

import pytest
import shiboken6
from PySide6.QtCore import QEvent, QSettings, Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QApplication

from tests.ui.stand_in import Open, StandIn
from ventrix.demo.job import demo_benches, demo_job
from ventrix.demo.whole_head import whole_head
from ventrix.records.book.book import Book
from ventrix.ui.look import theme
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets import pedal as pedal_part
from ventrix.ui.window.main_window import MainWindow
from ventrix.workspace.workspace import Workspace

DEMO: Final = demo_job().id
HEAD: Final = "demo-whole-head"


@pytest.fixture(scope="session")
def styled(qapp_cls) -> QApplication:  # type: ignore[no-untyped-def]
    """The application with fonts and the dark theme; set up once, since restyling is slow."""
    app = QApplication.instance() or qapp_cls([])
    assert isinstance(app, QApplication)
    app.setStyle("Fusion")
    theme.load_fonts()
    theme.apply(app, "dye")
    return app


def whole(path: Path) -> Path:
    """A book that is all in its one file, to be copied."""
    raw = sqlite3.connect(path)
    raw.execute("PRAGMA wal_checkpoint(TRUNCATE)")
    raw.close()
    return path


@pytest.fixture(scope="session")
def demo_book(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """A book with the demo job and its benches, to be copied: filling one anew costs a quarter of a window."""
    path: Path = tmp_path_factory.mktemp("demo") / "book.sqlite"
    with Book.open(path) as book:
        book.add_job(demo_job(), benches=demo_benches())
    return whole(path)


@pytest.fixture(scope="session")
def head_book(demo_book: Path) -> Path:
    """The same with a whole head beside it."""
    path = demo_book.with_name("head.sqlite")
    shutil.copy(demo_book, path)
    with Book.open(path) as book:
        book.add_job(whole_head(date.today()))
    return whole(path)


@pytest.fixture
def quick_pedal(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(pedal_part, "HOLD", 120)


@pytest.fixture
def foot(open_window: Open, qtbot, quick_pedal: None) -> Iterator[tuple[MainWindow, StandIn, Callable[[str], None]]]:  # type: ignore[no-untyped-def]
    """The window on a new job, a stand-in bench, and a foot that presses, holds or presses twice."""
    window = open_window(demo=False)
    window.files.new_job()
    window.go_to(1)
    window.rooms["flow"].pedal._listening = lambda: True  # offscreen windows are never the active one
    key = window.rooms["flow"].pedal.key

    def send(kind: QEvent.Type, *, repeat: bool = False) -> None:
        event = QKeyEvent(kind, key, Qt.KeyboardModifier.NoModifier, "", repeat)
        QApplication.sendEvent(QApplication.focusWidget() or window, event)

    def step(how: str) -> None:
        qtbot.wait(pedal_part.DOUBLE + 30)
        for i in range(2 if how == "twice" else 1):
            if i:
                qtbot.wait(20)
            send(QEvent.Type.KeyPress)
            send(QEvent.Type.KeyPress, repeat=True)  # a held key repeats itself: that is no second press
            if how == "hold":
                qtbot.wait(200)
            send(QEvent.Type.KeyRelease)

    yield window, StandIn(window), step
    window.open_book.bench.connected = False


@pytest.fixture
def open_window(
    styled: QApplication, qtbot, tmp_path: Path, request: pytest.FixtureRequest, demo_book: Path
) -> Iterator[Callable[..., MainWindow]]:  # type: ignore[no-untyped-def]
    """Opens the window; `demo` with the demo job in it; `head` on a whole head beside it; `room` in another room than
    Compare; `at` another book, a server's too, that has the demo job."""
    shells: list[MainWindow] = []

    def make(
        *, demo: bool = True, head: bool = False, room: str = "", at: Path | str = tmp_path / "book.sqlite"
    ) -> MainWindow:
        if demo and isinstance(at, Path) and not at.exists():
            shutil.copy(request.getfixturevalue("head_book") if head else demo_book, at)
        book = Book.open(at)
        settings = QSettings(str(tmp_path / "settings.ini"), QSettings.Format.IniFormat)
        if room:
            settings.setValue("room", room)
        space = None
        if demo:
            space = Workspace.open(book, HEAD if head else DEMO)
        open_book = OpenBook(book, space, settings)
        window = MainWindow(open_book)
        window.show()
        qtbot.waitExposed(window)
        shells.append(window)
        return window

    yield make
    for window in shells:
        window.close()
        manual = window.manual
        for each in (window, manual):
            if each is not None:
                shiboken6.delete(each)
    if theme.current().name != "dye":
        theme.apply(styled, "dye")
    left = [w for w in styled.topLevelWidgets() if w.isVisible()]
    assert not left, f"windows left open: {left}"

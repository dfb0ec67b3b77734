"""The real window, offscreen, with the demo or an empty book."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from pathlib import Path

import pytest
import shiboken6
from PySide6.QtCore import QSettings
from PySide6.QtWidgets import QApplication

from ventrix.demo.make import demo_benches, demo_job
from ventrix.records.book import Book
from ventrix.ui import theme
from ventrix.ui.session import Session
from ventrix.ui.shell import Shell
from ventrix.workspace import Workspace


@pytest.fixture(scope="session")
def styled(qapp_cls) -> QApplication:  # type: ignore[no-untyped-def]
    """The application with fonts and the dark theme; set up once, since restyling is slow."""
    app = QApplication.instance() or qapp_cls([])
    assert isinstance(app, QApplication)
    app.setStyle("Fusion")
    theme.load_fonts()
    theme.apply(app, "dye")
    return app


@pytest.fixture
def open_window(styled: QApplication, qtbot, tmp_path: Path) -> Iterator[Callable[..., Shell]]:  # type: ignore[no-untyped-def]
    """Opens the window; `demo` with the demo job in it."""
    shells: list[Shell] = []

    def make(*, demo: bool = True) -> Shell:
        book = Book.open(tmp_path / "book.sqlite")
        settings = QSettings(str(tmp_path / "settings.ini"), QSettings.Format.IniFormat)
        space = None
        if demo:
            book.add_job(demo_job(), benches=demo_benches())
            space = Workspace.open(book, demo_job().id)
        session = Session(book, space, settings)
        shell = Shell(session)
        shell.show()
        qtbot.waitExposed(shell)
        shells.append(shell)
        return shell

    yield make
    for shell in shells:
        shell.close()
        manual = shell.manual
        for window in (shell, manual):
            if window is not None:
                shiboken6.delete(window)
    if theme.current().name != "dye":
        theme.apply(styled, "dye")
    left = [w for w in styled.topLevelWidgets() if w.isVisible()]
    assert not left, f"windows left open: {left}"

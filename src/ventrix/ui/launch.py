"""Starting the program: book, job, fonts, theme, window; or pictures of rooms, and out."""

from __future__ import annotations

import os
import sys
import tempfile
from contextlib import ExitStack
from dataclasses import dataclass, replace
from logging import Logger
from pathlib import Path
from typing import TYPE_CHECKING

from ventrix.records.bad_input import InputError
from ventrix.words import tr

if TYPE_CHECKING:
    from PySide6.QtCore import QElapsedTimer, QSettings
    from PySide6.QtGui import QIcon
    from PySide6.QtWidgets import QApplication

    from ventrix.ui.open_book import OpenBook
    from ventrix.ui.window.frame import Frame
    from ventrix.ui.window.main_window import MainWindow

MOST_WAIT = 20_000  # ms for a room that is still reckoning


@dataclass(frozen=True, slots=True)
class Start:
    """What the command line asked for."""

    file: Path | None = None
    demo: bool = False
    shots: tuple[str, ...] = ()
    theme: str | None = None
    book: str | None = None  # a file or URL in place of the user's own


def run(start: Start) -> int:
    """Open the window and stay until it is closed, or render the pictures asked for. Returns the exit code."""
    shots = [_shot(text) for text in start.shots]
    if start.theme is not None and start.theme not in ("dye", "paper"):
        raise InputError(tr("'{}' is not dye or paper", start.theme), field="--theme")
    if start.file is not None and not start.file.exists():
        raise InputError(tr("there is no such file or command"), file=str(start.file))
    while True:
        with ExitStack() as closing:
            code, open_book = _run(start, shots, closing)
        path, day = open_book.book.path, open_book.put_back_to
        if path is None or not day:
            return code
        _put_back(path, day)
        start = replace(start, file=None)  # what was brought in is in the book, or was put back with it


def _put_back(path: Path, day: str) -> None:
    """The book as it was on a day; the window opens on it. Why not, on standard error."""
    from datetime import date

    from ventrix.records.book.backups import restore

    try:
        kept = restore(path, day, date.today())
    except InputError as error:
        print(tr("ventrix: {}", error), file=sys.stderr)
    else:
        print(tr("{} is as on {}; what it was lies at {}", path, day, kept))


def _shot(text: str) -> tuple[str, Path]:
    from ventrix.ui.window.rooms import ROOMS

    room, mark, path = text.partition("=")
    known = [door.key for door in ROOMS]
    if not mark or room not in known or not path:
        raise InputError(tr("'{}' is not ROOM=PATH with a room of {}", text, ", ".join(known)), field="--shot")
    return room, Path(path)


def _run(start: Start, shots: list[tuple[str, Path]], closing: ExitStack) -> tuple[int, OpenBook]:
    if not (os.environ.get("DISPLAY") or os.environ.get("WAYLAND_DISPLAY") or os.environ.get("QT_QPA_PLATFORM")):
        if not shots:
            raise InputError("there is no display: start a desktop open_book, or use --shot or the commands")
        os.environ["QT_QPA_PLATFORM"] = "offscreen"
    from PySide6.QtCore import QSettings, Qt
    from PySide6.QtWidgets import QApplication

    from ventrix.ui.look import theme

    QApplication.setAttribute(Qt.ApplicationAttribute.AA_DontUseNativeDialogs)  # they follow the theme, as all does
    app = QApplication.instance() or QApplication(sys.argv[:1])
    assert isinstance(app, QApplication)
    app.setApplicationName("ventrix")
    app.setDesktopFileName("org.ventrix.Ventrix")
    app.setWindowIcon(_icon())
    app.setStyle("Fusion")
    throw_away = start.demo or (bool(shots) and start.book is None)
    if throw_away:
        folder = Path(closing.enter_context(tempfile.TemporaryDirectory(prefix="ventrix-demo-")))
        settings = QSettings(str(folder / "settings.ini"), QSettings.Format.IniFormat)
    else:
        folder = None
        settings = QSettings(QSettings.Format.IniFormat, QSettings.Scope.UserScope, "ventrix", "ventrix")
    updated = not throw_away and _is_updated(settings)
    theme.load_fonts()
    theme.apply(app, start.theme or str(settings.value("theme", "dye")))
    frame = None if shots else _frame(settings)
    from ventrix.ui.window.main_window import MainWindow
    from ventrix.ui.window.safety import Safety

    safety = Safety()
    safety.install()
    closing.callback(safety.remove)
    open_book = _open_book(start, folder, settings)
    safety.watch(open_book)
    window = MainWindow(open_book)
    closing.callback(open_book.close)
    if start.file is not None and not _open_file(window, start.file):
        raise InputError(open_book.last_said or tr("could not be opened"), file=start.file.name)
    window.show()
    if frame is not None:
        frame.close()
    if open_book.opening_failed:
        open_book.not_kept(open_book.opening_failed)
    if start.demo:
        from ventrix.ui.window.demo_shelf import DemoShelf

        earlier = DemoShelf(window)
        if shots:
            earlier.put_all_in()
        else:
            earlier.start()
    if updated and not shots:
        window.open_manual("changes")
    if shots:
        for room, path in shots:
            _render(app, window, room, path)
        window.close()
        return 0, open_book
    return _stay(app), open_book


def _stay(app: QApplication) -> int:
    """Until the window is closed."""
    return int(app.exec())


def _is_updated(settings: QSettings) -> bool:
    """Whether another version was used here before; asked once for each."""
    from importlib.metadata import version

    now = version("ventrix")
    updated = bool(settings.allKeys()) and settings.value("version", "") != now
    settings.setValue("version", now)
    return updated


def _frame(settings: QSettings) -> Frame:
    """Something to see at once: the book, and all that reads it, come after."""
    from PySide6.QtWidgets import QApplication

    from ventrix.ui.window.frame import Frame

    frame = Frame(settings)
    frame.show()
    QApplication.processEvents()
    return frame


def _open_book(start: Start, folder: Path | None, settings: QSettings) -> OpenBook:
    """The book and job to begin with: the demo's, or the user's own where it was left."""
    from ventrix.core.judging.opening import try_opening
    from ventrix.records.book.book import Book
    from ventrix.records.book.store import as_location, default_book_path
    from ventrix.ui.open_book import OpenBook
    from ventrix.ui.window.safety import log
    from ventrix.workspace.workspace import Workspace

    if folder is not None:
        book = Book.open(folder / "book.sqlite")
        if not start.demo:
            return OpenBook(book, None, settings)
        from ventrix.demo.job import demo_benches, demo_job, keep_demo_scans

        job = demo_job()
        book.add_job(job, benches=demo_benches())
        keep_demo_scans(book.photo_folder)
        space = Workspace(book, job)
        space.look_at(job.ports[0].cuts[2].id)  # the cut that gains high and loses low tells the most
        return OpenBook(book, space, settings, demo=True)
    where = start.book or str(settings.value("book", "")) or default_book_path()
    book = Book.open(as_location(where))
    shared = str(settings.value("photo_folder", ""))
    book.shared_photos = Path(shared) if shared else None
    if book.path is not None and not book.read_only:
        _back_up_today(book.path, log)
    known = [e.id for e in book.jobs()]
    last = str(settings.value("job", ""))
    chosen = last if last in known else (known[-1] if known else None)
    if chosen is None:
        return OpenBook(book, None, settings)
    try:
        space = Workspace.open(book, chosen)
        try_opening(space.job, space.benches)
        return OpenBook(book, space, settings)
    except Exception:  # whatever is wrong with one job, the window opens without it
        log.exception("the last job could not be opened")
        open_book = OpenBook(book, None, settings)
        open_book.opening_failed = tr(
            "The last job could not be opened; the log says why. Open another, or bring one in."
        )
        return open_book


def _icon() -> QIcon:
    """The program's own icon, from the package."""
    from importlib import resources

    from PySide6.QtGui import QIcon, QPixmap

    icon = QIcon()
    for size in (16, 32, 48, 128, 256):
        data = resources.files("ventrix").joinpath(f"desktop/icons/ventrix-{size}.png").read_bytes()
        pixmap = QPixmap()
        pixmap.loadFromData(data)
        icon.addPixmap(pixmap)
    return icon


def _back_up_today(path: Path, log: Logger) -> None:
    """The day's copy of the book; that it could not be made is no reason not to open."""
    from datetime import date

    from ventrix.records.book.backups import back_up

    try:
        back_up(path, date.today())
    except InputError as error:
        log.warning("%s", error)


def _open_file(window: MainWindow, path: Path) -> bool:
    """A job document is brought in and opened; a run table is hung from a new job's first cut."""
    from ventrix.records.files.run_table import is_run_table

    if is_run_table(path):
        window.files.new_job()
    return bool(window.files.bring_in(path))


def _render(app: QApplication, window: MainWindow, room: str, path: Path) -> None:
    """One room at 1280x800 into a PNG."""
    from PySide6.QtCore import QElapsedTimer, QThread

    window.resize(1280, 800)
    window.go_to_named(room)
    clock = QElapsedTimer()
    clock.start()
    while clock.elapsed() < 400:
        app.processEvents()
    while window.room.busy and clock.elapsed() < MOST_WAIT:
        app.processEvents()
        QThread.msleep(10)  # its thread wants the interpreter
    clock.restart()
    while clock.elapsed() < 100:  # what came in is laid out
        app.processEvents()
    if room == "flow" and window.open_book.bench.is_simulated:
        _let_bench_speak(app, window, clock)
    if not window.grab().save(str(path), "PNG"):
        raise InputError(tr("the picture cannot be written"), file=str(path))


def _let_bench_speak(app: QApplication, window: MainWindow, clock: QElapsedTimer) -> None:
    """Open the valve and wait until the far view shows a settled reading."""
    from ventrix.bench.procedure.flow_procedure import Phase
    from ventrix.ui.window.rooms import FLOW

    flow = window.rooms.of(FLOW)
    flow.ladder.rung_chosen.emit(7)
    flow.hands.toggle_blower()
    flow.hands.open_to_rung()
    clock.restart()
    while clock.elapsed() < 12_000 and flow.hand.test.phase is not Phase.KEEP:
        app.processEvents()

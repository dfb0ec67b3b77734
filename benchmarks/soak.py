"""The true window used for a long while: nothing of it is left behind, and its memory stands still.

``python -m benchmarks.soak [SHARE]`` opens and closes 200 jobs, changes rooms 2,000 times, opens 400 sheets, and takes
500 edits back and makes them again (all of it times SHARE), after a first round of each that makes what is made once.
Printed: widgets, threads, timers and resident memory before and after (aims: none left, memory by under 10 %).
"""

from __future__ import annotations

import ctypes
import gc
import sys
import tempfile
import threading
from collections.abc import Callable
from dataclasses import dataclass, replace
from pathlib import Path

from ventrix.demo.job import demo_benches, demo_job
from ventrix.records.book.book import Book

SHEETS = ("cut", "fault", "wall", "slip", "claim", "seat", "scan", "casting", "stage", "quote", "job_parts", "route")
JOBS = 8  # in the book; opened one after the other


@dataclass(frozen=True, slots=True)
class Left:
    """What stands in the program: widgets, threads, timers, resident memory [MiB]."""

    widgets: int
    threads: int
    timers: int
    memory: float


def resident() -> float:
    """Resident memory [MiB]."""
    lines = Path("/proc/self/status").read_text(encoding="ascii").splitlines()
    return int(next(line for line in lines if line.startswith("VmRSS")).split()[1]) / 1024


def soak(folder: Path, share: float) -> tuple[Left, Left]:
    """Use a window on a book of its own; what stood before and after."""
    from PySide6.QtCore import QEvent, QEventLoop, QObject, QSettings, QTimer
    from PySide6.QtWidgets import QApplication

    from ventrix.ui.look import theme
    from ventrix.ui.open_book import OpenBook
    from ventrix.ui.window.main_window import ROOMS, MainWindow
    from ventrix.workspace.workspace import Workspace

    app = QApplication.instance() or QApplication([])
    assert isinstance(app, QApplication)
    theme.load_fonts()
    theme.apply(app, "dye")
    book = Book.open(folder / "book.sqlite")
    for i in range(JOBS):
        book.add_job(_another(i), benches=demo_benches() if i == 0 else ())
    space = Workspace.open(book, "soak-0")
    window = MainWindow(OpenBook(book, space, QSettings(str(folder / "s.ini"), QSettings.Format.IniFormat)))
    window.show()

    def settle(milliseconds: int = 30) -> None:
        loop = QEventLoop()
        QTimer.singleShot(milliseconds, loop.quit)
        loop.exec()

    def now() -> Left:
        for _ in range(3):
            settle(300)
            app.sendPostedEvents(None, QEvent.Type.DeferredDelete)
            gc.collect()
        ctypes.CDLL(None).malloc_trim(0)  # what the allocator keeps by for later is not held
        timers = sum(isinstance(o, QTimer) for w in app.topLevelWidgets() for o in w.findChildren(QObject))
        return Left(len(app.allWidgets()), threading.active_count(), timers, resident())

    def turn(times: int, each: Callable[[int], None]) -> None:
        for n in range(times):
            each(n)
            if n % 10 == 9:
                settle(1)

    def edit(n: int) -> None:
        here = window.open_book.workspace
        assert here is not None
        here.apply(f"note {n}", replace(here.job, note=f"note {n}"))
        assert here.undo() and here.redo() and here.undo()

    def sheet(n: int) -> None:
        window.open_sheet(SHEETS[n % len(SHEETS)])
        window.put_sheet_away()

    def round_of(size: float) -> None:
        turn(max(int(2000 * size), len(ROOMS)), lambda n: window.go_to(n % len(ROOMS)))
        turn(max(int(400 * size), len(SHEETS)), sheet)
        turn(max(int(200 * size), JOBS), lambda n: window.files.open_job(f"soak-{n % JOBS}"))
        turn(max(int(500 * size / 3), 3), edit)
        window.files.open_job("soak-0")
        window.go_to(0)

    round_of(0.03)
    before = now()
    round_of(share)
    after = now()
    window.close()
    book.close()
    return before, after


def _another(number: int):  # type: ignore[no-untyped-def]
    from ventrix.records.files.new_ids import renewed

    return replace(renewed(demo_job()), id=f"soak-{number}", title=f"Job {number}")


def main() -> None:
    share = float(sys.argv[1]) if len(sys.argv) > 1 else 1.0
    with tempfile.TemporaryDirectory() as folder:
        before, after = soak(Path(folder), share)
    for name in ("widgets", "threads", "timers", "memory"):
        was, has = getattr(before, name), getattr(after, name)
        print(f"{name:<10}{was:>10.0f}{has:>10.0f}{100 * (has / was - 1):>+8.1f} %")


if __name__ == "__main__":
    import os

    os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
    main()

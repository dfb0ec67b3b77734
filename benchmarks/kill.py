"""Kill -9 while readings are typed into the true window: what it called kept must be on disk.

``python -m benchmarks.kill [KILLS]``. A child shows the window offscreen, types readings as keys into the Flow room,
and says a figure only when the far view reads KEPT; the parent kills it at a moment of chance, and reads the book.
"""

from __future__ import annotations

import os
import random
import sqlite3
import subprocess
import sys
import tempfile
import threading
import time
from contextlib import closing
from pathlib import Path

from ventrix.core.quantity.units import from_si
from ventrix.records.book.book import Book


def type_readings(path: Path, first: int) -> None:
    """The child: type figures that never come twice until it is killed."""
    from PySide6.QtCore import QSettings, Qt
    from PySide6.QtTest import QTest
    from PySide6.QtWidgets import QApplication

    from ventrix.ui.look import theme
    from ventrix.ui.open_book import OpenBook
    from ventrix.ui.window.main_window import MainWindow
    from ventrix.workspace.workspace import Workspace

    app = QApplication([])
    theme.load_fonts()
    theme.apply(app, "dye")
    book = Book.open(path)
    jobs = book.jobs()
    space = Workspace.open(book, jobs[0].id) if jobs else Workspace.create(book, "Kill me")
    window = MainWindow(OpenBook(book, space, QSettings(str(path.with_suffix(".ini")), QSettings.Format.IniFormat)))
    window.show()
    window.go_to_named("flow")
    room = window.rooms["flow"]
    print("ready", flush=True)
    number = first
    while True:
        for _ in range(12):
            number += 1
            QTest.keyClicks(room.entry, f"{20 + number / 1000:.3f}")
            QTest.keyClick(room.entry, Qt.Key.Key_Return)
            if room.far.far.phase.startswith("KEPT"):
                print(f"{number}", flush=True)
        room.entry.clear()
        room.setFocus()
        QTest.keyClick(room, Qt.Key.Key_M)


def numbers_on_disk(path: Path) -> list[int]:
    """What the book holds, after it was found whole."""
    with closing(sqlite3.connect(path)) as raw:
        assert raw.execute("PRAGMA integrity_check").fetchone() == ("ok",)
    with Book.open(path) as book:
        job = book.load(book.jobs()[0].id)
    return [
        round((from_si(r.flow, "cfm") - 20) * 1000) for run in job.runs() for r in run.readings if r.flow is not None
    ]


def one_life(path: Path, first: int, rng: random.Random) -> list[int]:
    """Start a window, kill it at a moment of chance; the numbers that it called kept."""
    surroundings = os.environ | {"QT_QPA_PLATFORM": "offscreen", "XDG_STATE_HOME": str(path.parent)}
    command = [sys.executable, "-m", "benchmarks.kill", "child", str(path), str(first)]
    with subprocess.Popen(
        command, stdout=subprocess.PIPE, stderr=subprocess.DEVNULL, text=True, env=surroundings
    ) as child:
        assert child.stdout is not None
        assert child.stdout.readline() == "ready\n"
        said = [int(child.stdout.readline())]  # the machine may be slow: no kill before anything was kept
        killer = threading.Timer(rng.uniform(0.0, 0.7), child.kill)
        killer.start()
        said += [int(line) for line in child.stdout if line.endswith("\n")]
        killer.join()
    return said


def main(kills: int) -> None:
    rng = random.Random(7)
    confirmed: list[int] = []
    lost = twice = 0
    started = time.monotonic()
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "book.sqlite"
        for life in range(kills):
            confirmed += one_life(path, 10_000 * life, rng)
            found = numbers_on_disk(path)
            lost = len(set(confirmed) - set(found))
            twice = len(found) - len(set(found))
        unsaid = len(set(found) - set(confirmed))
    print(f"{kills} kills: {len(confirmed)} readings confirmed, {lost} lost, {twice} twice, "
          f"{unsaid} on disk that were not yet said ({time.monotonic() - started:.0f} s)")  # fmt: skip


if __name__ == "__main__":
    if sys.argv[1:2] == ["child"]:
        type_readings(Path(sys.argv[2]), int(sys.argv[3]))
    else:
        main(int(sys.argv[1]) if len(sys.argv) > 1 else 100)

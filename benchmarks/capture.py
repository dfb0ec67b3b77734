"""Space to row committed and rung drawn, beside a bare commit of such a row: ``python -m benchmarks.capture``."""

from __future__ import annotations

import os
import sqlite3
import statistics
import tempfile
import time
from dataclasses import fields
from pathlib import Path

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")

from PySide6.QtCore import QSettings
from PySide6.QtWidgets import QApplication

from ventrix.bench.procedure.flow_procedure import Kept
from ventrix.bench.procedure.lift_plan import Rung
from ventrix.core.model.run import Reading
from ventrix.demo.job import demo_job
from ventrix.records.book.book import Book
from ventrix.ui.look import theme
from ventrix.ui.open_book import OpenBook
from ventrix.ui.window.main_window import MainWindow
from ventrix.workspace.workspace import Workspace

RUNS, KEPT = 5, 200


def bare_inserts(path: Path, count: int) -> list[float]:
    """Seconds of each committed insert of one row as wide as a reading's."""
    raw = sqlite3.connect(path)
    raw.execute("PRAGMA journal_mode=WAL")
    raw.execute("PRAGMA synchronous=FULL")
    names = [f.name for f in fields(Reading)]
    raw.execute(f"CREATE TABLE r ({', '.join(names)})")
    took = []
    for i in range(count):
        began = time.perf_counter()
        raw.execute(f"INSERT INTO r VALUES ({', '.join('?' * len(names))})", [float(i)] * len(names))
        raw.commit()
        took.append(time.perf_counter() - began)
    raw.close()
    return took


def kept(app: QApplication, folder: Path) -> list[float]:
    """Seconds of each reading kept, from a book of its own."""
    book = Book.open(folder / "book.sqlite")
    book.add_job(demo_job())
    settings = QSettings(str(folder / "s.ini"), QSettings.Format.IniFormat)
    window = MainWindow(OpenBook(book, Workspace.open(book, demo_job().id), settings))
    window.resize(1280, 800)
    window.show()
    window.go_to_named("flow")
    app.processEvents()
    took = []
    for i in range(KEPT):
        began = time.perf_counter()
        window.rooms["flow"].hand.store(Kept(Rung(0.00127 * (1 + i % 12)), 0.05, None, None, None), "0.050", "typed")
        window.rooms["flow"].ladder.repaint()
        took.append(time.perf_counter() - began)
        for _ in range(3):  # the curve follows when nobody waits, and is painted
            app.processEvents()
    window.close()
    book.close()
    return took


def main() -> None:
    app = QApplication([])
    app.setStyle("Fusion")
    theme.load_fonts()
    theme.apply(app, "dye")
    medians, late = [], []
    with tempfile.TemporaryDirectory() as name:
        for run in range(RUNS):
            folder = Path(name) / str(run)
            folder.mkdir()
            took = sorted(kept(app, folder))
            medians.append(statistics.median(took))
            late.append(took[int(0.95 * KEPT)])
        bare = statistics.median(bare_inserts(Path(name) / "bare.sqlite", KEPT))
    middle, tail = statistics.median(medians), statistics.median(late)
    print(
        f"Space to row committed and rung drawn, {RUNS} runs of {KEPT}: median {middle * 1e3:.1f} ms (aim 25), "
        f"95th percentile {tail * 1e3:.1f} ms (aim 50)"
    )
    print(f"a bare commit of such a row {bare * 1e3:.2f} ms; ratio {middle / bare:.0f}")


if __name__ == "__main__":
    main()

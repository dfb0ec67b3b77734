"""Space to row committed and rung drawn, median and worst of 200, beside the bare SQL insert."""

from __future__ import annotations

import os
import sqlite3
import statistics
import tempfile
import time
from pathlib import Path

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")

from PySide6.QtCore import QSettings
from PySide6.QtWidgets import QApplication

from ventrix.bench.procedure.flow_procedure import Kept
from ventrix.bench.procedure.lift_plan import Rung
from ventrix.demo.job import demo_job
from ventrix.records.book.book import Book
from ventrix.ui.look import theme
from ventrix.ui.open_book import OpenBook
from ventrix.ui.window.main_window import MainWindow
from ventrix.workspace.workspace import Workspace


def bare_inserts(path: Path, count: int) -> list[float]:
    """A committed one-row insert, as small as SQLite can make it."""
    raw = sqlite3.connect(path)
    raw.execute("PRAGMA journal_mode=WAL")
    raw.execute("PRAGMA synchronous=FULL")
    raw.execute("CREATE TABLE r (a REAL, b REAL)")
    took = []
    for i in range(count):
        began = time.perf_counter()
        raw.execute("INSERT INTO r VALUES (?, ?)", (i, i))
        raw.commit()
        took.append(time.perf_counter() - began)
    raw.close()
    return took


def main() -> None:
    app = QApplication([])
    app.setStyle("Fusion")
    theme.load_fonts()
    theme.apply(app, "dye")
    with tempfile.TemporaryDirectory() as folder:
        book = Book.open(Path(folder) / "book.sqlite")
        book.add_job(demo_job())
        settings = QSettings(str(Path(folder) / "s.ini"), QSettings.Format.IniFormat)
        window = MainWindow(OpenBook(book, Workspace.open(book, demo_job().id), settings))
        window.show()
        window.go_to(1)
        app.processEvents()
        took = []
        for i in range(200):
            began = time.perf_counter()
            window.flow.hand.store(Kept(Rung(0.00127 * (1 + i % 12)), 0.05, None, None, None), "0.050", "typed")
            window.flow.ladder.repaint()
            took.append(time.perf_counter() - began)
        bare = bare_inserts(Path(folder) / "bare.sqlite", 200)
        window.close()
    middle, least = statistics.median(took), statistics.median(bare)
    print(
        f"Space to row committed and rung drawn: median {middle * 1e3:.1f} ms, "
        f"worst {max(took) * 1e3:.1f} ms (aim under 50)"
    )
    print(f"ratio to a bare committed insert ({least * 1e3:.1f} ms): {middle / least:.1f}")


if __name__ == "__main__":
    main()

"""A bench whose samples the test makes, and a foot on its pedal."""

from __future__ import annotations

from collections.abc import Callable
from typing import Final

from ventrix.bench.drivers.sample import Sample
from ventrix.core.quantity.units import from_si, to_si
from ventrix.ui.window.main_window import MainWindow

Open = Callable[..., MainWindow]
DP = to_si(28, "inH2O")

# A process of its own that opens the window on the demo, in the folder that it is given.
DEMO_WINDOW: Final = """
import sys
from pathlib import Path
from PySide6.QtCore import QSettings
from PySide6.QtWidgets import QApplication
from ventrix.demo.job import demo_job
from ventrix.records.book.book import Book
from ventrix.ui.open_book import OpenBook
from ventrix.ui.window.main_window import MainWindow
from ventrix.workspace.workspace import Workspace
app, folder = QApplication([]), Path(sys.argv[1])
book = Book.open(folder / "book.sqlite")
book.add_job(demo_job())
settings = QSettings(str(folder / "s.ini"), QSettings.Format.IniFormat)
window = MainWindow(OpenBook(book, Workspace.open(book, demo_job().id), settings))
window.show()
app.processEvents()
"""


class StandIn:
    """A bench whose samples the test makes: a connected bridge without a thread behind it."""

    def __init__(self, window: MainWindow) -> None:
        self.window, self.now = window, 0.0
        bench = window.open_book.bench
        bench.connected, bench.sentence = True, "bench of the test"

    def feed(
        self,
        lift: float,
        flow: float,
        seconds: float = 3.6,
        pressure: float = DP,
        flicker: float = 0.001,
        **more: float,
    ) -> None:
        samples = []
        for i in range(int(seconds * 20)):
            self.now += 0.05
            drift = flicker * i if flicker > 0.005 else flicker * (-1) ** i
            samples.append(Sample(self.now, flow * (1 + drift), pressure, lift))
        self.window.open_book.bench.sampled.emit(samples)


def counted(window: MainWindow) -> dict[int, int]:
    """How many readings count at each lift, in thousandths of an inch."""
    space = window.open_book.workspace
    assert space is not None
    assert space.cut is not None
    found: dict[int, int] = {}
    for run in space.cut.runs:
        for r in run.readings:
            if r.struck is None:
                lift = round(from_si(r.lift, "in") * 1000)
                found[lift] = found.get(lift, 0) + 1
    return found

"""Live samples at 50 a second: none dropped, what the window's own work costs, memory, and the wire coming back.

`python -m benchmarks.live [SECONDS]`; ten minutes without a number. Samples are fed at their rate through
the same signal the bridge uses; the share of one core is the processor time of the window over the time that went by,
beside the same window with no samples at all.
"""

from __future__ import annotations

import os
import resource
import sys
import tempfile
import time
from pathlib import Path

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")

from PySide6.QtCore import QSettings
from PySide6.QtWidgets import QApplication

from ventrix.bench.drivers.sample import Sample
from ventrix.bench.drivers.scpi import ScpiBench
from ventrix.bench.links.tcp import TcpLink
from ventrix.bench.sampler import Sampler
from ventrix.bench.simulator.bench import SimulatedBench
from ventrix.bench.simulator.server import HOST, running
from ventrix.core.quantity.units import to_si
from ventrix.demo.job import demo_job
from ventrix.records.book.book import Book
from ventrix.ui.bench_bridge import REFRESH, BenchBridge
from ventrix.ui.look import theme
from ventrix.ui.open_book import OpenBook
from ventrix.ui.window.main_window import MainWindow
from ventrix.workspace.workspace import Workspace

RATE = 50


def resident() -> float:
    """Memory in use now [MiB]."""
    pages = int(Path("/proc/self/statm").read_text().split()[1])
    return pages * resource.getpagesize() / 2**20


def spin(app: QApplication, window: MainWindow, seconds: float, *, feed: bool) -> tuple[float, int, int]:
    """Processor share while samples are fed at their rate, how many were sent, and how many the test saw."""
    bridge = window.open_book.bench
    sent = seen = 0
    began, busy = time.perf_counter(), time.process_time()
    original = window.rooms["flow"].hand.test.feed

    def counted(sample: Sample) -> None:
        nonlocal seen
        seen += 1
        original(sample)

    window.rooms["flow"].hand.test.feed = counted  # type: ignore[method-assign]
    lift, pressure = to_si(0.4, "in"), to_si(28, "inH2O")
    while (now := time.perf_counter() - began) < seconds:
        batch = []
        while feed and sent < now * RATE:
            sent += 1
            batch.append(Sample(sent / RATE, to_si(180 + 0.4 * (-1) ** sent, "cfm"), pressure, lift))
        if batch:
            bridge.sampled.emit(batch)
        app.processEvents()
        time.sleep(REFRESH / 1000)
    window.rooms["flow"].hand.test.feed = original  # type: ignore[method-assign]
    return (time.process_time() - busy) / seconds, sent, seen


def restored() -> float:
    """Seconds from the bench's coming back to the first sample."""
    import queue

    events: queue.Queue[object] = queue.Queue()
    with running(SimulatedBench(time.monotonic, 1)) as server:
        port = server.port
    sampler = Sampler(lambda: ScpiBench(TcpLink(HOST, port, 1.0)), 0.02, events)  # type: ignore[arg-type]
    sampler.start()
    time.sleep(0.6)
    with running(SimulatedBench(time.monotonic, 1), port):
        began = time.perf_counter()
        while not isinstance(events.get(timeout=10), Sample):
            pass
        took = time.perf_counter() - began
        sampler.stop()
    return took


def main() -> None:
    seconds = float(sys.argv[1]) if len(sys.argv) > 1 else 600.0
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
        assert isinstance(window.open_book.bench, BenchBridge)
        window.open_book.bench.connected = True
        window.rooms["flow"].control.stand_on(7)
        spin(app, window, 2.0, feed=True)
        idle, _, _ = spin(app, window, min(seconds, 10.0), feed=False)
        before = resident()
        share, sent, seen = spin(app, window, seconds, feed=True)
        after = resident()
        window.open_book.bench.connected = False
        window.close()
    print(f"{sent} samples in {seconds:.0f} s, {sent - seen} dropped")
    print(f"share of one core: {share:.1%} with samples, {idle:.1%} idle")
    print(f"the window's own work: {share - idle:.1%} (aim under 10 %)")
    print(f"ratio to idle {share / max(idle, 1e-6):.1f}; memory {before:.0f} MiB before, {after:.0f} MiB after")
    print(f"link restored {restored():.2f} s after the wire came back")


if __name__ == "__main__":
    main()

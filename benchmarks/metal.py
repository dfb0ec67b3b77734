"""The unrolled port with 30 cuts and 200 wall readings, and a job of 32 ports, 300 cuts and 3,000 readings, as ratios.

Redraw of the map against one pyqtgraph scatter of the same points; opening the job against the bare SQL that reads
its rows.
"""

from __future__ import annotations

import os
import sqlite3
import statistics
import tempfile
import time
from collections.abc import Callable
from pathlib import Path

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")

import numpy as np
import pyqtgraph as pg
from PySide6.QtWidgets import QApplication

from ventrix.core.metal.unrolled import BANDS, ZONE_NAMES
from ventrix.core.model.cut import Cut, Operation, Port, WallReading, Work
from ventrix.core.model.job import Job
from ventrix.core.model.run import FlowRun, Mount, Reading, SetUp
from ventrix.records.book.book import Book
from ventrix.rooms.display_units import US
from ventrix.rooms.shared.unrolled_map import map_picture
from ventrix.ui.look import theme
from ventrix.ui.widgets.unrolled_map import UnrolledMap


def timed(work: Callable[[], object], times: int) -> float:
    """Median seconds of a call."""
    took = []
    for _ in range(times):
        began = time.perf_counter()
        work()
        took.append(time.perf_counter() - began)
    return statistics.median(took)


def worked_port() -> tuple[Job, Port]:
    """A port with 30 cuts and 200 wall readings."""
    random = np.random.default_rng(1)
    cuts = []
    for n in range(30):
        walls = tuple(
            WallReading(
                id=f"w{n}-{i}",
                place=ZONE_NAMES[i % 9],
                band=BANDS[i % 4],
                along=float(random.uniform(0, 0.1)),
                across=float(random.uniform(-0.9, 0.9)),
                thickness=float(random.uniform(0.002, 0.005)),
            )
            for i in range(7 if n else 0)
        )
        work = (Operation(id=f"o{n}", kind="grind", works=(Work(id=f"k{n}", place=ZONE_NAMES[n % 9], depth=1e-4),)),)
        cuts.append(Cut(id=f"c{n}", number=n, name=f"cut {n}", walls=walls[:7], operations=work, throat_diameter=0.04))
    port = Port(id="p", name="Intake 1", kind="intake", cuts=tuple(cuts))
    return Job(id="j", title="many", ports=(port,)), port


def large_job() -> Job:
    """32 ports, 300 cuts, 3,000 readings."""
    setup, mount = SetUp(id="s", direction="intake", test_pressure=7000.0), Mount(id="m", number=1)
    ports, made = [], 0
    for p in range(32):
        cuts = []
        for n in range(10 if p < 12 else 9):
            readings = tuple(Reading(id=f"r{p}-{n}-{i}", lift=1e-3 * (i + 1), flow=0.01 * (i + 1)) for i in range(10))
            run = FlowRun(id=f"run{p}-{n}", setup_id="s", mount_id="m", readings=readings)
            cuts.append(Cut(id=f"c{p}-{n}", number=n, name=f"cut {n}", runs=(run,)))
            made += 1
        ports.append(Port(id=f"p{p}", name=f"Intake {p + 1}", kind="intake", cuts=tuple(cuts)))
    return Job(id="large", title="large", ports=tuple(ports), setups=(setup,), mounts=(mount,))


def bare_rows(path: Path) -> int:
    """The same rows by plain SQL."""
    raw = sqlite3.connect(path)
    count = 0
    for table in ("job", "setup", "mount", "port", "cut", "flow_run", "reading"):
        count += len(raw.execute(f"SELECT * FROM {table}").fetchall())
    raw.close()
    return count


def main() -> None:
    app = QApplication([])
    theme.load_fonts()
    theme.apply(app, "dye")
    job, port = worked_port()
    the_map = UnrolledMap()
    the_map.resize(760, 560)
    the_map.show()
    the_map.show_picture(map_picture(job, port, port.cuts[-1], port.cuts[0], "", US), US, still=True)
    assert the_map.picture is not None
    pins = the_map.picture.pins
    scatter = pg.PlotWidget()
    scatter.resize(760, 560)
    scatter.show()
    points = pg.ScatterPlotItem(x=[p.along for p in pins], y=[p.across for p in pins], symbol="o", size=9)
    scatter.addItem(points)
    app.processEvents()
    first = the_map.picture

    def drawn_anew() -> None:
        the_map.show_picture(first, US, still=True)
        the_map.grab()

    ours, again = timed(drawn_anew, 20), timed(lambda: the_map.grab(), 20)
    bare = timed(lambda: scatter.grab(), 20)
    print(f"{len(pins)} pins, {len(port.cuts)} cuts: map {ours * 1e3:.1f} ms, bare scatter {bare * 1e3:.1f} ms")
    print(f"ratio {ours / bare:.2f}; drawn again unchanged {again / bare:.2f}")
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "book.sqlite"
        with Book.open(path) as book:
            book.add_job(large_job())
            opened = timed(lambda: book.load("large"), 7)
            rows = timed(lambda: bare_rows(path), 7)
    print(f"job of 32 ports, 300 cuts, 3000 readings opened in {opened * 1e3:.0f} ms, bare SQL {rows * 1e3:.0f} ms")
    print(f"ratio {opened / rows:.1f}")


if __name__ == "__main__":
    main()

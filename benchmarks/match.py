"""Two heads, 32 ports, 300 cuts: ``python -m benchmarks.match`` prints how long the Match room takes to paint, a stage
to be marked and shown, and a copying sheet for 15 ports; beside each what the book's own write of that edit takes."""

from __future__ import annotations

import os
import tempfile
import time
from collections.abc import Callable
from dataclasses import replace
from datetime import date
from pathlib import Path
from statistics import median

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")

from PySide6.QtCore import QSettings
from PySide6.QtWidgets import QApplication

from ventrix.core.model.cut import Cut
from ventrix.core.model.job import Job
from ventrix.core.model.job_parts import Head
from ventrix.demo.whole_head import whole_head
from ventrix.records.book.book import Book
from ventrix.records.files.new_ids import renewed
from ventrix.rooms.display_units import US
from ventrix.rooms.match.shows import copy_lines
from ventrix.ui.look import theme
from ventrix.ui.open_book import OpenBook
from ventrix.ui.window.main_window import MainWindow
from ventrix.workspace.workspace import Workspace


def two_heads() -> Job:
    """32 ports of nine to ten cuts each."""
    one = whole_head(date(2026, 5, 18))
    ports = []
    for head in ("a", "b"):
        for half in range(2):
            for port in one.ports:
                cylinder = (port.cylinder or 1) + 4 * half
                name = f"{port.kind.capitalize()} {cylinder}"
                cuts = list(port.cuts)
                while len(cuts) < 10:
                    number = len(cuts)
                    cuts.append(Cut(id=f"more-{number}", number=number, name=f"pass {number}"))
                ports.append(
                    replace(
                        port, name=name, cylinder=cylinder, position_on_head=cylinder, head_id=head, cuts=tuple(cuts)
                    )
                )
    made = []
    for i, port in enumerate(ports):  # ids of their own, port by port
        made += renewed(replace(one, id=f"x{i}", ports=(replace(port, mirror_of=None),))).ports
    heads = (Head(id="a", name="head A"), Head(id="b", name="head B"))
    ids = {s.direction: s.id for s in one.setups}
    fixed = [
        replace(
            p,
            head_id=h,
            valve_id=None,
            cuts=tuple(
                replace(c, runs=tuple(replace(r, setup_id=ids[p.kind], mount_id=None) for r in c.runs)) for c in p.cuts
            ),
        )
        for p, h in zip(made, [q.head_id for q in ports], strict=True)
    ]
    return replace(one, id="two-heads", heads=heads, ports=tuple(fixed), mounts=(), waits=(), my_lifts=())


def timed(act: Callable[[], object], times: int = 7) -> float:
    spent = []
    for _ in range(times):
        begun = time.perf_counter()
        act()
        spent.append(time.perf_counter() - begun)
    return 1e3 * median(spent)


def main() -> None:
    app = QApplication([])
    theme.load_fonts()
    theme.apply(app, "dye")
    with tempfile.TemporaryDirectory() as folder:
        book = Book.open(Path(folder) / "book.sqlite")
        job = two_heads()
        book.add_job(job)
        space = Workspace.open(book, job.id)
        settings = QSettings(f"{folder}/s.ini", QSettings.Format.IniFormat)
        window = MainWindow(OpenBook(book, space, settings, demo=False))
        window.resize(1280, 800)
        window.show()
        window.go_to_named("match")
        app.processEvents()
        room = window.rooms["match"]

        def paint() -> None:
            room.show_all()
            room.grab()

        print(f"{len(job.ports)} ports, {sum(len(p.cuts) for p in job.ports)} cuts")
        print(f"room painted {timed(paint):.0f} ms")
        ports = iter(job.ports)

        def mark() -> None:
            space.look_at_port(next(ports).id)
            room.stage = 6
            for _ in range(3):
                app.processEvents()
            begun = time.perf_counter()
            room.mark()
            room.board.repaint()
            marks.append(1e3 * (time.perf_counter() - begun))
            for _ in range(3):  # what follows from the mark comes when nobody waits
                app.processEvents()

        def write() -> None:
            titled = replace(space.job, title=f"{space.job.title}.")
            begun = time.perf_counter()
            book.write((space.job, titled))
            writes.append(1e3 * (time.perf_counter() - begun))
            book.write((titled, space.job))

        marks: list[float] = []
        writes: list[float] = []
        for _ in range(9):
            mark()
            write()
        beside = f"the book's own write of an edit {median(writes):.1f} ms: {median(marks) / median(writes):.1f} times"
        print(f"a stage marked to screen {median(marks):.0f} ms (aim 30); {beside}")
        others = [p for p in space.job.ports if p.kind == "intake"][1:16]
        sheet = timed(lambda: [copy_lines(space.findings, p, US) for p in others])
        print(f"copying sheet for {len(others)} ports {sheet:.0f} ms")
        window.close()
        book.close()


if __name__ == "__main__":
    main()

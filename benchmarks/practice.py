"""A practice's own waits: ``python -m benchmarks.practice`` prints a virtual flow test of twelve rungs, from the act to
the run in the book, beside the bare flow of the virtual port; and the reckoning with Plan's own way through it."""

from __future__ import annotations

import tempfile
import time
from collections.abc import Callable
from pathlib import Path
from statistics import median

from ventrix.bench.simulator.practice.by_plan import by_plan
from ventrix.bench.simulator.practice.play import LIFT
from ventrix.records.book.book import Book
from ventrix.rooms.display_units import US
from ventrix.rooms.practice.shows import plans_own_way, reckoning_shown
from ventrix.workspace.practice import PracticeAtWork


def timed(act: Callable[[], object], times: int = 9) -> float:
    spent = []
    for _ in range(times):
        begun = time.perf_counter()
        act()
        spent.append(time.perf_counter() - begun)
    return median(spent)


if __name__ == "__main__":
    with tempfile.TemporaryDirectory() as folder:
        practice = PracticeAtWork.begin(Path(folder), "easy-two-valve", 11)
        book = Book.open(Path(folder) / "book.sqlite")
        space = practice.workspace(book)
        whole = timed(lambda: practice.flow(space))
        bare = timed(lambda: practice.practice.port.flow(LIFT))
        print(f"flow test of 12 rungs, kept: {1e3 * whole:.1f} ms (aim 50), {whole / bare:.0f} times the bare flow")
        book.close()
    played = by_plan("easy-two-valve", 11)
    begun = time.perf_counter()
    reckoning_shown(played, US, plans_own_way(played))
    print(f"reckoning with Plan's own way: {time.perf_counter() - begun:.1f} s")

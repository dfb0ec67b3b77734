"""A shop's book of 500 jobs and 10,000 runs: listed, searched and opened; a sheet made; a table in; two stores.

``python -m benchmarks.book [JOBS]``. Ratios of one run side by side; the book is made in a temporary folder. The last
line needs PostgreSQL on this machine.
"""

from __future__ import annotations

import sqlite3
import sys
import tempfile
import time
from collections.abc import Callable
from dataclasses import replace
from datetime import date
from pathlib import Path

from ventrix.core.judging.findings import Findings
from ventrix.core.model.job import Job
from ventrix.core.model.run import Reading
from ventrix.demo.job import demo_benches, demo_job
from ventrix.records.book.book import Book
from ventrix.records.book.index import Index
from ventrix.records.files.column_guess import guess_layout
from ventrix.records.files.grid import text_grid
from ventrix.records.files.layout_reading import read_by
from ventrix.records.files.new_ids import renewed
from ventrix.reports.sheet.contents import Choices, Part, Shop
from ventrix.reports.sheet.pdf import sheet_pdf
from ventrix.rooms.book.question import read_question
from ventrix.rooms.display_units import US
from ventrix.rooms.sheet.contents import Asked, sheet_of, usual_pair
from ventrix.workspace.workspace import Workspace

RUNS = 20  # of a job


def timed(work: Callable[[], object], times: int = 15) -> float:
    """The median of several goes [s]."""
    found = []
    for _ in range(times):
        start = time.perf_counter()
        work()
        found.append(time.perf_counter() - start)
    return sorted(found)[len(found) // 2]


def job_of_twenty(number: int) -> Job:
    """The demo job with twenty runs, under ids of its own."""
    job = demo_job()
    have = sum(1 for _ in job.runs())
    port = job.ports[0]
    cut = port.cuts[-1]
    more = tuple(
        replace(
            cut.runs[0], id=f"more-{i}", readings=tuple(replace(r, id=f"m{i}-{r.id}") for r in cut.runs[0].readings)
        )
        for i in range(RUNS - have)
    )
    grown = replace(port, cuts=(*port.cuts[:-1], replace(cut, runs=(*cut.runs, *more))))
    return renewed(
        replace(job, title=f"Head {number:03d}", customer=f"customer {number % 37}", ports=(grown, *job.ports[1:]))
    )


def bare_list(raw: sqlite3.Connection) -> list[tuple[object, ...]]:
    return raw.execute(
        "SELECT job.id, title, customer, material, cylinders, job.state, waits_for, promise_date, handed_over,"
        " archived, binned, casting, date, cuts, runs, hours, job_index.state FROM job"
        " LEFT JOIN job_index ON job_id = job.id"
        " ORDER BY lower(title), job.id"
    ).fetchall()


def bare_search(raw: sqlite3.Connection) -> list[tuple[object, ...]]:
    rows = raw.execute(
        "SELECT * FROM cut_index WHERE section BETWEEN 0.00104 AND 0.00115 AND throat BETWEEN 0.0408 AND 0.0430"
    ).fetchall()
    jobs = bare_list(raw)
    found = {row[1] for row in rows}
    return [j for j in jobs if j[0] in found]


def main(count: int) -> None:
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "book.sqlite"
        with Book.open(path) as book:
            start = time.perf_counter()
            for n in range(count):
                book.add_job(job_of_twenty(n), benches=demo_benches() if n == 0 else ())
            put = time.perf_counter() - start
            index = Index(book)
            start = time.perf_counter()
            for job_id in index.behind():
                index.renew(job_id)
            print(
                f"{count} jobs, {count * RUNS} runs put in {put:.0f} s, indexed in {time.perf_counter() - start:.0f} s"
            )
            raw = sqlite3.connect(path)
            ours, bare = timed(index.find), timed(lambda: bare_list(raw))
            print(f"list {1e3 * ours:.1f} ms, bare SQL {1e3 * bare:.1f} ms: {ours / bare:.2f} times (aim 1.5)")
            question = read_question("section 1.7 throat 1.65", US).question
            ours, bare = timed(lambda: index.find(question)), timed(lambda: bare_search(raw))
            print(f"search {1e3 * ours:.1f} ms, bare SQL {1e3 * bare:.1f} ms: {ours / bare:.2f} times (aim 1.5)")
            words = read_question("customer 7", US).question
            print(f"search by a word {1e3 * timed(lambda: index.find(words)):.1f} ms")
            some = index.find()[count // 2].id
            large = timed(lambda: book.load(some))
            opened = timed(lambda: Workspace.open(book, some), 5)
        with Book.open(Path(folder) / "small.sqlite") as small:
            small.add_job(job_of_twenty(0), benches=demo_benches())
            only = small.jobs()[0].id
            one, opened_one = timed(lambda: small.load(only)), timed(lambda: Workspace.open(small, only), 5)
        print(
            f"load a job {1e3 * large:.1f} ms, from a book of one {1e3 * one:.1f} ms: {large / one:.2f} times (aim 1.2)"
        )
        print(f"open it {1e3 * opened:.0f} ms, from a book of one {1e3 * opened_one:.0f} ms: {opened / opened_one:.2f}")
        _sheet()
        _table()
        _stores(Path(folder))


def _sheet() -> None:
    findings = Findings(demo_job(), benches=demo_benches())
    pair = usual_pair(findings)
    assert pair is not None
    asked = Asked(*pair, Choices(tuple(Part)), Shop(), date(2026, 5, 20))
    start = time.perf_counter()
    sheet_pdf(sheet_of(findings, asked, US))
    first = time.perf_counter() - start
    again = timed(lambda: sheet_pdf(sheet_of(findings, asked, US)), 5)
    print(f"a sheet with every part: {first:.2f} s the first time, {again:.2f} s after (aim 1.5 s)")


def _table() -> None:
    text = "lift,stock,bowl\n" + "".join(f"{0.0001 * i:.4f},{0.03 * i:.2f},{0.031 * i:.2f}\n" for i in range(1, 5001))

    def bring() -> None:
        grid = text_grid(text)
        layout = guess_layout(grid)
        assert layout is not None
        read_by(grid, layout)

    bare = timed(lambda: [[float(c) for c in line.split(",")] for line in text.splitlines()[1:]], 5)
    ours = timed(bring, 5)
    print(
        f"a table of 5,000 rows guessed and read {ours:.2f} s, its bare numbers {bare:.3f} s: {ours / bare:.0f} times"
    )


def _stores(folder: Path) -> None:
    from tests.postgres_server import running_server, why_none

    def edits(where: Path | str) -> float:
        with Book.open(where) as book:
            book.add_job(demo_job())
            space = Workspace.open(book, demo_job().id)
            run = space.job.ports[0].cuts[-1].runs[0]

            def edit() -> None:
                n = len(space._done)
                reading = Reading(id=f"r{n}", lift=0.01, flow=0.09)
                cut = space.job.ports[0].cuts[-1]
                grown = replace(cut.runs[0], readings=(*cut.runs[0].readings, reading))
                port = space.job.ports[0]
                cuts = (*port.cuts[:-1], replace(cut, runs=(grown, *cut.runs[1:])))
                space.apply("keep", replace(space.job, ports=(replace(port, cuts=cuts), *space.job.ports[1:])))

            assert run.id
            return timed(edit, 25)

    file = edits(folder / "edits.sqlite")
    reason = why_none()
    if reason:
        print(f"an edit on SQLite {1e3 * file:.1f} ms; PostgreSQL: {reason}")
        return
    with running_server() as server:
        server.tell("CREATE DATABASE edits")
        there = edits(server.url("edits"))
    print(f"an edit on PostgreSQL, loopback, {1e3 * there:.1f} ms, on SQLite {1e3 * file:.1f} ms: {there / file:.2f}")


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else 500)

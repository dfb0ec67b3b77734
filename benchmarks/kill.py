"""Kill -9 at a moment of chance whatever writes: what it said was done must be on disk, once, and every copy whole.

``python -m benchmarks.kill [KILLS]`` kills the true window, two windows at one book, the importer, a migration from
every old version, a backup, a restore and an archive, about KILLS (1,000) of them all together, and prints a row each.
A child says what it did on standard output, a line a deed; the parent kills it and looks at the disk.
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
import zipfile
from collections.abc import Callable
from contextlib import closing
from datetime import date
from pathlib import Path
from typing import Final

from ventrix.core.quantity.units import from_si
from ventrix.records.book.book import Book
from ventrix.workspace.workspace import Workspace

OLD_BOOKS: Final = Path(__file__).parents[1] / "tests/records/books"
LEFT_BEHIND: Final = (".part", "-journal", "-wal", "-shm")


# The children: each works until it is killed.


def type_readings(path: Path, first: int) -> None:
    """Type figures that never come twice into the Flow room; one is said when the far view reads KEPT."""
    from PySide6.QtCore import QSettings, Qt
    from PySide6.QtTest import QTest
    from PySide6.QtWidgets import QApplication

    from ventrix.ui.look import theme
    from ventrix.ui.open_book import OpenBook
    from ventrix.ui.window.main_window import MainWindow

    app = QApplication([])
    theme.load_fonts()
    theme.apply(app, "dye")
    book = Book.open(path)
    jobs = book.jobs()
    space = Workspace.open(book, jobs[0].id) if jobs else Workspace.create(book, "Kill me")
    settings = QSettings(str(path.with_name(f"{first}.ini")), QSettings.Format.IniFormat)
    window = MainWindow(OpenBook(book, space, settings))
    window.show()
    window.go_to_named("flow")
    room = window.rooms["flow"]
    print("ready", flush=True)
    number = first
    while True:
        for _ in range(12):
            number += 1
            QTest.keyClicks(room.entry, f"{20 + number / 10_000:.4f}")
            QTest.keyClick(room.entry, Qt.Key.Key_Return)
            if room.far.far.phase.startswith("KEPT"):
                print(f"{number}", flush=True)
        room.entry.clear()
        room.setFocus()
        QTest.keyClick(room, Qt.Key.Key_M)


def import_jobs(path: Path, first: int) -> None:
    """Bring jobs in from documents, one after the other."""
    from dataclasses import replace

    from ventrix.demo.job import demo_job
    from ventrix.records.files.job_document import read_document, write_job
    from ventrix.records.files.new_ids import renewed

    book = Book.open(path)
    document = path.with_name(f"{first}.json")
    print("ready", flush=True)
    number = first
    while True:
        number += 1
        write_job(replace(demo_job(), title=f"job {number}"), document)
        read, benches = read_document(document)
        book.add_job(renewed(read), benches=benches)
        print(f"{number}", flush=True)


def migrate_books(path: Path, first: int) -> None:
    """Open old books, each of another version: opening one brings it up to date."""
    print("ready", flush=True)
    old = sorted(OLD_BOOKS.glob("*.sql"))
    number = first
    while True:
        number += 1
        book = path.with_name(f"old-{number}.sqlite")
        with closing(sqlite3.connect(book)) as raw:
            raw.executescript(old[number % len(old)].read_text(encoding="utf-8"))
        Book.open(book).close()
        print(f"{number}", flush=True)


def back_up_often(path: Path, first: int) -> None:
    from ventrix.records.book.backups import back_up

    print("ready", flush=True)
    number = first
    while True:
        number += 1
        back_up(path, date(2026, 1 + number % 12, 1 + number % 28), again=True)
        print(f"{number}", flush=True)


def restore_often(path: Path, first: int) -> None:
    from ventrix.records.book.backups import back_up, restore

    back_up(path, date(2026, 1, 1), again=True)
    print("ready", flush=True)
    number = first
    while True:
        number += 1
        restore(path, "2026-01-01", date(2026, 2, 1))
        print(f"{number}", flush=True)


def archive_often(path: Path, first: int) -> None:
    from ventrix.demo.job import demo_job
    from ventrix.records.files.job_document import dumps_job
    from ventrix.records.files.job_folder import write_archive

    text = dumps_job(demo_job(), ()).encode()
    print("ready", flush=True)
    number = first
    while True:
        number += 1
        write_archive(path.with_name(f"{number % 3}.zip"), {"job.json": text, "more.bin": os.urandom(400_000)})
        print(f"{number}", flush=True)


CHILDREN: Final[dict[str, Callable[[Path, int], None]]] = {
    "window": type_readings, "importer": import_jobs, "migration": migrate_books, "backup": back_up_often,
    "restore": restore_often, "archive": archive_often,
}  # fmt: skip


# The parent: kills, and looks.


def one_life(path: Path, first: int, rng: random.Random, what: str = "window", longest: float = 0.7) -> list[int]:
    """Start a child, kill it at a moment of chance; the numbers that it said were done."""
    surroundings = os.environ | {"QT_QPA_PLATFORM": "offscreen", "XDG_STATE_HOME": str(path.parent)}
    command = [sys.executable, "-m", "benchmarks.kill", "child", what, str(path), str(first)]
    with subprocess.Popen(
        command, stdout=subprocess.PIPE, stderr=subprocess.DEVNULL, text=True, env=surroundings
    ) as child:
        assert child.stdout is not None
        assert child.stdout.readline() == "ready\n"
        said = [int(child.stdout.readline())]  # the machine may be slow: no kill before anything was done
        killer = threading.Timer(rng.uniform(0.0, longest), child.kill)
        killer.start()
        said += [int(line) for line in child.stdout if line.endswith("\n")]
        killer.join()
    return said


def two_lives(path: Path, first: int, rng: random.Random) -> list[int]:
    """Two windows at one book, both killed; what either of them said was kept."""
    found: list[list[int]] = [[], []]

    def live(i: int) -> None:
        found[i] = one_life(path, first + 5000 * i, random.Random(rng.random() + i))

    threads = [threading.Thread(target=live, args=(i,)) for i in (0, 1)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    return [*found[0], *found[1]]


def whole(book: Path) -> bool:
    """A book that SQLite finds whole and that says its version; nothing lies beside it but its own log."""
    with closing(sqlite3.connect(f"{book.as_uri()}?mode=ro", uri=True)) as raw:
        sound = raw.execute("PRAGMA integrity_check").fetchone() == ("ok",)
        named = raw.execute("SELECT count(*) FROM sqlite_master WHERE name = 'alembic_version'").fetchone()[0]
    return sound and bool(named)


def bad_copies(folder: Path) -> list[str]:
    """Copies of books that are not whole, and halves of copies."""
    copies = [*folder.rglob("*-before-*.sqlite"), *folder.rglob("*-backups/*.sqlite")]
    bad = [c.name for c in copies if not whole(c)]
    return bad + [f.name for f in folder.rglob("*") if f.name.endswith(LEFT_BEHIND) and _is_of_a_copy(f)]


def _is_of_a_copy(path: Path) -> bool:
    return path.name.endswith(".part") or "-before-" in path.name or path.parent.name.endswith("-backups")


def numbers_on_disk(path: Path) -> list[int]:
    """What the book holds, after it was found whole."""
    with closing(sqlite3.connect(path)) as raw:
        assert raw.execute("PRAGMA integrity_check").fetchone() == ("ok",)
    with Book.open(path) as book:
        jobs = [book.load(entry.id) for entry in book.jobs()]
    flows = (r.flow for job in jobs for run in job.runs() for r in run.readings if r.flow is not None)
    return [round((from_si(flow, "cfm") - 20) * 10_000) for flow in flows]


def jobs_on_disk(path: Path) -> list[int]:
    with Book.open(path) as book:
        return [int(entry.title.split()[-1]) for entry in book.jobs()]


def said_and_found(what: str, path: Path, said: list[int]) -> tuple[int, int, list[str]]:
    """How much of what was said is not on disk, how much stands twice, and what is wrong with files."""
    if what in ("window", "two windows", "importer"):
        found = (jobs_on_disk if what == "importer" else numbers_on_disk)(path)
        return len(set(said) - set(found)), len(found) - len(set(found)), []
    bad = bad_copies(path.parent)
    if what == "archive":
        bad += [z.name for z in path.parent.glob("*.zip") if not _is_archive(z)]
    elif what == "restore":
        bad += [] if whole(path) else [path.name]
    elif what == "migration":
        for book in path.parent.glob("old-*.sqlite"):
            if "-before-" in book.name:
                continue
            if said and int(book.stem.split("-")[1]) <= max(said):  # the next one may not be filled yet
                Book.open(book).close()
            for each in path.parent.glob(f"{book.name}*"):
                each.unlink(missing_ok=True)
    return 0, 0, bad


def _is_archive(path: Path) -> bool:
    try:
        with zipfile.ZipFile(path) as archive:
            return archive.testzip() is None
    except zipfile.BadZipFile:
        return False


def filled(path: Path) -> None:
    """A book with something in it, for what copies books."""
    from ventrix.demo.job import demo_benches, demo_job

    with Book.open(path) as book:
        book.add_job(demo_job(), benches=demo_benches())


def kill(what: str, kills: int, folder: Path, seed: int = 7) -> tuple[int, int, int, list[str]]:
    """Kill one kind of child so often in a folder of its own: facts that were said, lost, twice, and bad files."""
    rng = random.Random(seed)
    path = folder / "book.sqlite"
    if what in ("backup", "restore"):
        filled(path)
    elif what == "two windows":  # at one job: each would begin one of its own in an empty book
        with Book.open(path) as book:
            Workspace.create(book, "Kill me")
    told: list[int] = []
    lost = twice = 0
    bad: list[str] = []
    for life in range(kills):
        first = 10_000 * life
        said = two_lives(path, first, rng) if what == "two windows" else one_life(path, first, rng, what)
        told += said
        lost, twice, wrong = said_and_found(what, path, told if what != "migration" else said)
        bad += wrong
    return len(told), lost, twice, bad


# Of a hundred kills: windows start slowly, so most of them are of what starts quickly.
SHARES: Final = {"window": 8, "two windows": 8, "importer": 16, "migration": 20, "backup": 16, "restore": 16,
                 "archive": 16}  # fmt: skip


def main(kills: int) -> None:
    print(f"{'killed':<14}{'kills':>7}{'said':>8}{'lost':>6}{'twice':>7}{'bad files':>11}{'s':>6}")
    for what, share in SHARES.items():
        count = max(round(kills * share / 100), 1)
        began = time.monotonic()
        with tempfile.TemporaryDirectory() as folder:
            said, lost, twice, bad = kill(what, count, Path(folder))
        seconds = time.monotonic() - began
        print(f"{what:<14}{count:>7}{said:>8}{lost:>6}{twice:>7}{len(bad):>11}{seconds:>6.0f}  {' '.join(bad[:3])}",
              flush=True)  # fmt: skip


if __name__ == "__main__":
    if sys.argv[1:2] == ["child"]:
        CHILDREN[sys.argv[2]](Path(sys.argv[3]), int(sys.argv[4]))
    else:
        main(int(sys.argv[1]) if len(sys.argv) > 1 else 1000)

"""A reading kept while the disk is at fault: one sentence, it stays in hand, and it is kept once afterwards."""

from __future__ import annotations

import os
import sqlite3
from collections.abc import Callable, Iterator
from contextlib import closing, contextmanager
from datetime import date
from pathlib import Path

import pytest
from sqlalchemy import event

from tests.ui.stand_in import StandIn, counted
from ventrix.core.edits.cuts import add_port
from ventrix.core.quantity.units import to_si
from ventrix.records.book.backups import back_up, restore
from ventrix.records.book.book import Book
from ventrix.records.book.whole_copy import copy_whole
from ventrix.ui.window.main_window import MainWindow
from ventrix.workspace.new_job import new_port

Foot = tuple[MainWindow, StandIn, Callable[[str], None]]
Fault = Callable[[Book, Path], Iterator[None]]
LIFT = to_si(0.05, "in")


def on_every_connection(book: Book, pragma: str) -> Iterator[None]:
    """A setting of the store's while the fault lasts."""

    def set_it(connection: sqlite3.Connection, _record: object) -> None:
        connection.execute(pragma)

    event.listen(book.store.engine, "connect", set_it)
    book.store.engine.dispose()
    yield
    event.remove(book.store.engine, "connect", set_it)
    book.store.engine.dispose()


def full(book: Book, path: Path) -> Iterator[None]:
    with closing(sqlite3.connect(path)) as raw:
        (pages,) = raw.execute("PRAGMA page_count").fetchone()
        free = raw.execute("PRAGMA freelist_count").fetchone()
        assert free == (0,)
    # A reading needs no new page of its own: the note beside it does.
    with closing(sqlite3.connect(path)) as raw:
        raw.execute(
            "CREATE TRIGGER fills AFTER INSERT ON reading BEGIN INSERT INTO filler VALUES (zeroblob(9999)); END"
        )
        raw.execute("CREATE TABLE filler (x)")
        raw.commit()
        (pages,) = raw.execute("PRAGMA page_count").fetchone()
    yield from on_every_connection(book, f"PRAGMA max_page_count={pages}")
    with closing(sqlite3.connect(path)) as raw:
        raw.execute("DROP TRIGGER fills")
        raw.execute("DROP TABLE filler")


def read_only(book: Book, _path: Path) -> Iterator[None]:
    yield from on_every_connection(book, "PRAGMA query_only=ON")


def taken_away(_book: Book, path: Path) -> Iterator[None]:
    away = path.with_name("away.sqlite")
    os.rename(path, away)
    yield
    with closing(sqlite3.connect(f"file:{away}?immutable=1", uri=True)) as raw:
        assert raw.execute("PRAGMA integrity_check").fetchone() == ("ok",)  # whole by itself, its log in it
    os.rename(away, path)


def exchanged(_book: Book, path: Path) -> Iterator[None]:
    """Another shop's book in its place, then a copy of this one."""
    copy, other = path.with_name("copy.sqlite"), path.with_name("other.sqlite")
    copy_whole(path, copy)
    Book.open(other).close()
    os.replace(other, path)
    yield
    os.replace(copy, path)


def restored(_book: Book, path: Path) -> Iterator[None]:
    """Put back to a copy while it is open, by the program's own command; the disk is at fault on top of it."""
    copied = back_up(path, date(2026, 5, 4))
    assert copied is not None
    restore(path, copied.day, date(2026, 5, 5))
    yield from power_cut(_book, path)


def damaged(book: Book, path: Path) -> Iterator[None]:
    book.store.engine.dispose()
    sound = path.read_bytes()
    with path.open("r+b") as file:
        for page in range(1, len(sound) // 4096):
            file.seek(4096 * page)
            file.write(b"\xff" * 200)
    yield
    book.store.engine.dispose()
    with path.open("r+b") as file:
        file.write(sound)


def written_by_another(book: Book, path: Path) -> Iterator[None]:
    book.store.patience = 0.0
    with closing(sqlite3.connect(path, isolation_level=None)) as other:
        other.execute("BEGIN IMMEDIATE")
        yield
        other.execute("COMMIT")


def power_cut(book: Book, _path: Path) -> Iterator[None]:
    """The disk answers the commit with an error: nothing of it is there afterwards."""
    dialect = book.store.engine.dialect
    real = dialect.do_commit

    def fails(connection: sqlite3.Connection) -> None:
        connection.rollback()
        raise sqlite3.OperationalError("disk I/O error")

    dialect.do_commit = fails  # type: ignore[method-assign]
    yield
    dialect.do_commit = real  # type: ignore[method-assign]


def test_what_is_in_hand_is_offered_at_the_cut_it_was_read_at(foot: Foot, tmp_path: Path) -> None:
    """After a change of port it waits: the other port gets a reading of its own, or none."""
    window, bench, step = foot
    book, space = window.open_book.book, window.open_book.workspace
    assert space is not None
    space.apply("a port", add_port(space.job, new_port("Exhaust 1", "exhaust")))
    first, other = space.job.ports
    space.look_at_port(first.id)
    bench.feed(LIFT, to_si(24, "cfm"))
    window.open_book._watch.stop()
    with contextmanager(power_cut)(book, tmp_path / "book.sqlite"):
        step("press")
    space.look_at_port(other.id)
    assert window.rooms["flow"].control.in_hand is None
    space.look_at_port(first.id)
    assert window.rooms["flow"].far.far.phase.startswith("NOT KEPT 0.050")
    step("press")
    assert counted(window) == {50: 1}
    assert [len(c.runs) for c in space.job.port(other.id).cuts] == [0]


@pytest.mark.parametrize(
    ("fault", "words"),
    [
        (full, "The disk is full"),
        (read_only, "can only be read"),
        (taken_away, "file is gone"),
        (exchanged, "deleted in another window"),
        (restored, "The disk cannot be written"),
        (damaged, "file is damaged"),
        (written_by_another, "Another program is writing"),
        (power_cut, "The disk cannot be written"),
    ],
)
def test_a_fault_of_the_disk_is_said_and_the_reading_is_kept_once_afterwards(
    foot: Foot, tmp_path: Path, fault: Fault, words: str
) -> None:
    window, bench, step = foot
    book = window.open_book.book
    bench.feed(LIFT / 2, to_si(12, "cfm"))
    window.open_book._watch.stop()
    bench.feed(LIFT, to_si(24, "cfm"))
    with contextmanager(fault)(book, tmp_path / "book.sqlite"):
        step("press")
        phase = window.rooms["flow"].far.far.phase
        assert phase.startswith("NOT KEPT 0.050.") and words in phase
        assert counted(window) == {}
        window.open_book.look_for_changes()  # the window's own look says no more than one sentence either
        assert window.foot.said.text().count(".") <= 4
    step("press")
    assert window.rooms["flow"].far.far.phase.startswith("KEPT 0.050")
    space = window.open_book.workspace
    assert space is not None
    with Book.open(tmp_path / "book.sqlite") as again:
        (run,) = again.load(space.job.id).ports[0].cuts[0].runs
    assert len(run.readings) == 1

"""A book as a SQLite file: made, opened with its settings, migrated, and what the store refuses in our words."""

from __future__ import annotations

import os
import sqlite3
from contextlib import suppress
from importlib import resources
from pathlib import Path
from typing import Any, Final

from sqlalchemy import Connection, Engine
from sqlalchemy.exc import DatabaseError as SqlDatabaseError
from sqlalchemy.pool import QueuePool

from ventrix.records.bad_input import BookError, BookLocked, InputError
from ventrix.records.book.whole_copy import copy_whole
from ventrix.words import tr

HEAD: Final = "0015"  # newest migration; a test holds it to the scripts
PATIENCE: Final = 2.0  # s that a lock is waited for
_REFUSALS: Final = (
    ("locked", tr("another program is writing the book")),
    ("busy", tr("another program is writing the book")),
    ("full", tr("the disk is full")),
    ("readonly", tr("the book can only be read")),
    ("read-only", tr("the book can only be read")),
    ("i/o", tr("the disk cannot be written")),
    ("malformed", tr("the book's file is damaged")),
    ("not a database", tr("the book's file is damaged")),
    ("unable to open", tr("the book's file cannot be opened")),
    ("no such table", tr("the book's file was exchanged for another")),
)


def refusal(error: Exception) -> BookError:
    """What the store refused, in our words."""
    told = str(getattr(error, "orig", error)).lower()
    for word, sentence in _REFUSALS:
        if word in told:
            return BookLocked(sentence) if word in ("locked", "busy") else BookError(sentence)
    return BookError(tr("the store does not answer"))


def sqlite_settings(connection: sqlite3.Connection, record: Any) -> None:
    """What every connection to a book is set to."""
    connection.isolation_level = None  # SQLAlchemy and we say BEGIN; the driver's own rules stay out
    cursor = connection.cursor()
    cursor.execute("PRAGMA journal_mode=WAL")
    cursor.execute("PRAGMA synchronous=FULL")  # confirmed means on disk, also when the power goes
    cursor.execute("PRAGMA foreign_keys=ON")
    cursor.close()


def sqlite_begin(connection: Connection) -> None:
    """Begin a transaction: of a writer at once, so that a second window waits."""
    # A writer takes the lock at once, so a second window waits instead of failing half-way.
    writing = connection.get_execution_options().get("writing", False)
    # Whoever writes asks again by himself, so that a window is not held by the driver.
    connection.exec_driver_sql(f"PRAGMA busy_timeout={0 if writing else int(1000 * PATIENCE)}")
    connection.exec_driver_sql("BEGIN IMMEDIATE" if writing else "BEGIN")


def empty_log(engine: Engine) -> None:
    """Have what stands in the log written into the file that is open, whatever its name is by now."""
    pool = engine.pool
    if isinstance(pool, QueuePool) and pool.checkedin():
        with suppress(SqlDatabaseError), engine.connect() as connection:
            connection.connection.cursor().execute("PRAGMA wal_checkpoint(TRUNCATE)").close()


VERSIONS: Final = tuple(f"{n:04d}" for n in range(1, int(HEAD) + 1))


def migrate(engine: Engine, path: Path | None) -> None:
    """Bring a book to the newest version, copying it first. InputError for a newer one, or one that is none."""
    at = version_of(engine)
    if at == HEAD:
        return
    file = str(path or "")
    if at is not None and at not in VERSIONS:
        if at.isdigit() and len(at) < 9 and int(at) > int(HEAD):
            raise InputError(
                tr("this book was written by a newer Ventrix (its version {}, ours {}): update Ventrix", at, HEAD),
                file=file,
            )
        raise InputError(tr("its version '{}' is none that Ventrix ever wrote", at[:20]), file=file)
    copy = copy_before_migration(path, at) if at is not None and path is not None else None
    # Late: Alembic costs most of a second, and a book at its newest version never needs it.
    from ventrix.records.migrations.run import upgrade

    try:
        upgrade(engine)
    except (SqlDatabaseError, OSError, AssertionError) as error:
        if copy is None:
            raise
        kept = tr("it is as it was, and copied to {}", copy.name)
        raise InputError(tr("could not be brought up to date ({}); {}", refusal(error), kept), file=file) from None


def only_to_read(path: Path) -> bool:
    """Whether a book is there and cannot be written: the file, or the folder its log would lie in."""
    return path.is_file() and not (os.access(path, os.W_OK) and os.access(path.parent, os.W_OK))


def make_newest(path: Path) -> None:
    """A new book from the schema that the migrations end in; a test holds the two together."""
    script = resources.files("ventrix.records.migrations").joinpath("newest.sql").read_text(encoding="utf-8")
    with sqlite3.connect(path) as raw:
        raw.executescript(f"BEGIN IMMEDIATE;\n{script}COMMIT;")
    raw.close()


def version_of(engine: Engine) -> str | None:
    """The version a book was left at, None where it has none yet."""
    with engine.connect() as connection:
        if not engine.dialect.has_table(connection, "alembic_version"):
            return None
        found = connection.exec_driver_sql("SELECT version_num FROM alembic_version").scalar()
        return None if found is None else str(found)


def copy_before_migration(path: Path, version: str) -> Path:
    """A whole copy beside the book before it is changed, rows still in its log too."""
    target = path.with_name(f"{path.stem}-before-{version}-{os.getpid()}{path.suffix}")
    try:
        copy_whole(path, target)
    except (sqlite3.Error, OSError) as error:
        said = refusal(error) if isinstance(error, sqlite3.Error) else (error.strerror or "").lower()
        raise InputError(tr("could not be copied before it is brought up to date: {}", said), file=str(path)) from None
    return target

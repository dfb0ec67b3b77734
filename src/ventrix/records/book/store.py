"""Where a book is stored: one SQLite file, or any database by URL; opened, migrated, asked, and written to."""

from __future__ import annotations

import sqlite3
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

from sqlalchemy import Connection, Engine, create_engine, event
from sqlalchemy.exc import DatabaseError as SqlDatabaseError
from sqlalchemy.exc import IntegrityError, InterfaceError

from ventrix.records.bad_input import AlreadyThere, BookAway, BookError, BookLocked, InputError
from ventrix.records.book import postgres
from ventrix.records.book.loading import read_json
from ventrix.records.book.sqlite_file import (
    HEAD,
    PATIENCE,
    VERSIONS,
    empty_log,
    make_newest,
    migrate,
    only_to_read,
    refusal,
    sqlite_begin,
    sqlite_settings,
    version_of,
)
from ventrix.words import tr


def default_book_path() -> Path:
    """Where the user's own book lies (XDG data folder)."""
    import platformdirs

    return Path(platformdirs.user_data_dir("ventrix", appauthor=False)) / "book.sqlite"


def as_location(said: Path | str) -> Path | str:
    """Where a book lies, as it was said: a database's URL, or a file."""
    return said if isinstance(said, str) and "://" in said else Path(said)


class Store:
    """A book's file or database, made and migrated. Use `Store.open`, and close it.

    path : its file, None where it is no file
    name : where it lies, in words
    line : to a server: a window has it waited for aside
    committing : what it was asked for last is a commit
    exchanged : called where another file was put in the place of its own
    """

    def __init__(self, engine: Engine, path: Path | None = None, *, read_only: bool = False, name: str = "") -> None:
        self.engine = engine
        self.path = path
        self.read_only = read_only
        self.name = name or tr("this machine")
        self.line: postgres.Line | None = None
        self.committing = False
        self.exchanged: Callable[[], None] = lambda: None
        self.patience = PATIENCE if path is not None else postgres.PATIENT  # s
        self._is = None if path is None else _identity(path)
        self._writes: dict[str, Any] = {"writing": True} | (postgres.WRITER if path is None else {})

    def writer(self) -> str:
        """Who writes the book just now, in words."""
        return tr("Another window") if self.path is not None else postgres.who_writes(self.engine)

    def patience_for(self, refused: BookError) -> float:
        """How long it is tried again [s]: not at all where the edit may be on disk already."""
        if isinstance(refused, BookLocked):
            return self.patience
        return postgres.COMES_BACK if isinstance(refused, BookAway) and not self.committing else 0.0

    def _refusal(self, error: Exception) -> BookError:
        """What the store refused, in our words."""
        return refusal(error) if self.path is not None else postgres.refusal(error)

    @classmethod
    def open(cls, where: Path | str) -> Store:
        """Open a book's store, making or migrating it first.

        Parameters
        ----------
        where : Path or str
            A file, or a database URL.

        Raises
        ------
        InputError
            The file is no book, cannot be opened, or was written by a newer Ventrix.
        """
        if isinstance(where, Path):
            return cls._open_file(where)
        url = postgres.read_url(where)
        line = postgres.Line()
        engine = postgres.open_engine(url, line)
        try:
            postgres.make_ready(engine, url)
        except InputError:
            engine.dispose()
            raise
        store = cls(engine, name=postgres.shown(url))
        store.line = line
        return store

    @classmethod
    def _open_file(cls, path: Path) -> Store:
        try:
            if only_to_read(path):
                return cls._open_for_looking(path)
            path.parent.mkdir(parents=True, exist_ok=True)
            if not path.exists() or path.stat().st_size == 0:
                make_newest(path)
            engine = create_engine(f"sqlite:///{path}", connect_args={"timeout": PATIENCE}, json_deserializer=read_json)
            event.listen(engine, "connect", sqlite_settings)
            event.listen(engine, "begin", sqlite_begin)
            migrate(engine, path)
        except OSError as error:
            raise InputError(
                tr("the book cannot be opened: {}", (error.strerror or "").lower()), file=str(path)
            ) from None
        except (SqlDatabaseError, sqlite3.Error) as error:
            raise InputError(tr("is not a book, or cannot be opened: {}", refusal(error)), file=str(path)) from None
        return cls(engine, path)

    @classmethod
    def _open_for_looking(cls, path: Path) -> Store:
        """A book that cannot be written: no log, no lock, no migration."""
        engine = create_engine(
            f"sqlite:///file:{path.absolute().as_posix()}?mode=ro&immutable=1&uri=true", json_deserializer=read_json
        )
        at = version_of(engine)
        if at != HEAD:
            engine.dispose()
            said = tr(
                "it is of an older version, and can only be read: copy it where it can be written, and open the copy"
            )
            raise InputError(said if at in VERSIONS else tr("is not a book that this Ventrix reads"), file=str(path))
        return cls(engine, path, read_only=True)

    def close(self) -> None:
        self.engine.dispose()

    def _same_file(self) -> None:
        """Go on with the file that lies where the book was opened: another may have been put in its place, or this one
        back. BookError where there is none, or one that is no book of this version."""
        if self.path is None:
            return
        now = _identity(self.path)
        if now == self._is:
            return
        empty_log(self.engine)  # into the file that it is of: else the new one would take it for its own
        if now is None:
            raise BookError(tr("the book's file is gone"))
        self.engine.dispose()
        if version_of(self.engine) != HEAD:
            raise BookError(tr("the book's file was exchanged for one that is not a book, or an older one"))
        self._is = now
        self.exchanged()

    @contextmanager
    def reading(self) -> Iterator[Connection]:
        """A connection to ask on: what is read on it is of one moment. BookError where the store is silent."""
        try:
            self._same_file()
            with self.engine.connect() as connection:
                yield connection
        except (SqlDatabaseError, InterfaceError) as error:
            raise self._refusal(error) from None

    @contextmanager
    def writing(self) -> Iterator[Connection]:
        """A transaction that writes, committed at its end. BookError where the store does not take it."""
        if self.read_only:
            raise BookError(tr("the book can only be read"))
        self.committing = False
        try:
            self._same_file()
            with self.engine.connect().execution_options(**self._writes) as connection:
                yield connection
                self.committing = True
                connection.commit()
        except IntegrityError:
            raise AlreadyThere(
                tr("the book refuses it: it belongs to something that is not there, or is there twice")
            ) from None
        except (SqlDatabaseError, InterfaceError) as error:
            raise self._refusal(error) from None
        except OSError as error:
            raise BookError(tr("the book cannot be written: {}", (error.strerror or "").lower())) from None


def _identity(path: Path) -> tuple[int, int] | None:
    """Which file lies at a path, whatever is in it; None where there is none."""
    try:
        found = path.stat()
    except OSError:
        return None
    return found.st_dev, found.st_ino

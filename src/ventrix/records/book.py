"""The shop's book: one SQLite file (or any database by URL), opened, migrated, read and written.

Every accepted edit is one transaction, on disk before the caller goes on.
"""

from __future__ import annotations

import os
import sqlite3
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from importlib import resources
from pathlib import Path
from types import TracebackType
from typing import Any, Final

from sqlalchemy import Connection, Engine, Table, create_engine, event, select
from sqlalchemy.engine import make_url
from sqlalchemy.exc import DatabaseError as SqlDatabaseError
from sqlalchemy.exc import IntegrityError, OperationalError

from ventrix.core.bench_record import Bench
from ventrix.core.model import Cut, Job, Noun, Port
from ventrix.records import mapping
from ventrix.records.errors import InputError

HEAD: Final = "0004"  # newest migration; a test holds it to the scripts


def default_book_path() -> Path:
    """Where the user's own book lies (XDG data folder)."""
    import platformdirs

    return Path(platformdirs.user_data_dir("ventrix", appauthor=False)) / "book.sqlite"


@dataclass(frozen=True, slots=True)
class JobEntry:
    """A line of the book's contents."""

    id: str
    title: str


def _table(kind: type[Noun]) -> Table:
    table = mapping.TABLES[kind].__table__
    assert isinstance(table, Table)
    return table


class Book:
    """An open book. Use `Book.open`; close it, or use it as a context manager."""

    def __init__(self, engine: Engine, path: Path | None = None) -> None:
        self._engine = engine
        self._path = path

    @property
    def photo_folder(self) -> Path:
        """The book's own folder of pictures: beside its file, else in the user's data folder."""
        path = self._path or default_book_path()
        return path.with_name(f"{path.stem}-photos")

    @classmethod
    def open(cls, where: Path | str) -> Book:
        """Open a book, making or migrating it first.

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
        engine = create_engine(make_url(where))
        _migrate(engine, None)
        return cls(engine)

    @classmethod
    def _open_file(cls, path: Path) -> Book:
        try:
            path.parent.mkdir(parents=True, exist_ok=True)
            if not path.exists() or path.stat().st_size == 0:
                _make_newest(path)
            engine = create_engine(f"sqlite:///{path}", connect_args={"timeout": 10})
            event.listen(engine, "connect", _sqlite_settings)
            event.listen(engine, "begin", _sqlite_begin)
            _migrate(engine, path)
        except OSError as error:
            raise InputError(f"the book cannot be opened: {error.strerror}", file=str(path)) from None
        except (OperationalError, SqlDatabaseError) as error:
            raise InputError(f"is not a book, or cannot be opened: {error.orig}", file=str(path)) from None
        return cls(engine, path)

    def close(self) -> None:
        self._engine.dispose()

    def __enter__(self) -> Book:
        return self

    def __exit__(
        self, kind: type[BaseException] | None, error: BaseException | None, trace: TracebackType | None
    ) -> None:
        self.close()

    @contextmanager
    def _writing(self) -> Iterator[Connection]:
        with self._engine.connect().execution_options(writing=True) as connection:
            yield connection
            connection.commit()

    def jobs(self) -> list[JobEntry]:
        """Every job, by title."""
        job = _table(Job)
        with self._engine.connect() as connection:
            rows = connection.execute(select(job.c.id, job.c.title).order_by(job.c.title, job.c.id))
            return [JobEntry(row.id, row.title) for row in rows]

    def jobs_with_expectations(self) -> list[str]:
        """Ids of jobs in which something was said of a cut before the work."""
        port, cut = _table(Port), _table(Cut)
        said = cut.c.expected_gain.is_not(None) | cut.c.expected_time.is_not(None)
        with self._engine.connect() as connection:
            rows = connection.execute(
                select(port.c.job_id).join(cut, cut.c.port_id == port.c.id).where(said).distinct()
            )
            return [row.job_id for row in rows]

    def load(self, job_id: str) -> Job:
        """A whole job. KeyError if it is not in the book."""
        with self._engine.connect() as connection:
            job = _table(Job)
            found = connection.execute(select(job).where(job.c.id == job_id)).mappings().one_or_none()
            if found is None:
                raise KeyError(job_id)
            children: dict[tuple[str, str, str], list[Any]] = {}
            _load_below(connection, Job, [job_id], children)
        built = mapping.build(Job, found, children)
        assert isinstance(built, Job)
        return built

    def benches(self) -> tuple[Bench, ...]:
        """Every bench of the shop, by name, with the history of its checks."""
        bench = _table(Bench)
        with self._engine.connect() as connection:
            rows = connection.execute(select(bench).order_by(bench.c.name, bench.c.id)).mappings().all()
            children: dict[tuple[str, str, str], list[Any]] = {}
            if rows:
                _load_below(connection, Bench, [row["id"] for row in rows], children)
        return tuple(mapping.build(Bench, row, children) for row in rows)

    def write(self, *pairs: tuple[Noun | None, Noun | None]) -> None:
        """Make the book say `new` where it said `old`, for each pair: one transaction, on disk on return."""
        found = [mapping.changes(old, new) for old, new in pairs if old is not new]
        # Rows are made first: a figure that cannot be written refuses the whole before anything is.
        added = [(f, f.row()) for c in found for f in c.added]
        changed = [(f, f.row()) for c in found for f in c.changed]
        removed = [f for c in found for f in reversed(c.removed)]
        if not (added or changed or removed):
            return
        with self._writing() as connection:
            for flat in removed:
                table = _table(type(flat.noun))
                connection.execute(table.delete().where(table.c.id == flat.noun.id))
            for flat, row in added:
                connection.execute(_table(type(flat.noun)).insert().values(row))
            for flat, row in changed:
                table = _table(type(flat.noun))
                connection.execute(table.update().where(table.c.id == flat.noun.id).values(row))

    def add_job(self, job: Job, file: str = "") -> None:
        """Put in a whole job. InputError if one with its id, or a part of it, is there already."""
        try:
            self.write((None, job))
        except IntegrityError:
            raise InputError(f"job '{job.title}', or a part of it, is in the book already", file=file) from None

    def remove_job(self, job_id: str) -> None:
        """Take a job out for good."""
        job = _table(Job)
        with self._writing() as connection:
            connection.execute(job.delete().where(job.c.id == job_id))


def _load_below(
    connection: Connection, kind: type[Noun], ids: list[str], children: dict[tuple[str, str, str], list[Any]]
) -> None:
    parent = mapping.table_name(kind)
    for child in dict.fromkeys(mapping.CHILDREN.get(kind, {}).values()):
        table = _table(child)
        link = table.c[f"{parent}_id"]
        found: list[str] = []
        for start in range(0, len(ids), 500):  # SQLite takes a limited number of parameters
            part = ids[start : start + 500]
            rows = connection.execute(select(table).where(link.in_(part)).order_by(table.c.position)).mappings()
            for row in rows:
                children.setdefault((table.name, parent, row[link.name]), []).append(row)
                found.append(row["id"])
        if found:
            _load_below(connection, child, found, children)


def _sqlite_settings(connection: sqlite3.Connection, record: Any) -> None:
    connection.isolation_level = None  # SQLAlchemy and we say BEGIN; the driver's own rules stay out
    cursor = connection.cursor()
    cursor.execute("PRAGMA journal_mode=WAL")
    cursor.execute("PRAGMA synchronous=FULL")  # confirmed means on disk, also when the power goes
    cursor.execute("PRAGMA foreign_keys=ON")
    cursor.close()


def _sqlite_begin(connection: Connection) -> None:
    # A writer takes the lock at once, so a second window waits instead of failing half-way.
    writing = connection.get_execution_options().get("writing", False)
    connection.exec_driver_sql("BEGIN IMMEDIATE" if writing else "BEGIN")


def _migrate(engine: Engine, path: Path | None) -> None:
    at = _version(engine)
    if at == HEAD:
        return
    if at is not None and at > HEAD:
        raise InputError(
            f"this book was written by a newer Ventrix (its version {at}, ours {HEAD}): update Ventrix",
            file=str(path or ""),
        )
    if at is not None and path is not None:
        _back_up(path, at)
    # Late: Alembic costs most of a second, and a book at its newest version never needs it.
    from ventrix.records.migrations.run import upgrade

    upgrade(engine)


def _make_newest(path: Path) -> None:
    """A new book from the schema that the migrations end in; a test holds the two together."""
    script = resources.files("ventrix.records.migrations").joinpath("newest.sql").read_text(encoding="utf-8")
    with sqlite3.connect(path) as raw:
        raw.executescript(f"BEGIN IMMEDIATE;\n{script}COMMIT;")
    raw.close()


def _version(engine: Engine) -> str | None:
    with engine.connect() as connection:
        if not engine.dialect.has_table(connection, "alembic_version"):
            return None
        found = connection.exec_driver_sql("SELECT version_num FROM alembic_version").scalar()
        return None if found is None else str(found)


def _back_up(path: Path, version: str) -> None:
    """A copy beside the book before it is changed; SQLite's own copying keeps rows still in the WAL."""
    target = path.with_name(f"{path.stem}-before-{version}-{os.getpid()}{path.suffix}")
    with sqlite3.connect(path) as source, sqlite3.connect(target) as copy:
        source.backup(copy)

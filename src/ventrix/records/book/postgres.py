"""A book on PostgreSQL, for several stations: the same tables, one writer at a time, and a lost connection said."""

from __future__ import annotations

import socket
from collections.abc import Callable
from typing import Any, Final

from sqlalchemy import Connection, Engine, create_engine, event
from sqlalchemy.engine import URL, make_url
from sqlalchemy.exc import ArgumentError, DBAPIError

from ventrix.records.bad_input import BookAway, BookError, BookLocked, InputError
from ventrix.records.book.loading import read_json
from ventrix.records.book.sqlite_file import migrate
from ventrix.words import tr

DRIVER: Final = "postgresql+psycopg"
LOCK: Final = 0x56_45_4E_54  # of writers and of migrations, among all that a server may lock
CONNECTS_IN: Final = 4  # s before a silent server is given up
LOCKED_FOR: Final = 150  # ms that a writer waits inside the server: its window lives in between
COMES_BACK: Final = 10.0  # s that a server which went away is tried again: one that is restarted is back by then
PATIENT: Final = 60.0  # s that a writer waits in all: other stations take their turns, on slow machines too
ANSWERS_IN: Final = 10_000  # ms a question may take
# A writer sees what was written while it waited for its turn.
WRITER: Final = {"isolation_level": "READ COMMITTED"}
# Words of the server or its library, and what we say.
_REFUSALS: Final = (
    ("lock timeout", tr("another station is writing the book")),
    ("password authentication failed", tr("the database does not take that password")),
    ("no password supplied", tr("the database needs a password: give it by ~/.pgpass, PGPASSFILE or a service")),
    ("does not exist", tr("there is no such database, user or table there")),
    ("permission denied", tr("this user may not write the book")),
    ("read-only transaction", tr("the book can only be read")),
    ("connection refused", tr("the database cannot be reached: nothing listens there")),
    ("could not translate host", tr("the database cannot be reached: there is no such host")),
    ("failed to resolve host", tr("the database cannot be reached: there is no such host")),
    ("timeout expired", tr("the database cannot be reached: it does not answer")),
    ("statement timeout", tr("the database takes too long")),
    ("disk full", tr("the database's disk is full")),
    ("no space left", tr("the database's disk is full")),
)


def refusal(error: Exception) -> BookError:
    """What the server refused, in our words."""
    told = str(getattr(error, "orig", error)).lower()
    for word, sentence in _REFUSALS:
        if word in told:
            kind = BookLocked if word == "lock timeout" else BookAway if "reached" in sentence else BookError
            return kind(sentence)
    return BookAway(tr("the connection to the book is lost"))


def read_url(said: str) -> URL:
    """A database's URL. InputError for what is none, for another kind of database, or where it carries a password."""
    try:
        url = make_url(said)
    except (ArgumentError, ValueError):
        raise InputError("is no database's URL, as postgresql+psycopg://host/database", field="--book") from None
    if url.drivername not in (DRIVER, "postgresql"):
        raise InputError(tr("'{}' is not {}", url.drivername[:30], DRIVER), field="--book")
    if url.password or "password" in url.query:
        raise InputError(
            tr("carries a password, where anybody sees it: leave it to ~/.pgpass, PGPASSFILE or a service"),
            field="--book",
        )
    return url.set(drivername=DRIVER)


def shown(url: URL) -> str:
    """A database as it is named in sentences."""
    return f"{url.host or tr('this machine')}/{url.database or ''}".rstrip("/")


class Line:
    """How a server is asked: in the caller's thread, unless a window says where its waiting is done."""

    def __init__(self) -> None:
        self.aside: Callable[[Callable[[], Any]], Any] = lambda work: work()

    def lay(self, engine: Engine) -> None:
        """Have everything that waits for the server go this way."""
        dialect = engine.dialect
        connect = dialect.connect

        def executed(cursor: Any, statement: str, parameters: Any, _context: Any) -> bool:
            self.aside(lambda: cursor.execute(statement, parameters))
            return True

        def executed_many(cursor: Any, statement: str, parameters: Any, _context: Any) -> bool:
            self.aside(lambda: cursor.executemany(statement, parameters))
            return True

        event.listen(engine, "do_connect", lambda _d, _r, said, named: self.aside(lambda: connect(*said, **named)))
        event.listen(engine, "do_execute", executed)
        event.listen(engine, "do_executemany", executed_many)
        for name in ("do_commit", "do_rollback", "do_ping"):
            waits = getattr(dialect, name)
            setattr(dialect, name, lambda connection, waits=waits: self.aside(lambda: waits(connection)))


def open_engine(url: URL, line: Line | None = None) -> Engine:
    """An engine that gives up in time, and notices a connection that died before it uses it."""
    engine = create_engine(
        url,
        json_deserializer=read_json,
        pool_pre_ping=True,
        pool_size=2,
        isolation_level="REPEATABLE READ",  # what is read together is of one moment
        connect_args={
            "connect_timeout": CONNECTS_IN,
            "keepalives_idle": 5,
            "keepalives_interval": 2,
            "keepalives_count": 3,
            "tcp_user_timeout": 1000 * CONNECTS_IN,
            "options": f"-c statement_timeout={ANSWERS_IN} -c lock_timeout={LOCKED_FOR}",
            "application_name": f"ventrix on {socket.gethostname()}"[:63],
        },
    )
    event.listen(engine, "begin", _begin)
    if line is not None:
        line.lay(engine)
    return engine


def _begin(connection: Connection) -> None:
    """A writer waits its turn: what it read before it writes is then what there is."""
    if connection.get_execution_options().get("writing", False):
        connection.exec_driver_sql(f"SELECT pg_advisory_xact_lock({LOCK})")


def who_writes(engine: Engine) -> str:
    """Which station holds the writers' lock just now, in words."""
    asked = (
        "SELECT a.application_name, a.usename FROM pg_locks l JOIN pg_stat_activity a USING (pid) "
        f"WHERE l.locktype = 'advisory' AND l.objid = {LOCK} AND l.granted LIMIT 1"
    )
    try:
        with engine.connect() as connection:
            row = connection.exec_driver_sql(asked).first()
    except DBAPIError:
        row = None
    if row is None:
        return tr("another station")
    station = str(row[0]).removeprefix("ventrix on ")
    return f"{station or tr('another station')} ({row[1]})"


def make_ready(engine: Engine, url: URL) -> None:
    """Bring the database to the newest version, one station at a time. InputError where that cannot be."""
    try:
        with engine.connect() as connection:
            for limit in ("lock_timeout", "statement_timeout"):  # another station may be bringing it up to date
                connection.exec_driver_sql(f"SET LOCAL {limit} = {int(1000 * PATIENT)}")
            connection.exec_driver_sql(f"SELECT pg_advisory_xact_lock({LOCK + 1})")
            migrate(engine, None)
    except InputError as error:
        raise InputError(error.sentence, file=shown(url)) from None
    except DBAPIError as error:
        raise InputError(str(refusal(error)), file=shown(url)) from None


def backup_words(url: Any) -> str:
    """What is said where a database is asked to back itself up."""
    return f"{url} is a database: its own tools back it up and restore it (pg_dump, pg_restore)"

"""The shop's book: what stands in it, read and written.

Every accepted edit is one transaction, on disk before the caller goes on.
"""

from __future__ import annotations

import time
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from pathlib import Path
from types import TracebackType
from typing import Any, Final

from sqlalchemy import Connection, select

from ventrix.core.model.bench import Bench, bench_named
from ventrix.core.model.job import Job
from ventrix.core.model.library import LibraryItem
from ventrix.core.model.noun import Noun
from ventrix.core.model.plausible import check_plausible
from ventrix.records.bad_input import (
    ActGone,
    AlreadyThere,
    BookAway,
    BookError,
    BookLocked,
    Conflict,
    InputError,
    sentence_of,
)
from ventrix.records.book import rows
from ventrix.records.book.acts import Act, acts_of, changes_of, forget_act, recalled, store_act
from ventrix.records.book.loading import load_benches, load_job, load_library
from ventrix.records.book.merging import merged, name_of, shared
from ventrix.records.book.store import Store, default_book_path
from ventrix.records.book.tables import METADATA, REVISION, TABLES
from ventrix.words import tr

ORDER: Final = {table.name: i for i, table in enumerate(METADATA.sorted_tables)}  # parents before children
BENCHES: Final = "benches"  # whose revision all benches share
UNKNOWN: Final = -1  # a revision that no book has
SAYS_AFTER: Final = 1.0  # s of waiting before who writes is said
LIBRARY: Final = "library"  # and everything of the library


@dataclass(frozen=True, slots=True)
class JobEntry:
    """A line of the book's contents."""

    id: str
    title: str


class Book:
    """An open book. Use `Book.open`; close it, or use it as a context manager."""

    def __init__(self, store: Store) -> None:
        self.store = store
        self.path, self.read_only, self.name = store.path, store.read_only, store.name
        self.shared_photos: Path | None = None  # a folder that every station reaches
        self.wait: Callable[[float], None] = time.sleep  # while another program holds the lock; a window looks on
        self.says: Callable[[str], None] = lambda _sentence: None  # what is to be known while it waits
        self._seen: dict[str, int] = {}
        store.exchanged = self._forget_seen

    @classmethod
    def open(cls, where: Path | str) -> Book:
        """Open a book, a file or a database URL, making or migrating it first. InputError as `Store.open`."""
        return cls(Store.open(where))

    @property
    def photo_folder(self) -> Path:
        """The book's folder of pictures: beside its file; of a database the shared one that was named, else one in the
        user's data folder."""
        if self.shared_photos is not None:
            return self.shared_photos
        path = self.path or default_book_path()
        return path.with_name(f"{path.stem}-photos")

    def close(self) -> None:
        self.store.close()

    def __enter__(self) -> Book:
        return self

    def __exit__(
        self, kind: type[BaseException] | None, error: BaseException | None, trace: TracebackType | None
    ) -> None:
        self.close()

    def _forget_seen(self) -> None:
        """The numbers of the book that was put in place of this one say nothing of what was read here."""
        self._seen = dict.fromkeys(self._seen, UNKNOWN)

    def jobs(self) -> list[JobEntry]:
        """Every job, by title."""
        job = TABLES[Job]
        with self.store.reading() as connection:
            rows = connection.execute(select(job.c.id, job.c.title).order_by(job.c.title, job.c.id))
            return [JobEntry(row.id, row.title) for row in rows]

    def load(self, job_id: str, *, follow: bool = False) -> Job:
        """A whole job. KeyError if it is not in the book. `follow`: edits made from here on start from this state."""
        with self.store.reading() as connection:
            number = revision_of(connection, job_id)
            found = load_job(connection, job_id)
        if found is None:
            raise KeyError(job_id)
        if follow:
            self._seen[job_id] = number
        return found

    def benches(self, *, follow: bool = False) -> tuple[Bench, ...]:
        """Every bench of the shop, by name, with the history of its checks. `follow` as in `load`."""
        with self.store.reading() as connection:
            if follow:
                self._seen[BENCHES] = revision_of(connection, BENCHES)
            return load_benches(connection)

    def library(self) -> tuple[LibraryItem, ...]:
        """What the book keeps for every job; edits made from here on start from this state."""
        with self.store.reading() as connection:
            self._seen[LIBRARY] = revision_of(connection, LIBRARY)
            return load_library(connection)

    def revisions(self) -> dict[str, int]:
        """How often each job, by its id, was written."""
        with self.store.reading() as connection:
            return {row.owner: row.number for row in connection.execute(select(REVISION.c.owner, REVISION.c.number))}

    def changed_elsewhere(self, job_id: str) -> tuple[bool, bool]:
        """Whether another window or station wrote this job, or the shop's benches, since they were read here."""
        with self.store.reading() as connection:
            return tuple(  # type: ignore[return-value]
                revision_of(connection, owner) != self._seen.get(owner, 0) for owner in (job_id, BENCHES)
            )

    def write(
        self, *pairs: tuple[Noun | None, Noun | None], act: Act | None = None, undone: str = ""
    ) -> tuple[Noun | None, ...]:
        """Make the book say `new` where it said `old`, for each pair: one transaction, on disk on return.

        What another window wrote meanwhile stays: both edits are brought together noun by noun.

        Parameters
        ----------
        pairs : tuple of Noun or None
            A job or bench before and after; None before for a new one, after for one taken out.
        act : Act, optional
            What the edit of the job is kept as, so that undo survives a restart.
        undone : str
            Id of the act that this takes back.

        Returns
        -------
        tuple of Noun or None
            What the book says now, for each pair.

        Raises
        ------
        ValueError
            A figure that cannot be written.
        BookError
            The book did not take it: disk full, locked for over two seconds, only to be read, or changed by
            another window in the same place. Nothing of it is on disk then.
        """
        began, told = time.monotonic(), False
        while True:
            try:
                return self._write(pairs, act, undone)
            except (BookLocked, BookAway) as refused:
                waited = time.monotonic() - began
                if waited >= self.store.patience_for(refused):
                    raise
                if waited >= SAYS_AFTER and not told:
                    told = True
                    self.says(
                        tr("{} is writing the book: waiting for its turn to end.", self.store.writer())
                        if isinstance(refused, BookLocked)
                        else tr("{} Trying again.", sentence_of(refused))
                    )
            self.wait(0.05)

    def _write(
        self, pairs: Sequence[tuple[Noun | None, Noun | None]], act: Act | None, undone: str
    ) -> tuple[Noun | None, ...]:
        stored: list[Noun | None] = []
        numbers: dict[str, int] = {}
        with self.store.writing() as connection:
            for old, new in pairs:
                if old is new:
                    stored.append(new)
                    continue
                root = new if new is not None else old
                assert root is not None
                owner = _owner(root)
                number = revision_of(connection, owner)
                if old is not None and number != self._seen.get(owner, number):
                    old, new = _brought_together(old, new, _there(connection, root))
                found = rows.changes(old, new)
                _execute(connection, found)
                if act is not None and isinstance(root, Job) and old is not None and new is not None:
                    store_act(connection, act, root.id, found)
                numbers[owner] = number + 1
                stored.append(new)
            if undone:
                forget_act(connection, undone)
            for owner, number in numbers.items():
                _set_revision(connection, owner, number)
        self._seen |= numbers
        return tuple(stored)

    def acts(self, job_id: str) -> list[Act]:
        """The last edits of a job, oldest first."""
        with self.store.reading() as connection:
            return acts_of(connection, job_id)

    def recall(self, act: Act, job: Job) -> tuple[Job, Job]:
        """A job as an act found it and as it left it, everything else as it is now. BookError where that is gone."""
        with self.store.reading() as connection:
            found = changes_of(connection, act.id)
        if found is None:
            raise ActGone(tr("'{}' is no longer kept: another window has taken it back", act.name))
        try:
            before, after = recalled(job, found)
        except (KeyError, TypeError, ValueError):
            raise BookError(tr("'{}' belongs to something that is no longer there", act.name)) from None
        return shared(job, before), shared(job, after)

    def add_job(self, job: Job, file: str = "", benches: tuple[Bench, ...] = ()) -> list[str]:
        """Put in a whole job with the benches that came along; returns names of benches that were here already.

        InputError if a job with its id, or a part of it, is there already.
        """
        known = self.benches()
        new = [b for b in benches if bench_named(known, b.name) is None and all(b.id != k.id for k in known)]
        with self.store.reading() as connection:
            job_table = TABLES[Job]
            taken = connection.execute(select(job_table.c.id).where(job_table.c.id == job.id)).first() is not None
        try:
            if taken:
                raise AlreadyThere
            self.write((None, job), *((None, b) for b in new))
        except AlreadyThere:
            raise InputError(tr("job '{}', or a part of it, is in the book already", job.title), file=file) from None
        except BookError as error:
            raise InputError(str(error), file=file) from None
        return [b.name for b in benches if bench_named(known, b.name) is not None]

    def remove_job(self, job_id: str) -> None:
        """Take a job out for good, row by row: what hangs from something goes before it."""
        with self.store.reading() as connection:
            found = load_job(connection, job_id)
        if found is not None:
            self.write((found, None))


def _execute(connection: Connection, found: rows.Changes) -> None:
    """Write the rows in which two states differ. ValueError for a figure that cannot be, before anything is written."""
    for flat in (*found.added, *found.changed):
        check_plausible(flat.noun)
    # Rows are made first: a figure that cannot be written refuses the whole before anything is.
    added, changed = ([(f, f.row()) for f in flats] for flats in (found.added, found.changed))
    for flat in reversed(found.removed):
        table = TABLES[type(flat.noun)]
        connection.execute(table.delete().where(table.c.id == flat.noun.id))
    # One statement a table, those that others hang from first.
    groups: dict[tuple[str, str | None], list[dict[str, Any]]] = {}
    for flat, row in added:
        groups.setdefault((TABLES[type(flat.noun)].name, flat.parent), []).append(row)
    for (name, _), each in sorted(groups.items(), key=lambda group: ORDER[group[0][0]]):
        connection.execute(METADATA.tables[name].insert(), each)
    for flat, row in changed:
        table = TABLES[type(flat.noun)]
        if connection.execute(table.update().where(table.c.id == flat.noun.id).values(row)).rowcount != 1:
            raise BookError(tr("{} is no longer in the book", name_of(flat.noun)))


def _brought_together(old: Noun, new: Noun | None, there: Noun | None) -> tuple[Noun, Noun | None]:
    """What the book says now, and what it is to say: another window wrote in between."""
    if there is None:
        raise Conflict(tr("{} was deleted in another window", name_of(old)))
    if new is None:
        if there != old:
            raise Conflict(tr("{} was changed in another window, and is not deleted", name_of(old)))
        return there, None
    return there, merged(old, new, shared(old, there))


def _owner(root: Noun) -> str:
    """Under whose revision a noun is written."""
    return {Bench: BENCHES, LibraryItem: LIBRARY}.get(type(root), root.id)


def _there(connection: Connection, root: Noun) -> Noun | None:
    """A job, bench or thing of the library as the book has it now."""
    if isinstance(root, Job):
        return load_job(connection, root.id)
    shelf: tuple[Noun, ...] = load_benches(connection) if isinstance(root, Bench) else load_library(connection)
    return next((n for n in shelf if n.id == root.id), None)


def revision_of(connection: Connection, owner: str) -> int:
    """How often a job, or the benches, were written."""
    found = connection.execute(select(REVISION.c.number).where(REVISION.c.owner == owner)).scalar()
    return 0 if found is None else int(found)


def _set_revision(connection: Connection, owner: str, number: int) -> None:
    if connection.execute(REVISION.update().where(REVISION.c.owner == owner).values(number=number)).rowcount == 0:
        connection.execute(REVISION.insert().values(owner=owner, number=number))

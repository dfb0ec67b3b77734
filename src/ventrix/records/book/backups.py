"""Dated copies of a book: made every day, kept for a fortnight and then one a month; checked, and put back."""

from __future__ import annotations

import re
import sqlite3
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date
from pathlib import Path
from typing import Final

from ventrix.records.bad_input import InputError
from ventrix.records.book.sqlite_file import refusal
from ventrix.records.book.tables import words_of_table
from ventrix.records.book.whole_copy import copy_whole
from ventrix.words import tr

DAILY: Final = 14  # copies of single days that are kept; older ones, one a month
_NAME: Final = re.compile(r"(\d{4}-\d{2}-\d{2})\.sqlite")


@dataclass(frozen=True, slots=True)
class Backup:
    """A copy of a book: its day, its file, how large it is."""

    day: str
    path: Path
    size: int


def folder_of(book: Path) -> Path:
    """Where a book's copies lie: beside it."""
    return book.with_name(f"{book.stem}-backups")


def backups_of(book: Path) -> list[Backup]:
    """The copies of a book, newest first."""
    found = []
    for path in folder_of(book).glob("*.sqlite"):
        named = _NAME.fullmatch(path.name)
        if named is not None:
            found.append(Backup(named[1], path, path.stat().st_size))
    return sorted(found, key=lambda b: b.day, reverse=True)


def back_up(book: Path, day: date, *, again: bool = False) -> Backup | None:
    """Copy a book under a day's name, and let go of copies that are no longer kept.

    Parameters
    ----------
    book : Path
        The file.
    day : date
        Today.
    again : bool
        Also where the day has its copy already.

    Returns
    -------
    Backup or None
        None where the day has its copy already.

    Raises
    ------
    InputError
        It could not be copied; a copy that is not whole is not left behind.
    """
    target = folder_of(book) / f"{day.isoformat()}.sqlite"
    if target.exists() and not again:
        return None
    try:
        target.parent.mkdir(parents=True, exist_ok=True)
        copy_whole(book, target)
    except OSError as error:
        raise InputError(tr("could not be backed up: {}", (error.strerror or "").lower()), file=str(book)) from None
    except sqlite3.Error as error:
        raise InputError(tr("could not be backed up: {}", refusal(error)), file=str(book)) from None
    made = Backup(day.isoformat(), target, target.stat().st_size)
    for old in superfluous(backups_of(book)):
        old.path.unlink(missing_ok=True)
    return made


def superfluous(backups: Sequence[Backup]) -> list[Backup]:
    """Copies that are let go of: older than the fourteen newest, and not the first that is left of their month."""
    older = sorted(backups, key=lambda b: b.day, reverse=True)[DAILY:]
    firsts = {b.day[:7]: b for b in older}  # newest first, so the month's earliest stays
    return [b for b in older if firsts[b.day[:7]] is not b]


def _put_back(copy: Path, book: Path) -> None:
    """A copy into a book that others may have open: in one transaction of SQLite's own. sqlite3.Error where that cannot
    be."""
    had, has = sqlite3.connect(copy), sqlite3.connect(book)
    try:
        had.backup(has)
    finally:
        had.close()
        has.close()


def check(book: Path) -> list[str]:
    """What is wrong with a book's file, a sentence each; nothing where it is whole."""
    if not book.exists():
        return [tr("there is no such file")]
    raw = sqlite3.connect(f"{book.absolute().as_uri()}?mode=ro", uri=True)
    try:
        said = [row[0] for row in raw.execute("PRAGMA integrity_check").fetchall() if row[0] != "ok"]
        for table, row, parent, _ in raw.execute("PRAGMA foreign_key_check").fetchall():
            child, owner = words_of_table(table), words_of_table(parent)
            said.append(tr("{}, row {}: the {} that it belongs to is not there", child, row, owner))
        if raw.execute("SELECT count(*) FROM sqlite_master WHERE name = 'alembic_version'").fetchone()[0] == 0:
            said.append(tr("it is not a Ventrix book"))
    except sqlite3.Error as error:
        return [str(refusal(error))]
    finally:
        raw.close()
    return said


def restore(book: Path, day: str, today: date) -> Path:
    """Put a day's copy in the book's place; the present book is copied first, beside its backups.

    Returns
    -------
    Path
        Where the book as it was lies.

    Raises
    ------
    InputError
        There is no copy of that day, or it is damaged, or the book cannot be written.
    """
    chosen = next((b for b in backups_of(book) if b.day == day), None)
    if chosen is None:
        days = ", ".join(b.day for b in backups_of(book)[:8]) or "none"
        raise InputError(tr("there is no backup of '{}'; there are {}", day[:20], days), field="DAY")
    wrong = check(chosen.path)
    if wrong:
        raise InputError(tr("the backup of {} is damaged: {}", day, wrong[0]), file=chosen.path.name)
    kept = folder_of(book) / f"replaced-{today.isoformat()}.sqlite"
    number = 1
    while kept.exists():
        number += 1
        kept = folder_of(book) / f"replaced-{today.isoformat()}-{number}.sqlite"
    try:
        if book.exists():
            copy_whole(book, kept)
        _put_back(chosen.path, book)
    except (OSError, sqlite3.Error) as error:
        said = refusal(error) if isinstance(error, sqlite3.Error) else (error.strerror or "").lower()
        raise InputError(tr("could not be restored: {}", said), file=str(book)) from None
    return kept

"""A book copied whole or not at all, whatever kills the program meanwhile: no half a copy, no log beside it."""

from __future__ import annotations

import contextlib
import os
import sqlite3
from pathlib import Path
from typing import Final

from ventrix.words import tr

_NAMELESS: Final = getattr(os, "O_TMPFILE", 0)


def copy_whole(source: Path, target: Path) -> None:
    """Copy a book with the rows that are still in its log, and put the copy in place in one step.

    The copy has no name until it is whole and on disk: nothing of it is left where the program is killed. Where the
    file system has no files without a name, it is written beside the target and half a one is taken away at the next
    copy.

    Parameters
    ----------
    source, target : Path
        The book, and its copy; a target that is there already is replaced.

    Raises
    ------
    OSError
        There is no such book, or the copy cannot be written.
    sqlite3.Error
        The book cannot be read.
    """
    if not source.exists():
        raise FileNotFoundError(2, tr("there is no such file"))
    had = sqlite3.connect(source)
    memory = sqlite3.connect(":memory:")
    try:
        had.backup(memory)
        data = bytearray(memory.serialize())
    finally:
        had.close()
        memory.close()
    # A copy is put away: marked as a book without a log (bytes 18 and 19 of SQLite's file format, 1.3.3), looking
    # at it leaves no log beside it.
    data[18:20] = b"\x01\x01"
    folder = target.parent
    _tidy(target)
    handle = _open(folder, target)
    try:
        with os.fdopen(handle, "wb", closefd=False) as file:
            file.write(data)
            file.flush()
        os.fsync(handle)
        _name(handle, target)
    except OSError:
        _part(target).unlink(missing_ok=True)
        raise
    finally:
        os.close(handle)
    _settle(folder)


def _part(target: Path) -> Path:
    return target.with_name(f".{target.name}.part")


def _tidy(target: Path) -> None:
    """What an earlier copy left where it was killed, by this program or an older one."""
    old = target.with_suffix(".part")
    for left in (_part(target), old, *(old.with_name(f"{old.name}-{log}") for log in ("journal", "wal", "shm"))):
        with contextlib.suppress(OSError):
            left.unlink(missing_ok=True)


def _open(folder: Path, target: Path) -> int:
    if _NAMELESS:
        with contextlib.suppress(OSError):
            return os.open(folder, _NAMELESS | os.O_RDWR, 0o644)
    return os.open(_part(target), os.O_CREAT | os.O_TRUNC | os.O_RDWR, 0o644)


def _name(handle: int, target: Path) -> None:
    """Give the copy its name; one that is there already goes in the same step."""
    part = _part(target)
    if os.fstat(handle).st_nlink == 0:
        try:
            _link(handle, target)
            return
        except FileExistsError:
            _link(handle, part)
    os.replace(part, target)


def _link(handle: int, name: Path) -> None:
    # With a folder's handle Python asks for linkat, which alone follows the link in /proc to the file itself.
    os.link(f"/proc/self/fd/{handle}", name, src_dir_fd=handle, follow_symlinks=True)


def _settle(folder: Path) -> None:
    """The name on disk too, where the system can be asked for that."""
    with contextlib.suppress(OSError):
        handle = os.open(folder, os.O_RDONLY)
        try:
            os.fsync(handle)
        finally:
            os.close(handle)

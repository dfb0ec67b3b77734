"""Files written whole or not at all, and read only where they are files: what every import and export goes through."""

from __future__ import annotations

import os
import re
import stat
from pathlib import Path

from ventrix.core.quantity.refused import Refused
from ventrix.records.bad_input import InputError
from ventrix.words import tr


def read_whole(path: Path, largest: int, what: str) -> bytes:
    """The bytes of a file of at most `largest`; `what` names the kind of file in sentences.

    Raises InputError for what is no file (a device or pipe would never end), too large, or cannot be read.
    """
    name = path.name
    try:
        found = path.stat()
        if stat.S_ISDIR(found.st_mode):
            raise InputError(tr("is a folder"), file=name)
        if not stat.S_ISREG(found.st_mode):
            raise InputError(tr("is a device or a pipe, not a file"), file=name)
        if found.st_size > largest:
            raise InputError(tr("is too large for {}: over {} MiB", what, largest // 1024**2), file=name)
        return path.read_bytes()
    except OSError as error:
        raise InputError(tr("cannot be read: {}", reason(error)), file=name) from None
    except Refused as error:  # a null byte in the name
        if isinstance(error, InputError):
            raise
        raise InputError(tr("is not the name of a file"), file=name.replace("\0", "?")) from None


def write_whole(path: Path, data: bytes | str) -> None:
    """Write a file, whole or not at all. A link is followed, not replaced; a device is written to, not replaced.

    Raises InputError where the place cannot be written.
    """
    content = data.encode("utf-8") if isinstance(data, str) else data
    beside: Path | None = None
    try:
        target = Path(os.path.realpath(path)) if path.is_symlink() else path
        if target.exists() and not target.is_file():
            if target.is_dir():
                raise InputError(tr("is a folder"), file=path.name)
            with open(target, "wb", buffering=0) as device:
                device.write(content)
            return
        beside = target.with_name(f".{target.name[:200]}.{os.getpid()}")
        with open(beside, "wb") as file:
            file.write(content)
            file.flush()
            os.fsync(file.fileno())
        os.replace(beside, target)
    except OSError as error:
        if beside is not None:
            beside.unlink(missing_ok=True)
        raise InputError(tr("cannot be written: {}", reason(error)), file=path.name) from None


def reason(error: OSError) -> str:
    """Why the system refused, in small letters."""
    return (error.strerror or tr("unknown reason")).lower()


def safe_name(text: str) -> str:
    """A file name that every system takes, from any text."""
    plain = re.sub(r"[^\w .,()+-]", "_", text).strip(" .") or "unnamed"
    return plain.encode("ascii", "replace").decode().replace("?", "_")[:80]

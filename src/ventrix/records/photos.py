"""Pictures of the work: copied into the book's own folder, named by what is in them."""

from __future__ import annotations

import hashlib
import os
from pathlib import Path
from typing import Final

from ventrix.records.errors import InputError

LARGEST: Final = 60 * 1024 * 1024  # bytes
KINDS: Final = {
    b"\xff\xd8\xff": ".jpg",
    b"\x89PNG\r\n\x1a\n": ".png",
}


def keep_photo(folder: Path, source: Path) -> str:
    """Copy a picture into the folder; returns its file name there. The same picture is kept once.

    Raises
    ------
    InputError
        The file cannot be read, is no JPEG or PNG, or is too large.
    """
    try:
        if source.stat().st_size > LARGEST:
            raise InputError("is too large for a photo", file=source.name)
        data = source.read_bytes()
    except OSError as error:
        raise InputError(f"cannot be read: {(error.strerror or '').lower()}", file=source.name) from None
    suffix = next((end for mark, end in KINDS.items() if data.startswith(mark)), None)
    if suffix is None:
        raise InputError("is no JPEG or PNG picture", file=source.name)
    name = hashlib.sha256(data).hexdigest()[:24] + suffix
    try:
        folder.mkdir(parents=True, exist_ok=True)
        target = folder / name
        if not target.exists():
            beside = folder / f".{name}.{os.getpid()}"
            beside.write_bytes(data)
            os.replace(beside, target)
    except OSError as error:
        raise InputError(f"cannot be kept: {(error.strerror or '').lower()}", file=source.name) from None
    return name

"""Pictures of the work: copied into the book's own folder, named by what is in them."""

from __future__ import annotations

import hashlib
from pathlib import Path
from typing import Final

from ventrix.records.bad_input import InputError
from ventrix.records.files.whole_file import read_whole, reason, write_whole

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
    data = read_whole(source, LARGEST, "a photo")
    suffix = next((end for mark, end in KINDS.items() if data.startswith(mark)), None)
    if suffix is None:
        raise InputError("is no JPEG or PNG picture", file=source.name)
    name = hashlib.sha256(data).hexdigest()[:24] + suffix
    try:
        folder.mkdir(parents=True, exist_ok=True)
        target = folder / name
        if not target.exists():
            write_whole(target, data)
    except OSError as error:
        raise InputError(f"cannot be kept: {reason(error)}", file=source.name) from None
    return name

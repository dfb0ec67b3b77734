"""Pictures and scans of the work: copied into the book's own folder, named by what is in them."""

from __future__ import annotations

import hashlib
from pathlib import Path
from typing import Final

from ventrix.records.bad_input import InputError
from ventrix.records.files.mesh_files import LARGEST as LARGEST_MESH
from ventrix.records.files.mesh_files import mesh_of
from ventrix.records.files.whole_file import read_whole, reason, write_whole
from ventrix.words import tr

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
    data = read_whole(source, LARGEST, tr("a photo"))
    suffix = next((end for mark, end in KINDS.items() if data.startswith(mark)), None)
    if suffix is None:
        raise InputError(tr("is not a JPEG or PNG picture"), file=source.name)
    return keep_file(folder, data, suffix, source.name)


def keep_mesh(folder: Path, source: Path) -> str:
    """Copy a scan into the folder, as a picture is. InputError where it cannot be read, or is no mesh."""
    data = read_whole(source, LARGEST_MESH, tr("a mesh"))
    mesh_of(data, source.name)
    return keep_file(folder, data, source.suffix.lower(), source.name)


def keep_file(folder: Path, data: bytes, suffix: str, said: str) -> str:
    """Put a file into the folder by what is in it; its name there."""
    name = hashlib.sha256(data).hexdigest()[:24] + suffix
    try:
        folder.mkdir(parents=True, exist_ok=True)
        target = folder / name
        if not target.exists():
            write_whole(target, data)
    except OSError as error:
        raise InputError(tr("cannot be kept: {}", reason(error)), file=said) from None
    return name

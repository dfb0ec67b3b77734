"""Everything of a job in one archive or folder: its document, its tables, its photos; and in again from it.

What comes in is read with suspicion: names that leave the folder, archives that swell, and files without end are
refused before a byte of them is kept.
"""

from __future__ import annotations

import io
import stat
import zipfile
import zlib
from collections.abc import Mapping
from dataclasses import dataclass
from pathlib import Path, PurePosixPath
from typing import Final

from ventrix.core.model.job import Job
from ventrix.records.bad_input import InputError
from ventrix.records.files.document_checks import is_photo_name
from ventrix.records.files.job_document import JobDocument, loads_document
from ventrix.records.files.mesh_files import KINDS as MESHES
from ventrix.records.files.mesh_files import mesh_of
from ventrix.records.files.photos import KINDS, LARGEST
from ventrix.records.files.whole_file import read_whole, reason, write_whole
from ventrix.words import tr

DOCUMENT: Final = "job.json"
PHOTOS: Final = "photos"
LARGEST_ARCHIVE: Final = 512 * 1024 * 1024  # bytes
LARGEST_DOCUMENT: Final = 256 * 1024 * 1024
LARGEST_INSIDE: Final = 1024 * 1024 * 1024  # of all files together, unpacked
MOST_FILES: Final = 5000
GREATEST_SWELL: Final = 200  # times its packed size that a file may unpack to


@dataclass(frozen=True, slots=True)
class Packed:
    """What an archive or folder holds: the document and its photos by name."""

    document: JobDocument
    photos: Mapping[str, bytes]


def photo_files(job: Job) -> list[str]:
    """The names of every picture a job speaks of."""
    named = [p.file for p in job.photos]
    for port in job.ports:
        named += [f.photo for f in port.faults if f.photo] + [s.photo for s in port.slips if s.photo]
        for cut in port.cuts:
            named += [p.file for p in cut.photos]
            named += [s.file for s in cut.scans]
            named += [o.photo for o in cut.observations if getattr(o, "photo", "")]
    return [n for n in dict.fromkeys(named) if is_photo_name(n)]


def photos_of(job: Job, folder: Path) -> tuple[dict[str, bytes], list[str]]:
    """The pictures of a job, read from the book's folder, and the names of those that cannot be."""
    found: dict[str, bytes] = {}
    missing = []
    for name in photo_files(job):
        try:
            found[name] = read_whole(folder / name, LARGEST, tr("a photo"))
        except InputError:
            missing.append(name)
    return found, missing


def write_archive(path: Path, files: Mapping[str, bytes]) -> None:
    """Write files by their names into a zip archive, whole or not at all. InputError where it cannot be written."""
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        for name, data in files.items():
            info = zipfile.ZipInfo(name, (1980, 1, 1, 0, 0, 0))  # the same files make the same archive
            info.compress_type = zipfile.ZIP_DEFLATED
            info.external_attr = (stat.S_IFREG | 0o644) << 16
            archive.writestr(info, data)
    write_whole(path, out.getvalue())


def write_folder(path: Path, files: Mapping[str, bytes]) -> None:
    """Write files by their names into a new folder. InputError where it is there already, or cannot be written."""
    if path.exists():
        raise InputError(tr("is there already: name a new folder"), file=path.name)
    try:
        for name, data in files.items():
            target = path / name
            target.parent.mkdir(parents=True, exist_ok=True)
            write_whole(target, data)
    except OSError as error:
        raise InputError(tr("cannot be written: {}", reason(error)), file=path.name) from None


def read_packed(path: Path) -> Packed:
    """A job with its photos from an archive, or from a folder.

    Raises
    ------
    InputError
        No archive, a name that leaves the folder, more or larger files than a job has, or a document that is refused.
    """
    if path.is_dir():
        return _read_folder(path)
    data = read_whole(path, LARGEST_ARCHIVE, tr("a job's archive"))
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as archive:
            return _read_archive(archive, path.name)
    except (zipfile.BadZipFile, zlib.error, EOFError, NotImplementedError, RuntimeError, ValueError, OSError) as error:
        if isinstance(error, InputError):
            raise
        raise InputError(tr("is not an archive, or is damaged"), file=path.name) from None


def _read_archive(archive: zipfile.ZipFile, name: str) -> Packed:
    entries = archive.infolist()
    if len(entries) > MOST_FILES:
        raise InputError(tr("holds more than {} files", MOST_FILES), file=name)
    if sum(e.file_size for e in entries) > LARGEST_INSIDE:
        raise InputError(tr("unpacks to more than {} MiB", LARGEST_INSIDE // 1024**2), file=name)
    by_name: dict[str, zipfile.ZipInfo] = {}
    for entry in entries:
        _check_entry(entry, name)
        by_name.setdefault(entry.filename, entry)
    document = by_name.get(DOCUMENT)
    if document is None:
        raise InputError(tr("holds no {}", DOCUMENT), file=name)
    read = loads_document(_unpack(archive, document, LARGEST_DOCUMENT, name), f"{name}, {DOCUMENT}")
    photos = {}
    for wanted in photo_files(read.job):
        found = by_name.get(f"{PHOTOS}/{wanted}")
        if found is not None:
            photos[wanted] = _checked_photo(_unpack(archive, found, LARGEST, name), wanted, name)
    return Packed(read, photos)


def _check_entry(entry: zipfile.ZipInfo, name: str) -> None:
    """Refuse a name that leaves the folder, a link, and a file that unpacks to far more than it is."""
    parts = PurePosixPath(entry.filename.replace("\\", "/"))
    kind = stat.S_IFMT(entry.external_attr >> 16)
    if parts.is_absolute() or ".." in parts.parts or ":" in entry.filename or "\0" in entry.filename:
        raise InputError(tr("holds a name that leaves its folder"), file=name, field=entry.filename)
    if kind and not (stat.S_ISREG(entry.external_attr >> 16) or stat.S_ISDIR(entry.external_attr >> 16)):
        raise InputError(tr("holds a link or a device"), file=name, field=entry.filename)
    if entry.file_size > 1024 * 1024 and entry.file_size > GREATEST_SWELL * max(entry.compress_size, 1):
        raise InputError(tr("holds a file that swells beyond reason"), file=name, field=entry.filename)
    if entry.flag_bits & 0x1:
        raise InputError(tr("is locked with a password"), file=name, field=entry.filename)


def _unpack(archive: zipfile.ZipFile, entry: zipfile.ZipInfo, most: int, name: str) -> bytes:
    """A file's bytes, never more than was announced, nor more than its kind may have."""
    if entry.file_size > most:
        raise InputError(tr("is larger than {} MiB", most // 1024**2), file=name, field=entry.filename)
    with archive.open(entry) as file:
        data = file.read(entry.file_size + 1)
    if len(data) != entry.file_size:
        raise InputError(tr("is not as long as it says"), file=name, field=entry.filename)
    return data


def _checked_photo(data: bytes, photo: str, name: str) -> bytes:
    if photo.lower().endswith(MESHES):
        try:
            mesh_of(data, photo)
        except InputError as error:
            raise InputError(error.sentence, file=name, field=photo) from None
        return data
    if not any(data.startswith(mark) for mark in KINDS):
        raise InputError(tr("is not a JPEG or PNG picture"), file=name, field=photo)
    return data


def _read_folder(path: Path) -> Packed:
    document = path / DOCUMENT
    if not document.exists():
        raise InputError(tr("holds no {}", DOCUMENT), file=path.name)
    read = loads_document(read_whole(document, LARGEST_DOCUMENT, tr("a job document")), DOCUMENT)
    photos = {}
    for wanted in photo_files(read.job):
        file = path / PHOTOS / wanted
        if file.is_file() and not file.is_symlink():
            photos[wanted] = _checked_photo(read_whole(file, LARGEST, tr("a photo")), wanted, path.name)
    return Packed(read, photos)


def keep_photos(folder: Path, photos: Mapping[str, bytes]) -> None:
    """Put pictures into the book's folder; one that is there already stays. InputError where that cannot be."""
    try:
        folder.mkdir(parents=True, exist_ok=True)
        for name, data in photos.items():
            if not (folder / name).exists():
                write_whole(folder / name, data)
    except OSError as error:
        raise InputError(tr("cannot be kept: {}", reason(error)), file=str(folder)) from None

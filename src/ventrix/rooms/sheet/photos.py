"""Pictures that may go on a sheet: of both cuts and of the job, in that order."""

from __future__ import annotations

from collections.abc import Collection, Iterator
from pathlib import Path

from ventrix.core.model.cut import Cut, Photo
from ventrix.core.model.job import Job
from ventrix.records.bad_input import InputError
from ventrix.records.files.document_checks import is_photo_name
from ventrix.records.files.photos import LARGEST
from ventrix.records.files.whole_file import read_whole
from ventrix.reports.sheet.contents import PhotoPart
from ventrix.words import tr

MOST = 6


def photos_for(job: Job, before: Cut | None, after: Cut | None) -> list[tuple[Photo, str]]:
    """Every picture that may go on the sheet, with what stands beneath it."""
    return list({photo.file: (photo, words) for photo, words in _all(job, before, after)}.values())


def _all(job: Job, before: Cut | None, after: Cut | None) -> Iterator[tuple[Photo, str]]:
    for cut in (c for c in (before, after) if c is not None):
        for photo in cut.photos:
            words = ", ".join(w for w in (tr("cut {}", cut.number), photo.moment, photo.caption) if w)
            yield photo, words
    for photo in job.photos:
        yield photo, photo.caption or photo.moment or "the head"


def photo_parts(folder: Path, photos: list[tuple[Photo, str]], chosen: Collection[str]) -> tuple[PhotoPart, ...]:
    """The pictures chosen by their files' names, read; one that cannot be read says so in its place."""
    found: list[PhotoPart] = []
    for photo, words in photos:
        if photo.file in chosen and is_photo_name(photo.file) and len(found) < MOST:
            try:
                data = read_whole(folder / photo.file, LARGEST, tr("a photo"))
            except InputError:
                data = b""
            found.append(PhotoPart(data, words))
    return tuple(found)

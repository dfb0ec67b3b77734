"""Which lessons were done and how well, in a small file beside the practices."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Final

from ventrix.records.bad_input import InputError
from ventrix.records.files.whole_file import read_whole, write_whole
from ventrix.words import tr

FILE: Final = "lessons.json"
LARGEST: Final = 100_000  # bytes


def read_progress(folder: Path) -> dict[str, tuple[int, int]]:
    """Best points and tries by lesson; nothing where there is no file yet, or one that cannot be read."""
    try:
        found = json.loads(read_whole(folder / FILE, LARGEST, "progress"))
        return {str(k): (int(v[0]), int(v[1])) for k, v in found.items()}
    except (InputError, ValueError, TypeError, KeyError, IndexError, AttributeError, RecursionError):
        return {}


def note_try(folder: Path, lesson: str, points: int) -> dict[str, tuple[int, int]]:
    """One more try at a lesson, on disk when this returns. InputError where it cannot be kept."""
    progress = read_progress(folder)
    best, tries = progress.get(lesson, (0, 0))
    progress[lesson] = (max(best, points), tries + 1)
    try:
        folder.mkdir(parents=True, exist_ok=True)
    except OSError as error:
        raise InputError(tr("cannot be made: {}", error.strerror or error), file=str(folder)) from None
    write_whole(folder / FILE, json.dumps(progress, indent=1) + "\n")
    return progress

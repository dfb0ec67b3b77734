"""What is installed, in one line: for `ventrix --version`, and for a report."""

from __future__ import annotations

import platform
from importlib.metadata import PackageNotFoundError, version

from ventrix.records.book.sqlite_file import HEAD
from ventrix.words import tr


def version_words() -> str:
    """Ventrix, Python, Qt and the version of books, in one line."""
    return tr("Ventrix {}, Python {}, Qt {}, book {}", version("ventrix"), platform.python_version(), _qt(), HEAD)


def _qt() -> str:
    """The version of Qt, whichever of its packages brought it."""
    for name in ("PySide6_Essentials", "PySide6"):
        try:
            return version(name)
        except PackageNotFoundError:
            continue
    return tr("not installed")

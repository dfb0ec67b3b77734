"""What is installed, in one line: for `ventrix --version`, and for a report."""

from __future__ import annotations

import platform
from importlib.metadata import PackageNotFoundError, version

from ventrix.records.book.sqlite_file import HEAD


def version_words() -> str:
    """Ventrix, Python, Qt and the version of books, in one line."""
    return f"Ventrix {version('ventrix')}, Python {platform.python_version()}, Qt {_qt()}, book {HEAD}"


def _qt() -> str:
    """The version of Qt, whichever of its packages brought it."""
    for name in ("PySide6_Essentials", "PySide6"):
        try:
            return version(name)
        except PackageNotFoundError:
            continue
    return "not installed"

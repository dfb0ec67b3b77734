"""Where the log lies: what went wrong with the program itself is written there."""

from __future__ import annotations

from pathlib import Path

import platformdirs


def log_path() -> Path:
    """In the XDG state folder."""
    return Path(platformdirs.user_state_dir("ventrix", appauthor=False)) / "ventrix.log"

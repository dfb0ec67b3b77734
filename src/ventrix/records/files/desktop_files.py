"""Menu entry, icon, file types and manual page into the user's own folders; nothing outside them is touched."""

from __future__ import annotations

import os
import shutil
import subprocess
from importlib import resources
from pathlib import Path
from typing import Final

from ventrix.records.bad_input import InputError
from ventrix.records.files.whole_file import reason, write_whole
from ventrix.words import tr

ID: Final = "org.ventrix.Ventrix"
SIZES: Final = (16, 24, 32, 48, 64, 128, 256)


def data_home() -> Path:
    """The user's data folder, as the XDG base directory specification has it."""
    named = os.environ.get("XDG_DATA_HOME", "")
    return Path(named) if named.startswith("/") else Path.home() / ".local/share"


def desktop_files(home: Path) -> dict[Path, bytes]:
    """Where each file goes, and what is in it."""
    ours = resources.files("ventrix").joinpath("desktop")
    icons = home / "icons/hicolor"
    found = {
        home / f"applications/{ID}.desktop": ours.joinpath(f"{ID}.desktop").read_bytes(),
        home / f"mime/packages/{ID}.xml": ours.joinpath(f"{ID}.xml").read_bytes(),
        home / f"metainfo/{ID}.metainfo.xml": ours.joinpath(f"{ID}.metainfo.xml").read_bytes(),
        home / "man/man1/ventrix.1": ours.joinpath("ventrix.1").read_bytes(),
        icons / f"scalable/apps/{ID}.svg": ours.joinpath("icons/ventrix.svg").read_bytes(),
    }
    for size in SIZES:
        data = ours.joinpath(f"icons/ventrix-{size}.png").read_bytes()
        found[icons / f"{size}x{size}/apps/{ID}.png"] = data
    return found


def install_desktop(home: Path | None = None) -> list[Path]:
    """Put the files there and tell the desktop's own databases, where their programs are at hand.

    Raises InputError where a folder cannot be written.
    """
    root = home or data_home()
    files = desktop_files(root)
    for path, data in files.items():
        try:
            path.parent.mkdir(parents=True, exist_ok=True)
        except OSError as error:
            raise InputError(tr("cannot be made: {}", reason(error)), file=str(path.parent)) from None
        write_whole(path, data)
    for program, folder in (("update-mime-database", "mime"), ("update-desktop-database", "applications")):
        found = shutil.which(program)
        if found is not None:  # without it the files wait for the next login
            subprocess.run([found, str(root / folder)], check=False, capture_output=True, timeout=60)
    return list(files)


def remove_desktop(home: Path | None = None) -> list[Path]:
    """Take away what `install_desktop` put there."""
    gone = []
    for path in desktop_files(home or data_home()):
        if path.exists():
            path.unlink()
            gone.append(path)
    return gone

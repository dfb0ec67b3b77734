"""A bench is read by one program at a time: who reads it holds it, and the next one is told who does."""

from __future__ import annotations

import fcntl
import os
import tempfile
from datetime import datetime
from hashlib import sha256
from pathlib import Path
from typing import Final

from ventrix.bench.links.tcp import LinkError
from ventrix.words import tr

PROCESSES: Final = Path("/proc")
LONGEST_NAME: Final = 200  # characters of what a holder says of itself


class Hold:
    """A bench held; let go of by `close`, or when the program ends, however it ends."""

    def __init__(self, file: int) -> None:
        self._file = file

    def close(self) -> None:
        if self._file >= 0:
            os.close(self._file)
        self._file = -1


def take_hold(address: str) -> Hold:
    """Hold the bench at an address of this machine's, or a machine's as seen from here.

    Raises
    ------
    LinkError
        Another program has it: its name, its process, since when.
    """
    holder = _who_has_open(address) if address.startswith("/") else ""
    if holder:
        raise LinkError(tr("{} is held by {}: end that first", address, holder))
    path = _record_of(address)
    try:
        file = os.open(path, os.O_RDWR | os.O_CREAT | os.O_CLOEXEC, 0o600)
    except OSError:
        return Hold(-1)  # nowhere to write it down: the bench is read all the same
    try:
        fcntl.flock(file, fcntl.LOCK_EX | fcntl.LOCK_NB)
    except BlockingIOError:
        said = os.read(file, LONGEST_NAME).decode("utf-8", errors="replace").strip()
        os.close(file)
        raise LinkError(tr("{} is held by {}: end that first", address, said or tr("another Ventrix"))) from None
    os.ftruncate(file, 0)
    os.write(file, f"another Ventrix (process {os.getpid()}) since {datetime.now():%H:%M}\n".encode())
    return Hold(file)


def _record_of(address: str) -> Path:
    """Where it stands who holds it."""
    folder = Path(os.environ.get("XDG_RUNTIME_DIR") or tempfile.gettempdir())
    return folder / f"ventrix-bench-{os.getuid()}-{sha256(address.lower().encode()).hexdigest()[:16]}"


def _who_has_open(device: str) -> str:
    """Another program of this user's that has a device open, in words; empty where none is seen."""
    wanted = os.path.realpath(device)
    for process in PROCESSES.glob("[0-9]*"):
        if int(process.name) == os.getpid():
            continue
        try:
            if any(os.path.realpath(each) == wanted for each in (process / "fd").iterdir()):
                return tr("{} (process {})", (process / "comm").read_text("utf-8", "replace").strip(), process.name)
        except OSError:
            continue  # another user's, or over by now
    return ""

"""A PostgreSQL server of the tests' own: a cluster in a temporary folder, on a free port, not as root."""

from __future__ import annotations

import os
import shutil
import socket
import subprocess
import tempfile
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

USER = "ventrix"


def programs() -> Path | None:
    """Where initdb and pg_ctl are, of the newest version at hand; None where there are none."""
    found = sorted(Path("/usr/lib/postgresql").glob("*/bin/initdb"), key=lambda p: int(p.parts[-3]))
    if found:
        return found[-1].parent
    here = shutil.which("initdb")
    return Path(here).resolve().parent if here else None


def why_none() -> str:
    """Why no server can be started here; empty where one can."""
    if programs() is None:
        return "PostgreSQL is not installed (scripts/test installs it, as root)"
    if os.geteuid() == 0 and shutil.which("runuser") is None:
        return "a server never runs as root, and runuser is missing"
    return ""


def _free_port() -> int:
    with socket.socket() as found:
        found.bind(("127.0.0.1", 0))
        return int(found.getsockname()[1])


class Server:
    """A running server; `stop` and `start` take it away and bring it back."""

    def __init__(self, folder: Path, port: int) -> None:
        self.folder, self.port = folder, port

    def _run(self, program: str, *arguments: str) -> None:
        bin_folder = programs()
        assert bin_folder is not None
        command = [str(bin_folder / program), *arguments]
        if os.geteuid() == 0:
            command = ["runuser", "-u", "postgres", "--", *command]
        subprocess.run(command, check=True, capture_output=True, timeout=60, cwd="/")

    def make(self) -> None:
        self._run("initdb", "-D", str(self.folder / "data"), "-A", "trust", "-U", USER, "-E", "UTF8", "--no-sync")

    def start(self) -> None:
        options = f"-p {self.port} -c listen_addresses=127.0.0.1 -c unix_socket_directories='' -c fsync=off"
        log = str(self.folder / "log")
        self._run("pg_ctl", "-D", str(self.folder / "data"), "-o", options, "-l", log, "-w", "start")

    def stop(self) -> None:
        self._run("pg_ctl", "-D", str(self.folder / "data"), "-m", "immediate", "-w", "stop")

    def url(self, database: str) -> str:
        return f"postgresql+psycopg://{USER}@127.0.0.1:{self.port}/{database}"

    def ask_passwords_of(self, role: str) -> None:
        """From now on this role is let in by its password."""
        rules = self.folder / "data/pg_hba.conf"
        rules.write_text(f"host all {role} 127.0.0.1/32 scram-sha-256\n" + rules.read_text(encoding="utf-8"), "utf-8")
        self.tell("SELECT pg_reload_conf()")

    def tell(self, statement: str) -> None:
        """Have the server do something outside of any transaction."""
        import psycopg

        with psycopg.connect(f"host=127.0.0.1 port={self.port} user={USER} dbname=postgres", autocommit=True) as told:
            told.execute(statement)  # type: ignore[arg-type]


@contextmanager
def running_server() -> Iterator[Server]:
    """A server for as long as it is needed."""
    folder = Path(tempfile.mkdtemp(prefix="ventrix-pg-"))
    if os.geteuid() == 0:
        shutil.chown(folder, "postgres")
    server = Server(folder, _free_port())
    try:
        server.make()
        server.start()
        yield server
        server.stop()
    finally:
        shutil.rmtree(folder, ignore_errors=True)

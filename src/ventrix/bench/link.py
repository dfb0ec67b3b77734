"""Lines to and from an instrument over a wire."""

from __future__ import annotations

import socket
from types import TracebackType
from typing import Protocol

LONGEST_ANSWER = 4096  # bytes


class LinkError(Exception):
    """The wire failed; the text is a sentence for the screen."""


class Link(Protocol):
    """Whatever carries lines: TCP here, a written-down exchange in tests."""

    def write(self, line: str) -> None: ...
    def ask(self, line: str) -> str: ...
    def close(self) -> None: ...


class TcpLink:
    """A line link over TCP.

    Parameters
    ----------
    host, port : str, int
        Where the instrument listens.
    timeout : float
        Longest wait for an answer [s].

    Raises
    ------
    LinkError
        From every method, when the wire fails or stays silent.
    """

    def __init__(self, host: str, port: int, timeout: float = 2.0) -> None:
        try:
            self._socket = socket.create_connection((host, port), timeout=timeout)
        except OSError as error:
            raise LinkError(f"no bench answers at {host} port {port} ({_why(error)})") from None
        self._rest = b""

    def write(self, line: str) -> None:
        try:
            self._socket.sendall(line.encode("ascii") + b"\n")
        except OSError as error:
            raise LinkError(f"the link to the bench broke ({_why(error)})") from None

    def ask(self, line: str) -> str:
        self.write(line)
        while b"\n" not in self._rest:
            if len(self._rest) > LONGEST_ANSWER:
                raise LinkError("the bench sends without end: this is not a bench we can read")
            try:
                got = self._socket.recv(4096)
            except OSError as error:
                raise LinkError(f"the bench does not answer ({_why(error)})") from None
            if not got:
                raise LinkError("the bench closed the link")
            self._rest += got
        answer, _, self._rest = self._rest.partition(b"\n")
        return answer.decode("ascii", errors="replace").strip()

    def close(self) -> None:
        self._socket.close()

    def __enter__(self) -> TcpLink:
        return self

    def __exit__(
        self, kind: type[BaseException] | None, error: BaseException | None, trace: TracebackType | None
    ) -> None:
        self.close()


def _why(error: OSError) -> str:
    return "timed out" if isinstance(error, TimeoutError) else (error.strerror or str(error)).lower()

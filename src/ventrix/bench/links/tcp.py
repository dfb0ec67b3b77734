"""Lines to and from an instrument over a wire."""

from __future__ import annotations

import ipaddress
import re
import socket
from types import TracebackType
from typing import Final, Protocol

from ventrix.core.quantity.refused import Refused
from ventrix.words import tr

LONGEST_ANSWER = 4096  # bytes


ANSWER_WITHIN: Final = 1.0  # s: a bench that takes longer is silent


class LinkError(Exception):
    """The wire failed; the text is a sentence for the screen."""


class OutOfStep(LinkError):
    """An answer came that nobody asked for: what was read last cannot be told from it."""


class Link(Protocol):
    """Whatever carries lines: TCP here, a written-down exchange in tests."""

    def write(self, line: str) -> None: ...
    def ask(self, line: str) -> str: ...
    def interrupt(self) -> None: ...
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

    def __init__(self, host: str, port: int, timeout: float = ANSWER_WITHIN) -> None:
        try:
            self._socket = socket.create_connection((host, port), timeout=timeout)
        except (OSError, UnicodeError) as error:
            raise LinkError(tr("no bench answers at {} port {} ({})", host, port, _why(error))) from None
        self._rest = b""
        self._timeout = timeout

    def write(self, line: str) -> None:
        try:
            self._socket.sendall(line.encode("ascii") + b"\n")
        except OSError as error:
            raise LinkError(tr("the link to the bench broke ({})", _why(error))) from None

    def ask(self, line: str) -> str:
        """The answer to a query. OutOfStep where something is in the wire that belongs to no question."""
        stray = self._stray()
        if stray:
            raise OutOfStep(
                tr("an answer came that nobody asked for ('{}'): readings are dropped until in step", stray[:40])
            )
        self.write(line)
        while b"\n" not in self._rest:
            if len(self._rest) > LONGEST_ANSWER:
                raise LinkError(tr("the bench sends without end: this is not a bench we can read"))
            try:
                got = self._socket.recv(4096)
            except OSError as error:
                raise LinkError(tr("the bench does not answer ({})", _why(error))) from None
            if not got:
                raise LinkError(tr("the bench closed the link"))
            self._rest += got
        answer, _, self._rest = self._rest.partition(b"\n")
        if self._rest:
            self._rest = b""
            raise OutOfStep(tr("two answers came to {}: readings are dropped until in step", line))
        return answer.decode("ascii", errors="replace").strip()

    def _stray(self) -> str:
        """What lies in the wire before a question is asked."""
        found, self._rest = self._rest, b""
        try:
            self._socket.setblocking(False)
            found += self._what_waits(100 * LONGEST_ANSWER)
            self._socket.settimeout(self._timeout)
        except OSError as error:
            raise LinkError(tr("the link to the bench broke ({})", _why(error))) from None
        return found.decode("ascii", errors="replace").strip()

    def _what_waits(self, most: int) -> bytes:
        found = b""
        try:
            while len(found) < most and (got := self._socket.recv(4096)):
                found += got
        except (BlockingIOError, InterruptedError):
            pass
        return found

    def interrupt(self) -> None:
        """From another thread: end a wait for an answer. Closing is left to the thread that asks."""
        try:
            self._socket.shutdown(socket.SHUT_RDWR)
        except OSError:
            pass  # not connected any more

    def close(self) -> None:
        self._socket.close()

    def __enter__(self) -> TcpLink:
        return self

    def __exit__(
        self, kind: type[BaseException] | None, error: BaseException | None, trace: TracebackType | None
    ) -> None:
        self.close()


def _why(error: OSError | UnicodeError) -> str:
    if isinstance(error, TimeoutError):
        return tr("timed out")
    return tr("no such machine") if isinstance(error, UnicodeError) else (error.strerror or str(error)).lower()


_LABEL = re.compile(r"[A-Za-z0-9_](?:[A-Za-z0-9_-]{0,61}[A-Za-z0-9_])?")


def host_and_port(text: str) -> tuple[str, int]:
    """An address as a person types it; ValueError with a sentence where it is not one."""
    host, _, port = text.strip().rpartition(":")
    if not host or not (port.isascii() and port.isdecimal()) or len(port) > 5 or not 0 < int(port) < 65536:
        raise Refused("'{}' is not host:port, as in localhost:5025", text[:80])
    bare = host.removeprefix("[").removesuffix("]")
    try:
        ipaddress.ip_address(bare)
    except ValueError:
        labels = host.rstrip(".").split(".")
        if len(host) > 253 or not all(_LABEL.fullmatch(label) for label in labels) or labels[-1].isdecimal():
            raise Refused("'{}' is not the name or address of a machine", host[:80]) from None
    return bare, int(port)

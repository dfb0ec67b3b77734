"""A link that plays a written-down exchange: what goes over the wire, line by line."""

from __future__ import annotations

from ventrix.bench.links.tcp import LinkError


class WrittenExchange:
    """Each step is (what the driver must send, what comes back or None). Unconsumed lines fail."""

    def __init__(self, *steps: tuple[str, str | None]) -> None:
        self._steps = list(steps)
        self.closed = False

    def _next(self, line: str) -> str | None:
        assert self._steps, f"nothing more was to be sent, and {line!r} came"
        wanted, answer = self._steps.pop(0)
        assert line == wanted
        return answer

    def write(self, line: str) -> None:
        assert self._next(line) is None

    def ask(self, line: str) -> str:
        answer = self._next(line)
        if answer is None:
            raise LinkError("the bench does not answer (timed out)")
        return answer

    def interrupt(self) -> None:
        self.close()

    def close(self) -> None:
        self.closed = True

    def done(self) -> bool:
        return not self._steps

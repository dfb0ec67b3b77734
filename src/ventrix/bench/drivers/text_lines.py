"""Benches that stream lines of text: which column is what, and reading them over a serial port.

A home-built bench sends a line a moment, numbers between separators, and takes no commands. Half
lines and garbage are passed over and counted; silence is an error with a sentence.
"""

from __future__ import annotations

import math
import re
import time as clock
from collections import deque
from collections.abc import Callable, Mapping
from dataclasses import asdict, dataclass, field
from typing import Any, Final, Protocol

from ventrix.bench.drivers.sample import Sample
from ventrix.bench.links.tcp import LinkError
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import to_si, unit
from ventrix.words import tr

LONGEST_LINE: Final = 400  # bytes: a longer one is nobody's line
SILENCE: Final = 1.2  # s without one good line before the wire is called silent
MOST_AT_ONCE: Final = 65_536  # bytes
FIELDS: Final = ("flow", "pressure", "lift", "temperature", "swirl", "probe")
SEPARATORS: Final = {"comma": ",", "semicolon": ";", "tab": "\t", "space": None, "colon": ":"}
_NUMBER: Final = re.compile(r"[+-]?(?:\d+(?:[.]\d*)?|[.]\d+)(?:[eE][+-]?\d+)?")


@dataclass(frozen=True, slots=True)
class TextColumn:
    """A column: which of `FIELDS` it is, its place from 1, its unit, and value = scale x number + offset."""

    name: str
    place: int
    unit: str
    scale: float = 1.0
    offset: float = 0.0


@dataclass(frozen=True, slots=True)
class TextFormat:
    """How the lines look. Needs at least a flow and a pressure column to read a bench."""

    speed: int = 9600
    separator: str = "comma"
    columns: tuple[TextColumn, ...] = field(default=())

    def check(self) -> None:
        """ValueError with a sentence where no bench can be read like this."""
        if self.separator not in SEPARATORS:
            raise Refused("'{}' is not one of {}", self.separator, ", ".join(SEPARATORS))
        if self.speed not in range(300, 4_000_001):
            raise Refused("the speed must lie between 300 and 4 000 000 baud")
        names = [c.name for c in self.columns]
        for wanted in ("flow", "pressure"):
            if wanted not in names:
                raise Refused("no column is the {}", wanted)
        if len(set(names)) != len(names):
            raise Refused("a figure stands in two columns")
        for column in self.columns:
            unit(column.unit)
            if not 1 <= column.place <= 40:
                raise Refused("columns are counted from 1 to 40")
            if column.name not in FIELDS:
                raise Refused("'{}' is not one of {}", column.name, ", ".join(FIELDS))
            if not (math.isfinite(column.scale) and math.isfinite(column.offset)) or column.scale == 0:
                raise Refused("the scale of {} must be a number other than zero", column.name)

    def as_document(self) -> dict[str, Any]:
        """As the bench's record keeps it."""
        return asdict(self) | {"columns": [asdict(c) for c in self.columns]}

    @classmethod
    def of(cls, document: Mapping[str, Any]) -> TextFormat:
        """From a bench's record; ValueError where it makes no sense."""
        try:
            columns = tuple(TextColumn(**c) for c in document.get("columns", ()))
            made = cls(int(document.get("speed", 9600)), str(document.get("separator", "comma")), columns)
        except (TypeError, ValueError):
            raise Refused("the columns of this bench's lines are not as they should be") from None
        made.check()
        return made

    def split(self, line: str) -> list[str]:
        """The cells of a line."""
        mark = SEPARATORS[self.separator]
        return [cell.strip() for cell in (line.split() if mark is None else line.split(mark))]

    def read(self, line: str, now: float) -> Sample | None:
        """A sample from a line, None where the line is not one of the bench's."""
        cells = self.split(line)
        values: dict[str, float] = {}
        for column in self.columns:
            if column.place > len(cells):
                return None
            found = _NUMBER.fullmatch(cells[column.place - 1])
            if found is None:
                return None
            number = column.scale * float(found[0]) + column.offset
            if not math.isfinite(number):
                return None
            values[column.name] = to_si(number, column.unit)
        return Sample(time=now, **values)


class ByteStream(Protocol):
    """What carries bytes: a serial port here, anything with these in tests."""

    @property
    def in_waiting(self) -> int: ...
    def read(self, size: int) -> bytes: ...
    def close(self) -> None: ...


class TextBench:
    """A bench that streams lines.

    Parameters
    ----------
    stream : ByteStream
        With a short read timeout of its own; an empty answer means nothing has come. `in_waiting` is how many bytes
        lie ready.
    shape : TextFormat
        How lines look.
    name : str
        For sentences: the port it hangs on.
    now : callable
        Seconds, rising.
    """

    is_simulated = False

    def __init__(
        self, stream: ByteStream, shape: TextFormat, name: str, now: Callable[[], float] = clock.monotonic
    ) -> None:
        shape.check()
        self._stream, self._shape, self._name, self._now = stream, shape, name, now
        self._rest = b""
        self._ended = False
        self._first = True  # reading begins in the middle of a line
        self.passed_over = 0
        self.last_lines: deque[str] = deque(maxlen=8)
        self.identity = tr("lines on {}", name)

    def sample(self, time: float) -> Sample:
        """The newest good line there is, with the time it came at; lines before it are past. Waits for one.

        LinkError after SILENCE without one.
        """
        until = self._now() + SILENCE
        newest: Sample | None = None
        while not self._ended:
            for line in self._arrived():
                self.last_lines.append(line)
                found = self._shape.read(line, self._now())
                if found is not None:
                    newest = found
                else:
                    self.passed_over += 1
            if newest is not None and not self._waiting():
                return newest
            if self._now() >= until:
                if newest is not None:  # it sends faster than anyone reads
                    return newest
                raise LinkError(self._silent())
        raise LinkError(tr("{} was given up", self._name))

    def _silent(self) -> str:
        if self.passed_over and self.last_lines:
            return tr("{} sends lines that are not the bench's, the last '{}'", self._name, self.last_lines[-1][:40])
        return tr("{} is silent: no line for {:g} seconds", self._name, SILENCE)

    def _waiting(self) -> int:
        try:
            return self._stream.in_waiting
        except OSError as error:
            raise LinkError(tr("{} was unplugged ({})", self._name, _plain(error))) from None

    def _arrived(self) -> list[str]:
        """Whole lines that have come, everything that lies ready read at once."""
        try:
            got = self._stream.read(min(max(self._waiting(), 1), MOST_AT_ONCE))
        except OSError as error:
            raise LinkError(tr("{} was unplugged ({})", self._name, _plain(error))) from None
        self._rest += got
        *whole, self._rest = self._rest.split(b"\n")
        if len(self._rest) > LONGEST_LINE:
            self._rest, self._first = b"", True
            self.passed_over += 1
        if whole and self._first:
            self._first = False
            del whole[0]
        found = (raw.decode("ascii", errors="replace").strip() for raw in whole)
        return [line[:LONGEST_LINE] for line in found if line]

    def interrupt(self) -> None:
        """From another thread: end a wait for a line."""
        self._ended = True

    def close(self) -> None:
        self._stream.close()


def open_serial(device: str, shape: TextFormat) -> TextBench:
    """A streaming bench on a serial device. LinkError where it cannot be opened."""
    import serial  # late: only benches on a wire of their own need it

    try:
        port = serial.Serial(device, shape.speed, timeout=0.1, exclusive=True)
    except (OSError, ValueError) as error:
        raise LinkError(tr("{} cannot be opened ({})", device, _plain(error))) from None
    return TextBench(port, shape, device)


def serial_devices() -> list[str]:
    """Devices that a bench might hang on."""
    from serial.tools import list_ports  # late, as above

    return sorted(p.device for p in list_ports.comports())


def _plain(error: Exception) -> str:
    text = getattr(error, "strerror", None) or str(error)
    return str(text).lower()

"""What SCPI-99 and IEEE 488.2 say about lines: long and short forms, paths, several commands in a line, status."""

from __future__ import annotations

from collections import deque
from collections.abc import Callable, Iterator
from dataclasses import dataclass, field
from typing import Final

from ventrix.core.quantity.refused import Refused

NO_ERROR: Final = '0,"No error"'
UNDEFINED: Final = -113, "Undefined header"
MISSING: Final = -109, "Missing parameter"
NO_PARAMETER: Final = -108, "Parameter not allowed"
OUT_OF_RANGE: Final = -222, "Data out of range"
OVERFLOW: Final = '-350,"Queue overflow"'
MOST_ERRORS: Final = 20
# Standard event status register, IEEE 488.2-1992, 11.5.1
OPERATION_COMPLETE, EXECUTION_ERROR, COMMAND_ERROR, POWER_ON = 1, 16, 32, 128
# Status byte: SCPI-99 vol. 1, 9.1 (error queue); IEEE 488.2-1992, 11.2 (event summary, master summary)
ERROR_QUEUE, EVENT_SUMMARY, MASTER_SUMMARY = 4, 32, 64


def forms(pattern: str) -> list[tuple[str, str]]:
    """Long and short form of each node of a header written as the standard does, "MEASure:FLOW"."""
    return [(node.upper(), "".join(c for c in node if not c.islower()).upper()) for node in pattern.split(":")]


def spellings(pattern: str) -> Iterator[tuple[str, ...]]:
    """Every way to write a header in capitals, as nodes; a node in brackets may be left out."""
    found: list[tuple[str, ...]] = [()]
    for part in pattern.replace("[:", ":[").split(":"):
        optional = part.startswith("[")
        node = part.strip("[]")
        (long, short), *_ = forms(node)
        grown = [(*f, name) for f in found for name in dict.fromkeys((long, short))]
        found = grown + (found if optional else [])
    yield from found


def parts_of(line: str) -> Iterator[str]:
    """The program message units of a line, parted at semicolons outside of quotes."""
    unit, quote = "", ""
    for c in line:
        if c == ";" and not quote:
            yield unit
            unit = ""
            continue
        quote = "" if c == quote else c if c in "\"'" and not quote else quote
        unit += c
    yield unit


@dataclass
class Status:
    """Registers and the error queue of one conversation."""

    events: int = POWER_ON
    event_enable: int = 0
    service_enable: int = 0
    enables: dict[str, int] = field(default_factory=dict)
    errors: deque[str] = field(default_factory=deque)

    def fail(self, number: int, words: str, more: str = "") -> None:
        """Queue an error, and set its class in the event register."""
        text = f'{number},"{words}{";" + more if more else ""}"'
        if len(self.errors) >= MOST_ERRORS:
            self.errors[-1] = OVERFLOW
        else:
            self.errors.append(text)
        self.events |= COMMAND_ERROR if -200 < number <= -100 else EXECUTION_ERROR

    def next_error(self) -> str:
        return self.errors.popleft() if self.errors else NO_ERROR

    def take_events(self) -> str:
        """The event register; reading clears it."""
        found, self.events = self.events, 0
        return str(found)

    def byte(self) -> int:
        found = ERROR_QUEUE if self.errors else 0
        if self.events & self.event_enable:
            found |= EVENT_SUMMARY
        return found | (MASTER_SUMMARY if found & self.service_enable else 0)

    def clear(self) -> None:
        self.errors.clear()
        self.events = 0


Query = Callable[[], str]
Command = Callable[[str], None]


class Headers:
    """Queries, commands with a parameter and actions without one, under every spelling of their headers."""

    def __init__(
        self, queries: dict[str, Query], commands: dict[str, Command], actions: dict[str, Callable[[], None]]
    ) -> None:
        self.queries = {s: work for p, work in queries.items() for s in spellings(p)}
        self.commands = {s: work for p, work in commands.items() for s in spellings(p)}
        self.actions = {s: work for p, work in actions.items() for s in spellings(p)}


def run_line(line: str, headers: Headers, status: Status) -> str | None:
    """Obey a line; answers of its queries joined by semicolons, None where there was none.

    A header goes on from the path of the one before it, unless a colon begins it (SCPI-99 vol. 1, 6.2.4).
    """
    answers: list[str] = []
    path: tuple[str, ...] = ()
    for unit in parts_of(line):
        text = unit.strip()
        if not text:
            continue
        header, _, parameter = text.partition(" ")
        header, parameter = header.upper(), parameter.strip()
        query = header.endswith("?")
        nodes = tuple(header.rstrip("?").lstrip(":").split(":"))
        if not header.startswith("*"):
            whole = nodes if header.startswith(":") else (*path, *nodes)
            path, nodes = whole[:-1], whole
        if query and nodes in headers.queries:
            answers.append(headers.queries[nodes]())
        elif not query and nodes in headers.actions:
            if parameter:
                status.fail(*NO_PARAMETER)
            else:
                headers.actions[nodes]()
        elif not query and nodes in headers.commands:
            if not parameter:
                status.fail(*MISSING)
                continue
            try:
                headers.commands[nodes](parameter)
            except Refused as error:
                status.fail(*OUT_OF_RANGE, str(error))
        else:
            status.fail(*UNDEFINED)
    return ";".join(answers) if answers else None

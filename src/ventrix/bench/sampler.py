"""Reads a bench on a thread of its own and puts what it sees on a queue. Knows no widget."""

from __future__ import annotations

import contextlib
import queue
import threading
import time
from collections.abc import Callable
from dataclasses import dataclass
from typing import Final

from ventrix.bench.drivers.sample import BenchDriver, Sample
from ventrix.bench.drivers.scpi import ScpiBench
from ventrix.bench.drivers.text_lines import TextBench
from ventrix.bench.links.held import take_hold
from ventrix.bench.links.tcp import LinkError, OutOfStep
from ventrix.words import tr

BACK_OFF: Final = 0.5, 8.0  # s before the first try to reconnect, and at most; doubled in between
LONGEST_WAIT: Final = 0.3  # s that ending waits for the thread


@dataclass(frozen=True, slots=True)
class Connected:
    """The bench answers; `after` is why it did not before, where it did not."""

    identity: str
    is_simulated: bool
    after: str = ""


@dataclass(frozen=True, slots=True)
class Dropped:
    """What was read cannot be told from what was not asked for: readings in hand are dropped."""

    sentence: str


@dataclass(frozen=True, slots=True)
class Lost:
    """The bench does not answer; the sampler keeps trying."""

    sentence: str


@dataclass(frozen=True, slots=True)
class CommandRefused:
    """The bench refused a command, or the command could not be sent."""

    sentence: str


@dataclass(frozen=True, slots=True)
class Heard:
    """What a bench that only talks has sent lately, as it came, and how many lines were passed over."""

    lines: tuple[str, ...]
    passed_over: int


Event = Connected | Dropped | Lost | CommandRefused | Heard | Sample
Command = Callable[[ScpiBench], None]


class Sampler:
    """Polls a bench until stopped, reconnecting by itself.

    Parameters
    ----------
    connect : callable
        Makes a driver, or raises LinkError.
    interval : float
        Seconds between samples.
    events : queue.Queue
        Where events go; the one who shows them empties it.
    address : str
        Where the bench is, held against other programs while it is read; empty for one of this program's own.
    """

    def __init__(
        self, connect: Callable[[], BenchDriver], interval: float, events: queue.Queue[Event], address: str = ""
    ) -> None:
        self._connect, self._interval, self._events, self._address = connect, interval, events, address
        self._known = ""  # whoever answered first: another one is not read as if it were the same
        self._commands: queue.Queue[Command] = queue.Queue()
        self._stop = threading.Event()
        self._bench: BenchDriver | None = None
        self._thread = threading.Thread(target=self._run, name="bench sampler", daemon=True)

    def start(self) -> None:
        self._thread.start()

    def stop(self) -> None:
        """End the thread: its wait is ended, it closes its wire, and it is not waited for longer than a moment."""
        self._stop.set()
        bench = self._bench
        if bench is not None:
            bench.interrupt()
        if self._thread.is_alive():
            self._thread.join(LONGEST_WAIT)

    def send(self, command: Command) -> None:
        """Have the thread run a command on the bench, between two samples."""
        self._commands.put(command)

    def _run(self) -> None:
        said = ""
        wait = BACK_OFF[0]
        while not self._stop.is_set():
            hold = contextlib.ExitStack()
            try:
                bench = self._the_same(hold)
            except LinkError as error:
                hold.close()
                if str(error) != said:  # one sentence, not one a second
                    said = str(error)
                    self._events.put(Lost(said))
                self._stop.wait(wait)
                wait = min(2 * wait, BACK_OFF[1])
                continue
            self._bench = bench
            try:
                self._events.put(Connected(bench.identity, bench.is_simulated, said))
                wait = BACK_OFF[0]
                self._read(bench)
            except LinkError as error:
                if not self._stop.is_set():
                    self._tell_heard(bench)
                    said = str(error)
                    self._events.put(Lost(said))
            finally:
                self._bench = None
                bench.close()
                hold.close()
            self._stop.wait(wait)  # why it was lost stays to be read

    def _the_same(self, hold: contextlib.ExitStack) -> BenchDriver:
        """The bench that was read before, or the first. LinkError where another program has it, or it is another."""
        if self._address:
            hold.callback(take_hold(self._address).close)
        bench = self._connect()
        if self._known and bench.identity != self._known:
            bench.close()
            raise LinkError(tr("another bench answers there now ('{}'): connect to it again", bench.identity[:60]))
        self._known = bench.identity
        return bench

    def _read(self, bench: BenchDriver) -> None:
        due = time.monotonic()
        while not self._stop.is_set():
            self._obey(bench)
            try:
                self._events.put(bench.sample(time.monotonic()))
            except OutOfStep as error:
                self._events.put(Dropped(str(error)))
                self._stop.wait(0.2)  # what is still under way comes in, and is dropped with the rest
            self._tell_heard(bench)
            due = max(due + self._interval, time.monotonic())
            self._stop.wait(max(0.0, due - time.monotonic()))

    def _tell_heard(self, bench: BenchDriver) -> None:
        if isinstance(bench, TextBench):
            self._events.put(Heard(tuple(bench.last_lines), bench.passed_over))

    def _obey(self, bench: BenchDriver) -> None:
        while True:
            try:
                command = self._commands.get_nowait()
            except queue.Empty:
                return
            if not isinstance(bench, ScpiBench):
                self._events.put(CommandRefused(tr("this bench only talks: it takes no commands")))
                continue
            try:
                command(bench)
            except LinkError as error:
                self._events.put(CommandRefused(str(error)))

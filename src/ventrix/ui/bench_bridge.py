"""The one bridge between the bench's thread and Qt: empties the queue on a timer, and emits."""

from __future__ import annotations

import contextlib
import ipaddress
import queue
import re
import time
from collections.abc import Callable
from typing import TYPE_CHECKING

from PySide6.QtCore import QObject, QTimer, Signal

from ventrix.bench.drivers.sample import BenchDriver, Sample
from ventrix.bench.drivers.scpi import ScpiBench
from ventrix.bench.drivers.text_lines import TextFormat, open_serial
from ventrix.bench.links.tcp import TcpLink
from ventrix.bench.sampler import Command, CommandRefused, Connected, Dropped, Event, Heard, Lost, Sampler
from ventrix.core.model.bench import Bench, ElementKind
from ventrix.core.quantity.refused import Refused

if TYPE_CHECKING:
    from ventrix.bench.simulator.practice.play import Practice

Practices = Callable[[], "Practice"]
INTERVAL = 0.05  # s between samples
REFRESH = 50  # ms between looks at the queue


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
            raise Refused("'{}' is no name or address of a machine", host[:80]) from None
    return bare, int(port)


_LABEL = re.compile(r"[A-Za-z0-9_](?:[A-Za-z0-9_-]{0,61}[A-Za-z0-9_])?")
SILENT_AFTER = 1.5  # s without a sample
BACK_WORDS = 12.0  # s that the bar says why the bench was lost, after it is back


class BenchBridge(QObject):
    """Connects to a bench, and tells what it says. Owns the simulated bench when that one is used."""

    sampled = Signal(object)  # list of Sample, oldest first
    silenced = Signal()  # nothing that the bench said before can be kept
    state_changed = Signal()
    refused = Signal(str)  # why the bench did not do what it was asked
    heard = Signal(list, int)  # lines as they came, how many were passed over

    def __init__(self, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self.sentence = "no bench connected: type what you read"
        self.connected = False
        self.is_simulated = False
        self._name = self.answers_for = ""
        self._last_sample = self._back_at = 0.0
        self._events: queue.Queue[Event] = queue.Queue()
        self._sampler: Sampler | None = None
        self._closing = contextlib.ExitStack()
        self._timer = QTimer(self)
        self._timer.setInterval(REFRESH)
        self._timer.timeout.connect(self.drain)

    @property
    def active(self) -> bool:
        """A bench was asked for, whether it answers just now or not."""
        return self._sampler is not None

    def connect_tcp(self, host: str, port: int, element: ElementKind = "flow") -> None:
        """Read the bench at that address from now on."""
        self.disconnect_bench()
        self._start(lambda: ScpiBench(TcpLink(host, port), element))
        self.sentence = f"connecting to {host} port {port}"
        self.state_changed.emit()

    def connect_simulated(
        self, seed: int = 1, element: ElementKind = "flow", name: str = "", practice: Practices | None = None
    ) -> None:
        """Start the simulated bench inside this program, and read it over loopback like any other. `name` is the
        record of the shop's bench that it stands for; a practice's own head lies on it where one is given."""
        from ventrix.bench.simulator.bench import SimulatedBench
        from ventrix.bench.simulator.practice.live import PracticeBench
        from ventrix.bench.simulator.server import HOST, running

        self.disconnect_bench()
        bench = SimulatedBench(time.monotonic, seed) if practice is None else PracticeBench(time.monotonic, practice)
        server = self._closing.enter_context(running(bench))
        meters = None if practice is None else ()  # its heads have no swirl and no probe
        self._start(lambda: ScpiBench(TcpLink(HOST, server.port), element, meters))
        self.answers_for = name
        self.sentence = "starting the simulated bench"
        self.state_changed.emit()

    def connect_bench(self, bench: Bench) -> None:
        """Read the bench that a record describes. ValueError with a sentence where it does not say enough."""
        if bench.link == "simulated":
            self.connect_simulated(element=bench.element, name=bench.name)
        elif bench.link == "tcp":
            host, port = host_and_port(bench.address)
            self.connect_tcp(host, port, bench.element)
            self.answers_for = bench.name
        elif bench.link == "serial":
            self.connect_serial(bench.address, TextFormat.of(bench.text_format))
            self.answers_for = bench.name
        else:
            self.disconnect_bench()

    def connect_serial(self, device: str, shape: TextFormat) -> None:
        """Read lines of text off a serial device from now on. ValueError where the columns make no sense."""
        shape.check()
        if not device.strip():
            raise Refused("which device? as in /dev/ttyUSB0")
        self.disconnect_bench()
        self._start(lambda: open_serial(device.strip(), shape))
        self.sentence = f"listening on {device}"
        self.state_changed.emit()

    def _start(self, connect: Callable[[], BenchDriver]) -> None:
        self._sampler = Sampler(connect, INTERVAL, self._events)
        self._sampler.start()
        self._timer.start()

    def disconnect_bench(self) -> None:
        """Let go of the bench; its thread has ended when this returns."""
        if self._sampler is not None:
            self._sampler.stop()
            self._sampler = None
        self._closing.close()
        self._timer.stop()
        self._events = queue.Queue()
        self._name = self.answers_for = ""
        self.connected = self.is_simulated = False
        self.sentence = "no bench connected: type what you read"
        self.state_changed.emit()

    def send(self, command: Command) -> None:
        """Have the bench do something; `refused` says why where it does not."""
        if self._sampler is not None:
            self._sampler.send(command)

    def drain(self) -> None:
        """Take everything off the queue and tell it."""
        samples: list[Sample] = []
        changed = False
        heard: Heard | None = None
        while True:
            try:
                event = self._events.get_nowait()
            except queue.Empty:
                break
            if isinstance(event, Sample):
                samples.append(event)
                continue
            if isinstance(event, Heard):
                heard = event
                continue
            if isinstance(event, CommandRefused):
                self.refused.emit(event.sentence)
                continue
            changed = True
            self._take(event)
        changed = self._watch_silence(bool(samples)) or changed
        if changed:
            self.state_changed.emit()
        if heard is not None:
            self.heard.emit(list(heard.lines), heard.passed_over)
        if samples and self.connected:
            self.sampled.emit(samples)

    def _take(self, event: Event) -> None:
        if isinstance(event, Connected):
            self.connected, self.is_simulated = True, event.is_simulated
            self._name = "simulated bench" if event.is_simulated else event.identity
            self.sentence = f"{self._name}, back after: {event.after}" if event.after else self._name
            self._last_sample = self._back_at = time.monotonic()
        elif isinstance(event, Lost):
            self.connected = False
            self.sentence = event.sentence
            self.silenced.emit()
        elif isinstance(event, Dropped):
            self.sentence = event.sentence
            self.silenced.emit()

    def _watch_silence(self, spoke: bool) -> bool:
        """Whether the bench fell silent, or speaks again, just now."""
        now = time.monotonic()
        if spoke:
            self._last_sample = now
            if not self.connected and self._name and self._sampler is not None:
                self.connected, self.sentence = True, self._name
                return True
            if self.sentence != self._name and now - self._back_at > BACK_WORDS and self.connected:
                self.sentence = self._name
                return True
            return False
        if not self.connected or now - self._last_sample < SILENT_AFTER:
            return False
        self.connected = False
        self.sentence = f"the bench is silent: nothing for {SILENT_AFTER:g} seconds"
        self.silenced.emit()
        return True

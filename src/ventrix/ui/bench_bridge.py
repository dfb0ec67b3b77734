"""The one bridge between the bench's thread and Qt: empties the queue on a timer, and emits."""

from __future__ import annotations

import contextlib
import queue
import time

from PySide6.QtCore import QObject, QTimer, Signal

from ventrix.bench.drivers.choose import Chosen, Practices, choose, over_serial, over_tcp, simulated
from ventrix.bench.drivers.sample import Sample
from ventrix.bench.drivers.text_lines import TextFormat
from ventrix.bench.sampler import Command, CommandRefused, Connected, Dropped, Event, Heard, Lost, Sampler
from ventrix.core.model.bench import Bench
from ventrix.core.model.bench_kinds import ElementKind
from ventrix.words import tr

INTERVAL = 0.05  # s between samples
REFRESH = 50  # ms between looks at the queue


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
        self.sentence = tr("no bench connected: type what you read")
        self.connected = False
        self.is_simulated = False
        self._live_flow: float | None = None
        self._name = self.answers_for = ""
        self._last_sample = self._back_at = 0.0
        self._events: queue.Queue[Event] = queue.Queue()
        self._sampler: Sampler | None = None
        self._closing = contextlib.ExitStack()
        self._timer = QTimer(self)
        self._timer.setInterval(REFRESH)
        self._timer.timeout.connect(self.drain)

    @property
    def live_flow(self) -> float | None:
        """What the procedure says flows now [m3/s]; None where it is not steady, or no bench is connected."""
        return self._live_flow if self.connected else None

    def tell_flow(self, flow: float | None) -> None:
        """What the procedure makes of the last samples [m3/s]."""
        self._live_flow = flow

    @property
    def active(self) -> bool:
        """A bench was asked for, whether it answers just now or not."""
        return self._sampler is not None

    def connect_tcp(self, host: str, port: int, element: ElementKind = ElementKind.FLOW) -> None:
        """Read the bench at that address from now on."""
        self.disconnect_bench()
        self._read(over_tcp(host, port, element))

    def connect_simulated(
        self, seed: int = 1, element: ElementKind = ElementKind.FLOW, name: str = "", practice: Practices | None = None
    ) -> None:
        """Read the simulated bench from now on. `name` is the record of the shop's bench that it stands for."""
        self.disconnect_bench()
        self._read(simulated(self._closing, seed, element, practice), name)

    def connect_serial(self, device: str, shape: TextFormat) -> None:
        """Read lines of text off a serial device from now on. Refused where the columns make no sense."""
        chosen = over_serial(device, shape)
        self.disconnect_bench()
        self._read(chosen)

    def connect_bench(self, bench: Bench) -> None:
        """Read the bench that a record describes. Refused, with what is read still, where it does not say enough."""
        closing = contextlib.ExitStack()
        chosen = choose(bench, closing)
        self.disconnect_bench()
        self._closing = closing
        if chosen is not None:
            self._read(chosen, bench.name)

    def _read(self, chosen: Chosen, name: str = "") -> None:
        self._sampler = Sampler(chosen.connect, INTERVAL, self._events, chosen.address)
        self._sampler.start()
        self._timer.start()
        self.answers_for, self.sentence = name, chosen.sentence
        self.state_changed.emit()

    def disconnect_bench(self) -> None:
        """Let go of the bench; its thread has ended when this returns."""
        if self._sampler is not None:
            self._sampler.stop()
            self._sampler = None
        self._closing.close()
        self._timer.stop()
        self._events = queue.Queue()
        self._name = self.answers_for = ""
        self._live_flow = None
        self.connected = self.is_simulated = False
        self.sentence = tr("no bench connected: type what you read")
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
            self.sentence = tr("{}, back after: {}", self._name, event.after) if event.after else self._name
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
        self.sentence = tr("the bench is silent: nothing for {:g} seconds", SILENT_AFTER)
        self.silenced.emit()
        return True

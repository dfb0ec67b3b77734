"""Which driver reads a bench: one entry a link. The only place that knows them all."""

from __future__ import annotations

import time
from collections.abc import Callable
from contextlib import ExitStack
from typing import TYPE_CHECKING, Final, NamedTuple

from ventrix.bench.drivers.sample import BenchDriver
from ventrix.bench.drivers.scpi import ScpiBench
from ventrix.bench.drivers.text_lines import TextFormat, open_serial
from ventrix.bench.links.tcp import TcpLink, host_and_port
from ventrix.core.model.bench import Bench
from ventrix.core.model.bench_kinds import ElementKind
from ventrix.core.quantity.refused import Refused
from ventrix.words import tr

if TYPE_CHECKING:
    from ventrix.bench.simulator.practice.play import Practice

Practices = Callable[[], "Practice"]


class Chosen(NamedTuple):
    """How a bench is connected to, which the bench's own thread does, and what is said meanwhile."""

    connect: Callable[[], BenchDriver]
    sentence: str
    address: str = ""  # that no other program may read meanwhile


def over_tcp(host: str, port: int, element: ElementKind = ElementKind.FLOW) -> Chosen:
    """A bench that answers SCPI at an address."""
    return Chosen(
        lambda: ScpiBench(TcpLink(host, port), element), tr("connecting to {} port {}", host, port), f"{host}:{port}"
    )


def over_serial(device: str, shape: TextFormat) -> Chosen:
    """A bench that says lines of text. Refused where no device is named or the columns make no sense."""
    shape.check()
    if not device.strip():
        raise Refused("which device? as in /dev/ttyUSB0")
    device = device.strip()
    return Chosen(lambda: open_serial(device, shape), tr("listening on {}", device), device)


def simulated(
    closing: ExitStack, seed: int = 1, element: ElementKind = ElementKind.FLOW, practice: Practices | None = None
) -> Chosen:
    """The simulated bench, started inside this program until `closing` closes, and read over loopback like any other;
    a practice's own head lies on it where one is given."""
    from ventrix.bench.simulator.bench import SimulatedBench
    from ventrix.bench.simulator.practice.live import PracticeBench
    from ventrix.bench.simulator.server import HOST, running

    bench = SimulatedBench(time.monotonic, seed) if practice is None else PracticeBench(time.monotonic, practice)
    server = closing.enter_context(running(bench))
    meters = None if practice is None else ()  # its heads have no swirl and no probe
    return Chosen(lambda: ScpiBench(TcpLink(HOST, server.port), element, meters), tr("starting the simulated bench"))


BY_LINK: Final[dict[str, Callable[[Bench, ExitStack], Chosen]]] = {
    "simulated": lambda bench, closing: simulated(closing, element=bench.element),
    "tcp": lambda bench, _: over_tcp(*host_and_port(bench.address), bench.element),
    "serial": lambda bench, _: over_serial(bench.address, TextFormat.of(bench.text_format)),
}


def choose(bench: Bench, closing: ExitStack) -> Chosen | None:
    """The driver of the link that a bench's record names; None where it is read by hand. Refused, with a sentence,
    where the record does not say enough."""
    made = BY_LINK.get(bench.link or "")
    return None if made is None else made(bench, closing)

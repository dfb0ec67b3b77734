"""The simulated bench behind a TCP socket on loopback, speaking plain SCPI. See docs/formats/scpi.md."""

from __future__ import annotations

import contextlib
import socketserver
import threading
import time
from collections.abc import Callable, Iterator
from typing import cast

from ventrix.bench.simulator.bench import SimulatedBench
from ventrix.bench.simulator.lies import Lie
from ventrix.bench.simulator.scpi_syntax import OPERATION_COMPLETE, Headers, Status, run_line
from ventrix.core.model.kinds import Direction
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import from_si, parse_number, to_si
from ventrix.words import tr

HOST = "127.0.0.1"
IDENTITY = "Ventrix,Simulated bench,0,1"
LONGEST_LINE = 1024  # bytes: a longer one is nobody's command
REGISTERS = ("OPERation", "QUEStionable")


class Interpreter:
    """One conversation with the bench: a line in, an answer or None out. Errors queue up."""

    def __init__(self, bench: SimulatedBench) -> None:
        self._bench = bench
        self.status = status = Status()
        self._headers = Headers(
            queries={
                "*IDN": lambda: IDENTITY,
                "*OPC": lambda: "1",
                "*ESR": status.take_events,
                "*ESE": lambda: str(status.event_enable),
                "*SRE": lambda: str(status.service_enable),
                "*STB": lambda: str(status.byte()),
                "*TST": lambda: "0",
                "SYSTem:ERRor[:NEXT]": status.next_error,
                "SYSTem:VERSion": lambda: "1999.0",
                "SOURce:PRESsure": lambda: f"{from_si(bench.wanted_pressure, 'inH2O'):.2f}",
                "SENSe:RANGe": lambda: str(bench.range),
                "MEASure:FLOW": lambda: f"{from_si(bench.read()[0], 'cfm'):.2f}",
                "MEASure:PERCent": lambda: f"{100 * bench.percent():.2f}",
                "MEASure:PRESsure": lambda: f"{from_si(bench.read()[1], 'inH2O'):.2f}",
                "MEASure:LIFT": lambda: f"{from_si(bench.lift, 'mm'):.3f}",
                "MEASure:TEMPerature": lambda: f"{from_si(bench.temperature, 'degC'):.1f}",
                "MEASure:SWIRl": lambda: f"{from_si(bench.swirl(), 'rpm'):.0f}",
                "MEASure:PITot": lambda: f"{from_si(bench.probe(), 'inH2O'):.2f}",
                "SIMulate:LIE": lambda: ",".join(sorted(lie.value for lie in bench.lies.told)) or "NONE",
                "SIMulate:PORT": lambda: f"{bench.state[0].upper()},{bench.state[1]}",
                **self._register_queries(),
            },
            commands={
                "*ESE": lambda text: setattr(status, "event_enable", _byte(text)),
                "*SRE": lambda text: setattr(status, "service_enable", _byte(text)),
                "SOURce:PRESsure": lambda text: bench.set_pressure(to_si(parse_number(text), "inH2O")),
                "SENSe:RANGe": self._range,
                "SIMulate:LIFT": lambda text: bench.set_lift(to_si(parse_number(text), "mm")),
                "SIMulate:PORT": self._fit,
                "SIMulate:WORK": self._work,
                "SIMulate:LIE": self._lie,
                "SIMulate:ON": lambda text: bench.put_on(text.strip().lower()),
                "SIMulate:PROBe": lambda text: bench.place_probe(_place(text)),
                "SIMulate:TOTal": lambda text: bench.place_probe(_place(text), total_head=True),
                "SIMulate:BALL": lambda text: bench.place_probe(_place(text), ball=True),
                **{f"STATus:{r}:ENABle": self._enable(r) for r in REGISTERS},
            },
            actions={
                "*CLS": status.clear,
                "*RST": lambda: bench.set_pressure(0.0),
                "*OPC": lambda: setattr(status, "events", status.events | OPERATION_COMPLETE),
                "*WAI": lambda: None,
                "STATus:PRESet": status.enables.clear,
                "SIMulate:MOUNt": bench.remount,
            },
        )

    def _register_queries(self) -> dict[str, Callable[[], str]]:
        """SCPI-99's operation and questionable registers: this bench sets nothing in them."""
        found: dict[str, Callable[[], str]] = {}
        for name in REGISTERS:
            found[f"STATus:{name}[:EVENt]"] = found[f"STATus:{name}:CONDition"] = lambda: "0"
            found[f"STATus:{name}:ENABle"] = lambda n=name: str(self.status.enables.get(n, 0))  # type: ignore[misc]
        return found

    def _enable(self, name: str) -> Callable[[str], None]:
        def put(text: str) -> None:
            self.status.enables[name] = _byte(text, 32767)

        return put

    def _fit(self, text: str) -> None:
        self._bench.fit(*_port_and_cut(text))

    def _work(self, text: str) -> None:
        state, _, place = text.rpartition(",")
        self._bench.work(*_port_and_cut(state), place.strip().lower())

    def _range(self, text: str) -> None:
        if not text.isdecimal():
            raise Refused("a range by its number")
        self._bench.choose_range(int(text))

    def _lie(self, text: str) -> None:
        name, _, state = text.partition(",")
        if state.strip().upper() not in ("ON", "OFF"):
            raise Refused("a fault, then ON or OFF")
        try:
            lie = Lie(name.strip().upper())
        except ValueError:
            raise Refused("faults are {}", ", ".join(each.value for each in Lie)) from None
        self._bench.tell(lie, state.strip().upper() == "ON")

    def answer(self, line: str) -> str | None:
        """Obey one line. Returns what goes back, None for commands and errors."""
        return run_line(line, self._headers, self.status)


def _byte(text: str, most: int = 255) -> int:
    if not (text.isascii() and text.isdecimal()) or len(text) > 6 or int(text) > most:
        raise Refused("a whole number up to {}", most)
    return int(text)


def _place(text: str) -> tuple[str, float, float] | None:
    """A station and a place in it; OUT for none."""
    if text.strip().upper() == "OUT":
        return None
    cells = text.split(",")
    if len(cells) != 3:
        raise Refused("a station, u and v; or OUT")
    return cells[0].strip().lower(), parse_number(cells[1]), parse_number(cells[2])


def _port_and_cut(text: str) -> tuple[Direction, int]:
    name, _, number = text.partition(",")
    direction = name.strip().lower()
    if direction not in tuple(Direction) or not number.strip().isdecimal():
        raise Refused("INTAKE or EXHAUST, then a cut number")
    return Direction(direction), int(number)


class _Handler(socketserver.StreamRequestHandler):
    def handle(self) -> None:
        interpreter = Interpreter(cast(BenchServer, self.server).bench)
        with contextlib.suppress(ConnectionError):
            while line := self.rfile.readline(LONGEST_LINE):
                reply = interpreter.answer(line.decode("ascii", errors="replace"))
                if reply is not None:
                    self.wfile.write(reply.encode("ascii") + b"\n")


class BenchServer(socketserver.ThreadingTCPServer):
    """Serves one simulated bench to any number of connections, on loopback only."""

    allow_reuse_address = True
    daemon_threads = True
    block_on_close = False

    def __init__(self, port: int, bench: SimulatedBench) -> None:
        super().__init__((HOST, port), _Handler)
        self.bench = bench

    @property
    def port(self) -> int:
        return int(self.server_address[1])


@contextlib.contextmanager
def running(bench: SimulatedBench, port: int = 0) -> Iterator[BenchServer]:
    """A server on a thread of its own, shut down on the way out."""
    with BenchServer(port, bench) as server:
        thread = threading.Thread(target=server.serve_forever, kwargs={"poll_interval": 0.05}, name="simbench")
        thread.start()
        try:
            yield server
        finally:
            server.shutdown()
            thread.join()


def serve_forever(port: int, seed: int) -> None:
    """Serve until interrupted, saying where."""
    with BenchServer(port, SimulatedBench(time.monotonic, seed)) as server:
        print(tr("simulated bench on {} port {}; end it with Ctrl+C", HOST, server.port), flush=True)
        server.serve_forever(poll_interval=0.1)

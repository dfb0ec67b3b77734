"""The simulated bench behind a TCP socket on loopback, speaking plain SCPI. See docs/formats/scpi.md."""

from __future__ import annotations

import contextlib
import socketserver
import threading
import time
from collections import deque
from collections.abc import Callable, Iterator
from typing import cast

from ventrix.bench.simulator.bench import SimulatedBench
from ventrix.bench.simulator.lies import Lie
from ventrix.core.model import Direction
from ventrix.core.units import from_si, parse_number, to_si

HOST = "127.0.0.1"
IDENTITY = "Ventrix,Simulated bench,0,1"
LONGEST_LINE = 256  # bytes: a longer one is nobody's command

_UNDEFINED = '-113,"Undefined header"'
_MISSING = '-109,"Missing parameter"'
_NO_PARAMETER = '-108,"Parameter not allowed"'
_NO_ERROR = '0,"No error"'


class Interpreter:
    """One conversation with the bench: a line in, an answer or None out. Errors queue up."""

    def __init__(self, bench: SimulatedBench) -> None:
        self._bench = bench
        self._errors: deque[str] = deque(maxlen=20)
        self._queries: dict[str, Callable[[], str]] = {
            "*IDN?": lambda: IDENTITY,
            "SYST:ERR?": lambda: self._errors.popleft() if self._errors else _NO_ERROR,
            "SOUR:PRES?": lambda: f"{from_si(bench.wanted_pressure, 'inH2O'):.2f}",
            "MEAS:FLOW?": lambda: f"{from_si(bench.read()[0], 'cfm'):.2f}",
            "MEAS:PERC?": lambda: f"{100 * bench.percent():.2f}",
            "MEAS:SWIR?": lambda: f"{from_si(bench.swirl(), 'rpm'):.0f}",
            "MEAS:PIT?": lambda: f"{from_si(bench.probe(), 'inH2O'):.2f}",
            "SENS:RANG?": lambda: str(bench.range),
            "SIM:LIE?": lambda: ",".join(sorted(lie.value for lie in bench.lies.told)) or "NONE",
            "MEAS:PRES?": lambda: f"{from_si(bench.read()[1], 'inH2O'):.2f}",
            "MEAS:LIFT?": lambda: f"{from_si(bench.lift, 'mm'):.3f}",
            "MEAS:TEMP?": lambda: f"{from_si(bench.temperature, 'degC'):.1f}",
            "SIM:PORT?": lambda: f"{bench.state[0].upper()},{bench.state[1]}",
        }
        self._commands: dict[str, Callable[[str], None]] = {
            "SOUR:PRES": lambda text: bench.set_pressure(to_si(parse_number(text), "inH2O")),
            "SIM:LIFT": lambda text: bench.set_lift(to_si(parse_number(text), "mm")),
            "SIM:PORT": self._fit,
            "SIM:WORK": self._work,
            "SENS:RANG": self._range,
            "SIM:LIE": self._lie,
            "SIM:ON": lambda text: bench.put_on(text.strip().lower()),
            "SIM:PROB": lambda text: bench.place_probe(_place(text)),
            "SIM:BALL": lambda text: bench.place_probe(_place(text), ball=True),
        }
        self._actions: dict[str, Callable[[], None]] = {
            "*CLS": self._errors.clear,
            "*RST": lambda: bench.set_pressure(0.0),
            "SIM:MOUN": bench.remount,
        }

    def _fit(self, text: str) -> None:
        self._bench.fit(*_port_and_cut(text))

    def _work(self, text: str) -> None:
        state, _, place = text.rpartition(",")
        self._bench.work(*_port_and_cut(state), place.strip().lower())

    def _range(self, text: str) -> None:
        if not text.isdecimal():
            raise ValueError("a range by its number")
        self._bench.choose_range(int(text))

    def _lie(self, text: str) -> None:
        name, _, state = text.partition(",")
        if state.strip().upper() not in ("ON", "OFF"):
            raise ValueError("a lie, then ON or OFF")
        try:
            lie = Lie(name.strip().upper())
        except ValueError:
            raise ValueError(f"lies are {', '.join(each.value for each in Lie)}") from None
        self._bench.tell(lie, state.strip().upper() == "ON")

    def answer(self, line: str) -> str | None:
        """Obey one line. Returns what goes back, None for commands and errors."""
        header, _, parameter = line.strip().partition(" ")
        header, parameter = header.upper().removeprefix(":"), parameter.strip()
        if not header:
            return None
        if header in self._queries:
            return self._queries[header]()
        if header in self._actions and not parameter:
            self._actions[header]()
        elif header in self._actions:
            self._errors.append(_NO_PARAMETER)
        elif header in self._commands and not parameter:
            self._errors.append(_MISSING)
        elif header in self._commands:
            try:
                self._commands[header](parameter)
            except ValueError as error:
                self._errors.append(f'-222,"Data out of range;{error}"')
        else:
            self._errors.append(_UNDEFINED)
        return None


def _place(text: str) -> tuple[str, float, float] | None:
    """A station and a place in it; OUT for none."""
    if text.strip().upper() == "OUT":
        return None
    cells = text.split(",")
    if len(cells) != 3:
        raise ValueError("a station, u and v; or OUT")
    return cells[0].strip().lower(), parse_number(cells[1]), parse_number(cells[2])


def _port_and_cut(text: str) -> tuple[Direction, int]:
    name, _, number = text.partition(",")
    direction = name.strip().lower()
    if direction not in ("intake", "exhaust") or not number.strip().isdecimal():
        raise ValueError("INTAKE or EXHAUST, then a cut number")
    return cast(Direction, direction), int(number)


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
        print(f"simulated bench on {HOST} port {server.port}; end it with Ctrl+C", flush=True)
        server.serve_forever(poll_interval=0.1)

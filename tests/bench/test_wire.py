"""The wire: answers out of step, silence, streams faster than the reader, and a client of another hand."""

from __future__ import annotations

import os
import queue
import re
import socket
import subprocess
import sys
import threading
import time
from collections.abc import Callable, Iterator
from pathlib import Path

import pytest
import pyvisa
from benchmarks.stream import age_of_what_is_read

from ventrix.bench.drivers.sample import Sample
from ventrix.bench.drivers.scpi import ScpiBench
from ventrix.bench.links.held import take_hold
from ventrix.bench.links.tcp import LinkError, OutOfStep, TcpLink
from ventrix.bench.sampler import Connected, Dropped, Event, Lost, Sampler
from ventrix.bench.simulator.bench import SimulatedBench
from ventrix.bench.simulator.server import HOST, IDENTITY, Interpreter, running


class Scripted:
    """A bench of one connection at a time that answers as a function says."""

    def __init__(self, answer: Callable[[str, Callable[[bytes], None]], None]) -> None:
        self._answer = answer
        self._listener = socket.create_server((HOST, 0))
        self.port = self._listener.getsockname()[1]
        self._thread = threading.Thread(target=self._serve, daemon=True)
        self._thread.start()

    def _serve(self) -> None:
        while True:
            try:
                wire, _ = self._listener.accept()
            except OSError:
                return
            with wire, wire.makefile("rb") as lines:
                try:
                    for line in lines:
                        self._answer(line.decode().strip(), wire.sendall)
                except OSError:
                    continue

    def close(self) -> None:
        self._listener.close()


@pytest.fixture
def scripted() -> Iterator[Callable[..., Scripted]]:
    made: list[Scripted] = []

    def make(answer: Callable[[str, Callable[[bytes], None]], None]) -> Scripted:
        made.append(Scripted(answer))
        return made[-1]

    yield make
    for each in made:
        each.close()


FIGURES = {"MEAS:FLOW?": "101.5", "MEAS:PRES?": "28.0", "MEAS:LIFT?": "5.08", "MEAS:TEMP?": "21.0"}


def test_an_answer_nobody_asked_for_is_dropped_and_said(scripted: Callable[..., Scripted]) -> None:
    def answer(line: str, send: Callable[[bytes], None]) -> None:
        send(b"Some,Bench,0,1\n" if line == "*IDN?" else FIGURES[line].encode() + b"\n")
        if line == "MEAS:PRES?":
            send(b"999.9\n")  # late, or from someone else

    bench = ScpiBench(TcpLink(HOST, scripted(answer).port))
    with pytest.raises(OutOfStep):
        bench.sample(0.0)
    bench.close()


def test_out_of_step_the_sampler_drops_and_goes_on(scripted: Callable[..., Scripted]) -> None:
    sent = [0]

    def answer(line: str, send: Callable[[bytes], None]) -> None:
        send(b"Some,Bench,0,1\n" if line == "*IDN?" else FIGURES[line].encode() + b"\n")
        sent[0] += 1
        if sent[0] == 10:
            send(b"888.8\n")

    events: queue.Queue[Event] = queue.Queue()
    sampler = Sampler(lambda: ScpiBench(TcpLink(HOST, scripted(answer).port)), 0.02, events)
    sampler.start()
    try:
        seen = collect(
            events, lambda found: any(isinstance(e, Dropped) for e in found) and isinstance(found[-1], Sample)
        )
    finally:
        sampler.stop()
    assert all(e.flow == pytest.approx(101.5 * 4.719474e-4, rel=1e-5) for e in seen if isinstance(e, Sample))
    assert not any(isinstance(e, Lost) for e in seen)


def collect(events: queue.Queue[Event], enough: Callable[[list[Event]], bool], seconds: float = 6.0) -> list[Event]:
    found: list[Event] = []
    until = time.monotonic() + seconds
    while time.monotonic() < until and not (found and enough(found)):
        try:
            found.append(events.get(timeout=0.2))
        except queue.Empty:
            continue
    assert enough(found), found
    return found


def test_silence_is_told_within_a_second_and_a_half_and_the_reason_stays(scripted: Callable[..., Scripted]) -> None:
    silent = threading.Event()

    def answer(line: str, send: Callable[[bytes], None]) -> None:
        if line == "*IDN?":
            send(b"Some,Bench,0,1\n")
        elif not silent.is_set():
            send(FIGURES[line].encode() + b"\n")

    events: queue.Queue[Event] = queue.Queue()
    sampler = Sampler(lambda: ScpiBench(TcpLink(HOST, scripted(answer).port)), 0.02, events)
    sampler.start()
    try:
        collect(events, lambda found: isinstance(found[-1], Sample))
        silent.set()
        at = time.monotonic()
        collect(events, lambda found: isinstance(found[-1], Lost))
        assert time.monotonic() - at < 1.5
        back = time.monotonic()
        silent.clear()
        found = collect(events, lambda found: isinstance(found[-1], Connected))
        assert time.monotonic() - back > 0.3  # it backs off: what was lost can be read meanwhile
        assert isinstance(found[-1], Connected)
        assert "does not answer" in found[-1].after
    finally:
        sampler.stop()


def test_two_programs_at_one_bench_the_second_is_told_who_holds_it(
    scripted: Callable[..., Scripted], tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setenv("XDG_RUNTIME_DIR", str(tmp_path))
    port = scripted(lambda line, send: send(FIGURES.get(line, "Some,Bench,0,1").encode() + b"\n")).port
    first, second = queue.Queue[Event](), queue.Queue[Event]()
    samplers = [
        Sampler(lambda: ScpiBench(TcpLink(HOST, port)), 0.02, events, f"{HOST}:{port}") for events in (first, second)
    ]
    try:
        samplers[0].start()
        collect(first, lambda found: isinstance(found[-1], Sample))
        samplers[1].start()
        told = collect(second, lambda found: isinstance(found[-1], Lost))
        assert len(told) == 1
        assert re.fullmatch(
            rf"{HOST}:{port} is held by another Ventrix \(process {os.getpid()}\) since \d\d:\d\d: end that first",
            told[0].sentence,  # type: ignore[union-attr]
        )
        samplers[0].stop()
        collect(second, lambda found: isinstance(found[-1], Sample))  # let go of: the second has it
    finally:
        for sampler in samplers:
            sampler.stop()


def test_a_device_that_another_program_has_open_is_told_with_its_name() -> None:
    leader, follower = os.openpty()
    device = os.ttyname(follower)
    os.close(follower)
    reads = f"import sys; f = open({device!r}, 'rb', 0); print('has it', flush=True); sys.stdin.read()"
    other = subprocess.Popen([sys.executable, "-c", reads], stdin=subprocess.PIPE, stdout=subprocess.PIPE)
    try:
        assert other.stdout is not None and other.stdout.readline() == b"has it\n"
        with pytest.raises(LinkError, match=rf"held by python\S* \(process {other.pid}\)"):
            take_hold(device)
    finally:
        other.communicate()
    take_hold(device).close()
    os.close(leader)


def test_another_bench_at_the_same_address_is_not_read_as_if_it_were_the_first(
    scripted: Callable[..., Scripted],
) -> None:
    name = ["Some,Bench,0,1"]
    gone = threading.Event()

    def answer(line: str, send: Callable[[bytes], None]) -> None:
        if line == "*IDN?":
            send(name[0].encode() + b"\n")
        elif not gone.is_set():
            send(FIGURES[line].encode() + b"\n")

    events: queue.Queue[Event] = queue.Queue()
    server = scripted(answer)
    sampler = Sampler(lambda: ScpiBench(TcpLink(HOST, server.port)), 0.02, events)
    sampler.start()
    try:
        collect(events, lambda found: isinstance(found[-1], Sample))
        name[0] = "Other,Bench,0,1"
        gone.set()
        collect(events, lambda found: isinstance(found[-1], Lost) and "another bench answers" in found[-1].sentence)
        name[0] = "Some,Bench,0,1"
        gone.clear()
        collect(events, lambda found: isinstance(found[-1], Connected))
    finally:
        sampler.stop()


def test_letting_go_of_a_bench_that_hangs_takes_no_time(scripted: Callable[..., Scripted]) -> None:
    def answer(line: str, send: Callable[[bytes], None]) -> None:
        if line == "*IDN?":
            send(b"Some,Bench,0,1\n")

    sampler = Sampler(lambda: ScpiBench(TcpLink(HOST, scripted(answer).port, 30.0)), 0.02, queue.Queue())
    sampler.start()
    time.sleep(0.2)
    at = time.monotonic()
    sampler.stop()
    assert time.monotonic() - at < 0.5


@pytest.mark.parametrize("rate", [10, 50, 200])
def test_a_fast_stream_is_read_to_its_newest_line(rate: int) -> None:
    """What is shown does not grow older: line by line a reader of ten a second would be over a second behind 200 of
    them by the end. How old it is by the clock is printed by `benchmarks/stream.py`, and depends on what else runs."""
    ages = age_of_what_is_read(rate, seconds=1.5)
    assert len(ages) > 5
    third = len(ages) // 3
    first, last = (sorted(part)[third // 2] for part in (ages[:third], ages[-third:]))
    assert last < first + 0.4


# -- SCPI-99 and IEEE 488.2


@pytest.fixture
def bench() -> Interpreter:
    return Interpreter(SimulatedBench(time.monotonic, 1))


@pytest.mark.parametrize(
    "line",
    ["MEAS:PRES?", "MEASure:PRESsure?", "measure:pressure?", ":MEAS:pres?", "Meas:Pressure?"],
)
def test_long_and_short_forms_in_any_case(bench: Interpreter, line: str) -> None:
    # SCPI-99 vol. 1, 6.2.1: the long or the short form, and nothing between
    assert bench.answer(line) is not None
    assert bench.answer("SYST:ERR?") == '0,"No error"'
    assert bench.answer("MEASU:PRES?") is None
    assert (bench.answer("SYSTem:ERRor:NEXT?") or "").startswith("-113")


def test_what_the_standards_make_mandatory(bench: Interpreter) -> None:
    # IEEE 488.2-1992, 4.9 (required common commands); SCPI-99 vol. 1, 4.2.1 (required SCPI commands)
    assert bench.answer("*IDN?") == IDENTITY
    for query, answer in (("*OPC?", "1"), ("*TST?", "0"), ("*ESE?", "0"), ("*SRE?", "0"), ("SYST:VERS?", "1999.0")):
        assert bench.answer(query) == answer
    for command in ("*CLS", "*RST", "*WAI", "*OPC", "*ESE 32", "*SRE 32", "STAT:PRES", "STAT:OPER:ENAB 3"):
        assert bench.answer(command) is None
    assert bench.answer("STAT:OPER:ENAB?") == "3"
    for query in ("STAT:OPER?", "STAT:OPER:EVEN?", "STAT:QUES:COND?", "STAT:QUES?"):
        assert bench.answer(query) == "0"
    assert bench.answer("SYST:ERR?") == '0,"No error"'


def test_registers_tell_errors(bench: Interpreter) -> None:
    bench.answer("*CLS;*ESE 32;*SRE 32")
    bench.answer("NONSENSE 1")
    # IEEE 488.2-1992, 11.5.1: command error is bit 5; 11.2: event summary 32, master summary 64; SCPI: queue 4
    assert int(bench.answer("*STB?") or 0) == 4 | 32 | 64
    assert bench.answer("*ESR?") == "32"
    assert bench.answer("*ESR?") == "0"
    bench.answer("*OPC")
    assert bench.answer("*ESR?") == "1"


def test_several_commands_in_a_line_share_a_path(bench: Interpreter) -> None:
    # SCPI-99 vol. 1, 6.2.4: after a semicolon the path goes on; a colon or a common command does not move it
    assert (bench.answer("MEAS:LIFT?;PRES?") or "").count(";") == 1
    assert bench.answer("SOUR:PRES 12.5;PRES?;:SENS:RANG?;*OPC?") == "12.50;3;1"
    assert bench.answer("MEAS:LIFT?;:MEAS:TEMP?;*OPC?") is not None
    assert bench.answer("SYST:ERR?") == '0,"No error"'


def test_a_client_of_another_hand_drives_it() -> None:
    """PyVISA with pyvisa-py: long forms, several queries in a line, its own way of asking."""
    with running(SimulatedBench(time.monotonic, 1)) as server:
        manager = pyvisa.ResourceManager("@py")
        wire = manager.open_resource(
            f"TCPIP::{HOST}::{server.port}::SOCKET", read_termination="\n", write_termination="\n"
        )
        wire.timeout = 3000
        try:
            assert wire.query("*IDN?") == IDENTITY  # type: ignore[attr-defined]
            wire.write("SOURce:PRESsure 28;*OPC")  # type: ignore[attr-defined]
            wire.write("SIMulate:LIFT 8.0")  # type: ignore[attr-defined]
            time.sleep(4.0)  # six times its settling time
            flow, pressure = wire.query_ascii_values("MEASure:FLOW?;PRESsure?", separator=";")  # type: ignore[attr-defined]
            assert flow > 50
            assert pressure == pytest.approx(28, abs=1.5)
            assert int(wire.query("*ESR?")) & 1  # type: ignore[attr-defined]
            assert wire.query("SYSTem:ERRor:NEXT?") == '0,"No error"'  # type: ignore[attr-defined]
        finally:
            wire.close()
            manager.close()


def test_what_is_no_bench_at_all(scripted: Callable[..., Scripted]) -> None:
    with pytest.raises(LinkError, match="no bench answers"):
        TcpLink(HOST, 1)
    chatter = scripted(lambda line, send: send(os.urandom(64).replace(b"\n", b" ") * 200))
    with pytest.raises(LinkError):
        ScpiBench(TcpLink(HOST, chatter.port))


def test_a_link_ended_under_its_reader_fails_in_words_at_every_moment() -> None:
    """Disconnect ends the wire in one thread while another stands anywhere in a question."""
    import random
    import socket
    import threading
    import time

    from ventrix.bench.links.tcp import LinkError, TcpLink

    rng = random.Random(4)
    with socket.create_server(("127.0.0.1", 0)) as server:
        for _ in range(60):
            link = TcpLink("127.0.0.1", server.getsockname()[1], timeout=0.2)
            there, _address = server.accept()
            there.sendall(b"1\n" * 3000)
            failed: list[BaseException] = []

            def ask(link: TcpLink = link, failed: list[BaseException] = failed) -> None:
                try:
                    while True:
                        try:
                            link.ask("MEAS:FLOW?")
                        except LinkError as error:
                            if "nobody asked" in str(error) or "two answers" in str(error):
                                continue
                            raise
                except BaseException as error:
                    failed.append(error)

            asking = threading.Thread(target=ask)
            asking.start()
            time.sleep(rng.uniform(0, 0.004))
            link.interrupt()
            asking.join()
            link.close()
            there.close()
            assert isinstance(failed[0], LinkError), failed

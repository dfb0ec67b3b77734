"""Lift plans as typed, columns of a streaming bench as typed, and lines as they come, good and bad."""

from __future__ import annotations

import os
import queue
import threading
import time
from collections.abc import Iterator

import pytest

from ventrix.bench.drivers.sample import Sample
from ventrix.bench.drivers.text_columns import columns_text, parse_columns
from ventrix.bench.drivers.text_lines import TextBench, TextFormat, open_serial
from ventrix.bench.links.tcp import LinkError
from ventrix.bench.procedure.lift_plan import lifts_in_words, parse_lifts, rungs
from ventrix.bench.sampler import CommandRefused, Connected, Event, Heard, Lost, Sampler
from ventrix.core.quantity.units import from_si, to_si


@pytest.mark.parametrize(
    ("text", "count", "last"),
    [("0.05 to 0.6 by 0.05", 12, 0.6), ("0.1, 0.2, 0.3", 3, 0.3), ("0.1; 0.2 to 0.4 by 0.1", 4, 0.4),
     ("5 mm", 1, 0.19685)],
)  # fmt: skip
def test_plans_as_typed(text: str, count: int, last: float) -> None:
    lifts = parse_lifts(text, "in").lifts
    assert len(lifts) == count
    assert from_si(lifts[-1], "in") == pytest.approx(last, abs=1e-5)


@pytest.mark.parametrize(
    ("text", "words"),
    [("", "at least one"), ("a", "not a number"), ("0.1 to 0.5", "a step"), ("0.5 to 0.1 by 0.1", "does not rise"),
     ("0.001 to 9 by 0.001", "more than 60"), ("0, 0.1", "above zero")],
)  # fmt: skip
def test_plans_that_make_no_sense(text: str, words: str) -> None:
    with pytest.raises(ValueError, match=words):
        parse_lifts(text, "in")


def test_plans_in_words_and_the_way_back() -> None:
    lifts = parse_lifts("0.1 to 0.4 by 0.1", "in").lifts
    assert lifts_in_words(lifts, lambda x: f"{from_si(x, 'in'):.3f}") == "0.100 to 0.400 by 0.100"
    plan = rungs(lifts, come_back=True)
    assert [r.returns for r in plan] == [False] * 4 + [True]
    assert plan[-1].lift == plan[1].lift
    assert plan[-1].key != plan[1].key


def test_columns_as_typed() -> None:
    text = "flow 2 cfm x 1.02 - 0.5; pressure 1 inH2O; lift 4 in"
    columns = parse_columns(text)
    assert columns_text(columns) == text
    assert columns[0].scale == 1.02
    assert columns[0].offset == -0.5
    assert TextFormat.of(TextFormat(19200, "tab", columns).as_document()).columns == columns
    for bad, words in (("flow", "figure, column"), ("wind 1", "not one of"), ("flow 1 furlong", "no unit")):
        with pytest.raises(ValueError, match=words):
            parse_columns(bad)
    for columns_bad, words in (("flow 1", "no column is the pressure"), ("flow 1; flow 2; pressure 3", "two columns")):
        with pytest.raises(ValueError, match=words):
            TextFormat(9600, "comma", parse_columns(columns_bad)).check()
    with pytest.raises(ValueError, match="not as they should be"):
        TextFormat.of({"columns": [{"nonsense": 1}]})


SHAPE = TextFormat(9600, "comma", parse_columns("flow 1 cfm; pressure 2 inH2O; lift 3 mm"))


@pytest.mark.parametrize(
    "line", ["", "abc", "1,2", "1,2,x", "1,,3", "nan,28,3", "1e999,28,3", "--5,28,3", "12;28;3", "\x00\x01,2,3"]
)
def test_lines_that_are_not_the_benchs(line: str) -> None:
    assert SHAPE.read(line, 0.0) is None


def test_a_line_of_the_bench() -> None:
    sample = SHAPE.read("101.5, 28.02 ,5.08, extra", 3.0)
    assert sample is not None
    assert from_si(sample.flow, "cfm") == pytest.approx(101.5)
    assert sample.lift == pytest.approx(5.08e-3)
    assert sample.temperature is None


class Wire:
    """A stream that plays chunks; an exception in the list is raised."""

    def __init__(self, *chunks: bytes | Exception) -> None:
        self._chunks = list(chunks)
        self.closed = False

    in_waiting = 0

    def read(self, size: int) -> bytes:
        if not self._chunks:
            return b""
        chunk = self._chunks.pop(0)
        if isinstance(chunk, Exception):
            raise chunk
        return chunk

    def close(self) -> None:
        self.closed = True


def bench(*chunks: bytes | Exception) -> TextBench:
    ticks = iter(float(i) * 0.05 for i in range(10_000))
    return TextBench(Wire(*chunks), SHAPE, "the wire", now=lambda: next(ticks))


def test_half_lines_garbage_and_a_cable_pulled_out() -> None:
    reader = bench(
        b"7.1,2", b"8.0,5\n100.0,28", b".0,5.0\r\n", b"\xff\xfe@@\n", b"99.0,27.9,5.0\n",
        OSError(5, "Input/output error"),
    )  # fmt: skip
    assert from_si(reader.sample(0.0).flow, "cfm") == pytest.approx(100.0)  # the first, cut line is passed over
    assert from_si(reader.sample(0.1).flow, "cfm") == pytest.approx(99.0)
    assert reader.passed_over == 1
    with pytest.raises(LinkError, match="unplugged"):
        reader.sample(0.2)


def test_silence_and_a_bench_that_says_something_else() -> None:
    with pytest.raises(LinkError, match="is silent"):
        bench().sample(0.0)
    with pytest.raises(LinkError, match="not the bench's, the last 'OK ready'"):
        bench(b"x\n", *[b"OK ready\n"] * 200).sample(0.0)
    endless = bench(*[b"9" * 256] * 50)
    with pytest.raises(LinkError):
        endless.sample(0.0)
    assert endless.passed_over > 5


@pytest.fixture
def terminal() -> Iterator[tuple[int, str]]:
    """A pseudo-terminal: what is written to the first is read from the device named second."""
    leader, follower = os.openpty()
    yield leader, os.ttyname(follower)
    for end in (leader, follower):
        try:
            os.close(end)
        except OSError:
            pass


def wait_for(events: queue.Queue[Event], kind: type, seconds: float = 8.0) -> Event:
    end = time.monotonic() + seconds
    while time.monotonic() < end:
        try:
            event = events.get(timeout=0.5)
        except queue.Empty:
            continue
        if isinstance(event, kind):
            return event
    raise AssertionError(f"no {kind.__name__} came")


def test_a_serial_bench_through_a_pseudo_terminal(terminal: tuple[int, str]) -> None:
    leader, device = terminal
    events: queue.Queue[Event] = queue.Queue()
    talking = threading.Event()
    talking.set()
    stop = threading.Event()

    def talk() -> None:
        while not stop.is_set():
            if talking.is_set():
                os.write(leader, b"120.5,28.0,6.35\n")
            time.sleep(0.02)

    talker = threading.Thread(target=talk)
    talker.start()
    sampler = Sampler(lambda: open_serial(device, SHAPE), 0.02, events)
    sampler.start()
    try:
        connected = wait_for(events, Connected)
        assert isinstance(connected, Connected)
        assert device in connected.identity
        sample = wait_for(events, Sample)
        assert isinstance(sample, Sample)
        assert sample.flow == pytest.approx(to_si(120.5, "cfm"))
        heard = wait_for(events, Heard)
        assert isinstance(heard, Heard)
        assert "120.5" in heard.lines[-1]
        sampler.send(lambda b: b.set_pressure(1.0))
        assert isinstance(wait_for(events, CommandRefused), CommandRefused)
        talking.clear()
        lost = wait_for(events, Lost)
        assert isinstance(lost, Lost)
        assert "silent" in lost.sentence
        talking.set()
        assert isinstance(wait_for(events, Sample), Sample)  # back by itself
    finally:
        stop.set()
        talker.join()
        sampler.stop()


def test_a_device_that_is_not_there() -> None:
    with pytest.raises(LinkError, match="cannot be opened"):
        open_serial("/dev/no-such-bench", SHAPE)

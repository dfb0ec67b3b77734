"""The simulated bench: its port's physics, its manners, and its lines on the wire."""

from __future__ import annotations

import queue
import socket
import time

import numpy as np
import pytest

from tests.bench.exchange import WrittenExchange
from ventrix.bench.drivers.sample import Sample
from ventrix.bench.drivers.scpi import ScpiBench
from ventrix.bench.links.tcp import LinkError, TcpLink
from ventrix.bench.sampler import CommandRefused, Connected, Event, Lost, Sampler
from ventrix.bench.simulator.bench import Character, SimulatedBench
from ventrix.bench.simulator.heads.shipped import HEADS, worked
from ventrix.bench.simulator.server import HOST, Interpreter, running
from ventrix.core.formulas.bench_flow import ideal_flux
from ventrix.core.formulas.valve import valve_flow_area
from ventrix.core.quantity.units import from_si, to_si

DP = to_si(28, "inH2O")


class Clock:
    now = 0.0

    def __call__(self) -> float:
        return self.now


def settled(bench: SimulatedBench, clock: Clock, lift: float, pressure: float = DP) -> tuple[float, float, float]:
    """Mean flow, its scatter and the mean pressure after settling."""
    bench.set_pressure(pressure)
    bench.set_lift(lift)
    clock.now += 10
    got = []
    for _ in range(200):
        clock.now += 0.05
        got.append(bench.read())
    flow, dp = np.array(got).T
    return float(flow.mean()), float(flow.std() / flow.mean()), float(dp.mean())


def test_seat_rules_low_port_rules_high() -> None:
    """At low lift opening the port does nothing; at high lift it is nearly all."""
    port = HEADS["intake"][0].truth
    better = worked(HEADS["intake"][0], "pinch").truth
    low, high = 0.001, 0.013
    assert better.flow(low, DP) / port.flow(low, DP) == pytest.approx(1, abs=2e-3)
    assert better.flow(high, DP) / port.flow(high, DP) > 1.015


def test_the_port_has_most_of_the_loss_at_high_lift() -> None:
    # formula book, loss split: the port's share is (Q / Q with the valve out) squared
    truth = HEADS["intake"][0].truth
    share = (float(truth.flow(0.013, DP)) / float(truth.port_area * ideal_flux(DP))) ** 2
    assert 0.5 < share < 0.9
    low = (float(truth.flow(0.001, DP)) / float(truth.port_area * ideal_flux(DP))) ** 2
    assert low < 0.02


def test_flow_never_beats_the_least_area() -> None:
    # Heywood (1988), section 6.3: the least geometric area at the ideal flux bounds the flow
    for cuts in HEADS.values():
        for cut in cuts:
            t = cut.truth
            lift = np.linspace(2e-4, 0.015, 60)
            least = valve_flow_area(
                t.valve_diameter, t.seat_width, t.seat_angle, t.throat_diameter, t.stem_diameter, lift
            )
            assert np.all(t.flow(lift, DP) < least.area * ideal_flux(DP))


def test_it_settles_leaks_and_is_noisy() -> None:
    clock = Clock()
    bench = SimulatedBench(clock, seed=3)
    bench.set_pressure(DP)
    bench.set_lift(0.005)
    at_once = bench.read()[0]
    flow, noise, dp = settled(bench, clock, 0.005)
    assert at_once < 0.2 * flow
    assert dp == pytest.approx(DP, rel=2e-3)
    assert 0.001 < noise < 0.01
    assert settled(bench, clock, 0.013)[1] > 1.5 * noise  # separated flow flickers
    leak = settled(bench, clock, 0.0)[0]
    assert from_si(leak, "cfm") == pytest.approx(0.4, abs=0.01)


def test_it_runs_out_of_blower_and_travel() -> None:
    clock = Clock()
    bench = SimulatedBench(clock, seed=3)
    bench.fit("intake", 3)
    _, _, dp = settled(bench, clock, 0.015, to_si(40, "inH2O"))
    assert from_si(dp, "inH2O") < 39
    with pytest.raises(ValueError, match="blower"):
        bench.set_pressure(to_si(60, "inH2O"))
    with pytest.raises(ValueError, match="travel"):
        bench.set_lift(0.05)


def test_a_cut_changes_its_port() -> None:
    clock = Clock()
    bench = SimulatedBench(clock, seed=3)
    bench.fit("intake", 3)
    before = settled(bench, clock, 0.013)[0]
    bench.work("intake", 4, "pinch")
    bench.fit("intake", 4)
    assert settled(bench, clock, 0.013)[0] > before
    with pytest.raises(ValueError, match="next cut"):
        bench.work("intake", 9, "bowl")
    with pytest.raises(ValueError, match="cuts 0 to"):
        bench.fit("exhaust", 100)


def test_the_bench_follows_a_job_with_more_cuts_than_it_knew() -> None:
    """More metal off flows more, so a later state does: common practice, no source."""
    clock = Clock()
    bench = SimulatedBench(clock, seed=3, character=Character(setting_scatter=0.0, mount_scatter=0.0, noise=0.0))
    bench.fit("exhaust", 2)
    known = settled(bench, clock, 0.010)[0]
    for cut in (7, 25):
        bench.fit("exhaust", cut)
        assert bench.state == ("exhaust", cut)
        assert settled(bench, clock, 0.010)[0] > known
    talk = Interpreter(bench)
    assert talk.answer("SIM:PORT INTAKE,25") is None
    assert talk.answer("SYST:ERR?") == '0,"No error"'


def test_scpi_lines() -> None:
    clock = Clock()
    talk = Interpreter(SimulatedBench(clock, seed=3))
    assert "Simulated bench" in (talk.answer("*IDN?\r\n") or "")
    assert talk.answer(":sour:pres 28") is None
    assert talk.answer("SOUR:PRES?") == "28.00"
    assert talk.answer("SIM:PORT EXHAUST,1") is None
    assert talk.answer("SIM:PORT?") == "EXHAUST,1"
    assert talk.answer("SYST:ERR?") == '0,"No error"'
    for line, code in (
        ("MEAS:NOISE?", "-113"),
        ("SOUR:PRES", "-109"),
        ("*CLS 5", "-108"),
        ("SOUR:PRES 99", "-222"),
        ("SOUR:PRES nan", "-222"),
        ("SIM:PORT SIDEWAYS,1", "-222"),
    ):
        assert talk.answer(line) is None
        # SCPI-99, section 21.8: codes of the standard error list
        assert (talk.answer("SYST:ERR?") or "").startswith(code)
    assert talk.answer("") is None


def test_driver_against_a_written_exchange() -> None:
    link = WrittenExchange(
        ("*IDN?", "Some,Bench,7,1"),
        ("MEAS:FLOW?", "100.0"),
        ("MEAS:PRES?", "28.0"),
        ("MEAS:LIFT?", "5.000"),
        ("MEAS:TEMP?", "21.0"),
        ("*IDN?", "Some,Bench,7,1"),
        ("SOUR:PRES 28.00", None),
        ("SYST:ERR?", '0,"No error"'),
        ("SIM:LIFT 5.000", None),
        ("SYST:ERR?", '-222,"Data out of range;the valve is out of travel"'),
        ("MEAS:FLOW?", "garbage"),
        ("MEAS:FLOW?", "9.91E37"),
        ("MEAS:FLOW?", None),
    )
    bench = ScpiBench(link)
    assert not bench.is_simulated
    sample = bench.sample(1.0)
    assert from_si(sample.flow, "cfm") == pytest.approx(100)
    assert sample.lift == pytest.approx(0.005)
    bench.set_pressure(DP)
    with pytest.raises(LinkError, match="out of travel"):
        bench.set_lift(0.005)
    for words in ("answered 'garbage'", "no value", "does not answer"):
        with pytest.raises(LinkError, match=words):
            bench.sample(2.0)
    assert link.done()


def wait_for(events: queue.Queue[Event], kind: type, seconds: float = 5.0) -> Event:
    end = time.monotonic() + seconds
    while time.monotonic() < end:
        event = events.get(timeout=seconds)
        if isinstance(event, kind):
            return event
    raise AssertionError(f"no {kind.__name__} came")


def test_sampler_over_tcp_loses_and_finds_the_bench() -> None:
    events: queue.Queue[Event] = queue.Queue()
    with running(SimulatedBench(time.monotonic, 1)) as server:
        port = server.port
        sampler = Sampler(lambda: ScpiBench(TcpLink(HOST, port, 1.0)), 0.01, events)
        sampler.start()
        connected = wait_for(events, Connected)
        assert isinstance(connected, Connected)
        assert connected.is_simulated
        sample = wait_for(events, Sample)
        assert isinstance(sample, Sample)
        sampler.send(lambda b: b.set_lift(9.0))
        refused = wait_for(events, CommandRefused)
        assert isinstance(refused, CommandRefused)
        assert "out of travel" in refused.sentence
    sampler.stop()


def test_nobody_answers() -> None:
    with socket.socket() as free:
        free.bind((HOST, 0))
        port = free.getsockname()[1]
    with pytest.raises(LinkError, match="no bench answers"):
        TcpLink(HOST, port, 0.2)
    events: queue.Queue[Event] = queue.Queue()
    sampler = Sampler(lambda: ScpiBench(TcpLink(HOST, port, 0.2)), 0.01, events)
    sampler.start()
    assert isinstance(wait_for(events, Lost), Lost)
    sampler.stop()


def test_silence_and_hanging_up() -> None:
    with socket.create_server((HOST, 0)) as silent:
        link = TcpLink(HOST, silent.getsockname()[1], 0.2)
        with pytest.raises(LinkError, match="timed out"):
            link.ask("*IDN?")
        connection, _ = silent.accept()
        connection.close()
        with pytest.raises(LinkError, match=r"closed|broke"):
            link.ask("*IDN?")
        link.close()

"""The bench that a practice's head stands on: whatever metal there is, nicks, cold and bolting-down."""

from __future__ import annotations

import numpy as np
import pytest

from ventrix.bench.simulator.heads.virtual import PRESSURE
from ventrix.bench.simulator.practice.live import PracticeBench, live_port
from ventrix.bench.simulator.practice.play import LIFT, Act, Practice, played
from ventrix.core.model.kinds import Place
from ventrix.core.quantity.units import to_si


class Clock:
    """Seconds that go by when they are told to."""

    def __init__(self) -> None:
        self.now = 0.0

    def __call__(self) -> float:
        self.now += 0.05
        return self.now


def bench_on(practice: Practice) -> PracticeBench:
    return PracticeBench(Clock(), lambda: practice)


def settled(bench: PracticeBench, lift_in: float, samples: int = 120) -> float:
    """Mean flow at a lift [m3/s] once it stands still."""
    bench.set_pressure(PRESSURE)
    bench.set_lift(to_si(lift_in, "in"))
    for _ in range(200):
        bench.read()
    return float(np.mean([bench.read()[0] for _ in range(samples)]))


def test_the_truth_of_the_virtual_port_is_on_it() -> None:
    practice = Practice("easy-two-valve", 3)
    port = live_port(practice)
    for lift in (0.1, 0.3, 0.5):
        exact = float(practice.port.flow(np.array([to_si(lift, "in")]))[0])
        assert float(port.flow(to_si(lift, "in"), PRESSURE)) == pytest.approx(exact)
        assert settled(bench_on(practice), lift) == pytest.approx(exact, rel=0.012), "bolted down, and set, by hand"
    assert port.effective_area(LIFT).shape == LIFT.shape


def test_flow_goes_with_the_root_of_pressure() -> None:
    """Bernoulli's; air that gives way takes some three per cent of it at 28 inH2O."""
    port = live_port(Practice("easy-two-valve", 3))
    both = [float(port.flow(to_si(0.4, "in"), p * PRESSURE)) for p in (1.0, 0.25)]
    assert both[1] / both[0] == pytest.approx(0.5, rel=0.035)


def test_a_pass_is_felt_at_once_and_states_do_not_come_back() -> None:
    practice = Practice("easy-two-valve", 3)
    bench = bench_on(practice)
    before = settled(bench, 0.5)
    practice.do(Act("cut", Place.BOWL, 1.0e-3))
    practice.do(Act("cut", Place.SHORT_SIDE, 1.0e-3))
    after = settled(bench, 0.5)
    assert after > before * 1.01
    bench.fit("intake", 0)
    bench.work("intake", 1, "bowl")
    assert settled(bench, 0.5) == pytest.approx(after, rel=0.012)


def test_another_bolting_down_reads_another_flow() -> None:
    practice = Practice("home-built", 3)
    bench = bench_on(practice)
    seen = []
    for _ in range(25):
        bench.remount()
        seen.append(settled(bench, 0.3, 40))
    assert np.std(seen) / np.mean(seen) == pytest.approx(0.0128, rel=0.5), "0.8 % mount and 1.0 % setting"


def test_a_nicked_seat_is_felt_at_the_lowest_rungs() -> None:
    practice = Practice("easy-two-valve", 3)
    whole = live_port(practice).effective_area(LIFT)
    practice.nicks_of[0] = 1
    nicked = live_port(practice).effective_area(LIFT)
    assert nicked[:3] == pytest.approx(0.985 * whole[:3])
    assert nicked[3:] == pytest.approx(whole[3:])


def test_a_bench_that_drifts_reads_high_while_it_is_cold() -> None:
    cold = Practice("home-built", 3)
    warm = played("home-built", 3, [Act("flow")] * 12, hours=12)
    assert cold.cold == pytest.approx(1.008)
    assert warm.cold == 1.0
    assert Practice("easy-two-valve", 3).cold == 1.0

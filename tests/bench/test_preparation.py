"""The steps before the lifts, fed by hand with samples: what each wants, refuses and records."""

from __future__ import annotations

import pytest

from ventrix.bench.drivers.sample import Sample
from ventrix.bench.procedure.flow_procedure import Refusal
from ventrix.bench.procedure.preparation import ORDER, Preparation, StepDone, StepSkipped
from ventrix.core.model.kinds import StepKind
from ventrix.core.quantity.units import to_si

DP = to_si(28, "inH2O")


class Hands:
    def __init__(self, preparation: Preparation) -> None:
        self.preparation, self.now = preparation, 0.0

    def feed(
        self, seconds: float, flow: float = 0.05, pressure: float = DP, lift: float = 0.0, drift: float = 0.0
    ) -> None:
        for _ in range(int(seconds * 20)):
            self.now += 0.05
            self.preparation.feed(Sample(self.now, flow * (1 + drift * self.now), pressure, lift))


def at(step: StepKind, **more: float) -> tuple[Preparation, Hands]:
    preparation = Preparation((step,), DP, **more)
    return preparation, Hands(preparation)


def test_a_warming_bench_is_waited_for() -> None:
    preparation, hands = at(StepKind.WARM_UP)
    assert isinstance(preparation.take(), Refusal)
    hands.feed(25, drift=0.001)  # a tenth of a percent a second: cold
    cold = preparation.take()
    assert isinstance(cold, Refusal)
    assert "drifting" in cold.sentence
    assert preparation.share < 1
    hands.feed(40)
    warm = preparation.take()
    assert isinstance(warm, StepDone)
    assert abs(warm.drift or 0) < 0.003
    assert preparation.step is None


def test_losing_the_pressure_begins_the_warm_up_anew() -> None:
    preparation, hands = at(StepKind.WARM_UP)
    hands.feed(30)
    hands.feed(1, pressure=0.2 * DP)
    assert isinstance(preparation.take(), Refusal)


def test_zero_is_looked_at_with_the_blower_off() -> None:
    preparation, hands = at(StepKind.ZERO)
    hands.feed(4, flow=0.0, pressure=100.0)
    off = preparation.take()
    assert isinstance(off, Refusal)
    assert "zero it" in off.sentence
    hands.feed(4, flow=0.0, pressure=5.0)
    assert isinstance(preparation.take(), StepDone)


def test_a_leak_wants_pressure_and_a_shut_valve_and_says_where_to_look() -> None:
    preparation, hands = at(StepKind.LEAK, smallest_flow=0.012)
    hands.feed(4, flow=0.001, pressure=0.5 * DP)
    low = preparation.take()
    assert isinstance(low, Refusal)
    assert "low" in low.sentence
    hands.feed(4, flow=0.001, lift=0.002)
    opened = preparation.take()
    assert isinstance(opened, Refusal)
    assert "valve is open" in opened.sentence
    hands.feed(4, flow=0.001)
    leak = preparation.take()
    assert isinstance(leak, StepDone)
    assert leak.flow == pytest.approx(0.001)
    assert "8 % of the smallest reading" in leak.notes[0]
    assert "plug" in leak.notes[0]


def test_steps_by_eye_on_a_bench_that_is_typed() -> None:
    preparation = Preparation(ORDER, DP, plate_flow=0.0717)
    assert isinstance(preparation.take(0.05), Refusal)  # one reading shows no drift
    assert isinstance(preparation.take(0.0501), StepDone)
    assert isinstance(preparation.take(3.0), StepDone)  # the manometer, Pa
    assert isinstance(preparation.take(0.0002), StepDone)
    assert isinstance(preparation.skip("  "), Refusal)
    skipped = preparation.skip("old seat, to be cut anyway")
    assert isinstance(skipped, StepSkipped)
    assert isinstance(preparation.take(-1.0), Refusal)
    assert isinstance(preparation.take(0.0716), StepDone)
    assert isinstance(preparation.take(0.0), Refusal)
    assert isinstance(preparation.take(0.11), StepDone)
    assert [o.step for o in preparation.outcomes] == list(ORDER)
    assert isinstance(preparation.take(), Refusal)
    preparation.go_to(StepKind.LEAK)
    assert preparation.step is StepKind.LEAK


def test_a_floating_pressure_has_no_window() -> None:
    preparation = Preparation((StepKind.PLATE,), None)
    hands = Hands(preparation)
    hands.feed(4, flow=900.0, pressure=3000.0)
    assert isinstance(preparation.take(), StepDone)

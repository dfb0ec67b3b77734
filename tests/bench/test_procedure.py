"""The flow test as a state machine, fed by hand with samples."""

from __future__ import annotations

import pytest

from ventrix.bench.drivers.sample import Sample
from ventrix.bench.procedure.flow_procedure import FlowTest, Kept, Phase, Refusal
from ventrix.bench.procedure.lift_plan import Rung, rungs
from ventrix.core.quantity.units import to_si

DP = to_si(28, "inH2O")
LIFTS = rungs([1e-3, 2e-3, 3e-3])


def done(*lifts: float) -> set[tuple[int, bool]]:
    return {Rung(x).key for x in lifts}


def kept(test: FlowTest, outcome: Kept | Refusal) -> Kept:
    """What was kept, marked as the book marks it."""
    assert isinstance(outcome, Kept), outcome
    test.mark(outcome)
    return outcome


class Feeder:
    """Feeds a test steady samples at a chosen lift."""

    def __init__(self, test: FlowTest) -> None:
        self.test, self.now = test, 0.0

    def feed(
        self, lift: float, flow: float = 0.05, seconds: float = 4.0, pressure: float = DP, drift: float = 0.0
    ) -> None:
        for i in range(int(seconds * 20)):
            self.now += 0.05
            wobble = 1 + 0.001 * (-1) ** i + drift * i
            self.test.feed(Sample(self.now, flow * wobble, pressure, lift))


def test_phases_follow_the_hands() -> None:
    test = FlowTest(LIFTS, DP)
    hands = Feeder(test)
    assert test.phase is Phase.SET
    hands.feed(0.5e-3)
    assert test.phase is Phase.SET
    hands.feed(1e-3, pressure=0.5 * DP)
    assert test.phase is Phase.PRESSURE
    hands.feed(1e-3, seconds=0.5)
    assert test.phase is Phase.WAIT
    hands.feed(1e-3)
    assert test.phase is Phase.KEEP
    found = kept(test, test.keep())
    assert found.flow == pytest.approx(0.05, rel=1e-3)
    assert found.window == pytest.approx(3.0, abs=0.1)
    assert test.phase is Phase.KEPT
    hands.feed(2e-3, seconds=0.2)
    assert test.lift == 2e-3


def test_refusals_say_why() -> None:
    test = FlowTest(LIFTS, DP)
    hands = Feeder(test)
    words = []
    for lift, seconds, pressure in ((5e-3, 1, DP), (1e-3, 4, 0.5 * DP), (1e-3, 4, 1.2 * DP), (1e-3, 0.5, DP)):
        hands.feed(lift, seconds=seconds, pressure=pressure)
        outcome = test.keep()
        assert isinstance(outcome, Refusal)
        words.append(outcome.sentence)
    for said, expected in zip(words, ("set the valve", "at its limit", "high: lower", "Not steady"), strict=True):
        assert expected in said


def test_a_second_keep_needs_a_repeat() -> None:
    test = FlowTest(LIFTS, DP)
    hands = Feeder(test)
    hands.feed(1e-3)
    kept(test, test.keep())
    again = test.keep()
    assert isinstance(again, Refusal)
    assert "R to repeat" in again.sentence
    test.ask_repeat()
    hands.feed(1e-3)
    assert isinstance(test.keep(), Kept)


def test_drifting_is_not_steady_but_can_be_kept_as_such() -> None:
    test = FlowTest(LIFTS, DP)
    hands = Feeder(test)
    hands.feed(1e-3, drift=0.002)
    assert test.phase is Phase.WAIT
    assert kept(test, test.keep(unsteady=True)).unsteady


def test_typing_moves_up_the_ladder() -> None:
    test = FlowTest(LIFTS, DP)
    assert test.next_lift == 2e-3
    for _ in LIFTS:
        kept(test, test.keep_typed(0.05))
    assert test.phase is Phase.DONE
    assert isinstance(test.keep_typed(0.05), Refusal)
    assert isinstance(test.keep(), Refusal)
    with pytest.raises(ValueError, match="no lifts"):
        FlowTest([], DP)


def test_a_typed_nothing_is_refused() -> None:
    assert isinstance(FlowTest(LIFTS, DP).keep_typed(0.0), Refusal)


def test_edits_elsewhere_are_taken_in() -> None:
    test = FlowTest(LIFTS, DP)
    kept(test, test.keep_typed(0.05))
    kept(test, test.keep_typed(0.05))
    test.sync(LIFTS, done(1e-3, 2e-3))
    assert test.lift == 3e-3  # no news
    test.sync(LIFTS, done(1e-3))
    assert test.lift == 2e-3  # a struck rung is asked for again
    test.sync(LIFTS, done(1e-3, 2e-3, 3e-3))
    assert test.phase is Phase.DONE


def test_a_run_half_done_goes_on_where_it_stopped() -> None:
    test = FlowTest(LIFTS, DP, done(1e-3, 3e-3))
    assert test.lift == 2e-3
    assert test.next_lift is None
    assert test.is_done(Rung(3e-3))


def test_nothing_is_marked_before_it_is_stored() -> None:
    test = FlowTest(LIFTS, DP)
    hands = Feeder(test)
    hands.feed(1e-3)
    found = test.keep()
    assert isinstance(found, Kept)
    assert test.phase is Phase.KEEP  # the book has not taken it yet
    assert not test.is_done(found.rung)
    test.mark(found)
    assert test.phase is Phase.KEPT
    assert test.is_done(found.rung)


def test_repeat_goes_to_the_rung_just_kept_typed_or_read_and_after_the_last() -> None:
    test = FlowTest(LIFTS, DP)
    assert not test.ask_repeat()
    kept(test, test.keep_typed(0.05))
    assert test.lift == 2e-3
    assert test.ask_repeat()
    assert test.lift == 1e-3
    kept(test, test.keep_typed(0.051))
    for _ in range(2):
        kept(test, test.keep_typed(0.05))
    assert test.phase is Phase.DONE
    assert test.ask_repeat()
    assert test.lift == 3e-3


def test_a_silent_bench_leaves_nothing_to_keep() -> None:
    test = FlowTest(LIFTS, DP)
    Feeder(test).feed(1e-3)
    assert test.phase is Phase.KEEP
    test.lose()
    assert isinstance(test.keep(), Refusal)

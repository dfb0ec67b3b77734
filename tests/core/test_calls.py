"""What was said first, scored against what came, by figures that are worked by hand."""

from __future__ import annotations

from dataclasses import replace

import pytest

from ventrix.core.judging.calls import CallScore, called_outcomes, eye_record, scored_calls
from ventrix.core.judging.findings import Findings
from ventrix.core.model.cut import Cut, Operation, Port, Work
from ventrix.core.model.job import Job
from ventrix.core.model.job_parts import Call, Valve
from ventrix.core.model.run import FlowRun, Reading, SetUp
from ventrix.core.quantity.units import from_si, to_si

PRESSURE = to_si(28, "inH2O")
LIFTS = (0.2, 0.3, 0.4)


def run(key: str, flows: tuple[float, ...], date: str) -> FlowRun:
    readings = tuple(
        Reading(id=f"{key}-{i}", lift=to_si(x, "in"), flow=to_si(q, "cfm"), measured_pressure=PRESSURE)
        for i, (x, q) in enumerate(zip(LIFTS, flows, strict=True))
    )
    return FlowRun(id=key, setup_id="s", date=date, readings=readings)


def cut(number: int, place: str, flows: tuple[float, ...], **more: float) -> Cut:
    operation = Operation(id=f"op-{number}", kind="rough", works=(Work(id=f"w-{number}", place=place),))
    return Cut(
        id=f"cut-{number}", number=number, runs=(run(f"run-{number}", flows, f"2026-02-0{number + 1}"),),
        operations=(operation,) if place else (), **more,
    )  # fmt: skip


def job(*calls: Call, **more: float) -> Job:
    """100, 150, 180 as cast; a bowl that brings 10 % and an opening that brings nothing."""
    cuts = (
        cut(0, "", (100, 150, 180)),
        cut(1, "bowl", (110, 165, 198), **more),
        cut(2, "opening", (110, 165, 198)),
    )
    valve = Valve(id="v", head_diameter=to_si(46, "mm"))
    setup = SetUp(
        id="s", direction="intake", test_pressure=PRESSURE, bench="b", bore=to_si(89, "mm"), centred=True,
        entry="radius", valve="job", plug="in", clean=True, leak=0.0, leak_pressure=PRESSURE,
    )  # fmt: skip
    port = Port(id="p", name="Intake 1", kind="intake", valve_id="v", cuts=cuts)
    return Job(id="j", title="j", ports=(port,), valves=(valve,), setups=(setup,), calls=calls)


def said(at: int, flow: float = 0.0, **more: str) -> Call:
    flows = (to_si(0.3, "in"),), (to_si(flow, "cfm"),)
    lifts, values = flows if flow else ((), ())
    return Call(id=f"call-{at}", cut_id=f"cut-{at}", date=f"2026-02-0{at + 1}", lifts=lifts, flows=values, **more)


def test_flow_and_change_are_scored_at_the_lifts_that_were_said() -> None:
    """180 said at 0.300 in: 165 came, 9.1 % too high; of 30 said, 15 came."""
    (score,) = scored_calls(Findings(job(said(1, 180, gains="yes"))))
    assert score.places == ("bowl",)
    assert score.off == pytest.approx(15 / 165)
    assert from_si(score.said_change or 0.0, "cfm") == pytest.approx(30)
    assert from_si(score.came_change or 0.0, "cfm") == pytest.approx(15)
    assert score.gains_right is True


@pytest.mark.parametrize(("gains", "right"), [("yes", False), ("no", True)])
def test_a_gain_that_was_not_there(gains: str, right: bool) -> None:
    (score,) = scored_calls(Findings(job(said(2, gains=gains))))
    assert score.gains_right is right
    assert score.off is None


@pytest.mark.parametrize(("place", "right"), [("bowl", True), ("opening", False), ("guide", False)])
def test_the_best_place_is_told_by_what_was_cut_afterwards(place: str, right: bool) -> None:
    assert scored_calls(Findings(job(said(0, best_place=place))))[0].place_right is right
    assert scored_calls(Findings(job(said(1, best_place=place))))[0].place_right is None, "one place since says nothing"


def test_only_a_later_run_scores_what_was_said() -> None:
    late = replace(said(1, 180), date="2026-03-01")
    assert scored_calls(Findings(job(late))) == ()
    assert scored_calls(Findings(job(replace(late, cut_id="gone")))) == ()


def test_the_eyes_record_by_place_has_bias_and_spread() -> None:
    def score(place: str, off: float) -> CallScore:
        return CallScore("", "", (place,), off, None, None, None, None)

    bowl, guide = eye_record([score("bowl", 0.05), score("bowl", 0.15), score("guide", -0.02)])
    assert (bowl.place, bowl.calls) == ("bowl", 2)
    assert bowl.bias == pytest.approx(0.10)
    assert bowl.spread == pytest.approx(0.05 * 2**0.5)
    assert (guide.bias, guide.spread) == (pytest.approx(-0.02), None)


def test_it_feeds_the_porters_factors_once() -> None:
    (outcome,) = called_outcomes(Findings(job(said(1, 180))))
    assert outcome.places == ("bowl",)
    assert outcome.gain.said == pytest.approx(to_si(30, "cfm"))
    assert outcome.gain.came == pytest.approx(to_si(15, "cfm"))
    assert not called_outcomes(Findings(job(said(1, 180), expected_gain=to_si(12, "cfm")))), "its card has said it"
    assert not called_outcomes(Findings(job(said(0, 140)))), "as cast nothing was worked"

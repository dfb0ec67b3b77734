"""What the Practice room says: the clock, acts, the reckoning and every decision, without a window."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from ventrix.bench.simulator.practice.catalogue import HEADS, head_named
from ventrix.bench.simulator.practice.play import LIFT, Act, Done, Practice, played
from ventrix.bench.simulator.practice.reckoning import (
    Belief,
    beliefs_of,
    oracle_stair,
    reckon,
    two_tests,
    verdict_of,
)
from ventrix.core.judging.findings import Findings
from ventrix.core.metal.walls import DEFAULT_LIMIT
from ventrix.core.model.job import Job
from ventrix.core.model.kinds import Place
from ventrix.core.quantity.units import from_si, to_si
from ventrix.rooms.display_units import METRIC, US
from ventrix.rooms.practice.calls import call_lines
from ventrix.rooms.practice.shows import (
    act_words,
    decisions_of,
    hours_text,
    plan_would,
    plans_own_way,
    reckoning_shown,
)

FLOW, BOWL = Act("flow"), Act("cut", Place.BOWL, 0.5e-3)
CFM = to_si(1.0, "cfm")


ALONE = Practice("easy-two-valve", 1)


@pytest.mark.parametrize(
    ("minutes", "text"), [(0, "0:00"), (5, "0:05"), (59.6, "1:00"), (456, "7:36"), (480, "8:00"), (61.4, "1:01")]
)
def test_a_clock_reads_hours_and_minutes(minutes: float, text: str) -> None:
    assert hours_text(minutes) == text


def done(act: Act, **more: object) -> Done:
    return Done(act, 1.0, 0.05, 0.05, **more)  # type: ignore[arg-type]


@pytest.mark.parametrize(
    ("of", "us", "metric"),
    [
        (done(FLOW, flow=np.full(12, 100 * CFM)), "flow test: 100.0 CFM, mean of twelve", "flow test: 47.19 l/s"),
        (done(Act("wall", Place.BOWL), reading=to_si(0.15, "in")), "wall at the bowl: 0.150 in", "3.81 mm"),
        (done(Act("pour"), reading=to_si(118.24, "cc")), "pour: 118.2 cc", "pour: 118.2 cc"),
        (done(Act("clay", Place.GUIDE), flow=np.full(12, 90 * CFM)), "clay at the guide: 90.0 CFM", "clay at"),
        (done(BOWL), "bowl, 0.020 in meant", "bowl, 0.50 mm meant"),
        (done(BOWL, broke=True), "Broken through: water in the port", "Broken through"),
        (done(Act("cut", Place.THROAT, 1e-3), nicked=True), "The burr slipped and nicked the seat", "nicked"),
        (done(Act("live")), "flow test, live on the bench", "live"),
    ],
)
def test_acts_are_told_in_the_users_units_and_tell_nothing_of_the_truth(of: Done, us: str, metric: str) -> None:
    assert us in act_words(of, ALONE, US)
    assert metric in act_words(of, ALONE, METRIC)
    assert "true" not in act_words(of, ALONE, US)


@pytest.mark.parametrize(
    ("seen", "true", "verdict"),
    [
        (None, 5.0, "unseen"),
        (3.0, 0.1, "in vain"),
        (3.0, 2.5, "right"),
        (-0.5, -1.5, "lost"),
        (-3.0, -2.0, "right"),
        (0.5, 4.0, "missed"),
        (0.5, 0.4, "right"),
    ],
)
def test_a_belief_against_the_truth(seen: float | None, true: float, verdict: str) -> None:
    """By hand, with two tests that differ by two CFM."""
    assert verdict_of(None if seen is None else seen * CFM, true * CFM, 2 * CFM) == verdict


def test_what_two_tests_differ_by_is_what_they_do() -> None:
    """Over many seeds nineteen pairs in twenty of the same metal lie nearer than that."""
    head = head_named("easy-two-valve")
    near, level = 0, 0.0
    for seed in range(300):
        flows = [float(np.mean(d.flow)) for d in played(head.id, seed, [FLOW, FLOW]).done if d.flow is not None]
        level = flows[0]
        near += abs(flows[1] - flows[0]) < two_tests(head, level)
    assert near / 300 == pytest.approx(0.95, abs=0.035)


@pytest.mark.parametrize("head", HEADS, ids=lambda h: h.id)
def test_what_was_to_be_had_rises_with_the_hours_and_leaves_the_wall(head: object) -> None:
    found = head_named(head.id)  # type: ignore[attr-defined]
    stair = oracle_stair(found, 3, found.hours)
    hours, gains = zip(*stair, strict=True)
    assert list(hours) == sorted(hours)
    assert list(gains) == sorted(gains)
    assert gains[0] == 0 and hours[-1] <= found.hours
    assert oracle_stair(found, 3, 0.4) == ((0.0, 0.0),), "there is no time to cut and flow in 24 minutes"


def test_the_reckoning_adds_up() -> None:
    """Gain is the truth's, belief the tests': each stair ends where its figure says."""
    found = played("easy-two-valve", 4, [FLOW, Act("wall", Place.BOWL), BOWL, FLOW])
    r = reckon(found)
    first, last = (float(np.mean(d.flow)) for d in found.done if d.flow is not None)
    assert r.believed == pytest.approx(last - first)
    assert r.gain == pytest.approx(float(np.mean(found.port.flow(LIFT)) - np.mean(found.began[0].flow(LIFT))))
    assert r.true_stair[-1][1] == pytest.approx(r.gain)
    assert r.believed_stair[-1][1] == pytest.approx(r.believed)
    assert r.hours == pytest.approx((30 + 5 + 10 + 17.5 + 30) / 60)
    assert r.thinnest == pytest.approx(min(found.port.metal.walls.values()))
    assert r.share == pytest.approx(r.gain / r.oracle)


def test_a_broken_wall_is_worth_nothing() -> None:
    found = played("thin-short-side", 2, [FLOW, Act("cut", Place.SHORT_SIDE, 2e-3), FLOW])
    r = reckon(found)
    assert (r.walls_broken, r.share) == (1, 0.0)
    assert r.gain > 0, "it flows, and is scrap all the same"
    shown = reckoning_shown(found, US)
    assert "Broken through" in shown.verdict
    assert shown.worse
    assert shown.figures[0] == ("0.000 in", "broken through")
    assert shown.decisions[0].mark == "down"
    assert shown.decisions[0].known == "yes: five minutes with the gauge"
    assert "water in the port" in shown.decisions[0].what_was_true


def test_a_nicked_seat_is_said_whatever_else_is() -> None:
    found = played("easy-two-valve", 4, [FLOW, BOWL, FLOW])
    found.nicks_of[0] = 2
    shown = reckoning_shown(found, US)
    assert "2 times the burr nicked the seat" in shown.reason
    assert len(shown.figures) <= 3, "the strip has room for three"


def test_a_wall_that_was_read_and_cut_through_all_the_same() -> None:
    acts = [Act("wall", Place.SHORT_SIDE), Act("cut", Place.SHORT_SIDE, 2e-3)]
    (first, *_) = reckoning_shown(played("thin-short-side", 2, acts), US).decisions
    assert first.known == "yes: the gauge had said it"
    assert first.name == "short side, 0.079 in, wall read first"


def test_stopping_early_is_a_decision_too() -> None:
    shown = reckoning_shown(played("easy-two-valve", 4, [FLOW, BOWL, FLOW]), US)
    last = shown.decisions[-1]
    assert last.name.startswith("stopped, 6:32 unused")
    assert last.true_curve is None
    assert len(shown.decisions) == 2
    nothing = reckoning_shown(Practice("easy-two-valve", 4), US)
    assert [d.name for d in nothing.decisions] == ["stopped, 8:00 unused"]
    assert "0 %" in nothing.verdict


def belief(**changed: object) -> Belief:
    curves = np.full(12, 3 * CFM), np.full(12, 2.5 * CFM)
    base = Belief(1, Place.BOWL, 3 * CFM, 2.5 * CFM, CFM, "right", 1.0, 1, *curves, True, 4e-3, False, False)
    return replace(base, **changed)  # type: ignore[arg-type]


@pytest.mark.parametrize(
    ("changed", "known", "was", "would"),
    [
        ({}, "yes, and you did", "+2.5 CFM.", "one test each was enough"),
        ({"verdict": "in vain", "true": 0.0}, "yes: one more mount", "was the bolting-down", "it would have gone in"),
        ({"verdict": "lost", "true": -0.8 * CFM, "seen": 0.2 * CFM}, "one more mount", "It cost flow", "mounts before"),
        (
            {"verdict": "missed", "true": 0.9 * CFM, "seen": 0.1 * CFM},
            "smaller than the bench",
            "It was there",
            "mounts",
        ),
        ({"verdict": "unseen", "seen": None}, "a test of it alone", "+2.5 CFM", "A test before and after, 30 min"),
        ({"left": 1e-3}, "(too thin)", "under the usual 0.100 in", "The gauge, before the burr"),
        ({"wall_known": False}, "that the wall held was luck", "+2.5 CFM.", "one test each"),
        ({"nicked": True}, "yes", "nicked the seat", "one test each"),
    ],
)
def test_every_belief_says_what_was_known_true_and_what_would_have_shown_it(
    changed: dict[str, object], known: str, was: str, would: str
) -> None:
    found = played("easy-two-valve", 4, [FLOW, BOWL, FLOW])
    r = replace(reckon(found), beliefs=(belief(**changed),))
    d = decisions_of(found, r, US)[0]
    assert known in d.known
    assert was in d.what_was_true
    assert would in d.what_would_show
    assert d.what_you_knew


def test_what_was_said_first_stands_with_what_was_known() -> None:
    said = replace(BOWL, said=4 * CFM)
    shown = reckoning_shown(played("easy-two-valve", 4, [FLOW, said, FLOW]), US)
    assert shown.decisions[0].what_you_knew.startswith("You said +4.0 first.")


def test_plan_says_what_it_would_have_done_from_what_was_known_then() -> None:
    found = played("easy-two-valve", 4, [FLOW, BOWL, FLOW])
    first, later = plan_would(found, 1), plan_would(found, 3)
    assert first and later
    assert first.endswith(".")
    assert plan_would(found, 0), "before any test it goes by the book"


def test_plans_own_way_stands_beside_when_it_is_reckoned() -> None:
    found = played("cast-bump", 4, [FLOW])
    alone = reckoning_shown(found, US)
    assert [name for name, _ in alone.stairs] == ["to be had", "believed", "yours, true"]
    assert "the plan" not in alone.reason
    plan = plans_own_way(found)
    both = reckoning_shown(found, US, plan)
    assert [name for name, _ in both.stairs] == ["to be had", "as Plan", "believed", "yours, true"]
    assert f"the plan +{from_si(plan.gain, 'cfm'):.1f}" in both.reason


def test_what_his_engine_gets_of_it_has_the_sign_of_the_gain() -> None:
    acts = [FLOW, BOWL, Act("cut", Place.THROAT, 0.5e-3), Act("cut", Place.SHORT_SIDE, 0.5e-3)]
    figures = reckoning_shown(played("shifted-core", 3, acts), US).figures
    filling = next(f for f, caption in figures if caption.startswith("VE at 6,500"))
    assert filling.startswith("+")
    assert all("VE" not in caption for _, caption in reckoning_shown(played("cast-bump", 3, acts), US).figures)


def test_no_wall_under_the_limit_is_called_right() -> None:
    found = played("thin-short-side", 6, [FLOW, Act("cut", Place.SHORT_SIDE, 0.3e-3), FLOW])
    (b,) = beliefs_of(found)
    assert 0 < b.left < DEFAULT_LIMIT
    assert "too thin" in decisions_of(found, reckon(found), US)[0].known


def test_nothing_said_first_is_told_how() -> None:
    (line,) = call_lines(Findings(Job(id="j", title="j")))
    assert "F4 predicts" in line

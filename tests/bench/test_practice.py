"""Practice heads: the same seed is the same truth, every act costs and may go wrong, and what learners come to."""

from __future__ import annotations

import json
from pathlib import Path

import numpy as np
import pytest
from benchmarks.plan_ports import chain_of, state_of

from tests.cli.test_plan_command import ask, refused
from ventrix.bench.simulator.heads.virtual import WORKED
from ventrix.bench.simulator.practice.catalogue import HEADS, head_named
from ventrix.bench.simulator.practice.head import PracticeHead
from ventrix.bench.simulator.practice.replay import DEPTH, LIFT, Act, minutes_of, oracle_gain, replay
from ventrix.core.model.kinds import Place
from ventrix.core.planning.chain import ChainWork
from ventrix.core.planning.loss_chain import fit_chain

USUAL = (Place.BOWL, Place.SHORT_SIDE, Place.GUIDE, Place.PINCH, Place.THROAT, Place.OPENING)


def test_there_are_six_and_each_teaches_something() -> None:
    assert len(HEADS) >= 6
    assert len({h.id for h in HEADS}) == len(HEADS)
    assert all(h.teaches and h.owner and h.title for h in HEADS)
    structures = {h.make(1).structure for h in HEADS}
    assert len(structures) >= 3
    with pytest.raises(ValueError, match="'none' is not one of easy-two-valve"):
        head_named("none")


@pytest.mark.parametrize("head", HEADS, ids=lambda h: h.id)
def test_the_same_seed_is_the_same_truth(head: PracticeHead) -> None:
    acts = [Act("flow"), Act("wall", Place.BOWL), Act("cut", Place.BOWL, 0.3e-3), Act("flow")]
    first, again, other = (replay(head.id, seed, acts) for seed in (5, 5, 6))
    assert first.gain == again.gain
    assert first.readings == again.readings
    assert all(np.array_equal(a, b) for (_, a), (_, b) in zip(first.flows, again.flows, strict=True))
    assert first.gain != other.gain
    assert np.all(np.diff(head.make(5).flow(LIFT)[:6]) > 0), "flow grows with lift while the valve is what limits"


def test_the_owners_clock_ends_it() -> None:
    """Half an hour a flow test: in two hours four of them."""
    found = replay("easy-two-valve", 1, [Act("flow")] * 9, hours=2.0)
    assert len(found.flows) == 4
    assert found.hours == pytest.approx(2.0)
    with pytest.raises(ValueError, match="act 1 wants a place of"):
        replay("easy-two-valve", 1, [Act("cut")])


def test_a_reading_costs_minutes_and_a_broken_wall_is_counted_once() -> None:
    assert minutes_of(Act("wall", Place.BOWL)) == 5
    deep = [Act("cut", Place.SHORT_SIDE, 1.0e-3)] * 4
    found = replay("thin-short-side", 2, deep)
    assert found.walls_broken == 1


def by_plan(head: PracticeHead, seed: int) -> list[Act]:
    """A learner that flows, reads walls and follows the planner, and knows nothing of the truth."""
    acts = [Act("flow"), *(Act("wall", p) for p in WORKED)]
    seen = replay(head.id, seed, acts)
    walls = {p: w for p, (_, w) in zip(WORKED, seen.readings, strict=True)}
    done = dict.fromkeys(WORKED, 0.0)
    works: list[tuple[Place, float, bool]] = []
    until = head.hours - 1e-9
    port = head.make(seed)  # its metal can be measured: no more is looked at
    states = [state_of(port, seen.flows[-1][1])]
    while True:
        flow = states[-1].flow
        fit = fit_chain(chain_of(port, states))
        free = [p for p in WORKED if walls[p] - 1.3 * (done[p] + DEPTH) > 1.2e-3]
        if not free:
            return acts

        def rate(place: Place) -> float:
            gains = fit.gain([ChainWork(place.value, DEPTH, done[place] > 0)], LIFT)  # noqa: B023
            return float(np.mean(gains * flow)) / (minutes_of(Act("cut", place, DEPTH)) + 30)  # noqa: B023

        place = max(free, key=rate)
        more = [Act("cut", place, DEPTH), Act("flow")]
        found = replay(head.id, seed, [*acts, *more])
        if found.hours > until or len(found.flows) == len(seen.flows):
            return acts
        acts, seen = [*acts, *more], found
        works.append((place, DEPTH, done[place] > 0))
        done[place] += DEPTH
        port = port.work(place, DEPTH)
        states.append(state_of(port, seen.flows[-1][1], [works[-1]]))


def by_habit(head: PracticeHead, seed: int) -> list[Act]:
    """The usual order, round and round, walls read first."""
    acts = [Act("flow"), *(Act("wall", p) for p in WORKED)]
    walls = {p: w for p, (_, w) in zip(WORKED, replay(head.id, seed, acts).readings, strict=True)}
    for turn in range(1, 5):
        for place in USUAL:
            if walls[place] - 1.3 * turn * DEPTH > 1.2e-3:
                acts += [Act("cut", place, DEPTH), Act("flow")]
    return acts


def where_it_looks_worst(head: PracticeHead, seed: int) -> list[Act]:
    """The short side is what looks worst: a millimetre there, no wall read, then bowl and pinch."""
    return [Act("cut", p, 1.0e-3) for p in (Place.SHORT_SIDE, Place.BOWL, Place.PINCH, Place.SHORT_SIDE)]


def test_who_follows_the_plan_finds_most_of_it_and_breaks_no_wall() -> None:
    """Over the six heads, three seeds each, in shares of what was to be had in the same hours: the aim is 0.85. The
    usual order, walls read first, is printed beside it: with hours for a pass everywhere it finds as much or more."""
    shares: dict[str, list[float]] = {"plan": [], "habit": []}
    broken = 0
    for head in HEADS:
        for seed in (1, 2, 3):
            best = oracle_gain(head, seed, head.hours)
            for name, learner in (("plan", by_plan), ("habit", by_habit)):
                found = replay(head.id, seed, learner(head, seed))
                shares[name].append(found.gain / best)
                broken += found.walls_broken if name == "plan" else 0
    plan, habit = (float(np.mean(v)) for v in shares.values())
    print(f"plan {plan:.2f}, usual order {habit:.2f} of what was to be had (aim 0.85)")
    assert broken == 0
    assert plan >= 0.85


def test_cutting_where_it_looks_worst_breaks_through_somewhere() -> None:
    broken = [replay(h.id, 1, where_it_looks_worst(h, 1)).walls_broken for h in HEADS]
    assert max(broken) >= 1


def test_what_was_believed_is_held_against_the_truth() -> None:
    """On the home-built bench a pass that does nothing is seen as whatever the bolting-down says."""
    acts = [Act("flow"), Act("cut", Place.OPENING, 1e-6), Act("flow"), Act("cut", Place.BOWL, DEPTH)]
    found = replay("home-built", 4, acts)
    first, second = found.beliefs
    assert abs(first.true) < 1e-6
    assert first.verdict in ("right", "in vain")
    assert first.seen is not None
    assert second.seen is None
    assert second.verdict == "unseen"
    vain = 0
    for seed in range(200):
        (belief,) = replay("home-built", seed, acts[:3]).beliefs
        vain += belief.verdict == "in vain"
    assert 0 < vain < 16, "one in forty lies beyond 95 % by chance on that side, and some seeds show it"


# -- the command


def practice(tmp_path: Path, **changed: object) -> Path:
    acts = [{"act": "flow"}, {"act": "wall", "place": "bowl"}, {"act": "cut", "place": "bowl", "depth_mm": 0.5,
            "said_cfm": 4}, {"act": "flow"}]  # fmt: skip
    document = {"ventrix_practice": 1, "head": "easy-two-valve", "seed": 7, "acts": acts} | changed
    path = tmp_path / "practice.json"
    path.write_text(json.dumps(document), encoding="utf-8")
    return path


def test_list_and_replay(capsys: pytest.CaptureFixture[str], tmp_path: Path) -> None:
    code, out, _ = ask(capsys, "practice", "--list", "--json")
    rows = json.loads(out)
    assert code == 0
    assert all(set(r) == {"id", "title", "teaches"} for r in rows)
    assert len(rows) == len(HEADS)
    path = practice(tmp_path)
    _, out, _ = ask(capsys, "practice", "--replay", path, "--json")
    found = json.loads(out)
    assert set(found) >= {"gain_cfm", "oracle_cfm", "walls_broken", "beliefs"}
    assert found["gain_cfm"] < found["oracle_cfm"]
    assert found["beliefs"][0]["place"] == "bowl"
    _, again, _ = ask(capsys, "practice", "--replay", path, "--json")
    assert again == out
    _, text, _ = ask(capsys, "practice", "--replay", path)
    assert text.startswith("You found ")


@pytest.mark.parametrize(
    ("changed", "words"),
    [
        ({"head": "none"}, "'none' is not one of"),
        ({"acts": [{"act": "cut", "place": "roof", "depth_mm": 1}]}, "'roof' is not one of"),
        ({"acts": [{"act": "dance"}]}, "acts.0.act"),
        ({"acts": [{"act": "cut", "place": "bowl", "depth_mm": 99}]}, "acts.0.depth_mm"),
        ({"ventrix_practice": 2}, "ventrix_practice"),
        ({"seed": -1}, "seed"),
    ],
)
def test_what_it_refuses(
    capsys: pytest.CaptureFixture[str], tmp_path: Path, changed: dict[str, object], words: str
) -> None:
    assert words in refused(capsys, "practice", "--replay", practice(tmp_path, **changed))


def test_one_of_both_is_asked(capsys: pytest.CaptureFixture[str]) -> None:
    assert "either --list or --replay" in refused(capsys, "practice")

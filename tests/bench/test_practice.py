"""Practice heads: the same seed is the same truth, every act costs and may go wrong, and what learners come to."""

from __future__ import annotations

import json
from pathlib import Path

import numpy as np
import pytest

from tests.cli.test_plan_command import ask, refused
from ventrix.bench.simulator.heads.virtual import WORKED
from ventrix.bench.simulator.practice.by_plan import by_plan
from ventrix.bench.simulator.practice.catalogue import HEADS, head_named
from ventrix.bench.simulator.practice.head import PracticeHead
from ventrix.bench.simulator.practice.play import LIFT, Act, minutes_of, played
from ventrix.bench.simulator.practice.reckoning import beliefs_of, oracle_gain, reckon, replay
from ventrix.bench.simulator.practice.virtual_job import job_of, true_job
from ventrix.core.model.kinds import Place

DEPTH = 0.5e-3
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
    assert first.gain != other.gain
    one, two = (played(head.id, 5, acts).done for _ in range(2))
    for a, b in zip(one, two, strict=True):
        assert a.reading == b.reading
        assert (a.flow is None and b.flow is None) or np.array_equal(a.flow, b.flow)
    assert np.all(np.diff(head.make(5).flow(LIFT)[:6]) > 0), "flow grows with lift while the valve is what limits"


def test_the_owners_clock_ends_it() -> None:
    """Half an hour a flow test, twelve minutes to bolt the same metal down again: in two hours eight of them."""
    found = played("easy-two-valve", 1, [Act("flow")] * 12, hours=2.0)
    assert len(found.done) == 8
    assert found.minutes == pytest.approx(30 + 7 * 12)
    assert not found.fits(Act("flow"))
    assert found.fits(Act("wall", Place.BOWL))
    with pytest.raises(ValueError, match="act 1 needs a place of"):
        replay("easy-two-valve", 1, [Act("cut")])


def test_a_reading_costs_minutes_and_a_broken_wall_is_counted_once() -> None:
    assert minutes_of(Act("wall", Place.BOWL)) == 5
    deep = [Act("cut", Place.SHORT_SIDE, 1.0e-3)] * 4
    found = replay("thin-short-side", 2, deep)
    assert found.walls_broken == 1


def by_habit(head: PracticeHead, seed: int, read: bool) -> list[Act]:
    """The usual order, round and round; with walls read first, a tenth of an inch is left."""
    acts = [Act("flow"), *((Act("wall", p) for p in WORKED) if read else ())]
    walls = {d.act.place: d.reading for d in played(head.id, seed, acts).done if d.reading is not None}
    for turn in range(1, 5):
        for place in USUAL:
            if walls.get(place, 1.0) - 1.15 * turn * DEPTH > 2.54e-3:
                acts += [Act("cut", place, DEPTH), Act("flow")]
    return acts


def where_it_looks_worst(head: PracticeHead, seed: int) -> list[Act]:
    """The short side is what looks worst: a millimetre there, no wall read, then bowl and pinch."""
    return [Act("cut", p, 1.0e-3) for p in (Place.SHORT_SIDE, Place.BOWL, Place.PINCH, Place.SHORT_SIDE)]


def test_who_follows_the_plan_finds_most_of_it_and_who_cuts_in_the_usual_order_less(long: bool) -> None:
    """Over the six heads (two seeds each under --long), in shares of what was to be had in the same hours by who knows
    the truth: the plan 0.85 or more and through no wall; the usual order less, whether walls are read first or not."""
    shares: dict[str, list[float]] = {"plan": [], "usual order, walls read": [], "usual order": []}
    broken = 0
    for head in (h for h in HEADS if h.count == 1):
        for seed in (1, 2) if long else (1,):
            best = oracle_gain(head, seed, head.hours)
            plan = by_plan(head.id, seed)
            broken += plan.walls_broken
            shares["plan"].append(reckon(plan).gain / best)
            for name, read in (("usual order, walls read", True), ("usual order", False)):
                found = replay(head.id, seed, by_habit(head, seed, read))
                shares[name].append(found.gain / best)
    plan_share, read_first, usual = (float(np.mean(v)) for v in shares.values())
    print(f"plan {plan_share:.2f} (aim 0.85), usual order {usual:.2f}, with walls read first {read_first:.2f}")
    assert broken == 0
    assert plan_share >= (0.85 if long else 0.78)  # one seed a head strays further
    assert max(read_first, usual) < plan_share - (0.03 if long else 0.0)


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
        (belief,) = beliefs_of(played("home-built", seed, acts[:3]))
        vain += belief.verdict == "in vain"
    assert 0 < vain < 16, "one in forty lies beyond 95 % by chance on that side, and some seeds show it"


def test_two_mounts_each_tell_more_and_two_cuts_at_once_tell_nothing_of_either() -> None:
    cut, flow = Act("cut", Place.BOWL, DEPTH), Act("flow")
    (once,) = beliefs_of(played("home-built", 4, [flow, cut, flow]))
    (twice,) = beliefs_of(played("home-built", 4, [flow, flow, cut, flow, flow]))
    assert twice.doubt / once.doubt == pytest.approx(2**-0.5, rel=0.02)
    first, second = beliefs_of(played("home-built", 4, [flow, cut, Act("cut", Place.GUIDE, DEPTH), flow]))
    assert (first.verdict, second.verdict) == ("unseen", "unseen")


def test_clay_takes_nothing_off_and_is_no_test_of_the_metal() -> None:
    clay = Act("clay", Place.BOWL, area=1e-4)
    found = played("easy-two-valve", 3, [Act("flow"), clay, Act("cut", Place.BOWL, DEPTH), Act("flow")])
    bare, with_clay = found.done[0].flow, found.done[1].flow
    assert bare is not None and with_clay is not None
    assert np.all(with_clay[4:] < bare[4:])
    assert found.done[1].before == found.done[1].after
    (belief,) = beliefs_of(found)
    after = found.done[3].flow
    assert after is not None
    assert belief.seen == pytest.approx(float(np.mean(after - bare)))


def test_a_cold_bench_that_drifts_reads_high_at_first() -> None:
    """0.8 % at the start, nothing after two hours: seen over many seeds' bolting-down."""
    acts = [Act("flow")] * 12
    runs = [[d.flow for d in played("home-built", s, acts, hours=12).done] for s in range(40)]
    level = [float(np.mean([np.mean(r[i]) for r in runs])) for i in (0, -1)]  # type: ignore[arg-type]
    assert level[0] / level[1] - 1 == pytest.approx(0.008 * 0.75, abs=0.004)


def test_a_nicked_seat_is_felt_at_low_lift_alone() -> None:
    """Somewhere among many seeds the burr slips in the throat."""
    for seed in range(200):
        found = played("easy-two-valve", seed, [Act("cut", Place.THROAT, 1e-9)])
        if found.nicks:
            change = found.true_flow() / found.began[0].flow(LIFT)
            assert np.all(change[:3] < 0.99)
            assert change[3:] == pytest.approx(1.0, abs=1e-3)
            return
    raise AssertionError("a slip in fifty, and none in two hundred")


def test_what_the_owner_pays_for_is_told_by_what_the_engine_gets() -> None:
    """The job that is reckoned on his engine holds the truth before and after, on his sizes."""
    found = played("easy-two-valve", 2, [Act("cut", Place.BOWL, DEPTH)])
    job = true_job(found)
    assert job is not None
    before, after = (np.array([r.flow for r in c.runs[0].readings]) for c in job.ports[0].cuts)
    assert before == pytest.approx(found.began[0].flow(LIFT))
    assert after == pytest.approx(found.true_flow())
    assert job.bore == pytest.approx(0.095)
    assert true_job(played("cast-bump", 2, [])) is None, "an exhaust alone fills nothing"


def test_a_job_of_acts_is_what_the_book_would_hold() -> None:
    acts = [Act("flow"), Act("wall", Place.BOWL), Act("cut", Place.BOWL, DEPTH), Act("flow")]
    found = played("easy-two-valve", 2, acts)
    job = job_of(found)
    assert job.practice == "easy-two-valve 2"
    first, second = job.ports[0].cuts
    assert [len(c.runs) for c in (first, second)] == [1, 1]
    assert first.walls[0].thickness == found.done[1].reading
    areas = [{s.name: s.area for s in c.stations} for c in (first, second)]
    assert areas[1]["bowl"] > areas[0]["bowl"]  # type: ignore[operator]
    assert areas[1]["short side"] == areas[0]["short side"]


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

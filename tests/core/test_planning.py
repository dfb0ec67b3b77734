"""The planner: its book against other books, its chain on ports of another structure, its moves and its stop rule."""

from __future__ import annotations

import itertools
from dataclasses import replace

import fluids
import numpy as np
import pytest
from benchmarks.plan import share_coverage
from benchmarks.plan_ports import GENERATORS, LIFT, chain_of, state_of
from scipy import stats

from ventrix.core.judging.expectation import Factor, Outcome, Scored
from ventrix.core.judging.findings import Findings
from ventrix.core.judging.wording import Wording
from ventrix.core.metal.walls import spare_at
from ventrix.core.model.job import Job
from ventrix.core.model.job_parts import Target
from ventrix.core.model.kinds import Place
from ventrix.core.planning.chain import ChainClay, ChainSurvey, ChainWork
from ventrix.core.planning.chain_layout import Layout
from ventrix.core.planning.chain_readings import ChainReadings, flow_noise
from ventrix.core.planning.loss_chain import ChainFit, fit_chain
from ventrix.core.planning.moves import WORKS, Asked, Ground, Move, MoveKind
from ventrix.core.planning.next_moves import Plan, open_places, plan_port
from ventrix.core.planning.of_job import edge_share
from ventrix.core.planning.own_record import OwnRecord, own_record
from ventrix.core.planning.priors import PLACES, SPREAD, VALVE, bend_loss, median_losses, share_taken
from ventrix.core.planning.shape_figures import shape_figures
from ventrix.core.planning.stop_rule import stop_rule
from ventrix.core.planning.value_of_looking import Look, value_of_look
from ventrix.core.quantity.units import to_si
from ventrix.demo.job import demo_benches, demo_job

# -- the book


@pytest.mark.parametrize("angle", [60, 90])
@pytest.mark.parametrize("ratio", [0.2, 0.5, 1.0, 1.5, 2.5])
def test_bends_lie_within_the_spread_of_another_book(ratio: float, angle: float) -> None:
    """`fluids.bend_rounded` by Miller's diagrams: the spread of ln K that the fit begins with covers it."""
    miller = fluids.bend_rounded(Di=0.04, angle=angle, fd=0.018, rc=(ratio + 0.5) * 0.04, Re=2e5, method="Miller")
    ours = bend_loss(ratio * 0.04, 0.04, np.radians(angle))
    assert abs(np.log(ours / miller)) < SPREAD


def test_entries_lie_within_the_spread_of_another_book() -> None:
    """`fluids`: a sharp entrance (Rennels), one with a radius of a fifth (Idelchik)."""
    bare = median_losses("bare", None, None, 1.0)["entry"]
    radius = median_losses("radius", None, None, 1.0)["entry"]
    assert abs(np.log(bare / fluids.entrance_sharp())) < SPREAD
    assert abs(np.log(radius / fluids.entrance_rounded(Di=0.04, rc=0.008, method="Idelchik"))) < SPREAD


@pytest.mark.parametrize("place", [p for p in PLACES if p != "entry"])
def test_passes_take_what_is_left_and_less_the_second_time(place: str) -> None:
    """0.7 mm twice leaves (1 - f)^2 of it; a place worked before yields less (common practice, no source)."""
    once, twice = share_taken(place, 0.7e-3, False), share_taken(place, 1.4e-3, False)
    assert twice == pytest.approx(1 - (1 - once) ** 2)
    assert 0 < share_taken(place, 0.7e-3, True) < once


# -- the chain, on ports whose truth has another structure

PLACES_CUT = (Place.BOWL, Place.SHORT_SIDE, Place.GUIDE, Place.PINCH, Place.THROAT, Place.OPENING)


def covered(name: str, ports: int) -> float:
    """Share of true first gains inside their 80 % intervals."""
    hits = []
    for seed in range(1000, 1000 + ports):
        random = np.random.default_rng(seed)
        port = GENERATORS[name](seed)
        fit = fit_chain(chain_of(port, [state_of(port, port.measured(LIFT, random))]))
        flow = port.flow(LIFT)
        for place in PLACES_CUT:
            low, high = np.quantile((fit.gain([ChainWork(place.value, 0.5e-3)], LIFT) * flow).mean(axis=1), [0.1, 0.9])
            hits.append(low <= float((port.work(place, 0.5e-3, random).flow(LIFT) - flow).mean()) <= high)
    return float(np.mean(hits))


def test_gains_come_as_often_as_they_are_said_to(long: bool) -> None:
    """80 % intervals of a first cut's gain hold the truth 70 to 90 % of the time over ports of all three structures
    (few ports: 5 % more either way). One structure alone misses that (the benchmark prints it, and its figure is
    about 60 %): none may fall under a half."""
    found = {name: covered(name, 40 if long else 12) for name in GENERATORS}
    slack = 0.0 if long else 0.05
    assert 0.70 - slack <= float(np.mean(list(found.values()))) <= 0.90 + slack, found
    assert min(found.values()) > 0.5, found


def one_port(seed: int = 3):  # type: ignore[no-untyped-def]
    port = GENERATORS["two streams"](seed)
    return port, state_of(port, port.measured(LIFT, np.random.default_rng(seed)))


def test_shares_sum_to_one_and_lie_in_their_intervals() -> None:
    port, state = one_port()
    for at in fit_chain(chain_of(port, [state])).limits(LIFT):
        assert sum(v.share for v in at.values()) == pytest.approx(1.0)
        assert set(at) == {*PLACES, VALVE}
        assert all(0 <= v.low <= v.share <= v.high <= 1 for v in at.values())


def test_the_valve_limits_at_low_lift_and_the_port_at_high() -> None:
    """Below a quarter of the head's diameter the curtain is the smaller area (common practice, no source)."""
    port, state = one_port()
    shares = [at[VALVE].share for at in fit_chain(chain_of(port, [state])).limits(LIFT)]
    assert shares[0] > 0.8
    assert shares[-1] < shares[0] - 0.2
    assert all(a >= b for a, b in itertools.pairwise(shares))


def test_a_port_that_does_something_else_is_said_to() -> None:
    """A drop of 15 % from 0.45 in on, as air that lets go: no chain of losses does that."""
    port, state = one_port()
    assert fit_chain(chain_of(port, [state])).worst_lift is None
    fallen = np.where(to_si(0.449, "in") < LIFT, 0.85, 1.0) * state.flow
    fit = fit_chain(chain_of(port, [replace(state, flow=fallen)]))
    assert fit.worst_lift == pytest.approx(to_si(0.45, "in"), abs=to_si(0.051, "in"))
    assert fit.chi_squared > 2 * fit.count


def test_data_make_the_doubt_smaller_and_the_book_alone_says_so() -> None:
    port, state = one_port()
    flowed = fit_chain(chain_of(port, [state]))
    unflowed = fit_chain(chain_of(port, [replace(state, lift=np.zeros(0), flow=np.zeros(0))]))
    assert unflowed.count == 0
    assert not any(v.from_data for v in unflowed.limits(LIFT)[5].values())
    assert flowed.limits(LIFT)[0][VALVE].from_data, "where the valve is all there is, a flow test knows it"
    narrow, wide = (f.limits(LIFT)[-1][VALVE] for f in (flowed, unflowed))
    assert narrow.high - narrow.low < wide.high - wide.low


def test_what_unit_an_uncalibrated_bench_reads_in_does_not_matter() -> None:
    """Its scale is a free parameter of the fit: percent gains are the same whatever a division is, and doubt is no
    smaller than with a known one."""
    port, state = one_port()
    chain = chain_of(port, [state])

    def gains(divisions: float) -> np.ndarray:
        index = replace(chain, states=(replace(state, flow=state.flow * divisions),), is_index=True)
        return fit_chain(index).gain([ChainWork("guide", 0.5e-3)], LIFT).mean(axis=1)

    assert np.mean(gains(200.0)) == pytest.approx(np.mean(gains(4711.0)), rel=0.02)


@pytest.mark.parametrize("is_index", [False, True])
def test_slopes_are_what_small_steps_give(is_index: bool) -> None:
    """Central differences (Abramowitz and Stegun, 25.3.21) of what the chain says, far from where it was fitted: of
    flows in three states, of clay, also where it fills a section, and of surveyed shares."""
    port, state = one_port()
    short_side, guide = (ChainWork(place, depth) for place, depth in (("short side", 6e-4), ("guide", 4e-4)))
    states = (state, replace(state, works=(short_side, guide)), replace(state, works=(replace(short_side, edge=0.5),)))
    shut = ChainClay(2, "bowl", 0.95, 0.1, LIFT[-3:], np.zeros(3), 0.003, 0.003)
    chain = replace(
        chain_of(port, states),
        is_index=is_index,
        clays=(replace(shut, state=1, place="guide", taken=0.3), shut),
        surveys=(ChainSurvey(1, "bowl", LIFT[7], 0.3, 0.1), ChainSurvey(2, "short side", LIFT[9], 0.5, 0.1)),
    )
    layout = Layout(chain)
    readings, random = ChainReadings(layout), np.random.default_rng(11)
    theta = layout.mean + 0.3 * random.standard_normal(layout.size)
    theta[layout.clays.start + 1] = 0.2  # past the most that clay may take
    step = 1e-6 * np.eye(layout.size)
    rises = [(readings.off(theta - d) - readings.off(theta + d)) / 2e-6 for d in step]
    assert np.min(np.max(np.abs(rises), axis=1)[:-1]) > 0, "every parameter is asked, but clay that fills a section"
    np.testing.assert_allclose(readings.slopes(theta).T, rises, rtol=1e-5, atol=1e-8)


def test_laplace_says_what_importance_sampling_says() -> None:
    """Gelman et al., *Bayesian Data Analysis*, section 10.4: 20,000 draws of a wide t about the best point, weighed by
    the densities of data and book. Mean gains over six ports and two places agree within a sixth."""
    said, weighed = [], []
    for seed in range(6):
        port, state = one_port(seed)
        chain = chain_of(port, [state])
        fit = fit_chain(chain)
        sampled = replace(fit)
        sampled.__dict__["draws"] = by_importance(fit)
        for place in ("guide", "short side"):
            said.append(np.mean(fit.gain([ChainWork(place, 0.5e-3)], LIFT)))
            weighed.append(np.mean(sampled.gain([ChainWork(place, 0.5e-3)], LIFT)))
    assert np.mean(said) == pytest.approx(np.mean(weighed), rel=1 / 6)


def by_importance(fit: ChainFit, freedom: float = 6.0) -> np.ndarray:
    random = np.random.default_rng(7)
    layout, state = fit.layout, fit.chain.states[0]
    bench, wrong = flow_noise(fit.chain)
    z = random.standard_normal((20000, layout.size)) / np.sqrt(random.chisquare(freedom, 20000) / freedom)[:, None]
    theta = fit.best + z @ np.linalg.cholesky(fit.covariance).T
    off = np.log(state.flow) - layout.log_flow(theta, layout.at(state.lift, 0))
    about = theta - layout.mean
    density = -0.5 * np.sum(off @ np.linalg.inv(bench + wrong) * off, axis=1)
    density -= 0.5 * np.sum(about @ np.linalg.inv(layout.prior) * about, axis=1)
    density += 0.5 * (freedom + layout.size) * np.log1p(np.sum(z**2, axis=1) / freedom)
    weights = np.exp(density - density.max())
    return theta[random.choice(len(theta), 400, p=weights / weights.sum())]


# -- what a look is worth


def test_a_perfect_look_is_worth_the_unit_normal_loss() -> None:
    """Raiffa & Schlaifer, *Applied Statistical Decision Theory* (1961), unit normal loss at 0: phi(0) = 0.3989. The
    quadratic fit cannot follow the corner exactly, and 4,000 draws scatter by 0.01."""
    rates = np.random.default_rng(2).standard_normal((4000, 1))
    both = np.hstack([rates - rates.mean(), np.zeros_like(rates)])
    assert value_of_look(both, Look(both[:, 0], 1e-9)) == pytest.approx(stats.norm.pdf(0), abs=0.02)


def test_a_look_that_tells_nothing_is_worth_nothing() -> None:
    random = np.random.default_rng(5)
    rates = random.standard_normal((2000, 3)) + np.array([2.0, 0.0, 0.0])
    assert value_of_look(rates, Look(np.zeros(2000), 0.0)) == 0.0
    assert value_of_look(rates, Look(random.standard_normal(2000), 1.0)) < 0.02


# -- moves of the demo head


def planned(job: Job | None = None, name: str = "Intake 1", **more: object) -> tuple[Plan, Findings]:
    job = job or demo_job()
    findings = Findings(job, benches=demo_benches())
    port = next(p for p in job.ports if p.name == name)
    return plan_port(findings, port, **more), findings  # type: ignore[arg-type]


def test_best_hour_comes_first_and_the_blocked_last() -> None:
    plan, _ = planned(name="Intake 3")
    free = [m for m in plan.moves if not m.blocked_by]
    assert plan.moves[: len(free)] == tuple(free)
    assert all(a.rate >= b.rate for a, b in itertools.pairwise(free))
    assert all(m.low <= m.gain <= m.high for m in free)
    assert {m.kind for m in plan.moves} >= {MoveKind.CUT, MoveKind.SEAT, MoveKind.VALVE, MoveKind.WALL, MoveKind.MOUNT}


@pytest.mark.parametrize("name", ["Intake 1", "Exhaust 1", "Intake 3", "Intake 4"])
def test_no_pass_goes_where_the_wall_was_not_read_or_past_its_limit(name: str) -> None:
    plan, findings = planned(name=name)
    port = next(p for p in findings.job.ports if p.name == name)
    cut = plan.planned.cuts[-1]
    for place, move in open_places(plan).items():
        if place in (Place.GUIDE, Place.OPENING):
            continue
        spare = spare_at(findings.job, port, cut, place)
        if spare is None:
            assert move.blocked_by
        elif not move.blocked_by:
            assert move.depth is not None
            assert move.depth <= spare + 1e-9
    assert not any(m.place == "floor" for m in plan.moves)


def test_a_port_never_flowed_is_planned_by_the_book() -> None:
    plan, _ = planned(name="Intake 4")
    assert plan.planned.run is None
    assert "flow" in plan.planned.guessed
    assert not any(v.from_data for at in plan.fit.limits(LIFT) for v in at.values())
    assert not any(m.kind in (MoveKind.MOUNT, MoveKind.CLAY) for m in plan.moves), "nothing is mounted yet"


def test_asked_about_moves_gives_those_alone_and_deeper_brings_more() -> None:
    works = [Asked("bowl", 0.25e-3), Asked("bowl", 1e-3)]
    plan, _ = planned(what=works)
    assert [m.depth for m in plan.moves] == [0.25e-3, 1e-3]
    assert plan.moves[1].gain > plan.moves[0].gain
    assert plan.moves[1].volume == pytest.approx(4 * plan.moves[0].volume)


def test_a_porters_own_factors_count_from_three_cuts_on() -> None:
    """Half the gain and twice the minutes, said by three cuts of his; by two they do not count yet."""

    def bowl(cuts: int) -> Move:
        factor = Factor("bowl", gain=0.5, time=2.0, cuts=cuts)
        return planned(factors=(factor,), what=[Asked("bowl", 0.5e-3)])[0].moves[0]

    few, his = bowl(2), bowl(3)
    reflow = 30 * 60
    assert his.gain == pytest.approx(few.gain / 2)
    assert his.seconds - reflow == pytest.approx(2 * (few.seconds - reflow))


# -- the stop rule


def test_a_target_proven_met_ends_it() -> None:
    job = demo_job()
    target = Target(id="t", kind="intake", lift=to_si(0.5, "in"), flow=to_si(40, "cfm"), test_pressure=None)
    stop = planned(replace(job, targets=(target,)))[0].stop
    assert stop.now
    assert "is met, and proven" in stop.reason
    missed = replace(target, flow=to_si(900, "cfm"))
    assert "met" not in planned(replace(job, targets=(missed,)))[0].stop.reason


def test_a_target_meant_at_another_pressure_is_held_at_the_runs() -> None:
    """Flow goes with the root of the pressure (common practice): 40 CFM wanted at 10 is 67 at 28, and met; 160 wanted
    at 10 is 268, and is not."""
    job = demo_job()

    def stops(flow: float) -> bool:
        target = Target(id="t", kind="intake", lift=to_si(0.5, "in"), flow=to_si(flow, "cfm"),
                        test_pressure=to_si(10, "inH2O"))  # fmt: skip
        return planned(replace(job, targets=(target,)))[0].stop.now

    assert stops(40)
    assert not stops(160)


def test_sentences_are_in_the_units_they_are_asked_in() -> None:
    metric = Wording("mm", "L/s")
    plan, _ = planned(replace(demo_job(), targets=()), words=metric)
    assert "L/s or more" in plan.stop.reason
    assert "CFM" not in plan.stop.reason
    spoken = " ".join(b for m in plan.moves for b in m.blocked_by)
    assert " in to your limit" not in spoken


def test_a_side_is_a_share_of_the_edge_and_brings_less() -> None:
    """A quarter of the bowl's edge takes a quarter of the metal; gains fall, and not below nothing."""
    whole, side = planned(what=[Asked("bowl", 0.5e-3), Asked("bowl", 0.5e-3, "left", 0.25)])[0].moves
    assert side.side == "left"
    assert side.volume == pytest.approx(whole.volume / 4)
    assert 0 < side.gain < 0.5 * whole.gain
    assert side.seconds < whole.seconds
    assert edge_share("bowl", None, 10.0, 2.0) == pytest.approx(4 / 12)
    assert edge_share("pinch", "left", None, None) == 0.5
    assert edge_share("bowl", None, None, None) == 1.0


def test_volume_spent_ends_it() -> None:
    stop = planned(replace(demo_job(), volume_ceiling=to_si(100, "cc")))[0].stop
    assert stop.now
    assert "the volume is spent" in stop.reason


def test_it_stops_when_the_greatest_of_all_is_small_and_not_when_the_best_by_mean_is() -> None:
    """By joint draws: the greatest rate of several doubtful moves is above the best mean, so a limit at that mean
    does not stop."""
    plan, _ = planned(replace(demo_job(), targets=()))
    best = max(m.rate for m in plan.moves if not m.blocked_by and m.kind is not MoveKind.MOUNT)
    assert not planned(replace(demo_job(), targets=()), least=best)[0].stop.now
    high = planned(replace(demo_job(), targets=()), least=20 * best)[0].stop
    assert high.now
    assert "no move left is likely" in high.reason


def test_a_port_without_a_valve_says_what_is_missing() -> None:
    job = demo_job()
    job = replace(job, valves=tuple(replace(v, head_diameter=None) for v in job.valves))
    with pytest.raises(ValueError, match="valve of Intake 4 was not measured"):
        planned(job, name="Intake 4")


def test_promised_hours_end_it() -> None:
    """The demo's ports took 2 h 50 min and more: one promised hour is spent, a hundred are not."""
    stop = planned(replace(demo_job(), targets=(), quoted=to_si(1, "h")))[0].stop
    assert stop.now
    assert "the 1.0 promised hours are spent" in stop.reason
    assert "promised" not in planned(replace(demo_job(), targets=(), quoted=to_si(100, "h")))[0].stop.reason


def test_the_gain_an_hour_to_stop_at_is_the_jobs() -> None:
    plan, _ = planned(replace(demo_job(), targets=(), stop_below=to_si(40, "cfm")))
    assert plan.stop.now
    assert "no move left is likely to gain 40.0 CFM an hour" in plan.stop.reason


def test_a_bench_that_cannot_tell_is_told_to_be_mounted_again() -> None:
    """Two readings of one port differ by 1.96 root 2 times its scatter, nineteen times in twenty, with nothing done."""
    plan, findings = planned(replace(demo_job(), targets=()))
    ground = Ground(findings, findings.job.ports[0], plan.planned, plan.fit, (), Wording())
    works = [m for m in plan.moves if m.kind in WORKS]
    tiny = [replace(m, gain=1e-9, rate=1e-12, draws=m.draws * 1e-6) for m in works]
    stop = stop_rule(ground, tiny, 1e-9, None)
    assert stop.now
    assert "the bench can't tell the next gain any more" in stop.reason
    assert "can't tell" not in stop_rule(ground, tiny, 0.0, None).reason, "where a mount is worth no more"
    assert not stop_rule(ground, works, 1e-9, 1e-12).now


# -- ceilings, parts, clay, and how the plan has done


def test_ceilings_of_the_job_block_a_pass() -> None:
    full, _ = planned(replace(demo_job(), volume_ceiling=to_si(122.5, "cc")))
    bowl = open_places(full)["pinch"]
    assert "no more than 122 cc is wanted" in " ".join(bowl.blocked_by) or not bowl.volume > 0.2e-6
    fast, _ = planned(replace(demo_job(), lowest_speed=300.0))
    assert any("air speed would fall to" in b for m in fast.moves for b in m.blocked_by)
    free, _ = planned(replace(demo_job(), volume_ceiling=None))
    assert not any("wanted" in b for m in free.moves for b in m.blocked_by)


def test_the_next_valve_brings_its_curtain_at_low_lift() -> None:
    """Where the curtain is all there is, flow goes with the valve's diameter: 1 mm on a 46 mm valve is 2.2 % (common
    practice, no source)."""
    port, state = one_port()
    fit = fit_chain(chain_of(port, [state]))
    wide = state.valve.diameter * 1.02
    gain = fit.gain_of_valve(wide, np.array([0.5e-3])).mean()
    assert gain == pytest.approx(0.02, abs=0.006)


def test_parts_say_what_stands_in_their_way() -> None:
    plan, _ = planned()
    named = {m.named: m for m in plan.moves if m.named}
    assert set(named) >= {"back cut", "recipe", "larger", "shape", "manifold"}
    assert named["manifold"].blocked_by == ("flowed without its manifold: flow it with the manifold on",)
    assert named["manifold"].kind is MoveKind.ENTRY
    assert named["shape"].blocked_by == ("boss already tapered",)
    small, _ = planned(replace(demo_job(), bore=to_si(70, "mm")))
    larger = next(m for m in small.moves if m.named == "larger")
    assert "of the bore, there is no room" in larger.blocked_by[0]


def clay_at(port, place: Place, share: float = 0.12) -> ChainClay:  # type: ignore[no-untyped-def]
    """What clay over a share of a section does to a virtual port: its truth with that section narrower."""
    sizes = port.metal.sizes
    narrow = {**sizes.areas, place: sizes.areas[place] * (1 - share)}
    other = port.with_metal(replace(port.metal, sizes=replace(sizes, areas=narrow)))
    return ChainClay(0, place.value, share, 0.1, LIFT, np.log(other.flow(LIFT) / port.flow(LIFT)), 0.003, 0.003)


def test_clay_tells_what_a_flow_curve_alone_does_not() -> None:
    """Over ports of two other structures: with clay at the short side its share of the loss is nearer to the truth (how
    the flow answers to that section) than without, and its interval narrower."""
    off: dict[bool, list[float]] = {False: [], True: []}
    wide: dict[bool, list[float]] = {False: [], True: []}
    for name in ("two streams", "kinetic"):
        for seed in range(8):
            port = GENERATORS[name](seed)
            state = state_of(port, port.measured(LIFT, np.random.default_rng(seed)))
            clay = clay_at(port, Place.SHORT_SIDE)
            small = clay_at(port, Place.SHORT_SIDE, 1e-3)
            true = -small.ratio[-1] / -np.log1p(-1e-3)
            for tried in (False, True):
                chain = replace(chain_of(port, [state]), clays=(clay,) if tried else ())
                limit = fit_chain(chain).limits(LIFT)[-1]["short side"]
                off[tried].append(abs(limit.share - true))
                wide[tried].append(limit.high - limit.low)
    assert np.mean(wide[True]) < 0.8 * np.mean(wide[False])
    assert np.mean(off[True]) < 0.8 * np.mean(off[False])


def test_clay_of_a_job_is_data_of_its_chain() -> None:
    plan, findings = planned()
    clays = plan.planned.chain.clays
    cut = findings.job.ports[0].cuts[1]
    trials = [t for t in cut.trials if t.kind == "clay" and t.runs]
    assert len(clays) == len([t for t in trials if t.area_taken])


def outcome(said: float, came: float, low: float, high: float, place: str = "bowl", by_plan: bool = True) -> Outcome:
    nothing = Scored(None, None)
    return Outcome((place,), Scored(said, came, 0.0, low, high), nothing, nothing, by_plan)


def test_the_plans_record_widens_what_proved_too_narrow_and_nothing_else() -> None:
    """Gains that scatter as said keep their width; three times as wide as said, intervals grow towards that: with 200
    cuts to within a tenth (chi-squared, common statistics)."""
    random = np.random.default_rng(4)

    def record(scatter: float) -> OwnRecord:
        came = 2.0 + scatter * random.standard_normal(200)
        return own_record([outcome(2.0, float(c), 2.0 - 1.2816, 2.0 + 1.2816) for c in came])

    fair, wild = record(1.0), record(3.0)
    assert fair.widen == pytest.approx(1.0, abs=0.12)
    assert fair.inside / fair.cuts == pytest.approx(0.8, abs=0.08)
    assert wild.widen == pytest.approx(3.0, rel=0.12)
    one = own_record([outcome(2.0, 8.0, 0.7, 3.3)])
    assert 1.0 < one.widen < 2.6, "one miss does not make a rule"
    assert own_record([outcome(2.0, 9.0, 1.0, 3.0, by_plan=False)]).cuts == 0, "what the porter said is not the plan's"


def test_its_bias_stands_by_place_and_its_width_in_every_interval() -> None:
    found = own_record([outcome(2.0, 1.0, 0.5, 3.5), outcome(2.0, 1.4, 0.5, 3.5), outcome(1.0, 2.0, 0.0, 2.0, "guide")])
    assert {b.place: (round(b.ratio, 3), b.cuts) for b in found.biases} == {"bowl": (0.6, 2), "guide": (2.0, 1)}
    narrow = planned(what=[Asked("bowl", 0.5e-3)])[0].moves[0]
    wide = planned(what=[Asked("bowl", 0.5e-3)], record=replace(found, widen=2.0))[0].moves[0]
    assert wide.high - wide.low == pytest.approx(2 * (narrow.high - narrow.low), rel=1e-6)
    assert wide.gain == pytest.approx(narrow.gain)
    assert wide.low95 < wide.low < wide.high < wide.high95


def test_a_throat_takes_over_near_a_quarter_of_the_valve() -> None:
    """Heywood (1988), section 6.3.1: the curtain equals the port's area near L/D = 0.25."""
    job = demo_job()
    figures = shape_figures(job, job.ports[0], job.ports[0].cuts[0])
    valve = job.valve_of(job.ports[0])
    assert valve is not None
    assert valve.head_diameter is not None
    assert figures.throat_takes_over is not None
    assert figures.throat_takes_over / valve.head_diameter == pytest.approx(0.25, abs=0.06)
    assert shape_figures(replace(job, valves=()), job.ports[0], job.ports[0].cuts[0]).throat_takes_over is None


def test_shares_hold_what_they_say_over_ports_of_other_structures() -> None:
    """Eight in ten were to lie inside: over three generators that share nothing with the chain at least six do, and not
    so many that the intervals say nothing."""
    held = [share_coverage(make, 8) for make in GENERATORS.values()]
    assert 0.6 <= float(np.mean(held)) <= 0.92

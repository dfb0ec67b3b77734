"""The planner: its book against other books, its chain on ports of another structure, its moves and its stop rule."""

from __future__ import annotations

import itertools
from dataclasses import replace

import fluids
import numpy as np
import pytest
from benchmarks.plan_ports import GENERATORS, LIFT, chain_of, state_of
from scipy import stats

from ventrix.core.judging.expectation import Factor
from ventrix.core.judging.findings import Findings
from ventrix.core.judging.verdict import Wording
from ventrix.core.metal.walls import spare_at
from ventrix.core.model.job import Job, Target
from ventrix.core.model.kinds import Place
from ventrix.core.planning.loss_chain import ChainFit, ChainWork, fit_chain
from ventrix.core.planning.moves import Asked, Move, MoveKind
from ventrix.core.planning.next_moves import Plan, open_places, plan_port
from ventrix.core.planning.of_job import edge_share
from ventrix.core.planning.priors import PLACES, SPREAD, VALVE, bend_loss, median_losses, share_taken
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
    layout, state = fit._layout, fit.chain.states[0]
    bench, wrong = layout.noise()
    z = random.standard_normal((20000, layout.size)) / np.sqrt(random.chisquare(freedom, 20000) / freedom)[:, None]
    theta = fit.best + z @ np.linalg.cholesky(fit.covariance).T
    off = np.log(state.flow) - layout.log_flow(theta, 0)
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
    assert "L/s an hour" in plan.stop.reason
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
    assert "no hour is worth" in high.reason


def test_a_port_without_a_valve_says_what_is_missing() -> None:
    job = demo_job()
    job = replace(job, valves=tuple(replace(v, head_diameter=None) for v in job.valves))
    with pytest.raises(ValueError, match="valve of Intake 4 was not measured"):
        planned(job, name="Intake 4")

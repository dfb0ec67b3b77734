"""Filling against closed forms: the slow limit, a vessel blown down, halved steps; and a port on the demo's engine."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from ventrix.core.engine.breathing import behind_throttle
from ventrix.core.engine.cylinder import Cylinder, Gas, R, nozzle
from ventrix.core.engine.filling import Around, Contents, Filled, Valves, fill
from ventrix.core.engine.of_job import OnTheEngine, on_the_engine
from ventrix.core.engine.other_cam import other_cam, rocker_cam
from ventrix.core.engine.words import lift_sentences
from ventrix.core.formulas.cam import Cam
from ventrix.core.judging.findings import Findings
from ventrix.core.model.job import Job
from ventrix.core.quantity.units import to_si
from ventrix.demo.job import demo_benches, demo_job

RPM = 2 * np.pi / 60
DIATOMIC = Gas(R / 0.4, 0.0)

# -- against closed forms


@pytest.mark.parametrize("back_pressure", [0.9, 1.0, 1.1])
@pytest.mark.parametrize("compression", [8.0, 12.0])
def test_slow_limit(back_pressure: float, compression: float) -> None:
    """Valves as large as doors, at dead centres, adiabatic, 100 rpm: Heywood (1988), eq. 6.2 and the ideal cycle of
    section 5.4, rc/(rc - 1) - (pe/pi + g - 1)/(g (rc - 1)), g = 1.4."""
    angle = np.radians(np.arange(180.0, 540.5, 1.0))
    late = ((angle[1:] + angle[:-1]) / 2 >= 2 * np.pi)[:, None]
    valves = Valves(angle, np.where(late, 1.5e-3, 0.0), np.where(late, 0.0, 1.5e-3))
    around = Around(manifold=1e5, exhaust=back_pressure * 1e5, wall_heat=False, gas=DIATOMIC)
    found = fill(Cylinder(0.089, 0.0885, 0.152, compression), valves, np.array([100 * RPM]), around)
    ideal = compression / (compression - 1) - (back_pressure + 0.4) / (1.4 * (compression - 1))
    assert found.filling[0] == pytest.approx(ideal, abs=2e-3)


def test_a_vessel_blows_down_as_the_choked_formula_says() -> None:
    """p/p0 = (1 + (g-1)/2 (2/(g+1))^((g+1)/(2(g-1))) CdA a0 t / V)^(-2g/(g-1)), adiabatic and choked (Saad,
    *Compressible Fluid Flow*, discharge of a tank; digits by this formula)."""
    g, area, volume, dt = 1.4, 3e-4, 5e-4, 20e-6
    mass = 6e5 * volume / (R * 1200.0)
    energy = mass * DIATOMIC.energy(np.array(1200.0))
    for _ in range(60):
        t = DIATOMIC.temperature(energy / mass)
        out = nozzle(np.array(area), mass * R * t / volume, t, np.array(1e5), np.array(g)) * dt
        mass, energy = mass - out, energy - out * DIATOMIC.enthalpy(t)
    got = mass * R * DIATOMIC.temperature(energy / mass) / volume
    pace = (g - 1) / 2 * (2 / (g + 1)) ** ((g + 1) / (2 * (g - 1))) * area * np.sqrt(g * R * 1200.0) / volume
    wanted = 6e5 * (1 + pace * 60 * dt) ** (-2 * g / (g - 1))
    assert wanted > 1e5 / 0.528, "choked all the while"
    assert float(got) == pytest.approx(wanted, rel=2e-3)


def test_nozzle_is_smooth_where_pressures_meet_and_chokes_at_the_critical_ratio() -> None:
    """NACA Report 1135: p*/p0 = 0.528 for air, and 0.0404 kg/s per m2 and Pa at 1 K^-0.5."""
    one, g = np.ones(5), np.full(5, 1.4)
    flow = nozzle(one, 1e5 * one, 300 * one, 1e5 * np.array([1.0, 0.9999, 0.999, 0.528, 0.1]), g)
    assert flow[0] == 0
    assert flow[1] == pytest.approx(flow[2] / 10, rel=1e-6)
    assert flow[3] == pytest.approx(flow[4], rel=1e-4)
    assert flow[4] * np.sqrt(300.0) / 1e5 == pytest.approx(0.0404, abs=1e-4)


def test_a_gas_squeezed_and_let_go_is_as_before() -> None:
    """Both ways along one adiabat; with a constant capacity it is T V^(g-1)."""
    cold = np.array([300.0, 900.0])
    gas = Gas()
    assert gas.squeezed(gas.squeezed(cold, 10.0), 0.1) == pytest.approx(cold)
    assert DIATOMIC.squeezed(cold, 10.0) == pytest.approx(cold * 10**0.4)
    assert gas.temperature(gas.energy(cold)) == pytest.approx(cold)


# -- a made-up engine of the size that the formula book names: 550 cc, 46 mm valve, 230 degrees at 0.050 in

ENGINE = Cylinder(0.0889, 0.0886, 0.150, 10.5)


def filled(
    rpm: list[float], more: float = 1.0, step: float = 1.0, centre: float = 108.0, start: Contents | None = None
) -> Filled:
    intake, exhaust = Cam(0.0125, np.radians(230)), Cam(0.0125, np.radians(236))
    at_in, at_out = np.radians(360 + centre), np.radians(360 - (220 - centre))
    first, last = at_out - exhaust.open_period / 2, at_in + intake.open_period / 2
    angle = np.arange(first, last, np.radians(step))
    middle = (angle[1:] + angle[:-1]) / 2

    def area(cam: Cam, at: float, head: float) -> np.ndarray:
        phase = (middle - at) / cam.open_period
        lift = np.where(np.abs(phase) < 0.5, cam.peak_lift / 2 * (1 + np.cos(2 * np.pi * phase)), 0.0)
        return np.minimum(0.6 * np.pi * head * lift, 0.55 * np.pi / 4 * head**2)[:, None] * np.ones(len(rpm))

    valves = Valves(angle, more * area(intake, at_in, 0.046), area(exhaust, at_out, 0.038))
    return fill(ENGINE, valves, np.array(rpm) * RPM, start=start)


def test_size_of_the_answer_and_what_more_flow_is_worth() -> None:
    """Common practice, no source: 0.82 to 0.90 full about the middle, some 4 to 8 % burnt gas left, and 5 % more flow
    worth less than 1 % where the engine is not short of air, more the nearer Z is to 1."""
    rpm = [5000.0, 6500.0, 10000.0]
    plain, more = filled(rpm), filled(rpm, 1.05)
    assert 0.82 < plain.filling[0] < 0.90
    assert 0.04 < plain.residual[0] < 0.08
    worth = more.filling / plain.filling - 1
    assert abs(worth[0]) < 0.004
    assert worth[1] < 0.01
    assert 0.010 < worth[2] < 0.035
    assert worth[0] < worth[1] < worth[2]


def test_filling_falls_where_the_valve_is_too_small() -> None:
    """Taylor, vol. 1, fig. 6-13: it falls away beyond a Z of 0.6 to 0.7."""
    found = filled([6500.0, 8000.0, 9500.0, 11000.0]).filling
    assert np.all(np.diff(found) < 0)
    assert found[-1] < found[0] - 0.08


def test_halving_the_step_changes_nothing() -> None:
    rpm = [2000.0, 4000.0, 6500.0, 9000.0]
    assert filled(rpm, step=0.5).filling == pytest.approx(filled(rpm).filling, rel=1e-3)


def test_a_lobe_moved_four_degrees_moves_filling_and_hardly_the_difference() -> None:
    """Why no absolute figure is shown without timing."""
    rpm = [3000.0, 6500.0]
    early, late = filled(rpm, centre=106.0), filled(rpm, centre=110.0)
    assert np.all(np.abs(late.filling / early.filling - 1) > 0.004)
    gains = [filled(rpm, 1.05, centre=c).filling / f.filling - 1 for c, f in ((106.0, early), (110.0, late))]
    assert gains[0] == pytest.approx(gains[1], abs=0.004)


# -- the demo head on its engine


def on(job: Job, port: str = "Intake 1", **cuts: int) -> OnTheEngine:
    findings = Findings(job, benches=demo_benches())
    chosen = next(p for p in job.ports if p.name == port)
    return on_the_engine(findings, chosen, **{k: chosen.cuts[n] for k, n in cuts.items()})


def test_without_timing_only_the_difference_is_told() -> None:
    job = replace(demo_job(), intake_centreline=None, exhaust_centreline=None)
    found = on(job)
    assert found.filling is None
    assert found.low is None
    assert found.missing == ("intake centerline", "exhaust centerline")
    timed = on(replace(job, intake_centreline=np.radians(108), exhaust_centreline=np.radians(112)))
    assert timed.filling is not None
    assert timed.missing == ()
    assert timed.difference == pytest.approx(found.difference)
    assert np.all(found.difference_low <= found.difference)
    assert np.all(found.difference <= found.difference_high)


def test_a_cut_against_itself_is_worth_nothing_within_its_doubt() -> None:
    found = on(demo_job(), after=1, before=1)
    assert found.difference == pytest.approx(np.zeros(12), abs=1e-12)
    assert np.all(found.difference_low < 0)
    assert np.all(found.difference_high > 0)


def test_more_flow_is_worth_more_at_the_top() -> None:
    found = on(demo_job())
    assert found.difference[-1] > found.difference[0]
    assert found.difference_low[-1] > 0
    assert found.index is not None
    assert found.limit_speed is not None
    at = np.interp(found.limit_speed, found.speeds, found.index)
    assert at == pytest.approx(0.6, abs=0.01)


def test_what_is_missing_is_named() -> None:
    with pytest.raises(ValueError, match="volumetric efficiency needs bore, stroke"):
        on(replace(demo_job(), bore=None, stroke=None))
    with pytest.raises(ValueError, match="Intake 4 was not flowed"):
        on(demo_job(), "Intake 4")
    with pytest.raises(ValueError, match="an exhaust"):
        on(demo_job(), "Exhaust 1")
    bare = replace(demo_job(), rod_length=None, compression_ratio=None, speed_low=None,
                   ports=tuple(p for p in demo_job().ports if p.kind == "intake"))  # fmt: skip
    assert {"rod: 1.7 strokes", "compression: 10", "speeds", "exhaust: 75 % of the intake"} <= set(on(bare).guessed)


def test_a_larger_exhaust_doubt_is_told_where_none_was_flowed() -> None:
    job = replace(demo_job(), intake_centreline=to_si(108, "deg"), exhaust_centreline=to_si(112, "deg"))
    known = on(job)
    guessed = on(replace(job, ports=tuple(p for p in job.ports if p.kind == "intake")))
    assert known.high is not None
    assert known.low is not None
    assert guessed.high is not None
    assert guessed.low is not None
    assert np.mean(guessed.high - guessed.low) > np.mean(known.high - known.low)


# -- what the engine breathes through, its lash, another cam


def test_a_throttle_drops_its_rated_pressure_at_its_rated_flow() -> None:
    """What a carburettor's rating means (common practice): 350 CFM at 1.5 inHg. Incompressible, 3 % by density."""
    rated, pressure = to_si(350, "cfm"), to_si(1.5, "inHg")
    before = Around()
    density = before.manifold / (R * before.manifold_temperature)
    area = rated / np.sqrt(2 * pressure / density)
    taken = rated * before.manifold / (before.manifold - pressure)  # the same mass, thinner behind it
    assert before.manifold - float(behind_throttle(area, before, np.array(taken))) == pytest.approx(pressure, rel=0.03)
    half = before.manifold - float(behind_throttle(area, before, np.array(taken / 2)))
    assert half == pytest.approx(pressure / 4, rel=0.1), "a quarter, by thicker air"


def test_a_small_carburettor_costs_filling_at_the_top_and_a_large_one_nothing() -> None:
    free = on(demo_job())

    def with_flow(cfm: float) -> OnTheEngine:
        return on(replace(demo_job(), induction="carburettor", induction_flow=to_si(cfm, "cfm")))

    small, large = with_flow(200), with_flow(3000)
    assert free.filling is not None and small.filling is not None and large.filling is not None
    assert large.filling == pytest.approx(free.filling, abs=2e-3)
    lost = 1 - small.filling / free.filling
    assert lost[-1] > 0.03
    assert lost[-1] > 3 * lost[0]
    assert "induction rated at 1.5 inHg" in small.guessed
    lone = on(replace(demo_job(), induction_flow=to_si(200, "cfm"), engine_cylinders=None))
    assert "induction left out: how many cylinders the whole engine has was not entered (Head, Casting)" in lone.guessed


def test_lash_takes_from_what_the_cam_opens() -> None:
    plain, loose = on(demo_job()), on(replace(demo_job(), intake_lash=to_si(0.5, "mm")))
    assert loose.area < plain.area
    assert loose.limit_speed is not None and plain.limit_speed is not None
    assert loose.limit_speed < plain.limit_speed


def test_a_manifold_at_more_pressure_is_as_full_by_its_own_air() -> None:
    """Filling is of the air in the manifold: boost brings more air, and less burnt gas is left (common practice)."""
    free, boosted = on(demo_job()), on(replace(demo_job(), induction="boosted", manifold_pressure=150e3))
    assert free.residual is not None and boosted.residual is not None
    assert np.all(boosted.residual < free.residual)
    assert "manifold pressure: as without boost" in on(replace(demo_job(), induction="boosted")).guessed


def test_a_cycle_begun_where_a_like_one_ended_settles_at_the_same_place() -> None:
    cold = filled([3000.0, 7000.0])
    warm = filled([3000.0, 7000.0], start=cold.end)
    assert warm.cycles < cold.cycles
    assert warm.filling == pytest.approx(cold.filling, abs=2e-4)
    swapped = cold.end.columns(np.array([1, 0]))
    assert swapped.mass == pytest.approx(cold.end.mass[::-1])


def test_a_rocker_lifts_the_valve_by_its_ratio() -> None:
    cam = Cam(to_si(0.45, "in"), np.radians(220))
    more = rocker_cam(cam, 1.6, 1.5)
    assert more.peak_lift == pytest.approx(cam.peak_lift * 1.6 / 1.5)
    assert more.open_period == pytest.approx(cam.open_period)
    with pytest.raises(ValueError, match="above zero"):
        rocker_cam(cam, 0.0, 1.5)
    findings = Findings(demo_job(), benches=demo_benches())
    with pytest.raises(ValueError, match="needs the job's own cam and rocker ratio"):
        other_cam(findings, rocker=1.6)
    with pytest.raises(ValueError, match="one at a time"):
        other_cam(Findings(replace(demo_job(), rocker_ratio=1.5)), lift=0.012, rocker=1.6)


def plateaued(at: float) -> Job:
    """The demo with an intake whose last cut passes no more above a lift."""
    job = demo_job()
    port = job.ports[0]
    run = port.cuts[-1].runs[-1]
    flow = max(r.flow for r in run.readings if r.flow is not None and r.lift <= at + 1e-6)
    readings = tuple(replace(r, flow=flow) if r.lift > at + 1e-6 else r for r in run.readings)
    cut = replace(port.cuts[-1], runs=(replace(run, readings=readings),))
    return replace(job, ports=(replace(port, cuts=(*port.cuts[:-1], cut)), *job.ports[1:]))


def test_lift_beyond_where_flow_stops_buys_nothing() -> None:
    job = plateaued(to_si(0.40, "in"))
    findings = Findings(job, benches=demo_benches())
    found = on_the_engine(findings, job.ports[0], cam=other_cam(findings, lift=to_si(0.56, "in")))
    said = lift_sentences(found)
    assert said[0].startswith("Flow stops at 0.400 in: lift beyond buys nothing on this port")
    assert found.other_cam
    assert found.before is found.after
    free = Findings(demo_job(), benches=demo_benches())
    grows = on_the_engine(free, demo_job().ports[0], cam=other_cam(free, lift=to_si(0.56, "in")))
    assert grows.difference[-1] > found.difference[-1], "where flow goes on growing, lift is worth more"


def test_effective_area_carries_across_test_pressures() -> None:
    """The same port shown at 10 inH2O has the same CdA (definition); 0.3 % by expansion."""
    at_ten = on(replace(demo_job(), test_pressure=to_si(10, "inH2O")))
    assert at_ten.area == pytest.approx(on(demo_job()).area, rel=0.003)

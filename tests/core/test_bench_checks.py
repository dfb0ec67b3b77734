"""Scatter studies, plate charts, transfers, odd readings, and flow elements in their own air."""

from __future__ import annotations

import numpy as np
import pytest
from CoolProp.CoolProp import HAPropsSI

from tests.core.builders import BASE, FULL, SHARP, run
from ventrix.core.benches.odd_readings import expected_flow, range_advice, repeat_distance
from ventrix.core.benches.plate import plate_chart, plate_sentence
from ventrix.core.benches.study import studied, study_result, study_sentence
from ventrix.core.benches.transfer import transfer_between
from ventrix.core.formulas.flow_curve import FlowCurve
from ventrix.core.formulas.knowledge import Known
from ventrix.core.formulas.uncertainty import Scatter
from ventrix.core.judging.comparability import Adjustment, comparability
from ventrix.core.judging.comparing import compare_runs, witness_adjustment
from ventrix.core.judging.verdict import judge
from ventrix.core.model.bench import Bench, PlateCheck, ScatterStudy, StudyReading, Transfer, TransferPart
from ventrix.core.model.run import FlowRun, Reading, RungNote, SetUp, StepRecord
from ventrix.core.quantity.units import CFM, to_si
from ventrix.core.runs.element import NO_AIR, air_at_bench, indicated
from ventrix.core.runs.reduction import reduce_run

DP = to_si(28, "inH2O")


def study(mount: float, repeat: float, seed: int = 1, mounts: int = 5) -> ScatterStudy:
    random = np.random.default_rng(seed)
    readings = []
    for m in range(mounts):
        moved = 1 + mount * random.standard_normal()
        for lift, flow in ((5e-3, 0.05), (10e-3, 0.09), (12e-3, 0.1)):
            for again in range(2):
                q = flow * moved * (1 + repeat * random.standard_normal())
                readings.append(StudyReading(id=f"{m}{lift}{again}", mount=m, lift=lift, flow=q))
    return ScatterStudy(id="s", readings=tuple(readings))


def test_a_study_finds_the_scatter_it_was_made_with() -> None:
    # truth: what the readings were drawn with; the mean of many studies comes near it
    found = [study_result(study(0.006, 0.003, seed)).scatter for seed in range(200)]
    assert np.sqrt(np.mean([s.repeat**2 for s in found])) == pytest.approx(0.003, rel=0.05)
    assert found[0].repeat_freedom == 15
    # run means carry their readings' scatter too: sqrt(0.006^2 + 0.003^2 / 6)
    own = [study_result(study(0.006, 0.003, seed)).seen for seed in range(200)]
    measured = np.sqrt(np.mean([s.squares / s.freedom for s in own]))
    assert measured == pytest.approx(np.hypot(0.006, 0.003 / np.sqrt(6)), rel=0.08)
    assert not found[0].repeat_assumed


def test_what_the_bench_sees() -> None:
    result = study_result(study(0.006, 0.003))
    assert [s.remounted > s.stays_on for s in result.sees] == [True] * 3
    said = study_sentence(result, "in", "cfm")
    assert "when the head comes off" in said
    known = studied(Bench(id="b", name="b", studies=(study(0.006, 0.003),))).scatter
    assert known == result.scatter
    assert known.mounts == 5
    assert studied(None).scatter.mount_assumed


@pytest.mark.parametrize(
    ("readings", "words"),
    [((), "three mounts"), (study(0, 0.01, mounts=2).readings, "three mounts"),
     (tuple(r for r in study(0, 0.01).readings[::2] if r.lift > 11e-3), "nothing was repeated"),
     (tuple(r for r in study(0, 0.01).readings if round(r.lift * 1e3) == (5, 10, 12)[r.mount % 3]), "no lift")],
)  # fmt: skip
def test_studies_that_cannot_tell(readings: tuple[StudyReading, ...], words: str) -> None:
    broken = ScatterStudy(id="s", readings=readings)
    with pytest.raises(ValueError, match=words):
        study_result(broken)
    assert studied(Bench(id="b", name="b", studies=(broken,))).scatter.repeat <= 0.011


def plate(*ratios: float) -> list[PlateCheck]:
    return [PlateCheck(id=str(i), nominal=0.07, flow=0.07 * r) for i, r in enumerate(ratios)]


def test_individuals_chart_by_hand() -> None:
    # NIST/SEMATECH e-Handbook 6.3.2.2 (number from memory): limits are the mean +- 3 MR/1.128
    flows = [49.6, 47.6, 49.9, 51.3, 47.8, 51.2, 52.6, 52.4, 53.6, 52.1]  # its printed example, from memory
    checks_ = [PlateCheck(id=str(i), nominal=1.0, flow=q) for i, q in enumerate([*flows, 50.0])]
    chart = plate_chart(checks_)
    assert chart.own_limits
    # its printed figures: centre 50.81, mean moving range 1.8778, limits 55.8041 and 45.8159
    assert chart.centre == pytest.approx(50.81)
    assert chart.high == pytest.approx(55.8041, abs=1e-3)
    assert chart.low == pytest.approx(45.8159, abs=1e-3)


def test_a_bench_that_has_drifted_is_said_so() -> None:
    steady = plate(1.0, 1.001, 0.999, 1.0005, 1.0, 1.001, 1.0)
    assert plate_sentence(steady)[0]
    inside, said = plate_sentence([*steady, *plate(1.02)])
    assert not inside
    assert "has drifted" in said
    assert plate_sentence(plate(1.008))[0]  # no history yet: one percent each way
    assert not plate_sentence(plate(1.012))[0]
    with pytest.raises(ValueError, match="not been flowed"):
        plate_chart([])


def test_transfer_from_parts_by_hand() -> None:
    parts = tuple(TransferPart(id=str(i), here=h, there=t) for i, (h, t) in enumerate(((1.0, 1.02), (2.0, 2.08))))
    found = transfer_between(Transfer(id="t", other="x", parts=parts))
    # by hand: ln(1/1.02) and ln(2/2.08), mean -0.029512, s 0.013731; the mean's s^2/2 and one more part's s^2
    assert found.factor == pytest.approx(np.exp(-0.029512), rel=1e-5)
    assert found.uncertainty == pytest.approx(0.013731 * np.sqrt(1.5), rel=1e-3)
    assert found.freedom == 1
    sharp = Scatter(0.004, 20, 0.008, 20, False, False)  # s^2 - 2 (0.004^2 + 0.008^2) is left for the parts
    known = transfer_between(Transfer(id="t", other="x", parts=parts), sharp)
    assert known.uncertainty == pytest.approx(np.sqrt(0.013731**2 / 2 + 0.013731**2 - 1.6e-4), rel=1e-2)
    single = transfer_between(Transfer(id="t", other="x", parts=parts[:1]))
    assert single.uncertainty > 0.015
    with pytest.raises(ValueError, match="no part"):
        transfer_between(Transfer(id="t", other="x"))


def test_a_transfer_follows_the_lift_where_parts_were_flowed_at_lifts() -> None:
    # The other bench reads 1 % high low down and 4 % high at the top: one factor for all would be wrong at both ends
    truth = {2e-3: 1.01, 6e-3: 1.025, 10e-3: 1.04}
    parts = tuple(
        TransferPart(id=f"{x}{k}", here=0.05, there=0.05 * f * (1 + 0.001 * k), lift=x)
        for x, f in truth.items() for k in (-1, 1)
    )  # fmt: skip
    found = transfer_between(Transfer(id="t", other="x", parts=parts))
    at = found.factor_at(np.array([1e-3, 2e-3, 4e-3, 10e-3, 12e-3]))
    assert at == pytest.approx([1 / 1.01, 1 / 1.01, (1 / 1.01 + 1 / 1.025) / 2, 1 / 1.04, 1 / 1.04], rel=1e-4)
    assert found.turned().factor_at(np.array([10e-3])) == pytest.approx([1.04], rel=1e-4)
    assert np.all(found.careful_at(np.array([2e-3, 10e-3])) > 0)


def test_another_bench_is_converted_where_a_transfer_is_known() -> None:
    from dataclasses import replace

    barn = replace(FULL, bench="barn")
    transfer = Adjustment(1 / 1.03, 0.002, 5, "transferred by 6 parts flowed on both")
    assert comparability(FULL, barn).level == "no"
    assert comparability(FULL, barn, "port", transfer).level == "converted"
    honest = compare_runs([run(BASE)], [run(BASE * 1.03, barn)], known=Known(SHARP, transfer=transfer))
    assert honest.change == pytest.approx(np.zeros(len(BASE)), abs=1e-12)
    assert judge(honest).result in ("no gain", "can't tell")
    assert honest.adjustments == (transfer,)
    plain = compare_runs([run(BASE)], [run(BASE * 1.03)], known=Known(SHARP))
    assert honest.weighted_expanded > plain.weighted_expanded
    same = compare_runs([run(BASE)], [run(BASE * 1.03)], known=Known(SHARP, transfer=transfer))
    assert same.adjustments == ()  # one bench needs none


def test_a_witness_takes_out_what_the_setting_up_changed() -> None:
    moved = 1.025  # another sleeve, say: everything reads high
    lifts = np.array([3, 6, 9]) * 1e-3
    had, has = run(np.array([88.0, 160, 188]), lifts=lifts), run(moved * np.array([88.0, 160, 188]), lifts=lifts)
    fooled = compare_runs([run(BASE)], [run(BASE * moved)], known=Known(SHARP))
    assert judge(fooled).result == "better"
    witness = witness_adjustment(had, has, SHARP)
    assert witness is not None
    assert witness.factor == pytest.approx(1 / moved)
    # two mounts of the witness, three lifts read once each side
    assert witness.uncertainty == pytest.approx(np.sqrt(2 * SHARP.mount**2 + SHARP.repeat**2 * 6 / 9))
    judged = compare_runs([run(BASE)], [run(BASE * moved)], known=Known(SHARP, witness=witness))
    assert judge(judged).result != "better"
    assert witness_adjustment(had, run(BASE[:1]), SHARP) is None


LIFTS = np.arange(1, 11) * 1e-3
FLOWS = np.array([30.0, 60, 88, 113, 134, 151, 164, 173, 178, 180])  # a port as they come, from memory


def odd(at: int, flow: float, read: list[int], pinned: FlowCurve | None = None) -> bool:
    """Whether a reading at a lift is odd beside those at `read`."""
    expected = expected_flow(float(LIFTS[at]), LIFTS[read], FLOWS[read], LIFTS.tolist(), pinned)
    assert expected is not None
    return expected.is_odd(flow)


def test_odd_readings_are_found_and_good_ones_left() -> None:
    for i in range(1, 9):
        others = [k for k in range(10) if k != i]
        assert not odd(i, FLOWS[i], others)
        assert odd(i, 1.08 * FLOWS[i], others)
    assert repeat_distance(102.0, [100.0], Scatter(repeat=0.01)) == pytest.approx(0.02 / 0.01 / np.sqrt(2))
    assert repeat_distance(1.0, [], Scatter()) is None


def test_lifts_out_of_order_raise_no_false_alarm() -> None:
    rng = np.random.default_rng(6)
    for _ in range(200):
        order = rng.permutation(10).tolist()
        for n in range(1, 10):
            read = sorted(order[:n])
            expected = expected_flow(float(LIFTS[order[n]]), LIFTS[read], FLOWS[read], LIFTS.tolist())
            assert expected is not None and not expected.is_odd(FLOWS[order[n]])


@pytest.mark.parametrize("at", [0, 9])
@pytest.mark.parametrize("slip", [0.1, 10.0])
def test_a_decimal_point_is_asked_about_at_the_first_and_last_lift_too(at: int, slip: float) -> None:
    others = [k for k in range(10) if k != at]
    assert odd(at, slip * FLOWS[at], others)
    assert odd(at, slip * FLOWS[at], [], FlowCurve(LIFTS, 0.9 * FLOWS))  # by the pinned cut alone


def test_another_cuts_shape_leaves_room_for_work() -> None:
    pinned = FlowCurve(LIFTS, FLOWS * np.linspace(0.9, 1.1, 10))
    assert not any(odd(i, FLOWS[i], [0, 3], pinned) for i in (6, 8, 9))
    assert odd(6, 1.4 * FLOWS[6], [0, 3], pinned)


def test_range_advice() -> None:
    ranges = [75 * CFM, 150 * CFM, 300 * CFM]
    assert "next one up" in (range_advice(ranges, ranges[1], 149 * CFM, None) or "")
    assert "next one down" in (range_advice(ranges, ranges[2], 50 * CFM, None) or "")
    assert "300 cfm range here" in (range_advice(ranges, ranges[1], 100 * CFM, ranges[2]) or "")
    assert range_advice(ranges, ranges[2], 160 * CFM, None) is None
    assert range_advice(ranges, ranges[2], 290 * CFM, None) is None  # nothing above it


def test_element_correction_in_its_own_air() -> None:
    # formula book: Q_ref = Q sqrt(rho_scale rho_element / (rho_test rho_ref)); intake draw, element at room - dp
    hot = {"test_pressure": DP, "temperature": 303.15, "pressure": 95_000.0, "scale_density": 1.2014}
    setup = SetUp(id="s", direction="intake", **hot)  # type: ignore[arg-type]
    air = air_at_bench(setup, DP)
    assert air is not None
    assert air.element_density / air.test_density == pytest.approx(
        1 - DP / 95_000.0, rel=5e-5
    )  # CIPM's air is a little other than ideal
    found = indicated([Reading(id="a", lift=1e-3, flow=0.1)], setup)
    assert found.values[0] == pytest.approx(0.1 * np.sqrt(1.2014 * (1 - DP / 95_000.0) / 1.225), rel=5e-5)
    blown = SetUp(id="s", direction="exhaust", plenum_temperature=313.15, **hot)  # type: ignore[arg-type]
    plenum = air_at_bench(blown, DP)
    assert plenum is not None
    assert plenum.test_density == plenum.element_density
    assert plenum.element_temperature == 313.15
    bare = SetUp(id="s", direction="intake", test_pressure=DP, scale_density=1.2014)
    assert indicated([Reading(id="a", lift=1e-3, flow=0.1)], bare).notes == (NO_AIR,)


def test_orifice_and_mass_elements_reduce_to_one_flow() -> None:
    from ventrix.core.formulas.orifice import plenum_orifice_flow

    air = {"temperature": 293.15, "pressure": 101_325.0, "test_pressure": DP}
    setup = SetUp(id="s", direction="intake", element="orifice", orifice_diameter=0.05, orifice_coefficient=0.6, **air)  # type: ignore[arg-type]
    state = air_at_bench(setup, DP)
    assert state is not None
    volume = float(plenum_orifice_flow(0.05, 2000.0, state.element_pressure, 293.15, 0.6))
    mass = volume * state.element_density
    by_orifice = reduce_run(
        FlowRun(id="r", setup_id="s", readings=(Reading(id="a", lift=5e-3, element_pressure=2000.0),)), setup
    )
    by_mass = reduce_run(FlowRun(id="r", setup_id="s", readings=(Reading(id="a", lift=5e-3, mass_flow=mass),)), setup)
    assert by_orifice.flow[0] == pytest.approx(mass / np.sqrt(state.test_density * 1.225))
    assert by_mass.flow[0] == pytest.approx(by_orifice.flow[0])
    with pytest.raises(ValueError, match="needs the air"):
        reduce_run(FlowRun(id="r", setup_id="s", readings=(Reading(id="a", lift=5e-3, mass_flow=0.1),)),
                   SetUp(id="s", direction="intake", test_pressure=DP))  # fmt: skip
    nowhere = SetUp(id="s", direction="intake", **air)  # type: ignore[arg-type]
    with pytest.raises(ValueError, match="no diameter"):
        indicated([Reading(id="a", lift=5e-3, element_pressure=2000.0)], nowhere)


def test_what_was_skipped_or_moved_stands_in_the_runs_notes() -> None:
    readings = (
        Reading(id="a", lift=2e-3, flow=0.03),
        Reading(id="b", lift=4e-3, flow=0.05),
        Reading(id="c", lift=2e-3, flow=0.031, returned=True),
    )
    steps = (
        StepRecord(id="x", kind="warm-up", skipped="in a hurry"),
        StepRecord(id="y", kind="plate", flow=0.071, drift=0.02),
        StepRecord(id="z", kind="open port", flow=0.12, pressure=DP),
    )
    notes = (RungNote(id="n", lift=4e-3, kind="noise"),)
    done = FlowRun(id="r", setup_id="s", readings=readings, steps=steps, rung_notes=notes)
    reduced = reduce_run(done, SetUp(id="s", direction="intake", test_pressure=DP))
    said = " ".join(reduced.notes)
    assert "warm-up skipped: in a hurry" in said
    assert "plate read +2.0 %" in said
    assert "the head or the dial has moved" in said
    assert reduced.open_flow == pytest.approx(0.12)
    assert reduced.heard == ((4e-3, "noise"),)


def moist(t: float, p: float, share: float) -> float:
    """Density of air whose molecules are water by that share: CoolProp's humid air by mole fraction of vapour."""
    return 1 / float(HAPropsSI("Vha", "T", t, "P", p, *(("psi_w", share) if share else ("R", 0.0))))


@pytest.mark.parametrize("direction", ["intake", "exhaust"])
@pytest.mark.parametrize("humidity", [0.0, 0.9])
@pytest.mark.parametrize("place", [None, "upstream"])
def test_three_kinds_of_element_agree_on_one_true_flow(direction: str, humidity: float, place: str | None) -> None:
    """One true mass flow of CoolProp's humid air through each element; all report the same flow within 0.05 %."""
    room_t, room_p, plenum_t, dp, drop = 305.15, 98_000.0, 318.15, DP, 2000.0
    share = max(float(HAPropsSI("psi_w", "T", room_t, "P", room_p, "R", humidity)), 0.0) if humidity else 0.0
    draw = direction == "intake"
    test = (room_t, room_p) if draw else (plenum_t, room_p + dp)
    there_p = room_p - dp if draw else room_p + dp + (drop if place else 0.0)
    there_t = room_t if draw else plenum_t
    rho_test, rho_there = moist(*test, share), moist(there_t, there_p, share)
    # a plate in a plenum's wall, written out by ISO 5167-2's expansibility at a vanishing diameter ratio
    eps = 1 - 0.351 * (1 - ((there_p - drop) / there_p) ** (1 / 1.4))
    mass = 0.6 * eps * np.pi / 4 * 0.05**2 * np.sqrt(2 * drop * rho_there)
    truth = mass / np.sqrt(rho_test * 1.225)
    air = {
        "test_pressure": dp, "temperature": room_t, "pressure": room_p, "humidity": humidity,
        "plenum_temperature": None if draw else plenum_t, "element_place": place,
    }  # fmt: skip
    plate_setup = SetUp(id="s", direction=direction, orifice_diameter=0.05, orifice_coefficient=0.6, **air)  # type: ignore[arg-type]
    by_plate = indicated([Reading(id="a", lift=5e-3, element_pressure=drop)], plate_setup).values[0]
    by_mass = indicated([Reading(id="a", lift=5e-3, mass_flow=mass)], plate_setup).values[0]
    assert by_plate == pytest.approx(truth, rel=5e-4)
    assert by_mass == pytest.approx(truth, rel=5e-4)
    if place is None:
        shown = mass / rho_there * np.sqrt(rho_there / 1.2)  # a scale made for 1.2 kg/m3 shows the drop's root
        scale = SetUp(id="s", direction=direction, scale_density=1.2, **air)  # type: ignore[arg-type]
        assert indicated([Reading(id="a", lift=5e-3, flow=shown)], scale).values[0] == pytest.approx(truth, rel=5e-4)


def test_a_leak_that_is_off_already_is_not_taken_off_again() -> None:
    setup = SetUp(id="s", direction="intake", test_pressure=DP, leak=0.002, leak_pressure=DP, leak_taken_off=True)
    run_ = FlowRun(id="r", setup_id="s", readings=(Reading(id="a", lift=5e-3, flow=0.05),))
    assert reduce_run(run_, setup).flow[0] == pytest.approx(0.05)
    assert any("leak off already" in n for n in reduce_run(run_, setup).notes)

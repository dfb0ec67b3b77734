"""Scatter studies, plate charts, transfers, odd readings, and flow elements in their own air."""

from __future__ import annotations

import numpy as np
import pytest

from tests.core.test_compare import BASE, FULL, SHARP, run
from ventrix.core import bench_checks as checks
from ventrix.core.bench_record import Bench, PlateCheck, ScatterStudy, StudyReading, Transfer, TransferPart
from ventrix.core.compare import compare_runs, witness_adjustment
from ventrix.core.conditions import Adjustment, comparability
from ventrix.core.curve import FlowCurve
from ventrix.core.element import NO_AIR, air_at_bench, indicated
from ventrix.core.model import FlowRun, Reading, RungNote, SetUp, StepRecord
from ventrix.core.reduction import reduce_run
from ventrix.core.uncertainty import Scatter
from ventrix.core.units import CFM, to_si
from ventrix.core.verdict import judge

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
    found = [checks.study_result(study(0.006, 0.003, seed)).scatter for seed in range(200)]
    assert np.sqrt(np.mean([s.repeat**2 for s in found])) == pytest.approx(0.003, rel=0.05)
    # run means carry their readings' scatter too: sqrt(0.006^2 + 0.003^2 / 6)
    assert np.sqrt(np.mean([s.mount**2 for s in found])) == pytest.approx(np.hypot(0.006, 0.003 / np.sqrt(6)), rel=0.08)
    assert (found[0].repeat_freedom, found[0].mount_freedom) == (15, 4)
    assert not found[0].repeat_assumed


def test_what_the_bench_sees() -> None:
    result = checks.study_result(study(0.006, 0.003))
    assert [s.remounted > s.stays_on for s in result.sees] == [True] * 3
    said = checks.study_sentence(result, "in", "cfm")
    assert "when the head comes off" in said
    assert checks.bench_scatter(Bench(id="b", name="b", studies=(study(0.006, 0.003),))) == result.scatter
    assert checks.bench_scatter(None) is None


@pytest.mark.parametrize(
    ("readings", "words"),
    [((), "three mounts"), (study(0, 0.01, mounts=2).readings, "three mounts"),
     (study(0, 0.01).readings[::2], "nothing was repeated"),
     (tuple(r for r in study(0, 0.01).readings if round(r.lift * 1e3) == (5, 10, 12)[r.mount % 3]), "no lift")],
)  # fmt: skip
def test_studies_that_cannot_tell(readings: tuple[StudyReading, ...], words: str) -> None:
    broken = ScatterStudy(id="s", readings=readings)
    with pytest.raises(ValueError, match=words):
        checks.study_result(broken)
    assert checks.bench_scatter(Bench(id="b", name="b", studies=(broken,))) is None


def plate(*ratios: float) -> list[PlateCheck]:
    return [PlateCheck(id=str(i), nominal=0.07, flow=0.07 * r) for i, r in enumerate(ratios)]


def test_individuals_chart_by_hand() -> None:
    # NIST/SEMATECH e-Handbook 6.3.2.2 (number from memory): limits are the mean +- 3 MR/1.128
    flows = [49.6, 47.6, 49.9, 51.3, 47.8, 51.2, 52.6, 52.4, 53.6, 52.1]  # its printed example, from memory
    checks_ = [PlateCheck(id=str(i), nominal=1.0, flow=q) for i, q in enumerate([*flows, 50.0])]
    chart = checks.plate_chart(checks_)
    assert chart.own_limits
    # its printed figures: centre 50.81, mean moving range 1.8778, limits 55.8041 and 45.8159
    assert chart.centre == pytest.approx(50.81)
    assert chart.high == pytest.approx(55.8041, abs=1e-3)
    assert chart.low == pytest.approx(45.8159, abs=1e-3)


def test_a_bench_that_has_drifted_is_said_so() -> None:
    steady = plate(1.0, 1.001, 0.999, 1.0005, 1.0, 1.001, 1.0)
    assert checks.plate_sentence(steady)[0]
    inside, said = checks.plate_sentence([*steady, *plate(1.02)])
    assert not inside
    assert "has drifted" in said
    assert checks.plate_sentence(plate(1.008))[0]  # no history yet: one percent each way
    assert not checks.plate_sentence(plate(1.012))[0]
    with pytest.raises(ValueError, match="not been flowed"):
        checks.plate_chart([])


def test_transfer_from_parts_by_hand() -> None:
    parts = tuple(TransferPart(id=str(i), here=h, there=t) for i, (h, t) in enumerate(((1.0, 1.02), (2.0, 2.06))))
    found = checks.transfer_factor(Transfer(id="t", other="x", parts=parts))
    logs = np.log([1 / 1.02, 2 / 2.06])
    assert found.factor == pytest.approx(np.exp(logs.mean()))
    assert found.uncertainty == pytest.approx(np.std(logs, ddof=1) / np.sqrt(2))
    assert found.freedom == 1
    single = checks.transfer_factor(Transfer(id="t", other="x", parts=parts[:1]))
    assert single.uncertainty > 0.01
    with pytest.raises(ValueError, match="no part"):
        checks.transfer_factor(Transfer(id="t", other="x"))


def test_another_bench_is_converted_where_a_transfer_is_known() -> None:
    from dataclasses import replace

    barn = replace(FULL, bench="barn")
    transfer = Adjustment(1 / 1.03, 0.002, 5, "transferred by 6 parts flowed on both")
    assert comparability(FULL, barn).level == "no"
    assert comparability(FULL, barn, "port", transfer).level == "converted"
    honest = compare_runs([run(BASE)], [run(BASE * 1.03, barn)], scatter=SHARP, transfer=transfer)
    assert honest.change == pytest.approx(np.zeros(len(BASE)), abs=1e-12)
    assert judge(honest).result in ("no gain", "can't tell")
    assert honest.adjustments == (transfer,)
    plain = compare_runs([run(BASE)], [run(BASE * 1.03)], scatter=SHARP)
    assert honest.weighted_expanded > plain.weighted_expanded
    same = compare_runs([run(BASE)], [run(BASE * 1.03)], scatter=SHARP, transfer=transfer)
    assert same.adjustments == ()  # one bench needs none


def test_a_witness_takes_out_what_the_setting_up_changed() -> None:
    moved = 1.025  # another sleeve, say: everything reads high
    lifts = np.array([3, 6, 9]) * 1e-3
    had, has = run(np.array([88.0, 160, 188]), lifts=lifts), run(moved * np.array([88.0, 160, 188]), lifts=lifts)
    fooled = compare_runs([run(BASE)], [run(BASE * moved)], scatter=SHARP)
    assert judge(fooled).result == "better"
    witness = witness_adjustment(had, has, SHARP)
    assert witness is not None
    assert witness.factor == pytest.approx(1 / moved)
    # two mounts of the witness, three lifts read once each side
    assert witness.uncertainty == pytest.approx(np.sqrt(2 * SHARP.mount**2 + SHARP.repeat**2 * 6 / 9))
    judged = compare_runs([run(BASE)], [run(BASE * moved)], scatter=SHARP, witness=witness)
    assert judge(judged).result != "better"
    assert witness_adjustment(had, run(BASE[:1]), SHARP) is None


def test_odd_readings_are_found_and_good_ones_left() -> None:
    lift = np.arange(1, 11) * 1e-3
    flow = np.array([30.0, 60, 88, 113, 134, 151, 164, 173, 178, 180])
    for i in range(1, 9):
        assert abs(checks.neighbour_distance(lift, flow, i) or 0) < checks.NEIGHBOUR_LIMIT
        wrong = flow.copy()
        wrong[i] *= 1.08
        assert (checks.neighbour_distance(lift, wrong, i) or 0) > checks.NEIGHBOUR_LIMIT
    assert checks.neighbour_distance(lift, flow, 0) is None
    assert checks.neighbour_distance(lift, flow, 9) is None
    expected = float(FlowCurve(np.delete(lift, 4), np.delete(flow, 4)).at(lift[4]))
    assert checks.neighbour_distance(lift, flow, 4) == pytest.approx(flow[4] / expected - 1)
    assert checks.repeat_distance(102.0, [100.0], Scatter(repeat=0.01)) == pytest.approx(0.02 / 0.01 / np.sqrt(2))
    assert checks.repeat_distance(1.0, [], Scatter()) is None


def test_range_advice() -> None:
    ranges = [75 * CFM, 150 * CFM, 300 * CFM]
    assert "next one up" in (checks.range_advice(ranges, ranges[1], 149 * CFM, None) or "")
    assert "next one down" in (checks.range_advice(ranges, ranges[2], 50 * CFM, None) or "")
    assert "300 range here" in (checks.range_advice(ranges, ranges[1], 100 * CFM, ranges[2]) or "")
    assert checks.range_advice(ranges, ranges[2], 160 * CFM, None) is None
    assert checks.range_advice(ranges, ranges[2], 290 * CFM, None) is None  # nothing above it


def test_element_correction_in_its_own_air() -> None:
    # formula book: Q_ref = Q sqrt(rho_scale rho_element / (rho_test rho_ref)); intake draw, element at room - dp
    hot = {"test_pressure": DP, "temperature": 303.15, "pressure": 95_000.0, "scale_density": 1.2014}
    setup = SetUp(id="s", direction="intake", **hot)  # type: ignore[arg-type]
    air = air_at_bench(setup, DP)
    assert air is not None
    assert air.element_density / air.test_density == pytest.approx(1 - DP / 95_000.0)
    found = indicated([Reading(id="a", lift=1e-3, flow=0.1)], setup)
    assert found.values[0] == pytest.approx(0.1 * np.sqrt(1.2014 * (1 - DP / 95_000.0) / 1.225))
    blown = SetUp(id="s", direction="exhaust", plenum_temperature=313.15, **hot)  # type: ignore[arg-type]
    plenum = air_at_bench(blown, DP)
    assert plenum is not None
    assert plenum.test_density == plenum.element_density
    assert plenum.element_temperature == 313.15
    bare = SetUp(id="s", direction="intake", test_pressure=DP, scale_density=1.2014)
    assert indicated([Reading(id="a", lift=1e-3, flow=0.1)], bare).notes == (NO_AIR,)


def test_orifice_and_mass_elements_reduce_to_one_flow() -> None:
    from ventrix.core.orifice import plenum_orifice_flow

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

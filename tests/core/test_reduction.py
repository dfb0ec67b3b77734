"""A run reduced: order of corrections, repeats, derived figures, notes; each case by hand."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from ventrix.core.formulas.atmosphere import REFERENCE_DENSITY
from ventrix.core.formulas.bench_flow import ideal_flux
from ventrix.core.formulas.knowledge import Known
from ventrix.core.formulas.uncertainty import Scatter
from ventrix.core.model.run import FlowRun, Reading, SetUp
from ventrix.core.quantity.units import CFM, to_si
from ventrix.core.runs.geometry import Geometry
from ventrix.core.runs.reduced_run import correct_readings, derive
from ventrix.core.runs.reduction import indicated, reduce_run

DP = to_si(28, "inH2O")
SETUP = SetUp(id="s", direction="intake", test_pressure=DP)
FULL = Geometry(1, 0.046, 0.007, 0.0395, 0.0016, np.pi / 4, 118e-6, 0.104)


def reading(lift_mm: float, cfm: float, **more: object) -> Reading:
    return Reading(id=f"{lift_mm}-{cfm}", lift=lift_mm * 1e-3, flow=cfm * CFM, **more)  # type: ignore[arg-type]


def reduced(*readings: Reading, setup: SetUp = SETUP, geometry: Geometry = FULL):  # type: ignore[no-untyped-def]
    return reduce_run(FlowRun(id="r", setup_id="s", readings=readings), setup, geometry)


def test_repeats_are_averaged_and_lifts_sorted() -> None:
    run = reduced(reading(5, 100), reading(2, 40), reading(5, 102), reading(2, 41))
    assert run.lift == pytest.approx([0.002, 0.005])
    assert run.flow / CFM == pytest.approx([40.5, 101])
    assert list(run.readings) == [2, 2]
    assert run.repeats.freedom.sum() == 2
    # by hand: residuals of +-1 in 101 and +-0.5 in 40.5
    assert run.repeats.squares == pytest.approx([2 * (0.5 / 40.5) ** 2, 2 * (1 / 101) ** 2])


def test_struck_readings_and_zero_lift_do_not_count() -> None:
    run = reduced(reading(0, 3), reading(2, 40), reading(2, 90, struck="hand slipped"))
    assert run.flow / CFM == pytest.approx([40])
    assert any("1 struck reading kept" in n for n in run.notes)
    assert any("zero lift" in n for n in run.notes)


def test_nothing_that_counts_is_said() -> None:
    with pytest.raises(ValueError, match="no reading that counts"):
        reduced(reading(2, 40, struck="x"))
    with pytest.raises(ValueError, match="test pressure is missing"):
        reduced(reading(2, 40), setup=SetUp(id="s", direction="intake"))
    with pytest.raises(ValueError, match="is zero"):
        reduced(Reading(id="a", lift=0.002, flow=0.0))


def test_mixed_kinds_are_refused() -> None:
    with pytest.raises(ValueError, match="must all be"):
        indicated([reading(2, 40), Reading(id="x", lift=0.003, element_column=1.0, port_column=2.0)], SETUP)


def test_percent_of_a_range_becomes_flow() -> None:
    run = reduced(Reading(id="a", lift=0.002, percent=0.5, full_scale=200 * CFM))
    assert run.flow / CFM == pytest.approx([100])


@given(st.floats(20, 200), st.floats(0.9, 1.1), st.floats(0, 5))
def test_correction_by_hand(cfm: float, share: float, leak: float) -> None:
    # formula book, order of reduction: leak scaled to the pressure of that point off, then to nominal
    found = correct_readings([cfm], DP, [share * DP], leak, DP)[0]
    nozzle_and_plate = {0.9: 0.9514, 1.0: 1.0, 1.1: 1.0458}  # worked by SciPy from both laws at 28 inH2O
    ratio = 1 / np.interp(share, list(nozzle_and_plate), list(nozzle_and_plate.values()))
    assert found == pytest.approx((cfm - leak * np.sqrt(share)) * ratio, rel=1e-3)


def test_pressure_not_measured_is_nominal() -> None:
    found = correct_readings([100.0, 100.0], DP, [np.nan, DP / 4], 0.0)
    # formula book: between a nozzle and a plate 7 to 28 inH2O is a little under the root of four
    assert found[0] == 100.0
    assert 195.0 < found[1] < 198.5


def test_derived_figures_by_hand() -> None:
    lift, flow = np.array([0.005]), np.array([100 * CFM])
    d = derive(lift, flow, DP, FULL)
    vi = float(ideal_flux(DP))
    assert d.lift_ratio == pytest.approx([0.005 / 0.046])
    assert d.cd_curtain == pytest.approx(flow / (np.pi * 0.046 * 0.005 * vi))
    assert d.cd_valve == pytest.approx(flow / (np.pi / 4 * 0.046**2 * vi))
    speed = flow * 0.104 / 118e-6
    assert d.mean_velocity == pytest.approx(speed)
    assert d.energy_density == pytest.approx(0.5 * REFERENCE_DENSITY * speed**2)


@pytest.mark.parametrize(
    ("geometry", "missing"),
    [
        (Geometry(), ("lift_ratio", "cd_curtain", "cd_valve", "cd_least", "mean_velocity", "energy_density")),
        (Geometry(valve_diameter=0.046), ("cd_least", "mean_velocity")),
        (Geometry(port_volume=118e-6), ("mean_velocity",)),
        (Geometry(port_volume=118e-6, port_length=0.1), ("cd_valve",)),
    ],
)
def test_what_was_not_measured_stays_unknown(geometry: Geometry, missing: tuple[str, ...]) -> None:
    d = derive(np.array([0.005]), np.array([0.05]), DP, geometry)
    for name in missing:
        assert np.isnan(getattr(d, name)).all()


def test_two_valves_share_the_flow() -> None:
    one = derive(np.array([0.005]), np.array([0.05]), DP, Geometry(1, 0.03))
    two = derive(np.array([0.005]), np.array([0.05]), DP, Geometry(2, 0.03))
    assert two.cd_curtain == pytest.approx(one.cd_curtain / 2)


def test_notes_of_the_bench() -> None:
    leaky = SetUp(id="s", direction="intake", test_pressure=DP, leak=2 * CFM, leak_pressure=DP / 4)
    run = reduced(reading(2, 40, measured_pressure=0.9 * DP), setup=leaky)
    said = " ".join(run.notes)
    assert "over 2 %" in said
    assert "times off" in said
    assert "10.0 % off the test pressure" in said


def test_swirl_is_averaged_with_its_sign() -> None:
    run = reduced(reading(2, 40, swirl=-10.0), reading(2, 40.5, swirl=-20.0), reading(3, 60))
    assert run.swirl[0] == pytest.approx(-15)
    assert np.isnan(run.swirl[1])


def test_uncertainty_of_a_point_by_hand() -> None:
    # JCGM 100:2008, 5.1.2: 1 % repeat over one reading, 0.7 % mount, dial zero 0.0005 in, gauge 0.05 inH2O
    run = reduced(reading(2, 40), reading(4, 80), reading(6, 100))
    slope = run.curve.slope(run.lift)
    dial = 0.0005 * 0.0254 * slope
    gauge = 0.5 * 0.05 / 28 * run.flow
    digit = 0.1 * CFM / np.sqrt(12)
    by_hand = np.sqrt((0.01 * run.flow) ** 2 + (0.007 * run.flow) ** 2 + dial**2 + gauge**2 + digit**2)
    assert run.uncertainty == pytest.approx(by_hand, rel=1e-9)


def test_a_known_bench_is_surer() -> None:
    readings = (reading(2, 40), reading(4, 80))
    run = FlowRun(id="r", setup_id="s", readings=readings)
    sharp = reduce_run(run, SETUP, known=Known(Scatter(0.002, 30.0, 0.002, 30.0, False, False)))
    assert np.all(sharp.uncertainty < reduce_run(run, SETUP).uncertainty)


def test_peak_and_stall() -> None:
    run = reduced(*(reading(i + 1, q) for i, q in enumerate((40, 80, 110, 111, 111.5))))
    assert run.peak == 4
    assert run.stall == 2


def test_unsteady_rungs_are_remembered() -> None:
    assert reduced(reading(2, 40), reading(3, 60, unsteady=True)).unsteady == (0.003,)

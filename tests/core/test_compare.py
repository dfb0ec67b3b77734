"""What may be compared, what is proven, and what the verdict says: cases of the trade."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from tests.core.builders import BASE, FULL, SHARP, run
from ventrix.core.formulas.cam import Cam
from ventrix.core.formulas.knowledge import Known
from ventrix.core.judging.comparability import comparability
from ventrix.core.judging.comparing import compare_runs
from ventrix.core.judging.pours import Volumes
from ventrix.core.judging.verdict import judge
from ventrix.core.judging.wording import Wording
from ventrix.core.model.kinds import CutKind
from ventrix.core.model.run import FlowRun, Reading
from ventrix.core.quantity.units import CFM, to_si
from ventrix.core.runs.reduction import reduce_run


@pytest.mark.parametrize(
    ("change", "level"),
    [
        ({}, "yes"),
        ({"bore": 0.090}, "no"),
        ({"entry": "bare"}, "no"),
        ({"centred": False}, "no"),
        ({"plug": "out"}, "no"),
        ({"direction": "exhaust"}, "no"),
        ({"bench": "other"}, "no"),
        ({"valve": "test"}, "no"),
        ({"entry": None}, "unknown"),
        ({"centred": None}, "unknown"),
        ({"test_pressure": to_si(10, "inH2O")}, "converted"),
        ({"test_pressure": to_si(10, "inH2O"), "plug": None}, "unknown"),
        ({"test_pressure": to_si(10, "inH2O"), "plug": None, "bore": 0.1}, "no"),
        ({"pipe": "stub"}, "yes"),  # a pipe means nothing on the intake
        ({"bench": "Back-Room "}, "yes"),  # the same name, typed differently
    ],
)
def test_one_rule_set_decides(change: dict[str, object], level: str) -> None:
    other = replace(FULL, **change)
    assert comparability(FULL, other).level == level
    assert comparability(other, FULL).level == level


def test_pipe_counts_on_the_exhaust() -> None:
    exhaust = replace(FULL, direction="exhaust", pipe="none")
    assert comparability(exhaust, replace(exhaust, pipe="stub")).level == "no"
    assert comparability(exhaust, replace(exhaust, pipe=None)).level == "unknown"


def test_a_valve_or_cleaning_cut_allows_its_own_key() -> None:
    assert comparability(FULL, replace(FULL, valve="test"), (CutKind.VALVE,)).level == "yes"
    dirty = replace(FULL, clean=False)
    assert comparability(dirty, replace(FULL, clean=True)).level == "no"
    assert comparability(dirty, replace(FULL, clean=True), (CutKind.CLEAN,)).level == "yes"
    assert comparability(dirty, FULL).level == "yes"  # carbon is asked for only where it was recorded


def test_not_recorded_on_either_side_is_not_the_same() -> None:
    blank = replace(FULL, entry=None)
    found = comparability(blank, blank)
    assert found.level == "unknown"
    assert "either side" in found.differences[0].sentence


def test_clear_gain_and_clear_loss_mirror_each_other() -> None:
    better = judge(compare_runs([run(BASE)], [run(BASE * 1.06)]))
    worse = judge(compare_runs([run(BASE * 1.06)], [run(BASE)]))
    assert (better.result, worse.result) == ("better", "worse")
    assert better.headline.startswith("Keep, if re-mounting repeats within ")
    assert worse.headline.startswith("Lost flow, if re-mounting")
    assert better.weighted == pytest.approx(-worse.weighted)  # type: ignore[operator]


def test_smaller_than_the_bench_repeats_is_not_a_gain() -> None:
    # PRACTICE: believing a gain that is smaller than the bench repeats
    found = judge(compare_runs([run(BASE)], [run(BASE * 1.005)]))
    assert found.result == "can't tell"
    assert found.further_mounts is None  # half a percent on a bench that scatters by seven tenths: not by mounts
    assert "won't settle this" in found.sentence


def test_no_gain_is_not_cannot_tell() -> None:
    c = compare_runs([run(BASE)], [run(BASE * 1.001)], known=Known(SHARP))
    assert judge(c, 3 * CFM).result == "no gain"
    assert judge(c, 0.5 * CFM).result == "can't tell"
    with pytest.raises(ValueError, match="above zero"):
        judge(c, 0.0)


def test_one_high_reading_is_not_a_gain() -> None:
    # PRACTICE: reading a dozen lifts and believing the best one
    flow = BASE.copy()
    flow[4] *= 1.03
    assert judge(compare_runs([run(BASE)], [run(flow)])).result != "better"


def test_a_trade_needs_two_neighbours_each_way() -> None:
    tilt = BASE * np.array([0.92, 0.92, 0.94, 1, 1, 1, 1.06, 1.08, 1.1, 1.1])
    found = judge(compare_runs([run(BASE)], [run(tilt)], known=Known(SHARP)), wording=Wording("mm"))
    assert found.trade
    assert found.headline == "A trade."
    assert "to 10, loses at 1 to" in found.sentence
    lone = BASE * np.array([1, 0.92, 1, 1, 1, 1, 1.06, 1.08, 1.1, 1.1])
    assert not judge(compare_runs([run(BASE)], [run(lone)], known=Known(SHARP))).trade


@pytest.mark.parametrize("change", [{"bore": 0.095}, {"entry": None}])
def test_what_may_not_be_compared_is_never_kept(change: dict[str, object]) -> None:
    found = judge(compare_runs([run(BASE)], [run(BASE * 1.2, replace(FULL, **change))]))
    assert found.result == "can't tell"
    assert found.headline.startswith(("Not to be compared.", "Can't compare"))
    assert set(compare_runs([run(BASE)], [run(BASE * 1.2, replace(FULL, **change))]).results) == {"not proven"}


def test_another_pressure_is_converted_with_its_own_doubt() -> None:
    # formula book: 10 to 28 inH2O is 1.6432 +- 0.65 %; the pair is brought to the pressure of the run after
    dp10 = to_si(10, "inH2O")
    low = run(BASE / 1.64319, replace(FULL, test_pressure=dp10))
    c = compare_runs([run(BASE)], [low], known=Known(SHARP))
    assert c.pressure == pytest.approx(dp10)
    assert c.after == pytest.approx(c.before, rel=1e-5)
    assert c.after[-1] / CFM == pytest.approx(BASE[-1] / 1.64319)
    assert c.expanded[-1] / c.before[-1] == pytest.approx(1.96 * 0.0065, rel=0.3)
    assert judge(c).result == "can't tell"
    own = compare_runs([run(BASE)], [low], known=Known(SHARP), pressure=to_si(28, "inH2O"))
    assert own.after[-1] / CFM == pytest.approx(BASE[-1], rel=1e-5)
    assert own.weighted_expanded / own.weighted_before == pytest.approx(
        c.weighted_expanded / c.weighted_before, rel=0.12
    )


def test_every_figure_of_a_pair_stands_at_one_pressure() -> None:
    low = run(BASE / 1.64319, replace(FULL, test_pressure=to_si(10, "inH2O")))
    c = compare_runs([run(BASE)], [low], known=Known(SHARP))
    had, has = c.before_runs[-1], c.after_runs[-1]
    assert had.flow[had.peak] == pytest.approx(has.flow[has.peak], rel=1e-5)
    assert had.converted
    assert not has.converted
    assert had.derived.cd_valve.tolist() == pytest.approx(
        run(BASE).derived.cd_valve.tolist(), nan_ok=True
    )  # never converted


def test_rungs_off_the_test_pressure_count_its_doubt_and_are_said() -> None:
    held = [to_si(v, "inH2O") for v in (24, 21, 19)]
    readings = tuple(
        Reading(id=str(i), lift=(i + 1) * 1e-3, flow=q * CFM, measured_pressure=None if i < 7 else held[i - 7])
        for i, q in enumerate(BASE)
    )
    short = reduce_run(FlowRun(id="r", setup_id="s", readings=readings), FULL)
    c = compare_runs([run(BASE)], [short], known=Known(SHARP))
    plain = compare_runs([run(BASE)], [run(BASE)], known=Known(SHARP))
    assert c.expanded[-1] / c.before[-1] > plain.expanded[-1] / plain.before[-1]
    assert c.expanded[0] / c.before[0] == pytest.approx(plain.expanded[0] / plain.before[0], rel=1e-3)
    said = judge(c, wording=Wording("mm")).sentence
    assert "From 8 on the run after missed its test pressure" in said


def test_interpolated_lifts_are_never_proven() -> None:
    odd = np.array([1, 3, 5, 7, 9, 10]) * 1e-3
    c = compare_runs([run(BASE)], [run(BASE[[0, 2, 4, 6, 8, 9]] * 1.1, lifts=odd)])
    assert list(np.round(c.lift[c.interpolated] * 1e3).astype(int)) == [2, 4, 6, 8]
    assert all(r == "not proven" for r, i in zip(c.results, c.interpolated, strict=True) if i)
    assert np.all(c.weights[c.interpolated] == 0)
    assert c.notes


def test_nothing_beyond_the_lower_reach() -> None:
    c = compare_runs([run(BASE)], [run(BASE[:6] * 1.1)])
    assert c.lift[-1] == pytest.approx(6e-3)
    assert "left out" in c.notes[0]
    nothing = judge(compare_runs([run(BASE)], [run(BASE[:5], lifts=np.arange(1, 6) * 1e-3 + 5e-4)]))
    assert nothing.result == "can't tell"
    assert "No lift was tested on both" in nothing.sentence


def test_one_mount_counts_no_mount_scatter() -> None:
    together = compare_runs([run(BASE, mount="3")], [run(BASE, mount="3")])
    apart = compare_runs([run(BASE, mount="3")], [run(BASE, mount="4")])
    unknown = compare_runs([run(BASE)], [run(BASE)])
    assert together.weighted_expanded < apart.weighted_expanded
    assert unknown.weighted_expanded == pytest.approx(apart.weighted_expanded)


def test_mounts_are_averaged() -> None:
    three = [run(BASE * f, mount=str(i)) for i, f in enumerate((0.99, 1.0, 1.01))]
    c = compare_runs(three, [run(BASE, mount="9")])
    assert c.before == pytest.approx(BASE * CFM)
    assert c.difference.before.mounts == 3


def test_volume_speaks_when_poured() -> None:
    c = compare_runs([run(BASE)], [run(BASE * 1.05)], cam=Cam(0.011, 4.0), known=Known(SHARP))
    assert "faster" in judge(c, volumes=Volumes(118e-6, 119e-6)).sentence
    assert "slower" in judge(c, volumes=Volumes(118e-6, 130e-6)).sentence
    assert "port" not in judge(c).sentence


def test_flow_and_index_are_not_held_together() -> None:
    columns = tuple(Reading(id=str(i), lift=i * 1e-3, element_column=400.0 * i, port_column=900.0) for i in range(1, 4))
    index = reduce_run(FlowRun(id="r", setup_id="s", readings=columns), FULL)
    assert index.kind == "index"
    assert index.flow == pytest.approx(np.sqrt([4 / 9, 8 / 9, 12 / 9]))
    with pytest.raises(ValueError, match="cannot be compared with"):
        compare_runs([run(BASE)], [index])


@pytest.mark.parametrize("factor", [1.0, 1.02, 1.08])
def test_verdict_does_not_hang_on_units(factor: float) -> None:
    us, metric = (
        judge(compare_runs([run(BASE)], [run(BASE * factor)]), wording=w) for w in (Wording(), Wording("mm", "l/s"))
    )
    assert us.result == metric.result
    assert us.weighted == metric.weighted

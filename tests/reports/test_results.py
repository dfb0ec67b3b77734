"""Results as documents and text: keys with units, numbers that JSON can hold, tables that line up."""

from __future__ import annotations

import json

import numpy as np
import pytest

from tests.core.builders import BASE, FULL, SHARP, run
from ventrix.core.formulas.knowledge import Known
from ventrix.core.judging.comparing import compare_runs
from ventrix.core.judging.verdict import judge
from ventrix.core.model.run import FlowRun, Reading, SetUp
from ventrix.core.quantity.units import CFM
from ventrix.core.runs.reduction import reduce_run
from ventrix.reports import results


@pytest.mark.parametrize(
    ("name", "unit", "key"),
    [
        ("bore", "mm", "bore_mm"),
        ("humidity", "%", "humidity_percent"),
        ("energy_density", "J/m3", "energy_density_J_m3"),
        ("ratio", "-", "ratio"),
        ("velocity", "ft/s", "velocity_ft_s"),
    ],
)
def test_keys_end_in_their_unit(name: str, unit: str, key: str) -> None:
    assert results.key_with_unit(name, unit) == key


def test_conditions_are_all_there() -> None:
    document = results.conditions_document(FULL)
    assert document["test_pressure_inH2O"] == pytest.approx(28)
    assert document["bore_mm"] == pytest.approx(89)
    assert document["temperature_degC"] is None
    assert document["centred"] is True
    assert "id" not in document


def test_documents_hold_no_nan() -> None:
    document = results.reduced_document(run(BASE))
    json.dumps(document, allow_nan=False)
    assert {p["cd_valve"] for p in document["points"]} == {None}
    c = compare_runs([run(BASE)], [run(BASE * 1.05)])
    json.dumps(results.comparison_document(c, judge(c)), allow_nan=False)


def test_points_add_up() -> None:
    c = compare_runs([run(BASE)], [run(BASE * 1.05)], known=Known(SHARP))
    document = results.comparison_document(c, judge(c))
    for point, base in zip(document["points"], BASE, strict=True):
        assert point["before_cfm"] == pytest.approx(base)
        assert point["difference_cfm"] == pytest.approx(0.05 * base)
        assert (point["result"] == "better") == (point["difference_cfm"] > point["expanded_uncertainty_cfm"])
    assert document["summary"]["weighted_difference_cfm"] == pytest.approx(0.05 * BASE.mean())


def test_what_would_look_the_same_is_among_the_flags() -> None:
    c = compare_runs([run(BASE)], [run(BASE * 1.05)], known=Known(SHARP))
    # 5 % of the smaller side is 4.9 % of the mean of both
    assert any("factor of +4.9" in flag for flag in results.comparison_document(c, judge(c))["flags"])


def test_an_index_is_never_called_cfm() -> None:
    readings = tuple(
        Reading(id=str(i), lift=i * 1e-3, element_column=400.0 * i, port_column=900.0) for i in range(1, 4)
    )
    index = reduce_run(FlowRun(id="r", setup_id="s", readings=readings), SetUp(id="s", direction="intake"))
    assert "cfm" not in json.dumps(results.reduced_document(index)["points"])
    assert "CFM" not in results.reduced_text(index, "mm")
    c = compare_runs([index], [index])
    told = results.comparison_text(c, judge(c), "mm").splitlines()
    assert "before index" in told[1]
    assert "CFM" not in "\n".join(told[1:3])


def test_tables_line_up() -> None:
    text = results.text_table(["lift", "CFM"], [["1.00", "31.2"], ["10.00", "192.0"]])
    assert len({len(line) for line in text.splitlines()}) == 1
    lines = results.reduced_text(run(BASE), "in").splitlines()
    assert len({len(line) for line in lines[:11]}) == 1


def test_interpolated_lifts_are_marked_in_text() -> None:
    few = run(BASE[[0, 2, 4]], lifts=np.array([1, 3, 5]) * 1e-3)
    c = compare_runs([run(BASE)], [few])
    assert results.comparison_text(c, judge(c), "mm").count("(interpolated)") == 2


def test_swapping_sides_swaps_the_answer() -> None:
    ways = [compare_runs([run(BASE)], [run(BASE + 4)]), compare_runs([run(BASE + 4)], [run(BASE)])]
    documents = [results.comparison_document(c, judge(c)) for c in ways]
    for a, b in zip(*(d["points"] for d in documents), strict=True):
        assert a["difference_cfm"] == pytest.approx(-b["difference_cfm"])
        assert a["expanded_uncertainty_cfm"] == pytest.approx(b["expanded_uncertainty_cfm"])
    assert ways[0].weighted / CFM == pytest.approx(4.0)

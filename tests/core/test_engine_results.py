"""Results on the engine: what may be laid at the head's door, and the shop's own power for flow. All of it common
practice, no source."""

from __future__ import annotations

from dataclasses import replace

import pytest

from ventrix.core.judging.engine_results import changes_on_the_engine, powers_for_flow, shop_power
from ventrix.core.judging.findings import Findings
from ventrix.core.judging.job_summary import summary_of
from ventrix.core.model.job_parts import EngineResult
from ventrix.core.quantity.units import to_si
from ventrix.demo.job import demo_benches, demo_job
from ventrix.records.files.job_document import dumps_job, loads_document
from ventrix.rooms.display_units import METRIC, US
from ventrix.rooms.plan.results_shows import engine_results_words

RPM = (to_si(3000, "rpm"), to_si(6000, "rpm"))


def dyno(moment: str, peak: float, **more: str) -> EngineResult:
    powers = (to_si(40, "kW"), to_si(peak, "kW"))
    return EngineResult(id=f"{moment}-{peak}", kind="dyno", moment=moment, speeds=RPM, powers=powers, **more)


def test_a_change_is_the_heads_only_where_nothing_else_was_changed() -> None:
    before = dyno("before", 100, correction="none")
    for also, correction, laid, why in (
        ("nothing", "none", True, "nothing else was changed"),
        ("Nothing", "NONE ", True, "nothing else was changed"),
        ("camshaft", "none", False, "also changed: camshaft"),
        ("", "none", False, "nobody said whether"),
        ("nothing", "SAE", False, "corrected differently: none and SAE"),
    ):
        after = dyno("after", 112, also_changed=also, correction=correction)
        (change,) = changes_on_the_engine(replace(demo_job(), engine_results=(before, after)))
        assert change.value == pytest.approx(to_si(12, "kW"))
        assert change.attributed is laid
        assert why in change.reason
    assert changes_on_the_engine(replace(demo_job(), engine_results=(dyno("after", 112),))) == ()


def test_power_for_flow_is_what_the_ceiling_is_reckoned_with() -> None:
    """0.257 hp a CFM at 28 inH2O a cylinder (common practice): an engine that makes just its ceiling has 0.257."""
    job = demo_job()
    findings = Findings(job, benches=demo_benches())
    runs = [r for p in job.ports if p.kind == "intake" for c in p.cuts for r in findings.runs_of(c, p)[-1:]]
    assert runs
    assert powers_for_flow(findings) == []
    made = replace(job, engine_results=(dyno("before", 90), dyno("after", 118)))
    (power,) = powers_for_flow(Findings(made, benches=demo_benches()))
    words = " ".join(engine_results_words(Findings(made, benches=demo_benches()), None, METRIC))
    ceiling = float(words.split("Ceiling of this flow: ")[1].split(" kW")[0])
    assert power == pytest.approx(0.257 * 118 / ceiling, rel=0.01)
    assert summary_of(Findings(made, benches=demo_benches())).powers == (power,)


def test_the_shop_has_its_own_from_three_results_on() -> None:
    assert shop_power([0.2, 0.3]) is None
    own = shop_power([0.20, 0.24, 0.28])
    assert own is not None
    assert (own.mean, own.spread, own.count) == (pytest.approx(0.24), pytest.approx(0.04), 3)
    words = engine_results_words(Findings(demo_job(), benches=demo_benches()), own, US)
    assert any("own 3 results (0.240 ± 0.040 hp a CFM)" in w for w in words)


def test_results_go_out_in_a_document_and_come_in_again() -> None:
    strip = EngineResult(id="s", kind="strip", time=12.48, speed=to_si(110, "mph"), also_changed="gears",
                         conditions="24 degC", fuel=to_si(9.4, "L/100km"), note="two runs")  # fmt: skip
    job = replace(demo_job(), engine_results=(dyno("after", 118), strip))
    back, _ = loads_document(dumps_job(job, benches=demo_benches()), "job.json")
    assert [r.id for r in back.engine_results] == ["after-118", "s"]
    assert back.engine_results[0].powers == pytest.approx(job.engine_results[0].powers)
    assert back.engine_results[1].speed == pytest.approx(to_si(110, "mph"))
    words = " ".join(engine_results_words(Findings(job), None, US))
    assert "strip, time and speed, after: 12.480 s, 110.0 mph, 9.4 L/100 km (24 degC)" in words.replace(
        "Strip", "strip"
    )

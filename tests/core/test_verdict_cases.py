"""A table of cases from the trade: what each looks like to the bench, and what the verdict must and must not say."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace

import numpy as np
import pytest

from tests.core.builders import BASE, FULL, SHARP, run
from ventrix.core.formulas.cam import Cam
from ventrix.core.formulas.flow_curve import FlowCurve
from ventrix.core.formulas.knowledge import Known
from ventrix.core.judging.air_speed import speed_change
from ventrix.core.judging.comparing import compare_runs
from ventrix.core.judging.comparison import RunComparison
from ventrix.core.judging.findings import Findings
from ventrix.core.judging.fingerprints import fingerprints
from ventrix.core.judging.pours import Volumes, volumes_of
from ventrix.core.judging.schools import bands, school_weights
from ventrix.core.judging.verdict import judge
from ventrix.core.judging.verdict_words import VerdictKind
from ventrix.core.model.cut import Cut, Port, Pour
from ventrix.core.model.job import Job
from ventrix.core.model.kinds import School
from ventrix.core.model.run import FlowRun, Reading, SetUp
from ventrix.core.quantity.units import CFM, INCH, to_si

LIFT = np.arange(1, 11) * 1e-3
CURVE = FlowCurve(LIFT, BASE)


@dataclass(frozen=True)
class Case:
    """What happened at the bench, what it does to the readings, what the verdict is, and where the case is from."""

    what: str
    after: Callable[[], RunComparison]
    kind: VerdictKind
    source: str
    volumes: Volumes | None = None


def pair(after: np.ndarray, before_setup: SetUp = FULL, after_setup: SetUp = FULL, **more: object) -> RunComparison:
    return compare_runs([run(BASE, before_setup)], [run(after, after_setup)], known=Known(SHARP), **more)  # type: ignore[arg-type]


def dial(inches: float) -> np.ndarray:
    """Readings with the dial's zero out: the valve really stood further open."""
    high = FlowCurve(np.r_[LIFT, 11e-3], np.r_[BASE, 193.0])
    return high.at(LIFT + inches * INCH)


GROWN = Volumes(118e-6, 119e-6)
PAPER = "common practice, no source"
CASES = (
    Case("a gain at every lift, the port hardly larger", lambda: pair(BASE * 1.06), "keep", PAPER, GROWN),
    Case("a gain paid for with volume", lambda: pair(BASE * 1.05), "costs speed", PAPER, Volumes(118e-6, 130e-6)),
    Case("gains high, loses low", lambda: pair(BASE + np.linspace(-6, 8, 10)), "trade", PAPER),
    Case("lost everywhere", lambda: pair(BASE * 0.95), "lost", PAPER),
    Case("polished: nothing to measure", lambda: pair(BASE * 1.0005), "no gain", PAPER),
    Case("dial zero three thousandths out", lambda: pair(dial(0.003)), "doubtful", PAPER),
    Case("one percent of pressure misread", lambda: pair(BASE * 1.012), "doubtful", PAPER),
    Case(
        "a lapped seat whose leak somebody subtracted",
        lambda: pair(BASE + 1.3),  # the old seat's leak had been taken off every lift before
        "doubtful",
        "formula book, leak_correct: a leaking seat is no leak once the valve is open",
    ),
    Case(
        "head off center",
        lambda: pair(BASE * (1 + 0.03 * np.clip(LIFT / 0.011, 0.2, 1)), FULL, replace(FULL, centred=False)),
        "can't be said",
        PAPER,
    ),
    Case("entry not recorded", lambda: pair(BASE * 1.05, FULL, replace(FULL, entry=None)), "can't be said", PAPER),
    Case("radius added at the entry", lambda: pair(BASE * 1.04, replace(FULL, entry="bare")), "can't be said", PAPER),
    Case("a larger sleeve", lambda: pair(BASE * 1.03, FULL, replace(FULL, bore=0.095)), "can't be said", PAPER),
    Case(
        "another valve, not the cut",
        lambda: pair(BASE * 1.03, FULL, replace(FULL, valve="test")),
        "can't be said",
        PAPER,
    ),
    Case("another bench", lambda: pair(BASE * 1.03, FULL, replace(FULL, bench="barn")), "can't be said", PAPER),
)


@pytest.mark.parametrize("case", CASES, ids=lambda c: c.what)
def test_cases_of_the_trade(case: Case) -> None:
    verdict = judge(case.after(), volumes=case.volumes)
    assert verdict.kind == case.kind, f"{verdict.headline} {verdict.sentence} {verdict.warnings} ({case.source})"
    if case.kind != "keep":
        assert verdict.headline != "Keep."


def test_a_volume_carried_from_an_earlier_cut_never_speaks() -> None:
    poured = Cut(id="a", number=0, pours=(Pour(id="p", volume=118e-6),))
    not_poured = Cut(id="b", number=1)
    assert volumes_of(poured, not_poured) is None
    assert "port grew" not in judge(pair(BASE * 1.05), volumes=None).sentence
    twice = replace(poured, pours=(Pour(id="p", volume=118e-6), Pour(id="q", volume=118.4e-6)))
    both = volumes_of(twice, poured)
    assert both is not None
    assert both.uncertainty_before < both.uncertainty_after


def test_a_doubtful_gain_names_what_would_look_the_same() -> None:
    found = fingerprints(pair(dial(0.003)))
    causes = {f.cause: f.amount for f in found}
    assert causes["dial zero"] == pytest.approx(0.003 * INCH, rel=0.15)
    assert any("dial zero 0.003" in w for w in judge(pair(dial(0.003))).warnings)
    big = judge(pair(BASE * 1.08))
    assert big.kind == "keep"  # nobody misses eight percent of pressure
    assert big.warnings


def test_speed_has_the_doubt_of_flow_and_both_pours() -> None:
    c = pair(BASE * 1.05)
    change, doubt = speed_change(c, Volumes(118e-6, 130e-6))
    assert change == pytest.approx(1.05 * 118 / 130 - 1)
    assert doubt == pytest.approx(
        np.hypot(c.weighted_expanded / c.weighted_before, 2 * np.hypot(0.3 / 118, 0.3 / 130)), rel=1e-6
    )


def test_schools_weigh_what_they_say() -> None:
    lift = np.arange(1, 13) * 0.05 * INCH
    cam = Cam(0.46 * INCH, to_si(220, "deg"))
    low, peak = school_weights(School.LOW, lift, lift, cam), school_weights(School.PEAK, lift, lift, cam)
    assert low.sum() == pytest.approx(1)
    assert list(np.flatnonzero(low)) == [0, 1, 2, 3]  # up to 0.23 in
    assert list(np.flatnonzero(peak)) == [7, 8]  # 0.368 to 0.46 in
    assert school_weights(School.LOW, lift[:1], lift[:1], cam).tolist() == [1.0]
    assert school_weights(School.CAM, lift, lift, cam).sum() < 1
    with pytest.raises(ValueError, match="is not one of"):
        school_weights("by feel", lift, lift, cam)
    edges = bands(lift, cam)
    assert edges[0][0] == 0
    assert edges[2][1] == pytest.approx(0.46 * INCH)


def test_one_school_speaks_and_dissenters_are_named() -> None:
    gains_high = BASE + np.linspace(-5, 8, 10)
    by_peak = judge(compare_runs([run(BASE)], [run(gains_high)], known=Known(SHARP), school=School.PEAK))
    by_low = judge(compare_runs([run(BASE)], [run(gains_high)], known=Known(SHARP), school=School.LOW))
    assert by_peak.result == "better"
    assert by_low.result == "worse"
    assert any(d.startswith(School.LOW) for d in by_peak.dissent)
    assert any(d.startswith(School.PEAK) for d in by_low.dissent)
    assert judge(pair(BASE * 1.06)).dissent == ()
    assert set(School) == {School.CAM, School.LOW, School.PEAK, School.MINE}


def test_a_trade_says_where_it_turns() -> None:
    verdict = judge(pair(BASE + np.linspace(-6, 8, 10)))
    assert verdict.turns_at == pytest.approx(1e-3 + 6 / 14 * 9e-3, rel=0.05)
    assert "it turns at" in verdict.sentence


def readings(flows: np.ndarray, *, wrong: int | None = None) -> tuple[Reading, ...]:
    made = [
        Reading(id=f"{i}-{flows[0]}", lift=float(x), flow=float(q) * CFM)
        for i, (x, q) in enumerate(zip(LIFT, flows, strict=True))
    ]
    if wrong is not None:
        made.append(Reading(id="low", lift=float(LIFT[wrong]), flow=0.6 * flows[wrong] * CFM, struck="looked low"))
    return tuple(made)


def job_of(*cuts: Cut) -> Job:
    port = Port(id="p", name="Intake 1", kind="intake", cuts=cuts)
    return Job(id="j", title="t", ports=(port,), setups=(replace(FULL, id="s"),))


def test_striking_that_makes_the_verdict_is_said() -> None:
    had = Cut(id="a", number=0, runs=(FlowRun(id="r0", setup_id="s", readings=readings(BASE)),))
    low = tuple(
        replace(r, id=f"x{r.id}", struck="looked low", flow=0.8 * r.flow) for r in readings(BASE * 1.06) if r.flow
    )
    has = Cut(id="b", number=1, runs=(FlowRun(id="r1", setup_id="s", readings=(*readings(BASE * 1.06), *low)),))
    job = job_of(had, has)
    findings = Findings(job)
    verdict = findings.verdict(findings.pair(job.ports[0], *job.ports[0].cuts))
    assert verdict is not None
    assert verdict.result == "better"
    assert any("With the struck readings counted" in w for w in verdict.warnings)


def test_five_unproven_gains_may_make_a_proven_three_percent() -> None:
    from ventrix.core.judging.row_of_cuts import last_together, row_of_cuts

    cuts = [
        Cut(id=f"c{i}", number=i, runs=(FlowRun(id=f"r{i}", setup_id="s", readings=readings(BASE * 1.008**i)),))
        for i in range(6)
    ]
    job = job_of(*cuts)
    findings = Findings(job)
    row = row_of_cuts(findings, job.ports[0])
    assert all(s.own is not None and s.own.result != "better" for s in row.steps)
    last = row.steps[-1]
    assert last.total is not None
    assert last.total.value == pytest.approx((1.008**5 - 1) * row.first_flow if row.first_flow else None)
    assert last.total.result == "better"
    # five looks of nothing at a chance of one in forty each: 1 - 0.975^5 = 11.9 %
    assert row.looks == 5
    assert row.luck == pytest.approx(0.119, abs=0.001)
    together = last_together(findings, job.ports[0], 5)
    assert together is not None
    assert together[2] is not None
    assert together[2].result == "better"
    assert last_together(findings, job.ports[0], 6) is None


def test_a_claim_never_counts_as_measured() -> None:
    claim = FlowRun(id="c", setup_id="s", readings=readings(BASE * 1.3), claimed="the seller's sheet", source="claimed")
    cut = Cut(id="a", number=0, runs=(claim,))
    flowed = Cut(id="b", number=1, runs=(FlowRun(id="r", setup_id="s", readings=readings(BASE)),))
    job = job_of(cut, flowed)
    findings = Findings(job)
    assert findings.runs_of(cut, job.ports[0]) == ()
    claims = findings.claims_of(cut, job.ports[0])
    assert claims[0].claimed == "the seller's sheet"
    held = findings.compare_across(claims, job.ports[0], flowed)
    verdict = findings.verdict(held)
    assert verdict is not None
    assert verdict.kind == "can't be said"
    assert "the seller's sheet claims it" in verdict.sentence

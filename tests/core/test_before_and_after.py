"""Two runs of one bench: did it change between them, what was meant by a gain, and who may ask at the same time."""

from __future__ import annotations

import threading
from dataclasses import replace

import numpy as np
import pytest

from tests.core.builders import BASE, FULL, SHARP, run
from tests.core.test_matching import one_head
from ventrix.core.formulas.knowledge import Check, Known
from ventrix.core.judging.checks import CheckKind, again_check, check_offer, plate_check, witness_of
from ventrix.core.judging.comparing import compare_runs
from ventrix.core.judging.exhaust_share import exhaust_share
from ventrix.core.judging.findings import Findings
from ventrix.core.judging.verdict import judge
from ventrix.core.lineup.chambers import compression_of
from ventrix.core.model.bench import Bench, PlateCheck
from ventrix.core.model.cut import Cut, Port, Pour
from ventrix.core.model.job import Job
from ventrix.core.model.job_parts import Chamber
from ventrix.core.model.kinds import ExpectedAs
from ventrix.core.model.run import FlowRun, Reading
from ventrix.core.quantity.units import CFM, to_si

MAY, JUNE = "2026-05-03T09:00:00+02:00", "2026-06-04T09:00:00+02:00"
BENCH = Bench(id="b", name="back-room", plate_flow=150 * CFM, plates=tuple(
    PlateCheck(id=day, nominal=150 * CFM, flow=flow * CFM, date=day) for day, flow in ((MAY, 150.0), (JUNE, 153.0))
))  # fmt: skip


def flowed(name: str, day: str, flows: np.ndarray = BASE, setup: str = "s") -> FlowRun:
    readings = tuple(Reading(id=f"{name}-{i}", lift=(i + 1) * 1e-3, flow=float(q) * CFM) for i, q in enumerate(flows))
    return FlowRun(id=name, setup_id=setup, date=day, readings=readings)


def test_a_plate_that_moved_two_percent_is_the_drift() -> None:
    found = plate_check(flowed("a", MAY), flowed("b", JUNE), BENCH, SHARP)
    assert found is not None and found.kind == CheckKind.PLATE
    assert found.drift == pytest.approx(153 / 150 - 1)
    assert plate_check(flowed("a", MAY), flowed("b", MAY), BENCH, SHARP) is None  # one plate speaks for both


def test_the_earlier_state_flowed_again_is_the_drift() -> None:
    had, then = replace(run(BASE), date=MAY), replace(run(1.02 * BASE), date=JUNE)
    after = replace(run(1.05 * BASE), date=JUNE)
    found = again_check([had, then], [after], SHARP)
    assert found is not None and found.drift == pytest.approx(0.02)
    assert again_check([had], [after], SHARP) is None


@pytest.mark.parametrize(("rise", "checked", "plain"), [(1.03, False, False), (1.03, True, True), (1.06, False, True)])
def test_a_small_gain_is_plain_only_with_a_check(rise: float, checked: bool, plain: bool) -> None:
    check = (Check(CheckKind.PLATE, 0.0, 0.001, 50.0),) if checked else ()
    known = Known(SHARP, checks=check)
    verdict = judge(compare_runs([run(BASE, mount="1")] * 2, [run(rise * BASE, mount="2")] * 2, known=known))
    assert verdict.kind == "keep"
    assert verdict.needs_check is not plain
    assert ("nothing at the bench changed" in verdict.headline) is not plain


def test_what_a_check_saw_is_no_gain() -> None:
    """Three percent more, two of which the plate read more too, within 0.3 %: one is left, and it is not proven."""
    known = Known(SHARP, checks=(Check(CheckKind.PLATE, 0.02, 0.003, 50.0),))
    verdict = judge(compare_runs([run(BASE)], [run(1.03 * BASE)], known=known))
    assert verdict.kind != "keep" or not verdict.is_plain_keep
    assert any("plate" in w for w in verdict.warnings)


def head_with_witness(witnessed: bool) -> tuple[Job, Port]:
    cuts = tuple(Cut(id=f"c{n}", number=n, runs=(flowed(f"run{n}", day),)) for n, day in enumerate((MAY, JUNE)))
    seen = (flowed("w0", MAY),) if witnessed else ()
    witness = Port(id="w", name="Intake 8", kind="intake", witness=True, cuts=(Cut(id="w-c", number=0, runs=seen),))
    port = Port(id="p", name="Intake 1", kind="intake", cuts=cuts)
    return Job(id="j", title="j", setups=(replace(FULL, id="s"),), ports=(port, witness)), port


def test_the_check_that_is_offered_is_the_one_the_earlier_run_had() -> None:
    job, port = head_with_witness(witnessed=True)
    offer = check_offer(job, port, *port.cuts, BENCH, JUNE)
    assert offer is not None and (offer.kind, offer.cut_id) == (CheckKind.WITNESS, "w-c")
    bare, port = head_with_witness(witnessed=False)
    offer = check_offer(bare, port, *port.cuts, BENCH, JUNE)
    assert offer is not None and (offer.kind, offer.cut_id) == (CheckKind.PLATE, "c1")
    assert check_offer(bare, port, *port.cuts, None, JUNE) is None
    assert check_offer(job, port, *port.cuts, BENCH, "2026-06-05") is None  # another day's check says nothing of it


def test_a_witness_of_the_same_day_speaks_though_nobody_named_it() -> None:
    job, port = head_with_witness(witnessed=True)
    found = witness_of(job, port.cuts[0].runs[0])
    assert found is not None and found.id == "w0"
    assert witness_of(job, port.cuts[1].runs[0]) is None
    other = replace(job.setups[0], id="t", bench="another")
    moved = replace(job, setups=(*job.setups, other))
    assert witness_of(moved, replace(port.cuts[0].runs[0], setup_id="t")) is None


def test_a_gain_is_scored_as_it_was_meant() -> None:
    """27.9 more at peak and 20 at 8 mm: what was said of the peak is held to the peak."""
    after = BASE + np.linspace(0.0, 27.9, 10)
    found = compare_runs([run(BASE)], [run(after)], known=Known(SHARP))
    peak = found.gain_as(ExpectedAs.PEAK)
    at_lift = found.gain_as(ExpectedAs.LIFT, 8e-3)
    assert peak is not None and at_lift is not None
    assert peak.change / CFM == pytest.approx(27.9, abs=0.01)
    assert at_lift.change / CFM == pytest.approx(27.9 * 7 / 9, abs=0.01)
    assert found.gain_as(ExpectedAs.LIFT, 0.02) is None


def shares(bench: str, bore: float = 0.089) -> tuple[str, ...] | None:
    """The marks of an exhaust share between an intake on one bench and an exhaust on another."""
    setups = (replace(FULL, id="s"), replace(FULL, id="x", direction="exhaust", bench=bench, bore=bore))
    intake = Port(id="i", name="Intake 1", kind="intake", cuts=(Cut(id="i0", number=0, runs=(flowed("ri", MAY),)),))
    exhaust = Port(id="e", name="Exhaust 1", kind="exhaust",
                   cuts=(Cut(id="e0", number=0, runs=(flowed("re", MAY, 0.7 * BASE, "x"),)),))  # fmt: skip
    findings = Findings(Job(id="j", title="j", setups=setups, ports=(intake, exhaust)))
    found = exhaust_share(findings, exhaust, exhaust.cuts[0])
    return None if found is None else found.marks


def test_exhaust_over_intake_says_what_keeps_them_apart() -> None:
    assert shares("back-room") == ()
    assert shares("the other one") == ("other bench",)
    assert shares("back-room", 0.100) == ("other sleeve",)


def test_compression_has_one_basis() -> None:
    """4.000 by 3.480 in, chamber 64 cc, gasket 0.040 in at the bore, flat piston 0.010 in down: 716.6 cc swept, 10.3 cc
    between, so (716.6 + 74.3) / 74.3 = 10.65 (by hand)."""
    job = Job(id="j", title="j", bore=to_si(4.0, "in"), stroke=to_si(3.48, "in"),
              gasket_thickness=to_si(0.040, "in"), deck_clearance=to_si(0.010, "in"))  # fmt: skip
    assert compression_of(job, to_si(64, "cc")) == pytest.approx(10.65, abs=0.01)
    poured = Chamber(id="c", cylinder=1, pours=(Pour(id="p", volume=to_si(64, "cc")),))
    stated = replace(job, gasket_thickness=None, compression_ratio=9.5, chambers=(poured,))
    assert compression_of(stated, to_si(64, "cc")) == pytest.approx(9.5)
    assert compression_of(replace(stated, chambers=()), to_si(64, "cc")) is None


def test_two_threads_ask_one_job(long: bool) -> None:
    """What one thread is told while another asks is what it is told alone: a thousand times over."""
    job, bench = one_head(np.random.default_rng(3), 0.0)
    alone = Findings(job, benches=(bench,)).known("b").scatter
    for _ in range(1000 if long else 150):
        findings = Findings(job, benches=(bench,))
        told, ready = [], threading.Barrier(2)

        def ask(findings: Findings = findings, ready: threading.Barrier = ready, told: list[object] = told) -> None:
            ready.wait()
            told.append(findings.known("b").scatter)
            told.append(findings.evidence() is findings.evidence())

        threads = [threading.Thread(target=ask) for _ in range(2)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        assert told.count(alone) == 2 and told.count(True) == 2

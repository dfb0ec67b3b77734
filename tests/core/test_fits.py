"""Springs, guides, contacts, heights and flatness against limits that the user can change; holes and parts that hold up
work. Arithmetic by hand in inches; limits are common practice, no source."""

from __future__ import annotations

from dataclasses import replace
from datetime import date

import pytest

from ventrix.core.judging.findings import Findings
from ventrix.core.judging.fits import FitCheck, fit_checks
from ventrix.core.metal.walls import tube_at
from ventrix.core.model.cut import Tube
from ventrix.core.model.job import Job
from ventrix.core.model.job_parts import PartOfJob
from ventrix.core.model.kinds import FitKind, HoleWork
from ventrix.core.next_hour.work_item import ItemKind
from ventrix.core.next_hour.work_list import work_list
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import to_si
from ventrix.core.work.hours import hours_of
from ventrix.core.work.record import record_of
from ventrix.demo.job import demo_benches, demo_job
from ventrix.demo.whole_head import whole_head
from ventrix.rooms.head.fit_limits import fit_limit_text, fit_limit_typed

INCH = 0.0254
MONDAY = date(2026, 11, 30)


def with_intake(**inches: float | str) -> Job:
    """The demo's head, its intake valves with these figures, 0.450 of lift."""
    job = demo_job()
    ids = {job.valve_of(p, p.cuts[-1]).id for p in job.ports if p.kind == "intake"}  # type: ignore[union-attr]
    values = {k: v if isinstance(v, str) else v * INCH for k, v in inches.items()}
    valves = tuple(replace(v, **values) if v.id in ids else v for v in job.valves)  # type: ignore[arg-type]
    return replace(job, valves=valves, cam_lift=0.450 * INCH)


def first(job: Job, what: FitKind) -> FitCheck:
    return next(c for c in fit_checks(job) if c.what is what)


def test_a_spring_that_binds_before_full_lift_is_said_and_not_refused() -> None:
    held = first(with_intake(spring_height=1.700, coil_bind=1.150), FitKind.COIL_BIND)
    assert held.value == pytest.approx(0.100 * INCH) and held.holds is True
    close = first(with_intake(spring_height=1.700, coil_bind=1.220), FitKind.COIL_BIND)
    assert close.holds is False and "0.0300 in, under 0.0591 in" in close.says
    binds = first(with_intake(spring_height=1.700, coil_bind=1.280), FitKind.COIL_BIND)
    assert binds.holds is False and "binds 0.0300 in before full lift" in binds.says
    half = fit_checks(with_intake(spring_height=1.7))
    assert FitKind.COIL_BIND not in {c.what for c in half}, "half of what it needs says nothing"


def test_a_guides_clearance_goes_by_kind_and_metal() -> None:
    assert first(with_intake(guide_clearance=0.0012), FitKind.GUIDE).holds is True
    assert first(with_intake(guide_clearance=0.0030), FitKind.GUIDE).holds is False
    assert first(with_intake(guide_clearance=0.0030, metal="titanium"), FitKind.GUIDE).holds is False
    assert first(with_intake(guide_clearance=0.0029, metal="sodium"), FitKind.GUIDE).holds is True


def test_the_users_own_limit_goes_before_the_usual() -> None:
    job = with_intake(guide_clearance=0.0030, fitted_height=1.8)
    own = fit_limit_typed("guide intake 0.001-0.0035", "in", "l")
    assert fit_limit_text(own, "in") == "guide intake 0.001-0.0035"
    assert first(replace(job, fit_limits=(own,)), FitKind.GUIDE).holds is True
    tight = fit_limit_typed("guide -0.002", "in", "m")
    found = first(replace(job, fit_limits=(tight,)), FitKind.GUIDE)
    assert found.holds is False and "your limit" in found.says
    for wrong in ("guide", "spring 1-2", "guide both 1-2", "coil bind 0.06", "guide 0.003-0.001", "lap a-b"):
        with pytest.raises(Refused):
            fit_limit_typed(wrong, "in", "x")


def test_heights_lie_together_and_each_head_is_flat_by_itself() -> None:
    job = whole_head(MONDAY)
    heads = tuple(replace(h, flatness=0.003 * INCH) for h in job.heads)
    found = first(replace(job, heads=heads), FitKind.FLATNESS)
    assert found.holds is False and found.of == "head"
    ids = [v.id for v in job.valves]
    uneven = tuple(replace(v, fitted_height=(1.80 + 0.02 * (v.id == ids[0])) * INCH) for v in job.valves)
    assert {c.of for c in fit_checks(replace(job, valves=uneven)) if c.what is FitKind.HEIGHTS} == {
        "intakes",
        "exhausts",
    }


def test_a_hole_that_is_shut_is_a_breakthrough_that_was_planned_and_a_tapped_one_is_not() -> None:
    port = demo_job().ports[0]
    for work, planned in ((HoleWork.PLUGGED, True), (HoleWork.WELDED, True), (HoleWork.TAPPED, False)):
        cut = replace(port.cuts[0], tubes=(Tube(id="t", place="pinch", work=work),))
        found = tube_at(replace(port, cuts=(cut,)), cut, "pinch", None)
        assert (found is not None) is planned, work


def test_parts_that_are_not_here_hold_up_their_stage_and_a_late_one_the_promise() -> None:
    job = replace(demo_job(), promise_date="2026-12-11")
    springs = PartOfJob(id="s", kind="spring", name="springs", count=8, state="ordered", stage="wash", due="2026-12-10")
    waiting = replace(job, parts=(springs,))
    listed = {i.key: i for i in work_list(Findings(waiting, benches=demo_benches()), MONDAY).items}
    wash = next(i for i in listed.values() if i.stage == "wash")
    assert "8 springs are here, promised for 2026-12-10" in [w.words for w in wash.waits]
    assert not [i for i in listed.values() if i.key == "part s"], "it is ordered"

    def odds(due: str) -> float:
        part = replace(springs, due=due)
        found = hours_of(record_of(Findings(replace(job, parts=(part,)), benches=demo_benches())), MONDAY).holds
        assert found is not None
        return found

    assert odds("2026-12-12") == 0.0 < odds("2026-12-01")
    late = work_list(Findings(waiting, benches=demo_benches()), date(2026, 12, 11)).items
    assert any(i.kind is ItemKind.OUTSIDE and i.what.startswith("ask about the springs") for i in late)
    assert to_si(1, "lbf") == pytest.approx(4.4482216152605)  # [8] NIST SP 811, appendix B.8

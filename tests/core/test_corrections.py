"""Set right afterwards: conditions, lifts, any part by its id. What was measured stays; what was said is kept."""

from __future__ import annotations

from dataclasses import replace
from itertools import count

import pytest

from ventrix.core.edits.anywhere import edit_part, find_part, parts_below, put_in_part, take_out_part
from ventrix.core.edits.corrections import correct_conditions, correct_lift
from ventrix.core.judging.findings import Findings
from ventrix.core.model.cut import Cut, Port, WallReading
from ventrix.core.model.run import FlowRun, Reading
from ventrix.demo.job import demo_job

JOB = demo_job()
RUN = JOB.ports[0].cuts[2].runs[0]


NUMBERS = count()


def new_id() -> str:
    return f"new-{next(NUMBERS)}"


def test_a_condition_set_right_leaves_the_readings_and_other_runs_alone() -> None:
    job = correct_conditions(JOB, RUN.id, {"bore": 0.088, "entry": "bare"}, "wrong sheet", "2026-06-01", new_id)
    run = next(r for r in job.runs() if r.id == RUN.id)
    assert run.readings == RUN.readings
    assert job.setup(run.setup_id).bore == 0.088 and job.setup(run.setup_id).entry == "bare"
    assert JOB.setup(RUN.setup_id) in job.setups, "what it was stays in the book"
    assert {c.what: (c.was, c.became, c.reason) for c in run.corrections}["entry"] == ("radius", "bare", "wrong sheet")
    others = [r for r in job.runs() if r.id != RUN.id]
    assert others == [r for r in JOB.runs() if r.id != RUN.id]


def test_the_verdict_follows_the_condition_set_right() -> None:
    port = JOB.ports[0]
    before, after = port.cuts[1], port.cuts[2]
    level = lambda job: Findings(job).pair(job.ports[0], before, job.ports[0].cuts[2]).comparison.comparability.level  # type: ignore[union-attr]  # noqa: E731
    assert level(JOB) == "yes" and after.runs[0] is RUN
    wrong = correct_conditions(JOB, RUN.id, {"bore": 0.100}, "was the larger sleeve", "2026-06-01", new_id)
    assert level(wrong) == "no"
    missing = correct_conditions(JOB, RUN.id, {"entry": None}, "nobody knows", "2026-06-01", new_id)
    assert level(missing) == "unknown"
    again = correct_conditions(missing, RUN.id, {"entry": "radius"}, "found the note", "2026-06-02", new_id)
    assert level(again) == "yes"
    assert [c.became for c in next(r for r in again.runs() if r.id == RUN.id).corrections] == ["not recorded", "radius"]


def test_without_a_reason_or_a_change_nothing_happens() -> None:
    with pytest.raises(ValueError, match="say why"):
        correct_conditions(JOB, RUN.id, {"bore": 0.1}, "  ", "2026-06-01", new_id)
    same = {"bore": JOB.setup(RUN.setup_id).bore}
    assert correct_conditions(JOB, RUN.id, same, "why not", "2026-06-01", new_id) is JOB
    with pytest.raises(KeyError):
        correct_conditions(JOB, "nobody", {"bore": 0.1}, "x", "2026-06-01", new_id)


def typed_job() -> object:
    readings = tuple(Reading(id=f"t{i}", lift=0.001 * (i + 1), flow=0.01 * (i + 1)) for i in range(3))
    run = FlowRun(id="typed", setup_id=RUN.setup_id, readings=readings)
    cut = replace(JOB.ports[0].cuts[3], runs=(run,))
    port = replace(JOB.ports[0], cuts=(*JOB.ports[0].cuts[:3], cut))
    return replace(JOB, ports=(port, *JOB.ports[1:]))


def test_a_typed_lift_is_set_right_and_the_wrong_one_stays_struck() -> None:
    job = correct_lift(typed_job(), "typed", "t1", 0.0025, "dial misread", "right")  # type: ignore[arg-type]
    run = next(r for r in job.runs() if r.id == "typed")
    assert [(r.id, r.lift, r.struck) for r in run.readings] == [
        ("t0", 0.001, None),
        ("t1", 0.002, "lift set right: dial misread"),
        ("right", 0.0025, None),
        ("t2", 0.003, None),
    ]
    assert run.readings[2].flow == run.readings[1].flow


@pytest.mark.parametrize(("lift", "reason"), [(0.002, ""), (0.0, "x"), (-1.0, "x")])
def test_a_lift_without_reason_or_sense_is_refused(lift: float, reason: str) -> None:
    with pytest.raises(ValueError):
        correct_lift(typed_job(), "typed", "t1", lift, reason, "n")  # type: ignore[arg-type]


def test_a_lift_the_bench_measured_stays() -> None:
    run = replace(RUN, source="simulated")
    cuts = tuple(replace(c, runs=(run,)) if c.id == JOB.ports[0].cuts[2].id else c for c in JOB.ports[0].cuts)
    job = replace(JOB, ports=(replace(JOB.ports[0], cuts=cuts), *JOB.ports[1:]))
    with pytest.raises(ValueError, match="measured by the bench"):
        correct_lift(job, RUN.id, RUN.readings[0].id, 0.002, "x", "n")


def test_every_part_is_found_taken_out_and_put_back_where_it_was() -> None:
    parts = [f for f in parts_below(JOB) if type(f.noun).__name__ in ("Cut", "WallReading", "Pour", "Work", "Fault")]
    assert len(parts) > 20
    for found in parts:
        kind = type(found.noun)
        gone = take_out_part(JOB, kind, found.noun.id)
        with pytest.raises(KeyError):
            find_part(gone, kind, found.noun.id)
        back = put_in_part(gone, found.parent.id, type(found.parent), found.field, found.at, found.noun)
        assert back == JOB


def test_an_edit_shares_everything_it_does_not_touch() -> None:
    wall = JOB.ports[0].cuts[0].walls[0]
    job = edit_part(JOB, WallReading, wall.id, lambda w: replace(w, note="read twice"))
    assert job.ports[1] is JOB.ports[1] and job.ports[0].cuts[1] is JOB.ports[0].cuts[1]
    assert find_part(job, WallReading, wall.id).noun.note == "read twice"  # type: ignore[attr-defined]
    assert isinstance(find_part(job, Cut, JOB.ports[0].cuts[0].id).parent, Port)

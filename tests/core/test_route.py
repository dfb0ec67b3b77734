"""The route without a bench: its order by use, what schools and limits add, and what counts as done. All of it common
practice, no source."""

from __future__ import annotations

from dataclasses import asdict, replace

import pytest

from ventrix.core.judging.findings import Findings
from ventrix.core.model.job import Job
from ventrix.core.model.kinds import Use
from ventrix.core.work.route import Card, next_card, route
from ventrix.demo.job import demo_job

JOB = demo_job()


def card(job: Job, port: str, stage: str) -> Card:
    return next(c for c in route(Findings(job)) if (c.port, c.stage) == (port, stage))


def test_one_port_is_finished_then_stage_by_stage_over_the_others() -> None:
    cards = route(Findings(JOB))
    first = cards[:17]
    assert {c.port for c in first} == {"Intake 1"}
    assert [c.stage for c in first][:3] == ["clean", "faults", "walls"]
    after = cards[17:]
    assert [c.stage for c in after[:3]] == ["clean"] * 3
    assert len(cards) == 17 * 4
    stages = [c.stage for c in first]
    assert stages.index("walls") < stages.index("ridge") < stages.index("valve job") < stages.index("re-blend")
    assert stages[-1] == "end list"


def test_a_truck_has_its_exhaust_first_and_its_intake_left_small() -> None:
    truck = replace(JOB, use=Use.TRUCK.value)
    assert route(Findings(truck))[0].port == "Exhaust 1"
    assert "left small" in card(truck, "Intake 1", "short side").leave
    assert "left small" not in card(truck, "Exhaust 1", "short side").leave
    assert "left small" not in card(JOB, "Intake 1", "short side").leave


def test_oval_and_drag_say_their_own() -> None:
    assert "stays small" in card(replace(JOB, use=Use.OVAL.value), "Intake 1", "walls and roof").leave
    assert "area comes first" in card(replace(JOB, use=Use.DRAG.value), "Intake 1", "walls and roof").cut


def test_schools_and_limits_speak_on_their_cards() -> None:
    assert (
        "You keep throats at 85 to 88 %"
        in card(replace(JOB, schools={"throat": "85-88 %, for speed"}), "Intake 1", "ridge").stop_when
    )
    assert "Your limit here is 0.110 in." in card(JOB, "Intake 1", "short side").stop_when
    assert "exhaust valves without a back cut" in card(JOB, "Exhaust 1", "valve job").leave
    assert "back cut" not in card(JOB, "Intake 1", "valve job").leave


def test_no_card_is_without_its_stop_and_metal_has_its_caution() -> None:
    for each in route(Findings(JOB)):
        assert each.stop_when
        assert each.cut
        assert each.closed_by in ("gauge", "cc", "feel", "photo", "flow")
        if each.stage in ("ridge", "short side", "walls and roof"):
            assert "not read on this very port has no clearance" in each.caution
        if each.stage == "valve job":
            assert "machine shop" in each.caution


def test_a_new_job_begins_with_cleaning_and_moves_on_as_it_is_told() -> None:
    bare = replace(
        JOB,
        flatness=None,
        check_marks=(),
        ports=tuple(replace(p, faults=(), cuts=(replace(p.cuts[0], walls=(), pours=()),)) for p in JOB.ports),
    )
    first = next_card(route(Findings(bare)))
    assert first is not None
    assert first.stage == "clean"
    assert not any(c.done for c in route(Findings(bare)) if c.stage in ("ridge", "guide", "valve job", "pour"))
    on = next_card(route(Findings(replace(bare, flatness=0.00005))))
    assert on is not None
    assert on.stage == "faults"


def test_a_route_of_no_port() -> None:
    with pytest.raises(ValueError, match="needs a port"):
        route(Findings(replace(JOB, ports=())))


def test_keys_are_the_contract() -> None:
    assert list(asdict(route(Findings(JOB))[0])) == [
        "stage", "port", "look", "measure", "cut", "leave", "stop_when", "caution", "closed_by", "done",
    ]  # fmt: skip

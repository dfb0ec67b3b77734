"""Valves set right or changed, seats by recipe and version, one valve job over several ports."""

from __future__ import annotations

from dataclasses import replace

import pytest

from ventrix.core.edits.valves import (
    VALVE_JOB,
    asks_whether_changed,
    change_valve,
    correct_valve,
    log_valve_job,
    next_version,
    same_seat,
)
from ventrix.core.model.cut import Cut, Operation, Port, Work
from ventrix.core.model.job import Job, fitted_at
from ventrix.core.model.job_parts import Seat, Valve
from ventrix.core.model.run import FlowRun, Reading

READ = FlowRun(id="r", setup_id="s", readings=(Reading(id="x", lift=0.005, flow=0.05),))
STRUCK = replace(READ, readings=(replace(READ.readings[0], struck="slipped"),))


def head(*flowed: bool, valve: str | None = "v") -> Job:
    cuts = tuple(
        Cut(id=f"c{i}", number=i, runs=(replace(READ, id=f"r{i}"),) if on else ()) for i, on in enumerate(flowed)
    )
    ports = (
        Port(id="p", name="Intake 1", kind="intake", valve_id=valve, cuts=cuts),
        Port(id="q", name="Intake 2", kind="intake", valve_id=valve, cuts=(Cut(id="q0", number=0),)),
    )
    return Job(id="j", title="t", valves=(Valve(id="v", name="intake valve", head_diameter=0.046),), ports=ports)


@pytest.mark.parametrize(
    ("flowed", "at", "asks"),
    [
        ((True, True), 0, False),  # nothing came before
        ((True, True), 1, True),
        ((False, False, True), 2, False),  # an earlier cut, and never flowed
        ((False, True, False), 2, True),
    ],
)
def test_it_is_asked_only_where_an_earlier_cut_was_flowed_with_it(
    flowed: tuple[bool, ...], at: int, asks: bool
) -> None:
    job = head(*flowed)
    assert asks_whether_changed(job, job.ports[0], job.ports[0].cuts[at]) is asks


def test_it_is_not_asked_of_a_cut_with_a_valve_of_its_own_or_where_every_reading_was_struck() -> None:
    job = head(True, True)
    own = change_valve(job, job.ports[0], job.ports[0].cuts[1], "w", head_diameter=0.048)
    assert not asks_whether_changed(own, own.ports[0], own.ports[0].cuts[1])
    port = replace(job.ports[0], cuts=(replace(job.ports[0].cuts[0], runs=(STRUCK,)), job.ports[0].cuts[1]))
    struck = replace(job, ports=(port, job.ports[1]))
    assert not asks_whether_changed(struck, port, port.cuts[1])


def test_corrected_it_always_was_so_everywhere_it_is_fitted() -> None:
    job = head(True, True)
    right = correct_valve(job, job.ports[0], job.ports[0].cuts[1], "unused", head_diameter=0.047)
    assert [right.valve_of(p, c).head_diameter for p in right.ports for c in p.cuts] == [0.047] * 3  # type: ignore[union-attr]
    assert len(right.valves) == 1


def test_changed_it_is_another_from_that_cut_on_and_only_at_that_port() -> None:
    job = head(True, True, False)
    changed = change_valve(job, job.ports[0], job.ports[0].cuts[1], "w", head_diameter=0.048)
    sizes = [changed.valve_of(p, c).head_diameter for p in changed.ports for c in p.cuts]  # type: ignore[union-attr]
    assert sizes == [0.046, 0.048, 0.048, 0.046]
    assert fitted_at(changed.ports[0], changed.ports[0].cuts[2]) == (("w",), 1)
    assert changed.valves[1].name == "intake valve", "what was not said is as before"


def test_a_port_without_a_valve_gets_one() -> None:
    job = head(True, valve=None)
    made = correct_valve(job, job.ports[0], job.ports[0].cuts[0], "new", head_diameter=0.05)
    assert made.ports[0].valve_id == "new" and made.ports[1].valve_id is None


# -- seats

STREET = Seat(id="s1", recipe="Street", version=1, angles=(0.5, 0.8), widths=(0.001, 0.0012))


def test_like_sizes_of_one_recipe_are_one_seat_and_others_the_next_version() -> None:
    job = replace(head(True), seats=(STREET, replace(STREET, id="s2", version=2, widths=(0.001, 0.0015))))
    assert same_seat(job, replace(STREET, id="new", version=9)) is job.seats[0]
    assert same_seat(job, replace(STREET, id="new", widths=(0.001, 0.002))) is None
    assert (next_version(job, "street"), next_version(job, "race")) == (3, 1)


def test_one_valve_job_makes_a_cut_at_every_port_and_shares_what_is_shared() -> None:
    job = head(True)
    seat = replace(STREET, throat=0.0405)
    work = Operation(id="o", kind=VALVE_JOB, stage=VALVE_JOB, works=(Work(id="w", place="seat"),), duration=900.0)
    done = log_valve_job(job, seat, ["p", "q"], ["a", "b"], work, "valve job", "2026-06-01")
    cuts = [p.cuts[-1] for p in done.ports]
    assert [(c.id, c.number, c.seat_ids, c.throat_diameter) for c in cuts] == [
        ("a", 1, ("s1",), 0.0405),
        ("b", 1, ("s1",), 0.0405),
    ]
    assert [c.operations[0].duration for c in cuts] == [900.0, 900.0]
    ids = [o.id for c in cuts for o in c.operations] + [w.id for c in cuts for o in c.operations for w in o.works]
    assert len(set(ids)) == len(ids), "every part has an id of its own"
    again = log_valve_job(
        done, replace(seat, id="s9"), ["q"], ["c"], replace(work, id="o2", works=()), "again", "2026-06-02"
    )
    assert len(again.seats) == 1 and again.ports[1].cuts[-1].seat_ids == ("s1",)
    with pytest.raises(KeyError):
        log_valve_job(job, seat, ["nobody"], ["a"], work, "x", "2026-06-01")

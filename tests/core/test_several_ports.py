"""One port brought straight to a state of another; one test that stands for others. Worked by hand."""

from __future__ import annotations

from itertools import count

import pytest

from ventrix.core.edits.several_ports import let_stand_for, stood_for_by, straight_to
from ventrix.core.judging.findings import Findings
from ventrix.core.model.cut import Cut, Operation, Port, Work
from ventrix.core.model.job import Job
from ventrix.core.model.kinds import CutKind
from ventrix.core.model.run import FlowRun, Reading, SetUp

NUMBERS = count()


def new_id() -> str:
    return f"n{next(NUMBERS)}"


def cut(number: int, kinds: tuple[CutKind, ...], *works: Work, **more: object) -> Cut:
    operation = Operation(id=f"o{number}", kind="grind", works=works, duration=1800.0)
    return Cut(id=f"c{number}", number=number, name=f"state {number}", kinds=kinds, operations=(operation,), **more)  # type: ignore[arg-type]


MODEL = Port(
    id="p",
    name="Intake 1",
    kind="intake",
    cuts=(
        Cut(id="c0", number=0, name="as cast"),
        cut(1, (CutKind.PORT,), Work(id="a", place="bowl", side="left", depth=0.001),
            Work(id="b", place="guide", until="flush")),
        cut(2, (CutKind.SEAT,), Work(id="c", place="seat"), seat_ids=("s1",)),
        cut(3, (CutKind.PORT,), Work(id="d", place="bowl", side="left", depth=0.0005),
            Work(id="e", place="bowl", depth=0.0002)),
    ),
)  # fmt: skip
OTHER = Port(id="q", name="Intake 2", kind="intake", cuts=(Cut(id="q0", number=0, name="as cast"),))
JOB = Job(id="j", title="t", ports=(MODEL, OTHER))


def test_one_cut_holds_all_that_was_done_on_the_way() -> None:
    job = straight_to(JOB, "q", MODEL, MODEL.cuts[3], new_id, "2026-06-01")
    made = job.ports[1].cuts[-1]
    assert (made.number, made.name, made.note) == (1, "state 3", "straight to cut 3 of Intake 1")
    assert made.kinds == (CutKind.PORT, CutKind.SEAT) and made.seat_ids == ("s1",)
    (operation,) = made.operations
    assert operation.duration is None, "its minutes are its own"
    assert {(w.place, w.side, w.until): w.depth for w in operation.works} == {
        ("bowl", "left", ""): pytest.approx(0.0015),
        ("bowl", None, ""): 0.0002,
        ("guide", None, "flush"): None,
        ("seat", None, ""): None,
    }
    assert job.ports[0] is MODEL


def test_an_earlier_state_leaves_the_later_work_out_and_cut_0_is_refused() -> None:
    made = straight_to(JOB, "q", MODEL, MODEL.cuts[1], new_id, "2026-06-01").ports[1].cuts[-1]
    assert made.kinds == (CutKind.PORT,) and made.seat_ids == ()
    with pytest.raises(ValueError, match="as received"):
        straight_to(JOB, "q", MODEL, MODEL.cuts[0], new_id, "2026-06-01")


def test_a_test_that_stands_for_another_port_is_never_measured_there() -> None:
    setup = SetUp(id="s", direction="intake", test_pressure=7000.0)
    run = FlowRun(id="r", setup_id="s", readings=(Reading(id="x", lift=0.005, flow=0.05),))
    flowed = Cut(id="c0", number=0, name="as cast", runs=(run,))
    job = Job(
        id="j", title="t", setups=(setup,), ports=(Port(id="p", name="Intake 1", kind="intake", cuts=(flowed,)), OTHER)
    )
    assert stood_for_by(job, OTHER, OTHER.cuts[0]) is None
    job = let_stand_for(job, "r", ("q",))
    found = stood_for_by(job, job.ports[1], job.ports[1].cuts[0])
    assert found is not None and found.name == "Intake 1"
    assert Findings(job).runs_of(job.ports[1].cuts[0], job.ports[1]) == (), "not flowed"
    assert stood_for_by(job, job.ports[0], job.ports[0].cuts[0]) is None, "it has its own"

"""What a person does to the open job from anywhere, its bin, and undo across restarts; without a window."""

from __future__ import annotations

import random
from collections.abc import Callable, Iterator
from dataclasses import replace
from pathlib import Path

import pytest

from ventrix.core.edits.cuts import add_cut, add_operation, add_pour, add_wall, edit_cut
from ventrix.core.model.cut import Cut, Operation, Port, Pour, WallReading, Work
from ventrix.core.model.job import Job
from ventrix.core.model.run import Reading
from ventrix.demo.job import demo_job
from ventrix.records.bad_input import BookError
from ventrix.records.book.book import Book
from ventrix.workspace import acts
from ventrix.workspace.bin import empty_bin, holds_readings, put_back, take_out
from ventrix.workspace.ids import new_id
from ventrix.workspace.workspace import Workspace


@pytest.fixture
def space(book_at: Path | str) -> Iterator[Workspace]:
    with Book.open(book_at) as book:
        book.add_job(demo_job())
        yield Workspace.open(book, demo_job().id)


def names(space: Workspace) -> list[str]:
    return [p.name for p in space.job.ports]


# -- acts


def test_walking_stops_at_both_ends_of_the_row(space: Workspace) -> None:
    for _ in range(9):
        acts.step_along_row(space, -1)
    assert space.cut is not None and space.cut.number == 0
    for _ in range(9):
        acts.step_along_row(space, 1)
    assert space.cut.number == 3
    space.hold_against(space.job.ports[0].cuts[2].id)
    acts.pin_along_row(space, -1)
    assert space.against is not None and space.against.number == 1
    for _ in range(9):
        acts.pin_along_row(space, -1)
    assert space.against.number == 0


def test_a_new_port_takes_the_first_free_number(space: Workspace) -> None:
    acts.make_port(space, "intake")
    acts.make_port(space, "intake")
    acts.make_port(space, "intake")
    assert names(space)[4:] == ["Intake 2", "Intake 5", "Intake 6"], "Intake 3 and 4 are there"
    assert space.port is not None and space.port.name == "Intake 6"


def test_ports_for_all_cylinders_leave_what_is_there(space: Workspace) -> None:
    assert acts.make_all_ports(space) == ""
    assert sorted(names(space)) == sorted(f"{k} {n}" for k in ("Intake", "Exhaust") for n in range(1, 5))
    before = space.job
    acts.make_all_ports(space)
    assert space.job is before
    space.apply("unknown", replace(space.job, cylinders=None))
    assert "how many cylinders" in acts.make_all_ports(space)


def test_a_port_that_was_cut_is_no_witness(space: Workspace) -> None:
    assert "has been cut" in acts.toggle_witness(space)
    acts.make_port(space, "intake")
    assert acts.toggle_witness(space) == "" and space.port is not None and space.port.witness
    acts.toggle_witness(space)
    assert not space.port.witness


def test_a_test_stands_for_ports_and_lets_go_again(space: Workspace) -> None:
    acts.make_port(space, "intake")
    space.look_at(space.job.ports[0].cuts[0].id)
    assert acts.stand_for(space, "Intake 2, intake 4") == ""
    assert len(space.job.ports[0].cuts[0].runs[-1].stands_for_port_ids) == 2
    assert acts.stand_for(space, "") == ""
    assert space.job.ports[0].cuts[0].runs[-1].stands_for_port_ids == ()
    space.look_at_port(space.job.ports[-1].id)
    assert "has not been flowed" in acts.stand_for(space, "Intake 1")


def test_straight_to_cut_0_is_a_sentence(space: Workspace) -> None:
    acts.make_port(space, "intake")
    model = space.job.ports[0]
    assert "as received" in acts.go_straight_to(space, model.id, model.cuts[0].id)
    assert acts.go_straight_to(space, model.id, model.cuts[1].id) == ""
    assert space.cut is not None and space.cut.name == model.cuts[1].name


# -- the bin


def test_readings_need_a_reason_and_nothing_else_does(space: Workspace) -> None:
    cut = space.job.ports[0].cuts[1]
    assert holds_readings(cut) and not holds_readings(cut.pours[0])
    with pytest.raises(ValueError, match="say why"):
        take_out(space, Cut, cut.id, "cut 1", " ")
    take_out(space, Pour, cut.pours[0].id, "pour", "")
    assert space.job.bin[0].name == "pour" and space.job.bin[0].reason == ""
    with pytest.raises(ValueError, match="struck with its reason"):
        take_out(space, Reading, cut.runs[0].readings[0].id, "reading", "wrong")


def test_the_last_port_and_the_first_cut_stay(space: Workspace) -> None:
    for port in space.job.ports[1:]:
        take_out(space, Port, port.id, port.name, "not this head's")
    with pytest.raises(ValueError, match="at least one port"):
        take_out(space, Port, space.job.ports[0].id, "Intake 1", "x")
    with pytest.raises(ValueError, match="stand on cut 0"):
        take_out(space, Cut, space.job.ports[0].cuts[0].id, "cut 0", "x")


def test_what_is_put_back_hangs_where_it_hung(space: Workspace) -> None:
    before = space.job
    for kind, noun, name in (
        (Port, before.ports[1], "Exhaust 1"),
        (Cut, before.ports[0].cuts[2], "cut 2"),
        (WallReading, before.ports[0].cuts[0].walls[1], "wall"),
        (Work, before.ports[0].cuts[1].operations[0].works[0], "work"),
    ):
        take_out(space, kind, noun.id, name, "to see")
        put_back(space, space.job.bin[0].id)
        assert space.job == before, name
    assert space.book.load(space.job.id) == before


def test_nothing_is_put_back_onto_what_is_gone_or_twice(space: Workspace) -> None:
    cut = space.job.ports[0].cuts[2]
    take_out(space, Pour, cut.pours[0].id, "pour", "")
    take_out(space, Cut, cut.id, "cut 2", "wrong port")
    pour, whole = space.job.bin
    with pytest.raises(ValueError, match="no longer there"):
        put_back(space, pour.id)
    put_back(space, whole.id)
    with pytest.raises(ValueError, match="no longer in the bin"):
        put_back(space, whole.id)
    put_back(space, pour.id)
    assert space.job.ports[0].cuts[2] == cut
    take_out(space, Pour, cut.pours[0].id, "pour", "")
    empty_bin(space)
    assert space.job.bin == ()
    space.undo()
    put_back(space, space.job.bin[0].id)
    assert space.job.ports[0].cuts[2] == cut, "the bin's emptying can be undone"


# -- undo over restarts, and beside another window


def test_what_another_window_took_back_is_said_once_and_then_passed_over(book_at: Path | str) -> None:
    path = book_at
    with Book.open(path) as book:
        book.add_job(demo_job())
        space = Workspace.open(book, demo_job().id)
        space.apply("bore", replace(space.job, bore=0.09))
        space.apply("title", replace(space.job, title="another"))
    with Book.open(path) as mine, Book.open(path) as theirs:
        here, there = (Workspace.open(b, demo_job().id) for b in (mine, theirs))
        there.undo()
        here.look_for_changes()
        with pytest.raises(BookError, match="another window has taken it back"):
            here.undo()
        assert here.undo_name == "bore" and here.undo()
        assert here.job == demo_job()


def _any_cut(draw: random.Random, job: Job) -> Cut:
    return draw.choice([c for p in job.ports for c in p.cuts])


EDITS: tuple[Callable[[random.Random, Job], Job], ...] = (
    lambda r, j: replace(j, bore=round(r.uniform(0.07, 0.12), 5)),
    lambda r, j: replace(j, title=f"title {r.random():.6f}"),
    lambda r, j: add_cut(j, r.choice(j.ports).id, Cut(id=new_id(), number=0, name=f"cut {r.random():.6f}")),
    lambda r, j: add_pour(j, _any_cut(r, j).id, Pour(id=new_id(), volume=round(r.uniform(1e-4, 2e-4), 9))),
    lambda r, j: add_wall(
        j, _any_cut(r, j).id, WallReading(id=new_id(), place="bowl", thickness=round(r.random() / 100, 6))
    ),
    lambda r, j: edit_cut(j, _any_cut(r, j).id, lambda c: replace(c, walls=c.walls[1:])),
    lambda r, j: edit_cut(j, _any_cut(r, j).id, lambda c: replace(c, operations=tuple(reversed(c.operations)))),
    lambda r, j: add_operation(
        j, _any_cut(r, j).id, Operation(id=new_id(), kind="x", works=(Work(id=new_id(), place="seat", depth=0.001),))
    ),
)  # fmt: skip


@pytest.mark.parametrize("seed", range(6))
def test_any_edits_are_taken_back_one_by_one_after_a_restart(book_at: Path | str, seed: int) -> None:
    draw = random.Random(seed)
    path = book_at
    with Book.open(path) as book:
        book.add_job(demo_job())
        space = Workspace.open(book, demo_job().id)
        states = [space.job]
        for i in range(12):
            space.apply(f"edit {i}", draw.choice(EDITS)(draw, space.job))
            states.append(space.job)
    with Book.open(path) as book:
        again = Workspace.open(book, demo_job().id)
        assert again.job == states[-1]
        for i in reversed(range(12)):
            assert again.undo_name == f"edit {i}"
            again.undo()
            assert again.job == states[i], f"edit {i} of seed {seed}"
        assert book.load(demo_job().id) == demo_job()

"""A practice on disk without a window: begun, gone on with, brought in, worked from two sides, and refused."""

from __future__ import annotations

import json
from collections.abc import Iterator
from dataclasses import replace
from pathlib import Path

import numpy as np
import pytest

from ventrix.bench.simulator.heads.virtual import PRESSURE, WORKED
from ventrix.bench.simulator.practice.play import LIFT, OwnersClock
from ventrix.core.edits.cuts import add_cut, add_trial
from ventrix.core.edits.runs import start_run
from ventrix.core.model.cut import Cut, Operation, Trial, Work
from ventrix.core.model.kinds import Place, TrialKind
from ventrix.core.model.run import FlowRun, Reading
from ventrix.core.quantity.units import from_si, to_si
from ventrix.records.bad_input import InputError
from ventrix.records.book.book import Book
from ventrix.records.files.lesson_progress import note_try, read_progress
from ventrix.records.files.practice_document import PracticeDocument, read_practice, write_practice
from ventrix.workspace.practice import PracticeAtWork, practice_folder, practices_in
from ventrix.workspace.workspace import Workspace

HEAD = "easy-two-valve"


@pytest.fixture
def book(tmp_path: Path) -> Iterator[Book]:
    with Book.open(tmp_path / "book.sqlite") as found:
        yield found


@pytest.fixture
def at_work(tmp_path: Path) -> PracticeAtWork:
    return PracticeAtWork.begin(tmp_path / "practice", HEAD, 5)


def worked(space: Workspace, *works: tuple[str, float | None], started: str | None = None) -> str:
    """A cut with works of so many millimetres; its id."""
    port = space.job.ports[0]
    number = port.cuts[-1].number + 1
    kept = tuple(
        Work(id=f"work-{number}-{i}", place=place, depth=None if deep is None else to_si(deep, "mm"))
        for i, (place, deep) in enumerate(works)
    )
    operation = Operation(id=f"op-{number}", kind="rough", works=kept, started_at=started)
    cut = Cut(id=f"cut-{number}", number=number, name="a pass", operations=(operation,))
    space.apply("a pass", add_cut(space.job, port.id, cut))
    return cut.id


def test_it_is_on_disk_before_anything_was_done(at_work: PracticeAtWork, tmp_path: Path) -> None:
    document = json.loads(at_work.path.read_text(encoding="utf-8"))
    assert document == {"ventrix_practice": 1, "head": HEAD, "seed": 5}
    assert practices_in(tmp_path / "practice") == [at_work.path]
    assert practices_in(tmp_path / "nowhere") == []


def test_the_same_head_and_seed_goes_on(at_work: PracticeAtWork, book: Book, tmp_path: Path) -> None:
    at_work.flow(at_work.workspace(book))
    again = PracticeAtWork.begin(tmp_path / "practice", HEAD, 5)
    assert [a.kind for a in again.practice.acts] == ["flow"]
    assert again.minutes_left == at_work.minutes_left == 7.5 * 60
    other = PracticeAtWork.begin(tmp_path / "practice", HEAD, 6)
    assert not other.practice.acts
    another = PracticeAtWork.begin(tmp_path / "practice", "four-valve", 5)
    for each in (other, another):
        each.flow(each.workspace(book))
    assert len(book.jobs()) == 3, "each has a job of its own in one book"
    another.path.unlink()
    assert len(practices_in(tmp_path / "practice")) == 2


def test_its_job_is_made_once_and_its_bench_too(at_work: PracticeAtWork, book: Book) -> None:
    first, second = at_work.workspace(book), at_work.workspace(book)
    assert first.job.id == second.job.id
    assert len(book.jobs()) == len(book.benches()) == 1
    assert first.job.ports[0].cuts[0].stations


def test_a_flow_test_is_kept_with_the_last_cut(at_work: PracticeAtWork, book: Book) -> None:
    space = at_work.workspace(book)
    done = at_work.flow(space)
    worked(space, ("bowl", 0.6))
    at_work.take_in(space)
    at_work.flow(space)
    stored = book.load(space.job.id).ports[0].cuts
    assert [len(c.runs) for c in stored] == [1, 1]
    assert done.flow is not None
    kept = [r.flow for r in stored[0].runs[0].readings]
    assert kept == pytest.approx(done.flow, abs=1e-6)
    assert all(r.measured_pressure == PRESSURE for r in stored[0].runs[0].readings)


def test_every_work_of_a_cut_is_made_once(at_work: PracticeAtWork, book: Book) -> None:
    space = at_work.workspace(book)
    before = at_work.practice.port.metal
    worked(space, ("bowl", 0.5), ("throat", 0.25), ("chamber", 1.0), ("guide", None))
    done = at_work.take_in(space)
    assert [d.act.place for d in done] == [Place.BOWL, Place.THROAT, Place.GUIDE]
    assert [round(from_si(d.act.depth, "mm"), 3) for d in done] == [0.5, 0.25, 0.5]
    assert at_work.take_in(space) == []
    after = at_work.practice.port.metal
    for place in WORKED:
        changed = after.walls[place] < before.walls[place]
        assert changed == (place in (Place.BOWL, Place.THROAT, Place.GUIDE)), place
    assert at_work.beyond(space.job) == ("chamber",)
    cut = space.job.ports[0].cuts[-1]
    assert cut.throat_diameter == pytest.approx(after.sizes.throat_diameter), "measured after the pass"


def test_works_that_are_taken_in_while_others_are_kept_are_made_once(at_work: PracticeAtWork, book: Book) -> None:
    """Each kept figure tells the window, and the window takes in again."""
    space = at_work.workspace(book)
    worked(space, ("bowl", 0.5), ("throat", 0.25), ("guide", 0.3))
    space.subscribe(lambda _told: at_work.take_in(space) and None)
    at_work.flow(space)
    assert [a.kind for a in at_work.practice.acts] == ["cut", "cut", "cut", "flow"]


def test_work_whose_clock_still_runs_is_not_done_yet(at_work: PracticeAtWork, book: Book) -> None:
    space = at_work.workspace(book)
    worked(space, ("bowl", 0.5), started="2026-11-26T10:00:00+00:00")
    assert at_work.take_in(space) == []
    port = space.job.ports[0]
    stopped = replace(port.cuts[-1].operations[0], started_at=None, duration=900.0)
    cuts = (*port.cuts[:-1], replace(port.cuts[-1], operations=(stopped,)))
    space.apply("stopped", replace(space.job, ports=(replace(port, cuts=cuts),)))
    assert len(at_work.take_in(space)) == 1
    assert space.job.ports[0].cuts[-1].operations[0].duration == 900.0, "what he said it took stays"


@pytest.mark.parametrize("place", ["chamber", "seat", "nowhere"])
def test_the_gauge_gets_at_its_own_places_alone(at_work: PracticeAtWork, place: str) -> None:
    with pytest.raises(ValueError, match="the gauge does not get at the"):
        at_work.read_wall(place)
    assert not at_work.practice.acts


def test_readings_scatter_about_the_truth(tmp_path: Path) -> None:
    """Two per cent for the gauge, a fifth of a cc for the burette: over many readings of one metal."""
    at_work = PracticeAtWork.begin(tmp_path, HEAD, 9)
    truth = at_work.practice.port.metal.walls[Place.BOWL]
    walls = [at_work.read_wall("bowl").reading for _ in range(40)]
    pours = [at_work.pour().reading for _ in range(25)]
    assert np.mean(walls) == pytest.approx(truth, rel=0.012)  # type: ignore[arg-type]
    assert np.std(walls) / truth == pytest.approx(0.02, rel=0.45)  # type: ignore[arg-type]
    assert from_si(float(np.std(pours)), "cc") == pytest.approx(0.2, rel=0.5)  # type: ignore[arg-type]


def test_clay_alone_is_tried(at_work: PracticeAtWork, book: Book) -> None:
    space = at_work.workspace(book)
    cut = space.job.ports[0].cuts[0].id
    for trial, words in (
        (Trial(id="t1", kind=TrialKind.VALVE, name="another valve"), "clay is the only trial"),
        (Trial(id="t2", kind=TrialKind.CLAY, place="bowl"), "clay needs its place"),
        (Trial(id="t3", kind=TrialKind.CLAY, place="chamber", area_taken=1e-4), "clay needs its place"),
    ):
        space.apply("a trial", add_trial(space.job, cut, trial))
        space.look_at_trial(trial.id)
        with pytest.raises(ValueError, match=words):
            at_work.flow(space)
    assert not at_work.practice.acts


def test_another_job_of_the_practice_book_is_left_alone(at_work: PracticeAtWork, book: Book) -> None:
    at_work.workspace(book)
    other = Workspace.create(book, "something else")
    worked(other, ("bowl", 3.0))
    assert at_work.take_in(other) == []
    for act in (at_work.flow, at_work.ask_owner):
        with pytest.raises(ValueError, match="'something else' is not this window's practice"):
            act(other)
    assert not at_work.practice.acts


def test_the_owner_is_asked_once(at_work: PracticeAtWork, book: Book) -> None:
    space = at_work.workspace(book)
    assert space.job.speed_high is None
    assert "street engine" in at_work.ask_owner(space)
    assert from_si(space.job.speed_high or 0.0, "rpm") == pytest.approx(6000)
    assert from_si(space.job.cam_duration or 0.0, "deg") == pytest.approx(220)
    revision = book.revisions()
    at_work.ask_owner(space)
    assert book.revisions() == revision
    assert read_practice(at_work.path).asked


def test_when_it_is_over_nothing_more_is_done(at_work: PracticeAtWork, book: Book) -> None:
    space = at_work.workspace(book)
    at_work.finish()
    for act in (lambda: at_work.flow(space), lambda: at_work.read_wall("bowl"), at_work.pour):
        with pytest.raises(ValueError, match="its truth is open"):
            act()
    assert PracticeAtWork.open(at_work.path).over


def test_the_owners_clock_refuses_and_writes_nothing(tmp_path: Path, book: Book) -> None:
    path = tmp_path / "short.practice.json"
    write_practice(PracticeDocument(head=HEAD, seed=1, hours=0.6), path)
    at_work = PracticeAtWork.open(path)
    space = at_work.workspace(book)
    at_work.flow(space)
    with pytest.raises(OwnersClock, match=r"the owner's 0\.6 hours are over"):
        at_work.flow(space)
    at_work.read_wall("bowl")
    assert [a.act for a in read_practice(path).acts] == ["flow", "wall"]


def test_what_another_window_did_is_seen_before_the_next_act(at_work: PracticeAtWork) -> None:
    elsewhere = PracticeAtWork.open(at_work.path)
    elsewhere.read_wall("bowl")
    at_work.read_wall("throat")
    assert [a.place for a in at_work.practice.acts] == [Place.BOWL, Place.THROAT]
    elsewhere.finish()
    with pytest.raises(ValueError, match="its truth is open"):
        at_work.pour()


def test_a_document_that_is_gone_is_said(at_work: PracticeAtWork) -> None:
    at_work.path.unlink()
    with pytest.raises(InputError):
        at_work.pour()
    assert not at_work.practice.acts, "what cannot be written is not done"


def test_one_from_elsewhere_is_brought_in_under_a_name_of_its_own(at_work: PracticeAtWork, tmp_path: Path) -> None:
    at_work.read_wall("bowl")
    sent = tmp_path / "sent.json"
    write_practice(at_work.document, sent)
    folder = tmp_path / "practice"
    brought = PracticeAtWork.bring_in(folder, sent)
    assert brought.path != at_work.path
    assert brought.document == at_work.document, "nothing in it had a record yet"
    assert PracticeAtWork.bring_in(folder, brought.path).path == brought.path, "it is here already"
    assert len(practices_in(folder)) == 2


def test_a_copy_has_a_job_of_its_own_with_all_that_was_done(
    at_work: PracticeAtWork, book: Book, tmp_path: Path
) -> None:
    space = at_work.workspace(book)
    at_work.flow(space)
    worked(space, ("bowl", 0.5))
    at_work.flow(space)
    at_work.ask_owner(space)
    sent = tmp_path / "sent.json"
    write_practice(at_work.document, sent)
    brought = PracticeAtWork.bring_in(tmp_path / "practice", sent)
    copy = brought.workspace(book)
    assert copy.job.id != space.job.id
    assert [len(c.runs) for c in copy.job.ports[0].cuts] == [1, 1]
    assert copy.job.bore == space.job.bore, "the owner had been asked"
    assert brought.take_in(copy) == [], "no pass is made a second time"
    flows = [[r.flow for r in s.job.ports[0].cuts[1].runs[0].readings] for s in (space, copy)]
    assert flows[0] == pytest.approx(flows[1])
    brought.read_wall("bowl")
    assert len(at_work.practice.acts) + 1 == len(brought.practice.acts), "each goes on by itself"


def test_a_book_that_was_lost_is_made_again_of_the_acts(at_work: PracticeAtWork, tmp_path: Path) -> None:
    with Book.open(tmp_path / "one.sqlite") as first:
        space = at_work.workspace(first)
        at_work.flow(space)
        worked(space, ("throat", 0.5))
        at_work.flow(space)
        before = space.job.ports[0].cuts
    again = PracticeAtWork.open(at_work.path)
    with Book.open(tmp_path / "two.sqlite") as second:
        after = again.workspace(second).job.ports[0].cuts
    assert [c.throat_diameter for c in after] == pytest.approx([c.throat_diameter for c in before])
    assert [len(c.runs) for c in after] == [len(c.runs) for c in before]
    assert after[1].operations[0].works[0].id == before[1].operations[0].works[0].id


def test_a_live_test_is_kept_with_the_acts_as_it_grows(at_work: PracticeAtWork, book: Book) -> None:
    space = at_work.workspace(book)
    exact = at_work.practice.port.flow(LIFT)
    cut = space.job.ports[0].cuts[0].id
    (setup,) = space.job.setups
    run = FlowRun(id="live", setup_id=setup.id, source="simulated bench")
    for n in (0, 4, 9):
        readings = tuple(
            Reading(id=f"r{i}", lift=float(LIFT[i]), flow=float(exact[i]), measured_pressure=PRESSURE) for i in range(n)
        )
        base = replace(space.job.ports[0].cuts[0], runs=())
        job = replace(space.job, ports=(replace(space.job.ports[0], cuts=(base,)),))
        space.apply("a reading", start_run(job, cut, replace(run, readings=readings), setup, None))
        at_work.take_in(space)
        kinds = [a.kind for a in at_work.practice.acts]
        assert kinds == (["live"] if n else []), "it costs with its first reading, once"
        assert ("live" in at_work.practice.live) == (n >= 6), "a test that was hardly begun is none"
    again = PracticeAtWork.open(at_work.path)
    assert again.practice.live["live"][:9] == pytest.approx(exact[:9], rel=1e-6)
    assert again.practice.minutes == 30


def test_the_folder_lies_beside_the_book_and_is_its_own(tmp_path: Path, book: Book) -> None:
    folder = practice_folder(book)
    assert folder == tmp_path / "practice"
    folder.mkdir()
    with Book.open(folder / "book.sqlite") as own:
        assert practice_folder(own) == folder


def test_a_folder_that_cannot_be_made_says_so(tmp_path: Path) -> None:
    (tmp_path / "practice").write_text("in the way", encoding="utf-8")
    with pytest.raises(InputError):
        PracticeAtWork.begin(tmp_path / "practice", HEAD, 1)
    with pytest.raises(InputError):
        note_try(tmp_path / "practice", "dial-zero", 3)


@pytest.mark.parametrize("text", ["", "[]", "{", '{"a": 1}', '{"a": [1]}', '{"a": ["x", "y"]}', "\x00"])
def test_progress_that_cannot_be_read_is_none(tmp_path: Path, text: str) -> None:
    (tmp_path / "lessons.json").write_text(text, encoding="utf-8")
    assert read_progress(tmp_path) == {}
    assert note_try(tmp_path, "leak", 2) == {"leak": (2, 1)}
    assert note_try(tmp_path, "leak", 1) == {"leak": (2, 2)}, "the best stays"
    assert read_progress(tmp_path) == {"leak": (2, 2)}

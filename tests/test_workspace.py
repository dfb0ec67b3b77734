"""The open job: edits, undo and redo, what is looked at; driven directly, without a window."""

from __future__ import annotations

from dataclasses import replace
from pathlib import Path

import pytest

from ventrix.core.edits.cuts import add_cut, add_port, edit_cut
from ventrix.core.edits.runs import add_reading, change_setup, strike
from ventrix.core.model.bench import Bench
from ventrix.core.model.cut import Cut, Pour
from ventrix.core.model.run import UNDONE, Reading, SetUp, StepRecord
from ventrix.demo.job import demo_benches, demo_job
from ventrix.records.bad_input import BookError
from ventrix.records.book.book import Book
from ventrix.records.book.index import Index
from ventrix.workspace.ids import new_id
from ventrix.workspace.new_job import new_port
from ventrix.workspace.workspace import Told, Workspace

SETUP = SetUp(id="s", direction="intake", test_pressure=7000.0, bench="b")


@pytest.fixture
def space(book_at: Path | str):  # type: ignore[no-untyped-def]
    with Book.open(book_at) as book:
        yield Workspace.create(book, "Test head")


def keep(space: Workspace, lift: float = 0.001, mount: int = 1, setup: SetUp = SETUP) -> str:
    reading = Reading(id=new_id(), lift=lift, flow=0.01)
    space.runs.keep(setup, mount, reading, f"{lift * 1000:g}", "typed")
    return reading.id


def stored(space: Workspace) -> dict[str, str | None]:
    """Readings on disk and why they were struck."""
    return {r.id: r.struck for run in space.book.load(space.job.id).runs() for r in run.readings}


def test_a_kept_reading_is_on_disk_before_anyone_hears(space: Workspace) -> None:
    heard: list[int] = []
    space.subscribe(lambda told: heard.append(len(stored(space))) if told is Told.JOB else None)
    keep(space)
    keep(space, 0.002)
    assert heard == [1, 2]
    assert space.undo_name == "keep 2"


def test_readings_of_one_set_up_and_mount_are_one_run(space: Workspace) -> None:
    keep(space)
    keep(space, 0.002)
    keep(space, 0.003, mount=2)
    keep(space, 0.004, mount=2, setup=replace(SETUP, id="other", bore=0.09))
    assert space.cut is not None
    assert [len(r.readings) for r in space.cut.runs] == [2, 1, 1]
    assert len(space.job.setups) == 2
    assert [m.number for m in space.job.mounts] == [1, 2]


def test_undo_takes_back_an_edit_never_a_measurement(space: Workspace) -> None:
    first, second = keep(space), keep(space, 0.002)
    assert space.undo()
    assert stored(space) == {first: None, second: "undone"}
    assert space.undo()
    assert stored(space) == {first: "undone", second: "undone"}
    assert not space.undo()
    assert space.redo()
    assert space.redo()
    assert not space.redo()
    assert stored(space) == {first: None, second: None}


def test_undoing_a_flowed_cut_keeps_its_readings(space: Workspace) -> None:
    assert space.port is not None
    space.apply("cut 'bowl'", add_cut(space.job, space.port.id, Cut(id="c1", number=0, name="bowl")))
    space.look_at("c1")
    reading = keep(space)
    space.undo()
    space.undo()
    assert stored(space) == {reading: "undone"}


def test_other_edits_are_undone_and_named(space: Workspace) -> None:
    space.apply("bore 89 mm", replace(space.job, bore=0.089))
    assert space.book.load(space.job.id).bore == 0.089
    assert space.undo_name == "bore 89 mm"
    space.undo()
    assert space.job.bore is None
    assert space.redo_name == "bore 89 mm"
    space.apply("bore 90 mm", replace(space.job, bore=0.09))
    assert space.redo_name is None


def test_a_refused_edit_changes_nothing(space: Workspace) -> None:
    with pytest.raises(ValueError, match="not a finite number"):
        space.apply("bore", replace(space.job, bore=float("inf")))
    assert space.job.bore is None
    assert space.undo_name is None


def test_a_struck_reading_stays(space: Workspace) -> None:
    reading = keep(space)
    assert space.cut is not None
    run = space.cut.runs[0]
    with pytest.raises(ValueError, match="reason"):
        strike(space.job, run.id, reading, " ")
    space.apply("strike", strike(space.job, run.id, reading, "hand slipped"))
    assert stored(space) == {reading: "hand slipped"}
    kept = space.cut.runs[0].readings[0]
    assert kept.flow == 0.01


def test_what_is_looked_at(book_at: Path | str) -> None:
    with Book.open(book_at) as book:
        book.add_job(demo_job())
        space = Workspace.open(book, demo_job().id)
        assert space.cut is not None
        assert space.cut.number == 3
        space.look_at("intake-1")
        assert space.against is not None
        assert space.against.number == 2  # still held against what was pinned
        space.hold_against("intake-0")
        assert space.against.number == 0
        space.look_at("intake-0")  # never against itself
        assert space.against is None
        space.look_at_port("exhaust")
        assert space.cut.number == 2


def test_demo_tells_three_stories(book_at: Path | str) -> None:
    """One clear gain, one that gains high and loses low, one smaller than the bench repeats."""
    with Book.open(book_at) as book:
        book.add_job(demo_job(), benches=demo_benches())
        space = Workspace.open(book, demo_job().id)
        port = space.job.ports[0]
        said = []
        for before, after in zip(port.cuts, port.cuts[1:], strict=False):
            verdict = space.findings.verdict(space.findings.pair(port, before, after))
            assert verdict is not None
            said.append(verdict.headline)
        assert said == ["Keep.", "A trade.", "This bench can't tell."]


def test_edits_of_benches_are_undone_too(space: Workspace) -> None:
    bench = Bench(id="b", name="b")
    space.change_bench("new bench 'b'", bench)
    space.change_bench("bench 'b'", replace(bench, corrected=False))
    assert space.book.benches() == (replace(bench, corrected=False),)
    space.undo()
    assert space.book.benches() == (bench,)
    space.undo()
    assert space.benches == space.book.benches() == ()
    space.redo()
    assert space.benches == (bench,)


def test_steps_come_before_the_first_reading_and_stay_with_its_run(space: Workspace) -> None:
    space.runs.record_step(SETUP, 1, StepRecord(id="s1", kind="zero", pressure=1.0), "typed")
    leak = replace(SETUP, id="with leak", leak=1e-4)
    assert space.cut is not None
    space.apply("conditions", change_setup(space.job, space.cut.runs[0].id, leak))
    keep(space, setup=leak)
    assert space.cut is not None
    assert len(space.cut.runs) == 1
    assert space.cut.runs[0].step("zero") is not None
    with pytest.raises(ValueError, match="never changed"):
        change_setup(space.job, space.cut.runs[0].id, SETUP)


def test_a_run_names_the_witness_of_its_setting_up(space: Workspace) -> None:
    port = new_port("Intake 2", "intake")
    space.apply("port", add_port(space.job, replace(port, witness=True)))
    first = space.job.ports[0].id
    moved = {0: 1.0, 1: 1.03}  # the second setting-up reads three percent high, with no work done
    for mount, factor in moved.items():
        space.look_at_port(port.id)
        for lift in (0.003, 0.006, 0.009):
            reading = Reading(id=new_id(), lift=lift, flow=factor * 8.0 * lift)
            space.runs.keep(SETUP, 10 + mount, reading, "x", "typed")
        space.look_at_port(first)
        if mount:
            space.apply("cut", add_cut(space.job, first, Cut(id="c1", number=0)))
            space.look_at("c1")
        for lift in (0.003, 0.006, 0.009):
            space.runs.keep(SETUP, 1 + mount, Reading(id=new_id(), lift=lift, flow=factor * 9.0 * lift), "x", "typed")
    cuts = space.job.port(first).cuts
    names = [c.runs[0].witness_id for c in cuts]
    assert names[0] is not None
    assert names[1] is not None
    assert names[0] != names[1]
    pair = space.findings.pair(space.job.port(first), *cuts)
    assert pair.comparison is not None
    assert pair.comparison.weighted / pair.comparison.weighted_before == pytest.approx(0.03)
    space.judge_by_witness(True)
    pair = space.findings.pair(space.job.port(first), *cuts)
    assert pair.comparison is not None
    assert pair.comparison.weighted == pytest.approx(0.0, abs=1e-9)
    assert "witness" in " ".join(pair.comparison.notes)


# -- the clock of the computer


def start_work(space: Workspace) -> str:
    assert space.cut is not None
    space.clock.start("bowl")
    return space.cut.id


def duration(space: Workspace) -> float | None:
    assert space.cut is not None
    return space.book.load(space.job.id).cut_of(space.cut.id)[1].operations[0].duration


def test_work_is_timed_by_a_clock_that_does_not_jump(space: Workspace, monkeypatch: pytest.MonkeyPatch) -> None:
    import time

    start_work(space)
    monkeypatch.setattr("ventrix.workspace.ids.now_text", lambda: "2001-01-01T00:00:00+00:00")  # somebody set it back
    started = time.monotonic()
    monkeypatch.setattr(time, "monotonic", lambda: started + 600.0)
    assert space.clock.stop() == pytest.approx(600.0, abs=2.0)
    assert duration(space) == pytest.approx(600.0, abs=2.0)


@pytest.mark.parametrize("started", ["2199-01-01T00:00:00+00:00", "2001-01-01T00:00:00+00:00", "yesterday"])
def test_a_record_of_time_that_makes_no_sense_is_asked_about(space: Workspace, started: str) -> None:
    cut_id = start_work(space)
    job = edit_cut(
        space.job,
        cut_id,
        lambda c: replace(c, operations=tuple(replace(o, started_at=started) for o in c.operations)),
    )
    space.apply("as another day's window left it", job)
    again = Workspace.open(space.book, space.job.id)
    assert again.clock.running() is not None
    with pytest.raises(ValueError, match="how many minutes"):
        again.clock.stop()
    assert again.clock.running() is not None  # nothing was lost over the question
    assert again.clock.stop(1500.0) == 1500.0
    assert again.book.load(again.job.id).cut_of(cut_id)[1].operations[0].duration == 1500.0


def test_own_factors_are_worked_out_again_only_where_a_job_was_written(
    book_at: Path | str, monkeypatch: pytest.MonkeyPatch
) -> None:
    with Book.open(book_at) as book:
        book.add_job(demo_job(), benches=demo_benches())
        space = Workspace.create(book, "Another head")
        loaded: list[str] = []
        renew = Index.renew
        monkeypatch.setattr(Index, "renew", lambda self, job_id: loaded.append(job_id) or renew(self, job_id))
        first = space.shop.factors()
        assert {f.place for f in first} >= {"bowl", "throat"}
        assert space.shop.factors() == first
        assert loaded == [], "opening read it once, and the index has it since"
        with Book.open(book_at) as other:
            there = Workspace.open(other, demo_job().id)
            cut = there.job.ports[0].cuts[1]
            twice = replace(cut, expected_gain=2 * (cut.expected_gain or 0))
            there.apply("said", edit_cut(there.job, cut.id, lambda _c: twice))
        again = {f.place: f.gain for f in space.shop.factors()}
        before = {f.place: f.gain for f in first}
        assert loaded[-1] == demo_job().id and len(loaded) <= 2, (
            "the job that was written, and the other window's view of this"
        )
        assert again["bowl"] == pytest.approx((before["bowl"] or 0) / 2)
        assert again["throat"] == before["throat"]


# -- undo survives a restart


def reopened(path: Path | str) -> Workspace:
    return Workspace.open(Book.open(path), demo_job().id)


def test_undo_of_another_day_takes_back_what_was_done_then(book_at: Path | str) -> None:
    path = book_at
    with Book.open(path) as book:
        book.add_job(demo_job())
    first = reopened(path)
    port = first.job.ports[0]
    first.apply("title", replace(first.job, title="Another"))
    first.apply(
        "cut", add_cut(first.job, port.id, Cut(id="late", number=0, name="late", pours=(Pour(id="pp", volume=1e-4),)))
    )
    first.apply("bore", replace(first.job, bore=0.1))
    first.book.close()

    space = reopened(path)
    assert space.undo_name == "bore"
    assert space.undo() and space.job.bore == demo_job().bore
    assert space.undo() and all(c.id != "late" for c in space.job.ports[0].cuts)
    assert space.redo() and space.job.ports[0].cuts[-1].pours[0].volume == 1e-4
    assert space.undo() and space.undo()
    assert space.job == demo_job() and space.undo_name is None and not space.undo()
    assert space.book.load(demo_job().id) == demo_job(), "as it is on disk"
    space.book.close()
    again = reopened(path)
    assert again.undo_name is None, "what was undone is not undone twice"
    again.book.close()


def test_a_reading_of_another_day_is_never_undone_away(book_at: Path | str) -> None:
    path = book_at
    with Book.open(path) as book:
        book.add_job(demo_job())
    first = reopened(path)
    run = first.job.ports[0].cuts[3].runs[0]
    reading = Reading(id="kept", lift=0.01, flow=0.09)
    first.apply("keep 0.394", add_reading(first.job, run.id, reading))
    first.book.close()
    space = reopened(path)
    assert space.undo()
    kept = next(r for r in space.job.ports[0].cuts[3].runs[0].readings if r.id == "kept")
    assert kept.struck == UNDONE and kept.flow == 0.09
    space.book.close()


def test_undo_of_another_day_refuses_what_another_window_changed_since(book_at: Path | str) -> None:
    path = book_at
    with Book.open(path) as book:
        book.add_job(demo_job())
    first = reopened(path)
    first.apply("title", replace(first.job, title="Mine"))
    first.book.close()
    space, other = reopened(path), reopened(path)
    other.apply("title", replace(other.job, title="Theirs"))
    other._done.clear()
    space.look_for_changes()
    with pytest.raises(BookError):
        space.undo()
    assert space.job.title == "Theirs" and space.undo_name == "title"
    for each in (space, other):
        each.book.close()


def test_fifty_acts_are_kept(book_at: Path | str) -> None:
    path = book_at
    with Book.open(path) as book:
        book.add_job(demo_job())
    space = reopened(path)
    for i in range(60):
        space.apply(f"bore {i}", replace(space.job, bore=0.08 + i * 1e-4))
    space.book.close()
    again = reopened(path)
    count = 0
    while again.undo():
        count += 1
    assert count == 50 and again.job.bore == pytest.approx(0.08 + 9e-4)
    again.book.close()


def test_a_reading_offered_again_is_the_same_row(space: Workspace) -> None:
    """What was kept and not said so, since the program was killed or the book was locked meanwhile."""
    reading = Reading(id="pressed-once", lift=0.005, flow=0.05)
    first, again = (space.runs.keep(SETUP, 1, reading, "0.197", "typed") for _ in range(2))
    assert again.id == first.id
    assert list(stored(space)) == ["pressed-once"]


def test_a_reading_that_another_window_offered_meanwhile_is_taken_in_and_not_doubled(
    space: Workspace, book_at: Path | str
) -> None:
    keep(space)
    reading = Reading(id="pressed-once", lift=0.005, flow=0.05)
    with Book.open(book_at) as book:
        other = Workspace.open(book, space.job.id)
        other.look_at(space.job.ports[0].cuts[-1].id)
        other.runs.keep(SETUP, 1, reading, "0.197", "typed")
    space.runs.keep(SETUP, 1, reading, "0.197", "typed")
    assert sorted(stored(space)).count("pressed-once") == 1

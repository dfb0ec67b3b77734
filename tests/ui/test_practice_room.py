"""Practice in real windows, by keyboard: from start to reckoning, what it costs, lessons, what was said first."""

from __future__ import annotations

import json
from collections.abc import Iterator
from dataclasses import replace
from pathlib import Path

import numpy as np
import pypdfium2 as pdfium
import pytest
import shiboken6
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest

from tests.ui.stand_in import DP, Open, StandIn
from ventrix.bench.drivers.sample import Sample
from ventrix.bench.simulator.practice.lessons.catalogue import LESSONS
from ventrix.bench.simulator.practice.lessons.lesson import BEST
from ventrix.bench.simulator.practice.play import LIFT
from ventrix.bench.simulator.practice.reckoning import beliefs_of
from ventrix.core.judging.calls import scored_calls
from ventrix.core.model.job_parts import Call
from ventrix.core.quantity.units import from_si, to_si
from ventrix.records.bad_input import InputError
from ventrix.records.files.job_document import read_document, write_job
from ventrix.ui.practice.room import LESSON, RECKONED, RUNNING, SHELF, PracticeRoom
from ventrix.ui.window.main_window import MainWindow
from ventrix.ui.window.practice import Hatched
from ventrix.ui.window.rooms import ROOMS
from ventrix.workspace.practice import PracticeAtWork
from ventrix.workspace.workspace import Workspace

K = Qt.Key
SEED = 11


@pytest.fixture
def shop(open_window: Open) -> Iterator[MainWindow]:
    window = open_window(room="cuts")
    window.go_to_named("practice")
    window.rooms["practice"].use_seed(SEED)
    yield window
    for each in window._practices:
        each.close()
        shiboken6.delete(each)
    window._practices.clear()


def begun(shop: MainWindow, row: int = 0) -> MainWindow:
    """A practice begun from the shelf by keys: the head of a row."""
    room = shop.rooms["practice"]
    room.setFocus()
    for _ in range(row):
        QTest.keyClick(room, K.Key_Down)
    QTest.keyClick(room, K.Key_Return)
    return shop._practices[-1]


def space_of(window: MainWindow) -> Workspace:
    space = window.open_book.workspace
    assert space is not None
    return space


def at_work(window: MainWindow) -> PracticeAtWork:
    practice = window.open_book.practice
    assert practice is not None
    return practice


def press(window: MainWindow, command: str) -> None:
    assert next(c for c in window.commands if c.id == command).run(), command


def make_cut(window: MainWindow, place: str, depth: str) -> None:
    """A cut logged as on any head: its name, where, how deep; Enter."""
    press(window, "cut.new")
    sheet = window.sheets["cut"]
    sheet.name.setFocus()
    QTest.keyClicks(sheet.name, place)
    sheet.places.clear()
    QTest.keyClicks(sheet.places, place)
    (row,) = sheet.works.rows
    row.how_deep.box.setFocus()
    QTest.keyClicks(row.how_deep.box, depth)
    QTest.keyClick(row.how_deep.box, K.Key_Return)
    if sheet.isVisible():
        QTest.keyClick(sheet, K.Key_Return)
    assert not sheet.isVisible(), sheet.problem.text()


def read_wall(window: MainWindow, place: str) -> float:
    """A wall read with the gauge and kept, by keys."""
    press(window, "cut.wall")
    sheet = window.sheets["wall"]
    sheet.place.setCurrentText(place)
    sheet.gauge.setFocus()
    QTest.keyClick(sheet.gauge, K.Key_Space)
    assert sheet.thickness.value is not None, sheet.problem.text()
    QTest.keyClick(sheet.take_button, K.Key_Space)
    return space_of(window).job.ports[0].cuts[-1].walls[-1].thickness


def test_a_whole_practice_by_keyboard_from_start_to_reckoning(shop: MainWindow) -> None:
    window = begun(shop)
    room = window.rooms["practice"]
    assert room.page == RUNNING
    assert "8:00 left of his 8 h" in room.strip.verdict.text()
    assert window.windowTitle().startswith("Practice: an easy two-valve, seed 11")
    assert window.findChild(Hatched) is not None and shop.findChild(Hatched) is None
    room.setFocus()
    QTest.keyClick(room, K.Key_F)
    run = space_of(window).job.ports[0].cuts[0].runs[0]
    assert [round(from_si(r.lift, "in"), 3) for r in run.readings] == [round(0.05 * i, 3) for i in range(1, 13)]
    assert "7:30 left" in room.strip.verdict.text(), "half an hour of the owner's"
    QTest.keyClick(room, K.Key_A)
    assert space_of(window).job.bore == pytest.approx(0.095)
    thick = read_wall(window, "bowl")
    assert 0.002 < thick < 0.02
    make_cut(window, "bowl", "0.030")
    cut = space_of(window).job.ports[0].cuts[-1]
    assert cut.operations[0].duration == pytest.approx(60 * (10 + 35 * 0.762)), "minutes of a place and its depth"
    assert cut.stations, "measured after the pass"
    press(window, "practice.flow")
    make_cut(window, "opening", "0.005")
    press(window, "practice.flow")
    document = json.loads(at_work(window).path.read_text(encoding="utf-8"))
    assert [a["act"] for a in document["acts"]] == ["flow", "wall", "cut", "flow", "cut", "flow"]
    window.go_to_named("compare")
    assert window.rooms["compare"].isVisible(), "the ordinary rooms judge it"
    window.go_to_named("practice")
    room.setFocus()
    QTest.keyClick(room, K.Key_R)
    assert room.page != RECKONED and "R again ends this practice" in window.foot.said.text()
    QTest.keyClick(room, K.Key_R)
    assert room.page == RECKONED
    assert "% of what was there" in room.strip.verdict.text()
    QTest.qWait(50)
    for _ in range(400):
        if not room.reckoning.planner.busy:
            break
        QTest.qWait(50)
    shown = room.shown
    assert shown is not None
    assert [name for name, _ in shown.stairs] == ["to be had", "as Plan", "believed", "yours, true"]
    names = [d.name for d in shown.decisions]
    assert names[0] == "bowl, 0.030 in, wall read first"
    assert names[1] == "opening, 0.005 in, wall not read"
    assert "unused" in names[2]
    truth = at_work(window).practice
    assert dict(shown.stairs)["yours, true"][-1][1] == pytest.approx(
        float(np.mean(truth.port.flow(LIFT)) - np.mean(truth.began[0].flow(LIFT)))
    )
    QTest.keyClick(room, K.Key_Right)
    assert room.reckoning.chosen == 1
    QTest.keyClick(room, K.Key_P)
    assert "P asks it" not in room.reckoning.told.text()
    QTest.keyClick(room, K.Key_L)
    assert room.page == LESSON
    QTest.keyClick(room, K.Key_Escape)
    assert room.page == RECKONED
    QTest.keyClick(room, K.Key_Return)
    assert window.room is window.rooms["compare"]
    assert space_of(window).cut is not None and space_of(window).cut.number == 2  # type: ignore[union-attr]
    press_refused = next(c for c in window.commands if c.id == "practice.flow")
    assert not press_refused.run(), "the truth is open: nothing more is flowed"


def test_every_room_opens_on_a_practice_and_says_what_it_knows(shop: MainWindow) -> None:
    window = begun(shop)
    press(window, "practice.flow")
    make_cut(window, "bowl", "0.030")
    press(window, "practice.flow")
    window.go_to_named("flow")
    assert window.rooms["flow"].entry.isHidden(), "what nobody measures is not typed either"
    window.rooms["flow"].setFocus()
    QTest.keyClick(window.rooms["flow"], K.Key_Space)
    assert "F5 has it flowed" in window.open_book.last_said
    for door in ROOMS:
        window.go_to_named(door.key)
        assert not window.grab().isNull()
    space = space_of(window)
    gain = space.findings.gain(space.findings.pair(space.job.ports[0], *space.job.ports[0].cuts[:2]))
    assert gain is not None and gain.comparable, "both tests stand under the same conditions"
    seen = [d.flow for d in at_work(window).practice.done if d.flow is not None]
    assert gain.value == pytest.approx(float(np.mean(seen[1] - seen[0])), rel=0.02)


def test_another_start_of_the_same_seed_goes_on_where_it_was(shop: MainWindow) -> None:
    first = begun(shop)
    first.rooms["practice"].setFocus()
    QTest.keyClick(first.rooms["practice"], K.Key_F)
    flows = [r.flow for r in space_of(first).job.ports[0].cuts[0].runs[0].readings]
    first.close()
    again = begun(shop)
    assert [r.flow for r in space_of(again).job.ports[0].cuts[0].runs[0].readings] == flows
    assert "7:30 left" in again.rooms["practice"].strip.verdict.text()
    assert shop.rooms["practice"].shelf.lists[2].rows, "it stands among those that were begun"


def test_two_windows_work_on_one_metal(shop: MainWindow) -> None:
    window = begun(shop)
    again = begun(shop)
    assert again is window, "the window that it has comes up"
    elsewhere = PracticeAtWork.open(at_work(window).path)
    elsewhere.read_wall("bowl")
    make_cut(window, "bowl", "0.020")
    kinds = [a["act"] for a in json.loads(elsewhere.path.read_text(encoding="utf-8"))["acts"]]
    assert kinds == ["wall", "cut"], "neither is lost"
    elsewhere.catch_up()
    assert elsewhere.practice.port.metal.depth == at_work(window).practice.port.metal.depth


def test_a_second_head_has_a_window_and_a_job_of_its_own(shop: MainWindow) -> None:
    one, other = begun(shop), begun(shop, 3)
    for each in (one, other):
        press(each, "practice.flow")
        make_cut(each, "bowl", "0.010")
    assert at_work(one).head.id == "easy-two-valve"
    assert at_work(other).head.id == "four-valve"
    jobs = [space_of(each).job for each in (one, other)]
    assert jobs[0].id != jobs[1].id
    assert [[len(c.runs) for c in j.ports[0].cuts] for j in jobs] == [[1, 0], [1, 0]]


def test_an_empty_book_can_practise(open_window: Open) -> None:
    window = open_window(demo=False)
    window.resize(1024, 700)
    window.go_to_named("practice")
    room = window.rooms["practice"]
    assert room.isVisible() and room.page == SHELF
    room.use_seed(3)
    child = begun(window)
    assert at_work(child).head.id == "easy-two-valve"
    assert window.open_book.book.jobs() == [], "and nothing of it comes into the shop's book"
    child.close()
    shiboken6.delete(child)
    window._practices.clear()


def test_breaking_through_is_said_and_counts_as_nothing(shop: MainWindow) -> None:
    """The short side over water has 1.4 to 1.6 mm: 0.080 in goes through, wherever the hand's fifteen per cent fall."""
    window = begun(shop, 1)
    make_cut(window, "short side", "0.080")
    assert "Broken through: water in the port" in window.open_book.last_said
    window.rooms["practice"].refresh()
    assert "Broken through" in window.rooms["practice"].strip.verdict.text()
    window.rooms["practice"].finish()
    assert "the head is scrap" in window.rooms["practice"].strip.verdict.text()
    assert window.rooms["practice"].shown is not None
    assert "five minutes with the gauge" in window.rooms["practice"].shown.decisions[0].known


def test_what_these_heads_have_not_got_is_said(shop: MainWindow) -> None:
    window = begun(shop)
    make_cut(window, "chamber", "0.020")
    assert "These heads have no chamber" in window.open_book.last_said
    assert not at_work(window).practice.acts
    make_cut(window, "bowl", " ")
    (act,) = at_work(window).practice.acts
    assert act.depth == pytest.approx(0.5e-3), "a pass without a depth is taken for half a millimetre"


def test_the_virtual_port_lies_on_the_practice_bench(shop: MainWindow, qtbot) -> None:  # type: ignore[no-untyped-def]
    window = begun(shop)
    window.go_to_named("flow")
    press(window, "bench.simulated")
    bench = window.open_book.bench
    qtbot.waitUntil(lambda: bench.connected, timeout=5000)
    samples: list[Sample] = []
    bench.sampled.connect(lambda found: samples.extend(found))
    bench.send(lambda b: b.set_pressure(DP))
    lift = to_si(0.4, "in")
    bench.send(lambda b: b.set_lift(lift))
    qtbot.waitUntil(
        lambda: bool(samples) and samples[-1].lift > 0.01 and samples[-1].pressure > 0.99 * DP, timeout=15000
    )
    qtbot.wait(1500)
    exact = float(at_work(window).practice.port.flow(np.array([lift]))[0])
    assert samples[-1].flow == pytest.approx(exact, rel=0.03)
    assert samples[-1].swirl is None, "and no swirl is to be had of it"
    assert window.rooms["flow"].hand.setup.bench == "practice bench"
    bench.disconnect_bench()


def test_a_test_that_is_flowed_live_costs_the_same_and_is_believed_the_same(shop: MainWindow) -> None:
    window = begun(shop)
    window.go_to_named("flow")
    true = at_work(window).practice.port
    stand_in = StandIn(window)
    window.open_book.bench.answers_for = "practice bench"
    window.open_book.bench.state_changed.emit()
    for i in range(8):
        stand_in.feed(float(LIFT[i]), float(true.flow(LIFT)[i]))
        QTest.keyClick(window.rooms["flow"], K.Key_Space)
        assert "Flow test, live" in window.open_book.last_said or i, window.open_book.last_said
    (run,) = space_of(window).job.ports[0].cuts[0].runs
    assert len(run.readings) == 8, window.open_book.last_said
    assert at_work(window).practice.minutes == 30, "half an hour, with its first reading"
    (act,) = at_work(window).document.acts
    assert (act.act, act.record) == ("live", run.id)
    seen = at_work(window).practice.live[run.id]
    assert seen[:8] == pytest.approx(true.flow(LIFT)[:8], rel=0.005)
    window.open_book.bench.connected = False
    make_cut(window, "bowl", "0.030")
    press(window, "practice.flow")
    (belief,) = beliefs_of(at_work(window).practice)
    assert belief.seen is not None, "what was read live counts as the test before"


def test_the_owners_hours_end_it(shop: MainWindow) -> None:
    window = begun(shop)
    for _ in range(60):
        if not at_work(window).minutes_left >= 12:
            break
        press(window, "practice.flow")
    press(window, "practice.flow")
    assert "hours are over" in window.open_book.last_said
    cuts = len(space_of(window).job.ports[0].cuts[0].runs)
    assert cuts == 1 + 37, "half an hour, and twelve minutes for each bolting-down after it"
    make_cut(window, "bowl", "0.030")
    assert "hours are over" in window.open_book.last_said
    assert all(a.kind != "cut" for a in at_work(window).practice.acts), "no metal came off"


def test_nothing_is_undone_and_what_is_not_on_disk_was_not_done(
    shop: MainWindow, monkeypatch: pytest.MonkeyPatch
) -> None:
    window = begun(shop)
    make_cut(window, "bowl", "0.020")
    before = at_work(window).practice.port.metal.depth
    assert not window.open_book.undo()
    assert "Metal does not come back" in window.open_book.last_said
    assert len(space_of(window).job.ports[0].cuts) == 2

    def refused(*_a: object, **_k: object) -> None:
        raise InputError("the disk is full", file="practice.json")

    monkeypatch.setattr("ventrix.workspace.practice.write_practice", refused)
    press(window, "practice.flow")
    assert "the disk is full" in window.open_book.last_said
    assert not space_of(window).job.ports[0].cuts[-1].runs
    make_cut(window, "throat", "0.010")
    assert at_work(window).practice.port.metal.depth == before, "what was not written was not cut"
    monkeypatch.undo()
    press(window, "practice.flow")
    window.open_book.job_changed.emit()
    assert at_work(window).practice.port.metal.depth != before, "and is made up for when it can be"


def test_clay_and_pour_go_through_their_own_sheets(shop: MainWindow) -> None:
    window = begun(shop)
    press(window, "practice.flow")
    bare = space_of(window).job.ports[0].cuts[0].runs[0]
    press(window, "cut.trial")
    sheet = window.sheets["trial"]
    sheet.place.setCurrentText("bowl")
    sheet.area.box.setText("0.6")
    sheet.area.box.setModified(True)
    QTest.keyClick(sheet.take_button, K.Key_Space)
    (trial,) = space_of(window).job.ports[0].cuts[0].trials
    space_of(window).look_at_trial(trial.id)
    press(window, "practice.flow")
    (trial,) = space_of(window).job.ports[0].cuts[0].trials
    both = zip(trial.runs[0].readings[6:], bare.readings[6:], strict=True)
    assert all(with_clay.flow < without.flow for with_clay, without in both), "clay in the bowl costs flow"  # type: ignore[operator]
    space_of(window).look_at(space_of(window).job.ports[0].cuts[0].id)
    press(window, "cut.pour")
    window.sheets["pour"].burette.setFocus()
    QTest.keyClick(window.sheets["pour"].burette, K.Key_Space)
    QTest.keyClick(window.sheets["pour"].take_button, K.Key_Space)
    assert 50 < from_si(space_of(window).job.ports[0].cuts[0].pours[0].volume, "cc") < 400
    assert [a.kind for a in at_work(window).practice.acts] == ["flow", "clay", "pour"]


def test_practice_is_marked_and_never_counts_in_the_shop(shop: MainWindow, tmp_path: Path) -> None:
    window = begun(shop)
    press(window, "practice.flow")
    make_cut(window, "bowl", "0.030")
    press(window, "practice.flow")
    space = space_of(window)
    job = replace(space.job, title="brought home")
    out = tmp_path / "home.json"
    write_job(space.job, out)
    read, _ = read_document(out)
    assert read.practice == "easy-two-valve 11"
    window.go_to_named("sheet")
    pdf = tmp_path / "sheet.pdf"
    space.hold_against(space.job.ports[0].cuts[0].id)
    assert window.rooms["sheet"].hand_over.write_pdf(pdf)
    document = pdfium.PdfDocument(pdf)
    text = " ".join(page.get_textpage().get_text_bounded() for page in document)
    document.close()
    assert "nobody measured" in " ".join(text.split())
    cut = replace(job.ports[0].cuts[-1], expected_gain=to_si(3, "cfm"))
    port = replace(job.ports[0], cuts=(*job.ports[0].cuts[:-1], cut))
    shop_space = space_of(shop)
    before = shop_space.shop.factors(), len(shop_space.shop.outcomes())
    shop.open_book.book.add_job(replace(job, ports=(port,)))
    assert (shop_space.shop.factors(), len(shop_space.shop.outcomes())) == before
    shop.files.open_job(job.id)
    assert len(space_of(shop).shop.outcomes()) <= before[1], "nor while it is open"


@pytest.mark.parametrize("size", [(1024, 700), (1280, 800)])
def test_nothing_leaves_the_window(shop: MainWindow, qtbot, size: tuple[int, int]) -> None:  # type: ignore[no-untyped-def]
    window = begun(shop)
    press(window, "practice.flow")
    make_cut(window, "bowl", "0.030")
    window.rooms["practice"].finish()
    for each, page in ((shop, SHELF), (window, RECKONED)):
        each.resize(*size)
        room: PracticeRoom = each.rooms["practice"]
        qtbot.waitUntil(lambda r=room: r.width() <= size[0] - shop.rail.width() + 2)
        assert room.page == page
        assert room.minimumSizeHint().width() <= room.width()


def test_what_is_chosen_is_in_sight_in_a_small_window(shop: MainWindow, qtbot) -> None:  # type: ignore[no-untyped-def]
    shop.resize(853, 533)
    room = shop.rooms["practice"]
    room.setFocus()
    QTest.keyClick(room, K.Key_Right)
    QTest.keyClick(room, K.Key_Up)
    lessons = room.shelf.lists[1]
    assert room.shelf.row == len(LESSONS) - 1
    qtbot.waitUntil(lambda: lessons.visibleRegion().boundingRect().contains(40, lessons.middle_of(len(LESSONS) - 1)))
    window = begun_at_head(shop)
    for i in range(6):
        make_cut(window, ("bowl", "throat", "guide")[i % 3], "0.002")
    window.rooms["practice"].finish()
    window.resize(853, 533)
    window.rooms["practice"].setFocus()
    QTest.keyClick(window.rooms["practice"], K.Key_Left)
    page = window.rooms["practice"].reckoning
    assert page.chosen == 6, "from the first one to the last: stopped"
    qtbot.waitUntil(lambda: page.list.visibleRegion().boundingRect().contains(40, page.list.middle_of(6)))


def begun_at_head(shop: MainWindow) -> MainWindow:
    """The first head, wherever the shelf stands."""
    shop.rooms["practice"].shelf.pick(0, 0)
    return begun(shop)


def test_lessons_are_graded_kept_and_put_anew(shop: MainWindow) -> None:
    room = shop.rooms["practice"]
    room.setFocus()
    QTest.keyClick(room, K.Key_Right)
    QTest.keyClick(room, K.Key_Return)
    assert room.page == LESSON
    puzzle = room.lesson.puzzle
    assert puzzle is not None
    QTest.keyClick(room, K.Key_1)
    assert puzzle.looks[0].shows in room.lesson.words.text()
    assert puzzle.looks[1].shows not in room.lesson.words.text()
    best = next(i for i, c in enumerate(puzzle.choices) if c.points == BEST)
    QTest.keyClick(room, K(K.Key_A.value + best))
    assert "3 of 3" in room.lesson.words.text()
    worst = next(i for i, c in enumerate(puzzle.choices) if c.points == 0)
    QTest.keyClick(room, K(K.Key_A.value + worst))
    assert "3 of 3" in room.lesson.words.text(), "it is answered once"
    QTest.keyClick(room, K.Key_Return)
    again = room.lesson.puzzle
    assert again is not None and room.lesson.graded is None
    assert again.exhibit is not None and puzzle.exhibit is not None
    assert not np.array_equal(again.exhibit.before, puzzle.exhibit.before), "other figures"
    QTest.keyClick(room, K.Key_Escape)
    assert room.page == SHELF
    assert room.shelf.lists[1].rows[0].right == "3 of 3"
    assert json.loads((room.folder / "lessons.json").read_text(encoding="utf-8")) == {LESSONS[0].id: [3, 1]}


def test_what_was_said_first_is_scored_and_feeds_the_plan(open_window: Open, qtbot) -> None:  # type: ignore[no-untyped-def]
    """Said 10 % too high at both lifts of a state that was worked at one place."""
    window = open_window()
    space = space_of(window)
    port = space.job.ports[0]
    cut = next(c for c in port.cuts[1:] if c.runs and c.operations)
    run = space.findings.runs_of(cut, port)[0]
    space.look_at(cut.id)
    press(window, "call")
    sheet = window.sheets["call"]
    assert sheet.isVisible()
    sheet.try_taking()
    assert "othing was said" in sheet.problem.text()
    for field, lift in zip(sheet.flows, sheet.lifts, strict=False):
        field.box.setFocus()
        QTest.keyClicks(field.box, f"{1.1 * from_si(float(run.curve.at(np.array([lift]))[0]), 'cfm'):.2f}")
    sheet.gains.setCurrentIndex(1)
    sheet.best.setCurrentText("bowl")
    QTest.keyClick(sheet, K.Key_Return)
    (call,) = space.job.calls
    assert call.best_place == "bowl"
    assert not scored_calls(space.findings), "its runs are older than what was said"
    stored = space.book.load(space.job.id)
    assert stored.calls == space.job.calls
    early = replace(call, date="2000-01-01")
    space.apply("said earlier", replace(space.job, calls=(early,)))
    (score,) = scored_calls(space.findings)
    assert score.off == pytest.approx(0.1, abs=0.001)
    assert score.gains_right is not None
    window.go_to_named("practice")
    assert "your eye says 10.0 % too high" in window.rooms["practice"].shelf.scores.text()


def test_a_call_that_cannot_be_is_refused(open_window: Open) -> None:
    window = open_window()
    press(window, "call")
    sheet = window.sheets["call"]
    sheet.flows[0].box.setText("90000")
    sheet.flows[0].box.setModified(True)
    sheet.try_taking()
    assert sheet.isVisible()
    assert not space_of(window).job.calls
    assert Call(id="x", cut_id="y").lifts == ()


def test_a_damaged_practice_says_so(shop: MainWindow, tmp_path: Path) -> None:
    bad = tmp_path / "bad.json"
    bad.write_text('{"ventrix_practice": 1, "head": "none", "seed": 1}', encoding="utf-8")
    shop.rooms["practice"].open_file(bad)
    assert "'none' is not one of" in shop.open_book.last_said
    assert not shop._practices
    window = begun(shop)
    saved = tmp_path / "saved.json"
    assert window.rooms["practice"].save(saved)
    shop.rooms["practice"].open_file(saved)
    assert len(shop._practices) == 2
    assert not window.rooms["practice"].save(tmp_path / "no" / "such.json")

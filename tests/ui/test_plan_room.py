"""The Plan room in the real window, by keyboard: what limits, next moves, and what a move is said first as."""

from __future__ import annotations

from dataclasses import replace
from itertools import pairwise

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest

from tests.ui.stand_in import Open
from ventrix.core.planning.moves import MoveKind
from ventrix.core.quantity.units import to_si
from ventrix.rooms.plan.shows import MoveLine
from ventrix.ui.plan.room import PlanRoom
from ventrix.ui.window.main_window import MainWindow

K = Qt.Key


@pytest.fixture
def window(open_window: Open) -> MainWindow:
    return open_window(room="cuts")


def look(window: MainWindow, qtbot, port: str, cut: int | None = None) -> PlanRoom:  # type: ignore[no-untyped-def]
    """The Plan room on a port, planned."""
    space = window.open_book.workspace
    assert space is not None
    chosen = next(p for p in space.job.ports if p.name == port)
    state = chosen.cuts[-1] if cut is None else chosen.cuts[cut]
    space.look_at(state.id)
    window.go_to_named("plan")
    room = window.rooms["plan"]
    if room.of_head:
        qtbot.keyClick(room, K.Key_P)
    qtbot.waitUntil(lambda: not room.planner.busy and room.port_page.plan is not None, timeout=20_000)
    return room


def titles(room: PlanRoom) -> list[str]:
    return [line.title for line in room.port_page.moves.lines]


def pick(room: PlanRoom, qtbot, kind: MoveKind, *, blocked: bool) -> MoveLine:  # type: ignore[no-untyped-def]
    """Walk down the list to the first such move."""
    if not room.port_page.every:
        qtbot.keyClick(room, K.Key_L)
    for _ in room.port_page.moves.lines:
        qtbot.keyClick(room, K.Key_Up)
    for _ in room.port_page.moves.lines:
        line = room.port_page.line
        assert line is not None
        if line.move.kind is kind and bool(line.move.blocked_by) == blocked:
            return line
        qtbot.keyClick(room, K.Key_Down)
    raise AssertionError(f"no {kind} among {titles(room)}")


def test_it_says_what_limits_and_what_next(window: MainWindow, qtbot) -> None:  # type: ignore[no-untyped-def]
    room = look(window, qtbot, "Intake 1")
    assert "Go on:" in room.port_page.verdict.text()
    assert "28.0 inH2O" in room.port_page.basis.text()
    assert room.port_page.plan is not None
    best = room.port_page.plan.moves[0]
    assert room.port_page.worth.text().startswith("~") == best.guess, "an estimate, not measured is said to be one"
    assert ("an estimate, not measured" in room.port_page.reason.text()) == best.guess
    seat = next(line for line in room.port_page.moves.lines if line.move.kind is MoveKind.SEAT)
    assert seat.gain.startswith("~")
    assert seat.guess
    assert "at 28.0 inH2O" in room.port_page.sure.text(), "a gain stands on a stated pressure"
    eaten = sum(float(s.eaten) for s in room.port_page.bar.segments)
    assert eaten == pytest.approx(28.0, abs=0.4), "what is eaten is the test pressure"
    assert room.port_page.beside.stages.isHidden(), "a flowed port is judged by its flow"
    assert len(room.port_page.moves.lines) == 7
    assert "more (L)" in room.port_page.left_out.text()
    qtbot.keyClick(room, K.Key_L)
    assert len(room.port_page.moves.lines) > 7


def test_arrows_move_the_lift_and_the_pick(window: MainWindow, qtbot) -> None:  # type: ignore[no-untyped-def]
    room = look(window, qtbot, "Intake 1")
    assert room.port_page.lift_words.text().startswith("0.600")
    valve = room.port_page.bar.segments[-1].share
    for _ in range(20):
        qtbot.keyClick(room, K.Key_Left)
    assert room.port_page.lift_words.text().startswith("0.050"), "it ends at the least lift tested"
    assert room.port_page.bar.segments[-1].share > valve, "at low lift the valve is what limits"
    qtbot.keyClick(room, K.Key_Down)
    assert room.port_page.at == 1
    assert room.port_page.moves.spoken.startswith("2: ")


def test_enter_says_a_cut_first_and_logs_it(window: MainWindow, qtbot) -> None:  # type: ignore[no-untyped-def]
    room = look(window, qtbot, "Intake 1")
    line = pick(room, qtbot, MoveKind.CUT, blocked=False)
    cuts = len(window.open_book.workspace.port.cuts)  # type: ignore[union-attr]
    qtbot.keyClick(room, K.Key_Return)
    sheet = window.sheets["cut"]
    assert sheet.isVisible()
    row = next(r for r in sheet.works.rows if r.place == line.move.place)
    assert row.how_deep.value == pytest.approx(line.move.depth, abs=to_si(0.0005, "in"))
    assert sheet.expected_gain.value == pytest.approx(line.move.gain, abs=to_si(0.06, "cfm"))
    sheet.minutes.set_value(1800.0)
    sheet.take_button.click()
    assert not sheet.isVisible()
    port = window.open_book.workspace.port  # type: ignore[union-attr]
    assert len(port.cuts) == cuts + 1
    assert port.cuts[-1].expected_gain == pytest.approx(line.move.gain, abs=to_si(0.06, "cfm"))
    assert port.cuts[-1].operations[0].works[0].place == line.move.place
    assert port.cuts[-1].expected_by == "plan"
    assert port.cuts[-1].expected_low == pytest.approx(line.move.low)
    room = look(window, qtbot, "Intake 1")
    assert "None of the plan's predictions has been flowed yet." in room.port_page.fit_said.text()
    assert titles(room)[0].startswith("flow it: cut ")
    assert sum(line.move.place == row.place and not line.move.blocked_by for line in room.port_page.moves.lines) == 0
    qtbot.keyClick(room, K.Key_Up)
    while room.port_page.at:
        qtbot.keyClick(room, K.Key_Up)
    qtbot.keyClick(room, K.Key_Return)
    assert window.rooms["flow"].isVisible()


def test_a_gain_of_ones_own_is_not_the_plans(window: MainWindow, qtbot) -> None:  # type: ignore[no-untyped-def]
    room = look(window, qtbot, "Intake 1")
    pick(room, qtbot, MoveKind.CUT, blocked=False)
    qtbot.keyClick(room, K.Key_Return)
    window.sheets["cut"].expected_gain.set_value(to_si(9, "cfm"))
    window.sheets["cut"].take_button.click()
    port = window.open_book.workspace.port  # type: ignore[union-attr]
    assert port.cuts[-1].expected_gain == pytest.approx(to_si(9, "cfm"))
    assert port.cuts[-1].expected_by == ""
    assert port.cuts[-1].expected_low is None


def test_another_cam_is_asked_about_and_a_result_kept_by_keyboard(window: MainWindow, qtbot) -> None:  # type: ignore[no-untyped-def]
    window.resize(1024, 700)
    room = look(window, qtbot, "Intake 1")
    qtbot.keyClick(room, K.Key_E)
    sheet = window.sheets["engine"]
    assert sheet.isVisible(), "the engine is in reach in a small window too"
    qtbot.waitUntil(lambda: "VE" in sheet.told.text(), timeout=30_000)
    assert "Blow-down leaves" in sheet.told.text()
    sheet.rocker.box.setFocus()
    qtbot.keyClicks(sheet.rocker.box, "1.6")
    qtbot.keyClick(sheet.rocker.box, K.Key_Return)
    assert "needs the job's own cam and rocker ratio" in sheet.problem.text()
    sheet.rocker.box.clear()
    sheet.lift.box.setFocus()
    qtbot.keyClicks(sheet.lift.box, "0.52")
    qtbot.keyClick(sheet.lift.box, K.Key_Return)
    qtbot.waitUntil(lambda: "with the other cam" in sheet.told.text(), timeout=30_000)
    sheet.add_result.click()
    result = window.sheets["result"]
    qtbot.keyClicks(result.table, "3000 x")
    result.take_button.click()
    assert result.isVisible()
    assert result.problem.text()
    assert result.table.text() == "3000 x", "what was typed stays"
    result.table.setText("3000 60; 6000 118")
    qtbot.keyClicks(result.also, "nothing")
    qtbot.keyClick(result.also, K.Key_Return)
    assert result.isHidden()
    job = window.open_book.workspace.job  # type: ignore[union-attr]
    assert job.engine_results[0].peak_power == pytest.approx(to_si(118, "hp"))
    sheet.open()
    assert "118 hp at 6,000 rpm" in sheet.results.text()
    assert "from three dyno results on" in sheet.results.text()
    window.close()


def test_stages_are_closed_by_hand_and_opened_by_undo(window: MainWindow, qtbot) -> None:  # type: ignore[no-untyped-def]
    room = look(window, qtbot, "Intake 4")
    qtbot.keyClick(room, K.Key_S)
    sheet = window.sheets["route"]
    assert "■&nbsp;" in sheet.stages.text()
    before = sheet.stages.text().count("✓")
    sheet.how.setCurrentText("photo")
    qtbot.keyClick(sheet.how, K.Key_Return)
    assert sheet.stages.text().count("✓") == before + 1
    space = window.open_book.workspace
    assert space is not None
    assert space.job.stage_marks[0].closed_by == "photo"
    space.undo()
    assert sheet.stages.text().count("✓") == before


def test_a_wall_that_was_not_read_is_read_first(window: MainWindow, qtbot) -> None:  # type: ignore[no-untyped-def]
    room = look(window, qtbot, "Intake 3")
    line = pick(room, qtbot, MoveKind.CUT, blocked=True)
    assert line.mark == "cross"
    assert line.rate == "–"
    read = pick(room, qtbot, MoveKind.WALL, blocked=False)
    qtbot.keyClick(room, K.Key_Return)
    assert window.sheets["wall"].isVisible()
    assert window.sheets["wall"].place.currentText().lower() == read.move.place


@pytest.mark.parametrize("size", [(1280, 800), (1024, 700)])
def test_nothing_of_what_limits_lies_over_another(window: MainWindow, qtbot, size: tuple[int, int]) -> None:  # type: ignore[no-untyped-def]
    room = look(window, qtbot, "Intake 1")
    window.resize(*size)
    qtbot.wait(100)
    column = (
        room.port_page.limits_head,
        room.port_page.lift_words,
        room.port_page.basis,
        room.port_page.bar,
        room.port_page.legend,
        room.port_page.fit_said,
        room.keys,
    )
    seen = [w for w in column if w.isVisible()]
    assert room.port_page.bar in seen and room.port_page.legend in seen, "what hatching means is always said"
    for above, below in pairwise(seen):
        assert above.geometry().bottom() < below.geometry().top(), (above, below)
    assert "The model fits" in room.port_page.bar.toolTip()


def test_a_port_never_flowed_says_that_nothing_is_proven(window: MainWindow, qtbot) -> None:  # type: ignore[no-untyped-def]
    room = look(window, qtbot, "Intake 4")
    assert "by the book" in room.port_page.verdict.text()
    assert "nothing here is proven" in room.port_page.reason.text()
    assert room.port_page.worth.text().startswith("~")
    assert not any(s.measured for s in room.port_page.bar.segments)
    window.resize(1280, 800)
    assert "Stages, without a bench" in room.port_page.beside.stages.text()
    assert room.port_page.beside.stages.text().count("■") == 1, "one stage comes next"
    assert not room.port_page.beside.expected.isVisible()
    assert all(line.gain.startswith("~") for line in room.port_page.moves.lines if line.gain)


def test_the_engine_stands_beside_an_intake_that_was_flowed(window: MainWindow, qtbot) -> None:  # type: ignore[no-untyped-def]
    window.resize(1280, 800)
    room = look(window, qtbot, "Intake 1")
    qtbot.waitUntil(lambda: not room.busy, timeout=30_000)
    assert room.port_page.beside.engine_plot.isVisible()
    assert room.port_page.beside.engine_caption.text() == "VE, %, over 1,000 rpm: cut 0 (dashed) to 3"
    assert "no waves" in room.port_page.beside.engine_card.text()
    space = window.open_book.workspace
    assert space is not None
    space.apply("lobe centre", replace(space.job, intake_centreline=None))
    qtbot.waitUntil(
        lambda: "Absolute volumetric efficiency needs intake centerline" in room.port_page.beside.engine_card.text(),
        timeout=30_000,
    )
    assert room.port_page.beside.engine_caption.text().startswith("change of VE")
    room = look(window, qtbot, "Exhaust 1")
    assert not room.port_page.beside.engine_plot.isVisible()


def test_another_port_is_planned_anew_and_esc_lets_go(window: MainWindow, qtbot) -> None:  # type: ignore[no-untyped-def]
    room = look(window, qtbot, "Intake 1")
    first = room.port_page.plan
    space = window.open_book.workspace
    assert space is not None
    exhaust = next(p for p in space.job.ports if p.name == "Exhaust 1")
    space.look_at(exhaust.cuts[-1].id)
    assert room.port_page.plan is None, "no figure of another port stays on screen"
    assert room.waiting.isVisible()
    qtbot.keyClick(room, K.Key_Return)
    assert not window.sheets["cut"].isVisible(), "and none of its moves can be taken"
    room = look(window, qtbot, "Exhaust 1")
    assert room.port_page.plan is not first
    room.port_page.plan = None
    room.refresh()
    qtbot.keyClick(room, K.Key_Escape)
    assert not room.planner.busy
    assert "Stopped" in room.waiting.text()


@pytest.mark.parametrize("size", [(1024, 700), (1280, 800)])
def test_rates_are_in_sight_in_a_small_window(window: MainWindow, qtbot, size: tuple[int, int]) -> None:  # type: ignore[no-untyped-def]
    window.resize(*size)
    room = look(window, qtbot, "Intake 1")
    qtbot.waitUntil(lambda: room.port_page.moves.width() >= room.port_page.moves.minimumWidth())
    port = room.port_page.moves.parentWidget()
    assert room.port_page.moves.width() <= port.width(), "no column runs out of sight"
    assert {"rate", "wall", "cc"} <= set(room.port_page.moves._columns())


def test_a_new_job_says_what_is_wanted_and_which_stage_comes_first(open_window: Open, qtbot) -> None:  # type: ignore[no-untyped-def]
    window = open_window(demo=False)
    window.files.new_job()
    window.go_to_named("plan")
    qtbot.waitUntil(lambda: not window.rooms["plan"].planner.busy, timeout=20_000)
    assert window.rooms["plan"].head_page.strip.verdict.text().startswith("Next: clean")
    qtbot.keyClick(window.rooms["plan"], K.Key_P)
    qtbot.waitUntil(lambda: not window.rooms["plan"].planner.busy, timeout=20_000)
    said = window.rooms["plan"].waiting.text()
    assert "its head diameter is needed (Head)" in said
    assert "Without a bench, next: clean." in said
    assert window.rooms["plan"].port_page.line is None
    qtbot.keyClick(window.rooms["plan"], K.Key_Return)  # nothing to take, and nothing happens
    assert not window.sheets["cut"].isVisible()


def test_no_job_says_what_to_do(open_window: Open) -> None:
    window = open_window(demo=False)
    window.go_to_named("plan")
    assert window.rooms["plan"].port_page.plan is None
    window.close()


# -- the whole head


def on_the_head(window: MainWindow, qtbot) -> PlanRoom:  # type: ignore[no-untyped-def]
    window.go_to_named("plan")
    room = window.rooms["plan"]
    qtbot.waitUntil(lambda: not room.planner.busy, timeout=30_000)
    return room


def test_it_opens_on_the_head_with_one_answer_and_a_list(window: MainWindow, qtbot) -> None:  # type: ignore[no-untyped-def]
    room = on_the_head(window, qtbot)
    page = room.head_page
    assert page.isVisible()
    assert page.strip.verdict.text() == "Next: look Intake 1 over for faults"
    assert "things wait for it" in page.strip.reason.text()
    assert page.table.rowCount() > 20
    qtbot.keyClick(room, K.Key_Down)
    assert page.table.currentRow() == 1
    qtbot.keyClick(room, K.Key_P)
    qtbot.waitUntil(lambda: room.port_page.plan is not None, timeout=20_000)
    assert not page.isVisible()
    assert room.port_page.moves.isVisible()
    qtbot.keyClick(room, K.Key_P)
    assert page.isVisible()


def test_enter_goes_where_it_is_done_and_the_list_follows(window: MainWindow, qtbot) -> None:  # type: ignore[no-untyped-def]
    room = on_the_head(window, qtbot)
    qtbot.keyClick(room, K.Key_Return)
    sheet = window.sheets["fault"]
    assert sheet.isVisible()
    qtbot.mouseClick(sheet.looked, Qt.MouseButton.LeftButton)
    window.put_sheet_away()
    qtbot.waitUntil(lambda: not room.planner.busy, timeout=30_000)
    assert "Intake 1 over for faults" not in room.head_page.strip.verdict.text()
    table = room.head_page.table
    wall = next(r for r in range(table.rowCount()) if table.text_at(r, 0).startswith("Read the"))
    table.selectRow(wall)
    item = room.head_page.chosen
    assert item is not None and item.port is not None
    table.itemDoubleClicked.emit(table.item(wall, 0))
    assert window.sheets["wall"].isVisible()
    assert window.sheets["wall"].place.currentText() == item.place
    space = window.open_book.workspace
    assert space is not None and space.port is not None
    assert space.port.id == item.port.id


def test_an_evening_is_filled_and_wrong_hours_are_said(window: MainWindow, qtbot) -> None:  # type: ignore[no-untyped-def]
    room = on_the_head(window, qtbot)
    page = room.head_page
    whole = page.table.rowCount()
    QTest.keyClicks(page.have, "1.5")
    QTest.keyClick(page.have, K.Key_Return)
    assert 0 < page.table.rowCount() < whole
    minutes = sum(int(page.table.text_at(r, 1)) for r in range(page.table.rowCount()))
    assert minutes <= 90
    assert f"{minutes} min" in page.filled.text()
    page.have.setText("30")
    QTest.keyClick(page.have, K.Key_Return)
    assert page.filled.text() == "An evening has more than 0 hours and no more than 24."
    assert page.have.text() == "30"
    assert page.table.rowCount() == whole


def test_a_set_of_passes_is_logged_as_one_cut_with_a_depth_each(window: MainWindow, qtbot) -> None:  # type: ignore[no-untyped-def]
    room = look(window, qtbot, "Intake 1")
    line = pick(room, qtbot, MoveKind.BATCH, blocked=False)
    qtbot.keyClick(room, K.Key_Return)
    sheet = window.sheets["cut"]
    depths = {row.place: row.how_deep.value for row in sheet.works.rows}
    assert depths == {p.place: pytest.approx(p.depth, abs=to_si(0.0006, "in")) for p in line.move.passes}
    sheet.log()
    space = window.open_book.workspace
    assert space is not None and space.port is not None
    logged = space.port.cuts[-1]
    assert {w.place for op in logged.operations for w in op.works} == set(depths)
    assert logged.expected_low is not None and logged.expected_by == "plan"

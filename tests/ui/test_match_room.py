"""The Match room in the real window, by keyboard: which port differs, stages and their clock, waits, copies, parts."""

from __future__ import annotations

from dataclasses import replace
from pathlib import Path

import pypdfium2 as pdfium
import pytest
from PySide6.QtCore import QPoint, Qt
from PySide6.QtWidgets import QApplication, QInputDialog

from tests.at_work import at, record
from tests.ui.stand_in import Open
from ventrix.core.quantity.units import to_si
from ventrix.ui.match.room import HELD, MatchRoom
from ventrix.ui.window.main_window import MainWindow

K = Qt.Key


@pytest.fixture
def window(open_window: Open) -> MainWindow:
    window = open_window(head=True, room="match")
    window.resize(1280, 800)
    window.rooms["match"].setFocus()
    return window


def go(room: MatchRoom, qtbot, stage: str, port: str) -> None:  # type: ignore[no-untyped-def]
    """Walk to a box by the arrows."""
    assert room.match is not None
    names = [c.port.name for c in room.match.cells]
    for _ in names:
        if names[room.at] == port:
            break
        qtbot.keyClick(room, K.Key_Right)
    assert names[room.at] == port
    for _ in room.match.rows:
        qtbot.keyClick(room, K.Key_Up)
    for _ in room.match.rows:
        if room.stage_name == stage:
            break
        qtbot.keyClick(room, K.Key_Down)
    assert room.stage_name == stage


def test_it_says_which_differs_and_what_is_left(window: MainWindow) -> None:
    room = window.rooms["match"]
    assert "Intake 3: 2.1 cc," in room.verdict.text()
    assert "CFM short" in room.verdict.text()
    assert "Intake 4 is thin" in room.reason.text()
    assert room.figures[0][1].text() == "used of 26 quoted"
    assert room.figures[1][0].text().endswith(" h")
    assert room.match is not None
    words = {c.port.name: c.word for c in room.match.cells}
    assert words == {
        "Intake 1": "developed", "Intake 2": "alike", "Intake 3": "differs", "Intake 4": "thin",
        "Exhaust 1": "developed", "Exhaust 2": "alike", "Exhaust 3": "behind", "Exhaust 4": "behind",
    }  # fmt: skip
    band = next(r for r in room.match.rows if r.stage == "valve job")
    assert band.band.startswith("out at seat shop, since ")
    assert [m for _, m in zip(range(9), room.board.cells, strict=False)] == list(room.match.cells)


def test_m_marks_and_held_it_clocks(window: MainWindow, qtbot) -> None:  # type: ignore[no-untyped-def]
    room, space = window.rooms["match"], window.open_book.workspace
    assert space is not None
    go(room, qtbot, "short side", "Exhaust 3")
    port = space.port
    assert port is not None
    qtbot.keyClick(room, K.Key_M)
    assert at(space.job, "short side", port.id).done
    qtbot.keyClick(room, K.Key_M)
    assert len([o for c in space.port.cuts for o in c.operations if o.stage == "short side"]) == 1
    space.undo()
    assert not at(space.job, "short side", port.id).done
    go(room, qtbot, "guide", "Exhaust 3")
    qtbot.keyPress(room, K.Key_M)
    qtbot.wait(HELD + 150)
    for _ in range(3):  # some systems tell a held key as presses
        qtbot.keyPress(room, K.Key_M)
    qtbot.wait(HELD + 150)
    qtbot.keyRelease(room, K.Key_M)
    box = at(space.job, "guide", port.id)
    assert box.running_since is not None
    assert room.board.clock == "0:00"
    qtbot.keyClick(room, K.Key_M)
    box = at(space.job, "guide", port.id)
    assert box.running_since is None
    assert box.done


def test_a_stage_is_logged_for_many_ports_with_shared_minutes(window: MainWindow, qtbot) -> None:  # type: ignore[no-untyped-def]
    room, space = window.rooms["match"], window.open_book.workspace
    assert space is not None
    go(room, qtbot, "re-blend", "Intake 1")
    qtbot.keyClick(room, K.Key_Return)
    sheet = window.sheets["stage"]
    assert sheet.isVisible()
    qtbot.keyClicks(sheet.minutes.box, "60")
    sheet.others.setText("Intake 9")
    qtbot.keyClick(sheet.others, K.Key_Return)
    assert "'intake 9' is not one of" in sheet.problem.text().lower()
    assert sheet.minutes.box.text() == "60", "what was typed stays"
    sheet.others.setText("all intakes")
    qtbot.keyClick(sheet.others, K.Key_Return)
    assert sheet.isHidden()
    boxes = record(space.job)
    intakes = [p for p in space.job.ports if p.kind == "intake"]
    assert [boxes.at("re-blend", p).seconds for p in intakes] == [pytest.approx(900.0)] * 4


def test_what_waited_is_back_and_its_sheet_opens(window: MainWindow, qtbot) -> None:  # type: ignore[no-untyped-def]
    room, space = window.rooms["match"], window.open_book.workspace
    assert space is not None
    go(room, qtbot, "valve job", "Intake 1")
    qtbot.keyClick(room, K.Key_W)
    assert space.job.waits[0].ended is not None
    assert window.sheets["seat"].isVisible(), "valve job back opens its sheet"
    go(room, qtbot, "finish", "Intake 1")
    qtbot.keyClick(room, K.Key_W)
    sheet = window.sheets["wait"]
    sheet.promised.setText("some day")
    sheet.try_taking()
    assert "is not a day" in sheet.problem.text()
    sheet.promised.setText("2020-01-01")
    sheet.try_taking()
    assert "before the day it went out" in sheet.problem.text()
    sheet.promised.clear()
    sheet.try_taking()
    assert space.job.waits[-1].stage == "finish"


def test_copies_are_logged_by_each_ports_own_walls(window: MainWindow, qtbot) -> None:  # type: ignore[no-untyped-def]
    room, space = window.rooms["match"], window.open_book.workspace
    assert space is not None
    go(room, qtbot, "short side", "Intake 4")
    marks = {line.place: line.mark for line in room.copying.lines}
    assert marks == {"short side": "cross", "guide": "tick"}
    qtbot.keyClick(room, K.Key_C)
    sheet = window.sheets["copy"]
    assert not next(b for b, c in sheet.boxes if c.place == "short side").isEnabled()
    assert [sheet.up_to.itemData(i) for i in range(sheet.up_to.count())] == [4, 3, 2, 1]
    sheet.up_to.setCurrentIndex(1)
    sheet.up_to.activated.emit(1)
    assert [c.place for _, c in sheet.boxes] == ["short side"], "the guide came with cut 4"
    sheet.up_to.setCurrentIndex(0)
    sheet.up_to.activated.emit(0)
    qtbot.keyClicks(sheet.minutes.box, "40")
    sheet.take_button.click()
    port = space.port
    assert port is not None
    last = port.cuts[-1]
    assert [(w.place, w.depth) for w in last.operations[0].works] == [("guide", pytest.approx(to_si(0.040, "in")))]
    qtbot.keyClick(room, K.Key_C)
    assert not any(b.isChecked() for b, _ in sheet.boxes)
    sheet.try_taking()
    assert "nothing was chosen" in sheet.problem.text().lower()


def test_parts_step_on_and_costs_are_the_shops_own(window: MainWindow, qtbot) -> None:  # type: ignore[no-untyped-def]
    room, space = window.rooms["match"], window.open_book.workspace
    assert space is not None
    qtbot.keyClick(room, K.Key_P)
    sheet = window.sheets["job_parts"]
    springs = next(b for b in sheet.buttons if "springs" in b.text())
    springs.click()
    assert next(p for p in space.job.parts if p.kind == "spring").state == "here"
    sheet.count.setText("none")
    sheet.try_taking()
    assert "is not how many" in sheet.problem.text()
    sheet.count.setText("2")
    sheet.try_taking()
    assert space.job.parts[-1].count == 2
    room.setFocus()
    qtbot.keyClick(room, K.Key_Q)
    quote = window.sheets["quote"]
    assert "outside: valve job" in quote.table.text()
    assert len(window.rooms["match"].head_view._bolts) == 6, "bolts of the face that Line-up keeps are marks"
    quote.promise.setText("soon")
    quote.try_taking()
    assert "is not a day" in quote.problem.text()
    quote.promise.setText("2026-12-24")
    quote.rate.setText("70")
    quote.try_taking()
    assert space.job.rate == 70.0
    assert space.job.promise_date == "2026-12-24"


def test_tab_finds_the_next_that_differs_and_y_copies_a_line(window: MainWindow, qtbot, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    room, space = window.rooms["match"], window.open_book.workspace
    assert space is not None
    qtbot.keyClick(room, K.Key_D)
    assert space.port is not None
    assert space.port.name == "Intake 3"
    qtbot.keyClick(room, K.Key_D)
    assert space.port.name == "Intake 4"
    qtbot.keyClick(room, K.Key_Y)
    assert QApplication.clipboard().text().startswith("Tillow 2.0 eight-valve, all ports: 25 of 50 stages are done")
    path = tmp_path / "cards.pdf"
    assert window.rooms["sheet"].hand_over.write_every_card(path)
    document = pdfium.PdfDocument(path)
    assert len(document) >= 8, "a card a port"
    document.close()


@pytest.mark.parametrize("size", [(1024, 700), (1280, 800)])
def test_nothing_leaves_the_window(window: MainWindow, qtbot, size: tuple[int, int]) -> None:  # type: ignore[no-untyped-def]
    window.resize(*size)
    room = window.rooms["match"]
    qtbot.waitUntil(lambda: room.width() <= size[0] - window.rail.width() + 2)
    assert room.minimumSizeHint().width() <= room.width()
    for box, _ in room.head_view.boxes():
        assert box.right() <= room.head_view.width() + 1


def test_a_job_that_nobody_touched_says_where_to_begin(open_window: Open) -> None:
    window = open_window(demo=False)
    window.sheets["new_job"].open()
    window.sheets["new_job"].cylinders.setText("4")
    window.sheets["new_job"].take()
    window.go_to_named("match")
    assert "start with faults looked for on I1" in window.rooms["match"].verdict.text()
    assert "No port is developed yet" in window.rooms["match"].reason.text()
    assert "no due date" in window.rooms["match"].figures[2][0].text()
    window.rooms["match"].acts.mark()
    assert "clean" in window.open_book.workspace.job.ports[0].cuts[0].operations[0].stage  # type: ignore[union-attr]


def test_names_with_angle_brackets_are_shown_as_they_are(window: MainWindow) -> None:
    space = window.open_book.workspace
    assert space is not None
    odd = tuple(replace(p, name="<b>Three</b>") if p.name == "Intake 3" else p for p in space.job.ports)
    space.apply("renamed", replace(space.job, ports=odd))
    assert "&lt;b&gt;Three&lt;/b&gt;" in window.rooms["match"].verdict.text()


def test_a_box_is_marked_drawn_out_closed_by_hand_and_opened_by_the_mouse(window: MainWindow, qtbot) -> None:  # type: ignore[no-untyped-def]
    room, space = window.rooms["match"], window.open_book.workspace
    assert space is not None and room.match is not None
    board = room.board
    keys = [row.key for row in room.match.rows]
    i = next(n for n, row in enumerate(room.match.rows) if "open" in row.states and not row.band)
    j = room.match.rows[i].states.index("open")
    port = room.match.cells[j].port
    at_box = board.box(i, j).center().toPoint()
    qtbot.mouseClick(board, Qt.MouseButton.LeftButton, pos=at_box)
    assert (room.stage_name, space.port.id if space.port else "") == (keys[i], port.id)
    assert not at(space.job, keys[i], port.id).done, "the first click only chooses"
    qtbot.mouseClick(board, Qt.MouseButton.LeftButton, pos=at_box)
    assert at(space.job, keys[i], port.id).done
    assert space.undo()
    end = board.box(i, j).topRight().toPoint() + QPoint(-3, 6)
    qtbot.mousePress(board, Qt.MouseButton.LeftButton, pos=end)
    qtbot.mouseMove(board, end + QPoint(3 + 32, 0))
    qtbot.mouseRelease(board, Qt.MouseButton.LeftButton, pos=end + QPoint(3 + 32, 0))
    assert at(space.job, keys[i], port.id).seconds == 20 * 60.0
    assert space.undo()
    room.show_all()
    words = [a.text() for a in room.menu().actions()]
    assert {"mark", "log with minutes", "open it again"} <= set(words)
    room.acts.close_by_hand("photo")
    assert at(space.job, keys[i], port.id).closed_by == "photo"
    room.acts.open_again()
    assert not at(space.job, keys[i], port.id).done


def test_a_clock_left_running_over_a_night_is_asked_about(
    window: MainWindow, qtbot, monkeypatch: pytest.MonkeyPatch
) -> None:  # type: ignore[no-untyped-def]
    room, space = window.rooms["match"], window.open_book.workspace
    assert space is not None
    room.acts.clock()
    running = space.clock.running()
    assert running is not None
    monkeypatch.setattr(type(space.clock), "seconds", lambda _self: None)  # as after a night
    monkeypatch.setattr(QInputDialog, "getInt", lambda *_a, **_k: (35, True))
    room.acts.clock()
    done = next(op for p in space.job.ports for c in p.cuts for op in c.operations if op.id == running[1].id)
    assert done.duration == 35 * 60.0


def test_the_model_port_is_chosen_by_hand_shown_as_chosen_and_let_be_again(window: MainWindow) -> None:
    room, space = window.rooms["match"], window.open_book.workspace
    assert space is not None
    other = next(p for p in space.job.ports if p.name == "Intake 2")
    space.look_at_port(other.id)
    window.run_command("port.model")
    room.show_all()
    assert room.match is not None
    words = {c.port.name: c.word for c in room.match.cells}
    assert words["Intake 2"] == "model, chosen"
    assert words["Intake 1"] != "developed"
    window.run_command("port.model")
    room.show_all()
    assert {c.port.name: c.word for c in room.match.cells}["Intake 1"] == "developed"
    assert space.undo() and space.job.model_port_ids == (other.id,)

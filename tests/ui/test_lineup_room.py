"""The Line-up room in the real window, by keyboard: the worst edge, moving, planning, faces and drawings, milling."""

from __future__ import annotations

from dataclasses import replace
from datetime import date
from itertools import pairwise
from pathlib import Path

import numpy as np
import pypdfium2 as pdfium
import pytest
from PySide6.QtCore import QPointF, Qt
from PySide6.QtGui import QPixmap
from PySide6.QtTest import QTest

from tests.records.test_outline_files import drawing
from tests.ui.stand_in import Open
from ventrix.core.lineup.outlines import polygon_of
from ventrix.core.model.cut import WallReading
from ventrix.core.quantity.units import to_si
from ventrix.demo.whole_head import whole_head
from ventrix.records.files.new_ids import renewed
from ventrix.records.library.items import face_item
from ventrix.ui.lineup.room import LineUpRoom
from ventrix.ui.lineup.template_sheet import TemplateSheet
from ventrix.ui.widgets.action_bar import ActionBar
from ventrix.ui.widgets.command import Command
from ventrix.ui.window.main_window import MainWindow

K = Qt.Key


@pytest.fixture
def window(open_window: Open) -> MainWindow:
    window = open_window(head=True, room="lineup")
    window.resize(1280, 800)
    window.rooms["lineup"].setFocus()
    return window


def steps(room: LineUpRoom) -> dict[str, str]:
    assert room.shown is not None
    return {line.name: line.air for line in room.shown.lines}


def test_the_worst_edge_is_said_first(window: MainWindow) -> None:
    room = window.rooms["lineup"]
    assert "Intake 1, roof: 0.024 in step facing the air" in room.verdict.text()
    assert room.reason.text().startswith("The head faces the air. Take 0.024 in off the head: read its wall first.")
    assert "0.32°" in room.runs.text(), "the casting runs 5.5 in a thousand: 0.32 degrees"
    facing = [name for name, air in steps(room).items() if air == "facing the air"]
    assert facing == ["1, roof", "4, floor"]
    assert "from the middle of bolt" in room.gauge.text()


def test_a_wall_read_at_the_opening_stands_in_its_line_and_stops_the_cut(open_window: Open) -> None:
    """0.112 in of roof over water with a limit of 0.100 leaves at most 0.012 in to take, whatever the step wants; a
    depth judged by eye goes deeper than meant, so it is less."""
    job = whole_head(date.today())
    port = next(p for p in job.ports if p.name == "Intake 1")
    roof = WallReading(
        id="roof", place="opening", band="roof", thickness=to_si(0.112, "in"), behind="water", uncertainty=0.0
    )
    cuts = (*port.cuts[:-1], replace(port.cuts[-1], walls=(*port.cuts[-1].walls, roof)))
    window = open_window()
    ports = tuple(replace(p, cuts=cuts) if p.id == port.id else p for p in job.ports)
    window.open_book.book.add_job(replace(job, ports=ports), benches=())
    window.files.open_job("demo-whole-head")
    window.go_to_named("lineup")
    assert window.rooms["lineup"].shown is not None
    lines = {line.name: line for line in window.rooms["lineup"].shown.lines}
    assert lines["1, roof"].wall == "0.112"
    proposal = lines["1, roof"].proposal
    assert proposal is not None
    assert to_si(0.006, "in") < proposal.depth < to_si(0.012, "in")
    assert (lines["4, floor"].wall, lines["4, floor"].take_off) == ("not read", "head, 0.024")
    assert "the wall is at your limit" in window.rooms["lineup"].reason.text()


def test_arrows_move_the_face_and_b_puts_it_back(window: MainWindow, qtbot) -> None:  # type: ignore[no-untyped-def]
    room = window.rooms["lineup"]
    assert room.shown is not None
    was = room.shown.lines[0].edge.step
    qtbot.keyClick(room, K.Key_Down)
    assert room.shown.lines[0].edge.port == "Intake 4", "lower, the other end's floor is the worst"
    qtbot.keyClick(room, K.Key_B)
    assert room.shown.lines[0].edge.step == pytest.approx(was)
    for _ in range(6):
        qtbot.keyClick(room, K.Key_Left, Qt.KeyboardModifier.ShiftModifier)
    assert room.found is not None
    assert room.found.by == "hand"
    assert not any(air == "facing the air" for air in steps(room).values()), "turned by 0.3 degrees it lies flat"
    qtbot.keyClick(room, K.Key_F)
    assert room.found.by == "ports"
    assert room.found.fit.turn == pytest.approx(0.0055, abs=2e-4)


def test_what_was_moved_on_one_head_is_not_laid_on_another(window: MainWindow, qtbot) -> None:  # type: ignore[no-untyped-def]
    room = window.rooms["lineup"]
    other = renewed(replace(whole_head(date.today()), id="second", title="a second head"))
    window.open_book.book.add_job(other, benches=())
    assert room.shown is not None
    was = [line.edge.step for line in room.shown.lines]
    qtbot.keyClick(room, K.Key_Right)
    assert [line.edge.step for line in room.shown.lines] != was
    window.files.open_job(other.id)
    assert [line.edge.step for line in room.shown.lines] == pytest.approx(was)


@pytest.mark.parametrize("name", ["flow", "cuts", "plan", "match", "lineup"])
def test_the_foot_of_a_room_is_a_button_for_every_key_it_has(window: MainWindow, qtbot, name: str) -> None:  # type: ignore[no-untyped-def]
    window.go_to_named(name)
    room = window.room
    QTest.qWait(50)
    bar = room.findChild(ActionBar)
    assert bar is not None
    qtbot.waitUntil(bar.isVisible, timeout=20_000)
    QTest.qWait(50)
    assert [b.command.id for b in bar.buttons] == [c.id for c in room.commands if c.keys != "Esc"]
    right, bottom = bar.width(), bar.height()
    for button in bar.buttons:
        assert button.command.keys in button.accessibleName()
        assert button.command.name in button.accessibleName()
        assert button.geometry().right() <= right
        assert button.geometry().bottom() <= bottom, "a line that is not seen"
    for one, other in pairwise(bar.buttons):
        assert not one.geometry().intersects(other.geometry())


def test_a_button_at_the_foot_is_able_whenever_its_command_is() -> None:
    can = {"now": False}
    bar = ActionBar()
    bar.show_actions((Command("a", "act", lambda: None, "A", able=lambda: can["now"]),))
    assert not bar.buttons[0].isEnabled()
    assert "nothing to do it to" in bar.buttons[0].toolTip()
    can["now"] = True
    bar.follow()
    assert bar.buttons[0].isEnabled()


@pytest.mark.parametrize("name", ["flow", "cuts"])
def test_a_foot_follows_what_the_room_can_do(window: MainWindow, name: str) -> None:
    window.go_to_named(name)
    room = window.room
    bar = room.findChild(ActionBar)
    space = window.open_book.workspace
    for cut in space.port.cuts:
        space.look_at(cut.id)
        QTest.qWait(20)
        assert [b.isEnabled() for b in bar.buttons] == [b.command.able() for b in bar.buttons]


def test_a_click_at_the_foot_does_what_the_key_does_and_leaves_the_keyboard_with_the_room(window: MainWindow) -> None:
    room = window.rooms["lineup"]
    room.setFocus()
    button = next(b for b in room.keys.buttons if b.command.id == "lineup.face")
    QTest.mouseClick(button, Qt.MouseButton.LeftButton)
    assert window.sheets["face"].isVisible()
    assert button.focusPolicy() == Qt.FocusPolicy.TabFocus


def test_keys_pick_ports_edges_and_true_steps(window: MainWindow, qtbot) -> None:  # type: ignore[no-untyped-def]
    room = window.rooms["lineup"]
    qtbot.keyClick(room, K.Key_4)
    assert room.line is not None
    assert room.line.edge.port == "Intake 4"
    qtbot.keyClick(room, K.Key_Period)
    qtbot.keyClick(room, K.Key_Comma)
    assert room.line.edge.port == "Intake 4"
    qtbot.keyClick(room, K.Key_X)
    assert room.near.times == 1.0
    qtbot.keyClick(room, K.Key_O)
    assert "gasket 1.5" in room.caption.text()
    assert "facing the air" in steps(room).values() or "let go" in steps(room).values()


def test_enter_plans_the_edge_in_cuts(window: MainWindow, qtbot) -> None:  # type: ignore[no-untyped-def]
    room = window.rooms["lineup"]
    qtbot.keyClick(room, K.Key_4)
    qtbot.keyClick(room, K.Key_Return)
    sheet = window.sheets["cut"]
    assert sheet.isVisible()
    (row,) = sheet.works.rows
    assert (row.place, row.side.currentText()) == ("opening", "floor")
    assert row.how_deep.value == pytest.approx(to_si(0.61, "mm"), abs=2e-5)
    space = window.open_book.workspace
    assert space is not None and space.port is not None
    assert space.port.name == "Intake 4"


def test_a_face_is_typed_and_wrong_ones_say_why(window: MainWindow, qtbot) -> None:  # type: ignore[no-untyped-def]
    qtbot.keyClick(window.rooms["lineup"], K.Key_N)
    sheet = window.sheets["face"]
    sheet.name.setText("header")
    sheet.part.setCurrentIndex(sheet.part.findData("header"))
    sheet.ports.setText("Exhaust 9 0 0")
    sheet.try_taking()
    assert "'exhaust 9' is not one of" in sheet.problem.text().lower()
    sheet.ports.setText("Intake 1; Intake 2")
    sheet.try_taking()
    assert "where is its middle" in sheet.problem.text()
    sheet.ports.setText("Intake 1 -165mm 0; Intake 2 -55mm 0")
    sheet.wide.box.setText("1.3")
    sheet.wide.box.setModified(True)
    sheet.try_taking()
    assert "needs its width and height" in sheet.problem.text()
    sheet.high.box.setText("1.7")
    sheet.high.box.setModified(True)
    sheet.bolts.setText("A -190mm 32mm; B -62mm 32mm")
    sheet.keep.setChecked(True)
    sheet.try_taking()
    assert sheet.isHidden(), sheet.problem.text()
    space = window.open_book.workspace
    assert space is not None
    face = space.job.faces[-1]
    assert (face.part, len(face.outlines), face.bolts[0].name) == ("header", 2, "A")
    assert face.outlines[0].centre == pytest.approx((-0.165, 0.0))
    space.undo()
    assert len(space.job.faces) == 4
    sheet.open()
    assert sheet.known.itemText(1) == "header, header"
    sheet.known.setCurrentIndex(1)
    sheet.known.activated.emit(1)
    again = space.job.faces[-1]
    assert again.id != face.id
    assert again.outlines[0].centre == face.outlines[0].centre


def test_openings_come_from_a_drawing(window: MainWindow, tmp_path: Path) -> None:
    sheet = window.sheets["face"]
    sheet.open()
    sheet.bring_in(tmp_path / "none.dxf")
    assert sheet.problem.text()
    sheet.bring_in(drawing(tmp_path / "head.dxf"))
    count = len(sheet._drawn)
    assert f"{count} openings from head.dxf" in sheet.warning.text()
    sheet.name.setText("drawn")
    sheet.part.setCurrentIndex(sheet.part.findData("manifold"))
    sheet.ports.setText("Intake 1; Intake 2")
    sheet.try_taking()
    assert f"the drawing has {count} openings" in sheet.problem.text().lower()
    names = ["Intake 1", "Intake 2", "Intake 3", "Intake 4", "Exhaust 1"][:count]
    sheet.ports.setText("; ".join(names))
    sheet.try_taking()
    space = window.open_book.workspace
    assert space is not None
    assert [o.port for o in space.job.faces[-1].outlines] == names
    assert space.job.faces[-1].source == "drawing"


def test_milling_answers_while_typing(window: MainWindow, qtbot) -> None:  # type: ignore[no-untyped-def]
    qtbot.keyClick(window.rooms["lineup"], K.Key_M)
    sheet = window.sheets["milling"]
    qtbot.keyClicks(sheet.head.box, "0.030+0.020+0.005")
    assert "comes down 0.055 in" in sheet.told.text()
    sheet.lean.box.setText("50")
    sheet.bank.box.setText("45")
    sheet.reckon()
    assert "less than 90 degrees" in sheet.problem.text()


def test_a_template_is_true_to_size(window: MainWindow, tmp_path: Path) -> None:
    window.rooms["lineup"].setFocus()
    QTest.keyClick(window.rooms["lineup"], K.Key_T)
    sheet = window.sheets["template"]
    assert sheet.what.currentText() == "own manifold on intake face"
    assert bars_of(sheet, tmp_path / "template.pdf", pages=1) == pytest.approx((100.0, 100.0), abs=0.02)
    for field, typed in ((sheet.across, "99.2 mm"), (sheet.up, "101.5 mm")):
        field.box.setText(typed)
        field.box.setModified(True)
    assert sheet.settle_fields()
    wanted = 100 / 0.992, 100 / 1.015
    assert bars_of(sheet, tmp_path / "again.pdf", pages=1) == pytest.approx(wanted, abs=0.02)
    sheet.open(window.rooms["lineup"].found)
    assert sheet.across.value == pytest.approx(0.0992), "the printer stays the same one"
    assert not sheet.write(tmp_path / "no" / "such.pdf")
    assert "no such" in sheet.problem.text().lower()
    sheet.across.box.setText("50 mm")
    sheet.across.box.setModified(True)
    sheet.try_taking()
    assert "lies between 90 and 110 mm" in sheet.problem.text()


def bars_of(sheet: TemplateSheet, path: Path, pages: int) -> tuple[float, float]:
    """Both bars [mm] as a PDF reader of another make finds them: the longest level and the longest upright line."""
    assert sheet.write(path)
    document = pdfium.PdfDocument(path)
    assert len(document) == pages
    assert "100 mm; measured" in document[0].get_textpage().get_text_bounded()
    bounds = [o.get_bounds() for o in document[0].get_objects(filter=[pdfium.raw.FPDF_PAGEOBJ_PATH])]
    text = document[0].get_width()
    wide = [r - left for left, low, r, top in bounds if top - low < 3 and r - left < 0.6 * text]
    high = [top - low for left, low, r, top in bounds if r - left < 3]
    document.close()
    pen = 2 * 1.2  # points: bounds hold the line's own width at either end
    return (max(wide) - pen) / 72 * 25.4, (max(high) - pen) / 72 * 25.4


def test_a_gasket_is_printed_from_the_library_or_the_job(window: MainWindow, tmp_path: Path) -> None:
    sheet = window.sheets["template"]
    sheet.open(window.rooms["lineup"].found)
    sheet.what.setCurrentText("gasket 1.5 alone")
    assert sheet.write(tmp_path / "gasket.pdf")
    document = pdfium.PdfDocument(tmp_path / "gasket.pdf")
    text = document[0].get_textpage().get_text_bounded()
    document.close()
    assert "1.339 in wide, 1.732 in high" in text
    space = window.open_book.workspace
    assert space is not None
    gasket = next(f for f in space.job.faces if f.part == "gasket")
    window.open_book.book.write((None, face_item(replace(gasket, name="kept one"), "2026-01-01")))
    sheet.open(None)
    sheet.what.setCurrentText("kept one, from the library")
    assert sheet.write(tmp_path / "kept.pdf")


@pytest.mark.parametrize("size", [(1024, 700), (1280, 800)])
def test_nothing_leaves_the_window(window: MainWindow, qtbot, size: tuple[int, int]) -> None:  # type: ignore[no-untyped-def]
    window.resize(*size)
    room = window.rooms["lineup"]
    qtbot.waitUntil(lambda: room.width() <= size[0] - window.rail.width() + 2)
    assert room.minimumSizeHint().width() <= room.width()


def test_a_job_without_faces_says_what_to_do(open_window: Open) -> None:
    window = open_window(demo=False)
    window.files.new_job()
    window.go_to_named("lineup")
    assert "needs a face of the head" in window.rooms["lineup"].waiting.text()
    assert "N types a face" in window.rooms["lineup"].waiting.text()
    window.rooms["lineup"].plan()  # nothing to plan, and nothing happens
    assert not window.sheets["cut"].isVisible()


def test_chambers_and_shrouding_answer_while_typing(window: MainWindow, qtbot) -> None:  # type: ignore[no-untyped-def]
    qtbot.keyClick(window.rooms["lineup"], K.Key_H)
    sheet = window.sheets["chamber"]
    assert "No chamber was poured yet" in sheet.chambers.text()
    told = sheet.told.text()
    assert "to the chamber" in told, "the chamber's own outline is nearer than the bore"
    assert "intake" in told and "exhaust" in told and "At 0.600 in too close" in told
    sheet.outline.setCurrentIndex(0)
    sheet.reckon()
    assert "to the bore" in sheet.told.text() and "to the chamber" not in sheet.told.text()
    sheet.middles["intake"].clear()
    qtbot.keyClicks(sheet.middles["intake"], "-1.2 0")
    assert "hangs" in sheet.told.text()
    qtbot.keyClicks(sheet.middles["intake"], " 0.1")
    assert "x and y, with a space between" in sheet.problem.text()
    sheet.middles["intake"].setText("-1.9 0")
    sheet.reckon()
    assert "he intake valve's center is outside the bore" in sheet.problem.text()


def test_edges_are_typed_from_a_bolt(window: MainWindow, qtbot) -> None:  # type: ignore[no-untyped-def]
    """Bolt A at 5.0, 1.0: edges 0.1 and 1.3 right of it, 0.2 and 1.8 below: a middle at 5.7, 0.0."""
    qtbot.keyClick(window.rooms["lineup"], K.Key_N)
    sheet = window.sheets["face"]
    for box, text in (
        (sheet.name, "typed by edges"),
        (sheet.bolts, "A 5.0 1.0; B 9 1"),
        (sheet.ports, "Intake 1 A 0.1 1.3 -1.8 -0.2"),
    ):
        box.setText(text)
    sheet.part.setCurrentIndex(sheet.part.findData("gasket"))
    sheet.try_taking()
    space = window.open_book.workspace
    assert space is not None
    (outline,) = space.job.faces[-1].outlines
    assert np.array(outline.centre) == pytest.approx(np.array([5.7, 0.0]) * 0.0254)
    assert (outline.width, outline.height) == pytest.approx((1.2 * 0.0254, 1.6 * 0.0254))
    qtbot.keyClick(window.rooms["lineup"], K.Key_N)
    for text, words in (
        ("Intake 1 A 1.3 0.1 -1.8 -0.2", "left, right, floor and roof from bolt A"),
        ("Intake 1 Z 0.1 1.3 -1.8 -0.2", "is not one of"),
    ):
        sheet.name.setText("again")
        sheet.bolts.setText("A 5.0 1.0")
        sheet.ports.setText(text)
        sheet.try_taking()
        assert words in sheet.problem.text()
    sheet.bolts.setText("A 5.0")
    sheet.try_taking()
    assert "ach bolt or dowel needs its x and y" in sheet.problem.text()


def test_milling_of_the_manifold_takes_it_back_and_the_line_up_follows(window: MainWindow) -> None:
    """A 45 degree half bank, its face square: 0.020 in down wants 0.020 off the face, and 0.010 is half of it."""
    window.sheets["milling"].open()
    sheet = window.sheets["milling"]
    sheet.layout_of.setCurrentIndex(sheet.layout_of.findData("v"))
    sheet.layout_of.activated.emit(sheet.layout_of.currentIndex())
    sheet.head.box.setText("0.020")
    sheet.reckon()
    assert "0.020 in further up the head's face" in sheet.told.text()
    assert "edges of own manifold face the air then, 2 do now" in sheet.told.text()
    sheet.manifold.box.setText("0.010")
    sheet.reckon()
    assert "0.010 in still to come off" in sheet.told.text()
    assert "0.010 in further up the head's face" in sheet.told.text()
    sheet.manifold.box.setText("0.030")
    sheet.reckon()
    assert "0.010 in too much came off" in sheet.told.text()
    assert "further down the head's face" in sheet.told.text()


def test_openings_are_traced_on_a_photo_by_mouse_and_by_keys(window: MainWindow, qtbot, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    """A picture of 400 by 200 pixels; its two known points lie 300 pixels and 150 mm apart: half a millimetre each."""
    picture = QPixmap(400, 200)
    picture.fill(Qt.GlobalColor.white)
    path = tmp_path / "gasket.png"
    assert picture.save(str(path))
    sheet, room = window.sheets["face"], window.rooms["lineup"]
    sheet.open(room.tracing)
    sheet.trace(tmp_path / "none.png")
    assert "not a picture that can be read" in sheet.problem.text()
    sheet.trace(path)
    view = room.tracing
    assert view.isVisible()
    assert "first of two points" in view.says
    for x, y in ((50, 150), (350, 150), (100, 40), (160, 40), (160, 120), (100, 120)):
        view.put(QPointF(x, y))
    qtbot.keyClick(view, K.Key_Return)
    assert len(view.closed) == 1
    for x, y in ((250, 40), (310, 40)):
        view.put(QPointF(x, y))
    view.cross = QPointF(300, 120)
    for _ in range(5):
        qtbot.keyClick(view, K.Key_Right)
    qtbot.keyClick(view, K.Key_Space)
    qtbot.keyClick(view, K.Key_Backspace)
    qtbot.keyClick(view, K.Key_Space)
    view.put(QPointF(250, 120))
    qtbot.keyClick(view, K.Key_Return)
    qtbot.keyClick(view, K.Key_Escape)
    assert not view.isVisible()
    sheet.name.setText("photo gasket")
    sheet.part.setCurrentIndex(sheet.part.findData("gasket"))
    sheet.ports.setText("Intake 1; Intake 2")
    sheet.try_taking()
    assert "How far do the two known points" in sheet.problem.text()
    sheet.apart.box.setText("150 mm")
    sheet.apart.box.setModified(True)
    sheet.try_taking()
    space = window.open_book.workspace
    assert space is not None
    face = space.job.faces[-1]
    assert face.name == "photo gasket", sheet.problem.text()
    assert face.outlines[0].points == pytest.approx(
        [v * 0.5e-3 for v in (50, 110, 110, 110, 110, 30, 50, 30)], abs=1e-9
    )
    assert polygon_of(face.outlines[0]).area == pytest.approx(30e-3 * 40e-3)

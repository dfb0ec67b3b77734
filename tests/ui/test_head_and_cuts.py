"""The measuring sheet and the memory of the metal, driven in the real window."""

from __future__ import annotations

import json
from collections.abc import Callable
from dataclasses import replace
from pathlib import Path

import pytest
from PySide6.QtCore import QPointF, Qt
from PySide6.QtGui import QColor, QImage
from PySide6.QtWidgets import QApplication

from ventrix.core.edits.cuts import add_port
from ventrix.core.metal.unrolled import ZONES
from ventrix.core.model.kinds import CutKind
from ventrix.core.quantity.units import from_si
from ventrix.records.files.job_document import dumps_job, loads_job
from ventrix.ui.widgets.quantity_field import PlacedField
from ventrix.ui.window.main_window import MainWindow
from ventrix.workspace.new_job import new_port
from ventrix.workspace.workspace import Workspace

Open = Callable[..., MainWindow]


def space_of(window: MainWindow) -> Workspace:
    assert window.open_book.workspace is not None
    return window.open_book.workspace


def cut_two(window: MainWindow) -> Workspace:
    """Look at cut 2 of the demo's intake, the one that was worked most."""
    space = space_of(window)
    space.look_at(space.job.ports[0].cuts[2].id)
    return space


def typed(qtbot, field, text: str) -> None:  # type: ignore[no-untyped-def]
    field.box.setFocus()
    field.box.selectAll()
    qtbot.keyClicks(field.box, text)
    qtbot.keyClick(field.box, Qt.Key.Key_Return)


def test_every_figure_is_typed_at_its_place_and_none_lies_on_another(open_window: Open) -> None:
    window = open_window()
    window.go_to(0)
    window.resize(1280, 800)
    QApplication.processEvents()
    placed = [f for f in window.rooms["head"].fields.values() if isinstance(f, PlacedField)]
    assert len(placed) == 23
    area = window.rooms["head"].drawing.rect()
    for i, field in enumerate(placed):
        assert area.contains(field.geometry()), field.caption
        assert not any(field.geometry().intersects(other.geometry()) for other in placed[i + 1 :]), field.caption
    before = window.rooms["head"].drawing.grab().toImage()
    window.rooms["head"]._typing("throat_diameter", 0.030)
    assert window.rooms["head"].drawing.grab().toImage() != before  # it redraws to the numbers


def test_pinch_wall_and_percent_follow_while_typing(open_window: Open, qtbot) -> None:  # type: ignore[no-untyped-def]
    window = open_window(demo=False)
    window.files.new_job()
    window.go_to(0)
    fields, values = window.rooms["head"].fields, window.rooms["head"].derived.values
    typed(qtbot, fields["hole_spacing"], "1.29")
    typed(qtbot, fields["pinch_width"], "1.14")
    assert values["Wall at the pushrod hole"].text() == "0.075 in"  # common practice, no source: (1.29 - 1.14)/2
    typed(qtbot, fields["pinch_height"], "2.09")
    assert values["Section at the pinch"].text() == "2.383 in²"  # common practice, no source: 2.38
    typed(qtbot, fields["pinch_width"], "1.5")
    assert fields["pinch_width"].box.text() == "1.5" or fields["hole_spacing"].box.property("wrong")
    assert "broken through" in window.rooms["head"].said.text()
    typed(qtbot, fields["pinch_width"], "1.14")
    assert window.rooms["head"].said.text() == ""
    cut = window.open_book.book.load(space_of(window).job.id).ports[0].cuts[0]
    assert from_si(cut.pinch_width or 0, "in") == pytest.approx(1.14)


def test_stations_are_typed_pasted_copied_and_give_a_volume(open_window: Open) -> None:
    window = open_window(demo=False)
    window.files.new_job()
    window.go_to(0)
    tab = window.rooms["head"].pages[3]
    QApplication.clipboard().setText(
        "along\tname\twidth\theight\n0\topening\t1.2\t1.6\n1\t\t1.1\t1.6\n2\tpinch\t1.0\t1.6\n3\t\t1.2\t1.5\n"
    )
    tab.table.paste()  # type: ignore[attr-defined]
    cut = space_of(window).real_cut
    assert cut is not None
    assert [s.name for s in cut.stations] == ["opening", "", "pinch", ""]
    tab.table.copy()  # type: ignore[attr-defined]
    assert len(QApplication.clipboard().text().splitlines()) == 5
    QApplication.clipboard().setText("0\t\twide\t2")
    tab.table.paste()  # type: ignore[attr-defined]
    assert "row 1, width" in tab.problem.text().lower()
    assert space_of(window).real_cut == cut  # nothing in the book has changed
    for key, value in (("floor_length", 0.1), ("roof_length", 0.1), ("throat_diameter", 0.04)):
        window.rooms["head"]._typing(key, value)
    assert "By integration" in window.rooms["head"].derived.sentence.text()


def test_goal_schools_targets_limits_and_the_list_for_the_end(open_window: Open, qtbot) -> None:  # type: ignore[no-untyped-def]
    window = open_window()
    window.go_to(0)
    goal, finish = window.rooms["head"].pages[1], window.rooms["head"].pages[5]
    goal.targets.setText("0.3 160; 0.5 210")  # type: ignore[attr-defined]
    goal.targets.setModified(True)  # type: ignore[attr-defined]
    goal._targets_typed()  # type: ignore[attr-defined]
    goal.limits.setText("0.1; pinch 0.12")  # type: ignore[attr-defined]
    goal.limits.setModified(True)  # type: ignore[attr-defined]
    goal._limits_typed()  # type: ignore[attr-defined]
    goal.schools["lifts"].setCurrentText("low lift first")  # type: ignore[attr-defined]
    goal.schools["lifts"].activated.emit(1)  # type: ignore[attr-defined]
    job = window.open_book.book.load(space_of(window).job.id)
    assert [round(from_si(t.flow, "cfm")) for t in job.targets if t.kind == "intake"] == [160, 210]
    assert {w.place for w in job.wall_limits} == {"", "pinch"}
    assert job.schools == {"lifts": "low lift first"}
    goal.limits.setText("chimney 0.1")  # type: ignore[attr-defined]
    goal.limits.setModified(True)  # type: ignore[attr-defined]
    goal._limits_typed()  # type: ignore[attr-defined]
    assert "'chimney' is not one of" in goal.problem.text()
    window.rooms["head"].tabs.setCurrentIndex(5)
    box = finish.boxes["washed"]  # type: ignore[attr-defined]
    box.click()
    assert not box.isChecked()
    assert "initials" in finish.problem.text()
    finish.initials.setText("MK")  # type: ignore[attr-defined]
    box.click()
    assert "MK" in box.text()
    space_of(window).undo()
    assert not box.isChecked()


def test_casting_and_cam_table(open_window: Open) -> None:
    window = open_window()
    window.go_to(0)
    engine, casting = window.rooms["head"].pages[0], window.rooms["head"].pages[2]
    box = casting.numbers["valves"]  # type: ignore[attr-defined]
    for text, words in (("two", "not a whole number"), ("", "at least one valve")):
        box.setText(text)
        box.setModified(True)
        casting._number_typed("valves")  # type: ignore[attr-defined]
        assert words in casting.problem.text().lower()
    box.setText("2")
    box.setModified(True)
    casting._number_typed("valves")  # type: ignore[attr-defined]
    assert space_of(window).job.ports[0].valves == 2
    engine.table.setText("0 0; 60 0.2; 120 0.4; 180 0.2; 240 0")  # type: ignore[attr-defined]
    engine.table.setModified(True)  # type: ignore[attr-defined]
    engine._cam_typed()  # type: ignore[attr-defined]
    cam = space_of(window).findings.cam_of("intake")
    assert cam is not None
    assert from_si(cam.peak_lift, "in") == pytest.approx(0.4)
    engine.table.setText("0 0; 60")  # type: ignore[attr-defined]
    engine.table.setModified(True)  # type: ignore[attr-defined]
    engine._cam_typed()  # type: ignore[attr-defined]
    assert "not a crank angle and a lift" in engine.problem.text()


def test_a_cut_deeper_than_the_metal_is_said_before_it_is_logged(open_window: Open, qtbot) -> None:  # type: ignore[no-untyped-def]
    window = open_window()
    space_of(window).look_at(space_of(window).job.ports[0].cuts[3].id)
    window.go_to(2)
    qtbot.keyClick(window.rooms["cuts"], Qt.Key.Key_N)
    sheet = window.sheets["cut"]
    sheet.places.setText("short side")
    qtbot.keyClicks(sheet.works.rows[0].how_deep.box, "0.04")
    assert "under your limit of 0.110" in sheet.warning.text()
    assert "Water is behind it" in sheet.warning.text()
    sheet.places.setText("short side, guide")
    assert "No wall has been read at the guide of this port" in sheet.warning.text()
    qtbot.keyClicks(sheet.volume.box, "126")
    assert "now needs" in sheet.warning.text()  # break-even, the moment a volume is typed
    sheet.name.setText("guide away")
    sheet.expected_gain.box.setText("3")
    sheet.expected_gain.box.setModified(True)
    sheet.log()
    cut = space_of(window).real_cut
    assert cut is not None
    assert cut.name == "guide away"
    assert from_si(cut.expected_gain or 0, "cfm") == pytest.approx(3)
    short_side, guide = cut.operations[0].works
    assert from_si(short_side.depth or 0, "in") == pytest.approx(0.04)
    assert guide.place == "guide" and guide.depth is None


def test_bowl_guide_and_short_side_are_asked_three_depths_sides_and_how_far(open_window: Open, qtbot) -> None:  # type: ignore[no-untyped-def]
    window = open_window()
    sheet = window.sheets["cut"]
    sheet.open()
    sheet.name.setText("three places")
    sheet.places.setText("bowl, guide, short side")
    bowl, guide, short_side = sheet.works.rows
    qtbot.keyClicks(bowl.how_deep.box, "0.02")
    bowl.side.setCurrentText("4-8")
    guide.until.setCurrentIndex(1)
    assert not guide.how_deep.isEnabled()
    short_side.side.setCurrentText("floor")
    qtbot.keyClicks(short_side.how_deep.box, "0.03")
    sheet.places.setText("bowl, guide, short side, roof")  # one more place keeps what was typed
    assert sheet.works.rows[0].how_deep.box.text() == "0.02"
    sheet.places.setText("bowl, guide, short sid")  # a slip of the hand neither
    assert len(sheet.works.rows) == 4
    sheet.log()
    assert "'short sid' is not one of" in sheet.problem.text()
    sheet.places.setText("bowl, guide, short side")
    bowl.side.setCurrentText("nowhere")
    sheet.log()
    assert "is not a side" in bowl.problem.text() and sheet.isVisible()
    bowl.side.setCurrentText("4-8")
    sheet.kinds.boxes[CutKind.SEAT].setChecked(True)
    assert "trip to the machine shop" in sheet.caution.text() and "45 degrees" in sheet.caution.text()
    sheet.log()
    cut = space_of(window).real_cut
    assert cut is not None and cut.kinds == (CutKind.PORT, CutKind.SEAT)
    a, b, c = cut.operations[0].works
    assert (a.from_hour, a.to_hour, round(from_si(a.depth or 0, "in"), 4)) == (4.0, 8.0, 0.02)
    assert b.until == "flush" and b.depth is None
    assert c.side == "floor" and from_si(c.depth or 0, "in") == pytest.approx(0.03)


def test_minutes_given_for_each_port_are_not_shared(open_window: Open) -> None:
    window = open_window()
    space = space_of(window)
    space.apply("port", add_port(space.job, new_port("Intake 2", "intake")))
    sheet = window.sheets["cut"]
    sheet.open("bowl")
    sheet.name.setText("bowls")
    sheet.minutes.box.setText("60")
    sheet.minutes.box.setModified(True)
    sheet.each.setChecked(True)
    sheet.others.setText("Intake 2")
    sheet.log()
    for port in (p for p in space.job.ports if p.name in ("Intake 1", "Intake 2")):
        assert from_si(port.cuts[-1].operations[0].duration or 0, "min") == pytest.approx(60)


def test_work_logged_once_for_several_ports_shares_its_minutes(open_window: Open) -> None:
    window = open_window()
    space = space_of(window)
    space.apply("port", add_port(space.job, new_port("Intake 2", "intake")))
    sheet = window.sheets["cut"]
    sheet.open("bowl")
    sheet.name.setText("bowls")
    sheet.minutes.box.setText("60")
    sheet.minutes.box.setModified(True)
    sheet.others.setText("Intake 9")
    sheet.log()
    assert "'Intake 9' is not one of" in sheet.problem.text()
    assert sheet.name.text() == "bowls"  # nothing typed is lost
    sheet.others.setText("Intake 2")
    sheet.log()
    ports = {p.name: p for p in space.job.ports}
    for name in ("Intake 1", "Intake 2"):
        work = ports[name].cuts[-1].operations[0]
        assert from_si(work.duration or 0, "min") == pytest.approx(30)
        assert len(work.port_ids) == 2
    space.undo()
    assert len({p.name: p for p in space.job.ports}["Intake 2"].cuts) == 1


def test_walls_pours_and_operations_by_keyboard(open_window: Open, qtbot) -> None:  # type: ignore[no-untyped-def]
    window = open_window()
    cut_two(window)
    window.go_to(2)
    window.rooms["cuts"].choose_zone("pinch")
    assert any("wall" in line.text for line in window.rooms["cuts"].card.lines["Zone: pinch"])
    qtbot.keyClick(window.rooms["cuts"], Qt.Key.Key_W)
    sheet = window.sheets["wall"]
    assert sheet.place.currentText() == "pinch"
    sheet.take()
    assert "How much metal" in sheet.problem.text()
    qtbot.keyClicks(sheet.thickness.box, "0.090")
    sheet.take()
    cut = space_of(window).real_cut
    assert cut is not None
    assert from_si(cut.walls[-1].thickness, "in") == pytest.approx(0.090)
    assert window.rooms["cuts"].map.picture is not None
    assert any(p.thin and p.text == "0.090" for p in window.rooms["cuts"].map.picture.pins)
    qtbot.keyClick(window.rooms["cuts"], Qt.Key.Key_V)
    qtbot.keyClicks(window.sheets["pour"].volume.box, "122.3")
    window.sheets["pour"].take()
    volume = next(line for line in window.rooms["cuts"].card.lines["Volume and time"] if line.caption == "Poured")
    assert "2 pours, 0.4 apart" in volume.text
    qtbot.keyClick(window.rooms["cuts"], Qt.Key.Key_O)
    window.sheets["cut"].tool.setText("flap wheel")
    window.sheets["cut"].take()
    assert "flap wheel" in window.rooms["cuts"].card.lines["Operations"][-1].text
    for _ in range(3):
        space_of(window).undo()
    assert not any(p.text == "0.090" for p in window.rooms["cuts"].map.picture.pins)


def test_zones_are_chosen_with_mouse_and_arrows(open_window: Open, qtbot) -> None:  # type: ignore[no-untyped-def]
    window = open_window()
    window.go_to(2)
    window.open_book.use_reduced_motion(True)
    window.rooms["cuts"].refresh()
    the_map = window.rooms["cuts"].map
    assert the_map.picture is not None
    length = the_map.picture.port.length
    zone = next(z for z in ZONES if z.name == "short side")
    spot = the_map._place("floor", (zone.start + zone.end) / 2 * length, 0.0)
    qtbot.mouseClick(the_map, Qt.MouseButton.LeftButton, pos=spot.toPoint())
    assert window.rooms["cuts"].zone == "short side"
    found = the_map.place_at(spot)
    assert found is not None
    assert found[0] == "floor"
    assert found[1] == pytest.approx(0.79 * length, rel=0.02)
    assert the_map.place_at(QPointF(2, 2)) is None
    qtbot.keyClick(window.rooms["cuts"], Qt.Key.Key_Right)
    assert window.rooms["cuts"].zone == "bowl"


def test_an_exhaust_port_is_mirrored(open_window: Open) -> None:
    window = open_window()
    window.go_to(2)
    space_of(window).look_at_port("exhaust")
    the_map = window.rooms["cuts"].map
    assert the_map.picture is not None
    assert the_map._x(0.0) > the_map._x(the_map.picture.port.length)
    for along in (0.01, 0.05):
        found = the_map.place_at(the_map._place("roof", along, 0.2))
        assert found is not None
        assert found[0] == "roof"
        assert found[1] == pytest.approx(along, abs=1e-4)


def test_clay_hangs_below_its_cut_is_flowed_and_judged(open_window: Open, qtbot) -> None:  # type: ignore[no-untyped-def]
    window = open_window()
    space = cut_two(window)
    window.go_to(2)
    window.rooms["cuts"].choose_zone("pinch")
    qtbot.keyClick(window.rooms["cuts"], Qt.Key.Key_T)
    window.sheets["trial"].name.setText("clay at the pinch")
    window.sheets["trial"].area.box.setText("0.17")
    window.sheets["trial"].area.box.setModified(True)
    window.sheets["trial"].take()
    trial = space.trial
    assert trial is not None
    assert space.against is not None
    assert space.against.number == 2  # held against the cut that it hangs from
    chip = window.cut_row.columns[2].chips[0]
    assert "clay at the pinch" in chip.text()
    window.go_to(1)
    base = space.job.ports[0].cuts[2].runs[0]
    for reading in [r for r in base.readings if "again" not in r.id]:
        assert reading.flow is not None
        text = f"{from_si(0.96 * reading.flow, 'cfm'):.2f} @ {from_si(reading.measured_pressure or 0, 'inH2O'):.2f}"
        window.rooms["flow"].control.type_in(text)
    stored = window.open_book.book.load(space.job.id).ports[0].cuts[2].trials[0]
    assert len(stored.runs[0].readings) == 12
    assert not space.job.ports[0].cuts[2].runs[1:]
    window.go_to(2)
    said = next(line.text for line in window.rooms["cuts"].card.lines["Trials"] if line.caption.startswith("clay"))
    assert "Narrowing the pinch cost" in said
    assert "of the loss" in said
    window.cut_row.plates[2].click()
    assert space.trial is None
    window.cut_row.columns[2].chips[0].click()
    assert space.trial is not None


def test_photos_are_copied_and_shown_as_a_pair(open_window: Open, tmp_path: Path, qtbot) -> None:  # type: ignore[no-untyped-def]
    window = open_window()
    window.go_to(2)
    for name, colour in (("before", "red"), ("after", "blue")):
        picture = QImage(80, 60, QImage.Format.Format_RGB32)
        picture.fill(QColor(colour))
        picture.save(str(tmp_path / f"{name}.png"))
        assert window.rooms["cuts"].keep_photo(tmp_path / f"{name}.png", name)
        (tmp_path / f"{name}.png").unlink()
    assert len(list(window.open_book.book.photo_folder.iterdir())) == 2
    pair = window.rooms["cuts"].card.photos
    pair.resize(200, 190)
    shot = pair.grab().toImage()
    assert shot.pixelColor(30, 100).red() > 200
    assert shot.pixelColor(170, 100).blue() > 200
    qtbot.keyClick(pair, Qt.Key.Key_Left)
    assert pair.share == pytest.approx(0.45)
    (tmp_path / "note.txt").write_text("no picture", encoding="utf-8")
    assert not window.rooms["cuts"].keep_photo(tmp_path / "note.txt", "before")
    assert "not a JPEG or PNG" in window.foot.said.toolTip()
    assert not window.rooms["cuts"].keep_photo(tmp_path / "nowhere.png", "before")


def test_a_head_of_eight_cylinders_stays_easy_to_move_about_in(open_window: Open, tmp_path: Path, qtbot) -> None:  # type: ignore[no-untyped-def]
    from tests.ui.test_commands import action

    window = open_window()
    space = space_of(window)
    space.apply("cylinders", replace(space.job, cylinders=8))
    action(window, "Ports for all cylinders").trigger()
    assert len(space.job.ports) == 16
    assert {p.cylinder for p in space.job.ports if p.kind == "exhaust"} >= set(range(2, 9))
    window.finder.open()
    window.finder.box.setText("exhaust 7")
    qtbot.keyClick(window.finder.box, Qt.Key.Key_Return)
    assert space.port is not None
    assert space.port.name == "Exhaust 7"
    picture = QImage(40, 30, QImage.Format.Format_RGB32)
    picture.save(str(tmp_path / "head.png"))
    assert window.rooms["head"].pages[2].keep_photo(tmp_path / "head.png")  # type: ignore[attr-defined]
    assert len(space.job.photos) == 1


def test_the_clock_of_the_work_survives_a_crash(open_window: Open, qtbot) -> None:  # type: ignore[no-untyped-def]
    window = open_window()
    window.go_to(2)
    window.rooms["cuts"].choose_zone("bowl")
    qtbot.keyClick(window.rooms["cuts"], Qt.Key.Key_S)
    space = space_of(window)
    again = Workspace(window.open_book.book, window.open_book.book.load(space.job.id))  # as after a kill
    running = again.clock.running()
    assert running is not None
    assert running[1].places == ("bowl",)
    qtbot.keyClick(window.rooms["cuts"], Qt.Key.Key_S)
    assert space.clock.running() is None
    assert "The clock stopped" in window.foot.said.toolTip()


def test_a_seat_cut_narrower_says_what_a_recut_needs(open_window: Open) -> None:
    window = open_window()
    cut_two(window)
    window.go_to(2)
    text = window.rooms["cuts"].card.lines["Seat"][0].text
    assert "12 % lost" in text
    assert "a recut sinks the valve" in text


def test_own_factors_come_from_the_whole_book(open_window: Open) -> None:
    window = open_window()
    space = space_of(window)
    # the same readings under ids of their own: another job of the book
    renamed = json.loads(dumps_job(replace(space.job, id="second", title="Second head")))

    def rename(node: object) -> None:
        if isinstance(node, dict):
            for key, value in node.items():
                if key in ("id", "setup_id", "mount_id", "valve_id") and isinstance(value, str):
                    node[key] = f"2-{value}"
                else:
                    rename(value)
        elif isinstance(node, list):
            for each in node:
                rename(each)

    rename(renamed)
    window.open_book.book.add_job(loads_job(json.dumps(renamed)))
    bowl = next(f for f in space.shop.factors() if f.place == "bowl")
    assert bowl.cuts == 2


def head_diameters(window: MainWindow) -> list[float]:
    job = space_of(window).job
    port = job.ports[0]
    return [round(from_si(job.valve_of(port, cut).head_diameter or 0, "mm"), 1) for cut in port.cuts]  # type: ignore[union-attr]


def type_valve_head(window: MainWindow, text: str) -> None:
    box = window.rooms["head"].fields["head_diameter"].box
    box.setText(text)
    box.setModified(True)
    box.editingFinished.emit()


def test_another_valve_head_is_asked_corrected_or_changed(open_window: Open) -> None:
    window = open_window()
    space = space_of(window)
    window.go_to_named("head")
    space.look_at(space.job.ports[0].cuts[2].id)
    was = head_diameters(window)
    type_valve_head(window, "47.5 mm")
    assert window.rooms["head"].question.isVisible() and head_diameters(window) == was, "nothing is rewritten unasked"
    window.rooms["head"].question.neither.click()
    assert (
        window.rooms["head"].question.isHidden() and "47" not in window.rooms["head"].fields["head_diameter"].box.text()
    )
    type_valve_head(window, "47.5 mm")
    window.rooms["head"].question.changed.click()
    assert head_diameters(window) == [*was[:2], 47.5, 47.5], "history keeps its own"
    type_valve_head(window, "47.6 mm")  # this cut has a valve of its own now: it is set right without asking
    assert window.rooms["head"].question.isHidden() and head_diameters(window) == [*was[:2], 47.6, 47.6]
    space.look_at(space.job.ports[0].cuts[3].id)
    assert "carried from cut 2" in window.rooms["head"].fields["head_diameter"].box.toolTip()
    space.look_at(space.job.ports[0].cuts[1].id)
    type_valve_head(window, "45 mm")
    window.rooms["head"].question.corrected.click()
    assert head_diameters(window) == [45.0, 45.0, 47.6, 47.6]
    space.undo()
    assert head_diameters(window) == [*was[:2], 47.6, 47.6]


def test_as_received_a_size_is_not_asked_about(open_window: Open) -> None:
    window = open_window()
    space = space_of(window)
    window.go_to_named("head")
    space.look_at(space.job.ports[0].cuts[0].id)
    type_valve_head(window, "45 mm")
    assert window.rooms["head"].question.isHidden() and set(head_diameters(window)) == {45.0}

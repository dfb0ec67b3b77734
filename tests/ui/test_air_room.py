"""The Air room driven: led from point to point, typed, live, pasted and struck; sections, ball, swirl, dye, files."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import replace
from itertools import pairwise
from pathlib import Path

import pytest
from PySide6.QtCore import QPoint, Qt
from PySide6.QtGui import QImage
from PySide6.QtWidgets import QApplication

from ventrix.core.air.layouts import FIVE, NINE
from ventrix.core.air.sections import corner_of
from ventrix.core.edits.traverses import edit_traverse
from ventrix.core.model.cut import Cut
from ventrix.core.quantity.units import from_si, to_si
from ventrix.ui.look.air_scale import speed_colour
from ventrix.ui.window.main_window import MainWindow

Open = Callable[..., MainWindow]


@pytest.fixture
def window(open_window: Open) -> MainWindow:
    window = open_window(room="air")
    space = window.open_book.workspace
    assert space is not None
    space.look_at(space.job.ports[0].cuts[2].id)
    return window


def cut_of(window: MainWindow) -> Cut:
    space = window.open_book.workspace
    assert space is not None and space.real_cut is not None
    return space.real_cut


def begin(window: MainWindow, layout: str = FIVE.name, station: str = "guide", kind: str = "pitot: air speeds") -> None:
    window.open_sheet("traverse", (station,))
    sheet = window.sheets["traverse"]
    assert sheet.isVisible()
    sheet.kind.setCurrentText(kind)
    sheet.layout_choice.setCurrentText(layout)
    sheet.lift.set_value(to_si(0.5, "in"))
    if sheet.base.isVisible():
        sheet.base.set_value(to_si(205, "cfm"))
    sheet.take()


def type_reading(window: MainWindow, text: str) -> None:
    window.rooms["air"].probe.entry.setText(text)
    window.rooms["air"].probe.keep_typed()


def test_the_short_side_before_and_after_on_one_scale_and_in_words(window: MainWindow) -> None:
    window.rooms["air"].show_station("short side")
    told = window.rooms["air"].said.text()
    assert "Flux check" in told
    assert "floor left" in told
    assert "more even" in told
    views = [p.view for p in window.rooms["air"].pictures]
    assert all(v is not None for v in views)
    assert views[0].scale == views[1].scale  # type: ignore[union-attr]
    assert {s.result for s in views[2].spots} <= {"better", "worse", "not proven"}  # type: ignore[union-attr]
    assert len(window.rooms["air"].strip.sections) == 4
    window.rooms["air"].show_station("bowl")
    assert "has not been probed" in window.rooms["air"].said.text()


def test_colours_go_evenly_from_dark_to_light() -> None:
    # CIE 1976 lightness, L* = 116 (Y)^(1/3) - 16 with Rec. 709 luminance: equal steps, so it holds in grey too.
    def lightness(share: float) -> float:
        colour = speed_colour(share)
        linear = [((c + 0.055) / 1.055) ** 2.4 if c > 0.04045 else c / 12.92 for c in colour.getRgbF()[:3]]
        return float(116 * (0.2126 * linear[0] + 0.7152 * linear[1] + 0.0722 * linear[2]) ** (1 / 3) - 16)

    steps = [lightness(i / 8) for i in range(9)]
    rises = [b - a for a, b in pairwise(steps)]
    assert min(rises) > 0.7 * max(rises)
    assert steps[-1] - steps[0] > 50


def test_led_from_point_to_point_typed_struck_and_undone(window: MainWindow, qtbot) -> None:  # type: ignore[no-untyped-def]
    before = len(cut_of(window).traverses)
    begin(window)
    assert len(cut_of(window).traverses) == before + 1
    names = [p.name for p in FIVE.places]
    assert window.rooms["air"].probe.wanted() == names[0]
    type_reading(window, "12.5")
    type_reading(window, "75 m/s")
    points = cut_of(window).traverses[-1].points
    assert [p.name for p in points] == names[:2]
    assert points[0].reading == pytest.approx(to_si(12.5, "inH2O"))
    assert points[1].speed == pytest.approx(75.0)
    for bad in ("twelve", "-3", "nan", "900", "2000 ft/s"):
        type_reading(window, bad)
        assert window.rooms["air"].probe.problem.text()
        assert window.rooms["air"].probe.entry.text() == bad  # what was typed stays
    assert len(cut_of(window).traverses[-1].points) == 2
    window.rooms["air"].setFocus()
    qtbot.keyClick(window.rooms["air"], Qt.Key.Key_Backspace)
    assert cut_of(window).traverses[-1].points[1].struck
    assert window.rooms["air"].probe.wanted() == names[1]
    type_reading(window, "11")
    for _ in range(3):
        type_reading(window, "12")
    assert "every point is read" in window.rooms["air"].probe.lead.text()
    assert "Mean" in window.rooms["air"].said.text()
    space = window.open_book.workspace
    assert space is not None
    space.undo()
    assert len(cut_of(window).traverses[-1].points) == 5
    qtbot.keyClick(window.rooms["air"], Qt.Key.Key_Escape)
    assert window.rooms["air"].probe.traverse() is None


def test_every_step_of_nine_points_is_drawn(window: MainWindow) -> None:
    begin(window, NINE.name)
    for i in range(9):
        type_reading(window, str(10 + i))
        assert not window.grab().isNull()  # three in a row span no field yet
    assert "Mean" in window.rooms["air"].said.text()


def test_a_document_with_readings_that_make_no_sense_is_said_not_fatal(window: MainWindow) -> None:
    space = window.open_book.workspace
    assert space is not None
    cut = cut_of(window)
    bad = replace(cut.traverses[0], points=tuple(replace(p, reading=59_000.0) for p in cut.traverses[0].points))
    space.apply("odd", edit_traverse(space.job, cut.id, bad.id, lambda _: bad))
    window.rooms["air"].show_station(bad.station)
    assert "sonic" in window.rooms["air"].said.text()
    window.go_to_named("compare")
    assert not window.grab().isNull()


def test_a_column_pasted_from_a_spreadsheet_and_a_bad_row_named(window: MainWindow, qtbot) -> None:  # type: ignore[no-untyped-def]
    begin(window, NINE.name)
    QApplication.clipboard().setText("\n".join(str(10 + i) for i in range(9)))
    window.rooms["air"].setFocus()
    qtbot.keyClick(window.rooms["air"], Qt.Key.Key_V, Qt.KeyboardModifier.ControlModifier)
    points = cut_of(window).traverses[-1].points
    assert [round(from_si(p.reading or 0, "inH2O"), 6) for p in points] == [10.0 + i for i in range(9)]
    QApplication.clipboard().setText("centre\t12\nattic\t14")
    window.rooms["air"].probe.paste()
    assert "Row 2: 'attic'" in window.rooms["air"].probe.problem.text()


def test_live_from_the_simulated_bench_by_pedal(window: MainWindow, qtbot) -> None:  # type: ignore[no-untyped-def]
    window.open_book.bench.connect_simulated()
    qtbot.waitUntil(lambda: window.open_book.bench.connected, timeout=8000)
    begin(window, station="pinch")
    window.rooms["air"].pedal.pressed.emit()
    assert window.rooms["air"].probe.problem.text()  # no three seconds yet
    qtbot.waitUntil(lambda: "ft/s" in window.rooms["air"].probe.lead.text(), timeout=8000)

    def keeps() -> bool:
        window.rooms["air"].pedal.pressed.emit()
        return bool(cut_of(window).traverses[-1].points)

    qtbot.waitUntil(keeps, timeout=20000)
    point = cut_of(window).traverses[-1].points[0]
    known = next(t for t in cut_of(window).traverses if t.id == "intake-2-pinch-pitot")
    centre = next(p for p in known.points if p.name == "centre")
    assert point.name == "centre"
    assert point.reading == pytest.approx(centre.reading, rel=0.2)


def test_ball_map_swirl_page_and_limit(window: MainWindow, qtbot) -> None:  # type: ignore[no-untyped-def]
    qtbot.keyClick(window.rooms["air"], Qt.Key.Key_2)
    assert len(window.rooms["air"].map.picture.spots) == 16
    assert "Busiest" in window.rooms["air"].said.text()
    begin(window, station="pinch", kind="flow ball")
    type_reading(window, "196")
    assert cut_of(window).traverses[-1].points[0].flow == pytest.approx(to_si(196, "cfm"))
    qtbot.keyClick(window.rooms["air"], Qt.Key.Key_Escape)
    qtbot.keyClick(window.rooms["air"], Qt.Key.Key_3)
    assert "Swirl ratio over the intake stroke" in window.rooms["air"].said.text()
    assert "Swirl coefficient +" in window.rooms["air"].said.text()
    assert "Against cut 1" in window.rooms["air"].said.text()
    assert "swirl ratio" in window.rooms["air"].trade.text()
    window.rooms["air"].use_limit(0.2)
    window.rooms["air"].show_station("pinch")
    assert "Over Mach 0.2 on the engine at 6800 rpm" in window.rooms["air"].said.text()
    with pytest.raises(ValueError, match="Mach"):
        window.rooms["air"].use_limit(3.0)


def test_dye_noise_and_chamber_are_kept_and_taken_back(window: MainWindow, qtbot) -> None:  # type: ignore[no-untyped-def]
    qtbot.keyClick(window.rooms["air"], Qt.Key.Key_4)
    wet = window.rooms["air"].wet
    wet.clock.state_set.emit(6, "dry")
    assert any(o.clock == 6 and o.text == "dry" for o in cut_of(window).observations)
    assert "Dry at 6 o'clock" in window.rooms["air"].said.text()
    wet.noise.setText("loud")
    wet.noise.returnPressed.emit()
    assert wet.problem.text()
    assert wet.noise.text() == "loud"
    wet.noise.setText("0.55")
    wet.noise.returnPressed.emit()
    wet.chamber.setText("streak across the plug")
    wet.chamber.returnPressed.emit()
    assert "Chamber: streak across the plug." in window.rooms["air"].said.text()
    assert "Noise heard at 0.550 in" in window.rooms["air"].said.text()
    qtbot.mouseClick(wet.take_back, Qt.MouseButton.LeftButton, pos=QPoint(10, 10))
    assert "Chamber" not in window.rooms["air"].said.text()
    window.go_to_named("compare")
    assert "Probed, pinch, ft/s" in [r.caption for r in window.rooms["compare"].scorecard.rows]


def test_a_photo_of_the_pattern_is_kept_in_the_books_folder(window: MainWindow, tmp_path: Path) -> None:
    image = QImage(40, 30, QImage.Format.Format_RGB32)
    image.fill(0x336699)
    image.save(str(tmp_path / "dye.png"))
    window.rooms["air"].pages.setCurrentIndex(3)
    window.rooms["air"].refresh()
    assert window.rooms["air"].wet.keep_photo(tmp_path / "dye.png")
    assert window.rooms["air"].wet.photo.isVisible()
    assert len(list(window.open_book.book.photo_folder.iterdir())) == 1
    (tmp_path / "note.txt").write_text("no picture")
    assert not window.rooms["air"].wet.keep_photo(tmp_path / "note.txt")
    assert window.rooms["air"].wet.problem.text()
    window.rooms["air"].wet.take_back.click()
    assert not window.rooms["air"].wet.photo.isVisible()


def test_the_outline_has_the_sections_own_corner(window: MainWindow) -> None:
    window.rooms["air"].show_station("pinch")
    view = window.rooms["air"].pictures[1].view
    assert view is not None
    for width, height, radius in ((0.03, 0.04, 0.008), (0.03, 0.03, 0.015)):
        area = width * height - (4 - math.pi) * radius**2
        assert corner_of((width, height, area)) == pytest.approx(radius)
    assert corner_of((0.03, 0.03, 0.001)) == 0.0  # an area that no corner explains
    assert corner_of((view.width, view.height, view.width * view.height)) == 0.0


def test_air_speeds_go_out_and_come_in(window: MainWindow, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    path = tmp_path / "air.csv"
    monkeypatch.setattr("ventrix.ui.window.file_commands.QFileDialog.getSaveFileName", lambda *_: (str(path), ""))
    window.files.export_air()
    before = len(cut_of(window).traverses)
    assert window.files.bring_in_air(path)
    assert len(cut_of(window).traverses) == 2 * before
    path.write_text("nothing of the kind", encoding="utf-8")
    assert not window.files.bring_in_air(path)
    assert "air.csv" in (window.open_book.workspace.said if window.open_book.workspace else "")
    assert len(cut_of(window).traverses) == 2 * before


def test_total_head_is_read_against_the_room_and_counts_in_what_limits(window: MainWindow, qtbot) -> None:  # type: ignore[no-untyped-def]
    total = "total tube against the room"
    begin(window, station="pinch", kind=total)
    for _ in FIVE.places:
        type_reading(window, "7")
    survey = cut_of(window).traverses[-1]
    assert survey.kind == "total head" and len(survey.points) == len(FIVE.places)
    assert "25 % of 28.0 inH2O up to the pinch at 0.500" in window.rooms["air"].said.text()
    type_reading(window, "40")
    begin(window, station="bowl", kind=total)
    type_reading(window, "40")
    assert "cannot be lost" in window.rooms["air"].probe.problem.text()
    window.rooms["plan"].of_head = False
    window.go_to_named("plan")
    room = window.rooms["plan"]
    qtbot.waitUntil(lambda: room.port_page.plan is not None, timeout=30_000)
    assert [s.place for s in room.port_page.plan.planned.chain.surveys] == ["pinch"]
    marks = room.port_page.lifts.marks
    assert marks is not None and marks.lifts == tuple(room.port_page.plan.planned.lift)
    x = int(room.port_page.lifts._x(marks.lifts[3]))
    qtbot.mouseClick(room.port_page.lifts, Qt.MouseButton.LeftButton, pos=QPoint(x, 12))
    assert room.port_page.lifts.at == 3 and room.port_page.lift_words.text().startswith("0.200")

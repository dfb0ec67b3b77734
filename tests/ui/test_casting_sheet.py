"""Casting files in the window: what a number taught, a section typed and traced, a file in and out, two made one."""

from __future__ import annotations

import json
from pathlib import Path

import pytest
from PySide6.QtCore import QPointF, Qt
from PySide6.QtGui import QPixmap

from tests.ui.stand_in import Open
from ventrix.core.quantity.units import to_si
from ventrix.ui.window.main_window import MainWindow


@pytest.fixture
def window(open_window: Open) -> MainWindow:
    window = open_window()
    head = window.rooms["head"]
    casting = head.pages[2]
    window.go_to_named("head")
    casting.casting.setText("C22H")
    casting.casting.setModified(True)
    casting._casting_typed()
    return window


def put(field, text: str) -> None:  # type: ignore[no-untyped-def]
    field.box.setText(text)
    field.box.setModified(True)


def test_what_is_known_of_the_heads_own_number_stands_on_top(window: MainWindow) -> None:
    space = window.open_book.workspace
    assert space is not None and space.job.heads[0].casting == "C22H"
    window.open_sheet("casting")
    sheet = window.sheets["casting"]
    assert sheet.number.currentText() == "C22H"
    assert "By your own 1 head:" in sheet.known.text() and "least" in sheet.known.text()
    assert not sheet.buttons["merge"].isEnabled() and sheet.buttons["write"].isEnabled()


def test_a_section_is_typed_or_traced_and_shown_where_nothing_was_read(
    window: MainWindow, tmp_path: Path, qtbot
) -> None:  # type: ignore[no-untyped-def]
    window.open_sheet("casting")
    sheet = window.sheets["casting"]
    sheet.place.setCurrentText("pinch")
    sheet.kind.setCurrentText("exhaust")
    sheet.try_taking()
    assert "metal on some side" in sheet.problem.text()
    picture = QPixmap(200, 200)
    picture.fill(Qt.GlobalColor.white)
    assert picture.save(str(tmp_path / "cut.png"))
    assert sheet.trace(tmp_path / "cut.png") and sheet.tracing.isVisible()
    put(sheet.apart, "1")
    for x, y in ((0, 0), (100, 0)):  # an inch apart: a hundredth of an inch a pixel
        sheet.tracing.put(QPointF(x, y))
    for half in (30, 50):
        for x, y in ((-half, -half), (half, -half), (half, half), (-half, half)):
            sheet.tracing.put(QPointF(100 + x, 100 + y))
        qtbot.keyClick(sheet.tracing, Qt.Key.Key_Return)
    qtbot.keyClick(sheet.tracing, Qt.Key.Key_Escape)
    assert not sheet.tracing.isVisible() and not sheet.problem.text()
    assert all(field.typed() == pytest.approx(to_si(0.200, "in"), abs=1e-6) for field in sheet.walls.values())
    sheet.try_taking()
    assert "Sawn at the pinch of an exhaust: " in sheet.known.text()
    space = window.open_book.workspace
    assert space is not None
    exhaust = next(p for p in space.job.ports if p.kind == "exhaust")
    space.look_at(exhaust.cuts[-1].id)
    window.go_to_named("cuts")
    pins = [p for p in window.rooms["cuts"].map.picture.pins if p.of_casting]
    assert [p.text for p in pins] == ["0.200"]


def test_a_file_goes_out_comes_in_and_two_are_made_one(window: MainWindow, tmp_path: Path) -> None:
    window.open_sheet("casting")
    sheet = window.sheets["casting"]
    assert sheet.write_out(tmp_path / "c.ventrix-casting.json")
    document = json.loads((tmp_path / "c.ventrix-casting.json").read_text())
    assert document["casting"] == "C22H" and document["told"]["intake"]["ports"] >= 1
    assert "customer" not in json.dumps(document)
    for shop in ("North", "South"):
        (tmp_path / f"{shop}.json").write_text(json.dumps(document | {"whose": shop}))
        assert sheet.bring_in(tmp_path / f"{shop}.json")
    assert "From North" in sheet.known.text() and "From South" in sheet.known.text()
    sheet.buttons["merge"].click()
    assert "From North and South, 2 heads" in sheet.known.text()
    (tmp_path / "bad.json").write_text("[]")
    assert not sheet.bring_in(tmp_path / "bad.json") and "not a casting file" in sheet.problem.text()
    window.rooms["book"].toggle_library()
    assert any(r.kind == "casting file" for r in window.rooms["book"].library.rows)

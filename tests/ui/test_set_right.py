"""Renamed, corrected, taken out and put back by hand; conditions of a finished run completed."""

from __future__ import annotations

from collections.abc import Callable

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest

from ventrix.core.model.run import Reading, SetUp
from ventrix.core.quantity.units import from_si, to_si
from ventrix.ui.cuts.parts_sheet import PartsSheet
from ventrix.ui.window.main_window import MainWindow
from ventrix.workspace.workspace import Workspace

Open = Callable[..., MainWindow]


@pytest.fixture
def sheet(open_window: Open) -> tuple[MainWindow, Workspace, PartsSheet]:
    window = open_window()
    space = window.open_book.workspace
    assert space is not None
    window.go_to_named("cuts")
    space.look_at(space.job.ports[0].cuts[2].id)
    window.sheets["parts"].open()
    return window, space, window.sheets["parts"]


def choose(sheet: PartsSheet, start: str) -> None:
    row = next(i for i, p in enumerate(sheet._parts) if p.label.startswith(start))
    sheet.list.setCurrentRow(row)


def box(sheet: PartsSheet, caption: str):  # type: ignore[no-untyped-def]
    return next(b for label, b in sheet.boxes if label.text().startswith(caption) and not label.isHidden())


def test_a_cut_is_renamed_and_a_pour_corrected(sheet: tuple[MainWindow, Workspace, PartsSheet]) -> None:
    _window, space, parts = sheet
    box(parts, "Name").setText("throat, opened")
    QTest.keyClick(box(parts, "Name"), Qt.Key.Key_Return)
    assert space.real_cut is not None and space.real_cut.name == "throat, opened"
    choose(parts, "pour")
    volume = box(parts, "Volume")
    volume.setText("nine")
    parts.take()
    assert parts.problem.text() and volume.text() == "nine", "what was typed stays"
    volume.setText("99999")
    parts.take()
    assert "lies between" in parts.problem.text()
    volume.setText("121.5")
    parts.take()
    assert from_si(space.real_cut.pours[0].volume, "cc") == pytest.approx(121.5)
    space.undo()
    space.undo()
    assert space.real_cut.name == "throat and short side"


def test_what_a_part_cannot_be_without_stays(sheet: tuple[MainWindow, Workspace, PartsSheet]) -> None:
    _window, space, parts = sheet
    before = space.job
    for start, caption, text in (
        ("job", "Title", ""),
        ("port", "Name", ""),
        ("pour", "Volume", ""),
        ("wall", "Metal left", ""),
        ("wall", "Place", "elbow"),
        ("wall", "Place", ""),
    ):
        choose(parts, "cut 2")
        choose(parts, start)
        box(parts, caption).setText(text)
        parts.take()
        wanted = "is not one of bowl" if text else "is missing"
        assert wanted in parts.problem.text(), (start, caption)
        assert space.job is before
    choose(parts, "cut 2")
    choose(parts, "wall")
    box(parts, "Place").setText("Roof")
    parts.take()
    assert space.real_cut is not None and space.real_cut.walls[0].place == "roof"


def test_every_kind_of_part_shows_its_fields(sheet: tuple[MainWindow, Workspace, PartsSheet]) -> None:
    _window, space, parts = sheet
    for i in range(len(parts._parts)):
        parts.list.setCurrentRow(i)
        parts.take()
        assert parts.problem.text() == "Nothing was changed.", parts._parts[i].label
    assert space.undo_name is None


def test_what_is_taken_out_waits_in_the_bin(sheet: tuple[MainWindow, Workspace, PartsSheet]) -> None:
    _window, space, parts = sheet
    before = space.job
    choose(parts, "cut 2")
    parts.take_out()
    assert "it holds readings: say why" in parts.problem.text().lower()
    parts.reason.setText("logged at the wrong port")
    parts.take_out()
    assert [c.number for c in space.job.ports[0].cuts] == [0, 1, 3]
    assert parts.bin.count() == 1 and "wrong port" in parts.bin.item(0).text()
    parts.put_back()
    assert "Choose something" in parts.problem.text()
    parts.bin.setCurrentRow(0)
    parts.put_back()
    assert space.job == before and parts.bin.count() == 0
    assert space.book.load(space.job.id) == before


def test_cut_0_and_the_last_of_a_kind_stay(sheet: tuple[MainWindow, Workspace, PartsSheet]) -> None:
    window, space, parts = sheet
    space.look_at(space.job.ports[0].cuts[0].id)
    choose(parts, "cut 0")
    parts.reason.setText("x")
    parts.take_out()
    assert "stand on cut 0" in parts.problem.text()
    choose(parts, "wall")
    parts.take_out()
    assert len(space.job.bin) == 1
    parts.empty()
    assert not space.job.bin and not window.sheets["parts"].bin.count()


def test_the_conditions_of_a_finished_run_are_completed(sheet: tuple[MainWindow, Workspace, PartsSheet]) -> None:
    window, space, parts = sheet
    choose(parts, "run 1")
    parts.conditions.click()
    right = window.sheets["correct"]
    assert right.isVisible() and parts.isHidden()
    run = space.real_cut.runs[0]  # type: ignore[union-attr]
    setup = space.job.setup(run.setup_id)
    assert right.choices["entry"].currentData() == setup.entry
    assert right.figures["bore"].value == pytest.approx(setup.bore)
    right.take()
    assert "say why" in right.problem.text().lower()
    right.reason.setText("looked again")
    right.take()
    assert right.problem.text() == "Nothing was changed."
    right.choices["entry"].setCurrentIndex(right.choices["entry"].findData("bare"))
    right.take()
    corrected = space.real_cut.runs[0]  # type: ignore[union-attr]
    assert space.job.setup(corrected.setup_id).entry == "bare" and corrected.readings == run.readings
    right.open(corrected.id)
    assert "entry: radius became bare edge (looked again)" in right.kept.text()


def test_a_typed_readings_lift_is_set_right_at_the_bench(open_window: Open) -> None:
    window = open_window(demo=False)
    window.files.new_job()
    space = window.open_book.workspace
    assert space is not None
    window.go_to_named("flow")
    setup = SetUp(id="s", direction="intake", test_pressure=to_si(28, "inH2O"))
    space.runs.keep(setup, 1, Reading(id="r1", lift=to_si(0.1, "in"), flow=to_si(60, "cfm")), "0.100", "typed")
    window.rooms["flow"].refresh()
    window.rooms["flow"].hand.follow()
    page = window.rooms["flow"].readings
    window.rooms["flow"].toggle_readings()
    page.list.setCurrentRow(0)
    page.lift.setText("0.15")
    page.set_lift()
    assert "say why" in page.problem.text().lower() and page.lift.text() == "0.15"
    page.reason.setText("read the wrong mark")
    page.set_lift()
    readings = [r for run in space.job.runs() for r in run.readings]
    assert [(round(from_si(r.lift, "in"), 3), r.struck is None) for r in readings] == [(0.1, False), (0.15, True)]

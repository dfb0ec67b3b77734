"""The real window, from opening the demo to a kept reading to a changed verdict."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path

import pytest
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QApplication, QLabel, QLineEdit, QPushButton, QWidget

from ventrix.bench.procedure.flow_procedure import Phase
from ventrix.core.quantity.units import from_si
from ventrix.ui.window.main_window import MainWindow

Open = Callable[..., MainWindow]


def text_of(window: MainWindow) -> str:
    """What the verdict says."""
    return f"{window.rooms['compare'].verdict.headline.text()} {window.rooms['compare'].verdict.sentence.text()}"


def flow_lifts(window: MainWindow) -> list[str]:
    return [r.flow for r in window.rooms["flow"].ladder.rungs]


def press(qtbot, window: MainWindow, key: Qt.Key) -> None:  # type: ignore[no-untyped-def]
    qtbot.keyClick(window.rooms["flow"], key)


def test_demo_opens_on_a_verdict(open_window: Open) -> None:
    window = open_window()
    assert window.room is window.rooms["compare"]
    assert "can't tell" in text_of(window)
    assert len(window.cut_row.plates) == 4
    assert window.rooms["compare"].table.columnCount() == 12
    assert "May be compared" in window.rooms["compare"].comparability.text()
    assert "demo" not in window.windowTitle()


def test_holding_against_another_cut_changes_the_verdict(open_window: Open, qtbot) -> None:  # type: ignore[no-untyped-def]
    window = open_window()
    qtbot.mouseClick(window.cut_row.plates[0], Qt.MouseButton.LeftButton, Qt.KeyboardModifier.ShiftModifier)
    assert "loses at 0.100" in text_of(window)
    qtbot.mouseClick(window.cut_row.plates[1], Qt.MouseButton.LeftButton)
    assert "Keep." in text_of(window)
    window.cut_row.plates[2].setFocus()
    qtbot.keyClick(window.cut_row.plates[2], Qt.Key.Key_D)
    space = window.open_book.workspace
    assert space is not None
    assert space.against is not None
    assert space.against.number == 2
    assert "cut 2" in window.cut_row.plates[2].accessibleName()


def test_from_the_live_bench_to_a_changed_verdict(open_window: Open, qtbot) -> None:  # type: ignore[no-untyped-def]
    """A new cut is logged, flowed on the simulated bench by keyboard, kept, and judged."""
    window = open_window()
    window.open_book.bench.connect_simulated()
    qtbot.waitUntil(lambda: window.open_book.bench.connected, timeout=5000)
    window.sheets["cut"].open()
    window.sheets["cut"].name.setText("short side again")
    window.sheets["cut"].places.setText("short side")
    qtbot.keyClick(window.sheets["cut"].name, Qt.Key.Key_Return)
    space = window.open_book.workspace
    assert space is not None
    assert space.cut is not None
    assert space.cut.number == 4
    assert "has not been flowed" in window.rooms["compare"].empty.text()
    window.go_to(1)
    assert "4" in window.rooms["flow"].lines.text()
    press(qtbot, window, Qt.Key.Key_B)
    press(qtbot, window, Qt.Key.Key_Space)
    assert window.rooms["flow"].far.far.ground == "refused"  # nothing to keep yet
    press(qtbot, window, Qt.Key.Key_L)
    qtbot.waitUntil(lambda: window.rooms["flow"].hand.test.phase is Phase.KEEP, timeout=15000)
    press(qtbot, window, Qt.Key.Key_Space)
    assert window.rooms["flow"].far.far.ground == "kept"
    assert flow_lifts(window)[0] != ""
    stored = window.open_book.book.load(space.job.id)
    assert sum(len(r.readings) for r in stored.cut_of(space.cut.id)[1].runs) == 1
    reading = space.cut.runs[0].readings[0]
    assert 15 < from_si(reading.flow or 0, "cfm") < 35
    assert reading.spread is not None
    assert reading.window == pytest.approx(3.0, abs=0.3)
    window.go_to(3)
    assert window.rooms["compare"].empty.isHidden()
    assert text_of(window).strip()
    space.undo()
    assert "no reading that counts" in window.rooms["compare"].empty.text()
    window.open_book.bench.disconnect_bench()


def test_typing_readings_with_no_bench(open_window: Open, qtbot) -> None:  # type: ignore[no-untyped-def]
    window = open_window(demo=False)
    window.files.new_job()
    window.go_to(1)
    for figure in ("31.2", "62,5"):
        qtbot.keyClicks(window.rooms["flow"], figure[0])
        qtbot.keyClicks(window.rooms["flow"].entry, figure[1:])
        qtbot.keyClick(window.rooms["flow"].entry, Qt.Key.Key_Return)
    assert flow_lifts(window)[:3] == ["31.2", "62.5", ""]
    assert (window.rooms["flow"].far.far.phase, window.rooms["flow"].far.far.flow) == ("KEPT 0.100", "62.5")
    qtbot.keyClick(window.rooms["flow"], Qt.Key.Key_Backspace)
    assert flow_lifts(window)[:2] == ["31.2", ""]
    assert window.rooms["flow"].ladder.rungs[1].struck == 1
    assert window.rooms["flow"].ladder.at == 1
    qtbot.keyClicks(window.rooms["flow"].entry, "31x")
    qtbot.keyClick(window.rooms["flow"].entry, Qt.Key.Key_Return)
    assert window.rooms["flow"].entry.text() == "31x"  # nothing typed is lost
    qtbot.keyClick(window.rooms["flow"].entry, Qt.Key.Key_Escape)
    press(qtbot, window, Qt.Key.Key_Space)
    assert "type the reading" in window.rooms["flow"].far.far.phase


def test_undo_and_redo_are_named(open_window: Open, qtbot) -> None:  # type: ignore[no-untyped-def]
    window = open_window(demo=False)
    window.files.new_job()
    window.go_to(1)
    qtbot.keyClicks(window.rooms["flow"].entry, "31.2")
    qtbot.keyClick(window.rooms["flow"].entry, Qt.Key.Key_Return)
    assert "undo: keep 0.050" in window.foot.saved.text()
    space = window.open_book.workspace
    assert space is not None
    space.undo()
    assert flow_lifts(window)[0] == ""
    assert "Undone: keep 0.050" in window.foot.said.text()
    space.redo()
    assert flow_lifts(window)[0] == "31.2"


def set_field(qtbot, field: QWidget, text: str) -> None:  # type: ignore[no-untyped-def]
    box = field.findChild(QLineEdit)
    assert box is not None
    box.setFocus()
    box.selectAll()
    qtbot.keyClicks(box, text)


def test_head_derives_while_typing_and_says_what_is_wrong(open_window: Open, qtbot) -> None:  # type: ignore[no-untyped-def]
    window = open_window(demo=False)
    window.files.new_job()
    window.go_to(0)
    fields, derived = window.rooms["head"].fields, window.rooms["head"].derived.values
    set_field(qtbot, fields["head_diameter"], "2.02")
    qtbot.keyClick(fields["head_diameter"].box, Qt.Key.Key_Return)
    set_field(qtbot, fields["throat_diameter"], "1.77")
    assert (
        derived["Throat, % of valve"].text() == "87.6 %"
    )  # common practice, no source: "88 percent"; not accepted yet
    set_field(qtbot, fields["throat_diameter"], "2.1")
    assert derived["Throat, % of valve"].text() == "–"
    assert fields["throat_diameter"].box.property("wrong")
    set_field(qtbot, fields["throat_diameter"], "wide")
    qtbot.keyClick(fields["throat_diameter"].box, Qt.Key.Key_Return)
    assert fields["throat_diameter"].box.text() == "wide"
    set_field(qtbot, fields["throat_diameter"], "45 mm")
    qtbot.keyClick(fields["throat_diameter"].box, Qt.Key.Key_Return)
    space = window.open_book.workspace
    assert space is not None
    stored = window.open_book.book.load(space.job.id)
    assert stored.ports[0].cuts[0].throat_diameter == pytest.approx(0.045)
    assert stored.valves[0].head_diameter == pytest.approx(2.02 * 0.0254)
    assert "throat 1.772 in" in (space.undo_name or "")


def test_carried_figures_say_so(open_window: Open) -> None:
    window = open_window()
    window.go_to(0)
    box = window.rooms["head"].fields["floor_length"].box
    assert "carried from cut 0, not measured here" in (box.toolTip(), box.accessibleDescription())
    assert box.property("carried")


@pytest.mark.parametrize("theme_name", ["dye", "paper"])
@pytest.mark.parametrize("units", ["us", "metric"])
def test_every_room_in_both_themes_and_units(open_window: Open, theme_name: str, units: str) -> None:
    window = open_window()
    window.open_book.use_theme(theme_name)
    window.open_book.use_units(units)
    for room in range(len(window.rooms)):
        window.go_to(room)
        assert not window.grab().isNull()
    window.go_to_named("compare")
    labels = " ".join(label.text() for label in window.findChildren(QLabel) if label.isVisible())
    assert ("l/s" in labels) == (units == "metric")


def test_empty_book_says_what_to_do(open_window: Open) -> None:
    window = open_window(demo=False)
    for room in range(len(window.rooms)):
        window.go_to(room)
        assert window.welcome.isVisible() is not window.room.apart
    window.go_to_named("head")
    window.welcome.start.click()
    assert window.sheets["new_job"].isVisible()
    window.sheets["new_job"].take()
    assert window.rooms["head"].isVisible()
    window.go_to_named("air")
    assert "No cut" in window.rooms["air"].said.text() or "not been probed" in window.rooms["air"].said.text()
    window.go_to_named("compare")
    assert "Nothing to compare this cut with" in window.rooms["compare"].empty.text()


def test_run_tables_come_in_and_go_out(open_window: Open, write_table: Callable[..., Path]) -> None:
    window = open_window(demo=False)
    window.files.new_job()
    path = write_table("in.csv", "1,31.2\n2,62.0", mount="7")
    assert window.files.bring_in_run(path)
    assert "mount: 7" in window.files.run_table_text()
    assert "reading_cfm" in window.files.run_table_text()
    assert not window.files.bring_in_run(write_table("bad.csv", "1,abc"))
    assert "line 11, reading_cfm" in window.foot.said.toolTip()
    assert not window.files.bring_in_run(write_table("ex.csv", "1,30", direction="exhaust", pipe="none"))
    assert "Intake 1 is not" in window.foot.said.toolTip()


def test_conditions_that_differ_are_said_before_the_test(open_window: Open) -> None:
    from dataclasses import replace

    window = open_window()
    window.go_to(1)
    window.rooms["flow"]._use_setup(replace(window.rooms["flow"].hand.setup, bore=0.095))
    assert "bigger bore" in window.rooms["flow"].lines.text()
    assert window.rooms["flow"].hand.run is None  # other conditions are another run; the one there is stays in sight
    assert "the next reading begins a new one" in window.rooms["flow"].lines.text()


def test_lift_table_copies_as_tabs(open_window: Open) -> None:
    window = open_window()
    window.rooms["compare"].table.copy()
    lines = QApplication.clipboard().text().splitlines()
    assert lines[0].split("\t") == ["lift", "cut 2", "cut 3", "difference", "±", "%"]
    assert len(lines) == 13
    float(lines[1].split("\t")[5])


def test_long_names_do_not_break_the_row(open_window: Open) -> None:
    window = open_window()
    window.sheets["cut"].open()
    window.sheets["cut"].name.setText("w" * 120)
    window.sheets["cut"].log()
    window.resize(1280, 800)
    assert window.width() <= 1280
    assert window.cut_row.plates[-1].width() == 190


def test_manual_has_a_page_for_every_room(open_window: Open) -> None:
    window = open_window()
    for room in window.rooms.values():
        window.open_manual(room.manual)
        assert window.manual is not None
        assert len(window.manual.browser.toPlainText()) > 200


def test_every_control_has_a_name(open_window: Open) -> None:
    """A screen reader can say what each control is."""
    window = open_window()
    for room in range(len(window.rooms)):
        window.go_to(room)
        for widget in window.findChildren(QWidget):
            if widget.isVisible() and isinstance(widget, (QLineEdit, QPushButton)) and widget.parent() is not None:
                name = widget.accessibleName() or (widget.text() if isinstance(widget, QPushButton) else "")
                assert name or "spinbox" in widget.objectName(), widget


def test_any_word_finds_a_calculator_and_the_reckoner_answers(open_window: Open, qtbot) -> None:  # type: ignore[no-untyped-def]
    window = open_window()
    window.finder.open()
    qtbot.keyClicks(window.finder.box, "percent of valve")
    assert window.finder.list.count() >= 1
    qtbot.keyClick(window.finder.box, Qt.Key.Key_Return)
    reckoner = window.sheets["reckoner"]
    assert reckoner.isVisible()
    assert reckoner.calculator is not None
    assert reckoner.calculator.id == "throat_percent"
    qtbot.keyClicks(reckoner.rows["valve_diameter"].box, "2.02")
    assert reckoner.answers["percent"].text() == "–"
    qtbot.keyClicks(reckoner.rows["throat_diameter"].box, "1 77/100")
    assert reckoner.answers["percent"].text().startswith("87.6")  # common practice, no source: "88 percent"
    reckoner.rows["throat_diameter"].box.setText("wide")
    assert not reckoner.rows["throat_diameter"].error.isHidden()
    assert reckoner.answers["percent"].text() == "–"
    reckoner.rows["throat_diameter"].box.setText("60 mm")
    assert reckoner.answers["percent"].text().startswith("116.9")  # a bowl may be larger than its valve
    reckoner.take_all.click()
    assert reckoner.rows["valve_diameter"].box.text() == "1.81102"  # 46 mm, from the job
    reckoner.copy_answers()
    copied = QApplication.clipboard().text()
    assert "valve diameter: 1.81102 in" in copied
    assert "percent = " in copied
    qtbot.keyClick(reckoner, Qt.Key.Key_Escape)
    assert not reckoner.isVisible()


def test_every_calculator_opens_and_takes_what_the_job_knows(open_window: Open) -> None:
    from ventrix.core.calculators.answer import registry, search

    window = open_window()
    for calculator in registry().values():
        window.sheets["reckoner"].open(calculator)
        window.sheets["reckoner"].take_all.click()
        assert search(calculator.title)[0].id == calculator.id
    window.sheets["reckoner"].open(registry()["cam_weighted"])
    window.sheets["reckoner"].take_all.click()
    assert window.sheets["reckoner"].answers["mean_flow"].text().endswith("cfm")
    window.open_book.use_units("metric")
    window.sheets["reckoner"].take_all.click()
    assert window.sheets["reckoner"].answers["mean_flow"].text().endswith("l/s")


def test_finder_finds_commands_cuts_and_jobs(open_window: Open, qtbot) -> None:  # type: ignore[no-untyped-def]
    window = open_window()
    for words, kind in (("paper light", "command"), ("intake 1 bowl", "cut"), ("corvane", "job"), ("undo", "command")):
        window.finder.open()
        window.finder.box.setText(words)
        assert kind in window.finder.list.item(0).text(), words
    window.finder.open()
    window.finder.box.setText("zzz")
    assert window.finder.list.count() == 0
    window.finder.box.setText("intake 1 bowl")
    qtbot.keyClick(window.finder.box, Qt.Key.Key_Return)
    assert window.open_book.workspace is not None
    assert window.open_book.workspace.cut is not None
    assert window.open_book.workspace.cut.number == 1


def test_manual_pages_exist_and_their_pictures_load(open_window: Open) -> None:
    import re
    from importlib import resources

    window = open_window()
    folder = resources.files("ventrix.manual")
    for page in ("index", "figures", "plan", "calculators", "command-line"):
        window.open_manual(page)
        assert window.manual is not None
        assert len(window.manual.browser.toPlainText()) > 200
    for page in ("figures", "plan"):
        pictures = re.findall(r"\((pictures/[\w-]+\.png)\)", folder.joinpath(f"{page}.md").read_text(encoding="utf-8"))
        assert pictures
        assert all(folder.joinpath(picture).is_file() for picture in pictures)

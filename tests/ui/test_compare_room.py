"""The Compare room driven: curves by key, hover, drag, show anyway, the whole row, other sides, pictures."""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import replace
from pathlib import Path
from xml.etree import ElementTree

import numpy as np
import pytest
from PySide6.QtCore import QPoint, Qt
from PySide6.QtGui import QImage
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QLineEdit

from ventrix.core.edits.cuts import edit_cut
from ventrix.core.edits.runs import edit_run
from ventrix.core.quantity.units import from_si, to_si
from ventrix.core.runs.run_curves import KINDS
from ventrix.ui.head.goal_tab import GoalTab
from ventrix.ui.window.main_window import MainWindow
from ventrix.workspace.workspace import Workspace

Open = Callable[..., MainWindow]


@pytest.fixture
def compare(open_window: Open) -> tuple[MainWindow, Workspace]:
    window = open_window()
    space = window.open_book.workspace
    assert space is not None
    space.look_at(space.job.ports[0].cuts[2].id)
    window.go_to(3)
    return window, space


def captions(window: MainWindow) -> list[str]:
    return [r.caption for r in window.rooms["compare"].scorecard.rows]


def test_every_curve_is_chosen_by_key_against_lift_or_ratio(compare: tuple[MainWindow, Workspace], qtbot) -> None:  # type: ignore[no-untyped-def]
    window, _ = compare
    seen = []
    for _ in KINDS:
        seen.append(window.rooms["compare"].curves_caption.text())
        assert window.rooms["compare"].curves._lines, seen[-1]
        qtbot.keyClick(window.rooms["compare"], Qt.Key.Key_K)
    assert len(set(seen)) == len(KINDS)
    qtbot.keyClick(window.rooms["compare"], Qt.Key.Key_X)
    assert "against L/D" in window.rooms["compare"].curves_caption.text()
    assert window.rooms["compare"].curves._lines[-1].x[-1] < 0.4  # 0.6 in over 1.81 in
    qtbot.keyClick(window.rooms["compare"], Qt.Key.Key_K, Qt.KeyboardModifier.ShiftModifier)
    assert "exhaust over intake" in window.rooms["compare"].curves_caption.text()


def test_hover_reads_every_curve_at_that_lift(compare: tuple[MainWindow, Workspace]) -> None:
    window, _ = compare
    told = window.rooms["compare"].curves.hover(0.4)
    assert told.startswith("0.400")
    assert "2: 182" in told
    assert "1: 168" in told
    assert "0: " in told
    assert window.rooms["compare"].curves.hover(5.0) == ""


def test_dragging_selects_lifts_and_the_scorecard_follows(compare: tuple[MainWindow, Workspace], qtbot) -> None:  # type: ignore[no-untyped-def]
    window, _ = compare
    plot = window.rooms["compare"].curves
    QApplication.processEvents()
    box = plot.plot.getViewBox()
    view = plot.plot.viewport()

    def at(x: float) -> QPoint:
        return plot.plot.mapFromScene(box.mapViewToScene(box.viewRect().center().__class__(x, 100.0)))

    qtbot.mousePress(view, Qt.MouseButton.LeftButton, pos=at(0.29))
    qtbot.mouseMove(view, at(0.41))
    qtbot.mouseMove(view, at(0.42))
    qtbot.mouseRelease(view, Qt.MouseButton.LeftButton, pos=at(0.42))
    if plot.selection is None:  # some platforms deliver no moves: tell it as the moves would
        plot._select(0.29, 0.42)
    first = window.rooms["compare"].scorecard.rows[0]
    assert first.caption.startswith("0.2") or first.caption.startswith("0.3")
    assert first.result == "better"
    assert first.change == "+10.2"  # the mean of +5.6, +10.8 and +14.1
    qtbot.keyClick(window.rooms["compare"], Qt.Key.Key_Escape)
    assert plot.selection is None
    assert captions(window)[0].startswith("Peak") and captions(window)[4].startswith("Cam-weighted")


def test_the_scorecard_says_where_each_figure_is_from_and_goes_there(
    compare: tuple[MainWindow, Workspace], qtbot
) -> None:  # type: ignore[no-untyped-def]
    window, _ = compare
    said = " ".join(captions(window))
    for words in ("Low third", "High third", "Break-even", "Flow per cc", "Energy density", "Cd on valve", "Swirl",
                  "Exhaust/intake", "Minutes worked", "Thinnest wall", "Speed at the smallest"):  # fmt: skip
        assert words in said
    assert all(r.source for r in window.rooms["compare"].scorecard.rows)
    row = captions(window).index("Thinnest wall, in")
    y = 24 * (row + 1) + 12
    qtbot.mouseClick(window.rooms["compare"].scorecard, Qt.MouseButton.LeftButton, pos=QPoint(30, y))
    assert window.room is window.rooms["cuts"]


def test_what_may_not_be_compared_is_hidden_until_shown_anyway_with_the_mark(
    compare: tuple[MainWindow, Workspace], qtbot
) -> None:  # type: ignore[no-untyped-def]
    window, space = compare
    run = space.job.ports[0].cuts[1].runs[0]
    setup = replace(space.job.setup(run.setup_id), id="wide", bore=0.095)
    job = replace(space.job, setups=(*space.job.setups, setup))
    space.apply("sleeve", edit_run(job, run.id, lambda r: replace(r, setup_id="wide")))
    assert "Not to be compared" in window.rooms["compare"].verdict.headline.text()
    assert not window.rooms["compare"].curves.isVisible()
    qtbot.keyClick(window.rooms["compare"], Qt.Key.Key_A, Qt.KeyboardModifier.ShiftModifier)
    assert window.rooms["compare"].curves.isVisible()
    for label in (window.rooms["compare"].curves_caption, window.rooms["compare"].ribbon_caption):
        assert label.text().startswith("NOT COMPARABLE")
    assert "Not to be compared" in window.rooms["compare"].verdict.headline.text()


def test_the_whole_row(compare: tuple[MainWindow, Workspace], qtbot) -> None:  # type: ignore[no-untyped-def]
    window, _ = compare
    qtbot.keyClick(window.rooms["compare"], Qt.Key.Key_W)
    view = window.rooms["compare"].row_view
    assert view.isVisible()
    assert view.table.rowCount() == 3
    assert "First against last, one single test: +8.2" in view.sentence.text()
    assert "Gain per hour falls" in view.sentence.text()
    states = [view.states.text_at(r, 0) for r in range(view.states.rowCount())]
    assert view.states.isVisible() and states[0] == "as cast" and view.states.columnCount() == 4
    assert "Target at 0.450" in view.sentence.text()
    view.count.setValue(3)
    assert "cut 0 to 3" in view.together.text()
    view.count.setValue(9)
    assert "not flowed" in view.together.text()
    view.table.copy()
    lines = QApplication.clipboard().text().splitlines()
    assert len(lines) == 4
    first = dict(zip(lines[0].split("\t"), lines[1].split("\t"), strict=True))
    assert float(first["its own gain"]) == pytest.approx(4.0, abs=0.2)
    space = window.open_book.workspace
    assert space is not None
    cut = space.job.ports[0].cuts[1]
    run = space.findings.runs_of(cut, space.job.ports[0])[-1]
    at = float(run.curve.at(np.array([to_si(0.2, "in")]))[0])
    assert float(first["just open"]) == pytest.approx(from_si(at, "cfm"), abs=0.05), "my lifts stand first"


def test_schools_of_the_job_decide_which_number_speaks(compare: tuple[MainWindow, Workspace]) -> None:
    window, space = compare
    assert "low lift first: less flow" in window.rooms["compare"].verdict.judged_by.text()
    space.apply("school", replace(space.job, schools={"lifts": "low lift first"}))
    assert captions(window)[4].startswith("Low lift first")
    assert "by low lift first" in window.rooms["compare"].verdict.judged_by.text()


def test_any_run_of_the_book_can_be_the_other_side(compare: tuple[MainWindow, Workspace], qtbot) -> None:  # type: ignore[no-untyped-def]
    window, space = compare
    window.rooms["compare"].other.click()
    window.finder.box.setText("exhaust 1 cut 0")
    qtbot.keyClick(window.finder.box, Qt.Key.Key_Return)
    assert space.other is not None
    assert "Exhaust 1, cut 0" in window.rooms["compare"].comparability.text()
    assert "Not to be compared" in window.rooms["compare"].verdict.headline.text()  # draw against blow
    window.rooms["compare"].other.click()
    window.finder.box.setText("pinned")
    qtbot.keyClick(window.finder.box, Qt.Key.Key_Return)
    assert space.other is None
    assert "A trade" in window.rooms["compare"].verdict.headline.text()


def test_a_claim_is_typed_drawn_and_never_proves(compare: tuple[MainWindow, Workspace], qtbot) -> None:  # type: ignore[no-untyped-def]
    window, space = compare
    space.look_at(space.job.ports[0].cuts[0].id)
    sheet = window.sheets["claim"]
    sheet.open()
    sheet.take()
    assert "Whose claim" in sheet.problem.text()
    sheet.who.setText("the seller")
    sheet.rows.setPlainText("0.1 62\n0.2 many")
    sheet.take()
    assert "row 2" in sheet.problem.text().lower()
    assert sheet.who.text() == "the seller"
    sheet.rows.setPlainText("0.1 62\n0.2 125\n0.4 230")
    sheet.take()
    stored = window.open_book.book.load(space.job.id).ports[0].cuts[0].runs[-1]
    assert stored.claimed == "the seller"
    space.look_at(space.job.ports[0].cuts[2].id)
    assert any(line.label == "claimed" and line.style == "dotted" for line in window.rooms["compare"].curves._lines)
    assert space.hold_against_other(space.job.id, "intake-0", claimed=True)
    assert "Can't compare" in window.rooms["compare"].verdict.headline.text()
    assert "the seller claims it" in window.rooms["compare"].verdict.sentence.text()
    assert len(space.findings.runs_of(space.job.ports[0].cuts[0], space.job.ports[0])) == 1


def test_pictures_are_saved_at_print_quality(compare: tuple[MainWindow, Workspace], tmp_path: Path) -> None:
    window, _ = compare
    assert window.rooms["compare"].save_picture(tmp_path / "pair.png")
    image = QImage(str(tmp_path / "pair.png"))
    assert image.width() > 3000
    assert window.rooms["compare"].save_picture(tmp_path / "pair.svg")
    tree = ElementTree.parse(tmp_path / "pair.svg")
    assert tree.getroot().tag.endswith("svg")
    assert not window.rooms["compare"].save_picture(tmp_path / "pair.doc")
    assert "must end in" in window.foot.said.toolTip()
    window.rooms["compare"].copy_picture()
    assert not QApplication.clipboard().image().isNull()


def test_marks_are_told_apart_in_greyscale(compare: tuple[MainWindow, Workspace]) -> None:
    """Curves differ in line and width, results in their mark: colour is never alone."""
    window, _ = compare
    styles = [(line.style, line.width, line.alpha) for line in window.rooms["compare"].curves._lines]
    assert len(set(styles)) == len(styles)
    texts = [
        window.rooms["compare"].table.item(4, i).text() for i in range(window.rooms["compare"].table.columnCount())
    ]
    assert any(t.startswith("▲") for t in texts)
    assert any(t.startswith("▼") for t in texts)
    assert any(t[0] in "+−" for t in texts)


def test_exhaust_has_its_blow_down_band(compare: tuple[MainWindow, Workspace]) -> None:
    window, space = compare
    space.look_at_port("exhaust")
    assert any(c.startswith("Blow-down") for c in captions(window))
    assert to_si(1, "in") > 0


def test_my_lifts_stand_first_and_large(compare: tuple[MainWindow, Workspace]) -> None:
    window, space = compare
    strip = window.rooms["compare"].my_lifts
    assert [t.heading for t in strip.tiles] == ["just open, 0.200 in", "full, 0.450 in"]
    assert strip.isVisible() and "±" in strip.tiles[0].change
    table = window.rooms["compare"].table
    column = next(c for c in range(table.columnCount()) if table.horizontalHeaderItem(c).text() == "0.200")  # type: ignore[union-attr]
    assert strip.tiles[0].after.startswith(table.text_at(1, column)), "the same figure as in the table"
    space.apply("none", replace(space.job, my_lifts=()))
    assert strip.isHidden()


def test_f11_in_compare_is_its_far_view(compare: tuple[MainWindow, Workspace]) -> None:
    window, _space = compare
    window.toggle_far()
    room = window.rooms["compare"]
    assert room.alone and room.verdict.isVisible() and room.my_lifts.isVisible() and room.curves.isVisible()
    hidden = (room.table, room.scorecard, room.ribbon, window.rail, window.cut_row, room.kind)
    assert not any(w.isVisible() for w in hidden)
    QTest.keyClick(room, Qt.Key.Key_Escape)
    assert not room.alone and room.table.isVisible() and window.rail.isVisible()
    window.toggle_far()
    window.go_to_named("head")
    assert not room.alone and window.rail.isVisible()


def test_my_lifts_and_a_swirl_wish_are_typed_and_wrong_ones_refused(compare: tuple[MainWindow, Workspace]) -> None:
    window, space = compare
    window.go_to_named("head")
    goal = window.rooms["head"].pages[1]
    assert isinstance(goal, GoalTab)
    assert goal.my_lifts.text() == "0.200 just open; 0.450 full"

    def put(box: QLineEdit, text: str) -> None:
        box.setText(text)
        box.setModified(True)
        box.editingFinished.emit()

    put(goal.my_lifts, "0.1; 0.2; 0.3; 0.4; 0.5; 0.55")
    assert "5 lifts at most" in goal.problem.text() and len(space.job.my_lifts) == 4
    put(goal.my_lifts, "0.1 crack; 0.3")
    kept = [m for m in space.job.my_lifts if m.kind == "intake"]
    assert [(m.name, round(m.lift, 6)) for m in kept] == [("crack", 0.00254), ("", 0.00762)]
    put(goal.swirl, "0.2 900")
    assert "is not two lifts and a swirl" in goal.problem.text()
    put(goal.swirl, "0.2 0.4 9000")
    assert len(space.job.swirl_wishes) == 1
    window.go_to_named("compare")
    assert "of the 9000 rpm wished" in window.rooms["compare"].verdict.warnings.text()


def test_exhaust_and_intake_stand_on_one_page(compare: tuple[MainWindow, Workspace]) -> None:
    window, space = compare
    QTest.keyClick(window.rooms["compare"], Qt.Key.Key_B)
    page = window.rooms["compare"].both
    assert page.isVisible() and not window.rooms["compare"].curves.isVisible()
    words = page.words.text()
    assert "Intake 1, cut 3 over cut 0" in words and "Exhaust 1, cut" in words and "75 % is wanted" in words
    intake = space.findings.runs_of(space.job.ports[0].cuts[-1], space.job.ports[0])[-1]
    then = int(re.search(r"Exhaust 1, cut (\d)", words)[1])  # type: ignore[index]
    exhaust = space.findings.runs_of(space.job.ports[1].cuts[then], space.job.ports[1])[-1]
    for row in range(page.table.rowCount()):
        lift = to_si(float(page.table.text_at(row, 0)), "in")
        ratio = float(exhaust.curve.at(lift)) / float(intake.curve.at(lift))
        assert page.table.text_at(row, 3) == f"{100 * ratio:.0f} %"
    space.apply("none", replace(space.job, ports=space.job.ports[:1]))
    assert "No exhaust port has been flowed yet" in page.words.text()
    QTest.keyClick(window.rooms["compare"], Qt.Key.Key_W)
    assert window.rooms["compare"].row_view.isVisible() and page.isHidden()


def test_the_runs_that_do_not_speak_are_named_with_why(compare: tuple[MainWindow, Workspace]) -> None:
    window, space = compare
    cut = space.job.ports[0].cuts[3]
    run = cut.runs[0]
    setup = replace(space.job.setup(run.setup_id), id="other", bore=0.1)
    more = replace(run, id="again", setup_id="other", readings=tuple(replace(r, id=f"x{r.id}") for r in run.readings))
    job = edit_cut(
        replace(space.job, setups=(*space.job.setups, setup)), cut.id, lambda c: replace(c, runs=(run, more))
    )
    space.apply("another sleeve", job)
    space.look_at(cut.id)
    said = window.rooms["compare"].notes.text()
    assert "Cut 3's run" in said and "is left out" in said and "bigger bore unshrouds" in said
    assert "One run against one." in window.rooms["compare"].comparability.text()


def test_cuts_that_were_not_flowed_are_held_by_their_metal(open_window: Open) -> None:
    window = open_window()
    space = window.open_book.workspace
    assert space is not None
    port = next(p for p in space.job.ports if p.name == "Intake 4")
    space.look_at(port.cuts[-1].id)
    window.go_to_named("compare")
    said = window.rooms["compare"].empty.text()
    assert "has not been flowed yet" in said
    assert "The metal, without flow" in said
    assert "wall, bowl" in said

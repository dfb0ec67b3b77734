"""From an empty book to a verdict on two flows of one's own, without a refusal; and the form for what was missing."""

from __future__ import annotations

from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QComboBox

from tests.ui.stand_in import Open
from ventrix.core.model.run import SetUp
from ventrix.ui.widgets.quantity_field import QuantityField
from ventrix.ui.window.main_window import MainWindow

LIFTS = (0.1, 0.2, 0.3, 0.4, 0.5, 0.6)
FIRST = (62, 124, 176, 207, 221, 228)
SECOND = (66, 131, 189, 224, 242, 251)  # some 8 % more: far beyond what a bench repeats within


def flow(window: MainWindow, readings: tuple[int, ...]) -> None:
    """Type a flow test, lift by lift."""
    room = window.rooms["flow"]
    for lift, figure in zip(LIFTS, readings, strict=True):
        at = next(i for i, rung in enumerate(room.hand.test.rungs) if abs(rung.lift - lift * 0.0254) < 1e-6)
        room.control.stand_on(at)
        QTest.keyClicks(room.entry, str(figure))
        QTest.keyClick(room.entry, Qt.Key.Key_Return)
        assert room.control.problem == ""


def answer(window: MainWindow) -> None:
    """The five things, in their one line."""
    asked = window.rooms["flow"].asked_first
    for key, value in (("entry", "radius"), ("valve", "job"), ("plug", "in"), ("centred", True)):
        box = asked.fields[key]
        assert isinstance(box, QComboBox)
        box.setCurrentIndex(next(i for i in range(box.count()) if box.itemData(i) == value))
        box.activated.emit(box.currentIndex())
    sleeve = asked.fields["bore"]
    assert isinstance(sleeve, QuantityField)
    QTest.keyClicks(sleeve.box, "4.0")
    QTest.keyClick(sleeve.box, Qt.Key.Key_Return)


def begin(open_window: Open) -> MainWindow:
    window = open_window(demo=False)
    window.files.new_job()
    window.go_to_named("flow")
    space = window.open_book.workspace
    assert space is not None
    window.rooms["flow"].hand.use_setup(SetUp(id="mine", direction="intake", bench="home", test_pressure=6974.0))
    window.rooms["flow"].refresh()
    return window


def second_cut(window: MainWindow) -> None:
    sheet = window.sheets["cut"]
    sheet.open()
    QTest.keyClicks(sheet.name, "bowl")
    sheet.try_taking()
    assert sheet.problem.text() == ""
    window.go_to_named("flow")


def test_five_answers_and_two_flows_are_a_verdict(open_window: Open) -> None:
    window = begin(open_window)
    room = window.rooms["flow"]
    assert room.asked_first.isVisible()
    answer(window)
    assert not room.asked_first.isVisible()
    flow(window, FIRST)
    second_cut(window)
    assert not room.asked_first.isVisible()  # the second cut carries them
    flow(window, SECOND)
    window.go_to_named("compare")
    compare = window.rooms["compare"]
    assert compare.verdict.headline.text().startswith("Keep")
    assert not compare.record_button.isVisible()


def test_the_next_job_is_offered_the_last_answers_and_takes_none_unasked(open_window: Open) -> None:
    window = begin(open_window)
    answer(window)
    window.files.new_job()
    window.go_to_named("flow")
    room = window.rooms["flow"]
    assert room.asked_first.isVisible()
    assert room.hand.setup.plug is None
    assert "plug in" in room.asked_first.as_last.toolTip()
    QTest.mouseClick(room.asked_first.as_last, Qt.MouseButton.LeftButton)
    setup = room.hand.setup
    assert (setup.entry, setup.valve, setup.plug, setup.centred) == ("radius", "job", "in", True)
    assert setup.bore is not None and abs(setup.bore - 4.0 * 0.0254) < 1e-6
    assert not room.asked_first.isVisible()


def test_what_was_missing_is_named_once_and_recorded_for_both(open_window: Open) -> None:
    window = begin(open_window)
    flow(window, FIRST)
    second_cut(window)
    flow(window, SECOND)
    window.go_to_named("compare")
    compare = window.rooms["compare"]
    assert compare.verdict.headline.text() == "Can't compare yet: 5 conditions missing."
    said = f"{compare.comparability.text()} {compare.verdict.sentence.text()}"
    assert said.count("Plug was not recorded") == 1
    QTest.keyClick(compare, Qt.Key.Key_A)
    sheet = window.sheets["gaps"]
    assert sheet.isVisible()
    for key, value in (("entry", "radius"), ("valve", "job"), ("plug", "in"), ("centred", True)):
        box = sheet.fields[key, 0]
        box.setCurrentIndex(next(i for i in range(box.count()) if box.itemData(i) == value))
    QTest.keyClicks(sheet.fields["bore", 0].box, "4.0")
    QTest.keyClick(sheet.fields["bore", 0].box, Qt.Key.Key_Return)
    sheet.try_taking()
    assert not sheet.isVisible()
    assert compare.verdict.headline.text().startswith("Keep")
    space = window.open_book.workspace
    assert space is not None
    kept = [c for run in space.job.runs() for c in run.corrections]
    assert len(kept) == 10  # five a run, each with its reason
    assert {c.was for c in kept} == {"not recorded"}


def test_two_that_were_not_flowed_alike_are_recorded_apart_and_told_so(open_window: Open) -> None:
    window = begin(open_window)
    answer(window)
    flow(window, FIRST)
    second_cut(window)
    space = window.open_book.workspace
    assert space is not None
    hand = window.rooms["flow"].hand
    hand.use_setup(SetUp(id="bare", direction="intake", bench="home", test_pressure=6974.0))
    flow(window, SECOND)
    window.go_to_named("compare")
    sheet = window.sheets["gaps"]
    sheet.open()
    assert not sheet.apart.isVisible()  # one side tells them all: only the other is asked
    box = sheet.fields["entry", 1]
    box.setCurrentIndex(next(i for i in range(box.count()) if box.itemData(i) == "bare"))
    sheet.try_taking()
    assert window.rooms["compare"].verdict.headline.text() == "Not to be compared."


def test_two_sheets_of_another_shop_are_typed_ticked_and_judged_as_the_house_says(open_window: Open) -> None:
    window = open_window(demo=False)
    window.files.new_job()
    for flows in (FIRST, SECOND):
        sheet = window.sheets["claim"]
        window.open_sheet("claim")
        sheet.of.setCurrentIndex(1)
        assert sheet.day.isVisible() and not sheet.price.isVisible()
        sheet.try_taking()
        assert sheet.problem.text() == "Which shop's sheet is it?"
        sheet.who.setText("Weir")
        sheet.rows.clear()
        sheet.try_taking()
        assert sheet.problem.text().startswith("No figures yet")
        sheet.rows.setPlainText("\n".join(f"{x} {q}" for x, q in zip(LIFTS, flows, strict=True)))
        sheet.day.setText("4 nov")
        sheet.try_taking()
        assert not sheet.isVisible()
        if flows is FIRST:
            second_cut(window)
    window.go_to_named("compare")
    compare = window.rooms["compare"]
    assert compare.verdict.headline.text().startswith("Can't compare yet:")
    QTest.keyClick(compare, Qt.Key.Key_A)
    gaps = window.sheets["gaps"]
    assert gaps.one_house.isVisible()
    gaps.one_house.setChecked(True)
    gaps.try_taking()
    assert compare.verdict.headline.text().endswith("as the house says.")
    space = window.open_book.workspace
    assert space is not None
    assert {r.paper_date[5:] for r in space.job.runs() if r.paper_date} == {"11-04"}

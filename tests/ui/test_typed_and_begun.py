"""Fields that take a figure as the trade types it, sheets that start clean, checks that a button begins."""

from __future__ import annotations

from dataclasses import replace

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest

from tests.ui.stand_in import Open
from ventrix.core.calculators.answer import find
from ventrix.core.model.cut import Cut, Port
from ventrix.core.model.run import FlowRun
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import from_si
from ventrix.ui.widgets.planner import Planner
from ventrix.ui.window.main_window import MainWindow
from ventrix.workspace.ids import now_text

K = Qt.Key


@pytest.fixture
def window(open_window: Open) -> MainWindow:
    return open_window()


def put(box, text: str) -> None:  # type: ignore[no-untyped-def]
    box.setText(text)
    box.setModified(True)
    box.editingFinished.emit()


def test_lifts_walls_and_limits_are_typed_as_thousandths_in_head(window: MainWindow) -> None:
    window.go_to_named("head")
    goal = window.rooms["head"].pages[1]
    put(goal.targets, "550 273")
    put(goal.limits, "116")
    put(goal.swirl, "200 400 600")
    job = window.open_book.workspace.job
    assert from_si(job.targets[-1].lift, "in") == pytest.approx(0.550)
    assert from_si(job.wall_limits[0].thickness, "in") == pytest.approx(0.116)
    assert from_si(job.swirl_wishes[0].low, "in") == pytest.approx(0.200)


@pytest.mark.parametrize("text", ["550", "0 0", "9999999 1", "abc 12", "0.3 150 @ 999999"])
def test_what_a_goal_does_not_take_is_said_and_stays(window: MainWindow, text: str) -> None:
    window.go_to_named("head")
    goal, had = window.rooms["head"].pages[1], window.open_book.workspace.job.targets
    put(goal.targets, text)
    assert goal.problem.text() and goal.targets.text() == text
    assert window.open_book.workspace.job.targets == had


def test_a_pressure_is_refused_in_the_unit_it_was_typed_in(window: MainWindow) -> None:
    window.go_to_named("flow")
    window.rooms["flow"].toggle_conditions()
    field = window.rooms["flow"].conditions.fields["test_pressure"]
    put(field.box, "28 inHg")
    assert field.box.property("wrong") and "inHg" in field._note.text()


def test_a_bare_number_that_only_makes_sense_in_another_unit_is_asked_about(window: MainWindow) -> None:
    reckoner = window.sheets["reckoner"]
    reckoner.open(find("compression_ratio"))
    reckoner.rows["bore"].box.setText("98.4")  # the shop's own are inches
    assert "98.4 was taken as in" in reckoner.rows["bore"].error.text()
    reckoner.rows["bore"].box.setText("98.4mm")
    assert reckoner.rows["bore"].error.text() == ""


def test_a_wall_sheet_starts_clean_on_another_place_and_port(window: MainWindow) -> None:
    space, sheet = window.open_book.workspace, window.sheets["wall"]
    sheet.open("bowl", "roof")
    sheet.behind.setCurrentText("water")
    put(sheet.thickness.box, "0.150")
    sheet.probe.setText("5 MHz")
    sheet.closed.emit()
    sheet.open("bowl", "roof")
    assert (sheet.behind.currentText(), sheet.thickness.box.text()) == ("water", "0.150")  # nothing typed is lost
    sheet.take_button.click()
    assert space.real_cut.walls[-1].behind == "water"
    sheet.open("pinch", "left")
    assert (sheet.behind.currentText(), sheet.thickness.box.text()) == ("nothing known", "")
    assert sheet.probe.text() == "5 MHz"  # the gauge is the same one
    put(sheet.thickness.box, "0.200")
    space.look_at_port(space.job.ports[1].id)
    sheet.open("pinch", "left")
    assert sheet.thickness.box.text() == ""


def test_a_sheet_says_nothing_of_another_port(window: MainWindow) -> None:
    space, sheet = window.open_book.workspace, window.sheets["cut"]
    sheet.open("bowl")
    sheet.name.setText("bowl of intake 1")
    space.look_at_port(space.job.ports[1].id)
    sheet.open("bowl")
    assert sheet.name.text() == ""


def test_a_slip_of_the_program_is_no_sentence_of_a_porters(qtbot) -> None:  # type: ignore[no-untyped-def]
    def slip() -> object:
        raise ValueError("operands could not be broadcast together")

    def refusal() -> object:
        raise Refused("the valve of {} was not measured", "Intake 1")

    told: list[object] = []
    planner = Planner()
    planner.planned.connect(told.append)
    for make in (slip, refusal):
        planner.ask(make)
        qtbot.waitUntil(lambda: not planner.busy)
    planner.close()
    assert "operands" not in str(told[0]) and "nothing is lost" in str(told[0]) and ".log" in str(told[0])
    assert str(told[1]) == "the valve of Intake 1 was not measured"


def witnessed(window: MainWindow) -> None:
    """The demo's first gain under 4 %, its later run of today, with a witness port flowed beside the earlier one."""
    space = window.open_book.workspace
    job, port = space.job, space.port
    before, after = port.cuts[0], port.cuts[1]
    had, has = before.runs[-1], after.runs[-1]
    seen = FlowRun(id="w0", setup_id=had.setup_id, date=had.date, readings=tuple(
        replace(r, id=f"w{r.id}") for r in had.readings[:4]
    ))  # fmt: skip
    witness = Port(id="w", name="Intake 8", kind="intake", witness=True, cuts=(Cut(id="wc", number=0, runs=(seen,)),))
    top = max(r.lift for r in had.readings)  # more the wider it opens, as no factor and no leak makes it
    less = tuple(replace(r, flow=r.flow * (1 + 0.05 * r.lift / top)) if r.flow else r for r in had.readings)
    now = replace(has, date=now_text(), witness_id=None, steps=(), readings=tuple(
        replace(r, id=f"n{r.id}") for r in less
    ))  # fmt: skip
    first = replace(before, runs=(replace(had, witness_id="w0", steps=()),))
    mine = replace(port, cuts=(first, replace(after, runs=(now,))))
    space.apply("check", replace(job, ports=(mine, witness, *job.ports[2:])), benches=tuple(
        replace(b, plates=()) for b in space.benches
    ))  # fmt: skip
    space.look_at(after.id)


def test_a_small_gain_offers_the_check_it_hangs_on(window: MainWindow) -> None:
    witnessed(window)
    window.go_to_named("compare")
    card = window.rooms["compare"].verdict
    assert "nothing at the bench changed since" in card.headline.text()
    assert card.check.isVisible() and card.check.text() == "Flow the witness port, 6 min (F)"
    window.go_to_named("flow")  # and all lifts are done there
    assert window.rooms["flow"].question.isVisible() and window.rooms["flow"].question.no.isHidden()
    assert window.rooms["flow"].question.yes.text() == "Flow the witness port, 6 min (K)"
    window.go_to_named("compare")
    QTest.keyClick(window.rooms["compare"], K.Key_F)
    space = window.open_book.workspace
    assert not window.rooms["flow"].question.isVisible()
    assert window.rooms["flow"].isVisible() and space.port.witness
    assert window.rooms["flow"].hand.run is None  # a run of its own, under the conditions of the run it is for
    assert window.rooms["flow"].hand.setup.bench == space.job.setup(space.job.ports[0].cuts[1].runs[0].setup_id).bench

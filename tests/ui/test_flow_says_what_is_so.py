"""What the Flow room says belongs to the reading, lift and bench that it stands on, and to nothing else."""

from __future__ import annotations

from dataclasses import replace

import pytest
from PySide6.QtCore import Qt

from tests.ui.stand_in import DP, Open, counted
from tests.ui.test_nothing_lost import refuse_writing
from ventrix.core.model.bench import Bench
from ventrix.core.model.cut import Cut
from ventrix.core.model.kinds import StepKind
from ventrix.core.quantity.units import from_si, to_si
from ventrix.ui.window.main_window import MainWindow

K = Qt.Key


def thou(lift: int) -> float:
    return to_si(lift / 1000, "in")


def far(window: MainWindow):  # type: ignore[no-untyped-def]
    return window.rooms["flow"].far.far


def type_in(window: MainWindow, qtbot, text: str) -> None:  # type: ignore[no-untyped-def]
    for letter in text:
        qtbot.keyClicks(
            window.rooms["flow"].entry if window.rooms["flow"].entry.text() else window.rooms["flow"], letter
        )
    qtbot.keyClick(window.rooms["flow"].entry, K.Key_Return)


def test_kept_is_said_of_the_port_it_was_kept_on(foot, qtbot) -> None:  # type: ignore[no-untyped-def]
    window, bench, step = foot
    space = window.open_book.workspace
    other = replace(space.port, id="x", name="Exhaust 1", kind="exhaust", cuts=(Cut(id="x0", number=0),))
    space.apply("port", replace(space.job, ports=(*space.job.ports, other)))
    bench.feed(thou(50), to_si(24, "cfm"))
    step("press")
    assert far(window).ground == "kept"
    space.look_at_port("x")
    assert (far(window).ground, "KEPT" in far(window).phase) == ("", False)


def test_not_kept_stays_whatever_was_refused_before_it(foot, monkeypatch) -> None:  # type: ignore[no-untyped-def]
    window, bench, step = foot
    flow = to_si(24, "cfm")
    bench.feed(thou(50), flow, seconds=1.0)
    step("press")
    assert "Not steady" in far(window).phase
    bench.feed(thou(50), flow)
    refuse_writing(window.open_book.book, monkeypatch)
    step("press")
    assert far(window).phase.startswith("NOT KEPT 0.050")
    bench.feed(thou(50), flow)
    assert far(window).phase.startswith("NOT KEPT 0.050"), "what the bench does says nothing of the disk"


def test_kept_goes_with_the_reading_that_is_undone(foot) -> None:  # type: ignore[no-untyped-def]
    window, bench, step = foot
    bench.feed(thou(50), to_si(24, "cfm"))
    step("press")
    window.open_book.undo()
    assert far(window).ground == ""


def test_a_refusal_goes_with_its_cause(foot) -> None:  # type: ignore[no-untyped-def]
    window, bench, step = foot
    bench.feed(thou(50), to_si(24, "cfm"), seconds=1.0)
    step("press")
    assert far(window).ground == "refused" and "Not steady" in far(window).phase
    bench.feed(thou(50), to_si(24, "cfm"))
    assert far(window).ground == ""


def test_twice_on_a_steady_reading_keeps_it_as_steady(foot) -> None:  # type: ignore[no-untyped-def]
    window, bench, _ = foot
    bench.feed(thou(50), to_si(24, "cfm"))
    window.rooms["flow"].control.insist()
    (reading,) = window.open_book.workspace.cut.runs[0].readings
    assert not reading.unsteady


def test_what_is_typed_is_kept_at_the_lift_it_was_begun_at(foot, qtbot) -> None:  # type: ignore[no-untyped-def]
    window, bench, step = foot
    for i in (1, 2, 3, 4, 5, 6):
        bench.feed(thou(50 * i), to_si(25 * i, "cfm"))
        step("press")
    bench.feed(thou(550), to_si(200, "cfm"), seconds=0.5)  # where the valve stands
    window.rooms["flow"].ladder.rung_chosen.emit(5)  # 0.300, which has its reading
    qtbot.keyClick(window.rooms["flow"], K.Key_R)
    qtbot.keyClicks(window.rooms["flow"], "1")
    assert "at 0.300 in" in window.rooms["flow"].entry_row.caption.text()
    bench.feed(thou(550), to_si(200, "cfm"))
    qtbot.keyClicks(window.rooms["flow"].entry, "51")
    qtbot.keyClick(window.rooms["flow"].entry, K.Key_Return)
    assert counted(window)[300] == 2 and 550 not in counted(window)


def test_a_lift_begun_on_one_port_is_not_kept_on_another(open_window: Open, qtbot) -> None:  # type: ignore[no-untyped-def]
    window = open_window(demo=False)
    window.files.new_job()
    window.go_to_named("flow")
    space = window.open_book.workspace
    other = replace(space.port, id="x", name="Exhaust 1", kind="exhaust", cuts=(Cut(id="x0", number=0),))
    space.apply("port", replace(space.job, ports=(*space.job.ports, other)))
    window.rooms["flow"].control.stand_on(5)
    qtbot.keyClicks(window.rooms["flow"], "9")
    assert "at 0.300 in" in window.rooms["flow"].entry_row.caption.text()
    space.look_at_port("x")
    assert "at 0.050 in" in window.rooms["flow"].entry_row.caption.text()
    qtbot.keyClick(window.rooms["flow"].entry, K.Key_Return)
    assert counted(window) == {50: 1}


def test_flow_and_swirl_are_typed_behind_each_other(open_window: Open, qtbot) -> None:  # type: ignore[no-untyped-def]
    window = open_window(demo=False)
    window.files.new_job()
    window.go_to_named("flow")
    for text in ("24 350", "48.5 -1450 @ 27.6"):
        type_in(window, qtbot, text)
    first, second = window.open_book.workspace.cut.runs[0].readings
    assert from_si(first.swirl, "rpm") == pytest.approx(350)
    assert from_si(second.swirl, "rpm") == pytest.approx(-1450)
    assert from_si(second.measured_pressure, "inH2O") == pytest.approx(27.6)


def test_a_decimal_point_is_asked_about_before_it_is_kept(open_window: Open, qtbot) -> None:  # type: ignore[no-untyped-def]
    window = open_window(demo=False)
    window.files.new_job()
    window.go_to_named("flow")
    for text in ("24", "48", "75"):
        type_in(window, qtbot, text)
    type_in(window, qtbot, "1010")  # for 101.0
    assert "Enter again keeps it" in window.rooms["flow"].entry_row.problem.text()
    assert 200 not in counted(window)
    qtbot.keyClick(window.rooms["flow"].entry, K.Key_Return)
    assert counted(window)[200] == 1


def test_the_first_leak_of_a_bench_asks_whether_the_readout_has_it_off(foot, qtbot) -> None:  # type: ignore[no-untyped-def]
    window, bench, step = foot
    space = window.open_book.workspace
    space.change_bench("bench", Bench(id="b", name="back-room"))
    window.rooms["flow"].hand.use_bench(space.benches[0])
    window.open_book.bench.answers_for = "back-room"
    window.rooms["flow"]._use_setup(replace(window.rooms["flow"].hand.setup, leak=to_si(3, "cfm"), leak_pressure=DP))
    assert window.rooms["flow"].question.isVisible() and "3.0" in window.rooms["flow"].question.words.text()
    qtbot.keyClick(window.rooms["flow"], K.Key_Y)
    assert not window.rooms["flow"].question.isVisible()
    assert window.open_book.book.benches()[0].leak_taken_off is True
    bench.feed(thou(50), to_si(24, "cfm"))
    step("press")
    assert window.rooms["flow"].hand.reduced().flow[0] == pytest.approx(to_si(24, "cfm"), rel=2e-3)  # not twice
    window.rooms["flow"]._use_setup(replace(window.rooms["flow"].hand.setup, leak=to_si(4, "cfm")))
    assert not window.rooms["flow"].question.isVisible()  # it asks once


def test_a_step_shows_its_own_figure_and_then_what_comes_next(foot, qtbot) -> None:  # type: ignore[no-untyped-def]
    window, bench, _ = foot
    room = window.rooms["flow"]
    room.control.steps.go_to(StepKind.LEAK)
    bench.feed(0.0, to_si(0.4, "cfm"))
    qtbot.keyClick(room, K.Key_Space)
    bench.feed(thou(300), to_si(239.7, "cfm"), seconds=0.5)
    assert (far(window).phase, far(window).flow) == ("KEPT: LEAK", "0.4")
    room.control.steps._step_shown.timeout.emit()
    assert far(window).phase.startswith("SEAT LEAK") and "opening free" in far(window).sentence


def test_one_column_of_water_gives_an_index_against_its_fixed_opening(open_window: Open, qtbot) -> None:  # type: ignore[no-untyped-def]
    """A vacuum motor draws what it draws: four times the column is half the opening (orifice law)."""
    window = open_window(demo=False)
    window.files.new_job()
    window.go_to_named("flow")
    space = window.open_book.workspace
    space.change_bench("bench", Bench(id="v", name="vacuum", element="column"))
    window.rooms["flow"].hand.use_bench(space.benches[0])
    type_in(window, qtbot, "20")
    assert "fixed opening is not known" in far(window).phase
    space.change_bench("bench", replace(space.benches[0], fixed_column=to_si(5, "inH2O")))
    window.rooms["flow"].refresh()
    window.rooms["flow"].control.ground.clear()
    window.rooms["flow"].entry.clear()
    type_in(window, qtbot, "20")
    type_in(window, qtbot, "5")
    assert window.rooms["flow"].hand.reduced().flow.tolist() == pytest.approx([0.5, 1.0])
    assert window.rooms["flow"].hand.reduced().kind == "index"


def test_the_sleeve_is_the_jobs_bore_whenever_that_is_typed(open_window: Open) -> None:
    window = open_window(demo=False)
    window.files.new_job()
    space = window.open_book.workspace
    space.apply("no bore", replace(space.job, bore=None))
    window.go_to_named("flow")
    assert window.rooms["flow"].hand.setup.bore is None
    window.go_to_named("head")
    space.apply("bore", replace(space.job, bore=0.1))
    window.go_to_named("flow")
    assert window.rooms["flow"].hand.setup.bore == 0.1


def test_looking_at_benches_makes_none_and_the_run_stays_in_sight(open_window: Open, qtbot) -> None:  # type: ignore[no-untyped-def]
    window = open_window(demo=False)
    window.files.new_job()
    window.go_to_named("flow")
    space = window.open_book.workspace
    type_in(window, qtbot, "24")
    window.sheets["benches"].open()
    assert (
        not space.benches
        and window.sheets["benches"].none.isVisible()
        and not window.sheets["benches"].pages.isVisible()
    )
    window.sheets["benches"].new_bench()
    assert len(space.benches) == 1
    assert window.rooms["flow"].ladder.rungs[0].flow == "24.0"
    window.rooms["flow"]._use_bench(space.benches[0])
    assert window.rooms["flow"].ladder.rungs[0].flow == "24.0"
    assert "the next reading begins a new one" in window.rooms["flow"].lines.text()


def test_what_a_bench_refuses_is_never_its_state(foot) -> None:  # type: ignore[no-untyped-def]
    window, _, _ = foot
    bridge = window.open_book.bench
    had = bridge.sentence
    bridge.refused.emit("the bench refused SIM:PORT INTAKE,100: Data out of range")
    assert bridge.sentence == had
    assert "Data out of range" in window.foot.said.text()


def test_a_reason_is_not_carried_to_another_run(open_window: Open) -> None:
    window = open_window(room="flow")
    page, space = window.rooms["flow"].readings, window.open_book.workspace
    window.rooms["flow"].toggle_readings()
    page.reason.setText("slipped off the seat")
    space.look_at_port(next(p for p in space.job.ports if p.kind == "exhaust").id)
    window.rooms["flow"].refresh()
    assert page.reason.text() == ""

"""The Flow room driven as hands and feet drive it: one pedal, steps, ranges, pasted and typed readings."""

from __future__ import annotations

from dataclasses import replace

import pytest
from PySide6.QtCore import QEvent, Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QApplication

from tests.ui.stand_in import DP, Open, StandIn, counted
from ventrix.bench.procedure.flow_procedure import Phase
from ventrix.core.model.bench import Bench
from ventrix.core.model.kinds import StepKind
from ventrix.core.quantity.units import from_si, to_si
from ventrix.demo.job import demo_benches


def test_a_whole_run_of_twelve_rungs_with_one_pedal(foot) -> None:  # type: ignore[no-untyped-def]
    window, bench, step = foot
    window.rooms["flow"].entry.setFocus()  # the pedal works wherever the focus is
    lifts = [to_si(0.05 * i, "in") for i in range(1, 13)]
    flows = [to_si(q, "cfm") for q in (24, 48, 75, 101, 126, 149, 169, 182, 191, 205, 215, 224)]

    def take(i: int, **more: float) -> None:
        bench.feed(lifts[i], flows[i], **more)

    take(0)
    step("press")
    assert window.rooms["flow"].far.far.ground == "kept"
    step("press")
    assert window.rooms["flow"].far.far.ground == "refused"  # a second keep without asking for a repeat
    step("twice")
    bench.feed(lifts[0], flows[0])
    step("press")
    take(1)
    step("press")
    step("hold")  # struck
    assert 100 not in counted(window)
    take(1)
    step("press")
    take(2)
    step("press")
    bench.feed(lifts[4], flows[4], seconds=5)  # 0.200 is passed over
    step("press")
    take(5, flicker=0.02, seconds=4)
    assert window.rooms["flow"].hand.test.phase is Phase.WAIT
    step("press")
    assert "Not steady" in window.rooms["flow"].far.far.phase
    step("twice")  # kept as unsteady
    for i in range(6, 11):
        take(i)
        step("press")
    take(11, pressure=0.9 * DP)
    assert window.rooms["flow"].hand.test.out_of_breath
    step("press")
    assert "at its limit" in window.rooms["flow"].far.far.phase
    step("twice")  # at its own pressure
    found = counted(window)
    assert found == {50: 2, 100: 1, 150: 1, 250: 1, 300: 1, 350: 1, 400: 1, 450: 1, 500: 1, 550: 1, 600: 1}
    space = window.open_book.workspace
    assert space is not None
    run = window.open_book.book.load(space.job.id).ports[0].cuts[0].runs[0]  # as it is on disk
    assert sum(r.struck is not None for r in run.readings) == 1
    assert [r.unsteady for r in run.readings].count(True) == 1
    assert {n.kind for n in run.rung_notes} == {"skipped", "out of breath"}
    for r in run.readings:
        assert r.window == pytest.approx(3.0, abs=0.2)
        assert r.spread is not None
        assert r.time is not None
    last = run.readings[-1]
    assert last.measured_pressure == pytest.approx(0.9 * DP)
    reduced = window.rooms["flow"].hand.reduced()
    assert reduced is not None
    assert reduced.flow[-1] == pytest.approx(flows[11] / 0.9514, rel=2e-3)  # nozzle and plate, 25.2 to 28 inH2O
    assert window.rooms["flow"].far.far.next_lift == "next 0.200"  # passed over: asked for at the end


def test_any_key_can_be_the_pedal_and_letters_still_type(open_window: Open) -> None:
    window = open_window()
    assert window.rooms["flow"].pedal.use("F8")
    assert window.rooms["flow"].pedal.name == "F8"
    assert not window.rooms["flow"].pedal.use("NoSuchKey")
    assert not window.rooms["flow"].pedal.use("Ctrl+K, Ctrl+L")


def test_automatic_keeping_waits_for_steady(foot) -> None:  # type: ignore[no-untyped-def]
    window, bench, _ = foot
    window.rooms["flow"].control.toggle_automatic()
    for i in (1, 2, 3):
        bench.feed(to_si(0.05 * i, "in"), to_si(25 * i, "cfm"), seconds=5)
    assert counted(window) == {50: 1, 100: 1, 150: 1}


def test_an_odd_reading_asks_to_be_taken_again_and_stays(foot) -> None:  # type: ignore[no-untyped-def]
    window, bench, step = foot
    for i, q in ((1, 25), (2, 50), (4, 100), (5, 124)):
        window.rooms["flow"].control.stand_on(i - 1)
        bench.feed(to_si(0.05 * i, "in"), to_si(q, "cfm"))
        window.rooms["flow"].control.keep()
    window.rooms["flow"].control.stand_on(2)
    bench.feed(to_si(0.15, "in"), to_si(85, "cfm"))
    window.rooms["flow"].control.keep()
    assert window.rooms["flow"].far.far.ground == "odd"
    assert "off its neighbours" in window.rooms["flow"].far.far.phase
    assert counted(window)[150] == 1
    step("twice")
    bench.feed(to_si(0.15, "in"), to_si(75, "cfm"))
    window.rooms["flow"].control.keep()
    assert "off its repeat" in window.rooms["flow"].far.far.phase
    assert counted(window)[150] == 2


def test_steps_before_the_lifts_are_recorded_or_skipped_with_a_reason(foot, qtbot) -> None:  # type: ignore[no-untyped-def]
    window, bench, _ = foot
    space = window.open_book.workspace
    assert space is not None
    space.change_bench("bench", Bench(id="b", name="back-room", plate_flow=to_si(152, "cfm")))
    window.rooms["flow"].hand.use_bench(space.benches[0])
    window.open_book.bench.answers_for = "back-room"
    room, control = window.rooms["flow"], window.rooms["flow"].control
    qtbot.keyClick(room, Qt.Key.Key_P)
    assert "WARM UP" in room.far.far.phase
    bench.feed(5e-3, 0.05, seconds=45)
    qtbot.keyClick(room, Qt.Key.Key_Space)
    assert room.hand.preparation.step is StepKind.ZERO
    bench.feed(0.0, 0.0, pressure=1.0)
    qtbot.keyClick(room, Qt.Key.Key_Space)
    bench.feed(0.0, to_si(0.6, "cfm"))
    qtbot.keyClick(room, Qt.Key.Key_Space)
    assert from_si(room.hand.setup.leak or 0, "cfm") == pytest.approx(0.6, rel=1e-2)
    qtbot.keyClick(room, Qt.Key.Key_S)
    qtbot.keyClicks(room.entry, "seat is cut next week")
    qtbot.keyClick(room.entry, Qt.Key.Key_Return)
    bench.feed(0.0, to_si(156, "cfm"))
    qtbot.keyClick(room, Qt.Key.Key_Space)
    assert "out of limits" in room.far.far.phase
    assert room.far.far.ground == "odd"
    qtbot.keyClicks(room, "2")
    qtbot.keyClicks(room.entry, "10")
    qtbot.keyClick(room.entry, Qt.Key.Key_Return)  # the open port, typed
    assert not control.steps.on
    job = window.open_book.book.load(space.job.id)
    run = job.ports[0].cuts[0].runs[0]
    assert [s.kind for s in run.steps] == ["warm-up", "zero", "leak", "seat leak", "plate", "open port"]
    assert run.steps[3].skipped == "seat is cut next week"
    assert job.setup(run.setup_id).leak == room.hand.setup.leak
    assert len(window.open_book.book.benches()[0].plates) == 1
    assert "drifted" in room.lines.text()
    assert not run.readings
    bench.feed(to_si(0.05, "in"), to_si(25, "cfm"))
    control.keep()
    reduced = room.hand.reduced()
    assert reduced is not None
    assert any("plate read" in n for n in reduced.notes)
    assert from_si(reduced.open_flow or 0, "cfm") == pytest.approx(209.4, rel=1e-3)


def test_noise_and_dips_are_noted_with_one_key(foot, qtbot) -> None:  # type: ignore[no-untyped-def]
    window, _, _ = foot
    for key in (Qt.Key.Key_N, Qt.Key.Key_I, Qt.Key.Key_T, Qt.Key.Key_O, Qt.Key.Key_N):
        qtbot.keyClick(window.rooms["flow"], key)
    assert window.rooms["flow"].ladder.rungs[0].notes == ("noise", "dip", "out of travel", "out of breath")
    space = window.open_book.workspace
    assert space is not None
    space.undo()
    assert len(window.rooms["flow"].ladder.rungs[0].notes) == 3


def test_two_columns_of_water_give_ratios_and_no_window(open_window: Open, qtbot) -> None:  # type: ignore[no-untyped-def]
    window = open_window(demo=False)
    window.files.new_job()
    window.go_to(1)
    space = window.open_book.workspace
    assert space is not None
    space.change_bench("bench", Bench(id="b", name="vacuum cleaner", element="columns"))
    window.rooms["flow"].hand.use_bench(space.benches[0])
    window.rooms["flow"].refresh()
    assert window.rooms["flow"].hand.test.test_pressure is None
    window.rooms["flow"].entry.setText("412")
    qtbot.keyClick(window.rooms["flow"].entry, Qt.Key.Key_Return)
    assert "two columns" in window.rooms["flow"].control.problem.lower()
    assert window.rooms["flow"].entry.text() == "412"
    window.rooms["flow"].entry.setText("4.12 9.03")
    qtbot.keyClick(window.rooms["flow"].entry, Qt.Key.Key_Return)
    assert window.rooms["flow"].ladder.rungs[0].flow == f"{(4.12 / 9.03) ** 0.5:.4f}"
    assert "CFM" not in window.rooms["flow"].far.far.flow_unit
    bench = StandIn(window)
    bench.feed(to_si(0.1, "in"), 1000.0, pressure=1500.0)
    assert window.rooms["flow"].hand.test.phase is Phase.KEEP
    window.rooms["flow"].control.keep()
    assert window.rooms["flow"].ladder.rungs[1].flow == f"{(1000 / 1500) ** 0.5:.4f}"
    window.open_book.bench.connected = False


def test_percent_of_a_range_with_its_advice(foot, qtbot) -> None:  # type: ignore[no-untyped-def]
    window, bench, _ = foot
    space = window.open_book.workspace
    assert space is not None
    barn = demo_benches()[1]
    space.change_bench("bench", replace(barn, corrected=True, link="typed"))
    window.rooms["flow"].hand.use_bench(space.benches[0])
    window.open_book.bench.answers_for = barn.name
    window.rooms["flow"].refresh()
    bench.feed(to_si(0.05, "in"), 0.98)
    assert "next one up" in window.rooms["flow"].far.far.foot
    qtbot.keyClick(window.rooms["flow"], Qt.Key.Key_BracketRight)
    assert window.rooms["flow"].hand.element.full_scale == pytest.approx(to_si(150, "cfm"))
    bench.feed(to_si(0.05, "in"), 0.49)
    window.rooms["flow"].control.keep()
    assert window.rooms["flow"].ladder.rungs[0].flow == "73.5"
    assert space.cut is not None
    kept = space.cut.runs[0].readings[0]
    assert (kept.percent, kept.flow) == (pytest.approx(0.49, rel=1e-3), None)


def test_a_pasted_table_is_kept_row_by_row(foot) -> None:  # type: ignore[no-untyped-def]
    window, _, _ = foot
    QApplication.clipboard().setText("lift\tCFM\tinH2O\n0.05\t24.1\t28.0\n0.10\t48,2\t27.5\n5 mm\t90\n")
    window.rooms["flow"].paste()
    assert counted(window) == {50: 1, 100: 1, 197: 1}
    QApplication.clipboard().setText("0.05\tmany")
    window.rooms["flow"].paste()
    assert "row 1" in window.rooms["flow"].far.far.phase.lower()
    assert counted(window) == {50: 1, 100: 1, 197: 1}


def test_a_plan_of_ones_own_and_the_way_back(foot, qtbot) -> None:  # type: ignore[no-untyped-def]
    window, bench, _ = foot
    qtbot.keyClick(window.rooms["flow"], Qt.Key.Key_C)
    panel = window.rooms["flow"].conditions
    panel.plan.setText("0.1 to 0.3 by 0.1")
    panel.plan.setModified(True)
    panel.come_back.setChecked(True)
    panel._plan_typed()
    assert [r.lift for r in window.rooms["flow"].ladder.rungs] == ["0.100", "0.200", "0.300", "↩ 0.200"]
    panel.plan.setText("0.3 to 0.1 by 0.1")
    panel._plan_typed()
    assert "does not rise" in panel.plan_problem.text()
    for lift, q in ((0.1, 48), (0.2, 100), (0.3, 149), (0.2, 104)):
        bench.feed(to_si(lift, "in"), to_si(q, "cfm"))
        window.rooms["flow"].control.keep()
    reduced = window.rooms["flow"].hand.reduced()
    assert reduced is not None
    assert any("coming back to" in n for n in reduced.notes)
    assert window.rooms["flow"].hand.test.phase is Phase.KEPT
    bench.feed(0.0, 0.0, seconds=0.5)
    assert window.rooms["flow"].hand.test.phase is Phase.DONE


def test_stale_air_is_noticed(open_window: Open) -> None:
    window = open_window()
    window.go_to(1)
    window.rooms["flow"]._use_setup(replace(window.rooms["flow"].hand.setup, air_read_at="2026-05-01T08:00:00+00:00"))
    assert "read it again" in window.rooms["flow"].lines.text()


def test_the_far_view_alone_shows_nothing_small(open_window: Open) -> None:
    window = open_window(room="flow")
    window.toggle_far()
    assert window.rooms["flow"].far.alone
    assert not window.rail.isVisible()
    assert not window.cut_row.isVisible()
    assert not window.grab().isNull()
    window.set_reading_distance()
    window.rooms["flow"]._distance.keyPressEvent(
        QKeyEvent(QEvent.Type.KeyPress, Qt.Key.Key_Up, Qt.KeyboardModifier.NoModifier)
    )
    before = window.rooms["flow"].far.least
    window.rooms["flow"]._distance.keyPressEvent(
        QKeyEvent(QEvent.Type.KeyPress, Qt.Key.Key_Return, Qt.KeyboardModifier.NoModifier)
    )
    assert window.rooms["flow"].far.least > before
    assert float(str(window.open_book.settings.value("far_px"))) == window.rooms["flow"].far.least
    window.go_to(3)
    assert window.rail.isVisible()

"""Parts of the window by themselves: fields, ladder, far view, conditions, scorecard, plot, bridge."""

from __future__ import annotations

import queue
from dataclasses import replace

import numpy as np
import pytest
from PySide6.QtCore import QPoint, Qt
from PySide6.QtWidgets import QApplication, QLabel

from ventrix.bench.drivers.sample import Sample
from ventrix.bench.sampler import CommandRefused, Connected, Lost
from ventrix.core.model.run import SetUp
from ventrix.core.quantity.units import to_si
from ventrix.rooms.compare.scorecard import Score
from ventrix.rooms.display_units import METRIC, US
from ventrix.rooms.flow.pictures import FarPicture, LadderRung, Tape
from ventrix.rooms.shared.conditions_words import in_words
from ventrix.rooms.shared.plot_values import Band, Bars, Line, Picture
from ventrix.ui.bench_bridge import BenchBridge
from ventrix.ui.calculators.reckoner import shown_unit
from ventrix.ui.compare.scorecard import Scorecard
from ventrix.ui.flow.conditions_panel import ConditionsPanel
from ventrix.ui.flow.far_view import FarView
from ventrix.ui.flow.ladder import LiftLadder
from ventrix.ui.flow.simulator_panel import SimulatorControl
from ventrix.ui.head.port_drawing import PortDrawing
from ventrix.ui.look import theme
from ventrix.ui.widgets.planner import Planner
from ventrix.ui.widgets.plot import Plot
from ventrix.ui.widgets.quantity_field import PlacedField, QuantityField
from ventrix.ui.window.finder import Found, matching


@pytest.fixture
def field(styled: QApplication, qtbot) -> QuantityField:  # type: ignore[no-untyped-def]
    made = QuantityField("Throat diameter", US.length)
    qtbot.addWidget(made)
    made.show()
    return made


def accepted_by(field: QuantityField) -> list[float | None]:
    got: list[float | None] = []
    field.accepted.connect(got.append)
    return got


def type_in(qtbot, field: QuantityField, text: str) -> None:  # type: ignore[no-untyped-def]
    field.box.selectAll()
    qtbot.keyClicks(field.box, text)
    qtbot.keyClick(field.box, Qt.Key.Key_Return)


def test_a_field_takes_any_unit_once(field: QuantityField, qtbot) -> None:  # type: ignore[no-untyped-def]
    got = accepted_by(field)
    type_in(qtbot, field, "45 mm")
    qtbot.keyClick(field.box, Qt.Key.Key_Return)
    assert got == [pytest.approx(0.045)]


@pytest.mark.parametrize(
    ("text", "words"), [("x", "not a number"), ("-1", "above zero"), ("3 cfm", "length is needed")]
)
def test_a_field_keeps_what_is_wrong(field: QuantityField, qtbot, text: str, words: str) -> None:  # type: ignore[no-untyped-def]
    got = accepted_by(field)
    type_in(qtbot, field, text)
    assert got == []
    assert field.box.text() == text
    assert words in field.box.accessibleDescription()
    field.box.clearFocus()
    field.set_value(0.04)  # an edit elsewhere refreshes the room: what was typed stays
    assert field.box.text() == text
    field.forget()
    field.set_value(0.04)
    assert field.box.text() == "1.575"
    assert field.box.accessibleDescription() == ""


def test_a_field_emptied_is_not_recorded(field: QuantityField, qtbot) -> None:  # type: ignore[no-untyped-def]
    field.set_value(0.045)
    got = accepted_by(field)
    field.box.selectAll()
    qtbot.keyClick(field.box, Qt.Key.Key_Delete)
    qtbot.keyClick(field.box, Qt.Key.Key_Return)
    assert got == [None]


def test_a_field_changes_its_unit(field: QuantityField) -> None:
    field.set_value(0.0254)
    assert field.box.text() == "1.000"
    field.use(METRIC.length)
    assert field.box.text() == "25.40"


def test_figures_that_are_not_known_are_dashes() -> None:
    assert US.flow.text(None) == "–"
    assert US.flow.text(float("nan")) == "–"
    assert US.flow.text(-to_si(3.2, "cfm"), sign=True) == "−3.2"
    assert METRIC.lift.with_unit(0.005) == "5.00 mm"


def test_ladder_says_its_rungs_and_takes_clicks(styled: QApplication, qtbot) -> None:  # type: ignore[no-untyped-def]
    ladder = LiftLadder()
    qtbot.addWidget(ladder)
    rungs = [
        LadderRung("0.050", "30.4", "+0.4", "not proven"),
        LadderRung("0.100", "62.9", "+2.0", "better", 2),
        LadderRung("0.150"),
    ]
    ladder.show_rungs(rungs, 2, ("lift, in", "CFM", "against cut 1"))
    ladder.show()
    assert "0.100: 62.9 +2.0 better" in ladder.accessibleDescription()
    chosen: list[int] = []
    ladder.rung_chosen.connect(chosen.append)
    qtbot.mouseClick(ladder, Qt.MouseButton.LeftButton, pos=QPoint(50, 28 + 33 + 10))
    assert chosen == [1]
    assert not ladder.grab().isNull()


FAR = FarPicture(
    "KEEP when you are ready",
    "Space or pedal",
    lift="0.400",
    lift_caption="lift, in",
    next_lift="next 0.450",
    flow="220.3",
    flow_unit="CFM",
    spread="± 0.5",
    difference="+9.3",
    result="better",
    difference_words="over cut 1",
    tape=Tape(22, 34, (27, 29), 28.0, "28.0", "test pressure, inH2O"),
    steady=0.9,
    steady_words="last 3.0 s",
)


def test_far_view_paints_every_state(styled: QApplication, qtbot) -> None:  # type: ignore[no-untyped-def]
    from dataclasses import replace

    view = FarView()
    qtbot.addWidget(view)
    view.resize(480, 560)
    view.show()
    pictures = []
    for far in (FAR, replace(FAR, ground="kept"), replace(FAR, ground="refused", phase="Pressure is low: raise it.")):
        view.show_far(far)
        pictures.append(view.grab().toImage())
        assert far.phase in view.accessibleDescription()
    grounds = {picture.pixelColor(picture.width() // 2, picture.height() - 40).name() for picture in pictures}
    assert len(grounds) == 3  # the whole ground changes


def test_ground_can_be_told_at_a_distance(styled: QApplication) -> None:
    for name in theme.THEMES.values():
        assert len({name.panel, name.kept, name.refused}) == 3


def test_conditions_tell_each_change(styled: QApplication, qtbot) -> None:  # type: ignore[no-untyped-def]
    panel = ConditionsPanel(US)
    qtbot.addWidget(panel)
    setup = SetUp(id="s", direction="exhaust", test_pressure=7000.0, bore=0.089, valve="a name of my own")
    panel.show_setup(setup, replace(setup, bore=0.095, valve=None), US)
    got: list[SetUp] = []
    panel.changed.connect(got.append)
    entry = panel.choices["entry"]
    entry.setCurrentIndex(1)
    entry.activated.emit(1)
    assert got[-1].entry == "radius"
    assert panel.choices["valve"].currentText() == "a name of my own"
    leak = panel.fields["leak"]
    leak.box.setText("0.8")
    leak.box.setModified(True)
    leak.box.editingFinished.emit()
    assert got[-1].leak == pytest.approx(to_si(0.8, "cfm"))
    assert got[-1].leak_pressure == 7000.0
    beside = [label.text() for label in panel.fields["bore"].findChildren(QLabel)]
    assert "≠ 3.740" in beside
    beside = [label.text() for label in panel.fields["test_pressure"].findChildren(QLabel)]
    assert not any(text.startswith("≠") for text in beside)


def test_conditions_in_words() -> None:
    setup = SetUp(
        id="s",
        direction="exhaust",
        test_pressure=to_si(28, "inH2O"),
        bore=0.0889,
        centred=False,
        pipe="none",
        valve="job",
    )
    assert in_words(setup, 7, US) == "28.0 inH2O · 3.500 in sleeve, off center · no pipe · job valve · mount 7"
    assert in_words(SetUp(id="s", direction="intake"), None, US) == ""


def test_scorecard_says_its_rows(styled: QApplication, qtbot) -> None:  # type: ignore[no-untyped-def]
    card = Scorecard()
    qtbot.addWidget(card)
    card.show_rows([Score("Peak, CFM", "229.0", "247.6", "+18.6", "better", "± 2.5")], "cut 1", "cut 3")
    assert "Peak, CFM: 229.0 to 247.6 +18.6 better" in card.accessibleDescription()
    card.show()
    assert not card.grab().isNull()


def test_plot_draws_what_it_is_given(styled: QApplication, qtbot) -> None:  # type: ignore[no-untyped-def]
    plot = Plot("flow")
    qtbot.addWidget(plot)
    x = np.array([0.1, 0.2, 0.3])
    plot.show_picture(
        Picture(
            [
                Line(x, 100 * x, "intake", label="1"),
                Line(x, 101 * x, "quiet", style="dashed", label="2", points=(x, 100 * x)),
            ],
            bands=[Band(x, -x, x, "unproven")],
            bars=Bars(x, np.array([1.0, -2.0, 0.0]), ["#8FD694"] * 3, ["a", "b", "c"], 0.01),
            verticals=[(0.2, "cam lift")],
            x_range=(0, 0.4),
            y_range=(-5, 40),
            x_ticks=[0.1, 0.2],
            digits=3,
        )
    )
    before = len(plot.plot.getPlotItem().items)
    plot.show_picture(Picture([]))
    assert len(plot.plot.getPlotItem().items) < before


@pytest.mark.parametrize("kind", ["intake", "exhaust"])
def test_section_draws_with_and_without_figures(styled: QApplication, qtbot, kind: str) -> None:  # type: ignore[no-untyped-def]
    drawing = PortDrawing({"throat_diameter": PlacedField("Throat", US.length)})
    qtbot.addWidget(drawing)
    drawing.resize(700, 420)
    drawing.show()
    full = {"head_diameter": 0.046, "stem_diameter": 0.007, "throat_diameter": 0.04, "floor_length": 0.09}
    for known in ({}, full, full | {"roof_length": 0.11}, {"throat_diameter": 0.2}):
        drawing.show_sizes(known, kind)
        assert not drawing.grab().isNull()


def test_simulator_control_moves_the_valve(styled: QApplication, qtbot) -> None:  # type: ignore[no-untyped-def]
    control = SimulatorControl()
    qtbot.addWidget(control)
    control.use(US)
    lifts: list[float] = []
    control.lift_set.connect(lifts.append)
    control.open_to(to_si(0.3, "in"))
    control._slider.setValue(500)
    assert lifts == [pytest.approx(0.00762), pytest.approx(0.005)]


def test_bridge_tells_what_the_queue_holds(styled: QApplication) -> None:
    bridge = BenchBridge()
    samples: list[object] = []
    states: list[str] = []
    bridge.sampled.connect(samples.append)
    refusals: list[str] = []
    bridge.state_changed.connect(lambda: states.append(bridge.sentence))
    bridge.refused.connect(refusals.append)
    bridge._events = queue.Queue()
    for event in (Connected("Some,Bench,1,1", False), Sample(0.0, 0.05, 7000.0), Sample(0.1, 0.05, 7000.0)):
        bridge._events.put(event)
    bridge.drain()
    assert bridge.connected
    assert not bridge.is_simulated
    assert len(samples[0]) == 2  # type: ignore[arg-type]
    bridge._events.put(Lost("the bench closed the link"))
    bridge._events.put(CommandRefused("the bench refused SOUR:PRES 99"))
    bridge.drain()
    assert not bridge.connected
    assert states[-1] == "the bench closed the link"
    assert refusals == ["the bench refused SOUR:PRES 99"]  # said, and never the bench's state
    bridge.drain()
    assert len(states) == 2  # nothing new, nothing told


def test_bridge_without_a_bench_does_nothing(styled: QApplication) -> None:
    bridge = BenchBridge()
    bridge.send(lambda b: b.remount())
    bridge.disconnect_bench()
    assert not bridge.active
    assert "type what you read" in bridge.sentence


def test_finder_ranks_names_first() -> None:
    entries = [
        Found("Air density", "calculator", "flow weather", lambda: None),
        Found("2 Flow", "command", "View", lambda: None),
    ]
    assert [e.name for e in matching(entries, "flow")] == ["2 Flow", "Air density"]
    assert matching(entries, "flow weather") == [entries[0]]
    assert matching(entries, "") == entries
    assert matching(entries, "zzz") == []


@pytest.mark.parametrize(
    ("symbol", "us", "metric"),
    [
        ("in", "in", "mm"),
        ("mm", "in", "mm"),
        ("cfm", "cfm", "l/s"),
        ("hPa", "hPa", "hPa"),
        ("ft/s", "ft/s", "m/s"),
        ("-", "-", "-"),
    ],
)
def test_reckoner_follows_the_units_of_the_screen(symbol: str, us: str, metric: str) -> None:
    assert shown_unit(symbol, US) == us
    assert shown_unit(symbol, METRIC) == metric


def test_a_planner_knows_what_it_calculated_of_the_same_thing(qtbot) -> None:  # type: ignore[no-untyped-def]
    made: list[int] = []
    answers: list[object] = []
    planner = Planner()
    planner.planned.connect(answers.append)

    def make() -> object:
        made.append(1)
        return len(made)

    head, other = object(), object()
    asked = ((head, "as cast"), (head, "as cast"), (head, "cut 1"), (other, "cut 1"), (head, "cut 1"), (head, None))
    for about, of in asked:
        planner.ask(make, about, of)
        qtbot.waitUntil(lambda: not planner.busy)
    planner.close()
    assert answers == [1, 1, 2, 3, 4, 5], "of one head at a time"

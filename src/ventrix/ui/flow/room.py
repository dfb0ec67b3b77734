"""The Flow room: the bench at arm's length. One phase at a time, one huge line."""

from __future__ import annotations

from dataclasses import replace

from PySide6.QtCore import QSize, Qt, QTimer
from PySide6.QtGui import QHideEvent, QKeyEvent, QShowEvent
from PySide6.QtWidgets import (
    QApplication,
    QBoxLayout,
    QHBoxLayout,
    QLabel,
    QLineEdit,
    QPushButton,
    QStackedWidget,
    QTabWidget,
    QVBoxLayout,
    QWidget,
)

from ventrix.core.judging.checks import CheckKind, Offer
from ventrix.core.model.bench import Bench, is_index
from ventrix.core.model.kinds import StepKind
from ventrix.core.model.run import FlowRun, Reading, SetUp
from ventrix.core.model.school_questions import pipe_against_school
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.words import sentence
from ventrix.records.bad_input import sentence_of
from ventrix.rooms.flow.at_bench import other_bench, use_connected
from ventrix.rooms.flow.element_in_hand import label_typed
from ventrix.rooms.flow.odd_at_bench import plate_words, stale_air
from ventrix.rooms.flow.paste import keep_pasted
from ventrix.rooms.flow.run_in_hand import RunInHand
from ventrix.rooms.flow.shows import far_view, growing_curve, ladder_rungs, step_lines, step_view, target_lines
from ventrix.rooms.shared.conditions_words import in_words
from ventrix.ui.flow.conditions_panel import ConditionsPanel
from ventrix.ui.flow.control import PRACTICE, FlowControl
from ventrix.ui.flow.far_view import FarView
from ventrix.ui.flow.keys import FlowKeys, flow_commands
from ventrix.ui.flow.ladder import LiftLadder
from ventrix.ui.flow.reading_distance import ReadingDistance
from ventrix.ui.flow.readings_page import ReadingsPage
from ventrix.ui.flow.simulator_panel import SimulatorControl
from ventrix.ui.flow.step_strip import StepStrip
from ventrix.ui.open_book import OpenBook
from ventrix.ui.places import kept_number
from ventrix.ui.widgets.action_bar import ActionBar
from ventrix.ui.widgets.asked_first import AskedFirst
from ventrix.ui.widgets.pedal import DEFAULT_KEY, Pedal
from ventrix.ui.widgets.plot import Plot
from ventrix.ui.widgets.room import QWIDGETSIZE_MAX, Room
from ventrix.ui.widgets.scroll_area import ScrollArea
from ventrix.workspace.workspace import Workspace

CAUTION = (
    "Hearing protection on. Head and springs secured before the valve is opened. "
    "Blower and hot motor: hands and sleeves away, let it cool. "
    "Start on the largest range: a small one with the valve wide open spills the gauge."
)


LEFT, SIDE = 252, 372  # px, of the outer columns
TABS = 240  # px of height, of the one under the far view
WIDE = 1090  # px: below, the outer columns share one
STACKED = 780  # px: below, that one stands under the far view
BY_EYE = "my bench"  # as it is called by who has one, reads it and types


class FlowRoom(Room):
    """Steps and ladder, the far view, and the growing curve; keyboard first."""

    name = "Flow"
    manual = "flow"
    has_far_view = True

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.control = FlowControl(open_book)
        self.hand = self.control.hand
        self.ghost = True
        self._distance: ReadingDistance | None = None
        self._pasted = ""
        self._narrow = False
        self.strip = StepStrip()
        self.strip.step_chosen.connect(lambda i: self.control.go_to_step(self.hand.preparation.steps[i]))
        self.ladder = LiftLadder()
        self.ladder.rung_chosen.connect(self.control.stand_on)
        self.far = FarView()
        self.far.least = kept_number(open_book.settings, "far_px", 48)
        self.entry = QLineEdit()
        self.entry.setAccessibleName("Reading typed by hand")
        self.entry.textChanged.connect(self.control.begin_typing)
        self.entry.returnPressed.connect(lambda: self.control.type_in(self.entry.text()))
        self._entry_error = QLabel()
        self._entry_error.setObjectName("error")
        self._entry_error.setWordWrap(True)
        self.plot = Plot("Flow against lift, growing over the pinned cut")
        self._plot_caption = QLabel()
        self._plot_caption.setObjectName("caption")
        self.lines = QLabel()
        self.lines.setWordWrap(True)
        self.lines.setObjectName("quiet")
        self.caution = QLabel(CAUTION)
        self.caution.setObjectName("caption")
        self.caution.setWordWrap(True)
        self.simulator = SimulatorControl()
        self.conditions = ConditionsPanel(open_book.units)
        self.asked_first = AskedFirst(open_book.units, open_book.settings)
        self.readings = ReadingsPage()
        self.question = QWidget()
        self._question_words = QLabel()
        self._question_words.setWordWrap(True)
        self.pedal = Pedal(self._pedal_listens, self)
        self.pedal.use(str(open_book.settings.value("pedal", DEFAULT_KEY)))
        self.commands = flow_commands(self)
        self.keys = FlowKeys(self)
        self._behind = QTimer(self, interval=0, singleShot=True)
        self._connect()
        self._lay_out()

    def _connect(self) -> None:
        control, bench = self.control, self.open_book.bench
        control.redraw.connect(self._show_all)
        self._behind.timeout.connect(self._show_curve)
        control.far.connect(self._show_far)
        control.cleared.connect(self._typed)
        control.refused_text.connect(self.entry.selectAll)
        self.readings.struck.connect(control.strike_reading)
        self.readings.taken_up.connect(control.take_up)
        self.readings.lifted.connect(lambda *asked: self.readings.say(control.set_lift_right(*asked)))
        self.readings.closed.connect(self.toggle_readings)
        bench.silenced.connect(self._silenced)
        self.pedal.pressed.connect(control.keep)
        self.pedal.held.connect(control.hold)
        self.pedal.doubled.connect(control.insist)
        self.simulator.lift_set.connect(lambda lift: bench.send(lambda b: b.set_lift(lift)))
        self.simulator.to_rung.clicked.connect(self.open_to_rung)
        self.simulator.blower.clicked.connect(self.toggle_blower)
        self.simulator.remounted.connect(self.remount)
        self.simulator.lie_told.connect(lambda lie, on: bench.send(lambda b: b.tell(lie, on)))
        self.conditions.changed.connect(self._use_setup)
        self.asked_first.changed.connect(self._answer_first)
        self.conditions.bench_chosen.connect(self._use_bench)
        self.conditions.plan_changed.connect(self._use_plan)
        self.conditions.closed.connect(self.toggle_conditions)
        bench.sampled.connect(self._sampled)
        bench.state_changed.connect(self._bench_changed)

    def _lay_out(self) -> None:
        ladder_scroll = ScrollArea()
        ladder_scroll.setWidget(self.ladder)
        ladder_scroll.setWidgetResizable(True)
        ladder_scroll.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self._left = QWidget()
        self._left.setFixedWidth(LEFT)
        steps = QVBoxLayout(self._left)
        steps.setContentsMargins(0, 0, 0, 0)
        steps.setSpacing(4)
        steps.addWidget(self.strip)
        steps.addWidget(ladder_scroll, 1)
        self._entry_row = QWidget()
        entry_row = QHBoxLayout(self._entry_row)
        entry_row.setContentsMargins(0, 0, 0, 0)
        self._entry_caption = QLabel()
        self._entry_caption.setObjectName("quiet")
        self.entry.setFixedWidth(140)
        entry_row.addWidget(self._entry_caption)
        entry_row.addWidget(self.entry)
        entry_row.addWidget(self._entry_error, 1)
        self.yes, self.no = QPushButton(), QPushButton()
        self.yes.clicked.connect(lambda: self.answer(True))
        self.no.clicked.connect(lambda: self.answer(False))
        asked = QHBoxLayout(self.question)
        asked.setContentsMargins(0, 0, 0, 0)
        asked.addWidget(self._question_words, 1)
        asked.addWidget(self.yes)
        asked.addWidget(self.no)
        self.question.hide()
        middle = QVBoxLayout()
        middle.addWidget(self.question)
        middle.addWidget(self.asked_first)
        middle.addWidget(self.far, 1)
        middle.addWidget(self._entry_row)
        curve = QWidget()
        right = QVBoxLayout(curve)
        right.setContentsMargins(0, 0, 0, 0)
        right.setSpacing(6)
        right.addWidget(self._plot_caption)
        right.addWidget(self.plot, 1)
        right.addWidget(self.lines)
        self.bar = ActionBar()
        self.bar.show_actions(self.commands)
        right.addWidget(self.bar)
        right.addWidget(self.simulator)
        right.addWidget(self.caution)
        self.side = QStackedWidget()
        self.side.addWidget(curve)
        self.side.addWidget(self.conditions)
        self.side.addWidget(self.readings)
        self.side.setFixedWidth(SIDE)
        self._tabs = QTabWidget()
        self._tabs.setDocumentMode(True)
        self._tabs.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self._tabs.tabBar().setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self._tabs.setFixedWidth(SIDE)
        self._tabs.hide()
        self._row = QHBoxLayout(self)
        self._row.setContentsMargins(16, 10, 16, 10)
        self._row.setSpacing(20)
        self._row.addWidget(self._tabs)
        self._row.addWidget(self._left)
        self._row.addLayout(middle, 1)
        self._row.addWidget(self.side)

    def fit(self, there: QSize) -> None:
        """In a small window the curve, the conditions and the readings share a column with the lifts."""
        narrow, stacked = there.width() < WIDE, there.width() < STACKED
        self.folds = stacked
        self._row.setDirection(QBoxLayout.Direction.BottomToTop if stacked else QBoxLayout.Direction.LeftToRight)
        self._tabs.setMinimumWidth(0 if stacked else SIDE)
        self._tabs.setMaximumWidth(QWIDGETSIZE_MAX if stacked else SIDE)
        self._tabs.setMinimumHeight(TABS if stacked else 0)
        if narrow == self._narrow:
            return
        self._narrow = narrow
        if narrow:
            self._tabs.addTab(self._left, "Lifts")
            self._tabs.addTab(self.side, "Curve and keys")
            self._left.setFixedWidth(SIDE)
        else:
            self._left.setFixedWidth(LEFT)
            self._row.insertWidget(1, self._left)
            self._row.addWidget(self.side)
            for part in (self._left, self.side):
                part.setVisible(not self.far.alone)
        self._tabs.setVisible(narrow and not self.far.alone)

    def _turn_side(self, page: int) -> None:
        """Show a page of the third column, or its curve where that page stood already."""
        self.side.setCurrentIndex(0 if self.side.currentIndex() == page else page)
        if self._narrow:
            self._tabs.setCurrentIndex(1 if self.side.currentIndex() else 0)

    # -- showing

    def refresh(self) -> None:
        """Take the job and selection as they are now."""
        space = self.open_book.workspace
        self.setEnabled(space is not None and space.cut is not None)
        if space is None or space.cut is None:
            return
        self.hand.follow()
        self.control.follow()
        self._fit_simulator()
        self.simulator.use(self.open_book.units)
        self._show_all()

    def _show_all(self) -> None:
        space = self.open_book.workspace
        if space is None or space.cut is None:
            return
        self._ask()
        units, hand = self.open_book.units, self.hand
        shown, at = ladder_rungs(hand, hand.pair(), units)
        against = f"against cut {space.against.number}" if space.against else ""
        flow = "index" if is_index(hand.element.kind) else units.flow.label
        self.ladder.show_rungs(
            shown, None if self.control.preparing else at, (f"lift, {units.lift.label}", flow, against)
        )
        begun = bool(hand.run and hand.run.readings) or self.far.alone or self.open_book.practice is not None
        self.asked_first.show_setup(hand.setup, units, begun=begun)
        self.strip.show_steps(*step_lines(hand, units, preparing=self.control.preparing))
        said = [
            in_words(hand.setup, hand.mount, units),
            _in_sight_words(hand),
            hand.differs(units) or ("same set-up as the pinned cut" if hand.pinned_setup else ""),
            plate_words(hand, units),
            stale_air(hand, self.control.temperature),
            *target_lines(hand, units),
        ]
        self.lines.setText("\n".join(line for line in said if line))
        self.simulator.setVisible(self.open_book.bench.is_simulated)
        if self.side.currentIndex() == 1:
            self._show_conditions()
        elif self.side.currentIndex() == 2:
            self.readings.show_run(hand.in_sight, self._reading_text, units)
        self._show_far()
        self.bar.follow()
        self._behind.start()

    def _show_curve(self) -> None:
        """The curve follows the ladder: nobody waits for it with a hand on the valve."""
        space = self.open_book.workspace
        if space is None or space.cut is None or space.port is None:
            return
        units, hand = self.open_book.units, self.hand
        picture, caption = growing_curve(hand, units, ghost=self.ghost)
        self.plot.show_picture(picture)
        self._plot_caption.setText(caption)

    def _show_conditions(self) -> None:
        space = self.open_book.workspace
        assert space is not None
        hand = self.hand
        self.conditions.show_setup(hand.setup, hand.pinned_setup, self.open_book.units)
        self.conditions.show_benches(space.benches, hand.setup.bench)
        diameter = hand.valve_diameter
        self.conditions.show_plan(hand.lifts, self.open_book.units, come_back=hand.come_back, valve_diameter=diameter)
        witness = space.runs.witness_run(hand.setup)
        pipe = pipe_against_school(space.job, hand.setup.direction, hand.setup.pipe)
        self.conditions.show_notes([stale_air(hand, self.control.temperature), _witness_words(space, witness), pipe])

    def _show_far(self) -> None:
        units, control = self.open_book.units, self.control
        connected = self.open_book.bench.connected
        view = step_view(self.hand, connected, units) if control.preparing else far_view(self.hand, connected, units)
        if control.ground:
            view = replace(view, ground=control.ground, phase=control.words, sentence="")
            if control.step_kept is not None:  # one figure on the screen: the step's that was taken
                figure, unit = control.step_kept
                then = view.sentence if control.ground == "odd" else ""
                view = replace(view, flow=figure, flow_unit=unit, sentence=then, tape=None, steady=None, spread="")
                view = replace(view, lift="", lift_caption="", next_lift="", difference="", difference_words="")
            elif control.kept is not None and not connected:
                lift, flow = control.kept  # typed: the ladder has moved on, the screen stays with what was kept
                view = replace(view, lift=lift, flow=flow, next_lift=f"next {view.lift}" if view.lift else "")
        self.far.show_far(view)
        self._entry_error.setText(control.problem)
        self._entry_caption.setText(self._entry_words())
        self.entry.setVisible(self.open_book.practice is None)  # what nobody measures is not typed either

    def _entry_words(self) -> str:
        units, kind = self.open_book.units, self.hand.element.kind
        if self.open_book.practice is not None:
            return "" if self.open_book.bench.connected else PRACTICE
        if self.control.asking_why:
            return "why is it skipped?"
        label = f"two columns, {units.pressure.label}" if kind == "columns" else label_typed(kind, units)
        rung = None if self.control.preparing else self.control.rung_typed
        at = "" if rung is None else f" at {units.lift.with_unit(rung.lift)}"
        if self.open_book.bench.connected:
            return f"or type a reading{at}, {label}"
        if kind == "columns":
            return f"{at.strip()}: {label}" if at else label
        top = self.hand.element.full_scale
        parts = [self.hand.setup.bench or "bench not named"]
        if top is not None:
            parts.append(f"range to {units.flow.text(top)}")
        if at:
            parts.append(at.strip())
        return f"{', '.join(parts)}: type {label}"

    def _sampled(self, samples: list[object]) -> None:
        if self.open_book.workspace is None or not self.isVisible():
            return
        self.control.take_in(samples)  # type: ignore[arg-type]
        live = self.hand.test.live
        self.open_book.bench.tell_flow(None if live is None else self.hand.element.as_reported(*live))

    def _typed(self) -> None:
        """A typed figure was taken: the keys are the room's again; the next digit goes to the entry by itself."""
        self.entry.clear()
        if self.entry.hasFocus():
            self.setFocus()

    def _silenced(self) -> None:
        """Nothing that the bench said before can be kept."""
        self.hand.test.lose()
        if self.isVisible() and self.open_book.workspace is not None:
            self._show_far()

    def _reading_text(self, reading: Reading) -> str:
        kind = self.hand.element.kind
        figure = {
            "percent": reading.percent,
            "orifice": reading.element_pressure,
            "mass": reading.mass_flow,
            "columns": reading.element_column,
            "column": reading.port_column,
        }.get(kind, reading.flow)
        at = reading.port_column if kind == "columns" else reading.measured_pressure
        return "–" if figure is None else self.control.flow_text(figure, at)

    def _ask(self) -> None:
        """What has to be answered: which bench, where one that is not the set-up's is connected (nothing is kept before
        that is said); whether the first leak of this bench is off its readout already; or, once all lifts are done, the
        check that the gain hangs on."""
        there = self.open_book.workspace is not None
        words = self.control.which_bench = other_bench(self.hand, self.open_book.bench) if there else ""
        self.control.asks_leak = there and not words and self.hand.asks_leak()
        yes, no = "It is the set-up's (Y)", "Flow on the one connected (N)"
        if self.control.asks_leak:
            leak = self.open_book.units.flow.with_unit(self.hand.setup.leak)
            words = f"The leak is {leak}. Does your readout already take it off?"
            yes, no = "Yes, it is off already (Y)", "No, take it off (N)"
        offer = self.hand.check_offer() if there and not words and self.hand.test.lift is None else None
        if offer is not None:
            words, yes, no = (
                "Every lift is done. What is seen is so small that a check settles it.",
                f"{offer.words} (K)",
                "",
            )
        self._question_words.setText(words)
        self.yes.setText(yes)
        self.no.setText(no)
        self.no.setVisible(bool(no))
        self.question.setVisible(bool(words) and not self.far.alone)

    def answer(self, yes: bool) -> None:
        """Yes or no to what is asked; yes to a check begins it."""
        if self.control.which_bench:
            self.answer_bench(yes)
        elif self.control.asks_leak:
            self.hand.answer_leak(yes)
            self._show_all()
            self.setFocus()
        else:
            self.begin_check()

    def answer_bench(self, of_setup: bool) -> None:
        """Which bench the readings are of: the set-up's, read as its record says; or the one connected."""
        bench, hand = self.open_book.bench, self.hand
        if of_setup and hand.bench is not None:
            bench.answers_for = hand.bench.name
            if bench.is_simulated:
                bench.connect_simulated(element=hand.bench.element, name=hand.bench.name)
        else:
            use_connected(hand, bench)
        self._show_all()
        self.setFocus()

    def take_bench(self, bench: Bench, *, just_made: bool = False) -> None:
        """The set-up's bench from now on; one that was just made only where there was none and nothing was flowed."""
        if self.open_book.workspace is not None and self.open_book.workspace.cut is not None:
            self.hand.follow()
            if not just_made or (self.hand.bench is None and self.hand.run is None):
                self.hand.use_bench(bench)

    def type_readings(self) -> None:
        """A new job of who reads a bench and types: it has a name all the same, as it is the same next time."""
        self.hand.follow()
        if self.hand.setup.bench is None and self.hand.run is None:
            self.hand.use_setup(replace(self.hand.setup, bench=BY_EYE))
            self._show_all()

    def begin_check(self, offer: Offer | None = None) -> None:
        """Flow what shows whether the bench changed: the witness port, or the plate among the steps."""
        self.hand.follow()
        offer = offer or self.hand.check_offer()
        if offer is None:
            self.open_book.say("No check hangs on this run.")
            return
        self.hand.begin_check(offer)
        if offer.kind is CheckKind.PLATE:
            self.control.go_to_step(StepKind.PLATE)
        else:
            self.control.clear_ground()
            self.open_book.say("The witness port, under the same conditions: what it reads now settles the gain.")
        self._show_all()

    def toggle_readings(self) -> None:
        """Every reading of the run, to strike or take up; or the curve again."""
        self._turn_side(2)
        self._show_all()
        if self.side.currentIndex() == 2:
            self.readings.list.setFocus()
        else:
            self.setFocus()

    def _bench_changed(self) -> None:
        bench = self.open_book.bench
        self._ask()
        if bench.is_simulated and bench.connected:
            self._fit_simulator()
            bench.send(lambda b: b.set_pressure(0.0))
            self.control.blower = False
        self._name_blower()
        if self.isVisible():
            self._show_all()

    def _fit_simulator(self) -> None:
        """Put the port and cut looked at on the simulated bench."""
        space, bench = self.open_book.workspace, self.open_book.bench
        if space is None or space.port is None or space.cut is None or not bench.is_simulated:
            return
        kind, number = space.port.kind, space.cut.number
        bench.send(lambda b: b.fit(kind, number))

    def come_in(self, what: object) -> None:
        """For a check that was offered."""
        if isinstance(what, Offer):
            self.begin_check(what)

    def step_back(self, over: QWidget) -> None:
        """Step back until you can just read this."""
        if self._distance is None:
            self._distance = ReadingDistance()
            self._distance.taken.connect(self._use_far_size)
            self._distance.closed.connect(self.setFocus)
        self._distance.open(over, self.far.least)

    def _use_far_size(self, px: float) -> None:
        self.far.least = px
        self.open_book.settings.setValue("far_px", px)
        self.show_alone(True)

    def show_alone(self, alone: bool) -> None:
        """Give the far view the room to itself, nothing in it small; or bring the rest back."""
        self.alone = self.far.alone = alone
        for part in (self._tabs,) if self._narrow else (self._left, self.side):
            part.setVisible(not alone)
        self._entry_row.setVisible(not alone)
        self._show_all()  # what is asked first is not asked from two metres
        self.far.update()
        self.setFocus()
        self.ways.far_shown.emit(alone)

    # -- what the hands and keys do

    def toggle_ghost(self) -> None:
        self.ghost = not self.ghost
        self._show_all()

    def toggle_conditions(self) -> None:
        self._turn_side(1)
        self._show_all()
        if self.side.currentIndex() == 0:
            self.setFocus()

    def remount(self) -> None:
        """The head came off and is bolted down again: readings from now on are of a new mount."""
        self.hand.remount()
        if self.open_book.bench.is_simulated:
            self.open_book.bench.send(lambda b: b.remount())
        self.open_book.say(f"Head re-mounted: mount {self.hand.mount}.")
        self._show_all()

    def open_to_rung(self) -> None:
        """Move the simulated valve opener to where the hands would set it."""
        lift = self.control.lift_wanted()
        if lift is not None and self.open_book.bench.is_simulated:
            self.simulator.open_to(lift)

    def toggle_blower(self) -> None:
        self.control.set_blower(not self.control.blower)
        self._name_blower()

    def _name_blower(self) -> None:
        self.simulator.blower.setText("Blower off (B)" if self.control.blower else "Blower on (B)")

    def _answer_first(self, setup: object) -> None:
        self._use_setup(setup)
        self.setFocus()

    def _use_setup(self, setup: object) -> None:
        assert isinstance(setup, SetUp)
        self.hand.use_setup(setup)
        self.asked_first.remember(setup)
        self._show_all()

    def _use_bench(self, bench: object) -> None:
        self.hand.use_bench(bench)  # type: ignore[arg-type]
        try:
            self.open_book.bench.connect_bench(bench)  # type: ignore[arg-type]
        except Refused as error:
            self.open_book.say(sentence(str(error)))
        self._show_all()

    def _use_plan(self, lifts: object, come_back: bool) -> None:
        self.hand.use_plan(lifts, come_back=come_back)  # type: ignore[arg-type]
        self._show_all()

    def paste(self) -> None:
        """Keep a table of lifts and readings from the clipboard."""
        try:
            text = QApplication.clipboard().text()
            sure, self._pasted = text == self._pasted, text
            said = keep_pasted(self.hand, text, self.open_book.units, sure=sure)
        except Refused as error:
            self.control.refuse(sentence_of(error))
            return
        self._pasted = ""
        self.open_book.say(said)

    def showEvent(self, event: QShowEvent) -> None:
        super().showEvent(event)
        self.pedal.watch(True)

    def hideEvent(self, event: QHideEvent) -> None:
        self.pedal.watch(False)
        super().hideEvent(event)

    def _pedal_listens(self) -> bool:
        window = self.window()
        return (
            self.isVisible()
            and self.isEnabled()
            and window.isActiveWindow()
            and QApplication.activeModalWidget() is None
        )

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.isAutoRepeat() or not self.keys.press(event):
            super().keyPressEvent(event)

    def step_away(self) -> bool:
        """Esc: out of the far view, the conditions, or the preparation, in that order."""
        if self.far.alone:
            self.show_alone(False)
        elif self.side.currentIndex() == 1:
            self.toggle_conditions()
        elif self.side.currentIndex() == 2:
            self.toggle_readings()
        elif self.control.preparing:
            self.control.toggle_preparing()
        else:
            return False
        return True


def _in_sight_words(hand: RunInHand) -> str:
    """That the run shown is not the one that the next reading goes to; nothing where it is."""
    shown = hand.in_sight
    if shown is None or hand.run is not None:
        return ""
    setup = hand.space.job.setup(shown.setup_id)
    where = f" on {setup.bench}" if setup.bench else ""
    return f"Shown is the run of {str(shown.date)[:10]}{where}; the next reading begins a new one."


def _witness_words(space: Workspace, run: FlowRun | None) -> str:
    if not any(p.witness for p in space.job.ports) or (space.port is not None and space.port.witness):
        return ""
    if run is None:
        return "The witness port has not been flowed at this setting-up of the bench."
    return f"Witness port flowed {str(run.date)[11:16]}: this run will name it."

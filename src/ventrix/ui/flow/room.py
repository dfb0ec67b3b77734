"""The Flow room: the bench at arm's length. One phase at a time, one huge line."""

from __future__ import annotations

from dataclasses import replace

from PySide6.QtCore import QSize, Qt, QTimer
from PySide6.QtGui import QHideEvent, QKeyEvent, QShowEvent
from PySide6.QtWidgets import QApplication, QVBoxLayout, QWidget

from ventrix.core.judging.checks import CheckKind, Offer
from ventrix.core.model.bench import Bench, is_index
from ventrix.core.model.kinds import StepKind
from ventrix.core.model.run import SetUp
from ventrix.core.model.school_questions import pipe_against_school
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.words import sentence
from ventrix.records.bad_input import sentence_of
from ventrix.rooms.flow.odd_at_bench import in_sight_words, plate_words, stale_air, witness_words
from ventrix.rooms.flow.paste import keep_pasted
from ventrix.rooms.flow.shows import growing_curve, ladder_rungs, step_lines, target_lines
from ventrix.rooms.shared.conditions_words import in_words
from ventrix.ui.flow.bench_question import BenchQuestion
from ventrix.ui.flow.columns import FlowColumns
from ventrix.ui.flow.control import FlowControl
from ventrix.ui.flow.control_shows import far_picture
from ventrix.ui.flow.entry_row import EntryRow
from ventrix.ui.flow.far_view import FarView
from ventrix.ui.flow.keys import FlowKeys, flow_commands
from ventrix.ui.flow.ladder import LiftLadder
from ventrix.ui.flow.reading_distance import ReadingDistance
from ventrix.ui.flow.side_column import CONDITIONS, CURVE, READINGS, SideColumn
from ventrix.ui.flow.simulated_hands import SimulatedHands
from ventrix.ui.flow.step_strip import StepStrip
from ventrix.ui.open_book import OpenBook
from ventrix.ui.places import kept_number
from ventrix.ui.widgets.asked_first import AskedFirst
from ventrix.ui.widgets.pedal import DEFAULT_KEY, Pedal
from ventrix.ui.widgets.room import Room
from ventrix.words import tr

BY_EYE = tr("my bench")  # as it is called by who has one, reads it and types


class FlowRoom(Room):
    """Steps and ladder, the far view, and the growing curve; keyboard first."""

    name = tr("Flow")
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
        self.strip = StepStrip()
        self.strip.step_chosen.connect(lambda i: self.control.steps.go_to(self.hand.preparation.steps[i]))
        self.ladder = LiftLadder()
        self.ladder.rung_chosen.connect(self.control.stand_on)
        self.far = FarView()
        self.far.least = kept_number(open_book.settings, "far_px", 48)
        self.entry_row = EntryRow(open_book, self.control)
        self.entry = self.entry_row.entry
        self.side = SideColumn(open_book, self.control)
        self.plot, self.lines, self.bar = self.side.plot, self.side.lines, self.side.bar
        self.simulator, self.conditions, self.readings = self.side.simulator, self.side.conditions, self.side.readings
        self.hands = SimulatedHands(open_book, self.control, self.simulator)
        self.asked_first = AskedFirst(open_book.units, open_book.settings)
        self.question = BenchQuestion(open_book, self.control)
        self.pedal = Pedal(self._pedal_listens, self)
        self.pedal.use(str(open_book.settings.value("pedal", DEFAULT_KEY)))
        self.commands = flow_commands(self)
        self.keys = FlowKeys(self)
        self._behind = QTimer(self, interval=0, singleShot=True)
        self.side.show_actions(self.commands)
        middle = QVBoxLayout()
        for widget, share in ((self.question, 0), (self.asked_first, 0), (self.far, 1), (self.entry_row, 0)):
            middle.addWidget(widget, share)
        self.columns = FlowColumns(self.strip, self.ladder, middle, self.side)
        self.setLayout(self.columns)
        self._connect()

    def _connect(self) -> None:
        control, bench = self.control, self.open_book.bench
        control.redraw.connect(self._show_all)
        self._behind.timeout.connect(self._show_curve)
        control.far.connect(self._show_far)
        control.cleared.connect(self._typed)
        self.question.answered.connect(self._answered)
        self.question.check_wanted.connect(self.begin_check)
        self.readings.closed.connect(self.toggle_readings)
        bench.silenced.connect(self._silenced)
        self.pedal.pressed.connect(control.keep)
        self.pedal.held.connect(control.hold)
        self.pedal.doubled.connect(control.insist)
        self.simulator.remounted.connect(self.remount)
        self.conditions.changed.connect(self._use_setup)
        self.asked_first.changed.connect(self._answer_first)
        self.conditions.bench_chosen.connect(self._use_bench)
        self.conditions.plan_changed.connect(self._use_plan)
        self.conditions.closed.connect(self.toggle_conditions)
        bench.sampled.connect(self._sampled)
        bench.state_changed.connect(self._bench_changed)

    def fit(self, there: QSize) -> None:
        self.folds = self.columns.fit(there)

    # -- showing

    def refresh(self) -> None:
        """Take the job and selection as they are now."""
        space = self.open_book.workspace
        self.setEnabled(space is not None and space.cut is not None)
        if space is None or space.cut is None:
            return
        self.hand.follow()
        self.control.follow()
        self.hands.fit()
        self.simulator.use(self.open_book.units)
        self._show_all()

    def _show_all(self) -> None:
        space = self.open_book.workspace
        if space is None or space.cut is None:
            return
        self.question.ask(far=self.far.alone)
        units, hand = self.open_book.units, self.hand
        shown, at = ladder_rungs(hand, hand.pair(), units)
        against = tr("against cut {}", space.against.number) if space.against else ""
        flow = "index" if is_index(hand.element.kind) else units.flow.label
        self.ladder.show_rungs(
            shown, None if self.control.steps.on else at, (tr("lift, {}", units.lift.label), flow, against)
        )
        begun = bool(hand.run and hand.run.readings) or self.far.alone or self.open_book.practice is not None
        self.asked_first.show_setup(hand.setup, units, begun=begun)
        self.strip.show_steps(*step_lines(hand, units, preparing=self.control.steps.on))
        said = [
            in_words(hand.setup, hand.mount, units),
            in_sight_words(hand),
            hand.differs(units) or (tr("same set-up as the pinned cut") if hand.pinned_setup else ""),
            plate_words(hand, units),
            stale_air(hand, self.control.temperature),
            *target_lines(hand, units),
        ]
        self.lines.setText("\n".join(line for line in said if line))
        self.simulator.setVisible(self.open_book.bench.is_simulated)
        if self.side.currentIndex() == CONDITIONS:
            self._show_conditions()
        elif self.side.currentIndex() == READINGS:
            self.readings.show_run()
        self._show_far()
        self.bar.follow()
        self._behind.start()

    def _show_curve(self) -> None:
        """The curve follows the ladder: nobody waits for it with a hand on the valve."""
        space = self.open_book.workspace
        if space is None or space.cut is None or space.port is None:
            return
        units, hand = self.open_book.units, self.hand
        self.side.show_curve(*growing_curve(hand, units, ghost=self.ghost))

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
        self.conditions.show_notes([stale_air(hand, self.control.temperature), witness_words(space, witness), pipe])

    def _show_far(self) -> None:
        self.far.show_far(far_picture(self.control))
        self.entry_row.show_wanted()

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

    def answer(self, yes: bool) -> None:
        """Yes or no to what is asked."""
        self.question.answer(yes)

    def _answered(self) -> None:
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
            self.open_book.say(tr("No check was flowed with this run."))
            return
        self.hand.begin_check(offer)
        if offer.kind is CheckKind.PLATE:
            self.control.steps.go_to(StepKind.PLATE)
        else:
            self.control.ground.clear()
            self.open_book.say(tr("The witness port, under the same conditions: what it reads now settles the gain."))
        self._show_all()

    def toggle_readings(self) -> None:
        """Every reading of the run, to strike or take up; or the curve again."""
        self.columns.turn_side(READINGS)
        self._show_all()
        if self.side.currentIndex() == READINGS:
            self.readings.list.setFocus()
        else:
            self.setFocus()

    def _bench_changed(self) -> None:
        self.question.ask(far=self.far.alone)
        self.hands.follow_bench()
        if self.isVisible():
            self._show_all()

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
        self.columns.show_only_middle(alone)
        self.entry_row.setVisible(not alone)
        self._show_all()  # what is asked first is not asked from two metres
        self.far.update()
        self.setFocus()
        self.ways.far_shown.emit(alone)

    # -- what the hands and keys do

    def toggle_ghost(self) -> None:
        self.ghost = not self.ghost
        self._show_all()

    def toggle_conditions(self) -> None:
        self.columns.turn_side(CONDITIONS)
        self._show_all()
        if self.side.currentIndex() == CURVE:
            self.setFocus()

    def remount(self) -> None:
        """The head came off and is bolted down again: readings from now on are of a new mount."""
        self.hand.remount()
        self.hands.remount()
        self.open_book.say(tr("Head re-mounted: mount {}.", self.hand.mount))
        self._show_all()

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
        elif self.side.currentIndex() == CONDITIONS:
            self.toggle_conditions()
        elif self.side.currentIndex() == READINGS:
            self.toggle_readings()
        elif self.control.steps.on:
            self.control.steps.toggle()
        else:
            return False
        return True

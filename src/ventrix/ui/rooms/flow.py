"""The Flow room: the bench at arm's length. One phase at a time, one huge line."""

from __future__ import annotations

from dataclasses import replace

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import (
    QGridLayout,
    QHBoxLayout,
    QLabel,
    QLineEdit,
    QScrollArea,
    QStackedWidget,
    QVBoxLayout,
    QWidget,
)

from ventrix.bench.procedure import Kept, Refusal
from ventrix.core.units import parse_quantity
from ventrix.ui.parts.arms_length import ArmsLength
from ventrix.ui.parts.conditions import ConditionsPanel, in_words
from ventrix.ui.parts.ladder import LiftLadder
from ventrix.ui.parts.plot import LiftPlot
from ventrix.ui.parts.sim_control import SimulatorControl
from ventrix.ui.rooms.flow_test import RunInHand
from ventrix.ui.rooms.flow_views import far_view, growing_curve, rungs
from ventrix.ui.rooms.room import Room
from ventrix.ui.session import Session

KEYS = (
    ("Space", "keep"),
    ("Backspace", "strike the last"),
    ("R", "repeat this lift"),
    ("U", "keep as unsteady"),
    ("G", "hide or show the ghost"),
    ("C", "conditions"),
    ("M", "head re-mounted"),
    ("↑ ↓", "another rung"),
)


class FlowRoom(Room):
    """Ladder, the far view, and the growing curve; keyboard first."""

    name = "Flow"
    manual = "flow"

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.hand = RunInHand(session)
        self.ghost = True
        self._ground, self._words = "", ""
        self._kept: tuple[str, str] | None = None
        self.ladder = LiftLadder()
        self.ladder.rung_chosen.connect(self._stand_on)
        self.far = ArmsLength()
        self.entry = QLineEdit()
        self.entry.setAccessibleName("Reading typed by hand")
        self.entry.installEventFilter(self)
        self.entry.returnPressed.connect(self.keep_typed)
        self._entry_error = QLabel()
        self._entry_error.setObjectName("error")
        self.plot = LiftPlot("Flow against lift, growing over the pinned cut")
        self._plot_caption = QLabel()
        self._plot_caption.setObjectName("caption")
        self.lines = QLabel()
        self.lines.setWordWrap(True)
        self.lines.setObjectName("quiet")
        self.caution = QLabel("Hearing protection on. Head and springs secured before the valve is opened.")
        self.caution.setObjectName("caption")
        self.caution.setWordWrap(True)
        self.simulator = SimulatorControl()
        self.simulator.lift_set.connect(lambda lift: session.bench.send(lambda b: b.set_lift(lift)))
        self.simulator.to_rung.clicked.connect(self.open_to_rung)
        self.simulator.blower.clicked.connect(self.toggle_blower)
        self.simulator.remounted.connect(self.remount)
        self.conditions = ConditionsPanel(session.units)
        self.conditions.changed.connect(self._use_setup)
        self.conditions.closed.connect(self.toggle_conditions)
        self._blower = False
        self._lay_out()
        session.bench.sampled.connect(self._sampled)
        session.bench.state_changed.connect(self._bench_changed)

    def _lay_out(self) -> None:
        ladder_scroll = QScrollArea()
        ladder_scroll.setWidget(self.ladder)
        ladder_scroll.setWidgetResizable(True)
        ladder_scroll.setFixedWidth(252)
        ladder_scroll.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        entry_row = QHBoxLayout()
        self._entry_caption = QLabel("or type a reading")
        self._entry_caption.setObjectName("quiet")
        self.entry.setFixedWidth(120)
        entry_row.addWidget(self._entry_caption)
        entry_row.addWidget(self.entry)
        entry_row.addWidget(self._entry_error, 1)
        middle = QVBoxLayout()
        middle.addWidget(self.far, 1)
        middle.addLayout(entry_row)
        curve = QWidget()
        right = QVBoxLayout(curve)
        right.setContentsMargins(0, 0, 0, 0)
        right.setSpacing(6)
        right.addWidget(self._plot_caption)
        right.addWidget(self.plot, 1)
        right.addWidget(self.lines)
        right.addLayout(self._key_grid())
        right.addWidget(self.simulator)
        right.addWidget(self.caution)
        self.side = QStackedWidget()
        self.side.addWidget(curve)
        self.side.addWidget(self.conditions)
        self.side.setFixedWidth(372)
        row = QHBoxLayout(self)
        row.setContentsMargins(16, 10, 16, 10)
        row.setSpacing(20)
        row.addWidget(ladder_scroll)
        row.addLayout(middle, 1)
        row.addWidget(self.side)

    def _key_grid(self) -> QGridLayout:
        grid = QGridLayout()
        grid.setVerticalSpacing(2)
        half = (len(KEYS) + 1) // 2
        for i, (key, words) in enumerate(KEYS):
            button = QLabel(key)
            button.setStyleSheet("font-weight: 600")
            meaning = QLabel(words)
            meaning.setObjectName("quiet")
            grid.addWidget(button, i % half, (i // half) * 2)
            grid.addWidget(meaning, i % half, (i // half) * 2 + 1)
        grid.setColumnStretch(1, 1)
        grid.setColumnStretch(3, 1)
        return grid

    # -- showing

    def refresh(self) -> None:
        """Take the job and selection as they are now."""
        space = self.session.workspace
        self.setEnabled(space is not None and space.cut is not None)
        if space is None or space.cut is None:
            return
        self.hand.follow()
        self._fit_simulator()
        self.simulator.use(self.session.units)
        self._entry_caption.setText(f"or type a reading, {self.session.units.flow.label}")
        self._show_all()

    def _show_all(self) -> None:
        space = self.session.workspace
        if space is None or space.cut is None:
            return
        units = self.session.units
        pair = self.hand.pair()
        shown, at = rungs(self.hand, pair, units)
        against = f"against cut {space.against.number}" if space.against else ""
        self.ladder.show_rungs(shown, at, (f"lift, {units.lift.label}", units.flow.label, against))
        self._plot_caption.setText(growing_curve(self.plot, self.hand, pair, units, ghost=self.ghost))
        said = [
            in_words(self.hand.setup, self.hand.mount, units),
            self.hand.differs(units) or self.session.bench.sentence,
        ]
        self.lines.setText("\n".join(said))
        self.simulator.setVisible(self.session.bench.is_simulated)
        if self.side.currentIndex() == 1:
            self.conditions.show_setup(self.hand.setup, units, self.hand.differs(units))
        self._show_far()

    def _show_far(self) -> None:
        view = far_view(self.hand, self.session.bench.connected, self.session.units)
        if self._ground:
            view = replace(view, ground=self._ground, phase=self._words)
            if self._kept is not None and not self.session.bench.connected:
                lift, flow = self._kept  # typed: the ladder has moved on, the screen stays with what was kept
                view = replace(view, lift=lift, flow=flow, next_lift=f"next {view.lift}" if view.lift else "")
        self.far.show_far(view)

    def _sampled(self, samples: list[object]) -> None:
        if self.session.workspace is None or not self.isVisible():
            return
        before = self.hand.test.phase, self.hand.test.index
        for sample in samples:
            self.hand.test.feed(sample)  # type: ignore[arg-type]
        after = self.hand.test.phase, self.hand.test.index
        if after != before and self._ground == "kept":
            self._clear_ground()
        if after[1] != before[1]:
            self._show_all()
        else:
            self._show_far()

    def _bench_changed(self) -> None:
        if self.session.bench.is_simulated and self.session.bench.connected:
            self._fit_simulator()
            self.session.bench.send(lambda b: b.set_pressure(0.0))
            self._blower = False
        self._name_blower()
        if self.isVisible():
            self._show_all()

    def _fit_simulator(self) -> None:
        """Put the port and cut looked at on the simulated bench."""
        space, bench = self.session.workspace, self.session.bench
        if space is None or space.port is None or space.cut is None or not bench.is_simulated:
            return
        kind, number = space.port.kind, space.cut.number
        bench.send(lambda b: b.fit(kind, number))

    # -- the ground changes when something was kept or refused, and stays so

    def _set_ground(self, ground: str, words: str, kept: tuple[str, str] | None = None) -> None:
        self._ground, self._words, self._kept = ground, words, kept
        self._show_far()

    def _clear_ground(self) -> None:
        self._ground, self._words, self._kept = "", "", None
        self._show_far()

    # -- what the hands and keys do

    def keep(self, *, unsteady: bool = False) -> None:
        """Keep what the bench shows, or say why not."""
        if not self.session.bench.connected:
            self._refuse("No bench connected: type the reading, then Enter.")
            return
        self._settle(self.hand.test.keep(unsteady), self.session.bench.sentence)

    def keep_typed(self) -> None:
        """Keep the figure typed by hand at the rung asked for."""
        text = self.entry.text().strip()
        if not text:
            return
        try:
            flow = parse_quantity(text, self.session.units.flow.unit)
        except ValueError as error:
            self._entry_error.setText(f"{str(error)[0].upper()}{str(error)[1:]}.")
            return
        if self._settle(self.hand.test.keep_typed(flow), "typed"):
            self.entry.clear()
            self._entry_error.clear()

    def _settle(self, outcome: Kept | Refusal, source: str) -> bool:
        if isinstance(outcome, Refusal):
            self._refuse(outcome.sentence)
            return False
        units = self.session.units
        lift = units.lift.text(outcome.lift)
        self._set_ground("kept", f"KEPT {lift}", (lift, units.flow.text(outcome.flow)))
        self.hand.store(outcome, lift, source)
        return True

    def _refuse(self, sentence: str) -> None:
        self._entry_error.setText("")
        self._set_ground("refused", sentence)
        self.session.say(sentence)

    def strike(self) -> None:
        """Strike the last reading that counts; it stays, and its rung is open again."""
        if self.hand.strike_last() is None:
            self._refuse("There is no reading to strike.")
        else:
            self._clear_ground()

    def repeat(self) -> None:
        self.hand.test.ask_repeat()
        self._clear_ground()

    def toggle_ghost(self) -> None:
        self.ghost = not self.ghost
        self._show_all()

    def toggle_conditions(self) -> None:
        self.side.setCurrentIndex(1 - self.side.currentIndex())
        self._show_all()
        if self.side.currentIndex() == 0:
            self.setFocus()

    def remount(self) -> None:
        """The head came off and is bolted down again: readings from now on are of a new mount."""
        self.hand.remount()
        if self.session.bench.is_simulated:
            self.session.bench.send(lambda b: b.remount())
        self.session.say(f"Head re-mounted: mount {self.hand.mount}.")
        self._show_all()

    def open_to_rung(self) -> None:
        """Move the simulated valve opener to the rung asked for."""
        test = self.hand.test
        lift = test.next_lift if test.phase.name == "KEPT" and test.next_lift is not None else test.lift
        if lift is not None and self.session.bench.is_simulated:
            self.simulator.open_to(lift)

    def toggle_blower(self) -> None:
        pressure = 0.0 if self._blower else (self.hand.setup.test_pressure or 0.0)
        self._blower = not self._blower
        self.session.bench.send(lambda b: b.set_pressure(pressure))
        self._name_blower()

    def _name_blower(self) -> None:
        self.simulator.blower.setText("Blower off (B)" if self._blower else "Blower on (B)")

    def _stand_on(self, index: int) -> None:
        self.hand.test.go_to(index)
        self._clear_ground()
        self._show_all()

    def _use_setup(self, setup: object) -> None:
        self.hand.use_setup(setup)  # type: ignore[arg-type]
        self._show_all()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.isAutoRepeat() or not self._on_key(event):
            super().keyPressEvent(event)

    def _on_key(self, event: QKeyEvent) -> bool:
        if event.modifiers() & ~Qt.KeyboardModifier.KeypadModifier:
            return False
        if self._ground == "refused":
            self._clear_ground()
        key = event.key()
        plain = {
            Qt.Key.Key_Space: self.keep,
            Qt.Key.Key_Backspace: self.strike,
            Qt.Key.Key_R: self.repeat,
            Qt.Key.Key_U: lambda: self.keep(unsteady=True),
            Qt.Key.Key_G: self.toggle_ghost,
            Qt.Key.Key_C: self.toggle_conditions,
            Qt.Key.Key_M: self.remount,
            Qt.Key.Key_L: self.open_to_rung,
            Qt.Key.Key_B: self.toggle_blower,
            Qt.Key.Key_Up: lambda: self._stand_on(self.hand.test.index - 1),
            Qt.Key.Key_Down: lambda: self._stand_on(self.hand.test.index + 1),
        }.get(Qt.Key(key))
        if plain is not None:
            plain()
            return True
        if key == Qt.Key.Key_Escape and self.side.currentIndex() == 1:
            self.toggle_conditions()
            return True
        if event.text() and event.text() in "0123456789.,":
            self._clear_ground()
            self.entry.setFocus()
            self.entry.insert(event.text())
            return True
        return False

    def eventFilter(self, watched: object, event: object) -> bool:
        """With nothing typed, the entry passes the bench's keys on to the room."""
        if watched is self.entry and isinstance(event, QKeyEvent) and event.type() == QKeyEvent.Type.KeyPress:
            if event.key() == Qt.Key.Key_Escape:
                self.entry.clear()
                self._entry_error.clear()
                self.setFocus()
                return True
            bench_key = event.key() in (
                Qt.Key.Key_Space,
                Qt.Key.Key_Backspace,
                Qt.Key.Key_Up,
                Qt.Key.Key_Down,
            )
            if (bench_key or event.text().isalpha()) and not self.entry.text():
                return not event.isAutoRepeat() and self._on_key(event)
        return super().eventFilter(watched, event)  # type: ignore[arg-type]

"""What hands and keys do in the Flow room: keep, strike, repeat, note. Knows no layout."""

from __future__ import annotations

from typing import Final

from PySide6.QtCore import QObject, Signal

from ventrix.bench.drivers.sample import Sample
from ventrix.bench.procedure.flow_procedure import Kept, Phase, Refusal
from ventrix.bench.procedure.lift_plan import Rung
from ventrix.core.model.bench import is_index
from ventrix.core.model.kinds import RungNoteKind, StepKind
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.words import sentence
from ventrix.records.bad_input import BookError, sentence_of
from ventrix.rooms.flow.odd_at_bench import odd_reading
from ventrix.rooms.flow.run_in_hand import RunInHand
from ventrix.rooms.flow.typed_reading import TypedReading, asked_about, typed_pressure, typed_reading
from ventrix.ui.flow.far_ground import FarGround
from ventrix.ui.flow.preparing_steps import PreparingSteps
from ventrix.ui.open_book import OpenBook
from ventrix.words import tr

NOTES = {k.letter: k for k in RungNoteKind if k is not RungNoteKind.SKIPPED}
PEDAL_SKIP = tr("skipped at the bench")
AGAIN = tr("It stays in hand: press again to keep it.")

PRACTICE: Final = tr("F5 has it flowed for you, twelve lifts; Ctrl+B puts it on the bench to flow it live")


class FlowControl(QObject):
    """Holds the run in hand, the steps before it, and what the ground of the far view says.

    Signals: `redraw` when the book or the plan changed, `far` when only the far view did, `cleared`
    when a typed figure was taken, `refused_text` when it was not, `stepped` when the bench is wanted otherwise.
    """

    redraw = Signal()
    far = Signal()
    cleared = Signal()
    refused_text = Signal()
    stepped = Signal()

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__()
        self.open_book = open_book
        self.hand = RunInHand(open_book)
        self.ground = FarGround(self.hand)
        self.ground.changed.connect(self.far)
        self.steps = PreparingSteps(self)
        self._begun: tuple[str, Rung] | None = None  # cut and rung that what is being typed is of
        self.problem = ""
        self.temperature: float | None = None
        self.blower = False
        self._not_kept: dict[str, tuple[Kept, str]] = {}  # by cut: what the book did not take
        self.which_bench = ""
        self.asks_leak = False
        self._asked = ""

    def follow(self) -> None:
        """What is said belongs to one reading of one port and cut: anywhere else it is let go of."""
        if self.ground.kind and self.ground.is_of_elsewhere:
            self.ground.clear()
        if not self.ground.kind and self.in_hand is not None:
            outcome, _ = self.in_hand
            lift = self.open_book.units.lift.text(outcome.lift)
            self.ground.show("refused", f"NOT KEPT {lift}. {AGAIN}")

    def refuse(self, sentence: str) -> None:
        self.problem = ""
        self.ground.show("refused", sentence, refused_for=self._cause())
        self.open_book.say(sentence)

    def _cause(self) -> object:
        """What decides whether a reading or step can be taken now: a refusal stands while this stays as it is."""
        preparation, test = self.hand.preparation, self.hand.test
        if self.steps.on:
            return preparation.step, preparation.share >= 1, preparation.pressure_wanted
        return test.index, test.phase, test.out_of_breath

    @property
    def in_hand(self) -> tuple[Kept, str] | None:
        """What was read of the cut looked at, and not taken by the book."""
        cut = self.hand.space.cut
        return None if cut is None else self._not_kept.get(cut.id)

    def _hold(self, reading: tuple[Kept, str] | None) -> None:
        cut = self.hand.space.cut
        assert cut is not None
        self._not_kept.pop(cut.id, None)
        if reading is not None:
            self._not_kept[cut.id] = reading

    @property
    def rung_typed(self) -> Rung | None:
        """The rung that a typed figure is of: the one stood on when it was begun."""
        return self._rung_begun() or self.hand.test.rung

    def _rung_begun(self) -> Rung | None:
        """That rung, while the cut it is of is looked at."""
        cut = self.hand.space.cut
        return self._begun[1] if self._begun is not None and cut is not None and self._begun[0] == cut.id else None

    def begin_typing(self, text: str) -> None:
        """A figure is being typed: it is of the rung stood on at its first character."""
        cut, rung = self.hand.space.cut, self.hand.test.rung
        if not text:
            self._begun = None
        elif self._rung_begun() is None and not self.steps.on and cut is not None and rung is not None:
            self._begun = cut.id, rung
        self.far.emit()

    # -- live samples

    def take_in(self, samples: list[Sample]) -> None:
        """Feed what the bench said; redraws as much as changed."""
        test = self.hand.test
        before = test.phase, test.index
        for sample in samples:
            test.feed(sample)
            if self.steps.on:
                self.hand.preparation.feed(sample)
            if test.automatic and not self.steps.on and test.phase is Phase.KEEP:
                self.keep()
        self.temperature = samples[-1].temperature
        after = test.phase, test.index
        moved_on = self.ground.kind == "kept" and self.ground.step_kept is None and after != before
        cured = self.ground.kind == "refused" and self.ground.refused_for not in (None, self._cause())
        if moved_on or cured:
            self.ground.clear()
        if after[1] != before[1]:
            self.redraw.emit()
        else:
            self.far.emit()

    # -- keeping

    @property
    def source(self) -> str:
        return self.open_book.bench.sentence if self.open_book.bench.connected else "typed"

    def keep(self, *, unsteady: bool = False) -> None:
        """Keep what the bench shows, or say why not."""
        if self._offer_again():
            return
        if self.open_book.practice is not None and not self.open_book.bench.connected:
            self.refuse(f"{PRACTICE}.")
        elif self.which_bench:
            self.refuse(self.which_bench)
        elif not self.open_book.bench.connected:
            active = self.open_book.bench.active
            silent = sentence(self.open_book.bench.sentence)
            self.refuse(
                tr("{} Nothing can be kept.", silent)
                if active
                else tr("No bench connected: type the reading, then Enter.")
            )
        elif self.steps.on:
            self.steps.take(None)
        else:
            self._settle(self.hand.test.keep(unsteady), self.source)

    def insist(self) -> None:
        """The pedal's second press: repeat, keep as unsteady, or keep at the pressure there is."""
        if self._offer_again() or self.steps.on or self.which_bench or not self.open_book.bench.connected:
            return
        outcome = self.hand.test.insist()
        if outcome is None:
            self.open_book.say(tr("Once more at this lift: it counts as a repeat."))
            self.ground.clear()
            self.redraw.emit()
        else:
            self._settle(outcome, self.source)

    def hold(self) -> None:
        """The pedal held: strike the last reading; while preparing, skip the step."""
        if self.steps.on:
            self.steps.skip(PEDAL_SKIP)
        else:
            self.strike()

    def type_in(self, text: str) -> None:
        """Take a figure typed by hand: a reading at the rung asked for, a step's figure, or why it is skipped."""
        text = text.strip()
        if not text:
            return
        if self.steps.asking_why:
            self.steps.asking_why = False
            self.steps.skip(text)
            self.cleared.emit()
            return
        if self.in_hand is not None:
            self._offer_again()
            return
        try:
            typed = self._typed(text)
        except Refused as error:
            self.problem = sentence_of(error)
            self.refused_text.emit()
            self.far.emit()
            return
        rung = None if self.steps.on else self.rung_typed
        doubt = "" if rung is None else asked_about(self.hand, rung, typed, self.open_book.units)
        if doubt and self._asked != text:
            self._asked, self.problem = text, tr("{} Enter again keeps it.", doubt)
            self.refused_text.emit()
            self.far.emit()
            return
        self._asked = self.problem = ""
        if self.steps.on:
            if self.steps.take(typed.figure):
                self.cleared.emit()
        elif self._settle(self.hand.test.keep_typed(*typed, self._rung_begun()), "typed"):
            self._begun = None
            self.cleared.emit()

    def give_up_typing(self) -> None:
        """What was typed is let go of."""
        self.problem, self.steps.asking_why, self._begun = "", False, None
        self.far.emit()

    def _typed(self, text: str) -> TypedReading:
        units = self.open_book.units
        if self.steps.on and self.hand.preparation.step is StepKind.ZERO:
            return typed_pressure(text, units)
        return typed_reading(text, self.hand.element.kind, units, with_swirl=not self.steps.on)

    def _settle(self, outcome: Kept | Refusal, source: str) -> bool:
        """Store first, then mark, then show. What the book does not take stays in hand, and the plan stands still."""
        if isinstance(outcome, Refusal):
            self.refuse(outcome.sentence)
            return False
        lift = self.open_book.units.lift.text(outcome.lift)
        self.hand.test.storing(outcome)
        try:
            self.hand.store(outcome, lift, source)
        except BookError as error:
            self.hand.test.storing(None)
            self._hold((outcome, source))
            told = sentence_of(error)
            self.ground.show("refused", f"NOT KEPT {lift}. {told} {AGAIN}")
            self.open_book.not_kept(tr("{} is not kept. {} {}", lift, told, AGAIN))
            return False
        except Refused as error:
            self.hand.test.storing(None)
            self.refuse(sentence_of(error))
            return False
        self._hold(None)
        self.hand.test.mark(outcome)
        self.redraw.emit()
        self.ground.show("kept", f"KEPT {lift}", (lift, self.flow_text(outcome.flow, outcome.pressure)))
        odd = odd_reading(self.hand, outcome.lift)
        if odd:
            self.ground.show("odd", tr("KEPT {}, but {}", lift, odd), self.ground.kept)
            self.open_book.say(tr("{}: {}. R, or two presses, repeats it; nothing was dropped.", lift, odd))
        return True

    def _offer_again(self) -> bool:
        """A reading that the book did not take is offered again before anything else is kept."""
        if self.in_hand is None:
            return False
        if self._settle(*self.in_hand) and self.hand.test.last_kept is not None:
            self.cleared.emit()
        return True

    def flow_text(self, flow: float, pressure: float | None) -> str:
        """A figure of the element as the flow, or index, it means."""
        value = self.hand.element.as_reported(flow, pressure)
        if value is None:
            return "–"
        return f"{value:.4f}" if is_index(self.hand.element.kind) else self.open_book.units.flow.text(value)

    def strike(self) -> None:
        """Strike the last reading that counts; it stays, and its rung is open again."""
        if self.hand.strike_last() is None:
            self.refuse(tr("There is no reading to strike."))
        else:
            self.ground.clear()

    def repeat(self) -> None:
        """Once more at the rung just kept, typed or read."""
        if not self.hand.test.ask_repeat():
            self.refuse(tr("Nothing was kept yet that could be repeated."))
            return
        self.ground.clear()
        self.redraw.emit()

    def note(self, key: str) -> None:
        """Note what was heard or seen at this rung."""
        kind, lift = NOTES[key], self.hand.test.lift
        words = self.open_book.units.lift.text(lift) if lift is not None else ""
        if self.hand.note(kind, words):
            self.open_book.say(tr("Noted at {}: {}.", words, kind))
        else:
            self.open_book.say(
                tr("{} is noted at {} already.", kind.capitalize(), words) if words else tr("Choose a lift first.")
            )

    def toggle_automatic(self) -> None:
        """Keep by itself whenever a rung is steady, or wait for the key."""
        test = self.hand.test
        test.automatic = not test.automatic
        self.open_book.say(tr("Keeps by itself when steady.") if test.automatic else tr("Keeps when you press."))
        self.redraw.emit()

    def choose_range(self, by: int) -> None:
        """The next range of the bench up or down."""
        element = self.hand.element
        bench = self.hand.bench
        if bench is None or not bench.ranges or element.full_scale is None:
            self.open_book.say(tr("This bench has no ranges."))
            return
        number = bench.ranges.index(element.full_scale) + 1 + by
        if element.choose_range(number):
            if self.open_book.bench.is_simulated:
                self.open_book.bench.send(lambda b: b.choose_range(number))
            self.redraw.emit()

    def stand_on(self, index: int) -> None:
        self.hand.test.go_to(index)
        self.steps.on = False
        self.ground.clear()
        self.redraw.emit()

"""What hands and keys do in the Flow room: keep, strike, repeat, note, prepare. Knows no layout."""

from __future__ import annotations

from typing import Final

from PySide6.QtCore import QObject, QTimer, Signal

from ventrix.bench.drivers.sample import Sample
from ventrix.bench.procedure.flow_procedure import Kept, Phase, Refusal
from ventrix.bench.procedure.lift_plan import Rung
from ventrix.bench.procedure.preparation import StepDone
from ventrix.core.model.bench import is_index
from ventrix.core.model.kinds import RungNoteKind, StepKind
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.words import sentence
from ventrix.records.bad_input import BookError, sentence_of
from ventrix.rooms.flow.at_bench import record_step
from ventrix.rooms.flow.odd_at_bench import odd_reading
from ventrix.rooms.flow.run_in_hand import RunInHand
from ventrix.rooms.flow.typed_reading import TypedReading, asked_about, typed_pressure, typed_reading
from ventrix.ui.open_book import OpenBook
from ventrix.words import tr

NOTES = {k.letter: k for k in RungNoteKind if k is not RungNoteKind.SKIPPED}
PEDAL_SKIP = tr("skipped at the bench")
AGAIN = tr("It stays in hand: press again to keep it.")
STEP_SHOWN = 1000, 6000  # ms that a step's figure stands before the next step: in its limits, and out of them

PRACTICE: Final = tr("F5 has it flowed for you, twelve lifts; Ctrl+B puts it on the bench to flow it live")


class FlowControl(QObject):
    """Holds the run in hand and what the ground of the far view says.

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
        self.preparing = False
        self.asking_why = False
        self.ground, self.words = "", ""
        self.kept: tuple[str, str] | None = None
        self.step_kept: tuple[str, str] | None = None
        self._ground_of: object = None
        self._refused_for: object = None
        self._step_shown = QTimer(self)
        self._step_shown.setSingleShot(True)
        self._step_shown.timeout.connect(self._show_next_step)
        self._begun: tuple[str, Rung] | None = None  # cut and rung that what is being typed is of
        self.problem = ""
        self.temperature: float | None = None
        self.blower = False
        self._not_kept: dict[str, tuple[Kept, str]] = {}  # by cut: what the book did not take
        self.which_bench = ""
        self.asks_leak = False
        self._asked = ""

    # -- the ground changes when something was kept or refused, and stays as long as that is so

    def set_ground(self, ground: str, words: str, kept: tuple[str, str] | None = None) -> None:
        self.ground, self.words, self.kept = ground, words, kept
        self.step_kept, self._ground_of, self._refused_for = None, self._place(), None
        self.far.emit()

    def clear_ground(self) -> None:
        self._step_shown.stop()
        self.ground, self.words, self.kept, self.step_kept = "", "", None, None
        self.far.emit()

    def follow(self) -> None:
        """What is said belongs to one reading of one port and cut: anywhere else it is let go of."""
        if self.ground and self._ground_of != self._place():
            self.clear_ground()
        if not self.ground and self.in_hand is not None:
            outcome, _ = self.in_hand
            lift = self.open_book.units.lift.text(outcome.lift)
            self.set_ground("refused", f"NOT KEPT {lift}. {AGAIN}")

    def _place(self) -> object:
        """The cut looked at, and the last of its readings that counts."""
        space, run = self.hand.space, self.hand.run
        counted = [r.id for r in run.readings if r.struck is None] if run is not None else []
        return space.cut.id if space.cut is not None else None, counted[-1:]

    def refuse(self, sentence: str) -> None:
        self.problem = ""
        self.set_ground("refused", sentence)
        self._refused_for = self._cause()
        self.open_book.say(sentence)

    def _cause(self) -> object:
        """What decides whether a reading or step can be taken now: a refusal stands while this stays as it is."""
        preparation, test = self.hand.preparation, self.hand.test
        if self.preparing:
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
        elif self._rung_begun() is None and not self.preparing and cut is not None and rung is not None:
            self._begun = cut.id, rung
        self.far.emit()

    # -- live samples

    def take_in(self, samples: list[Sample]) -> None:
        """Feed what the bench said; redraws as much as changed."""
        test = self.hand.test
        before = test.phase, test.index
        for sample in samples:
            test.feed(sample)
            if self.preparing:
                self.hand.preparation.feed(sample)
            if test.automatic and not self.preparing and test.phase is Phase.KEEP:
                self.keep()
        self.temperature = samples[-1].temperature
        after = test.phase, test.index
        moved_on = self.ground == "kept" and self.step_kept is None and after != before
        cured = self.ground == "refused" and self._refused_for not in (None, self._cause())
        if moved_on or cured:
            self.clear_ground()
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
        elif self.preparing:
            self.take_step(None)
        else:
            self._settle(self.hand.test.keep(unsteady), self.source)

    def insist(self) -> None:
        """The pedal's second press: repeat, keep as unsteady, or keep at the pressure there is."""
        if self._offer_again() or self.preparing or self.which_bench or not self.open_book.bench.connected:
            return
        outcome = self.hand.test.insist()
        if outcome is None:
            self.open_book.say(tr("Once more at this lift: it counts as a repeat."))
            self.clear_ground()
            self.redraw.emit()
        else:
            self._settle(outcome, self.source)

    def hold(self) -> None:
        """The pedal held: strike the last reading; while preparing, skip the step."""
        if self.preparing:
            self.skip_step(PEDAL_SKIP)
        else:
            self.strike()

    def type_in(self, text: str) -> None:
        """Take a figure typed by hand: a reading at the rung asked for, a step's figure, or why it is skipped."""
        text = text.strip()
        if not text:
            return
        if self.asking_why:
            self.asking_why = False
            self.skip_step(text)
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
        rung = None if self.preparing else self.rung_typed
        doubt = "" if rung is None else asked_about(self.hand, rung, typed, self.open_book.units)
        if doubt and self._asked != text:
            self._asked, self.problem = text, tr("{} Enter again keeps it.", doubt)
            self.refused_text.emit()
            self.far.emit()
            return
        self._asked = self.problem = ""
        if self.preparing:
            if self.take_step(typed.figure):
                self.cleared.emit()
        elif self._settle(self.hand.test.keep_typed(*typed, self._rung_begun()), "typed"):
            self._begun = None
            self.cleared.emit()

    def give_up_typing(self) -> None:
        """What was typed is let go of."""
        self.problem, self.asking_why, self._begun = "", False, None
        self.far.emit()

    def _typed(self, text: str) -> TypedReading:
        units = self.open_book.units
        if self.preparing and self.hand.preparation.step is StepKind.ZERO:
            return typed_pressure(text, units)
        return typed_reading(text, self.hand.element.kind, units, with_swirl=not self.preparing)

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
            self.set_ground("refused", f"NOT KEPT {lift}. {told} {AGAIN}")
            self.open_book.not_kept(tr("{} is not kept. {} {}", lift, told, AGAIN))
            return False
        except Refused as error:
            self.hand.test.storing(None)
            self.refuse(sentence_of(error))
            return False
        self._hold(None)
        self.hand.test.mark(outcome)
        self.redraw.emit()
        self.set_ground("kept", f"KEPT {lift}", (lift, self.flow_text(outcome.flow, outcome.pressure)))
        odd = odd_reading(self.hand, outcome.lift)
        if odd:
            self.set_ground("odd", tr("KEPT {}, but {}", lift, odd), self.kept)
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
            self.clear_ground()

    def repeat(self) -> None:
        """Once more at the rung just kept, typed or read."""
        if not self.hand.test.ask_repeat():
            self.refuse(tr("Nothing was kept yet that could be repeated."))
            return
        self.clear_ground()
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
        self.preparing = False
        self.clear_ground()
        self.redraw.emit()

    # -- preparing the bench

    def toggle_preparing(self) -> None:
        """Go through the steps before the lifts, or go to the lifts."""
        self.preparing = not self.preparing
        self.asking_why = False
        if self.preparing and self.hand.preparation.step is None:
            self.hand.prepare()
        self.clear_ground()
        self.stepped.emit()
        self.redraw.emit()

    def go_to_step(self, step: StepKind) -> None:
        self.preparing = True
        self.hand.preparation.go_to(step)
        self.clear_ground()
        self.redraw.emit()

    def take_step(self, typed: float | None) -> bool:
        """Record the step asked for, or say why not."""
        outcome = self.hand.preparation.take(typed)
        if isinstance(outcome, Refusal):
            self.refuse(outcome.sentence)
            return False
        self._recorded(outcome)
        return True

    def ask_why(self) -> None:
        """A step is about to be skipped: the next line typed is the reason."""
        self.asking_why = True
        self.far.emit()

    def skip_step(self, reason: str) -> None:
        outcome = self.hand.preparation.skip(reason)
        if isinstance(outcome, Refusal):
            self.refuse(outcome.sentence)
            return
        preparation = self.hand.preparation
        record_step(self.hand, outcome, self.source)
        self._after(preparation.step, tr("{} skipped: {}.", outcome.step.value.capitalize(), outcome.reason))

    def _recorded(self, outcome: StepDone) -> None:
        preparation = self.hand.preparation
        notes, outside = record_step(self.hand, outcome, self.source)
        value = None if outcome.flow is None else self.hand.element.as_indicated(outcome.flow, outcome.pressure)
        figure = "" if value is None else f" {self.open_book.units.flow.text(value)}"
        name = outcome.step.value
        said = " ".join(notes) or f"{name.capitalize()}{figure}."
        unit = "index" if is_index(self.hand.element.kind) else self.open_book.units.flow.label
        shown = figure.strip(), unit if figure else ""
        if outside:
            self.set_ground("odd", said)
        else:
            self.set_ground("kept", f"KEPT: {name.upper()}")
        self.step_kept = shown
        self._step_shown.start(STEP_SHOWN[outside])
        self._after(preparation.step, said)

    def _show_next_step(self) -> None:
        """The figure of the step that was taken has been seen: the next one, with what to do for it."""
        if self.step_kept is not None:
            self.clear_ground()

    def _after(self, following: StepKind | None, sentence: str) -> None:
        if following is None:
            self.preparing = False
            sentence += tr(" The bench is prepared: on to the lifts.")
        self.open_book.say(sentence.strip())
        self.stepped.emit()
        self.redraw.emit()

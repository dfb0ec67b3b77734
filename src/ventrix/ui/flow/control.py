"""What hands and keys do in the Flow room: keep, strike, repeat, note, prepare. Knows no layout."""

from __future__ import annotations

import re
from typing import Final

from PySide6.QtCore import QObject, QTimer, Signal

from ventrix.bench.drivers.sample import Sample
from ventrix.bench.procedure.flow_procedure import Kept, Phase, Refusal
from ventrix.bench.procedure.lift_plan import Rung
from ventrix.bench.procedure.preparation import StepDone
from ventrix.core.edits.corrections import correct_lift
from ventrix.core.model.bench import is_index
from ventrix.core.model.kinds import RungNoteKind, StepKind
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.thousandths import read_small
from ventrix.core.quantity.units import parse_quantity, tidy
from ventrix.core.quantity.words import percent_text, sentence
from ventrix.records.bad_input import BookError, sentence_of
from ventrix.rooms.flow.at_bench import record_step
from ventrix.rooms.flow.element_in_hand import unit_typed
from ventrix.rooms.flow.odd_at_bench import far_off, odd_reading
from ventrix.rooms.flow.run_in_hand import RunInHand
from ventrix.ui.open_book import OpenBook
from ventrix.workspace.ids import new_id

NOTES = {k.letter: k for k in RungNoteKind if k is not RungNoteKind.SKIPPED}
PEDAL_SKIP = "skipped at the bench"
AGAIN = "It stays in hand: press again to keep it."
SLIP = 0.35  # relative: a figure typed this far from what is expected is asked about before it is kept
STEP_SHOWN = 1000, 6000  # ms that a step's figure stands before the next step: in its limits, and out of them

PRACTICE: Final = "F5 has it flowed for you, twelve lifts; Ctrl+B puts it on the bench to flow it live"


_SWIRL: Final = re.compile(r"\s*(?P<flow>[0-9][0-9.,]*)\s+(?P<swirl>[+\-−]?[0-9][0-9.,]*)\s*")


class FlowControl(QObject):
    """Holds the run in hand and what the ground of the far view says.

    Signals: `redraw` when the book or the plan changed, `far` when only the far view did, `cleared`
    when a typed figure was taken, `refused_text` when it was not.
    """

    redraw = Signal()
    far = Signal()
    cleared = Signal()
    refused_text = Signal()

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
                f"{silent} Nothing can be kept." if active else "No bench connected: type the reading, then Enter."
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
            self.open_book.say("Once more at this lift: it counts as a repeat.")
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
            flow, pressure, swirl = self._parse(text)
        except Refused as error:
            self.problem = sentence_of(error)
            self.refused_text.emit()
            self.far.emit()
            return
        doubt = self._doubt(flow, pressure)
        if doubt and self._asked != text:
            self._asked, self.problem = text, f"{doubt} Enter again keeps it."
            self.refused_text.emit()
            self.far.emit()
            return
        self._asked = self.problem = ""
        if self.preparing:
            if self.take_step(flow):
                self.cleared.emit()
        elif self._settle(self.hand.test.keep_typed(flow, pressure, swirl, self._rung_begun()), "typed"):
            self._begun = None
            self.cleared.emit()

    def _doubt(self, figure: float, pressure: float | None) -> str:
        """What is asked about a figure typed before it is kept."""
        rung = self.rung_typed
        if self.preparing or rung is None:
            return ""
        if self.hand.element.kind == "percent" and figure > 1:
            return f"{percent_text(figure, 0)} is past the end of the range."
        value = self.hand.element.as_reported(figure, pressure)
        off = "" if value is None else far_off(self.hand, rung.lift, value, least=SLIP)
        return f"{self.open_book.units.lift.text(rung.lift)}: {off}." if off else ""

    def give_up_typing(self) -> None:
        """What was typed is let go of."""
        self.problem, self.asking_why, self._begun = "", False, None
        self.far.emit()

    def _parse(self, text: str) -> tuple[float, float | None, float | None]:
        """A typed figure, its pressure and its swirl in rpm: "31.2", "31.2 @ 27.6", "31.2 1450", or two columns as
        "412 903"."""
        units = self.open_book.units
        kind = self.hand.element.kind
        if self.preparing and self.hand.preparation.step is StepKind.ZERO:
            return parse_quantity(text, units.pressure.unit), None, None
        if kind == "columns":
            cells = [c for c in re.split(r"[\s/;]+", text) if c]
            if len(cells) != 2:
                raise Refused("two columns are wanted: element, then port, as 412 903")
            element, port = (parse_quantity(c, units.pressure.unit) for c in cells)
            if port <= 0:
                raise Refused("the port's column must be above zero")
            return element, port, None
        main, mark, rest = text.partition("@")
        unit = unit_typed(kind, units)
        pressure = parse_quantity(rest, units.pressure.unit) if mark else None
        if pressure is not None and pressure <= 0:
            raise Refused("the pressure must be above zero")
        behind = None if self.preparing else _SWIRL.fullmatch(main)
        if behind is not None:
            return parse_quantity(behind["flow"], unit), pressure, parse_quantity(behind["swirl"], "rpm")
        return parse_quantity(main, unit), pressure, None

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
            self.open_book.not_kept(f"{lift} is not kept. {told} {AGAIN}")
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
            self.set_ground("odd", f"KEPT {lift}, but {odd}", self.kept)
            self.open_book.say(f"{lift}: {odd}. R, or two presses, repeats it; nothing was dropped.")
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
            self.refuse("There is no reading to strike.")
        else:
            self.clear_ground()

    def repeat(self) -> None:
        """Once more at the rung just kept, typed or read."""
        if not self.hand.test.ask_repeat():
            self.refuse("Nothing was kept yet that could be repeated.")
            return
        self.clear_ground()
        self.redraw.emit()

    def strike_reading(self, reading_id: str, reason: str) -> bool:
        """Strike any reading of the run in hand, with its reason."""
        try:
            self.hand.strike(reading_id, reason)
        except Refused as error:
            self.open_book.say(sentence_of(error))
            return False
        self.clear_ground()
        self.redraw.emit()
        return True

    def set_lift_right(self, reading_id: str, text: str, reason: str) -> str:
        """A typed reading at the lift it was really taken at; a sentence where that cannot be."""
        space, run = self.open_book.workspace, self.hand.in_sight
        if space is None or run is None:
            return "There is no run in hand."
        try:
            lift = read_small(text, self.open_book.units.lift.unit).value
            job = correct_lift(space.job, run.id, reading_id, tidy(lift), reason, new_id())
            space.apply(f"lift set right to {self.open_book.units.lift.text(lift)}", job)
        except (KeyError, Refused) as error:
            return sentence(str(error))
        return ""

    def take_up(self, reading_id: str) -> None:
        """Count a struck reading again."""
        self.hand.take_up(reading_id)
        self.redraw.emit()

    def note(self, key: str) -> None:
        """Note what was heard or seen at this rung."""
        kind, lift = NOTES[key], self.hand.test.lift
        words = self.open_book.units.lift.text(lift) if lift is not None else ""
        if self.hand.note(kind, words):
            self.open_book.say(f"Noted at {words}: {kind}.")
        else:
            self.open_book.say(f"{kind.capitalize()} is noted at {words} already." if words else "Choose a lift first.")

    def toggle_automatic(self) -> None:
        """Keep by itself whenever a rung is steady, or wait for the key."""
        test = self.hand.test
        test.automatic = not test.automatic
        self.open_book.say("Keeps by itself when steady." if test.automatic else "Keeps when you press.")
        self.redraw.emit()

    def choose_range(self, by: int) -> None:
        """The next range of the bench up or down."""
        element = self.hand.element
        bench = self.hand.bench
        if bench is None or not bench.ranges or element.full_scale is None:
            self.open_book.say("This bench has no ranges.")
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
        self._fit()
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
        self._after(preparation.step, f"{outcome.step.value.capitalize()} skipped: {outcome.reason}.")

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
            sentence += " The bench is prepared: on to the lifts."
        self.open_book.say(sentence.strip())
        self._fit()
        self.redraw.emit()

    # -- the simulated bench's hands

    def _fit(self) -> None:
        """Put on the simulated bench what the step or test wants."""
        bench = self.open_book.bench
        if not bench.is_simulated:
            return
        step = self.hand.preparation.step if self.preparing else None
        what = (
            {StepKind.LEAK: "sealed", StepKind.PLATE: "plate", StepKind.OPEN_PORT: "open"}.get(step, "head")
            if step
            else "head"
        )
        bench.send(lambda b: b.put_on(what))

    def set_blower(self, on: bool) -> None:
        """Switch the simulated blower."""
        pressure = (self.hand.test.test_pressure or self.hand.setup.test_pressure or 0.0) if on else 0.0
        self.blower = on
        self.open_book.bench.send(lambda b: b.set_pressure(pressure))

    def lift_wanted(self) -> float | None:
        """Where the hands would set the valve now [m]."""
        if self.preparing:
            step = self.hand.preparation.step
            return self.hand.lifts[len(self.hand.lifts) // 2] if step is StepKind.WARM_UP else 0.0
        test = self.hand.test
        return test.next_lift if test.phase is Phase.KEPT and test.next_lift is not None else test.lift

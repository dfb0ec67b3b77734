"""What hands and keys do while the bench is prepared: the steps before the lifts, taken or skipped with a reason."""

from __future__ import annotations

from typing import TYPE_CHECKING, Final

from PySide6.QtCore import QObject, QTimer

from ventrix.bench.procedure.flow_procedure import Refusal
from ventrix.bench.procedure.preparation import StepDone
from ventrix.core.model.bench import is_index
from ventrix.core.model.kinds import StepKind
from ventrix.rooms.flow.at_bench import record_step
from ventrix.words import tr

if TYPE_CHECKING:
    from ventrix.ui.flow.control import FlowControl

STEP_SHOWN: Final = 1000, 6000  # ms that a step's figure stands before the next: in its limits, and out of them


class PreparingSteps(QObject):
    """Whether the bench is being prepared, and whether a reason for skipping a step is asked for."""

    def __init__(self, control: FlowControl) -> None:
        super().__init__(control)
        self._control, self._hand = control, control.hand
        self._ground, self._open_book = control.ground, control.open_book
        self.on = False
        self.asking_why = False
        self._step_shown = QTimer(self)
        self._step_shown.setSingleShot(True)
        self._step_shown.timeout.connect(self._show_next_step)
        self._ground.changed.connect(self._step_seen)

    def _step_seen(self) -> None:
        if self._ground.step_kept is None:
            self._step_shown.stop()

    def toggle(self) -> None:
        """Go through the steps before the lifts, or go to the lifts."""
        self.on = not self.on
        self.asking_why = False
        if self.on and self._hand.preparation.step is None:
            self._hand.prepare()
        self._ground.clear()
        self._control.stepped.emit()
        self._control.redraw.emit()

    def go_to(self, step: StepKind) -> None:
        self.on = True
        self._hand.preparation.go_to(step)
        self._ground.clear()
        self._control.redraw.emit()

    def take(self, typed: float | None) -> bool:
        """Record the step asked for, or say why not."""
        outcome = self._hand.preparation.take(typed)
        if isinstance(outcome, Refusal):
            self._control.refuse(outcome.sentence)
            return False
        self._recorded(outcome)
        return True

    def ask_why(self) -> None:
        """A step is about to be skipped: the next line typed is the reason."""
        self.asking_why = True
        self._control.far.emit()

    def skip(self, reason: str) -> None:
        outcome = self._hand.preparation.skip(reason)
        if isinstance(outcome, Refusal):
            self._control.refuse(outcome.sentence)
            return
        preparation = self._hand.preparation
        record_step(self._hand, outcome, self._control.source)
        self._after(preparation.step, tr("{} skipped: {}.", outcome.step.value.capitalize(), outcome.reason))

    def _recorded(self, outcome: StepDone) -> None:
        preparation = self._hand.preparation
        notes, outside = record_step(self._hand, outcome, self._control.source)
        value = None if outcome.flow is None else self._hand.element.as_indicated(outcome.flow, outcome.pressure)
        figure = "" if value is None else f" {self._open_book.units.flow.text(value)}"
        name = outcome.step.value
        said = " ".join(notes) or f"{name.capitalize()}{figure}."
        unit = "index" if is_index(self._hand.element.kind) else self._open_book.units.flow.label
        shown = figure.strip(), unit if figure else ""
        if outside:
            self._ground.show("odd", said)
        else:
            self._ground.show("kept", f"KEPT: {name.upper()}")
        self._ground.step_kept = shown
        self._step_shown.start(STEP_SHOWN[outside])
        self._after(preparation.step, said)

    def _show_next_step(self) -> None:
        """The figure of the step that was taken has been seen: the next one, with what to do for it."""
        if self._ground.step_kept is not None:
            self._ground.clear()

    def _after(self, following: StepKind | None, sentence: str) -> None:
        if following is None:
            self.on = False
            sentence += tr(" The bench is prepared: on to the lifts.")
        self._open_book.say(sentence.strip())
        self._control.stepped.emit()
        self._control.redraw.emit()

"""What the Flow room's pictures are drawn from: values, no widget."""

from __future__ import annotations

from dataclasses import dataclass

from ventrix.core.model.kinds import RungNoteKind


@dataclass(frozen=True, slots=True)
class Tape:
    """A horizontal scale with a window and a pointer, in display units."""

    low: float
    high: float
    window: tuple[float, float]
    at: float | None
    text: str
    caption: str
    digits: int = 0


@dataclass(frozen=True, slots=True)
class FarPicture:
    """Everything the far view shows, as text and plain numbers.

    `ground` is "", "kept", "odd" (kept, and looks wrong) or "refused". A `sentence` stands in place of
    the lift: what a step of preparing the bench wants.
    """

    phase: str
    hint: str = ""
    sentence: str = ""
    lift: str = ""
    lift_caption: str = ""
    next_lift: str = ""
    flow: str = ""
    flow_unit: str = ""
    spread: str = ""
    difference: str = ""
    result: str = ""
    difference_words: str = ""
    tape: Tape | None = None
    steady: float | None = None
    steady_words: str = ""
    foot: str = ""
    ground: str = ""


@dataclass(frozen=True, slots=True)
class LadderRung:
    """One rung as text. `result` is empty where nothing is held against it."""

    lift: str
    flow: str = ""
    difference: str = ""
    result: str = ""
    readings: int = 0
    struck: int = 0
    unsteady: bool = False
    notes: tuple[str, ...] = ()
    swirl: str = ""

    @property
    def letters(self) -> str:
        """Notes as the letters that their keys are."""
        return "".join(RungNoteKind(k).letter if k in tuple(RungNoteKind) else "·" for k in self.notes)


@dataclass(frozen=True, slots=True)
class StepLine:
    """One step as text. `state` is "open", "done" or "skipped"."""

    name: str
    figure: str = ""
    state: str = "open"

"""What the ground of the far view says: that a reading or a step was kept, is odd, or was refused."""

from __future__ import annotations

from PySide6.QtCore import QObject, Signal

from ventrix.rooms.flow.run_in_hand import RunInHand


class FarGround(QObject):
    """It changes when something was kept or refused, and stays as long as that is so.

    kind : "kept", "odd", "refused", or none
    kept : lift and flow of what was kept; `step_kept` the figure of a step and its unit
    refused_for : what decided that it was refused, None where it stays until something else is said
    """

    changed = Signal()

    def __init__(self, hand: RunInHand) -> None:
        super().__init__()
        self._hand = hand
        self.kind, self.words = "", ""
        self.kept: tuple[str, str] | None = None
        self.step_kept: tuple[str, str] | None = None
        self.refused_for: object = None
        self._of: object = None

    def show(self, kind: str, words: str, kept: tuple[str, str] | None = None, refused_for: object = None) -> None:
        self.kind, self.words, self.kept, self.step_kept = kind, words, kept, None
        self.refused_for, self._of = refused_for, self._place()
        self.changed.emit()

    def clear(self) -> None:
        self.kind, self.words, self.kept, self.step_kept = "", "", None, None
        self.changed.emit()

    @property
    def is_of_elsewhere(self) -> bool:
        """Whether what it says is of another cut, or of a reading that is no longer the last that counts."""
        return self._of != self._place()

    def _place(self) -> object:
        space, run = self._hand.space, self._hand.run
        counted = [r.id for r in run.readings if r.struck is None] if run is not None else []
        return space.cut.id if space.cut is not None else None, counted[-1:]

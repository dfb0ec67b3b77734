"""What a cut was: one thing, or several done together."""

from __future__ import annotations

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QCheckBox, QGridLayout, QLabel, QWidget

from ventrix.core.model.kinds import CUT_KINDS, CutKind
from ventrix.words import tr

COLUMNS = 2


class KindBoxes(QWidget):
    """A box for every kind of change; at least one is always ticked."""

    edited = Signal()

    def __init__(self) -> None:
        super().__init__()
        grid = QGridLayout(self)
        grid.setContentsMargins(0, 0, 0, 4)
        grid.setVerticalSpacing(2)
        caption = QLabel(tr("What was changed, several together"))
        grid.addWidget(caption, 0, 0, 1, COLUMNS)
        self.boxes: dict[CutKind, QCheckBox] = {}
        for i, kind in enumerate(CUT_KINDS):
            box = QCheckBox(kind.words)
            grid.addWidget(box, 1 + i // COLUMNS, i % COLUMNS)
            self.boxes[kind] = box
        self.choose((CutKind.PORT,))
        for box in self.boxes.values():
            box.toggled.connect(lambda _on: self._toggled())

    def chosen(self) -> tuple[CutKind, ...]:
        """The kinds ticked."""
        return tuple(kind for kind, box in self.boxes.items() if box.isChecked()) or (CutKind.PORT,)

    def choose(self, kinds: tuple[CutKind, ...]) -> None:
        """Tick these and no others."""
        for kind in sorted(self.boxes, key=lambda k: k not in kinds):  # ticked first: one always is
            self.boxes[kind].setChecked(kind in kinds)

    def _toggled(self) -> None:
        if not any(box.isChecked() for box in self.boxes.values()):
            self.boxes[CutKind.PORT].setChecked(True)
        self.edited.emit()

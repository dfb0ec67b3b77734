"""Where a reading is typed: what is wanted and at which lift, the field, and what was wrong with it."""

from __future__ import annotations

from PySide6.QtWidgets import QHBoxLayout, QLabel, QLineEdit, QWidget

from ventrix.core.model.bench_kinds import ElementKind
from ventrix.rooms.flow.element_in_hand import label_typed
from ventrix.ui.flow.control import PRACTICE, FlowControl
from ventrix.ui.open_book import OpenBook
from ventrix.words import tr


class EntryRow(QWidget):
    """The typed reading of the room whose control it is."""

    def __init__(self, open_book: OpenBook, control: FlowControl) -> None:
        super().__init__()
        self._open_book, self._control = open_book, control
        self.entry = QLineEdit()
        self.entry.setAccessibleName(tr("Reading typed by hand"))
        self.entry.setFixedWidth(140)
        self.entry.textChanged.connect(control.begin_typing)
        self.entry.returnPressed.connect(lambda: control.type_in(self.entry.text()))
        control.refused_text.connect(self.entry.selectAll)
        self.caption, self.problem = QLabel(), QLabel()
        self.caption.setObjectName("quiet")
        self.problem.setObjectName("error")
        self.problem.setWordWrap(True)
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.addWidget(self.caption)
        row.addWidget(self.entry)
        row.addWidget(self.problem, 1)

    def show_wanted(self) -> None:
        """Say what is wanted now; what nobody measures is not typed either."""
        self.problem.setText(self._control.problem)
        self.caption.setText(self._words())
        self.entry.setVisible(self._open_book.practice is None)

    def _words(self) -> str:
        control, hand, units = self._control, self._control.hand, self._open_book.units
        kind = hand.element.kind
        if self._open_book.practice is not None:
            return "" if self._open_book.bench.connected else PRACTICE
        if control.steps.asking_why:
            return tr("why is it skipped?")
        label = tr("two columns, {}", units.pressure.label) if kind == ElementKind.COLUMNS else label_typed(kind, units)
        rung = None if control.steps.on else control.rung_typed
        at = "" if rung is None else tr(" at {}", units.lift.with_unit(rung.lift))
        if self._open_book.bench.connected:
            return tr("or type a reading{}, {}", at, label)
        if kind == ElementKind.COLUMNS:
            return f"{at.strip()}: {label}" if at else label
        top = hand.element.full_scale
        parts = [hand.setup.bench or tr("bench not named")]
        if top is not None:
            parts.append(tr("range to {}", units.flow.text(top)))
        if at:
            parts.append(at.strip())
        return tr("{}: type {}", ", ".join(parts), label)

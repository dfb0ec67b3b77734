"""A field for one figure: caption, box, unit, and the sentence that says what is wrong with it."""

from __future__ import annotations

from collections.abc import Iterable

from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import QHBoxLayout, QLabel, QVBoxLayout, QWidget

from ventrix.core.model.plausible import Outside
from ventrix.core.quantity.field_checks import Check, positive
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.thousandths import Small, read_small
from ventrix.core.quantity.units import parse_quantity, unit_typed
from ventrix.core.quantity.words import sentence
from ventrix.rooms.display_units import Shown
from ventrix.ui.look import theme
from ventrix.ui.widgets.line import Line
from ventrix.words import tr


class QuantityField(QWidget):
    """A figure typed in any unit.

    `edited` carries the SI value (or None) while typing, whenever the text makes sense; `accepted`
    once, on Enter or when the field is left. What was typed is never thrown away: a text that makes
    no sense stays, with its sentence below it.
    """

    edited = Signal(object)
    accepted = Signal(object)
    tells_below = True  # what is to be said stands below the box

    def __init__(
        self, caption: str, shown: Shown, check: Check | None = positive, *, width: int = 84, small: bool = False
    ) -> None:
        super().__init__()
        self._caption, self._check, self._small = caption, check, small
        self._shown = shown
        self._value: float | None = None
        self._wrong = False
        self._read_as = ""  # what a number was taken for, where that is not what was typed
        self.box = Line(self)
        self.box.setFixedWidth(width)
        self.box.setAlignment(Qt.AlignmentFlag.AlignRight)
        self.box.setAccessibleName(caption)
        self._label = QLabel(caption, self)
        self._label.setBuddy(self.box)
        self._label.setWordWrap(True)
        self._beside = QLabel(self)
        self._beside.setAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
        self._beside.hide()
        self._unit = QLabel(shown.label, self)
        self._unit.setObjectName("quiet")
        self._unit.setFixedWidth(44)
        self._scan = ""
        self._note = QLabel(self)  # a child from the start: shown without a layout it would be a window
        self._note.setObjectName("caption")
        self._note.setWordWrap(True)
        self._note.hide()
        self._lay_out()
        self.box.textEdited.connect(self._typed)
        self.box.editingFinished.connect(self._finished)

    def _lay_out(self) -> None:
        row = QHBoxLayout()
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(8)
        row.addWidget(self._label, 1)
        row.addWidget(self._beside)
        row.addWidget(self.box)
        row.addWidget(self._unit)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addLayout(row)
        column.addWidget(self._note)

    @property
    def caption(self) -> str:
        return self._caption

    def rename(self, caption: str) -> None:
        """Ask for the figure by another name."""
        self._caption = caption
        self._label.setText(caption)
        self.box.setAccessibleName(caption)

    @property
    def value(self) -> float | None:
        """The value last set or accepted, SI."""
        return self._value

    def typed(self) -> float | None:
        """The figure as it stands in the box just now, SI; None where there is none or it makes no sense."""
        try:
            return self._parse()
        except Refused:
            return None

    def set_value(self, value: float | None, *, note: str = "", scan: str = "") -> None:
        """Show a value; `note` says where it comes from ("carried from cut 0"), `scan` what a scan has. Text that is
        being typed stays."""
        self._value, self._scan = value, scan
        if self.box.isModified() and (self.box.hasFocus() or self._wrong):
            return
        self.box.setText("" if value is None else self._shown.text(value))
        self.box.setCursorPosition(0)
        self._say(note, wrong=False)

    def use(self, shown: Shown) -> None:
        """Show in another unit."""
        if shown == self._shown:
            return
        self._shown = shown
        self._unit.setText(shown.label)
        self.box.setModified(False)
        self.set_value(self._value)

    def show_beside(self, value: float | None, *, differs: bool) -> None:
        """Show another value beside the box, in the same unit: what it is held against."""
        text = "" if value is None else self._shown.text(value)
        show_beside(self._beside, text, differs=differs)

    def forget(self) -> None:
        """Let go of what was typed: the field is about something else now."""
        self.box.setModified(False)
        self._scan = ""
        self._say("", wrong=False)

    def _parse(self) -> float | None:
        text = self.box.text().strip()
        if not text:
            return None
        value, as_thousandths = self._read(text)
        if self._check is not None:
            try:
                self._check(value)
            except Outside as error:
                own = unit_typed(text) or self._shown.unit
                raise Refused("{}", error.limit.sentence_in(own)) from None
        self._read_as = tr("{}, taken as thousandths", self._shown.with_unit(value)) if as_thousandths else ""
        return value

    def _read(self, text: str) -> Small:
        if self._small:
            return read_small(text, self._shown.unit)
        return Small(parse_quantity(text, self._shown.unit))

    def _typed(self) -> None:
        try:
            value = self._parse()
        except Refused as error:
            self._say(sentence(str(error)), wrong=True)
            return
        self._say(self._read_as, wrong=False)
        self.edited.emit(value)

    def _finished(self) -> None:
        if not self.box.isModified():
            return
        try:
            value = self._parse()
        except Refused as error:
            self._say(sentence(str(error)), wrong=True)
            return
        self.box.setModified(False)
        if self._read_as and value is not None:
            self.box.setText(self._shown.text(value))
        if value != self._value:
            self._value = value
            self.accepted.emit(value)

    def refuse(self, sentence: str) -> None:
        """Say at the field why its value makes no sense beside the others; the text stays."""
        self._say(sentence, wrong=True)

    def _say(self, sentence: str, *, wrong: bool) -> None:
        sentence = "; ".join(part for part in (sentence, "" if wrong else self._scan) if part)
        self._note.setText(sentence)
        self._note.setVisible(bool(sentence) and self.tells_below)
        self._note.setObjectName("error" if wrong else "caption")
        self.box.setProperty("wrong", wrong)
        self.box.setAccessibleDescription(sentence)
        if wrong == self._wrong:
            return
        self._wrong = wrong
        for widget in (self._note, self.box):
            widget.style().unpolish(widget)
            widget.style().polish(widget)


def first_wrong(fields: Iterable[QuantityField]) -> QuantityField | None:
    """Take what stands in every box, typed to its end or not; the first whose figure makes no sense has the focus."""
    fields = list(fields)
    for field in fields:
        field.box.editingFinished.emit()
    wrong = next((field for field in fields if field.box.property("wrong")), None)
    if wrong is not None:
        wrong.box.setFocus()
    return wrong


class PlacedField(QuantityField):
    """A figure typed at its place on a drawing: caption above the box, unit beside it, and whatever is to be
    said of it in its tip and its colours, so that nothing on the drawing moves."""

    tells_below = False
    said = Signal(str)  # what is wrong with it, for whoever shows sentences

    def _lay_out(self) -> None:
        self.box.setFixedWidth(68)
        self._label.setObjectName("caption")
        self._label.setWordWrap(False)
        self._unit.setFixedWidth(30)
        row = QHBoxLayout()
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(4)
        row.addWidget(self.box)
        row.addWidget(self._unit, 1)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addWidget(self._label)
        column.addLayout(row)

    def _say(self, sentence: str, *, wrong: bool) -> None:
        super()._say(sentence, wrong=wrong)
        self.box.setToolTip(self.box.accessibleDescription())
        self.box.setProperty("carried", bool(sentence) and not wrong)
        self.box.setProperty("scanned", bool(self._scan))
        self.box.style().unpolish(self.box)
        self.box.style().polish(self.box)
        if wrong:
            self.said.emit(f"{self._caption}: {sentence}")


def show_beside(label: QLabel, text: str, *, differs: bool) -> None:
    """What a value is held against, in a label beside it: marked where it differs."""
    label.setText(f"≠ {text}" if differs else text)
    label.setStyleSheet(f"color: {theme.current().worse if differs else theme.current().quiet}")
    label.setVisible(bool(text))

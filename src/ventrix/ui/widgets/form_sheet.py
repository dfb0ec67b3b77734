"""A side sheet made of fields: what every sheet that logs or measures something is built from."""

from __future__ import annotations

from collections.abc import Sequence

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import (
    QCheckBox,
    QComboBox,
    QHBoxLayout,
    QLabel,
    QLineEdit,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

from ventrix.core.quantity.field_checks import Check, positive
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.words import sentence
from ventrix.records.bad_input import BookError, sentence_of
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.line import Line
from ventrix.ui.widgets.quantity_field import QuantityField, first_wrong
from ventrix.ui.widgets.scroll_area import ScrollArea
from ventrix.ui.widgets.side_sheet import SideSheet
from ventrix.words import tr


class FormSheet(SideSheet):
    """Fields in a column, a sentence about what is wrong, a caution, and two buttons.

    Enter anywhere takes the sheet, Esc puts it away with what was typed kept. A sheet that `stays` is there for the
    next one after Enter: there is usually more than one wall, fault or part.
    """

    edited = Signal()
    stays = False

    def __init__(self, open_book: OpenBook, take_words: str, width: int = 372) -> None:
        super().__init__(width)
        self.open_book = open_book
        self._quantities: list[tuple[QuantityField, str]] = []
        self._texts: list[QLineEdit] = []
        self._choices: list[QComboBox] = []
        self._checks: list[QCheckBox] = []
        self._captions: dict[QWidget, QLabel] = {}
        self._subject: object = None
        self.title = QLabel()
        self.title.setObjectName("heading")
        self.title.setWordWrap(True)
        self.problem = QLabel()
        self.problem.setObjectName("error")
        self.problem.setWordWrap(True)
        self.warning = QLabel()
        self.warning.setWordWrap(True)
        self.warning.setStyleSheet("font-weight: 500")
        self.caution = QLabel()
        self.caution.setWordWrap(True)
        self.caution.setObjectName("quiet")
        self.take_button = QPushButton(take_words)
        self.take_button.clicked.connect(self.try_taking)
        away = QPushButton(tr("Not now (Esc)"))
        away.clicked.connect(self.closed)
        self._buttons = QHBoxLayout()
        self._buttons.addWidget(self.take_button)
        self._buttons.addWidget(away)
        self.column = QVBoxLayout()
        self.column.setContentsMargins(0, 0, 8, 0)
        self.column.setSpacing(6)
        self.column.addWidget(self.title)
        holder = QWidget()
        holder.setLayout(self.column)
        scroll = ScrollArea(holder)
        outer = QVBoxLayout(self)
        outer.setContentsMargins(20, 14, 12, 14)
        outer.addWidget(scroll, 1)
        outer.addWidget(self.warning)  # outside what scrolls: it is never out of sight
        outer.addWidget(self.problem)
        outer.addLayout(self._buttons)

    def finish(self) -> None:
        """Put the caution behind the fields; called once they are all there."""
        self.column.addWidget(self.caution)
        self.column.addStretch()

    def _captioned(self, caption: str, widget: QWidget) -> QLabel:
        label = QLabel(caption)
        label.setBuddy(widget)
        label.setWordWrap(True)
        widget.setAccessibleName(caption)
        widget.setFixedWidth(196)
        row = QHBoxLayout()
        row.addWidget(label, 1)
        row.addWidget(widget)
        self.column.addLayout(row)
        self._captions[widget] = label
        return label

    def show_row(self, field: QWidget, on: bool) -> None:
        """Show a field with its caption, or neither."""
        field.setVisible(on)
        if field in self._captions:
            self._captions[field].setVisible(on)

    def name_row(self, field: QWidget, caption: str) -> None:
        """Caption a field anew."""
        if isinstance(field, QuantityField):
            field.rename(caption)
        else:
            self._captions[field].setText(caption)
            field.setAccessibleName(caption)

    def add_text(self, caption: str, hint: str = "") -> QLineEdit:
        """A line of text."""
        box = Line()
        box.setMaxLength(160)
        box.setPlaceholderText(hint)
        box.textEdited.connect(lambda _t: self.edited.emit())
        self._texts.append(box)
        self._captioned(caption, box)
        return box

    def add_choice(self, caption: str, options: Sequence[tuple[str, object]]) -> QComboBox:
        """One of a list."""
        box = QComboBox()
        for words, value in options:
            box.addItem(f"{words}", value)  # a kept word in the language that is spoken
        box.currentIndexChanged.connect(lambda _i: self.edited.emit())
        self._choices.append(box)
        self._captioned(caption, box)
        return box

    def add_figure(
        self, caption: str, unit: str, check: Check | None = positive, *, small: bool = False
    ) -> QuantityField:
        """A figure in a unit of the open book's. Lifts and other `small` sizes may be typed as thousandths."""
        field = QuantityField(caption, self.open_book.units[unit], check, small=small or unit == "lift")
        field.edited.connect(lambda _v: self.edited.emit())
        self._quantities.append((field, unit))
        self.column.addWidget(field)
        return field

    def add_check(self, words: str) -> QCheckBox:
        """Yes or no."""
        box = QCheckBox(words)
        box.toggled.connect(lambda _on: self.edited.emit())
        self._checks.append(box)
        self.column.addWidget(box)
        return box

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.try_taking()
        else:
            super().keyPressEvent(event)

    def come_up(self) -> None:
        for field, unit in self._quantities:
            field.use(self.open_book.units[unit])
        super().come_up()

    def settle_fields(self) -> bool:
        """Take what stands in every figure's box; False, with the sentence at the field, where one makes no sense."""
        wrong = first_wrong(field for field, _ in self._quantities)
        if wrong is not None:
            self.problem.setText(tr("One figure makes no sense: see the sentence below it."))
        return wrong is None

    def clear_fields(self) -> None:
        """Empty every box, once what was in them is in the book."""
        for box in self._texts:
            box.clear()
        for field, _ in self._quantities:
            field.forget()
            field.box.clear()
            field.set_value(None)
        self.problem.clear()

    def begin_about(self, subject: object) -> None:
        """What the sheet is about now. What was typed about another port or cut is let go of; about the same it is
        still there."""
        if self._subject not in (None, subject):
            self.clear_fields()
            self.warning.clear()
            for box in self._choices:
                box.setCurrentIndex(min(0, box.count() - 1))
            for check in self._checks:
                check.setChecked(False)
        self._subject = subject

    def try_taking(self) -> None:
        """Take the sheet; what cannot be kept is said here, and what was typed stays."""
        try:
            self.take()
        except BookError as error:
            self.problem.setText(tr("Not kept: {}.", error))
            self.open_book.not_kept(sentence_of(error))
        except Refused as error:
            self.problem.setText(sentence(str(error)))

    def take(self) -> None:
        """Keep what was typed and call `was_kept`; refuse what makes no sense."""
        raise AssertionError("every sheet says what taking it does")

    def was_kept(self) -> None:
        """What was typed is in the book: the next one where there usually is one, else the sheet goes."""
        self.problem.clear()
        if not self.stays:
            self.closed.emit()
            return
        stops = self.tab_stops()
        if stops:
            (self.first_field() or stops[0]).setFocus()

    def first_field(self) -> QWidget | None:
        """Where the next one is begun; the first stop without it."""
        return None

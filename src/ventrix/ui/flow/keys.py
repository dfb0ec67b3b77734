"""The keys of the Flow room: what each does, and which of them the entry passes on while it is empty."""

from __future__ import annotations

from collections.abc import Callable
from typing import Protocol

from PySide6.QtCore import QObject, Qt
from PySide6.QtGui import QKeyEvent, QKeySequence
from PySide6.QtWidgets import QLineEdit

from ventrix.ui.flow.control import NOTES, FlowControl
from ventrix.ui.flow.run_in_hand import RunInHand
from ventrix.ui.open_book import Session

KEYS = (
    ("Space", "keep"),
    ("Backspace", "strike the last"),
    ("R", "repeat this lift"),
    ("U", "keep as unsteady"),
    ("A", "keep by itself"),
    ("↑ ↓", "another rung"),
    ("P", "prepare the bench"),
    ("C", "conditions, plan"),
    ("M", "head re-mounted"),
    ("V", "every reading"),
    ("N I T O", "noise, dip, travel, breath"),
    ("[ ]", "another range"),
    ("G  F11", "ghost, far view"),
)


class Obeys(Protocol):
    """What the keys ask of the room."""

    session: Session
    control: FlowControl
    hand: RunInHand
    entry: QLineEdit

    def answer_bench(self, of_setup: bool) -> None: ...
    def open_to_rung(self) -> None: ...
    def paste(self) -> None: ...
    def remount(self) -> None: ...
    def setFocus(self) -> None: ...
    def step_away(self) -> bool: ...
    def toggle_blower(self) -> None: ...
    def toggle_conditions(self) -> None: ...
    def toggle_ghost(self) -> None: ...
    def toggle_readings(self) -> None: ...


class FlowKeys(QObject):
    """Obeys keys pressed in the room, and in its entry while nothing is typed there."""

    def __init__(self, room: Obeys) -> None:
        super().__init__(room.entry)
        self._room = room
        room.entry.installEventFilter(self)
        control = room.control
        self._plain: dict[Qt.Key, Callable[[], object]] = {
            Qt.Key.Key_Space: control.keep,
            Qt.Key.Key_Backspace: control.strike,
            Qt.Key.Key_R: control.repeat,
            Qt.Key.Key_U: lambda: control.keep(unsteady=True),
            Qt.Key.Key_A: control.toggle_automatic,
            Qt.Key.Key_P: control.toggle_preparing,
            Qt.Key.Key_G: room.toggle_ghost,
            Qt.Key.Key_C: room.toggle_conditions,
            Qt.Key.Key_M: room.remount,
            Qt.Key.Key_L: room.open_to_rung,
            Qt.Key.Key_V: room.toggle_readings,
            Qt.Key.Key_B: room.toggle_blower,
            Qt.Key.Key_BracketLeft: lambda: control.choose_range(-1),
            Qt.Key.Key_BracketRight: lambda: control.choose_range(1),
            Qt.Key.Key_Up: lambda: control.stand_on(room.hand.test.index - 1),
            Qt.Key.Key_Down: lambda: control.stand_on(room.hand.test.index + 1),
        }

    def press(self, event: QKeyEvent) -> bool:
        """Obey a key; False where it is none of the room's."""
        room, control = self._room, self._room.control
        if event.matches(QKeySequence.StandardKey.Paste):
            room.paste()
            return True
        if event.modifiers() & ~Qt.KeyboardModifier.KeypadModifier:
            return False
        if control.ground == "refused" and control.in_hand is None:
            control.clear_ground()
        if control.which_bench and event.text().upper() in ("Y", "N"):
            room.answer_bench(event.text().upper() == "Y")
            return True
        plain = self._plain.get(Qt.Key(event.key()))
        if plain is not None:
            plain()
        elif control.preparing and event.key() == Qt.Key.Key_S:
            control.ask_why()
            room.entry.setFocus()
        elif not control.preparing and event.text().upper() in NOTES:
            control.note(event.text().upper())
        elif event.key() == Qt.Key.Key_Escape:
            return room.step_away()
        elif event.text() and event.text() in "0123456789.,":
            control.clear_ground()
            room.entry.setFocus()
            room.entry.insert(event.text())
        else:
            return False
        return True

    def eventFilter(self, watched: QObject, event: object) -> bool:
        """With nothing typed, the entry passes on what is no text: Space, Backspace, arrows, paste and undo. Letters
        typed into it are text."""
        if not isinstance(event, QKeyEvent):
            return False
        room = self._room
        empty = not room.entry.text() and not room.control.asking_why
        if event.type() == QKeyEvent.Type.ShortcutOverride:
            if empty and (event.matches(QKeySequence.StandardKey.Undo) or event.matches(QKeySequence.StandardKey.Redo)):
                event.ignore()  # the window's own undo
                return True
            return False
        if event.type() != QKeyEvent.Type.KeyPress:
            return False
        if event.key() == Qt.Key.Key_Escape:
            room.entry.clear()
            room.control.give_up_typing()
            room.setFocus()
            return True
        if not empty:
            return False
        if event.matches(QKeySequence.StandardKey.Undo) or event.matches(QKeySequence.StandardKey.Redo):
            session = room.session
            _ = session.undo() if event.matches(QKeySequence.StandardKey.Undo) else session.redo()
            return True
        passed = Qt.Key(event.key()) in self._plain and not event.text().isalpha()
        if passed or event.matches(QKeySequence.StandardKey.Paste):
            return not event.isAutoRepeat() and self.press(event)
        return False

"""The keys of the Flow room: what each does, and which of them the entry passes on while it is empty."""

from __future__ import annotations

from functools import partial
from typing import Protocol

from PySide6.QtCore import QObject, Qt
from PySide6.QtGui import QKeyEvent, QKeySequence
from PySide6.QtWidgets import QLineEdit

from ventrix.rooms.flow.run_in_hand import RunInHand
from ventrix.ui.flow.control import NOTES, FlowControl
from ventrix.ui.flow.simulated_hands import SimulatedHands
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.command import Command, keys_of, pressed
from ventrix.words import tr


class Obeys(Protocol):
    """What the keys ask of the room."""

    open_book: OpenBook
    commands: tuple[Command, ...]
    control: FlowControl
    hand: RunInHand
    entry: QLineEdit
    hands: SimulatedHands

    def answer(self, yes: bool) -> None: ...
    def begin_check(self) -> None: ...
    def paste(self) -> None: ...
    def remount(self) -> None: ...
    def setFocus(self) -> None: ...
    def step_away(self) -> bool: ...
    def toggle_conditions(self) -> None: ...
    def toggle_ghost(self) -> None: ...
    def toggle_readings(self) -> None: ...


def flow_commands(room: Obeys) -> tuple[Command, ...]:
    """The keys of the room, in the order its strip shows them."""
    control = room.control

    def noting() -> bool:
        return not control.steps.on

    def note(letter: str) -> Command:
        kind = NOTES[letter]
        words = kind.removeprefix("out of ")
        return Command(f"flow.note.{words}", words, partial(control.note, letter), letter, able=noting, one_of="note")

    def rung(by: int) -> None:
        control.stand_on(room.hand.test.index + by)

    return (
        Command("flow.keep", tr("keep"), control.keep, "Space"),
        Command("flow.strike", tr("strike the last"), control.strike, "Backspace"),
        Command("flow.repeat", tr("repeat this lift"), control.repeat, "R"),
        Command("flow.unsteady", tr("keep as unsteady"), lambda: control.keep(unsteady=True), "U"),
        Command("flow.automatic", tr("keep by itself"), control.toggle_automatic, "A"),
        Command("flow.rung.before", tr("another lift"), lambda: rung(-1), "Up", one_of="rung"),
        Command("flow.rung.next", tr("another lift"), lambda: rung(1), "Down", one_of="rung"),
        Command("flow.prepare", tr("prepare the bench"), control.steps.toggle, "P"),
        Command("flow.check", tr("flow the check"), room.begin_check, "K"),
        Command("flow.conditions", tr("conditions, plan"), room.toggle_conditions, "C"),
        Command("flow.remount", tr("head re-mounted"), room.remount, "M"),
        Command("flow.readings", tr("every reading"), room.toggle_readings, "V"),
        *(note(letter) for letter in NOTES),
        Command("flow.range.before", tr("another range"), lambda: control.choose_range(-1), "[", one_of="range"),
        Command("flow.range.next", tr("another range"), lambda: control.choose_range(1), "]", one_of="range"),
        Command("flow.ghost", tr("pinned curve"), room.toggle_ghost, "G", one_of="view"),
        Command("flow.open", tr("valve to the lift"), room.hands.open_to_rung, "L", one_of="simulated"),
        Command("flow.blower", tr("blower"), room.hands.toggle_blower, "B", one_of="simulated"),
    )


class FlowKeys(QObject):
    """Obeys keys pressed in the room, and in its entry while nothing is typed there."""

    def __init__(self, room: Obeys) -> None:
        super().__init__(room.entry)
        self._room = room
        room.entry.installEventFilter(self)

    def press(self, event: QKeyEvent) -> bool:
        """Obey a key; False where it is none of the room's."""
        room, control = self._room, self._room.control
        if event.matches(QKeySequence.StandardKey.Paste):
            room.paste()
            return True
        if event.modifiers() & ~Qt.KeyboardModifier.KeypadModifier:
            return False
        typed = event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter)  # of the entry, which has obeyed it
        if control.ground.kind == "refused" and control.in_hand is None and not typed:
            control.ground.clear()
        if (control.which_bench or control.asks_leak) and event.text().upper() in ("Y", "N"):
            room.answer(event.text().upper() == "Y")
            return True
        if control.steps.on and event.key() == Qt.Key.Key_S:
            control.steps.ask_why()
            room.entry.setFocus()
        elif pressed(room.commands, event):
            return True
        elif event.key() == Qt.Key.Key_Escape:
            return room.step_away()
        elif event.text() and event.text() in "0123456789.,":
            control.ground.clear()
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
        empty = not room.entry.text() and not room.control.steps.asking_why
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
            open_book = room.open_book
            _ = open_book.undo() if event.matches(QKeySequence.StandardKey.Undo) else open_book.redo()
            return True
        passed = not event.text().isalpha() and any(c.keys == keys_of(event) for c in room.commands)
        if passed or event.matches(QKeySequence.StandardKey.Paste):
            return not event.isAutoRepeat() and self.press(event)
        return False

"""What a person can make the program do: one table for menus, finder, room keys, tool tips and the manual's keys."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass, field
from typing import Final

from PySide6.QtCore import QKeyCombination, Qt
from PySide6.QtGui import QKeyEvent, QKeySequence


def always() -> bool:
    """For a command that can be done at any time."""
    return True


@dataclass(frozen=True, slots=True)
class Command:
    """One thing to do. With a `menu` it stands there, under its heading; without one it is a key of its room.

    id : never changes
    words : as the menu has them, `&` before the letter that reaches it
    keys : "Ctrl+T"; in a room also a bare key: "O", "Shift+P"
    able : whether there is something to do it to
    checked : for what is on or off, whether it is on
    one_of : commands of one name here are a choice: one of them is on
    says : words of the moment in place of `words`
    below : the commands of a sub-menu, made when it is opened
    line : a line above it in its menu
    """

    id: str
    words: str
    do: Callable[[], object] = field(default=always)
    keys: str = ""
    menu: str = ""
    able: Callable[[], bool] = always
    checked: Callable[[], bool] | None = None
    one_of: str = ""
    says: Callable[[], str] | None = None
    below: Callable[[], Iterable[Command]] | None = None
    line: bool = False

    @property
    def name(self) -> str:
        """The words as they are read."""
        return self.words.replace("&", "").rstrip("…")

    @property
    def hint(self) -> str:
        """For a tool tip: the name, and the keys that do it."""
        return f"{self.name} ({self.keys})" if self.keys else self.name

    def run(self) -> bool:
        """Do it if there is something to do it to."""
        if not self.able():
            return False
        self.do()
        return True


def keys_of(event: QKeyEvent) -> str:
    """What was pressed, as `Command.keys` has it; the number pad's keys are as the others."""
    modifiers = event.modifiers() & ~Qt.KeyboardModifier.KeypadModifier
    return QKeySequence(QKeyCombination(modifiers, Qt.Key(event.key()))).toString()


def pressed(commands: Iterable[Command], event: QKeyEvent) -> bool:
    """Do what the pressed keys stand for; False where they stand for nothing here."""
    if event.isAutoRepeat():
        return False
    keys = keys_of(event)
    return any(c.keys == keys and c.run() for c in commands)


SIGNS: Final = {"Up": "↑", "Down": "↓", "Left": "←", "Right": "→", "Return": "Enter"}


def sign_of(keys: str) -> str:
    """Keys as they stand on a button: arrows as arrows, Return as it is written on the key."""
    return "+".join(SIGNS.get(key, key) for key in keys.split("+")) if keys else ""


def key_rows(commands: Iterable[Command]) -> list[tuple[str, str]]:
    """Keys and what they do, a row each; commands of one `one_of` share a row. Esc goes without saying."""
    rows: dict[str, tuple[list[str], list[str]]] = {}
    for c in commands:
        if c.keys and c.keys != "Esc":
            keys, names = rows.setdefault(c.one_of or c.id, ([], []))
            keys.append(sign_of(c.keys))
            if c.name not in names:
                names.append(c.name)
    return [(" ".join(keys), ", ".join(names)) for keys, names in rows.values()]

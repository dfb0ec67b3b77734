"""The menu bar, made from the table of commands. A menu shows what can be done at the moment it is opened."""

from __future__ import annotations

from collections.abc import Iterable
from functools import partial

from PySide6.QtGui import QAction, QActionGroup, QKeySequence
from PySide6.QtWidgets import QMenu, QMenuBar

from ventrix.ui.widgets.command import Command


def build_menus(bar: QMenuBar, commands: Iterable[Command]) -> dict[str, QAction]:
    """Fill the menu bar: menus and their lines in the order of the commands. The actions by their keys."""
    by_keys: dict[str, QAction] = {}
    menus: dict[str, QMenu] = {}
    groups: dict[tuple[str, str], QActionGroup] = {}
    for command in commands:
        if not command.menu:
            continue
        if command.menu not in menus:
            menus[command.menu] = bar.addMenu(command.menu)
        menu = menus[command.menu]
        if command.line:
            menu.addSeparator()
        if command.below is not None:
            below = menu.addMenu(command.words)
            below.aboutToShow.connect(partial(_fill, below, command))
            continue
        action = _add(menu, command)
        if command.one_of:
            key = command.menu, command.one_of
            groups.setdefault(key, QActionGroup(menu)).addAction(action)
        if command.keys:
            by_keys[command.keys] = action
    return by_keys


def _add(menu: QMenu, command: Command) -> QAction:
    action = menu.addAction(command.words)
    if command.keys:
        action.setShortcut(QKeySequence(command.keys))
    action.setToolTip(command.hint)
    action.triggered.connect(lambda _checked=False: command.run())
    action.setCheckable(command.checked is not None)

    def now() -> None:
        action.setEnabled(command.able())
        if command.checked is not None:
            action.setChecked(command.checked())
        if command.says is not None:
            action.setText(command.says())

    menu.aboutToShow.connect(now)
    # A greyed action would not hear its shortcut when the time has come: `Command.run` asks again.
    menu.aboutToHide.connect(lambda: action.setEnabled(True))
    now()
    action.setEnabled(True)
    return action


def _fill(menu: QMenu, command: Command) -> None:
    menu.clear()
    assert command.below is not None
    for each in command.below():
        action = menu.addAction(each.words)
        action.setEnabled(each.able())
        action.triggered.connect(lambda _checked=False, c=each: c.run())

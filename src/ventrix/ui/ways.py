"""What a room or a sheet asks of the window by name: another room, a sheet beside it, a command, a job."""

from __future__ import annotations

from typing import Any

from PySide6.QtCore import QObject, Signal


class Ways(QObject):
    """One for a window. Rooms and sheets know no window and none of one another: they ask here, the window answers."""

    room_wanted = Signal(str, object)  # a room's key, what it is entered for or None
    sheet_wanted = Signal(str, object, object)  # a sheet's key, what it is opened with: a tuple, and a dict by name
    command_wanted = Signal(str)  # a command's id
    job_wanted = Signal(str)  # a job's id: opened in the room one came from
    job_begun = Signal(str)  # the bench chosen for a new one
    practice_wanted = Signal(object)  # a PracticeAtWork, in a window of its own
    bench_made = Signal(object)  # a Bench, made or set right: flow with it
    book_counted = Signal(str)  # what the book holds, for the bar above
    far_shown = Signal(bool)  # the far view alone, or everything around it again

    def room(self, key: str, what: object = None) -> None:
        """Enter a room, for something it knows to take."""
        self.room_wanted.emit(key, what)

    def sheet(self, key: str, *what: Any, **named: Any) -> None:
        """Open a sheet beside the room."""
        self.sheet_wanted.emit(key, what, named)

    def command(self, key: str) -> None:
        """Do what a menu's command does, where it can be done now."""
        self.command_wanted.emit(key)

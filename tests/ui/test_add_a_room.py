"""CONTRIBUTING's "Add a room" and "Add a sheet", done: one entry each, and rail, menu, finder, keys and manual have
them."""

from __future__ import annotations

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QLabel, QVBoxLayout

from tests.ui.stand_in import Open
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.command import Command
from ventrix.ui.widgets.form_sheet import FormSheet
from ventrix.ui.widgets.room import Room
from ventrix.ui.window import all_commands, main_window
from ventrix.ui.window.rooms import ROOMS, Door
from ventrix.ui.window.sheets import SHEETS, Sheet


class NotesRoom(Room):
    """Shows the job's title, and opens a sheet."""

    name = "Notes"
    manual = "index"

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book)
        self.words = QLabel()
        QVBoxLayout(self).addWidget(self.words)
        self.commands = (Command("notes.write", "write a note", lambda: self.ways.sheet("note", "first"), "N"),)

    def refresh(self) -> None:
        space = self.open_book.workspace
        self.words.setText("" if space is None else space.job.title)


class NoteSheet(FormSheet):
    """Takes a line of text."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book, "Keep the note")
        self.line = self.add_text("Note")
        self.finish()

    def open(self, text: str = "") -> None:
        self.line.setText(text)
        self.come_up()

    def take(self) -> None:
        self.closed.emit()


def test_one_entry_adds_a_room_and_one_a_sheet(open_window: Open, monkeypatch: pytest.MonkeyPatch) -> None:
    door = Door("notes", "Notes", "=", f"{__name__}:NotesRoom", "what was noted", keyed=True)
    for module in (main_window, all_commands):  # where the one list is read
        monkeypatch.setattr(module, "ROOMS", (*ROOMS, door))
    monkeypatch.setattr(main_window, "SHEETS", (*SHEETS, Sheet("note", f"{__name__}:NoteSheet")))
    window = open_window()
    assert window.rooms.if_made("notes") is None, "nothing is made before it is entered"
    command = next(c for c in window.commands if c.id == "room.notes")
    assert (command.name, command.keys) == ("= Notes", "Ctrl+=")
    command.run()
    room = window.rooms["notes"]
    assert isinstance(room, NotesRoom) and window.room is room and room.isVisible()
    space = window.open_book.workspace
    assert space is not None and room.words.text() == space.job.title
    QTest.keyClick(QApplication.focusWidget() or room, Qt.Key.Key_N)
    sheet = window.sheets["note"]
    assert isinstance(sheet, NoteSheet) and sheet.isVisible() and sheet.line.text() == "first"
    assert any(found.name == "write a note" for found in window._findable())
    QTest.keyClick(sheet.line, Qt.Key.Key_Escape)
    assert sheet.isHidden() and room.isVisible()
    assert ("Notes", room.commands) in window._keys_of_rooms()

"""The book's own copies: one made now, or the whole book put back to one of them."""

from __future__ import annotations

from datetime import date
from functools import partial
from typing import TYPE_CHECKING

from PySide6.QtWidgets import QMessageBox, QWidget

from ventrix.records.bad_input import InputError, sentence_of
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.command import Command, always
from ventrix.ui.window.commands import FILE
from ventrix.words import tr

if TYPE_CHECKING:
    from ventrix.records.book.backups import Backup


class BookCopies:
    """What the File menu does with copies of the book."""

    def __init__(self, open_book: OpenBook, parent: QWidget) -> None:
        self._open_book, self._parent = open_book, parent

    def commands(self) -> tuple[Command, ...]:
        """The book's own copies: one made now, or the whole book put back to one of them."""

        def has_file() -> bool:
            book = self._open_book.book
            own = not self._open_book.demo and self._open_book.practice is None
            return own and book.path is not None and not book.read_only

        return (
            Command("book.backup", tr("&Copy the book now"), self.copy_book, "", FILE, has_file, line=True),
            Command("book.restore", tr("Put the boo&k back to a copy"), always, "", FILE, has_file, below=self.copies),
        )

    def copy_book(self) -> None:
        """Today's copy, made anew."""
        from ventrix.records.book.backups import back_up

        path = self._open_book.book.path
        if path is None:
            return
        try:
            made = back_up(path, date.today(), again=True)
        except InputError as error:
            self._open_book.say(sentence_of(error))
            return
        self._open_book.say(tr("The book is copied to {}.", made.path if made is not None else path))

    def copies(self) -> tuple[Command, ...]:
        """A line for each copy, newest first."""
        from ventrix.records.book.backups import backups_of

        path = self._open_book.book.path
        found = [] if path is None else backups_of(path)
        none = Command("book.no_copy", tr("no copy is there yet"), able=lambda: False)
        return tuple(map(self._copy, found)) or (none,)

    def _copy(self, copy: Backup) -> Command:
        return Command(
            f"book.{copy.day}", tr("{}, {:,.0f} kB…", copy.day, copy.size / 1024), partial(self.put_back, copy.day)
        )

    def put_back(self, day: str) -> None:
        """The whole book as it was on a day, once the user has said so: the window closes, and opens on it."""
        box = QMessageBox(QMessageBox.Icon.Question, tr("Put the book back"), tr("Put the whole book back to {}?", day))
        box.setInformativeText(tr("Every job is then as on that day. The book as it is now is kept beside it."))
        yes = box.addButton(tr("Put it back"), QMessageBox.ButtonRole.AcceptRole)
        box.addButton(tr("Leave it"), QMessageBox.ButtonRole.RejectRole)
        box.exec()
        if box.clickedButton() is yes:
            self._open_book.put_back_to = day
            self._parent.close()

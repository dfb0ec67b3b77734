"""What is done to a job on the shelf: archive, bin, out for good, the next of its kind, and taken back."""

from __future__ import annotations

from datetime import date

from PySide6.QtWidgets import QMessageBox, QWidget

from ventrix.core.model.job import Job
from ventrix.core.quantity.refused import Refused
from ventrix.records.bad_input import BookError, sentence_of
from ventrix.records.book.index import Entry
from ventrix.ui.open_book import OpenBook
from ventrix.words import tr
from ventrix.workspace.shelf import Shelf


class ShelfActs:
    """Each act is stored, then said; what the book does not take is said too."""

    def __init__(self, open_book: OpenBook, shelf: Shelf, over: QWidget) -> None:
        self.open_book, self.shelf, self._over = open_book, shelf, over

    def archive(self, entry: Entry) -> None:
        """Into the archive, or out of it."""
        word = tr("out of the archive") if entry.archived else tr("into the archive")
        self._change(entry, f"'{entry.title}' {word}", archived=not entry.archived)

    def bin(self, entry: Entry) -> None:
        """Into the bin, or out of it; never the job that is open."""
        space = self.open_book.workspace
        if entry.binned is None and space is not None and space.job.id == entry.id:
            self.open_book.say(tr("That job is open: open another before it goes into the bin."))
            return
        binned = None if entry.binned is not None else date.today().isoformat()
        word = tr("out of the bin") if entry.binned is not None else tr("into the bin")
        self._change(entry, f"'{entry.title}' {word}", binned=binned)

    def _change(self, entry: Entry, name: str, **values: object) -> None:
        try:
            self.shelf.change(entry.id, name, **values)
        except KeyError:
            self.open_book.not_kept(tr("That job is no longer in the book."))
        except BookError as error:
            self.open_book.not_kept(sentence_of(error))
        else:
            self.open_book.say(f"{name[0].upper()}{name[1:]}. Ctrl+Z takes it back.")

    def remove(self, entry: Entry | None) -> None:
        """Out of the bin for good, once it was said twice."""
        if entry is None or entry.binned is None:
            self.open_book.say(tr("Only what is in the bin is deleted for good: Ctrl+Del puts it there."))
            return
        words = tr("'{}' with its {} runs goes for good. This cannot be undone.", entry.title, entry.runs)
        if QMessageBox.question(self._over, tr("Delete for good"), words) == QMessageBox.StandardButton.Yes:
            self.shelf.remove(entry.id)
            self.open_book.say(tr("'{}' is gone. The last backup still has it.", entry.title))

    def duplicate(self, entry: Entry) -> Job | None:
        """The next of its kind; None where it was not begun."""
        try:
            job = self.shelf.duplicate(entry.id)
        except (BookError, Refused) as error:
            self.open_book.not_kept(sentence_of(error))
            return None
        self.open_book.say(tr("'{}' begun: head, valves and conditions kept, cuts and runs not.", job.title))
        return job

    def undo(self) -> bool:
        """Take the last act back."""
        try:
            name = self.shelf.undo()
        except (BookError, KeyError) as error:
            self.open_book.not_kept(sentence_of(error))
            return False
        self.open_book.say(tr("Taken back: {}.", name) if name else tr("Nothing to take back in the book."))
        return True

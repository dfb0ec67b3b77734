"""Where the book lies: the user's own file, another one, or a database that several stations share."""

from __future__ import annotations

from pathlib import Path

from ventrix.records.bad_input import InputError, sentence_of
from ventrix.records.book.book import Book
from ventrix.records.book.store import as_location
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.form_sheet import FormSheet
from ventrix.words import tr


class StationSheet(FormSheet):
    """Tries what is typed before it is kept; it takes effect at the next start."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book, tr("Try it, and keep it"))
        self.title.setText(tr("Where the book lies"))
        self.where = self.add_text(tr("File, or a database's address"), tr("your own"))
        self.where.setMaxLength(500)
        self.photos = self.add_text(tr("Folder of photos, shared"), tr("beside the book"))
        self.photos.setMaxLength(500)
        self.finish()
        self.caution.setText(
            tr(
                "As postgresql+psycopg://server/heads. No password in it: ~/.pgpass keeps that. Empty: your own book "
                "on this machine. It takes effect when Ventrix is started again; the book that is open now stays open."
            )
        )

    def open(self) -> None:
        settings = self.open_book.settings
        self.where.setText(str(settings.value("book", "")))
        self.photos.setText(str(settings.value("photo_folder", "")))
        self.problem.clear()
        self.come_up()
        self.where.setFocus()

    def take(self) -> None:
        said, folder = self.where.text().strip(), self.photos.text().strip()
        if folder and not Path(folder).is_dir():
            self.problem.setText(tr("There is no such folder of photos."))
            return
        if said:
            try:
                self.open_book.aside(lambda: Book.open(as_location(said)).close())
            except InputError as error:
                self.problem.setText(sentence_of(error))
                return
        self.open_book.settings.setValue("book", said)
        self.open_book.settings.setValue("photo_folder", folder)
        self.closed.emit()
        self.open_book.say(tr("Kept. The next start opens that book."))

"""A button of a form that keeps a photo for what is being noted."""

from __future__ import annotations

from pathlib import Path

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QFileDialog, QPushButton, QWidget

from ventrix.records.bad_input import InputError
from ventrix.records.files.photos import keep_photo
from ventrix.ui.open_book import OpenBook
from ventrix.words import tr


class PhotoButton(QPushButton):
    """Copies a chosen picture into the book's folder; `file` is its name there, empty without one."""

    refused = Signal(str)

    def __init__(self, open_book: OpenBook, of_what: str, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._open_book, self._of_what = open_book, of_what
        self.file = ""
        self.use("")
        self.clicked.connect(self._choose)

    def use(self, file: str) -> None:
        """Stand for a photo that is kept already; for none."""
        self.file = file
        self.setText(tr("Photo: {}", file) if file else tr("Photo…"))

    def _choose(self) -> None:
        name, _ = QFileDialog.getOpenFileName(
            self, tr("Photo of {}", self._of_what), "", tr("Pictures (*.jpg *.jpeg *.png)")
        )
        if name:
            self.keep(Path(name))

    def keep(self, path: Path) -> bool:
        """Copy a picture into the book's folder; what cannot be read is refused in words."""
        space = self._open_book.workspace
        if space is None:
            return False
        try:
            self.use(keep_photo(space.book.photo_folder, path))
        except InputError as error:
            self.refused.emit(str(error))
            return False
        return True

"""Whose sheets these are: the shop's name, a line below it, its picture."""

from __future__ import annotations

from pathlib import Path

from PySide6.QtWidgets import QFileDialog, QLabel, QPushButton

from ventrix.records.bad_input import InputError, sentence_of
from ventrix.records.files.photos import keep_photo
from ventrix.reports.sheet.contents import Shop
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.form_sheet import FormSheet
from ventrix.words import tr


def shop_of(open_book: OpenBook) -> Shop:
    """The shop as the settings have it; a picture that is gone is left out."""
    settings = open_book.settings
    file = str(settings.value("shop_logo", ""))
    logo = b""
    if file:
        try:
            logo = (open_book.book.photo_folder / Path(file).name).read_bytes()
        except OSError:
            logo = b""
    return Shop(str(settings.value("shop_name", "")), str(settings.value("shop_line", "")), logo)


class ShopSheet(FormSheet):
    """Name, line and logo, kept in the settings; the picture is copied beside the book."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book, tr("Keep"))
        self.title.setText(tr("The shop, as sheets name it"))
        self.name = self.add_text(tr("Name"), tr("your shop"))
        self.line = self.add_text(tr("A line below it"), tr("flow bench and porting"))
        self.choose = QPushButton(tr("Choose its picture…"))
        self.choose.clicked.connect(self._choose)
        self.column.addWidget(self.choose)
        self.logo = QLabel()
        self.logo.setObjectName("caption")
        self.column.addWidget(self.logo)
        self.none = QPushButton(tr("Without a picture"))
        self.none.clicked.connect(lambda: self._use(""))
        self.column.addWidget(self.none)
        self._file = ""
        self.finish()
        self.caution.setText(tr("PNG or JPEG. Nothing is sent anywhere: it stands on the pages that you print."))

    def open(self) -> None:
        settings = self.open_book.settings
        self.name.setText(str(settings.value("shop_name", "")))
        self.line.setText(str(settings.value("shop_line", "")))
        self._use(str(settings.value("shop_logo", "")))
        self.come_up()
        self.name.setFocus()

    def _use(self, file: str) -> None:
        self._file = file
        self.logo.setText(tr("its picture is kept") if file else tr("no picture: a plain mark stands in its place"))

    def _choose(self) -> None:
        name, _ = QFileDialog.getOpenFileName(self, tr("The shop's picture"), "", tr("Pictures (*.png *.jpg *.jpeg)"))
        if name:
            self.take_picture(Path(name))

    def take_picture(self, path: Path) -> None:
        """Copy a picture beside the book; what is wrong with it is said here."""
        try:
            self._use(keep_photo(self.open_book.book.photo_folder, path))
        except InputError as error:
            self.problem.setText(sentence_of(error))

    def take(self) -> None:
        settings = self.open_book.settings
        settings.setValue("shop_name", self.name.text().strip())
        settings.setValue("shop_line", self.line.text().strip())
        settings.setValue("shop_logo", self._file)
        self.open_book.shelf_changed.emit()
        self.was_kept()

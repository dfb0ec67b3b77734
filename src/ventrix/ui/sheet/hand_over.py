"""What leaves the Sheet room: paper, PDF, grinder card, and everything in one archive."""

from __future__ import annotations

from collections.abc import Callable
from datetime import date
from pathlib import Path
from typing import Final, NamedTuple

from PySide6.QtWidgets import QFileDialog, QWidget

from ventrix.core.model.cut import Port
from ventrix.records.bad_input import InputError, sentence_of
from ventrix.records.files.job_folder import write_archive
from ventrix.records.files.whole_file import safe_name, write_whole
from ventrix.reports.sheet.card_contents import Card
from ventrix.reports.sheet.card_pdf import card_pdf
from ventrix.reports.sheet.contents import Choices
from ventrix.rooms.display_units import Units
from ventrix.rooms.sheet.card import card_of
from ventrix.rooms.sheet.everything import everything
from ventrix.ui.open_book import OpenBook
from ventrix.ui.sheet.printing import ask_and_print
from ventrix.ui.sheet.shop_sheet import shop_of
from ventrix.words import tr
from ventrix.workspace.workspace import Workspace

PDF_FILES: Final = "PDF (*.pdf)"


class OnScreen(NamedTuple):
    """The pages as they are shown (empty without a pair), and what was chosen for them."""

    pdf: bytes
    choices: Choices
    units: Units


class HandOver:
    """Prints and writes; what cannot be written is said at the foot."""

    def __init__(self, open_book: OpenBook, over: QWidget, now: Callable[[], OnScreen]) -> None:
        self.open_book, self._over, self._now = open_book, over, now

    def _name(self, what: str) -> str:
        space = self.open_book.workspace
        port = f" {space.port.name}" if space is not None and space.port is not None else ""
        return safe_name(f"{space.job.title if space is not None else 'job'}{port} {what}".strip())

    def print_sheet(self) -> None:
        """The desktop's print dialog, straight from here."""
        now = self._now()
        if now.pdf and ask_and_print(self._over, now.pdf, now.choices.paper, self._name("sheet")):
            self.open_book.say(tr("Sent to the printer."))

    def choose_pdf(self) -> None:
        if self._now().pdf:
            self._ask(tr("Write the sheet"), f"{self._name('sheet')}.pdf", PDF_FILES, self.write_pdf)

    def choose_card(self) -> None:
        self._ask(tr("Write the grinder card"), f"{self._name('card')}.pdf", PDF_FILES, self.write_card)

    def choose_every_card(self) -> None:
        self._ask(tr("Write every grinder card"), f"{self._name('cards')}.pdf", PDF_FILES, self.write_every_card)

    def choose_archive(self) -> None:
        self._ask(
            tr("Everything of the job"), f"{self._name('everything')}.zip", tr("Archives (*.zip)"), self.write_archive
        )

    def _ask(self, title: str, start: str, kinds: str, write: Callable[[Path], bool]) -> None:
        name, _ = QFileDialog.getSaveFileName(self._over, title, start, kinds)
        if name:
            write(Path(name))

    def write_pdf(self, path: Path) -> bool:
        """The pages as they are shown. False, and a sentence at the foot, where they cannot be written."""
        return self._write(path, self._now().pdf, tr("Sheet"))

    def write_card(self, path: Path) -> bool:
        """The grinder card of the port looked at."""
        space, now = self.open_book.workspace, self._now()
        if space is None or space.port is None:
            return False
        card = self._card(space, space.port, now)
        return self._write(path, card_pdf([card]), tr("Grinder card"))

    def write_every_card(self, path: Path) -> bool:
        """The grinder cards of every port of the head, a page each."""
        space, now = self.open_book.workspace, self._now()
        if space is None:
            return False
        ports = [p for p in space.job.ports if p.of_head and p.cuts]
        cards = [self._card(space, p, now) for p in ports]
        return self._write(path, card_pdf(cards), tr("{} grinder cards", len(cards)))

    @staticmethod
    def _card(space: Workspace, port: Port, now: OnScreen) -> Card:
        choices = now.choices
        return card_of(space.findings, port, now.units, date.today(), choices.paper, choices.ink, space.shop.castings())

    def _write(self, path: Path, data: bytes, what: str) -> bool:
        return self._tell(lambda: write_whole(path, data), tr("{} written to {}.", what, path.name))

    def write_archive(self, path: Path) -> bool:
        """Document, tables, workbook, sheet, cards and photos in one archive."""
        space, now = self.open_book.workspace, self._now()
        if space is None:
            return False
        shop, photos = shop_of(self.open_book), self.open_book.book.photo_folder
        files, missing = everything(space.findings, now.units, now.choices, shop, date.today(), photos)
        lost = tr(" {} photos could not be read and are not in it.", len(missing)) if missing else ""
        return self._tell(
            lambda: write_archive(path, files), tr("{} files written to {}.{}", len(files), path.name, lost)
        )

    def _tell(self, write: Callable[[], object], done: str) -> bool:
        try:
            write()
        except InputError as error:
            self.open_book.not_kept(sentence_of(error))
            return False
        self.open_book.say(done)
        return True

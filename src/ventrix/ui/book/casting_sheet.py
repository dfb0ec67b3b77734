"""Casting files: what a casting number taught, sections of a sawn head, and files from and for other shops."""

from __future__ import annotations

from pathlib import Path

from PySide6.QtCore import Qt
from PySide6.QtGui import QPixmap
from PySide6.QtWidgets import QFileDialog, QLabel, QPushButton

from ventrix.core.castings.casting_file import SawnSection
from ventrix.core.castings.sawn import by_size, thicknesses
from ventrix.core.metal.unrolled import ZONE_NAMES
from ventrix.core.model.kinds import Band, Direction
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.words import sentence
from ventrix.records.bad_input import InputError, sentence_of
from ventrix.records.book.index import Index
from ventrix.records.files.casting_document import SUFFIX
from ventrix.rooms.shared.casting_words import CLEARS_NOTHING, casting_lines
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.form_sheet import FormSheet
from ventrix.ui.widgets.trace_view import TraceView
from ventrix.words import tr
from ventrix.workspace.castings import CastingShelf

FILES = tr("Casting files (*{});;Documents (*.json)", SUFFIX)


class CastingSheet(FormSheet):
    """Everything known of a number on top; below it a section is typed, or traced on a photo."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book, tr("Keep the section"), 460)
        self.title.setText(tr("Casting files"))
        self.shelf = CastingShelf(open_book.book, Index(open_book.book))
        self.number = self.add_choice(tr("Casting"), [])
        self.number.setEditable(True)
        self.number.currentTextChanged.connect(lambda _t: self._show())
        self.known = QLabel()
        self.known.setWordWrap(True)
        self.known.setTextFormat(Qt.TextFormat.PlainText)
        self.column.addWidget(self.known)
        self.buttons: dict[str, QPushButton] = {}
        for key, words, act in (
            ("bring", tr("Bring in another shop's file…"), self._choose_file),
            ("write", tr("Write it for another shop…"), self._choose_where),
            ("merge", tr("Make one of the other shops' files"), self.merge),
        ):
            button = QPushButton(words)
            button.clicked.connect(act)
            self.buttons[key] = button
            self.column.addWidget(button)
        self.kind = self.add_choice(tr("A sawn head: which port"), [(k, k) for k in Direction])
        self.place = self.add_choice(tr("Sawn at"), [(z, z) for z in ZONE_NAMES])
        self.walls = {band: self.add_figure(tr("Metal, {}", band.words), "length", small=True) for band in Band}
        self.source = self.add_text(tr("How it is known"), tr("sawn 2026, scrap head"))
        self.apart = self.add_figure(tr("On a photo: the two known points lie apart"), "length")
        photo = QPushButton(tr("Trace it on a photo…"))
        photo.clicked.connect(self._choose_photo)
        self.column.addWidget(photo)
        self.finish()
        self.caution.setText(CLEARS_NOTHING)
        self.tracing = TraceView()
        self.tracing.setWindowTitle(tr("Trace the port, then the metal around it"))
        self.tracing.left.connect(self.take_traced)
        self.tracing.setParent(self, Qt.WindowType.Window)

    def open(self, number: str = "") -> None:
        """Show what is known of a number: that of the open job's head without one."""
        space = self.open_book.workspace
        heads = () if space is None else space.job.heads
        wanted = number or next((h.casting.strip() for h in heads if h.casting.strip()), "")
        self.number.blockSignals(True)
        self.number.clear()
        self.number.addItems(self.shelf.numbers())
        self.number.setCurrentText(wanted or self.number.itemText(0))
        self.number.blockSignals(False)
        self._show()
        self.come_up()
        self.number.setFocus()

    def _number(self) -> str:
        return self.number.currentText().strip()

    def _show(self) -> None:
        found = self.shelf.of(self._number()) if self._number() else ()
        nothing = tr("No head in the book bears a casting number: it is typed with a new job, or here.")
        unknown = tr("Nothing is known of '{}' yet.", self._number()) if self._number() else nothing
        self.known.setText("\n".join(casting_lines(found, self.open_book.units)) or unknown)
        self.buttons["write"].setEnabled(any(not c.whose for c in found))
        self.buttons["merge"].setEnabled(sum(bool(c.whose) for c in found) > 1)

    # -- files of other shops

    def _choose_file(self) -> None:
        name, _ = QFileDialog.getOpenFileName(self, tr("Another shop's casting file"), "", FILES)
        if name:
            self.bring_in(Path(name))

    def bring_in(self, path: Path) -> bool:
        """Keep another shop's file in the library; what is wrong with it is said here."""
        try:
            found = self.shelf.bring_in(path)
        except InputError as error:
            self.problem.setText(sentence_of(error))
            return False
        self.problem.clear()
        self.open(found.number)
        self.open_book.say(tr("The casting file of {} is kept, and stays theirs.", found.whose))
        return True

    def _choose_where(self) -> None:
        start = f"{self._number()}{SUFFIX}"
        name, _ = QFileDialog.getSaveFileName(self, tr("The casting for another shop"), start, FILES)
        if name:
            self.write_out(Path(name))

    def write_out(self, path: Path) -> bool:
        """What one's own heads taught, as a file with the shop's name on it and nothing of a customer."""
        whose = str(self.open_book.settings.value("shop_name", "")) or tr("a shop that did not say its name")
        try:
            found = self.shelf.write_out(self._number(), path, whose)
        except Refused as error:
            said = sentence_of(error) if isinstance(error, InputError) else sentence(str(error))
            self.problem.setText(said)
            return False
        self.open_book.say(tr("Casting {} written to {}, as {} has it.", found.number, path.name, whose))
        return True

    def merge(self) -> None:
        """Make one of the files that other shops sent."""
        try:
            self.shelf.merge(self._number())
        except Refused as error:
            self.problem.setText(sentence(str(error)))
            return
        self._show()

    # -- a sawn head

    def _choose_photo(self) -> None:
        name, _ = QFileDialog.getOpenFileName(
            self, tr("A flat photo of the cut"), "", tr("Pictures (*.png *.jpg *.jpeg)")
        )
        if name:
            self.trace(Path(name))

    def trace(self, path: Path) -> bool:
        """Have a photo traced in a window of its own: two known points, the port, the metal around it."""
        picture = QPixmap(str(path))
        if picture.isNull():
            self.problem.setText(tr("{} is not a picture that can be read.", path.name))
            return False
        self.problem.clear()
        self.tracing.begin(picture)
        self.tracing.resize(900, 640)
        self.tracing.show()
        self.tracing.setFocus()
        return True

    def take_traced(self) -> None:
        """The traced outlines as metal on each side."""
        self.tracing.hide()
        try:
            distance = self.apart.typed()
            if distance is None:
                raise Refused("how far do the two known points lie apart")
            found = dict(thicknesses(*by_size(self.tracing.outlines(distance))))
        except Refused as error:
            self.problem.setText(sentence(str(error)))
            return
        for band, field in self.walls.items():
            field.set_value(found[band.value])
        self.problem.clear()

    def take(self) -> None:
        if not self.settle_fields():
            return
        walls = tuple((band.value, field.typed()) for band, field in self.walls.items())
        known = tuple((side, value) for side, value in walls if value is not None)
        if not known:
            raise Refused("a section has metal on some side: type it, or trace it on a photo")
        section = SawnSection(
            str(self.kind.currentData()), str(self.place.currentData()), known, self.source.text().strip()
        )
        number = self._number()
        self.shelf.keep_section(number, section)
        for field in self.walls.values():
            field.set_value(None)
        self.open(number)
        self.open_book.job_changed.emit()

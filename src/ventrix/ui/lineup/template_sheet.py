"""What is printed at true size: the joint in hand, or one face, of the job or of the library; and how true the printer
is."""

from __future__ import annotations

from pathlib import Path

from PySide6.QtWidgets import QFileDialog

from ventrix.core.lineup.of_job import LineUp
from ventrix.core.model.job_parts import Face
from ventrix.core.model.kinds import LibraryKind
from ventrix.core.quantity.refused import Refused
from ventrix.records.bad_input import InputError
from ventrix.records.files.whole_file import safe_name, write_whole
from ventrix.records.library.items import face_of
from ventrix.reports.sheet.pen import PAPERS
from ventrix.reports.sheet.template_pdf import BAR, Printer, face_pdf, template_pdf
from ventrix.ui.open_book import OpenBook
from ventrix.ui.places import kept_number
from ventrix.ui.widgets.form_sheet import FormSheet
from ventrix.words import tr


class TemplateSheet(FormSheet):
    """Writes a PDF. What the bars measured is kept for this printer, and every later template is set right by it."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book, tr("Write the template"))
        self.title.setText(tr("A template at true size"))
        self.what = self.add_choice(tr("Of"), [])
        self.paper = self.add_choice(tr("Paper"), [(name, name) for name in PAPERS])
        self.across = self.add_figure(tr("Its bar measured, across"), "length", None)
        self.up = self.add_figure(tr("Its bar measured, up"), "length", None)
        self.finish()
        self.caution.setText(
            tr(
                "Print at 100 %, measure both bars of 100 mm (3.937 in), type what they measured, and print again. "
                "Sections of the port at true size are on its grinder card (Sheet)."
            )
        )

    def open(self, found: LineUp | None = None) -> None:
        """Come up for the joint in hand, if there is one."""
        space, settings = self.open_book.workspace, self.open_book.settings
        self.what.clear()
        if found is not None:
            self.what.addItem(tr("{} on {}", found.other.name, found.head.name), found)
        for face in space.job.faces if space is not None else ():
            self.what.addItem(tr("{} alone", face.name), face)
        for item in self.open_book.book.library():
            if item.kind == LibraryKind.OUTLINE:
                self.what.addItem(tr("{}, from the library", item.name), item)
        self.paper.setCurrentText(str(settings.value("template/paper", "A4")))
        for field, name in ((self.across, "across"), (self.up, "up")):
            field.set_value(kept_number(settings, f"template/{name}", None))
        self.come_up()
        self.what.setFocus()

    def take(self) -> None:
        if not self.settle_fields():
            return
        self.printer()
        if self.what.currentData() is None:
            raise Refused("there is no face yet: N in Line-up types one")
        name, _ = QFileDialog.getSaveFileName(
            self, tr("Write the template"), f"{safe_name(self.what.currentText())}.pdf", "PDF (*.pdf)"
        )
        if name and self.write(Path(name)):
            self.closed.emit()

    def printer(self) -> Printer:
        """What the bars measured. ValueError where that cannot be, in words."""
        return Printer(self.across.value or BAR, self.up.value or BAR)

    def write(self, path: Path) -> bool:
        """The PDF at a path; False, with the reason in the sheet, where it cannot be."""
        length = self.open_book.units.length.with_unit
        printer, paper, what = self.printer(), str(self.paper.currentData()), self.what.currentData()
        try:
            if isinstance(what, LineUp):
                pdf = template_pdf(what, paper, printer, length)
            else:
                pdf = face_pdf(what if isinstance(what, Face) else face_of(what), paper, printer, length)
            write_whole(path, pdf)
        except InputError as error:
            self.problem.setText(f"{error}.")
            return False
        settings = self.open_book.settings
        settings.setValue("template/paper", paper)
        for name, field in (("across", self.across), ("up", self.up)):
            if field.value is None:
                settings.remove(f"template/{name}")
            else:
                settings.setValue(f"template/{name}", field.value)
        self.problem.clear()
        self.open_book.say(tr("Template written to {}: measure its bars before you trust it.", path.name))
        return True

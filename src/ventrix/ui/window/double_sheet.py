"""A job that comes in and is in the book already: what is to become of the two."""

from __future__ import annotations

from collections.abc import Mapping

from PySide6.QtWidgets import QLabel, QPushButton, QVBoxLayout

from ventrix.core.model.bench import Bench
from ventrix.core.model.job import Job
from ventrix.core.quantity.refused import Refused
from ventrix.records.bad_input import BookError, sentence_of
from ventrix.records.files.job_folder import keep_photos
from ventrix.records.files.new_ids import renewed
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.side_sheet import SideSheet
from ventrix.words import tr
from ventrix.workspace.workspace import Workspace


class DoubleSheet(SideSheet):
    """The book's own stays open; the other may stand beside it, or take its place, which undo takes back."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__()
        self.open_book = open_book
        self._job: Job | None = None
        self._benches: tuple[Bench, ...] = ()
        self._photos: Mapping[str, bytes] = {}
        self._own = ""
        self.title = QLabel()
        self.title.setObjectName("heading")
        self.title.setWordWrap(True)
        self.words = QLabel()
        self.words.setWordWrap(True)
        self.beside = QPushButton(tr("Bring it in beside it, as a copy"))
        self.beside.clicked.connect(self.bring_beside)
        self.instead = QPushButton(tr("Let it take the place of the book's (undo takes it back)"))
        self.instead.clicked.connect(self.take_its_place)
        self.away = QPushButton(tr("Leave the book as it is (Esc)"))
        self.away.clicked.connect(self.closed)
        self.problem = QLabel()
        self.problem.setObjectName("error")
        self.problem.setWordWrap(True)
        column = QVBoxLayout(self)
        column.setContentsMargins(20, 14, 12, 14)
        for widget in (self.title, self.words, self.beside, self.instead, self.away, self.problem):
            column.addWidget(widget)
        column.addStretch()

    def ask(self, job: Job, benches: tuple[Bench, ...], photos: Mapping[str, bytes], own: Job, name: str) -> None:
        """Come up with both jobs, a line each; `own` is the book's."""
        self._job, self._benches, self._photos, self._own = job, benches, photos, own.id
        self.title.setText(tr("'{}' is in the book already", own.title))
        self.words.setText(tr("The book's own: {}.\n{}: {}.\n\nThe book's own is open.", _line(own), name, _line(job)))
        self.instead.setVisible(job.id == own.id)
        self.problem.clear()
        self.come_up()
        self.beside.setFocus()

    def bring_beside(self) -> None:
        if self._job is None:
            return
        copy = renewed(self._job)
        try:
            keep_photos(self.open_book.book.photo_folder, self._photos)
            self.open_book.book.add_job(copy, benches=self._benches)
        except Refused as error:
            self.problem.setText(sentence_of(error))
            return
        self.closed.emit()
        self.open_book.ways.job_wanted.emit(copy.id)

    def take_its_place(self) -> None:
        space = self.open_book.workspace
        if self._job is None or space is None:
            return
        try:
            if space.job.id != self._own:
                self.open_book.open(Workspace.open(self.open_book.book, self._own))
                space = self.open_book.workspace
            assert space is not None
            keep_photos(self.open_book.book.photo_folder, self._photos)
            space.apply(tr("the document in place of the book's"), self._job)
        except (BookError, Refused) as error:
            self.problem.setText(sentence_of(error))
            return
        self.closed.emit()


def _line(job: Job) -> str:
    cuts = sum(len(p.cuts) for p in job.ports)
    return tr("{} ports, {} cuts, {} runs", len(job.ports), cuts, sum(1 for _ in job.runs()))

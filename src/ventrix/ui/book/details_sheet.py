"""Who a job is for, where it stands, and what was promised."""

from __future__ import annotations

from datetime import date

from ventrix.core.model.kinds import JobState
from ventrix.core.quantity.days import read_day
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.words import sentence
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.form_sheet import FormSheet
from ventrix.words import tr
from ventrix.workspace.shelf import Shelf


class DetailsSheet(FormSheet):
    """Changes the job of a plate, open or not."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book, tr("Keep"))
        self._shelf: Shelf | None = None
        self._job_id = ""
        self.name = self.add_text(tr("Title"))
        self.customer = self.add_text(tr("Who for"), tr("own"))
        self.state = self.add_choice(tr("State"), [(s.words, s) for s in JobState])
        self.waits = self.add_text(tr("Waits for"), tr("guides, ordered Mon"))
        self.promise = self.add_text(tr("Promised for"), tr("2026-05-02, Fri, in 5 days"))
        self.finish()
        self.caution.setText(tr("What is late and what is promised is told on the plate; nothing is sent to anybody."))

    def open(self, shelf: Shelf, job_id: str) -> None:
        """Come up with what the book says of a job."""
        self._shelf, self._job_id = shelf, job_id
        job = self.open_book.book.load(job_id)
        self.title.setText(job.title)
        self.name.setText(job.title)
        self.customer.setText(job.customer)
        self.state.setCurrentIndex(max(self.state.findData(JobState(job.state)), 0))
        self.waits.setText(job.waits_for)
        self.promise.setText(job.promise_date or "")
        self.problem.clear()
        self.come_up()
        self.customer.setFocus()

    def take(self) -> None:
        if self._shelf is None:
            return
        title = self.name.text().strip()
        if not title:
            raise Refused("a job has a title")
        today = date.today()
        try:
            promise = read_day(self.promise.text(), today)
        except Refused as error:
            self.problem.setText(sentence(str(error)))
            self.promise.setFocus()
            return
        state = JobState(self.state.currentData())
        before = self.open_book.book.load(self._job_id)
        handed = before.handed_over if state == before.state else today.isoformat()
        self._shelf.change(
            self._job_id,
            tr("state of '{}'", title),
            title=title,
            customer=self.customer.text().strip(),
            state=state,
            waits_for=self.waits.text().strip(),
            promise_date=promise,
            handed_over=handed if state == JobState.HANDED_OVER else None,
        )
        self.open_book.shelf_changed.emit()
        self.was_kept()

"""What is done to jobs of the book without opening them: their state, archive, bin, the next of a kind. With undo."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Any

from ventrix.core.model.job import Job
from ventrix.records.book.book import Book
from ventrix.words import tr
from ventrix.workspace.new_job import next_of_its_kind
from ventrix.workspace.workspace import Workspace


@dataclass(frozen=True, slots=True)
class _Done:
    """An act on a job of the shelf: what it is called, whose, and the fields as they were."""

    name: str
    job_id: str
    before: dict[str, Any]


class Shelf:
    """The jobs of a book. `open_job` answers the job that a window has open, whose own workspace is then used."""

    def __init__(self, book: Book, open_job: Callable[[], Workspace | None] = lambda: None) -> None:
        self._book = book
        self._open_job = open_job
        self._done: list[_Done] = []

    def _space(self, job_id: str) -> Workspace:
        here = self._open_job()
        return here if here is not None and here.job.id == job_id else Workspace.open(self._book, job_id)

    def change(self, job_id: str, name: str, **values: Any) -> Job:
        """Set fields of a job, on disk when this returns. KeyError for a job that is gone; BookError as every edit."""
        space = self._space(job_id)
        before = {key: getattr(space.job, key) for key in values}
        if before != values:
            space.apply(name, replace(space.job, **values))
            self._done.append(_Done(name, job_id, before))
        return space.job

    @property
    def undo_name(self) -> str | None:
        return self._done[-1].name if self._done else None

    def undo(self) -> str | None:
        """Take back the last act on the shelf; what it was called, None where there is none."""
        if not self._done:
            return None
        done = self._done[-1]
        space = self._space(done.job_id)
        space.apply(tr("undo: {}", done.name), replace(space.job, **done.before))
        self._done.pop()
        return done.name

    def duplicate(self, job_id: str) -> Job:
        """The next job of the same kind, in the book: head, valves and conditions are kept, cuts and runs are not."""
        titles = {e.title for e in self._book.jobs()}
        job = next_of_its_kind(self._space(job_id).job, titles)
        self._book.add_job(job)
        return job

    def remove(self, job_id: str) -> None:
        """Take a job of the bin out for good."""
        self._done = [d for d in self._done if d.job_id != job_id]
        self._book.remove_job(job_id)

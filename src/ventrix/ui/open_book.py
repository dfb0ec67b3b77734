"""What every room shares: the workspace in hand, units, theme, and the bench. Rooms listen to it."""

from __future__ import annotations

from collections.abc import Callable
from concurrent.futures import Future
from typing import TYPE_CHECKING

from PySide6.QtCore import QEventLoop, QObject, QSettings, QTimer, Signal
from PySide6.QtWidgets import QApplication
from sqlalchemy.exc import SQLAlchemyError

from ventrix.core.quantity.words import sentence
from ventrix.records.bad_input import BookError, sentence_of
from ventrix.records.book.book import Book
from ventrix.rooms.display_units import SYSTEMS, US, Units
from ventrix.ui.aside import Aside
from ventrix.ui.bench_bridge import BenchBridge
from ventrix.ui.look import theme
from ventrix.ui.places import keep_place, recall_place
from ventrix.ui.ways import Ways
from ventrix.words import tr
from ventrix.workspace.workspace import Told, Workspace

if TYPE_CHECKING:
    from ventrix.workspace.practice import PracticeAtWork

WATCH = 600  # ms between looks at what other windows wrote


def _nothing() -> None:
    """Where nothing is listened to."""


class OpenBook(QObject):
    """The open book and job, and how they are shown.

    Signals: `job_changed` after every edit, `selection_changed` for another port or cut, `said` for
    the foot of the window, `look_changed` for units or theme, `opened` for another job.
    """

    job_changed = Signal()
    selection_changed = Signal()
    said = Signal(str)
    look_changed = Signal()
    shelf_changed = Signal()  # what the book says of a job that need not be open, or what the shop says of itself
    opened = Signal()
    refused = Signal(str)  # the book did not take an edit: what was typed stays where it is

    def __init__(self, book: Book, workspace: Workspace | None, settings: QSettings, *, demo: bool = False) -> None:
        super().__init__()
        self.book = book
        self.settings = settings
        self.demo = demo
        self.practice: PracticeAtWork | None = None  # set where the book is of a head that does not exist
        self.last_said = ""
        self.put_back_to = ""  # the day of the copy that the book is put back to, once the window has closed
        self.opening_failed = ""  # why the window opened without the last job
        self.units: Units = SYSTEMS.get(str(settings.value("units", "us")), US)
        self.bench = BenchBridge(self)
        self.ways = Ways()
        self.bench.refused.connect(lambda why: self.say(sentence(why)))
        self._stop_listening: Callable[[], None] = _nothing
        self._silent = ""
        book.wait = self._wait
        book.says = self.say
        self.aside = Aside(self.say)
        self._asked = False  # the server is being asked what other stations wrote
        if book.store.line is not None:
            book.store.line.aside = self.aside
        self._watch = QTimer(self)
        self._watch.setInterval(WATCH)
        self._watch.timeout.connect(self.look_for_changes)
        self._watch.start()
        self.workspace: Workspace | None = None
        if workspace is not None:
            self.open(workspace)

    def open(self, workspace: Workspace) -> None:
        """Take a job in hand."""
        self._stop_listening()
        self.workspace = workspace
        self._stop_listening = workspace.subscribe(self._told)
        self.settings.setValue("job", workspace.job.id)
        recall_place(self.settings, workspace)
        self.opened.emit()
        workspace.say(tr("'{}' is open.", workspace.job.title))

    def _told(self, what: Told) -> None:
        if what is Told.JOB:
            self.job_changed.emit()
        elif what is Told.SELECTION:
            if self.workspace is not None:
                keep_place(self.settings, self.workspace)
            self.selection_changed.emit()
        elif self.workspace is not None:
            self.said.emit(self.workspace.said)

    def say(self, sentence: str) -> None:
        """A sentence for the foot of the window, with or without a job in hand."""
        self.last_said = sentence
        if self.workspace is not None:
            self.workspace.say(sentence)
        else:
            self.said.emit(sentence)

    def not_kept(self, sentence: str) -> None:
        """The book did not take an edit: the foot says so until something is stored."""
        self.say(sentence)
        self.refused.emit(sentence)

    def undo(self) -> bool:
        """Take back the last edit; False where there is none, or another window is in the way."""
        return self._turn(lambda space: space.undo())

    def redo(self) -> bool:
        """Do again what was undone."""
        return self._turn(lambda space: space.redo())

    def _turn(self, work: Callable[[Workspace], bool]) -> bool:
        if self.workspace is None:
            return False
        if self.practice is not None:
            self.say(tr("Metal does not come back: in practice nothing is undone."))
            return False
        try:
            return work(self.workspace)
        except BookError as error:
            self.not_kept(sentence_of(error))
            return False

    def look_for_changes(self) -> None:
        """Take in what other windows wrote to the book."""
        space = self.workspace
        if space is None or self._asked:
            return
        if self.book.store.line is None:
            self._take_in(space, lambda: self.book.changed_elsewhere(space.job.id))
            return
        self._asked, held = True, (space.job, space.benches)

        def answered(future: Future[tuple[bool, bool]]) -> None:
            self._asked = False
            # What was written here meanwhile makes the answer an old one.
            if space is self.workspace and held[0] is space.job and held[1] is space.benches:
                self._take_in(space, future.result)

        self.aside.later(lambda: self.book.changed_elsewhere(held[0].id), answered)

    def _take_in(self, space: Workspace, changed: Callable[[], tuple[bool, bool]]) -> None:
        try:
            space.take_in(*changed())
        except BookError as error:
            if str(error) != self._silent:  # once, not twice a second
                self._silent = str(error)
                self.not_kept(sentence_of(error))
        except SQLAlchemyError:
            if not self._silent:
                self._silent = tr("the book does not answer")
                self.not_kept(tr("The book does not answer."))
        else:
            self._silent = ""

    def _wait(self, seconds: float) -> None:
        """While another program holds the book: keep the window alive, and take no keys."""
        loop = QEventLoop()
        QTimer.singleShot(int(1000 * seconds), loop.quit)
        loop.exec(QEventLoop.ProcessEventsFlag.ExcludeUserInputEvents)

    @property
    def reduced_motion(self) -> bool:
        """Nothing moves where the user wants it so."""
        return str(self.settings.value("still", "no")) == "yes"

    def use_reduced_motion(self, on: bool) -> None:
        self.settings.setValue("still", "yes" if on else "no")

    def use_units(self, name: str) -> None:
        self.units = SYSTEMS[name]
        self.settings.setValue("units", name)
        self.look_changed.emit()

    def use_theme(self, name: str) -> None:
        app = QApplication.instance()
        assert isinstance(app, QApplication)
        theme.apply(app, name)
        self.settings.setValue("theme", name)
        self.look_changed.emit()

    def close(self) -> None:
        """Stop the bench and close the book. A second call does nothing."""
        self._watch.stop()
        self._stop_listening()
        self._stop_listening = _nothing
        self.bench.disconnect_bench()
        self.aside.close()
        self.book.close()

"""What every room shares: the workspace in hand, units, theme, and the bench. Rooms listen to it."""

from __future__ import annotations

from PySide6.QtCore import QObject, QSettings, Signal
from PySide6.QtWidgets import QApplication

from ventrix.records.book import Book
from ventrix.ui import theme
from ventrix.ui.bench_bridge import BenchBridge
from ventrix.ui.units import SYSTEMS, US, Units
from ventrix.workspace import Told, Workspace


class Session(QObject):
    """The open book and job, and how they are shown.

    Signals: `job_changed` after every edit, `selection_changed` for another port or cut, `said` for
    the foot of the window, `look_changed` for units or theme, `opened` for another job.
    """

    job_changed = Signal()
    selection_changed = Signal()
    said = Signal(str)
    look_changed = Signal()
    opened = Signal()

    def __init__(self, book: Book, workspace: Workspace | None, settings: QSettings, *, demo: bool = False) -> None:
        super().__init__()
        self.book = book
        self.settings = settings
        self.demo = demo
        self.units: Units = SYSTEMS.get(str(settings.value("units", "us")), US)
        self.bench = BenchBridge(self)
        self._stop_listening = lambda: None
        self.workspace: Workspace | None = None
        if workspace is not None:
            self.open(workspace)

    def open(self, workspace: Workspace) -> None:
        """Take a job in hand."""
        self._stop_listening()
        self.workspace = workspace
        self._stop_listening = workspace.subscribe(self._told)
        self.settings.setValue("job", workspace.job.id)
        self.opened.emit()
        workspace.say(f"'{workspace.job.title}' is open.")

    def _told(self, what: Told) -> None:
        if what is Told.JOB:
            self.job_changed.emit()
        elif what is Told.SELECTION:
            self.selection_changed.emit()
        elif self.workspace is not None:
            self.said.emit(self.workspace.said)

    def say(self, sentence: str) -> None:
        """A sentence for the foot of the window, with or without a job in hand."""
        if self.workspace is not None:
            self.workspace.say(sentence)
        else:
            self.said.emit(sentence)

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
        self._stop_listening()
        self._stop_listening = lambda: None
        self.bench.disconnect_bench()
        self.book.close()

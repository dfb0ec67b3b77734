"""Measuring a scan in a thread of its own, with how far it is and a Stop."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from threading import Event

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QProgressBar, QPushButton, QVBoxLayout, QWidget

from ventrix.core.model.scan import Scan
from ventrix.core.quantity.refused import Refused
from ventrix.core.scan.march import Progress
from ventrix.records.files.mesh_files import MeshData, read_mesh
from ventrix.ui.widgets.planner import Planner
from ventrix.words import tr


def kept_mesh(folder: Path, scan: Scan, whose: str) -> MeshData:
    """A scan that is kept, from the book's own folder. Refused where its file is gone, or can't be read."""
    path = folder / scan.file
    if not path.exists():
        raise Refused("the scan of {} is not in the book's folder any more: bring its file in again", whose)
    return read_mesh(path)


class ScanWork(QWidget):
    """`done` brings what was made, or the refusal that says why there is none. Hidden while nothing runs."""

    done = Signal(object)
    began = Signal()
    ended = Signal()
    _went_on = Signal(float)

    def __init__(self) -> None:
        super().__init__()
        self.progress = QProgressBar()
        self.progress.setRange(0, 100)
        self.progress.setAccessibleName(tr("How far the measuring is"))
        self.stop_button = QPushButton(tr("Stop"))
        self.stop_button.clicked.connect(self.stop)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.addWidget(self.progress)
        column.addWidget(self.stop_button)
        self._planner = Planner()
        self._planner.planned.connect(self._took)
        self._stopped = Event()
        self._went_on.connect(lambda share: self.progress.setValue(round(100 * share)))
        self._show(False)

    @property
    def busy(self) -> bool:
        return self._planner.busy

    def begin(self, make: Callable[[Progress], object]) -> None:
        """Make something that tells how far it is."""
        self._stopped = stopped = Event()

        def said(share: float) -> None:
            if stopped.is_set():
                raise Refused("stopped")
            self._went_on.emit(share)

        self._show(True)
        self._planner.ask(lambda: make(said))

    def stop(self) -> None:
        """Let go of what is being made."""
        self._stopped.set()
        self._planner.stop()
        self._show(False)

    def close_workers(self) -> None:
        """Stop, and wait for the thread to end."""
        self._stopped.set()
        self._planner.close()

    def _show(self, on: bool) -> None:
        self.progress.setValue(0)
        self.setVisible(on)
        (self.began if on else self.ended).emit()

    def _took(self, found: object) -> None:
        self._show(False)
        self.done.emit(found)

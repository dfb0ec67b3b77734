"""What every room is: a page that draws itself from the session when it is looked at."""

from __future__ import annotations

from PySide6.QtCore import QSize
from PySide6.QtGui import QShowEvent
from PySide6.QtWidgets import QWidget

from ventrix.ui.open_book import Session


class Room(QWidget):
    """A room. `refresh` draws it anew; it is called only while the room is on screen."""

    name = ""
    manual = ""  # page of the manual that F1 opens

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.setObjectName("room")
        self.session = session
        self._stale = True
        for signal in (session.opened, session.job_changed, session.selection_changed, session.look_changed):
            signal.connect(self._changed)

    def refresh(self) -> None:
        raise AssertionError("every room draws itself")

    def fit(self, there: QSize) -> None:
        """Give way to the size there is: captions first, then the third column goes into tabs."""

    def _changed(self) -> None:
        if self.isVisible():
            self._stale = False
            self.refresh()
        else:
            self._stale = True

    def showEvent(self, event: QShowEvent) -> None:
        super().showEvent(event)
        if self._stale:
            self._stale = False
            self.refresh()

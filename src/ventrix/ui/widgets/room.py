"""What every room is: a page that draws itself from the open_book when it is looked at."""

from __future__ import annotations

from collections.abc import Sequence
from pathlib import Path
from typing import Final

from PySide6.QtCore import QSize, Qt
from PySide6.QtGui import QKeyEvent, QResizeEvent, QShowEvent
from PySide6.QtWidgets import QFileDialog, QWidget

from ventrix.records.bad_input import InputError
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.command import Command, pressed
from ventrix.ui.widgets.far_page import FarLine, FarPage
from ventrix.ui.widgets.picture_export import copy_picture, save_picture
from ventrix.words import tr

QWIDGETSIZE_MAX: Final = 16_777_215  # Qt's own "no limit", which PySide does not export


class Room(QWidget):
    """A room. `refresh` draws it anew; it is called only while the room is on screen."""

    name = ""
    apart = False  # stands by itself: it needs no job, and no row of cuts above it
    overrides: frozenset[str] = frozenset()  # keys of a menu that mean something of its own in this room
    manual = ""  # page of the manual that F1 opens
    has_far_view = False  # read from two metres, with nothing around it
    folds = False  # words of it that go on in a further line are given the height for it
    alone = False  # its far view has the window to itself

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__()
        self.setObjectName("room")
        self.setAccessibleName(self.name)
        self.open_book = open_book
        self._stale = True
        self._far: FarPage | None = None
        self.commands: tuple[Command, ...] = ()  # the room's own keys
        self.ways = open_book.ways
        for signal in (open_book.opened, open_book.job_changed, open_book.selection_changed, open_book.look_changed):
            signal.connect(self._changed)

    def refresh(self) -> None:
        raise AssertionError("every room draws itself")

    def show_alone(self, alone: bool) -> None:
        """Its far view alone, or everything around it again."""
        if alone == self.alone:
            return
        self.alone = alone
        self.show_far()
        self.ways.far_shown.emit(alone)

    def far_lines(self) -> Sequence[FarLine]:
        """What is read of it from two metres."""
        return ()

    def show_far(self) -> None:
        """Lay the far view over the room, or take it away."""
        if self._far is None:
            self._far = FarPage(self)
        self._far.setVisible(self.alone)
        if self.alone:
            self._far.setGeometry(self.rect())
            self._far.raise_()
            self._far.show_lines(self.far_lines())

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        if self.alone and self._far is not None:
            self._far.setGeometry(self.rect())

    def come_in(self, what: object) -> None:
        """Entered for something: each room takes what it knows."""

    @property
    def busy(self) -> bool:
        """Something is still being reckoned."""
        return False

    def close_workers(self) -> None:
        """The window closes: what runs behind is ended."""

    def picture(self) -> QWidget:
        """What is saved or copied as a picture of the room."""
        return self

    def copy_picture(self) -> None:
        copy_picture(self.picture())
        self.open_book.say(tr("Picture copied."))

    def choose_picture_file(self) -> None:
        start = f"{self.name.lower()}.svg"
        name, _ = QFileDialog.getSaveFileName(self, tr("Save the picture"), start, tr("Pictures (*.svg *.png)"))
        if name:
            self.save_picture(Path(name))

    def save_picture(self, path: Path) -> bool:
        """Write the picture as SVG or PNG at print quality."""
        try:
            save_picture(self.picture(), path)
        except InputError as error:
            self.open_book.say(str(error))
            return False
        self.open_book.say(tr("Picture written to {}.", path.name))
        return True

    def focus_first(self) -> None:
        """Where the keyboard goes when the room is entered."""
        self.setFocus()

    def fit(self, there: QSize) -> None:
        """Give way to the size there is: captions first, then the third column goes into tabs."""

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if self.alone and event.key() == Qt.Key.Key_Escape:
            self.show_alone(False)
        elif not pressed(self.commands, event):
            super().keyPressEvent(event)

    def _changed(self) -> None:
        if self.isVisible():
            self._stale = False
            self.refresh()
            if self.alone and self._far is not None:
                self.show_far()
        else:
            self._stale = True

    def showEvent(self, event: QShowEvent) -> None:
        super().showEvent(event)
        if self._stale:
            self._stale = False
            self.refresh()

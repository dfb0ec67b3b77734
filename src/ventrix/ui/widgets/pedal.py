"""One pedal: a key of the user's choice that works wherever the focus is. Press, hold, press twice."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtCore import QElapsedTimer, QEvent, QObject, Qt, QTimer, Signal
from PySide6.QtGui import QKeyEvent, QKeySequence
from PySide6.QtWidgets import QApplication, QInputDialog

from ventrix.ui.open_book import OpenBook
from ventrix.words import tr

HOLD = 650  # ms
DOUBLE = 420  # ms between two presses that belong together
DEFAULT_KEY = "PgDown"


class Pedal(QObject):
    """Watches for its key while `listening` says so. Auto-repeat is ignored.

    A press is told when the key is let go, so that a hold is not a press first; what is kept is the
    mean of the seconds before it in any case.
    """

    pressed = Signal()
    held = Signal()
    doubled = Signal()

    def __init__(self, listening: Callable[[], bool], parent: QObject | None = None) -> None:
        super().__init__(parent)
        self._listening = listening
        self.key = 0
        self.use(DEFAULT_KEY)
        self._down = False
        self._told_hold = False
        self._since_press = QElapsedTimer()
        self._timer = QTimer(self)
        self._timer.setSingleShot(True)
        self._timer.setInterval(HOLD)
        self._timer.timeout.connect(self._held)

    def use(self, key: str) -> bool:
        """Take another key, by its name; False where there is no such key."""
        sequence = QKeySequence(key)
        if sequence.count() != 1:
            return False
        found = sequence[0].key().value  # type: ignore[index]
        if found <= 0 or found == Qt.Key.Key_unknown.value:
            return False
        self.key, self.name = found, sequence.toString()
        return True

    def watch(self, on: bool) -> None:
        """Watch every key of the program, or none: only while its room is looked at."""
        app = QApplication.instance()
        if app is None:
            return
        app.removeEventFilter(self)
        if on:
            app.installEventFilter(self)

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        if event.type() not in (QEvent.Type.KeyPress, QEvent.Type.KeyRelease, QEvent.Type.ShortcutOverride):
            return False
        assert isinstance(event, QKeyEvent)
        if event.key() != self.key or not self._listening():
            return False
        if event.type() == QEvent.Type.ShortcutOverride:
            event.accept()
            return True
        if event.isAutoRepeat():
            return True
        if event.type() == QEvent.Type.KeyPress:
            if not self._down:  # the same press comes once for every widget on its way up
                self._down, self._told_hold = True, False
                self._timer.start()
            return True
        if self._down:
            self._let_go()
        return True

    def _held(self) -> None:
        self._told_hold = True
        self._since_press.invalidate()
        self.held.emit()

    def _let_go(self) -> None:
        self._down = False
        self._timer.stop()
        if self._told_hold:
            return
        if self._since_press.isValid() and self._since_press.elapsed() <= DOUBLE:
            self._since_press.invalidate()
            self.doubled.emit()
            return
        self._since_press.start()
        self.pressed.emit()


def choose_pedal(pedal: Pedal, open_book: OpenBook) -> None:
    """Take the key of the user's pedal by its name, and remember it."""
    window = QApplication.activeWindow()
    text, ok = QInputDialog.getText(
        window, tr("Pedal"), tr("The key that the pedal types, by its name (PgDown, F8, B):"), text=pedal.name
    )
    if ok and pedal.use(text.strip()):
        open_book.settings.setValue("pedal", pedal.name)
        open_book.say(tr("Pedal: {}. Press keeps, hold strikes, twice repeats.", pedal.name))
    elif ok:
        open_book.say(tr("'{}' is not the name of a key.", text))

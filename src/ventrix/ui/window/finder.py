"""Ctrl+K: find any command, calculator, cut or job by typing a few of its letters."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from PySide6.QtCore import QEvent, QObject, QRectF, Qt
from PySide6.QtGui import QKeyEvent, QPainter, QPaintEvent
from PySide6.QtWidgets import QLabel, QLineEdit, QListWidget, QListWidgetItem, QVBoxLayout, QWidget

from ventrix.ui.look import theme
from ventrix.ui.look.marks import draw_corners
from ventrix.words import tr

WIDTH, HEIGHT = 560, 420


@dataclass(frozen=True, slots=True)
class Found:
    """Something that can be found: its name, what kind of thing it is, more words, and what it does."""

    name: str
    kind: str
    words: str
    do: Callable[[], object]


def matching(entries: list[Found], text: str) -> list[Found]:
    """Entries in which every typed word stands; those with it in the name first, else in the order given."""
    words = text.lower().split()
    hits = [
        (sum(word not in e.name.lower() for word in words), e)
        for e in entries
        if all(word in f"{e.name} {e.kind} {e.words}".lower() for word in words)
    ]
    return [e for _, e in sorted(hits, key=lambda pair: pair[0])]


class Finder(QWidget):
    """A box and a list over the middle of the window. Enter does, Esc leaves."""

    def __init__(self, owner: QWidget, entries: Callable[[], list[Found]]) -> None:
        super().__init__(owner)
        self._entries_now = entries
        self._entries: list[Found] = []
        self._shown: list[Found] = []
        self.box = QLineEdit()
        self.box.setPlaceholderText(tr("a command, a calculator, a cut or a job"))
        self.box.setAccessibleName(tr("Find"))
        self.list = QListWidget()
        self.list.setAccessibleName(tr("Found"))
        self.list.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.list.setStyleSheet("QListWidget { border: none; } QListWidget::item { padding: 5px; }")
        self._none = QLabel(tr("Nothing by these words."))
        self._none.setObjectName("quiet")
        column = QVBoxLayout(self)
        column.setContentsMargins(16, 16, 16, 16)
        column.addWidget(self.box)
        column.addWidget(self._none)
        column.addWidget(self.list, 1)
        self.box.textChanged.connect(self._search)
        self.box.installEventFilter(self)
        self.list.itemClicked.connect(lambda _item: self.do())
        self.hide()

    def open(self, entries: Callable[[], list[Found]] | None = None) -> None:
        """Come up empty, over the middle of the window, with everything or with these entries."""
        owner = self.parentWidget()
        assert owner is not None
        self.setGeometry((owner.width() - WIDTH) // 2, 90, WIDTH, HEIGHT)
        self._entries = (entries or self._entries_now)()
        self.box.clear()
        self._search()
        self.show()
        self.raise_()
        self.box.setFocus()

    def _search(self) -> None:
        self._shown = matching(self._entries, self.box.text())[:60]
        self.list.clear()
        for entry in self._shown:
            self.list.addItem(QListWidgetItem(f"{entry.name}   ·   {entry.kind}"))
        self.list.setCurrentRow(0)
        self._none.setVisible(not self._shown)

    def do(self) -> None:
        """Do what the chosen line says."""
        at = self.list.currentRow()
        if 0 <= at < len(self._shown):
            self.hide()
            self._shown[at].do()

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        if watched is self.box and isinstance(event, QKeyEvent) and event.type() == QEvent.Type.KeyPress:
            step = {Qt.Key.Key_Down: 1, Qt.Key.Key_Up: -1}.get(Qt.Key(event.key()))
            if step is not None and self._shown:
                self.list.setCurrentRow((self.list.currentRow() + step) % len(self._shown))
                return True
            if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
                self.do()
                return True
            if event.key() == Qt.Key.Key_Escape:
                self.hide()
                return True
        if watched is self.box and event.type() == QEvent.Type.FocusOut and self.isVisible():
            self.hide()
        return super().eventFilter(watched, event)

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        box = QRectF(self.rect()).adjusted(0, 0, -1, -1)
        painter.fillRect(box, theme.colour("panel"))
        painter.setPen(theme.colour("brass"))
        painter.drawRect(box)
        draw_corners(painter, box.adjusted(4, 4, -4, -4), "brass")

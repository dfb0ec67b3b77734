"""The three bars around every room: the job bar above, the rail at the side, the foot below."""

from __future__ import annotations

from typing import Final

from PySide6.QtCore import Qt, QTimer, Signal
from PySide6.QtGui import QFontMetrics, QResizeEvent
from PySide6.QtWidgets import QButtonGroup, QHBoxLayout, QLabel, QMenu, QPushButton, QVBoxLayout, QWidget

from ventrix.rooms.shared.conditions_words import in_words
from ventrix.ui.look import theme
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.elided_label import ElidedLabel
from ventrix.words import tr

LONGEST: Final = 330  # px of a job's title
TITLE: Final = 0.32  # of the bar that it may take


class JobBar(QWidget):
    """Job title, port, conditions in words, bench."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__()
        self._open_book = open_book
        self._of_book: str | None = None
        self._apart = ""
        self.setObjectName("bar")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.setFixedHeight(40)
        self.title = QLabel()
        self.title.setObjectName("title")
        self.port = QPushButton()
        self.port.setObjectName("flat")
        self.port.setAccessibleName(tr("Port"))
        self._menu = QMenu(self)
        self.port.setMenu(self._menu)
        self.conditions = ElidedLabel()
        self.conditions.setObjectName("quiet")
        self.bench = QLabel()
        self.bench.setAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
        row = QHBoxLayout(self)
        row.setContentsMargins(16, 0, 16, 0)
        row.setSpacing(12)
        row.addWidget(self.title)
        row.addWidget(self.port)
        row.addSpacing(20)
        row.addWidget(self.conditions, 1)
        row.addWidget(self.bench)
        for signal in (open_book.opened, open_book.job_changed, open_book.selection_changed, open_book.look_changed):
            signal.connect(self.refresh)
        open_book.bench.state_changed.connect(self.refresh)
        self.refresh()

    def show_book(self, words: str | None, title: str = tr("The book")) -> None:
        """Speak of the book, or of a room apart, while it is looked at; None: of the job again."""
        self._of_book, self._apart = words, title
        self.refresh()

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self.refresh()

    def refresh(self) -> None:
        space, bench = self._open_book.workspace, self._open_book.bench
        mark = "■ " if bench.connected else ("□ " if bench.active else "")
        self.bench.setText(f"{mark}{bench.sentence}")
        shade = "better" if bench.connected else ("worse" if bench.active else "quiet")
        self.bench.setStyleSheet(f"color: {getattr(theme.current(), shade)}")
        self._menu.clear()
        practice = self._open_book.practice
        if practice is not None:
            from ventrix.rooms.practice.shows import hours_text

            spent, hours = hours_text(practice.practice.minutes), practice.practice.hours
            self.bench.setText(tr("owner's clock {} of {:g}:00", spent, hours))
        if self._of_book is not None:
            self.title.setText(self._apart)
            self.title.setToolTip("")
            self.port.hide()
            self.conditions.say(self._of_book)
            return
        if space is None or space.port is None or space.cut is None:
            self.title.setText(tr("No job open"))
            self.port.hide()
            self.conditions.say("")
            return
        metrics = QFontMetrics(theme.font(15, weight=600))
        room = min(LONGEST, int(TITLE * self.width()))
        self.title.setText(metrics.elidedText(space.job.title, Qt.TextElideMode.ElideRight, room))
        self.title.setToolTip(space.job.title)
        self.port.show()
        self.port.setText(f"{space.port.name}  ▾")
        kind = theme.current().port(space.port.kind)
        self.port.setStyleSheet(f"color: {kind}; font-weight: 600; font-size: 15px")
        for port in space.job.ports:
            action = self._menu.addAction(port.name)
            action.triggered.connect(lambda _checked=False, i=port.id: space.look_at_port(i))
        if space.cut.runs:
            run = space.cut.runs[-1]
            mount = space.job.mount(run.mount_id)
            words = in_words(space.job.setup(run.setup_id), mount.number if mount else None, self._open_book.units)
            self.conditions.say(words)
        else:
            self.conditions.say(tr("this cut has not been flowed yet"))


class Rail(QWidget):
    """The rooms, in the order of work."""

    chosen = Signal(int)

    def __init__(self, names: list[str], apart: int = 0) -> None:
        """`apart` of the names, the last ones, stand at the foot."""
        super().__init__()
        self.setObjectName("rail")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.setFixedWidth(92)
        self.names = names
        self._group = QButtonGroup(self)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 16, 0, 16)
        column.setSpacing(4)
        for i, name in enumerate(names):
            if i == len(names) - apart:
                column.addStretch()
            button = QPushButton(f"{name}")
            button.setObjectName("room-button")
            button.setCheckable(True)
            button.setFixedHeight(44)
            button.setAccessibleName(tr("Room: {}", name))
            self._group.addButton(button, i)
            column.addWidget(button)
        if not apart:
            column.addStretch()
        self._group.idClicked.connect(self.chosen)
        self.restyle()

    def hint(self, hints: list[str]) -> None:
        """What each button says when it is pointed at."""
        for button, words in zip(self._group.buttons(), hints, strict=True):
            button.setToolTip(words)

    def restyle(self) -> None:
        """Take on the theme in force."""
        t = theme.current()
        self.setStyleSheet(
            "QPushButton { border: none; border-left: 3px solid transparent; text-align: left;"
            f" padding-left: 13px; color: {t.quiet}; font-size: 15px; }}"
            f"QPushButton:hover, QPushButton:focus {{ color: {t.brass}; }}"
            f"QPushButton:checked {{ background: {t.raised}; border-left: 3px solid {t.brass};"
            f" color: {t.text}; font-weight: 600; }}"
        )

    def show_chosen(self, index: int) -> None:
        self._group.button(index).setChecked(True)


STAYS: Final = 8000  # ms


class Foot(QWidget):
    """The last thing done, in words; when it was saved; what undo would take back."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__()
        self._open_book = open_book
        self.setObjectName("foot")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.setFixedHeight(34)
        self._told = ""
        self.said = QLabel()
        self.saved = QLabel()
        self.saved.setObjectName("quiet")
        self._over = QTimer(self, interval=STAYS, singleShot=True)  # what happened is told, then the foot is clear
        self._over.timeout.connect(self.said.clear)
        row = QHBoxLayout(self)
        row.setContentsMargins(16, 0, 16, 0)
        row.addWidget(self.said, 1)
        row.addWidget(self.saved)
        open_book.said.connect(self._say)
        open_book.refused.connect(self._warn)
        open_book.job_changed.connect(self.refresh)
        open_book.opened.connect(self.refresh)
        self.refresh()

    def _say(self, sentence: str) -> None:
        metrics = QFontMetrics(self.said.font())
        self.said.setText(metrics.elidedText(sentence, Qt.TextElideMode.ElideRight, 760))
        self.said.setToolTip(sentence)
        self._over.start()

    def _warn(self, sentence: str) -> None:
        """What the book did not take, marked until something is stored again."""
        self._say(f"▼ {sentence}")
        self._over.stop()
        self.said.setObjectName("error")
        self.said.style().polish(self.said)

    def refresh(self) -> None:
        space = self._open_book.workspace
        if self.said.objectName():
            self.said.setObjectName("")
            self.said.style().polish(self.said)
        if space is not None and space.said != self._told:
            self._told = space.said
            self._say(space.said)
        parts = []
        if space is not None and space.saved_at is not None:
            parts.append(tr("saved {}", space.saved_at[11:16]))
        if space is not None and space.undo_name is not None and self._open_book.practice is None:
            parts.append(tr("undo: {}", space.undo_name))
        self.saved.setText(" · ".join(parts))

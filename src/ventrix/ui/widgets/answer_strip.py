"""A room's answer on top: large, with its reason below and figures with their captions beside it."""

from __future__ import annotations

from html import escape
from typing import Final

from PySide6.QtCore import Qt
from PySide6.QtGui import QFontMetricsF, QResizeEvent
from PySide6.QtWidgets import QBoxLayout, QHBoxLayout, QLabel, QSizePolicy, QVBoxLayout, QWidget

from ventrix.ui.look import theme
from ventrix.ui.widgets.rich_label import RichLabel

NARROW: Final = 640  # px


def say_large(label: QLabel, words: str, size: int, shade: str) -> None:
    """Words that are read from two metres."""
    label.setText(words)
    label.setStyleSheet(f"font-family: '{theme.NARROW}'; font-weight: 600; font-size: {size}px; color: {shade}")


class Headline(RichLabel):
    """A verdict as large as its room lets it stand, in one line; in two of the least size where that is not enough."""

    LEAST = 22  # px

    def __init__(self) -> None:
        super().__init__()
        self._words, self._size, self._shade = "", self.LEAST, ""
        self._first, self._first_shade = "", ""
        # A long verdict never pushes its window wider.
        self.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Preferred)

    def say(self, words: str, size: int, shade: str, first: str = "", first_shade: str = "") -> None:
        """Words, at most so large, after a `first` one in a shade of its own."""
        self._words, self._size, self._shade = words, size, shade
        self._first, self._first_shade = first, first_shade
        self._fit()

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self._fit()

    def _fit(self) -> None:
        plain = f"{self._first} {self._words}" if self._first else self._words
        at_100 = QFontMetricsF(theme.font(100, narrow=True, weight=600)).horizontalAdvance(plain)
        fits = int(100 * (self.width() - 4) / at_100) if at_100 else self._size
        self.setWordWrap(fits < self.LEAST)
        first = f"<span style='color:{self._first_shade}'>{escape(self._first)}</span> " if self._first else ""
        size = max(min(self._size, fits), min(self.LEAST, self._size))
        say_large(self, first + escape(self._words), size, self._shade)


class AnswerStrip(QWidget):
    """`verdict` over `reason`, and so many `figures` beside them, each over its caption."""

    def __init__(self, figures: int = 1) -> None:
        super().__init__()
        self.setObjectName("panel")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.verdict, self.reason = Headline(), QLabel()
        self.reason.setObjectName("quiet")
        self.reason.setWordWrap(True)
        self.figures = [(QLabel(), QLabel()) for _ in range(figures)]
        words = QVBoxLayout()
        words.setSpacing(0)
        words.addWidget(self.verdict)
        words.addWidget(self.reason)
        self.row = QHBoxLayout(self)
        self.row.setContentsMargins(16, 6, 16, 6)
        self.row.setSpacing(28)
        self.row.addLayout(words, 3)
        beside = QHBoxLayout()
        beside.setSpacing(28)
        self.row.addLayout(beside)
        for figure, caption in self.figures:
            column = QVBoxLayout()
            column.setSpacing(0)
            caption.setObjectName("quiet")
            column.addWidget(figure)
            column.addWidget(caption)
            beside.addLayout(column)

    def resizeEvent(self, event: QResizeEvent) -> None:
        """In a narrow room the figures stand under the words."""
        super().resizeEvent(event)
        narrow = self.width() < NARROW
        self.row.setDirection(QBoxLayout.Direction.TopToBottom if narrow else QBoxLayout.Direction.LeftToRight)
        self.row.setSpacing(4 if narrow else 28)

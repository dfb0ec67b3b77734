"""A room's answer on top: large, with its reason below and figures with their captions beside it."""

from __future__ import annotations

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QHBoxLayout, QLabel, QSizePolicy, QVBoxLayout, QWidget

from ventrix.ui.look import theme


def say_large(label: QLabel, words: str, size: int, shade: str) -> None:
    """Words that are read from two metres; they may be rich text."""
    label.setText(words)
    label.setStyleSheet(f"font-family: '{theme.NARROW}'; font-weight: 600; font-size: {size}px; color: {shade}")


class AnswerStrip(QWidget):
    """`verdict` over `reason`, and so many `figures` beside them, each over its caption."""

    def __init__(self, figures: int = 1) -> None:
        super().__init__()
        self.setObjectName("panel")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.verdict, self.reason = QLabel(), QLabel()
        # A long verdict is cut off before it pushes its window wider.
        self.verdict.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Preferred)
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
        for figure, caption in self.figures:
            column = QVBoxLayout()
            column.setSpacing(0)
            caption.setObjectName("quiet")
            column.addWidget(figure)
            column.addWidget(caption)
            self.row.addLayout(column)

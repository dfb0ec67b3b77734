"""The verdict: a headline, one sentence with its reason, and what it was judged by."""

from __future__ import annotations

from PySide6.QtCore import QRectF, Qt, Signal
from PySide6.QtGui import QPainter, QPaintEvent
from PySide6.QtWidgets import QLabel, QPushButton, QVBoxLayout, QWidget

from ventrix.core.judging.verdict import Verdict
from ventrix.core.model.kinds import Result
from ventrix.ui.look import theme
from ventrix.ui.look.marks import draw_corners, draw_mark
from ventrix.words import tr


class VerdictCard(QWidget):
    """Shows a `Verdict`, with a button that begins the check it hangs on."""

    check_wanted = Signal()

    def __init__(self) -> None:
        super().__init__()
        self._marks: tuple[str, ...] = ()
        self._large = False
        self.headline = QLabel()
        self.headline.setWordWrap(True)
        self.sentence = QLabel()
        self.sentence.setWordWrap(True)
        self.sentence.setTextInteractionFlags(Qt.TextInteractionFlag.TextSelectableByMouse)
        self.judged_by = QLabel()
        self.judged_by.setObjectName("caption")
        self.judged_by.setWordWrap(True)
        column = QVBoxLayout(self)
        column.setContentsMargins(20, 14, 16, 14)
        column.setSpacing(6)
        self.warnings = QLabel()
        self.warnings.setObjectName("quiet")
        self.warnings.setWordWrap(True)
        self.check = QPushButton()
        self.check.clicked.connect(self.check_wanted)
        self.check.hide()
        for part in (self.headline, self.sentence, self.check, self.warnings, self.judged_by):
            column.addWidget(part)

    def show_large(self, large: bool) -> None:
        """Larger, to be read from a distance; what it was judged by gives way."""
        self._large = large
        self.judged_by.setVisible(not large)

    def show_verdict(self, verdict: Verdict, judged_by: str, check: str = "") -> None:
        self.check.setText(check)
        self.check.setVisible(bool(check))
        self._marks = (Result.BETTER, Result.WORSE) if verdict.trade else (verdict.result,)
        shade = theme.current().text if verdict.trade else theme.current().result(verdict.result)
        indent = 26 * len(self._marks)
        self.headline.setStyleSheet(
            f"color: {shade}; font-size: {40 if self._large else 24}px; font-weight: 600; padding-left: {indent}px"
        )
        self.headline.setText(verdict.headline)
        self.sentence.setStyleSheet(f"font-size: {24 if self._large else 15}px")
        self.sentence.setText(verdict.sentence)
        self.warnings.setText("\n".join(verdict.warnings))
        self.warnings.setVisible(bool(verdict.warnings))
        self.judged_by.setText(judged_by)
        self.setAccessibleName(tr("Verdict: {} {}", verdict.headline, verdict.sentence))
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        box = QRectF(self.rect()).adjusted(0, 0, -1, -1)
        painter.fillRect(box, theme.colour("panel"))
        draw_corners(painter, box, "brass", 12)
        middle = self.headline.geometry().top() + self.headline.fontMetrics().height() / 2
        for i, mark in enumerate(self._marks):
            draw_mark(painter, QRectF(21 + 24 * i, middle - 7, 15, 14), mark)

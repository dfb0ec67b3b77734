"""Limits printed on the page: converted, not measured, not proven, left out. It stands on the page as well."""

from __future__ import annotations

from collections.abc import Sequence

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QHBoxLayout, QLabel, QVBoxLayout, QWidget

from ventrix.reports.sheet.contents import Owned
from ventrix.ui.look import theme
from ventrix.words import tr


class OwnedPanel(QWidget):
    """A heading, and a line for each thing."""

    def __init__(self) -> None:
        super().__init__()
        heading = QLabel(tr("Limits printed on the page"))
        heading.setObjectName("heading")
        self._rows = QVBoxLayout()
        self._rows.setSpacing(10)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.addWidget(heading)
        column.addLayout(self._rows)
        column.addStretch()

    def show_owned(self, owned: Sequence[Owned]) -> None:
        while (item := self._rows.takeAt(0)) is not None:
            widget = item.widget()
            if widget is not None:
                widget.hide()
                widget.deleteLater()
        for each in owned:
            self._rows.addWidget(_line(each))
        if not owned:
            self._rows.addWidget(QLabel(tr("Nothing.")))

    @property
    def words(self) -> str:
        return " ".join(label.text() for label in self.findChildren(QLabel))


def _line(each: Owned) -> QWidget:
    line = QWidget()
    row = QHBoxLayout(line)
    row.setContentsMargins(0, 0, 0, 0)
    row.setSpacing(10)
    row.addWidget(_Shape(each.shape), 0, Qt.AlignmentFlag.AlignTop)
    words = QVBoxLayout()
    words.setSpacing(0)
    title = QLabel(each.title)
    title.setStyleSheet("font-weight: 600; font-size: 15px")
    says = QLabel(each.says)
    says.setObjectName("quiet")
    says.setWordWrap(True)
    words.addWidget(title)
    words.addWidget(says)
    row.addLayout(words, 1)
    return line


class _Shape(QWidget):
    """The shape of a kind of thing, told without colour."""

    def __init__(self, shape: str) -> None:
        super().__init__()
        self._shape = shape
        self.setFixedSize(18, 20)

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        box = QRectF(2, 4, 13, 13)
        t = theme.current()
        if self._shape == "missing":
            painter.setPen(QPen(theme.colour("scribe"), 1.4, Qt.PenStyle.DashLine))
            painter.drawRect(box)
        elif self._shape == "unproven":
            painter.setPen(QPen(theme.colour(t.unproven), 2.4))
            painter.drawLine(QPointF(box.left(), box.center().y()), QPointF(box.right(), box.center().y()))
        elif self._shape == "left":
            painter.setPen(QPen(theme.colour(t.worse), 2))
            painter.drawLine(box.topLeft(), box.bottomRight())
            painter.drawLine(box.topRight(), box.bottomLeft())
        elif self._shape == "same":
            painter.setPen(QPen(theme.colour(t.better), 2.2))
            painter.drawPolyline(
                [QPointF(box.left(), box.center().y()), QPointF(box.left() + 5, box.bottom()), box.topRight()]
            )
        else:
            painter.setPen(QPen(theme.colour("brass"), 2.4))
            x = box.center().x()
            painter.drawLine(QPointF(x, box.top()), QPointF(x, box.bottom()))
            painter.drawLine(QPointF(x - 4, box.top() + 4), QPointF(x + 4, box.top() + 4))

"""Openings traced on a flat scan or photo: two points whose distance is known, then clicks along each edge."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Final

import numpy as np
from PySide6.QtCore import QPointF, QRectF, Qt, Signal
from PySide6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen, QPixmap, QPolygonF
from PySide6.QtWidgets import QWidget

from ventrix.core.quantity.refused import Refused
from ventrix.ui.look import theme
from ventrix.ui.widgets.painted_text import paint_text
from ventrix.words import tr

FEWEST: Final = 3
NUDGE: Final = 2.0  # px of the picture that an arrow moves the cross; ten times that with Shift

Points = list[tuple[float, float]]


class TraceView(QWidget):
    """A click, or Space at the cross, puts a point; Enter closes an opening, Backspace takes the last point back."""

    changed = Signal()
    left = Signal()  # Esc, or done

    def __init__(self) -> None:
        super().__init__()
        self.picture = QPixmap()
        self.known: list[QPointF] = []  # the two known points, in the picture's pixels
        self.closed: list[list[QPointF]] = []
        self.points: list[QPointF] = []
        self.cross = QPointF()
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName(tr("Tracing openings on a picture"))

    def begin(self, picture: QPixmap) -> None:
        """A new picture, and nothing traced on it."""
        self.picture = picture
        self.known, self.closed, self.points = [], [], []
        self.cross = QPointF(picture.width() / 2, picture.height() / 2)
        self._tell()

    @property
    def says(self) -> str:
        """What comes next."""
        if len(self.known) < 2:
            return tr("Click the {} of two points whose distance you know", "first" if not self.known else "second")
        if not self.points:
            return tr("{} openings. Click along the next one's edge; Esc when all are there", len(self.closed))
        return tr("{} points. Enter closes the opening, Backspace takes the last back", len(self.points))

    def outlines(self, distance: float) -> list[Points]:
        """Every opening in metres, left to right: from the first known point, x towards the second, y up.

        Raises ValueError where the two known points are one, or nothing was closed.
        """
        if len(self.known) < 2 or distance <= 0:
            raise Refused("two points and their distance are needed first")
        first, second = (np.array([p.x(), -p.y()]) for p in self.known)
        along = second - first
        apart = float(np.linalg.norm(along))
        if apart < 1:
            raise Refused("the two known points are one")
        if not self.closed:
            raise Refused("no opening was closed yet: Enter closes one")
        c, s = along / apart
        turn = np.array([[c, s], [-s, c]])
        found = []
        for curve in self.closed:
            points = (np.array([[p.x(), -p.y()] for p in curve]) - first) @ turn.T * (distance / apart)
            found.append([(float(x), float(y)) for x, y in points])
        return sorted(found, key=lambda f: float(np.mean([x for x, _ in f])))

    def _frame(self) -> tuple[float, QPointF]:
        if self.picture.isNull():
            return 1.0, QPointF()
        scale = min(self.width() / self.picture.width(), (self.height() - 26) / self.picture.height())
        return scale, QPointF((self.width() - scale * self.picture.width()) / 2, 26.0)

    def put(self, at: QPointF) -> None:
        """A point, in the picture's pixels."""
        (self.known if len(self.known) < 2 else self.points).append(at)
        self._tell()

    def _take_back(self) -> None:
        """The last point; the last opening where none is begun; the known points last of all."""
        if self.points:
            self.points.pop()
        elif self.closed:
            self.points = self.closed.pop()
        elif self.known:
            self.known.pop()

    def _tell(self) -> None:
        self.setAccessibleDescription(self.says)
        self.update()
        self.changed.emit()

    def mousePressEvent(self, event: QMouseEvent) -> None:
        scale, corner = self._frame()
        self.cross = (event.position() - corner) / scale
        self.put(QPointF(self.cross))
        self.setFocus()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        key = event.key()
        far = NUDGE * (10 if event.modifiers() & Qt.KeyboardModifier.ShiftModifier else 1)
        moves = {Qt.Key.Key_Left: (-far, 0), Qt.Key.Key_Right: (far, 0), Qt.Key.Key_Up: (0, -far),
                 Qt.Key.Key_Down: (0, far)}  # fmt: skip
        if key in moves:
            self.cross += QPointF(*moves[Qt.Key(key)])
            self.update()
        elif key == Qt.Key.Key_Space:
            self.put(QPointF(self.cross))
        elif key == Qt.Key.Key_Backspace:
            self._take_back()
            self._tell()
        elif key in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            if len(self.points) >= FEWEST:
                self.closed.append(self.points)
                self.points = []
            self._tell()
        elif key == Qt.Key.Key_Escape:
            self.left.emit()
        else:
            super().keyPressEvent(event)

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        paint_text(painter, QRectF(0, 2, self.width(), 22), self.says, "brass", 15, weight=600)
        if self.picture.isNull():
            return
        scale, corner = self._frame()
        target = QRectF(corner.x(), corner.y(), scale * self.picture.width(), scale * self.picture.height())
        painter.drawPixmap(target, self.picture, QRectF(self.picture.rect()))

        def shown(points: Sequence[QPointF]) -> QPolygonF:
            return QPolygonF([corner + p * scale for p in points])

        for width, role in ((5, "ground"), (2, "brass")):  # an edge that stands out on any picture
            painter.setPen(QPen(theme.colour(role), width))
            for curve in self.closed:
                painter.drawPolygon(shown(curve))
            painter.drawPolyline(shown(self.points))
            for point in (*self.known, *self.points):
                at = corner + point * scale
                painter.drawEllipse(at, 4, 4)
            at = corner + self.cross * scale
            painter.drawLine(at - QPointF(9, 0), at + QPointF(9, 0))
            painter.drawLine(at - QPointF(0, 9), at + QPointF(0, 9))

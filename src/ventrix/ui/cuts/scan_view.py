"""A scan painted: turned by dragging or with the arrow keys, four silhouettes below it, its ends clicked on it."""

from __future__ import annotations

from typing import Final

import numpy as np
from PySide6.QtCore import QPointF, QRect, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QFocusEvent, QImage, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QSizePolicy, QWidget

from ventrix.core.quantity.arrays import Array, Bools, Ints
from ventrix.rooms.cuts.scan_picture import STEP, ScanPicture, Seen, picture_of, turned
from ventrix.ui.look import theme
from ventrix.words import tr

HIGH: Final = 190  # px of the turned view
SMALL: Final = 62  # px of the silhouettes
WORDS: Final = 18
MOVED: Final = 4  # px: less is a click
_ARROWS: Final = {
    Qt.Key.Key_Left: (-1, 0),
    Qt.Key.Key_Right: (1, 0),
    Qt.Key.Key_Up: (0, -1),
    Qt.Key.Key_Down: (0, 1),
}


class ScanView(QWidget):
    """A mesh as it lies in its file. `clicked` brings the spot under a click, or under the middle with Enter, while
    `asking` says what is to be clicked."""

    clicked = Signal(object)

    def __init__(self) -> None:
        super().__init__()
        self.asking = ""
        self._picture: ScanPicture | None = None
        self._turn: Array = np.eye(3)
        self._seen: Seen | None = None
        self._small: dict[str, QImage] = {}
        self._marks: dict[str, Array] = {}
        self._pressed: QPointF | None = None
        self._last = QPointF()
        self._dragged = False
        self.setFixedHeight(HIGH + SMALL + 2 * WORDS)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName(tr("The scan: arrow keys turn it"))

    def sizeHint(self) -> QSize:
        return QSize(360, HIGH + SMALL + 2 * WORDS)

    def show_mesh(self, points: Array, faces: Ints) -> None:
        """Draw a mesh, seen from its side."""
        self._picture = picture_of(points, faces)
        self._marks.clear()
        self._seen = None
        self._small.clear()
        self._turn = self._picture.sides()["from the side"]
        self.update()

    def mark(self, name: str, at: Array | None) -> None:
        """Show where an end was clicked; nowhere takes the mark away."""
        if at is None:
            self._marks.pop(name, None)
        else:
            self._marks[name] = at
        self.setAccessibleDescription(", ".join(tr("{} clicked", each) for each in self._marks))
        self.update()

    def ask(self, name: str) -> None:
        """Say which end is to be clicked; nothing any more."""
        self.asking = name
        self.setCursor(Qt.CursorShape.CrossCursor if name else Qt.CursorShape.ArrowCursor)
        self.update()

    def resizeEvent(self, event: object) -> None:
        self._seen = None
        self._small.clear()

    # -- hands

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self._pressed = self._last = event.position()
        self._dragged = False

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        if self._pressed is None or self._picture is None:
            return
        self._dragged |= (event.position() - self._pressed).manhattanLength() > MOVED
        if self._dragged and self._pressed.y() < HIGH:
            by = event.position() - self._last
            self._turn_by(by.x() / 90, by.y() / 90)
        self._last = event.position()

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        pressed, self._pressed = self._pressed, None
        if pressed is None or self._dragged or self._picture is None:
            return
        if pressed.y() < HIGH:
            self._pick(pressed)
            return
        sides = self._picture.sides()
        name = list(sides)[min(int(pressed.x() * len(sides) / max(self.width(), 1)), len(sides) - 1)]
        self._turn, self._seen = sides[name], None
        self.update()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() in _ARROWS:
            right, down = _ARROWS[Qt.Key(event.key())]
            self._turn_by(right * STEP, down * STEP)
        elif event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter) and self.asking:
            self._pick(QPointF(self.width() / 2, HIGH / 2))
        else:
            super().keyPressEvent(event)

    def focusInEvent(self, event: QFocusEvent) -> None:
        self.update()

    def focusOutEvent(self, event: QFocusEvent) -> None:
        self.update()

    def _turn_by(self, right: float, down: float) -> None:
        self._turn, self._seen = turned(self._turn, right, down), None
        self.update()

    def _pick(self, at: QPointF) -> None:
        seen = self._looked_at()
        if seen is None or self._picture is None or not self.asking:
            return
        high, wide = seen.spot.shape
        row, column = min(max(int(at.y()), 0), high - 1), min(max(int(at.x()), 0), wide - 1)
        spot = int(seen.spot[row, column])
        if spot >= 0:
            self.clicked.emit(self._picture.spots[spot])

    # -- paint

    def _looked_at(self) -> Seen | None:
        if self._seen is None and self._picture is not None:
            self._seen = self._picture.seen(self._turn, max(self.width(), 1), HIGH)
        return self._seen

    def paintEvent(self, event: QPaintEvent) -> None:
        seen = self._looked_at()
        if seen is None or self._picture is None:
            return
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.drawImage(0, 0, _image(seen.spot >= 0, self._picture.light(seen)))
        painter.setFont(theme.font(12))
        painter.setPen(theme.colour("text"))
        for name, at in self._marks.items():
            x, y = seen.place(at)
            painter.setBrush(theme.colour("brass"))
            painter.setPen(QPen(theme.colour("ground"), 1))
            painter.drawEllipse(QPointF(x, y), 5, 5)
            painter.setPen(theme.colour("text"))
            painter.drawText(QPointF(x + 8, y + 4), name)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        if self.asking and self.hasFocus():
            painter.setPen(QPen(theme.colour("brass"), 1))
            middle = QPointF(self.width() / 2, HIGH / 2)
            painter.drawLine(middle - QPointF(9, 0), middle + QPointF(9, 0))
            painter.drawLine(middle - QPointF(0, 9), middle + QPointF(0, 9))
        words = (
            tr("Click the edge of {}, or turn it to the cross: Enter", self.asking)
            if self.asking
            else tr("Drag to turn")
        )
        painter.setPen(theme.colour("brass" if self.asking else "quiet"))
        painter.drawText(QRectF(0, HIGH, self.width(), WORDS), Qt.AlignmentFlag.AlignCenter, words)
        self._paint_silhouettes(painter)
        if self.hasFocus():
            painter.setPen(QPen(theme.colour("brass"), 2))
            painter.drawRect(QRectF(1, 1, self.width() - 2, HIGH - 2))

    def _paint_silhouettes(self, painter: QPainter) -> None:
        assert self._picture is not None
        sides = self._picture.sides()
        wide = self.width() // len(sides)
        painter.setFont(theme.font(12))
        for n, (name, turn) in enumerate(sides.items()):
            if name not in self._small:
                dark = self._picture.seen(turn, max(wide - 6, 1), SMALL).spot >= 0
                self._small[name] = _image(dark, np.full(dark.shape, 0.5))
            room = QRect(n * wide, HIGH + WORDS, wide, SMALL)
            painter.drawImage(room.topLeft(), self._small[name])
            painter.setPen(theme.colour("quiet"))
            below = QRectF(room.left(), room.bottom(), wide, WORDS)
            painter.drawText(below, Qt.AlignmentFlag.AlignHCenter, name)


def _image(there: Bools, light: Array) -> QImage:
    """Pixels from the theme's darker to its lighter colour, clear where nothing is."""
    low, high = sorted((theme.colour("panel"), theme.colour("text")), key=lambda colour: colour.lightness())
    light = 0.2 + 0.65 * light
    ends = [(getattr(low, c)(), getattr(high, c)()) for c in ("blue", "green", "red")]
    pixels = np.zeros((*there.shape, 4), dtype=np.uint8)
    for i, (dark, bright) in enumerate(ends):
        pixels[..., i] = np.clip(dark + light * (bright - dark), 0, 255)
    pixels[..., 3] = np.where(there, 255, 0)
    tall, wide = there.shape
    return QImage(np.ascontiguousarray(pixels).tobytes(), wide, tall, 4 * wide, QImage.Format.Format_ARGB32).copy()

"""The seat clock: twelve places around the valve. Wet patterns are set by a click or a key, hour by hour."""

from __future__ import annotations

import math

from PySide6.QtCore import QPointF, QRectF, Qt, Signal
from PySide6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QSizePolicy, QWidget

from ventrix.ui.look import theme
from ventrix.words import tr

STATES = ("", "wet", "streak", "dry", "splash")
MARKS = {"wet": "●", "streak": "/", "dry": "○", "splash": "✳"}


class SeatClock(QWidget):
    """Twelve o'clock is towards the port's opening. Left and right walk the hours, Space sets the next state."""

    state_set = Signal(int, str)  # hour 1 to 12, state or empty

    def __init__(self) -> None:
        super().__init__()
        self.states: dict[int, str] = {}
        self.speeds: dict[int, str] = {}
        self.at = 12
        self.setMinimumSize(260, 260)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName(tr("Seat clock"))

    def show_states(self, states: dict[int, str], speeds: dict[int, str]) -> None:
        """States and air speeds by hour, as text."""
        self.states, self.speeds = states, speeds
        said = [
            tr("{} o'clock {} {}", h, states.get(h, ""), speeds.get(h, ""))
            for h in range(1, 13)
            if h in states or h in speeds
        ]
        self.setAccessibleDescription("; ".join(said))
        self.update()

    def _place(self, hour: int, share: float) -> QPointF:
        radius = share * (min(self.width(), self.height()) / 2 - 14)
        angle = math.radians(30 * hour)
        middle = QPointF(self.width() / 2, self.height() / 2)
        return middle + QPointF(radius * math.sin(angle), -radius * math.cos(angle))

    def mousePressEvent(self, event: QMouseEvent) -> None:
        hours = range(1, 13)
        self.at = min(hours, key=lambda h: (self._place(h, 0.72) - event.position()).manhattanLength())
        self._next()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() in (Qt.Key.Key_Left, Qt.Key.Key_Right):
            self.at = (self.at - 1 + (1 if event.key() == Qt.Key.Key_Right else -1)) % 12 + 1
            self.update()
        elif event.key() == Qt.Key.Key_Space:
            self._next()
        else:
            super().keyPressEvent(event)

    def _next(self) -> None:
        now = STATES.index(self.states.get(self.at, ""))
        self.state_set.emit(self.at, STATES[(now + 1) % len(STATES)])

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        middle = QPointF(self.width() / 2, self.height() / 2)
        outer = min(self.width(), self.height()) / 2 - 14
        painter.setPen(QPen(theme.colour("scribe"), 1.5))
        for share in (1.0, 0.5):
            painter.drawEllipse(middle, outer * share, outer * share)
        for hour in range(1, 13):
            here = hour == self.at and self.hasFocus()
            painter.setPen(QPen(theme.colour("quiet", 0.5), 1))
            painter.drawLine(self._place(hour + 0.5, 0.5), self._place(hour + 0.5, 1.0))  # type: ignore[arg-type]
            painter.setFont(theme.font(12))
            painter.setPen(theme.colour("brass" if here else "quiet"))
            self._text(painter, self._place(hour, 0.91), str(hour))
            painter.setFont(theme.font(17, weight=600))
            painter.setPen(theme.colour("text"))
            self._text(painter, self._place(hour, 0.74), MARKS.get(self.states.get(hour, ""), "·"))
            painter.setFont(theme.font(12, narrow=True))
            painter.setPen(theme.colour("quiet"))
            self._text(painter, self._place(hour, 0.6), self.speeds.get(hour, ""))
        painter.setFont(theme.font(12))
        painter.setPen(theme.colour("quiet"))
        self._text(painter, middle, "valve")

    def _text(self, painter: QPainter, at: QPointF, words: str) -> None:
        painter.drawText(QRectF(at.x() - 40, at.y() - 12, 80, 24), Qt.AlignmentFlag.AlignCenter, words)

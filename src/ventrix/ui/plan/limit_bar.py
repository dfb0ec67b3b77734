"""One standing bar: the test pressure, cut into what each place eats of it. Solid is measured, hatched the book's
guess."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Final

from PySide6.QtCore import QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QMouseEvent, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QWidget

from ventrix.rooms.plan.shows import Segment
from ventrix.ui.look import theme
from ventrix.ui.widgets.painted_text import paint_text
from ventrix.words import tr

LEFT: Final = 46  # px for the pressure left
BAR: Final = 60
LEAST: Final = 30  # px between two names


class LimitBar(QWidget):
    """Segments in the air's order, top to bottom."""

    picked = Signal(str)

    def __init__(self) -> None:
        super().__init__()
        self.segments: tuple[Segment, ...] = ()
        self.chosen = ""
        self.kind = "intake"
        self.unit = ""
        self.setMinimumSize(230, 230)
        self.setAccessibleName(tr("What limits"))

    def sizeHint(self) -> QSize:
        return QSize(260, 440)

    def show_segments(self, segments: Sequence[Segment], chosen: str, kind: str, unit: str) -> None:
        self.segments, self.chosen, self.kind, self.unit = tuple(segments), chosen, kind, unit
        said = "; ".join(f"{s.name} {s.eaten}{'' if s.measured else tr(', a guess')}" for s in segments)
        self.setAccessibleDescription(said)
        self.update()

    def _heights(self) -> list[tuple[float, float]]:
        top, high = 18.0, self.height() - 30.0
        found = []
        for s in self.segments:
            found.append((top, s.share * high))
            top += s.share * high
        return found

    def _names_at(self) -> list[float]:
        """Where each name stands: beside its segment, pushed apart where they would touch."""
        found: list[float] = []
        lowest = 8.0
        for top, high in self._heights():
            at = max(top + high / 2, lowest + LEAST if found else lowest)
            found.append(at)
            lowest = at
        over = max((found[-1] if found else 0) - (self.height() - 22), 0)
        return [at - over * (i + 1) / len(found) for i, at in enumerate(found)]

    def mousePressEvent(self, event: QMouseEvent) -> None:
        names = self._names_at()
        if names:
            y = event.position().y()
            at = min(range(len(names)), key=lambda i: abs(names[i] - y))
            self.picked.emit(self.segments[at].place)

    def paintEvent(self, event: QPaintEvent) -> None:
        if not self.segments:
            return
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        names = self._names_at()
        free = 0.0  # above, a figure stands already
        for s, (top, high), at in zip(self.segments, self._heights(), names, strict=True):
            box = QRectF(LEFT, top, BAR, high)
            chosen = s.place == self.chosen
            if s.measured:
                painter.fillRect(box, theme.colour(self.kind, 0.75 if chosen else 0.45))
            else:
                painter.setPen(Qt.PenStyle.NoPen)
                painter.setBrush(theme.colour("scribe"))
                painter.setBrush(Qt.BrushStyle.BDiagPattern)
                painter.drawRect(box)
                painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.setPen(QPen(theme.colour("scribe"), 1))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRect(box)
            if top >= free:
                paint_text(painter, QRectF(0, top - 8, LEFT - 6, 16), s.left, "quiet", 12, right=True)
                free = top + 13
            painter.setPen(QPen(theme.colour("quiet"), 1))
            painter.drawLine(QPointF(LEFT + BAR, top + high / 2), QPointF(LEFT + BAR + 12, at))
            if chosen:
                painter.setPen(QPen(theme.colour("brass"), 2))
                x = LEFT + BAR + 4
                painter.drawPolyline([QPointF(x, top + 1), QPointF(x + 6, top + 1), QPointF(x + 6, top + high - 1),
                                      QPointF(x, top + high - 1)])  # fmt: skip
            x = LEFT + BAR + 18
            role = "brass" if chosen else "text"
            paint_text(painter, QRectF(x, at - 14, self.width() - x - 52, 16), s.name, role, 13, weight=600)
            paint_text(painter, QRectF(x, at + 1, self.width() - x - 52, 14), s.interval, "quiet", 12)
            figure = s.eaten if s.measured else f"~{s.eaten}"
            paint_text(painter, QRectF(self.width() - 56, at - 13, 54, 24), figure,
                        "text" if s.measured else "quiet", 19, right=True, weight=600, narrow=True)  # fmt: skip
        paint_text(painter, QRectF(0, self.height() - 22, LEFT - 6, 16), "0", "quiet", 12, right=True)

"""The three marks of a result, drawn the same everywhere: up, down, dash. They read without colour."""

from __future__ import annotations

from typing import Final

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QPainter, QPen, QPolygonF

from ventrix.core.model.kinds import Result
from ventrix.ui.look import theme

# Before a figure that is written.
MARK: Final[dict[str, str]] = {Result.BETTER: "▲ ", Result.WORSE: "▼ "}


def draw_mark(painter: QPainter, box: QRectF, result: str) -> None:
    """Draw the mark of "better", "worse" or anything else (not proven) inside `box`."""
    painter.save()
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    shade = theme.colour(theme.current().result(result))
    if result in (Result.BETTER, Result.WORSE):
        top, bottom = (box.top(), box.bottom()) if result == Result.BETTER else (box.bottom(), box.top())
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(shade)
        points = [QPointF(box.center().x(), top), QPointF(box.right(), bottom), QPointF(box.left(), bottom)]
        painter.drawPolygon(QPolygonF(points))
    else:
        painter.setPen(QPen(shade, max(box.height() / 6, 1.5)))
        painter.drawLine(QPointF(box.left(), box.center().y()), QPointF(box.right(), box.center().y()))
    painter.restore()


def draw_corners(painter: QPainter, box: QRectF, role: str = "quiet", size: float = 9) -> None:
    """Corner ticks, like layout marks."""
    painter.setPen(QPen(theme.colour(role), 1))
    for x, dx in ((box.left(), size), (box.right(), -size)):
        for y, dy in ((box.top(), size), (box.bottom(), -size)):
            painter.drawLine(QPointF(x, y), QPointF(x + dx, y))
            painter.drawLine(QPointF(x, y), QPointF(x, y + dy))

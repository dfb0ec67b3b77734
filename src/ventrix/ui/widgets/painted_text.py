"""Words painted into a box: elided, aligned, in the theme's own face."""

from __future__ import annotations

from PySide6.QtCore import QRectF, Qt
from PySide6.QtGui import QPainter

from ventrix.ui.look import theme


def paint_text(
    painter: QPainter,
    box: QRectF,
    words: str,
    role: str,
    size: float,
    *,
    right: bool = False,
    centre: bool = False,
    weight: int = 400,
    narrow: bool = False,
) -> None:
    """Words in a box, in a role of the theme; what does not fit is elided."""
    painter.setPen(theme.colour(role))
    painter.setFont(theme.font(size, weight=weight, narrow=narrow))
    side = Qt.AlignmentFlag.AlignRight if right else Qt.AlignmentFlag.AlignLeft
    if centre:
        side = Qt.AlignmentFlag.AlignHCenter
    shown = painter.fontMetrics().elidedText(words, Qt.TextElideMode.ElideRight, max(int(box.width()), 10))
    painter.drawText(box, side | Qt.AlignmentFlag.AlignVCenter, shown)

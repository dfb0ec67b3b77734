"""Probed sections in their places along the unrolled port: small, in order, with the port's outline behind them."""

from __future__ import annotations

import numpy as np
from PySide6.QtCore import QPointF, QRectF, Qt, Signal
from PySide6.QtGui import QMouseEvent, QPainter, QPainterPath, QPaintEvent, QPen
from PySide6.QtWidgets import QSizePolicy, QWidget

from ventrix.core.metal.unrolled import UnrolledPort
from ventrix.core.model.kinds import Direction
from ventrix.rooms.air.pictures import SectionView
from ventrix.ui.air.section_picture import paint_field
from ventrix.ui.look import theme
from ventrix.words import tr

SIZE = 78
CELLS = 32


class SectionStrip(QWidget):
    """Click a section to look at its station."""

    station_chosen = Signal(str)

    def __init__(self) -> None:
        super().__init__()
        self.sections: list[tuple[float, SectionView]] = []
        self._port: UnrolledPort | None = None
        self._kind = "intake"
        self.setMinimumHeight(150)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setAccessibleName(tr("Sections along the port"))

    def show_sections(self, port: UnrolledPort, sections: list[tuple[float, SectionView]], kind: Direction) -> None:
        self._port, self.sections, self._kind = port, sections, kind
        self.setAccessibleDescription(", ".join(v.title for _, v in sections) or tr("no station was probed"))
        self.update()

    def _x(self, share: float) -> float:
        turned = 1 - share if self._kind == "exhaust" else share
        return 60 + turned * (self.width() - 120)

    def _box(self, share: float) -> QRectF:
        return QRectF(self._x(share) - SIZE / 2, self.height() / 2 - SIZE / 2, SIZE, SIZE)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        for share, view in self.sections:
            if self._box(share).contains(event.position()):
                self.station_chosen.emit(view.title)
                return

    def paintEvent(self, event: QPaintEvent) -> None:
        if self._port is None:
            return
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        shares = np.linspace(0, 1, 61)
        height = self._port.height(shares * self._port.length)
        scale = (self.height() - 34) / float(height.max())
        middle = self.height() / 2
        path = QPainterPath()
        xs = [self._x(float(s)) for s in shares]
        path.moveTo(xs[0], middle - height[0] * scale / 2)
        for x, h in zip(xs[1:], height[1:], strict=True):
            path.lineTo(x, middle - float(h) * scale / 2)
        for x, h in zip(xs[::-1], height[::-1], strict=True):
            path.lineTo(x, middle + float(h) * scale / 2)
        path.closeSubpath()
        painter.fillPath(path, theme.colour("panel"))
        painter.setPen(QPen(theme.colour(theme.current().port(self._kind)), 1.4))
        painter.drawPath(path)
        painter.setFont(theme.font(12))
        painter.setPen(theme.colour("quiet"))
        painter.drawText(
            QRectF(0, self.height() - 18, self.width(), 16),
            Qt.AlignmentFlag.AlignHCenter,
            tr("along the port, air goes left to right"),
        )
        for share, view in self.sections:
            self._paint_section(painter, self._box(share), view)

    def _paint_section(self, painter: QPainter, box: QRectF, view: SectionView) -> None:
        wide, high = (1.0, 1.0) if view.ring else (view.width, view.height)
        scale = SIZE / max(wide, high)
        inner = QRectF(
            box.center().x() - wide * scale / 2, box.center().y() - high * scale / 2, wide * scale, high * scale
        )
        outline = QPainterPath()
        if view.ring:
            outline.addEllipse(inner)
        else:
            outline.addRoundedRect(inner, view.corner * scale, view.corner * scale)
        painter.fillPath(outline, theme.colour("ground"))
        if view.field is not None:
            painter.save()
            painter.setClipPath(outline)
            paint_field(painter, inner, view.field, view.scale, CELLS)
            painter.restore()
        painter.setPen(QPen(theme.colour("scribe"), 1.2))
        painter.drawPath(outline)
        painter.setPen(theme.colour("text"))
        painter.drawText(QPointF(box.left(), box.top() - 4), view.title)

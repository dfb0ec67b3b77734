"""One section of the port with its air: filled between the probed points, the points and their figures on top."""

from __future__ import annotations

import numpy as np
from PySide6.QtCore import QPointF, QRectF, Qt, Signal
from PySide6.QtGui import QBrush, QColor, QMouseEvent, QPainter, QPainterPath, QPaintEvent, QPen
from PySide6.QtWidgets import QSizePolicy, QWidget

from ventrix.core.air.traverse import Field
from ventrix.rooms.air.pictures import SectionSpot, SectionView
from ventrix.ui.look import theme
from ventrix.ui.look.air_scale import ink_on, speed_colour
from ventrix.ui.look.marks import draw_mark

CELLS = 48

UNPROBED = 0.45  # of the radius: the middle of a ring holds the valve or was not probed


class SectionPicture(QWidget):
    """Paints a `SectionView` to the section's own proportions. No colour outside the probed hull."""

    spot_chosen = Signal(str)

    def __init__(self) -> None:
        super().__init__()
        self.view: SectionView | None = None
        self.setMinimumSize(120, 120)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)

    def show_view(self, view: SectionView) -> None:
        self.view = view
        said = [f"{s.name} {s.text} {s.result}".strip() for s in view.spots]
        self.setAccessibleName(view.title)
        self.setAccessibleDescription("; ".join(said))
        self.update()

    def _box(self) -> QRectF:
        assert self.view is not None
        room = QRectF(26, 30, self.width() - 52, self.height() - 56)
        wide, high = (1.0, 1.0) if self.view.ring else (self.view.width, self.view.height)
        scale = min(room.width() / wide, room.height() / high)
        size = wide * scale, high * scale
        return QRectF(room.center().x() - size[0] / 2, room.center().y() - size[1] / 2, *size)

    def _at(self, box: QRectF, u: float, v: float) -> QPointF:
        return QPointF(box.center().x() + u * box.width() / 2, box.center().y() - v * box.height() / 2)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        if self.view is None:
            return
        box = self._box()
        for spot in self.view.spots:
            if (self._at(box, spot.u, spot.v) - event.position()).manhattanLength() < 22:
                self.spot_chosen.emit(spot.name)
                return

    def paintEvent(self, event: QPaintEvent) -> None:
        if self.view is None:
            return
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        view, box = self.view, self._box()
        painter.setFont(theme.font(13, weight=500))
        painter.setPen(theme.colour("text"))
        painter.drawText(QRectF(0, 2, self.width(), 20), Qt.AlignmentFlag.AlignHCenter, view.title)
        outline = QPainterPath()
        if view.ring:
            outline.addEllipse(box)
        else:
            radius = view.corner * box.width() / view.width
            outline.addRoundedRect(box, radius, radius)
        painter.fillPath(outline, theme.colour("panel"))
        if view.field is not None:
            painter.save()
            painter.setClipPath(outline)
            paint_field(painter, box, view.field, view.scale, CELLS)
            painter.restore()
        if view.guessed:
            painter.fillPath(outline, QBrush(theme.colour("quiet", 0.5), Qt.BrushStyle.BDiagPattern))
        style = Qt.PenStyle.DashLine if view.guessed else Qt.PenStyle.SolidLine
        painter.setPen(QPen(theme.colour("scribe"), 1.6, style))
        painter.drawPath(outline)
        if not view.ring:
            painter.setFont(theme.font(12))
            painter.setPen(theme.colour("quiet"))
            painter.drawText(QRectF(box.left(), box.top() - 15, box.width(), 14), Qt.AlignmentFlag.AlignHCenter, "roof")
            painter.drawText(
                QRectF(box.left(), box.bottom() + 1, box.width(), 14), Qt.AlignmentFlag.AlignHCenter, "floor"
            )
        for spot in view.spots:
            self._paint_spot(painter, box, spot)

    def _paint_spot(self, painter: QPainter, box: QRectF, spot: SectionSpot) -> None:
        assert self.view is not None
        at = self._at(box, spot.u, spot.v)
        wanted = spot.name == self.view.wanted
        if wanted:
            painter.setPen(QPen(theme.colour("brass"), 3))
            painter.drawEllipse(at, 12, 12)
        painter.setPen(QPen(theme.colour("brass" if wanted else "scribe"), 1.2))
        if not spot.text:
            painter.drawEllipse(at, 4, 4)
            return
        painter.setFont(theme.font(14, narrow=True, weight=600))
        ink = QColor(theme.colour("text"))
        if spot.share is not None:
            # a chip of the point's own colour: half of it lies beyond the hull, on the bare section
            ink = ink_on(spot.share)
            painter.save()
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(speed_colour(spot.share))
            painter.drawRoundedRect(QRectF(at.x() - 17, at.y() - 10, 34, 20), 4, 4)
            painter.restore()
        if spot.result:
            ink = theme.colour(theme.current().result(spot.result))
            draw_mark(painter, QRectF(at.x() - 5, at.y() - 20, 10, 9), spot.result)
        painter.setPen(ink)
        painter.drawText(QRectF(at.x() - 40, at.y() - 9, 80, 18), Qt.AlignmentFlag.AlignCenter, spot.text)


def paint_field(painter: QPainter, box: QRectF, field: Field, scale: tuple[float, float], cells: int) -> None:
    """Fill the hull of a field's points by its colours; nothing outside, nor in the middle of a ring."""
    low, high = scale
    centres = (np.arange(cells) + 0.5) / cells * 2 - 1
    u, v = np.meshgrid(centres, centres)
    speed = field.at(u, v)
    if field.ring:
        speed = np.where(np.hypot(u, v) < UNPROBED, np.nan, speed)
    wide, tall = box.width() / cells, box.height() / cells
    for j, i in zip(*np.nonzero(np.isfinite(speed)), strict=True):
        share = (float(speed[j, i]) - low) / max(high - low, 1e-9)
        cell = QRectF(box.left() + i * wide, box.bottom() - (j + 1) * tall, wide + 1, tall + 1)
        painter.fillRect(cell, speed_colour(share))

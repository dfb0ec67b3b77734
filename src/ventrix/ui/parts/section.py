"""A drawing of port, throat, valve and seat in section, to the scale of what was measured."""

from __future__ import annotations

from dataclasses import dataclass

from PySide6.QtCore import QLineF, QPointF, QRectF, Qt
from PySide6.QtGui import QPainter, QPainterPath, QPaintEvent, QPen
from PySide6.QtWidgets import QSizePolicy, QWidget

from ventrix.ui import theme
from ventrix.ui.parts.marks import draw_corners
from ventrix.ui.units import US, Units


@dataclass(frozen=True, slots=True)
class Sizes:
    """What the drawing knows [m]; None is drawn at a usual proportion, without a dimension."""

    valve: float | None = None
    stem: float | None = None
    throat: float | None = None
    floor: float | None = None
    roof: float | None = None

    @classmethod
    def of(cls, known: dict[str, float | None]) -> Sizes:
        return cls(
            known.get("head_diameter"),
            known.get("stem_diameter"),
            known.get("throat_diameter"),
            known.get("floor_length"),
            known.get("roof_length"),
        )


class SectionDrawing(QWidget):
    """The port laid down to the left, the valve standing in its throat on the right, dimensions on them."""

    def __init__(self) -> None:
        super().__init__()
        self._sizes, self._kind, self._units = Sizes(), "intake", US
        self.setMinimumHeight(240)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setAccessibleName("Section of the port")

    def show_sizes(self, sizes: Sizes, kind: str, units: Units) -> None:
        self._sizes, self._kind, self._units = sizes, kind, units
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        box = QRectF(self.rect()).adjusted(0, 0, -1, -1)
        draw_corners(painter, box)
        s = self._sizes
        valve = s.valve or 0.045
        throat = min(s.throat or valve * 0.88, valve * 0.995)
        stem = min(s.stem or valve * 0.16, throat * 0.6)
        length = ((s.floor or valve * 2.1) + (s.roof or valve * 2.5)) / 2
        scale = min((box.width() - 190) / (length + valve * 0.7), (box.height() - 110) / (valve * 1.85))
        wide = (length + valve * 0.25) * scale
        cx = box.center().x() + wide / 2 - valve / 2 * scale
        seat_y = box.center().y() + valve * 0.62 * scale
        self._port(painter, cx, seat_y, length, throat, valve, scale)
        self._valve(painter, cx, seat_y, valve, throat, stem, scale)
        self._dimensions(painter, cx, seat_y, length, throat, valve, stem, scale)

    def _port(
        self,
        painter: QPainter,
        cx: float,
        seat_y: float,
        length: float,
        throat: float,
        valve: float,
        scale: float,
    ) -> None:
        r = throat / 2 * scale
        mouth = cx - (length - valve * 0.25) * scale
        height = throat * 0.95 * scale
        roof_y = seat_y - valve * 1.45 * scale
        path = QPainterPath(QPointF(mouth, roof_y))
        path.cubicTo(
            QPointF(cx - r * 0.8, roof_y - height * 0.05),
            QPointF(cx + r, roof_y + height * 0.1),
            QPointF(cx + r, seat_y),
        )
        path.lineTo(QPointF(cx - r, seat_y))
        path.cubicTo(
            QPointF(cx - r, seat_y - r * 0.95),
            QPointF(cx - r * 1.5, roof_y + height * 1.02),
            QPointF(mouth, roof_y + height),
        )
        path.closeSubpath()
        painter.fillPath(path, theme.colour("panel"))
        painter.setPen(QPen(theme.colour(theme.current().port(self._kind)), 2))
        painter.drawPath(path)
        painter.setPen(QPen(theme.colour("scribe"), 1, Qt.PenStyle.DashDotLine))
        middle = QPainterPath(QPointF(mouth - 10, roof_y + height / 2))
        middle.cubicTo(
            QPointF(cx - r, roof_y + height * 0.5),
            QPointF(cx, roof_y + height * 0.62),
            QPointF(cx, seat_y + 8),
        )
        painter.drawPath(middle)
        painter.setPen(QPen(theme.colour("scribe"), 1))
        painter.drawLine(QLineF(cx - r - 44, seat_y, cx - r, seat_y))
        painter.drawLine(QLineF(cx + r, seat_y, cx + r + 44, seat_y))

    def _valve(
        self,
        painter: QPainter,
        cx: float,
        seat_y: float,
        valve: float,
        throat: float,
        stem: float,
        scale: float,
    ) -> None:
        half, s = valve / 2 * scale, stem / 2 * scale
        lift = valve * 0.16 * scale
        rim = valve * 0.035 * scale
        top = seat_y + lift
        path = QPainterPath(QPointF(cx - s, seat_y - valve * 1.55 * scale))
        path.lineTo(cx - s, top - half * 0.42)
        path.cubicTo(QPointF(cx - s, top - half * 0.12), QPointF(cx - half * 0.5, top), QPointF(cx - half, top + rim))
        path.lineTo(cx - half, top + rim * 2.2)
        path.lineTo(cx + half, top + rim * 2.2)
        path.lineTo(cx + half, top + rim)
        path.cubicTo(
            QPointF(cx + half * 0.5, top),
            QPointF(cx + s, top - half * 0.12),
            QPointF(cx + s, top - half * 0.42),
        )
        path.lineTo(cx + s, seat_y - valve * 1.55 * scale)
        painter.fillPath(path, theme.colour("raised"))
        painter.setPen(QPen(theme.colour("text"), 1.5))
        painter.drawPath(path)

    def _dimensions(
        self,
        painter: QPainter,
        cx: float,
        seat_y: float,
        length: float,
        throat: float,
        valve: float,
        stem: float,
        scale: float,
    ) -> None:
        s, text = self._sizes, self._units.length.text
        low = seat_y + valve * 0.28 * scale + 12
        if s.valve is not None:
            self._span(painter, cx - valve / 2 * scale, cx + valve / 2 * scale, low, f"valve {text(s.valve)}")
        if s.throat is not None:
            y = seat_y - throat * 0.28 * scale
            right = cx + throat / 2 * scale
            self._span(painter, cx - throat / 2 * scale, right, y, "")
            painter.setPen(theme.colour("text"))
            painter.drawText(QPointF(right + 12, y + 5), f"throat {text(s.throat)}")
        painter.setFont(theme.font(13, narrow=True))
        painter.setPen(theme.colour("text"))
        left = cx - (length - valve * 0.25) * scale
        roof_y = seat_y - valve * 1.45 * scale
        if s.roof is not None:
            painter.drawText(QPointF(left + 6, roof_y - 8), f"roof wire {text(s.roof)}")
        if s.floor is not None:
            painter.drawText(QPointF(left + 6, roof_y + throat * 0.95 * scale + 20), f"floor wire {text(s.floor)}")
        if s.stem is not None:
            painter.drawText(
                QPointF(cx + stem / 2 * scale + 8, seat_y - valve * 1.45 * scale - 2), f"stem {text(s.stem)}"
            )
        painter.setPen(theme.colour("quiet"))
        painter.setFont(theme.font(11))
        missing = [
            name
            for name, value in (
                ("valve", s.valve),
                ("throat", s.throat),
                ("stem", s.stem),
                ("wires", s.roof if s.floor is not None else None),
            )
            if value is None
        ]
        words = "inches" if self._units.length.unit == "in" else "millimetres"
        if missing:
            words += f" · {', '.join(missing)} not measured: drawn at a usual proportion"
        painter.drawText(QRectF(12, self.height() - 26, self.width() - 24, 18), Qt.AlignmentFlag.AlignLeft, words)

    def _span(self, painter: QPainter, left: float, right: float, y: float, words: str) -> None:
        painter.setPen(QPen(theme.colour("scribe"), 1))
        painter.drawLine(QLineF(left, y, right, y))
        for x in (left, right):
            painter.drawLine(QLineF(x, y - 5, x, y + 5))
        painter.setFont(theme.font(13, narrow=True, weight=500))
        painter.setPen(theme.colour("text"))
        wide = painter.fontMetrics().horizontalAdvance(words) + 8
        where = QRectF((left + right - wide) / 2, y + 2, wide, 18)
        painter.drawText(where, Qt.AlignmentFlag.AlignCenter, words)

"""A scan sliced along its middle, and its sections' areas below."""

from __future__ import annotations

from typing import Final

import numpy as np
from PySide6.QtCore import QPointF, QRectF, QSize, Qt
from PySide6.QtGui import QPainter, QPaintEvent, QPen, QPolygonF
from PySide6.QtWidgets import QSizePolicy, QWidget

from ventrix.core.quantity.arrays import Array
from ventrix.core.scan.measure import Measured, inward_of, reach_of
from ventrix.rooms.display_units import Shown
from ventrix.ui.look import theme
from ventrix.words import tr

EDGE: Final = 10.0  # px left free
_WRAPPED: Final = Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignTop | Qt.TextFlag.TextWordWrap


class ScanSlice(QWidget):
    """Roof, middle and floor of a scan in the plane of its bend, with the places that were named; areas below."""

    def __init__(self) -> None:
        super().__init__()
        self._curves: tuple[Array, Array, Array] | None = None
        self._marks: list[tuple[str, int]] = []
        self._areas: Array = np.zeros(0)
        self.setMinimumHeight(190)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.setAccessibleName(tr("The scan, sliced along its middle"))

    def sizeHint(self) -> QSize:
        return QSize(360, 190)

    def show_scan(self, found: Measured, area: Shown) -> None:
        """Draw a measured scan; areas in the shop's unit."""
        stations = found.stations
        inward = inward_of(stations)
        middle = np.array([s.section.centre for s in stations])
        floor, roof = (
            np.array([reach_of(s.section, sign * d) for s, d in zip(stations, inward, strict=True)]) for sign in (1, -1)
        )
        along = middle[-1] - middle[0]
        along = along / np.linalg.norm(along)
        up = -inward.mean(axis=0)
        up = up - (up @ along) * along
        up = up / max(float(np.linalg.norm(up)), 1e-9)
        self._curves = tuple(
            np.stack([(c - middle[0]) @ along, (c - middle[0]) @ up], axis=1) for c in (roof, middle, floor)
        )  # type: ignore[assignment]
        at = np.array([s.along for s in stations])
        self._marks = [
            (name.replace("_", " "), int(np.argmin(np.abs(at - pick.along)))) for name, pick in found.picks.items()
        ]
        self._areas = np.array([s.flow_area for s in stations])
        areas = ", ".join(f"{name} {area.with_unit(self._areas[i] * 1e-6)}" for name, i in self._marks)
        self.setAccessibleDescription(areas)
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        if self._curves is None:
            return
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        whole = np.vstack(self._curves)
        low, high = whole.min(axis=0), whole.max(axis=0)
        room = QRectF(EDGE, 16, self.width() - 2 * EDGE, self.height() - 62)
        scale = min(room.width() / (high[0] - low[0]), room.height() / (high[1] - low[1]))

        def place(p: Array) -> QPointF:
            return QPointF(room.left() + (p[0] - low[0]) * scale, room.bottom() - (p[1] - low[1]) * scale)

        roof, middle, floor = self._curves
        painter.setBrush(theme.colour("raised"))
        painter.setPen(QPen(theme.colour("text"), 1.6))
        painter.drawPolygon(QPolygonF([place(p) for p in (*roof, *floor[::-1])]))
        painter.setPen(QPen(theme.colour("quiet"), 1.0, Qt.PenStyle.DashLine))
        painter.drawPolyline(QPolygonF([place(p) for p in middle]))
        painter.setFont(theme.font(12))
        painter.setPen(QPen(theme.colour("brass"), 1.2))
        for _, i in self._marks:
            painter.drawLine(place(roof[i]), place(floor[i]))
        painter.setPen(theme.colour("text"))
        painter.drawText(QRectF(0, self.height() - 38, self.width(), 38), _WRAPPED, self.accessibleDescription())

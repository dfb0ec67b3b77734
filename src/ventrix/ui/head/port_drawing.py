"""The port in section as a dimensioned drawing, with each figure typed at the place it belongs to."""

from __future__ import annotations

import itertools
import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import NamedTuple

import numpy as np
from PySide6.QtCore import QEvent, QObject, QPointF, QRectF, Qt
from PySide6.QtGui import QPainter, QPainterPath, QPaintEvent, QPen
from PySide6.QtWidgets import QSizePolicy, QWidget

from ventrix.core.model.kinds import Direction
from ventrix.ui.look import theme
from ventrix.ui.look.marks import draw_corners
from ventrix.ui.widgets.quantity_field import PlacedField
from ventrix.words import tr

Known = dict[str, float | None]

FIELD_W, FIELD_H = 104, 46
EDGE, GAP = 8, 14  # px, beside the rows of fields and between row and column
MOST_ACROSS = 7  # fields of a row
LEAST_WIDE, LEAST_HIGH = 430, 350


class Slot(NamedTuple):
    """A place for a field: its upper left corner, and where its line begins."""

    corner: QPointF
    start: QPointF


def uncrossed(points: Mapping[str, QPointF], keys: Sequence[str], slots: Sequence[Slot]) -> dict[str, Slot]:
    """A slot for each key, in which no two lines from slot to point cross.

    Any two lines that cross are both shortened by exchanging their slots: exchanged until none gets shorter.
    """
    order = sorted(keys, key=lambda k: points[k].x())
    found = dict(zip(order, slots, strict=False))

    def far(key: str, slot: Slot) -> float:
        gap = points[key] - slot.start
        return math.hypot(gap.x(), gap.y())

    better = True
    while better:
        better = False
        for a, b in itertools.combinations(order, 2):
            if far(a, found[b]) + far(b, found[a]) < far(a, found[a]) + far(b, found[b]) - 1e-6:
                found[a], found[b] = found[b], found[a]
                better = True
    return found


@dataclass(frozen=True, slots=True)
class Shape:
    """The drawing's geometry in px: what leader lines point at, and the outline's corners."""

    scale: float
    cx: float
    seat_y: float
    mouth: float
    roof_y: float
    floor_y: float
    throat: float
    valve: float
    stem: float
    bowl: float
    bend: float
    pinch_top: float
    pinch_bottom: float
    pinch_x: float
    guide_y: float


class PortDrawing(QWidget):
    """Paints the section to the numbers, and lays its fields around it with a line to where each belongs."""

    def __init__(self, fields: dict[str, PlacedField]) -> None:
        super().__init__()
        self.fields = fields
        self._known: Known = {}
        self._kind = "intake"
        self._focus = ""
        self._throat_share, self._seat = 0.89, float(np.deg2rad(45))
        for key, field in fields.items():
            field.setParent(self)
            field.setFixedSize(FIELD_W, FIELD_H)
            field.box.installEventFilter(self)
            field.setProperty("key", key)
        self._starts: dict[str, QPointF] = {}
        self._usual = False
        self.setMinimumSize(LEAST_WIDE, LEAST_HIGH)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setAccessibleName(tr("Section of the port"))

    def show_sizes(self, known: Known, kind: Direction, throat: float = 0.89, seat: float = 45.0) -> None:
        """Draw to these figures [m]; what is not known is drawn at a usual proportion: the throat at its wanted
        share of the valve, the seat at its wanted angle [deg]."""
        self._known, self._kind = known, kind
        self._throat_share, self._seat = throat, np.deg2rad(seat)
        self.update()

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        if event.type() in (QEvent.Type.FocusIn, QEvent.Type.FocusOut):
            owner = watched.parent()
            self._focus = str(owner.property("key")) if owner and event.type() == QEvent.Type.FocusIn else ""
            self.update()
        return False

    def resizeEvent(self, event: object) -> None:
        """Lay the fields out along the four sides, each where its line is short and crosses no other."""
        across = min(MOST_ACROSS, (self.width() - 2 * EDGE) // (FIELD_W + 2))
        beside = math.ceil((len(self.fields) - 2 * across) / 2)
        self.setMinimumHeight(max(LEAST_HIGH, (beside + 2) * FIELD_H + 2 * GAP))
        slots = self._slots(int(across), beside)
        points = self._targets(self._shape(usual=True))
        for key, slot in uncrossed(points, [key for key in points if key in self.fields], slots).items():
            self.fields[key].move(slot.corner.toPoint())
            self._starts[key] = slot.start
        super().resizeEvent(event)  # type: ignore[arg-type]

    def _slots(self, across: int, beside: int) -> list[Slot]:
        """Places for fields: the upper row, the right column, the lower row, the left column."""
        step = (self.width() - 2 * EDGE) / max(across, 1)
        xs = [EDGE + i * step + (step - FIELD_W) / 2 for i in range(across)]
        top, bottom = FIELD_H + GAP, self.height() - 2 * FIELD_H - GAP
        down = min((bottom - top) / max(beside - 1, 1), FIELD_H + 18)
        ys = [top + i * down for i in range(beside)]
        low, right = self.height() - FIELD_H - 4.0, self.width() - FIELD_W - 4.0
        half = FIELD_W / 2
        return [
            *(Slot(QPointF(x, 4), QPointF(x + half, 4 + FIELD_H)) for x in xs),
            *(Slot(QPointF(right, y), QPointF(right, y + FIELD_H / 2 + 8)) for y in ys),
            *(Slot(QPointF(x, low), QPointF(x + half, low)) for x in xs),
            *(Slot(QPointF(4, y), QPointF(4 + FIELD_W, y + FIELD_H / 2 + 8)) for y in ys),
        ]

    # -- geometry

    def _value(self, key: str, guess: float) -> float:
        value = None if self._usual else self._known.get(key)
        return value if value is not None and value > 0 else guess

    def _shape(self, *, usual: bool = False) -> Shape:
        """The drawing's geometry, to the figures that are known; at its usual proportions for where fields stand."""
        self._usual = usual
        valve = self._value("head_diameter", 0.046)
        throat = min(self._value("throat_diameter", self._throat_share * valve), 0.995 * valve)
        stem = min(self._value("stem_diameter", 0.16 * valve), 0.6 * throat)
        bowl = self._value("bowl_diameter", 1.03 * throat)
        opening = self._value("opening_height", 1.05 * throat)
        length = (self._value("floor_length", 2.1 * valve) + self._value("roof_length", 2.5 * valve)) / 2
        short = self._value("short_side_height", 0.55 * valve)
        pinch = self._value("pinch_height", 0.97 * opening)
        field = QRectF(FIELD_W + 34, FIELD_H + 34, self.width() - 2 * FIELD_W - 76, self.height() - 2 * FIELD_H - 66)
        wide = length * 0.86 + valve * 0.7
        high = short + opening * 1.1 + valve * 0.6
        scale = min(field.width() / wide, field.height() / high)
        left = field.left() + (field.width() - wide * scale) / 2
        cx = left + length * 0.86 * scale
        seat_y = field.bottom() - valve * 0.34 * scale
        floor_y = seat_y - short * scale
        roof_y = floor_y - opening * scale
        middle = (floor_y + roof_y) / 2
        pinch_x = left + 0.36 * (cx - left)
        return Shape(
            scale=scale,
            cx=cx,
            seat_y=seat_y,
            mouth=left,
            roof_y=roof_y,
            floor_y=floor_y,
            throat=throat * scale,
            valve=valve * scale,
            stem=stem * scale,
            bowl=bowl * scale,
            bend=self._value("short_side_radius", 0.25 * valve) * scale,
            pinch_top=middle - pinch * scale / 2,
            pinch_bottom=middle + pinch * scale / 2,
            pinch_x=pinch_x,
            guide_y=roof_y + 0.1 * opening * scale,
        )

    def _targets(self, s: Shape) -> dict[str, QPointF]:
        """What each field's line points at."""
        mid = (s.floor_y + s.roof_y) / 2
        return {
            "opening_height": QPointF(s.mouth, s.roof_y + 0.25 * (s.floor_y - s.roof_y)),
            "opening_width": QPointF(s.mouth, mid),
            "opening_corner": QPointF(s.mouth, s.floor_y - 6),
            "gasket_land": QPointF(s.mouth, s.floor_y + 10),
            "roof_length": QPointF(s.mouth + 0.16 * (s.cx - s.mouth), s.roof_y),
            "pinch_height": QPointF(s.pinch_x, s.pinch_top),
            "pinch_corner": QPointF(s.pinch_x - 6, s.pinch_bottom - 6),
            "boss_width": QPointF(s.cx - s.stem, s.guide_y + 12),
            "guide_length": QPointF(s.cx - s.stem * 0.5, s.guide_y + 22),
            "guide_diameter": QPointF(s.cx + s.stem * 0.8, s.guide_y - 4),
            "stem_diameter": QPointF(s.cx + s.stem / 2, s.roof_y - 16),
            "floor_length": QPointF(s.mouth + 0.14 * (s.cx - s.mouth), s.floor_y),
            "pinch_width": QPointF(s.pinch_x, s.pinch_bottom),
            "hole_spacing": QPointF(s.pinch_x + 14, s.pinch_bottom + 10),
            "port_angle": QPointF(s.mouth + 0.55 * (s.cx - s.mouth), mid),
            "short_side_height": QPointF(s.cx - s.throat / 2 - 10, (s.floor_y + s.seat_y) / 2),
            "short_side_radius": QPointF(s.cx - s.throat / 2 - s.bend * 0.3, s.floor_y + s.bend * 0.3),
            "bowl_diameter": QPointF(s.cx + s.bowl / 2, s.seat_y - s.throat * 0.42),
            "throat_diameter": QPointF(s.cx + s.throat / 2, s.seat_y - s.throat * 0.12),
            "seat_width": QPointF(s.cx + s.valve * 0.48, s.seat_y + 2),
            "seat_angle": QPointF(s.cx + s.valve * 0.485, s.seat_y + 5),
            "seat_margin": QPointF(s.cx + s.valve * 0.5, s.seat_y + 8),
            "head_diameter": QPointF(s.cx + s.valve * 0.2, s.seat_y + s.valve * 0.18),
        }

    # -- paint

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        draw_corners(painter, QRectF(self.rect()).adjusted(0, 0, -1, -1))
        s = self._shape()
        self._paint_port(painter, s)
        self._paint_leaders(painter, s)
        self._paint_guide(painter, s)
        self._paint_valve(painter, s)
        self._paint_missing(painter)

    def _paint_leaders(self, painter: QPainter, s: Shape) -> None:
        targets = self._targets(s)
        for key, start in self._starts.items():
            if not self.fields[key].isVisible():
                continue
            here = key == self._focus
            painter.setPen(QPen(theme.colour("brass" if here else "quiet", 1.0 if here else 0.55), 1.6 if here else 1))
            painter.drawLine(start, targets[key])
            painter.setBrush(theme.colour("brass" if here else "quiet"))
            painter.drawEllipse(targets[key], 2.4, 2.4)
            painter.setBrush(Qt.BrushStyle.NoBrush)

    def _outline(self, s: Shape) -> QPainterPath:
        r, b = s.throat / 2, s.bowl / 2
        path = QPainterPath(QPointF(s.mouth, s.roof_y))
        path.cubicTo(
            QPointF(s.mouth + 0.2 * (s.cx - s.mouth), s.roof_y),
            QPointF(s.pinch_x - 30, s.pinch_top),
            QPointF(s.pinch_x, s.pinch_top),
        )
        path.cubicTo(
            QPointF(s.cx - r * 0.2, s.pinch_top),
            QPointF(s.cx + b, s.roof_y + 0.15 * (s.floor_y - s.roof_y)),
            QPointF(s.cx + b, s.seat_y - s.throat * 0.42),
        )
        path.lineTo(s.cx + r, s.seat_y - s.throat * 0.12)
        run = s.valve / 2 - r  # from throat to the valve's edge, along the seat's own angle
        rise = min(run * float(np.tan(self._value("seat_angle", self._seat))), s.throat * 0.11)
        path.lineTo(s.cx + r, s.seat_y - rise)
        path.lineTo(s.cx + r + run, s.seat_y)
        path.lineTo(s.cx - r - run, s.seat_y)
        path.lineTo(s.cx - r, s.seat_y - rise)
        path.lineTo(s.cx - r, s.floor_y + s.bend)
        path.quadTo(QPointF(s.cx - r, s.floor_y), QPointF(s.cx - r - s.bend, s.floor_y))
        path.cubicTo(
            QPointF(s.pinch_x + 30, s.pinch_bottom),
            QPointF(s.pinch_x + 12, s.pinch_bottom),
            QPointF(s.pinch_x, s.pinch_bottom),
        )
        path.cubicTo(
            QPointF(s.pinch_x - 30, s.pinch_bottom),
            QPointF(s.mouth + 0.2 * (s.cx - s.mouth), s.floor_y),
            QPointF(s.mouth, s.floor_y),
        )
        path.closeSubpath()
        return path

    def _paint_port(self, painter: QPainter, s: Shape) -> None:
        path = self._outline(s)
        painter.fillPath(path, theme.colour("panel"))
        painter.setPen(QPen(theme.colour(theme.current().port(self._kind)), 2))
        painter.drawPath(path)
        middle = QPainterPath(QPointF(s.mouth - 10, (s.roof_y + s.floor_y) / 2))
        at = (s.roof_y + s.floor_y) / 2
        middle.cubicTo(QPointF(s.cx - s.throat * 0.4, at), QPointF(s.cx, at + 10), QPointF(s.cx, s.seat_y + 8))
        painter.setPen(QPen(theme.colour("scribe"), 1, Qt.PenStyle.DashDotLine))
        painter.drawPath(middle)
        painter.setPen(QPen(theme.colour("scribe"), 1))
        painter.drawLine(QPointF(s.mouth, s.roof_y - 26), QPointF(s.mouth, s.floor_y + 26))  # the gasket face
        painter.drawLine(QPointF(s.cx - s.valve / 2 - 40, s.seat_y), QPointF(s.cx - s.valve / 2 - 2, s.seat_y))
        painter.drawLine(QPointF(s.cx + s.valve / 2 + 2, s.seat_y), QPointF(s.cx + s.valve / 2 + 30, s.seat_y))

    def _paint_guide(self, painter: QPainter, s: Shape) -> None:
        wide = max(s.stem * 1.9, s.scale * self._value("guide_diameter", 0.0))
        boss = max(wide * 1.5, s.scale * self._value("boss_width", 0.0))
        stands = s.scale * self._value("guide_length", 0.008)
        box = QRectF(s.cx - boss / 2, s.guide_y - stands * 0.6, boss, stands)
        painter.fillRect(box, theme.colour("ground"))
        painter.setPen(QPen(theme.colour("scribe"), 1))
        painter.drawRect(box)
        painter.drawRect(QRectF(s.cx - wide / 2, s.guide_y - stands * 0.6 - 18, wide, stands + 18))

    def _paint_valve(self, painter: QPainter, s: Shape) -> None:
        half, t = s.valve / 2, s.stem / 2
        top = s.seat_y + s.valve * 0.10
        rim = s.valve * 0.035
        path = QPainterPath(QPointF(s.cx - t, s.roof_y - 34))
        path.lineTo(s.cx - t, top - half * 0.42)
        path.cubicTo(
            QPointF(s.cx - t, top - half * 0.12), QPointF(s.cx - half * 0.5, top), QPointF(s.cx - half, top + rim)
        )
        path.lineTo(s.cx - half, top + rim * 2.2)
        path.lineTo(s.cx + half, top + rim * 2.2)
        path.lineTo(s.cx + half, top + rim)
        path.cubicTo(
            QPointF(s.cx + half * 0.5, top), QPointF(s.cx + t, top - half * 0.12), QPointF(s.cx + t, top - half * 0.42)
        )
        path.lineTo(s.cx + t, s.roof_y - 34)
        painter.fillPath(path, theme.colour("raised"))
        painter.setPen(QPen(theme.colour("text"), 1.5))
        painter.drawPath(path)

    def _paint_missing(self, painter: QPainter) -> None:
        missing = [f.caption for k, f in self.fields.items() if self._known.get(k) is None and f.isVisible()]
        scanned = any(f.box.property("scanned") for f in self.fields.values())
        said = [tr("{} not measured: drawn at a usual proportion", len(missing))] if missing else []
        said += [tr("brass edge: scanned at this cut")] if scanned else []
        painter.setFont(theme.font(12))
        painter.setPen(theme.colour("quiet"))
        where = QRectF(FIELD_W + 20, self.height() - FIELD_H - 26, 480, 18)
        painter.drawText(where, Qt.AlignmentFlag.AlignLeft, "; ".join(said))

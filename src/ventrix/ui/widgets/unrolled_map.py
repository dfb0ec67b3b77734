"""The unrolled port: the port's surface folded flat, zones, walls as pins, each cut's working as a tint."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
from PySide6.QtCore import QPointF, QRectF, Qt, QVariantAnimation, Signal
from PySide6.QtGui import QBrush, QKeyEvent, QMouseEvent, QPainter, QPainterPath, QPaintEvent, QPen, QPixmap
from PySide6.QtWidgets import QSizePolicy, QToolTip, QWidget

from ventrix.core.metal.unrolled import BANDS, ZONES, Zone, zone_at
from ventrix.core.model.kinds import Band, Place
from ventrix.core.quantity.units import from_si
from ventrix.rooms.display_units import US, Units
from ventrix.rooms.shared.unrolled_map import MapPicture
from ventrix.ui.look import theme
from ventrix.ui.widgets.unrolled_pins import RIGHT_MARGIN, paint_legend, paint_pins, paint_shift
from ventrix.ui.widgets.unrolled_taken import paint_taken
from ventrix.words import tr

LEFT_MARGIN, TOP, GAP, FOOT = 92, 26, 18, 52

CURVE_SHARE = 0.24  # of the height, for the area-distance curve

MORPH_MS = 140  # under the 150 that motion may take

STEPS = 61

_TABLE_AT = np.linspace(0.0, 1.0, 241)  # shares of the length at which band widths are kept


class UnrolledMap(QWidget):
    """Paints a `MapPicture`. Air goes left to right. A zone is chosen with a click, or with the arrow keys."""

    zone_chosen = Signal(str)

    def __init__(self) -> None:
        super().__init__()
        self.picture: MapPicture | None = None
        self._units: Units = US
        self._table = np.ones((len(BANDS), len(_TABLE_AT)))
        self._from_table: np.ndarray | None = None
        self._edges_at: tuple[tuple[int, int, int], np.ndarray] = ((0, 0, 0), np.zeros((5, len(_TABLE_AT))))
        self._share = 1.0
        self._kept, self._kept_for = QPixmap(), object()
        self.unlabelled = 0  # pins whose figure found no free place: pointing at them tells it
        self._motion = QVariantAnimation(self)
        self._motion.setDuration(MORPH_MS)
        self._motion.setStartValue(0.0)
        self._motion.setEndValue(1.0)
        self._motion.valueChanged.connect(self._moved)
        self.setMouseTracking(True)
        self.setMinimumSize(400, 340)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName(tr("Unrolled port"))

    def show_picture(self, picture: MapPicture, units: Units, *, still: bool = False) -> None:
        """Show a map; from another cut's it moves there, unless motion is not wanted."""
        had = self.picture.port if self.picture is not None else None
        before = self._table
        self.picture, self._units = picture, units
        self._kept_for = object()
        widths = picture.port.bands(_TABLE_AT * picture.port.length)
        self._table = np.array([widths[band] for band in BANDS])
        self._describe(picture)
        if had is not None and had != picture.port and not still and self.isVisible():
            self._from_table, self._share = before, 0.0
            self._motion.start()
        else:
            self._from_table, self._share = None, 1.0
        self.update()

    def _describe(self, picture: MapPicture) -> None:
        smallest = picture.port.smallest
        said = [tr("smallest section {}", self._units.area.with_unit(smallest.area))]
        said += [
            tr("{}: slip", p.band)
            if p.slip
            else tr("{}: not read, other heads {}", p.band, p.text)
            if p.of_casting
            else tr("{} wall {}{}", p.band, p.text, " thin" if p.thin else "")
            for p in picture.pins
        ]
        self.setAccessibleDescription("; ".join(said))

    def _moved(self, share: float) -> None:
        self._share = share
        if share >= 1.0:
            self._from_table = None
        self.update()

    # -- where things are

    @property
    def _field(self) -> QRectF:
        """The map itself, below the curve."""
        top = TOP + (self.height() - TOP - FOOT) * CURVE_SHARE + GAP
        return QRectF(LEFT_MARGIN, top, self.width() - LEFT_MARGIN - RIGHT_MARGIN, self.height() - FOOT - top)

    @property
    def _backwards(self) -> bool:
        """An exhaust port is mirrored, so that air always goes left to right."""
        return self.picture is not None and self.picture.kind == "exhaust"

    def _xs(self, shares: np.ndarray) -> np.ndarray:
        """Where shares of the length lie across the widget [px]."""
        turned = 1 - shares if self._backwards else shares
        return np.asarray(self._field.left() + turned * self._field.width())

    def _x(self, along: float) -> float:
        assert self.picture is not None
        share, field = along / self.picture.port.length, self._field
        return field.left() + (1 - share if self._backwards else share) * field.width()

    def _edges(self, shares: np.ndarray) -> np.ndarray:
        """Edges between bands in px from the field's top, shape (5, n), at shares of the length."""
        stack = self._widths(self._table, shares)
        if self._from_table is not None:
            stack = self._share * stack + (1 - self._share) * self._widths(self._from_table, shares)
        scale = self._field.height() / float(self._table.sum(axis=0).max())
        middle = stack.sum(axis=0) * scale / 2
        edges = np.vstack([np.zeros(len(shares)), np.cumsum(stack, axis=0)]) * scale
        return np.asarray(edges - middle + self._field.height() / 2)

    @staticmethod
    def _widths(table: np.ndarray, shares: np.ndarray) -> np.ndarray:
        return np.array([np.interp(shares, _TABLE_AT, row) for row in table])

    def _place(self, band: str, along: float, across: float) -> QPointF:
        return self._places([band], np.array([along]), np.array([across]))[0]

    def _places(self, bands: Sequence[str], along: np.ndarray, across: np.ndarray) -> list[QPointF]:
        """Where points of the port lie on the widget: by band, distance from the opening [m], and -1 to 1 across."""
        assert self.picture is not None
        share = np.clip(along / self.picture.port.length, 0.0, 1.0)
        if self._from_table is None:  # nothing moves: the edges kept at the table's shares do
            columns = self._still_edges()[:, np.rint(share * (len(_TABLE_AT) - 1)).astype(int)]
        else:
            columns = self._edges(share)
        i, each = np.array([BANDS.index(band) for band in bands], dtype=int), np.arange(len(bands))
        upper, lower = columns[i, each], columns[i + 1, each]
        ys = self._field.top() + upper + (lower - upper) * (across + 1) / 2
        xs = self._xs(along / self.picture.port.length)
        return [QPointF(float(x), float(y)) for x, y in zip(xs, ys, strict=True)]

    def _still_edges(self) -> np.ndarray:
        """Edges at the table's shares, worked out again only for another picture or size."""
        key = id(self._table), self.width(), self.height()
        if self._edges_at[0] != key:
            self._edges_at = key, self._edges(_TABLE_AT)
        return self._edges_at[1]

    def place_at(self, position: QPointF) -> tuple[str, float, float] | None:
        """Band, distance from the opening [m] and place across (-1 to 1) under a point of the widget."""
        if self.picture is None or not self._field.adjusted(-2, -2, 2, 2).contains(position):
            return None
        share = min(max((position.x() - self._field.left()) / self._field.width(), 0.0), 1.0)
        share = 1 - share if self._backwards else share
        edges = self._edges(np.array([share]))[:, 0] + self._field.top()
        for i, band in enumerate(BANDS):
            if edges[i] <= position.y() <= edges[i + 1]:
                across = 2 * (position.y() - edges[i]) / max(edges[i + 1] - edges[i], 1e-9) - 1
                return band, share * self.picture.port.length, float(across)
        return None

    # -- hands

    def mousePressEvent(self, event: QMouseEvent) -> None:
        found = self.place_at(event.position())
        if found is None or self.picture is None:
            return
        zone = zone_at(found[1] / self.picture.port.length, found[0])
        if zone is not None:
            self.zone_chosen.emit(zone.name)

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        if self.picture is None:
            return
        for pin in self.picture.pins:
            at = self._place(pin.band, pin.along, pin.across)
            if (at - event.position()).manhattanLength() < 14:
                QToolTip.showText(event.globalPosition().toPoint(), pin.tip, self)
                return
        found = self.place_at(event.position())
        zone = zone_at(found[1] / self.picture.port.length, found[0]) if found else None
        self.setToolTip(tr("{}: click to log, measure or read its history", zone.name) if zone else "")

    def keyPressEvent(self, event: QKeyEvent) -> None:
        names = [z.name for z in ZONES]
        if self.picture is None or event.key() not in (Qt.Key.Key_Left, Qt.Key.Key_Right):
            super().keyPressEvent(event)
            return
        at = names.index(self.picture.chosen) if self.picture.chosen in names else -1
        step = 1 if event.key() == Qt.Key.Key_Right else -1
        self.zone_chosen.emit(names[(at + step) % len(names)])

    # -- paint

    def paintEvent(self, event: QPaintEvent) -> None:
        if self.picture is None:
            return
        painter = QPainter(self)
        if self._from_table is not None:
            self._paint(painter)
            return
        # What stands still is drawn once: the pointer, a tool tip or a neighbour's change only copies it.
        key = id(self.picture), self.size(), theme.current().name, self._units.name, self.devicePixelRatio()
        if self._kept_for != key:
            self._kept = QPixmap(self.size() * self.devicePixelRatio())
            self._kept.setDevicePixelRatio(self.devicePixelRatio())
            self._kept.fill(Qt.GlobalColor.transparent)
            on_kept = QPainter(self._kept)
            self._paint(on_kept)
            on_kept.end()
            self._kept_for = key
        painter.drawPixmap(0, 0, self._kept)

    def _paint(self, painter: QPainter) -> None:
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        shares = np.linspace(0.0, 1.0, STEPS)
        edges = self._edges(shares) + self._field.top()
        xs = self._xs(shares)
        self._paint_curve(painter, xs, shares)
        self._paint_bands(painter, xs, edges)
        self._paint_tints(painter)
        self._paint_smallest(painter)
        self._paint_spots(painter)
        assert self.picture is not None
        self.unlabelled = paint_pins(painter, self.picture.pins, self._places, self._field)
        self._paint_axis(painter)
        if self.picture.shift is not None:
            paint_shift(painter, self.picture.shift, QPointF(self._field.right() - 30, TOP + 26))

    def _paint_curve(self, painter: QPainter, xs: np.ndarray, shares: np.ndarray) -> None:
        """The area-distance curve above, on the same axis; the pinned cut's dashed."""
        assert self.picture is not None
        units, port = self._units, self.picture.port
        top, bottom = float(TOP), self._field.top() - GAP
        area = port.area(shares * port.length)
        other = None if self.picture.before is None else self.picture.before.area(shares * self.picture.before.length)
        every = area if other is None else np.r_[area, other]
        low, high = float(every.min()) * 0.94, float(every.max()) * 1.04

        def y_of(values: np.ndarray) -> np.ndarray:
            return bottom - (values - low) / (high - low) * (bottom - top)

        painter.setFont(theme.font(12, narrow=True))
        for value in np.linspace(low, high, 4)[1:]:
            y = float(y_of(np.array([value]))[0])
            painter.setPen(QPen(theme.colour("quiet", 0.3), 1))
            painter.drawLine(QPointF(self._field.left(), y), QPointF(self._field.right(), y))
            painter.setPen(theme.colour("quiet"))
            where = QRectF(LEFT_MARGIN - 60, y - 9, 52, 18)
            painter.drawText(where, Qt.AlignmentFlag.AlignRight, f"{from_si(float(value), units.area.unit):.2f}")
        painter.setFont(theme.font(12))
        painter.drawText(QRectF(0, top - 20, 90, 34), Qt.AlignmentFlag.AlignLeft, tr("section, {}", units.area.label))
        if other is not None:
            _line(painter, xs, y_of(other), self.picture.kind, 1.5, Qt.PenStyle.DashLine)
        _line(painter, xs, y_of(area), self.picture.kind, 2.5, Qt.PenStyle.SolidLine)
        painter.setBrush(theme.colour("ground"))
        painter.setPen(QPen(theme.colour(self.picture.kind), 1.5))
        for section in port.sections:
            if section.measured:
                y = float(y_of(np.array([section.area]))[0])
                painter.drawRect(QRectF(self._x(section.along) - 3, y - 3, 6, 6))
        painter.setBrush(Qt.BrushStyle.NoBrush)

    def _paint_bands(self, painter: QPainter, xs: np.ndarray, edges: np.ndarray) -> None:
        for i, band in enumerate(BANDS):
            path = _strip(xs, edges[i], edges[i + 1])
            painter.fillPath(path, theme.colour("raised" if i % 2 else "panel"))
            painter.setFont(theme.font(13))
            painter.setPen(theme.colour("quiet"))
            middle = (edges[i][0] + edges[i + 1][0]) / 2
            where = QRectF(0, middle - 12, LEFT_MARGIN - 12, 24)
            painter.drawText(where, Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter, Band(band).words)
        for edge in edges:
            _line(painter, xs, edge, "scribe", 1.2, Qt.PenStyle.SolidLine)
        seat = self._x(self.picture.port.length) if self.picture is not None else self._field.right()
        painter.fillRect(QRectF(seat - 2, edges[0][-1], 4, edges[-1][-1] - edges[0][-1]), theme.colour("brass"))
        painter.save()
        painter.translate(seat + (-8 if self._backwards else 10), (edges[0][-1] + edges[-1][-1]) / 2 - 14)
        painter.rotate(90)
        painter.setPen(theme.colour("brass"))
        painter.setFont(theme.font(12))
        painter.drawText(0, -2, "seat")
        painter.restore()

    def _zone_path(self, zone: Zone, band: str) -> QPainterPath:
        assert self.picture is not None
        shares = np.linspace(zone.start, zone.end, 15)
        edges = self._edges(shares) + self._field.top()
        i = BANDS.index(band)
        return _strip(self._xs(shares), edges[i], edges[i + 1])

    def _paint_tints(self, painter: QPainter) -> None:
        assert self.picture is not None
        taken = self.picture.taken
        for tint in self.picture.tints:
            if tint.present and taken is not None and not tint.added:
                continue  # what was found is drawn in place of what was told
            for zone in (z for z in ZONES if tint.zone in (z.name, Place.ALL_OVER)):
                for band in (b for b in zone.bands if b in tint.bands):
                    path = self._zone_path(zone, band)
                    role = "brass" if tint.present else self.picture.kind
                    painter.fillPath(path, theme.colour(role, 0.42 if tint.present else 0.22))
                    if tint.added:
                        painter.fillPath(path, QBrush(theme.colour("text", 0.5), Qt.BrushStyle.Dense6Pattern))
                if tint.present:
                    self._name_zone(painter, zone)
        if taken is not None:
            paint_taken(painter, taken, self._stretch)
        chosen = next((z for z in ZONES if z.name == self.picture.chosen), None)
        if chosen is not None:
            painter.setPen(QPen(theme.colour("brass"), 1.5, Qt.PenStyle.DashLine))
            for band in chosen.bands:
                painter.drawPath(self._zone_path(chosen, band))
            self._name_zone(painter, chosen)

    def _name_zone(self, painter: QPainter, zone: Zone) -> None:
        path = self._zone_path(zone, zone.bands[-1] if len(zone.bands) == 1 else zone.bands[1])
        painter.setFont(theme.font(13, weight=600))
        painter.setPen(theme.colour("text"))
        box = path.boundingRect().adjusted(4, 2, 60, -2)
        painter.drawText(box, Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignTop, zone.name)

    def _stretch(self, band: str, begun: float, ended: float) -> QPainterPath:
        """A stretch of one side, between two distances from the opening [m]."""
        assert self.picture is not None
        shares = np.clip(np.array([begun, ended]) / self.picture.port.length, 0.0, 1.0)
        edges = self._edges(shares) + self._field.top()
        i = BANDS.index(band)
        return _strip(self._xs(shares), edges[i], edges[i + 1])

    def _paint_smallest(self, painter: QPainter) -> None:
        assert self.picture is not None
        smallest = self.picture.port.smallest
        x = self._x(smallest.along)
        painter.setPen(QPen(theme.colour("brass"), 1.2, Qt.PenStyle.DotLine))
        painter.drawLine(QPointF(x, 14), QPointF(x, self._field.bottom() + 4))
        painter.setFont(theme.font(15, narrow=True, weight=600))
        painter.setPen(theme.colour("brass"))
        words = f"{smallest.name or 'smallest'} {self._units.area.text(smallest.area)}"
        wide = painter.fontMetrics().horizontalAdvance(words)
        left = x + 6 if x + wide + 10 < self.width() else x - wide - 6
        painter.drawText(QPointF(left, 20), words)

    def _paint_spots(self, painter: QPainter) -> None:
        assert self.picture is not None
        for spot in self.picture.spots:
            at = self._place(spot.band, spot.along, spot.across)
            radius = 4 + 9 * spot.share
            painter.setBrush(theme.colour("text", 0.10 + 0.5 * spot.share))
            painter.setPen(QPen(theme.colour("text"), 1.2))
            painter.drawEllipse(at, radius, radius)
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.setFont(theme.font(13, narrow=True, weight=600))
            painter.drawText(at + QPointF(radius + 4, 5), spot.text)

    def _paint_axis(self, painter: QPainter) -> None:
        assert self.picture is not None
        unit = "mm" if self._units.name == "metric" else "in"
        length = from_si(self.picture.port.length, unit)
        step = 10.0 if unit == "mm" else 0.5
        y = self.height() - FOOT + 8
        painter.setFont(theme.font(12, narrow=True))
        painter.setPen(theme.colour("quiet"))
        painter.drawText(QRectF(LEFT_MARGIN - 62, y - 2, 54, 18), Qt.AlignmentFlag.AlignRight, unit)
        for i in range(int(length / step + 1e-6) + 1):
            x = float(self._xs(np.array([i * step / length]))[0])
            painter.drawLine(QPointF(x, y - 4), QPointF(x, y))
            painter.drawText(QRectF(x - 30, y, 60, 18), Qt.AlignmentFlag.AlignHCenter, f"{i * step:g}")
        painter.setFont(theme.font(12))
        room = QRectF(LEFT_MARGIN, y + 20, self.width() - LEFT_MARGIN, 20)
        paint_legend(painter, self.picture, self._units, room, self.unlabelled)


def _strip(xs: np.ndarray, top: np.ndarray, bottom: np.ndarray) -> QPainterPath:
    path = QPainterPath(QPointF(float(xs[0]), float(top[0])))
    for x, y in zip(xs[1:], top[1:], strict=True):
        path.lineTo(float(x), float(y))
    for x, y in zip(xs[::-1], bottom[::-1], strict=True):
        path.lineTo(float(x), float(y))
    path.closeSubpath()
    return path


def _line(painter: QPainter, xs: np.ndarray, ys: np.ndarray, role: str, width: float, style: Qt.PenStyle) -> None:
    path = QPainterPath(QPointF(float(xs[0]), float(ys[0])))
    for x, y in zip(xs[1:], ys[1:], strict=True):
        path.lineTo(float(x), float(y))
    painter.setPen(QPen(theme.colour(role), width, style))
    painter.drawPath(path)

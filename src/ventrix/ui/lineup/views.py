"""The whole face at true proportion, one port nearer with its steps drawn larger, and every edge as a line."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Final

import numpy as np
from PySide6.QtCore import QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QBrush, QFontMetricsF, QMouseEvent, QPainter, QPaintEvent, QPen, QPolygonF
from PySide6.QtWidgets import QWidget

from ventrix.rooms.lineup.shows import NOT_READ, Curve, EdgeLine, PortCurves, near_curves
from ventrix.ui.look import theme
from ventrix.ui.widgets.painted_text import paint_text
from ventrix.ui.widgets.spoken_rows import SpokenRows, lines_of
from ventrix.words import tr

ROW: Final = 27.0
HEAD: Final = 20.0


def _polygon(points: Curve, scale: float, at: QPointF) -> QPolygonF:
    return QPolygonF([QPointF(at.x() + scale * float(x), at.y() - scale * float(y)) for x, y in points])


class FaceView(QWidget):
    """Openings where they are: the head's filled, the other's as a line; the chosen port in brass corners."""

    picked = Signal(str)

    def __init__(self) -> None:
        super().__init__()
        self.ports: tuple[PortCurves, ...] = ()
        self.bolts: tuple[tuple[str, float, float], ...] = ()
        self.chosen = ""
        self.setMinimumHeight(110)
        self.setAccessibleName(tr("The whole face"))

    def sizeHint(self) -> QSize:
        return QSize(1100, 160)

    def show_ports(self, ports: Sequence[PortCurves], bolts: Sequence[tuple[str, float, float]], chosen: str) -> None:
        self.ports, self.bolts, self.chosen = tuple(ports), tuple(bolts), chosen
        self.setAccessibleDescription("; ".join(f"{p.port}: {p.worst}" for p in ports))
        self.update()

    def _frame(self) -> tuple[float, QPointF, QRectF]:
        """Scale, where the face's origin stands, and the face's own box."""
        every = np.vstack([*(p.head for p in self.ports), *(p.other for p in self.ports),
                           *(np.array([[x, y]]) for _, x, y in self.bolts)])  # fmt: skip
        low, high = every.min(axis=0), every.max(axis=0)
        wide, tall = (float(v) for v in np.maximum(high - low, 1e-3))
        scale = min((self.width() - 24) / wide, (self.height() - 20) / tall)
        middle = (low + high) / 2
        at = QPointF(self.width() / 2 - scale * float(middle[0]), self.height() / 2 + scale * float(middle[1]))
        box = QRectF(0, 0, scale * wide + 18, scale * tall + 14)
        box.moveCenter(QPointF(self.width() / 2, self.height() / 2))
        return scale, at, box

    def mousePressEvent(self, event: QMouseEvent) -> None:
        if self.ports:
            scale, at, _ = self._frame()
            x = (event.position().x() - at.x()) / scale
            self.picked.emit(min(self.ports, key=lambda p: abs(float(p.head[:, 0].mean()) - x)).port)

    def paintEvent(self, event: QPaintEvent) -> None:
        if not self.ports:
            return
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        scale, at, box = self._frame()
        painter.setPen(QPen(theme.colour("scribe"), 1))
        painter.drawRect(box)
        for name, x, y in self.bolts:
            where = QPointF(at.x() + scale * x, at.y() - scale * y)
            painter.setPen(QPen(theme.colour("quiet"), 1.2))
            painter.drawEllipse(where, 6, 6)
            painter.drawLine(where - QPointF(10, 0), where + QPointF(10, 0))
            paint_text(painter, QRectF(where.x() + 11, where.y() - 9, 20, 16), name, "quiet", 12)
        for port in self.ports:
            head = _polygon(port.head, scale, at)
            painter.setPen(QPen(theme.colour(port.kind), 1.5))
            painter.setBrush(theme.colour(port.kind, 0.35))
            painter.drawPolygon(head)
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.setPen(QPen(theme.colour("text"), 2))
            painter.drawPolygon(_polygon(port.other, scale, at))
            frame = head.boundingRect()
            role = "worse" if port.mark == "down" else "quiet"
            paint_text(painter, frame.adjusted(0, 4, 0, -frame.height() * 0.5), port.short, "text", 22, centre=True,
                       weight=600, narrow=True)  # fmt: skip
            sign = "▼ " if port.mark == "down" else "– "
            words = f"{sign}{port.worst}" if port.mark == "down" else f"{sign}flush"
            low = frame.adjusted(-2, frame.height() * 0.5, 2, -4)
            if QFontMetricsF(theme.font(12, weight=500)).horizontalAdvance(words) > frame.width() - 6:
                edge, _, step = words.rpartition(" ")  # a narrow port takes the edge and its step on two lines
                below = low.adjusted(0, low.height() / 2, 0, 0)
                low = low.adjusted(0, 0, 0, -low.height() / 2)
                paint_text(painter, below, step, role, 14, centre=True, weight=600, narrow=True)
                words = edge
            paint_text(painter, low, words, role, 12, centre=True, weight=500)
            if port.port == self.chosen:
                self._corners(painter, frame.adjusted(-7, -7, 7, 7))

    def _corners(self, painter: QPainter, box: QRectF) -> None:
        painter.setPen(QPen(theme.colour("brass"), 2.5))
        for x, sx in ((box.left(), 1), (box.right(), -1)):
            for y, sy in ((box.top(), 1), (box.bottom(), -1)):
                painter.drawLine(QPointF(x, y), QPointF(x + 10 * sx, y))
                painter.drawLine(QPointF(x, y), QPointF(x, y + 10 * sy))


class NearView(QWidget):
    """One port: steps drawn larger and said so; what faces the air is solid and barbed, what is let go an outline."""

    def __init__(self) -> None:
        super().__init__()
        self.port: PortCurves | None = None
        self.lines: tuple[EdgeLine, ...] = ()
        self.times = 4.0
        self.setMinimumSize(230, 180)
        self.setAccessibleName(tr("The chosen port, nearer"))

    def show_port(self, port: PortCurves | None, lines: Sequence[EdgeLine], times: float) -> None:
        self.port, self.lines, self.times = port, tuple(lines), times
        self.setAccessibleDescription("; ".join(f"{line.name} {line.step} {line.air}" for line in lines))
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.fillRect(self.rect(), theme.colour("panel"))
        if self.port is None:
            return
        port = self.port
        paint_text(painter, QRectF(12, 6, self.width() / 2, 18), tr("{}, nearer", port.port), "text", 13, weight=600)
        said = tr("steps true") if self.times == 1 else tr("steps drawn {:.0f} times", self.times)
        paint_text(painter, QRectF(self.width() / 2, 6, self.width() / 2 - 12, 18), said, "quiet", 12, right=True)
        head, other = near_curves(port, self.times)
        every = np.vstack([head, other])
        wide, tall = (float(v) for v in np.ptp(every, axis=0))
        scale = min((self.width() - 200) / wide, (self.height() - 84) / tall)
        span = float(every[:, 1].max() + every[:, 1].min())  # heading and roof's words above, the floor's below
        at = QPointF(self.width() / 2, self.height() / 2 + 8 + scale * span / 2)
        mine, theirs = _polygon(head, scale, at), _polygon(other, scale, at)
        painter.setPen(QPen(theme.colour(port.kind), 1.5))
        painter.setBrush(theme.colour(port.kind, 0.35))
        painter.drawPolygon(mine)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.setPen(QPen(theme.colour("text"), 3))
        painter.drawPolygon(theirs)
        box, over = mine.boundingRect(), theirs.boundingRect()
        for line in self.lines:
            self._edge(painter, line, box, over)

    def _edge(self, painter: QPainter, line: EdgeLine, head: QRectF, other: QRectF) -> None:
        edge = line.edge.edge
        upright = edge in ("roof", "floor")
        a, b = {"roof": (head.top(), other.top()), "floor": (head.bottom(), other.bottom()),
                "left": (head.left(), other.left()), "right": (head.right(), other.right())}[edge]  # fmt: skip
        low, high = min(a, b), max(a, b)
        if upright:
            step = QRectF(head.left() + head.width() * 0.25, low, head.width() * 0.5, high - low)
        else:
            step = QRectF(low, head.top() + head.height() * 0.25, high - low, head.height() * 0.5)
        if line.mark == "down":
            painter.fillRect(step, theme.colour("worse", 0.75))
            painter.setPen(QPen(theme.colour("ground"), 2))
            for i in range(1, 5):  # barbs against the air
                share = i / 5
                if upright:
                    x = step.left() + share * step.width()
                    painter.drawLine(QPointF(x, step.top()), QPointF(x, step.bottom()))
                else:
                    y = step.top() + share * step.height()
                    painter.drawLine(QPointF(step.left(), y), QPointF(step.right(), y))
        elif line.mark == "ledge":
            painter.setPen(QPen(theme.colour("quiet"), 1))
            painter.setBrush(QBrush(theme.colour("quiet"), Qt.BrushStyle.BDiagPattern))
            painter.drawRect(step)
            painter.setBrush(Qt.BrushStyle.NoBrush)
        where = {
            "roof": QRectF(self.width() / 2 - 90, head.top() - 4 - 22 - max(head.top() - other.top(), 0), 180, 20),
            "floor": QRectF(self.width() / 2 - 90, max(head.bottom(), other.bottom()) + 3, 180, 20),
            "left": QRectF(4, self.height() / 2 - 10, 92, 40),
            "right": QRectF(self.width() - 98, self.height() / 2 - 10, 94, 40),
        }[edge]
        role = "worse" if line.mark == "down" else "quiet"
        sign = "▼ " if line.mark == "down" else ""
        if upright:
            paint_text(painter, where, f"{sign}{edge} {line.step}, {line.air}", role, 13, centre=True, weight=500)
        else:
            top = QRectF(where.left(), where.top(), where.width(), 18)
            paint_text(painter, top, f"{sign}{line.step}", role, 16, right=edge == "right", weight=600, narrow=True)
            paint_text(painter, top.translated(0, 18), f"{edge}, {line.air}", role, 12, right=edge == "right")


class EdgeList(QWidget):
    """Worst first; the picked one is bracketed."""

    picked = Signal(int)

    def __init__(self) -> None:
        super().__init__()
        self.lines: tuple[EdgeLine, ...] = ()
        self.at = 0
        self.unit = ""
        self.setAccessibleName(tr("Edges, worst first"))
        self.told = SpokenRows(self)

    def sizeHint(self) -> QSize:
        return QSize(560, int(HEAD + ROW * max(len(self.lines), 1)))

    def show_lines(self, lines: Sequence[EdgeLine], at: int, unit: str) -> None:
        self.lines, self.at, self.unit = tuple(lines), at, unit
        self.setMinimumHeight(int(HEAD + ROW * max(len(lines), 1)))
        words = [
            tr("{}, {} {}, {}, take off {}", line.name, line.step, unit, line.air, line.take_off) for line in lines
        ]
        if lines:
            self.setAccessibleDescription(words[at])
        self.told.say(lines_of(self, HEAD, ROW, words))
        self.update()

    def mousePressEvent(self, event: QMouseEvent) -> None:
        row = int((event.position().y() - HEAD) // ROW)
        if 0 <= row < len(self.lines):
            self.picked.emit(row)

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        w = float(self.width())
        columns = {"name": (30.0, 0.24 * w), "step": (0.26 * w, 0.12 * w), "air": (0.41 * w, 0.16 * w),
                   "land": (0.54 * w, 0.12 * w), "wall": (0.67 * w, 0.12 * w), "off": (0.79 * w, 0.21 * w)}  # fmt: skip
        heads = {"name": "edge", "step": tr("step, {}", self.unit), "air": "air", "land": tr("land, {}", self.unit),
                 "wall": tr("wall, {}", self.unit), "off": tr("take off")}  # fmt: skip
        rights = ("step", "land", "wall", "off")
        for name, (x, wide) in columns.items():
            paint_text(painter, QRectF(x, 0, wide - 6, HEAD), heads[name], "quiet", 12, right=name in rights)
        for i, line in enumerate(self.lines):
            top = HEAD + i * ROW
            if i == self.at:
                painter.fillRect(QRectF(0, top, w, ROW), theme.colour("raised"))
                painter.fillRect(QRectF(0, top, 3, ROW), theme.colour("brass"))
            self._mark(painter, QRectF(10, top + 8, 11, 11), line.mark)
            role = "worse" if line.mark == "down" else "text"
            texts = {"name": (line.name, "text"), "step": (line.step, role), "air": (line.air, role),
                     "land": (line.land, "text"), "wall": (line.wall, "text"),
                     "off": (line.take_off, "brass" if line.proposal is not None else "quiet")}  # fmt: skip
            for name, (words, shade) in texts.items():
                x, wide = columns[name]
                size = 16 if name in ("step", "land", "wall") and words != NOT_READ else 13
                paint_text(painter, QRectF(x, top, wide - 6, ROW), words, shade, size, right=name in rights,
                           weight=600 if name == "step" else 400, narrow=size == 16)  # fmt: skip
            painter.setPen(QPen(theme.colour("raised"), 1))
            painter.drawLine(QPointF(0, top + ROW - 0.5), QPointF(w, top + ROW - 0.5))

    def _mark(self, painter: QPainter, box: QRectF, mark: str) -> None:
        if mark == "down":
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(theme.colour("worse"))
            painter.drawPolygon(QPolygonF([box.topLeft(), box.topRight(), QPointF(box.center().x(), box.bottom())]))
            painter.setBrush(Qt.BrushStyle.NoBrush)
        elif mark == "dash":
            painter.setPen(QPen(theme.colour("quiet"), 2.5))
            painter.drawLine(QPointF(box.left(), box.center().y()), QPointF(box.right(), box.center().y()))
        else:
            painter.setPen(QPen(theme.colour("quiet"), 1.8))
            painter.drawPolyline([box.topLeft(), box.bottomLeft(), box.bottomRight()])

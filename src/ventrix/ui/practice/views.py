"""The reckoning drawn: a staircase over the hours, the decisions as lines, and one decision's curves."""

from __future__ import annotations

from itertools import pairwise
from typing import Final

import numpy as np
from PySide6.QtCore import QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QBrush, QMouseEvent, QPainter, QPaintEvent, QPen, QPolygonF
from PySide6.QtWidgets import QWidget

from ventrix.bench.simulator.practice.play import LIFT
from ventrix.bench.simulator.practice.reckoning import Stair
from ventrix.core.quantity.units import from_si
from ventrix.rooms.display_units import Units
from ventrix.rooms.practice.shows import BASIS, Decision, Shown
from ventrix.ui.look import theme
from ventrix.ui.widgets.painted_text import paint_text
from ventrix.ui.widgets.spoken_rows import SpokenRows, lines_of
from ventrix.words import tr

ROW: Final = 26.0
HEAD: Final = 20.0
NARROW: Final = 700.0
LEFT, RIGHT, FOOT, TOP = 44.0, 150.0, 22.0, 24.0
_LINES: Final = {
    "to be had": ("scribe", Qt.PenStyle.DotLine, 1.5),
    "as Plan": ("scribe", Qt.PenStyle.DashLine, 1.5),
    "believed": ("text", Qt.PenStyle.DotLine, 2.0),
    "yours, true": ("brass", Qt.PenStyle.SolidLine, 3.0),
}
_MARKS: Final = {"up": ("▲", "better"), "down": ("▼", "worse"), "dash": ("–", "quiet"), "diamond": ("◇", "quiet")}


def at_hour(stair: Stair, hour: float) -> float:
    """How high a stair is at an hour."""
    return next((y for x, y in reversed(stair) if x <= hour + 1e-9), 0.0)


class StairView(QWidget):
    """Gain over the hours spent: yours, believed, as Plan, to be had; decisions stand on yours."""

    picked = Signal(int)

    def __init__(self) -> None:
        super().__init__()
        self.shown: Shown | None = None
        self.units: Units | None = None
        self.chosen = 0
        self.setMinimumHeight(150)
        self.setAccessibleName(tr("Gain over the hours spent"))

    def sizeHint(self) -> QSize:
        return QSize(760, 300)

    def show_stairs(self, shown: Shown, units: Units, chosen: int) -> None:
        self.shown, self.units, self.chosen = shown, units, chosen
        ends = (f"{name} {units.flow.with_unit(stair[-1][1])}" for name, stair in shown.stairs)
        self.setAccessibleDescription(", ".join(ends))
        self.update()

    def _scales(self) -> tuple[QRectF, float, float, float]:
        assert self.shown is not None
        box = QRectF(LEFT, TOP, max(self.width() - LEFT - RIGHT, 60), max(self.height() - TOP - FOOT, 40))
        heights = [y for _, stair in self.shown.stairs for _, y in stair]
        low, high = min(0.0, *heights), max(max(heights), 1e-6)
        return box, low, high + 0.08 * (high - low), self.shown.hours

    def _point(self, hour: float, gain: float) -> QPointF:
        box, low, high, hours = self._scales()
        return QPointF(
            box.left() + box.width() * hour / hours, box.bottom() - box.height() * (gain - low) / (high - low)
        )

    def _steps(self, stair: Stair) -> list[QPointF]:
        assert self.shown is not None
        points = []
        last = 0.0
        for hour, gain in stair:
            points += [self._point(hour, last), self._point(hour, gain)]
            last = gain
        return [*points, self._point(self.shown.hours, last)]

    def paintEvent(self, event: QPaintEvent) -> None:
        if self.shown is None or self.units is None:
            return
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        box, low, high, hours = self._scales()
        title = tr("Gain over the hours spent, {}, {}", self.units.flow.label, BASIS)
        paint_text(painter, QRectF(0, 0, self.width(), 20), title, "text", 14, weight=600)
        self._axes(painter, box, low, high, hours)
        self._never_there(painter)
        for name, stair in self.shown.stairs:
            role, style, width = _LINES[name]
            painter.setPen(QPen(theme.colour(role), width, style))
            painter.drawPolyline(QPolygonF(self._steps(stair)))
        self._ends(painter, box)
        stairs = dict(self.shown.stairs)
        for i, d in sorted(enumerate(self.shown.decisions), key=lambda each: each[0] == self.chosen):  # it lies on top
            at = self._point(d.at, at_hour(stairs["yours, true"], d.at))
            square = QRectF(at.x() - 9, at.y() - 9, 18, 18)
            painter.setPen(QPen(theme.colour("brass"), 1.5))
            painter.setBrush(theme.colour("brass" if i == self.chosen else "ground"))
            painter.drawRect(square)
            paint_text(painter, square, str(d.number), "ground" if i == self.chosen else "brass", 13, centre=True,
                       weight=600, narrow=True)  # fmt: skip

    def _axes(self, painter: QPainter, box: QRectF, low: float, high: float, hours: float) -> None:
        assert self.units is not None
        unit = self.units.flow.unit
        painter.setPen(QPen(theme.colour("scribe", 0.25), 1))
        shown_high = from_si(high, unit)
        step = next((s for s in (0.5, 1, 2, 5, 10, 20, 50) if shown_high / s <= 5), 100)
        ticks = np.arange(np.ceil(from_si(low, unit) / step) * step, shown_high, step)
        one = high / shown_high
        for tick in ticks:
            y = self._point(0, tick * one).y()
            painter.setPen(QPen(theme.colour("scribe", 0.25), 1))
            painter.drawLine(QPointF(box.left(), y), QPointF(box.right(), y))
            paint_text(painter, QRectF(0, y - 9, LEFT - 6, 18), f"{tick:g}", "quiet", 12, right=True)
        for hour in range(int(hours) + 1):
            x = self._point(hour, 0).x()
            painter.setPen(QPen(theme.colour("scribe", 0.25), 1))
            painter.drawLine(QPointF(x, box.top()), QPointF(x, box.bottom()))
            paint_text(painter, QRectF(x - 20, box.bottom() + 3, 40, 18), f"{hour} h", "quiet", 12, centre=True)

    def _never_there(self, painter: QPainter) -> None:
        """Hatched where more was believed than was true."""
        assert self.shown is not None
        stairs = dict(self.shown.stairs)
        believed, true = stairs["believed"], stairs["yours, true"]
        hours = sorted({x for x, _ in (*believed, *true)} | {self.shown.hours})
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(QBrush(theme.colour("worse", 0.7), Qt.BrushStyle.BDiagPattern))
        for a, b in pairwise(hours):
            top, below = at_hour(believed, a), at_hour(true, a)
            if top > below:
                painter.drawRect(QRectF(self._point(a, top), self._point(b, below)))

    def _ends(self, painter: QPainter, box: QRectF) -> None:
        """What each stair came to, beside its end; moved apart where they would lie over one another."""
        assert self.shown is not None and self.units is not None
        ends = sorted(((self._point(0, s[-1][1]).y(), name, s[-1][1]) for name, s in self.shown.stairs))
        below = -1e9
        for y, name, gain in ends:
            at = max(y - 11, below)
            below = at + 22
            role = _LINES[name][0]
            row = QRectF(box.right() + 8, at, 48, 22)
            paint_text(painter, row, self.units.flow.text(gain), role, 18, right=True, weight=600, narrow=True)
            paint_text(painter, QRectF(row.right() + 8, at, 90, 22), name, role, 13)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        if self.shown is not None and self.shown.decisions:
            x = event.position().x()
            near = min(
                range(len(self.shown.decisions)),
                key=lambda i: abs(self._point(self.shown.decisions[i].at, 0).x() - x),  # type: ignore[union-attr]
            )
            self.picked.emit(near)


class DecisionList(QWidget):
    """Decisions, one a line: minutes, believed, true, and whether it could be known then."""

    picked = Signal(int)

    def __init__(self) -> None:
        super().__init__()
        self.decisions: tuple[Decision, ...] = ()
        self.chosen = 0
        self.unit = ""
        self.setAccessibleName(tr("What you decided"))
        self.told = SpokenRows(self)

    def sizeHint(self) -> QSize:
        return QSize(760, int(HEAD + ROW * max(len(self.decisions), 1)) + 4)

    def middle_of(self, row: int) -> int:
        """Where a row stands [px from the top]."""
        return int(HEAD + ROW * (row + 0.5))

    def show_decisions(self, decisions: tuple[Decision, ...], chosen: int, unit: str) -> None:
        self.decisions, self.chosen, self.unit = decisions, chosen, unit
        self.setMinimumHeight(self.sizeHint().height())
        told = [tr("{} {}: believed {}, true {}, {}", d.number, d.name, d.believed, d.true, d.known) for d in decisions]
        self.setAccessibleDescription("; ".join(told))
        self.told.say(lines_of(self, HEAD, ROW, told))
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        wide = float(self.width())
        known = wide - (252 if wide >= NARROW else 4)  # what could be known stands beside too
        columns = (
            ("min", known - 230, 44.0),
            ("believed", known - 180, 76.0),
            (tr("true, {}", self.unit), known - 98, 86.0),
        )
        paint_text(painter, QRectF(0, 0, known - 240, HEAD), tr("What you decided"), "text", 14, weight=600)
        for words, x, width in columns:
            paint_text(painter, QRectF(x, 0, width, HEAD), words, "quiet", 12, right=True)
        if wide >= NARROW:
            paint_text(painter, QRectF(known, 0, 250, HEAD), tr("could be known then"), "quiet", 12)
        for i, d in enumerate(self.decisions):
            y = HEAD + i * ROW
            if i == self.chosen:
                painter.fillRect(QRectF(0, y, wide, ROW), theme.colour("raised"))
                painter.fillRect(QRectF(0, y, 3, ROW), theme.colour("brass"))
            paint_text(painter, QRectF(10, y, 22, ROW), str(d.number), "brass", 15, weight=600, narrow=True)
            paint_text(painter, QRectF(36, y, known - 280, ROW), d.name, "text", 14)
            mark, role = _MARKS[d.mark]
            for text, (_, x, width), r in zip(
                (d.minutes, d.believed, f"{mark} {d.true}"), columns, ("quiet", "text", role), strict=True
            ):
                paint_text(painter, QRectF(x, y, width, ROW), text, r, 15, right=True, weight=500, narrow=True)
            if wide >= NARROW:
                paint_text(painter, QRectF(known, y, 250, ROW), d.known, "text", 13)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        row = int((event.position().y() - HEAD) // ROW)
        if 0 <= row < len(self.decisions):
            self.picked.emit(row)


class DecisionCurves(QWidget):
    """What was read against the cut before and what was true, over the lifts, with what two tests differ by."""

    def __init__(self) -> None:
        super().__init__()
        self.decision: Decision | None = None
        self.units: Units | None = None
        self.setMinimumHeight(170)
        self.setMaximumHeight(200)
        self.setAccessibleName(tr("Read and true change over the lifts"))

    def show_decision(self, decision: Decision | None, units: Units) -> None:
        self.decision, self.units = decision, units
        self.setVisible(decision is not None and decision.true_curve is not None)
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        d, units = self.decision, self.units
        if d is None or units is None or d.true_curve is None:
            return
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        box = QRectF(40, 20, self.width() - 48, self.height() - 42)
        curves = [c for c in (d.true_curve, d.seen_curve, d.band) if c is not None]
        most = max(float(np.max(np.abs(c))) for c in curves) or 1e-6

        def at(i: int, value: float) -> QPointF:
            across = (LIFT[i] - LIFT[0]) / (LIFT[-1] - LIFT[0])
            return QPointF(box.left() + box.width() * float(across), box.center().y() - box.height() / 2 * value / most)

        said = tr("{} against the state before", units.flow.label)
        paint_text(painter, QRectF(0, 0, self.width(), 18), said, "quiet", 12)
        if d.band is not None:
            n = range(len(LIFT))
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(theme.colour("unproven", 0.3))
            upper = [at(i, float(d.band[i])) for i in n]
            lower = [at(i, -float(d.band[i])) for i in reversed(n)]
            painter.drawPolygon(QPolygonF([*upper, *lower]))
        painter.setPen(QPen(theme.colour("scribe", 0.5), 1))
        painter.drawLine(at(0, 0.0), at(len(LIFT) - 1, 0.0))
        for value in (-most, most):
            y = at(0, value).y()
            paint_text(painter, QRectF(0, y - 9, 36, 18), units.flow.text(value, sign=True), "quiet", 12, right=True)
        for i in (1, 5, 9):
            x = at(i, 0).x()
            text = units.lift.text(float(LIFT[i]))
            paint_text(painter, QRectF(x - 26, box.bottom() + 3, 52, 18), text, "quiet", 12, centre=True)
        for curve, role, style in (
            (d.seen_curve, "text", Qt.PenStyle.DotLine),
            (d.true_curve, "brass", Qt.PenStyle.SolidLine),
        ):
            if curve is None:
                continue
            painter.setPen(QPen(theme.colour(role), 2.5, style))
            painter.drawPolyline(QPolygonF([at(i, float(v)) for i, v in enumerate(curve)]))
        self._name_curves(painter, box, d)

    @staticmethod
    def _name_curves(painter: QPainter, box: QRectF, d: Decision) -> None:
        """Which line is which, in a corner that the curves leave free."""
        assert d.true_curve is not None
        rising = float(d.true_curve[-1]) >= 0
        y = box.bottom() - 36 if rising else box.top()
        names = ((tr("you read, dotted"), "text"),) if d.seen_curve is not None else ()
        for i, (name, role) in enumerate((*names, (tr("the truth"), "brass"))):
            row = QRectF(box.right() - 130, y + 18 * i, 128, 18)
            paint_text(painter, row, name, role, 13, right=True, weight=600)

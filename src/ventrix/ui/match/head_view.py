"""The head from above: every port a cell at its place, intakes on one side, exhausts on the other; stages as ticks."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Final

from PySide6.QtCore import QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QBrush, QFontMetricsF, QMouseEvent, QPainter, QPaintEvent, QPen, QResizeEvent
from PySide6.QtWidgets import QWidget

from ventrix.core.model.job import Job, cylinder_of
from ventrix.core.model.kinds import Direction
from ventrix.rooms.match.shows import MANY, Cell, bolts_along
from ventrix.ui.look import theme
from ventrix.ui.widgets.painted_text import paint_text
from ventrix.ui.widgets.spoken_rows import SpokenRows
from ventrix.words import tr

GAP: Final = 8.0
BAND: Final = 56.0  # the head itself, between the rows
SLIM: Final = 20.0
SIDES: Final = tuple(Direction)


def _said(cell: Cell) -> str:
    return f"{cell.port.name}, {cell.word}, {', '.join(f.text for f in cell.figures)}"


class HeadView(QWidget):
    """One band a head, in the job's order; the chosen port is bracketed in brass."""

    picked = Signal(str)  # a port's id

    def __init__(self) -> None:
        super().__init__()
        self.cells: tuple[Cell, ...] = ()
        self.chosen = ""
        self._heads: list[tuple[str, list[list[Cell]]]] = []
        self._bolts: tuple[tuple[float, float], ...] = ()
        self.setMinimumHeight(190)
        self.setAccessibleName(tr("The head from above"))
        self.told = SpokenRows(self)

    def sizeHint(self) -> QSize:
        return QSize(1100, 300)

    @property
    def small(self) -> bool:
        """Whether cells keep a name, one figure and ticks."""
        return len(self.cells) > MANY or self.width() < 800

    def show_cells(self, job: Job, cells: Sequence[Cell], chosen: str) -> None:
        self.cells, self.chosen = tuple(cells), chosen
        names = {h.id: h.name for h in job.heads}
        heads: dict[str | None, list[list[Cell]]] = {}
        for cell in cells:
            rows = heads.setdefault(cell.port.head_id, [[], []])
            rows[SIDES.index(cell.port.kind)].append(cell)
        for rows in heads.values():
            for row in rows:
                row.sort(key=lambda c: c.port.position_on_head or cylinder_of(c.port))
        self._heads = [(names.get(key or "", "head"), rows) for key, rows in heads.items()]
        self._bolts = bolts_along(job)
        at = next((c for c in cells if c.port.id == chosen), None)
        self.setAccessibleDescription("" if at is None else _said(at))
        self._tell()
        self.update()

    def _tell(self) -> None:
        self.told.say((box, _said(cell)) for box, cell in self.boxes())

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self._tell()

    def boxes(self) -> list[tuple[QRectF, Cell]]:
        """Where every cell stands."""
        found = []
        for top, high, rows in self._bands():
            band = SLIM if self.small else BAND
            tall = (high - band - 2 * GAP) / max(sum(bool(r) for r in rows), 1)
            y = top
            for i, row in enumerate(rows):
                wide = (self.width() - GAP * (len(row) - 1)) / max(len(row), 1)
                for j, cell in enumerate(row):
                    found.append((QRectF(j * (wide + GAP), y, wide, tall), cell))
                y += (tall + GAP if row else 0.0) + (band + GAP if i == 0 else 0.0)
        return found

    def _bands(self) -> list[tuple[float, float, list[list[Cell]]]]:
        n = max(len(self._heads), 1)
        high = (self.height() - GAP * (n - 1)) / n
        return [(i * (high + GAP), high, rows) for i, (_, rows) in enumerate(self._heads)]

    def mousePressEvent(self, event: QMouseEvent) -> None:
        for box, cell in self.boxes():
            if box.contains(event.position()):
                self.picked.emit(cell.port.id)

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        boxes = self.boxes()
        for (name, rows), (top, high, _) in zip(self._heads, self._bands(), strict=True):
            self._head(painter, name, rows, top, high, boxes)
        for box, cell in boxes:
            self._cell(painter, box, cell)

    def _head(self, painter: QPainter, name: str, rows: list[list[Cell]], top: float, high: float,
              boxes: list[tuple[QRectF, Cell]]) -> None:  # fmt: skip
        band = SLIM if self.small else BAND
        tall = (high - band - 2 * GAP) / max(sum(bool(r) for r in rows), 1)
        y = top + (tall + GAP if rows[0] else 0.0)
        box = QRectF(0.5, y, self.width() - 1, band)
        painter.setPen(QPen(theme.colour("scribe"), 1))
        painter.setBrush(theme.colour("panel"))
        painter.drawRect(box)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        if self.small:
            paint_text(painter, box.adjusted(8, 0, -8, 0), name, "text", 13, weight=600, narrow=True)
        if not self.small:
            self._paint_bolts(painter, box, [b.center().x() for b, c in boxes if c in rows[0]])
        where: dict[int, list[float]] = {}
        for cell_box, cell in boxes:
            if any(cell in row for row in rows):
                where.setdefault(cylinder_of(cell.port), []).append(cell_box.center().x())
        for cylinder, xs in where.items():
            self._cylinder(painter, box, sum(xs) / len(xs), cylinder)
        for cell_box, cell in boxes:
            if any(cell in row for row in rows) and not self.small:
                self._runner(painter, box, cell_box, cell)

    def _paint_bolts(self, painter: QPainter, box: QRectF, middles: Sequence[float]) -> None:
        """Bolts of the head's face where they are known, between the middles of its first and last port."""
        if len(middles) < 2:
            return
        painter.setPen(QPen(theme.colour("quiet"), 1))
        for along, up in self._bolts:
            x = middles[0] + along * (middles[-1] - middles[0])
            y = box.top() + 8 if up > 0 else box.bottom() - 8
            if box.left() + 6 < x < box.right() - 6:
                painter.drawEllipse(QPointF(x, y), 4, 4)

    def _cylinder(self, painter: QPainter, box: QRectF, x: float, cylinder: int) -> None:
        radius = min(box.height() / 2 - 3, 26.0)
        pen = QPen(theme.colour("quiet"), 1, Qt.PenStyle.DashLine)
        painter.setPen(pen)
        painter.drawEllipse(QPointF(x, box.center().y()), radius, radius)
        if not self.small:
            paint_text(painter, QRectF(x - radius - 34, box.top(), 28, box.height()), str(cylinder), "quiet", 17,
                       right=True, weight=500, narrow=True)  # fmt: skip

    def _runner(self, painter: QPainter, head: QRectF, box: QRectF, cell: Cell) -> None:
        """The port as a scribed line from its cell to its valve; a mirrored one bends the other way."""
        side = -1.0 if cell.mirrored else 1.0
        x = box.center().x()
        above = box.top() < head.top()
        start = QPointF(x + 46 * side, head.top() if above else head.bottom())
        valve = QPointF(x + (8 if above else -8) * side, head.center().y() + (-9 if above else 9))
        pen = QPen(theme.colour(cell.port.kind), 2)
        painter.setPen(pen)
        painter.drawLine(start, valve)
        painter.drawEllipse(valve, 9, 9)

    def _cell(self, painter: QPainter, box: QRectF, cell: Cell) -> None:
        chosen = cell.port.id == self.chosen
        painter.setPen(QPen(theme.colour("brass" if chosen else "scribe"), 2.5 if chosen else 1))
        painter.setBrush(theme.colour("raised" if chosen else "ground"))
        painter.drawRect(box.adjusted(1, 1, -1, -1))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        if cell.developed:
            self._corners(painter, box, cell.port.kind)
        size = 18 if self.small else 22
        head = box.adjusted(10, 4, -10, 0)
        head.setHeight(min(26.0, box.height() - 20))  # above the ticks
        name = f"{cell.short}" + ("  mirrored" if cell.mirrored and not self.small else "")
        paint_text(painter, head, cell.short, cell.port.kind, size, weight=600, narrow=True)
        if name != cell.short and box.width() > 190:
            paint_text(painter, head.adjusted(46, 2, -90, 0), "mirrored", "quiet", 12)
        role = {"down": "worse", "clock": "brass", "dash": "quiet"}.get(cell.mark, "quiet")
        word = cell.brief if self.small and cell.brief else cell.word
        sign = {"down": "▼ ", "clock": "■ ", "dash": "– "}.get(cell.mark, "")
        paint_text(painter, head.adjusted(34, 0, 0, 0), f"{sign}{word}", role, 14, right=True, weight=500)
        if not self.small and box.height() > 60:
            self._figures(painter, box, cell)
        self._ticks(painter, QRectF(box.left() + 10, box.bottom() - 13, box.width() - 20, 6), cell)

    def _figures(self, painter: QPainter, box: QRectF, cell: Cell) -> None:
        captioned = box.height() > 86
        wide = (box.width() - 20) / len(cell.figures)
        units = QFontMetricsF(theme.font(12))
        for i, f in enumerate(cell.figures):
            at = QRectF(box.left() + 10 + i * wide, box.top() + (30 if captioned else 26), wide - 4, 22)
            last = i == len(cell.figures) - 1 and len(cell.figures) > 1
            role = "worse" if f.thin and not f.change else "text" if f.caption else "quiet"
            big = bool(f.caption)
            size, weight = (18, 600) if big else (12, 400)
            past = QFontMetricsF(theme.font(size, weight=weight, narrow=big)).horizontalAdvance(f.text) + 5
            if f.unit and not captioned:  # no line for the caption: the unit stands beside its figure
                unit = at.translated(0 if last else past, 1)
                paint_text(painter, unit, f.unit, "quiet", 12, right=last)
                room = units.horizontalAdvance(f.unit) + 5
                past += room
                at.setRight(at.right() - (room if last else 0))
            paint_text(painter, at, f.text, role, size, right=last, weight=weight, narrow=big)
            if f.change and wide > 84:
                shown = "worse" if f.thin else "quiet"
                paint_text(painter, at.adjusted(past, 2, 0, 0), f.change, shown, 14, narrow=True)
            if captioned:
                paint_text(painter, at.translated(0, 20), f.caption, "quiet", 12, right=last)

    def _ticks(self, painter: QPainter, box: QRectF, cell: Cell) -> None:
        n = len(cell.ticks)
        if not n:
            return
        wide = (box.width() - 4 * (n - 1)) / n
        for i, state in enumerate(cell.ticks):
            tick = QRectF(box.left() + i * (wide + 4), box.top(), wide, box.height())
            if state == "done":
                painter.fillRect(tick, theme.colour(cell.port.kind))
            elif state == "running":
                painter.fillRect(QRectF(tick.left(), tick.top(), wide / 2, tick.height()), theme.colour("brass"))
            elif state == "waiting":
                painter.fillRect(tick, theme.colour("ground"))
                painter.setPen(QPen(theme.colour("scribe"), 1))
                painter.setBrush(QBrush(theme.colour("quiet"), Qt.BrushStyle.BDiagPattern))
                painter.drawRect(tick)
                painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.setPen(QPen(theme.colour("quiet"), 1))
            painter.drawRect(tick)

    def _corners(self, painter: QPainter, box: QRectF, kind: Direction) -> None:
        painter.setPen(QPen(theme.colour(kind), 2))
        long = 12
        for x, sx in ((box.left(), 1), (box.right(), -1)):
            for y, sy in ((box.top(), 1), (box.bottom(), -1)):
                painter.drawLine(QPointF(x, y), QPointF(x + sx * long, y))
                painter.drawLine(QPointF(x, y), QPointF(x, y + sy * long))

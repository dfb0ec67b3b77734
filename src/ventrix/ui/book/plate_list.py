"""The plates of the book: a list that draws only what is on screen, whatever its length."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import Any, Final

from PySide6.QtCore import QAbstractListModel, QModelIndex, QPersistentModelIndex, QPointF, QRect, QRectF, QSize, Qt
from PySide6.QtGui import QFontMetrics, QPainter, QPen, QPolygonF, QResizeEvent
from PySide6.QtWidgets import QAbstractItemView, QListView, QStyle, QStyledItemDelegate, QStyleOptionViewItem

from ventrix.records.book.index import Entry
from ventrix.rooms.book.plates import Plate, StateWords
from ventrix.ui.look import theme
from ventrix.ui.look.marks import draw_corners
from ventrix.words import tr

HEIGHT: Final = 148
LEAST_WIDTH: Final = 340
GAP: Final = 8
CURVES: Final = 148  # px that both curves take

_Index = QModelIndex | QPersistentModelIndex


class PlateModel(QAbstractListModel):
    """Entries; a plate is made when it is first looked at."""

    def __init__(self, plate: Callable[[Entry], Plate]) -> None:
        super().__init__()
        self._plate = plate
        self.entries: list[Entry] = []
        self._plates: dict[str, Plate] = {}

    def show_entries(self, entries: Sequence[Entry]) -> None:
        self.beginResetModel()
        self.entries = list(entries)
        self._plates.clear()
        self.endResetModel()

    def rowCount(self, parent: _Index | None = None) -> int:
        return 0 if parent is not None and parent.isValid() else len(self.entries)

    def plate(self, row: int) -> Plate:
        entry = self.entries[row]
        if entry.id not in self._plates:
            self._plates[entry.id] = self._plate(entry)
        return self._plates[entry.id]

    def data(self, index: _Index, role: int = Qt.ItemDataRole.DisplayRole) -> Any:
        if not index.isValid() or index.row() >= len(self.entries):
            return None
        if role == Qt.ItemDataRole.DisplayRole:
            return self.entries[index.row()].title
        if role == Qt.ItemDataRole.ToolTipRole:
            return self.entries[index.row()].title
        if role == Qt.ItemDataRole.AccessibleTextRole:
            return self.plate(index.row()).spoken
        return None


class PlateList(QListView):
    """Plates in as many columns as there is room for."""

    def __init__(self, model: PlateModel) -> None:
        super().__init__()
        self.setModel(model)
        self.setAccessibleName(tr("Jobs of the book"))
        self.setViewMode(QListView.ViewMode.IconMode)
        self.setMovement(QListView.Movement.Static)
        self.setResizeMode(QListView.ResizeMode.Adjust)
        self.setUniformItemSizes(True)
        self.setLayoutMode(QListView.LayoutMode.SinglePass)
        self.setSelectionMode(QAbstractItemView.SelectionMode.SingleSelection)
        self.setVerticalScrollMode(QAbstractItemView.ScrollMode.ScrollPerPixel)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.setVerticalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOn)
        self.setFrameShape(QListView.Shape.NoFrame)
        self.setItemDelegate(PlatePainter(self))
        self.setObjectName("plates")

    def resizeEvent(self, event: QResizeEvent) -> None:
        width = self.viewport().width() - 2
        columns = max(1, width // LEAST_WIDTH)
        self.setGridSize(QSize(width // columns, HEIGHT))
        super().resizeEvent(event)

    @property
    def columns(self) -> int:
        return max(1, (self.viewport().width() - 2) // max(self.gridSize().width(), 1))


class PlatePainter(QStyledItemDelegate):
    """Draws one plate: name, whose, three figures, both curves on one scale, and where the job stands."""

    def __init__(self, view: PlateList) -> None:
        super().__init__(view)
        self.view = view
        self.reach = (1.0, 1.0)  # lift and flow at the ends of the axes, one scale for all plates
        self.open_id = ""

    def sizeHint(self, option: QStyleOptionViewItem, index: _Index) -> QSize:
        return self.view.gridSize()

    def paint(self, painter: QPainter, option: QStyleOptionViewItem, index: _Index) -> None:
        model = index.model()
        assert isinstance(model, PlateModel)
        plate = model.plate(index.row())
        box = QRect(option.rect).adjusted(0, 0, -GAP, -GAP)
        chosen = bool(option.state & QStyle.StateFlag.State_Selected)
        painter.save()
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.fillRect(box, theme.colour("raised" if chosen else "panel"))
        frame = QRectF(box).adjusted(1, 1, -1, -1)
        if chosen:
            painter.setPen(QPen(theme.colour("brass"), 2))
            painter.drawRect(frame)
        else:
            draw_corners(painter, frame, "brass" if plate.job_id == self.open_id else "quiet")
        inner = box.adjusted(14, 8, -12, -8)
        self._words(painter, inner, plate)
        self._curves(painter, QRectF(inner.right() - CURVES, inner.top() + 46, CURVES, inner.height() - 50), plate)
        painter.restore()

    def _words(self, painter: QPainter, box: QRect, plate: Plate) -> None:
        _text(painter, QRect(box.left(), box.top(), box.width(), 22), plate.title, "text", 16, weight=600)
        _text(painter, QRect(box.left(), box.top() + 23, box.width(), 18), plate.line, "quiet", 12)
        room = box.width() - CURVES - 12
        step = room // 3
        for i, figure in enumerate(plate.figures):
            left, top = box.left() + i * step, box.top() + 44
            role = "brass" if figure.asked else "text"
            width = _text(painter, QRect(left, top, step - 4, 30), figure.text, role, 23, weight=600, narrow=True)
            if figure.asked:
                painter.setPen(QPen(theme.colour("brass"), 2))
                painter.drawLine(left, top + 30, left + width, top + 30)
            _text(painter, QRect(left, top + 33, step - 2, 16), figure.caption, "quiet", 12)
        self._state(painter, QRect(box.left(), box.bottom() - 20, room, 20), plate.state)

    def _state(self, painter: QPainter, box: QRect, state: StateWords) -> None:
        role = {"square": "brass", "late": "worse", "tick": "better"}.get(state.shape, "text")
        draw_state(painter, QRectF(box.left(), box.top() + 4, 12, 12), state.shape)
        width = _text(
            painter, box.adjusted(20, 0, 0, 0), state.words, role if role != "better" else "text", 13, weight=600
        )
        if state.beside and width + 32 < box.width():
            _text(painter, box.adjusted(30 + width, 0, 0, 0), state.beside, "quiet", 12)

    def _curves(self, painter: QPainter, box: QRectF, plate: Plate) -> None:
        painter.setPen(QPen(theme.colour("quiet"), 1))
        painter.drawLine(box.topLeft(), box.bottomLeft())
        painter.drawLine(box.bottomLeft(), box.bottomRight())
        across, up = self.reach
        if 0 < plate.lift <= across and plate.curves:
            x = box.left() + box.width() * plate.lift / across
            painter.setPen(QPen(theme.colour("brass"), 1, Qt.PenStyle.DotLine))
            painter.drawLine(QPointF(x, box.top()), QPointF(x, box.bottom()))
        for kind, lifts, flows in plate.curves:
            pen = QPen(theme.colour(kind), 2.0 if kind == "intake" else 1.6)
            pen.setStyle(Qt.PenStyle.SolidLine if kind == "intake" else Qt.PenStyle.DashLine)
            painter.setPen(pen)
            points = [
                QPointF(box.left() + box.width() * x / across, box.bottom() - box.height() * q / up)
                for x, q in zip((0.0, *lifts), (0.0, *flows), strict=True)
            ]
            painter.drawPolyline(QPolygonF(points))


def _text(
    painter: QPainter, box: QRect, words: str, role: str, size: float, *, weight: int = 400, narrow: bool = False
) -> int:
    """Text in a box, elided where it does not fit; returns how wide it is."""
    font = theme.font(size, weight=weight, narrow=narrow)
    painter.setFont(font)
    painter.setPen(theme.colour(role))
    metrics = QFontMetrics(font)
    shown = metrics.elidedText(words, Qt.TextElideMode.ElideRight, box.width())
    painter.drawText(box, Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter, shown)
    return metrics.horizontalAdvance(shown)


def draw_state(painter: QPainter, box: QRectF, shape: str) -> None:
    """The shape of a state: it tells which one it is without colour."""
    t = theme.current()
    painter.save()
    if shape == "square":
        painter.fillRect(box, theme.colour("brass"))
    elif shape == "hatched":
        painter.setPen(QPen(theme.colour("scribe"), 1))
        painter.drawRect(box)
        painter.fillRect(box, Qt.BrushStyle.BDiagPattern)
    elif shape == "dashed":
        painter.setPen(QPen(theme.colour("scribe"), 1.4, Qt.PenStyle.DashLine))
        painter.drawRect(box)
    elif shape == "late":
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(theme.colour(t.worse))
        painter.drawPolygon(QPolygonF([box.topLeft(), box.topRight(), QPointF(box.center().x(), box.bottom())]))
    elif shape == "tick":
        painter.setPen(QPen(theme.colour(t.better), 2))
        points = [
            QPointF(box.left(), box.center().y()),
            QPointF(box.left() + box.width() * 0.4, box.bottom()),
            QPointF(box.right(), box.top()),
        ]
        painter.drawPolyline(QPolygonF(points))
    else:
        painter.setPen(QPen(theme.colour("quiet"), 1.4))
        painter.drawRect(box)
    painter.restore()

"""The card of a cut: what was done, what was expected and came, volume, trials, thinnest metal, photos."""

from __future__ import annotations

from PySide6.QtCore import QRectF, Qt
from PySide6.QtGui import QBrush, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QGridLayout, QLabel, QSizePolicy, QVBoxLayout, QWidget

from ventrix.core.metal.walls import WallLeft
from ventrix.rooms.cuts.card import CardLine
from ventrix.rooms.display_units import Units
from ventrix.ui.look import theme
from ventrix.ui.look.marks import MARK, draw_corners
from ventrix.ui.widgets.photo_pair import PhotoPair
from ventrix.ui.widgets.scroll_area import ScrollArea
from ventrix.words import tr


class MetalBar(QWidget):
    """The thinnest metal as a figure and a bar with its limit. It reports; it never says safe."""

    def __init__(self) -> None:
        super().__init__()
        self._wall: WallLeft | None = None
        self._limit = 0.0
        self._units: Units | None = None
        self._asks = ""
        self.setFixedHeight(118)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)

    def show_wall(self, wall: WallLeft | None, limit: float, units: Units, asks: str) -> None:
        """Show a wall; `asks` stands in its place while none was read."""
        self._wall, self._limit, self._units, self._asks = wall, limit, units, asks
        self.setAccessibleName(tr("Thinnest metal"))
        self.setAccessibleDescription(asks if wall is None else self._words(wall, units)[0])
        self.update()

    def _words(self, wall: WallLeft, units: Units) -> tuple[str, str]:
        when = tr("read {}", wall.reading.date[:10]) if wall.reading.date else tr("read on an unrecorded day")
        where = f"{wall.reading.place}{', ' + wall.reading.band if wall.reading.band else ''}"
        since = tr(", {} off since", units.length.text(wall.taken_since)) if wall.taken_since else ""
        return where, tr("{} on this port{}; your limit is {}", when, since, units.length.text(self._limit))

    def paintEvent(self, event: QPaintEvent) -> None:
        if self._units is None:
            return
        painter = QPainter(self)
        left = Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter
        painter.setFont(theme.font(13))
        painter.setPen(theme.colour("quiet"))
        painter.drawText(QRectF(0, 0, self.width(), 20), left, tr("Thinnest metal now, after uncertainty"))
        if self._wall is None:
            painter.setPen(theme.colour("text"))
            painter.drawText(QRectF(0, 22, self.width(), 60), int(left | Qt.TextFlag.TextWordWrap), self._asks)
            return
        thin = self._wall.left < self._limit
        role = "worse" if thin else "text"
        where, words = self._words(self._wall, self._units)
        painter.setFont(theme.font(30, narrow=True, weight=600))
        painter.setPen(theme.colour(role))
        text = ("▼ " if thin else "") + self._units.length.with_unit(max(self._wall.left, 0.0))
        painter.drawText(QRectF(0, 20, self.width(), 36), left, text)
        wide = painter.fontMetrics().horizontalAdvance(text) + 12
        painter.setFont(theme.font(13))
        painter.setPen(theme.colour("text"))
        painter.drawText(QRectF(wide, 20, self.width() - wide, 36), left, where)
        painter.setFont(theme.font(12))
        painter.setPen(theme.colour("quiet"))
        painter.drawText(QRectF(0, 56, self.width(), 18), left, words)
        self._bar(painter, role)

    def _bar(self, painter: QPainter, role: str) -> None:
        assert self._wall is not None
        bar = QRectF(0, 80, self.width() - 2, 16)
        whole = max(self._wall.reading.thickness, 2 * self._limit)
        filled = bar.width() * min(max(self._wall.left, 0.0) / whole, 1.0)
        painter.fillRect(
            QRectF(bar.left(), bar.top(), filled, bar.height()),
            QBrush(theme.colour(role, 0.7), Qt.BrushStyle.BDiagPattern),
        )
        painter.setPen(QPen(theme.colour("scribe"), 1))
        painter.drawRect(bar)
        x = bar.left() + bar.width() * self._limit / whole
        painter.setPen(QPen(theme.colour("brass"), 2))
        painter.drawLine(int(x), int(bar.top()) - 4, int(x), int(bar.bottom()) + 4)
        painter.setFont(theme.font(12))
        painter.setPen(theme.colour("brass"))
        painter.drawText(QRectF(x + 4, bar.bottom() + 1, 60, 18), "limit")


class CutCard(QWidget):
    """Sections of lines; a section without lines takes no room."""

    def __init__(self) -> None:
        super().__init__()
        self.heading = QLabel()
        self.heading.setWordWrap(True)
        self.heading.setStyleSheet("font-size: 18px; font-weight: 600")
        self.lines: dict[str, list[CardLine]] = {}
        self._grid = QGridLayout()
        self._grid.setHorizontalSpacing(10)
        self._grid.setVerticalSpacing(3)
        self._grid.setColumnStretch(1, 1)
        self._labels: list[QLabel] = []
        self.metal = MetalBar()
        self.photos = PhotoPair()
        self.caution = QLabel()
        self.caution.setObjectName("quiet")
        self.caution.setWordWrap(True)
        inner = QWidget()
        column = QVBoxLayout(inner)
        column.setContentsMargins(0, 0, 8, 0)
        column.setSpacing(8)
        column.addWidget(self.heading)
        column.addLayout(self._grid)
        column.addWidget(self.metal)
        column.addWidget(self.caution)
        column.addWidget(self.photos)
        column.addStretch()
        scroll = ScrollArea(inner, sideways=False)
        outer = QVBoxLayout(self)
        outer.setContentsMargins(18, 14, 10, 12)
        outer.addWidget(scroll)

    def show_sections(self, sections: dict[str, list[CardLine]]) -> None:
        """Show these sections in order, each under its name."""
        self.lines = sections
        for label in self._labels:
            self._grid.removeWidget(label)
            label.hide()
            label.deleteLater()
        self._labels = []
        row = 0
        for name, lines in sections.items():
            if not lines:
                continue
            row = self._add(QLabel(name), row, 0, "caption", span=3)
            for line in lines:
                self._add(QLabel(line.caption), row, 0, "", bold=True)
                self._add(QLabel(MARK.get(line.result, "") + line.text), row, 1, "", role=line.result)
                extra = line.result if line.result not in (*MARK, "") else ""
                if extra:
                    self._add(QLabel(extra), row, 2, "quiet", right=True)
                row += 1

    def _add(
        self,
        label: QLabel,
        row: int,
        column: int,
        name: str,
        *,
        span: int = 1,
        bold: bool = False,
        role: str = "",
        right: bool = False,
    ) -> int:
        label.setObjectName(name)
        label.setWordWrap(not bold)
        label.setAlignment(
            (Qt.AlignmentFlag.AlignRight if right else Qt.AlignmentFlag.AlignLeft) | Qt.AlignmentFlag.AlignTop
        )
        if bold:
            label.setStyleSheet("font-weight: 600")
        elif role in MARK:
            label.setStyleSheet(f"color: {theme.current().result(role)}")
        if not right:
            label.setTextInteractionFlags(Qt.TextInteractionFlag.TextSelectableByMouse)
        self._grid.addWidget(label, row, column, 1, span)
        self._labels.append(label)
        return row + 1

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        box = QRectF(self.rect()).adjusted(0, 0, -1, -1)
        painter.fillRect(box, theme.colour("panel"))
        draw_corners(painter, box, "brass", 12)

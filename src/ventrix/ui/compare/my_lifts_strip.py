"""The porter's own lifts, first and large: before, after, and how sure."""

from __future__ import annotations

from PySide6.QtCore import QRectF, Qt
from PySide6.QtGui import QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QSizePolicy, QWidget

from ventrix.rooms.compare.my_lifts import LiftTile
from ventrix.ui.look import theme
from ventrix.ui.look.marks import draw_mark
from ventrix.words import tr

HIGH = 62  # px
GAP = 10


class MyLiftsStrip(QWidget):
    """A tile for each lift; nothing, and no room taken, where none is chosen."""

    def __init__(self) -> None:
        super().__init__()
        self.tiles: tuple[LiftTile, ...] = ()
        self.scale = 1.0
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.hide()

    def show_tiles(self, tiles: tuple[LiftTile, ...], scale: float = 1.0) -> None:
        """Show these; `scale` is larger where they are read from a distance."""
        self.tiles, self.scale = tiles, scale
        self.setFixedHeight(round(HIGH * scale))
        self.setVisible(bool(tiles))
        said = "; ".join(f"{t.heading}: {t.after}, {t.change}" for t in tiles)
        self.setAccessibleName(tr("My lifts"))
        self.setAccessibleDescription(said)
        self.setToolTip("\n".join(t.tip for t in tiles))
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        wide = (self.width() - GAP * (len(self.tiles) - 1)) / max(len(self.tiles), 1)
        k = self.scale
        left = Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter
        for i, tile in enumerate(self.tiles):
            box = QRectF(i * (wide + GAP), 0, wide, self.height() - 1)
            painter.fillRect(box, theme.colour("panel"))
            painter.setPen(QPen(theme.colour("quiet", 0.6), 1))
            painter.drawRect(box)
            painter.setFont(theme.font(int(13 * k)))
            painter.setPen(theme.colour("quiet"))
            heading = painter.fontMetrics().elidedText(tile.heading, Qt.TextElideMode.ElideMiddle, int(wide - 20))
            painter.drawText(box.adjusted(10, 4 * k, -8, -40 * k), left, heading)
            painter.setFont(theme.font(int(26 * k), narrow=True, weight=600))
            painter.setPen(theme.colour("text"))
            figures = box.adjusted(10, 22 * k, -8, -2)
            painter.drawText(figures, left, tile.after)
            used = painter.fontMetrics().horizontalAdvance(tile.after) + 14 * k
            draw_mark(painter, QRectF(box.left() + 10 + used, box.center().y() + 6 * k, 11 * k, 11 * k), tile.result)
            painter.setFont(theme.font(int(16 * k), narrow=True, weight=500))
            painter.setPen(theme.colour(theme.current().result(tile.result)))
            painter.drawText(figures.adjusted(used + 18 * k, 2 * k, 0, 0), left, tile.change)

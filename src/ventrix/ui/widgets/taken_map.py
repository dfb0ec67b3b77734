"""What two scans differ by, the port unrolled: more is stronger, grey is under what they tell apart."""

from __future__ import annotations

from typing import Final

import numpy as np
from PySide6.QtCore import QRectF, QSize, Qt
from PySide6.QtGui import QBrush, QPainter, QPaintEvent
from PySide6.QtWidgets import QSizePolicy, QWidget

from ventrix.core.quantity.units import to_si
from ventrix.core.scan.compare import Taken
from ventrix.rooms.display_units import Shown
from ventrix.ui.look import theme
from ventrix.words import tr

LEFT: Final = 44.0  # px, for the names of the sides
LINE: Final = 18.0  # px, of words above and below
SIDES: Final = ("floor", "right", "roof", "left")  # a quarter of the way round each, as the angles run


class TakenMap(QWidget):
    """Along the port from its face to the seat, round it from the middle of the floor by the right. What is less than
    nothing is drawn too where two ports are held against each other."""

    def __init__(self, caption: str = "Metal taken") -> None:
        super().__init__()
        self._caption, self._both = caption, caption != "Metal taken"
        self._taken: Taken | None = None
        self._said = self._seat = ""
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.setAccessibleName(tr("{}, the port unrolled", caption))

    def sizeHint(self) -> QSize:
        return QSize(360, 150)

    def show_taken(self, taken: Taken, length: Shown) -> None:
        """Draw what came off; its depths in the shop's unit."""
        self._taken, mm = taken, to_si(1.0, "mm")
        told = taken.depth[np.isfinite(taken.depth)]
        deepest = float(told.max()) if told.size else 0.0
        self._seat = tr("the seat, {}", length.with_unit(float(taken.along[-1]) * mm)) if len(taken.along) else ""
        self._said = tr("most {}; gray under {}", length.with_unit(deepest * mm), length.with_unit(taken.speckle * mm))
        if self._both:
            self._said += tr("; green: smaller")
        self.setAccessibleDescription(self._said)
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        if self._taken is None:
            return
        painter = QPainter(self)
        depth = self._taken.depth
        # The middle of each side in the middle of its quarter: the floor's begins an eighth before its middle.
        depth = np.roll(depth, depth.shape[1] // 8, axis=1)
        rows, columns = depth.shape[1], depth.shape[0]
        room = QRectF(LEFT, LINE, self.width() - LEFT - 2, self.height() - 2 * LINE)
        wide, tall = room.width() / columns, room.height() / rows
        told = depth[np.isfinite(depth)]
        deepest = max(
            float(np.abs(told).max() if self._both else told.max()) if told.size else 0.0, self._taken.speckle
        )
        unknown = QBrush(theme.colour("quiet"), Qt.BrushStyle.BDiagPattern)
        for i in range(columns):
            for j in range(rows):
                left, top = round(room.left() + i * wide), round(room.top() + j * tall)
                right, below = round(room.left() + (i + 1) * wide), round(room.top() + (j + 1) * tall)
                cell = QRectF(left, top, right - left, below - top)  # whole pixels: no seams between cells
                taken = depth[i, j]
                if not np.isfinite(taken):
                    painter.fillRect(cell, unknown)
                elif self._both and taken < -self._taken.speckle:
                    painter.fillRect(cell, theme.colour("intake", 0.25 + 0.75 * min(-float(taken) / deepest, 1.0)))
                elif taken <= self._taken.speckle:
                    painter.fillRect(cell, theme.colour("quiet", 0.25))
                else:
                    painter.fillRect(cell, theme.colour("brass", 0.25 + 0.75 * min(float(taken) / deepest, 1.0)))
        painter.setPen(theme.colour("scribe"))
        painter.drawRect(room)
        painter.setFont(theme.font(12))
        painter.setPen(theme.colour("text"))
        middle = Qt.AlignmentFlag.AlignVCenter
        for n, side in enumerate(SIDES):
            painter.drawText(QRectF(0, room.top() + n * room.height() / 4, LEFT - 6, room.height() / 4), middle, side)
        painter.drawText(QRectF(LEFT, 0, room.width(), LINE), middle, f"{self._caption}: {self._said}")
        ends = QRectF(LEFT, room.bottom(), room.width(), LINE)
        painter.drawText(ends, middle, tr("the face"))
        painter.drawText(ends, middle | Qt.AlignmentFlag.AlignRight, self._seat)

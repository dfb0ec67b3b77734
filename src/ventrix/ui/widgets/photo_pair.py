"""Before and after as one picture with a slider: drag it, or move it with the arrow keys."""

from __future__ import annotations

from pathlib import Path

from PySide6.QtCore import QRectF, Qt
from PySide6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen, QPixmap
from PySide6.QtWidgets import QSizePolicy, QWidget

from ventrix.ui.look import theme
from ventrix.words import tr


class PhotoPair(QWidget):
    """Two pictures, the one before to the left of the slider, the one after to its right."""

    def __init__(self) -> None:
        super().__init__()
        self._before, self._after = QPixmap(), QPixmap()
        self.share = 0.5
        self.setFixedHeight(190)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName(tr("Photos before and after"))

    def show_files(self, before: Path | None, after: Path | None) -> None:
        """Show these pictures; a missing one leaves its side empty."""
        self._before = QPixmap(str(before)) if before is not None else QPixmap()
        self._after = QPixmap(str(after)) if after is not None else QPixmap()
        missing = [
            n for n, p, f in (("before", self._before, before), ("after", self._after, after)) if f and p.isNull()
        ]
        self.setAccessibleDescription(tr("cannot be shown: {}", ", ".join(missing)) if missing else "")
        self.setVisible(before is not None or after is not None)
        self.update()

    def _move(self, x: float) -> None:
        self.share = min(max(x / max(self.width(), 1), 0.0), 1.0)
        self.update()

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self._move(event.position().x())

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        self._move(event.position().x())

    def keyPressEvent(self, event: QKeyEvent) -> None:
        step = {Qt.Key.Key_Left: -0.05, Qt.Key.Key_Right: 0.05}.get(Qt.Key(event.key()))
        if step is None:
            super().keyPressEvent(event)
        else:
            self._move((self.share + step) * self.width())

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        edge = self.share * self.width()
        box = QRectF(self.rect()).adjusted(0, 0, -1, -1)
        painter.fillRect(box, theme.colour("ground"))
        for picture, clip in (
            (self._before, QRectF(0, 0, edge, self.height())),
            (self._after, QRectF(edge, 0, self.width() - edge, self.height())),
        ):
            painter.save()
            painter.setClipRect(clip)
            if picture.isNull():
                painter.setPen(theme.colour("quiet"))
                painter.drawText(clip, Qt.AlignmentFlag.AlignCenter, tr("no photo"))
            else:
                size = picture.size().scaled(self.size(), Qt.AspectRatioMode.KeepAspectRatioByExpanding)
                left, top = (self.width() - size.width()) / 2, (self.height() - size.height()) / 2
                painter.drawPixmap(QRectF(left, top, size.width(), size.height()), picture, QRectF(picture.rect()))
            painter.restore()
        painter.setPen(QPen(theme.colour("brass"), 2))
        painter.drawLine(int(edge), 0, int(edge), self.height())
        painter.setPen(QPen(theme.colour("scribe"), 1))
        painter.drawRect(box)
        painter.setFont(theme.font(12, weight=500))
        for words, align in (("before", Qt.AlignmentFlag.AlignLeft), ("after", Qt.AlignmentFlag.AlignRight)):
            where = QRectF(6, 4, self.width() - 12, 18)
            wide = painter.fontMetrics().horizontalAdvance(words) + 8
            left = where.left() - 2 if align == Qt.AlignmentFlag.AlignLeft else where.right() - wide + 2
            painter.fillRect(QRectF(left, 3, wide, 19), theme.colour("ground", 0.8))
            painter.setPen(theme.colour("text"))
            painter.drawText(where, align, words)

"""A photo held beside a form: another shop's sheet is copied from it, line by line."""

from __future__ import annotations

from pathlib import Path

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent, QPixmap
from PySide6.QtWidgets import QLabel, QScrollArea, QWidget

from ventrix.words import tr

STEP = 1.25
MOST = 6.0


class PhotoWindow(QScrollArea):
    """Stays on top of the window; + and − make it larger and smaller, 0 fits it, Esc closes it."""

    def __init__(self, over: QWidget) -> None:
        super().__init__(over)
        self.setWindowFlags(Qt.WindowType.Tool)
        self.setAccessibleName(tr("Photo held beside the form: plus and minus for its size, Escape closes it"))
        self._picture = QPixmap()
        self._scale = 1.0
        self._shown = QLabel()
        self.setWidget(self._shown)
        self.resize(640, 720)

    def hold(self, path: Path) -> bool:
        """Show a picture as wide as the window; False where it is none."""
        picture = QPixmap(str(path))
        if picture.isNull():
            return False
        self._picture = picture
        self.setWindowTitle(tr("{}: + and − for its size", path.name))
        self._use(self.viewport().width() / max(picture.width(), 1))
        self.show()
        return True

    def _use(self, scale: float) -> None:
        self._scale = min(max(scale, 0.05), MOST)
        size = self._picture.size() * self._scale
        mode = Qt.TransformationMode.SmoothTransformation
        self._shown.setPixmap(self._picture.scaled(size, Qt.AspectRatioMode.KeepAspectRatio, mode))
        self._shown.resize(size)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        key = event.key()
        if key in (Qt.Key.Key_Plus, Qt.Key.Key_Equal):
            self._use(self._scale * STEP)
        elif key == Qt.Key.Key_Minus:
            self._use(self._scale / STEP)
        elif key == Qt.Key.Key_0:
            self._use(self.viewport().width() / max(self._picture.width(), 1))
        elif key == Qt.Key.Key_Escape:
            self.hide()
        else:
            super().keyPressEvent(event)

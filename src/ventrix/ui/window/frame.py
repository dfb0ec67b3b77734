"""The window's frame: what stands on the screen while the book is opened. It knows Qt and the theme, no more."""

from __future__ import annotations

from PySide6.QtCore import QByteArray, QSettings, Qt
from PySide6.QtWidgets import QLabel, QMainWindow

from ventrix.words import tr


class Frame(QMainWindow):
    """As large as the window was left, in its colours, until the window itself is painted."""

    def __init__(self, settings: QSettings) -> None:
        super().__init__()
        self.setWindowTitle("Ventrix")
        words = QLabel(tr("Opening the book…"))
        words.setObjectName("quiet")
        words.setAlignment(Qt.AlignmentFlag.AlignCenter)
        self.setCentralWidget(words)
        self.resize(1280, 800)
        saved = settings.value("window")
        if isinstance(saved, QByteArray):
            self.restoreGeometry(saved)

"""Draws the icon's PNG sizes from its SVG: python scripts/draw_icons.py"""

import os
from pathlib import Path

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")

from PySide6.QtCore import Qt
from PySide6.QtGui import QGuiApplication, QImage, QPainter
from PySide6.QtSvg import QSvgRenderer

SIZES = (16, 24, 32, 48, 64, 128, 256)

if __name__ == "__main__":
    app = QGuiApplication([])
    folder = Path(__file__).parents[1] / "src/ventrix/desktop/icons"
    drawing = QSvgRenderer(str(folder / "ventrix.svg"))
    for size in SIZES:
        image = QImage(size, size, QImage.Format.Format_ARGB32)
        image.fill(Qt.GlobalColor.transparent)
        painter = QPainter(image)
        drawing.render(painter)
        painter.end()
        image.save(str(folder / f"ventrix-{size}.png"))

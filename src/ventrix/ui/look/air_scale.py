"""The colour scale of air speeds: one hue, perceptually even in lightness (CIELAB), so that it reads in grey too."""

from __future__ import annotations

import numpy as np
from PySide6.QtCore import QRectF, QSize, Qt
from PySide6.QtGui import QColor, QPainter, QPaintEvent
from PySide6.QtWidgets import QSizePolicy, QWidget

from ventrix.ui.look import theme
from ventrix.words import tr

HUE = 1.35 * np.pi  # a blue-green, the colour of layout dye
CHROMA = 26.0
DARK, LIGHT = 22.0, 90.0  # L* of the slowest and of the fastest


def lab_colour(lightness: float, chroma: float = CHROMA, hue: float = HUE) -> QColor:
    """A colour by its CIELAB lightness, chroma and hue, under D65, clipped to sRGB. Source: CIE 15."""
    a, b = chroma * np.cos(hue), chroma * np.sin(hue)
    fy = (lightness + 16) / 116
    xyz = []
    for f, white in zip((fy + a / 500, fy, fy - b / 200), (0.95047, 1.0, 1.08883), strict=True):
        xyz.append(white * (f**3 if f > 6 / 29 else 3 * (6 / 29) ** 2 * (f - 4 / 29)))
    matrix = np.array([[3.2406, -1.5372, -0.4986], [-0.9689, 1.8758, 0.0415], [0.0557, -0.2040, 1.0570]])
    linear = np.clip(matrix @ np.array(xyz), 0.0, 1.0)
    srgb = np.where(linear <= 0.0031308, 12.92 * linear, 1.055 * linear ** (1 / 2.4) - 0.055)
    return QColor.fromRgbF(*(float(c) for c in np.clip(srgb, 0, 1)))


STEPS = 64
_RAMP = [lab_colour(float(x)) for x in np.linspace(DARK, LIGHT, STEPS)]


def speed_colour(share: float) -> QColor:
    """The colour of a share of the scale, 0 slowest to 1 fastest."""
    return _RAMP[int(min(max(share, 0.0), 1.0) * (STEPS - 1))]


def ink_on(share: float) -> QColor:
    """A text colour that reads on that colour."""
    return QColor("#FFFFFF") if share < 0.45 else QColor("#0B1820")


class ScaleBar(QWidget):
    """The scale, printed with its figures."""

    def __init__(self) -> None:
        super().__init__()
        self._low, self._high, self._words = 0.0, 1.0, ""
        self.setFixedHeight(34)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)

    def sizeHint(self) -> QSize:
        return QSize(300, 34)

    def show_scale(self, low: float, high: float, words: str) -> None:
        self._low, self._high, self._words = low, high, words
        self.setAccessibleName(tr("Scale from {:.0f} to {:.0f}, {}", low, high, words))
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        bar = QRectF(0, 2, self.width(), 12)
        step = bar.width() / STEPS
        for i in range(STEPS):
            painter.fillRect(QRectF(bar.left() + i * step, bar.top(), step + 1, bar.height()), _RAMP[i])
        painter.setPen(theme.colour("quiet"))
        painter.setFont(theme.font(14, narrow=True))
        where = QRectF(0, 15, self.width(), 18)
        painter.drawText(where, Qt.AlignmentFlag.AlignLeft, f"{self._low:.0f}")
        painter.drawText(where, Qt.AlignmentFlag.AlignHCenter, self._words)
        painter.drawText(where, Qt.AlignmentFlag.AlignRight, f"{self._high:.0f}")

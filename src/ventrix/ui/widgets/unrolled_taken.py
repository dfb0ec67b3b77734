"""Metal taken by two scans on the unrolled port: deeper is stronger, grey is under what they tell apart."""

from __future__ import annotations

from collections.abc import Callable

import numpy as np
from PySide6.QtCore import Qt
from PySide6.QtGui import QBrush, QPainter, QPainterPath

from ventrix.rooms.shared.unrolled_map import MetalTaken
from ventrix.ui.look import theme


def paint_taken(painter: QPainter, taken: MetalTaken, strip: Callable[[str, float, float], QPainterPath]) -> None:
    """Fill every strip of every side; `strip` draws one, by its side and how far along it begins and ends [m]."""
    middles = np.array(taken.along)
    edges = np.r_[2 * middles[0] - middles[1], middles, 2 * middles[-1] - middles[-2]]
    edges = np.maximum((edges[1:] + edges[:-1]) / 2, 0.0)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing, False)  # no seams between strips
    deepest = max(taken.deepest, taken.least)
    for band, depths in taken.depths.items():
        for depth, begun, ended in zip(depths, edges, edges[1:], strict=False):
            path = strip(band, float(begun), float(ended))
            if depth is None:
                painter.fillPath(path, QBrush(theme.colour("quiet", 0.5), Qt.BrushStyle.BDiagPattern))
            elif depth <= taken.least:
                painter.fillPath(path, theme.colour("quiet", 0.10))
            else:
                painter.fillPath(path, theme.colour("panel"))
                painter.fillPath(path, theme.colour("brass", 0.15 + 0.6 * min(depth / deepest, 1.0)))
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)

"""The one plot widget: curves against lift, bands, bars and marker lines. Every room configures it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import pyqtgraph as pg
from numpy.typing import NDArray
from PySide6.QtCore import Qt
from PySide6.QtGui import QColor, QPen
from PySide6.QtWidgets import QVBoxLayout, QWidget

from ventrix.ui import theme

Values = NDArray[np.float64]

_STYLES = {
    "solid": Qt.PenStyle.SolidLine,
    "dashed": Qt.PenStyle.DashLine,
    "dotted": Qt.PenStyle.DotLine,
}


@dataclass(frozen=True, slots=True)
class Line:
    """A curve in display units. `points` are drawn on it as squares; `label` stands at its end."""

    x: Values
    y: Values
    colour: str
    width: float = 2.0
    style: str = "solid"
    points: tuple[Values, Values] | None = None
    label: str = ""
    alpha: float = 1.0


@dataclass(frozen=True, slots=True)
class Band:
    """A filled band between two curves, in display units."""

    x: Values
    low: Values
    high: Values
    colour: str
    alpha: float = 0.28


@dataclass(frozen=True, slots=True)
class Bars:
    """Upright bars from zero with their text above."""

    x: Values
    heights: Values
    colours: Sequence[str]
    texts: Sequence[str]
    width: float


class LiftPlot(QWidget):
    """A plot over lift, drawn anew from plain values each time."""

    def __init__(self, caption: str) -> None:
        super().__init__()
        self.plot = pg.PlotWidget()
        self.plot.setMenuEnabled(False)
        self.plot.hideButtons()
        self.plot.setMouseEnabled(False, False)
        self.plot.setFrameShape(self.plot.Shape.NoFrame)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.addWidget(self.plot)
        self.setAccessibleName(caption)
        self.plot.setFocusPolicy(Qt.FocusPolicy.NoFocus)

    def restyle(self) -> None:
        """Take on the theme in force."""
        self.plot.setBackground(theme.colour("ground"))
        for side in ("left", "bottom"):
            axis = self.plot.getAxis(side)
            axis.setPen(_pen("quiet", 1))
            axis.setTextPen(theme.colour("quiet"))
            axis.setTickFont(theme.font(13, narrow=True))
        self.plot.getAxis("left").setWidth(44)

    def show_values(
        self,
        lines: Sequence[Line],
        *,
        bands: Sequence[Band] = (),
        bars: Bars | None = None,
        verticals: Sequence[tuple[float, str]] = (),
        x_range: tuple[float, float] | None = None,
        y_range: tuple[float, float] | None = None,
        x_ticks: Sequence[float] | None = None,
        digits: int = 1,
    ) -> None:
        """Replace everything drawn. `verticals` are marker lines with their words."""
        self.restyle()
        self.plot.clear()
        item = self.plot.getPlotItem()
        item.showGrid(x=True, y=True, alpha=0.13)
        for band in bands:
            self._add_band(band)
        for line in lines:
            self._add_line(line)
        self._add_labels(lines, y_range)
        if bars is not None:
            self._add_bars(bars)
        for x, words in verticals:
            self._add_vertical(x, words)
        if x_range is not None:
            item.setXRange(*x_range, padding=0)
        if y_range is not None:
            item.setYRange(*y_range, padding=0)
        axis = self.plot.getAxis("bottom")
        axis.setTicks(None if x_ticks is None else [[(x, f"{x:.{digits}f}") for x in x_ticks]])

    def _add_band(self, band: Band) -> None:
        low = pg.PlotCurveItem(band.x, band.low, pen=None)
        high = pg.PlotCurveItem(band.x, band.high, pen=None)
        self.plot.addItem(pg.FillBetweenItem(low, high, brush=theme.colour(band.colour, band.alpha)))

    def _add_line(self, line: Line) -> None:
        pen = _pen(line.colour, line.width, line.style, line.alpha)
        self.plot.addItem(pg.PlotCurveItem(line.x, line.y, pen=pen, antialias=True))
        if line.points is not None:
            self.plot.addItem(
                pg.ScatterPlotItem(
                    x=line.points[0],
                    y=line.points[1],
                    symbol="s",
                    size=8,
                    pen=_pen(line.colour, 1.5),
                    brush=theme.colour("ground"),
                )
            )

    def _add_labels(self, lines: Sequence[Line], y_range: tuple[float, float] | None) -> None:
        """Names at the ends of curves, pushed apart where they would stand on each other."""
        named = sorted((line for line in lines if line.label and len(line.x)), key=lambda line: float(line.y[-1]))
        apart = 0.0 if y_range is None else (y_range[1] - y_range[0]) * 15 / max(self.plot.height(), 260)
        lowest = -np.inf
        for line in named:
            lowest = max(float(line.y[-1]), lowest + apart)
            text = pg.TextItem(line.label, color=theme.colour(line.colour, line.alpha), anchor=(-0.3, 0.5))
            text.setFont(theme.font(14, narrow=True, weight=600))
            text.setPos(line.x[-1], lowest)
            self.plot.addItem(text)

    def _add_bars(self, bars: Bars) -> None:
        brushes = [theme.colour(c) for c in bars.colours]
        self.plot.addItem(pg.BarGraphItem(x=bars.x, height=bars.heights, width=bars.width, brushes=brushes, pen=None))
        for x, height, shade, words in zip(bars.x, bars.heights, bars.colours, bars.texts, strict=True):
            text = pg.TextItem(words, color=theme.colour(shade), anchor=(0.5, 1.0 if height >= 0 else 0.0))
            text.setFont(theme.font(13, narrow=True, weight=500))
            text.setPos(x, height)
            self.plot.addItem(text)

    def _add_vertical(self, x: float, words: str) -> None:
        line = pg.InfiniteLine(x, angle=90, pen=_pen("brass", 1, "dotted"))
        self.plot.addItem(line)
        label = pg.InfLineLabel(line, words, position=0.06, anchor=(0, 0.5), color=theme.colour("brass"))
        label.setFont(theme.font(13, narrow=True))


def _pen(role: str, width: float, style: str = "solid", alpha: float = 1.0) -> QPen:
    pen = QPen(QColor(theme.colour(role, alpha)), width)
    pen.setCosmetic(True)
    pen.setStyle(_STYLES[style])
    return pen

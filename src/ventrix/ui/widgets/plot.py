"""The one plot widget: curves against lift, bands, bars and marker lines. Every room configures it."""

from __future__ import annotations

import math
from collections.abc import Sequence
from itertools import pairwise
from typing import Final

import numpy as np
import pyqtgraph as pg
from PySide6.QtCore import QEvent, QObject, Qt, Signal
from PySide6.QtGui import QColor, QFont, QMouseEvent, QPen
from PySide6.QtWidgets import QGraphicsItem, QVBoxLayout, QWidget

from ventrix.core.quantity.words import number_text
from ventrix.rooms.shared.plot_values import Band, Bars, Line, Picture
from ventrix.ui.look import theme

TICK_WORDS: Final = 40  # px that a lift wants below the axis
BAR_WORDS: Final = 42  # px that a figure wants over its bar

_STYLES = {
    "solid": Qt.PenStyle.SolidLine,
    "dashed": Qt.PenStyle.DashLine,
    "dotted": Qt.PenStyle.DotLine,
}


class Plot(QWidget):
    """A plot over lift, drawn anew from plain values each time.

    Hovering reads all curves at that place; dragging selects a range, told in display units (None: let go).
    """

    range_selected = Signal(object)

    def __init__(self, caption: str, *, selects: bool = False) -> None:
        super().__init__()
        self._lines: list[Line] = []
        self._drag_from: float | None = None
        self.selection: tuple[float, float] | None = None
        self.readout = ""
        self._digits = 1
        self._value_digits = 1
        self.plot = pg.PlotWidget(enableMenu=False)
        self._styled: tuple[str, QFont] | None = None
        self._ticks: Sequence[float] | None = None
        self._bar_words: list[pg.TextItem] = []
        self.plot.getViewBox().sigResized.connect(self._thin_out)
        self.plot.hideButtons()
        self.plot.setMouseEnabled(False, False)
        self.plot.setFrameShape(self.plot.Shape.NoFrame)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.addWidget(self.plot)
        self.setAccessibleName(caption)
        self.plot.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.plot.viewport().setFocusPolicy(Qt.FocusPolicy.NoFocus)
        if selects:
            for side in ("left", "bottom"):  # a range is dragged over them many times a second
                self.plot.getAxis(side).setCacheMode(QGraphicsItem.CacheMode.DeviceCoordinateCache)
            self.plot.viewport().setMouseTracking(True)
            self.plot.viewport().installEventFilter(self)

    def restyle(self) -> None:
        """Take on the theme in force, where that is another."""
        style = theme.current().name, theme.font(13, narrow=True)
        if self._styled == style:
            return
        self._styled = style
        self.plot.setBackground(theme.colour("ground"))
        for side in ("left", "bottom"):
            axis = self.plot.getAxis(side)
            axis.setPen(_pen("quiet", 1))
            axis.setTextPen(theme.colour("quiet"))
            axis.setTickFont(theme.font(13, narrow=True))
        self.plot.getAxis("left").setWidth(44)

    def show_picture(self, picture: Picture) -> None:
        """Replace everything drawn."""
        self.restyle()
        item = self.plot.getPlotItem()
        item.disableAutoRange()  # each thing added would ask for the range again
        self.plot.clear()
        self._hover_items: list[pg.GraphicsObject] = []
        self._bar_words = []
        self._lines, self._digits, self._value_digits = list(picture.lines), picture.digits, picture.value_digits
        item.showGrid(x=True, y=True, alpha=0.13)
        for band in picture.bands:
            self._add_band(band)
        for line in picture.lines:
            self._add_line(line)
        self._add_labels(picture.lines, picture.y_range)
        if picture.bars is not None:
            self._add_bars(picture.bars)
        for x, words in picture.verticals:
            self._add_vertical(x, words)
        for y, words in picture.horizontals:
            self._add_horizontal(y, words)
        for x, y, words in picture.spots:
            mark = pg.TextItem(words, color=theme.colour("brass"), anchor=(0.5, 1.25))
            mark.setFont(theme.font(14, narrow=True, weight=600))
            mark.setPos(x, y)
            self.plot.addItem(mark)
        self._show_selection()
        if picture.x_range is not None:
            item.setXRange(*picture.x_range, padding=0)
        if picture.y_range is not None:
            item.setYRange(*picture.y_range, padding=0)
        if picture.x_range is None or picture.y_range is None:
            item.enableAutoRange(x=picture.x_range is None, y=picture.y_range is None)
        self._ticks = picture.x_ticks
        self._thin_out()

    def _thin_out(self, _view: object = None) -> None:
        """Only as many words along the axis and over the bars as do not touch: every other, every third."""
        low, high = self.plot.getViewBox().viewRange()[0]
        a_unit = self.plot.getViewBox().width() / max(high - low, 1e-12)

        def apart(places: Sequence[float], wide: float) -> int:
            near = min((b - a for a, b in pairwise(places)), default=0.0) * a_unit
            return 1 if len(places) < 2 or near >= wide else math.ceil(wide / max(near, 1e-9))

        ticks = self._ticks
        if ticks is None:
            self.plot.getAxis("bottom").setTicks(None)
        else:
            shown = ticks[:: apart(ticks, TICK_WORDS)]
            self.plot.getAxis("bottom").setTicks([[(x, f"{x:.{self._digits}f}") for x in shown]])
        step = apart([text.pos().x() for text in self._bar_words], BAR_WORDS)
        for i, text in enumerate(self._bar_words):
            text.setVisible(i % step == 0)

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
            self._bar_words.append(text)

    def _add_horizontal(self, y: float, words: str) -> None:
        line = pg.InfiniteLine(y, angle=0, pen=_pen("brass", 1, "dashed"))
        self.plot.addItem(line)
        label = pg.TextItem(words, color=theme.colour("brass"), anchor=(0, 1))
        label.setFont(theme.font(13, narrow=True))
        label.setPos(0.0, y)
        self.plot.addItem(label)

    # -- reading and selecting with the mouse

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        if isinstance(event, QMouseEvent):
            x = self._x_at(event)
            if event.type() == QEvent.Type.MouseMove:
                if self._drag_from is not None:
                    self._select(self._drag_from, x)
                else:
                    self.hover(x)
            elif event.type() == QEvent.Type.MouseButtonPress and event.button() == Qt.MouseButton.LeftButton:
                self._drag_from = x
            elif event.type() == QEvent.Type.MouseButtonRelease and self._drag_from is not None:
                started, self._drag_from = self._drag_from, None
                low, high = self.plot.getViewBox().viewRange()[0]
                if abs(x - started) < 0.01 * (high - low):
                    self.clear_selection()
            elif event.type() == QEvent.Type.MouseButtonDblClick:
                self.clear_selection()
        elif event.type() == QEvent.Type.Leave:
            self._clear_hover()
        return False

    def _x_at(self, event: QMouseEvent) -> float:
        scene = self.plot.mapToScene(event.position().toPoint())
        return float(self.plot.getViewBox().mapSceneToView(scene).x())

    def _select(self, a: float, b: float) -> None:
        self.selection = (min(a, b), max(a, b))
        self._show_selection()
        self.range_selected.emit(self.selection)

    def clear_selection(self) -> None:
        """Let go of the range."""
        if self.selection is not None:
            self.selection = None
            self._show_selection()
            self.range_selected.emit(None)

    def _show_selection(self) -> None:
        old = getattr(self, "_region", None)
        if old is not None and old.scene() is not None and self.selection is not None:
            old.setRegion(self.selection)
            return
        if old is not None and old.scene() is not None:
            self.plot.removeItem(old)
        self._region = None
        if self.selection is not None:
            brush = theme.colour("brass", 0.12)
            self._region = pg.LinearRegionItem(
                self.selection, movable=False, brush=brush, pen=_pen("brass", 1, "dotted")
            )
            self.plot.addItem(self._region, ignoreBounds=True)

    def hover(self, x: float) -> str:
        """Read every named curve at a place: a line with their figures. Returns the figures as text."""
        self._clear_hover()
        read = [(line, _nearest(line, x)) for line in self._lines if line.label]
        known = [(line, y) for line, y in read if y is not None]
        if not known:
            return ""
        words = [f"{line.label}: {number_text(y, self._value_digits)}" for line, y in reversed(known)]
        self.readout = f"{x:.{self._digits}f}   " + "   ".join(words)
        line = pg.InfiniteLine(x, angle=90, pen=_pen("quiet", 1))
        low, high = self.plot.getViewBox().viewRange()[0]
        text = pg.TextItem(
            "\n".join([f"{x:.{self._digits}f}", *words]), color=theme.colour("text"), fill=theme.colour("panel", 0.9)
        )
        text.setFont(theme.font(13, narrow=True))
        text.setAnchor((1.05 if x > (low + high) / 2 else -0.05, 0))
        text.setPos(x, self.plot.getViewBox().viewRange()[1][1])
        for item in (line, text):
            self.plot.addItem(item, ignoreBounds=True)
            self._hover_items.append(item)
        return self.readout

    def _clear_hover(self) -> None:
        self.readout = ""
        for item in getattr(self, "_hover_items", []):
            if item.scene() is not None:
                self.plot.removeItem(item)
        self._hover_items = []

    def _add_vertical(self, x: float, words: str) -> None:
        line = pg.InfiniteLine(x, angle=90, pen=_pen("brass", 1, "dotted"))
        self.plot.addItem(line)
        label = pg.InfLineLabel(line, words, position=0.06, anchor=(0, 0.5), color=theme.colour("brass"))
        label.setFont(theme.font(13, narrow=True))


def _nearest(line: Line, x: float) -> float | None:
    """A curve's value at a place, None where it does not reach or is not known."""
    if not len(line.x) or x < line.x[0] or x > line.x[-1]:
        return None
    value = float(np.interp(x, line.x, line.y))
    return value if np.isfinite(value) else None


def _pen(role: str, width: float, style: str = "solid", alpha: float = 1.0) -> QPen:
    pen = QPen(QColor(theme.colour(role, alpha)), width)
    pen.setCosmetic(True)
    pen.setStyle(_STYLES[style])
    return pen

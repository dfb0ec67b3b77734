"""Walls as pins on the unrolled port, the arrow of its core, and the line that says what its signs mean."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import Final

import numpy as np
from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QBrush, QPainter, QPen

from ventrix.core.quantity.arrays import Array
from ventrix.rooms.display_units import Units
from ventrix.rooms.shared.label_places import Box, place_labels
from ventrix.rooms.shared.unrolled_map import CoreShift, MapPicture, Pin
from ventrix.ui.look import theme
from ventrix.words import tr

DOT: Final = 9.0  # px kept clear around a pin
RIGHT_MARGIN: Final = 34  # px of the map, where the last figure may stand
Places = Callable[[Sequence[str], Array, Array], list[QPointF]]


def paint_pins(painter: QPainter, pins: Sequence[Pin], places: Places, field: QRectF) -> int:
    """Dots at their places; the thinnest walls have the first choice of where their figure stands. How many figures
    found no room; `places` says where pins lie."""
    painter.setFont(theme.font(15, narrow=True, weight=600))
    metrics = painter.fontMetrics()
    pins = sorted(pins, key=lambda pin: (not pin.thin, pin.text))
    along, across = np.array([pin.along for pin in pins]), np.array([pin.across for pin in pins])
    spots = places([pin.band for pin in pins], along, across)
    words = [("▼" if pin.thin else "≥ " if pin.of_casting else "") + pin.text for pin in pins]
    hatch, edge = QBrush(theme.colour("scribe", 0.55), Qt.BrushStyle.BDiagPattern), QPen(theme.colour("scribe"), 1)
    painter.setPen(edge)
    for pin, at in zip(pins, spots, strict=True):
        if pin.behind:
            box = QRectF(at.x() - DOT, at.y() - DOT, 2 * DOT, 2 * DOT)
            painter.fillRect(box, hatch)
            painter.drawRect(box)
    labels = place_labels(
        np.array([(at.x(), at.y()) for at in spots]).reshape(-1, 2),
        [metrics.horizontalAdvance(text) + 4 for text in words],
        18,
        Box(field.left(), field.top() - 16, field.width() + RIGHT_MARGIN - 4, field.height() + 32),
        DOT,
    )
    pens = {thin: QPen(theme.colour("worse" if thin else "text"), 2.2) for thin in (True, False)}
    painter.setBrush(theme.colour("ground"))
    under = theme.colour("ground", 0.55)
    for pin, at, text, label in zip(pins, spots, words, labels, strict=True):
        painter.setPen(pens[pin.thin])
        if pin.of_casting:  # nobody read this one: hatched
            painter.setPen(edge)
            painter.setBrush(hatch)
            painter.drawEllipse(at, 7.0, 7.0)
            painter.setBrush(theme.colour("ground"))
            painter.setPen(QPen(theme.colour("quiet"), 1))
        else:
            painter.drawEllipse(at, 4.5, 4.5)
        if label is not None:
            painter.fillRect(QRectF(*label), under)
            painter.drawText(QPointF(label.left + 2, label.top + 14), text)
    painter.setBrush(Qt.BrushStyle.NoBrush)
    return sum(label is None for label in labels)


def paint_legend(painter: QPainter, p: MapPicture, units: Units, room: QRectF, unlabelled: int) -> None:
    """What the colours and signs of a map mean, on one line; what finds no room ends in an ellipsis."""
    x, y = room.left(), room.top()

    def write(words: str) -> None:
        shown = painter.fontMetrics().elidedText(words, Qt.TextElideMode.ElideRight, max(int(room.right() - x), 0))
        painter.drawText(QPointF(x, y + 13), shown)

    if p.spots:
        painter.setPen(theme.colour("quiet"))
        write(tr("○ flow lost to a ball held there, {}", units.flow.label))
        return
    working = tr("cut {}'s working", p.numbers[0])
    if p.taken is not None:
        working = tr("taken off by scan, up to {}", units.length.with_unit(p.taken.deepest))
    parts = [("brass", working), (p.kind, tr("earlier working"))]
    for role, words in parts:
        painter.fillRect(QRectF(x, y + 3, 14, 11), theme.colour(role, 0.5))
        painter.setPen(theme.colour("quiet"))
        x += 20
        write(words)
        x += painter.fontMetrics().horizontalAdvance(words) + 20
    if p.pins:
        words = tr("○ wall left here, {}; hatched: what lies behind", units.length.label)
        if any(pin.of_casting for pin in p.pins):
            words += tr(", or not read here: the least of other heads")
        if unlabelled:
            words += tr("; {} without room for a figure: point at them", unlabelled)
        write(words)
        x += painter.fontMetrics().horizontalAdvance(words) + 20
    if p.port.guessed:
        write(tr("guessed: {}", ", ".join(p.port.guessed)))


def paint_shift(painter: QPainter, shift: CoreShift, centre: QPointF) -> None:
    """The core's shift as an arrow in a ring, right and roof as they are met looking in."""
    painter.setPen(QPen(theme.colour("scribe"), 1))
    painter.setBrush(Qt.BrushStyle.NoBrush)
    painter.drawEllipse(centre, 20, 20)
    most = max(abs(shift.right), abs(shift.up))
    end = QPointF(centre.x() + 26 * shift.right / most, centre.y() - 26 * shift.up / most)
    painter.setPen(QPen(theme.colour("brass"), 2.5))
    painter.drawLine(centre, end)
    painter.setBrush(theme.colour("brass"))
    painter.drawEllipse(end, 3, 3)
    painter.setBrush(Qt.BrushStyle.NoBrush)
    painter.setFont(theme.font(12))
    painter.setPen(theme.colour("text"))
    where = QRectF(centre.x() - 260, centre.y() - 9, 230, 18)
    painter.drawText(where, Qt.AlignmentFlag.AlignRight, shift.text)

"""What is read from two metres away: the phase, the lift, the flow, the pressure tape, the steadiness."""

from __future__ import annotations

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QFont, QFontMetricsF, QPainter, QPaintEvent, QPen, QPolygonF
from PySide6.QtWidgets import QSizePolicy, QWidget

from ventrix.rooms.flow.pictures import FarPicture, Tape
from ventrix.ui.look import theme
from ventrix.ui.look.marks import draw_corners, draw_mark
from ventrix.words import tr

LEFT = Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter

RIGHT = Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter


class FarView(QWidget):
    """Paints a `FarPicture`. Sizes follow the room there is."""

    def __init__(self) -> None:
        super().__init__()
        self.far = FarPicture("")
        self.alone = False  # the far view has the window to itself: only what matters, none of it small
        self.least = 48.0  # px: what reads at the user's own distance
        self.setMinimumSize(330, 330)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setAccessibleName(tr("Bench"))

    def show_far(self, far: FarPicture) -> None:
        if far == self.far:
            return
        self.far = far
        self.setAccessibleDescription(
            f"{far.phase}. {far.sentence} Lift {far.lift}. Flow {far.flow} {far.flow_unit}. "
            f"{far.difference} {far.difference_words}"
        )
        self.update()

    def _size(self, size: float) -> float:
        """A size in px, never under what reads from afar while the far view stands alone."""
        return max(size, self.least) if self.alone else size

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        f = self.far
        box = QRectF(self.rect()).adjusted(0, 0, -1, -1)
        painter.fillRect(box, theme.colour(f.ground or "panel"))
        draw_corners(painter, box, "text" if f.ground else "quiet")
        inner = box.adjusted(24, 16, -24, -12)
        unit = inner.height() / (88 if self.alone else 100)  # the column is laid out in hundredths of the height
        y = inner.top()
        if f.ground in ("refused", "odd"):
            y = self._words(painter, inner, y, unit, f.phase)
        elif f.sentence:
            y = self._phase(painter, inner, y, unit)
            y = self._words(painter, inner, y, unit * 0.66, f.sentence)
        else:
            y = self._phase(painter, inner, y, unit)
            y = self._lift(painter, inner, y, unit)
        painter.setPen(QPen(theme.colour("quiet", 0.6), 1))
        painter.drawLine(QPointF(inner.left(), y), QPointF(inner.right(), y))
        y = self._flow(painter, inner, y + unit, unit)
        y = self._difference(painter, inner, y, unit)
        if f.tape is not None:
            y = self._tape(painter, inner, y, unit, f.tape)
        if f.steady is not None:
            self._steady(painter, inner, y, unit, f.steady)
        if not self.alone:
            painter.setFont(self._fit(f.foot, 13, inner.width(), weight=400, narrow=False))
            painter.setPen(theme.colour("text" if f.ground else "quiet"))
            painter.drawText(QRectF(inner.left(), inner.bottom() - 18, inner.width(), 18), LEFT, f.foot)

    def _fit(self, text: str, size: float, width: float, *, weight: int, narrow: bool = True) -> QFont:
        """The largest font up to `size` px in which the text fits the width."""
        found = theme.font(size, narrow=narrow, weight=weight)
        wide = QFontMetricsF(found).horizontalAdvance(text)
        return theme.font(size * width / wide, narrow=narrow, weight=weight) if wide > width else found

    def _phase(self, painter: QPainter, inner: QRectF, y: float, unit: float) -> float:
        f = self.far
        height = 9 * unit
        painter.setFont(theme.font(14 if not self.alone else 1, narrow=True))
        hint = painter.fontMetrics().horizontalAdvance(f.hint) + 16
        shown = not self.alone and hint < 0.55 * inner.width()  # a caption: it gives way first
        hint = hint if shown else 0
        painter.setPen(theme.colour("text" if f.ground else "quiet"))
        if shown:
            painter.drawText(QRectF(inner.left(), y, inner.width(), height), RIGHT, f.hint)
        painter.setFont(self._fit(f.phase, self._size(6.2 * unit), inner.width() - hint, weight=600, narrow=False))
        painter.setPen(theme.colour("text" if f.ground else "brass"))
        painter.drawText(QRectF(inner.left(), y, inner.width(), height), LEFT, f.phase)
        return y + height

    def _words(self, painter: QPainter, inner: QRectF, y: float, unit: float, words: str) -> float:
        """A sentence takes the room of phase and lift, as large as it fits, to be read from the bench."""
        where = QRectF(inner.left(), y, inner.width(), 31 * unit)
        flags = int(LEFT | Qt.TextFlag.TextWordWrap)
        size = self._size(6.5 * unit)
        while size > 12:
            painter.setFont(theme.font(size, weight=600))
            if painter.boundingRect(where, flags, words).height() <= where.height():
                break
            size -= 1
        painter.setPen(theme.colour("text"))
        painter.drawText(where, flags, words)
        return y + 32 * unit

    def _lift(self, painter: QPainter, inner: QRectF, y: float, unit: float) -> float:
        f = self.far
        height = 22 * unit
        painter.setFont(self._fit(f.lift, 26 * unit, inner.width() * 0.66, weight=600))
        painter.setPen(theme.colour("text" if f.ground else "brass"))
        width = painter.fontMetrics().horizontalAdvance(f.lift)
        painter.drawText(QRectF(inner.left(), y, inner.width(), height), LEFT, f.lift)
        beside = inner.left() + width + 24
        painter.setFont(theme.font(max(3.2 * unit, 13)))
        painter.setPen(theme.colour("text" if f.ground else "quiet"))
        if not self.alone:
            painter.drawText(QRectF(beside, y + 5 * unit, 200, 5 * unit), LEFT, f.lift_caption)
        painter.setPen(theme.colour("text"))
        painter.setFont(self._fit(f.next_lift, self._size(3.2 * unit), inner.right() - beside, weight=500))
        painter.drawText(QRectF(beside, y + 8 * unit, inner.right() - beside, 9 * unit), LEFT, f.next_lift)
        return y + height + unit

    def _flow(self, painter: QPainter, inner: QRectF, y: float, unit: float) -> float:
        f = self.far
        height = 26 * unit
        side = max(12 * unit, 70)
        painter.setFont(self._fit(f.flow, 30 * unit, inner.width() - side, weight=600))
        painter.setPen(theme.colour("text"))
        painter.drawText(QRectF(inner.left() - 4, y, inner.width(), height), LEFT, f.flow)
        painter.setFont(theme.font(max(4 * unit, 14)))
        painter.setPen(theme.colour("text" if f.ground else "quiet"))
        painter.drawText(QRectF(inner.left(), y + 2 * unit, inner.width(), 6 * unit), RIGHT, f.flow_unit)
        painter.setFont(theme.font(self._size(max(5 * unit, 16)), narrow=True))
        painter.drawText(QRectF(inner.left(), y + 16 * unit, inner.width(), 9 * unit), RIGHT, f.spread)
        return y + height

    def _difference(self, painter: QPainter, inner: QRectF, y: float, unit: float) -> float:
        f = self.far
        height = 9 * unit
        if f.difference:
            draw_mark(painter, QRectF(inner.left(), y + 1.5 * unit, 6 * unit, 6 * unit), f.result)
            painter.setFont(theme.font(self._size(7.5 * unit), narrow=True, weight=600))
            shade = "text" if f.ground else theme.current().result(f.result)
            painter.setPen(theme.colour(shade))
            left = inner.left() + 8.5 * unit
            painter.drawText(QRectF(left, y, inner.width(), height), LEFT, f.difference)
            left += painter.fontMetrics().horizontalAdvance(f.difference) + 20
        else:
            left = inner.left()
        if f.difference_words:
            size = 14.0 if not self.alone else self.least
            painter.setFont(
                self._fit(f.difference_words, size, max(inner.right() - left, 40), weight=400, narrow=False)
            )
            painter.setPen(theme.colour("text" if f.ground else "quiet"))
            painter.drawText(QRectF(left, y, inner.right() - left, height), LEFT, f.difference_words)
        return y + height + unit

    def _tape(self, painter: QPainter, inner: QRectF, y: float, unit: float, tape: Tape) -> float:
        painter.setFont(theme.font(13))
        painter.setPen(theme.colour("text" if self.far.ground else "quiet"))
        line = self._size(max(5 * unit, 18))
        if not self.alone:
            painter.drawText(QRectF(inner.left(), y, inner.width(), line), LEFT, tape.caption)
        painter.setFont(theme.font(self._size(max(4.5 * unit, 18)), narrow=True, weight=600))
        painter.setPen(theme.colour("text"))
        painter.drawText(QRectF(inner.left(), y, inner.width(), line), RIGHT, tape.text)
        bar = QRectF(inner.left(), y + line + 2, inner.width(), 4 * unit)
        span = tape.high - tape.low

        def x_of(value: float) -> float:
            return bar.left() + bar.width() * min(max((value - tape.low) / span, 0.0), 1.0)

        window = QRectF(x_of(tape.window[0]), bar.top(), x_of(tape.window[1]) - x_of(tape.window[0]), bar.height())
        painter.fillRect(window, theme.colour("intake", 0.45))
        painter.setPen(QPen(theme.colour("scribe"), 1))
        painter.drawRect(bar)
        painter.setFont(theme.font(12, narrow=True))
        for i in range(0 if self.alone else 5):
            value = tape.low + span * i / 4
            painter.setPen(theme.colour("text" if self.far.ground else "quiet"))
            painter.drawLine(QPointF(x_of(value), bar.bottom()), QPointF(x_of(value), bar.bottom() + 4))
            where = QRectF(x_of(value) - 30, bar.bottom() + 3, 60, 16)
            align = Qt.AlignmentFlag.AlignHCenter
            if i == 0:
                where, align = QRectF(bar.left(), where.top(), 60, 16), Qt.AlignmentFlag.AlignLeft
            elif i == 4:
                where, align = QRectF(bar.right() - 60, where.top(), 60, 16), Qt.AlignmentFlag.AlignRight
            painter.drawText(where, align, f"{value:.{tape.digits}f}")
        if tape.at is not None:
            x = x_of(tape.at)
            painter.setRenderHint(QPainter.RenderHint.Antialiasing)
            painter.setBrush(theme.colour("brass"))
            painter.setPen(Qt.PenStyle.NoPen)
            tip = bar.top() + bar.height() * 0.2
            base = bar.bottom()
            painter.drawPolygon(QPolygonF([QPointF(x, tip), QPointF(x + 10, base), QPointF(x - 10, base)]))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.setRenderHint(QPainter.RenderHint.Antialiasing, False)
        return bar.bottom() + (8 if self.alone else 22)

    def _steady(self, painter: QPainter, inner: QRectF, y: float, unit: float, share: float) -> None:
        painter.setFont(theme.font(13))
        painter.setPen(theme.colour("text" if self.far.ground else "quiet"))
        if not self.alone:
            painter.drawText(QRectF(inner.left(), y, inner.width(), 18), LEFT, "steady")
            painter.drawText(QRectF(inner.left(), y, inner.width(), 18), RIGHT, self.far.steady_words)
        bar = QRectF(inner.left(), y + (4 if self.alone else 20), inner.width(), max(2 * unit, 8))
        full = share >= 1
        filled = QRectF(bar.left(), bar.top(), bar.width() * share, bar.height())
        painter.fillRect(filled, theme.colour("intake" if full else "unproven"))
        painter.setPen(QPen(theme.colour("scribe"), 1))
        painter.drawRect(bar)

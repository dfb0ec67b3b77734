"""What stands in the row of cuts: a plate a cut, a chip a trial, and the place of the next cut."""

from __future__ import annotations

from PySide6.QtCore import QRectF, QSize, Qt, Signal
from PySide6.QtGui import QFontMetrics, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import (
    QAbstractButton,
)

from ventrix.core.judging.findings import Gain
from ventrix.core.model.cut import Cut, Port, Trial, poured_volume
from ventrix.rooms.display_units import US, Units
from ventrix.rooms.shared.gain_words import gain_text, shown_of
from ventrix.ui.look import theme
from ventrix.ui.look.marks import draw_mark
from ventrix.words import tr

CHIP = 22

PLATE = QSize(190, 54)


class Plate(QAbstractButton):
    """One cut: number, name, gain against the pinned cut, port cc, minutes.

    Click looks at it; Shift-click or D compares with it. A cut without a flow test is hollow.
    """

    looked_at = Signal(str)
    held_against = Signal(str)

    def __init__(self) -> None:
        super().__init__()
        self._cut = Cut(id="", number=0)
        self._port: Port | None = None
        self._units = US
        self._chosen = self._pinned = False
        self._gain: Gain | None = None
        self._unflowed = "not flowed"
        self.setFixedSize(PLATE)
        self.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        self.setCursor(Qt.CursorShape.PointingHandCursor)
        self.clicked.connect(lambda: self.looked_at.emit(self._cut.id))

    def show_cut(
        self, cut: Cut, port: Port, units: Units, gain: Gain | None, *, chosen: bool, pinned: bool, stands: str = ""
    ) -> None:
        """Show a cut, and its gain against the pinned one where there is one."""
        self._cut, self._port, self._units, self._gain = cut, port, units, gain
        self._chosen, self._pinned = chosen, pinned
        self._unflowed = tr("not flowed; the test of {} is used for it", stands) if stands else "not flowed"
        self._name()
        self.update()

    def _name(self) -> None:
        parts = [tr("cut {}", self._cut.number), self._cut.name, self._second_line()]
        if self._gain is not None:
            unit = (
                ""
                if self._gain.is_share or not self._gain.comparable
                else f" {shown_of(self._gain, self._units).label}"
            )
            parts.append(f"{gain_text(self._gain, self._units)}{unit}, {self._gain.verdict.headline}")
        if self._chosen:
            parts.append(tr("looked at"))
        if self._pinned:
            parts.append(tr("compared with"))
        if not self._cut.runs:
            parts.append(self._unflowed)
        words = ", ".join(p for p in parts if p)
        self.setAccessibleName(words)
        trials = [tr("trial: {} {}", t.kind, t.name) for t in self._cut.trials]
        self.setToolTip("\n".join([words, *trials, tr("Click to look at it; Shift-click or D to compare with it.")]))

    def _second_line(self) -> str:
        volume = poured_volume(self._cut)
        minutes = sum(o.duration or 0.0 for o in self._cut.operations)
        parts = [self._units.volume.with_unit(volume)] if volume is not None else []
        if minutes:
            parts.append(self._units.duration.with_unit(minutes))
        return "   ".join(parts)

    @property
    def cut_id(self) -> str:
        """The cut that it stands for."""
        return self._cut.id

    def mousePressEvent(self, event: QMouseEvent) -> None:
        if event.modifiers() & Qt.KeyboardModifier.ShiftModifier:
            self.held_against.emit(self._cut.id)
            return
        super().mousePressEvent(event)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_D and not event.modifiers():
            self.held_against.emit(self._cut.id)
        elif event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.click()
        else:
            super().keyPressEvent(event)

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        box = QRectF(self.rect()).adjusted(3, 3, -3, -3)
        edge = "brass" if self._chosen else "scribe"
        if self._cut.runs:
            painter.fillRect(box, theme.colour("raised" if self._chosen else "panel"))
        painter.setPen(QPen(theme.colour(edge), 2 if self._chosen else 1))
        painter.drawRect(box)
        if self._pinned and self._port is not None:
            pen = QPen(theme.colour(theme.current().port(self._port.kind)), 1.5, Qt.PenStyle.DashLine)
            painter.setPen(pen)
            painter.drawRect(QRectF(self.rect()).adjusted(1, 1, -1, -1))
        if self.hasFocus():
            painter.fillRect(QRectF(box.left(), box.bottom() - 2, box.width(), 3), theme.colour("brass"))
        painter.setPen(theme.colour("brass" if self._chosen else "text"))
        painter.setFont(theme.font(24, narrow=True, weight=500))
        painter.drawText(box.adjusted(9, 0, 0, 0), Qt.AlignmentFlag.AlignVCenter, str(self._cut.number))
        left = box.left() + (32 if self._cut.number < 10 else 42)
        name_font = theme.font(13, weight=500)
        painter.setFont(name_font)
        painter.setPen(theme.colour("text"))
        room = box.right() - left - 6
        name = QFontMetrics(name_font).elidedText(self._cut.name, Qt.TextElideMode.ElideMiddle, int(room))
        painter.drawText(QRectF(left, box.top() + 4, room, 20), Qt.AlignmentFlag.AlignVCenter, name)
        painter.setFont(theme.font(13, narrow=True))
        painter.setPen(theme.colour("quiet"))
        below = QRectF(left, box.top() + 25, room, 20)
        painter.drawText(
            below, Qt.AlignmentFlag.AlignVCenter, self._second_line() if self._cut.runs else self._unflowed
        )
        self._paint_gain(painter, below)

    def _paint_gain(self, painter: QPainter, below: QRectF) -> None:
        if self._gain is None:
            return
        text = gain_text(self._gain, self._units)
        if not self._gain.comparable:
            painter.setFont(theme.font(12, narrow=True))
            painter.setPen(theme.colour("quiet"))
            painter.drawText(below, Qt.AlignmentFlag.AlignVCenter | Qt.AlignmentFlag.AlignRight, text)
            return
        painter.setFont(theme.font(15, narrow=True, weight=600))
        painter.setPen(theme.colour(theme.current().result(self._gain.mark)))
        width = painter.fontMetrics().horizontalAdvance(text)
        painter.drawText(below, Qt.AlignmentFlag.AlignVCenter | Qt.AlignmentFlag.AlignRight, text)
        draw_mark(painter, QRectF(below.right() - width - 15, below.center().y() - 5, 10, 10), self._gain.mark)


class TrialChip(QAbstractButton):
    """A try below its cut's plate, on a dotted line: not metal. Click looks at it, held against its cut."""

    looked_at = Signal(str)

    def __init__(self, trial: Trial, *, chosen: bool, result: str) -> None:
        super().__init__()
        self._trial, self._chosen, self._result = trial, chosen, result
        self.setFixedSize(PLATE.width(), CHIP)
        self.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        self.setCursor(Qt.CursorShape.PointingHandCursor)
        self.setText(f"{trial.kind}: {trial.name or trial.place}")
        self.setAccessibleName(
            tr("Trial {}, {}{}", self.text(), result or "not flowed", tr(", looked at") if chosen else "")
        )
        self.setToolTip(tr("A trial, not metal: {}", self.text()))
        self.clicked.connect(lambda: self.looked_at.emit(trial.id))

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setPen(
            QPen(theme.colour("brass" if self._chosen or self.hasFocus() else "quiet"), 1, Qt.PenStyle.DotLine)
        )
        painter.drawLine(18, 0, 18, CHIP // 2)
        painter.drawRect(QRectF(18, 2, self.width() - 24, CHIP - 4))
        painter.setFont(theme.font(12, narrow=True, weight=500 if self._chosen else 400))
        painter.setPen(theme.colour("brass" if self._chosen else "text"))
        words = painter.fontMetrics().elidedText(self.text(), Qt.TextElideMode.ElideMiddle, self.width() - 56)
        painter.drawText(QRectF(26, 0, self.width() - 50, CHIP), Qt.AlignmentFlag.AlignVCenter, words)
        if self._result:
            draw_mark(painter, QRectF(self.width() - 20, CHIP / 2 - 4, 8, 8), self._result)


class NewCutPlate(QAbstractButton):
    """The dashed plate at the end of the row that starts a new cut."""

    def __init__(self) -> None:
        super().__init__()
        self.setFixedSize(100, PLATE.height())
        self.setText(tr("+ cut"))
        self.setAccessibleName(tr("New cut"))
        self.setCursor(Qt.CursorShape.PointingHandCursor)

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        style = Qt.PenStyle.SolidLine if self.hasFocus() else Qt.PenStyle.DashLine
        painter.setPen(QPen(theme.colour("brass" if self.hasFocus() else "quiet"), 1, style))
        painter.drawRect(QRectF(self.rect()).adjusted(3, 3, -4, -4))
        painter.setPen(theme.colour("brass"))
        painter.setFont(theme.font(13, weight=500))
        painter.drawText(self.rect(), Qt.AlignmentFlag.AlignCenter, self.text())

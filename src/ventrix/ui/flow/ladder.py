"""The lift ladder: one rung a lift, with its flow and what it differs by from the pinned cut."""

from __future__ import annotations

from PySide6.QtCore import QRectF, QSize, Qt, Signal
from PySide6.QtGui import QMouseEvent, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QSizePolicy, QWidget

from ventrix.core.model.kinds import RungNoteKind
from ventrix.rooms.flow.pictures import LadderRung
from ventrix.ui.look import theme
from ventrix.ui.look.marks import draw_mark
from ventrix.ui.widgets.spoken_rows import SpokenRows
from ventrix.words import tr

RUNG = 33

HEADING = 28


class LiftLadder(QWidget):
    """Rungs from the lowest lift down the page. Clicking one asks to stand on it."""

    rung_chosen = Signal(int)

    def __init__(self) -> None:
        super().__init__()
        self.rungs: list[LadderRung] = []
        self.at: int | None = None
        self._headings = ("lift", "flow", "against")
        self.setSizePolicy(QSizePolicy.Policy.Fixed, QSizePolicy.Policy.MinimumExpanding)
        self.setFixedWidth(236)
        self.setAccessibleName(tr("Lift ladder"))
        self.told = SpokenRows(self)

    def sizeHint(self) -> QSize:
        return QSize(236, HEADING + RUNG * (len(self.rungs) + 1) + 8)

    def show_rungs(self, rungs: list[LadderRung], at: int | None, headings: tuple[str, str, str]) -> None:
        """Show these rungs, standing on `at`."""
        self.rungs, self.at, self._headings = rungs, at, headings
        said = [f"{r.lift}: {r.flow or 'open'} {r.difference} {r.result} {' '.join(r.notes)}".strip() for r in rungs]
        self.setToolTip("\n".join(f"{r.lift}: {', '.join(r.notes)}" for r in rungs if r.notes))
        self.setAccessibleDescription("; ".join(said))
        self.told.say((QRectF(0, self._top(i), self.width(), RUNG), words) for i, words in enumerate(said))
        self.setMinimumHeight(self.sizeHint().height())
        self.update()

    def _top(self, index: int) -> float:
        extra = 16 if self.at is not None and index > self.at else 0
        return HEADING + index * RUNG + extra

    def mousePressEvent(self, event: QMouseEvent) -> None:
        for i in range(len(self.rungs)):
            if self._top(i) <= event.position().y() < self._top(i) + RUNG + (16 if i == self.at else 0):
                self.rung_chosen.emit(i)

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setFont(theme.font(12))
        painter.setPen(theme.colour("quiet"))
        right = Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter
        left = Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter
        painter.drawText(QRectF(8, 0, 70, HEADING), left, self._headings[0])
        painter.drawText(QRectF(70, 0, 70, HEADING), right, self._headings[1])
        painter.drawText(QRectF(140, 0, 88, HEADING), right, self._headings[2])
        for i, rung in enumerate(self.rungs):
            self._paint_rung(painter, i, rung, left, right)

    def _paint_rung(
        self, painter: QPainter, i: int, rung: LadderRung, left: Qt.AlignmentFlag, right: Qt.AlignmentFlag
    ) -> None:
        here = i == self.at
        box = QRectF(1, self._top(i), self.width() - 2, RUNG + (16 if here else 0))
        if here:
            painter.fillRect(box, theme.colour("raised"))
            painter.setPen(QPen(theme.colour("brass"), 2))
            painter.drawRect(box)
        else:
            painter.setPen(QPen(theme.colour("quiet", 0.4), 1))
            painter.drawLine(box.bottomLeft(), box.bottomRight())
        painter.setFont(theme.font(28 if here else 19, narrow=True, weight=600 if here else 400))
        painter.setPen(theme.colour("brass" if here else ("text" if rung.flow else "quiet")))
        painter.drawText(box.adjusted(7, 0, 0, 0), left, rung.lift)
        if not rung.flow:
            painter.setFont(theme.font(17, narrow=True))
            words = (
                "set" if here else "struck" if rung.struck else "skipped" if RungNoteKind.SKIPPED in rung.notes else "·"
            )
            painter.drawText(box.adjusted(0, 0, -8, 0), right, words)
            return
        painter.setFont(theme.font(19, narrow=True, weight=600))
        painter.setPen(theme.colour("text"))
        raised = 7 if rung.swirl else 0
        steady = "~" if rung.unsteady else ""  # as large as the figure that it is said of
        painter.drawText(QRectF(60, box.top() - raised, 80, box.height()), right, f"{steady}{rung.flow}")
        if rung.swirl:
            painter.setFont(theme.font(12, narrow=True))
            painter.setPen(theme.colour("quiet"))
            painter.drawText(QRectF(70, box.top() + 10, 70, box.height()), right, f"{rung.swirl} rpm")
        if rung.readings > 1 or rung.letters:
            painter.setFont(theme.font(12, narrow=True))
            painter.setPen(theme.colour("quiet"))
            words = (f"×{rung.readings}" if rung.readings > 1 else "") + rung.letters
            painter.drawText(QRectF(141, box.top() + 2, 24, box.height()), left, words)
        if rung.difference:
            painter.setFont(theme.font(16, narrow=True, weight=500))
            painter.setPen(theme.colour(theme.current().result(rung.result)))
            painter.drawText(box.adjusted(0, 0, -8, 0), right, rung.difference)
            width = painter.fontMetrics().horizontalAdvance(rung.difference)
            mark = QRectF(box.right() - 8 - width - 16, box.center().y() - 5, 10, 10)
            draw_mark(painter, mark, rung.result)

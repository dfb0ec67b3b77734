"""The row of cuts: a plate for every state of the port, always on screen."""

from __future__ import annotations

from PySide6.QtCore import QRectF, QSize, Qt, QTimer, Signal
from PySide6.QtGui import QFontMetrics, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen, QResizeEvent
from PySide6.QtWidgets import (
    QAbstractButton,
    QHBoxLayout,
    QLabel,
    QSizePolicy,
    QVBoxLayout,
    QWidget,
)

from ventrix.core.edits.several_ports import stood_for_by
from ventrix.core.judging.findings import Gain
from ventrix.core.model.cut import Cut, Port, Trial, poured_volume, trial_as_cut
from ventrix.rooms.display_units import US, Units
from ventrix.rooms.shared.gain_words import gain_text, shown_of
from ventrix.ui.look import theme
from ventrix.ui.look.marks import draw_mark
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.scroll_area import ScrollArea
from ventrix.words import tr

PLATE = QSize(190, 54)
CHIP = 22
GAP = 14
WIDE = 1000  # px: what names the pinned cut in words beside the plates
MOST_CHIPS = 3  # below a plate before the row scrolls


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


class Column(QWidget):
    """A plate and the trials that hang from it."""

    def __init__(self) -> None:
        super().__init__()
        self.plate = Plate()
        self._lines = QVBoxLayout(self)
        self._lines.setContentsMargins(0, 0, 0, 0)
        self._lines.setSpacing(0)
        self._lines.addWidget(self.plate)
        self._lines.addStretch()
        self.chips: list[TrialChip] = []

    def show_trials(self, chips: list[TrialChip]) -> None:
        """Hang these below the plate in place of what hung there."""
        for chip in self.chips:
            self._lines.removeWidget(chip)
            chip.hide()
            chip.deleteLater()
        self.chips = chips
        for i, chip in enumerate(chips):
            self._lines.insertWidget(1 + i, chip)


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


class CutRow(QWidget):
    """The plates of the port in hand, in order, joined by a line."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__()
        self._open_book = open_book
        self.columns: list[Column] = []
        self._inner = QWidget()
        self._line = QHBoxLayout(self._inner)
        self._line.setContentsMargins(6, 4, 6, 4)
        self._line.setSpacing(GAP)
        self.plus = NewCutPlate()
        self.plus.clicked.connect(lambda: open_book.ways.sheet("cut"))
        self._line.addStretch()
        self._scroll = ScrollArea()
        self._scroll.setWidget(self._inner)
        self._scroll.setWidgetResizable(True)
        self._scroll.setVerticalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self._scroll.setFixedHeight(PLATE.height() + 20)
        self._against_caption = QLabel(tr("against"))
        self._against_caption.setObjectName("caption")
        self._against = QLabel()
        for label in (self._against_caption, self._against):
            label.setAlignment(Qt.AlignmentFlag.AlignRight)
        pinned = QVBoxLayout()
        pinned.setSpacing(2)
        pinned.addStretch()
        pinned.addWidget(self._against_caption)
        pinned.addWidget(self._against)
        pinned.addStretch()
        row = QHBoxLayout(self)
        row.setContentsMargins(8, 4, 16, 4)
        row.setSpacing(0)
        # Cut 0 and "+ cut" stay in reach however long the row is: only what lies between them scrolls.
        self._first = QVBoxLayout()
        self._first.setContentsMargins(8, 4, 6, 4)
        row.addLayout(self._first)
        row.addWidget(self._scroll, 1000)
        end = QVBoxLayout()
        end.setContentsMargins(6, 4, 8, 4)
        end.addWidget(self.plus)
        end.addStretch()
        row.addLayout(end)
        row.addStretch(1)
        row.addLayout(pinned)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self._settled = QTimer(self, interval=0, singleShot=True)
        self._settled.timeout.connect(self._keep_in_sight)
        self._scroll.horizontalScrollBar().rangeChanged.connect(self._settled.start)  # the row has got its length
        # Gains of every plate can wait until the kept reading itself is drawn.
        self._later = QTimer(self)
        self._later.setSingleShot(True)
        self._later.setInterval(0)
        self._later.timeout.connect(self.rebuild)
        open_book.opened.connect(self.rebuild)
        open_book.job_changed.connect(self._later.start)
        open_book.selection_changed.connect(self.rebuild)
        open_book.look_changed.connect(self.rebuild)
        self.rebuild()

    def rebuild(self) -> None:
        """Bring the plates up to date with the job."""
        space = self._open_book.workspace
        port = space.port if space else None
        self.setVisible(port is not None)
        if space is None or port is None or space.selection is None:
            return
        self._match_count(len(port.cuts))
        chosen, against = space.selection.cut_id, space.against
        trial_id = space.selection.trial_id
        for column, cut in zip(self.columns, port.cuts, strict=True):
            plate = column.plate
            pinned = against is not None and cut.id == against.id
            gain = None
            if against is not None and not pinned and cut.runs and against.runs:
                gain = space.findings.gain(space.findings.pair(port, against, cut))
            here = cut.id == chosen
            plate.show_cut(
                cut,
                port,
                self._open_book.units,
                gain,
                chosen=here and trial_id is None,
                pinned=pinned,
                stands=self._stands(port, cut),
            )
            column.show_trials([self._chip(port, cut, trial, trial_id) for trial in cut.trials])
        self._scroll.setVisible(len(self.columns) > 1)
        self._scroll.setMaximumWidth((len(self.columns) - 1) * (PLATE.width() + GAP) + 12)
        most = max((len(cut.trials) for cut in port.cuts), default=0)
        self._scroll.setFixedHeight(PLATE.height() + 20 + CHIP * min(most, MOST_CHIPS))
        self._name_against(against, port)
        self._settled.start()

    def _keep_in_sight(self) -> None:
        """The plate held against, and above all the one looked at, once the row has its size."""
        space = self._open_book.workspace
        if space is None or space.selection is None:
            return
        against = space.against
        for cut_id in ("" if against is None else against.id, space.selection.cut_id):
            plate = next((p for p in self.plates[1:] if p.cut_id == cut_id), None)
            if plate is not None:
                self._scroll.ensureWidgetVisible(plate, 8, 0)

    def _stands(self, port: Port, cut: Cut) -> str:
        """Name of the port whose test is taken to speak for a cut that was not flowed."""
        space = self._open_book.workspace
        found = stood_for_by(space.job, port, cut) if space is not None else None
        return found.name if found is not None else ""

    def resizeEvent(self, event: QResizeEvent) -> None:
        """In a small window the plates have the row to themselves; the pinned one bears its mark."""
        super().resizeEvent(event)
        for label in (self._against_caption, self._against):
            label.setVisible(self.width() >= WIDE)
        self._settled.start()

    def _chip(self, port: Port, cut: Cut, trial: Trial, chosen: str | None) -> TrialChip:
        space = self._open_book.workspace
        assert space is not None
        result = ""
        if trial.runs and cut.runs:
            gain = space.findings.gain(space.findings.pair(port, cut, trial_as_cut(cut, trial)))
            result = gain.mark if gain is not None else ""
        chip = TrialChip(trial, chosen=trial.id == chosen, result=result)
        chip.looked_at.connect(self._look_at_trial)
        return chip

    @property
    def plates(self) -> list[Plate]:
        return [column.plate for column in self.columns]

    def _match_count(self, wanted: int) -> None:
        """As many plates as cuts; the ones there are stay, and with them the keyboard's place."""
        while len(self.columns) > wanted:
            column = self.columns.pop()
            (self._line if self.columns else self._first).removeWidget(column)
            column.hide()
            column.deleteLater()
        while len(self.columns) < wanted:
            column = Column()
            column.plate.looked_at.connect(self._look_at)
            column.plate.held_against.connect(self._hold_against)
            if self.columns:
                self._line.insertWidget(len(self.columns) - 1, column)
            else:
                self._first.addWidget(column)
            self.columns.append(column)

    def _look_at(self, cut_id: str) -> None:
        if self._open_book.workspace is not None:
            self._open_book.workspace.look_at(cut_id)

    def _look_at_trial(self, trial_id: str) -> None:
        if self._open_book.workspace is not None:
            self._open_book.workspace.look_at_trial(trial_id)

    def _hold_against(self, cut_id: str) -> None:
        if self._open_book.workspace is not None:
            self._open_book.workspace.hold_against(cut_id)

    def _name_against(self, against: Cut | None, port: Port) -> None:
        if against is None:
            self._against.setText(tr("nothing yet"))
        else:
            name = QFontMetrics(theme.font(13)).elidedText(against.name, Qt.TextElideMode.ElideMiddle, 150)
            self._against.setText(tr("cut {}, {}", against.number, name))
        self._against.setStyleSheet(f"color: {theme.current().port(port.kind)}")

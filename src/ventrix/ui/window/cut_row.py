"""The row of cuts: a plate for every state of the port, always on screen."""

from __future__ import annotations

from PySide6.QtCore import Qt, QTimer
from PySide6.QtGui import QFontMetrics, QResizeEvent
from PySide6.QtWidgets import (
    QHBoxLayout,
    QLabel,
    QSizePolicy,
    QVBoxLayout,
    QWidget,
)

from ventrix.core.edits.several_ports import stood_for_by
from ventrix.core.model.cut import Cut, Port, Trial, trial_as_cut
from ventrix.ui.look import theme
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.scroll_area import ScrollArea
from ventrix.ui.window.cut_plates import CHIP, PLATE, NewCutPlate, Plate, TrialChip
from ventrix.words import tr

GAP = 14
WIDE = 1000  # px: what names the pinned cut in words beside the plates
MOST_CHIPS = 3  # below a plate before the row scrolls


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
        self._scroll = ScrollArea(self._inner)
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

"""One port's page: what limits it, what to do next, and what the picked move would bring."""

from __future__ import annotations

from typing import Final

import numpy as np
from PySide6.QtCore import QSize, Qt, Signal
from PySide6.QtWidgets import QHBoxLayout, QLabel, QPushButton, QVBoxLayout, QWidget

from ventrix.core.planning.moves import Move
from ventrix.core.planning.next_moves import Plan
from ventrix.rooms.plan.lift_marks import lift_marks
from ventrix.rooms.plan.route_shows import StageLine, stage_lines
from ventrix.rooms.plan.shows import MoveLine, answer_of, fit_words, move_lines, record_words, segments, split_words
from ventrix.ui.look import theme
from ventrix.ui.open_book import OpenBook
from ventrix.ui.plan.beside import Beside
from ventrix.ui.plan.lift_strip import LiftStrip
from ventrix.ui.plan.limit_bar import LimitBar
from ventrix.ui.plan.move_list import MoveList
from ventrix.ui.widgets.answer_strip import AnswerStrip, say_large
from ventrix.ui.widgets.scroll_area import ScrollArea
from ventrix.words import tr

NARROW: Final = 1000  # px: below, the picked move's picture gives way
FLAT: Final = 600  # px
SURE: Final = 380  # px, of how sure the answer is


class PortPage(QWidget):
    """An answer on top, what limits on the left, the next moves in the middle, what the picked one would bring and what
    the port is worth on the engine on the right.

    Signals: `taken` when the picked move is wanted, `clicked` when one was picked by hand.
    """

    taken = Signal()
    clicked = Signal()

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__()
        self.open_book = open_book
        self.plan: Plan | None = None
        self.at = 0
        self.lift_at = -1
        self.every = False
        self.strip = AnswerStrip()
        self.verdict, self.reason = self.strip.verdict, self.strip.reason
        ((self.worth, self.sure),) = self.strip.figures
        self.sure.setWordWrap(True)
        self.sure.setMinimumWidth(SURE)
        for label in (self.worth, self.sure):
            label.setAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
        self.limits_head = QLabel(tr("What limits"))
        self.limits_head.setObjectName("heading")
        self.basis = QLabel()
        self.basis.setObjectName("caption")
        self.basis.setWordWrap(True)
        self.lift_words = QLabel()
        self.lift_words.setAlignment(Qt.AlignmentFlag.AlignCenter)
        self.before, self.after = QPushButton("◂"), QPushButton("▸")
        self.before.setAccessibleName(tr("A lower lift"))
        self.after.setAccessibleName(tr("A higher lift"))
        self.before.clicked.connect(lambda: self.step_lift(-1))
        self.after.clicked.connect(lambda: self.step_lift(1))
        self.lifts = LiftStrip()
        self.lifts.picked.connect(self._pick_lift)
        self.bar = LimitBar()
        self.bar.picked.connect(self._pick_place)
        self.fit_said = QLabel()
        self.fit_said.setObjectName("caption")
        self.fit_said.setWordWrap(True)
        self.legend = QLabel(tr("solid: measured on this port · hatched and ~: an estimate, not measured on this port"))
        self.legend.setObjectName("caption")
        self.legend.setWordWrap(True)
        self.moves = MoveList()
        self.moves.picked.connect(self._pick_row)
        self.moves.taken.connect(self.taken)
        self.left_out = QLabel()
        self.left_out.setObjectName("caption")
        self.left_out.setWordWrap(True)
        self.beside = Beside()
        self.beside.setFixedWidth(240)
        self._lay_out()

    def _lay_out(self) -> None:
        steps = QHBoxLayout()
        steps.addWidget(self.before)
        steps.addWidget(self.lift_words, 1)
        steps.addWidget(self.after)
        for button in (self.before, self.after):
            button.setFocusPolicy(Qt.FocusPolicy.TabFocus)
            button.setFixedWidth(44)
        left = QVBoxLayout()
        left.setSpacing(4)
        left.addWidget(self.limits_head)
        left.addLayout(steps)
        left.addWidget(self.lifts)
        left.addWidget(self.basis)
        left.addWidget(self.bar, 1)
        left.addWidget(self.legend)
        left.addWidget(self.fit_said)
        heading = QLabel(tr("Next moves, best hour first"))
        heading.setObjectName("heading")
        scroll = ScrollArea(self.moves, sideways=False)
        middle = QVBoxLayout()
        middle.setSpacing(4)
        middle.addWidget(heading)
        middle.addWidget(scroll, 1)
        middle.addWidget(self.left_out)
        columns = QHBoxLayout()
        columns.setSpacing(20)
        columns.addLayout(left, 3)
        columns.addLayout(middle, 6)
        columns.addWidget(self.beside)
        inside = QVBoxLayout(self)
        inside.setContentsMargins(0, 0, 0, 0)
        inside.addWidget(self.strip)
        inside.addLayout(columns, 1)

    def fit(self, there: QSize) -> None:
        """In a small window the picked move's picture gives way, then how the chain fits (the bar's tip has it)."""
        self.beside.setVisible(there.width() >= NARROW)
        self.fit_said.setVisible(there.height() >= FLAT)

    def show_plan(self, plan: Plan) -> None:
        self.plan = plan
        self.at = min(self.at, max(len(plan.candidates) - 1, 0))
        self.draw()

    def stages(self) -> tuple[StageLine, ...]:
        space = self.open_book.workspace
        return (
            () if space is None or space.port is None else stage_lines(space.findings, space.port, self.open_book.units)
        )

    def next_stage(self) -> str:
        """The stage that comes next without a bench, which wants no measurement."""
        line = next((s for s in self.stages() if s.now), None)
        return "" if line is None else tr("Without a bench, next: {}. {}", line.stage, " ".join(line.says))

    def draw(self) -> None:
        """Everything that is shown of the plan in hand."""
        plan, units, t = self.plan, self.open_book.units, theme.current()
        if plan is None:
            return
        answer = answer_of(plan, units)
        shade = t.quiet if answer.by_the_book else t.worse if answer.stops else t.better
        self.verdict.say(answer.what, 44, t.text, answer.verdict, shade)
        say_large(self.worth, answer.worth, 44, shade)
        self.reason.setText(answer.reason)
        self.sure.setText(answer.sure)
        space = self.open_book.workspace
        lifts = plan.planned.lift
        lift = float(lifts[self.lift_at % len(lifts)]) if self.lift_at < len(lifts) else float(lifts[-1])
        self.lift_words.setText(units.lift.with_unit(lift))
        self.lift_words.setStyleSheet(f"font-size: 22px; font-weight: 600; color: {t.brass}; background: {t.raised}")
        if space is not None:
            self.lifts.show_marks(lift_marks(space.job, plan, units), int(np.argmin(np.abs(lifts - lift))))
        self.basis.setText(
            tr(
                "Pressure lost at each place, {}, of {}",
                units.pressure.label,
                units.pressure.with_unit(plan.planned.chain.pressure),
            )
        )
        picked = self.picked
        kind = space.port.kind if space is not None and space.port is not None else "intake"
        self.bar.show_segments(
            segments(plan, lift, units), picked.place if picked is not None else "", kind, units.pressure.label
        )
        told = fit_words(plan, units), split_words(plan, units), record_words(plan)
        self.fit_said.setText(" ".join(words for words in told if words))
        self.bar.setToolTip(self.fit_said.text())
        lines, left = move_lines(plan, units, self.every)
        self.at = min(self.at, max(len(lines) - 1, 0))
        unit = "%" if plan.planned.chain.is_index else units.flow.label
        self.moves.show_lines(
            lines,
            self.at,
            (tr("gain, {}", unit), tr("an hour"), tr("min + flow"), "cc", tr("wall left, {}", units.length.label)),
        )
        self.left_out.setText(left)
        self.beside.show_stages(self.stages() if plan.planned.run is None else ())
        if picked is not None:
            self.beside.show_move(picked, plan, units)

    @property
    def picked(self) -> Move | None:
        """The move that would be taken."""
        moves = () if self.plan is None else self.plan.candidates
        return moves[min(self.at, len(moves) - 1)] if moves else None

    def pick(self, by: int) -> None:
        if self.moves.lines:
            self._pick_row(max(0, min(self.at + by, len(self.moves.lines) - 1)))

    def _pick_row(self, row: int) -> None:
        self.at = row
        self.draw()
        self.clicked.emit()

    def _pick_place(self, place: str) -> None:
        lines = enumerate(self.moves.lines)
        row = next((i for i, line in lines if place in (line.move.place, *(p.place for p in line.move.passes))), None)
        if row is not None:
            self._pick_row(row)

    def step_lift(self, by: int) -> None:
        if self.plan is not None:
            count = len(self.plan.planned.lift)
            self.lift_at = max(0, min((self.lift_at % count) + by, count - 1))
            self.draw()

    def _pick_lift(self, at: int) -> None:
        self.lift_at = at
        self.draw()

    def toggle_every(self) -> None:
        self.every = not self.every
        self.draw()

    @property
    def line(self) -> MoveLine | None:
        """The picked line."""
        return self.moves.lines[self.at] if self.moves.lines else None

"""The Plan room: what limits this port, where the next hour goes, and whether to stop."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date
from functools import partial
from typing import Final

import numpy as np
from PySide6.QtCore import QSize, Qt
from PySide6.QtGui import QHideEvent
from PySide6.QtWidgets import QHBoxLayout, QLabel, QPushButton, QVBoxLayout, QWidget

from ventrix.core.engine.of_job import OnTheEngine, on_the_engine
from ventrix.core.next_hour.work_item import WorkItem
from ventrix.core.next_hour.work_list import WorkList, work_list
from ventrix.core.planning.moves import READ_FIRST, Move
from ventrix.core.planning.next_moves import Plan, plan_port
from ventrix.core.quantity.words import sentence
from ventrix.rooms.plan.lift_marks import lift_marks
from ventrix.rooms.plan.route_shows import StageLine, stage_lines
from ventrix.rooms.plan.shows import MoveLine, answer_of, fit_words, move_lines, record_words, segments, split_words
from ventrix.rooms.plan.where_done import DoneAt, item_done_at, move_done_at
from ventrix.ui.look import theme
from ventrix.ui.open_book import OpenBook
from ventrix.ui.plan.beside import Beside
from ventrix.ui.plan.head_page import HeadPage
from ventrix.ui.plan.lift_strip import LiftStrip
from ventrix.ui.plan.limit_bar import LimitBar
from ventrix.ui.plan.move_list import MoveList
from ventrix.ui.widgets.action_bar import ActionBar
from ventrix.ui.widgets.answer_strip import AnswerStrip, say_large
from ventrix.ui.widgets.command import Command
from ventrix.ui.widgets.far_page import FarLine
from ventrix.ui.widgets.planner import Planner
from ventrix.ui.widgets.room import Room
from ventrix.ui.widgets.scroll_area import ScrollArea
from ventrix.words import tr

NARROW: Final = 1000  # px: below, the expected gain gives way
FLAT: Final = 600  # px
SURE: Final = 380  # px, of how sure the answer is


class PlanRoom(Room):
    """The whole head's next hour first. Behind P the port's page: an answer on top, what limits on the left, the next
    moves in the middle, what the picked one would bring and what the port is worth on the engine on the right."""

    name = tr("Plan")
    has_far_view = True
    folds = True
    manual = "plan"

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.plan: Plan | None = None
        self._planned = "", ""  # port and cut that the plan is of
        self._of_job = ""  # whose list the head's page shows
        self.at = 0
        self.lift_at = -1
        self.every = False
        self.of_head = True  # the whole head's page, not the port's
        self.head_page = HeadPage()
        self.head_page.taken.connect(self.do)
        self.planner = Planner()
        self.planner.planned.connect(self._took)
        self.engine_planner = Planner()
        self.engine_planner.planned.connect(self._took_engine)
        self.commands = (
            Command("plan.up", tr("pick"), partial(self.pick, -1), "Up", one_of="pick"),
            Command("plan.down", tr("pick"), partial(self.pick, 1), "Down", one_of="pick"),
            Command("plan.left", tr("lift"), partial(self.step_lift, -1), "Left", one_of="lift", able=self._on_port),
            Command("plan.right", tr("lift"), partial(self.step_lift, 1), "Right", one_of="lift", able=self._on_port),
            Command("plan.page", tr("the port's page, or the head's"), self.toggle_page, "P"),
            Command("plan.take", tr("do it"), self.take, "Return"),
            Command("plan.every", tr("all moves"), self.toggle_every, "L", able=self._on_port),
            Command("plan.stages", tr("the stages"), lambda: self.ways.sheet("route"), "S"),
            Command("plan.engine", tr("the engine"), lambda: self.ways.sheet("engine"), "E"),
            Command("plan.result", tr("a result on the engine"), lambda: self.ways.sheet("result"), "T"),
            Command("plan.stop", tr("stop planning"), self.stop, "Esc"),
        )
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
        self.moves.taken.connect(self.take)
        self.left_out = QLabel()
        self.left_out.setObjectName("caption")
        self.left_out.setWordWrap(True)
        self.beside = Beside()
        self.beside.setFixedWidth(240)
        self.keys = ActionBar()
        self.waiting = QLabel()
        self.waiting.setObjectName("title")
        self.waiting.setAlignment(Qt.AlignmentFlag.AlignCenter)
        self.waiting.setWordWrap(True)
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
        scroll = ScrollArea()
        scroll.setWidget(self.moves)
        scroll.setWidgetResizable(True)
        scroll.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        middle = QVBoxLayout()
        middle.setSpacing(4)
        middle.addWidget(heading)
        middle.addWidget(scroll, 1)
        middle.addWidget(self.left_out)
        self._content = QWidget()
        columns = QHBoxLayout()
        columns.setSpacing(20)
        columns.addLayout(left, 3)
        columns.addLayout(middle, 6)
        columns.addWidget(self.beside)
        inside = QVBoxLayout(self._content)
        inside.setContentsMargins(0, 0, 0, 0)
        inside.addWidget(self.strip)
        inside.addLayout(columns, 1)
        outer = QVBoxLayout(self)
        outer.setContentsMargins(16, 8, 16, 6)
        outer.addWidget(self._content, 1)
        outer.addWidget(self.head_page, 1)
        outer.addWidget(self.waiting, 1)
        outer.addWidget(self.keys)

    def fit(self, there: QSize) -> None:
        """In a small window the picked move's picture gives way, then how the chain fits (the bar's tip has it), then
        the keys."""
        self.beside.setVisible(there.width() >= NARROW)
        self.fit_said.setVisible(there.height() >= FLAT)
        self.keys.setVisible(there.height() >= 520)

    # -- planning

    def refresh(self) -> None:
        space = self.open_book.workspace
        if space is None or space.port is None:
            return
        self.keys.show_actions(self.commands)
        findings, port, factors, record = space.findings, space.port, space.shop.factors(), space.shop.record()
        cut, words = space.real_cut, self.open_book.units.wording
        if self._of_job != space.job.id:
            self._of_job, self.head_page.work = space.job.id, None  # nor another head's list
        if self.of_head:
            paces = space.shop.paces()
            self._wait(tr("Planning …"))
            learners = {kind: space.shop.learner(kind) for kind in ("intake", "exhaust")}
            practice = self.open_book.practice
            left = None if practice is None else 60 * practice.minutes_left
            today = date.today()
            self.planner.ask(lambda: work_list(findings, today, factors, record, paces, words, learners, left))
            return
        if self._planned != (port.id, cut.id if cut is not None else ""):
            self._planned = port.id, cut.id if cut is not None else ""
            self.plan = None  # no figure of another port or cut stays on screen
        self._wait(tr("Planning …"))
        learned = space.shop.learner(port.kind)
        self.planner.ask(
            lambda: plan_port(findings, port, factors, up_to=cut, words=words, record=record, learned=learned())
        )
        self.beside.show_engine("", self.open_book.units)
        flowed = [c for c in port.cuts if findings.runs_of(c, port) and (cut is None or c.number <= cut.number)]
        if port.kind == "intake" and flowed:
            self.beside.show_engine(tr("VE: calculating …"), self.open_book.units)
            of = findings, port.id, flowed[-1].id, flowed[0].id
            self.engine_planner.ask(lambda: on_the_engine(findings, port, flowed[-1], flowed[0]), of)

    def _wait(self, words: str) -> None:
        self.waiting.setText(words)
        there = self.head_page.work is not None if self.of_head else self.plan is not None
        self._content.setVisible(there and not self.of_head)
        self.head_page.setVisible(there and self.of_head)
        self.waiting.setVisible(not there)

    def stop(self) -> None:
        """Let go of the plan that is being made."""
        self.engine_planner.stop()
        if self.planner.busy:
            self.planner.stop()
            self._wait(tr("Stopped. Enter the room again to plan."))

    def _took_engine(self, found: object) -> None:
        told = found if isinstance(found, OnTheEngine) else tr("On the engine: {}.", found)
        self.beside.show_engine(told, self.open_book.units)

    @property
    def busy(self) -> bool:
        """Something is still being reckoned."""
        return self.planner.busy or self.engine_planner.busy

    def close_workers(self) -> None:
        """Wait for what is still being reckoned."""
        self.planner.close()
        self.engine_planner.close()

    def hideEvent(self, event: QHideEvent) -> None:
        self.planner.stop()
        self.engine_planner.stop()
        self._stale = True
        super().hideEvent(event)

    def far_lines(self) -> Sequence[FarLine]:
        """The one answer: what is next on the head, or on the port."""
        answer = self.head_page.answer
        if self.of_head and answer is not None:
            second = answer.lines[1].what if len(answer.lines) > 1 else ""
            then = tr("then: {}{}", second[:1].lower(), second[1:]) if second else ""
            return (FarLine(answer.verdict, 1.6, "better"), FarLine(answer.reason), FarLine(then, 0.8, "quiet"),
                    FarLine(f"{answer.to_go} {answer.to_go_below}", 0.7, "quiet"))  # fmt: skip
        if self.plan is None:
            return (FarLine(tr("Planning …")),)
        said = answer_of(self.plan, self.open_book.units)
        return (FarLine(f"{said.verdict} {said.what} {said.worth}", 1.6, "better"), FarLine(said.reason))

    def _took(self, found: object) -> None:
        self._show_found(found)
        if self.alone:
            self.show_far()

    def _show_found(self, found: object) -> None:
        if isinstance(found, WorkList):
            self.waiting.hide()
            self.head_page.show()
            self.head_page.show_work(found, self.open_book.units)
            return
        if not isinstance(found, Plan):
            self.plan = None
            needs = tr("Head and Cuts keep what the chain needs: valve, throat, sections, walls.")
            self._wait(f"{sentence(str(found))}\n\n{needs}\n\n{self._next_stage()}")
            return
        self.plan = found
        self.at = min(self.at, max(len(found.candidates) - 1, 0))
        self.waiting.hide()
        self._content.show()
        self.show_plan()

    def _stages(self) -> tuple[StageLine, ...]:
        space = self.open_book.workspace
        return (
            () if space is None or space.port is None else stage_lines(space.findings, space.port, self.open_book.units)
        )

    def _next_stage(self) -> str:
        """The stage that comes next without a bench, which wants no measurement."""
        line = next((s for s in self._stages() if s.now), None)
        return "" if line is None else tr("Without a bench, next: {}. {}", line.stage, " ".join(line.says))

    # -- showing

    def show_plan(self) -> None:
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
        picked = self._picked()
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
        self.beside.show_stages(self._stages() if plan.planned.run is None else ())
        if picked is not None:
            self.beside.show_move(picked, plan, units)

    def _picked(self) -> Move | None:
        moves = () if self.plan is None else self.plan.candidates
        return moves[min(self.at, len(moves) - 1)] if moves else None

    # -- hands and keys

    def _on_port(self) -> bool:
        return not self.of_head

    def toggle_page(self) -> None:
        """The port's own page, what limits it and its moves; or the whole head's again."""
        self.of_head = not self.of_head
        self.refresh()
        self.setFocus()

    def do(self, item: object) -> None:
        """Go where an entry of the head's list is done, with what is known filled in."""
        space = self.open_book.workspace
        if not isinstance(item, WorkItem) or space is None:
            return
        first = next((wait for wait in item.waits), None)
        if first is not None:
            self.open_book.say(tr("Waits for: {}.", first.words))
            return
        if item.port is not None:
            space.look_at_port(item.port.id)
        self._go(item_done_at(item))

    def _go(self, place: DoneAt) -> None:
        if place.sheet:
            self.ways.sheet(place.sheet, *place.what, **place.named)
        else:
            self.ways.room("flow")

    def pick(self, by: int) -> None:
        if self.of_head:
            self.head_page.pick(by)
            return
        if self.moves.lines:
            self._pick_row(max(0, min(self.at + by, len(self.moves.lines) - 1)))

    def _pick_row(self, row: int) -> None:
        self.at = row
        self.show_plan()
        self.setFocus()

    def _pick_place(self, place: str) -> None:
        lines = enumerate(self.moves.lines)
        row = next((i for i, line in lines if place in (line.move.place, *(p.place for p in line.move.passes))), None)
        if row is not None:
            self._pick_row(row)

    def step_lift(self, by: int) -> None:
        if self.plan is not None:
            count = len(self.plan.planned.lift)
            self.lift_at = max(0, min((self.lift_at % count) + by, count - 1))
            self.show_plan()

    def _pick_lift(self, at: int) -> None:
        self.lift_at = at
        self.show_plan()

    def toggle_every(self) -> None:
        self.every = not self.every
        self.show_plan()

    @property
    def line(self) -> MoveLine | None:
        """The picked line."""
        return self.moves.lines[self.at] if self.moves.lines else None

    def take(self) -> None:
        """Say the picked move first and log it; a look opens the sheet that keeps what is seen."""
        if self.of_head:
            self.head_page.take()
            return
        move = self._picked()
        if move is None or self.planner.busy:
            return
        if move.blocked_by and READ_FIRST not in move.blocked_by:
            self.open_book.say(tr("Blocked: {}.", move.blocked_by[0]))
            return
        self._go(move_done_at(move, is_index=self.plan is not None and self.plan.planned.chain.is_index))

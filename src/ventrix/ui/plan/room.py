"""The Plan room: what limits this port, where the next hour goes, and whether to stop."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date
from functools import partial
from typing import Final

from PySide6.QtCore import QSize, Qt
from PySide6.QtGui import QHideEvent
from PySide6.QtWidgets import QLabel, QVBoxLayout

from ventrix.core.engine.of_job import OnTheEngine, on_the_engine
from ventrix.core.model.kinds import Direction
from ventrix.core.next_hour.work_item import WorkItem
from ventrix.core.next_hour.work_list import WorkList, work_list
from ventrix.core.planning.moves import READ_FIRST
from ventrix.core.planning.next_moves import Plan, plan_port
from ventrix.core.quantity.words import sentence
from ventrix.rooms.plan.shows import answer_of
from ventrix.rooms.plan.where_done import DoneAt, item_done_at, move_done_at
from ventrix.ui.open_book import OpenBook
from ventrix.ui.plan.head_page import HeadPage
from ventrix.ui.plan.port_page import PortPage
from ventrix.ui.widgets.action_bar import ActionBar
from ventrix.ui.widgets.command import Command
from ventrix.ui.widgets.far_page import FarLine
from ventrix.ui.widgets.planner import Planner
from ventrix.ui.widgets.room import Room
from ventrix.words import tr

FLAT: Final = 520  # px: below, the keys give way


class PlanRoom(Room):
    """The whole head's next hour first; behind P the port's page."""

    name = tr("Plan")
    has_far_view = True
    folds = True
    manual = "plan"

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self._planned = "", ""  # port and cut that the plan is of
        self._of_job = ""  # whose list the head's page shows
        self.of_head = True  # the whole head's page, not the port's
        self.head_page = HeadPage()
        self.head_page.taken.connect(self.do)
        self.port_page = PortPage(open_book)
        self.port_page.taken.connect(self.take)
        self.port_page.clicked.connect(self.setFocus)
        self.planner = Planner()
        self.planner.planned.connect(self._took)
        self.engine_planner = Planner()
        self.engine_planner.planned.connect(self._took_engine)
        step_lift = self.port_page.step_lift
        self.commands = (
            Command("plan.up", tr("pick"), partial(self.pick, -1), "Up", one_of="pick"),
            Command("plan.down", tr("pick"), partial(self.pick, 1), "Down", one_of="pick"),
            Command(
                "plan.left",
                tr("lift"),
                partial(step_lift, -1),
                "Left",
                one_of="lift",
                able=self._on_port,
            ),
            Command(
                "plan.right",
                tr("lift"),
                partial(step_lift, 1),
                "Right",
                one_of="lift",
                able=self._on_port,
            ),
            Command("plan.page", tr("the port's page, or the head's"), self.toggle_page, "P"),
            Command("plan.take", tr("do it"), self.take, "Return"),
            Command("plan.every", tr("all moves"), self.port_page.toggle_every, "L", able=self._on_port),
            Command("plan.stages", tr("the stages"), lambda: self.ways.sheet("route"), "S"),
            Command("plan.engine", tr("the engine"), lambda: self.ways.sheet("engine"), "E"),
            Command("plan.result", tr("a result on the engine"), lambda: self.ways.sheet("result"), "T"),
            Command("plan.stop", tr("stop planning"), self.stop, "Esc"),
        )
        self.keys = ActionBar()
        self.waiting = QLabel()
        self.waiting.setObjectName("title")
        self.waiting.setAlignment(Qt.AlignmentFlag.AlignCenter)
        self.waiting.setWordWrap(True)
        outer = QVBoxLayout(self)
        outer.setContentsMargins(16, 8, 16, 6)
        for page in (self.port_page, self.head_page, self.waiting):
            outer.addWidget(page, 1)
        outer.addWidget(self.keys)

    def fit(self, there: QSize) -> None:
        self.port_page.fit(there)
        self.keys.setVisible(there.height() >= FLAT)

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
            learners = {kind: space.shop.learner(kind) for kind in Direction}
            practice = self.open_book.practice
            left = None if practice is None else 60 * practice.minutes_left
            today = date.today()
            self.planner.ask(lambda: work_list(findings, today, factors, record, paces, words, learners, left))
            return
        if self._planned != (port.id, cut.id if cut is not None else ""):
            self._planned = port.id, cut.id if cut is not None else ""
            self.port_page.plan = None  # no figure of another port or cut stays on screen
        self._wait(tr("Planning …"))
        learned = space.shop.learner(port.kind)
        self.planner.ask(
            lambda: plan_port(findings, port, factors, up_to=cut, words=words, record=record, learned=learned())
        )
        self.port_page.beside.show_engine("", self.open_book.units)
        flowed = [c for c in port.cuts if findings.runs_of(c, port) and (cut is None or c.number <= cut.number)]
        if port.kind == Direction.INTAKE and flowed:
            self.port_page.beside.show_engine(tr("VE: calculating …"), self.open_book.units)
            of = port.id, flowed[-1].id, flowed[0].id
            self.engine_planner.ask(lambda: on_the_engine(findings, port, flowed[-1], flowed[0]), findings, of)

    def _wait(self, words: str) -> None:
        self.waiting.setText(words)
        there = self.head_page.work is not None if self.of_head else self.port_page.plan is not None
        self.port_page.setVisible(there and not self.of_head)
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
        self.port_page.beside.show_engine(told, self.open_book.units)

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
        if self.port_page.plan is None:
            return (FarLine(tr("Planning …")),)
        said = answer_of(self.port_page.plan, self.open_book.units)
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
            self.port_page.plan = None
            needs = tr("Head and Cuts keep what the chain needs: valve, throat, sections, walls.")
            self._wait(f"{sentence(str(found))}\n\n{needs}\n\n{self.port_page.next_stage()}")
            return
        self.waiting.hide()
        self.port_page.show()
        self.port_page.show_plan(found)

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
        (self.head_page if self.of_head else self.port_page).pick(by)

    def take(self) -> None:
        """Say the picked move first and log it; a look opens the sheet that keeps what is seen."""
        if self.of_head:
            self.head_page.take()
            return
        plan, move = self.port_page.plan, self.port_page.picked
        if plan is None or move is None or self.planner.busy:
            return
        if move.blocked_by and READ_FIRST not in move.blocked_by:
            self.open_book.say(tr("Blocked: {}.", move.blocked_by[0]))
            return
        self._go(move_done_at(move, is_index=plan.planned.chain.is_index))

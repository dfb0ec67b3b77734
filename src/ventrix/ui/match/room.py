"""The Match room: every port of the head beside the developed one, the stage board, and what may be copied."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from datetime import date
from functools import partial
from typing import Final

from PySide6.QtCore import QPoint, QSize, Qt, QTimer
from PySide6.QtGui import QFocusEvent, QHideEvent, QKeyEvent
from PySide6.QtWidgets import QApplication, QHBoxLayout, QLabel, QMenu, QVBoxLayout, QWidget

from ventrix.core.model.kept_words import ClosedBy
from ventrix.core.work.record import record_of
from ventrix.rooms.match.board_rows import board_rows
from ventrix.rooms.match.shows import MANY, Match, copy_lines, match_of, status_sentence
from ventrix.ui.look import theme
from ventrix.ui.match.board_acts import BoardActs
from ventrix.ui.match.board_view import BoardView
from ventrix.ui.match.copy_list import CopyList
from ventrix.ui.match.head_view import HeadView
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.action_bar import ActionBar
from ventrix.ui.widgets.answer_strip import AnswerStrip, say_large
from ventrix.ui.widgets.command import Command
from ventrix.ui.widgets.far_page import FarLine
from ventrix.ui.widgets.room import Room
from ventrix.ui.widgets.scroll_area import ScrollArea
from ventrix.words import tr

HELD: Final = 450  # ms that M is held to start or stop a clock
LEAST_BESIDE: Final = 760  # px: below, or with many ports, the copying list gives way to the board
SMALL: Final = 960  # px: below, the strip speaks more softly


class MatchRoom(Room):
    """A strip, the head from above, and the board with the copying list beside it."""

    name = tr("Match")
    has_far_view = True
    manual = "match"

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.match: Match | None = None
        self.stage = 0
        self.acts = BoardActs(open_book, lambda: self.stage_name, self)
        self._there = QSize(1280, 800)
        self._down = False
        self._held = QTimer(self)
        self._held.setSingleShot(True)
        self._held.setInterval(HELD)
        self._held.timeout.connect(self.acts.clock)
        self._ticking = QTimer(self)
        self._ticking.setInterval(1000)
        self._ticking.timeout.connect(self._tick)
        self._behind = QTimer(self, interval=0, singleShot=True)
        self._behind.timeout.connect(self.show_all)
        self.commands = (
            Command("match.left", tr("port"), partial(self.step_port, -1), "Left", one_of="go"),
            Command("match.right", tr("port"), partial(self.step_port, 1), "Right", one_of="go"),
            Command("match.up", tr("stage"), partial(self.step_stage, -1), "Up", one_of="stage"),
            Command("match.down", tr("stage"), partial(self.step_stage, 1), "Down", one_of="stage"),
            Command("match.mark", tr("mark"), self.acts.mark, "M"),
            Command("match.clock", tr("clock (or hold M)"), self.acts.clock, "Shift+M"),
            Command("match.next", tr("next that differs"), self.next_that_differs, "D"),
            Command("match.log", tr("log with minutes"), self.log, "Return"),
            Command("match.wait", tr("waits, or back"), self.acts.wait, "W"),
            Command("match.copy", tr("copy"), lambda: self.ways.sheet("copy"), "C"),
            Command("match.scan", tr("by scan"), lambda: self.ways.sheet("scan_match"), "Shift+S"),
            Command("match.parts", tr("parts"), lambda: self.ways.sheet("job_parts"), "P"),
            Command("match.cards", tr("all cards"), lambda: self.ways.command("cards"), "Shift+P"),
            Command("match.quote", tr("costs"), lambda: self.ways.sheet("quote"), "Q"),
            Command("match.status", tr("line for the customer"), self.copy_status, "Y"),
        )
        self.strip = AnswerStrip(figures=3)
        self.verdict, self.reason, self.figures = self.strip.verdict, self.strip.reason, self.strip.figures
        self.head_view = HeadView()
        self.head_view.picked.connect(self._pick_port)
        self.board = BoardView()
        self.board.picked.connect(self._pick_box)
        self.board.marked.connect(self.acts.mark)
        self.board.asked.connect(self.ask_at)
        self.board.given.connect(self.acts.give_minutes)
        self.copying = CopyList()
        self.flow_these = QLabel()
        self.flow_these.setWordWrap(True)
        self.notes = QLabel()
        self.notes.setObjectName("quiet")
        self.notes.setWordWrap(True)
        self.keys = ActionBar()
        self._lay_out()

    def _lay_out(self) -> None:
        self._side = QWidget()
        right = QVBoxLayout(self._side)
        right.setContentsMargins(0, 0, 0, 0)
        right.addWidget(self.copying)
        right.addWidget(self.flow_these)
        right.addWidget(self.notes)
        right.addStretch()
        beside = ScrollArea(self._side, sideways=False)
        self._beside = beside
        boards = ScrollArea(self.board, sideways=False)
        below_it = QHBoxLayout()
        below_it.setSpacing(20)
        below_it.addWidget(boards, 5)
        below_it.addWidget(beside, 5)
        outer = QVBoxLayout(self)
        outer.setContentsMargins(16, 8, 16, 6)
        outer.setSpacing(8)
        outer.addWidget(self.strip)
        outer.addWidget(self.head_view, 5)
        outer.addLayout(below_it, 4)
        outer.addWidget(self.keys)

    def fit(self, there: QSize) -> None:
        """In a small window the copying list gives way (C opens its sheet), then the keys."""
        self._there = there
        self.folds = there.width() < LEAST_BESIDE
        many = self.match is not None and len(self.match.cells) > MANY
        self._beside.setVisible(there.width() >= LEAST_BESIDE and not many)
        self.keys.setVisible(there.height() >= 560)
        self.reason.setVisible(there.width() >= LEAST_BESIDE)

    # -- showing

    def refresh(self) -> None:
        """After a mark the board at once, since hands wait for it; what follows from it when the loop is free."""
        space = self.open_book.workspace
        if space is None or space.port is None:
            return
        if self.match is None or not self.acts.marking:
            self.show_all()
            return
        ports = [c.port for c in self.match.cells]
        self.match = replace(self.match, rows=board_rows(record_of(space.findings), ports))
        self._show_board()
        self._behind.start()

    def far_lines(self) -> Sequence[FarLine]:
        """The port in hand with what is next on it, every port's next stage, and the hours."""
        m = self.match
        if m is None:
            return ()
        open_ones = ("open", "begun", "running")
        nexts = {
            cell.port.name: next((row.stage for row in m.rows if row.states[i] in open_ones), "done")
            for i, cell in enumerate(m.cells)
        }
        name = m.cells[self.at].port.name if m.cells else ""
        return (
            FarLine(f"{name}: {nexts.get(name, '')}", 1.8, "brass"),
            *(FarLine(f"{port}: {stage}") for port, stage in nexts.items() if port != name),
            FarLine(tr("{} {}, {} to go", m.strip.used, m.strip.used_below, m.strip.to_go), 0.8, "quiet"),
        )

    def _show_board(self) -> None:
        if self.match is not None:
            self.stage = min(self.stage, max(len(self.match.rows) - 1, 0))
            self.board.show_rows(self.match.rows, self.match.cells, self.stage, self.at)
            self._tick()

    def show_all(self) -> None:
        space = self.open_book.workspace
        if space is None or space.port is None:
            return
        self._behind.stop()
        units, t = self.open_book.units, theme.current()
        self.match = match_of(space.findings, units, date.today(), space.shop.paces())
        m = self.match
        shade = t.worse if m.strip.worse else t.text
        mark = "▼ " if m.strip.worse else ""
        wide = self._there.width() >= SMALL
        self.verdict.say(mark + m.strip.verdict, 40 if wide else 28, shade)
        self.reason.setText(m.strip.reason)
        told = (
            (m.strip.used, m.strip.used_below),
            (m.strip.to_go, tr("to go")),
            (m.strip.promise, tr("chance of meeting it")),
        )
        for (figure, below), (text, caption) in zip(self.figures, told, strict=True):
            say_large(figure, text, 30 if wide else 22, t.text)
            below.setText(caption)
        self.head_view.show_cells(space.job, m.cells, space.port.id)
        self._show_board()
        lines, heading = copy_lines(space.findings, space.port, units)
        self.copying.show_lines(lines, heading, units.length.label)
        self.flow_these.setText(m.flow_these)
        self.notes.setText("\n".join(m.notes))
        self.keys.show_actions(self.commands)
        self.fit(self._there)

    @property
    def at(self) -> int:
        """Which of the cells is the port in hand."""
        space = self.open_book.workspace
        if self.match is None or space is None or space.port is None:
            return 0
        return next((i for i, c in enumerate(self.match.cells) if c.port.id == space.port.id), 0)

    @property
    def stage_name(self) -> str:
        return "" if self.match is None or not self.match.rows else self.match.rows[self.stage].key

    def _tick(self) -> None:
        """The clock that runs, in its box."""
        space = self.open_book.workspace
        seconds = None if space is None else space.clock.seconds()
        self.board.clock = "" if seconds is None else f"{int(seconds) // 3600}:{int(seconds) // 60 % 60:02d}"
        self.board.update()
        if space is not None and space.clock.running() is not None and self.isVisible():
            self._ticking.start()
        else:
            self._ticking.stop()

    def hideEvent(self, event: QHideEvent) -> None:
        self._ticking.stop()
        self._let_go()
        super().hideEvent(event)

    def focusOutEvent(self, event: QFocusEvent) -> None:
        self._let_go()
        super().focusOutEvent(event)

    def _let_go(self) -> None:
        self._held.stop()
        self._down = False

    # -- hands and keys

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_M and not event.modifiers():
            if not self._down:  # a key held down is pressed once, however often it is told
                self._down = True
                self._held.start()
            return
        super().keyPressEvent(event)

    def keyReleaseEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_M and not event.isAutoRepeat():
            self._down = False
            if self._held.isActive():
                self._held.stop()
                self.acts.mark()
            return
        super().keyReleaseEvent(event)

    def step_port(self, by: int) -> None:
        if self.match is not None and self.match.cells:
            self._pick_port(self.match.cells[(self.at + by) % len(self.match.cells)].port.id)

    def step_stage(self, by: int) -> None:
        if self.match is not None and self.match.rows:
            self.stage = max(0, min(self.stage + by, len(self.match.rows) - 1))
            self.board.show_rows(self.match.rows, self.match.cells, self.stage, self.at)

    def next_that_differs(self) -> None:
        if self.match is None:
            return
        cells = self.match.cells
        for i in range(1, len(cells) + 1):
            cell = cells[(self.at + i) % len(cells)]
            if cell.mark == "down":
                self._pick_port(cell.port.id)
                return
        self.open_book.say(tr("No port differs."))

    def _pick_port(self, port_id: str) -> None:
        space = self.open_book.workspace
        if space is not None:
            space.look_at_port(port_id)
        self.setFocus()

    def _pick_box(self, stage: int, port: int) -> None:
        self.stage = stage
        if self.match is not None:
            self._pick_port(self.match.cells[port].port.id)
            self.board.show_rows(self.match.rows, self.match.cells, self.stage, self.at)

    def menu(self) -> QMenu:
        """What may be done with the chosen box."""
        space, menu = self.open_book.workspace, QMenu(self)
        if space is None or space.port is None or not self.stage_name:
            return menu
        box = self.acts.box(space)
        if box is None:
            return menu
        title = menu.addAction(f"{box.stage.name}, {box.of}: {box.state}")
        title.setEnabled(False)
        if box.missing:
            menu.addAction(tr("Missing: {}", box.missing)).setEnabled(False)
        menu.addSeparator()
        for command in self.commands:
            if command.id in ("match.mark", "match.clock", "match.log", "match.wait"):
                menu.addAction(command.words, command.do).setEnabled(command.able())
        closing = menu.addMenu(tr("close it by"))
        for how in ClosedBy:
            closing.addAction(f"{how}", partial(self.acts.close_by_hand, how))
        menu.addAction(tr("open it again"), self.acts.open_again).setEnabled(box.mark is not None)
        return menu

    def ask_at(self, where: QPoint) -> None:
        """The menu of a box, at the mouse."""
        menu = self.menu()
        menu.exec(where)
        menu.deleteLater()

    def log(self) -> None:
        """The stage's sheet, with its minutes and other ports."""
        self.ways.sheet("stage", self.stage_name, "")

    def copy_status(self) -> None:
        """A sentence for the customer on the clipboard."""
        space = self.open_book.workspace
        if space is not None and self.match is not None:
            QApplication.clipboard().setText(status_sentence(space.findings, self.match.hours))
            self.open_book.say(tr("The line for the customer is copied."))

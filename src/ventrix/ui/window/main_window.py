"""The window: menus, bars, the cut row, and one room at a time."""

from __future__ import annotations

from collections.abc import Callable
from functools import cached_property, partial
from pathlib import Path
from typing import TYPE_CHECKING, Final

from PySide6.QtCore import QByteArray, QTimer
from PySide6.QtGui import QCloseEvent, QDragEnterEvent, QDropEvent, QKeySequence, QResizeEvent, QShortcut
from PySide6.QtWidgets import QHBoxLayout, QInputDialog, QVBoxLayout, QWidget

from ventrix.core.calculators.contract import Calculator
from ventrix.records.book.index import Index
from ventrix.ui.book.indexer import Indexer
from ventrix.ui.flow.reading_distance import ReadingDistance
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.command import Command
from ventrix.ui.widgets.pedal import choose_pedal
from ventrix.ui.widgets.room import Room
from ventrix.ui.widgets.side_sheet import SideSheet
from ventrix.ui.window.bars import Foot, JobBar, Rail
from ventrix.ui.window.bench_choices import BY_HAND, NO_BENCH, SIMULATED
from ventrix.ui.window.commands import (
    BENCH,
    CUT,
    VIEW,
    bench_commands,
    edit_commands,
    look_commands,
    row_commands,
)
from ventrix.ui.window.cut_row import CutRow
from ventrix.ui.window.file_commands import FILE
from ventrix.ui.window.finder import Finder, Found
from ventrix.ui.window.found import found_commands, found_in_book, other_sides, states_to_reach
from ventrix.ui.window.manual import ManualWindow
from ventrix.ui.window.menus import build_menus
from ventrix.ui.window.practice import framed, practice_book
from ventrix.ui.window.room_holder import FLOW, RoomHolder
from ventrix.ui.window.rooms import ROOMS
from ventrix.ui.window.welcome import Welcome
from ventrix.workspace.acts import stand_for

if TYPE_CHECKING:
    from ventrix.workspace.practice import PracticeAtWork

CATCH_UP: Final = 3000  # ms after the start
LEAST_ROOM: Final = 460  # px of a room's width that are of any use beside a sheet
LEAST_WELCOME: Final = 640


class MainWindow(RoomHolder):
    """Puts the parts together. What they do is theirs."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book)
        self.welcome = Welcome()
        self.welcome.new_job.connect(lambda: self.new_job_sheet.open())
        self.welcome.by_stages.connect(lambda: self.new_job_sheet.open(NO_BENCH))
        self.welcome.demo.connect(self.files.open_demo)
        self.welcome.chosen.connect(self.files.open_job)
        self.welcome.bring_in.connect(self.files.import_job)
        self._stack.addWidget(self.welcome)
        self._room = 0
        self._of_book = ""
        self._practices: list[MainWindow] = []
        self.closed = False
        self.rail = Rail([d.name for d in ROOMS], sum(d.apart for d in ROOMS))
        self.rail.chosen.connect(self.go_to)
        self.job_bar = JobBar(open_book)
        self.cut_row = CutRow(open_book)
        self.cut_row.new_cut.connect(lambda: self.new_cut.open())
        self.foot = Foot(open_book)
        self.manual: ManualWindow | None = None
        self._lay_out()
        self.commands = self._all_commands()
        self._menu_keys = build_menus(self.menuBar(), self.commands)
        self._room_keys: list[QShortcut] = []
        self._tool_tips()
        self.finder = Finder(self, self._findable)
        open_book.look_changed.connect(self.rail.restyle)
        open_book.opened.connect(self._name_window)
        open_book.opened.connect(self._show_room)
        open_book.job_changed.connect(self._name_window)
        self._name_window()
        self.resize(1280, 800)
        self.setMinimumSize(800, 500)
        self.setAcceptDrops(True)
        self._restore()
        self.go_to_named(str(open_book.settings.value("room", "compare")))
        self.indexer = Indexer(Index(open_book.book))
        self.indexer.done.connect(self._look_elsewhere)
        soon = QTimer(self)  # jobs of an old book that the index does not know: read between two breaths of the window
        soon.setSingleShot(True)
        soon.setInterval(CATCH_UP)
        soon.timeout.connect(self.indexer.start)
        soon.start()

    def _look_elsewhere(self) -> None:
        """What the other jobs have seen of the benches counts in the open one, once it is read."""
        space = self.open_book.workspace
        if space is not None and space.look_elsewhere():
            self.open_book.say("Bench scatter seen in other jobs of the book is counted now.")

    def _all_commands(self) -> tuple[Command, ...]:
        """Every command, in the order the menus have them. Rooms and sheets are made when they are first needed."""
        page = self.open_manual

        def cut(id_: str, words: str, do: Callable[[], object], keys: str = "", line: bool = False) -> Command:
            return Command(id_, words, do, keys, CUT, self._has_job, line=line)

        def manual(id_: str, words: str, do: Callable[[], object], keys: str = "") -> Command:
            return Command(id_, words, do, keys, "&Help")

        rooms = (
            Command(f"room.{d.key}", f"&{d.digit} {d.name}", partial(self.go_to, i), f"Ctrl+{d.digit}", VIEW)
            for i, d in enumerate(ROOMS)
        )
        return (
            *self.files.commands(lambda: self.new_job_sheet.open()),
            Command(
                "picture.copy", "Copy the &picture of this room", lambda: self.room.copy_picture(), "", FILE, line=True
            ),
            Command(
                "picture.save", "Save the picture of this room…", lambda: self.room.choose_picture_file(), "", FILE
            ),
            Command("book.where", "Where the boo&k lies…", lambda: self.station_sheet.open(), "", FILE, line=True),
            Command("quit", "&Quit", self.close, "Ctrl+Q", FILE, line=True),
            *edit_commands(self.open_book),
            cut("cut.new", "&New cut…", lambda: self.new_cut.open(), "Ctrl+T"),
            cut("cut.operation", "One more &operation…", lambda: self.new_cut.open_operation()),
            cut("cut.seat", "&Valve job…", lambda: self.seat_sheet.open(), "Ctrl+J"),
            cut("cut.valves", "Valves fitted from this cut on…", lambda: self.valves_sheet.open()),
            cut("cut.fault", "&Fault of the casting…", lambda: self.fault_sheet.open()),
            cut("cut.tube", "Tu&be in a wall…", lambda: self.tube_sheet.open()),
            cut("cut.wall", "&Wall reading…", lambda: self.wall_sheet.open()),
            cut("cut.pour", "&Pour…", lambda: self.pour_sheet.open()),
            cut("cut.trial", "&Trial…", lambda: self.trial_sheet.open(), "Ctrl+Shift+T"),
            cut("cut.straight", "Straight to a &state of another port…", self._straight_to),
            cut("call", "Sa&y it first…", lambda: self.call_sheet.open(), "F4"),
            cut("cut.stands", "This test stands &for other ports…", self._stand_for),
            cut("cut.parts", "Set right, ta&ke out…", lambda: self.parts_sheet.open(), "F2"),
            cut("air.limit", "Limit of local air speed…", lambda: self.air.choose_limit(), line=True),
            cut("air.traverse.new", "Tra&verse…", self._begin_traverse, "Ctrl+Shift+V"),
            cut("claim", "A maker's &claim…", lambda: self.claim_sheet.open()),
            cut("other", "Hold against an&y run of the book…", self._hold_against_any, "Ctrl+Shift+H"),
            *row_commands(self.open_book),
            Command(
                "benches",
                "&Benches…",
                lambda: self.benches.open(self.flow.hand.setup.bench),
                "Ctrl+Shift+B",
                BENCH,
                self._has_job,
            ),
            Command(
                "practice.flow", "Have it &flowed (practice)", self.at_practice.flow, "F5", BENCH, self.at_practice.able
            ),
            Command("pedal", "&Pedal…", lambda: choose_pedal(self.flow.pedal, self.open_book), "", BENCH),
            *bench_commands(self.open_book, self),
            *rooms,
            Command("far", "&Far view alone", self.toggle_far, "F11", VIEW, line=True),
            Command("distance", "&Reading distance…", self.set_reading_distance, "", VIEW),
            *look_commands(self.open_book),
            manual("find", "&Find anything…", lambda: self.finder.open(), "Ctrl+K"),
            manual("manual.figures", "What the &figures mean", lambda: page("figures")),
            manual("manual.bench", "&Benches and what they see", lambda: page("bench")),
            manual("manual.calculators", "&Calculators", lambda: page("calculators")),
            manual("manual.keys", "Every &key", lambda: page("keys")),
            manual("manual", "&Manual: this room", page, "F1"),
            manual("manual.index", "Manual: &contents", lambda: page("index"), "Shift+F1"),
        )

    def _has_job(self) -> bool:
        return self.open_book.workspace is not None

    def _tool_tips(self) -> None:
        """Buttons that do what a command does say its keys."""
        hints = {c.id: c.hint for c in self.commands}
        self.cut_row.plus.setToolTip(hints["cut.new"])
        self.job_bar.port.setToolTip(hints["port.next"])
        self.rail.hint([hints[f"room.{d.key}"] for d in ROOMS])

    def begin_job(self, bench: str) -> None:
        """A new job opens in Head, on the bench that was chosen for it; without a bench at its first stage."""
        self.go_to_named("plan" if bench == NO_BENCH else "head")
        space = self.open_book.workspace
        if bench == NO_BENCH and space is not None:
            from ventrix.core.planning.route import route

            first = route(space.job)[0].port
            space.look_at(next(p.cuts[0].id for p in space.job.ports if p.name == first))
            self.route_sheet.open()
        elif bench == SIMULATED:
            self.open_book.bench.connect_simulated()
        elif bench != BY_HAND and self.open_book.workspace is not None:
            chosen = next((b for b in self.open_book.workspace.benches if b.id == bench), None)
            if chosen is not None:
                self.flow.take_bench(chosen)

    def dragEnterEvent(self, event: QDragEnterEvent) -> None:
        if any(url.isLocalFile() for url in event.mimeData().urls()):
            event.acceptProposedAction()

    def dropEvent(self, event: QDropEvent) -> None:
        """A job document or run table dropped anywhere on the window."""
        for url in event.mimeData().urls():
            if url.isLocalFile():
                self.files.bring_in(Path(url.toLocalFile()))

    def _begin_traverse(self) -> None:
        self.go_to_named("air")
        self.traverse_sheet.open()

    def _straight_to(self) -> None:
        """Find a state of another port, and bring the port in hand there in one cut."""
        self.finder.open(lambda: states_to_reach(self.open_book))

    def _stand_for(self) -> None:
        space = self.open_book.workspace
        if space is None or space.port is None:
            return
        here = space.port
        others = ", ".join(p.name for p in space.job.ports if p is not here and p.kind == here.kind)
        text, ok = QInputDialog.getText(
            self, "Stands for", "Ports that were not flowed and that this test is taken to speak for:", text=others
        )
        if ok and (said := stand_for(space, text)):
            self.open_book.say(said)

    def _hold_against_any(self) -> None:
        self.go_to_named("compare")
        self.choose_other_side()

    def open_practice(self, practice: PracticeAtWork) -> MainWindow | None:
        """A window of its own for a practice, on the practice book; the one it has, where it is open."""
        there = next((w for w in self._practices if not w.closed and w.has_practice(practice)), None)
        if there is not None:
            there.activateWindow()
            there.raise_()
            return there
        open_book = practice_book(practice, self.open_book)
        if open_book is None:
            return None
        window = MainWindow(open_book)
        self._practices.append(window)
        window._practices = self._practices  # a practice begun from a practice is one of the shop's too
        window.go_to_named("practice")
        window.show()
        return window

    def has_practice(self, practice: PracticeAtWork) -> bool:
        """Whether this window is of a practice."""
        return self.open_book.practice is not None and self.open_book.practice.path == practice.path

    def speak_of_book(self, words: str) -> None:
        self._of_book = words
        if self.room.apart:
            self.job_bar.show_book(words)

    @cached_property
    def step_back(self) -> ReadingDistance:
        sheet = ReadingDistance()
        sheet.taken.connect(self._use_far_size)
        sheet.closed.connect(lambda: self.room.setFocus())
        return sheet

    @property
    def rooms(self) -> list[Room]:
        """Every room, in the order of work."""
        return [getattr(self, d.key) for d in ROOMS]

    def _lay_out(self) -> None:
        middle = QVBoxLayout()
        middle.setSpacing(0)
        middle.addWidget(self.cut_row)
        self.beside.setSpacing(0)
        self.beside.addWidget(self._stack, 1)
        middle.addLayout(self.beside, 1)
        across = QHBoxLayout()
        across.setSpacing(0)
        across.addWidget(self.rail)
        across.addLayout(framed(middle, self.open_book.practice is not None), 1)
        column = QVBoxLayout()
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addWidget(self.job_bar)
        column.addLayout(across, 1)
        column.addWidget(self.foot)
        centre = QWidget()
        centre.setObjectName("room")
        centre.setLayout(column)
        self.setCentralWidget(centre)

    def _name_window(self) -> None:
        space = self.open_book.workspace
        demo = " (demo, a throw-away book)" if self.open_book.demo else ""
        only = " (can only be read)" if self.open_book.book.read_only else ""
        if self.open_book.practice is not None:
            only = " (nobody measured this)"
        self.setWindowTitle(f"{space.job.title} · Ventrix{demo}{only}" if space else f"Ventrix{demo}{only}")

    @property
    def room(self) -> Room:
        room: Room = getattr(self, ROOMS[self._room].key)
        return room

    def go_to(self, index: int) -> None:
        """Enter a room."""
        index = index if 0 <= index < len(ROOMS) else 0
        flow = self.__dict__.get("flow")
        if flow is not None and flow.far.alone and ROOMS[index].key != "flow":
            flow.show_alone(False)
        compare = self.__dict__.get("compare")
        if compare is not None and compare.alone and ROOMS[index].key != "compare":
            compare.show_alone(False)
        if not ROOMS[index].apart:
            self._came_from = index
        self._room = index
        self._show_room()
        self._give_keys()
        self.rail.show_chosen(index)
        self.open_book.settings.setValue("room", ROOMS[index].key)
        door = ROOMS[index]
        if door.benched and self.open_book.demo and not self.open_book.bench.active:
            self.open_book.bench.connect_simulated()
        if door.keyed:
            self.room.focus_first()

    def _give_keys(self) -> None:
        """Keys of a menu that mean something of its own in this room are the room's, wherever the keyboard is."""
        for shortcut in self._room_keys:
            shortcut.setEnabled(False)
            shortcut.deleteLater()
        own = [c for c in self.room.commands if c.keys in self.room.overrides]
        for keys, action in self._menu_keys.items():
            action.setShortcut(QKeySequence() if any(c.keys == keys for c in own) else QKeySequence(keys))
        self._room_keys = []
        for command in own:
            shortcut = QShortcut(QKeySequence(command.keys), self)
            shortcut.activated.connect(command.run)
            self._room_keys.append(shortcut)

    def go_to_named(self, name: str) -> None:
        """Enter a room by its key."""
        self.go_to(next((i for i, d in enumerate(ROOMS) if d.key == name), self._room))

    def refresh_room(self, key: str) -> None:
        """Draw a room anew, where it was ever entered."""
        room = self.__dict__.get(key)
        if isinstance(room, Room):
            room.refresh()

    def choose_other_side(self) -> None:
        """Find any flowed cut of the book, or a claim, to hold against; or go back to the pinned cut."""
        self.finder.open(lambda: other_sides(self.open_book))

    def _show_room(self) -> None:
        """The room entered, or the welcome while no job is open."""
        frame = self._frames[self.room]
        if self._stack.isHidden():  # a sheet had a small window to itself
            self.put_sheet_away()
        if self.open_book.workspace is None:
            self.welcome.show_recent([(e.id, e.title) for e in self.files.by_recent()])
        welcome = self.open_book.workspace is None and not self.room.apart
        self._stack.setCurrentWidget(self.welcome if welcome else frame)
        self.cut_row.setVisible(not self.room.apart)
        apart = self.room.apart and self.open_book.practice is None
        if ROOMS[self._room].key == "practice":
            self.job_bar.show_book("" if apart else None, "Practice")
        else:
            self.job_bar.show_book(self._of_book if apart else None)

    def open_manual(self, page: str | None = None) -> None:
        """The manual's page for this room, or a named one."""
        if self.manual is None:
            self.manual = ManualWindow(lambda: (self.commands, [(room.name, room.commands) for room in self.rooms]))
        self.manual.open_page(page or self.room.manual)

    def _findable(self) -> list[Found]:
        """Everything Ctrl+K finds: commands, the room's keys, calculators, ports, cuts and jobs."""
        commands = found_commands((*self.commands, *self.room.commands))
        return [*commands, *found_in_book(self.open_book, self._reckon, self.files.open_job)]

    def _reckon(self, calculator: Calculator) -> None:
        self.reckoner.open(calculator)

    def make_room(self, sheet: SideSheet) -> None:
        """Where a small window leaves the room no sense beside a sheet, the sheet has it to itself."""
        least = LEAST_WELCOME if self._stack.currentWidget() is self.welcome else LEAST_ROOM
        self._stack.setVisible(self.width() - self.rail.width() - sheet.width() >= least)

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        for sheet in (s for s in self.__dict__.values() if isinstance(s, SideSheet) and s.isVisible()):
            self.make_room(sheet)

    def put_sheet_away(self) -> None:
        self._stack.show()
        for sheet in self.__dict__.values():
            if isinstance(sheet, SideSheet):
                sheet.hide()
        self.room.setFocus()

    def _use_far_size(self, px: float) -> None:
        self.flow.far.least = px
        self.open_book.settings.setValue("far_px", px)
        self.flow.show_alone(True)

    def give_room(self, alone: bool) -> None:
        """The far view alone, or everything around it again."""
        for part in (self.rail, self.job_bar, self.cut_row, self.foot):
            part.setVisible(not alone)
        self.menuBar().setVisible(not alone)

    def set_reading_distance(self) -> None:
        """Step back until you can just read this."""
        self.go_to(FLOW)
        self.step_back.open(self, self.flow.far.least)

    def toggle_far(self) -> None:
        """The far view of Compare, or of Flow, alone, or not."""
        if ROOMS[self._room].key == "compare" and self._has_job():
            self.compare.show_alone(not self.compare.alone)
            return
        self.go_to(FLOW)
        self.flow.show_alone(not self.flow.far.alone)

    # -- the window remembers itself

    def _restore(self) -> None:
        saved = self.open_book.settings.value("window")
        if isinstance(saved, QByteArray):
            self.restoreGeometry(saved)

    def closeEvent(self, event: QCloseEvent) -> None:
        self.closed = True
        self.indexer.stop()
        if self.open_book.practice is None:
            for window in self._practices:
                window.close()
        if "plan" in self.__dict__:
            self.plan.close_workers()
        if "practice" in self.__dict__:
            self.practice.close_workers()
        if "engine_sheet" in self.__dict__:
            self.engine_sheet.close_workers()
        self.open_book.settings.setValue("window", self.saveGeometry())
        if self.manual is not None:
            self.manual.close()
        self.open_book.close()
        super().closeEvent(event)

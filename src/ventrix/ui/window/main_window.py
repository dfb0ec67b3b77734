"""The window: menus, bars, the cut row, and one room at a time."""

from __future__ import annotations

from collections.abc import Iterable
from pathlib import Path
from typing import TYPE_CHECKING, Any, Final

from PySide6.QtCore import QByteArray, QTimer
from PySide6.QtGui import QCloseEvent, QDragEnterEvent, QDropEvent, QKeyEvent, QKeySequence, QResizeEvent, QShortcut
from PySide6.QtWidgets import QApplication, QHBoxLayout, QMainWindow, QStackedWidget, QVBoxLayout, QWidget

from ventrix.core.calculators.contract import Calculator
from ventrix.records.book.index import Index
from ventrix.ui.book.indexer import Indexer
from ventrix.ui.open_book import OpenBook
from ventrix.ui.ways import Ways
from ventrix.ui.widgets.command import Command
from ventrix.ui.widgets.room import Room
from ventrix.ui.widgets.side_sheet import SideSheet
from ventrix.ui.window.across_rooms import AcrossRooms
from ventrix.ui.window.all_commands import all_commands
from ventrix.ui.window.bars import Foot, JobBar, Rail
from ventrix.ui.window.bench_choices import NO_BENCH
from ventrix.ui.window.cut_row import CutRow
from ventrix.ui.window.file_commands import Files
from ventrix.ui.window.finder import Finder, Found
from ventrix.ui.window.found import found_commands, found_in_book
from ventrix.ui.window.manual import ManualWindow
from ventrix.ui.window.menus import build_menus
from ventrix.ui.window.practice import AtPractice, framed, practice_book
from ventrix.ui.window.registry import Registry
from ventrix.ui.window.room_frame import RoomFrame
from ventrix.ui.window.rooms import FLOW, ROOMS
from ventrix.ui.window.sheets import RECKONER, SHEETS
from ventrix.ui.window.welcome import Welcome
from ventrix.words import tr

if TYPE_CHECKING:
    from ventrix.workspace.practice import PracticeAtWork

CATCH_UP: Final = 3000  # ms after the start
LEAST_ROOM: Final = 460  # px of a room's width that are of any use beside a sheet
LEAST_WELCOME: Final = 640
COMPARE: Final = 3


class MainWindow(QMainWindow):
    """Puts the parts together. What they do is theirs; what they want of one another they ask by name (`Ways`)."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__()
        self.open_book = open_book
        self.beside = QHBoxLayout()
        self._stack = QStackedWidget()
        self._stack.setObjectName("rooms")
        self._frames: dict[Room, RoomFrame] = {}
        self.rooms: Registry[Room] = Registry(ROOMS, lambda kind: kind(open_book), self._settle_room)
        self.sheets: Registry[SideSheet] = Registry(SHEETS, lambda kind: kind(open_book), self._settle_sheet)
        self.files = Files(open_book, self, self.sheets)
        self.at_practice = AtPractice(open_book)
        self.welcome = Welcome()
        self.welcome.new_job.connect(lambda: self.open_sheet("new_job"))
        self.welcome.by_stages.connect(lambda: self.open_sheet("new_job", (NO_BENCH,)))
        self.welcome.demo.connect(self.files.open_demo)
        self.welcome.chosen.connect(self.files.open_job)
        self.welcome.bring_in.connect(self.files.import_job)
        self._stack.addWidget(self.welcome)
        self._room = self._came_from = COMPARE  # a job found in a room apart opens where one came from
        self._of_book = ""
        self._practices: list[MainWindow] = []
        self.closed = False
        self.rail = Rail([d.name for d in ROOMS], sum(d.apart for d in ROOMS))
        self.rail.chosen.connect(self.go_to)
        self.job_bar = JobBar(open_book)
        self.cut_row = CutRow(open_book)
        self.foot = Foot(open_book)
        self.manual: ManualWindow | None = None
        self.across = AcrossRooms(self)
        self._lay_out()
        self.commands = all_commands(self)
        self._menu_keys = build_menus(self.menuBar(), self.commands)
        self._room_keys: list[QShortcut] = []
        self._tool_tips()
        self.finder = Finder(self, self._findable)
        self._answer(open_book.ways)
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

    def _answer(self, ways: Ways) -> None:
        """What rooms and sheets may ask of a window."""
        ways.room_wanted.connect(self.enter)
        ways.sheet_wanted.connect(self.open_sheet)
        ways.command_wanted.connect(self.run_command)
        ways.job_wanted.connect(self._open_from_book)
        ways.job_begun.connect(self.across.begin_job)
        ways.practice_wanted.connect(self.open_practice)
        ways.bench_made.connect(lambda bench: self.rooms.of(FLOW).take_bench(bench, just_made=True))
        ways.book_counted.connect(self.speak_of_book)
        ways.far_shown.connect(self.give_room)

    def _settle_room(self, room: Room) -> None:
        self._frames[room] = RoomFrame(room)
        self._stack.addWidget(self._frames[room])

    def _settle_sheet(self, sheet: SideSheet) -> None:
        sheet.hide()
        sheet.shown.connect(lambda: self.make_room(sheet))
        sheet.closed.connect(self.put_sheet_away)
        self.beside.addWidget(sheet)

    def open_sheet(self, key: str, what: tuple[Any, ...] = (), named: dict[str, Any] | None = None) -> None:
        """A sheet beside the room, with what it is opened with."""
        self.sheets[key].open(*what, **(named or {}))

    def enter(self, key: str, what: object = None) -> None:
        """A room, for something it knows to take."""
        self.go_to_named(key)
        if what is not None:
            self.rooms[key].come_in(what)

    def run_command(self, key: str) -> None:
        """What a menu's command does, where it can be done now."""
        next(c for c in self.commands if c.id == key).run()

    def _open_from_book(self, job_id: str) -> None:
        """A job found in the book opens in the room one came from."""
        self.files.open_job(job_id)
        if self.open_book.workspace is not None and self.open_book.workspace.job.id == job_id:
            self.go_to(self._came_from)

    def _look_elsewhere(self) -> None:
        """What the other jobs have seen of the benches counts in the open one, once it is read."""
        space = self.open_book.workspace
        if space is not None and space.look_elsewhere():
            self.open_book.say(tr("Bench scatter seen in other jobs of the book is counted now."))

    def has_job(self) -> bool:
        return self.open_book.workspace is not None

    def _tool_tips(self) -> None:
        """Buttons that do what a command does say its keys."""
        hints = {c.id: c.hint for c in self.commands}
        self.cut_row.plus.setToolTip(hints["cut.new"])
        self.job_bar.port.setToolTip(hints["port.next"])
        self.rail.hint([hints[f"room.{d.key}"] for d in ROOMS])

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """A room's keys work wherever in the bars and the row of cuts the keyboard is."""
        if self._for_the_room():
            self.room.keyPressEvent(event)
        else:
            super().keyPressEvent(event)

    def keyReleaseEvent(self, event: QKeyEvent) -> None:
        if self._for_the_room():
            self.room.keyReleaseEvent(event)
        else:
            super().keyReleaseEvent(event)

    def _for_the_room(self) -> bool:
        """What nobody took is the room's, unless it comes from the room itself or from a sheet."""
        here, room = QApplication.focusWidget(), self.room
        if not room.isVisible() or here is room or (here is not None and room.isAncestorOf(here)):
            return False
        open_sheets = [sheet for sheet in self.sheets.made() if sheet.isVisible()]
        return not any(here is None or sheet.isAncestorOf(here) for sheet in open_sheets)

    def dragEnterEvent(self, event: QDragEnterEvent) -> None:
        if any(url.isLocalFile() for url in event.mimeData().urls()):
            event.acceptProposedAction()

    def dropEvent(self, event: QDropEvent) -> None:
        """A job document or run table dropped anywhere on the window."""
        for url in event.mimeData().urls():
            if url.isLocalFile():
                self.files.bring_in(Path(url.toLocalFile()))

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
        demo = tr(" (demo, a throw-away book)") if self.open_book.demo else ""
        only = tr(" (can only be read)") if self.open_book.book.read_only else ""
        if self.open_book.practice is not None:
            only = tr(" (nobody measured this)")
        self.setWindowTitle(
            tr("{} · Ventrix{}{}", space.job.title, demo, only) if space else tr("Ventrix{}{}", demo, only)
        )

    @property
    def room(self) -> Room:
        """The room in hand."""
        return self.rooms[ROOMS[self._room].key]

    def go_to(self, index: int) -> None:
        """Enter a room."""
        index = index if 0 <= index < len(ROOMS) else 0
        for room in self.rooms.made():
            if room.alone and room is not self.rooms.if_made(ROOMS[index].key):
                room.show_alone(False)
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

    def _show_room(self) -> None:
        """The room entered, or the welcome while no job is open."""
        frame = self._frames[self.room]
        if self._stack.isHidden():  # a sheet had a small window to itself
            self.put_sheet_away()
        if self.open_book.workspace is None:
            self.welcome.show_recent([(e.id, e.title) for e in self.files.by_recent()])
        welcome = self.open_book.workspace is None and not self.room.apart
        self._stack.setCurrentWidget(self.welcome if welcome else frame)
        self.cut_row.setVisible(not self.room.apart and self.open_book.workspace is not None)
        apart = self.room.apart and self.open_book.practice is None
        if ROOMS[self._room].key == "practice":
            self.job_bar.show_book("" if apart else None, tr("Practice"))
        else:
            self.job_bar.show_book(self._of_book if apart else None)

    def open_manual(self, page: str | None = None) -> None:
        """The manual's page for this room, or a named one."""
        if self.manual is None:
            self.manual = ManualWindow(lambda: (self.commands, self._keys_of_rooms()))
        self.manual.open_page(page or self.room.manual)

    def _keys_of_rooms(self) -> list[tuple[str, Iterable[Command]]]:
        """Every room's name and keys, for the manual's page of keys."""
        return [(room.name, room.commands) for room in self.rooms.values()]

    def _findable(self) -> list[Found]:
        """Everything Ctrl+K finds: commands, the room's keys, calculators, ports, cuts and jobs."""
        commands = found_commands((*self.commands, *self.room.commands))
        return [*commands, *found_in_book(self.open_book, self._reckon, self.files.open_job)]

    def _reckon(self, calculator: Calculator) -> None:
        self.sheets.of(RECKONER).open(calculator)

    def make_room(self, sheet: SideSheet) -> None:
        """Where a small window leaves the room no sense beside a sheet, the sheet has it to itself."""
        least = LEAST_WELCOME if self._stack.currentWidget() is self.welcome else LEAST_ROOM
        self._stack.setVisible(self.width() - self.rail.width() - sheet.width() >= least)

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        for sheet in self.sheets.made():
            if sheet.isVisible():
                self.make_room(sheet)

    def put_sheet_away(self) -> None:
        self._stack.show()
        for sheet in self.sheets.made():
            sheet.hide()
        self.room.setFocus()

    def give_room(self, alone: bool) -> None:
        """The far view alone, or everything around it again."""
        for part in (self.rail, self.job_bar, self.cut_row, self.foot):
            part.setVisible(not alone)
        self.menuBar().setVisible(not alone)

    def set_reading_distance(self) -> None:
        """Step back until you can just read this."""
        self.go_to_named("flow")
        self.rooms.of(FLOW).step_back(self)

    def toggle_far(self) -> None:
        """The far view of the room in hand alone, or not; Flow's where it has none."""
        if not (self.room.has_far_view and self.has_job()):
            self.go_to_named("flow")
        self.room.show_alone(not self.room.alone)

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
        for room in self.rooms.made():
            room.close_workers()
        for sheet in self.sheets.made():
            sheet.close_workers()
        self.open_book.settings.setValue("window", self.saveGeometry())
        if self.manual is not None:
            self.manual.close()
        self.open_book.close()
        super().closeEvent(event)

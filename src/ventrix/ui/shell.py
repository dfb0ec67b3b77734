"""The window: menus, bars, the cut row, and one room at a time."""

from __future__ import annotations

from functools import partial

from PySide6.QtCore import QByteArray
from PySide6.QtGui import QCloseEvent
from PySide6.QtWidgets import QHBoxLayout, QInputDialog, QMainWindow, QMenu, QStackedWidget, QVBoxLayout, QWidget

from ventrix.core import calculators
from ventrix.ui.bars import Foot, JobBar, Rail
from ventrix.ui.files import Files
from ventrix.ui.menus import build_menus, commands_of
from ventrix.ui.parts.bench_sheet import BenchSheet
from ventrix.ui.parts.cut_row import CutRow
from ventrix.ui.parts.finder import Finder, Found
from ventrix.ui.parts.manual_window import ManualWindow
from ventrix.ui.parts.new_cut import NewCutSheet
from ventrix.ui.parts.reckoner import Reckoner
from ventrix.ui.parts.step_back import StepBack
from ventrix.ui.parts.welcome import Welcome
from ventrix.ui.rooms.compare import CompareRoom
from ventrix.ui.rooms.flow import FlowRoom
from ventrix.ui.rooms.head import HeadRoom
from ventrix.ui.rooms.room import Room
from ventrix.ui.session import Session


class Shell(QMainWindow):
    """Puts the parts together. What they do is theirs."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.files = Files(session, self)
        self.head, self.flow, self.compare = HeadRoom(session), FlowRoom(session), CompareRoom(session)
        self.rooms: list[Room] = [self.head, self.flow, self.compare]
        self._stack = QStackedWidget()
        self._stack.setObjectName("rooms")
        for room in self.rooms:
            self._stack.addWidget(room)
        self.welcome = Welcome()
        self.welcome.new_job.connect(self.files.new_job)
        self.welcome.bring_in.connect(self.files.import_job)
        self._stack.addWidget(self.welcome)
        self._room = 0
        self.rail = Rail([room.name for room in self.rooms])
        self.rail.chosen.connect(self.go_to)
        self.job_bar = JobBar(session)
        self.cut_row = CutRow(session)
        self.foot = Foot(session)
        self.new_cut = NewCutSheet(session)
        self.reckoner = Reckoner(session)
        self.benches = BenchSheet(session, self._live_flow)
        self.step_back = StepBack()
        self.step_back.taken.connect(self._use_far_size)
        self.step_back.closed.connect(lambda: self.room.setFocus())
        self.flow.far_toggled.connect(self._give_room)
        self.reckoner.closed.connect(self._put_sheet_away)
        self.benches.closed.connect(self._put_sheet_away)
        self.cut_row.new_cut.connect(self.new_cut.open)
        self.new_cut.closed.connect(self._put_sheet_away)
        self.new_cut.logged.connect(self._work_simulated_port)
        self.manual: ManualWindow | None = None
        self.ports_menu = QMenu("&Port")
        self._lay_out()
        build_menus(self)
        self.finder = Finder(self, self._findable)
        session.look_changed.connect(self.rail.restyle)
        session.opened.connect(self._name_window)
        session.opened.connect(self._show_room)
        session.job_changed.connect(self._name_window)
        self._name_window()
        self.resize(1280, 800)
        self.setMinimumSize(1024, 680)
        self._restore()
        self.go_to(int(str(session.settings.value("room", 2))))

    def _lay_out(self) -> None:
        middle = QVBoxLayout()
        middle.setSpacing(0)
        middle.addWidget(self.cut_row)
        middle.addWidget(self._stack, 1)
        self.new_cut.stand_over(self._stack)
        self.reckoner.stand_over(self._stack)
        self.benches.stand_over(self._stack)
        across = QHBoxLayout()
        across.setSpacing(0)
        across.addWidget(self.rail)
        across.addLayout(middle, 1)
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
        space = self.session.workspace
        demo = " (demo, a throw-away book)" if self.session.demo else ""
        self.setWindowTitle(f"{space.job.title} · Ventrix{demo}" if space else f"Ventrix{demo}")

    @property
    def room(self) -> Room:
        return self.rooms[self._room]

    def go_to(self, index: int) -> None:
        """Enter a room."""
        if self.flow.far.alone and self.rooms[index] is not self.flow:
            self.flow.show_alone(False)
        index = index if 0 <= index < len(self.rooms) else 0
        self._room = index
        self._show_room()
        self.rail.show_chosen(index)
        self.session.settings.setValue("room", index)
        room = self.rooms[index]
        if room is self.flow:
            if self.session.demo and not self.session.bench.active:
                self.session.bench.connect_simulated()
            room.setFocus()

    def _show_room(self) -> None:
        """The room entered, or the welcome while no job is open."""
        self._stack.setCurrentWidget(self.welcome if self.session.workspace is None else self.room)

    def open_manual(self, page: str | None = None) -> None:
        """The manual's page for this room, or a named one."""
        if self.manual is None:
            self.manual = ManualWindow()
        self.manual.open_page(page or self.room.manual)

    def _findable(self) -> list[Found]:
        """Everything Ctrl+K finds."""
        entries = [
            Found(c.title, "calculator", f"{c.id} {c.words}", partial(self.reckoner.open, c))
            for c in calculators.registry().values()
        ]
        space = self.session.workspace
        if space is not None:
            for port in space.job.ports:
                for cut in port.cuts:
                    name = f"{port.name}, cut {cut.number} {cut.name}"
                    entries.append(Found(name, "cut", "", partial(space.look_at, cut.id)))
        for entry in self.session.book.jobs():
            entries.append(Found(entry.title, "job", "open", partial(self.files.open_job, entry.id)))
        return [*commands_of(self.menuBar()), *entries]

    def _put_sheet_away(self) -> None:
        for sheet in (self.new_cut, self.reckoner, self.benches):
            sheet.hide()
        self.room.setFocus()

    def _live_flow(self) -> float | None:
        """What the bench flows now [m3/s], None where it does not say or is not steady."""
        test = self.flow.hand.test
        live = test.live
        if not self.session.bench.connected or live is None:
            return None
        return self.flow.hand.element.as_reported(*live)

    def _use_far_size(self, px: float) -> None:
        self.flow.far.least = px
        self.session.settings.setValue("far_px", px)
        self.flow.show_alone(True)

    def _give_room(self, alone: bool) -> None:
        """The far view alone, or everything around it again."""
        for part in (self.rail, self.job_bar, self.cut_row, self.foot):
            part.setVisible(not alone)
        self.menuBar().setVisible(not alone)

    def set_reading_distance(self) -> None:
        """Step back until you can just read this."""
        self.go_to(self.rooms.index(self.flow))
        self.step_back.open(self, self.flow.far.least)

    def toggle_far(self) -> None:
        """The Flow room's far view alone, or not."""
        self.go_to(self.rooms.index(self.flow))
        self.flow.show_alone(not self.flow.far.alone)

    def choose_pedal(self) -> None:
        """Take the key of the user's pedal by its name."""
        text, ok = QInputDialog.getText(
            self, "Pedal", "The key that the pedal types, by its name (PgDown, F8, B):", text=self.flow.pedal.name
        )
        if ok and self.flow.pedal.use(text.strip()):
            self.session.settings.setValue("pedal", self.flow.pedal.name)
            self.session.say(f"Pedal: {self.flow.pedal.name}. Press keeps, hold strikes, twice repeats.")
        elif ok:
            self.session.say(f"'{text}' is not the name of a key.")

    def _work_simulated_port(self, cut_id: str, place: str) -> None:
        """A cut logged while the simulated bench is on changes its port too."""
        space, bench = self.session.workspace, self.session.bench
        if space is None or not bench.is_simulated:
            return
        port, cut = space.job.cut_of(cut_id)
        kind, number = port.kind, cut.number
        bench.send(lambda b: b.work(kind, number, place))

    # -- the window remembers itself

    def _restore(self) -> None:
        saved = self.session.settings.value("window")
        if isinstance(saved, QByteArray):
            self.restoreGeometry(saved)

    def closeEvent(self, event: QCloseEvent) -> None:
        self.session.settings.setValue("window", self.saveGeometry())
        if self.manual is not None:
            self.manual.close()
        self.session.close()
        super().closeEvent(event)

"""The window: menus, bars, the cut row, and one room at a time."""

from __future__ import annotations

from functools import cached_property, partial
from typing import Final, TypeVar

from PySide6.QtCore import QByteArray
from PySide6.QtGui import QCloseEvent, QResizeEvent
from PySide6.QtWidgets import QHBoxLayout, QInputDialog, QMainWindow, QStackedWidget, QVBoxLayout, QWidget

from ventrix.core.calculators.answer import registry
from ventrix.core.calculators.contract import Calculator
from ventrix.core.quantity.units import parse_quantity
from ventrix.core.quantity.words import sentence
from ventrix.ui.air.room import AirRoom
from ventrix.ui.air.traverse_sheet import TraverseSheet
from ventrix.ui.benches.sheet import BenchSheet
from ventrix.ui.calculators.reckoner import Reckoner
from ventrix.ui.compare.claim_sheet import ClaimSheet
from ventrix.ui.compare.room import CompareRoom
from ventrix.ui.cuts.new_cut_sheet import NewCutSheet
from ventrix.ui.cuts.pour_sheet import PourSheet
from ventrix.ui.cuts.room import CutsRoom
from ventrix.ui.cuts.trial_sheet import TrialSheet
from ventrix.ui.cuts.wall_sheet import WallSheet
from ventrix.ui.flow.reading_distance import StepBack
from ventrix.ui.flow.room import FlowRoom
from ventrix.ui.head.room import HeadRoom
from ventrix.ui.open_book import Session
from ventrix.ui.widgets.room import Room
from ventrix.ui.widgets.side_sheet import SideSheet
from ventrix.ui.window.bars import Foot, JobBar, Rail
from ventrix.ui.window.cut_row import CutRow
from ventrix.ui.window.file_commands import Files
from ventrix.ui.window.finder import Finder, Found
from ventrix.ui.window.manual import ManualWindow
from ventrix.ui.window.menus import build_menus, commands_of
from ventrix.ui.window.room_frame import RoomFrame
from ventrix.ui.window.welcome import Welcome

ROOMS: Final[tuple[tuple[str, type[Room]], ...]] = (
    ("head", HeadRoom),
    ("flow", FlowRoom),
    ("cuts", CutsRoom),
    ("compare", CompareRoom),
    ("air", AirRoom),
)
FLOW: Final = 1
LEAST_ROOM: Final = 460  # px of a room's width that are of any use beside a sheet
AnyRoom = TypeVar("AnyRoom", bound=Room)
AnySheet = TypeVar("AnySheet", bound=SideSheet)


class Shell(QMainWindow):
    """Puts the parts together. What they do is theirs."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.files = Files(session, self)
        self._frames: dict[Room, RoomFrame] = {}
        self._beside = QHBoxLayout()
        self._stack = QStackedWidget()
        self._stack.setObjectName("rooms")
        self.welcome = Welcome()
        self.welcome.new_job.connect(self.files.new_job)
        self.welcome.bring_in.connect(self.files.import_job)
        self._stack.addWidget(self.welcome)
        self._room = 0
        self.rail = Rail([room.name for _, room in ROOMS])
        self.rail.chosen.connect(self.go_to)
        self.job_bar = JobBar(session)
        self.cut_row = CutRow(session)
        self.cut_row.new_cut.connect(lambda: self.new_cut.open())
        self.foot = Foot(session)
        self.manual: ManualWindow | None = None
        self._lay_out()
        build_menus(self)
        self.finder = Finder(self, self._findable)
        session.look_changed.connect(self.rail.restyle)
        session.opened.connect(self._name_window)
        session.opened.connect(self._show_room)
        session.job_changed.connect(self._name_window)
        self._name_window()
        self.resize(1280, 800)
        self.setMinimumSize(800, 500)
        self._restore()
        self.go_to(int(str(session.settings.value("room", 3))))

    # -- rooms and sheets are made when they are first entered: a window opens with the one it shows

    def _settle_room(self, room: AnyRoom) -> AnyRoom:
        self._frames[room] = RoomFrame(room)
        self._stack.addWidget(self._frames[room])
        return room

    def _settle_sheet(self, sheet: AnySheet) -> AnySheet:
        sheet.hide()
        sheet.shown.connect(lambda: self._make_room(sheet))
        self._beside.addWidget(sheet)
        sheet.closed.connect(self._put_sheet_away)
        return sheet

    @cached_property
    def head(self) -> HeadRoom:
        room = HeadRoom(self.session)
        room.pour.connect(lambda: self.pour_sheet.open())
        return self._settle_room(room)

    @cached_property
    def flow(self) -> FlowRoom:
        room = FlowRoom(self.session)
        room.far_toggled.connect(self._give_room)
        return self._settle_room(room)

    @cached_property
    def cuts(self) -> CutsRoom:
        room = CutsRoom(self.session)
        room.new_cut.connect(lambda place: self.new_cut.open(place))
        room.operation.connect(lambda place: self.new_cut.open_operation(place))
        room.wall.connect(lambda place: self.wall_sheet.open(place))
        room.pour.connect(lambda: self.pour_sheet.open())
        room.trial.connect(lambda place: self.trial_sheet.open(place))
        return self._settle_room(room)

    @cached_property
    def compare(self) -> CompareRoom:
        room = CompareRoom(self.session)
        room.room_wanted.connect(self.go_to_named)
        room.other_wanted.connect(self.choose_other_side)
        return self._settle_room(room)

    @cached_property
    def air(self) -> AirRoom:
        room = AirRoom(self.session)
        room.traverse_wanted.connect(lambda station: self.traverse_sheet.open(station))
        return self._settle_room(room)

    @cached_property
    def traverse_sheet(self) -> TraverseSheet:
        sheet = TraverseSheet(self.session)
        sheet.begun.connect(lambda traverse: self.air.lead_on(traverse))
        return self._settle_sheet(sheet)

    @cached_property
    def new_cut(self) -> NewCutSheet:
        sheet = NewCutSheet(self.session)
        sheet.logged.connect(self._work_simulated_port)
        return self._settle_sheet(sheet)

    @cached_property
    def wall_sheet(self) -> WallSheet:
        return self._settle_sheet(WallSheet(self.session))

    @cached_property
    def pour_sheet(self) -> PourSheet:
        return self._settle_sheet(PourSheet(self.session))

    @cached_property
    def trial_sheet(self) -> TrialSheet:
        return self._settle_sheet(TrialSheet(self.session))

    @cached_property
    def claim_sheet(self) -> ClaimSheet:
        return self._settle_sheet(ClaimSheet(self.session))

    @cached_property
    def reckoner(self) -> Reckoner:
        return self._settle_sheet(Reckoner(self.session))

    @cached_property
    def benches(self) -> BenchSheet:
        sheet = BenchSheet(self.session, self._live_flow)
        sheet.made.connect(lambda bench: self.flow.take_bench(bench))
        return self._settle_sheet(sheet)

    @cached_property
    def step_back(self) -> StepBack:
        sheet = StepBack()
        sheet.taken.connect(self._use_far_size)
        sheet.closed.connect(lambda: self.room.setFocus())
        return sheet

    @property
    def rooms(self) -> list[Room]:
        """Every room, in the order of work."""
        return [getattr(self, key) for key, _ in ROOMS]

    def _lay_out(self) -> None:
        middle = QVBoxLayout()
        middle.setSpacing(0)
        middle.addWidget(self.cut_row)
        self._beside.setSpacing(0)
        self._beside.addWidget(self._stack, 1)
        middle.addLayout(self._beside, 1)
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
        room: Room = getattr(self, ROOMS[self._room][0])
        return room

    def go_to(self, index: int) -> None:
        """Enter a room."""
        index = index if 0 <= index < len(ROOMS) else 0
        flow = self.__dict__.get("flow")
        if flow is not None and flow.far.alone and ROOMS[index][0] != "flow":
            flow.show_alone(False)
        self._room = index
        self._show_room()
        self.rail.show_chosen(index)
        self.session.settings.setValue("room", index)
        room = self.room
        if isinstance(room, (FlowRoom, AirRoom)):
            if self.session.demo and not self.session.bench.active:
                self.session.bench.connect_simulated()
            room.setFocus()

    def go_to_named(self, name: str) -> None:
        """Enter a room by its key."""
        self.go_to(next((i for i, (key, _) in enumerate(ROOMS) if key == name), self._room))

    def choose_other_side(self) -> None:
        """Find any flowed cut of the book, or a claim, to hold against; or go back to the pinned cut."""
        self.finder.open(self._other_sides)

    def _other_sides(self) -> list[Found]:
        space = self.session.workspace
        if space is None:
            return []
        entries = [Found("the pinned cut again", "back", "", space.let_go_of_other)] if space.other is not None else []
        for entry in self.session.book.jobs():
            job = space.job if entry.id == space.job.id else self.session.book.load(entry.id)
            for port in job.ports:
                for cut in port.cuts:
                    name = f"{job.title}, {port.name}, cut {cut.number} {cut.name}"
                    if any(not r.claimed and r.readings for r in cut.runs):
                        hold = partial(space.hold_against_other, job.id, cut.id)
                        entries.append(Found(name, "hold against", "measured", hold))
                    if any(r.claimed for r in cut.runs):
                        hold = partial(space.hold_against_other, job.id, cut.id, claimed=True)
                        entries.append(Found(f"claimed: {name}", "hold against", "claim", hold))
        return entries

    def _show_room(self) -> None:
        """The room entered, or the welcome while no job is open."""
        frame = self._frames[self.room]
        if self._stack.isHidden():  # a sheet had a small window to itself
            self._put_sheet_away()
        self._stack.setCurrentWidget(self.welcome if self.session.workspace is None else frame)

    def open_manual(self, page: str | None = None) -> None:
        """The manual's page for this room, or a named one."""
        if self.manual is None:
            self.manual = ManualWindow()
        self.manual.open_page(page or self.room.manual)

    def _findable(self) -> list[Found]:
        """Everything Ctrl+K finds."""
        entries = [
            Found(c.title, "calculator", f"{c.id} {c.words}", partial(self._reckon, c)) for c in registry().values()
        ]
        space = self.session.workspace
        if space is not None:
            for port in space.job.ports:
                entries.append(Found(port.name, "port", port.kind, partial(space.look_at_port, port.id)))
                for cut in port.cuts:
                    name = f"{port.name}, cut {cut.number} {cut.name}"
                    entries.append(Found(name, "cut", "", partial(space.look_at, cut.id)))
        for entry in self.session.book.jobs():
            entries.append(Found(entry.title, "job", "open", partial(self.files.open_job, entry.id)))
        return [*commands_of(self.menuBar()), *entries]

    def _reckon(self, calculator: Calculator) -> None:
        self.reckoner.open(calculator)

    def _make_room(self, sheet: SideSheet) -> None:
        """Where a small window leaves the room no sense beside a sheet, the sheet has it to itself."""
        self._stack.setVisible(self.width() - self.rail.width() - sheet.width() >= LEAST_ROOM)

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        for sheet in (s for s in self.__dict__.values() if isinstance(s, SideSheet) and s.isVisible()):
            self._make_room(sheet)

    def _put_sheet_away(self) -> None:
        self._stack.show()
        for sheet in self.__dict__.values():
            if isinstance(sheet, SideSheet):
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
        self.go_to(FLOW)
        self.step_back.open(self, self.flow.far.least)

    def toggle_far(self) -> None:
        """The Flow room's far view alone, or not."""
        self.go_to(FLOW)
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

    def choose_speed_limit(self) -> None:
        """The Mach number above which the Air room calls a local speed too fast."""
        text, ok = QInputDialog.getText(
            self, "Limit of local air speed", "Mach number (usual: 0.55):", text=f"{self.air.limit:g}"
        )
        if ok:
            try:
                self.air.use_limit(parse_quantity(text, "-"))
            except ValueError as error:
                self.session.say(sentence(str(error)))

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

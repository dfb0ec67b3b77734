"""The rooms of a window, made when they are first entered, and what each asks of the others."""

from __future__ import annotations

from functools import cached_property
from typing import TYPE_CHECKING, Final, TypeVar

from PySide6.QtWidgets import QStackedWidget

from ventrix.core.judging.checks import Offer
from ventrix.core.model.kinds import Place, TrialKind
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.room import Room
from ventrix.ui.window.book_sheets import BookSheets
from ventrix.ui.window.practice import AtPractice
from ventrix.ui.window.room_frame import RoomFrame

if TYPE_CHECKING:
    from ventrix.core.planning.moves import Move
    from ventrix.rooms.lineup.shows import EdgeLine
    from ventrix.ui.air.room import AirRoom
    from ventrix.ui.air.traverse_sheet import TraverseSheet
    from ventrix.ui.benches.sheet import BenchSheet
    from ventrix.ui.book.room import BookRoom
    from ventrix.ui.calculators.reckoner import Reckoner
    from ventrix.ui.compare.room import CompareRoom
    from ventrix.ui.cuts.room import CutsRoom
    from ventrix.ui.flow.room import FlowRoom
    from ventrix.ui.head.room import HeadRoom
    from ventrix.ui.lineup.room import LineUpRoom
    from ventrix.ui.match.room import MatchRoom
    from ventrix.ui.plan.room import PlanRoom
    from ventrix.ui.practice.room import PracticeRoom
    from ventrix.ui.sheet.room import SheetRoom
    from ventrix.ui.window.new_job_sheet import NewJobSheet
    from ventrix.workspace.practice import PracticeAtWork

FLOW: Final = 1
COMPARE: Final = 3
AnyRoom = TypeVar("AnyRoom", bound=Room)


class RoomHolder(BookSheets):
    """A window with rooms, and how they hand over to one another and to the sheets."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book)
        self._frames: dict[Room, RoomFrame] = {}
        self._stack = QStackedWidget()
        self._stack.setObjectName("rooms")
        self._came_from = COMPARE  # where a job opens that was found in a room apart
        self.at_practice = AtPractice(open_book)

    def go_to(self, index: int) -> None:
        raise AssertionError("the window knows its rooms")

    def open_practice(self, practice: PracticeAtWork) -> object:
        raise AssertionError("the window opens others")

    def speak_of_book(self, words: str) -> None:
        raise AssertionError("the window has the bar")

    def give_room(self, alone: bool) -> None:
        raise AssertionError("the window has what is around")

    def choose_other_side(self) -> None:
        raise AssertionError("the window has the finder")

    def begin_job(self, bench: str) -> None:
        raise AssertionError("the window begins")

    # -- rooms and sheets are made when they are first entered: a window opens with the one it shows

    def _settle_room(self, room: AnyRoom) -> AnyRoom:
        self._frames[room] = RoomFrame(room)
        self._stack.addWidget(self._frames[room])
        return room

    @cached_property
    def head(self) -> HeadRoom:
        from ventrix.ui.head.room import HeadRoom

        room = HeadRoom(self.open_book)
        room.pour.connect(lambda: self.pour_sheet.open())
        return self._settle_room(room)

    @cached_property
    def flow(self) -> FlowRoom:
        from ventrix.ui.flow.room import FlowRoom

        room = FlowRoom(self.open_book)
        room.far_toggled.connect(self.give_room)
        return self._settle_room(room)

    @cached_property
    def cuts(self) -> CutsRoom:
        from ventrix.ui.cuts.room import CutsRoom

        room = CutsRoom(self.open_book)
        room.new_cut.connect(lambda place: self.new_cut.open(place))
        room.operation.connect(lambda place: self.new_cut.open_operation(place))
        room.wall.connect(lambda place: self.wall_sheet.open(place))
        room.pour.connect(lambda: self.pour_sheet.open())
        room.fault.connect(lambda place: self.fault_sheet.open(place))
        room.tube.connect(lambda place: self.tube_sheet.open(place))
        room.valve_job.connect(lambda: self.seat_sheet.open())
        room.trial.connect(lambda place: self.trial_sheet.open(place))
        return self._settle_room(room)

    @cached_property
    def compare(self) -> CompareRoom:
        from ventrix.ui.compare.room import CompareRoom

        room = CompareRoom(self.open_book)
        room.room_wanted.connect(self.go_to_named)
        room.far_toggled.connect(self.give_room)
        room.other_wanted.connect(self.choose_other_side)
        room.check_wanted.connect(self._begin_check)
        return self._settle_room(room)

    def _begin_check(self, offer: Offer) -> None:
        """The bench, at what shows whether it changed."""
        self.go_to(FLOW)
        self.flow.begin_check(offer)

    @cached_property
    def air(self) -> AirRoom:
        from ventrix.ui.air.room import AirRoom

        room = AirRoom(self.open_book)
        room.traverse_wanted.connect(lambda station: self.traverse_sheet.open(station))
        return self._settle_room(room)

    @cached_property
    def plan(self) -> PlanRoom:
        from ventrix.ui.plan.room import PlanRoom

        room = PlanRoom(self.open_book)
        room.said_first.connect(self._say_first)
        room.look_wanted.connect(self._look)
        room.stages_wanted.connect(lambda: self.route_sheet.open())
        room.engine_wanted.connect(lambda: self.engine_sheet.open())
        room.result_wanted.connect(lambda: self.result_sheet.open())
        return self._settle_room(room)

    def _say_first(self, move: Move, is_index: bool) -> None:
        """The cut sheet with a planned move in it, as said first."""
        self.new_cut.open(move.place)
        self.new_cut.say_first(move, is_index)

    def _look(self, kind: str, place: str) -> None:
        """The sheet that keeps what a look has seen."""
        if kind == "wall":
            self.wall_sheet.open(place)
        elif kind == "clay":
            self.trial_sheet.open(place)
        elif kind == "seat":
            self.seat_sheet.open()
        elif kind == "valve":
            self.valves_sheet.open()
        elif kind in ("larger", "entry"):
            self.trial_sheet.open(kind=TrialKind.VALVE if kind == "larger" else TrialKind.ENTRY)
        else:
            self.go_to(FLOW)

    @cached_property
    def match(self) -> MatchRoom:
        from ventrix.ui.match.room import MatchRoom

        room = MatchRoom(self.open_book)
        room.copy_wanted.connect(lambda: self.copy_sheet.open())
        room.stage_wanted.connect(lambda stage, others: self.stage_sheet.open(stage, others))
        room.wait_wanted.connect(lambda stage: self.wait_sheet.open(stage))
        room.wait_ended.connect(lambda stage: self.wait_sheet.back(stage))
        room.valve_job_wanted.connect(lambda: self.seat_sheet.open())
        room.parts_wanted.connect(lambda: self.job_parts_sheet.open())
        room.quote_wanted.connect(lambda: self.quote_sheet.open())
        room.cards_wanted.connect(lambda: self.sheet.hand_over.choose_every_card())
        return self._settle_room(room)

    @cached_property
    def lineup(self) -> LineUpRoom:
        from ventrix.ui.lineup.room import LineUpRoom

        room = LineUpRoom(self.open_book)
        room.face_wanted.connect(lambda: self.face_sheet.open())
        room.template_wanted.connect(lambda found: self.template_sheet.open(found))
        room.milling_wanted.connect(lambda: self.milling_sheet.open())
        self.face_sheet.tracing = room.tracing
        self.face_sheet.trace_wanted.connect(room.trace)
        room.chambers_wanted.connect(lambda: self.chamber_sheet.open())
        room.planned.connect(self._plan_edge)
        return self._settle_room(room)

    def _plan_edge(self, line: EdgeLine) -> None:
        """The cut sheet with an edge of the opening in it, on the port that it is of."""
        space = self.open_book.workspace
        port = None if space is None else next((p for p in space.job.ports if p.name == line.edge.port), None)
        if space is None or port is None or line.proposal is None:
            return
        space.look_at_port(port.id)
        self.new_cut.open(Place.OPENING.value)
        self.new_cut.plan_edge(line.edge.edge, line.proposal.depth)

    @cached_property
    def sheet(self) -> SheetRoom:
        from ventrix.ui.sheet.room import SheetRoom

        room = SheetRoom(self.open_book)
        room.shop_wanted.connect(lambda: self.shop_sheet.open())
        return self._settle_room(room)

    @cached_property
    def book(self) -> BookRoom:
        from ventrix.ui.book.room import BookRoom

        room = BookRoom(self.open_book)
        room.job_wanted.connect(self._open_from_book)
        room.new_wanted.connect(lambda: self.new_job_sheet.open())
        room.details_wanted.connect(lambda job_id: self.details_sheet.open(room.shelf, job_id))
        room.counted.connect(self.speak_of_book)
        return self._settle_room(room)

    @cached_property
    def practice(self) -> PracticeRoom:
        from ventrix.ui.practice.room import PracticeRoom

        room = PracticeRoom(self.open_book)
        room.begin_wanted.connect(self.open_practice)
        room.stand_wanted.connect(self._stand_again)
        room.flow_wanted.connect(self.at_practice.flow)
        room.pour_wanted.connect(lambda: self.pour_sheet.open())
        return self._settle_room(room)

    def _stand_again(self, work: str) -> None:
        """Where a decision of a practice was taken: its cut in Compare."""
        space = self.open_book.workspace
        cuts = space.port.cuts if space is not None and space.port is not None else ()
        cut = next((c for c in cuts if any(w.id == work for op in c.operations for w in op.works)), None)
        if space is not None and cut is not None:
            space.look_at(cut.id)
            self.go_to(COMPARE)

    def _open_from_book(self, job_id: str) -> None:
        """A job found in the book opens in the room one came from."""
        self.files.open_job(job_id)
        if self.open_book.workspace is not None and self.open_book.workspace.job.id == job_id:
            self.go_to(self._came_from)

    @cached_property
    def traverse_sheet(self) -> TraverseSheet:
        from ventrix.ui.air.traverse_sheet import TraverseSheet

        sheet = TraverseSheet(self.open_book)
        sheet.begun.connect(lambda traverse: self.air.lead_on(traverse))
        return self.settle_sheet(sheet)

    @cached_property
    def new_job_sheet(self) -> NewJobSheet:
        from ventrix.ui.window.new_job_sheet import NewJobSheet

        sheet = NewJobSheet(self.open_book)
        sheet.made.connect(self.begin_job)
        return self.settle_sheet(sheet)

    @cached_property
    def reckoner(self) -> Reckoner:
        from ventrix.ui.calculators.reckoner import Reckoner

        return self.settle_sheet(Reckoner(self.open_book))

    @cached_property
    def benches(self) -> BenchSheet:
        from ventrix.ui.benches.sheet import BenchSheet

        sheet = BenchSheet(self.open_book, lambda: self.flow.live_flow())
        sheet.made.connect(lambda bench: self.flow.take_bench(bench, just_made=True))
        return self.settle_sheet(sheet)

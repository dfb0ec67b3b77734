"""The sheets that log what was done and measured, each made when it is first opened and put beside the room."""

from __future__ import annotations

from functools import cached_property
from typing import TYPE_CHECKING, TypeVar

from PySide6.QtWidgets import QHBoxLayout, QMainWindow

from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.side_sheet import SideSheet

if TYPE_CHECKING:
    from ventrix.ui.compare.claim_sheet import ClaimSheet
    from ventrix.ui.cuts.fault_sheet import FaultSheet
    from ventrix.ui.cuts.new_cut_sheet import NewCutSheet
    from ventrix.ui.cuts.parts_sheet import PartsSheet
    from ventrix.ui.cuts.pour_sheet import PourSheet
    from ventrix.ui.cuts.seat_sheet import SeatSheet
    from ventrix.ui.cuts.trial_sheet import TrialSheet
    from ventrix.ui.cuts.tube_sheet import TubeSheet
    from ventrix.ui.cuts.wall_sheet import WallSheet
    from ventrix.ui.flow.correct_sheet import CorrectSheet
    from ventrix.ui.head.valves_sheet import ValvesSheet
    from ventrix.ui.lineup.chamber_sheet import ChamberSheet
    from ventrix.ui.lineup.face_sheet import FaceSheet
    from ventrix.ui.lineup.milling_sheet import MillingSheet
    from ventrix.ui.lineup.template_sheet import TemplateSheet
    from ventrix.ui.match.copy_sheet import CopySheet
    from ventrix.ui.match.parts_and_quote import JobPartsSheet, QuoteSheet
    from ventrix.ui.match.stage_sheet import StageSheet, WaitSheet
    from ventrix.ui.plan.engine_sheet import EngineSheet
    from ventrix.ui.plan.result_sheet import ResultSheet
    from ventrix.ui.plan.route_sheet import RouteSheet
    from ventrix.ui.practice.call_sheet import CallSheet

AnySheet = TypeVar("AnySheet", bound=SideSheet)


class SheetHolder(QMainWindow):
    """A window with a place for sheets beside its rooms."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__()
        self.open_book = open_book
        self.beside = QHBoxLayout()

    def make_room(self, sheet: SideSheet) -> None:
        raise AssertionError("the window says what gives way to a sheet")

    def put_sheet_away(self) -> None:
        raise AssertionError("the window says where the keyboard goes")

    def settle_sheet(self, sheet: AnySheet) -> AnySheet:
        sheet.hide()
        sheet.shown.connect(lambda: self.make_room(sheet))
        self.beside.addWidget(sheet)
        sheet.closed.connect(self.put_sheet_away)
        return sheet

    @cached_property
    def new_cut(self) -> NewCutSheet:
        from ventrix.ui.cuts.new_cut_sheet import NewCutSheet

        sheet = NewCutSheet(self.open_book)
        sheet.logged.connect(self._work_simulated_port)
        return self.settle_sheet(sheet)

    @cached_property
    def wall_sheet(self) -> WallSheet:
        from ventrix.ui.cuts.wall_sheet import WallSheet

        return self.settle_sheet(WallSheet(self.open_book))

    @cached_property
    def pour_sheet(self) -> PourSheet:
        from ventrix.ui.cuts.pour_sheet import PourSheet

        return self.settle_sheet(PourSheet(self.open_book))

    @cached_property
    def seat_sheet(self) -> SeatSheet:
        from ventrix.ui.cuts.seat_sheet import SeatSheet

        return self.settle_sheet(SeatSheet(self.open_book))

    @cached_property
    def valves_sheet(self) -> ValvesSheet:
        from ventrix.ui.head.valves_sheet import ValvesSheet

        return self.settle_sheet(ValvesSheet(self.open_book))

    @cached_property
    def tube_sheet(self) -> TubeSheet:
        from ventrix.ui.cuts.tube_sheet import TubeSheet

        return self.settle_sheet(TubeSheet(self.open_book))

    @cached_property
    def fault_sheet(self) -> FaultSheet:
        from ventrix.ui.cuts.fault_sheet import FaultSheet

        return self.settle_sheet(FaultSheet(self.open_book))

    @cached_property
    def parts_sheet(self) -> PartsSheet:
        from ventrix.ui.cuts.parts_sheet import PartsSheet

        sheet = PartsSheet(self.open_book)
        sheet.conditions_wanted.connect(lambda run_id: self.correct_sheet.open(run_id))
        return self.settle_sheet(sheet)

    @cached_property
    def correct_sheet(self) -> CorrectSheet:
        from ventrix.ui.flow.correct_sheet import CorrectSheet

        return self.settle_sheet(CorrectSheet(self.open_book))

    @cached_property
    def trial_sheet(self) -> TrialSheet:
        from ventrix.ui.cuts.trial_sheet import TrialSheet

        return self.settle_sheet(TrialSheet(self.open_book))

    @cached_property
    def claim_sheet(self) -> ClaimSheet:
        from ventrix.ui.compare.claim_sheet import ClaimSheet

        return self.settle_sheet(ClaimSheet(self.open_book))

    @cached_property
    def engine_sheet(self) -> EngineSheet:
        from ventrix.ui.plan.engine_sheet import EngineSheet

        sheet = EngineSheet(self.open_book)
        sheet.result_wanted.connect(lambda: self.result_sheet.open())
        return self.settle_sheet(sheet)

    @cached_property
    def face_sheet(self) -> FaceSheet:
        from ventrix.ui.lineup.face_sheet import FaceSheet

        return self.settle_sheet(FaceSheet(self.open_book))

    @cached_property
    def chamber_sheet(self) -> ChamberSheet:
        from ventrix.ui.lineup.chamber_sheet import ChamberSheet

        return self.settle_sheet(ChamberSheet(self.open_book))

    @cached_property
    def template_sheet(self) -> TemplateSheet:
        from ventrix.ui.lineup.template_sheet import TemplateSheet

        return self.settle_sheet(TemplateSheet(self.open_book))

    @cached_property
    def call_sheet(self) -> CallSheet:
        from ventrix.ui.practice.call_sheet import CallSheet

        return self.settle_sheet(CallSheet(self.open_book))

    @cached_property
    def milling_sheet(self) -> MillingSheet:
        from ventrix.ui.lineup.milling_sheet import MillingSheet

        return self.settle_sheet(MillingSheet(self.open_book))

    @cached_property
    def copy_sheet(self) -> CopySheet:
        from ventrix.ui.match.copy_sheet import CopySheet

        return self.settle_sheet(CopySheet(self.open_book))

    @cached_property
    def stage_sheet(self) -> StageSheet:
        from ventrix.ui.match.stage_sheet import StageSheet

        return self.settle_sheet(StageSheet(self.open_book))

    @cached_property
    def wait_sheet(self) -> WaitSheet:
        from ventrix.ui.match.stage_sheet import WaitSheet

        return self.settle_sheet(WaitSheet(self.open_book))

    @cached_property
    def job_parts_sheet(self) -> JobPartsSheet:
        from ventrix.ui.match.parts_and_quote import JobPartsSheet

        return self.settle_sheet(JobPartsSheet(self.open_book))

    @cached_property
    def quote_sheet(self) -> QuoteSheet:
        from ventrix.ui.match.parts_and_quote import QuoteSheet

        return self.settle_sheet(QuoteSheet(self.open_book))

    @cached_property
    def route_sheet(self) -> RouteSheet:
        from ventrix.ui.plan.route_sheet import RouteSheet

        return self.settle_sheet(RouteSheet(self.open_book))

    @cached_property
    def result_sheet(self) -> ResultSheet:
        from ventrix.ui.plan.result_sheet import ResultSheet

        return self.settle_sheet(ResultSheet(self.open_book))

    def _work_simulated_port(self, cut_id: str, place: str) -> None:
        """A cut logged while the simulated bench is on changes its port too."""
        space, bench = self.open_book.workspace, self.open_book.bench
        if space is None or not bench.is_simulated:
            return
        port, cut = space.job.cut_of(cut_id)
        kind, number = port.kind, cut.number
        bench.send(lambda b: b.work(kind, number, place))

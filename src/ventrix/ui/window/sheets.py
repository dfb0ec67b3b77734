"""Every sheet that comes up beside a room: its key and where it lives. None is imported before it is first opened."""

from __future__ import annotations

from typing import TYPE_CHECKING, Final, NamedTuple

from ventrix.ui.window.registry import Named

if TYPE_CHECKING:
    from ventrix.ui.book.match_sheet import MatchSheet
    from ventrix.ui.calculators.reckoner import Reckoner
    from ventrix.ui.window.double_sheet import DoubleSheet


class Sheet(NamedTuple):
    """A sheet by the key that rooms, sheets and commands ask for it with (`Ways.sheet`)."""

    key: str
    lives: str


SHEETS: Final = (
    Sheet("benches", "ventrix.ui.benches.sheet:BenchSheet"),
    Sheet("call", "ventrix.ui.practice.call_sheet:CallSheet"),
    Sheet("casting", "ventrix.ui.book.casting_sheet:CastingSheet"),
    Sheet("chamber", "ventrix.ui.lineup.chamber_sheet:ChamberSheet"),
    Sheet("claim", "ventrix.ui.compare.claim_sheet:ClaimSheet"),
    Sheet("copy", "ventrix.ui.match.copy_sheet:CopySheet"),
    Sheet("scan_match", "ventrix.ui.match.scan_match_sheet:ScanMatchSheet"),
    Sheet("correct", "ventrix.ui.flow.correct_sheet:CorrectSheet"),
    Sheet("cut", "ventrix.ui.cuts.new_cut_sheet:NewCutSheet"),
    Sheet("details", "ventrix.ui.book.details_sheet:DetailsSheet"),
    Sheet("double", "ventrix.ui.window.double_sheet:DoubleSheet"),
    Sheet("engine", "ventrix.ui.plan.engine_sheet:EngineSheet"),
    Sheet("face", "ventrix.ui.lineup.face_sheet:FaceSheet"),
    Sheet("fault", "ventrix.ui.cuts.fault_sheet:FaultSheet"),
    Sheet("gaps", "ventrix.ui.compare.gaps_sheet:GapsSheet"),
    Sheet("job_parts", "ventrix.ui.match.parts_and_quote:JobPartsSheet"),
    Sheet("match", "ventrix.ui.book.match_sheet:MatchSheet"),
    Sheet("milling", "ventrix.ui.lineup.milling_sheet:MillingSheet"),
    Sheet("new_job", "ventrix.ui.window.new_job_sheet:NewJobSheet"),
    Sheet("parts", "ventrix.ui.cuts.parts_sheet:PartsSheet"),
    Sheet("pour", "ventrix.ui.cuts.pour_sheet:PourSheet"),
    Sheet("quote", "ventrix.ui.match.parts_and_quote:QuoteSheet"),
    Sheet("reckoner", "ventrix.ui.calculators.reckoner:Reckoner"),
    Sheet("result", "ventrix.ui.plan.result_sheet:ResultSheet"),
    Sheet("route", "ventrix.ui.plan.route_sheet:RouteSheet"),
    Sheet("scan", "ventrix.ui.cuts.scan_sheet:ScanSheet"),
    Sheet("seat", "ventrix.ui.cuts.seat_sheet:SeatSheet"),
    Sheet("shop", "ventrix.ui.sheet.shop_sheet:ShopSheet"),
    Sheet("stage", "ventrix.ui.match.stage_sheet:StageSheet"),
    Sheet("slip", "ventrix.ui.cuts.slip_sheet:SlipSheet"),
    Sheet("station", "ventrix.ui.book.station_sheet:StationSheet"),
    Sheet("template", "ventrix.ui.lineup.template_sheet:TemplateSheet"),
    Sheet("traverse", "ventrix.ui.air.traverse_sheet:TraverseSheet"),
    Sheet("trial", "ventrix.ui.cuts.trial_sheet:TrialSheet"),
    Sheet("tube", "ventrix.ui.cuts.tube_sheet:TubeSheet"),
    Sheet("valves", "ventrix.ui.head.valves_sheet:ValvesSheet"),
    Sheet("wait", "ventrix.ui.match.stage_sheet:WaitSheet"),
    Sheet("wall", "ventrix.ui.cuts.wall_sheet:WallSheet"),
)

MATCH: Final[Named[MatchSheet]] = Named("match")
DOUBLE: Final[Named[DoubleSheet]] = Named("double")
RECKONER: Final[Named[Reckoner]] = Named("reckoner")

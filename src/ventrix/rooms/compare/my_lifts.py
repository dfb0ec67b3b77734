"""The porter's own lifts as tiles of text."""

from __future__ import annotations

from dataclasses import dataclass

from ventrix.core.judging.comparison import RunComparison
from ventrix.core.judging.my_lifts import at_my_lifts
from ventrix.core.model.bench_kinds import FlowKind
from ventrix.core.model.job_parts import MyLift
from ventrix.core.quantity.words import number_text
from ventrix.rooms.display_units import Units
from ventrix.words import tr


@dataclass(frozen=True, slots=True)
class LiftTile:
    """One lift: its heading, the flow after, the change with its doubt, and what is proven."""

    heading: str
    after: str
    change: str
    result: str
    tip: str


def lift_tiles(comparison: RunComparison, lifts: tuple[MyLift, ...], units: Units) -> tuple[LiftTile, ...]:
    """A tile for each of these lifts that the pair reaches."""
    tiles = []
    for figure in at_my_lifts(comparison, lifts):
        where = units.lift.with_unit(figure.lift)
        heading = f"{figure.name}, {where}" if figure.name else where
        flow = comparison.kind == FlowKind.FLOW
        after = units.flow.with_unit(figure.after) if flow else f"{figure.after:.4f}"
        if flow:
            change = f"{units.flow.text(figure.change, sign=True)} ± {units.flow.text(figure.expanded)}"
        else:
            share = 100 / figure.before
            change = f"{number_text(figure.change * share, sign=True)} ± {figure.expanded * share:.1f} %"
        between = tr(" (between tested lifts: never proven)") if figure.interpolated else ""
        before = units.flow.with_unit(figure.before) if flow else f"{figure.before:.4f}"
        heading = tr("{}, between", heading) if figure.interpolated else heading
        tiles.append(
            LiftTile(heading, after, change, figure.result, tr("{}: {} before, {}{}", heading, before, after, between))
        )
    return tuple(tiles)

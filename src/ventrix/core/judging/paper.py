"""Runs read off another shop's sheet: when two of them may be judged, and under what doubt."""

from __future__ import annotations

from collections.abc import Collection, Sequence
from dataclasses import replace
from typing import Final

from ventrix.core.formulas.knowledge import Adjustment
from ventrix.core.judging.comparability import Comparability, ConditionDifference, Level
from ventrix.core.runs.reduced_run import ReducedRun
from ventrix.words import tr

BETWEEN_DAYS: Final = 0.015  # of the flow: another shop's bench between two days (common practice, no source)
FREEDOM: Final = 8.0  # what that guess counts for
UNNAMED: Final = tr("another shop")


def same_house(runs: Sequence[ReducedRun], ticked: Collection[Collection[str]]) -> Adjustment | None:
    """What two sides from one house's paper are judged under, where they were declared flowed the same way; None
    otherwise. `ticked` are groups of run ids."""
    houses = {run.house for run in runs}
    ids = {run.run_id for run in runs}
    if len(houses) != 1 or not next(iter(houses)) or not any(ids <= set(group) for group in ticked):
        return None
    (house,) = houses
    return Adjustment(
        1.0, BETWEEN_DAYS, FREEDOM, tr("both by {}, declared flowed the same way, 1.5 % between its days", house)
    )


def on_paper(
    found: Comparability, runs: Sequence[ReducedRun], declared: Adjustment | None
) -> tuple[Comparability, str, str]:
    """Comparability of sides of which one or both are paper; whose claim it is, and whose word the verdict rests on.

    Declared the same way, what is not recorded is taken as the same. One house without that is *unknown*. Paper against
    one's own bench, or two houses, is *no*, and a claim.
    """
    houses = sorted({run.house for run in runs})
    if houses == [""]:
        return found, "", ""
    if declared is not None:
        left = tuple(d for d in found.differences if d.level != Level.UNKNOWN)
        worst: Level = Level.NO if any(d.level == Level.NO for d in left) else Level.CONVERTED if left else Level.YES
        return Comparability(worst, left), "", houses[0]
    if len(houses) == 1:
        if found.level in (Level.UNKNOWN, Level.NO):
            return found, "", ""
        said = tr("Whether {} flowed both the same way was not recorded: it may have differed.", houses[0])
        gap = ConditionDifference("house", Level.UNKNOWN, houses[0], houses[0], said)
        return Comparability(Level.UNKNOWN, (*found.differences, gap)), "", ""
    whose = next(house for house in houses if house)
    said = tr("One side was read off the sheet of {}: it was not measured on this bench.", whose)
    gap = ConditionDifference("house", Level.NO, None, whose, said)
    return replace(found, level=Level.NO, differences=(*found.differences, gap)), whose, ""

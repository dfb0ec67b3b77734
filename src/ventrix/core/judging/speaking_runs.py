"""Which runs of two cuts speak: those whose set-ups match best."""

from __future__ import annotations

from dataclasses import replace
from itertools import product
from typing import Final

import numpy as np

from ventrix.core.formulas.knowledge import Adjustment
from ventrix.core.judging.comparability import Comparability, Level, comparability
from ventrix.core.model.kinds import CutKind
from ventrix.core.model.run import SetUp
from ventrix.core.runs.reduced_run import ReducedRun

_RANK = {"yes": 0, "converted": 1, "unknown": 2, "no": 3}


WEATHER: Final = 5000.0  # Pa of barometer across which a transfer counts a further doubt

WEATHER_DOUBT: Final = 0.003


def across_weather(found: Adjustment, here: SetUp, there: SetUp) -> Adjustment:
    """A transfer between days whose barometers differ by more than 50 hPa is that much less sure."""
    if here.pressure is None or there.pressure is None or abs(here.pressure - there.pressure) <= WEATHER:
        return found
    return replace(
        found,
        uncertainty=float(np.hypot(found.uncertainty, WEATHER_DOUBT)),
        uncertainties=tuple(float(np.hypot(u, WEATHER_DOUBT)) for u in found.uncertainties),
    )


def speaking_runs(
    before: tuple[ReducedRun, ...], after: tuple[ReducedRun, ...], changes: frozenset[CutKind]
) -> tuple[tuple[ReducedRun, ...], tuple[ReducedRun, ...]]:
    """The runs of both sides whose set-ups match best; mounts under the same set-up speak together.

    Of equal matches the latest pair wins.
    """

    def rank(pair: tuple[ReducedRun, ReducedRun]) -> tuple[int, int]:
        found = comparability(pair[0].setup, pair[1].setup, changes, sizes=(pair[0].geometry, pair[1].geometry))
        return _RANK[found.level], len(found.differences)

    best = min(product(reversed(before), reversed(after)), key=rank)
    return _like(best[0], before), _like(best[1], after)


def _like(wanted: ReducedRun, runs: tuple[ReducedRun, ...]) -> tuple[ReducedRun, ...]:
    def same(found: Comparability) -> bool:
        return found.level == Level.YES

    return tuple(
        r for r in runs if r is wanted or (r.kind == wanted.kind and same(comparability(r.setup, wanted.setup)))
    )

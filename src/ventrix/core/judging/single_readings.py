"""A difference that rests on one reading: one lift standing off both of its neighbours. All SI."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray

from ventrix.core.formulas.difference import Difference
from ventrix.core.formulas.uncertainty import ENOUGH_FREEDOM, Repeats
from ventrix.core.quantity.arrays import Array
from ventrix.core.runs.reduced_run import LIFT_GRAIN, ReducedRun

OFF_NEIGHBOUR: Final = 3.0  # standard deviations of the difference of two lifts
OFF_BOTH: Final = 4.0  # standard deviations off the mean of both neighbours


@dataclass(frozen=True, slots=True)
class LoneReading:
    """The lift [m] that stands off, and the odd one of its readings where it was repeated [m3/s], on which side."""

    lift: float
    reading: float | None = None
    side: str = ""


def lone_readings(
    lift: Array,
    difference: Difference,
    tested: NDArray[np.bool_],
    repeats: Repeats,
    before: Sequence[ReducedRun],
    after: Sequence[ReducedRun],
) -> tuple[LoneReading, ...]:
    """Inner lifts whose relative difference stands off both neighbours the same way, far beyond the repeat scatter.

    Parameters
    ----------
    lift : ndarray
        Lifts tested on both sides [m], shape (k,).
    difference : Difference
        At all lifts of the comparison.
    tested : ndarray of bool
        Which of those are these k.
    repeats : Repeats
        Of both sides at the k lifts; the scatter of a lift is asked of the *other* lifts.
    before, after : sequence of ReducedRun
        Whose single readings are looked at.

    Returns
    -------
    tuple of LoneReading
        None at the first and last lift.

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    [6] JCGM 100:2008, 4.2; limits are this project's: an 8 % slip is found in nine of ten, and unchanged ports name
    one in two hundred.
    """
    sides = [(s.flow[tested], s.readings[tested]) for s in difference.sides]
    mean = (sides[0][0] + sides[1][0]) / 2
    r = (sides[1][0] - sides[0][0]) / mean
    spread = sum((q / mean) ** 2 / n for q, n in sides)
    resolution = difference.resolution_variance[tested] / mean**2
    found = []
    for i in range(1, len(lift) - 1):
        variance = _scatter_of_others(repeats, i, difference) * spread + resolution
        low, high = r[i] - r[i - 1], r[i] - r[i + 1]
        if low * high <= 0:
            continue
        off = min(abs(low) / np.sqrt(variance[i] + variance[i - 1]), abs(high) / np.sqrt(variance[i] + variance[i + 1]))
        both = abs(low + high) / 2 / np.sqrt(variance[i] + (variance[i - 1] + variance[i + 1]) / 4)
        if off > OFF_NEIGHBOUR and both > OFF_BOTH:
            wanted = (r[i - 1] + r[i + 1]) / 2
            found.append(_odd_one(float(lift[i]), wanted, before, after))
    return tuple(found)


def _scatter_of_others(repeats: Repeats, i: int, difference: Difference) -> float:
    """Relative repeat variance by every lift but one; what is assumed where they were repeated too little."""
    freedom = float(repeats.freedom.sum() - repeats.freedom[i])
    if freedom < ENOUGH_FREEDOM:
        return float(difference.scatter.repeat**2)
    return float(repeats.squares.sum() - repeats.squares[i]) / freedom


def _odd_one(lift: float, wanted: float, before: Sequence[ReducedRun], after: Sequence[ReducedRun]) -> LoneReading:
    """Which of a lift's repeats, left out, would bring its difference nearest to its neighbours'."""
    grain = round(lift / LIFT_GRAIN)
    groups: dict[str, list[float]] = {}
    for name, runs in (("before", before), ("after", after)):
        here = [each for run in runs for x, each in zip(run.lift, run.singles, strict=True) if _is(x, grain)]
        groups[name] = [q for each in here for q in each]

    def off(had: float, has: float) -> float:
        return abs((has - had) / ((has + had) / 2) - wanted)

    means = {name: float(np.mean(q)) for name, q in groups.items()}
    choices = []
    for name, values in groups.items():
        for q in values if len(values) > 1 else ():
            rest = (sum(values) - q) / (len(values) - 1)
            left = means | {name: rest}
            choices.append((off(left["before"], left["after"]), q, name))
    if not choices or min(choices)[0] > 0.5 * off(means["before"], means["after"]):
        return LoneReading(lift)
    _, reading, side = min(choices)
    return LoneReading(lift, reading, side)


def _is(lift: float, grain: int) -> bool:
    return round(lift / LIFT_GRAIN) == grain

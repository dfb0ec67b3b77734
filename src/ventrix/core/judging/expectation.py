"""What was said before the work against what came: scored per cut, and summed into a porter's own factors."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Final, NamedTuple

from ventrix.core.model.cut import Cut
from ventrix.core.model.kinds import ExpectedAs

BY_PLAN: Final = "plan"


class Scored(NamedTuple):
    """Said and come of one figure, SI; None where one is missing. `doubt` is the expanded uncertainty of what came;
    eight in ten were said to lie between `low` and `high`."""

    said: float | None
    came: float | None
    doubt: float = 0.0
    low: float | None = None
    high: float | None = None


@dataclass(frozen=True, slots=True)
class Outcome:
    """A cut's expectations beside what came: gain [m3/s], growth [m3], time [s]; where it was worked; and as which
    number the gain was meant, at which lift [m]."""

    places: tuple[str, ...]
    gain: Scored
    growth: Scored
    time: Scored
    by_plan: bool = False
    meant: ExpectedAs = ExpectedAs.WEIGHTED
    lift: float | None = None


def time_worked(cut: Cut) -> float | None:
    """Time of a cut's operations [s], None where none was noted."""
    times = [op.duration for op in cut.operations if op.duration is not None]
    return sum(times) if times else None


def places_of(cut: Cut) -> tuple[str, ...]:
    """Where a cut was worked, each place once, in order."""
    return tuple(dict.fromkeys(place for op in cut.operations for place in op.places))


def outcome_of(cut: Cut, gain: float | None, growth: float | None, gain_doubt: float = 0.0) -> Outcome:
    """Score a cut: `gain` of its flow over the cut before [m3/s] with its U, `growth` of its volume [m3]."""
    return Outcome(
        places_of(cut),
        Scored(cut.expected_gain, gain, gain_doubt, cut.expected_low, cut.expected_high),
        Scored(cut.expected_growth, growth),
        Scored(cut.expected_time, time_worked(cut)),
        cut.expected_by == BY_PLAN,
        ExpectedAs(cut.expected_as),
        cut.expected_lift,
    )


class Factor(NamedTuple):
    """What came over what was said at a place, summed over cuts: gain and time [-], how many cuts, and the expanded
    uncertainty of the gain's factor [-]."""

    place: str
    gain: float | None
    time: float | None
    cuts: int
    gain_doubt: float = 0.0


def own_factors(outcomes: Iterable[Outcome]) -> list[Factor]:
    """A porter's own factors by place: sums of what came over sums of what was said.

    Parameters
    ----------
    outcomes : iterable of Outcome
        Of any number of jobs.

    Returns
    -------
    list of Factor
        Places with at least one figure scored, most cuts first. None where nothing was said of one.

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    Ratio of sums, so that a small cut does not count as much as a large one.
    """
    sums: dict[str, list[float]] = {}
    counts: dict[str, int] = {}
    for outcome in outcomes:
        scored = [s for s in (outcome.gain, outcome.time) if s.said and s.came is not None]
        if not scored:
            continue
        for place in outcome.places:
            row = sums.setdefault(place, [0.0, 0.0, 0.0, 0.0, 0.0])
            counts[place] = counts.get(place, 0) + 1
            for i, each in enumerate((outcome.gain, outcome.time)):
                if each.said and each.came is not None:
                    row[2 * i] += each.came
                    row[2 * i + 1] += each.said
                    row[4] += each.doubt**2 if i == 0 else 0.0
    found = [
        Factor(
            p,
            r[0] / r[1] if r[1] else None,
            r[2] / r[3] if r[3] else None,
            counts[p],
            r[4] ** 0.5 / r[1] if r[1] else 0.0,
        )
        for p, r in sums.items()
    ]
    return sorted(found, key=lambda f: -f.cuts)

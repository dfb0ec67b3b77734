"""One sentence about what a cut did, with its reason."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Final

import numpy as np

from ventrix.core.formulas.uncertainty import CONFIDENCE, student_t
from ventrix.core.judging.air_speed import speed_change, speed_words
from ventrix.core.judging.checks import NEEDS_ONE_BELOW
from ventrix.core.judging.comparability import CANT_YET, Level
from ventrix.core.judging.comparison import RunComparison
from ventrix.core.judging.fingerprints import Fingerprint, fingerprints
from ventrix.core.judging.further_mounts import Further, further_mounts
from ventrix.core.judging.pours import Volumes
from ventrix.core.judging.shape import ShapeChange, shape_change
from ventrix.core.judging.verdict_words import (
    Conditions,
    VerdictKind,
    check_moved,
    headline_of,
    looks_like,
    missed_pressure,
    reason_of,
    rests_on_one,
    turns_at,
)
from ventrix.core.judging.wording import Wording
from ventrix.core.model.bench_kinds import FlowKind
from ventrix.core.model.kinds import Result, School
from ventrix.core.quantity.refused import Refused
from ventrix.words import tr

DEFAULT_WORTHWHILE: Final = 0.01  # of the flow before, where the user named no smallest gain


ENOUGH_MOUNTS: Final = 3  # of a bench's own, before a headline stands without saying up to which scatter it holds


@dataclass(frozen=True, slots=True)
class Verdict:
    """The answer; figures in the unit of the runs' flow, None where nothing can be said.

    further_mounts, further_mounts_sure : mounts more of each side that make proof even odds, and four in five
    holds_to : the re-mount scatter up to which a headline holds, relative, where the bench's own is hardly known
    shape : what the shape of the curve proves
    needs_check : a gain so small that only a check between the two runs makes it a plain one; `since` is the day of the
        run before
    """

    result: Result
    headline: str
    sentence: str
    weighted: float | None
    expanded: float | None
    worthwhile: float | None
    further_mounts: int | None = None
    further_mounts_sure: int | None = None
    holds_to: float | None = None
    shape: ShapeChange | None = None
    trade: bool = False
    warnings: tuple[str, ...] = ()
    kind: VerdictKind = VerdictKind.CANT_BE_SAID
    school: str = School.CAM
    dissent: tuple[str, ...] = ()
    turns_at: float | None = None
    needs_check: bool = False
    since: str | None = None

    @property
    def is_plain_keep(self) -> bool:
        """Kept without a condition."""
        return self.kind == VerdictKind.KEEP and self.holds_to is None and not self.needs_check


def judge(
    comparison: RunComparison,
    worthwhile: float | None = None,
    volumes: Volumes | None = None,
    wording: Wording | None = None,
) -> Verdict:
    """Judge a pair.

    Parameters
    ----------
    comparison : RunComparison
        The two sides.
    worthwhile : float, optional
        Smallest gain that matters, in the unit of the runs' flow; 1 % of the flow before otherwise.
    volumes : Volumes, optional
        Poured volumes of both cuts; speed speaks only when both were poured.
    wording : Wording, optional
        Units of the sentence.

    Raises
    ------
    ValueError
        A smallest gain not above zero.
    """
    words = wording or Wording()
    if worthwhile is not None and worthwhile <= 0:
        raise Refused("the smallest gain that matters must be above zero")
    c = comparison
    if not np.any(c.tested):
        return Verdict(Result.CANT_TELL, CANT_YET, tr("No lift was tested on both sides."), None, None, worthwhile)
    d, u = c.weighted, c.weighted_expanded
    x = worthwhile if worthwhile is not None else DEFAULT_WORTHWHILE * c.weighted_before
    if not c.allowed:
        headline = tr("Not to be compared.") if c.comparability.level == Level.NO else c.comparability.gaps
        said = words.say(c.comparability.reason)
        if c.claimed:
            headline, said = (
                tr("Can't compare: one side is a claim."),
                tr("{} claims it: it was not measured here.", c.claimed),
            )
        return Verdict(Result.CANT_TELL, headline, said, d, u, x, school=c.school)
    result = _result(d, u, x)
    further = further_mounts(c) if result == Result.CANT_TELL else Further(None, None)
    found = fingerprints(c) if result in (Result.BETTER, Result.WORSE) else ()
    kind = _kind(c, result, found, volumes)
    shape = None if kind == VerdictKind.TRADE else shape_change(c)
    sentence = reason_of(c, result, d, u, x, further, words)
    if shape is not None:
        where = tr("more {} {}", "below" if shape.more_below else "above", words.lift(shape.turns_at))
        sentence += tr(" The shape of the curve changed: {}.", where)
    if volumes is not None and c.kind == FlowKind.FLOW and result in (Result.BETTER, Result.WORSE):
        sentence += " " + speed_words(c, volumes)
    sentence += missed_pressure(c, words)
    holds = holds_to(c) if result in (Result.BETTER, Result.WORSE) else None
    open_check = kind in (VerdictKind.KEEP, VerdictKind.COSTS_SPEED) and c.known.check is None and is_small(c)
    if open_check:
        sentence += tr(" A check settles it: the reference plate or the witness port, flowed with both.")
    since = c.before_runs[-1].date
    return Verdict(
        result=result,
        headline=headline_of(kind, c, x, Conditions(holds, open_check, since), words),
        sentence=sentence,
        weighted=d,
        expanded=u,
        worthwhile=x,
        further_mounts=further.even,
        further_mounts_sure=further.sure,
        holds_to=holds,
        shape=shape,
        trade=kind == VerdictKind.TRADE,
        warnings=(
            *(check_moved(check) for check in c.known.checks if check.moved),
            *(rests_on_one(x, words) for x in c.lone),
            *(looks_like(f, words) for f in found),
        ),
        kind=kind,
        school=c.school,
        dissent=_dissent(c, worthwhile, words),
        turns_at=turns_at(c),
        needs_check=open_check,
        since=since,
    )


def is_small(c: RunComparison) -> bool:
    """Whether a gain is so small that a bench which changed could have made it."""
    return c.weighted < NEEDS_ONE_BELOW * c.weighted_before


def holds_to(c: RunComparison) -> float | None:
    """The re-mount scatter at which the gain would just be proven [-]; None where the bench's own is known well
    enough, or no bolting-down lies between.

    Parameters
    ----------
    c : RunComparison
        With a proven difference.

    Returns
    -------
    float or None
        s_b where |dW| = U, with a normal factor for the mount term.

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    `uncertainty.Difference.weighted_parts`.
    """
    if c.difference.same_mount or c.scatter.mounts >= ENOUGH_MOUNTS:
        return None
    repeat, mount, rest = c.difference.weighted_parts(c.weights)
    z2 = float(student_t(CONFIDENCE, np.inf)) ** 2
    return math.sqrt(max(c.weighted**2 - repeat - z2 * rest, 0.0) / (z2 * mount))


def _result(d: float, u: float, x: float) -> Result:
    """What the one number proves."""
    if d > u:
        return Result.BETTER
    if d < -u:
        return Result.WORSE
    return Result.NO_GAIN if abs(d) + u < x else Result.CANT_TELL


def _kind(c: RunComparison, result: Result, found: tuple[Fingerprint, ...], volumes: Volumes | None) -> VerdictKind:
    """The rules of the headline, in the order they are asked; the manual has them in the same order."""
    if c.is_trade:
        return VerdictKind.TRADE
    if result == Result.WORSE:
        return VerdictKind.LOST
    if result != Result.BETTER:
        return VerdictKind.NO_GAIN if result == Result.NO_GAIN else VerdictKind.CANT_TELL
    if any(f.hides for f in found):
        return VerdictKind.DOUBTFUL
    if volumes is not None and c.kind == FlowKind.FLOW and speed_change(c, volumes)[0] < -speed_change(c, volumes)[1]:
        return VerdictKind.COSTS_SPEED
    return VerdictKind.KEEP


_SCHOOL_SAYS: Final = {
    Result.BETTER: tr("more flow"),
    Result.WORSE: tr("less flow"),
    Result.NO_GAIN: "no gain",
    Result.CANT_TELL: "not proven",
}


def _dissent(c: RunComparison, worthwhile: float | None, words: Wording) -> tuple[str, ...]:
    """Schools that see something else than the one that speaks, each with its number."""
    said = []
    own = _result(c.weighted, c.weighted_expanded, worthwhile or DEFAULT_WORTHWHILE * c.weighted_before)
    for school in School:
        if school == c.school or (school == School.MINE and not c.own_lifts):
            continue
        other = c.by(school)
        x = worthwhile if worthwhile is not None else DEFAULT_WORTHWHILE * other.weighted_before
        result = _result(other.weighted, other.weighted_expanded, x)
        if {own, result} in (
            {Result.BETTER, Result.WORSE},
            {Result.BETTER, Result.NO_GAIN},
            {Result.WORSE, Result.NO_GAIN},
        ) or (Result.CANT_TELL in (own, result) and own != result):
            amount = words.amount(other.weighted, other).replace("-", "−")
            sign = "+" if other.weighted >= 0 else ""
            band = words.amount(other.weighted_expanded, other)
            said.append(f"{school}: {_SCHOOL_SAYS[result]}, {sign}{amount} ± {band}")
    return tuple(said)

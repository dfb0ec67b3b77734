"""One sentence about what a cut did, with its reason."""

from __future__ import annotations

from dataclasses import dataclass
from itertools import pairwise
from typing import Final, Literal

import numpy as np
from numpy.typing import NDArray

from ventrix.core.air import Array
from ventrix.core.compare import RunComparison
from ventrix.core.fingerprints import Fingerprint, fingerprints
from ventrix.core.schools import CAM, LOW, PEAK, SCHOOLS
from ventrix.core.units import CFM, INCH, from_si, percent_text

Result = Literal["better", "worse", "no gain", "can't tell"]
# What the headline says; `Result` is what the bench proved.
Kind = Literal["keep", "costs speed", "trade", "doubtful", "no gain", "can't tell", "lost", "can't be said"]

DEFAULT_WORTHWHILE: Final = 0.01  # of the flow before, where the user named no smallest gain
MOST_MOUNTS: Final = 20
POUR_UNCERTAINTY: Final = 0.3e-6  # m3, of one filling by burette: common practice, no source
# How large a mistake may be and still pass unnoticed: a gain that one of these alone explains is not kept.
EASY_DIAL: Final = 0.005 * INCH
EASY_FACTOR: Final = 0.02
EASY_LEAK: Final = 1.5 * CFM


@dataclass(frozen=True, slots=True)
class Wording:
    """Units a sentence is spoken in."""

    lift_unit: str = "in"
    flow_unit: str = "cfm"

    def lift(self, value: float) -> str:
        number = from_si(value, self.lift_unit)
        return f"{number:.3f}" if self.lift_unit == "in" else f"{number:g}"

    def flow(self, value: float, kind: str = "flow") -> str:
        if kind == "index":
            return f"{value:.4f}"
        return f"{from_si(value, self.flow_unit):.1f}"

    def flow_name(self, kind: str = "flow") -> str:
        if kind == "index":
            return "of index"
        return "CFM" if self.flow_unit == "cfm" else self.flow_unit


@dataclass(frozen=True, slots=True)
class Volumes:
    """Poured volumes of the pair [m3], each measured at its own cut, and the standard uncertainty of each."""

    before: float
    after: float
    uncertainty_before: float = POUR_UNCERTAINTY
    uncertainty_after: float = POUR_UNCERTAINTY

    @property
    def growth_uncertainty(self) -> float:
        """Relative standard uncertainty of after over before [-]."""
        return float(np.hypot(self.uncertainty_before / self.before, self.uncertainty_after / self.after))


@dataclass(frozen=True, slots=True)
class Verdict:
    """The answer; figures in the unit of the runs' flow, None where nothing can be said."""

    result: Result
    headline: str
    sentence: str
    weighted: float | None
    expanded: float | None
    worthwhile: float | None
    further_mounts: int | None = None
    trade: bool = False
    warnings: tuple[str, ...] = ()
    kind: Kind = "can't be said"
    school: str = CAM
    dissent: tuple[str, ...] = ()
    turns_at: float | None = None


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
        raise ValueError("the smallest gain that matters must be above zero")
    c = comparison
    if not np.any(c.tested):
        return Verdict("can't tell", "Can't be said.", "No lift was tested on both sides.", None, None, worthwhile)
    d, u = c.weighted, c.weighted_expanded
    x = worthwhile if worthwhile is not None else DEFAULT_WORTHWHILE * c.weighted_before
    if not c.allowed:
        headline = "Not to be compared." if c.comparability.level == "no" else "Can't be said."
        said = c.comparability.sentence.removeprefix(headline).strip()
        if c.claimed:
            headline, said = "Can't be said.", f"One side is claimed by {c.claimed}, and was not measured here."
        return Verdict("can't tell", headline, said, d, u, x, school=c.school)
    result = _result(d, u, x)
    mounts = further_mounts(c, x) if result == "can't tell" else None
    found = fingerprints(c) if result in ("better", "worse") else ()
    kind = _kind(c, result, found, volumes)
    sentence = _reason(c, result, d, u, x, mounts, words)
    if volumes is not None and c.kind == "flow" and result in ("better", "worse"):
        sentence += " " + _speed(c, volumes)
    return Verdict(
        result,
        _headline(kind, c, x, words),
        sentence,
        d,
        u,
        x,
        mounts,
        kind == "trade",
        tuple(_looks_like(f, words) for f in found),
        kind,
        c.school,
        _dissent(c, kind, worthwhile, words),
        turns_at(c),
    )


def _result(d: float, u: float, x: float) -> Result:
    """What the one number proves."""
    if d > u:
        return "better"
    if d < -u:
        return "worse"
    return "no gain" if abs(d) + u < x else "can't tell"


def _kind(c: RunComparison, result: Result, found: tuple[Fingerprint, ...], volumes: Volumes | None) -> Kind:
    """The rules of the headline, in the order they are asked; the manual has them in the same order."""
    if is_trade(c):
        return "trade"
    if result == "worse":
        return "lost"
    if result != "better":
        return "no gain" if result == "no gain" else "can't tell"
    if any(easily_missed(f) for f in found):
        return "doubtful"
    if volumes is not None and c.kind == "flow" and speed_change(c, volumes)[0] < -speed_change(c, volumes)[1]:
        return "costs speed"
    return "keep"


def easily_missed(found: Fingerprint) -> bool:
    """Whether a mistake of that size passes unnoticed at a bench. Sizes: common practice, no source."""
    limit = {"dial zero": EASY_DIAL, "factor": EASY_FACTOR, "leak": EASY_LEAK}[found.cause]
    return abs(found.amount) <= limit


def speed_change(c: RunComparison, volumes: Volumes) -> tuple[float, float]:
    """Relative change of the mean air speed, and its expanded uncertainty from flow and both pours [-]."""
    flow = c.weighted_after / c.weighted_before
    speed = flow * volumes.before / volumes.after - 1
    return speed, float(np.hypot(c.weighted_expanded / c.weighted_before, 2 * volumes.growth_uncertainty))


def turns_at(c: RunComparison) -> float | None:
    """The lift at which a trade turns from loss to gain or back [m]; None where it is none.

    Between the two neighbouring tested lifts where the difference changes its sign, by straight line.
    """
    if not is_trade(c):
        return None
    lift, change, signs = c.lift[c.tested], c.change[c.tested], c.nameable[c.tested]
    proven = np.flatnonzero(signs)
    flips = [(i, j) for i, j in pairwise(proven) if signs[i] != signs[j]]
    i, j = flips[0]
    return float(np.interp(0.0, *_rising(change[[i, j]], lift[[i, j]])))


def _rising(x: Array, y: Array) -> tuple[Array, Array]:
    order = np.argsort(x)
    return x[order], y[order]


_SCHOOL_SAYS: Final = {"better": "more flow", "worse": "less flow", "no gain": "no gain", "can't tell": "not proven"}


def _dissent(c: RunComparison, kind: Kind, worthwhile: float | None, words: Wording) -> tuple[str, ...]:
    """Schools that see something else than the one that speaks, each with its number."""
    said = []
    own = _result(c.weighted, c.weighted_expanded, worthwhile or DEFAULT_WORTHWHILE * c.weighted_before)
    for school in SCHOOLS:
        if school == c.school:
            continue
        other = c.by(school)
        x = worthwhile if worthwhile is not None else DEFAULT_WORTHWHILE * other.weighted_before
        result = _result(other.weighted, other.weighted_expanded, x)
        if {own, result} in ({"better", "worse"}, {"better", "no gain"}, {"worse", "no gain"}) or (
            "can't tell" in (own, result) and own != result
        ):
            amount = words.flow(other.weighted, c.kind).replace("-", "−")
            sign = "+" if other.weighted >= 0 else ""
            said.append(
                f"{school}: {_SCHOOL_SAYS[result]}, {sign}{amount} ± {words.flow(other.weighted_expanded, c.kind)}"
            )
    return tuple(said)


def _looks_like(found: Fingerprint, words: Wording) -> str:
    """What alone would look exactly like this. A warning: a real cut can look the same."""
    if found.cause == "dial zero":
        what = f"a dial zero {words.lift(abs(found.amount))} {words.lift_unit} out"
    elif found.cause == "factor":
        what = f"a pressure, entry, bench or mounting factor of {percent_text(found.amount, sign=True)}"
    else:
        what = f"a leak of {words.flow(abs(found.amount))} {words.flow_name()} on one side"
    return f"{what[0].upper()}{what[1:]} alone would look exactly like this."


def further_mounts(comparison: RunComparison, worthwhile: float) -> int | None:
    """Further bolting-downs a side that would settle a pair if the difference stays as it is.

    Mount, dial and repeat terms all shrink with the root of the mounts averaged. Settled means
    proven, or shown to be under the smallest gain that matters, whichever comes first. None beyond
    20: no bench gets there.
    """
    d, u = abs(comparison.weighted), comparison.weighted_expanded
    have = min(comparison.difference.before.mounts, comparison.difference.after.mounts)
    target = max(d, worthwhile - d)
    need = int(np.floor(have * (u / target) ** 2)) + 1
    return need - have if need - have <= MOST_MOUNTS else None


def _neighbours(signs: NDArray[np.int64], wanted: int) -> bool:
    hit = signs == wanted
    return bool(np.any(hit[1:] & hit[:-1]))


def is_trade(comparison: RunComparison) -> bool:
    """Gains here and loses there: two neighbouring lifts proven each way."""
    signs = comparison.nameable[comparison.tested]
    return _neighbours(signs, 1) and _neighbours(signs, -1)


def _headline(kind: Kind, c: RunComparison, x: float, words: Wording) -> str:
    return {
        "keep": "Keep.",
        "costs speed": "Keep, and it costs speed.",
        "trade": "A trade.",
        "doubtful": "More flow, and it may not be the cut.",
        "lost": "Lost flow.",
        "no gain": f"No gain above {words.flow(x, c.kind)} {words.flow_name(c.kind)}.",
        "can't tell": "This bench can't tell.",
        "can't be said": "Can't be said.",
    }[kind]


def _span(lifts: Array, words: Wording) -> str:
    if len(lifts) == 1:
        return words.lift(float(lifts[0]))
    return f"{words.lift(float(lifts[0]))} to {words.lift(float(lifts[-1]))}"


def _runs_of(c: RunComparison, sign: int, words: Wording) -> str:
    """Lifts a verdict may name, neighbours joined: '0.300 to 0.500'."""
    lifts, signs = c.lift[c.tested], c.nameable[c.tested]
    spans, start = [], None
    for i, s in enumerate(np.r_[signs, 0]):
        if s == sign and start is None:
            start = i
        elif s != sign and start is not None:
            spans.append(_span(lifts[start:i], words))
            start = None
    return " and ".join(spans)


def _across(c: RunComparison) -> str:
    if c.school == LOW:
        return "at low lift"
    if c.school == PEAK:
        return "at peak and near it"
    return "across this cam" if c.cam is not None else "on the mean of the lifts tested"


def _where(c: RunComparison, words: Wording) -> str:
    gained, lost = _runs_of(c, 1, words), _runs_of(c, -1, words)
    unit = words.lift_unit
    if gained and lost:
        at = turns_at(c)
        turn = f"; it turns at {words.lift(at)}" if at is not None else ""
        return f"gains at {gained}, loses at {lost} {unit}{turn}"
    if gained:
        return f"gains at {gained} {unit}, no lift proven lost"
    if lost:
        return f"loses at {lost} {unit}, no lift proven gained"
    return "no single lift proven by itself"


def _reason(c: RunComparison, result: Result, d: float, u: float, x: float, mounts: int | None, words: Wording) -> str:
    unit = words.flow_name(c.kind)
    amount, band, least = (words.flow(v, c.kind) for v in (abs(d), u, x))
    if result in ("better", "worse"):
        more = "more" if result == "better" else "less"
        return f"{amount} {unit} {more} {_across(c)} (± {band}): {_where(c, words)}."
    sign = "+" if d >= 0 else "−"
    if result == "no gain":
        small = f"whatever it did is smaller than the {least} that matters"
        return f"{sign}{amount} {unit} {_across(c)} (± {band}): {small}."
    settle = (
        f"{mounts} more mount{'s' * (mounts != 1)} of each would settle it"
        if mounts is not None
        else f"over {MOST_MOUNTS} more mounts of each would be needed: find the bench's scatter first"
    )
    trade = f" {_where(c, words).capitalize()}." if is_trade(c) else ""
    return f"{sign}{amount} {unit} {_across(c)} is inside ± {band}.{trade} {settle[0].upper()}{settle[1:]}."


def _speed(c: RunComparison, volumes: Volumes) -> str:
    grown = volumes.after / volumes.before - 1
    flow = c.weighted_after / c.weighted_before - 1
    speed, doubt = speed_change(c, volumes)
    moved = "grew" if grown >= 0 else "shrank"
    size = f"The port {moved} {percent_text(abs(grown))}, flow {percent_text(flow, sign=True)}"
    if abs(speed) <= doubt:
        return f"{size}: no change of air speed is proven."
    return f"{size}: the air is {'faster' if speed > 0 else 'slower'} than before."

"""A verdict in words: its headline, its reason, and what it rests on."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from itertools import pairwise

import numpy as np

from ventrix.core.formulas.knowledge import Check
from ventrix.core.judging.comparability import CANT_YET
from ventrix.core.judging.comparison import RunComparison
from ventrix.core.judging.fingerprints import Cause, Fingerprint
from ventrix.core.judging.further_mounts import Further, odds_words
from ventrix.core.judging.single_readings import LoneReading
from ventrix.core.judging.wording import Wording, day_words
from ventrix.core.model.kinds import Result, School
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.units import from_si
from ventrix.core.quantity.words import percent_text
from ventrix.words import tr


class VerdictKind(StrEnum):
    """What the headline says; `Result` is what the bench proved."""

    KEEP = "keep"
    COSTS_SPEED = "costs speed"
    TRADE = "trade"
    DOUBTFUL = "doubtful"
    NO_GAIN = "no gain"
    CANT_TELL = "can't tell"
    LOST = "lost"
    CANT_BE_SAID = "can't be said"


def check_moved(check: Check) -> str:
    """The bench changed between the two runs, by what was flowed at both."""
    moved = percent_text(check.drift, sign=True)
    return tr(
        "The {} read {} between the two: the bench changed, and that is counted. Find it first.", check.kind, moved
    )


def missed_pressure(c: RunComparison, words: Wording) -> str:
    """What is to be said of a run whose top lifts were not at the test pressure."""
    said = ""
    for name, runs in (("before", c.before_runs), ("after", c.after_runs)):
        for run in runs:
            top = len(run.lift) - int(np.argmin(run.missed[::-1])) if not run.missed.all() else 0
            if top == len(run.lift) or not run.missed.any():
                continue
            low, high = (
                from_si(float(v), words.pressure_unit)
                for v in (run.pressure_at[top:].min(), run.pressure_at[top:].max())
            )
            held = f"{high:.0f}" if round(low) == round(high) else tr("{:.0f} to {:.0f}", low, high)
            said += tr(
                " From {} on the run {} missed its test pressure ({} {}): converted, with the uncertainty of that "
                "counted.",
                words.lift(float(run.lift[top])),
                name,
                held,
                words.pressure_unit,
            )
    return said


def rests_on_one(found: LoneReading, words: Wording) -> str:
    """One odd reading: take it again."""
    at = words.lift(found.lift)
    if found.reading is not None:
        return tr(
            "At {} one reading {} stands off its own repeats: {}. Take it again.",
            at,
            found.side,
            words.flow(found.reading),
        )
    return tr("Rests on one reading at {}: take it again.", at)


def looks_like(found: Fingerprint, words: Wording) -> str:
    """What alone would look exactly like this. A warning: a real cut can look the same."""
    if found.cause == Cause.DIAL_ZERO:
        what = tr("a dial zero {} {} out", words.lift(abs(found.amount)), words.lift_unit)
    elif found.cause == Cause.FACTOR:
        what = tr("a pressure, entry, bench or mounting factor of {}", percent_text(found.amount, sign=True))
    else:
        what = tr("a leak of {} {} on one side", words.flow(abs(found.amount)), words.flow_name)
    return tr("{}{} alone would look exactly like this.", what[0].upper(), what[1:])


@dataclass(frozen=True, slots=True)
class Conditions:
    """What a headline hangs on: re-mounting within a scatter, and a bench that did not change since a day."""

    holds: float | None
    unchecked: bool
    since: str | None

    @property
    def words(self) -> str:
        """ ", if …", or nothing."""
        said = [] if self.holds is None else [tr("re-mounting repeats within {}", percent_text(self.holds))]
        if self.unchecked:
            said.append(tr("nothing at the bench changed since {}", day_words(self.since)))
        return tr(", if {}", " and ".join(said)) if said else ""


def headline_of(kind: VerdictKind, c: RunComparison, x: float, conditions: Conditions, words: Wording) -> str:
    up_to = conditions.words
    said = {
        "keep": tr("Keep{}.", up_to),
        "costs speed": tr("Keep{}, and it costs speed.", up_to),
        "trade": tr("A trade."),
        "doubtful": tr("More flow, and it may not be the cut."),
        "lost": tr("Lost flow{}.", up_to),
        "no gain": tr("No gain above {} {}.", words.amount(x, c), words.amount_name(c)),
        "can't tell": tr("This bench can't tell."),
        "can't be said": CANT_YET,
    }[kind]
    return tr("{}, as the house says.", said[:-1]) if c.house else said


def _span(lifts: Array, words: Wording) -> str:
    if len(lifts) == 1:
        return words.lift(float(lifts[0]))
    return tr("{} to {}", words.lift(float(lifts[0])), words.lift(float(lifts[-1])))


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
    if c.school == School.LOW:
        return tr("at low lift")
    if c.school == School.PEAK:
        return tr("at peak and near it")
    if c.school == School.MINE:
        return tr("at your lifts")
    return tr("across this cam") if c.cam is not None else tr("on the mean of the lifts tested")


def _where(c: RunComparison, words: Wording) -> str:
    gained, lost = _runs_of(c, 1, words), _runs_of(c, -1, words)
    unit = words.lift_unit
    if gained and lost:
        at = turns_at(c)
        turn = tr("; it turns at {}", words.lift(at)) if at is not None else ""
        return tr("gains at {}, loses at {} {}{}", gained, lost, unit, turn)
    if gained:
        return tr("gains at {} {}, no lift proven lost", gained, unit)
    if lost:
        return tr("loses at {} {}, no lift proven gained", lost, unit)
    return tr("no single lift proven by itself")


def reason_of(c: RunComparison, result: Result, d: float, u: float, x: float, further: Further, words: Wording) -> str:
    unit = words.amount_name(c)
    amount, band, least = (words.amount(v, c) for v in (abs(d), u, x))
    if result in (Result.BETTER, Result.WORSE):
        more = "more" if result == Result.BETTER else "less"
        return f"{amount} {unit} {more} {_across(c)} (± {band}): {_where(c, words)}."
    sign = "+" if d >= 0 else "−"
    if result == Result.NO_GAIN:
        small = tr("whatever it did is smaller than the {} that matters", least)
        return f"{sign}{amount} {unit} {_across(c)} (± {band}): {small}."
    trade = f" {_where(c, words).capitalize()}." if c.is_trade else ""
    return tr("{}{} {} {} is inside ± {}.{} {}", sign, amount, unit, _across(c), band, trade, odds_words(further))


def turns_at(c: RunComparison) -> float | None:
    """The lift at which a trade turns from loss to gain or back [m]; None where it is none.

    Between the two neighbouring tested lifts where the difference changes its sign, by straight line.
    """
    if not c.is_trade:
        return None
    lift, change, signs = c.lift[c.tested], c.change[c.tested], c.nameable[c.tested]
    proven = np.flatnonzero(signs)
    flips = [(i, j) for i, j in pairwise(proven) if signs[i] != signs[j]]
    i, j = flips[0]
    return float(np.interp(0.0, *_rising(change[[i, j]], lift[[i, j]])))


def _rising(x: Array, y: Array) -> tuple[Array, Array]:
    order = np.argsort(x)
    return x[order], y[order]

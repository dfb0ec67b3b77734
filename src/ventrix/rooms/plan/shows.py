"""What the Plan room shows, from a plan: the answer, what limits, the next moves, and what the picked one would
bring."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

import numpy as np

from ventrix.core.model.kinds import Place
from ventrix.core.planning.loss_chain import FAR, Limit, place_name
from ventrix.core.planning.moves import CUTS, HOUR, Move, MoveKind
from ventrix.core.planning.next_moves import Plan
from ventrix.core.planning.priors import VALVE
from ventrix.core.quantity.units import from_si_array
from ventrix.core.quantity.words import sentence
from ventrix.rooms.display_units import Shown, Units
from ventrix.rooms.shared.plot_values import Band, Line, Picture
from ventrix.words import tr

LEAST_SHARE: Final = 0.04  # of the loss: smaller places join their neighbour
MANY: Final = 4  # places in one segment: named by first and last
SHOWN_MOVES: Final = 7
WIDENED: Final = 0.1  # from here on it is said
SHARE: Final = Shown("%", "%", 1)


@dataclass(frozen=True, slots=True)
class Answer:
    """The strip on top: the verdict, what it is worth, the reason, and how sure."""

    verdict: str
    what: str
    worth: str
    reason: str
    sure: str
    stops: bool
    by_the_book: bool


@dataclass(frozen=True, slots=True)
class Segment:
    """A place on the bar: what it eats of the test pressure, its interval, and whether this port's data say so."""

    place: str
    name: str
    share: float
    eaten: str
    interval: str
    measured: bool
    left: str  # pressure left in front of it


@dataclass(frozen=True, slots=True)
class MoveLine:
    """A move as a line. `mark` is square (a cut), diamond (knowledge) or cross (blocked)."""

    move: Move
    mark: str
    title: str
    below: str
    gain: str
    low: float
    mean: float
    high: float
    rate: str
    minutes: str
    volume: str
    wall: str
    guess: bool


def answer_of(plan: Plan, units: Units) -> Answer:
    """The verdict of a plan in one line."""
    book = plan.planned.run is None
    best = next((m for m in plan.candidates if not m.blocked_by and m.gain > 0), None)
    go = tr("Go on, by the book:") if book else tr("Go on:")
    if book:
        reason = tr("Nothing is flowed, so nothing here is proven: a flow test turns the hatched into measured.")
    else:
        reason = sentence(plan.stop.reason)
    if plan.planned.guessed and not book:
        reason += tr(" Guessed: {}.", ", ".join(plan.planned.guessed))
    if plan.moves and plan.moves[0].kind is MoveKind.FLOW:
        return Answer(tr("Flow it:"), plan.moves[0].named, "", reason, "", False, False)
    if plan.stop.now and not book:
        return Answer("Stop:", plan.stop.reason, "", reason, "", True, False)
    if best is None:
        return Answer(tr("Nothing is open"), "", "", reason, "", True, book)
    line = move_line(best, plan, units)
    unit = " %" if plan.planned.chain.is_index else f" {units.flow.label}"
    basis = tr("over your lifts at {}", units.pressure.with_unit(plan.planned.chain.pressure))
    between = tr("{} to {}", _amount(best.low, plan, units), _amount(best.high, plan, units))
    sure = tr("8 in 10: {}, {} · {} min with flowing", between, basis, line.minutes)
    if best.guess:
        reason += tr(" What this move brings is an estimate, not measured on this port.")
    depth = tr(", {} deep", line.below.split(" deep")[0]) if best.depth is not None else ""
    return Answer(go, f"{line.title}{depth}", f"{line.gain}{unit}", reason, sure, False, book)


def _amount(value: float, plan: Plan, units: Units) -> str:
    if plan.planned.chain.is_index:
        return SHARE.text(value / plan.worth, sign=True)
    return units.flow.text(value, sign=True)


def segments(plan: Plan, lift: float, units: Units) -> tuple[Segment, ...]:
    """The test pressure cut into what each place eats of it at a lift, in the air's order; small ones join."""
    limits = plan.fit.limits(np.array([lift]))[0]
    pressure = plan.planned.chain.pressure
    joined: list[tuple[list[str], Limit]] = []
    for place, limit in limits.items():
        apart = place == VALVE  # the valve is no neighbour of the port's
        if joined and not apart and (limit.share < LEAST_SHARE or joined[-1][1].share < LEAST_SHARE):
            names, had = joined[-1]
            whole = Limit(had.share + limit.share, had.low + limit.low, had.high + limit.high,
                          had.from_data if had.share >= limit.share else limit.from_data)  # fmt: skip
            joined[-1] = ([*names, place], whole)
        else:
            joined.append(([place], limit))
    found, left = [], 1.0
    shown = units.pressure
    for names, limit in joined:
        name = ", ".join(place_name(p) for p in names) if len(names) < MANY else tr("{} to {}", names[0], names[-1])
        found.append(
            Segment(
                max(names, key=lambda p: limits[p].share),
                name,
                limit.share,
                shown.text(limit.share * pressure),
                tr("{} to {}", shown.text(limit.low * pressure), shown.text(limit.high * pressure)),
                limit.from_data,
                shown.text(left * pressure),
            )
        )
        left -= limit.share
    return tuple(found)


_TITLES: Final = {
    MoveKind.SEAT: tr("seat, a new recipe"),
    MoveKind.ENTRY: tr("entry of the manifold"),
    MoveKind.MOUNT: tr("mount it again"),
    MoveKind.FLOW: tr("flow it"),
}
_NAMED: Final = {
    "back cut": tr("valve, back cut"),
    "larger": tr("valve, 1 mm larger"),
    "shape": tr("taper the guide boss"),
}


def move_line(move: Move, plan: Plan, units: Units) -> MoveLine:
    """One move."""
    look = move.kind in (MoveKind.CLAY, MoveKind.WALL, MoveKind.MOUNT, MoveKind.FLOW)
    mark = "cross" if move.blocked_by else "diamond" if look else "square"
    title = _NAMED.get(move.named) or _TITLES.get(move.kind, move.place)
    if move.kind is MoveKind.CLAY:
        title = tr("clay at the {}", move.place)
    if move.kind is MoveKind.WALL:
        title = tr("read the wall, {}", move.place)
    if move.kind is MoveKind.FLOW:
        title = tr("flow it: {}", move.named)
    if move.blocked_by:
        below = move.blocked_by[0]
    elif move.depth is not None and move.brought is not None:
        title = tr("{}, deeper", title)
        brought = _amount(move.brought.gain, plan, units)
        below = tr("{} deep; cut {} here brought {}", units.length.with_unit(move.depth), move.brought.cut, brought)
    elif move.passes:
        depths = ", ".join(f"{p.place} {units.length.text(p.depth)}" for p in move.passes)
        below = tr("{} {} deep, then flow once", depths, units.length.label)
    elif move.depth is not None:
        below = tr("{} deep", units.length.with_unit(move.depth))
    else:
        below = move.sentence
    limits = plan.fit.limits(np.array([plan.planned.lift[-1]]))[0]
    places = [p.place for p in move.passes] or [move.place]
    known = all(place in limits and limits[place].from_data for place in places)
    index = plan.planned.chain.is_index
    rate = 100 * move.rate * HOUR / plan.worth if index else move.rate * HOUR
    scale = 100 / plan.worth if index else 1.0
    book = plan.planned.run is None
    tilde = "~" if book or move.guess else ""
    return MoveLine(
        move,
        mark,
        title,
        below,
        "" if look else tilde + _amount(move.gain, plan, units),
        move.low * scale,
        move.gain * scale,
        move.high * scale,
        "–" if move.blocked_by or move.kind is MoveKind.FLOW else f"{rate:.1f}" if index else units.flow.text(rate),
        minutes_words(move, units),
        "" if look or move.kind not in CUTS else units.volume.text(move.volume, sign=True),
        _wall(move, units),
        book or not known or move.guess,
    )


def minutes_words(move: Move, units: Units) -> str:
    """The minutes of the work, as its sheet says them, and those of flowing it again."""
    text = units.duration.text
    return f"{text(move.seconds - move.flowing)} + {text(move.flowing)}" if move.flowing else text(move.seconds)


# What bounds a place that no wall does.
_NO_WALL: Final = {Place.GUIDE.value: tr("its boss"), Place.OPENING.value: tr("gasket land")}


def _wall(move: Move, units: Units) -> str:
    if move.kind in (MoveKind.SEAT, MoveKind.VALVE, MoveKind.MOUNT, MoveKind.ENTRY):
        return tr("no metal")
    if move.kind not in CUTS:
        return ""
    if move.place in _NO_WALL:
        return _NO_WALL[move.place]
    return tr("not read") if move.wall_left is None else units.length.text(move.wall_left)


def move_lines(plan: Plan, units: Units, every: bool) -> tuple[tuple[MoveLine, ...], str]:
    """The lines to show, and what is not among them."""
    every_move = plan.candidates
    shown = every_move if every else every_move[:SHOWN_MOVES]
    left = len(every_move) - len(shown)
    said = tr("Not in it: the floor (left alone here)") + (tr(", {} more (L)", left) if left else "") + "."
    return tuple(move_line(m, plan, units) for m in shown), said


def expected_picture(move: Move, units: Units, is_index: bool) -> Picture:
    """The gain a move is expected to bring over lift, with its 80 % band."""
    if not move.points:
        return Picture()
    x = from_si_array(np.array([p.lift for p in move.points]), units.lift.unit)
    rows = np.array([(p.gain, p.low, p.high) for p in move.points]).T
    gain, low, high = rows if is_index else (from_si_array(r, units.flow.unit) for r in rows)
    zero = np.zeros(1)
    x, gain, low, high = (np.r_[zero, v] for v in (x, gain, low, high))
    top, bottom = float(max(high.max(), 0.1)), float(min(low.min(), 0.0))
    return Picture(
        [Line(x, gain, "better", 2.5, "dashed")],
        bands=[Band(x, low, high, "better", 0.25)],
        x_range=(0.0, float(x[-1]) * 1.02),
        y_range=(bottom * 1.15, top * 1.1),
        digits=units.lift.digits,
    )


def record_words(plan: Plan) -> str:
    """How the plan's own gains came out so far."""
    record = plan.record
    if not record.cuts:
        return tr("None of the plan's predictions has been flowed yet.")
    said = tr("Of {} gains that the plan said, {} came within eight in ten", record.cuts, record.inside)
    if record.biases:
        said += "; " + ", ".join(tr("{} {:.2f} of it ({})", b.place, b.ratio, b.cuts) for b in record.biases[:3])
    if abs(record.widen - 1) > WIDENED:
        said += f". Intervals are drawn {record.widen:.1f} times as wide for it"
    return f"{said}."


def split_words(plan: Plan, units: Units) -> str:
    """How the gain of a cut at several places is shared among them, by the chain."""
    planned = plan.planned
    parts = plan.fit.split(planned.lift, planned.weights)
    if not parts or len(planned.cuts) < 2:
        return ""
    states = planned.chain.states
    same = np.intersect1d(states[-1].lift, states[-2].lift)
    if not len(same):
        return ""
    weights = np.interp(same, planned.lift, planned.weights)
    then, now = (np.interp(same, s.lift, s.flow) @ weights for s in (states[-2], states[-1]))
    gain = float(now - then) / float(np.sum(weights)) * float(np.sum(planned.weights))
    shared = ", ".join(
        tr("{} about {} ({:.0f} to {:.0f} %)", place, _amount(middle * gain, plan, units), 100 * low, 100 * high)
        for place, (low, middle, high) in parts.items()
    )
    return tr(
        "Cut {} brought {}: {}. An estimate, not proven.", planned.cuts[-1].number, _amount(gain, plan, units), shared
    )


def fit_words(plan: Plan, units: Units) -> str:
    """Whether the chain fits this port."""
    if plan.planned.run is None:
        return tr("Never flowed: an estimate from the shape alone.")
    n = plan.fit.count
    begun = plan.planned.chain.learned
    whose = tr(", as {} has them", begun.whose) if begun is not None and begun.whose else ""
    learned = tr("Begun with {} ports of this casting{}. ", plan.learned_from, whose) if plan.learned_from else ""
    parting = plan.fit.separation
    if parting is not None:
        low, high = (units.lift.text(v) for v in (parting.low, parting.high))
        about = tr("about {} (8 in 10: {} to {})", units.lift.with_unit(parting.lift), low, high)
        return tr("{}The flow separates from {}; working the short side moves that.", learned, about)
    if plan.fit.worst_lift is not None:
        at = units.lift.text(plan.fit.worst_lift)
        return tr(
            "{}The model doesn't fit this port at {}: flow may be separating. The uncertainty counts that.", learned, at
        )
    if plan.fit.plain_chi_squared > FAR * n:
        return tr("{}The model fits all {} readings within 4 %, which the uncertainty counts.", learned, n)
    return tr("{}The model fits all {} readings within the bench's own scatter.", learned, n)

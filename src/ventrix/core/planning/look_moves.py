"""Looks before a cut: clay, a wall reading, one more mount; each for what it is worth to the choice."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from typing import Final

import numpy as np

from ventrix.core.planning.loss_chain import DRAWS
from ventrix.core.planning.moves import HOUR, READ_FIRST, WORKS, Ground, Move, MoveKind
from ventrix.core.planning.priors import CLAY_WRONG
from ventrix.core.planning.value_of_looking import Look, value_of_look
from ventrix.core.quantity.arrays import Array
from ventrix.words import tr

GOVERNS: Final = 2 * HOUR  # of work that a choice decides about
CLAY_TAKES: Final = 0.1  # of the section that clay is put into
THICK_ENOUGH: Final = 0.7  # of walls that are read (guess)


def looks(ground: Ground, moves: Sequence[Move]) -> list[Move]:
    """Every look that could change the choice among the moves."""
    open_moves = [m for m in moves if not m.blocked_by and m.kind in WORKS]
    found = []
    for move in moves:
        if move.kind is MoveKind.CUT and READ_FIRST in move.blocked_by:
            found.append(_at_wall(move, open_moves))
    if len(open_moves) >= 2 and ground.planned.run is not None:
        rates = np.array([m.draws / m.seconds for m in open_moves]).T
        passes = [m for m in open_moves if m.kind is MoveKind.CUT and not m.named]
        best = max(passes, key=lambda m: m.rate, default=None)
        places = dict.fromkeys(m.place for m in (best, *_guessed(ground, passes)) if m is not None)
        found += [_clay(ground, place, rates) for place in list(places)[:2]]
        found.append(_mount(ground, rates))
    return found


def _guessed(ground: Ground, moves: Sequence[Move]) -> list[Move]:
    """Passes at places whose loss only the book knows."""
    limits = ground.fit.limits(np.array([ground.planned.lift[-1]]))[0]
    return [m for m in moves if m.place in limits and not limits[m.place].from_data]


def _look(place: str, kind: MoveKind, seconds: float, worth: float, sentence: str) -> Move:
    nothing = np.zeros(DRAWS)
    rate = worth * GOVERNS / max(seconds, 1.0)
    gain = (0.0,) * 6
    return Move(place, None, None, kind, *gain, (), seconds, 0.0, rate, None, (), sentence, nothing)


def _clay(ground: Ground, place: str, rates: Array) -> Move:
    """Clay at a place tells its loss: a tenth of the section blocked, and flowed again."""
    terms = ground.fit.terms(ground.planned.lift)
    share = (terms[place] / np.sum(list(terms.values()), axis=0)) @ ground.planned.weights
    worth = value_of_look(rates, Look(0.5 * share * (1 / (1 - CLAY_TAKES) ** 2 - 1), CLAY_WRONG))
    said = tr("Clay at the {}: settles whether it is worth its hour.", place)
    return _look(place, MoveKind.CLAY, 15 * 60.0 + ground.record.reflow / 2, worth, said)


def _mount(ground: Ground, rates: Array) -> Move:
    """One more bolting-down tells the flow as it is a little better."""
    state = ground.planned.chain.states[-1]
    level = np.asarray(rates @ np.ones(rates.shape[1]))
    spread = float(np.std(level)) or 1.0
    worth = value_of_look(rates, Look(level / spread * state.mount, state.mount * 2))
    return _look("", MoveKind.MOUNT, 12 * 60.0, worth, tr("Mount it again: is what was seen real?"))


def flow_it(ground: Ground) -> list[Move]:
    """What is logged and not flowed is flowed before anything else is decided: one move, or none."""
    if not ground.logged:
        return []
    last = ground.logged[-1]
    name = f", {last.name}" if last.name else ""
    found = _look(
        "",
        MoveKind.FLOW,
        ground.record.reflow,
        0.0,
        tr("Flow it: what cut {} brought decides what is next.", last.number),
    )
    return [replace(found, named=f"cut {last.number}{name}")]


def _at_wall(move: Move, open_moves: Sequence[Move]) -> Move:
    """A reading opens a place that is blocked: worth what it may be better by than the best that is open."""
    best = max((m.rate for m in open_moves), default=0.0)
    better = np.maximum(move.draws / move.seconds - best, 0.0)
    said = tr("Read the wall at the {}: nothing is cut there before.", move.place)
    return _look(move.place, MoveKind.WALL, 5 * 60.0, THICK_ENOUGH * float(np.mean(better)), said)

"""Moves that are not a pass of the burr: a seat recipe, a back cut, a larger valve, the guide's shape, the manifold's
entry."""

from __future__ import annotations

from dataclasses import replace
from typing import Final

import numpy as np

from ventrix.core.model.cut import carried
from ventrix.core.model.kinds import CutKind, Direction, Entry, Place, Use
from ventrix.core.model.school_questions import side_taken
from ventrix.core.planning.chain import ChainWork
from ventrix.core.planning.loss_chain import DRAWS, SEED
from ventrix.core.planning.moves import Ground, Move, MoveKind
from ventrix.core.planning.of_job import FIN
from ventrix.core.planning.priors import ENTRY, KNOTS, VALVE
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.units import to_si
from ventrix.words import tr

# What a seat recipe and a back cut do to ln Cd, over which L/D: median and spread (common practice, no source).
SEAT_WORK: Final = {"seat": (0.02, 0.02, 0.34), "valve": (0.015, 0.015, 0.18)}
MINUTES: Final = {"seat": 30.0, "valve": 20.0, "larger": 90.0, "fin": 20.0, "entry": 45.0}
LARGER: Final = to_si(1.0, "mm")  # the next valve
# Of the bore, the largest valve that stands in it, by valves of its kind (common practice, no source).
MOST_OF_BORE: Final = {1: 0.55, 2: 0.41}
FIN_TAKES: Final = 0.45  # of the guide's K, a boss brought to a fin (guess)
ENTRY_TAKES: Final = 0.40  # of the entry's K, a manifold blended to the port (guess)
FLOWED_BARE: Final = tr("flowed without its manifold: flow it with the manifold on")


def part_moves(ground: Ground) -> list[Move]:
    """Every one of them; what was done before or cannot be is blocked, and says by what."""
    found = [*_seat_work(ground), _larger_valve(ground), _fin(ground)]
    if ground.port.kind == Direction.INTAKE:
        found.append(_entry(ground))
    return found


def _done(ground: Ground) -> frozenset[CutKind]:
    return frozenset(k for c in ground.port.cuts if c.number <= ground.cut.number for k in c.kinds)


def _seat_work(ground: Ground) -> list[Move]:
    x = ground.planned.lift / ground.planned.chain.states[-1].valve.diameter
    terms = ground.fit.terms(ground.planned.lift)
    share = terms[VALVE] / np.sum(list(terms.values()), axis=0)
    words = {
        "seat": tr("A three-angle seat, or a radius: what it brings is an estimate, not measured on this port."),
        "valve": tr("A 30 degree back cut on the valve: what it brings is an estimate, not measured on this port."),
    }
    no_back_cut = ground.port.kind == Direction.EXHAUST and not side_taken(ground.findings.job, "back_cut").value
    found = []
    for name, (median, spread, up_to) in SEAT_WORK.items():
        random = np.random.default_rng(SEED + 3)
        better = median + spread * random.standard_normal(DRAWS)
        fades = np.clip(1 - (x - up_to) / (KNOTS[-1] - KNOTS[0]), 0, 1) * (x <= up_to + 0.12)
        gains = np.expm1(share * better[:, None] * fades[None, :])
        move = ground.move("valve", MoveKind(name), gains, 60 * MINUTES[name], words[name])
        move = replace(move, named="back cut" if name == "valve" else "recipe", guess=True)
        if CutKind(name) in _done(ground):
            move = replace(move, blocked_by=("it was done before: its own figures are in the row",))
        elif name == "valve" and no_back_cut:
            move = replace(move, blocked_by=("you leave exhaust valves without a back cut",))
        found.append(move)
    return found


def _larger_valve(ground: Ground) -> Move:
    """The valve's opening by its own geometry, the seat ring opened with it; every K as it is."""
    job, state = ground.findings.job, ground.planned.chain.states[-1]
    wide = state.valve.diameter + LARGER
    gains = ground.fit.gain_of_valve(wide, ground.planned.lift)
    said = tr("The next valve, 1 mm larger, its throat with it: the machine shop's. Shrouding is not calculated.")
    move = ground.move("valve", MoveKind.VALVE, gains, 60 * MINUTES["larger"], said)
    blocked = []
    if job.use == Use.TRUCK and ground.port.kind == Direction.INTAKE:
        blocked.append(tr("a truck's intake keeps its valve: small and fast"))
    valves = ground.port.valves * job.ports_beside(ground.port)
    if job.bore is None:
        blocked.append(tr("the bore is not known: no saying whether it stands in it"))
    elif wide > MOST_OF_BORE.get(valves, 0.35) * job.bore:
        blocked.append(tr("over {:.0f} % of the bore, there is no room", 100 * MOST_OF_BORE.get(valves, 0.35)))
    return replace(move, named="larger", blocked_by=tuple(blocked))


def _fin(ground: Ground) -> Move:
    works = [ChainWork(Place.GUIDE.value, 0.0, Place.GUIDE.value in ground.before, takes=FIN_TAKES)]
    gains = ground.fit.gain(works, ground.planned.lift)
    said = tr("The guide boss tapered along the air: how much that takes off its loss is an estimate.")
    move = ground.move(Place.GUIDE.value, MoveKind.CUT, gains, 60 * MINUTES["fin"], said)
    shape = carried(ground.port, ground.cut, "boss_shape")
    done = shape is not None and str(shape.value) in FIN
    return replace(move, named="shape", guess=True, blocked_by=("boss already tapered",) if done else ())


def _entry(ground: Ground) -> Move:
    run = ground.planned.run
    gains: Array = ground.fit.gain([ChainWork(ENTRY, 0.0, False, takes=ENTRY_TAKES)], ground.planned.lift)
    said = tr("The manifold blended to the port at the joint: what that takes off is a guess.")
    move = ground.move(ENTRY, MoveKind.ENTRY, gains, 60 * MINUTES["entry"], said)
    with_it = run is not None and run.setup.entry == Entry.MANIFOLD
    return replace(move, named="manifold", guess=True, blocked_by=() if with_it else (FLOWED_BARE,))

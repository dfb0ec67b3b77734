"""Whether to stop, in one sentence with its reason."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from ventrix.core.judging.expectation import time_worked
from ventrix.core.judging.targets import COVERS, judged_targets, stops_at
from ventrix.core.model.cut import carried_figure
from ventrix.core.model.kinds import Direction
from ventrix.core.planning.moves import HOUR, Ground, Move, MoveKind
from ventrix.core.quantity.units import from_si, to_si
from ventrix.core.quantity.words import listed
from ventrix.words import tr

# Gain an hour under which one stops, unless the user says another; the same on an uncalibrated bench, of the flow.
DEFAULT_LEAST: Final = to_si(1.0, "cfm") / HOUR
LEAST_SHARE: Final = 0.005 / HOUR
SURE: Final = 0.8
ALONE: Final = 0.98  # by its own draws, of each place that was never worked on this port: see benchmarks/plan.py


@dataclass(frozen=True, slots=True)
class Stop:
    """Whether to stop, and why."""

    now: bool
    reason: str


def stop_rule(ground: Ground, moves: Sequence[Move], mount_rate: float, least: float | None) -> Stop:
    """Whether the next hour is worth it.

    Parameters
    ----------
    ground : Ground
        Whose.
    moves : sequence of Move
        All that bring flow, in the same draws; those that are blocked among them.
    mount_rate : float
        What one more bolting-down is worth an hour [flow/s].
    least : float, optional
        Gain per second under which one stops; the job's own without it.

    Returns
    -------
    Stop
        A target that is met as this porter wants it met, a volume that is spent, promised hours that are spent, nothing
        open, a gain that the bench cannot tell while another mount is worth more, or a greatest rate of all that is
        small in four draws of five; in that order.

    Raises
    ------
    ValueError
        A target meant at a pressure no bench has.

    References
    ----------
    Probability of the greatest of all by joint draws; the other reasons are common practice, no source.
    """
    if ground.logged:
        return Stop(False, tr("cut {} is logged and not flowed: flow it first", ground.logged[-1].number))
    told = _target_met(ground) or _volume_spent(ground) or _hours_spent(ground)
    if told:
        return Stop(True, told)
    open_moves = [m for m in moves if not m.blocked_by]
    if not open_moves:
        blocked = [f"{m.place}: {m.blocked_by[0]}" for m in moves if m.kind is MoveKind.CUT and not m.named]
        return Stop(True, tr("nothing is open: {}", "; ".join(blocked)))
    told = _cannot_tell(ground, open_moves, mount_rate)
    if told:
        return Stop(True, told)
    index, words = ground.planned.chain.is_index, ground.words
    mine = ground.findings.job.stop_below
    usual = LEAST_SHARE * ground.worth if index else DEFAULT_LEAST if mine is None else mine / HOUR
    limit = usual if least is None else least
    rates = [m.draws / m.seconds for m in open_moves]
    chance = float(np.mean(np.max(rates, axis=0) < limit))
    percent = f"{100 * limit * HOUR / ground.worth:.1f} %"
    shown = percent if index else f"{words.flow(limit * HOUR)} {words.flow_name}"
    worth_a_try = [m.place for m in open_moves if _untried(ground, m) and np.mean(m.draws / m.seconds < limit) < ALONE]
    if chance >= SURE and worth_a_try:
        few = tr("{:.0f} % chance that another hour brings {} or more", 100 * (1 - chance), shown)
        return Stop(False, tr("{}, and {} was never worked here", few, listed(worth_a_try)))
    if chance >= SURE:
        return Stop(True, tr("no move left is likely to gain {} an hour ({:.0f} %)", shown, 100 * chance))
    return Stop(False, tr("{:.0f} % chance that another hour brings {} or more", 100 * (1 - chance), shown))


def _untried(ground: Ground, move: Move) -> bool:
    return move.kind is MoveKind.CUT and not move.named and move.place not in ground.before


def _target_met(ground: Ground) -> str:
    job, run, words = ground.findings.job, ground.planned.run, ground.words
    for judged in judged_targets(run, job, ground.port.kind) if run is not None else ():
        if stops_at(job, judged.state):
            at = f"{words.lift(judged.target.lift)} {words.lift_unit}"
            wanted = f"{words.flow(judged.target.flow)} {words.flow_name}"
            return tr("the target of {} at {} is {}", wanted, at, judged.words(words))
    return ""


def _volume_spent(ground: Ground) -> str:
    volume, most = carried_figure(ground.port, ground.cut, "volume"), ground.findings.job.volume_ceiling
    if most is None or volume is None or volume < most or ground.port.kind != Direction.INTAKE:
        return ""
    cc = tr("{:.1f} cc, and no more than {:.0f} cc is wanted", from_si(volume, "cc"), from_si(most, "cc"))
    return tr("the volume is spent: {}", cc)


def _hours_spent(ground: Ground) -> str:
    job = ground.findings.job
    if job.quoted is None:
        return ""
    worked = sum(t for p in job.ports for c in p.cuts if (t := time_worked(c)) is not None)
    if worked < job.quoted:
        return ""
    return tr("the {:.1f} promised hours are spent: {:.1f} worked", from_si(job.quoted, "h"), from_si(worked, "h"))


def _cannot_tell(ground: Ground, moves: Sequence[Move], mount_rate: float) -> str:
    """The best move's gain is under what one mount on each side can prove, and another mount is worth more."""
    if ground.planned.run is None:
        return ""
    state, best = ground.planned.chain.states[-1], max(moves, key=lambda m: m.rate)
    proves = COVERS * 2**0.5 * float(np.hypot(state.mount, state.repeat / len(state.lift) ** 0.5)) * ground.worth
    if best.gain >= proves or mount_rate <= best.rate:
        return ""
    words, index = ground.words, ground.planned.chain.is_index
    shown = f"{100 * proves / ground.worth:.1f} %" if index else f"{words.flow(proves)} {words.flow_name}"
    return tr("the bench can't tell the next gain any more (under {}): further mounts beat further cuts", shown)

"""What to do next: cuts, seat and valve work, and looks, best hour first; and whether to stop. Blocked moves stay in
sight."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from ventrix.core.judging.expectation import Factor
from ventrix.core.judging.findings import Findings
from ventrix.core.judging.wording import Wording
from ventrix.core.model.cut import Cut, Port
from ventrix.core.planning.batches import batches
from ventrix.core.planning.cut_moves import a_pass, best_passes
from ventrix.core.planning.learned import CastingPrior
from ventrix.core.planning.look_moves import flow_it, looks
from ventrix.core.planning.loss_chain import ChainFit, fit_chain
from ventrix.core.planning.moves import WORKS, Asked, Ground, Move, MoveKind
from ventrix.core.planning.of_job import Planned, planned_port
from ventrix.core.planning.own_record import OwnRecord
from ventrix.core.planning.part_moves import part_moves
from ventrix.core.planning.stop_rule import Stop, stop_rule
from ventrix.words import tr


@dataclass(frozen=True, slots=True)
class Plan:
    """The plan of a port: the fitted chain, every move best first, and the stop rule; and how plans did so far."""

    planned: Planned
    fit: ChainFit
    moves: tuple[Move, ...]
    stop: Stop
    worth: float  # the goal's number as it is, in the unit of the runs' flow
    record: OwnRecord
    batches: tuple[Move, ...] = ()

    @property
    def learned_from(self) -> int:
        """Finished ports of this casting that the plan begins with."""
        learned = self.planned.chain.learned
        return 0 if learned is None else learned.ports

    @property
    def candidates(self) -> tuple[Move, ...]:
        """Moves and batches, best hour first; flowing what is logged before all, the blocked last."""
        first = [m for m in self.moves if m.kind is MoveKind.FLOW]
        rest = [*(m for m in self.moves if m.kind is not MoveKind.FLOW), *self.batches]
        return (*first, *sorted(rest, key=lambda m: (bool(m.blocked_by), -m.rate)))


def plan_port(
    findings: Findings,
    port: Port,
    factors: Sequence[Factor] = (),
    least: float | None = None,
    up_to: Cut | None = None,
    what: Sequence[Asked] = (),
    words: Wording | None = None,
    record: OwnRecord | None = None,
    learned: CastingPrior | None = None,
) -> Plan:
    """Plan a port from its last flowed cut.

    Parameters
    ----------
    findings : Findings
        Of the job.
    port : Port
        Which.
    factors : sequence of Factor
        The porter's own, by place.
    least : float, optional
        Gain an hour under which one stops [m3/s per s]; the job's own without it.
    up_to : Cut, optional
        The state to plan from.
    what : sequence of Asked
        These moves only, where any is named.
    words : Wording, optional
        Units of the sentences; inches and CFM without.
    record : OwnRecord, optional
        How the plan has done: it widens intervals that proved too narrow.
    learned : CastingPrior, optional
        What finished ports of this casting and kind told.

    Returns
    -------
    Plan

    Raises
    ------
    ValueError
        As `planned_port`.

    References
    ----------
    Formula book of this project; guesses are named in `priors`.
    """
    planned = planned_port(findings, port, up_to, learned)
    record = record or OwnRecord()
    logged = logged_since(findings, port, planned, up_to)
    ground = Ground(findings, port, planned, fit_chain(planned.chain), factors, words or Wording(), record, logged)
    if what:
        asked = tuple(a_pass(ground, w.place, w.depth, w.side, w.edge) for w in what)
        stop = Stop(False, tr("asked about these moves alone"))
        return Plan(planned, ground.fit, asked, stop, ground.worth, record)
    moves = [*best_passes(ground), *part_moves(ground)]
    moves += looks(ground, moves)
    ordered = tuple(sorted(moves, key=lambda m: (bool(m.blocked_by), -m.rate)))
    together = tuple(batches(ground, ordered))
    bring = [m for m in (*ordered, *together) if m.kind in WORKS]
    stop = stop_rule(ground, bring, _mount_rate(ordered), least)
    return Plan(planned, ground.fit, (*flow_it(ground), *ordered), stop, ground.worth, record, together)


def logged_since(findings: Findings, port: Port, planned: Planned, up_to: Cut | None = None) -> tuple[Cut, ...]:
    """Cuts after the state that is planned from, up to one, that are logged and not flowed; none of a port that never
    was."""
    if planned.run is None:
        return ()
    last = up_to.number if up_to is not None else port.cuts[-1].number
    return tuple(c for c in port.cuts if planned.cuts[-1].number < c.number <= last and not findings.runs_of(c, port))


def _mount_rate(moves: Sequence[Move]) -> float:
    return max((m.rate for m in moves if m.kind is MoveKind.MOUNT), default=0.0)


def open_places(plan: Plan) -> Mapping[str, Move]:
    """The pass at each place of a plan."""
    return {m.place: m for m in plan.moves if m.kind is MoveKind.CUT and not m.named}

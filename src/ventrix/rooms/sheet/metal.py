"""What the sheet says of the metal: walls that were read, faults of the casting."""

from __future__ import annotations

from ventrix.core.edits.faults import state_at
from ventrix.core.judging.findings import Findings
from ventrix.core.metal.walls import wall_sentence, walls_at
from ventrix.core.model.cut import Cut, Port
from ventrix.core.model.kinds import FaultState
from ventrix.rooms.cuts.fault_grid import fault_words
from ventrix.rooms.display_units import Units
from ventrix.words import tr


def wall_lines(findings: Findings, port: Port, cut: Cut, units: Units) -> tuple[str, ...]:
    """The thinnest wall read, and the day; or that none was."""
    walls = walls_at(findings.job, port, cut)
    if not walls:
        return (tr("No wall of {} was read.", port.name),)
    job = findings.job
    worst = min(walls, key=lambda w: (not w.unknown, w.left - w.limit))
    return (tr("{}, thinnest read: {}", port.name, wall_sentence(job, worst, units.length.unit)),)


def fault_lines(port: Port, cut: Cut, units: Units) -> tuple[str, ...]:
    return tuple(
        f"{state.words}: {fault_words(fault, units)}"
        for fault in port.faults
        if (state := state_at(fault, cut)) is not None and state is not FaultState.GONE
    )

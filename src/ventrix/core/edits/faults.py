"""Edits of the faults of a casting: noted, left on purpose, gone, open again."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

from ventrix.core.edits.cuts import edit_port
from ventrix.core.edits.swap import swapped
from ventrix.core.model.cut import Cut, Fault
from ventrix.core.model.job import Job
from ventrix.core.model.kinds import FaultState


def add_fault(job: Job, port_id: str, fault: Fault) -> Job:
    """Note a fault at a port."""
    return edit_port(job, port_id, lambda p: replace(p, faults=(*p.faults, fault)))


def gone_through(job: Job, port_id: str, date: str | None) -> Job:
    """Note that a port was gone through for faults, and those that are noted are all; None takes that back."""
    return edit_port(job, port_id, lambda p: replace(p, faults_looked_at=date))


def edit_fault(job: Job, fault_id: str, edit: Callable[[Fault], Fault]) -> Job:
    """The job with one fault edited. KeyError if no port has it."""
    for port in job.ports:
        if any(f.id == fault_id for f in port.faults):
            return edit_port(job, port.id, lambda p: replace(p, faults=swapped(p.faults, fault_id, edit)))
    raise KeyError(fault_id)


def set_fault_state(job: Job, fault_id: str, state: FaultState, cut: Cut) -> Job:
    """Say what became of a fault at a cut: only what is gone has a cut at which it went."""
    gone = cut.number if state is FaultState.GONE else None
    return edit_fault(job, fault_id, lambda f: replace(f, state=state.value, gone_at_cut=gone))


def state_at(fault: Fault, cut: Cut) -> FaultState | None:
    """A fault's state at a cut of its port; None where it had not been seen yet."""
    if fault.seen_at_cut > cut.number:
        return None
    if fault.gone_at_cut is not None:
        return FaultState.GONE if fault.gone_at_cut <= cut.number else FaultState.OPEN
    return FaultState(fault.state) if fault.state in tuple(FaultState) else FaultState.OPEN

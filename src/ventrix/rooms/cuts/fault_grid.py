"""Ports by faults: what the casting does everywhere, and what is left to do."""

from __future__ import annotations

from ventrix.core.edits.faults import state_at
from ventrix.core.model.cut import Fault
from ventrix.core.model.job import Job
from ventrix.core.model.kinds import FaultKind, FaultState
from ventrix.rooms.display_units import Units
from ventrix.words import tr

SIGN = {FaultState.OPEN: tr("to do"), FaultState.LEFT: "left", FaultState.GONE: "gone"}


def fault_words(fault: Fault, units: Units) -> str:
    """A fault in a line: kind, place, hours, size."""
    kind = FaultKind(fault.kind).words if fault.kind in tuple(FaultKind) else fault.kind
    where = [fault.place, fault.side if fault.side != fault.place else None]
    if fault.from_hour is not None and fault.to_hour is not None:
        where.append(tr("{:g} to {:g} o'clock", fault.from_hour or 12, fault.to_hour or 12))
    size = f", {units.length.with_unit(fault.size)}" if fault.size is not None else ""
    told = f": {fault.note}" if fault.note else ""
    told += " (photo)" if fault.photo else ""
    return f"{kind}, {' '.join(w for w in where if w)}{size}{told}".replace(",  ", ", ").removesuffix(", ")


def fault_grid(job: Job) -> tuple[list[str], list[list[str]]]:
    """Headings and rows: a row for each kind and place that any port has, a column for each port, and how many are
    left to do."""
    kinds = dict.fromkeys((f.kind, f.place) for p in job.ports for f in p.faults)
    heads = ["fault", "where", *(p.name for p in job.ports), tr("to do")]
    rows = []
    for kind, place in kinds:
        cells, open_ones = [], 0
        for port in job.ports:
            states = [
                state
                for f in port.faults
                if (f.kind, f.place) == (kind, place) and (state := state_at(f, port.cuts[-1])) is not None
            ]
            open_ones += sum(s is FaultState.OPEN for s in states)
            cells.append(", ".join(SIGN[s] for s in states))
        words = FaultKind(kind).words if kind in tuple(FaultKind) else kind
        rows.append([words, place, *cells, str(open_ones)])
    return heads, rows

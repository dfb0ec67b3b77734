"""Edits of a job: each takes a job and gives a new one. Ids and dates come from the caller."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import replace
from types import MappingProxyType
from typing import Any, Final

from ventrix.core.edits.swap import swapped
from ventrix.core.model.cut import Cut, Operation, Port, Pour, Station, Trial, WallReading
from ventrix.core.model.job import Job, cylinder_of
from ventrix.core.model.job_parts import Chamber, Valve
from ventrix.core.model.scan import Scan

BY_SCAN: Final = "scan"  # how a pour was made, and what a station's name begins with


def edit_port(job: Job, port_id: str, edit: Callable[[Port], Port]) -> Job:
    """The job with one port edited. KeyError if it is not there."""
    return replace(job, ports=swapped(job.ports, port_id, edit))


def edit_cut(job: Job, cut_id: str, edit: Callable[[Cut], Cut]) -> Job:
    """The job with one cut edited. KeyError if it is not there."""
    port, _ = job.cut_of(cut_id)
    return edit_port(job, port.id, lambda p: replace(p, cuts=swapped(p.cuts, cut_id, edit)))


def edit_valve(job: Job, valve_id: str, **values: Any) -> Job:
    """The job with fields of one valve set."""
    return replace(job, valves=swapped(job.valves, valve_id, lambda v: replace(v, **values)))


def add_valve(job: Job, port_id: str, valve: Valve) -> Job:
    """Give a port a valve of its own."""
    grown = replace(job, valves=(*job.valves, valve))
    return edit_port(grown, port_id, lambda p: replace(p, valve_id=valve.id))


def add_port(job: Job, port: Port) -> Job:
    return replace(job, ports=(*job.ports, port))


def add_cut(job: Job, port_id: str, cut: Cut) -> Job:
    """Put a cut at the end of a port's row; its number follows the last."""

    def grow(port: Port) -> Port:
        number = port.cuts[-1].number + 1 if port.cuts else 0
        return replace(port, cuts=(*port.cuts, replace(cut, number=number)))

    return edit_port(job, port_id, grow)


def add_operation(job: Job, cut_id: str, operation: Operation) -> Job:
    return edit_cut(job, cut_id, lambda c: replace(c, operations=(*c.operations, operation)))


def add_wall(job: Job, cut_id: str, wall: WallReading) -> Job:
    return edit_cut(job, cut_id, lambda c: replace(c, walls=(*c.walls, wall)))


def take_scan(
    job: Job,
    cut_id: str,
    scan: Scan,
    figures: Mapping[str, Any],
    stations: tuple[Station, ...],
    pour: Pour | None,
    depths: Mapping[str, float] = MappingProxyType({}),
) -> Job:
    """Hang a scan from a cut and take over what it measured, in one step: figures by their field, stations in place of
    those of an earlier scan, its volume as a pour, and what passes took off [m], by the id of their work: walls that
    were read before lose so much."""

    def dug(operation: Operation) -> Operation:
        works = tuple(replace(w, depth=depths[w.id]) if w.id in depths else w for w in operation.works)
        return operation if works == operation.works else replace(operation, works=works)

    def edit(cut: Cut) -> Cut:
        typed = tuple(s for s in cut.stations if not s.name.startswith(BY_SCAN)) if stations else cut.stations
        pours = tuple(p for p in cut.pours if p.how != BY_SCAN) if pour is not None else cut.pours
        return replace(
            cut,
            scans=(*(s for s in cut.scans if s.file != scan.file), scan),
            stations=tuple(sorted((*typed, *stations), key=lambda s: s.along)),
            pours=pours if pour is None else (*pours, pour),
            operations=tuple(dug(operation) for operation in cut.operations),
            **figures,
        )

    return edit_cut(job, cut_id, edit)


def add_trial(job: Job, cut_id: str, trial: Trial) -> Job:
    return edit_cut(job, cut_id, lambda c: replace(c, trials=(*c.trials, trial)))


def add_pour(job: Job, cut_id: str, pour: Pour) -> Job:
    """One more filling of the port at a cut: repeats are averaged."""
    return edit_cut(job, cut_id, lambda c: replace(c, pours=(*c.pours, pour)))


def add_chamber_pour(job: Job, cylinder: int, head_id: str | None, pour: Pour, new_id: str) -> Job:
    """One more filling of a combustion chamber: repeats are averaged. `new_id` is for a chamber not poured before."""
    for chamber in job.chambers:
        if chamber.cylinder == cylinder and chamber.head_id == head_id:
            poured = swapped(job.chambers, chamber.id, lambda c: replace(c, pours=(*c.pours, pour)))
            return replace(job, chambers=poured)
    return replace(job, chambers=(*job.chambers, Chamber(id=new_id, cylinder=cylinder, head_id=head_id, pours=(pour,))))


def set_chamber(job: Job, port: Port, pour: Pour | None, new_id: str) -> Job:
    """Say what the chamber of a port was poured at, in place of what was said before; None takes it away."""
    found = job.chamber_of(port)
    if found is None:
        return job if pour is None else add_chamber_pour(job, cylinder_of(port), port.head_id, pour, new_id)
    pours = () if pour is None else (pour,)
    return replace(job, chambers=swapped(job.chambers, found.id, lambda c: replace(c, pours=pours)))


def set_volume(job: Job, cut_id: str, pour: Pour | None) -> Job:
    """Say what a cut was poured at, in place of what was said before; None takes it away."""
    return edit_cut(job, cut_id, lambda c: replace(c, pours=() if pour is None else (pour,)))


def edit_trial(job: Job, trial_id: str, edit: Callable[[Trial], Trial]) -> Job:
    """The job with one trial edited. KeyError if no cut has it."""
    cut = job.cut_of_trial(trial_id)[1]
    return edit_cut(job, cut.id, lambda c: replace(c, trials=swapped(c.trials, trial_id, edit)))

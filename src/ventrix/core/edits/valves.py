"""Edits of valves and seats: set right for the whole history, or changed from one cut on."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from typing import Any

from ventrix.core.edits.cuts import add_cut, add_valve, edit_cut, edit_valve
from ventrix.core.model.cut import Cut, Operation, Port
from ventrix.core.model.job import Job, fitted_at
from ventrix.core.model.job_parts import Seat, Valve
from ventrix.core.model.kinds import CutKind
from ventrix.words import tr


def asks_whether_changed(job: Job, port: Port, cut: Cut) -> bool:
    """Whether a new size of the valve at a cut could mean two things: the cut itself fitted none, and an earlier one
    was flowed with it."""
    if cut.valve_ids or job.valve_of(port, cut) is None:
        return False
    fitted = fitted_at(port, cut)[0]
    return any(
        any(r.struck is None for run in each.runs for r in run.readings)
        for each in port.cuts
        if each.number < cut.number and fitted_at(port, each)[0] == fitted
    )


def correct_valve(job: Job, port: Port, cut: Cut, new_id: str, **values: Any) -> Job:
    """The valve in force at a cut always was so: every state that it was fitted at follows. A port without one gets it.

    Raises
    ------
    KeyError
        The port is not there.
    """
    valve = job.valve_of(port, cut)
    if valve is None:
        return add_valve(job, port.id, Valve(id=new_id, name=tr("{} valve", port.kind), **values))
    return edit_valve(job, valve.id, **values)


def change_valve(job: Job, port: Port, cut: Cut, new_id: str, **values: Any) -> Job:
    """Another valve from this cut on: what came before keeps its own.

    Raises
    ------
    KeyError
        The cut is not there.
    """
    had = job.valve_of(port, cut)
    valve = replace(had, id=new_id, **values) if had is not None else Valve(id=new_id, **values)
    grown = replace(job, valves=(*job.valves, valve))
    return edit_cut(grown, cut.id, lambda c: replace(c, valve_ids=(valve.id,)))


def next_version(job: Job, recipe: str) -> int:
    """The version that the next seat of a recipe is."""
    return max((s.version for s in job.seats if s.recipe.lower() == recipe.lower()), default=0) + 1


def same_seat(job: Job, seat: Seat) -> Seat | None:
    """A seat of the job that was cut by the same recipe to the same sizes, or None."""
    for known in job.seats:
        if replace(known, id=seat.id, version=seat.version, note=seat.note) == seat:
            return known
    return None


def log_valve_job(
    job: Job, seat: Seat, port_ids: Sequence[str], cut_ids: Sequence[str], work: Operation, name: str, date: str
) -> Job:
    """One valve job over several ports: each gets a cut with the seat, and the work with its share of the minutes.

    Parameters
    ----------
    job : Job
        To be edited.
    seat : Seat
        What was cut; one of like recipe and sizes that is there already is used in its place.
    port_ids, cut_ids : sequence of str
        The ports, and an id for the new cut of each.
    work : Operation
        The work of one port; ids of the other ports' are made from its own.
    name, date : str
        Of the cuts.

    Raises
    ------
    KeyError
        A port is not there.
    """
    known = same_seat(job, seat)
    if known is None:
        job = replace(job, seats=(*job.seats, seat))
    used = known or seat
    for i, (port_id, cut_id) in enumerate(zip(port_ids, cut_ids, strict=True)):
        own = work if i == 0 else replace(work, id=f"{work.id}-{i}", works=tuple(
            replace(w, id=f"{w.id}-{i}") for w in work.works
        ))  # fmt: skip
        cut = Cut(
            id=cut_id,
            number=0,
            name=name,
            kinds=(CutKind.SEAT,),
            seat_ids=(used.id,),
            date=date,
            throat_diameter=used.throat,
            operations=(own,),
        )
        job = add_cut(job, port_id, cut)
    return job


def open_after_valve_job(port: Port, cut: Cut) -> tuple[str, ...]:
    """What a valve job leaves to be done on a port, as far as the records up to a cut go: blend again, new throat, new
    cc. Empty without a valve job, or when all of it is done."""
    jobs = [c for c in port.cuts if CutKind.SEAT in c.kinds and c.number <= cut.number]
    if not jobs:
        return ()
    last = jobs[-1]
    since = [c for c in port.cuts if last.number <= c.number <= cut.number]
    blended = any(
        op.places and set(op.places) - {"seat"} for c in since for op in c.operations if op.stage != VALVE_JOB
    )
    missing = []
    if not blended:
        missing.append(tr("blend again up to the seat"))
    if all(c.throat_diameter is None for c in since):
        missing.append(tr("measure the new throat"))
    if all(not c.pours for c in since):
        missing.append(tr("pour again"))
    return tuple(missing)


VALVE_JOB = "valve job"  # the stage that a logged valve job is

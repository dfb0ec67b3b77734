"""Runs set right afterwards: conditions that were not recorded or were wrong, a lift that was typed wrong. What was
measured stays as it was, and what was said before is kept with the reason."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import replace
from typing import Any

from ventrix.core.edits.runs import edit_run
from ventrix.core.model.job import Job
from ventrix.core.model.run import Correction, FlowRun
from ventrix.core.quantity.refused import Refused
from ventrix.words import tr


def _run_of(job: Job, run_id: str) -> FlowRun:
    found = next((r for r in job.runs() if r.id == run_id), None)
    if found is None:
        raise KeyError(run_id)
    return found


def correct_conditions(
    job: Job,
    run_id: str,
    values: Mapping[str, Any],
    reason: str,
    date: str,
    new_id: Callable[[], str],
    words: Callable[[str, Any], str] = lambda _key, value: str(value),
) -> Job:
    """A run under conditions that are set right: its readings untouched, each change kept with the reason.

    Parameters
    ----------
    job : Job
        To be edited.
    run_id : str
        The run; others that share its set-up keep theirs.
    values : mapping
        Fields of the set-up and what each should have said.
    reason, date : str
        Why, and when.
    new_id : callable
        Makes ids for the new set-up and the corrections.
    words : callable
        A value in words, for the record.

    Raises
    ------
    KeyError
        No such run.
    ValueError
        No reason given.
    """
    if not reason.strip():
        raise Refused("say why: what was recorded is kept with the reason")
    run = _run_of(job, run_id)
    had = job.setup(run.setup_id)
    changed = {key: value for key, value in values.items() if getattr(had, key) != value}
    if not changed:
        return job
    setup = replace(had, id=new_id(), **changed)
    told = tuple(
        Correction(
            id=new_id(),
            what=key,
            was=tr("not recorded") if getattr(had, key) is None else words(key, getattr(had, key)),
            became=tr("not recorded") if value is None else words(key, value),
            reason=reason.strip(),
            date=date,
        )
        for key, value in changed.items()
    )
    grown = replace(job, setups=(*job.setups, setup))
    return edit_run(grown, run_id, lambda r: replace(r, setup_id=setup.id, corrections=(*r.corrections, *told)))


def correct_lift(job: Job, run_id: str, reading_id: str, lift: float, reason: str, new_id: str) -> Job:
    """A typed reading at the lift it was really taken at: the wrong one is struck with the reason, and stays.

    Raises
    ------
    KeyError
        No such run or reading.
    ValueError
        No reason, a lift below zero, or a run whose lifts the bench measured.
    """
    if not reason.strip():
        raise Refused("say why: the wrong lift is kept with the reason")
    if lift <= 0:
        raise Refused("a lift is above zero")
    run = _run_of(job, run_id)
    if run.source != "typed":
        raise Refused("its lift was measured by the bench, and stays as measured")
    had = next((r for r in run.readings if r.id == reading_id), None)
    if had is None:
        raise KeyError(reading_id)

    def edit(each: FlowRun) -> FlowRun:
        readings = []
        for reading in each.readings:
            if reading.id == reading_id:
                readings.append(replace(reading, struck=f"lift set right: {reason.strip()}"))
                readings.append(replace(reading, id=new_id, lift=lift, struck=None))
            else:
                readings.append(reading)
        return replace(each, readings=tuple(readings))

    return edit_run(job, run_id, edit)

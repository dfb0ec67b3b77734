"""Edits of runs: begun, read, struck, taken up again."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

from ventrix.core.edits.cuts import edit_cut, edit_trial
from ventrix.core.edits.swap import swapped
from ventrix.core.model.job import Job
from ventrix.core.model.run import FlowRun, Mount, Reading, RungNote, SetUp, StepRecord
from ventrix.core.quantity.refused import Refused


def start_run(job: Job, owner_id: str, run: FlowRun, setup: SetUp, mount: Mount | None) -> Job:
    """Hang a run from a cut or trial, bringing its set-up and mount along where the job has not got them."""
    if all(s.id != setup.id for s in job.setups):
        job = replace(job, setups=(*job.setups, setup))
    if mount is not None and all(m.id != mount.id for m in job.mounts):
        job = replace(job, mounts=(*job.mounts, mount))
    if job.is_trial(owner_id):
        return edit_trial(job, owner_id, lambda t: replace(t, runs=(*t.runs, run)))
    return edit_cut(job, owner_id, lambda c: replace(c, runs=(*c.runs, run)))


def edit_run(job: Job, run_id: str, edit: Callable[[FlowRun], FlowRun]) -> Job:
    """The job with one run of a cut or trial edited. KeyError if none has it."""
    for port in job.ports:
        for cut in port.cuts:
            if any(r.id == run_id for r in cut.runs):
                return edit_cut(job, cut.id, lambda c: replace(c, runs=swapped(c.runs, run_id, edit)))
            for trial in cut.trials:
                if any(r.id == run_id for r in trial.runs):
                    return edit_trial(job, trial.id, lambda t: replace(t, runs=swapped(t.runs, run_id, edit)))
    raise KeyError(run_id)


def change_setup(job: Job, run_id: str, setup: SetUp) -> Job:
    """Other conditions for a run that has no reading yet; ValueError where it has one."""

    def edit(run: FlowRun) -> FlowRun:
        if run.readings:
            raise Refused("conditions of readings that were taken are never changed")
        return replace(run, setup_id=setup.id)

    if all(s.id != setup.id for s in job.setups):
        job = replace(job, setups=(*job.setups, setup))
    return edit_run(job, run_id, edit)


def add_step(job: Job, run_id: str, step: StepRecord) -> Job:
    return edit_run(job, run_id, lambda r: replace(r, steps=(*r.steps, step)))


def add_rung_note(job: Job, run_id: str, note: RungNote) -> Job:
    return edit_run(job, run_id, lambda r: replace(r, rung_notes=(*r.rung_notes, note)))


def add_reading(job: Job, run_id: str, reading: Reading) -> Job:
    return edit_run(job, run_id, lambda r: replace(r, readings=(*r.readings, reading)))


def strike(job: Job, run_id: str, reading_id: str, reason: str) -> Job:
    """Strike a reading: it stays as it was measured, with the reason, and no longer counts."""
    if not reason.strip():
        raise Refused("a struck reading needs a reason")

    def edit(run: FlowRun) -> FlowRun:
        return replace(run, readings=swapped(run.readings, reading_id, lambda r: replace(r, struck=reason)))

    return edit_run(job, run_id, edit)


def take_up(job: Job, run_id: str, reading_id: str) -> Job:
    """Count a struck reading again."""

    def edit(run: FlowRun) -> FlowRun:
        return replace(run, readings=swapped(run.readings, reading_id, lambda r: replace(r, struck=None)))

    return edit_run(job, run_id, edit)

"""What an undo never takes along: measurements."""

from __future__ import annotations

from collections.abc import Container
from dataclasses import replace

from ventrix.core.edits.cuts import add_port, edit_cut, edit_port
from ventrix.core.edits.runs import edit_run, start_run
from ventrix.core.edits.swap import NounT
from ventrix.core.model.cut import Cut, Port, Trial
from ventrix.core.model.job import Job
from ventrix.core.model.run import UNDONE, FlowRun


def keep_measured(target: Job, current: Job, brought: Container[str] | None = None) -> Job:
    """`target`, with every measured reading of `current` that it lacks put back as struck.

    This is what makes undo safe: it may take back an edit, never a measurement. `brought` are the readings that the
    edit itself brought or found: others, of later edits or of another window, come back as they are.
    """
    for port in current.ports:
        for cut in port.cuts:
            for run in cut.runs:
                target = _keep_run(target, current, port, cut, None, run, brought)
            for trial in cut.trials:
                for run in trial.runs:
                    target = _keep_run(target, current, port, cut, trial, run, brought)
    return target


def _by_id(items: tuple[NounT, ...], wanted: str) -> NounT | None:
    return next((item for item in items if item.id == wanted), None)


def _keep_run(
    target: Job,
    current: Job,
    port: Port,
    cut: Cut,
    trial: Trial | None,
    run: FlowRun,
    brought: Container[str] | None,
) -> Job:
    if not run.readings:
        return target
    had_port = _by_id(target.ports, port.id)
    had_cut = _by_id(had_port.cuts, cut.id) if had_port else None
    had_trial = _by_id(had_cut.trials, trial.id) if had_cut and trial is not None else None
    owner = had_cut if trial is None else had_trial
    had_run = _by_id(owner.runs, run.id) if owner else None
    if had_run is run:
        return target
    kept = {r.id for r in had_run.readings} if had_run else set()
    missing = tuple(
        r if r.struck is not None or (brought is not None and r.id not in brought) else replace(r, struck=UNDONE)
        for r in run.readings
        if r.id not in kept
    )
    if not missing:
        return target
    if had_port is None:
        target = add_port(target, replace(port, cuts=()))
    if had_cut is None:
        bare = replace(cut, runs=(), trials=())
        target = edit_port(target, port.id, lambda p: replace(p, cuts=(*p.cuts, bare)))
    if trial is not None and had_trial is None:
        empty_trial = replace(trial, runs=())
        target = edit_cut(target, cut.id, lambda c: replace(c, trials=(*c.trials, empty_trial)))
    if had_run is None:
        empty = replace(run, readings=())
        owner_id = cut.id if trial is None else trial.id
        target = start_run(target, owner_id, empty, current.setup(run.setup_id), current.mount(run.mount_id))
    return edit_run(target, run.id, lambda r: replace(r, readings=(*r.readings, *missing)))

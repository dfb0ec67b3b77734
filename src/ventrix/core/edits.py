"""Edits of a job: each takes a job and gives a new one. Ids and dates come from the caller."""

from __future__ import annotations

from collections.abc import Callable, Container
from dataclasses import replace
from typing import Any, TypeVar

from ventrix.core.model import (
    Cut,
    FlowRun,
    Job,
    Mount,
    Noun,
    Observation,
    Operation,
    Port,
    Pour,
    Reading,
    RungNote,
    SetUp,
    StepRecord,
    Traverse,
    Trial,
    Valve,
    WallReading,
)

UNDONE = "undone"
_N = TypeVar("_N", bound=Noun)


def _swap(items: tuple[_N, ...], wanted: str, edit: Callable[[_N], _N]) -> tuple[_N, ...]:
    if all(item.id != wanted for item in items):
        raise KeyError(wanted)
    return tuple(edit(item) if item.id == wanted else item for item in items)


def edit_port(job: Job, port_id: str, edit: Callable[[Port], Port]) -> Job:
    """The job with one port edited. KeyError if it is not there."""
    return replace(job, ports=_swap(job.ports, port_id, edit))


def edit_cut(job: Job, cut_id: str, edit: Callable[[Cut], Cut]) -> Job:
    """The job with one cut edited. KeyError if it is not there."""
    port, _ = job.cut_of(cut_id)
    return edit_port(job, port.id, lambda p: replace(p, cuts=_swap(p.cuts, cut_id, edit)))


def edit_valve(job: Job, valve_id: str, **values: Any) -> Job:
    """The job with fields of one valve set."""
    return replace(job, valves=_swap(job.valves, valve_id, lambda v: replace(v, **values)))


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


def add_traverse(job: Job, cut_id: str, traverse: Traverse) -> Job:
    return edit_cut(job, cut_id, lambda c: replace(c, traverses=(*c.traverses, traverse)))


def edit_traverse(job: Job, cut_id: str, traverse_id: str, edit: Callable[[Traverse], Traverse]) -> Job:
    """The job with one traverse of a cut edited. KeyError if it is not there."""
    return edit_cut(job, cut_id, lambda c: replace(c, traverses=_swap(c.traverses, traverse_id, edit)))


def set_observations(job: Job, cut_id: str, observations: tuple[Observation, ...]) -> Job:
    return edit_cut(job, cut_id, lambda c: replace(c, observations=observations))


def add_trial(job: Job, cut_id: str, trial: Trial) -> Job:
    return edit_cut(job, cut_id, lambda c: replace(c, trials=(*c.trials, trial)))


def add_pour(job: Job, cut_id: str, pour: Pour) -> Job:
    """One more filling of the port at a cut: repeats are averaged."""
    return edit_cut(job, cut_id, lambda c: replace(c, pours=(*c.pours, pour)))


def set_volume(job: Job, cut_id: str, pour: Pour | None) -> Job:
    """Say what a cut was poured at, in place of what was said before; None takes it away."""
    return edit_cut(job, cut_id, lambda c: replace(c, pours=() if pour is None else (pour,)))


def edit_trial(job: Job, trial_id: str, edit: Callable[[Trial], Trial]) -> Job:
    """The job with one trial edited. KeyError if no cut has it."""
    cut = job.cut_of_trial(trial_id)[1]
    return edit_cut(job, cut.id, lambda c: replace(c, trials=_swap(c.trials, trial_id, edit)))


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
                return edit_cut(job, cut.id, lambda c: replace(c, runs=_swap(c.runs, run_id, edit)))
            for trial in cut.trials:
                if any(r.id == run_id for r in trial.runs):
                    return edit_trial(job, trial.id, lambda t: replace(t, runs=_swap(t.runs, run_id, edit)))
    raise KeyError(run_id)


def change_setup(job: Job, run_id: str, setup: SetUp) -> Job:
    """Other conditions for a run that has no reading yet; ValueError where it has one."""

    def edit(run: FlowRun) -> FlowRun:
        if run.readings:
            raise ValueError("conditions of readings that were taken are never changed")
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
        raise ValueError("a struck reading needs a reason")

    def edit(run: FlowRun) -> FlowRun:
        return replace(run, readings=_swap(run.readings, reading_id, lambda r: replace(r, struck=reason)))

    return edit_run(job, run_id, edit)


def take_up(job: Job, run_id: str, reading_id: str) -> Job:
    """Count a struck reading again."""

    def edit(run: FlowRun) -> FlowRun:
        return replace(run, readings=_swap(run.readings, reading_id, lambda r: replace(r, struck=None)))

    return edit_run(job, run_id, edit)


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


def _by_id(items: tuple[_N, ...], wanted: str) -> _N | None:
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

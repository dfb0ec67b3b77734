"""The conditions that a cut is flowed under: its own, those of its kind of port, and what a bench makes of them."""

from __future__ import annotations

from dataclasses import replace

from ventrix.core.model.bench import Bench, is_index
from ventrix.core.model.bench_kinds import ElementKind
from ventrix.core.model.cut import Cut
from ventrix.core.model.job import Job
from ventrix.core.model.run import SetUp
from ventrix.rooms.flow.element_in_hand import DEFAULT_PRESSURE
from ventrix.workspace.ids import new_id
from ventrix.workspace.workspace import Workspace


def with_bench(setup: SetUp, bench: Bench) -> SetUp:
    """Conditions on a bench: its name, usual pressure and flow element, as they are today."""
    floats = is_index(bench.element)
    return replace(
        setup,
        bench=bench.name,
        test_pressure=None if floats else bench.test_pressure or setup.test_pressure or DEFAULT_PRESSURE,
        element=None if bench.element == ElementKind.FLOW and bench.corrected else bench.element,
        scale_density=None if bench.corrected else bench.scale_density,
        orifice_diameter=bench.orifice_diameter,
        orifice_pipe=bench.orifice_pipe,
        orifice_coefficient=bench.orifice_coefficient,
        element_place=bench.element_place,
        leak_taken_off=bool(bench.leak_taken_off),
    )


def next_mount(job: Job) -> int:
    """The number of the head's next bolting-down."""
    return max((m.number for m in job.mounts), default=0) + 1


def conditions_of(space: Workspace, cut: Cut) -> tuple[SetUp, int]:
    """The cut's last run's own and its mount, or those of the last run of this kind of port on a new mount."""
    job, port = space.job, space.port
    assert port is not None
    # A trial begins from its cut's own conditions, on its mount: clay goes in through the opening.
    real = space.real_cut
    for owner in (cut, real) if real is not None else (cut,):
        if owner.runs:
            run = owner.runs[-1]
            mount = job.mount(run.mount_id)
            return job.setup(run.setup_id), mount.number if mount else next_mount(job)
    like = [s for s in job.setups if s.direction == port.kind]
    if like:
        return like[-1], next_mount(job)
    known = replace(job.setups[-1], id=new_id(), entry=None, leak=None, leak_pressure=None) if job.setups else None
    blank = known or SetUp(id=new_id(), direction=port.kind, test_pressure=DEFAULT_PRESSURE)
    return replace(blank, direction=port.kind), next_mount(job)

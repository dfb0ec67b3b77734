"""A practice as an ordinary job: what can be measured on its metal, and every act as the book would keep it."""

from __future__ import annotations

from dataclasses import replace
from typing import Final

import numpy as np

from ventrix.bench.simulator.heads.virtual import PRESSURE, VirtualPort
from ventrix.bench.simulator.practice.head import PracticeHead
from ventrix.bench.simulator.practice.play import LIFT, Done, Practice
from ventrix.core.edits.cuts import add_cut, add_wall
from ventrix.core.edits.runs import start_run
from ventrix.core.model.bench import Bench
from ventrix.core.model.bench_kinds import ActKind, LinkKind
from ventrix.core.model.cut import Cut, Operation, Port, Station, WallReading, Work
from ventrix.core.model.job import Job
from ventrix.core.model.job_parts import Head, StageMark, Valve
from ventrix.core.model.kinds import Direction, Place, StageUnit
from ventrix.core.model.run import FlowRun, Mount, Reading, SetUp
from ventrix.core.planning.of_job import AT
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.units import to_si
from ventrix.words import tr

BENCH: Final = "practice bench"
SOURCE: Final = "virtual"  # of a run that no real bench has seen
USUAL_BORE: Final = to_si(95, "mm")  # of the sleeve where no engine is told
READOUT_DIGITS: Final = 6  # digits a readout carries, as m3/s: 0.002 CFM


def job_id(head: PracticeHead, seed: int) -> str:
    """The id of a practice's job: one for a head and seed."""
    return f"practice-{head.id}-{seed}"


def practice_job(head: PracticeHead, seed: int, key: str = "") -> Job:
    """The job as it comes in: what a porter measures on the metal before anything is flowed. `key` is its id, that of
    head and seed without it."""
    ports = head.ports(seed)
    s = ports[0].metal.sizes
    key = key or job_id(head, seed)
    valve = Valve(
        id=f"{key}-valve",
        name=tr("{} valve", head.kind),
        head_diameter=s.valve_diameter,
        stem_diameter=s.stem_diameter,
        seat_width=s.seat_width,
        seat_angle=s.seat_angle,
    )
    return Job(
        id=key,
        title=tr("Practice: {}, seed {}", head.title.lower(), seed),
        note=tr("A head that does not exist. Nobody measured any of this. {}", head.history).strip(),
        practice=f"{head.id} {seed}",
        material="aluminium",
        heads=(Head(id=f"{key}-head", name="head", casting="virtual"),),
        setups=(setup_of(head, key),),
        valves=(valve,),
        ports=tuple(_port_of(head, key, n, port) for n, port in enumerate(ports)),
        stage_marks=_come_in_as(head, key),
    )


def _come_in_as(head: PracticeHead, key: str) -> tuple[StageMark, ...]:
    """A head of several ports comes in washed and looked over: neither is on the owner's clock."""
    if head.count == 1:
        return ()
    ports = [f"{head.kind.capitalize()} {n + 1}" for n in range(head.count)]
    looked = [("faults", StageUnit.PORT, port) for port in ports]
    done = [("clean", StageUnit.HEAD, "head"), *looked]
    return tuple(
        StageMark(id=f"{key}-in-{n}", stage=stage, unit=unit, of=of, closed_by=tr("before it came in"))
        for n, (stage, unit, of) in enumerate(done)
    )


def _port_of(head: PracticeHead, key: str, n: int, port: VirtualPort) -> Port:
    """One of its ports as it comes in; what is kept of the first has the names that a head of one port has."""
    s, which = port.metal.sizes, f"{n + 1}-" if n else ""
    first = Cut(
        id=f"{key}-{which}0",
        number=0,
        name="as cast",
        short_side_radius=s.short_side_radius,
        short_side_height=s.short_side_height,
        port_angle=np.pi / 2 - s.turning,
        floor_length=s.length,
        roof_length=s.length,
    )
    return Port(
        id=f"{key}-{which}port",
        name=f"{head.kind.capitalize()} {n + 1}",
        kind=head.kind,
        valve_id=f"{key}-valve",
        head_id=f"{key}-head",
        cylinder=n + 1,
        cuts=(as_measured(first, port),),
    )


def as_measured(cut: Cut, port: VirtualPort) -> Cut:
    """A cut with what callipers, ball and card find on the metal as it is: the throat, a section at each place."""
    s = port.metal.sizes
    stations = tuple(
        Station(id=f"{cut.id}-{place.value}", name=place.value, along=share * s.length, area=s.areas[place])
        for place, share in AT.items()
    )
    return replace(cut, throat_diameter=s.throat_diameter, stations=stations)


def told_by_owner(job: Job, head: PracticeHead) -> Job:
    """The job with what its owner says the engine is for."""
    e = head.engine
    if e is None:
        return replace(job, note=f"{job.note} {head.owner}")
    return replace(
        job, note=f"{job.note} {head.owner}", bore=e.bore, stroke=e.stroke, speed_low=e.low, speed_high=e.high,
        cam_lift=e.cam_lift, cam_duration=e.cam_duration, cylinders=head.count, engine_cylinders=head.count,
        valves_per_cylinder=2,
    )  # fmt: skip


def true_job(practice: Practice) -> Job | None:
    """The first port before and after as the truth has it, on the owner's engine; None where there is none to run it
    on."""
    if practice.head.engine is None:
        return None
    job = told_by_owner(practice_job(practice.head, practice.seed), practice.head)
    first = replace(job.ports[0].cuts[0], runs=(_true_run(job, "before", practice.began[0].flow(LIFT)),))
    last = Cut(
        id=f"{job.id}-end", number=1, name=tr("as it is"), runs=(_true_run(job, "after", practice.true_flow(0)),)
    )
    return replace(job, ports=(replace(job.ports[0], cuts=(first, as_measured(last, practice.ports[0]))),))


def _true_run(job: Job, key: str, flow: Array) -> FlowRun:
    readings = tuple(
        Reading(id=f"{job.id}-{key}-{i}", lift=float(x), flow=float(q), measured_pressure=PRESSURE)
        for i, (x, q) in enumerate(zip(LIFT, flow, strict=True))
    )
    return FlowRun(id=f"{job.id}-{key}", setup_id=f"{job.id}-setup", mount_id=None, source=SOURCE, readings=readings)


def bore_of(head: PracticeHead) -> float:
    """Of the sleeve that the head is flowed on [m]."""
    return head.engine.bore if head.engine is not None else USUAL_BORE


def setup_of(head: PracticeHead, key: str) -> SetUp:
    """How every test of a practice is set up, in the job of an id."""
    return SetUp(
        id=f"{key}-setup",
        direction=head.kind,
        test_pressure=PRESSURE,
        bench=BENCH,
        bore=bore_of(head),
        centred=True,
        entry="radius" if head.kind == Direction.INTAKE else "bare",
        pipe="none" if head.kind == Direction.EXHAUST else None,
        valve="job",
        plug="in",
        clean=True,
        leak=0.0,
        leak_pressure=PRESSURE,
    )


def with_flow(job: Job, practice: Practice, done: Done, date: str, owner: str = "") -> Job:
    """The job with a flow test of its last cut, or of a trial: a mount of its own, twelve rungs."""
    flow = done.flow if done.flow is not None else practice.flow_of(done)
    assert flow is not None
    n = len(practice.done)
    key = f"{job.id}-act-{n}"
    mount = Mount(id=f"{key}-mount", number=len(job.mounts) + 1, date=date)
    readings = tuple(
        Reading(id=f"{key}-{i}", lift=float(x), flow=round(float(q), READOUT_DIGITS), measured_pressure=PRESSURE)
        for i, (x, q) in enumerate(zip(LIFT, flow, strict=True))
    )
    own = done.act.record if done.act.kind == ActKind.LIVE else f"{key}-run"
    run = FlowRun(id=own, setup_id=f"{job.id}-setup", mount_id=mount.id, date=date, source=SOURCE, readings=readings)
    return start_run(job, owner or job.ports[done.act.port].cuts[-1].id, run, setup_of(practice.head, job.id), mount)


def with_wall(job: Job, practice: Practice, done: Done, date: str) -> Job:
    """The job with a wall reading at the last cut."""
    assert done.reading is not None and done.act.place is not None
    wall = WallReading(
        id=f"{job.id}-act-{len(practice.done)}-wall",
        place=done.act.place.value,
        thickness=done.reading,
        behind="water" if done.act.place in (Place.SHORT_SIDE, Place.BOWL) else "",
        date=date,
    )
    return add_wall(job, job.ports[done.act.port].cuts[-1].id, wall)


def with_cut(job: Job, practice: Practice, done: Done, date: str) -> Job:
    """The job with a pass as its next cut, measured again."""
    act = done.act
    assert act.place is not None
    port = job.ports[act.port]
    number = port.cuts[-1].number + 1
    key = f"{job.id}-act-{len(practice.done)}"
    work = Work(id=act.record or f"{key}-work", place=act.place.value, depth=act.depth)
    operation = Operation(id=f"{key}-op", kind="rough", works=(work,), duration=60 * done.minutes, date=date)
    cut = Cut(id=f"{key}-cut", number=number, name=act.place.value, operations=(operation,), date=date)
    cut = as_measured(cut, practice.ports[act.port])
    return add_cut(job, port.id, cut)


def job_of(practice: Practice, date: str = "", key: str = "") -> Job:
    """The job that a practice's acts make when each is kept in the book, under an id of its own or the usual one."""
    again = Practice(practice.head.id, practice.seed, practice.hours)
    again.live = practice.live
    job = practice_job(practice.head, practice.seed, key)
    for act in practice.acts:
        job = kept(job, again, again.do(act), date)
    return job


def kept(job: Job, practice: Practice, done: Done, date: str = "") -> Job:
    """The job with what an act gave."""
    if done.act.kind == ActKind.LIVE and practice.flow_of(done) is None:
        return job  # a test that came to nothing
    with_ = {ActKind.FLOW: with_flow, ActKind.LIVE: with_flow, ActKind.WALL: with_wall, ActKind.CUT: with_cut}.get(
        done.act.kind
    )
    return job if with_ is None else with_(job, practice, done, date)


def bench_of(head: PracticeHead) -> Bench:
    """The practice's bench as it is kept: its scatter is found out by using it."""
    return Bench(id=f"practice-bench-{head.id}", name=BENCH, link=LinkKind.TYPED)

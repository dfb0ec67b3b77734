"""Earlier jobs of the invented shop, so that the demo's book has something to find: the demo head's ports at other
sizes, flowed by the simulator's physics at those sizes, with invented names and a fixed seed."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace
from datetime import date, timedelta
from typing import Final

import numpy as np

from ventrix.bench.simulator.heads.shipped import HEADS, SimulatedCut
from ventrix.core.model.cut import Cut, Operation, Port, Pour, Work
from ventrix.core.model.job import Job
from ventrix.core.model.job_parts import Head, MyLift, Valve
from ventrix.core.model.kinds import Direction, JobState, LibraryKind
from ventrix.core.model.library import LibraryItem
from ventrix.core.model.run import FlowRun, Mount, Reading, SetUp
from ventrix.core.quantity.units import from_si, to_si
from ventrix.records.library.items import claim_item

SEED: Final = 31
PRESSURE: Final = to_si(28, "inH2O")
STEPS: Final[dict[Direction, int]] = {Direction.INTAKE: 12, Direction.EXHAUST: 10}  # of 0.050 in
SCATTER: Final = 0.004  # of a reading


@dataclass(frozen=True, slots=True)
class _Job:
    """A job of the shelf: names, size and goodness of its ports against the demo's, how far it went, and its state."""

    key: str
    title: str
    customer: str
    casting: str
    material: str
    cylinders: int
    size: float
    area: float
    cuts: int
    began: date
    state: JobState = JobState.HANDED_OVER
    waits_for: str = ""
    promised_in: int | None = None  # days from today
    archived: bool = False


_SHELF: Final = (
    _Job("second", "Corvane 22H, second head", "R. Maddox", "22H", "aluminium", 4, 1.0, 0.99, 2, date(2026, 4, 14),
         JobState.WAITING, "guides, ordered Mon", 6),
    _Job("ashdown", "Ashdown pair, street", "", "A4 alloy", "aluminium", 4, 1.01, 1.02, 4, date(2026, 3, 2)),
    _Job("tillow", "Tillow 1.6 eight-valve, hill climb, customer's own cam", "Brandt & daughter", "T16", "iron", 4,
         1.03, 1.05, 4, date(2026, 1, 26)),
    _Job("pump", "Pump engine, slow", "Farm co-op", "P2", "iron", 2, 0.94, 0.93, 2, date(2026, 5, 4), JobState.OPEN, "",
         -2),
    _Job("scrap", "Corvane 22H, scrap for trials", "", "22H", "aluminium", 4, 0.99, 0.96, 3, date(2025, 11, 10),
         JobState.LEFT),
    _Job("ostrey", "Ostrey twin, left", "K. Ilves", "OT", "aluminium", 2, 1.04, 1.06, 4, date(2025, 12, 15)),
    _Job("ostrey-right", "Ostrey twin, right", "K. Ilves", "OT", "aluminium", 2, 1.04, 1.04, 3, date(2026, 1, 5)),
    _Job("old", "Corvane 20H, first try", "", "20H", "iron", 4, 0.97, 0.95, 3, date(2024, 9, 2), archived=True),
)  # fmt: skip


def shelf(today: date) -> Iterator[Job]:
    """The earlier jobs, made as they are asked for; promises lie a few days from `today`."""
    random = np.random.default_rng(SEED)
    for each in _SHELF:
        yield _job(each, random, today)


def _job(of: _Job, random: np.random.Generator, today: date) -> Job:
    setups, valves, ports = [], [], []
    mounts: list[Mount] = []
    day = of.began
    for direction, states in HEADS.items():
        setups.append(_setup(of.key, direction))
        truth = states[0].truth
        valves.append(
            Valve(
                id=f"{of.key}-valve-{direction}",
                name=f"{direction} valve",
                head_diameter=truth.valve_diameter * of.size,
                stem_diameter=truth.stem_diameter,
                seat_width=truth.seat_width,
                seat_angle=truth.seat_angle,
            )
        )
        cuts = []
        for number, state in enumerate(states[: of.cuts]):
            mount = Mount(id=f"{of.key}-mount-{len(mounts)}", number=len(mounts) + 1, date=day.isoformat())
            mounts.append(mount)
            cuts.append(_cut(of, direction, number, state, mount, day, random))
            day += timedelta(days=1)
        ports.append(
            Port(
                id=f"{of.key}-{direction}",
                name=f"{direction.capitalize()} 1",
                kind=direction,
                valve_id=valves[-1].id,
                cylinder=1,
                cuts=tuple(cuts),
            )
        )
    promised = None if of.promised_in is None else (today + timedelta(days=of.promised_in)).isoformat()
    return Job(
        id=f"demo-{of.key}",
        title=of.title,
        note="An invented job. Every figure comes from the simulated bench.",
        customer=of.customer,
        material=of.material,
        cylinders=of.cylinders,
        engine_cylinders=of.cylinders,
        valves_per_cylinder=2,
        bore=to_si(89, "mm"),
        cam_lift=to_si(0.46, "in"),
        cam_duration=to_si(220, "deg"),
        worthwhile_gain=to_si(2, "cfm"),
        heads=(Head(id=f"{of.key}-head", name="head", casting=of.casting),),
        my_lifts=(MyLift(id=f"{of.key}-mine", kind=Direction.INTAKE, lift=to_si(0.45, "in")),),
        state=of.state,
        waits_for=of.waits_for,
        promise_date=promised,
        handed_over=day.isoformat() if of.state == JobState.HANDED_OVER else None,
        archived=of.archived,
        setups=tuple(setups),
        mounts=tuple(mounts),
        valves=tuple(valves),
        ports=tuple(ports),
    )


def _setup(key: str, direction: Direction) -> SetUp:
    return SetUp(
        id=f"{key}-setup-{direction}",
        direction=direction,
        test_pressure=PRESSURE,
        bench="back-room",
        bore=to_si(89, "mm"),
        centred=True,
        entry="radius" if direction == Direction.INTAKE else "bare",
        pipe="none" if direction == Direction.EXHAUST else None,
        valve="job",
        plug="in",
        clean=True,
        temperature=to_si(20, "degC"),
        pressure=to_si(1008, "hPa"),
        humidity=0.5,
        leak=to_si(0.4, "cfm"),
        leak_pressure=PRESSURE,
    )


def _cut(
    of: _Job,
    direction: Direction,
    number: int,
    state: SimulatedCut,
    mount: Mount,
    day: date,
    random: np.random.Generator,
) -> Cut:
    name = f"{of.key}-{direction}-{number}"
    truth = replace(
        state.truth,
        valve_diameter=state.truth.valve_diameter * of.size,
        throat_diameter=state.truth.throat_diameter * of.size,
        port_area=state.truth.port_area * of.area,
    )
    lifts = [to_si(0.05 * (i + 1), "in") for i in range(STEPS[direction])]
    readings = tuple(
        Reading(
            id=f"{name}-{i}",
            lift=lift,
            flow=to_si(round(from_si(float(truth.flow(lift, PRESSURE)), "cfm") * (1 + SCATTER * float(r)), 1), "cfm"),
            measured_pressure=PRESSURE,
        )
        for i, (lift, r) in enumerate(zip(lifts, random.standard_normal(len(lifts)), strict=True))
    )
    run = FlowRun(
        id=f"{name}-run",
        setup_id=f"{of.key}-setup-{direction}",
        mount_id=mount.id,
        date=day.isoformat(),
        source="simulated bench",
        readings=readings,
    )
    section = to_si(1.66, "in2") if direction == Direction.INTAKE else to_si(1.33, "in2")
    width = to_si(27.0 if direction == Direction.INTAKE else 28.0, "mm") * of.size
    height = section * of.area * (1 + 0.012 * number) / width
    pours = (Pour(id=f"{name}-pour", volume=state.volume * of.area, how="burette and plate, valve in"),)
    works = tuple(
        Operation(
            id=f"{name}-work-{i}",
            kind=what,
            works=(Work(id=f"{name}-work-{i}-1", place=place, depth=None if deep is None else to_si(deep, "mm")),),
            tool=tool,
            duration=to_si(minutes, "min"),
        )
        for i, (place, what, tool, minutes, deep) in enumerate(state.work)
    )
    return Cut(
        id=name,
        number=number,
        name=state.name,
        date=day.isoformat(),
        throat_diameter=truth.throat_diameter,
        bowl_diameter=truth.throat_diameter * 1.02,
        opening_width=width * 1.12 if number == 0 else None,
        opening_height=height * 1.02 if number == 0 else None,
        pinch_width=width,
        pinch_height=height,
        floor_length=to_si(94.0 if direction == Direction.INTAKE else 58.0, "mm") if number == 0 else None,
        roof_length=to_si(114.0 if direction == Direction.INTAKE else 74.0, "mm") if number == 0 else None,
        operations=works,
        runs=(run,),
        pours=pours,
    )


def demo_claim() -> LibraryItem:
    """A ready casting that nobody measured: claimed by its invented seller, with a price."""
    setup = _setup("claim", Direction.INTAKE)
    setup = replace(setup, bench=None, temperature=None, pressure=None, humidity=None, leak=None, leak_pressure=None)
    flows = (31, 62, 93, 124, 152, 176, 193, 205, 213, 219, 223, 226)
    readings = tuple(
        Reading(id=f"claim-{i}", lift=to_si(0.05 * (i + 1), "in"), flow=to_si(q, "cfm")) for i, q in enumerate(flows)
    )
    run = FlowRun(id="claim-run", setup_id=setup.id, source="claimed", claimed="the seller's sheet", readings=readings)
    item = claim_item(run, setup, "22H casting, stage two", 980.0, "2026-04-02")
    return replace(item, id="demo-claim", kind=LibraryKind.CLAIM)

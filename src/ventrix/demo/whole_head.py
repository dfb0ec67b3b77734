"""A whole head of the invented shop on its way: eight ports and five stages, one port that differs, one with a thin
wall, one that fell behind, and seats out at another shop. Flows by the simulator's physics, with a fixed seed."""

from __future__ import annotations

from dataclasses import dataclass, replace
from datetime import date, timedelta
from typing import Final

import numpy as np

from ventrix.bench.simulator.heads.shipped import HEADS
from ventrix.core.model.cut import Cut, Operation, Port, Pour, WallReading, Work
from ventrix.core.model.job import Job
from ventrix.core.model.job_parts import Bolt, Face, Head, MyLift, Outline, PartOfJob, Valve, Wait
from ventrix.core.model.kinds import Direction, JobState, Place
from ventrix.core.model.run import FlowRun, Mount, Reading, SetUp
from ventrix.core.quantity.units import from_si, to_si

SEED: Final = 47
PRESSURE: Final = to_si(28, "inH2O")
SCATTER: Final = 0.002
STAGES: Final = ("rough", "bowl, throat", "short side", "guide", "valve job")
# What each stage takes off: place and depth [in]; the valve job is another shop's.
_TAKES: Final[dict[str, tuple[tuple[Place, float], ...]]] = {
    "rough": ((Place.PINCH, 0.012),),
    "bowl, throat": ((Place.BOWL, 0.030), (Place.THROAT, 0.020)),
    "short side": ((Place.SHORT_SIDE, 0.024),),
    "guide": ((Place.GUIDE, 0.040),),
}
_FIRST: Final[dict[Direction, tuple[float, ...]]] = {
    Direction.INTAKE: (20, 50, 62, 42),
    Direction.EXHAUST: (14, 38, 40, 30),
}  # minutes
_WALLS: Final = {
    Place.BOWL: 0.186,
    Place.SHORT_SIDE: 0.147,
    Place.PINCH: 0.172,
    Place.GUIDE: 0.210,
    Place.THROAT: 0.195,
}


@dataclass(frozen=True, slots=True)
class _Port:
    """A port: stages done, how its flow and volume lie off the developed one's [-, cc], what its walls lie off by [in],
    and whether it was flowed."""

    kind: Direction
    cylinder: int
    stages: int
    flow: float
    volume: float
    walls: float
    flowed: bool


_PORTS: Final = (
    _Port(Direction.INTAKE, 1, 4, 1.0, 0.0, 0.0, True),
    _Port(Direction.EXHAUST, 1, 4, 1.0, 0.0, 0.004, True),
    _Port(Direction.INTAKE, 2, 4, 0.997, -0.3, 0.006, True),
    _Port(Direction.EXHAUST, 2, 4, 0.998, -0.2, 0.002, True),
    _Port(Direction.INTAKE, 3, 4, 0.961, -2.1, 0.010, True),
    _Port(Direction.EXHAUST, 3, 2, 1.0, -0.1, 0.008, False),
    _Port(Direction.INTAKE, 4, 2, 1.0, -0.2, -0.046, False),
    _Port(Direction.EXHAUST, 4, 1, 1.0, -0.3, 0.003, False),
)


def whole_head(today: date) -> Job:
    """The job; its promise lies a few days from `today`."""
    random = np.random.default_rng(SEED)
    began = today - timedelta(days=9)
    setups = {kind: _setup(kind) for kind in Direction}
    valves = {kind: _valve(kind) for kind in Direction}
    mounts: list[Mount] = []
    ports = tuple(_port(of, valves[of.kind], mounts, began, random) for of in _PORTS)
    return Job(
        id="demo-whole-head",
        title="Tillow 2.0 eight-valve, all ports",
        note="An invented job. Every flow comes from the simulated bench's physics.",
        customer="Brandt & daughter",
        material="aluminium",
        cylinders=4,
        engine_cylinders=4,
        valves_per_cylinder=2,
        bore=to_si(89, "mm"),
        stroke=to_si(80, "mm"),
        cam_lift=to_si(0.46, "in"),
        cam_duration=to_si(224, "deg"),
        worthwhile_gain=to_si(2, "cfm"),
        heads=(Head(id="whole-head", name="head", casting="T20"),),
        my_lifts=(
            MyLift(id="whole-mine-1", kind=Direction.INTAKE, lift=to_si(0.45, "in")),
            MyLift(id="whole-mine-2", kind=Direction.EXHAUST, lift=to_si(0.40, "in")),
        ),
        stages=(*STAGES, "re-blend", "finish"),
        state=JobState.OPEN,
        promise_date=(today + timedelta(days=3)).isoformat(),
        quoted=to_si(26, "h"),
        rate=60.0,
        consumables=35.0,
        waits=(
            Wait(
                id="whole-wait",
                stage="valve job",
                who="seat shop",
                since=(today - timedelta(days=1)).isoformat(),
                promised=(today + timedelta(days=1)).isoformat(),
                price=180.0,
            ),
        ),
        parts=(
            PartOfJob(id="whole-part-1", kind="guide", name="bronze guides", state="fitted", count=8,
                      size=to_si(8, "mm"), price=96.0),
            PartOfJob(id="whole-part-2", kind="spring", name="single springs", state="ordered", count=8, price=72.0),
            PartOfJob(id="whole-part-3", kind="gasket", name="head gasket set", state="needed", price=48.0),
        ),
        faces=_faces(),
        setups=tuple(setups.values()),
        mounts=tuple(mounts),
        valves=tuple(valves.values()),
        ports=ports,
    )  # fmt: skip


def _faces() -> tuple[Face, ...]:
    """The intake side: a casting that runs a little to its bolts, so that two ports stand in the air of the gasket and
    the manifold that lie on it."""
    bolts = tuple(
        Bolt(id=f"whole-bolt-{name}", name=name, at=(to_si(x, "mm"), to_si(y, "mm")))
        for name, x, y in (("A", -190.0, 32.0), ("B", -62.0, 32.0), ("C", 62.0, 32.0), ("D", 190.0, 32.0),
                           ("E", -126.0, -32.0), ("F", 126.0, -32.0))
    )  # fmt: skip
    middles = (-165.0, -55.0, 55.0, 165.0)

    def face(name: str, part: str, wide: float, high: float, lean: float, low: float = 0.0) -> Face:
        outlines = tuple(
            Outline(
                id=f"whole-{part}-{i}",
                port=f"Intake {i}",
                centre=(to_si(x, "mm"), to_si(lean * x + low, "mm")),
                width=to_si(wide, "mm"),
                height=to_si(high, "mm"),
                corner=(to_si(8.0, "mm"),),
            )
            for i, x in enumerate(middles, 1)
        )
        held = tuple(replace(b, id=f"{b.id}-{part}") for b in bolts)
        return Face(id=f"whole-{part}", name=name, part=part, outlines=outlines, bolts=held, source="typed")

    chamber = Face(
        id="whole-chamber",
        name="chamber",
        part="chamber",
        outlines=(
            Outline(id="whole-chamber-1", port="Intake 1", shape="oval", width=to_si(86, "mm"), height=to_si(60, "mm")),
        ),
        bolts=(
            Bolt(id="whole-chamber-in", name="intake", at=(to_si(-19.5, "mm"), to_si(2.0, "mm"))),
            Bolt(id="whole-chamber-ex", name="exhaust", at=(to_si(22.0, "mm"), to_si(-1.0, "mm"))),
        ),
        source="typed",
    )
    return (
        face("intake face", "head", 32.0, 42.0, 0.0055),
        face("own manifold", "manifold", 31.6, 41.4, 0.0),
        face("gasket 1.5", "gasket", 34.0, 44.0, 0.0, 0.2),
        chamber,
    )


def _setup(kind: Direction) -> SetUp:
    return SetUp(
        id=f"whole-setup-{kind}",
        direction=kind,
        test_pressure=PRESSURE,
        bench="back-room",
        bore=to_si(89, "mm"),
        centred=True,
        entry="radius" if kind == Direction.INTAKE else "bare",
        pipe="none" if kind == Direction.EXHAUST else None,
        valve="job",
        plug="in",
        clean=True,
        leak=to_si(0.4, "cfm"),
        leak_pressure=PRESSURE,
    )


def _valve(kind: Direction) -> Valve:
    truth = HEADS[kind][0].truth
    return Valve(
        id=f"whole-valve-{kind}",
        name=f"{kind} valve",
        head_diameter=truth.valve_diameter,
        stem_diameter=truth.stem_diameter,
        seat_width=truth.seat_width,
        seat_angle=truth.seat_angle,
    )


def _port(of: _Port, valve: Valve, mounts: list[Mount], began: date, random: np.random.Generator) -> Port:
    name = f"{of.kind.capitalize()} {of.cylinder}"
    first = "Intake 1" if of.kind == Direction.INTAKE else "Exhaust 1"
    states = HEADS[of.kind]
    cuts = []
    for number in range(of.stages + 1):
        stage = STAGES[number - 1] if number else ""
        state = states[min(number, len(states) - 1)]
        key = f"whole-{of.kind}-{of.cylinder}-{number}"
        poured = from_si(state.volume, "cc") + 0.4 * max(number - len(states) + 1, 0) + of.volume
        last = number == of.stages
        developed = of.cylinder == 1
        walls = _walls(key, of, random) if number == 0 else ()
        runs: tuple[FlowRun, ...] = ()
        if developed or (last and of.flowed):
            mounts.append(Mount(id=f"mount-{key}", number=len(mounts) + 1, date=began.isoformat()))
            runs = (_run(key, of, state.truth, number, mounts[-1], random),)
        cuts.append(
            Cut(
                id=key,
                number=number,
                name=stage or "as cast",
                date=(began + timedelta(days=number)).isoformat(),
                throat_diameter=state.truth.throat_diameter,
                gasket_land=to_si(6.5, "mm") if number == 0 else None,
                operations=_operations(key, of, number, random) if number else (),
                walls=walls,
                runs=runs,
                pours=(Pour(id=f"{key}-pour", volume=to_si(round(poured, 1), "cc"), how="burette"),)
                if last or developed
                else (),
            )
        )
    mirror = first if of.cylinder in (2, 4) else None
    return Port(
        id=f"whole-{of.kind}-{of.cylinder}",
        name=name,
        kind=of.kind,
        valve_id=valve.id,
        cylinder=of.cylinder,
        mirror_of=mirror,
        head_id="whole-head",
        position_on_head=of.cylinder,
        cuts=tuple(cuts),
    )


def _operations(key: str, of: _Port, number: int, random: np.random.Generator) -> tuple[Operation, ...]:
    stage = STAGES[number - 1]
    works = tuple(
        Work(id=f"{key}-work-{i}", place=place, depth=to_si(depth, "in"))
        for i, (place, depth) in enumerate(_TAKES.get(stage, ()))
    )
    minutes = _FIRST[of.kind][number - 1] * of.cylinder**-0.2 * float(np.exp(0.08 * random.standard_normal()))
    return (
        Operation(
            id=f"{key}-op", kind=stage, stage=stage, works=works, tool="oval carbide burr",
            duration=to_si(round(minutes), "min"), date="2026-05-02",
        ),
    )  # fmt: skip


def _walls(key: str, of: _Port, random: np.random.Generator) -> tuple[WallReading, ...]:
    """Of every place, but of intake 4 no pinch, which is to be read first. Exhausts are thicker to the water."""
    more = 0.025 if of.kind == Direction.EXHAUST else 0.0
    thin = {Place.SHORT_SIDE: of.walls} if of.walls < 0 else dict.fromkeys(_WALLS, of.walls)
    return tuple(
        WallReading(
            id=f"{key}-wall-{i}",
            place=place,
            thickness=to_si(
                round(wall + more + thin.get(place, 0.0) + 0.002 * float(random.standard_normal()), 3), "in"
            ),
            behind="water" if place in (Place.BOWL, Place.SHORT_SIDE) else "",
        )
        for i, (place, wall) in enumerate(_WALLS.items())
        if not (of.walls < 0 and place is Place.PINCH)
    )


def _run(key: str, of: _Port, truth, number: int, mount: Mount, random: np.random.Generator) -> FlowRun:  # type: ignore[no-untyped-def]
    area = truth.port_area * (1 + 0.01 * max(number - 3, 0))
    seen = replace(truth, port_area=area)
    mounted = of.flow * (1 + SCATTER * float(random.standard_normal()))
    lifts = [to_si(0.05 * (i + 1), "in") for i in range(11)]
    return FlowRun(
        id=f"{key}-run",
        setup_id=f"whole-setup-{of.kind}",
        mount_id=mount.id,
        date=mount.date,
        source="simulated bench",
        readings=tuple(
            Reading(
                id=f"{key}-reading-{i}",
                lift=x,
                flow=to_si(
                    round(
                        from_si(float(seen.flow(x, PRESSURE)), "cfm")
                        * mounted
                        * (1 + SCATTER * float(random.standard_normal())),
                        1,
                    ),
                    "cfm",
                ),
                measured_pressure=PRESSURE,
            )
            for i, x in enumerate(lifts)
        ),
    )

"""Writes the demo job from the simulated bench's own physics, with a fixed seed and a made-up clock.

Run ``python -m ventrix.demo.make`` after a change of the simulator; a test holds the file to it.
"""

from __future__ import annotations

from dataclasses import replace
from importlib import resources
from pathlib import Path
from typing import Final

import numpy as np

from ventrix.bench.simulator.air_picture import swirl_coefficient
from ventrix.bench.simulator.bench import SimulatedBench
from ventrix.bench.simulator.heads.shipped import HEADS, SimulatedCut
from ventrix.bench.simulator.lies import Lie
from ventrix.core.formulas.atmosphere import REFERENCE_DENSITY
from ventrix.core.metal.unrolled import unroll
from ventrix.core.model.bench import Bench, PlateCheck, ScatterStudy, StudyReading, Transfer, TransferPart
from ventrix.core.model.cut import Cut, Operation, Port, Work
from ventrix.core.model.job import Job
from ventrix.core.model.job_parts import Target, Valve, WallLimit
from ventrix.core.model.noun import Direction
from ventrix.core.model.run import FlowRun, Mount, Reading, SetUp
from ventrix.core.quantity.units import from_si, to_si
from ventrix.demo import air, metal
from ventrix.demo.measured import measured, pours_of
from ventrix.records.files.job_document import dumps_job, loads_document

FILE: Final = "corvane_22h.json"
SEED: Final = 22
TEST_PRESSURE: Final = to_si(28, "inH2O")
LIFTS: Final[dict[Direction, int]] = {"intake": 12, "exhaust": 10}  # steps of 0.050 in
REPEATED: Final = (2, 5, 8)  # rungs flowed a second time


def demo_job() -> Job:
    """The demo job that ships in the package."""
    return loads_document(resources.files("ventrix.demo").joinpath(FILE).read_bytes(), FILE, own=True).job


class _Clock:
    now = 0.0

    def __call__(self) -> float:
        return self.now


_PADDLE = np.random.default_rng(SEED + 1)  # a stream of its own: flows stay what they are


def _swirl(bench: SimulatedBench, lift: float, pressure: float) -> float:
    """What the paddle reads [rad/s], to the turn a minute."""
    v0 = float(np.sqrt(2 * pressure / REFERENCE_DENSITY))
    exact = swirl_coefficient(bench.cut.truth, lift) * v0 / bench.character.bore
    return to_si(round(from_si(exact * (1 + 0.012 * float(_PADDLE.standard_normal())), "rpm")), "rpm")


def _reading(bench: SimulatedBench, clock: _Clock, lift: float, name: str) -> Reading:
    bench.set_pressure(TEST_PRESSURE)
    bench.set_lift(lift)
    clock.now += 8.0  # long enough to settle
    flow, pressure = [], []
    for _ in range(60):
        clock.now += 0.05
        q, dp = bench.read()
        flow.append(q)
        pressure.append(dp)
    return Reading(
        id=name,
        lift=lift,
        flow=to_si(round(from_si(float(np.mean(flow)), "cfm"), 2), "cfm"),
        measured_pressure=to_si(round(from_si(float(np.mean(pressure)), "inH2O"), 2), "inH2O"),
        spread=to_si(round(from_si(float(np.std(flow, ddof=1)), "cfm"), 2), "cfm"),
        window=3.0,
        swirl=_swirl(bench, lift, float(np.mean(pressure))) if bench.state[0] == "intake" else None,
    )


def _run(bench: SimulatedBench, clock: _Clock, direction: Direction, number: int, date: str) -> FlowRun:
    bench.fit(direction, number)
    bench.remount()
    name = f"{direction}-{number}"
    lifts = [to_si(0.05 * (i + 1), "in") for i in range(LIFTS[direction])]
    first = [_reading(bench, clock, x, f"{name}-{i + 1}") for i, x in enumerate(lifts)]
    again = [_reading(bench, clock, lifts[i], f"{name}-{i + 1}-again") for i in REPEATED]
    return FlowRun(
        id=f"{name}-run",
        setup_id=f"setup-{direction}",
        mount_id=f"mount-{_mount(direction, number)}",
        date=date,
        source="simulated bench",
        readings=(*first, *again),
    )


def _bridged_port(clock: _Clock, like: SetUp) -> tuple[Port, list[SetUp], list[Mount]]:
    """Intake 3, flowed on a borrowed bench: as cast with a bare entry, the next state both ways, then with the radius
    alone. The state flowed both ways bridges the change of entry."""
    bench = SimulatedBench(clock, SEED + 7)
    setups = [replace(like, id=f"setup-{e}", bench="borrowed", entry=e) for e in ("bare", "radius")]
    mounts: list[Mount] = []
    cuts = []
    for number, entries in enumerate((("bare",), ("bare", "radius"), ("radius",))):
        state, date = HEADS["intake"][number], f"2026-05-{14 + number}"
        runs = []
        for entry in entries:
            bench.tell(Lie.BARE, entry == "bare")
            mount = Mount(id=f"mount-b{len(mounts)}", number=11 + len(mounts), date=date)
            mounts.append(mount)
            run = _run(bench, clock, "intake", number, date)
            readings = tuple(replace(r, id=f"b{len(mounts)}-{r.id}") for r in run.readings)
            runs.append(
                replace(
                    run, id=f"bridge-{len(mounts)}", setup_id=f"setup-{entry}", mount_id=mount.id, readings=readings
                )
            )
        cuts.append(
            Cut(
                id=f"intake-3-{number}",
                number=number,
                name=state.name,
                date=date,
                throat_diameter=state.throat_diameter,
                runs=tuple(runs),
            )
        )
    port = Port(
        id="intake-3", name="Intake 3", kind="intake", valve_id="valve-intake", cylinder=3, cuts=tuple(cuts)
    )  # fmt: skip
    return port, setups, mounts


def _mount(direction: Direction, number: int) -> int:
    return number + 1 + (0 if direction == "intake" else len(HEADS["intake"]))


def _cut(direction: Direction, number: int, state: SimulatedCut, run: FlowRun, date: str) -> Cut:
    name = f"{direction}-{number}"
    first = number == 0
    lengths = {"intake": (94.0, 114.0), "exhaust": (58.0, 74.0)}[direction]
    return Cut(
        id=name,
        number=number,
        name=state.name,
        date=date,
        throat_diameter=state.throat_diameter,
        floor_length=to_si(lengths[0], "mm") if first else None,
        roof_length=to_si(lengths[1], "mm") if first else None,
        **measured(direction, number),
        operations=tuple(
            Operation(
                id=f"{name}-work-{i}",
                kind=what,
                works=(
                    Work(id=f"{name}-work-{i}-1", place=place, depth=None if depth is None else to_si(depth, "mm")),
                ),
                tool=tool,
                duration=to_si(minutes, "min"),
            )
            for i, (place, what, tool, minutes, depth) in enumerate(state.work)
        ),
        runs=(run,),
        observations=air.observations(direction, number),
        pours=pours_of(name, state.volume, direction, number),
    )


def _probed(port: Port, valve: Valve) -> Port:
    """The port with its traverses: their points lie on the sections that its cuts measured."""
    cuts = []
    for cut, state in zip(port.cuts, HEADS[port.kind], strict=True):
        here = unroll(port, cut, valve)
        found = air.traverses(port.kind, cut.number, state.truth, TEST_PRESSURE, here)
        cuts.append(replace(cut, traverses=found))
    return replace(port, cuts=tuple(cuts))


def make_job() -> Job:
    """The demo job, made anew: same figures every time."""
    global _PADDLE
    _PADDLE = np.random.default_rng(SEED + 1)
    clock = _Clock()
    bench = SimulatedBench(clock, SEED)
    leak = to_si(0.4, "cfm")
    setups, mounts, valves, ports = [], [], [], []
    day = 4
    for direction, states in HEADS.items():
        truth = states[0].truth
        setups.append(
            SetUp(
                id=f"setup-{direction}",
                direction=direction,
                test_pressure=TEST_PRESSURE,
                bench="back-room",
                bore=to_si(89, "mm"),
                centred=True,
                entry="radius" if direction == "intake" else "bare",
                pipe="none" if direction == "exhaust" else None,
                valve="job",
                plug="in",
                clean=True,
                temperature=to_si(21, "degC"),
                pressure=to_si(1006, "hPa"),
                humidity=0.45,
                leak=leak,
                leak_pressure=TEST_PRESSURE,
            )
        )
        valves.append(
            Valve(
                id=f"valve-{direction}",
                name=f"{direction} valve",
                head_diameter=truth.valve_diameter,
                stem_diameter=truth.stem_diameter,
                seat_width=truth.seat_width,
                seat_angle=truth.seat_angle,
            )
        )
        cuts = []
        for number, state in enumerate(states):
            date = f"2026-05-{day:02d}"
            mounts.append(Mount(id=f"mount-{_mount(direction, number)}", number=_mount(direction, number), date=date))
            cuts.append(_cut(direction, number, state, _run(bench, clock, direction, number, date), date))
            day += 1
        ports.append(
            _probed(
                Port(
                    id=direction,
                    name=f"{direction.capitalize()} 1",
                    kind=direction,
                    valve_id=f"valve-{direction}",
                    cuts=tuple(cuts),
                    faults=metal.FAULTS[direction],
                ),
                valves[-1],
            )
        )
    bridged, more_setups, more_mounts = _bridged_port(clock, setups[0])
    return Job(
        id="demo-corvane-22h",
        title="Corvane 22H head",
        note="An invented head on an invented bench. Every figure comes from the simulated bench.",
        bore=to_si(89, "mm"),
        cam_lift=to_si(0.46, "in"),
        cam_duration=to_si(220, "deg"),
        worthwhile_gain=to_si(2, "cfm"),
        material="aluminium",
        cylinders=4,
        engine_cylinders=4,
        valves_per_cylinder=2,
        flatness=to_si(0.03, "mm"),
        condition="No cracks seen. Light corrosion at the front water passage. Bought with the seats cut once.",
        stroke=to_si(88.5, "mm"),
        rod_length=to_si(152, "mm"),
        speed_low=to_si(2500, "rpm"),
        speed_high=to_si(6800, "rpm"),
        power_wanted=to_si(118, "kW"),
        exhaust_cam_lift=to_si(0.44, "in"),
        exhaust_cam_duration=to_si(224, "deg"),
        intake_centreline=to_si(108, "deg"),
        exhaust_centreline=to_si(114, "deg"),
        compression_ratio=10.2,
        volume_ceiling=to_si(126, "cc"),
        targets=(Target(id="target-1", kind="intake", lift=to_si(0.45, "in"), flow=to_si(200, "cfm")),),
        wall_limits=(WallLimit(id="limit-1", place="short side", thickness=to_si(0.110, "in")),),
        valves=tuple(valves),
        ports=(*ports, metal.one_sided_port(), bridged),
        my_lifts=metal.MY_LIFTS,
        chambers=metal.CHAMBERS,
        seats=metal.SEATS,
        setups=(*setups, *more_setups),
        mounts=(*mounts, *more_mounts),
    )


def demo_benches() -> tuple[Bench, ...]:
    """The invented shop's benches, made anew from the simulator: one with a history, one at a friend's."""
    random = np.random.default_rng(SEED)
    nominal = to_si(152, "cfm")
    plates = tuple(
        PlateCheck(
            id=f"plate-{i}",
            nominal=nominal,
            flow=to_si(round(152 * (1 + 0.0018 * float(random.standard_normal())), 1), "cfm"),
            pressure=TEST_PRESSURE,
            date=f"2026-05-{4 + i:02d}",
        )
        for i in range(9)
    )
    lifts = {0.2: 110.0, 0.4: 176.0, 0.5: 198.0}
    readings = []
    for mount in range(1, 6):
        moved = 1 + 0.003 * float(random.standard_normal())
        for lift, flow in lifts.items():
            for again in range(2):
                seen = flow * moved * (1 + 0.0025 * float(random.standard_normal()))
                name = f"study-{mount}-{lift}-{again}"
                value = to_si(round(seen, 1), "cfm")
                readings.append(StudyReading(id=name, mount=mount, lift=to_si(lift, "in"), flow=value))
    parts = tuple(
        TransferPart(id=f"part-{i}", name=name, here=to_si(here, "cfm"), there=to_si(there, "cfm"))
        for i, (name, here, there) in enumerate(
            (("plate", 151.9, 156.8), ("spare head, 0.300", 148.2, 152.7), ("spare head, 0.500", 203.0, 210.1))
        )
    )
    return (
        Bench(
            id="bench-back-room",
            name="back-room",
            link="simulated",
            leak_taken_off=False,
            blower_limit=to_si(245, "cfm"),
            test_pressure=TEST_PRESSURE,
            dial_resolution=to_si(0.001, "in"),
            plate_name="brass plate",
            plate_flow=nominal,
            plates=plates,
            studies=(ScatterStudy(id="study", date="2026-05-03", head="spare head", readings=tuple(readings)),),
            transfers=(Transfer(id="transfer", other="the barn", date="2026-05-02", parts=parts),),
        ),
        Bench(
            id="bench-barn",
            name="the barn",
            element="percent",
            ranges=tuple(to_si(r, "cfm") for r in (75, 150, 300)),
            corrected=False,
            leak_taken_off=False,
            scale_density=1.2014,
            test_pressure=TEST_PRESSURE,
        ),
    )


if __name__ == "__main__":
    target = Path(__file__).with_name(FILE)
    target.write_text(dumps_job(make_job(), demo_benches()), encoding="utf-8")
    print(f"{target.name} written")

"""The demo head, made by the simulated bench: `python -m scripts.demo_head.job` writes the document that ships."""

from __future__ import annotations

import shutil
from dataclasses import replace
from pathlib import Path
from typing import Final

import numpy as np
from scripts.demo_head import air, metal
from scripts.demo_head.measured import measured, pours_of
from scripts.demo_head.scans import with_scans

from ventrix import demo
from ventrix.bench.simulator.air_picture import swirl_coefficient
from ventrix.bench.simulator.bench import SimulatedBench
from ventrix.bench.simulator.heads.shipped import HEADS, SimulatedCut
from ventrix.bench.simulator.lies import Lie
from ventrix.core.formulas.atmosphere import REFERENCE_DENSITY
from ventrix.core.metal.unrolled import unroll
from ventrix.core.model.cut import Cut, Operation, Port, Work
from ventrix.core.model.job import Job
from ventrix.core.model.job_parts import Target, Valve, WallLimit
from ventrix.core.model.kinds import Direction
from ventrix.core.model.run import FlowRun, Mount, Reading, SetUp
from ventrix.core.quantity.units import from_si, to_si
from ventrix.demo.job import FILE, SEED, TEST_PRESSURE, demo_benches
from ventrix.records.files.job_document import dumps_job

LIFTS: Final[dict[Direction, int]] = {"intake": 12, "exhaust": 10}  # steps of 0.050 in
REPEATED: Final = (2, 5, 8)  # rungs flowed a second time


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


if __name__ == "__main__":
    target = Path(demo.__file__).with_name(FILE)
    made = make_job()
    scans = target.with_name("scans")
    shutil.rmtree(scans, ignore_errors=True)
    made = replace(made, ports=(with_scans(made.ports[0], scans), *made.ports[1:]))
    target.write_text(dumps_job(made, demo_benches()), encoding="utf-8")
    print(f"{target.name} written")

"""The next hour's list followed on whole virtual heads, against other ways of spending the same hours.

``python -m benchmarks.next_hour [HEADS]`` plays heads of four intakes and four exhausts of one casting each, with walls
that differ, two faults that the job names, and a promised hour; flows and wall readings scatter, a pass by hand comes
out 15 % either way. Each is worked in five ways: by the list, greedily; one port after the other, stage by stage; all
ports of a stage together; and by an oracle that knows every port's truth and every wall. Printed a structure: the gain
at the promised hour, weighted by kind, over the oracle's (aim 0.85) and over the better of the usual two (aim 0.05
more), walls broken and named faults not looked at (aim 0 of each). What has to be done before metal costs every way
alike, the oracle too: each port looked over, each wall read once where it is worked; only that he knows before.
"""

from __future__ import annotations

import sys
from collections.abc import Callable, Iterator
from dataclasses import dataclass, field, replace
from datetime import date
from itertools import product
from typing import Final

import numpy as np

from benchmarks.plan_ports import GENERATORS, LIFT, OfCasting
from ventrix.bench.simulator.heads.virtual import MINUTES, PRESSURE, VirtualPort
from ventrix.bench.simulator.practice.head import PracticeHead, scaled
from ventrix.bench.simulator.practice.virtual_job import as_measured, practice_job
from ventrix.core.edits.cuts import add_cut, add_wall, edit_port
from ventrix.core.edits.faults import gone_through, set_fault_state
from ventrix.core.edits.runs import start_run
from ventrix.core.edits.stages import close_stage
from ventrix.core.judging.findings import Findings
from ventrix.core.judging.model_port import developed_port
from ventrix.core.matching.copying import copies
from ventrix.core.model.cut import Cut, Fault, Operation, Port, WallReading, Work
from ventrix.core.model.job import Job
from ventrix.core.model.job_parts import StageMark
from ventrix.core.model.kinds import FaultKind, FaultState, Place
from ventrix.core.model.run import FlowRun, Mount, Reading
from ventrix.core.next_hour.evening import evening
from ventrix.core.next_hour.metal_items import COPY_LEARNS
from ventrix.core.next_hour.work_item import ItemKind, WorkItem
from ventrix.core.next_hour.work_list import work_list
from ventrix.core.planning.cut_moves import DEPTHS
from ventrix.core.planning.moves import CUTS, MoveKind

TODAY: Final = date(2026, 5, 4)
KINDS: Final = ("intake", "exhaust")
CYLINDERS: Final = (1, 2, 3, 4)
ROUTE: Final = (Place.BOWL, Place.SHORT_SIDE, Place.GUIDE, Place.PINCH, Place.THROAT, Place.OPENING)
PASS: Final = 0.5e-3  # m, of the usual ways
LEFT: Final = 2.6e-3  # m of wall that nobody goes under
WALL, LOOK, FLOW, FAULT = 5.0, 8.0, 30.0, 8.0  # min
GAUGE: Final = 0.02
EXHAUST: Final = 0.3  # of an intake's percent: its share is met
NEAR: Final = 0.25  # of a spread of 1 between castings: what ports of one head differ by
Name = str


@dataclass
class Bay:
    """A head on the bench: its true ports, what was read and noted of it as a job, the hours until the promise [h], and
    those gone [min]."""

    ports: dict[Name, VirtualPort]
    job: Job
    hours: float
    random: np.random.Generator
    gone: float = 0.0
    n: int = 0
    began: dict[Name, float] = field(default_factory=dict)
    looked: set[tuple[Name, Place | None]] = field(default_factory=set)  # by the oracle: walls, and whole ports

    def __post_init__(self) -> None:
        self.began = {name: _mean(p) for name, p in self.ports.items()}

    def key(self) -> str:
        self.n += 1
        return f"b{self.n}"

    def takes(self, minutes: float) -> bool:
        """Whether so many minutes are left; they are then gone."""
        if self.gone + minutes > 60 * self.hours:
            self.gone = 60 * self.hours
            return False
        self.gone += minutes
        return True

    @property
    def gain(self) -> float:
        """Share gained by its ports, weighted by kind, in percent."""
        return 100 * sum(
            (1.0 if name.startswith("Intake") else EXHAUST) * (_mean(p) / self.began[name] - 1)
            for name, p in self.ports.items()
        )


def _mean(port: VirtualPort) -> float:
    return float(np.mean(port.flow(LIFT)))


def head(structure: str, seed: int) -> Bay:
    """A head of a structure, as it comes in: eight ports of one casting, two named faults, 14 to 26 hours."""
    random = np.random.default_rng((seed, 81))
    ports: dict[Name, VirtualPort] = {}
    parts: list[Job] = []
    for n, (cylinder, kind) in enumerate(product(CYLINDERS, KINDS)):
        own = GENERATORS[structure](OfCasting(2 * seed + KINDS.index(kind), n, NEAR))
        port = own if kind == "intake" else scaled(own, 0.83)
        metal = port.metal
        walls = {p: w * float(np.exp(0.12 * random.standard_normal())) for p, w in metal.walls.items()}
        port = port.with_metal(replace(metal, walls=walls))
        name = f"{kind.capitalize()} {cylinder}"
        ports[name] = port
        made = PracticeHead("virtual", "virtual", "", "", 8.0, lambda _seed, port=port: port, kind)
        job = practice_job(made, seed, f"{kind}-{cylinder}")
        grown = replace(job.ports[0], id=name, name=name, cylinder=cylinder, head_id="head")
        parts.append(replace(job, ports=(grown,)))
    setups = tuple(parts[i].setups[0] for i in (0, 1))
    job = replace(
        parts[0], id="virtual-head", practice="", setups=setups, cylinders=4, engine_cylinders=4, valves_per_cylinder=2,
        valves=tuple(v for p in parts for v in p.valves), ports=tuple(p for part in parts for p in part.ports),
        heads=(replace(parts[0].heads[0], id="head"),), flatness=0.00004,
    )  # fmt: skip
    for name in random.choice(list(ports), 2, replace=False):
        fault = Fault(id=f"fault-{name}", kind=FaultKind.SLAG.value, place="bowl")
        job = edit_port(job, str(name), lambda p, fault=fault: replace(p, faults=(fault,)))
    return Bay(ports, job, float(random.uniform(14, 26)), np.random.default_rng((seed, 82)))


def read_wall(bay: Bay, name: Name, place: Place) -> float:
    """What the gauge says there [m]; noted."""
    found = bay.ports[name].metal.walls[place] * (1 + GAUGE * float(bay.random.standard_normal()))
    behind = "water" if place in (Place.BOWL, Place.SHORT_SIDE) else ""
    wall = WallReading(id=bay.key(), place=place.value, thickness=found, behind=behind, date=TODAY.isoformat())
    bay.job = add_wall(bay.job, bay.job.port(name).cuts[-1].id, wall)
    return found


def flow_it(bay: Bay, name: Name) -> None:
    """Bolt a port down and flow it at its last cut."""
    kind = bay.job.port(name).kind
    setup = next(s for s in bay.job.setups if s.direction == kind)
    mount = Mount(id=bay.key(), number=len(bay.job.mounts) + 1, date=TODAY.isoformat())
    flows = bay.ports[name].measured(LIFT, bay.random)
    readings = tuple(
        Reading(id=bay.key(), lift=float(x), flow=float(q), measured_pressure=PRESSURE)
        for x, q in zip(LIFT, flows, strict=True)
    )
    run = FlowRun(id=bay.key(), setup_id=setup.id, mount_id=mount.id, date=mount.date, source="v", readings=readings)
    bay.job = start_run(bay.job, bay.job.port(name).cuts[-1].id, run, setup, mount)


def grind(bay: Bay, name: Name, works: list[tuple[Place, float]], stage: str = "") -> None:
    """Take metal off, and log it as the port's next cut."""
    for place, depth in works:
        bay.ports[name] = bay.ports[name].work(place, depth, bay.random)
    done = tuple(
        Operation(id=bay.key(), kind="rough", stage=stage, duration=60 * minutes([(place, depth)]),
                  works=(Work(id=bay.key(), place=place.value, depth=depth),), date=TODAY.isoformat())
        for place, depth in works
    )  # fmt: skip
    cut = Cut(id=bay.key(), number=0, name="+".join(p.value for p, _ in works), date=TODAY.isoformat(), operations=done)
    bay.job = add_cut(bay.job, name, as_measured(cut, bay.ports[name]))


def minutes(works: list[tuple[Place, float]]) -> float:
    """At the grinder, of passes on a first port."""
    return sum(begin + each * depth * 1e3 for (each, begin), depth in ((MINUTES[p], d) for p, d in works))


# The ways of working.


def by_list(bay: Bay) -> None:
    """Do what stands first on the list, again and again."""
    while bay.gone < 60 * bay.hours:
        left = 60 * (60 * bay.hours - bay.gone)
        found = work_list(Findings(bay.job), TODAY, left=left)
        items = [i for i in found.items if _can_be_done(i)]
        fits = next(iter(evening(items, left)), None) if left > 0 else None
        # A copy that does not fit as a whole is begun: a porter does as much of it as there is time for.
        begun = (i for i in items if i is fits or (i.kind is ItemKind.COPY and not i.waits))
        item = next(begun, None) if left > 0 else None
        if item is None or not _do(bay, item):
            return


def _can_be_done(item: WorkItem) -> bool:
    """Seats, valves and manifolds change nothing on a virtual port."""
    if item.kind is ItemKind.CUT and item.move is not None:
        return item.move.kind in (*CUTS, MoveKind.BATCH) and not item.move.named
    return item.kind in (ItemKind.LOOK, ItemKind.COPY, ItemKind.FAULT, ItemKind.FINISH, ItemKind.CUT)


def _do(bay: Bay, item: WorkItem) -> bool:
    if item.kind is ItemKind.CUT and item.move is not None:
        works = [(Place(m.place), m.depth or 0.0) for m in item.move.passes or (item.move,)]
        assert item.port is not None
        works = _as_many_as_fit(bay, works, 1.0)
        if not works:
            return False
        grind(bay, item.port.name, works)
        if bay.takes(FLOW):
            flow_it(bay, item.port.name)
        return True
    if item.kind is ItemKind.COPY:
        return _copy(bay, item)
    if item.key.startswith("flow ") and item.port is not None:
        if bay.takes(FLOW):
            flow_it(bay, item.port.name)
        return True
    if not bay.takes(item.seconds / 60):
        return False
    if item.key.startswith("wall ") and item.port is not None:
        read_wall(bay, item.port.name, Place(item.place))
    elif item.key.startswith("faults ") and item.port is not None:
        looked_over(bay, item.port.name)
    elif item.kind is ItemKind.FAULT and item.port is not None:
        remove_fault(bay, item.port)
    else:
        _close(bay, item)
    return True


def _copy(bay: Bay, item: WorkItem) -> bool:
    model = developed_port(Findings(bay.job), item.port.kind) if item.port is not None else None
    assert model is not None and item.port is not None
    each = [c for c in copies(bay.job, model, model.cuts[-1], item.port) if c.depth and c.place in item.places]
    works = [(Place(c.place), float(c.depth or 0.0)) for c in each]
    works = _as_many_as_fit(bay, works, COPY_LEARNS)
    if not works:
        return False
    grind(bay, item.port.name, works)
    return True


def _as_many_as_fit(bay: Bay, works: list[tuple[Place, float]], learned: float) -> list[tuple[Place, float]]:
    """The first of some passes that there is time for; it is then gone."""
    done = []
    for each in works:
        if bay.gone + learned * minutes([each]) <= 60 * bay.hours:
            bay.gone += learned * minutes([each])
            done.append(each)
    return done


def looked_over(bay: Bay, name: Name) -> None:
    bay.job = gone_through(bay.job, name, TODAY.isoformat())


def remove_fault(bay: Bay, port: Port) -> None:
    for fault in (f for f in port.faults if f.state == FaultState.OPEN):
        bay.job = set_fault_state(bay.job, fault.id, FaultState.GONE, port.cuts[-1])


def _close(bay: Bay, item: WorkItem) -> None:
    found = work_list(Findings(bay.job), TODAY).record
    for state in found.of_stage(item.stage):
        if not state.done and (item.port is None or state.of == item.port.name):
            mark = StageMark(id=bay.key(), stage=item.stage, unit=state.unit, of=state.of, closed_by="by hand")
            bay.job = close_stage(bay.job, mark)
            return


def _ready(bay: Bay, names: list[Name]) -> None:
    """What is done before metal: looking over, faults off."""
    for name in names:
        if bay.takes(LOOK):
            looked_over(bay, name)
        port = bay.job.port(name)
        if port.faults and bay.takes(FAULT):
            remove_fault(bay, port)


def _stage(bay: Bay, name: Name, place: Place, learned: float) -> None:
    """One stage at one port: the wall read, and a pass where it leaves enough."""
    if not bay.takes(WALL):
        return
    if read_wall(bay, name, place) - 1.25 * PASS >= LEFT and bay.takes(learned * minutes([(place, PASS)])):
        grind(bay, name, [(place, PASS)])


def port_by_port(bay: Bay) -> None:
    """One port finished first, two rounds of the usual order, flowed after each stage; then the next."""
    for i, name in enumerate(bay.ports):
        _ready(bay, [name])
        for place in (*ROUTE, *ROUTE):
            _stage(bay, name, place, 1.0 if i < len(KINDS) else COPY_LEARNS)
            bay.takes(FLOW if i < len(KINDS) else 0.0)


def stage_by_stage(bay: Bay) -> None:
    """All ports of a stage together, the first of a kind flowed after each."""
    _ready(bay, list(bay.ports))
    for place in (*ROUTE, *ROUTE):
        for i, name in enumerate(bay.ports):
            _stage(bay, name, place, 1.0 if i < len(KINDS) else COPY_LEARNS)
            bay.takes(FLOW if i < len(KINDS) else 0.0)


def by_oracle(bay: Bay) -> None:
    """Best true hour first: a pass on all ports of a kind whose wall allows it, the first in full and flowed, the
    others as copies."""
    faulty = [p.name for p in bay.job.ports if p.faults]
    _ready(bay, faulty)
    bay.looked |= {(name, None) for name in faulty}
    while True:
        best = max(_open_passes(bay), key=lambda found: found[0], default=None)
        if best is None or best[0] <= 0:
            return
        _, spent, names, place, depth = best
        bay.gone += spent
        bay.looked |= {(name, place) for name in names} | {(name, None) for name in names}
        for name in names:
            bay.ports[name] = bay.ports[name].work(place, depth)


def _open_passes(bay: Bay) -> Iterator[tuple[float, float, list[Name], Place, float]]:
    for kind, place, depth in product(KINDS, ROUTE, DEPTHS):
        names = [n for n in bay.ports if n.startswith(kind.capitalize())]
        names = [n for n in names if bay.ports[n].metal.walls[place] - depth >= LEFT]
        gains = {n: _mean(bay.ports[n].work(place, depth)) / bay.began[n] - _mean(bay.ports[n]) / bay.began[n]
                 for n in names}  # fmt: skip
        names = sorted((n for n in names if gains[n] > 0), key=lambda n: -gains[n])
        own, weight = minutes([(place, depth)]), 1.0 if kind == "intake" else EXHAUST
        for many in range(1, len(names) + 1):
            chosen = names[:many]
            spent = own + FLOW + (many - 1) * COPY_LEARNS * own
            spent += sum(WALL * ((n, place) not in bay.looked) + LOOK * ((n, None) not in bay.looked) for n in chosen)
            if bay.gone + spent <= 60 * bay.hours:
                yield weight * sum(gains[n] for n in chosen) / spent, spent, chosen, place, depth


WAYS: Final[dict[str, Callable[[Bay], None]]] = {
    "list": by_list, "port by port": port_by_port, "stage by stage": stage_by_stage, "oracle": by_oracle,
}  # fmt: skip


def _unlooked(bay: Bay) -> int:
    return sum(f.state == FaultState.OPEN for p in bay.job.ports for f in p.faults)


def main() -> None:
    heads = int(sys.argv[1]) if len(sys.argv) > 1 else 3
    heading = ("structure", "heads", "of the oracle", "over the usual", "walls", "faults")
    print("{:<14}{:>6}{:>15}{:>16}{:>7}{:>8}   each way [%]".format(*heading), flush=True)
    for structure in GENERATORS:
        gains: dict[str, list[float]] = {way: [] for way in WAYS}
        broken = unlooked = 0
        for seed in range(heads):
            for way, work in WAYS.items():
                bay = head(structure, seed)
                work(bay)
                gains[way].append(bay.gain)
                if way == "list":
                    broken += sum(p.broken for p in bay.ports.values())
                    unlooked += _unlooked(bay)
        mean = {way: float(np.mean(each)) for way, each in gains.items()}
        usual = max(mean["port by port"], mean["stage by stage"]) / mean["oracle"]
        share = mean["list"] / mean["oracle"]
        said = " ".join(f"{way} {value:.0f}" for way, value in mean.items())
        print(
            f"{structure:<14}{heads:>6}{share:>15.2f}{share - usual:>+16.2f}{broken:>7}{unlooked:>8}   {said}",
            flush=True,
        )


if __name__ == "__main__":
    main()

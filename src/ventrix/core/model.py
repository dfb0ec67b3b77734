"""The nouns of the trade as frozen values. An edit makes a new one; nothing here computes.

Numbers are SI. A field that carries a unit names in its metadata the unit in which documents and
tables write it, so that every border writes the same one. ``None`` means "not recorded".
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field
from typing import Any, Literal, TypeVar

Direction = Literal["intake", "exhaust"]
CutKind = Literal["port", "valve", "chamber", "clean", "finish"]
TrialKind = Literal["clay", "valve", "entry", "pipe"]


def quantity(unit: str) -> Any:
    """A dataclass field holding an SI number that documents write in `unit`."""
    return field(default=None, metadata={"unit": unit})


@dataclass(frozen=True, slots=True, kw_only=True)
class Noun:
    """Anything the book keeps: an id that never changes, and keys we did not understand."""

    id: str
    extra: Mapping[str, Any] = field(default_factory=dict)


AnyNoun = TypeVar("AnyNoun", bound=Noun)


@dataclass(frozen=True, slots=True, kw_only=True)
class Valve(Noun):
    """A valve and the seat it sits on. The seat width is measured along the face."""

    name: str = ""
    head_diameter: float | None = quantity("mm")
    stem_diameter: float | None = quantity("mm")
    seat_width: float | None = quantity("mm")
    seat_angle: float | None = quantity("deg")


@dataclass(frozen=True, slots=True, kw_only=True)
class SetUp(Noun):
    """The conditions that readings were taken under."""

    direction: Direction
    test_pressure: float | None = quantity("Pa")
    bench: str | None = None
    bore: float | None = quantity("mm")
    centred: bool | None = None
    entry: str | None = None
    pipe: str | None = None
    pipe_diameter: float | None = quantity("mm")
    pipe_length: float | None = quantity("mm")
    valve: str | None = None
    valves_open: str | None = None
    springs: str | None = None
    plug: str | None = None
    clean: bool | None = None
    temperature: float | None = quantity("degC")
    pressure: float | None = quantity("hPa")
    humidity: float | None = quantity("%")
    plenum_temperature: float | None = quantity("degC")
    air_read_at: str | None = None
    leak: float | None = quantity("cfm")
    leak_pressure: float | None = quantity("Pa")
    seat_leak: float | None = quantity("cfm")
    # The flow element as it was on the day, copied from the bench: None needs no correction.
    element: str | None = None
    scale_density: float | None = quantity("kg/m3")
    orifice_diameter: float | None = quantity("mm")
    orifice_pipe: float | None = quantity("mm")
    orifice_coefficient: float | None = quantity("-")


@dataclass(frozen=True, slots=True, kw_only=True)
class Mount(Noun):
    """One bolting-down of the head."""

    number: int
    date: str | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Reading(Noun):
    """One reading as it was taken. Never changed: struck with a reason, and kept.

    It holds either a flow, a percent of a range, an element's pressure drop, a mass flow, or two
    columns of water. `returned` marks a reading taken on coming back to a low lift at the end.
    """

    lift: float = field(metadata={"unit": "mm"})
    flow: float | None = quantity("cfm")
    percent: float | None = quantity("%")
    full_scale: float | None = quantity("cfm")
    element_column: float | None = quantity("mmH2O")
    port_column: float | None = quantity("mmH2O")
    element_pressure: float | None = quantity("Pa")
    mass_flow: float | None = quantity("kg/s")
    measured_pressure: float | None = quantity("Pa")
    swirl: float | None = quantity("rpm")
    spread: float | None = quantity("cfm")
    window: float | None = quantity("s")
    time: str | None = None
    unsteady: bool = False
    returned: bool = False
    struck: str | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class StepRecord(Noun):
    """A step of preparing the bench: done with its figures, or skipped with a reason."""

    kind: str
    skipped: str | None = None
    flow: float | None = quantity("cfm")
    pressure: float | None = quantity("Pa")
    drift: float | None = quantity("%")
    time: str | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class RungNote(Noun):
    """What was noticed at a lift: noise, a dip, out of travel, out of breath, skipped."""

    lift: float = field(metadata={"unit": "mm"})
    kind: str
    text: str = ""
    time: str | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class FlowRun(Noun):
    """Readings of one cut or trial, under one set-up, in one mount; `source` says how they came.

    `witness_id` names the run of the witness port flowed at this setting-up of the bench.
    """

    setup_id: str
    mount_id: str | None = None
    date: str | None = None
    source: str = "typed"
    witness_id: str | None = None
    readings: tuple[Reading, ...] = ()
    steps: tuple[StepRecord, ...] = ()
    rung_notes: tuple[RungNote, ...] = ()

    def step(self, kind: str) -> StepRecord | None:
        """The last step of a kind that was done."""
        return next((s for s in reversed(self.steps) if s.kind == kind and s.skipped is None), None)


@dataclass(frozen=True, slots=True, kw_only=True)
class Pour(Noun):
    """One filling of the port from a burette, and how it was done."""

    volume: float = field(metadata={"unit": "cc"})
    how: str = ""
    date: str | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Operation(Noun):
    """A piece of work on the metal. Logged once for many ports, its minutes are shared."""

    kind: str
    places: tuple[str, ...] = ()
    depth: float | None = quantity("mm")
    tool: str = ""
    finish: str = ""
    duration: float | None = quantity("min")
    port_ids: tuple[str, ...] = ()
    note: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class WallReading(Noun):
    """Metal left at one place, by ultrasonic gauge."""

    place: str
    thickness: float = field(metadata={"unit": "mm"})
    date: str | None = None
    note: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class ProbePoint(Noun):
    """One reading of a pitot probe at a named point."""

    name: str
    reading: float = field(metadata={"unit": "Pa"})
    struck: str | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Traverse(Noun):
    """Named points of one station, read at one lift and pressure."""

    station: str
    setup_id: str | None = None
    lift: float | None = quantity("mm")
    points: tuple[ProbePoint, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Observation(Noun):
    """What was heard or seen: noise, a wet pattern."""

    kind: str
    text: str = ""
    lift: float | None = quantity("mm")
    date: str | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Trial(Noun):
    """A try that can be taken back: clay, another valve, another entry, a pipe."""

    kind: TrialKind
    name: str = ""
    note: str = ""
    runs: tuple[FlowRun, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Cut(Noun):
    """One state of one port; cut 0 is as received. Unmeasured dimensions are carried forward."""

    number: int
    name: str = ""
    kind: CutKind = "port"
    date: str | None = None
    throat_diameter: float | None = quantity("mm")
    floor_length: float | None = quantity("mm")
    roof_length: float | None = quantity("mm")
    note: str = ""
    operations: tuple[Operation, ...] = ()
    trials: tuple[Trial, ...] = ()
    runs: tuple[FlowRun, ...] = ()
    pours: tuple[Pour, ...] = ()
    walls: tuple[WallReading, ...] = ()
    traverses: tuple[Traverse, ...] = ()
    observations: tuple[Observation, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Port(Noun):
    """One port and its row of cuts. `valves` equal valves open into it. A witness port is never cut."""

    name: str
    kind: Direction
    valve_id: str | None = None
    valves: int = 1
    witness: bool = False
    cuts: tuple[Cut, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Job(Noun):
    """A head and its goal."""

    title: str
    note: str = ""
    bore: float | None = quantity("mm")
    cam_lift: float | None = quantity("mm")
    cam_duration: float | None = quantity("deg")
    worthwhile_gain: float | None = quantity("cfm")
    valves: tuple[Valve, ...] = ()
    ports: tuple[Port, ...] = ()
    setups: tuple[SetUp, ...] = ()
    mounts: tuple[Mount, ...] = ()

    def port(self, port_id: str) -> Port:
        return _find(self.ports, port_id)

    def valve_of(self, port: Port) -> Valve | None:
        return next((v for v in self.valves if v.id == port.valve_id), None)

    def setup(self, setup_id: str) -> SetUp:
        return _find(self.setups, setup_id)

    def mount(self, mount_id: str | None) -> Mount | None:
        return next((m for m in self.mounts if m.id == mount_id), None)

    def cut_of(self, cut_id: str) -> tuple[Port, Cut]:
        for port in self.ports:
            for cut in port.cuts:
                if cut.id == cut_id:
                    return port, cut
        raise KeyError(cut_id)

    def runs(self) -> Iterator[FlowRun]:
        """Every run of every cut and trial."""
        for port in self.ports:
            for cut in port.cuts:
                yield from cut.runs
                for trial in cut.trials:
                    yield from trial.runs


def _find(items: tuple[AnyNoun, ...], wanted: str) -> AnyNoun:
    for item in items:
        if item.id == wanted:
            return item
    raise KeyError(wanted)


@dataclass(frozen=True, slots=True)
class Carried:
    """A figure of a cut, and the number of the cut that it was measured at."""

    value: float
    cut_number: int


def poured_volume(cut: Cut) -> float | None:
    """Mean of a cut's pours [m3], or None where it was not poured."""
    return sum(p.volume for p in cut.pours) / len(cut.pours) if cut.pours else None


def carried(port: Port, cut: Cut, name: str) -> Carried | None:
    """A figure of `cut`, or of the last cut before it that measured one.

    `name` is a field of `Cut`, or ``"volume"`` for the mean of its pours.
    """
    found = None
    for earlier in port.cuts:
        value = poured_volume(earlier) if name == "volume" else getattr(earlier, name)
        if value is not None:
            found = Carried(value, earlier.number)
        if earlier.id == cut.id:
            break
    return found

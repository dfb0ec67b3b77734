"""The nouns of the trade as frozen values. An edit makes a new one; nothing here computes.

Numbers are SI. A field that carries a unit names in its metadata the unit in which documents and
tables write it, so that every border writes the same one. ``None`` means "not recorded".
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field, replace
from typing import Any, Literal, TypeVar

from ventrix.core.flow_nouns import (
    FlowRun,
    Mount,
    Observation,
    ProbePoint,
    Reading,
    RungNote,
    SetUp,
    StepRecord,
    Traverse,
)
from ventrix.core.nouns import Direction, Noun, quantity

__all__ = [
    "AnyNoun",
    "Band",
    "CamPoint",
    "Carried",
    "CheckMark",
    "Cut",
    "CutKind",
    "Direction",
    "FlowRun",
    "Job",
    "Mount",
    "Noun",
    "Observation",
    "Operation",
    "Photo",
    "Port",
    "Pour",
    "ProbePoint",
    "Reading",
    "RungNote",
    "SetUp",
    "Station",
    "StepRecord",
    "Target",
    "Traverse",
    "Trial",
    "TrialKind",
    "Valve",
    "WallLimit",
    "WallReading",
    "carried",
    "poured_volume",
    "quantity",
    "trial_as_cut",
]

# "entry" and "pipe" are only ever a trial's stand-in
CutKind = Literal["port", "valve", "seat", "chamber", "clean", "finish", "fill", "entry", "pipe"]
Band = Literal["floor", "roof", "left", "right"]
TrialKind = Literal["clay", "valve", "entry", "pipe"]
AnyNoun = TypeVar("AnyNoun", bound=Noun)


@dataclass(frozen=True, slots=True, kw_only=True)
class Valve(Noun):
    """A valve and the seat it sits on. The seat width is measured along the face."""

    name: str = ""
    head_diameter: float | None = quantity("mm")
    stem_diameter: float | None = quantity("mm")
    seat_width: float | None = quantity("mm")
    seat_angle: float | None = quantity("deg")
    seat_margin: float | None = quantity("mm")
    seat_insert: bool | None = None
    back_cut_angle: float | None = quantity("deg")
    back_shape: str = ""
    weight: float | None = quantity("g")


@dataclass(frozen=True, slots=True, kw_only=True)
class Pour(Noun):
    """One filling of the port from a burette, and how it was done."""

    volume: float = field(metadata={"unit": "cc"})
    how: str = ""
    date: str | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Operation(Noun):
    """A piece of work on the metal. Logged once for many ports, its minutes are shared.

    `started_at` is set while its timer runs: that survives a crash.
    """

    kind: str
    places: tuple[str, ...] = ()
    depth: float | None = quantity("mm")
    tool: str = ""
    tool_diameter: float | None = quantity("mm")
    finish: str = ""
    duration: float | None = quantity("min")
    started_at: str | None = None
    date: str | None = None
    port_ids: tuple[str, ...] = ()
    note: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class WallReading(Noun):
    """Metal left at one place, by ultrasonic gauge: where along and around the port, and what lies behind.

    `along` is the distance from the opening along the centreline; `across` goes from -1 to 1 over the band.
    """

    place: str
    thickness: float = field(metadata={"unit": "mm"})
    band: str | None = None
    along: float | None = quantity("mm")
    across: float = field(default=0.0, metadata={"unit": "-"})
    behind: str = ""
    probe: str = ""
    sound_speed: float | None = quantity("m/s")
    uncertainty: float | None = quantity("mm")
    date: str | None = None
    note: str = ""
    struck: str | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Station(Noun):
    """A measured section of the port, square to its centreline: distance from the opening and size."""

    along: float = field(metadata={"unit": "mm"})
    name: str = ""
    width: float | None = quantity("mm")
    height: float | None = quantity("mm")
    corner_radius: float | None = quantity("mm")
    area: float | None = quantity("mm2")


@dataclass(frozen=True, slots=True, kw_only=True)
class Photo(Noun):
    """A picture in the book's own folder, by its file name there. `moment` is before, after or empty."""

    file: str
    moment: str = ""
    caption: str = ""
    date: str | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Trial(Noun):
    """A try that can be taken back: clay, another valve, another entry, a pipe."""

    kind: TrialKind
    name: str = ""
    place: str = ""
    area_taken: float | None = quantity("mm2")
    area_uncertainty: float | None = quantity("mm2")
    note: str = ""
    date: str | None = None
    runs: tuple[FlowRun, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Cut(Noun):
    """One state of one port; cut 0 is as received. Unmeasured dimensions are carried forward.

    What was expected of it before the work (`expected_...`) is scored afterwards.
    """

    number: int
    name: str = ""
    kind: CutKind = "port"
    date: str | None = None
    throat_diameter: float | None = quantity("mm")
    bowl_diameter: float | None = quantity("mm")
    guide_diameter: float | None = quantity("mm")
    guide_length: float | None = quantity("mm")
    boss_width: float | None = quantity("mm")
    boss_shape: str | None = None
    opening_width: float | None = quantity("mm")
    opening_height: float | None = quantity("mm")
    opening_corner: float | None = quantity("mm")
    pinch_width: float | None = quantity("mm")
    pinch_height: float | None = quantity("mm")
    pinch_corner: float | None = quantity("mm")
    hole_spacing: float | None = quantity("mm")
    short_side_height: float | None = quantity("mm")
    short_side_radius: float | None = quantity("mm")
    floor_length: float | None = quantity("mm")
    roof_length: float | None = quantity("mm")
    port_angle: float | None = quantity("deg")
    seat_width: float | None = quantity("mm")
    seat_margin: float | None = quantity("mm")
    chamber_volume: float | None = quantity("cc")
    gasket_land: float | None = quantity("mm")
    expected_gain: float | None = quantity("cfm")
    expected_growth: float | None = quantity("cc")
    expected_time: float | None = quantity("min")
    note: str = ""
    operations: tuple[Operation, ...] = ()
    trials: tuple[Trial, ...] = ()
    runs: tuple[FlowRun, ...] = ()
    pours: tuple[Pour, ...] = ()
    stations: tuple[Station, ...] = ()
    photos: tuple[Photo, ...] = ()
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
    cylinder: int | None = None
    mirror_of: str | None = None
    cuts: tuple[Cut, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class CamPoint(Noun):
    """One line of a cam's table: crank angle and valve lift."""

    kind: Direction
    angle: float = field(metadata={"unit": "deg"})
    lift: float = field(metadata={"unit": "mm"})


@dataclass(frozen=True, slots=True, kw_only=True)
class Target(Noun):
    """Flow wanted at a lift, for one kind of port, and the test pressure it is meant at."""

    kind: Direction
    lift: float = field(metadata={"unit": "mm"})
    flow: float = field(metadata={"unit": "cfm"})
    test_pressure: float | None = quantity("Pa")


@dataclass(frozen=True, slots=True, kw_only=True)
class WallLimit(Noun):
    """How thin a wall may get at a place; an empty place means everywhere."""

    place: str
    thickness: float = field(metadata={"unit": "mm"})


@dataclass(frozen=True, slots=True, kw_only=True)
class CheckMark(Noun):
    """A line of the list for the end of a head, ticked with date and initials."""

    item: str
    initials: str = ""
    date: str | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Job(Noun):
    """A head and its goal. `schools` holds the sides its porter takes, by question.

    `test_pressure` is what flows are shown at; as tested without one. `cam_checked_at` says whether durations at
    0.050 in are read at the "valve" or the "tappet", where the rocker ratio comes in.
    """

    title: str
    note: str = ""
    material: str | None = None
    cylinders: int | None = None
    valves_per_cylinder: int | None = None
    flatness: float | None = quantity("mm")
    condition: str = ""
    bore: float | None = quantity("mm")
    stroke: float | None = quantity("mm")
    rod_length: float | None = quantity("mm")
    speed_low: float | None = quantity("rpm")
    speed_high: float | None = quantity("rpm")
    power_wanted: float | None = quantity("kW")
    cam_lift: float | None = quantity("mm")
    cam_duration: float | None = quantity("deg")
    exhaust_cam_lift: float | None = quantity("mm")
    exhaust_cam_duration: float | None = quantity("deg")
    cam_checked_at: str | None = None
    rocker_ratio: float | None = quantity("-")
    test_pressure: float | None = quantity("Pa")
    worthwhile_gain: float | None = quantity("cfm")
    volume_ceiling: float | None = quantity("cc")
    schools: Mapping[str, Any] = field(default_factory=dict)
    valves: tuple[Valve, ...] = ()
    ports: tuple[Port, ...] = ()
    setups: tuple[SetUp, ...] = ()
    mounts: tuple[Mount, ...] = ()
    cam_points: tuple[CamPoint, ...] = ()
    targets: tuple[Target, ...] = ()
    wall_limits: tuple[WallLimit, ...] = ()
    check_marks: tuple[CheckMark, ...] = ()
    photos: tuple[Photo, ...] = ()

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

    def cut_of_trial(self, trial_id: str) -> tuple[Port, Cut, Trial]:
        for port in self.ports:
            for cut in port.cuts:
                for trial in cut.trials:
                    if trial.id == trial_id:
                        return port, cut, trial
        raise KeyError(trial_id)

    def is_trial(self, owner_id: str) -> bool:
        return any(t.id == owner_id for p in self.ports for c in p.cuts for t in c.trials)

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
    """A figure of a cut (or its stations), and the number of the cut that it was measured at."""

    value: Any
    cut_number: int


def poured_volume(cut: Cut) -> float | None:
    """Mean of a cut's pours [m3], or None where it was not poured."""
    return sum(p.volume for p in cut.pours) / len(cut.pours) if cut.pours else None


def carried(port: Port, cut: Cut, name: str) -> Carried | None:
    """A figure of `cut`, or of the last cut before it that measured one.

    `name` is a field of `Cut`, or ``"volume"`` for the mean of its pours. `cut` may be a trial's stand-in.
    """
    for earlier in (cut, *reversed(port.cuts)):
        if earlier.number > cut.number:
            continue
        value = poured_volume(earlier) if name == "volume" else getattr(earlier, name)
        if value is not None and value != ():
            return Carried(value, earlier.number)
    return None


def trial_as_cut(cut: Cut, trial: Trial) -> Cut:
    """A trial as the state it is: the cut it hangs from, flowed differently."""
    kind: CutKind = "port" if trial.kind == "clay" else trial.kind
    return replace(cut, id=trial.id, name=trial.name or trial.kind, kind=kind, runs=trial.runs, trials=(), photos=())

"""Ports and cuts, and what is measured on the metal between them."""

from __future__ import annotations

from dataclasses import dataclass, field, replace
from typing import Any

from ventrix.core.model.kinds import CutKind, TrialKind
from ventrix.core.model.noun import Direction, Noun, quantity
from ventrix.core.model.run import FlowRun
from ventrix.core.model.traverse import Observation, Traverse


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
    kind: CutKind = CutKind.PORT
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
    kind = CutKind.PORT if trial.kind == TrialKind.CLAY else CutKind(trial.kind)
    return replace(cut, id=trial.id, name=trial.name or trial.kind, kind=kind, runs=trial.runs, trials=(), photos=())

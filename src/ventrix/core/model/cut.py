"""Ports and cuts, and what is measured on the metal between them."""

from __future__ import annotations

from dataclasses import dataclass, field, replace
from typing import Any

from ventrix.core.model.kinds import CutKind, Direction, ExpectedAs, FaultState, HoleWork, SlipKind, TrialKind
from ventrix.core.model.noun import Noun, quantity
from ventrix.core.model.run import FlowRun
from ventrix.core.model.scan import Scan
from ventrix.core.model.traverse import Observation, Traverse
from ventrix.words import tr


@dataclass(frozen=True, slots=True, kw_only=True)
class Pour(Noun):
    """One filling of the port from a burette, and how it was done."""

    volume: float = field(metadata={"unit": "cc"})
    how: str = ""
    date: str | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Work(Noun):
    """What an operation took off one place. Without a side it went all over that zone; bowl and seat by clock hours
    (12 towards the opening). `until` stands where no depth was taken: flush, or to the scribe."""

    place: str
    side: str | None = None
    from_hour: float | None = quantity("-")
    to_hour: float | None = quantity("-")
    depth: float | None = quantity("mm")
    reach: float | None = quantity("mm")
    until: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class Operation(Noun):
    """A piece of work on the metal. Logged once for many ports, its minutes are shared.

    `started_at` is set while its timer runs: that survives a crash. `at` is the moment it was kept. `stage` names the
    line of the stage board that it was marked on. `beyond_quote` is work that was chosen and not quoted.
    """

    kind: str
    works: tuple[Work, ...] = ()
    tool: str = ""
    tool_diameter: float | None = quantity("mm")
    finish: str = ""
    duration: float | None = quantity("min")
    started_at: str | None = None
    date: str | None = None
    at: str | None = None
    port_ids: tuple[str, ...] = ()
    stage: str = ""
    beyond_quote: bool = False
    note: str = ""

    @property
    def places(self) -> tuple[str, ...]:
        """Where it was done, each place once."""
        return tuple(dict.fromkeys(w.place for w in self.works))


@dataclass(frozen=True, slots=True, kw_only=True)
class Tube(Noun):
    """A hole at a port's wall that was worked, and whether it was pressure-tested. Sleeved, plugged or welded shut it
    is a planned breakthrough."""

    place: str
    work: HoleWork = HoleWork.TUBED
    side: str | None = None
    size: float | None = quantity("mm")
    adhesive: str = ""
    tested: bool = False
    date: str | None = None
    note: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class Fault(Noun):
    """A fault of the casting at a place of a port, from where it was first seen until it was gone."""

    kind: str
    place: str = ""
    side: str | None = None
    along: float | None = quantity("mm")
    across: float = field(default=0.0, metadata={"unit": "-"})
    from_hour: float | None = quantity("-")
    to_hour: float | None = quantity("-")
    size: float | None = quantity("mm")
    state: str = FaultState.OPEN.value
    seen_at_cut: int = 0
    gone_at_cut: int | None = None
    photo: str = ""
    date: str | None = None
    note: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class WallReading(Noun):
    """Metal left at one place, by ultrasonic gauge: where along and around the port, and what lies behind.

    `along` is the distance from the opening along the centreline; `across` goes from -1 to 1 over the band. `at` is the
    moment it was kept. `known_by` says how it is known where no gauge read it.
    """

    place: str
    thickness: float = field(metadata={"unit": "mm"})
    band: str | None = None
    along: float | None = quantity("mm")
    across: float = field(default=0.0, metadata={"unit": "-"})
    behind: str = ""
    behind_port_id: str | None = None
    probe: str = ""
    sound_speed: float | None = quantity("m/s")
    uncertainty: float | None = quantity("mm")
    date: str | None = None
    at: str | None = None
    known_by: str = ""
    note: str = ""
    struck: str | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Slip(Noun):
    """Something that went wrong on a port: what, where, what it took, and what was decided about it, by whom. `hour`s
    are the seat clock's. It is never copied to another port, and never a step of the plan."""

    date: str | None = None
    kind: SlipKind = SlipKind.OTHER
    place: str = ""
    side: str | None = None
    from_hour: float | None = quantity("-")
    to_hour: float | None = quantity("-")
    depth: float | None = quantity("mm")
    width_left: float | None = quantity("mm")
    volume: float | None = quantity("cc")
    photo: str = ""
    decision: str = ""
    decided_by: str = ""
    customer_told: bool = False
    note: str = ""


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
    """A try that can be taken back: clay, another valve (with its sizes), another entry, a pipe. `piece_id` names the
    port noun that is the piece put on."""

    kind: TrialKind
    name: str = ""
    place: str = ""
    area_taken: float | None = quantity("mm2")
    area_uncertainty: float | None = quantity("mm2")
    valve_ids: tuple[str, ...] = ()
    piece_id: str | None = None
    note: str = ""
    date: str | None = None
    runs: tuple[FlowRun, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Cut(Noun):
    """One state of one port; cut 0 is as received. Unmeasured dimensions are carried forward.

    What was expected of it before the work (`expected_...`) is scored afterwards, as the number it was meant as
    (`expected_as`, at `expected_lift` where that is one lift); eight in ten were to lie between low and high, and
    `expected_by` is "plan" where the plan said so. `kinds` says what was done, several
    things together; `valve_ids` and `seat_ids` name what was fitted or cut at this state: empty is carried.
    """

    number: int
    name: str = ""
    kinds: tuple[CutKind, ...] = (CutKind.PORT,)
    valve_ids: tuple[str, ...] = ()
    seat_ids: tuple[str, ...] = ()
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
    gasket_land: float | None = quantity("mm")
    expected_gain: float | None = quantity("cfm")
    expected_growth: float | None = quantity("cc")
    expected_time: float | None = quantity("min")
    expected_low: float | None = quantity("cfm")
    expected_high: float | None = quantity("cfm")
    expected_by: str = ""
    expected_as: ExpectedAs = ExpectedAs.WEIGHTED
    expected_lift: float | None = quantity("mm")
    note: str = ""
    operations: tuple[Operation, ...] = ()
    trials: tuple[Trial, ...] = ()
    runs: tuple[FlowRun, ...] = ()
    pours: tuple[Pour, ...] = ()
    stations: tuple[Station, ...] = ()
    photos: tuple[Photo, ...] = ()
    scans: tuple[Scan, ...] = ()
    walls: tuple[WallReading, ...] = ()
    traverses: tuple[Traverse, ...] = ()
    observations: tuple[Observation, ...] = ()
    tubes: tuple[Tube, ...] = ()

    @property
    def adds_metal(self) -> bool:
        """Whether metal or epoxy was put in, and nothing taken off."""
        return self.kinds == (CutKind.FILL,)


@dataclass(frozen=True, slots=True, kw_only=True)
class Port(Noun):
    """One port and its row of cuts. `valves` equal valves open into it. A witness port is never cut. `position_on_head`
    is its place along it, from the front. A manifold's runner, a spacer or a header's primary is a port too, with
    `piece` saying which: it has its own stations, cuts, pours and runs, and no valve. `faults_looked_at` is the day its
    faults were gone through."""

    name: str
    kind: Direction
    valve_id: str | None = None
    valves: int = 1
    witness: bool = False
    cylinder: int | None = None
    mirror_of: str | None = None
    head_id: str | None = None
    position_on_head: int | None = field(default=None, metadata={"key": "position"})
    piece: str = ""
    cuts: tuple[Cut, ...] = ()
    faults: tuple[Fault, ...] = ()
    faults_looked_at: str | None = None
    slips: tuple[Slip, ...] = ()

    @property
    def of_head(self) -> bool:
        """A port of the head that is worked on: no witness, and no piece that is bolted to one."""
        return not self.witness and not self.piece


@dataclass(frozen=True, slots=True)
class Carried:
    """A figure of a cut (or its stations), and the number of the cut that it was measured at."""

    value: Any
    cut_number: int


def mean_poured(pours: tuple[Pour, ...]) -> float | None:
    """Mean of pours of one port or chamber [m3], or None where there are none."""
    return sum(p.volume for p in pours) / len(pours) if pours else None


def poured_volume(cut: Cut) -> float | None:
    """Mean of a cut's pours [m3], or None where it was not poured."""
    return mean_poured(cut.pours)


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


def carried_figure(port: Port, cut: Cut, name: str) -> float | None:
    """A figure of `cut` or carried to it, in SI; None where it was not measured."""
    found = carried(port, cut, name)
    return None if found is None else float(found.value)


def state_name(cut: Cut) -> str:
    """What a state is called on every port that is in it: its name, or its number where it has none."""
    return cut.name.strip() or tr("cut {}", cut.number)


def trial_as_cut(cut: Cut, trial: Trial) -> Cut:
    """A trial as the state it is: the cut it hangs from, flowed differently."""
    kind = CutKind.PORT if trial.kind == TrialKind.CLAY else CutKind(trial.kind)
    name = trial.name or trial.kind
    fitted = trial.valve_ids or cut.valve_ids
    return replace(
        cut, id=trial.id, name=name, kinds=(kind,), valve_ids=fitted, runs=trial.runs, trials=(), photos=(), scans=()
    )


def changes_between(port: Port, before: Cut, after: Cut) -> frozenset[CutKind]:
    """Everything that was declared on the way from one state to the other: the kinds of every cut between the two.

    A trial counts with its own kind on top of the cuts it stands on; a state from elsewhere says nothing.
    """
    low, high = sorted((before.number, after.number))
    found = {kind for cut in port.cuts if low < cut.number <= high for kind in cut.kinds}
    own = {cut.id for cut in port.cuts}
    if before.id == OTHER_SIDE:
        return frozenset(after.kinds)
    for trial in (end for end in (before, after) if end.id not in own):
        found |= set(trial.kinds)
    return frozenset(found)


OTHER_SIDE = "other"  # id of the stand-in for a run of another port, head or bench

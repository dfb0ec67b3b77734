"""The job: an engine's head with its ports, valves and goals."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field
from typing import Any, TypeVar

from ventrix.core.model.cut import Cut, Photo, Port, Trial
from ventrix.core.model.job_parts import (
    Binned,
    Call,
    CamPoint,
    Chamber,
    CheckMark,
    EngineResult,
    Face,
    FitLimit,
    Head,
    MyLift,
    PartOfJob,
    Seat,
    StageMark,
    SwirlWish,
    Target,
    Valve,
    Wait,
    WallLimit,
)
from ventrix.core.model.kinds import JobState
from ventrix.core.model.noun import Noun, quantity
from ventrix.core.model.run import FlowRun, Mount, SetUp

AnyNoun = TypeVar("AnyNoun", bound=Noun)


@dataclass(frozen=True, slots=True, kw_only=True)
class Job(Noun):
    """A head and its goal. `schools` holds the sides its porter takes, by question.

    `test_pressure` is what flows are shown at; as tested without one. `cam_checked_at` says whether durations at
    0.050 in are read at the "valve" or the "tappet", where the rocker ratio comes in. `binned` is when the job went
    into the book's bin. Centrelines are the lobes': the intake's after the top between exhaust and intake, the
    exhaust's before it. `induction_flow` is what a carburettor or throttle body passes at `induction_pressure`.
    `practice` names the head that does not exist, where the job is one: nothing of it counts in the shop's figures.
    `stop_below` is the gain an hour under which one stops; `lowest_speed` the least mean air speed in the smallest
    section at the top of the speed range. `stages` is the job's own list for its board, the usual one where it is
    empty; `rate` is money an hour, `consumables` money; tolerances are what ports may differ by. `cylinders` are the
    head's in hand, `engine_cylinders` all of the engine's. `model_port_ids` are the ports that the others of their kind
    are held to, where the porter chose them. A compression ratio is stated, or follows from gasket (as pressed), deck
    clearance and piston (a dish is positive). `same_house` lists runs from paper that one shop flowed the same way.
    """

    title: str
    note: str = ""
    material: str | None = None
    cylinders: int | None = None
    engine_cylinders: int | None = None
    engine_layout: str | None = None
    bank_half_angle: float | None = quantity("deg")
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
    intake_centreline: float | None = quantity("deg")
    exhaust_centreline: float | None = quantity("deg")
    compression_ratio: float | None = quantity("-")
    gasket_thickness: float | None = quantity("mm")
    deck_clearance: float | None = quantity("mm")
    piston_volume: float | None = quantity("cc")
    intake_lash: float | None = quantity("mm")
    exhaust_lash: float | None = quantity("mm")
    induction: str | None = None
    induction_flow: float | None = quantity("cfm")
    induction_pressure: float | None = quantity("inHg")
    manifold_pressure: float | None = quantity("kPa")
    manifold_temperature: float | None = quantity("degC")
    exhaust_pressure: float | None = quantity("kPa")
    stop_below: float | None = quantity("cfm")
    lowest_speed: float | None = quantity("m/s")
    quoted: float | None = quantity("h")
    rate: float | None = quantity("-")
    consumables: float | None = quantity("-")
    volume_tolerance: float | None = quantity("cc")
    flow_tolerance: float | None = quantity("%")
    stages: tuple[str, ...] = ()
    model_port_ids: tuple[str, ...] = ()
    same_house: tuple[tuple[str, ...], ...] = ()
    cam_checked_at: str | None = None
    rocker_ratio: float | None = quantity("-")
    test_pressure: float | None = quantity("Pa")
    worthwhile_gain: float | None = quantity("cfm")
    volume_ceiling: float | None = quantity("cc")
    use: str | None = None
    customer: str = ""
    promise_date: str | None = None
    state: JobState = JobState.OPEN
    waits_for: str = ""
    handed_over: str | None = None
    archived: bool = False
    binned: str | None = None
    practice: str = ""
    schools: Mapping[str, Any] = field(default_factory=dict)
    heads: tuple[Head, ...] = ()
    chambers: tuple[Chamber, ...] = ()
    seats: tuple[Seat, ...] = ()
    my_lifts: tuple[MyLift, ...] = ()
    swirl_wishes: tuple[SwirlWish, ...] = ()
    bin: tuple[Binned, ...] = ()
    valves: tuple[Valve, ...] = ()
    ports: tuple[Port, ...] = ()
    setups: tuple[SetUp, ...] = ()
    mounts: tuple[Mount, ...] = ()
    cam_points: tuple[CamPoint, ...] = ()
    targets: tuple[Target, ...] = ()
    wall_limits: tuple[WallLimit, ...] = ()
    fit_limits: tuple[FitLimit, ...] = ()
    check_marks: tuple[CheckMark, ...] = ()
    stage_marks: tuple[StageMark, ...] = ()
    waits: tuple[Wait, ...] = ()
    parts: tuple[PartOfJob, ...] = ()
    faces: tuple[Face, ...] = ()
    engine_results: tuple[EngineResult, ...] = ()
    calls: tuple[Call, ...] = ()
    photos: tuple[Photo, ...] = ()

    def port(self, port_id: str) -> Port:
        return _find(self.ports, port_id)

    def valve_of(self, port: Port, cut: Cut | None = None) -> Valve | None:
        """The valve of a port at a cut (its last without one): what the cut, or the last one before it, fitted."""
        found = self.valves_of(port, cut)
        return found[0] if found else None

    def valves_of(self, port: Port, cut: Cut | None = None) -> tuple[Valve, ...]:
        """Every valve noun fitted at a cut: one where all of the port's are equal, several where they are not."""
        named = fitted_at(port, cut)[0]
        return tuple(v for each in named for v in self.valves if v.id == each)

    def chamber_of(self, port: Port) -> Chamber | None:
        """The chamber that a port opens into, where it was poured."""
        wanted = cylinder_of(port), port.head_id
        return next((c for c in self.chambers if (c.cylinder, c.head_id) == wanted), None)

    def seat_of(self, port: Port, cut: Cut | None = None) -> Seat | None:
        """The seat as it stands at a cut: cut there, or carried from the last cut that cut one."""
        number = port.cuts[-1].number if cut is None and port.cuts else cut.number if cut is not None else 0
        for each in reversed(port.cuts):
            if each.number <= number and each.seat_ids:
                return next((s for s in self.seats if s.id == each.seat_ids[0]), None)
        return None

    def ports_beside(self, port: Port) -> int:
        """How many ports of its kind its cylinder breathes through, itself among them."""
        if not port.cylinder:
            return 1
        here = port.kind, port.cylinder, port.head_id
        return max(sum((p.kind, p.cylinder, p.head_id) == here and p.of_head for p in self.ports), 1)

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


def cylinder_of(port: Port) -> int:
    """The cylinder a port belongs to: as recorded, else the number that its name ends in, else the first."""
    number = port.name.rsplit(" ", 1)[-1]
    return port.cylinder or (int(number) if number.isdecimal() and 0 < int(number) <= 48 else 1)


def fitted_at(port: Port, cut: Cut | None = None) -> tuple[tuple[str, ...], int | None]:
    """Ids of the valves fitted at a cut, and the number of the cut that fitted them (None: as received)."""
    if cut is not None and cut.valve_ids:
        return cut.valve_ids, cut.number
    for each in reversed(port.cuts):
        if (cut is None or each.number <= cut.number) and each.valve_ids:
            return each.valve_ids, each.number
    return ((port.valve_id,) if port.valve_id is not None else ()), None


def _find(items: tuple[AnyNoun, ...], wanted: str) -> AnyNoun:
    for item in items:
        if item.id == wanted:
            return item
    raise KeyError(wanted)

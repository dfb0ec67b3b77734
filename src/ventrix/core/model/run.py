"""How a port was flowed: the set-up, the mount, the readings and what was noted with them."""

from __future__ import annotations

from dataclasses import dataclass, field

from ventrix.core.model.kinds import Direction, RunBasis
from ventrix.core.model.noun import Noun, quantity

UNDONE = "undone"


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
    swirl_meter: str | None = None
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
    element_place: str | None = None  # "upstream": the plate stands before the plenum on blow
    leak_taken_off: bool = False  # the readout has the leak off already
    swirl_axis: str | None = None  # "tumble" for a tumble adapter; a swirl meter otherwise


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
    swirl_torque: float | None = quantity("N.m")
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
class Correction(Noun):
    """Something of a run that was set right afterwards: what it was, what it became, why, and when."""

    what: str
    was: str = ""
    became: str = ""
    reason: str = ""
    date: str | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class FlowRun(Noun):
    """Readings of one cut or trial, under one set-up, in one mount; `source` says how they came.

    `witness_id` names the run of the witness port flowed at this setting-up of the bench; `claimed` says
    whose claim it is where nobody measured it. `stands_for_port_ids` names ports that were not flowed and that this
    test is taken to speak for: it never counts there as measured. A run on `paper` was read off another shop's sheet:
    its `house` and the date on it.
    """

    setup_id: str
    mount_id: str | None = None
    date: str | None = None
    source: str = "typed"
    claimed: str | None = None
    basis: RunBasis = RunBasis.BENCH
    house: str = ""
    paper_date: str | None = None
    witness_id: str | None = None
    stands_for_port_ids: tuple[str, ...] = ()
    readings: tuple[Reading, ...] = ()
    steps: tuple[StepRecord, ...] = ()
    rung_notes: tuple[RungNote, ...] = ()
    corrections: tuple[Correction, ...] = ()

    def step(self, kind: str) -> StepRecord | None:
        """The last step of a kind that was done."""
        return next((s for s in reversed(self.steps) if s.kind == kind and s.skipped is None), None)

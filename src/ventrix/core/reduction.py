"""A run reduced: from readings as taken to corrected flow and everything derived from it.

Order, as the formula book has it: reading, indicated flow, leak scaled to the pressure measured at
that point and subtracted, normalised to the nominal test pressure, repeats averaged, derived figures
at reference air.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field
from functools import cached_property
from typing import Literal

import numpy as np
from numpy.typing import ArrayLike, NDArray

from ventrix.core import bench_flow, port, valve
from ventrix.core.air import REFERENCE_DENSITY, Array
from ventrix.core.curve import FlowCurve, stall_index
from ventrix.core.element import indicated, scaled
from ventrix.core.model import FlowRun, Reading, SetUp
from ventrix.core.uncertainty import (
    Instrument,
    Repeats,
    Scatter,
    Side,
    known_scatter,
    point_uncertainty,
    scatter_by_lift,
)
from ventrix.core.units import from_si, percent_text

Indices = NDArray[np.int64]

STEPS_THAT_COUNT = ("warm-up", "zero", "leak", "plate")  # skipping the others costs nothing
PLATE_NOTE = 0.01  # relative: common practice, no source
RETURN_LIMIT = 0.02  # relative: at a low lift that is a dial moved by a few thousandths (common practice)
LIFT_GRAIN = 1e-6  # m: lifts closer than a micrometre are one lift


@dataclass(frozen=True, slots=True)
class Geometry:
    """What is known of the port and valve a run belongs to; None means not measured. SI."""

    valves: int = 1
    valve_diameter: float | None = None
    stem_diameter: float | None = None
    throat_diameter: float | None = None
    seat_width: float | None = None
    seat_angle: float | None = None
    port_volume: float | None = None
    port_length: float | None = None


def correct_readings(
    flow: ArrayLike,
    test_pressure: float,
    measured_pressure: ArrayLike | None = None,
    leak: float = 0.0,
    leak_pressure: float | None = None,
) -> Array:
    """Leak off, then to the nominal test pressure.

    Parameters
    ----------
    flow : array_like
        Readings [m3/s], shape (n,).
    test_pressure : float
        Nominal pressure drop [Pa].
    measured_pressure : array_like, optional
        Pressure drop at each reading [Pa]; nominal where absent or NaN.
    leak, leak_pressure : float
        Bench leak [m3/s] with the opening sealed, and the pressure it was read at [Pa].

    Returns
    -------
    ndarray
        Flow through the test piece at nominal pressure [m3/s], shape (n,).

    Raises
    ------
    ValueError
        A pressure not above zero, or a leak not smaller than a reading.

    References
    ----------
    Order of reduction: formula book of this project; laws as in `bench_flow`.
    """
    q = np.asarray(flow, dtype=float)
    if measured_pressure is None:
        at = np.full(q.shape, test_pressure)
    else:
        at = np.asarray(measured_pressure, dtype=float)
        unknown = np.isnan(at)
        if unknown.any():
            at = np.where(unknown, test_pressure, at)
    if leak > 0:
        q = bench_flow.leak_correct(q, leak, at, leak_pressure or test_pressure)
    return bench_flow.convert_pressure(q, at, test_pressure)


@dataclass(frozen=True, slots=True)
class Derived:
    """Figures at each lift, shape (k,); NaN throughout where an input is missing. SI.

    Cd is isentropic, at reference air upstream and the run's own nominal test pressure.
    """

    lift_ratio: Array
    cd_curtain: Array
    cd_valve: Array
    cd_least: Array
    mean_velocity: Array
    energy_density: Array
    notes: tuple[str, ...] = ()


def derive(lift: Array, flow: Array, test_pressure: float, geometry: Geometry) -> Derived:
    """Everything that follows from flow and geometry, shape (k,). Errors and sources: the functions used."""
    nothing = np.full(lift.shape, np.nan)
    g = geometry
    ratio = cd_curtain = cd_valve = cd_least = speed = energy = nothing
    notes: tuple[str, ...] = ()
    if g.valve_diameter is not None:
        ideal_area = flow / float(bench_flow.ideal_flux(test_pressure))  # what an ideal opening would need
        ratio = valve.lift_ratio(lift, g.valve_diameter)
        cd_curtain = ideal_area / valve.curtain_area(g.valve_diameter, lift, g.valves)
        cd_valve = ideal_area / valve.valve_head_area(g.valve_diameter, g.valves)
        if g.seat_width is not None and g.seat_angle is not None and g.throat_diameter is not None:
            least = valve.valve_flow_area(
                g.valve_diameter,
                g.seat_width,
                g.seat_angle,
                g.throat_diameter,
                g.stem_diameter or 0.0,
                lift,
                g.valves,
            )
            cd_least = ideal_area / least.area
            notes = least.notes
    if g.port_volume is not None and g.port_length is not None:
        speed = port.mean_port_velocity(flow, g.port_volume, g.port_length)
        energy = port.energy_density(speed)
    return Derived(ratio, cd_curtain, cd_valve, cd_least, speed, energy, notes)


@dataclass(frozen=True)
class ReducedRun:
    """A run ready to be read or compared. `flow` is an index [-] where `kind` is "index".

    `open_flow` is the port with the valve out, corrected like the rest; `heard` what was noted, by lift.
    """

    run_id: str
    setup: SetUp
    mount: str | None
    geometry: Geometry
    kind: Literal["flow", "index"]
    lift: Array
    flow: Array
    readings: Array
    repeats: Repeats
    swirl: Array
    bench_notes: tuple[str, ...]
    unsteady: tuple[float, ...] = ()
    scatter: Scatter = field(default_factory=Scatter)
    open_flow: float | None = None
    claimed: str = ""
    heard: tuple[tuple[float, str], ...] = ()

    @property
    def test_pressure(self) -> float:
        """Nominal test pressure [Pa]; 1 for an index, where it plays no part."""
        return self.setup.test_pressure or 1.0

    @cached_property
    def curve(self) -> FlowCurve:
        return FlowCurve(self.lift, self.flow)

    @cached_property
    def derived(self) -> Derived:
        if self.kind == "index":
            return derive(self.lift, np.full(self.lift.shape, np.nan), 1.0, self.geometry)
        return derive(self.lift, self.flow, self.test_pressure, self.geometry)

    @property
    def notes(self) -> tuple[str, ...]:
        """Sentences about this run that belong beside its figures."""
        return (*self.bench_notes, *self.derived.notes)

    @property
    def instrument(self) -> Instrument:
        return instrument_for(self.kind)

    @cached_property
    def uncertainty(self) -> Array:
        """Combined standard uncertainty of each point, in the unit of `flow`."""
        side = Side(self.flow, self.curve.slope(self.lift), self.readings, self.test_pressure)
        by_lift = scatter_by_lift(self.repeats, known_scatter([self.repeats], self.scatter))
        return point_uncertainty(side, by_lift, self.scatter.mount, self.instrument)

    @property
    def peak(self) -> int:
        """Index of the greatest flow."""
        return int(np.argmax(self.flow))

    @property
    def stall(self) -> int | None:
        """Index of the lift from which the flow grows no further, or None."""
        return stall_index(self.flow, self.uncertainty)


def instrument_for(kind: str) -> Instrument:
    """Default instrument; an index has no pressure or flow graduation of its own."""
    return Instrument() if kind == "flow" else Instrument(pressure=0.0, flow=0.0)


def reduce_run(
    run: FlowRun,
    setup: SetUp,
    geometry: Geometry | None = None,
    mount: str | None = None,
    scatter: Scatter | None = None,
) -> ReducedRun:
    """Reduce a run to corrected flow at each lift.

    Parameters
    ----------
    run, setup : FlowRun, SetUp
        The readings and the conditions they were taken under.
    geometry : Geometry, optional
        For the derived figures.
    mount : str, optional
        Names the bolting-down; two runs of one mount share its scatter.
    scatter : Scatter, optional
        What the bench is known to scatter by; assumed values otherwise.

    Raises
    ------
    ValueError
        No reading that counts, no test pressure, a leak not smaller than a reading.
    """
    counted = [r for r in run.readings if r.struck is None and r.lift > LIFT_GRAIN / 2]
    notes: list[str] = []
    struck = sum(r.struck is not None for r in run.readings)
    if struck:
        notes.append(f"{struck} struck reading{'s' * (struck > 1)} kept and not counted")
    if any(r.struck is None and r.lift <= LIFT_GRAIN / 2 for r in run.readings):
        notes.append("a reading at zero lift is no part of the curve: enter the leak as such")
    if not counted:
        raise ValueError("the run has no reading that counts")
    kind, raw, said = indicated(counted, setup)
    notes += said
    lift = np.round(np.array([r.lift for r in counted]) / LIFT_GRAIN) * LIFT_GRAIN
    if kind == "flow":
        if setup.test_pressure is None:
            raise ValueError("the test pressure is missing")
        measured = np.array([np.nan if r.measured_pressure is None else r.measured_pressure for r in counted])
        # A leak is read off the same element, in the air of its own pressure.
        leak = scaled(setup.leak, setup, setup.leak_pressure)[0] if setup.leak else 0.0
        corrected = correct_readings(raw, setup.test_pressure, measured, leak, setup.leak_pressure)
        notes += _bench_notes(lift, raw, measured, setup, leak)
        notes += _return_notes(counted, lift, corrected)
    else:
        corrected = raw
        notes.append("uncalibrated bench: an index, good for ratios on this bench, never a flow")
    notes += _step_notes(run)
    order = np.argsort(lift, kind="stable")
    lifts, starts, counts = np.unique(lift[order], return_index=True, return_counts=True)
    mean = np.add.reduceat(corrected[order], starts) / counts
    if np.any(mean <= 0):
        raise ValueError(f"the reading at {from_si(float(lifts[np.argmin(mean)]), 'mm'):g} mm lift is zero")
    g = geometry or Geometry()
    unsteady = tuple(sorted({float(r.lift) for r in counted if r.unsteady}))
    return ReducedRun(
        run_id=run.id,
        setup=setup,
        mount=mount,
        geometry=g,
        kind=kind,
        lift=lifts,
        flow=mean,
        readings=counts.astype(float),
        repeats=Repeats.of(corrected[order], starts),
        swirl=_mean_swirl(counted, setup, order, starts),
        bench_notes=tuple(notes),
        unsteady=unsteady,
        scatter=scatter or Scatter(),
        open_flow=_open_flow(run, setup) if kind == "flow" else None,
        heard=tuple((n.lift, n.kind) for n in run.rung_notes),
        claimed=run.claimed or "",
    )


def _open_flow(run: FlowRun, setup: SetUp) -> float | None:
    """The open-port reading of a run, leak off and at nominal pressure; None without one."""
    step = run.step("open port")
    if step is None or step.flow is None or setup.test_pressure is None:
        return None
    flow = scaled(step.flow, setup, step.pressure)[0]
    leak = scaled(setup.leak, setup, setup.leak_pressure)[0] if setup.leak else 0.0
    try:
        measured = None if step.pressure is None else [step.pressure]
        return float(correct_readings([flow], setup.test_pressure, measured, leak, setup.leak_pressure)[0])
    except ValueError:
        return None


def _step_notes(run: FlowRun) -> list[str]:
    """What was skipped before the lifts, and a plate that was out of its usual."""
    done = {s.kind for s in run.steps if s.skipped is None}
    notes = [
        f"{s.kind} skipped: {s.skipped}"
        for s in run.steps
        if s.skipped is not None and s.kind not in done and s.kind in STEPS_THAT_COUNT
    ]
    plate = run.step("plate")
    if plate is not None and plate.drift is not None and abs(plate.drift) > PLATE_NOTE:
        notes.append(f"the reference plate read {percent_text(plate.drift, sign=True)} of nominal that day")
    return notes


def _turning(reading: Reading, setup: SetUp) -> float:
    """Swirl of a reading [rad/s]: a paddle's own, or the speed at which a paddle would show an impulse
    meter's torque, 8 T / (m B^2), both coefficients of [3] made equal; NaN without either."""
    if reading.swirl is not None:
        return reading.swirl
    if reading.swirl_torque is None or setup.bore is None or not reading.flow:
        return float("nan")
    return 8 * reading.swirl_torque / (reading.flow * REFERENCE_DENSITY * setup.bore**2)


def _mean_swirl(readings: Sequence[Reading], setup: SetUp, order: Indices, starts: Indices) -> Array:
    swirl = np.array([_turning(r, setup) for r in readings])[order]
    counts = np.diff(np.r_[starts, len(swirl)])
    return np.asarray(np.add.reduceat(swirl, starts) / counts)


def _bench_notes(lift: Array, raw: Array, measured: Array, setup: SetUp, leak: float) -> list[str]:
    notes = []
    nominal = setup.test_pressure or np.nan
    if leak:
        notes += bench_flow.leak_notes(float(raw.min()), leak, nominal, setup.leak_pressure or nominal)
    off = np.abs(measured / nominal - 1)
    for i in np.flatnonzero(off > bench_flow.PRESSURE_FLAG + 1e-9):
        notes.append(
            f"pressure at {from_si(float(lift[i]), 'mm'):g} mm lift was {percent_text(float(off[i]))} off "
            "the test pressure: over 3 %"
        )
    return notes


def _return_notes(readings: Sequence[Reading], lift: Array, corrected: Array) -> list[str]:
    """Where coming back to a low lift read something else: the head or the dial has moved."""
    back = np.array([r.returned for r in readings])
    notes = []
    for x in np.unique(lift[back]):
        up, down = corrected[(lift == x) & ~back], corrected[(lift == x) & back]
        if not len(up):
            continue
        off = float(down.mean() / up.mean() - 1)
        if abs(off) > RETURN_LIMIT:
            notes.append(
                f"coming back to {from_si(float(x), 'mm'):g} mm read {percent_text(off, sign=True)} of the way up: "
                "the head or the dial has moved"
            )
    return notes

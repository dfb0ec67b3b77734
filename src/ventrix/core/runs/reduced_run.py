"""A run reduced: corrected flow at each lift, and every figure that follows from it. All SI."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from functools import cached_property

import numpy as np
from numpy.typing import ArrayLike, NDArray

from ventrix.core.formulas import bench_element, bench_flow, port, valve
from ventrix.core.formulas.difference import Side, point_uncertainty, scatter_by_lift
from ventrix.core.formulas.flow_curve import FlowCurve, stall_index
from ventrix.core.formulas.knowledge import Known
from ventrix.core.formulas.uncertainty import Instrument, Repeats, known_scatter
from ventrix.core.model.bench_kinds import FlowKind
from ventrix.core.model.run import SetUp
from ventrix.core.quantity.arrays import Array
from ventrix.core.runs.geometry import Geometry

SAME_PRESSURE = 1e-3  # relative: what is one test pressure

LIFT_GRAIN = 1e-6  # m: lifts closer than a micrometre are one lift


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
        q = bench_element.leak_correct(q, leak, at, leak_pressure or test_pressure)
    return bench_flow.convert_flow(q, at, test_pressure)


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

    pressure_at : the pressure drop that each lift was measured at [Pa], nominal where it was not noted
    singles : the corrected readings of each lift, repeats apart
    open_flow : the port with the valve out, corrected like the rest
    heard : what was noted, by lift
    shown_at : the pressure that flows and swirl are brought to [Pa]; the run's own without one
    as_tested : the run before it was brought there
    step : the step that its readings come in [m3/s], nought where they show none
    is_carried : a transfer, bridge or witness is in its flows: they are not as they were read
    """

    run_id: str
    setup: SetUp
    mount: str | None
    geometry: Geometry
    kind: FlowKind
    lift: Array
    flow: Array
    readings: Array
    repeats: Repeats
    swirl: Array
    pressure_at: Array
    singles: tuple[tuple[float, ...], ...]
    bench_notes: tuple[str, ...]
    unsteady: tuple[float, ...] = ()
    known: Known = field(default_factory=Known)
    open_flow: float | None = None
    claimed: str = ""
    house: str = ""
    heard: tuple[tuple[float, str], ...] = ()
    shown_at: float | None = None
    as_tested: ReducedRun | None = None
    step: float = 0.0
    is_carried: bool = False
    date: str | None = None

    @property
    def test_pressure(self) -> float:
        """The pressure that the flows stand at [Pa]; 1 for an index, where it plays no part."""
        return self.shown_at or self.setup.test_pressure or 1.0

    @property
    def effective_area(self) -> Array:
        """CdA at the tested lifts [m2]: what an ideal opening would need for these flows, shape (n,)."""
        return np.asarray(self.flow / float(bench_flow.ideal_flux(self.test_pressure)))

    @property
    def converted(self) -> bool:
        """The flows stand at another pressure than the run's own."""
        return self.as_tested is not None

    def at_pressure(self, pressure: float) -> ReducedRun:
        """The whole run at another test pressure [Pa]: flows, swirl, open port; coefficients stay those of the test."""
        own = self.as_tested or self
        if self.kind == FlowKind.INDEX or abs(own.test_pressure / pressure - 1) < SAME_PRESSURE:
            return own
        ratio = float(bench_flow.conversion_ratio(own.test_pressure, pressure))
        return replace(
            own,
            flow=own.flow * ratio,
            singles=tuple(tuple(q * ratio for q in each) for each in own.singles),
            swirl=own.swirl * float(np.sqrt(pressure / own.test_pressure)),
            open_flow=None if own.open_flow is None else own.open_flow * ratio,
            shown_at=pressure,
            as_tested=own,
        )

    def carried_over(self, factors: Sequence[Array]) -> ReducedRun:
        """The run with factors on its flows, each shape (k,): as another bench or sleeve would have read it."""
        if not factors:
            return self
        factor = np.prod(factors, axis=0)
        singles = zip(self.singles, factor, strict=True)
        return replace(
            self,
            flow=self.flow * factor,
            singles=tuple(tuple(float(q * f) for q in each) for each, f in singles),
            open_flow=None if self.open_flow is None else self.open_flow * float(factor[-1]),
            is_carried=True,
            as_tested=None if self.as_tested is None else self.as_tested.carried_over(factors),
        )

    @cached_property
    def conversion(self) -> tuple[Array, Array]:
        """The two signed parts of the relative doubt of converting each lift from where it was measured, shape (k,)."""
        if self.kind == FlowKind.INDEX:
            return np.zeros(len(self.lift)), np.zeros(len(self.lift))
        return bench_flow.conversion_doubt(self.pressure_at, self.test_pressure)

    @cached_property
    def missed(self) -> NDArray[np.bool_]:
        """Lifts that missed the run's own test pressure by more than 3 %, shape (k,)."""
        nominal = self.setup.test_pressure
        if self.kind == FlowKind.INDEX or nominal is None:
            return np.zeros(len(self.lift), dtype=bool)
        return np.abs(self.pressure_at / nominal - 1) > bench_flow.PRESSURE_FLAG + 1e-9

    @cached_property
    def curve(self) -> FlowCurve:
        return FlowCurve(self.lift, self.flow)

    @cached_property
    def derived(self) -> Derived:
        if self.kind == FlowKind.INDEX:
            return derive(self.lift, np.full(self.lift.shape, np.nan), 1.0, self.geometry)
        found = derive(self.lift, self.flow, self.test_pressure, self.geometry)
        if self.as_tested is None:
            return found
        own = self.as_tested.derived  # a coefficient belongs to the pressure it was tested at
        return replace(own, mean_velocity=found.mean_velocity, energy_density=found.energy_density)

    @property
    def notes(self) -> tuple[str, ...]:
        """Sentences about this run that belong beside its figures."""
        return (*self.bench_notes, *self.derived.notes)

    @property
    def instrument(self) -> Instrument:
        return instrument_for(self.kind, self.known.instrument, self.step)

    @cached_property
    def uncertainty(self) -> Array:
        """Combined standard uncertainty of each point, in the unit of `flow`, by what is known of its bench."""
        law, size = self.conversion
        slope = self.curve.slope(self.lift)
        side = Side(self.flow, slope, self.readings, self.test_pressure, law=law, size=size)
        by_lift = scatter_by_lift(self.repeats, known_scatter([self.repeats], self.known.scatter))
        return point_uncertainty(side, by_lift, self.known.scatter.mount, self.instrument)

    @property
    def peak(self) -> int:
        """Index of the greatest flow."""
        return int(np.argmax(self.flow))

    @property
    def stall(self) -> int | None:
        """Index of the lift from which the flow grows no further, or None."""
        return stall_index(self.flow, self.uncertainty)


def instrument_for(kind: FlowKind, known: Instrument | None = None, step: float = 0.0) -> Instrument:
    """What a run is set and read with, its readings in steps [m3/s]; an index has no pressure or flow graduation of its
    own."""
    found = known or Instrument()
    if kind != "flow":
        return replace(found, pressure=0.0, flow=0.0)
    return replace(found, step=step / np.sqrt(12))

"""The flow element of the bench in hand: ranges, readings in its own measure, and what they mean. No widget."""

from __future__ import annotations

from dataclasses import replace
from typing import Protocol

from ventrix.bench.procedure.flow_procedure import FlowTest
from ventrix.core.benches.odd_readings import range_advice
from ventrix.core.model.bench import Bench
from ventrix.core.model.bench_kinds import ElementKind, FlowKind
from ventrix.core.model.run import Reading, SetUp
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import tidy, to_si
from ventrix.core.runs.element import indicated
from ventrix.core.runs.reduced_run import correct_readings
from ventrix.rooms.display_units import Units
from ventrix.words import tr
from ventrix.workspace.workspace import Workspace

DEFAULT_PRESSURE = to_si(28, "inH2O")


def unit_typed(kind: ElementKind, units: Units) -> str:
    """The unit that a bare figure typed at the bench is in."""
    pressure = units.pressure.unit
    elements = {"percent": "%", "orifice": pressure, "mass": "kg/s", "columns": pressure, "column": pressure}
    return elements.get(kind, units.flow.unit)


def label_typed(kind: ElementKind, units: Units) -> str:
    """What that unit is called on the screen."""
    unit = unit_typed(kind, units)
    return {units.pressure.unit: units.pressure.label, units.flow.unit: units.flow.label}.get(unit, unit)


class OfRun(Protocol):
    """What is asked of the run that the element belongs to."""

    setup: SetUp
    test: FlowTest

    @property
    def bench(self) -> Bench | None: ...
    @property
    def space(self) -> Workspace: ...


class ElementInHand:
    """Figures of the bench's flow element, for the run in hand."""

    def __init__(self, hand: OfRun) -> None:
        self._hand = hand
        self.range_number = 0

    @property
    def kind(self) -> ElementKind:
        """What the bench's main reading is."""
        bench = self._hand.bench
        return bench.element if bench is not None else ElementKind.FLOW

    @property
    def full_scale(self) -> float | None:
        """Full scale of the range in use [m3/s], on a bench that reads percent."""
        bench = self._hand.bench
        if bench is None or not bench.ranges or bench.element != ElementKind.PERCENT:
            return None
        return bench.ranges[min(max(self.range_number, 1), len(bench.ranges)) - 1]

    def choose_range(self, number: int) -> bool:
        """Take another range of the bench, counted from 1."""
        bench = self._hand.bench
        if bench is None or not 1 <= number <= len(bench.ranges):
            return False
        self.range_number = number
        return True

    def range_words(self, flow: float | None, units: Units) -> str:
        """Advice about the range for a flow [m3/s], or where on its scale the reading sits."""
        bench, top = self._hand.bench, self.full_scale
        if bench is None or top is None or flow is None:
            return ""
        lift, pinned = self._hand.test.lift, self._hand.space.against
        readings = pinned.runs[-1].readings if pinned is not None and pinned.runs else ()
        usual = next((r.full_scale for r in readings if lift is not None and abs(r.lift - lift) < 1e-6), None)
        advice = range_advice(bench.ranges, top, flow, usual)
        if advice is not None:
            return units.say(advice)
        which = tr("range {} of {}, to {}", self.range_number or 1, len(bench.ranges), units.flow.text(top))
        return tr("{}: {:.0%} of scale", which, flow / top)

    def as_reading(self, flow: float, pressure: float | None) -> Reading:
        """A figure in the element's measure as the reading it is; lift and id are nobody's."""
        kind = self.kind
        blank = Reading(id="", lift=0.0, measured_pressure=None if pressure is None else tidy(pressure))
        if kind == ElementKind.PERCENT:
            return replace(blank, percent=tidy(flow), full_scale=self.full_scale)
        if kind == ElementKind.ORIFICE:
            return replace(blank, element_pressure=tidy(flow))
        if kind == ElementKind.MASS:
            return replace(blank, mass_flow=tidy(flow))
        if kind == ElementKind.COLUMNS:
            return replace(
                blank, element_column=tidy(flow), port_column=blank.measured_pressure, measured_pressure=None
            )
        if kind == ElementKind.COLUMN:
            bench = self._hand.bench
            fixed = None if bench is None else bench.fixed_column
            if fixed is None:
                raise Refused("this rig's column at its fixed opening is not known: Ctrl+B, Benches asks for it")
            return replace(blank, element_column=fixed, port_column=tidy(flow), measured_pressure=None)
        return replace(blank, flow=tidy(flow))

    def step_flow(self, flow: float, pressure: float | None) -> float:
        """A step's figure as the scale's flow [m3/s]; an index stays one."""
        if self.kind == ElementKind.PERCENT:
            return tidy(flow * (self.full_scale or 0.0))
        if self.kind in (ElementKind.ORIFICE, ElementKind.MASS):
            return tidy(float(indicated([self.as_reading(flow, pressure)], self._hand.setup).values[0]))
        return tidy(flow)

    def as_reported(self, flow: float, pressure: float | None) -> float | None:
        """What a live figure will be reported as: element and leak corrected, at nominal pressure
        [m3/s], or an index [-]; None where it cannot be."""
        try:
            kind, values, _ = indicated([self.as_reading(flow, pressure)], self._hand.setup)
        except Refused:
            return None
        if kind == FlowKind.INDEX:
            return float(values[0])
        nominal = self._hand.setup.test_pressure or DEFAULT_PRESSURE
        try:
            measured = [pressure] if pressure else None
            leak, at = self._hand.setup.leak or 0.0, self._hand.setup.leak_pressure
            return float(correct_readings(values, nominal, measured, leak, at)[0])
        except Refused:
            return float(values[0])

    def as_indicated(self, flow: float, pressure: float | None) -> float | None:
        """A live figure with the element's own correction and nothing taken off [m3/s], or an index [-]."""
        try:
            return float(indicated([self.as_reading(flow, pressure)], self._hand.setup).values[0])
        except Refused:
            return None

    def spread(self, spread: float, live: tuple[float, float] | None) -> float:
        """Spread of the element's own figures as spread of flow [m3/s], about the live figure."""
        if live is None or not spread or live[0] <= 0:
            return 0.0
        here, there = self.as_reported(live[0], live[1]), self.as_reported(live[0] + spread, live[1])
        return abs(there - here) if here is not None and there is not None else 0.0

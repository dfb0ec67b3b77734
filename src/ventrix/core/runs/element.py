"""From what a flow element shows to reported flow: scales, orifices and mass flow, each in its own air.

All SI. Sources are numbered as in ``docs/sources.md``.
"""

from __future__ import annotations

from collections.abc import Sequence
from functools import lru_cache
from typing import NamedTuple

import numpy as np

from ventrix.core.formulas import bench_element
from ventrix.core.formulas.atmosphere import REFERENCE_DENSITY, moist_air_density, vapour_fraction
from ventrix.core.model.bench_kinds import FlowKind
from ventrix.core.model.kinds import Direction
from ventrix.core.model.run import Reading, SetUp
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.refused import Refused
from ventrix.words import tr

UPSTREAM = "upstream"
NO_AIR = tr("the air was not recorded: the flow element is not corrected for it")


class Indicated(NamedTuple):
    """What readings say before leak and pressure: a flow [m3/s] or an index [-], shape (n,); and notes."""

    kind: FlowKind
    values: Array
    notes: tuple[str, ...]


class AirAtBench(NamedTuple):
    """Densities [kg/m3] of the air entering the test piece and at the element; pressure there [Pa]; temperatures [K]
    of both, pressure of the air entering [Pa], and the mole fraction of vapour that goes through all of them [-]."""

    test_density: float
    element_density: float
    element_pressure: float
    element_temperature: float
    test_temperature: float
    test_pressure: float
    vapour: float


def air_at_bench(setup: SetUp, test_pressure: float, own_drop: float = 0.0) -> AirAtBench | None:
    """The air at test piece and element for a test pressure [Pa], None where it was not recorded.

    Intake draw: room air enters the test piece, and the element sees room less test pressure. Exhaust
    blow: both see the plenum, at room plus test pressure and its own temperature (the room's where it
    was not read); an element that stands upstream of the plenum sees the plenum plus its own drop [Pa].
    Humidity was read in the room and goes along as a mole fraction. Source: formula book of this project,
    element correction; [1] for the densities.
    """
    if setup.temperature is None or setup.pressure is None:
        return None
    room_t, room_p = setup.temperature, setup.pressure
    if setup.direction == Direction.EXHAUST:
        test_t, test_p = setup.plenum_temperature or room_t, room_p + test_pressure
        element_p = test_p + (own_drop if setup.element_place == UPSTREAM else 0.0)
    else:
        test_t, test_p, element_p = room_t, room_p, room_p - test_pressure
    return _air_of(room_t, room_p, setup.humidity or 0.0, test_t, test_p, element_p)


@lru_cache(maxsize=8192)  # a run is reduced anew at each reading kept: the earlier ones have not changed
def _air_of(
    room_t: float, room_p: float, humidity: float, test_t: float, test_p: float, element_p: float
) -> AirAtBench:
    vapour = float(vapour_fraction(room_t, room_p, humidity))
    entering = float(moist_air_density(test_t, test_p, vapour))
    there = float(moist_air_density(test_t, element_p, vapour))
    return AirAtBench(entering, there, element_p, test_t, test_t, test_p, vapour)


def indicated(readings: Sequence[Reading], setup: SetUp) -> Indicated:
    """What the readings say before leak and test pressure.

    Parameters
    ----------
    readings : sequence of Reading
        All of one kind, shape (n,).
    setup : SetUp
        With the flow element as it was, and the air.

    Returns
    -------
    Indicated
        Flow [m3/s], referred to reference air where the element needs it; or an index [-].

    Raises
    ------
    ValueError
        Readings of different kinds, an element whose sizes are missing, or readings without a figure.

    References
    ----------
    Formula book of this project; [11] for orifices.
    """
    if all(r.element_column is not None and r.port_column is not None for r in readings):
        element = [r.element_column for r in readings if r.element_column is not None]
        port = [r.port_column for r in readings if r.port_column is not None]
        return Indicated(FlowKind.INDEX, bench_element.flow_index(element, port), ())
    values: list[float] = []
    notes: set[str] = set()
    for r in readings:
        value, said = _flow_of(r, setup)
        values.append(value)
        notes.update(said)
    return Indicated(FlowKind.FLOW, np.asarray(values, dtype=float), tuple(sorted(notes)))


def _flow_of(r: Reading, setup: SetUp) -> tuple[float, tuple[str, ...]]:
    if r.mass_flow is not None or r.element_pressure is not None:
        air = air_at_bench(setup, r.measured_pressure or setup.test_pressure or 0.0, r.element_pressure or 0.0)
        if air is None:
            raise Refused("an orifice or mass-flow reading needs the air: enter temperature and barometer")
        mass, notes = (r.mass_flow, ()) if r.mass_flow is not None else _orifice_mass(r, setup, air)
        return float(bench_element.mass_flow_correction(mass, air.test_density)), notes
    if r.flow is not None:
        return scaled(r.flow, setup, r.measured_pressure)
    if r.percent is not None and r.full_scale is not None:
        return scaled(float(bench_element.range_flow(r.percent, r.full_scale)), setup, r.measured_pressure)
    raise Refused("readings of one run must all be flows, or all be two water columns")


def _orifice_mass(r: Reading, setup: SetUp, air: AirAtBench) -> tuple[float, tuple[str, ...]]:
    from ventrix.core.formulas.orifice import orifice_flow, plenum_orifice_flow

    if setup.orifice_diameter is None or r.element_pressure is None:
        raise Refused("the orifice of this bench has no diameter: enter it with the bench")
    if setup.orifice_pipe is not None:
        found = orifice_flow(
            setup.orifice_diameter,
            setup.orifice_pipe,
            r.element_pressure,
            air.element_pressure,
            air.element_temperature,
            vapour=air.vapour,
        )
        return float(found.mass_flow), found.notes
    flow = plenum_orifice_flow(
        setup.orifice_diameter,
        r.element_pressure,
        air.element_pressure,
        air.element_temperature,
        setup.orifice_coefficient or 0.60,
        air.vapour,
    )
    return float(flow) * air.element_density, ()


def scaled(flow: float, setup: SetUp, pressure: float | None = None) -> tuple[float, tuple[str, ...]]:
    """A scale's flow [m3/s] referred to reference air, where the bench needs it; and notes.

    `pressure` [Pa] is the drop across the test piece at that reading, nominal where None. Benches that
    correct themselves come through unchanged. Raises ValueError never for finite figures. Source:
    formula book of this project, element correction.
    """
    if setup.scale_density is None:
        return flow, ()
    air = air_at_bench(setup, pressure or setup.test_pressure or 0.0)
    if air is None:
        return flow, (NO_AIR,)
    corrected = bench_element.element_correction(flow, setup.scale_density, air.element_density, air.test_density)
    return float(corrected), ()


def mass_flows(flow: Array, measured_pressure: Array, setup: SetUp) -> Array:
    """Mass flow behind a reported flow, through the air that entered the test piece.

    Parameters
    ----------
    flow : ndarray
        Reported flow at the pressure measured there, leak off [m3/s], shape (n,).
    measured_pressure : ndarray
        [Pa], shape (n,).
    setup : SetUp
        With the air; reference air where it was not recorded.

    Returns
    -------
    ndarray
        Q sqrt(rho_test rho_ref) [kg/s], shape (n,).

    Raises
    ------
    ValueError
        As `air_at_bench`.

    References
    ----------
    The inverse of `bench_element.mass_flow_correction`.
    """
    return np.asarray(flow * np.sqrt(test_densities(measured_pressure, setup) * REFERENCE_DENSITY))


def test_densities(measured_pressure: Array, setup: SetUp) -> Array:
    """Density of the air entering the test piece at each reading [kg/m3]; reference air where it was not recorded.

    `measured_pressure` [Pa], shape (n,). Raises ValueError as `air_at_bench`. Source: there.
    """
    states = [air_at_bench(setup, float(dp)) for dp in measured_pressure]
    return np.array([REFERENCE_DENSITY if s is None else s.test_density for s in states])

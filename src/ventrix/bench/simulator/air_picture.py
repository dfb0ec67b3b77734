"""One flow picture of the made-up port: fast and slow sides, separation, swirl. Probe, ball and paddle read it.

A section is seen from the opening towards the valve: u from the left wall (-1) to the right (+1), v from
the floor (-1) to the roof (+1). The speed is the mean, Q/A, times a shape whose own mean is one, so that
what a probe finds adds up to the bench's flow.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import ArrayLike

from ventrix.bench.simulator.physics import SimulatedPort
from ventrix.core.formulas.atmosphere import (
    GAMMA,
    GAS_CONSTANT,
    REFERENCE_DENSITY,
    REFERENCE_PRESSURE,
    REFERENCE_TEMPERATURE,
)
from ventrix.core.formulas.valve import lift_ratio
from ventrix.core.model.kinds import Direction
from ventrix.core.quantity.arrays import Array

_GRID: Final = np.linspace(-1, 1, 61)
_EDGE: Final = 0.04  # of half a side: how thin the slow air at the wall is


@dataclass(frozen=True, slots=True)
class SimulatedStation:
    """A section of the port: where along it (share of its length), its area and its leanings.

    size : its area over the valve's, where no cut of the throat reaches; over the throat's with `of_throat`

    lean_roof, lean_right : how much faster roof and right side are while the air is attached
    sheds : how much of the floor's air is lost where the short side lets go
    """

    at: float
    size: float
    aspect: float
    lean_roof: float
    lean_right: float
    sheds: float
    of_throat: bool = False


STATIONS: Final = {
    "opening": SimulatedStation(0.0, 0.73, 0.62, 0.02, 0.02, 0.03),
    "pinch": SimulatedStation(0.38, 0.66, 0.52, 0.05, 0.10, 0.08),
    "guide": SimulatedStation(0.66, 0.69, 0.75, 0.02, 0.07, 0.25),
    "short side": SimulatedStation(0.80, 0.84, 0.85, -0.12, 0.06, 0.95, of_throat=True),
    "bowl": SimulatedStation(0.90, 1.00, 1.0, 0.05, 0.08, 0.60, of_throat=True),
    "seat": SimulatedStation(1.0, 0.97, 1.0, 0.06, 0.08, 0.75, of_throat=True),
}


def _raw(station: SimulatedStation, separation: float, tight: float, u: Array, v: Array) -> Array:
    lost = station.sheds * separation * tight
    floor = np.exp(-(((v + 1) / 0.55) ** 2))
    shape = 1 + station.lean_roof * v + station.lean_right * u - lost * floor
    wall = (1 - np.exp(-(1 - np.abs(u)) / _EDGE)) * (1 - np.exp(-(1 - np.abs(v)) / _EDGE))
    return np.asarray(np.maximum(shape, 0.02) * wall)


def station_area(port: SimulatedPort, station: str) -> float:
    """Area of a section [m2]: what stands before the short side keeps its own, the rest grows with the throat."""
    here = STATIONS[station]
    across = port.throat_diameter if here.of_throat else port.valve_diameter
    return here.size * float(np.pi / 4 * across**2)


def tightness(port: SimulatedPort) -> float:
    """How tight the short side is, 0 to 1: what a cut that lays it back takes away."""
    return float(np.clip(port.stall_loss / 0.06, 0.0, 1.0))


def shape(port: SimulatedPort, station: str, lift: float, u: ArrayLike, v: ArrayLike) -> Array:
    """Speed over the section's mean [-] at places u, v; its mean over the section is one."""
    here = STATIONS[station]
    separation, tight = float(port.separation(lift)), tightness(port)
    grid_u, grid_v = np.meshgrid(_GRID, _GRID)
    weights = np.ones(len(_GRID))
    weights[[0, -1]] = 0.5
    over = np.outer(weights, weights)
    mean = float(np.sum(over * _raw(here, separation, tight, grid_u, grid_v)) / over.sum())
    places = np.asarray(u, dtype=float), np.asarray(v, dtype=float)
    return np.asarray(_raw(here, separation, tight, *places) / mean)


def speed(port: SimulatedPort, station: str, lift: float, pressure: float, u: ArrayLike, v: ArrayLike) -> Array:
    """Air speed [m/s] at places of a section, at a lift [m] and pressure drop [Pa]."""
    mean = float(port.flow(lift, pressure)) / station_area(port, station)
    return np.asarray(mean * shape(port, station, lift, u, v))


def probe_pressure(
    port: SimulatedPort,
    station: str,
    lift: float,
    pressure: float,
    u: float,
    v: float,
    direction: Direction = Direction.INTAKE,
) -> float:
    """What a pitot probe reads there [Pa]: total less static of air that is compressible, at reference air.

    On draw its total is the room's; on blow its static is. The mass flux there is that of `speed`; the pressure
    ratio that carries it is found by halving.
    """
    room, warmth = REFERENCE_PRESSURE, REFERENCE_TEMPERATURE
    entering = room if direction == Direction.INTAKE else room + pressure
    wanted = float(speed(port, station, lift, pressure, u, v)) * np.sqrt(
        REFERENCE_DENSITY * entering / (GAS_CONSTANT * warmth)
    )

    def flux(ratio: float) -> float:
        """Mass flux [kg/(s m2)] of air expanded from total to static over this ratio, from energy and entropy."""
        static = room / ratio if direction == Direction.INTAKE else room
        cooled = warmth * ratio ** (-(GAMMA - 1) / GAMMA)
        fast = np.sqrt(2 * GAMMA / (GAMMA - 1) * GAS_CONSTANT * (warmth - cooled))
        return float(static / (GAS_CONSTANT * cooled) * fast)

    low, high = 1.0, ((GAMMA + 1) / 2) ** (GAMMA / (GAMMA - 1))
    for _ in range(60):
        middle = (low + high) / 2
        low, high = (middle, high) if flux(middle) < wanted else (low, middle)
    return room * (1 - 1 / low) if direction == Direction.INTAKE else room * (low - 1)


# Of the port's own loss, what is gone behind a station.
_LOST_BEHIND: Final = {
    "opening": 0.07, "pinch": 0.28, "guide": 0.52, "short side": 0.86, "bowl": 0.97, "seat": 1.0,
}  # fmt: skip


def total_head_lost(port: SimulatedPort, station: str, lift: float, pressure: float, u: float, v: float) -> float:
    """How far the total head there is under the room's [Pa], on draw: slow air has lost most, and the mean over the
    section is the share of the port's own loss up to there."""
    x = float(lift_ratio(lift, port.valve_diameter))
    area = port.port_area * (1 - port.stall_loss * float(port.separation(lift)))
    of_port = (float(port.effective_area(lift)) / area) ** 2 if x > 0 else 0.0
    mean = _LOST_BEHIND[station] * of_port * pressure
    return mean * max(1 + 0.4 * (1 - float(shape(port, station, lift, u, v))), 0.0)


def ball_drop(port: SimulatedPort, station: str, lift: float, u: float, v: float) -> float:
    """Share of the flow that a ball there takes away [-]: busy places take most."""
    narrow = float(np.pi / 4 * port.throat_diameter**2) / station_area(port, station)
    return float(0.03 * (shape(port, station, lift, u, v) * narrow) ** 2)


def swirl_coefficient(port: SimulatedPort, lift: float) -> float:
    """Swirl coefficient [-], anticlockwise seen from above positive: grows with lift, falls as the air
    lets go of the floor, and turns the other way just off the seat."""
    x = float(lift_ratio(lift, port.valve_diameter))
    attached = 1 - 0.5 * float(port.separation(lift)) * tightness(port)
    return float(port.swirl * attached * (x / 0.25) ** 1.3) - 0.06 * float(np.exp(-(((x - 0.05) / 0.03) ** 2)))

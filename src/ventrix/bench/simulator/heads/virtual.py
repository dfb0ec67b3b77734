"""Virtual ports: metal that can be measured and worked, over a truth that only the port itself knows.

What a porter can see (`Sizes`, walls, flows with scatter) is alike for all; what makes the flow is not: each generator
has a structure of its own, and none of them is the planner's. They were written before it, and are never tuned with
it; how much there is to gain follows the trade: a millimetre everywhere brings a seventh to a third (common practice,
no source).
"""

from __future__ import annotations

from abc import ABC, abstractmethod
from dataclasses import dataclass, replace
from typing import Final, Protocol

import numpy as np

from ventrix.core.formulas.bench_flow import ideal_flux
from ventrix.core.model.kinds import Place
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.units import to_si

PRESSURE: Final = to_si(28, "inH2O")
WORKED: Final = (Place.OPENING, Place.PINCH, Place.GUIDE, Place.SHORT_SIDE, Place.BOWL, Place.THROAT)
# Metal left on a casting by place [m]: median and relative scatter; castings shift (common practice, no source).
_WALLS: Final = {
    Place.OPENING: (6.0e-3, 0.15),
    Place.PINCH: (3.6e-3, 0.22),
    Place.GUIDE: (8.0e-3, 0.15),
    Place.SHORT_SIDE: (4.4e-3, 0.25),
    Place.BOWL: (4.6e-3, 0.20),
    Place.THROAT: (5.5e-3, 0.15),
}
# Minutes a millimetre and to begin with, by place (common practice, no source).
MINUTES: Final = {
    Place.OPENING: (30.0, 10.0),
    Place.PINCH: (40.0, 10.0),
    Place.GUIDE: (25.0, 10.0),
    Place.SHORT_SIDE: (50.0, 15.0),
    Place.BOWL: (35.0, 10.0),
    Place.THROAT: (35.0, 15.0),
}


@dataclass(frozen=True, slots=True)
class Sizes:
    """What can be measured on the metal [m, m2, rad]: `areas` are sections by place, free of stem and guide; `widths`
    how much of a section's edge is worked at each place."""

    valve_diameter: float
    stem_diameter: float
    seat_width: float
    seat_angle: float
    throat_diameter: float
    areas: dict[Place, float]
    widths: dict[Place, float]
    short_side_radius: float
    short_side_height: float
    turning: float
    length: float


@dataclass(frozen=True, slots=True)
class Metal:
    """The sizes as they are, how deep each place was worked so far, and what is left of each wall [m]."""

    sizes: Sizes
    depth: dict[Place, float]
    walls: dict[Place, float]

    def worked(self, place: Place, depth: float) -> Metal:
        """The metal after a pass: sections grow by depth times the edge worked, the wall gets thinner."""
        s = self.sizes
        areas = dict(s.areas)
        throat, radius = s.throat_diameter, s.short_side_radius
        if place is Place.THROAT:
            throat = min(throat + 2 * depth, 0.94 * s.valve_diameter)
            areas[Place.THROAT] = np.pi / 4 * (throat**2 - s.stem_diameter**2)
        else:
            areas[place] = areas[place] + depth * s.widths[place]
        if place is Place.SHORT_SIDE:
            radius = radius + 1.5 * depth
        sizes = replace(s, areas=areas, throat_diameter=throat, short_side_radius=radius)
        return Metal(
            sizes,
            self.depth | {place: self.depth[place] + depth},
            self.walls | {place: self.walls[place] - depth},
        )


class VirtualPort(ABC):
    """One port of one generator, in one state of its metal."""

    structure: str = ""

    def __init__(self, metal: Metal) -> None:
        self.metal = metal

    @abstractmethod
    def effective_area(self, lift: Array) -> Array:
        """Effective area at rising lifts [m2], shape of `lift` [m]."""

    @abstractmethod
    def with_metal(self, metal: Metal) -> VirtualPort:
        """The same truth behind other metal."""

    def flow(self, lift: Array) -> Array:
        """True flow at 28 inH2O [m3/s]."""
        return np.asarray(self.effective_area(np.asarray(lift, dtype=float)) * float(ideal_flux(PRESSURE)))

    def measured(self, lift: Array, random: np.random.Generator, mount: float = 0.003, repeat: float = 0.003) -> Array:
        """Flow as a bench reads it: one bolting-down, and each reading's own scatter."""
        own = 1 + repeat * random.standard_normal(len(lift))
        return np.asarray(self.flow(lift) * (1 + mount * random.standard_normal()) * own)

    def work(self, place: Place, depth: float, random: np.random.Generator | None = None) -> VirtualPort:
        """The port after a pass meant to be `depth` deep [m]; by hand it comes out 15 % either way."""
        meant = depth if random is None else depth * float(np.exp(0.15 * random.standard_normal()))
        return self.with_metal(self.metal.worked(place, meant))

    @property
    def broken(self) -> bool:
        """Whether a wall was cut through."""
        return min(self.metal.walls.values()) <= 0


class Draws(Protocol):
    """Where a port's numbers come from: a generator of random numbers, or one that ports of a casting share."""

    def uniform(self, low: float = ..., high: float = ..., /) -> float: ...

    def normal(self, mean: float = ..., spread: float = ..., /) -> float: ...

    def standard_normal(self) -> float: ...


def draws_of(seed: int | Draws, salt: int) -> Draws:
    """The numbers of a port by its seed; those handed in as they are."""
    return np.random.default_rng((seed, salt)) if isinstance(seed, int) else seed


def casting(random: Draws) -> Metal:
    """A port as cast: sizes about those of a two-valve head, walls with the core shifted."""

    def about(median: float, share: float) -> float:
        return float(median * np.exp(share * random.standard_normal()))

    valve = about(0.046, 0.06)
    stem = 0.15 * valve
    throat = valve * float(random.uniform(0.84, 0.88))
    throat_area = np.pi / 4 * (throat**2 - stem**2)
    areas = {
        Place.OPENING: throat_area * about(1.06, 0.07),
        Place.PINCH: throat_area * about(0.90, 0.07),
        Place.GUIDE: throat_area * about(1.00, 0.06),
        Place.SHORT_SIDE: throat_area * about(0.98, 0.06),
        Place.BOWL: throat_area * about(1.08, 0.06),
        Place.THROAT: throat_area,
    }
    widths = {p: about(0.045, 0.15) for p in WORKED} | {Place.THROAT: np.pi * throat}
    sizes = Sizes(
        valve_diameter=valve,
        stem_diameter=stem,
        seat_width=about(0.0015, 0.12),
        seat_angle=np.pi / 4,
        throat_diameter=throat,
        areas=areas,
        widths=widths,
        short_side_radius=about(0.008, 0.25),
        short_side_height=about(0.025, 0.12),
        turning=np.pi / 2 - float(random.uniform(0.3, 0.7)),
        length=about(0.105, 0.08),
    )
    walls = {p: max(about(median, share), 1.0e-3) for p, (median, share) in _WALLS.items()}
    return Metal(sizes, dict.fromkeys(WORKED, 0.0), walls)

"""A head that does not exist, for practice: whose it is, what it teaches, and the truth that a seed makes."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from ventrix.bench.simulator.heads.virtual import Metal, Sizes, VirtualPort
from ventrix.core.model.kinds import Direction, Place
from ventrix.core.quantity.units import to_si

WALLS_DIFFER: Final = 0.12
AREAS_DIFFER: Final = 0.005


@dataclass(frozen=True, slots=True)
class OwnersEngine:
    """What the head is for [m, rad/s, rad at 0.050 in]; of a port that shares its cylinder, the bore of its share."""

    bore: float
    stroke: float
    low: float
    high: float
    cam_lift: float
    cam_duration: float


def engine(bore_mm: float, stroke_mm: float, low: float, high: float, cam_in: float, cam_deg: float) -> OwnersEngine:
    """An engine as its owner tells it."""
    sizes = to_si(bore_mm, "mm"), to_si(stroke_mm, "mm")
    speeds = to_si(low, "rpm"), to_si(high, "rpm")
    return OwnersEngine(*sizes, *speeds, to_si(cam_in, "in"), to_si(cam_deg, "deg"))


@dataclass(frozen=True, slots=True)
class PracticeHead:
    """`owner` is what its owner wants of it and may be asked, `hours` what he pays for; a bench reads it with these
    scatters [-], and by `drift` too high while it is cold; `history` is what shows of earlier work. `make` gives the
    same truth for the same seed, of the first of its `count` ports."""

    id: str
    title: str
    teaches: str
    owner: str
    hours: float
    make: Callable[[int], VirtualPort]
    kind: Direction = Direction.INTAKE
    repeat: float = 0.003
    mount: float = 0.003
    drift: float = 0.0
    history: str = ""
    engine: OwnersEngine | None = None
    count: int = 1

    def ports(self, seed: int) -> tuple[VirtualPort, ...]:
        """The truth behind each of its ports: one casting, whose core lay a little elsewhere in each."""
        first = self.make(seed)
        return (first, *(sister(first, np.random.default_rng((seed, n, 37))) for n in range(1, self.count)))


def sister(port: VirtualPort, random: np.random.Generator) -> VirtualPort:
    """Another port of the same casting: walls that differ by an eighth, sections by one in two hundred (common
    practice, no source)."""
    sizes = port.metal.sizes
    walls = {p: w * float(np.exp(WALLS_DIFFER * random.standard_normal())) for p, w in port.metal.walls.items()}
    areas = {p: a * float(np.exp(AREAS_DIFFER * random.standard_normal())) for p, a in sizes.areas.items()}
    return port.with_metal(replace(port.metal, walls=walls, sizes=replace(sizes, areas=areas)))


def with_walls(port: VirtualPort, walls: dict[Place, float]) -> VirtualPort:
    """The same port with other metal left at places [m]."""
    return port.with_metal(replace(port.metal, walls=port.metal.walls | walls))


def scaled(port: VirtualPort, share: float) -> VirtualPort:
    """The same truth behind a port that is smaller or larger throughout."""
    s = port.metal.sizes
    sizes = Sizes(
        valve_diameter=s.valve_diameter * share,
        stem_diameter=s.stem_diameter * share,
        seat_width=s.seat_width * share,
        seat_angle=s.seat_angle,
        throat_diameter=s.throat_diameter * share,
        areas={p: a * share**2 for p, a in s.areas.items()},
        widths={p: w * share for p, w in s.widths.items()},
        short_side_radius=s.short_side_radius * share,
        short_side_height=s.short_side_height * share,
        turning=s.turning,
        length=s.length * share,
    )
    metal = Metal(sizes, port.metal.depth, port.metal.walls)
    return port.with_metal(metal)

"""Generator "kinetic": the air's own energy is dissipated where it has to change its speed or its way; an eddy of the
bowl grows with lift and steals from the short side's turn; swirl carries energy away."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ventrix.bench.simulator.heads.virtual import Draws, Metal, VirtualPort, casting, draws_of
from ventrix.core.model.kinds import Place
from ventrix.core.quantity.arrays import Array

_ORDER = (Place.OPENING, Place.PINCH, Place.GUIDE, Place.SHORT_SIDE, Place.BOWL, Place.THROAT)


@dataclass(frozen=True, slots=True)
class _Truth:
    """Hidden: how rough each place is as cast (share of its kinetic energy), how work wears that away [m], what a
    change of section costs, the turn's share and its reach in radii, the eddy, swirl, and steps of the valve's
    coefficient."""

    rough: dict[Place, float]
    wears: dict[Place, float]
    change: float
    turn: float
    eddy: float
    swirl: float
    steps: tuple[tuple[float, float], ...]
    valve: float


class Kinetic(VirtualPort):
    """Dissipation of kinetic energy along the way, solved for the flow."""

    structure = "kinetic"

    def __init__(self, metal: Metal, truth: _Truth) -> None:
        super().__init__(metal)
        self._truth = truth

    def with_metal(self, metal: Metal) -> Kinetic:
        return Kinetic(metal, self._truth)

    def effective_area(self, lift: Array) -> Array:
        s, t = self.metal.sizes, self._truth
        x = np.asarray(lift, dtype=float) / s.valve_diameter
        eaten = np.zeros_like(x)
        before = 1.25 * s.areas[Place.OPENING]
        for place in _ORDER:
            area = s.areas[place]
            worn = 1 / (1 + self.metal.depth[place] / t.wears[place])
            eaten += t.rough[place] * worn / area**2
            if area > before:
                eaten += t.change * (1 / before - 1 / area) ** 2  # Carnot's mixing, a share of it
            else:
                eaten += 0.4 * t.change * (1 / area - 1 / before) ** 2
            before = area
        sharpness = s.short_side_height / max(s.short_side_radius, 1e-4)
        turn = (
            t.turn * (s.turning / 1.2) * np.tanh(sharpness / 3) * (1 + t.eddy * np.clip((x - 0.20) / 0.12, 0, 1) ** 2)
        )
        eaten += turn / s.areas[Place.SHORT_SIDE] ** 2
        eaten += t.swirl * np.clip(x / 0.3, 0, 1) ** 2 / s.areas[Place.BOWL] ** 2
        coefficient = t.valve * np.ones_like(x)
        for at, drop in t.steps:
            coefficient = coefficient - drop * (x > at)
        slant = (
            np.minimum(np.asarray(lift, dtype=float) * np.cos(s.seat_angle), 1.0)
            + 0.3 * np.asarray(lift, dtype=float) * x
        )
        valve = np.maximum(np.pi * s.valve_diameter * slant * coefficient, 1e-12)
        return np.asarray(1 / np.sqrt(eaten + 1 / valve**2))


def kinetic(seed: int | Draws) -> Kinetic:
    """A port of this generator; the same seed is the same port."""
    random = draws_of(seed, 33)
    metal = casting(random)

    def about(median: float, spread: float) -> float:
        return float(median * np.exp(spread * random.standard_normal()))

    rough = {
        Place.OPENING: about(0.06, 0.6),
        Place.PINCH: about(0.13, 0.6),
        Place.GUIDE: about(0.28, 0.5),
        Place.SHORT_SIDE: about(0.24, 0.6),
        Place.BOWL: about(0.22, 0.6),
        Place.THROAT: about(0.20, 0.5),
    }
    wears = {p: about(0.5e-3, 0.5) for p in _ORDER}
    steps = tuple(sorted((float(random.uniform(0.08, 0.22)), float(random.uniform(0.01, 0.06))) for _ in range(3)))
    truth = _Truth(
        rough,
        wears,
        about(0.7, 0.3),
        about(0.16, 0.5),
        float(random.uniform(0.0, 1.2)),
        about(0.03, 0.6),
        steps,
        about(1.02, 0.03),
    )
    return Kinetic(metal, truth)

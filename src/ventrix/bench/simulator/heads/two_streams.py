"""Generator "two streams": the air goes over the roof and over the floor in parallel, and the floor stream lets go of
a tight short side above a speed of its own, and takes hold again later than it let go."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ventrix.bench.simulator.heads.virtual import Draws, Metal, VirtualPort, casting, draws_of
from ventrix.core.model.kinds import Place
from ventrix.core.quantity.arrays import Array


@dataclass(frozen=True, slots=True)
class _Truth:
    """Hidden: losses of each stream on its own half of the section, when the floor stream lets go, what that costs,
    and how soon a pass smooths each place [m]."""

    roof: dict[Place, float]
    floor: dict[Place, float]
    lets_go: float
    costs: float
    holds_again: float
    valve: tuple[float, float, float]
    smooths: dict[Place, float]
    best_share: float
    ring: float


class TwoStreams(VirtualPort):
    """Both streams feel one pressure drop; each has losses in series of its own."""

    structure = "two streams"

    def __init__(self, metal: Metal, truth: _Truth) -> None:
        super().__init__(metal)
        self._truth = truth

    def with_metal(self, metal: Metal) -> TwoStreams:
        return TwoStreams(metal, self._truth)

    def _left(self, place: Place) -> float:
        """What is left of a place's loss: it falls with the depth worked and never below a share of its own."""
        t = self._truth
        return t.best_share + (1 - t.best_share) * float(np.exp(-self.metal.depth[place] / t.smooths[place]))

    def _stream(self, losses: dict[Place, float], share: float) -> float:
        s = self.metal.sizes
        return sum(k * self._left(p) / (share * s.areas[p]) ** 2 for p, k in losses.items())

    def effective_area(self, lift: Array) -> Array:
        s, t = self.metal.sizes, self._truth
        ratio = np.asarray(lift) / s.valve_diameter
        c0, c1, c2 = t.valve
        opening = np.pi * s.valve_diameter * np.asarray(lift) * np.cos(s.seat_angle) ** 0.35
        coefficient = c0 - c1 * np.clip(ratio / 0.25, 0, 1.4) ** 1.3 + c2 * np.exp(-(((ratio - 0.09) / 0.03) ** 2))
        valve = opening * coefficient
        throat = 0.97 * s.areas[Place.THROAT]
        roof = self._stream(t.roof, 0.56)
        floor = self._stream(t.floor, 0.44)
        tight = s.short_side_height / max(s.short_side_radius, 1e-4)
        found = np.empty_like(ratio)
        loose = False
        for i, (r, v) in enumerate(zip(ratio, valve, strict=True)):
            limit = t.lets_go * (3.0 / tight) ** 0.4 * (t.holds_again if loose else 1.0)
            loose = bool(r > limit)
            extra = 1 + t.costs * (1 - np.exp(-(r - limit) / 0.04)) if loose else 1.0
            port = 1 / np.sqrt(roof) + 1 / np.sqrt(floor * extra**2)
            found[i] = (
                1 / np.sqrt(1 / v**2 + 1 / port**2 + t.ring * self._left(Place.THROAT) / throat**2) if v > 0 else 0.0
            )
        return found


def two_streams(seed: int | Draws) -> TwoStreams:
    """A port of this generator; the same seed is the same port."""
    random = draws_of(seed, 11)
    metal = casting(random)

    def about(median: float, share: float) -> float:
        return float(median * np.exp(share * random.standard_normal()))

    roof = {
        Place.OPENING: about(0.09, 0.5),
        Place.PINCH: about(0.20, 0.6),
        Place.GUIDE: about(0.50, 0.5),
        Place.BOWL: about(0.34, 0.6),
    }
    floor = {
        Place.OPENING: about(0.09, 0.5),
        Place.PINCH: about(0.22, 0.6),
        Place.SHORT_SIDE: about(0.75, 0.5),
        Place.BOWL: about(0.28, 0.6),
    }
    smooths = {
        p: about(m, 0.5)
        for p, m in (
            (Place.OPENING, 2.5e-3),
            (Place.PINCH, 1.8e-3),
            (Place.GUIDE, 0.9e-3),
            (Place.SHORT_SIDE, 0.8e-3),
            (Place.BOWL, 1.2e-3),
            (Place.THROAT, 0.8e-3),
        )
    }
    truth = _Truth(
        roof,
        floor,
        about(0.26, 0.12),
        about(0.35, 0.5),
        0.92,
        (about(0.90, 0.03), about(0.22, 0.25), about(0.03, 0.5)),
        smooths,
        float(random.uniform(0.15, 0.45)),
        about(0.28, 0.4),
    )
    return TwoStreams(metal, truth)

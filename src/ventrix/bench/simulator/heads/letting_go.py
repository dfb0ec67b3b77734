"""Generator "letting go": losses multiply; past one lift the air lets go of the short side in a corner of the curve and
crowds onto the guide; opening the throat costs low lifts, and a bowl wider than it needs costs at all of them."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ventrix.bench.simulator.heads.virtual import Draws, Metal, VirtualPort, casting, draws_of
from ventrix.core.model.kinds import Place
from ventrix.core.quantity.arrays import Array

_CHAIN = (Place.OPENING, Place.PINCH, Place.GUIDE, Place.SHORT_SIDE, Place.BOWL, Place.THROAT)


@dataclass(frozen=True, slots=True)
class _Truth:
    """Hidden: by how much each place spoils the air as cast [-] and how deep the pass is that halves it [m]; L/D from
    which the air lets go, how much it then loses for each further L/D, how far a metre of work on the short side moves
    that, and how much more the guide spoils then; what a metre off the throat costs at low lift, what a wide bowl does;
    and the valve's coefficient at low and high lift."""

    spoils: dict[Place, float]
    halves: dict[Place, float]
    lets_go: float
    falls: float
    moves: float
    crowds: float
    seat: float
    bowl: float
    low: float
    high: float


class LettingGo(VirtualPort):
    """A product of what each place leaves of the air, over the smaller of curtain and throat."""

    structure = "letting go"

    def __init__(self, metal: Metal, truth: _Truth) -> None:
        super().__init__(metal)
        self._truth = truth

    def with_metal(self, metal: Metal) -> LettingGo:
        return LettingGo(metal, self._truth)

    def _spoils(self, place: Place) -> float:
        t = self._truth
        return t.spoils[place] * float(0.5 ** (self.metal.depth[place] / t.halves[place]))

    def effective_area(self, lift: Array) -> Array:
        s, t = self.metal.sizes, self._truth
        x = np.asarray(lift, dtype=float) / s.valve_diameter
        fills = np.clip(x / 0.25, 0.0, 1.0)  # a place matters as the port, and no longer the valve, is what is small
        past = np.maximum(x - t.lets_go - t.moves * self.metal.depth[Place.SHORT_SIDE], 0.0)
        left = np.ones_like(x)
        for place in _CHAIN:
            here = self._spoils(place) * fills**2 * (s.areas[Place.THROAT] / s.areas[place]) ** 1.5
            if place is Place.GUIDE:
                here = here * (1 + t.crowds * np.clip(past / 0.05, 0.0, 1.0))
            left = left * (1 - here)
        left = left * np.exp(-t.falls * past)
        wide = max(s.areas[Place.BOWL] / s.areas[Place.THROAT] - 1.18, 0.0)
        seat = 1 - t.seat * self.metal.depth[Place.THROAT] * np.exp(-((x / 0.09) ** 2))
        coefficient = t.high + (t.low - t.high) * np.exp(-((x / 0.16) ** 2))
        curtain = np.pi * s.valve_diameter * np.maximum(np.asarray(lift, dtype=float), 1e-9)
        curtain = curtain * (0.86 + 0.1 * np.tanh(x / 0.1))
        smaller = (curtain**-4 + s.areas[Place.THROAT] ** -4.0) ** -0.25
        return np.asarray(smaller * coefficient * left * seat * (1 - t.bowl * wide))


def letting_go(seed: int | Draws) -> LettingGo:
    """A port of this generator; the same seed is the same port."""
    random = draws_of(seed, 24)
    metal = casting(random)

    def between(low: float, high: float) -> float:
        return float(random.uniform(low, high))

    spoils = {
        Place.OPENING: between(0.01, 0.03),
        Place.PINCH: between(0.02, 0.08),
        Place.GUIDE: between(0.03, 0.10),
        Place.SHORT_SIDE: between(0.04, 0.12),
        Place.BOWL: between(0.03, 0.09),
        Place.THROAT: between(0.02, 0.08),
    }
    halves = {p: float(np.exp(random.normal(np.log(0.7e-3), 0.5))) for p in spoils}
    truth = _Truth(
        spoils,
        halves,
        between(0.22, 0.30),
        between(0.3, 1.6),
        between(8.0, 25.0),
        between(0.3, 1.2),
        between(10.0, 40.0),
        between(0.2, 0.6),
        between(0.88, 0.96),
        between(0.74, 0.84),
    )
    return LettingGo(metal, truth)

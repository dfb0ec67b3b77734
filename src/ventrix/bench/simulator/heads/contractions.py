"""Generator "contractions": every edge pinches the jet to a share of the metal, and the narrowest places count more
than their squares; the guide's wake makes the short side worse; the valve has two regimes that meet in a corner."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ventrix.bench.simulator.heads.virtual import Draws, Metal, VirtualPort, casting, draws_of
from ventrix.core.model.kinds import Place
from ventrix.core.quantity.arrays import Array


@dataclass(frozen=True, slots=True)
class _Truth:
    """Hidden: share of each section that the jet fills as cast, how fast work opens it [1/m], how much the wake of the
    guide takes from the short side, how sharply places join, and the valve's two regimes."""

    fills: dict[Place, float]
    opens: dict[Place, float]
    wake: float
    sharp: float
    attached: float
    detached: float
    corner: float


class Contractions(VirtualPort):
    """Effective areas joined by a power above two."""

    structure = "contractions"

    def __init__(self, metal: Metal, truth: _Truth) -> None:
        super().__init__(metal)
        self._truth = truth

    def with_metal(self, metal: Metal) -> Contractions:
        return Contractions(metal, self._truth)

    def _filled(self, place: Place) -> float:
        """The share of a section that the jet fills: one less what is left of the edge."""
        t = self._truth
        return 1 - (1 - t.fills[place]) * float(np.exp(-t.opens[place] * self.metal.depth[place]))

    def effective_area(self, lift: Array) -> Array:
        s, t = self.metal.sizes, self._truth
        x = np.asarray(lift, dtype=float) / s.valve_diameter
        wake = t.wake * (1 - self._filled(Place.GUIDE)) * np.clip(x / 0.25, 0, 1.2)
        areas = []
        for place in t.fills:
            filled = self._filled(place) * np.ones_like(x)
            if place is Place.SHORT_SIDE:
                filled = filled * (1 - wake) * (1 - 0.10 / (1 + np.exp(-(x - 0.27) / 0.02)) * (1 - filled))
            areas.append(s.areas[place] * filled)
        curtain = (
            np.pi
            * s.valve_diameter
            * np.asarray(lift, dtype=float)
            * (1 - 0.25 * np.sin(s.seat_angle) * np.exp(-x / 0.05))
        )
        jet = np.where(
            x < t.corner, t.attached, t.attached - (t.attached - t.detached) * np.clip((x - t.corner) / 0.16, 0, 1)
        )
        areas.append(np.maximum(curtain * jet, 1e-12))
        return np.asarray(sum(a ** (-t.sharp) for a in areas) ** (-1 / t.sharp))


def contractions(seed: int | Draws) -> Contractions:
    """A port of this generator; the same seed is the same port."""
    random = draws_of(seed, 22)
    metal = casting(random)

    def share(low: float, high: float) -> float:
        return float(random.uniform(low, high))

    fills = {
        Place.OPENING: share(0.86, 0.97),
        Place.PINCH: share(0.74, 0.94),
        Place.GUIDE: share(0.62, 0.86),
        Place.SHORT_SIDE: share(0.58, 0.84),
        Place.BOWL: share(0.66, 0.90),
        Place.THROAT: share(0.70, 0.90),
    }
    opens = {p: float(np.exp(random.normal(np.log(1200), 0.6))) for p in fills}
    truth = _Truth(
        fills, opens, share(0.1, 0.6), share(4.5, 6.5), share(0.93, 1.0), share(0.62, 0.74), share(0.10, 0.16)
    )
    return Contractions(metal, truth)

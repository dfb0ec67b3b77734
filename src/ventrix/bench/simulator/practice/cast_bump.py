"""An exhaust with a bump cast into it before its guide: one thing that pays, once."""

from __future__ import annotations

import numpy as np

from ventrix.bench.simulator.heads.kinetic import kinetic
from ventrix.bench.simulator.heads.virtual import Metal, VirtualPort
from ventrix.bench.simulator.practice.head import PracticeHead, scaled
from ventrix.core.model.kinds import Direction, Place
from ventrix.core.quantity.arrays import Array
from ventrix.words import tr

BUMP = 0.9  # of the guide's section, as a loss
GONE = 0.5e-3  # m: worn away by so much


class WithBump(VirtualPort):
    """A port behind a bump that the burr takes away."""

    structure = "bump"

    def __init__(self, inner: VirtualPort) -> None:
        super().__init__(inner.metal)
        self._inner = inner

    def with_metal(self, metal: Metal) -> WithBump:
        return WithBump(self._inner.with_metal(metal))

    def effective_area(self, lift: Array) -> Array:
        inside = np.maximum(self._inner.effective_area(lift), 1e-12)
        left = BUMP * float(np.exp(-self.metal.depth[Place.GUIDE] / GONE))
        area = self.metal.sizes.areas[Place.GUIDE]
        return np.asarray(1 / np.sqrt(1 / inside**2 + left / area**2))


def _make(seed: int) -> VirtualPort:
    return WithBump(scaled(kinetic(seed + 50), 0.85))


HEAD = PracticeHead(
    "cast-bump",
    tr("An exhaust with a cast bump"),
    tr("One place may hold most of it: find it with clay or by eye, take it, and move on."),
    tr("A truck's exhaust: bowl, guide and the cast hump first."),
    6.0,
    _make,
    kind=Direction.EXHAUST,
)

"""Water close under the short side: what looks worst must not be cut."""

from ventrix.bench.simulator.heads.kinetic import kinetic
from ventrix.bench.simulator.heads.virtual import VirtualPort
from ventrix.bench.simulator.practice.head import PracticeHead, engine, with_walls
from ventrix.core.model.kinds import Place
from ventrix.words import tr


def _make(seed: int) -> VirtualPort:
    return with_walls(kinetic(seed), {Place.SHORT_SIDE: 1.4e-3 + 2e-5 * (seed % 7)})


HEAD = PracticeHead(
    "thin-short-side",
    tr("A short side over water"),
    tr("Read the wall before the burr: the worst-looking place may be the thinnest."),
    tr("A tow engine: cleaned and left small for speed; the head is the last of its kind."),
    8.0,
    _make,
    engine=engine(98, 95, 1200, 4500, 0.42, 204),
)

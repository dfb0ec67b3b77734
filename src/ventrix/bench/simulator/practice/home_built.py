"""A small engine's head on a home-built bench: what is small cannot be told from nothing."""

from ventrix.bench.simulator.heads.two_streams import two_streams
from ventrix.bench.simulator.heads.virtual import VirtualPort
from ventrix.bench.simulator.practice.head import PracticeHead, engine, scaled
from ventrix.words import tr


def _make(seed: int) -> VirtualPort:
    return scaled(two_streams(seed + 300), 0.55)


HEAD = PracticeHead(
    "home-built",
    tr("A small head on a home-built bench"),
    tr("Gains smaller than the bench repeats are not gains: mount again, or leave it."),
    tr("A lawn racer: whatever it is worth."),
    6.0,
    _make,
    repeat=0.010,
    mount=0.008,
    drift=0.008,
    engine=engine(62, 48, 1800, 5000, 0.26, 200),
)

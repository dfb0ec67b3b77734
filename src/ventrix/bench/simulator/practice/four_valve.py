"""A four-valve's port, small sections and much air."""

from ventrix.bench.simulator.heads.two_streams import two_streams
from ventrix.bench.simulator.heads.virtual import VirtualPort
from ventrix.bench.simulator.practice.head import PracticeHead, engine, scaled


def _make(seed: int) -> VirtualPort:
    return scaled(two_streams(seed + 100), 0.72)


HEAD = PracticeHead(
    "four-valve",
    "One of four valves",
    "Small sections: a thousandth counts for more, and the seat for most at low lift.",
    "A four-valve engine for hill climbs, 8,500 rpm.",
    8.0,
    _make,
    engine=engine(59, 78, 4000, 8500, 0.40, 240),
)

"""A four-valve's port, small sections and much air."""

from ventrix.bench.simulator.heads.two_streams import two_streams
from ventrix.bench.simulator.heads.virtual import VirtualPort
from ventrix.bench.simulator.practice.head import PracticeHead, engine, scaled
from ventrix.words import tr


def _make(seed: int) -> VirtualPort:
    return scaled(two_streams(seed + 100), 0.72)


HEAD = PracticeHead(
    "four-valve",
    tr("One of four valves"),
    tr("Small sections: a thousandth counts for more, and the seat for most at low lift."),
    tr("A four-valve engine for hill climbs, 8,500 rpm."),
    8.0,
    _make,
    engine=engine(59, 78, 4000, 8500, 0.40, 240),
)

"""An easy head: thick walls, a bowl and a short side that pay."""

from ventrix.bench.simulator.heads.two_streams import two_streams
from ventrix.bench.simulator.heads.virtual import WORKED, VirtualPort
from ventrix.bench.simulator.practice.head import PracticeHead, engine, with_walls
from ventrix.words import tr


def _make(seed: int) -> VirtualPort:
    port = two_streams(seed)
    return with_walls(port, {p: port.metal.walls[p] + 2.0e-3 for p in WORKED})


HEAD = PracticeHead(
    "easy-two-valve",
    tr("An easy two-valve"),
    tr("Where the first hours pay, and that every cut is flowed by itself."),
    tr("A street engine, up to 6,000 rpm: flow over its middle lifts, no hurry."),
    8.0,
    _make,
    engine=engine(95, 85, 1500, 6000, 0.46, 220),
)

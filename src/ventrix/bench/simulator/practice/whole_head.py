"""A whole head of four intakes: one is developed, the others are copies, and one wall of the casting is thin."""

from __future__ import annotations

from typing import Final

from ventrix.bench.simulator.heads.two_streams import two_streams
from ventrix.bench.simulator.heads.virtual import WORKED, VirtualPort
from ventrix.bench.simulator.practice.head import PracticeHead, engine, with_walls
from ventrix.words import tr

SPARE: Final = 0.8e-3  # m more than a bare casting's wall: a copy may still find the core shifted


def _make(seed: int) -> VirtualPort:
    port = two_streams(seed)
    return with_walls(port, {p: port.metal.walls[p] + SPARE for p in WORKED})


HEAD = PracticeHead(
    "whole-head",
    tr("Four intakes of one casting"),
    tr("What an hour on the model port is worth to the others, and that each copy has walls of its own."),
    tr("All four are to flow alike, over the middle lifts. It goes back on in two days."),
    14.0,
    _make,
    engine=engine(86, 86, 1500, 6200, 0.42, 214),
    count=4,
)

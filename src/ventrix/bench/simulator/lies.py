"""The ways in which the simulated bench can mislead, each switched by itself: what mistakes do to numbers."""

from __future__ import annotations

from enum import Enum

import numpy as np

from ventrix.bench.simulator.physics import SimulatedPort
from ventrix.core.formulas.valve import lift_ratio
from ventrix.core.quantity.units import INCH
from ventrix.words import tr


class Lie(Enum):
    """A lie. The value is what it is called on the wire; `WORDS` says what it does."""

    RANGE = "RANGE"
    WARM_UP = "WARMUP"
    LEAK = "LEAK"
    OFF_CENTRE = "OFFCENTRE"
    BARE = "BARE"
    DIAL = "DIAL"
    BLOWER = "BLOWER"
    OTHER_BENCH = "OTHERBENCH"


WORDS = {
    Lie.RANGE: tr("ranges read differently near their ends"),
    Lie.WARM_UP: tr("cold: reads low, and drifts for some minutes"),
    Lie.LEAK: tr("the head's seal leaks"),
    Lie.OFF_CENTRE: tr("head off center: unshrouds the valve, reads high"),
    Lie.BARE: tr("bare entry in place of the radius: reads low"),
    Lie.DIAL: tr("dial zero three thousandths out"),
    Lie.BLOWER: tr("tired blower: at its limit early"),
    Lie.OTHER_BENCH: tr("a second bench: reads high, more so at high flow"),
}
DIAL_ERROR = 0.003 * INCH
WARM_TIME = 90.0  # s


class Lies:
    """Which lies are told, and what each does."""

    def __init__(self) -> None:
        self.told: set[Lie] = set()

    def switch(self, lie: Lie, on: bool) -> None:
        if on:
            self.told.add(lie)
        else:
            self.told.discard(lie)

    @property
    def leak(self) -> float:
        """Factor on the bench's leak."""
        return 9.0 if Lie.LEAK in self.told else 1.0

    @property
    def dial(self) -> float:
        """True lift less the dial's [m]."""
        return DIAL_ERROR if Lie.DIAL in self.told else 0.0

    def blower(self, flow: float) -> float:
        """What the blower can move [m3/s]."""
        return 0.62 * flow if Lie.BLOWER in self.told else flow

    def head(self, port: SimulatedPort, lift: float) -> float:
        """Factor on the flow through the head from how it stands on the bench."""
        factor = 1.0
        if Lie.OFF_CENTRE in self.told:
            factor *= 1 + 0.03 * float(np.clip(lift_ratio(lift, port.valve_diameter) / 0.25, 0.2, 1.0))
        if Lie.BARE in self.told:
            factor *= 0.955
        return factor

    def as_read(self, flow: float, full_scale: float, warm_for: float) -> float:
        """What the readout makes of a true flow [m3/s]."""
        if Lie.OTHER_BENCH in self.told:
            flow *= 1.028 + 0.006 * flow / 0.1
        if Lie.WARM_UP in self.told:
            flow *= 1 - 0.025 * float(np.exp(-warm_for / WARM_TIME))
        if Lie.RANGE in self.told:
            flow *= 1 + 0.018 * (2 * min(flow / full_scale, 1.0) - 1) ** 3
        return flow

"""The bench that a practice's head stands on: the simulated one, with the virtual port's own truth behind it."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike

from ventrix.bench.simulator.bench import Character, SimulatedBench
from ventrix.bench.simulator.heads.shipped import SimulatedCut
from ventrix.bench.simulator.heads.virtual import VirtualPort
from ventrix.bench.simulator.physics import SimulatedPort
from ventrix.bench.simulator.practice.play import LIFT, LOW, Practice, volume_of
from ventrix.bench.simulator.practice.virtual_job import bore_of
from ventrix.core.model.kinds import Direction, Place
from ventrix.core.quantity.arrays import Array


@dataclass(frozen=True, slots=True)
class LivePort(SimulatedPort):
    """A port on the bench whose flow is a virtual port's; `nicked` is the share that a nicked seat leaves at the lowest
    rungs."""

    behind: VirtualPort | None = None
    nicked: float = 1.0

    def effective_area(self, lift: ArrayLike) -> Array:
        """Effective area [m2], shape of `lift` [m]."""
        assert self.behind is not None
        x = np.asarray(lift, dtype=float)
        flat = np.atleast_1d(x)
        felt = np.where(flat < LIFT[LOW - 1] + 1e-6, self.nicked, 1.0)
        return np.asarray((self.behind.effective_area(flat) * felt).reshape(x.shape))


def live_port(practice: Practice) -> LivePort:
    """The practice's port as it is now."""
    s = practice.port.metal.sizes
    return LivePort(
        valve_diameter=s.valve_diameter,
        seat_width=s.seat_width,
        seat_angle=s.seat_angle,
        throat_diameter=s.throat_diameter,
        stem_diameter=s.stem_diameter,
        port_area=0.9 * s.areas[Place.THROAT],
        behind=practice.port,
        nicked=practice.nicked,
    )


class PracticeBench(SimulatedBench):
    """Whatever metal the practice has just now lies on it; swirl and probe are not asked of it.

    Parameters
    ----------
    clock : callable
        Seconds, rising.
    practice : callable
        The practice as it stands.
    """

    def __init__(self, clock: Callable[[], float], practice: Callable[[], Practice]) -> None:
        self._now = practice
        head = practice().head
        character = Character(
            leak=0.0, mount_scatter=head.mount, setting_scatter=head.repeat, bore=bore_of(head), noise=0.002
        )
        super().__init__(clock, seed=practice().seed + len(practice().done), character=character)

    @property
    def cut(self) -> SimulatedCut:
        practice = self._now()
        truth = live_port(practice)
        return SimulatedCut("practice", (), volume_of(practice.port), truth.throat_diameter, truth)

    def fit(self, direction: Direction, cut: int) -> None:
        """The metal as it is: an earlier state does not come back."""

    def work(self, direction: Direction, cut: int, place: str) -> None:
        """Metal comes off in Cuts alone."""

    def _through(self, pressure: float) -> float:
        return super()._through(pressure) * self._now().cold

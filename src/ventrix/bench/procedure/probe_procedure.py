"""Reading a traverse point by point: which point is wanted, when the probe stands still, what is kept. No Qt."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field
from typing import Final

import numpy as np

from ventrix.bench.drivers.sample import Sample
from ventrix.core.quantity.refused import Refused

WINDOW: Final = 3.0  # s of samples that a kept point is the mean of
FILLED: Final = 0.9  # of the window before anything is kept
UNSTEADY: Final = 0.05  # of the mean: the air, the hand or the blower is still moving


@dataclass(slots=True)
class ProbeProcedure:
    """The points of one traverse in order, and the samples of the last seconds at the one stood on.

    names : the points, in the order they are read
    ball : the flow with a ball held there is read, in place of a probe's pressure
    """

    names: Sequence[str] = ()
    ball: bool = False
    at: int = 0
    _samples: list[Sample] = field(default_factory=list)

    @property
    def wanted(self) -> str:
        """Name of the point stood on; empty when every one is read."""
        return self.names[self.at] if self.at < len(self.names) else ""

    def stand_on_open(self, read: Iterable[str]) -> None:
        """Stand on the first point that is not read yet."""
        done = set(read)
        self._stand(next((i for i, n in enumerate(self.names) if n not in done), len(self.names)))

    def stand_on(self, name: str) -> bool:
        """Stand on a point by its name; False where there is none."""
        if name not in self.names:
            return False
        self._stand(list(self.names).index(name))
        return True

    def _stand(self, at: int) -> None:
        self.at = at
        self._samples = []  # what the probe read on its way counts for neither

    def feed(self, samples: Iterable[Sample]) -> None:
        """Take in what the bench sent; what is older than the window goes."""
        self._samples += samples
        if self._samples:
            newest = self._samples[-1].time
            self._samples = [s for s in self._samples if s.time >= newest - WINDOW]

    def _values(self) -> list[float]:
        if self.ball:
            return [s.flow for s in self._samples]
        return [s.probe for s in self._samples if s.probe is not None]

    def live(self) -> float | None:
        """The mean of the last seconds: a probe's pressure [Pa], or the flow with the ball in [m3/s]."""
        values = self._values()
        return float(np.mean(values)) if values else None

    def kept(self) -> float:
        """What is kept at this point. ValueError, with a sentence, where there is nothing to keep yet."""
        value = self.live()
        if value is None:
            raise Refused("No probe is connected: type the reading.")
        if self._samples[-1].time - self._samples[0].time < FILLED * WINDOW:
            raise Refused("Wait: three seconds of readings are needed.")
        if float(np.std(self._values())) > UNSTEADY * abs(value):
            raise Refused("Not steady yet: wait, or type the reading.")
        return value if self.ball else max(value, 0.0)

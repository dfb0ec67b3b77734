"""What a bench says at one moment, and what every driver can do."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Protocol


@dataclass(frozen=True, slots=True)
class Sample:
    """One look at the bench, SI. `time` is in seconds on the reader's own clock.

    `flow` is what the flow element says in its own measure: m3/s of a flow readout, a share of a
    percent scale, Pa of an orifice or an element column, kg/s of a mass-flow element.
    """

    time: float
    flow: float
    pressure: float
    lift: float | None = None
    temperature: float | None = None
    swirl: float | None = None
    probe: float | None = None


class BenchDriver(Protocol):
    """A bench that can be sampled. LinkError from every method when the wire or the answer fails."""

    @property
    def identity(self) -> str: ...
    @property
    def is_simulated(self) -> bool: ...
    def sample(self, time: float) -> Sample: ...
    def interrupt(self) -> None: ...  # from another thread: end a wait
    def close(self) -> None: ...

"""What comes before the lifts: warm-up, zero, leaks, plate, open port. A plain state machine; no Qt, no clock.

Time comes in with the samples. Every step is done with its figures or skipped with a reason.
"""

from __future__ import annotations

from collections import deque
from dataclasses import dataclass, field
from typing import Final

import numpy as np

from ventrix.bench.drivers.sample import Sample
from ventrix.bench.procedure.flow_procedure import PRESSURE_WINDOW, Refusal
from ventrix.core.model.kinds import StepKind
from ventrix.core.quantity.words import number_text
from ventrix.words import tr

WINDOW: Final = 3.0  # s of samples that a figure is the mean of
WARM_BLOCK: Final = 5.0  # s of samples in one look at the repeated point
WARM_APART: Final = 3  # looks between the two that are held together
WARM_LIMIT: Final = 0.003  # relative drift that counts as warm
ZERO_LIMIT: Final = 12.5  # Pa, a twentieth of an inch of water: half of a dial gauge's graduation
LEAK_SHARE: Final = 0.02  # of the smallest reading: the formula book's flag
SHUT: Final = 2.5e-5  # m: a valve this near its seat is shut


ORDER: Final = tuple(StepKind)
TITLES: Final = {
    StepKind.WARM_UP: "WARM UP",
    StepKind.ZERO: "ZERO",
    StepKind.LEAK: "LEAK",
    StepKind.SEAT_LEAK: "SEAT LEAK",
    StepKind.PLATE: "PLATE",
    StepKind.OPEN_PORT: "OPEN PORT",
}
SAYS: Final = {
    StepKind.WARM_UP: tr("Blower on, one lift, pressure set: leave it until the reading stands still."),
    StepKind.ZERO: tr("Blower off: the manometer must read zero."),
    StepKind.LEAK: tr(
        "Valve shut and the port opening sealed, at test pressure: what still flows is the bench's leak."
    ),
    StepKind.SEAT_LEAK: tr("Valve shut, opening free: what the seat lets through. Recorded, never taken off."),
    StepKind.PLATE: tr("The reference plate in place of the head, at test pressure."),
    StepKind.OPEN_PORT: tr("Valve out, guide plugged, same entry, at test pressure: it tells valve and port apart."),
}
WHERE_TO_LOOK: Final = tr(
    "Look at the clay or gasket under the head, the plug, the guide and the opener's stem, then hoses and lids: "
    "soapy water or a hand with a thread finds it."
)


@dataclass(frozen=True, slots=True)
class StepDone:
    """A step as done, SI: mean flow in the element's measure, pressure, drift; sentences about it, and whether it lies
    out of its limits."""

    step: StepKind
    flow: float | None = None
    pressure: float | None = None
    drift: float | None = None
    notes: tuple[str, ...] = ()
    out_of_limits: bool = False


@dataclass(frozen=True, slots=True)
class StepSkipped:
    """A step that was left out, and why."""

    step: StepKind
    reason: str


@dataclass(slots=True)
class Preparation:
    """Leads through the steps.

    Parameters
    ----------
    steps : tuple of StepKind
        Those this bench and test want, in order.
    test_pressure : float or None
        [Pa]; None on a bench whose pressure floats, which has no window.
    smallest_flow : float or None
        Lowest reading of the run before, in the element's measure: what a leak is held against.
    plate_flow : float or None
        What the plate should flow, in the element's measure.
    """

    steps: tuple[StepKind, ...]
    test_pressure: float | None
    smallest_flow: float | None = None
    plate_flow: float | None = None
    outcomes: list[StepDone | StepSkipped] = field(default_factory=list)
    index: int = 0
    _samples: deque[Sample] = field(default_factory=deque)
    _looks: list[float] = field(default_factory=list)
    _look_from: float | None = None
    _look: list[float] = field(default_factory=list)

    @property
    def step(self) -> StepKind | None:
        """The step asked for now, None when all are done or skipped."""
        return self.steps[self.index] if self.index < len(self.steps) else None

    def go_to(self, step: StepKind) -> None:
        """Stand on a step again."""
        self.index = self.steps.index(step)
        self._begin()

    def _begin(self) -> None:
        self._samples.clear()
        self._looks, self._look, self._look_from = [], [], None

    def feed(self, sample: Sample) -> None:
        """Take in a live sample."""
        if self._samples and self._in_window(self._samples[-1]) != self._in_window(sample):
            self._samples.clear()
        self._samples.append(sample)
        while self._samples[0].time < sample.time - WINDOW - 1e-9:
            self._samples.popleft()
        if self.step is StepKind.WARM_UP:
            self._watch(sample)

    def _watch(self, sample: Sample) -> None:
        """Gather the repeated point of the warm-up into looks of five seconds."""
        if not self._in_window(sample) or sample.pressure <= ZERO_LIMIT or sample.flow <= 0:
            self._looks, self._look, self._look_from = [], [], None
            return
        if self._look_from is None:
            self._look_from = sample.time
        if sample.time - self._look_from >= WARM_BLOCK and self._look:
            self._looks.append(float(np.mean(self._look)))
            self._look, self._look_from = [], sample.time
        self._look.append(sample.flow / max(sample.pressure, 1e-9) ** 0.5)

    @property
    def drift(self) -> float | None:
        """Relative drift of the repeated point over its last looks, None while there are too few."""
        if len(self._looks) < 2:
            return None
        return self._looks[-1] / self._looks[max(len(self._looks) - 1 - WARM_APART, 0)] - 1

    def _in_window(self, sample: Sample) -> bool:
        wanted = self.test_pressure
        return wanted is None or abs(sample.pressure / wanted - 1) <= PRESSURE_WINDOW

    @property
    def live(self) -> tuple[float, float] | None:
        """Mean flow and pressure over the last seconds, None without samples."""
        if not self._samples:
            return None
        flow = [s.flow for s in self._samples]
        return float(np.mean(flow)), float(np.mean([s.pressure for s in self._samples]))

    @property
    def share(self) -> float:
        """How much of what the step waits for is there, 0 to 1."""
        if self.step is StepKind.WARM_UP:
            drift = self.drift
            counted = min(len(self._looks) / (WARM_APART + 1), 1.0)
            if drift is None:
                return 0.5 * counted
            return counted * min(1.0, WARM_LIMIT / max(abs(drift), 1e-9))
        if not self._samples:
            return 0.0
        return min((self._samples[-1].time - self._samples[0].time) / (WINDOW * 0.95), 1.0)

    @property
    def pressure_wanted(self) -> bool:
        """Whether this step wants the test pressure, and has it not."""
        if self.step in (None, StepKind.ZERO) or self.test_pressure is None:
            return False
        return not self._samples or not self._in_window(self._samples[-1])

    def take(self, typed: float | None = None) -> StepDone | Refusal:
        """Record this step from the last seconds, or from a figure read off by eye."""
        step = self.step
        if step is None:
            return Refusal(tr("The bench is prepared."))
        if typed is not None:
            return self._settle(step, typed, None)
        live = self.live
        if live is None:
            return Refusal(tr("No reading yet."))
        if step is StepKind.WARM_UP:
            return self._warm(self.drift)
        if self.share < 1:
            return Refusal(tr("Wait: three seconds of readings are needed."))
        if self.pressure_wanted:
            word = tr("low: raise it") if live[1] < (self.test_pressure or 0) else tr("high: lower it")
            return Refusal(tr("Pressure is {} first.", word))
        if step in (StepKind.LEAK, StepKind.SEAT_LEAK) and (self._samples[-1].lift or 0.0) > SHUT:
            return Refusal(tr("The valve is open: shut it first."))
        return self._settle(step, *live)

    def _warm(self, drift: float | None) -> StepDone | Refusal:
        if drift is None or len(self._looks) <= WARM_APART:
            return Refusal(tr("Wait: a warm bench is seen over twenty seconds at one lift and pressure."))
        if abs(drift) > WARM_LIMIT:
            said = number_text(100 * drift, 1, sign=True)
            return Refusal(tr("Still drifting, {} % in the last looks. Leave it running, or skip with a reason.", said))
        return self._done(StepDone(StepKind.WARM_UP, drift=drift))

    def _settle(self, step: StepKind, flow: float, pressure: float | None) -> StepDone | Refusal:
        if step is StepKind.WARM_UP:
            self._looks.append(flow)
            if len(self._looks) < 2:
                return Refusal(tr("Read the same lift again in a minute and type it: two readings show the drift."))
            drift = self._looks[-1] / self._looks[-2] - 1 if self._looks[-2] else 1.0
            self._looks = self._looks * (WARM_APART + 1)
            found = self._warm(drift)
            if isinstance(found, Refusal):
                self._looks = [flow]
            return found
        if step is StepKind.ZERO:
            offset = flow if pressure is None else pressure  # typed: what the manometer shows
            if abs(offset) > ZERO_LIMIT:
                return Refusal(tr("The manometer does not read zero: zero it, then read it again."))
            return self._done(StepDone(step, pressure=offset))
        if flow < 0:
            return Refusal(tr("The reading must not be negative."))
        notes: list[str] = []
        smallest = self.smallest_flow
        if step is StepKind.LEAK and smallest is not None and flow > LEAK_SHARE * smallest:
            notes.append(tr("The leak is {:.0f} % of the smallest reading. {}", 100 * flow / smallest, WHERE_TO_LOOK))
        if step in (StepKind.PLATE, StepKind.OPEN_PORT) and flow == 0:
            return Refusal(tr("The reading must be above zero."))
        return self._done(StepDone(step, flow, pressure, None, tuple(notes), out_of_limits=bool(notes)))

    def skip(self, reason: str) -> StepSkipped | Refusal:
        """Leave this step out, with a reason."""
        step = self.step
        if step is None:
            return Refusal(tr("The bench is prepared."))
        if not reason.strip():
            return Refusal(tr("Say why it is skipped: the run remembers it."))
        skipped = StepSkipped(step, reason.strip())
        self.outcomes.append(skipped)
        self._next()
        return skipped

    def _done(self, outcome: StepDone) -> StepDone:
        self.outcomes.append(outcome)
        self._next()
        return outcome

    def _next(self) -> None:
        self.index += 1
        self._begin()

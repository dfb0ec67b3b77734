"""The flow test as a plain state machine: which lift, which phase, what may be kept. No Qt, no clock.

Time comes in with the samples. A reading is kept from the last seconds *before* the key is pressed.
"""

from __future__ import annotations

import math
from collections import deque
from dataclasses import dataclass
from enum import Enum
from typing import Final

import numpy as np

from ventrix.bench.scpi import Sample

WINDOW: Final = 3.0  # s of samples that a kept reading is the mean of
FEWEST_SAMPLES: Final = 8
PRESSURE_WINDOW: Final = 0.03  # relative: the formula book's flag
LIFT_WINDOW: Final = 5e-5  # m, two thou: what a dial at arm's length is set to
DRIFT_LIMIT: Final = 0.003  # relative: half of a gain worth arguing about


class Phase(Enum):
    """What the person at the bench has to do now."""

    SET = "set the lift"
    PRESSURE = "bring the pressure in"
    WAIT = "wait"
    KEEP = "keep"
    KEPT = "kept"
    DONE = "done"


@dataclass(frozen=True, slots=True)
class Kept:
    """A reading as kept, SI: means of the window, spread (standard deviation) of its samples, seconds."""

    lift: float
    flow: float
    pressure: float | None
    spread: float | None
    window: float | None
    unsteady: bool = False


@dataclass(frozen=True, slots=True)
class Refusal:
    """Why nothing was kept, in a sentence."""

    sentence: str


@dataclass(frozen=True, slots=True)
class Steadiness:
    """How the last seconds look. `share` 0 to 1 fills the bar; steady at 1."""

    share: float
    spread: float
    drift: float

    @property
    def steady(self) -> bool:
        return self.share >= 1.0


class FlowTest:
    """A run in progress over a plan of lifts.

    Parameters
    ----------
    lifts : sequence of float
        The plan [m], rising.
    test_pressure : float
        Nominal pressure drop [Pa].
    done : set of float
        Lifts that already carry a reading that counts.
    """

    def __init__(self, lifts: list[float], test_pressure: float, done: set[float] | None = None) -> None:
        if not lifts:
            raise ValueError("the plan has no lifts")
        self.lifts = lifts
        self.test_pressure = test_pressure
        self._done = {_grain(x) for x in done or set()}
        self._samples: deque[Sample] = deque()
        self._repeat_asked = False
        self._kept_here = False
        self.index = self._next_open(0)

    def _next_open(self, start: int) -> int:
        for i in range(start, len(self.lifts)):
            if _grain(self.lifts[i]) not in self._done:
                return i
        return len(self.lifts)

    @property
    def lift(self) -> float | None:
        """The rung asked for now [m], None when the plan is done."""
        return self.lifts[self.index] if self.index < len(self.lifts) else None

    @property
    def next_lift(self) -> float | None:
        after = self._next_open(self.index + 1)
        return self.lifts[after] if after < len(self.lifts) else None

    def is_done(self, lift: float) -> bool:
        return _grain(lift) in self._done

    def go_to(self, index: int) -> None:
        """Stand on a rung of the plan. A rung that has its reading is stood on to repeat it."""
        self.index = min(max(index, 0), len(self.lifts))
        self._kept_here = self.lift is not None and self.is_done(self.lift)
        self._repeat_asked = self._kept_here
        self._samples.clear()

    def ask_repeat(self) -> None:
        """Allow one more reading at the rung just kept."""
        if self._kept_here or self.lift is None:
            self._repeat_asked = True
            self._samples.clear()

    def sync(self, lifts: list[float], done: set[float]) -> None:
        """Take in what the book says now, after an edit made elsewhere; the same news changes nothing.

        A rung that lost its reading is the one asked for; otherwise the place is kept.
        """
        grains = {_grain(x) for x in done}
        if [_grain(x) for x in lifts] == [_grain(x) for x in self.lifts] and grains == self._done:
            return
        here = self.lift
        lost = self._done - grains
        self.lifts, self._done = lifts, grains
        opened = [i for i, x in enumerate(lifts) if _grain(x) in lost]
        place = [i for i, x in enumerate(lifts) if here is not None and _grain(x) == _grain(here)]
        if opened:
            self.go_to(opened[0])
        elif place and not self.is_done(lifts[place[0]]):
            self.index = place[0]
        else:
            self.index = self._next_open(0)
            self._kept_here = self._repeat_asked = False
            self._samples.clear()

    def feed(self, sample: Sample) -> None:
        """Take in a live sample. Moving the valve to another lift moves on from a kept rung."""
        if self._kept_here and not self._repeat_asked and self._moved_off(sample):
            self._advance()
        last = self._samples[-1] if self._samples else None
        if last is not None and (not self._at_lift(sample) or self._in_window(last) != self._in_window(sample)):
            self._samples.clear()  # one window holds one state: at the lift, and in or out of pressure
        self._samples.append(sample)
        while self._samples[0].time < sample.time - WINDOW - 1e-9:
            self._samples.popleft()

    def _at_lift(self, sample: Sample) -> bool:
        return sample.lift is None or self.lift is None or abs(sample.lift - self.lift) <= LIFT_WINDOW

    def _in_window(self, sample: Sample) -> bool:
        return abs(sample.pressure / self.test_pressure - 1) <= PRESSURE_WINDOW

    def _moved_off(self, sample: Sample) -> bool:
        return sample.lift is not None and not self._at_lift(sample)

    def _advance(self) -> None:
        self.index = self._next_open(self.index + 1)
        if self.index == len(self.lifts):
            self.index = self._next_open(0)
        self._kept_here = self._repeat_asked = False
        self._samples.clear()

    @property
    def steadiness(self) -> Steadiness:
        """Steady: the window is full, and its second half lies within the drift limit, or within two
        standard errors, of its first half."""
        n = len(self._samples)
        if n < 2:
            return Steadiness(0.0, 0.0, 0.0)
        flow = np.array([s.flow for s in self._samples])
        spread = float(np.std(flow, ddof=1))
        first, second = flow[: n // 2], flow[n // 2 :]
        drift = abs(float(second.mean() - first.mean()))
        allowed = max(DRIFT_LIMIT * abs(float(flow.mean())), 2 * spread * 2 / math.sqrt(n))
        filled = (self._samples[-1].time - self._samples[0].time) / (WINDOW * 0.95)
        share = min(filled, n / FEWEST_SAMPLES, 1.0)
        if drift > allowed > 0:
            share = min(share, 0.95 * allowed / drift)
        return Steadiness(share, spread, drift)

    @property
    def phase(self) -> Phase:
        if self.lift is None:
            return Phase.DONE
        if self._kept_here and not self._repeat_asked:
            return Phase.KEPT
        if not self._samples or not self._at_lift(self._samples[-1]):
            return Phase.SET
        if not self._in_window(self._samples[-1]):
            return Phase.PRESSURE
        return Phase.KEEP if self.steadiness.steady else Phase.WAIT

    @property
    def pressure_error(self) -> float:
        """How far the last sample's pressure is off nominal, relative; 0 without samples."""
        return self._samples[-1].pressure / self.test_pressure - 1 if self._samples else 0.0

    @property
    def live(self) -> tuple[float, float] | None:
        """Mean flow and pressure over the window, SI; None without samples."""
        if not self._samples:
            return None
        n = len(self._samples)
        return sum(s.flow for s in self._samples) / n, sum(s.pressure for s in self._samples) / n

    def keep(self, unsteady: bool = False) -> Kept | Refusal:
        """Keep the mean of the window, or say why not. `unsteady` keeps a flickering port as a finding."""
        phase = self.phase
        if phase is Phase.DONE:
            return Refusal("The plan is done. R repeats the last lift.")
        if phase is Phase.KEPT:
            return Refusal("Kept already. Set the next lift, or press R to repeat this one.")
        if phase is Phase.SET:
            return Refusal("No reading at this lift yet: set the valve first.")
        if phase is Phase.PRESSURE and not unsteady:
            word = "low: raise it" if self.pressure_error < 0 else "high: lower it"
            return Refusal(f"Pressure is {word} first.")
        if phase is Phase.WAIT and not unsteady:
            return Refusal("Not steady yet. U keeps it as unsteady.")
        assert self.lift is not None
        flow = np.array([s.flow for s in self._samples])
        pressure = float(np.mean([s.pressure for s in self._samples]))
        seconds = self._samples[-1].time - self._samples[0].time
        kept = Kept(self.lift, float(flow.mean()), pressure, self.steadiness.spread, seconds, unsteady)
        self._mark()
        return kept

    def keep_typed(self, flow: float, pressure: float | None = None) -> Kept | Refusal:
        """Keep a figure that was read off by eye [m3/s]; the plan moves on at once."""
        if flow <= 0:
            return Refusal("The flow must be above zero.")
        if self.lift is None:
            return Refusal("The plan is done. R repeats the last lift.")
        kept = Kept(self.lift, flow, pressure, None, None)
        self._mark()
        self._advance()
        return kept

    def _mark(self) -> None:
        assert self.lift is not None
        self._done.add(_grain(self.lift))
        self._kept_here, self._repeat_asked = True, False


def _grain(lift: float) -> int:
    return round(lift * 1e6)

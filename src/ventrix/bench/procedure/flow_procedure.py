"""The flow test as a plain state machine: which lift, which phase, what may be kept. No Qt, no clock.

Time comes in with the samples. A reading is kept from the last seconds *before* the key is pressed.
"""

from __future__ import annotations

import math
from collections import deque
from dataclasses import dataclass, field
from datetime import datetime
from enum import Enum
from typing import Final
from uuid import uuid4

import numpy as np

from ventrix.bench.drivers.sample import Sample
from ventrix.bench.procedure.lift_plan import Rung
from ventrix.core.quantity.refused import Refused
from ventrix.words import tr

WINDOW: Final = 3.0  # s of samples that a kept reading is the mean of
FEWEST_SAMPLES: Final = 8
PRESSURE_WINDOW: Final = 0.03  # relative: the formula book's flag
LIFT_WINDOW: Final = 5e-5  # m, two thou: what a dial at arm's length is set to
STANDS: Final = 1.0  # s that the valve stands at another rung before the plan goes there
LEAST_OWN_PRESSURE: Final = 0.3  # of nominal: below it the blower is off rather than out of breath
DRIFT_LIMIT: Final = 0.003  # relative: half of a gain worth arguing about


class Phase(Enum):
    """What the person at the bench has to do now."""

    SET = "set the lift"
    PRESSURE = "bring the pressure in"
    WAIT = "wait"
    KEEP = "keep"
    KEPT = "kept"
    DONE = "done"


def _now() -> str:
    return datetime.now().astimezone().isoformat(timespec="seconds")


@dataclass(frozen=True, slots=True)
class Kept:
    """A reading as kept, SI: means of the window, spread (standard deviation) of its samples, seconds.

    `flow` is in the measure of the flow element, as `Sample.flow` is. `id` and `at` are those of the moment that the
    hand pressed: offered to the book again, it is the same reading.
    """

    rung: Rung
    flow: float
    pressure: float | None
    spread: float | None
    window: float | None
    unsteady: bool = False
    swirl: float | None = None
    typed: bool = False
    id: str = field(default_factory=lambda: uuid4().hex, compare=False)
    at: str = field(default_factory=_now, compare=False)

    @property
    def lift(self) -> float:
        return self.rung.lift


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
    """A run in progress over a plan of rungs.

    Parameters
    ----------
    rungs : list of Rung
        The plan.
    test_pressure : float or None
        Nominal pressure drop [Pa]; None for a bench whose pressure floats, where no window is asked for.
    done : set of (int, bool)
        Keys of rungs that already carry a reading that counts.
    """

    def __init__(
        self, rungs: list[Rung], test_pressure: float | None, done: set[tuple[int, bool]] | None = None
    ) -> None:
        if not rungs:
            raise Refused("the plan has no lifts")
        self.rungs = list(rungs)
        self._test_pressure = test_pressure
        self.automatic = False
        self._done = set(done or ())
        self._samples: deque[Sample] = deque()
        self._elsewhere: tuple[int, float] | None = None
        self._valve: float | None = None  # where it stood at the last sample
        self._left_at: float | None = None  # where it stood when another rung was chosen by hand
        self._repeat_asked = False
        self._kept_here = False
        self._storing: tuple[int, bool] | None = None
        self.last_kept: Rung | None = None
        self.index = self._next_open(0)

    def _next_open(self, start: int) -> int:
        for i in range(start, len(self.rungs)):
            if self.rungs[i].key not in self._done:
                return i
        return len(self.rungs)

    @property
    def rung(self) -> Rung | None:
        """The rung asked for now, None when the plan is done."""
        return self.rungs[self.index] if self.index < len(self.rungs) else None

    @property
    def lift(self) -> float | None:
        """Its lift [m]."""
        return self.rung.lift if self.rung is not None else None

    @property
    def next_lift(self) -> float | None:
        """The open rung after this one, or one that was passed over; None where this is the last."""
        found = [i for i in (self._next_open(self.index + 1), self._next_open(0)) if i < len(self.rungs)]
        return self.rungs[found[0]].lift if found and found[0] != self.index else None

    @property
    def test_pressure(self) -> float | None:
        """The pressure wanted at this rung [Pa], None where it floats."""
        if self._test_pressure is None:
            return None
        own = self.rung.pressure if self.rung is not None else None
        return own if own is not None else self._test_pressure

    @property
    def passed(self) -> list[Rung]:
        """Rungs below the one stood on that carry no reading: skipped, unless they are gone back to."""
        return [r for r in self.rungs[: self.index] if r.key not in self._done]

    def is_done(self, rung: Rung) -> bool:
        return rung.key in self._done

    def go_to(self, index: int) -> None:
        """Stand on a rung of the plan, until the valve is moved. A rung that has its reading is stood on to repeat
        it."""
        self._left_at = self._valve
        self._stand_on(index)

    def _stand_on(self, index: int) -> None:
        self.index = min(max(index, 0), len(self.rungs))
        self._kept_here = self.rung is not None and self.is_done(self.rung)
        self._repeat_asked = self._kept_here
        self._clear()

    def ask_repeat(self) -> bool:
        """One more reading at the rung stood on where it has one, else at the rung just kept, typed or read; False
        where neither is."""
        here = self.rung if self.rung is not None and self.is_done(self.rung) else self.last_kept
        keys = [r.key for r in self.rungs]
        if here is None or here.key not in keys:
            return False
        self.go_to(keys.index(here.key))
        return True

    def lose(self) -> None:
        """The bench is silent: nothing can be kept from what it said before."""
        self._clear()

    def use_own_pressure(self) -> float | None:
        """Take this rung at the pressure that the bench holds now [Pa]: the blower does no more."""
        if self.rung is None or self.live is None or not self.out_of_breath:
            return None
        held = self.live[1]
        self.rungs[self.index] = Rung(self.rung.lift, held, self.rung.returns)
        return held

    def sync(self, rungs: list[Rung], done: set[tuple[int, bool]]) -> None:
        """Take in what the book says now, after an edit made elsewhere; the same news changes nothing.

        A rung that lost its reading is the one asked for; otherwise the place is kept.
        """
        if [r.key for r in rungs] == [r.key for r in self.rungs] and done == self._done:
            return
        here = self.rung
        before, lost = self._done, self._done - done
        own = {r.key: r for r in self.rungs if r.pressure is not None}
        self.rungs, self._done = [own.get(r.key, r) for r in rungs], set(done)
        if here is not None and here.key == self._storing and here.key in done - before:
            self.index = next((i for i, r in enumerate(self.rungs) if r.key == here.key), self.index)
            self._kept_here, self._repeat_asked = True, False  # what is stood on was kept: it moves on with the hands
            return
        opened = [i for i, r in enumerate(rungs) if r.key in lost]
        place = [i for i, r in enumerate(rungs) if here is not None and r.key == here.key]
        if opened:
            self._stand_on(opened[0])
        elif place and not self.is_done(rungs[place[0]]):
            self.index = place[0]
        else:
            self.index = self._next_open(0)
            self._kept_here = self._repeat_asked = False
            self._clear()

    def _clear(self) -> None:
        self._samples.clear()
        self._elsewhere = None

    def feed(self, sample: Sample) -> None:
        """Take in a live sample. Moving the valve on from a kept rung moves the plan on; standing at
        another open rung for a second takes the plan there, and what lies between counts as passed."""
        if self._kept_here and not self._repeat_asked and self._moved_off(sample):
            self._advance()
        self._follow_valve(sample)
        last = self._samples[-1] if self._samples else None
        if last is not None and (not self._at_lift(sample) or self._in_window(last) != self._in_window(sample)):
            self._samples.clear()  # one window holds one state: at the lift, and in or out of pressure
        self._samples.append(sample)
        while self._samples[0].time < sample.time - WINDOW - 1e-9:
            self._samples.popleft()

    def _follow_valve(self, sample: Sample) -> None:
        self._valve = sample.lift
        if sample.lift is None or self._at_lift(sample):
            self._elsewhere = self._left_at = None
            return
        if self._left_at is not None and abs(sample.lift - self._left_at) <= LIFT_WINDOW:
            return  # the hand chose a rung, and the valve has not been moved since
        self._left_at = None
        found = [
            i
            for i, r in enumerate(self.rungs)
            if abs(r.lift - sample.lift) <= LIFT_WINDOW and not self.is_done(r) and i > self.index
        ]
        if not found:
            self._elsewhere = None
        elif self._elsewhere is None or self._elsewhere[0] != found[0]:
            self._elsewhere = found[0], sample.time
        elif sample.time - self._elsewhere[1] >= STANDS:
            self._stand_on(found[0])

    def _at_lift(self, sample: Sample) -> bool:
        return sample.lift is None or self.lift is None or abs(sample.lift - self.lift) <= LIFT_WINDOW

    def _in_window(self, sample: Sample) -> bool:
        wanted = self.test_pressure
        return wanted is None or abs(sample.pressure / wanted - 1) <= PRESSURE_WINDOW

    def _moved_off(self, sample: Sample) -> bool:
        return sample.lift is not None and not self._at_lift(sample)

    def _advance(self) -> None:
        self.index = self._next_open(self.index + 1)
        if self.index == len(self.rungs):
            self.index = self._next_open(0)
        self._kept_here = self._repeat_asked = False
        self._clear()

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
    def out_of_breath(self) -> bool:
        """The pressure stands still below its window: the blower does no more at this lift."""
        wanted = self.test_pressure
        if wanted is None or len(self._samples) < FEWEST_SAMPLES or self.phase is not Phase.PRESSURE:
            return False
        if self._samples[-1].time - self._samples[0].time < 0.6 * WINDOW or self.pressure_error >= 0:
            return False
        held = np.array([s.pressure for s in self._samples])
        return bool(held.mean() > LEAST_OWN_PRESSURE * wanted and np.ptp(held) < 0.02 * held.mean())

    @property
    def phase(self) -> Phase:
        if self.rung is None:
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
        wanted = self.test_pressure
        return self._samples[-1].pressure / wanted - 1 if self._samples and wanted is not None else 0.0

    @property
    def live(self) -> tuple[float, float] | None:
        """Mean flow and pressure over the window, SI; None without samples."""
        if not self._samples:
            return None
        n = len(self._samples)
        return sum(s.flow for s in self._samples) / n, sum(s.pressure for s in self._samples) / n

    @property
    def live_swirl(self) -> float | None:
        """Mean paddle speed over the window [rad/s], None where the bench has no meter."""
        found = [s.swirl for s in self._samples if s.swirl is not None]
        return sum(found) / len(found) if found else None

    def keep(self, unsteady: bool = False) -> Kept | Refusal:
        """The mean of the window, or why not. `unsteady` keeps a flickering port as a finding. Nothing is marked
        before it is stored: see `mark`."""
        phase = self.phase
        if phase is Phase.DONE:
            return Refusal(tr("The plan is done. R repeats the last lift."))
        if phase is Phase.KEPT:
            return Refusal(tr("Kept already. Set the next lift, or press R to repeat this one."))
        if phase is Phase.SET:
            return Refusal(tr("No reading at this lift yet: set the valve first."))
        if phase is Phase.PRESSURE and self.out_of_breath:
            return Refusal(tr("The blower is at its limit. Press twice to take this lift at its own pressure."))
        if phase is Phase.PRESSURE:
            word = tr("low: raise it") if self.pressure_error < 0 else tr("high: lower it")
            return Refusal(tr("Pressure is {} first.", word))
        if phase is Phase.WAIT and not unsteady:
            return Refusal(tr("Not steady yet. Press twice, or U, to keep it as unsteady."))
        assert self.rung is not None
        flow = np.array([s.flow for s in self._samples])
        pressure = float(np.mean([s.pressure for s in self._samples]))
        seconds = self._samples[-1].time - self._samples[0].time
        spread = self.steadiness.spread
        return Kept(self.rung, float(flow.mean()), pressure, spread, seconds, unsteady, self.live_swirl)

    def insist(self) -> Kept | Refusal | None:
        """The second press of the pedal: repeat what was kept, keep what is unsteady, or take the rung at
        the pressure the blower can hold. What is steady by then is kept as such. None where it only asked for a
        repeat."""
        phase = self.phase
        if phase is Phase.KEPT:
            self.ask_repeat()
            return None
        if phase is Phase.PRESSURE and self.use_own_pressure() is not None:
            return self.keep(unsteady=not self.steadiness.steady)
        return self.keep(unsteady=phase is not Phase.KEEP)

    def keep_typed(
        self, flow: float, pressure: float | None = None, swirl: float | None = None, rung: Rung | None = None
    ) -> Kept | Refusal:
        """A figure that was read off by eye, in the measure of the element, at the rung it was begun at (else the one
        stood on); the plan moves on once it is marked."""
        if flow <= 0:
            return Refusal(tr("The flow must be above zero."))
        at = rung or self.rung
        if at is None:
            return Refusal(tr("The plan is done. R repeats the last lift."))
        return Kept(at, flow, pressure, None, None, swirl=swirl, typed=True)

    def storing(self, kept: Kept | None) -> None:
        """A reading is about to be stored, or (None) was not taken: news of it moves nobody."""
        self._storing = None if kept is None else kept.rung.key

    def mark(self, kept: Kept) -> None:
        """A reading is on disk: its rung is done. What was typed moves the plan on; what was read waits for hands."""
        self._storing = None
        self._done.add(kept.rung.key)
        self.last_kept = kept.rung
        if self.rung is None or self.rung.key != kept.rung.key:
            return
        self._kept_here, self._repeat_asked = True, False
        if kept.typed:
            self._advance()

"""A simulated flow bench: settles, leaks, is noisy, runs out of blower. Time comes from a clock handed in."""

from __future__ import annotations

import threading
from collections.abc import Callable
from dataclasses import dataclass
from typing import Final

import numpy as np

from ventrix.bench.simulator import air_picture
from ventrix.bench.simulator.heads.shipped import HEADS, SimulatedCut, worked
from ventrix.bench.simulator.lies import Lie, Lies
from ventrix.core.model.kinds import Direction, Place
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import CFM, INCH_OF_WATER

MOST_CUTS: Final = 99
# Where metal that nobody told the bench about is taken off next.
FURTHER: Final = (Place.ALL_OVER, Place.BOWL, Place.SHORT_SIDE, Place.GUIDE)


@dataclass(frozen=True, slots=True)
class Character:
    """What this bench is like. Flows [m3/s], pressures [Pa], times [s], scatters relative.

    blower : flow that the blower still holds its full pressure at; beyond it the pressure sags
    noise : of one sample in attached flow; grows to four times where the port separates
    setting_scatter, mount_scatter : of setting lift and pressure anew, and of a new bolting-down
    ranges : full scales; the last is chosen at the start
    plate : flow of the reference plate at 28 inH2O
    """

    leak: float = 0.4 * CFM
    leak_pressure: float = 28 * INCH_OF_WATER
    blower: float = 245 * CFM
    greatest_pressure: float = 40 * INCH_OF_WATER
    settling: float = 0.7
    noise: float = 0.004
    setting_scatter: float = 0.0025
    mount_scatter: float = 0.003
    greatest_lift: float = 0.016
    temperature: float = 294.15
    ranges: tuple[float, ...] = (75 * CFM, 150 * CFM, 300 * CFM)
    bore: float = 0.089
    plate: float = 152 * CFM


class SimulatedBench:
    """The state of the bench between commands. Safe to use from several threads.

    Parameters
    ----------
    clock : callable
        Seconds, rising; `time.monotonic` outside tests.
    seed : int
        Of its noise.
    character : Character, optional
    """

    def __init__(self, clock: Callable[[], float], seed: int = 1, character: Character | None = None) -> None:
        self.character = character or Character()
        self._clock = clock
        self._random = np.random.default_rng(seed)
        self._lock = threading.Lock()
        self._states = {direction: list(cuts) for direction, cuts in HEADS.items()}
        self._direction: Direction = Direction.INTAKE
        self._cut = 0
        self._lift = 0.0
        self._wanted = 0.0
        self._pressure = 0.0
        self._steady_flow = 0.0
        self._at = clock()
        self.lies = Lies()
        self.range = len(self.character.ranges)
        self._fitted = "head"
        self._probe: tuple[str, float, float] | None = None
        self._ball: tuple[str, float, float] | None = None
        self._total_head = False  # what the probe reads against: the room, and not the static beside it
        self._warm_from: float | None = None
        self._mount_factor = 1.0
        self._setting_factor = 1.0
        self.remount()

    def _draw(self) -> float:
        return float(self._random.standard_normal())

    @property
    def cut(self) -> SimulatedCut:
        return self._states[self._direction][self._cut]

    @property
    def state(self) -> tuple[Direction, int]:
        return self._direction, self._cut

    @property
    def lift(self) -> float:
        """Where the valve opener stands [m]."""
        return self._lift

    @property
    def wanted_pressure(self) -> float:
        return self._wanted

    @property
    def temperature(self) -> float:
        return self.character.temperature

    def fit(self, direction: Direction, cut: int) -> None:
        """Put a port in a state of its metal on the bench. A cut beyond those it knows is worked out of the last,
        place by place. ValueError past the last cut a port can have."""
        if not 0 <= cut <= MOST_CUTS:
            raise Refused("a port has cuts 0 to {}", MOST_CUTS)
        with self._lock:
            states = self._states[direction]
            while len(states) <= cut:
                states.append(worked(states[-1], FURTHER[len(states) % len(FURTHER)]))
            if (direction, cut) != (self._direction, self._cut):
                self._direction, self._cut = direction, cut
                self._remount()

    def work(self, direction: Direction, cut: int, place: str) -> None:
        """Grind: state `cut` becomes the one before it, worked at `place`. ValueError for a gap in the row."""
        with self._lock:
            states = self._states[direction]
            if not 1 <= cut <= len(states):
                raise Refused("the next cut of the {} port is {}", direction, len(states))
            states[cut:] = [worked(states[cut - 1], place)]
            self._cut = min(self._cut, len(self._states[self._direction]) - 1)

    def remount(self) -> None:
        """Take the head off and bolt it down again."""
        with self._lock:
            self._remount()

    def _remount(self) -> None:
        self._mount_factor = 1 + self.character.mount_scatter * self._draw()

    def set_lift(self, lift: float) -> None:
        """Open the valve to `lift` [m]. ValueError past the valve's travel."""
        if not 0 <= lift <= self.character.greatest_lift:
            raise Refused("the valve is out of travel")
        with self._lock:
            self._settle()
            self._lift = lift
            self._setting_factor = 1 + self.character.setting_scatter * self._draw()

    def set_pressure(self, pressure: float) -> None:
        """Ask the blower for a test pressure [Pa]. ValueError past what it can do shut off."""
        if not 0 <= pressure <= self.character.greatest_pressure:
            raise Refused("the blower cannot make that pressure")
        with self._lock:
            self._settle()
            self._wanted = pressure

    def tell(self, lie: Lie, on: bool) -> None:
        """Switch one of the ways in which this bench can mislead."""
        with self._lock:
            self._settle()
            self.lies.switch(lie, on)

    def choose_range(self, number: int) -> None:
        """Choose a range, counted from 1. ValueError where there is none."""
        if not 1 <= number <= len(self.character.ranges):
            raise Refused("the bench has ranges 1 to {}", len(self.character.ranges))
        with self._lock:
            self.range = number

    @property
    def full_scale(self) -> float:
        """Flow at 100 % of the range in use [m3/s]."""
        return self.character.ranges[self.range - 1]

    def put_on(self, what: str) -> None:
        """What lies on the bench: the head, the head with its opening sealed, or valve out, or the plate."""
        if what not in ("head", "sealed", "open", "plate"):
            raise Refused("HEAD, SEALED, OPEN or PLATE")
        with self._lock:
            self._settle()
            self._fitted = what

    def place_probe(
        self, where: tuple[str, float, float] | None, *, ball: bool = False, total_head: bool = False
    ) -> None:
        """Hold the pitot probe, its total tube alone, or the ball, at u, v of a station; None takes it out. ValueError
        elsewhere."""
        if where is not None:
            station, u, v = where
            if station not in air_picture.STATIONS or not (-1 <= u <= 1 and -1 <= v <= 1):
                raise Refused("stations are {}; places lie between -1 and 1", ", ".join(air_picture.STATIONS))
        with self._lock:
            self._settle()
            if ball:
                self._ball = where
            else:
                self._probe, self._total_head = where, total_head

    def read(self) -> tuple[float, float]:
        """One sample: flow [m3/s] as the bench reads it, leak and all, and pressure drop [Pa]."""
        with self._lock:
            self._settle()
            return self._look()

    def _look(self) -> tuple[float, float]:
        c = self.character
        rough = 1 + 3 * float(self.cut.truth.separation(self._lift)) if self._fitted == "head" else 1.0
        noise = 1 + c.noise * rough * self._draw()
        leak = c.leak * self.lies.leak * float(np.sqrt(self._pressure / c.leak_pressure))
        flow = self._steady_flow * noise + leak
        shown = self._pressure * (1 + 0.001 * self._draw())
        flow = self.lies.as_read(flow, self.full_scale, self._warm_for())
        return min(max(flow, 0.0), self.full_scale), max(shown, 0.0)

    def _warm_for(self) -> float:
        """How long the blower has run [s]."""
        return 0.0 if self._warm_from is None else self._at - self._warm_from

    def percent(self) -> float:
        """The reading as a share of the range in use [-]."""
        return self.read()[0] / self.full_scale

    def swirl(self) -> float:
        """Speed of a paddle in the bore [rad/s], anticlockwise from above positive."""
        with self._lock:
            self._settle()
            if self._fitted != "head" or self._lift <= 0:
                return 0.0
            v0 = float(np.sqrt(2 * max(self._pressure, 0.0) / 1.225))
            steady = air_picture.swirl_coefficient(self.cut.truth, self._true_lift()) * v0 / self.character.bore
            return steady * (1 + 0.01 * self._draw()) + 0.5 * self._draw()

    def probe(self) -> float:
        """What the pitot probe reads [Pa]; nought while it is held nowhere."""
        with self._lock:
            self._settle()
            if self._probe is None or self._fitted != "head" or self._lift <= 0:
                return 0.0
            where = self._probe[0], self._lift, self._pressure, *self._probe[1:]
            if self._total_head:
                exact = air_picture.total_head_lost(self.cut.truth, *where)
                return max(exact * (1 + 0.012 * self._draw()) + 2.0 * self._draw(), 0.0)
            exact = air_picture.probe_pressure(self.cut.truth, *where, self._direction)
            return max(exact * (1 + 0.012 * self._draw()) + 2.0 * self._draw(), 0.0)

    def _settle(self) -> None:
        """Move pressure and flow towards where they are going, by the time that has gone by."""
        now = self._clock()
        if self._wanted > 0 and self._warm_from is None:
            self._warm_from = now
        elif self._wanted == 0:
            self._warm_from = None
        share = 1 - float(np.exp(-(now - self._at) / self.character.settling))
        self._at = now
        pressure = self._reachable()
        self._pressure += share * (pressure - self._pressure)
        self._steady_flow += share * (self._through(self._pressure) - self._steady_flow)

    def _true_lift(self) -> float:
        """Where the valve really stands when the dial shows `lift`."""
        return max(self._lift + self.lies.dial, 0.0) if self._lift > 0 else 0.0

    def _through(self, pressure: float) -> float:
        if pressure <= 0 or self._fitted == "sealed":
            return 0.0
        if self._fitted == "plate":
            return self.character.plate * float(np.sqrt(pressure / self.character.leak_pressure))
        truth = self.cut.truth
        if self._fitted == "open":
            return float(truth.open_flow(pressure)) * self._mount_factor
        lift = self._true_lift()
        if lift <= 0:
            return 0.0
        exact = float(truth.flow(lift, pressure)) * self.lies.head(truth, lift)
        if self._ball is not None:
            exact *= 1 - air_picture.ball_drop(truth, self._ball[0], lift, *self._ball[1:])
        return exact * self._mount_factor * self._setting_factor

    def _reachable(self) -> float:
        """The pressure the blower can hold at this lift, at most the one asked for."""
        flow = self._through(self._wanted)
        blower = self.lies.blower(self.character.blower)
        if flow <= blower:
            return self._wanted
        return self._wanted * (blower / flow) ** 2  # flow goes with the root of pressure

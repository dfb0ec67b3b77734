"""A simulated flow bench: settles, leaks, is noisy, runs out of blower. Time comes from a clock handed in."""

from __future__ import annotations

import threading
from collections.abc import Callable
from dataclasses import dataclass

import numpy as np

from ventrix.bench.simulator.heads import HEADS, SimulatedCut, worked
from ventrix.core.model import Direction
from ventrix.core.units import CFM, INCH_OF_WATER


@dataclass(frozen=True, slots=True)
class Character:
    """What this bench is like. Flows [m3/s], pressures [Pa], times [s], scatters relative.

    blower : flow that the blower still holds its full pressure at; beyond it the pressure sags
    noise : of one sample in attached flow; grows to four times where the port separates
    setting_scatter, mount_scatter : of setting lift and pressure anew, and of a new bolting-down
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
        self._direction: Direction = "intake"
        self._cut = 0
        self._lift = 0.0
        self._wanted = 0.0
        self._pressure = 0.0
        self._steady_flow = 0.0
        self._at = clock()
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
        """Put a port in a state of its metal on the bench. ValueError where there is no such state."""
        with self._lock:
            if not 0 <= cut < len(self._states[direction]):
                raise ValueError(f"the {direction} port has cuts 0 to {len(self._states[direction]) - 1}")
            if (direction, cut) != (self._direction, self._cut):
                self._direction, self._cut = direction, cut
                self._remount()

    def work(self, direction: Direction, cut: int, place: str) -> None:
        """Grind: state `cut` becomes the one before it, worked at `place`. ValueError for a gap in the row."""
        with self._lock:
            states = self._states[direction]
            if not 1 <= cut <= len(states):
                raise ValueError(f"the next cut of the {direction} port is {len(states)}")
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
            raise ValueError("the valve is out of travel")
        with self._lock:
            self._settle()
            self._lift = lift
            self._setting_factor = 1 + self.character.setting_scatter * self._draw()

    def set_pressure(self, pressure: float) -> None:
        """Ask the blower for a test pressure [Pa]. ValueError past what it can do shut off."""
        if not 0 <= pressure <= self.character.greatest_pressure:
            raise ValueError("the blower cannot make that pressure")
        with self._lock:
            self._settle()
            self._wanted = pressure

    def read(self) -> tuple[float, float]:
        """One sample: flow [m3/s] as the bench reads it, leak and all, and pressure drop [Pa]."""
        with self._lock:
            self._settle()
            c = self.character
            rough = 1 + 3 * float(self.cut.truth.separation(self._lift))
            noise = 1 + c.noise * rough * self._draw()
            leak = c.leak * float(np.sqrt(self._pressure / c.leak_pressure))
            flow = self._steady_flow * noise + leak
            shown = self._pressure * (1 + 0.001 * self._draw())
            return max(flow, 0.0), max(shown, 0.0)

    def _settle(self) -> None:
        """Move pressure and flow towards where they are going, by the time that has gone by."""
        now = self._clock()
        share = 1 - float(np.exp(-(now - self._at) / self.character.settling))
        self._at = now
        pressure = self._reachable()
        self._pressure += share * (pressure - self._pressure)
        self._steady_flow += share * (self._through(self._pressure) - self._steady_flow)

    def _through(self, pressure: float) -> float:
        if self._lift <= 0 or pressure <= 0:
            return 0.0
        return float(self.cut.truth.flow(self._lift, pressure)) * self._mount_factor * self._setting_factor

    def _reachable(self) -> float:
        """The pressure the blower can hold at this lift, at most the one asked for."""
        flow = self._through(self._wanted)
        if flow <= self.character.blower:
            return self._wanted
        return self._wanted * (self.character.blower / flow) ** 2  # flow goes with the root of pressure

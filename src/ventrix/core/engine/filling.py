"""How full a cylinder gets: quasi-steady, one cylinder, no waves in pipes, and it says so.

From exhaust opening to intake closing the gas exchange is stepped by crank angle, many curves and speeds at once as
columns; from intake closing to exhaust opening it is closed form.
"""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any, Final

import numpy as np
from numpy.typing import NDArray

from ventrix.core.engine.cylinder import Cylinder, Gas, R, nozzle
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.refused import Refused

THETA: Final = 0.6  # how implicit the pressure of a step is
SETTLED: Final = 1e-4  # of the swept volume's fill, and of the inflow, between cycles
MOST_CYCLES: Final = 25
START_TEMPERATURE: Final = 1500.0  # K at exhaust opening, in the first cycle
START_FILLING: Final = 0.9
SIGNS: Final = np.array([[1.0], [-1.0]])  # both valves' flows in, to flow in past one and out past the other
NUDGE: Final = 1e-4  # of pressure, for its slope


@dataclass(frozen=True, slots=True)
class Around:
    """What the engine breathes from and into [Pa, K], its walls, and its fuel. Defaults: common practice, no source.

    `manifold` is one pressure or one a column; `heat` is what a kilogram of fresh air brings to the gas; `wall_heat`
    off is an adiabatic cylinder.
    """

    manifold: float | Array = 98_000.0
    manifold_temperature: float = 310.0
    exhaust: float = 104_000.0
    wall_temperature: float = 430.0
    wall_heat: bool = True
    heat: float = 0.8 * 0.88 * 44e6 / 14.7  # J a kg of fresh air
    gas: Gas = field(default_factory=Gas)


@dataclass(frozen=True, slots=True)
class Valves:
    """Effective areas over the crank, at even steps: `angle` after the firing top dead centre [rad], shape (n + 1,),
    from exhaust opening to intake closing; `intake` and `exhaust` at mid-step [m2], shape (n, columns)."""

    angle: Array
    intake: Array
    exhaust: Array


@dataclass(slots=True)
class Contents:
    """What is where at exhaust opening, by column: mass [kg], energy [J] and burnt share in the cylinder; the plug in
    the intake port [kg], what of it is burnt [kg], its enthalpy [J], and what came in the step before; and how hot the
    exhaust is [K]."""

    mass: Array
    energy: Array
    burnt: Array
    plug: Array
    plug_energy: Array
    plug_burnt: Array
    came: Array
    exhaust_temperature: Array

    def columns(self, which: NDArray[np.integer[Any]]) -> Contents:
        """The same for columns named by number, in that order."""
        return Contents(*(getattr(self, name)[which] for name in self.__slots__))


@dataclass(frozen=True, slots=True)
class Filled:
    """A settled cycle by column: filling (fresh air over swept volume at the manifold's state), residual share,
    and what share of the charge was left at bottom dead centre after blow-down; `end` is what the next would begin
    with."""

    filling: Array
    residual: Array
    left_at_bottom: Array
    cycles: int
    end: Contents


def fill(
    cylinder: Cylinder,
    valves: Valves,
    speed: Array,
    around: Around | None = None,
    start: Contents | None = None,
    settled: float = SETTLED,
) -> Filled:
    """Run cycles until they repeat.

    .. math:: \\frac{dU}{dt} = \\sum_j h_j \\dot m_j - p \\frac{dV}{dt} - \\dot Q_w

    The pressure of each step is linearly implicit about an adiabatic guess at mid-step. What is pushed back into the
    intake port returns first.

    Parameters
    ----------
    cylinder : Cylinder
        Its sizes.
    valves : Valves
        Effective areas.
    speed : ndarray
        Of the crank by column [rad/s], shape (columns,).
    around : Around, optional
        Pressures, temperatures, walls and fuel.
    start : Contents, optional
        To begin with: a like engine's `end` saves cycles.
    settled : float
        How little filling, and the inflow against the outflow, may move between cycles [-].

    Returns
    -------
    Filled
        Shares [-], shape (columns,).

    Raises
    ------
    ValueError
        Where the cycles do not settle.

    References
    ----------
    Heywood (1988), ch. 6 (quasi-steady flow through valves) and 12.4 (Woschni's coefficient, 3.26 b^-0.2 p^0.8
    T^-0.55 w^0.8, p in kPa, w of gas exchange 6.18 times mean piston speed).
    """
    around = around or Around()
    run = _Run(cylinder, valves, np.asarray(speed, dtype=float), around, start)
    before: Array | None = None
    for cycle in range(1, MOST_CYCLES + 1):
        filling, loss = run.cycle()
        if not np.all(np.isfinite(filling)):
            raise Refused("so large a valve at so low a speed is beyond this calculation")
        still = before is not None and np.all(np.abs(filling - before) < settled) and np.all(loss < settled)
        before = filling
        if still:
            return Filled(filling, run.residual_at_close, run.left_at_bottom, cycle, run.now)
    raise Refused("the cycles did not settle within {}", MOST_CYCLES)


def _apart(pressure: Array, other: float | Array) -> Array:
    return np.maximum(np.abs(pressure - other), 1e-3 * other)


class _Run:
    """The state of all columns: mass and energy in the cylinder, share of burnt gas, and the plug in the port."""

    def __init__(
        self, cylinder: Cylinder, valves: Valves, speed: Array, around: Around, start: Contents | None
    ) -> None:
        self.cylinder, self.valves, self.around = cylinder, valves, around
        self.areas = np.stack([valves.intake, valves.exhaust], axis=1)[:, :, None, :]
        self.sides = np.stack([np.broadcast_to(p, speed.shape) for p in (around.manifold, around.exhaust)])[:, None, :]
        self.step = (valves.angle[1] - valves.angle[0]) / speed  # s
        self.volumes = cylinder.volume(valves.angle)
        middle = (valves.angle[1:] + valves.angle[:-1]) / 2
        self.middles = cylinder.volume(middle)
        self.walls = cylinder.wall(middle)
        piston = cylinder.stroke * speed / np.pi
        self.woschni = 3.26 * cylinder.bore**-0.2 * (6.18 * piston) ** 0.8
        self.bottom = int(np.argmin(np.abs(valves.angle - np.pi)))
        self.fresh_mass = around.manifold / (R * around.manifold_temperature) * cylinder.swept
        begin = start if start is not None else self._begin(speed)
        self.mass, self.energy, self.burnt = begin.mass, begin.energy, begin.burnt
        self.plug, self.plug_energy, self.plug_burnt = begin.plug, begin.plug_energy, begin.plug_burnt
        self.came, self.exhaust_temperature = begin.came, begin.exhaust_temperature
        self.residual_at_close = np.zeros_like(speed)
        self.left_at_bottom = np.ones_like(speed)

    def _begin(self, speed: Array) -> Contents:
        """A hot cylinder and an empty port."""
        one, nothing = np.ones_like(speed), np.zeros_like(speed)
        mass = START_FILLING * self.fresh_mass * one
        energy = mass * self.around.gas.energy(START_TEMPERATURE * one)
        return Contents(mass, energy, one, nothing, nothing, nothing, nothing, 900.0 * one)

    @property
    def now(self) -> Contents:
        return Contents(self.mass, self.energy, self.burnt, self.plug, self.plug_energy, self.plug_burnt, self.came,
                        self.exhaust_temperature)  # fmt: skip

    def cycle(self) -> tuple[Array, Array]:
        """One gas exchange and the closed part after it: filling, and what came in less what went out, of it."""
        gas = self.around.gas
        inflow = np.zeros_like(self.mass)
        outflow = np.zeros_like(self.mass)
        hot = np.zeros_like(self.mass)
        at_opening = self.mass.copy()
        for i in range(len(self.valves.angle) - 1):
            into, out = self._advance(i)
            inflow += into
            outflow += out
            hot += np.maximum(out, 0.0) * self._temperature()
            if i + 1 == self.bottom:
                self.left_at_bottom = self.mass / at_opening
        self.exhaust_temperature = hot / np.maximum(outflow, 1e-12)
        filling = inflow / self.fresh_mass
        self.residual_at_close = self.burnt.copy()
        fresh = self.mass * (1 - self.burnt)
        temperature = self._temperature()
        close, opening = self.volumes[-1], self.volumes[0]
        top = self.cylinder.clearance
        squeezed = gas.squeezed(temperature, close / top)
        burning = gas.temperature(gas.energy(squeezed) + self.around.heat * fresh / self.mass)
        opened = gas.squeezed(burning, top / opening)
        self.energy = self.mass * gas.energy(opened)
        self.burnt = np.ones_like(self.mass)
        return filling, np.abs(inflow - outflow) / np.maximum(inflow, 1e-12)

    def _temperature(self) -> Array:
        return self.around.gas.temperature(self.energy / self.mass)

    def _flows(self, i: int, pressure: Array, temperature: Array, outside: Array) -> Array:
        """Into the cylinder past both valves [kg/s], shape (2, ..., columns), at cylinder pressures (..., columns)."""
        inwards = pressure < self.sides
        before, behind = np.where(inwards, self.sides, pressure), np.where(inwards, pressure, self.sides)
        warm = np.where(inwards, outside, temperature)
        passed = nozzle(self.areas[i], before, warm, behind, self.around.gas.gamma(warm))
        return np.where(inwards, passed, -passed)

    @property
    def plug_temperature(self) -> Array:
        h = self.plug_energy / np.maximum(self.plug, 1e-12)
        gas = self.around.gas
        a = gas.a + R
        return np.asarray(h / a if gas.b == 0 else (np.sqrt(a**2 + 2 * gas.b * np.maximum(h, 0.0)) - a) / gas.b)

    def _advance(self, i: int) -> tuple[Array, Array]:
        """One step: fresh and returned gas in, burnt gas out [kg]."""
        a, gas, dt = self.around, self.around.gas, self.step
        temperature = self._temperature()
        gamma = gas.gamma(temperature)
        pressure = self.mass * R * temperature / self.volumes[i]
        middle = self.middles[i]
        guess = pressure * (self.volumes[i] / middle) ** gamma
        warm = temperature * (self.volumes[i] / middle) ** (gamma - 1)
        inside, behind = gas.enthalpy(warm), gas.enthalpy(self.exhaust_temperature)
        # What is about to come in: the plug, as far as it lasts for as much as came in the step before.
        lasts = np.clip(self.plug / np.maximum(self.came, 1e-12), 0.0, 1.0)
        comes = lasts * self.plug_temperature + (1 - lasts) * a.manifold_temperature
        entering = gas.enthalpy(comes)
        scale = R / (gas.a + gas.b * warm) / middle * dt  # (gamma - 1) dt / V
        spare = 0.5 * gas.b * warm**2  # cv T - u: pressure goes by cp T, energy by h

        def towards(at: Array, into: Array, out: Array, slope_into: Array, slope_out: Array) -> Array:
            """The mid-step pressure by these slopes."""
            h_in = np.where(into > 0, entering, inside) + spare
            h_out = np.where(out > 0, inside, behind) + spare
            rate = scale * (h_in * into - h_out * out)
            stiff = np.maximum(-scale * (h_in * slope_into - h_out * slope_out), 0.0)
            theta = np.maximum(THETA, 1 - 1 / np.maximum(stiff, 1.0))  # a step ends no further than where flow ends
            return np.asarray(at + (guess - at + theta * rate) / (1 + theta * stiff))

        # First along the line to where each valve's flow ends, which never passes it; then by the slope found there.
        outside = np.stack([comes, self.exhaust_temperature])[:, None, :]
        into, out = self._flows(i, guess[None, :], warm, outside)[:, 0] * SIGNS
        first = towards(guess, into, out, -np.abs(into / _apart(guess, a.manifold)),
                        np.abs(out / _apart(guess, a.exhaust)))  # fmt: skip
        flows = self._flows(i, np.stack([first, first * (1 + NUDGE)]), warm, outside)
        into, out = flows[:, 0] * SIGNS
        slope_into, slope_out = (flows[:, 1] - flows[:, 0]) / (first * NUDGE) * SIGNS
        found = towards(first, into, out, slope_into, slope_out)
        into, out = (into + slope_into * (found - first)) * dt, (out + slope_out * (found - first)) * dt
        heat = self._wall_heat(i, found, warm) * dt
        came, carried, dirty = self._through_port(into, inside)
        self.came = np.maximum(came, 0.0)
        back = np.maximum(-out, 0.0)
        self.energy = (
            self.energy
            + carried
            - np.maximum(out, 0.0) * inside
            + back * behind
            - found * (self.volumes[i + 1] - self.volumes[i])
            - heat
        )
        burnt = self.burnt * (self.mass - np.maximum(out, 0.0) - np.maximum(-came, 0.0)) + dirty + back
        self.mass = self.mass + came - out
        self.burnt = np.clip(burnt / self.mass, 0.0, 1.0)
        return came, out

    def _through_port(self, into: Array, inside: Array) -> tuple[Array, Array, Array]:
        """Mass in past the intake valve, its enthalpy [J] and what of it is burnt [kg]: the plug goes out last and
        returns first."""
        out, come = np.maximum(-into, 0.0), np.maximum(into, 0.0)
        of_plug = np.minimum(come, self.plug)
        share = of_plug / np.maximum(self.plug, 1e-15)
        energy, burnt = share * self.plug_energy, share * self.plug_burnt
        fresh = self.around.gas.enthalpy(np.asarray(self.around.manifold_temperature))
        self.plug = self.plug - of_plug + out
        self.plug_energy = self.plug_energy - energy + out * inside
        self.plug_burnt = self.plug_burnt - burnt + out * self.burnt
        return into, energy + (come - of_plug) * fresh - out * inside, burnt

    def _wall_heat(self, i: int, pressure: Array, temperature: Array) -> Array:
        """Heat into the walls [W]."""
        if not self.around.wall_heat:
            return np.zeros_like(pressure)
        h = self.woschni * (pressure / 1e3) ** 0.8 * temperature**-0.55
        return np.asarray(h * self.walls[i] * (temperature - self.around.wall_temperature))

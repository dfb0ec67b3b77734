"""A cylinder for filling: its volume over the crank, the gas in it, and what passes a valve. No waves."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

import numpy as np

from ventrix.core.quantity.arrays import Array

R: Final = 287.0  # J/(kg K)
NEAR: Final = 1e-3  # of pressure: within it the flow through a valve is taken as linear


@dataclass(frozen=True, slots=True)
class Gas:
    """Heat capacity at constant volume, cv = a + b T [J/(kg K)]: burnt and fresh alike."""

    a: float = 680.0
    b: float = 0.13

    def energy(self, temperature: Array) -> Array:
        """u(T) [J/kg]."""
        return self.a * temperature + 0.5 * self.b * temperature**2

    def temperature(self, energy: Array) -> Array:
        """T of u [K]."""
        if self.b == 0:
            return energy / self.a
        return np.asarray((np.sqrt(self.a**2 + 2 * self.b * energy) - self.a) / self.b)

    def enthalpy(self, temperature: Array) -> Array:
        """h(T) [J/kg]."""
        return self.energy(temperature) + R * temperature

    def gamma(self, temperature: Array) -> Array:
        """Ratio of heat capacities."""
        return 1 + R / (self.a + self.b * temperature)

    def squeezed(self, temperature: Array, ratio: Array | float) -> Array:
        """T after an adiabatic change of volume to 1/ratio: a ln T + b T rises by R ln ratio."""
        wanted = self.a * np.log(temperature) + self.b * temperature + R * np.log(ratio)
        found = temperature * np.asarray(ratio) ** (R / (self.a + self.b * temperature))
        for _ in range(6):
            off = self.a * np.log(found) + self.b * found - wanted
            found = found - off / (self.a / found + self.b)
        return np.asarray(found)


@dataclass(frozen=True, slots=True)
class Cylinder:
    """One cylinder [m]; `compression` is the ratio of greatest to least volume."""

    bore: float
    stroke: float
    rod: float
    compression: float

    @property
    def swept(self) -> float:
        """[m3]"""
        return float(np.pi / 4 * self.bore**2 * self.stroke)

    @property
    def clearance(self) -> float:
        """[m3]"""
        return self.swept / (self.compression - 1)

    def travel(self, angle: Array) -> Array:
        """How far the piston is down from the top [m], at crank angles after top dead centre [rad]."""
        crank = self.stroke / 2
        side = crank * np.sin(angle)
        return crank * (1 - np.cos(angle)) + self.rod - np.sqrt(self.rod**2 - side**2)

    def volume(self, angle: Array) -> Array:
        """[m3]"""
        return self.clearance + np.pi / 4 * self.bore**2 * self.travel(angle)

    def wall(self, angle: Array) -> Array:
        """Area of head, piston and bore [m2]."""
        return np.pi / 2 * self.bore**2 + np.pi * self.bore * self.travel(angle)


def nozzle(area: Array, upstream: Array, temperature: Array, downstream: Array, gamma: Array) -> Array:
    """Mass flow through an isentropic nozzle.

    .. math:: \\dot m = C_d A \\frac{p_0}{\\sqrt{R T_0}} \\psi(p/p_0),
              \\quad \\psi^2 = \\frac{2\\gamma}{\\gamma-1}\\left(r^{2/\\gamma} - r^{(\\gamma+1)/\\gamma}\\right)

    choked below the critical ratio, and linear within 0.1 % of equal pressure, where its slope has no bound.

    Parameters
    ----------
    area : ndarray
        Effective area CdA [m2].
    upstream, downstream : ndarray
        Stagnation pressure before it, pressure behind it [Pa].
    temperature : ndarray
        Before it [K].
    gamma : ndarray
        Of the gas before it [-].

    Returns
    -------
    ndarray
        Mass flow [kg/s], zero or more.

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    [15] NACA Report 1135 (1953), equations for isentropic flow.
    """
    ratio = np.clip(downstream / upstream, 0.0, 1.0)
    critical = (2 / (gamma + 1)) ** (gamma / (gamma - 1))
    r = np.clip(ratio, critical, 1 - NEAR)
    log = np.log(r) / gamma
    psi = np.sqrt(2 * gamma / (gamma - 1) * np.exp(2 * log) * (1 - np.exp((gamma - 1) * log)))
    psi = np.where(ratio > 1 - NEAR, psi * (1 - ratio) / NEAR, psi)
    return np.asarray(area * upstream / np.sqrt(R * temperature) * psi)

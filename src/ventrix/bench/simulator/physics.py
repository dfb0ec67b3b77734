"""A made-up port that obeys the formula book: the seat rules at low lift, the port at high lift.

Two restrictions in series pass the same flow, so their effective areas join as
1/A^2 = 1/A_valve^2 + 1/A_port^2. The valve's is the opening between valve and seat times a
coefficient that falls with lift; the port's, its throat included, shrinks where the air leaves a tight short side.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike

from ventrix.core.formulas.bench_flow import ideal_flux
from ventrix.core.formulas.valve import lift_ratio, seat_opening_area
from ventrix.core.quantity.arrays import Array


@dataclass(frozen=True, slots=True)
class SimulatedPort:
    """Hidden truth of one port in one state. Lengths [m], angle [rad], area [m2]; the rest [-].

    valve_coefficient : of the opening at the seat, near the seat
    coefficient_fall : how much of it is lost by an L/D of 0.25
    low_lift : factor on the valve's coefficient below an L/D of about 0.15
    port_area : effective area of the port while the air stays attached
    stall_ratio, stall_loss : L/D about which the short side lets go, and what share it costs
    swirl : coefficient at an L/D of a quarter, before any of it is lost to separation
    """

    valve_diameter: float
    seat_width: float
    seat_angle: float
    throat_diameter: float
    stem_diameter: float
    port_area: float
    valve_coefficient: float = 0.95
    coefficient_fall: float = 0.20
    low_lift: float = 1.0
    stall_ratio: float = 0.27
    stall_loss: float = 0.10
    swirl: float = 0.30

    def separation(self, lift: ArrayLike) -> Array:
        """How far the air has left the short side, 0 to 1 [-]; also where the flow turns noisy."""
        x = lift_ratio(lift, self.valve_diameter)
        return np.asarray(1 / (1 + np.exp(-(x - self.stall_ratio) / 0.03)))

    def effective_area(self, lift: ArrayLike) -> Array:
        """Effective area of valve and port together [m2], shape of `lift` [m]."""
        x = lift_ratio(lift, self.valve_diameter)
        opening = seat_opening_area(self.valve_diameter, self.seat_width, self.seat_angle, lift)
        near_seat = 1 + (self.low_lift - 1) / (1 + np.exp((x - 0.15) / 0.015))
        coefficient = self.valve_coefficient * near_seat * (1 - self.coefficient_fall * np.minimum(x / 0.25, 1) ** 1.5)
        valve = np.maximum(opening * coefficient, 1e-12)
        port = self.port_area * (1 - self.stall_loss * self.separation(lift))
        return np.asarray(1 / np.sqrt(1 / valve**2 + 1 / port**2))

    def flow(self, lift: ArrayLike, pressure_drop: ArrayLike) -> Array:
        """Volume flow at reference air [m3/s] at lifts [m] and pressure drops [Pa]."""
        return np.asarray(self.effective_area(lift) * ideal_flux(pressure_drop))

    def open_flow(self, pressure_drop: ArrayLike) -> Array:
        """Volume flow with the valve out and the guide plugged [m3/s]: the port alone, attached."""
        return np.asarray(self.port_area * ideal_flux(pressure_drop))

"""Numbers that came from memory, worked out anew by libraries that share nothing with this program. What has no
check stands in the list "Unverified" of docs/sources.md."""

from __future__ import annotations

import math

import fluids
import numpy as np
import pytest
from CoolProp.CoolProp import PropsSI
from scipy import integrate, special

from ventrix.core.air.layouts import _RING
from ventrix.core.benches.plate import MOVING_RANGE_D2
from ventrix.core.formulas.atmosphere import (
    REFERENCE_DENSITY,
    REFERENCE_PRESSURE,
    REFERENCE_TEMPERATURE,
    speed_of_sound,
)
from ventrix.core.formulas.bench_flow import isentropic_mass_flux


def test_the_range_of_two() -> None:
    """The factor of a chart of individuals: the mean distance of two normals."""
    assert pytest.approx(2 / math.sqrt(math.pi), abs=5e-4) == MOVING_RANGE_D2


def test_where_a_turbulent_profile_reads_its_mean() -> None:
    """Nikuradse's seventh-power profile, integrated over the pipe; ISO 7145's 0.758 of the radius."""
    mean, _ = integrate.quad(lambda r: 2 * r * (1 - r) ** (1 / 7), 0, 1)
    assert pytest.approx(1 - mean**7, abs=1e-3) == _RING
    assert mean == pytest.approx(special.beta(2, 8 / 7) * 2, rel=1e-9)


def test_reference_air_and_its_speed_of_sound() -> None:
    """ISO 2533's density and speed of sound against CoolProp's air (Lemmon et al. 2000), a real gas."""
    density = PropsSI("D", "T", REFERENCE_TEMPERATURE, "P", REFERENCE_PRESSURE, "Air")
    sound = PropsSI("A", "T", REFERENCE_TEMPERATURE, "P", REFERENCE_PRESSURE, "Air")
    assert pytest.approx(density, rel=1e-3) == REFERENCE_DENSITY
    assert float(speed_of_sound(REFERENCE_TEMPERATURE)) == pytest.approx(sound, rel=1e-3)


def test_choked_flow() -> None:
    """A nozzle's most flow: the critical pressure ratio by `fluids`, the flux by CoolProp's throat state."""
    gamma = 1.4
    ratio = 1 - fluids.P_critical_flow(P=1.0, k=gamma)
    drop = ratio * REFERENCE_PRESSURE
    throat_t = REFERENCE_TEMPERATURE / (1 + (gamma - 1) / 2)
    density = PropsSI("D", "T", throat_t, "P", REFERENCE_PRESSURE - drop, "Air")
    sound = PropsSI("A", "T", throat_t, "P", REFERENCE_PRESSURE - drop, "Air")
    ours = float(np.asarray(isentropic_mass_flux(drop, REFERENCE_PRESSURE, REFERENCE_TEMPERATURE)))
    assert ours == pytest.approx(density * sound, rel=3e-3)

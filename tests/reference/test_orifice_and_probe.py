"""Orifice plates against ISO 5167-2 written out again, probes against CoolProp."""

from __future__ import annotations

import CoolProp.CoolProp as coolprop
import numpy as np
import pytest

from ventrix.core.formulas.atmosphere import air_density, air_viscosity
from ventrix.core.formulas.orifice import orifice_flow, plenum_orifice_flow
from ventrix.core.formulas.pitot import ball_drop, pitot_velocity, pitot_velocity_compressible


def reader_harris_gallagher(beta: float, reynolds: float, pipe: float, l1: float, l2: float) -> float:
    # ISO 5167-2:2003, eq. (4), written out here a second time, from memory
    a = (19000 * beta / reynolds) ** 0.8
    m2 = 2 * l2 / (1 - beta)
    c = 0.5961 + 0.0261 * beta**2 - 0.216 * beta**8 + 0.000521 * (1e6 * beta / reynolds) ** 0.7
    c += (0.0188 + 0.0063 * a) * beta**3.5 * (1e6 / reynolds) ** 0.3
    tap = 0.043 + 0.080 * np.exp(-10 * l1) - 0.123 * np.exp(-7 * l1)
    c += tap * (1 - 0.11 * a) * beta**4 / (1 - beta**4) - 0.031 * (m2 - 0.8 * m2**1.1) * beta**1.3
    return float(c + (0.011 * (0.75 - beta) * (2.8 - pipe * 1000 / 25.4) if pipe < 0.07112 else 0.0))


@pytest.mark.parametrize("taps", ["corner", "D", "flange"])
@pytest.mark.parametrize(("d", "pipe", "dp"), [(0.05, 0.10, 1000.0), (0.03, 0.06, 2500.0), (0.07, 0.10, 500.0)])
def test_orifice_solves_the_standard(taps: str, d: float, pipe: float, dp: float) -> None:
    found = orifice_flow(d, pipe, dp, 101325.0, 293.15, taps)  # type: ignore[arg-type]
    rho, mu, beta = float(air_density(293.15, 101325.0)), air_viscosity(293.15), d / pipe
    reynolds = 4 * found.mass_flow / (np.pi * pipe * mu)
    l1, l2 = {"corner": (0, 0), "D": (1, 0.47), "flange": (0.0254 / pipe, 0.0254 / pipe)}[taps]
    c = reader_harris_gallagher(beta, reynolds, pipe, l1, l2)
    # ISO 5167-2:2003, eq. (5): expansibility, from memory
    eps = 1 - (0.351 + 0.256 * beta**4 + 0.93 * beta**8) * (1 - (1 - dp / 101325) ** (1 / 1.4))
    mass = c / np.sqrt(1 - beta**4) * eps * np.pi / 4 * d**2 * np.sqrt(2 * dp * rho)
    assert found.discharge_coefficient == pytest.approx(c, rel=1e-6)
    assert found.mass_flow == pytest.approx(mass, rel=1e-6)
    assert found.flow == pytest.approx(mass / rho, rel=1e-6)
    assert not found.notes


def test_limits_of_the_standard_are_said() -> None:
    assert any("12.5 mm" in n for n in orifice_flow(0.01, 0.06, 1000).notes)
    assert any("diameter ratio" in n for n in orifice_flow(0.08, 0.10, 1000).notes)
    assert any("Reynolds" in n for n in orifice_flow(0.02, 0.10, 1.0).notes)
    with pytest.raises(ValueError, match="smaller than its pipe"):
        orifice_flow(0.1, 0.1, 1000)
    with pytest.raises(ValueError, match="pressure upstream"):
        orifice_flow(0.05, 0.1, 2e5)


def test_viscosity_against_coolprop() -> None:
    # CoolProp's air, within half a percent of Sutherland's formula around room temperature
    assert air_viscosity(293.15) == pytest.approx(coolprop.PropsSI("V", "T", 293.15, "P", 101325, "Air"), rel=5e-3)


@pytest.mark.parametrize("dp", [200.0, 1000.0, 6000.0])
def test_plate_in_a_plenum_is_a_plate_in_an_endless_pipe(dp: float) -> None:
    """ISO 5167-2's plate, its pipe a thousand times as wide, has nothing left but its own coefficient."""
    wide = orifice_flow(0.05, 50.0, dp)
    bare = plenum_orifice_flow(0.05, dp, coefficient=wide.discharge_coefficient)
    assert bare == pytest.approx(wide.flow, rel=1e-9)


def test_plate_in_a_plenum_against_coolprop() -> None:
    """At a drop that no expansion is left of, Bernoulli with CoolProp's density."""
    rho = coolprop.PropsSI("D", "T", 293.15, "P", 101325, "Air")
    head = 10.0 / rho  # J/kg
    assert plenum_orifice_flow(0.05, 10.0, coefficient=1.0) == pytest.approx(
        np.pi / 4 * 0.05**2 * (2 * head) ** 0.5, rel=2e-4
    )


def test_pitot_as_iso_3966() -> None:
    # ISO 3966: v = K sqrt(2 dp / rho); 28 inH2O in reference air is 350 ft/s (common practice, no source)
    assert pitot_velocity(28 * 249.08891) / 0.3048 == pytest.approx(350, abs=0.5)
    assert pitot_velocity(1000.0, 1.225, 0.98) == pytest.approx(0.98 * np.sqrt(2000 / 1.225))


@pytest.mark.parametrize("speed", [30.0, 100.0, 200.0])
def test_compressible_pitot_against_coolprop(speed: float) -> None:
    # CoolProp: bring real air at that speed to rest at constant entropy, and read its pressure
    t, p = 290.0, 98_000.0
    s = coolprop.PropsSI("S", "T", t, "P", p, "Air")
    h0 = coolprop.PropsSI("H", "T", t, "P", p, "Air") + speed**2 / 2
    reading = coolprop.PropsSI("P", "H", h0, "S", s, "Air") - p
    assert pitot_velocity_compressible(reading, p, t) == pytest.approx(speed, rel=2e-3)
    slow = float(pitot_velocity(reading, coolprop.PropsSI("D", "T", t, "P", p, "Air")))
    assert slow >= speed * (1 - 1e-3)


def test_probe_and_ball_errors() -> None:
    with pytest.raises(ValueError, match="sonic"):
        pitot_velocity_compressible(2e5, 1e5, 290.0)
    with pytest.raises(ValueError, match="negative"):
        pitot_velocity(-1.0)
    assert ball_drop(200.0, 190.0) == pytest.approx(0.05)


def test_orifice_takes_arrays() -> None:
    many = orifice_flow(0.05, 0.1, np.array([500.0, 1000.0]))
    one = orifice_flow(0.05, 0.1, 1000.0)
    assert many.flow.shape == (2,)
    assert many.flow[1] == pytest.approx(float(one.flow))

"""Swirl against its own balance integrated by SciPy, engine sums against hand figures and trade tables."""

from __future__ import annotations

import CoolProp.CoolProp as coolprop
import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.integrate import quad, solve_ivp

from ventrix.core.formulas import compression, engine, swirl
from ventrix.core.quantity.units import CFM, from_si, to_si

DP = to_si(28, "inH2O")
RPM = to_si(1, "rpm")


def test_paddle_and_impulse_agree_on_solid_rotation() -> None:
    # Heywood (1988), section 8.3.1: a solid swirl omega carries a torque m omega B^2 / 8, so both meters
    # must give the same coefficient.
    omega, bore, mass = 200.0, 0.086, 0.08
    paddle = swirl.paddle_coefficient(omega, bore, DP)
    impulse = swirl.impulse_coefficient(mass * omega * bore**2 / 8, mass, bore, DP)
    assert paddle == pytest.approx(float(impulse))
    assert swirl.paddle_coefficient(-omega, bore, DP) == pytest.approx(-float(paddle))


def test_swirl_ratio_against_direct_integration() -> None:
    # SciPy solve_ivp of the balance itself: torque Cs m v0 B / 8 spins up the trapped mass at constant dp
    bore, stroke, rho = 0.086, 0.086, 1.2
    theta = np.linspace(0.2, 3.8, 400)
    area = 6e-4 * np.sin((theta - 0.2) / 3.6 * np.pi) ** 2
    cs = 0.3 + 0.2 * np.sin(theta)
    v0 = float(np.sqrt(2 * DP / rho))
    mass_wanted = rho * np.pi / 4 * bore**2 * stroke
    crank = rho * v0 * np.trapezoid(area, theta) / mass_wanted  # the speed at which the cylinder just fills

    def rates(angle: float, state: np.ndarray) -> list[float]:
        flow = rho * float(np.interp(angle, theta, area)) * v0
        return [flow / crank, float(np.interp(angle, theta, cs)) * flow * v0 * bore / 8 / crank]

    end = solve_ivp(rates, (theta[0], theta[-1]), [0.0, 0.0], rtol=1e-9, max_step=0.01).y[:, -1]
    assert end[0] == pytest.approx(mass_wanted, rel=1e-4)
    solid = end[1] / (end[0] * bore**2 / 8)
    assert swirl.swirl_ratio(theta, cs, area, bore, stroke) == pytest.approx(solid / crank, rel=1e-3)


def test_swirl_errors_and_conversion() -> None:
    with pytest.raises(ValueError, match="rise"):
        swirl.swirl_ratio([0.0, 0.0], [1, 1], [1, 1], 0.1, 0.1)
    with pytest.raises(ValueError, match="never opens"):
        swirl.swirl_ratio([0.0, 1.0], [1, 1], [0, 0], 0.1, 0.1)
    # a free jet's speed goes with sqrt(dp / rho): 1.673 from 10 to 28 inH2O in one air (common practice)
    assert swirl.reference_speed(1000.0, 10.0, 1.225, 28.0) == pytest.approx(1673.3, abs=0.05)
    assert swirl.reference_speed(1000.0, 28.0, 1.0, 28.0) == pytest.approx(1000 * np.sqrt(1 / 1.225), rel=1e-9)


def test_power_ceiling() -> None:
    # common practice, no source: a head of eight ports at 250 CFM and 28 inH2O is called good for "514 horsepower"
    assert from_si(float(engine.horsepower_potential(250 * CFM, DP, 8)), "hp") == pytest.approx(514.0, abs=0.5)
    # the same port by a 10 inH2O bench's 149.4 CFM (28 over 1.6733, printed on every converter's wall)
    low = engine.horsepower_potential(149.4 * CFM, to_si(10, "inH2O"), 8)
    assert from_si(float(low), "hp") == pytest.approx(514.0, abs=0.7)


def test_mach_index_by_filling_a_cylinder() -> None:
    """Taylor, vol. 1, ch. 6: Z is the piston's volume rate over what sound through the mean valve opening passes."""
    bore, stroke, head, ci, a = 0.1, 0.09, 0.05, 0.35, 340.29
    turn = 60 / 6000
    swept = np.pi / 4 * bore**2 * stroke
    per_second = swept / (turn / 2)  # the piston sweeps its stroke in half a turn
    through = ci * np.pi / 4 * head**2 * a
    found = engine.mach_index(bore, stroke, 6000 * RPM, head, ci)
    assert found.z == pytest.approx(per_second / through, rel=1e-4)
    at_limit = engine.mach_index(bore, stroke, float(found.limit_speed), head, ci)
    assert at_limit.z == pytest.approx(0.6, rel=1e-9)
    two = engine.mach_index(bore, stroke, 6000 * RPM, head / np.sqrt(2), ci, 2)
    assert two.z == pytest.approx(float(found.z), rel=1e-4)  # two valves of half the area


def test_choked_demand_is_where_sonic_flux_is() -> None:
    # CoolProp: air expanded from rest at constant entropy carries most mass at sonic speed; over rho0 a0 it is 0.579
    p0, t0 = 101325.0, 288.15
    s0, h0 = (coolprop.PropsSI(x, "P", p0, "T", t0, "Air") for x in ("S", "H"))
    p = np.linspace(0.45, 0.65, 2001) * p0
    flux = [
        coolprop.PropsSI("D", "P", x, "S", s0, "Air")
        * np.sqrt(2 * (h0 - coolprop.PropsSI("H", "P", x, "S", s0, "Air")))
        for x in p
    ]
    rho0, a0 = coolprop.PropsSI("D", "P", p0, "T", t0, "Air"), coolprop.PropsSI("A", "P", p0, "T", t0, "Air")
    assert pytest.approx(max(flux) / (rho0 * a0), rel=2e-3) == engine.CHOKED


def test_piston_demand_against_numbers() -> None:
    # SciPy quad: the mean over the intake stroke is the mean piston speed; NumPy: greatest on a fine grid
    bore, stroke, rod, omega, area = 0.1, 0.088, 0.15, 6000 * RPM, 16e-4
    found = engine.demand_velocity(bore, stroke, rod, omega, area)
    ratio = np.pi / 4 * bore**2 / area
    mean = quad(lambda x: float(engine.piston_speed(x, stroke, rod, omega)), 0, np.pi)[0] / np.pi
    assert found.mean_velocity == pytest.approx(mean * ratio, rel=1e-9)
    grid = engine.piston_speed(np.linspace(0, np.pi, 20001), stroke, rod, omega)
    assert found.peak_velocity == pytest.approx(float(grid.max()) * ratio, rel=1e-7)
    wanted = engine.demand_area(bore, stroke, rod, omega, 0.55)
    assert engine.demand_velocity(bore, stroke, rod, omega, wanted).peak_mach == pytest.approx(0.55)
    with pytest.raises(ValueError, match="rod must be longer"):
        engine.demand_velocity(bore, stroke, 0.04, omega, area)
    with pytest.raises(ValueError, match="Mach limit"):
        engine.demand_area(bore, stroke, rod, omega, 1.0)


def test_piston_position_is_the_integral_of_its_speed() -> None:
    # Geometry: from top to bottom the piston goes one stroke
    gone = quad(lambda x: float(engine.piston_speed(x, 0.088, 0.15, 1.0)), 0, np.pi)[0]
    assert gone == pytest.approx(0.088)


def test_compression_by_hand() -> None:
    # By hand: 500 cc swept, 50 cc over the piston is 11 to 1
    bore = 0.08
    stroke = 500e-6 / (np.pi / 4 * bore**2)
    assert compression.compression_ratio(bore, stroke, 50e-6, bore, 0.0) == pytest.approx(11.0)
    gasket = np.pi / 4 * bore**2 * 0.001
    assert compression.compression_ratio(bore, stroke, 50e-6 - gasket, bore, 0.001) == pytest.approx(11.0)
    assert compression.compression_ratio(bore, stroke, 60e-6, bore, 0.0, 0.0, -10e-6) == pytest.approx(11.0)
    with pytest.raises(ValueError, match="no clearance"):
        compression.compression_ratio(bore, stroke, 5e-6, bore, 0.0, 0.0, -10e-6)


@given(st.floats(20e-6, 100e-6), st.floats(1e-5, 1e-3), st.floats(20e-4, 80e-4))
def test_milling_there_and_back(chamber: float, cut: float, area: float) -> None:
    if chamber - cut * area > 1e-7:
        left = compression.chamber_after_mill(chamber, cut, area)
        assert compression.chamber_mill(chamber, left, area) == pytest.approx(cut, rel=1e-6)


@pytest.mark.parametrize(
    ("angle", "face", "valley"), [(5, 1.10, None), (10, 1.23, 1.72), (15, 1.41, None), (20, 1.67, None)]
)
def test_machine_shop_table(angle: float, face: float, valley: float | None) -> None:
    # Machine-shop table for a 90 degree V (common practice, from memory)
    found = compression.intake_face(1.0, to_si(angle, "deg"))
    assert found.face_cut == pytest.approx(face, abs=0.006)
    if valley is not None:
        assert found.valley_cut == pytest.approx(valley, abs=0.006)
    with pytest.raises(ValueError, match="less than 90"):
        compression.intake_face(1.0, to_si(45, "deg"))

"""Valve, throat and port figures against the trade's own numbers, and geometry's properties."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from ventrix.core.formulas import port, valve
from ventrix.core.quantity.units import from_si, to_si


def inch(value: float) -> float:
    return to_si(value, "in")


def in2(value: object) -> float:
    return from_si(float(value), "in2")  # type: ignore[arg-type]


def test_throat_percent_of_the_trade() -> None:
    # common practice, no source: 1.77 under 2.02 is "88 percent"; 1.77/2.02 = 87.6
    assert 100 * float(valve.throat_ratio(inch(2.02), inch(1.77))) == pytest.approx(87.6, abs=0.05)
    # common practice: 1.77 in throat is 2.46 in2 gross
    assert in2(valve.throat_area(inch(1.77))) == pytest.approx(2.46, abs=0.005)


def test_quarter_diameter() -> None:
    # Geometry: at L/D 0.25 the curtain equals the valve head's own area.
    d = inch(2.02)
    assert valve.curtain_area(d, d / 4) == pytest.approx(float(valve.valve_head_area(d)))
    assert valve.lift_ratio(d / 4, d) == pytest.approx(0.25)


def test_port_sections_of_the_trade() -> None:
    # common practice, no source: 1.12 x 2.01 is 2.25, 1.14 x 2.09 is 2.38 in2
    assert in2(port.section_area(inch(1.12), inch(2.01))) == pytest.approx(2.25, abs=0.005)
    assert in2(port.section_area(inch(1.14), inch(2.09))) == pytest.approx(2.38, abs=0.005)
    # a circle is a square with corners of half its side
    assert port.section_area(0.04, 0.04, 0.02) == pytest.approx(np.pi * 0.02**2)


def test_lengths_walls_and_break_even() -> None:
    # common practice: mean of two wires; (1.29 - 1.14)/2; 300 CFM, 200 to 205 cc is "about 8 more"
    assert port.centreline_length(3.700, 5.640) == pytest.approx(4.670)
    assert port.hole_wall(1.29, 1.14) == pytest.approx(0.075)
    assert port.break_even_flow(300.0, 200.0, 205.0) == pytest.approx(307.5)
    with pytest.raises(ValueError, match="broken through"):
        port.hole_wall(1.0, 1.1)


def test_guide_boss_rule() -> None:
    # common practice (PRACTICE): 5 cc off in a 200 cc port needs about 2.5 % more flow for the same speed
    needed = float(port.break_even_flow(1.0, 200.0, 205.0))
    assert needed - 1 == pytest.approx(0.025)
    before = port.mean_port_velocity(1.0, 200e-6, 0.1)
    assert port.mean_port_velocity(needed, 205e-6, 0.1) == pytest.approx(float(before))


def test_energy_is_half_rho_v_squared() -> None:
    energy = port.port_energy(0.1, 120e-6, 0.1)
    speed = float(port.mean_port_velocity(0.1, 120e-6, 0.1))
    assert energy.density == pytest.approx(0.5 * 1.225 * speed**2)
    assert energy.total == pytest.approx(0.5 * 1.225 * speed**2 * 120e-6)


def least_frustum(valve_diameter: float, face: float, angle: float, lift: float) -> float:
    """The least side of a frustum from the seat's inner edge to the valve's face, looked for point by point.

    Drawn in the plane of the stem: face and seat are one slanted line until the lift parts them.
    """
    outer = valve_diameter / 2
    radius = np.linspace(outer - face * np.cos(angle), outer, 40_001)
    inner = radius[0]
    gap = lift - (radius - inner) * np.tan(angle)
    return float(np.min(np.pi * (inner + radius) * np.hypot(radius - inner, gap)))


@pytest.mark.parametrize("angle", [30.0, 45.0, 60.0])
@pytest.mark.parametrize("lift", [0.3e-3, 0.8e-3, 1.2e-3])
def test_the_first_stage_is_the_least_frustum(angle: float, lift: float) -> None:
    """Heywood's frustum stands square to the seat; the least leans by a hair, and is never the larger one."""
    found = valve.valve_flow_area(40e-3, 3e-3, np.radians(angle), 34e-3, 7e-3, lift)
    assert int(found.stage) == 1
    least = least_frustum(40e-3, 3e-3, np.radians(angle), lift)
    assert least <= float(found.area) * (1 + 1e-9)
    assert least == pytest.approx(float(found.area), rel=2e-3)


def test_the_later_stages() -> None:
    """From edge to edge once the square falls past the face, then the throat less the stem."""
    # Heywood (1988), section 6.3.1 (from memory): stage 2 is the frustum from the seat's inner edge to the valve's rim
    inner, rim = 20.0 - 2 * np.cos(np.pi / 4), 20.0
    slant = np.hypot(rim - inner, 5.0 - (rim - inner))
    steps = np.linspace(0, 1, 20_001)
    radius = inner + (rim - inner) * steps
    cone = np.trapezoid(2 * np.pi * radius, steps * slant)  # the cone's side, strip by strip
    found = valve.valve_flow_area(40e-3, 2e-3, np.pi / 4, 34e-3, 7e-3, 5e-3)
    assert int(found.stage) == 2
    assert float(found.area) * 1e6 == pytest.approx(cone, rel=1e-6)
    last = valve.valve_flow_area(40e-3, 2e-3, np.pi / 4, 34e-3, 7e-3, 14e-3)
    ring = np.trapezoid(2 * np.pi * np.linspace(3.5, 17, 1001), np.linspace(3.5, 17, 1001))
    assert int(last.stage) == 3
    assert float(last.area) * 1e6 == pytest.approx(ring, rel=1e-6)


sizes = st.tuples(
    st.floats(0.02, 0.06),  # valve
    st.floats(0.02, 0.09),  # seat face over valve
    st.floats(0.35, 1.2),  # angle
    st.floats(0.7, 0.97),  # throat over valve
)


@given(sizes, st.floats(1e-4, 0.5))
def test_area_rises_without_a_jump(size: tuple[float, float, float, float], ratio: float) -> None:
    """Continuous and never falling at every stage border."""
    d, face, angle, throat = size
    w = face * d * np.cos(angle)
    assume(d > 2.2 * w)

    def area(lift: float) -> float:
        return float(valve.valve_flow_area(d, face * d, angle, throat * d, 0.1 * d, lift).area)

    border = w / (np.sin(angle) * np.cos(angle))
    assert area(border * (1 - 1e-9)) == pytest.approx(area(border * (1 + 1e-9)), rel=1e-6)
    assert area(ratio * d * 1.01) >= area(ratio * d) * (1 - 1e-12)


@given(sizes)
def test_two_valves_are_twice_one(size: tuple[float, float, float, float]) -> None:
    d, face, angle, throat = size
    one = valve.valve_flow_area(d, face * d, angle, throat * d, 0.1 * d, 0.2 * d, 1)
    two = valve.valve_flow_area(d, face * d, angle, throat * d, 0.1 * d, 0.2 * d, 2)
    assert two.area == pytest.approx(2 * float(one.area))


@pytest.mark.parametrize(
    ("values", "words"),
    [
        ((0.04, 0.03, 0.785, 0.034, 0.007, 0.005), "seat is too wide"),
        ((0.04, 0.002, 1.6, 0.034, 0.007, 0.005), "angle"),
        ((0.04, 0.002, 0.785, 0.034, 0.035, 0.005), "stem must be smaller"),
        ((0.04, 0.002, 0.785, 0.041, 0.007, 0.005), "throat must be smaller"),
        ((0.04, 0.002, 0.785, 0.034, 0.007, -0.001), "negative"),
    ],
)
def test_impossible_valves_are_refused(values: tuple[float, ...], words: str) -> None:
    with pytest.raises(ValueError, match=words):
        valve.valve_flow_area(*values)


def test_seat_limited_throat() -> None:
    """At the throat it gives, the seat's face as drawn is exactly as wide as it was said to be."""
    for width, degrees, margin in ((0.060, 45.0, 0.030), (0.080, 30.0, 0.010), (0.040, 60.0, 0.0)):
        throat = float(valve.seat_throat(2.02, width, np.radians(degrees), margin))
        left = (2.02 - throat) / 2 - margin  # what is left of the valve's radius, across
        rise = left * np.tan(np.radians(degrees))
        assert np.hypot(left, rise) == pytest.approx(width, rel=1e-12)
    # a hand drawing at ten times the size: 2.02 valve, 0.060 at 45 degrees, 0.030 margin leaves 1.875
    assert float(valve.seat_throat(2.02, 0.060, np.pi / 4, 0.030)) == pytest.approx(1.875, abs=5e-4)

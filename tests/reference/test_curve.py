"""Curves and cams against SciPy, against integrals done by hand, and against their definitions."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import assume, given
from hypothesis import strategies as st
from scipy.integrate import quad, simpson
from scipy.interpolate import PchipInterpolator

from ventrix.core.formulas.cam import Cam, TabledCam, cam_mean, cam_note, cam_weighted_flow, cam_weights, flow_integral
from ventrix.core.formulas.flow_curve import FlowCurve, dips, stall_index
from ventrix.core.quantity.units import to_si

LIFT = np.arange(1, 11) * 1e-3
FLOW = np.array([30.0, 60, 88, 113, 134, 151, 164, 173, 178, 180])


def test_interpolation_is_pchip_through_nought() -> None:
    # SciPy's PchipInterpolator (Fritsch and Butland 1984) through (0, 0)
    curve = FlowCurve(LIFT, FLOW)
    reference = PchipInterpolator(np.r_[0, LIFT], np.r_[0, FLOW])
    x = np.linspace(0, 0.010, 57)
    assert curve.at(x) == pytest.approx(reference(x))
    assert curve.slope(x) == pytest.approx(reference.derivative()(x))
    assert curve.area_between(0.002, 0.008) == pytest.approx(float(reference.integrate(0.002, 0.008)))


@given(st.lists(st.floats(1.0, 300.0), min_size=1, max_size=14))
def test_interpolation_agrees_with_scipy_for_any_readings(flows: list[float]) -> None:
    lift, flow = np.cumsum(np.linspace(0.3e-3, 1e-3, len(flows))), np.array(flows)
    curve = FlowCurve(lift, flow)
    reference = PchipInterpolator(np.r_[0, lift], np.r_[0, flow])
    x = np.linspace(0, lift[-1], 40)
    assert curve.at(x) == pytest.approx(reference(x), rel=1e-9, abs=1e-9)
    assert curve.slope(x) == pytest.approx(reference.derivative()(x), rel=1e-6, abs=1e-5)


def test_never_beyond_what_was_tested() -> None:
    curve = FlowCurve(LIFT, FLOW)
    assert curve.at(0.02) == pytest.approx(180.0)
    with pytest.raises(ValueError, match="past the highest"):
        curve.area_between(0.0, 0.011)


@pytest.mark.parametrize("lift", [np.array([]), np.array([0.0, 1e-3]), np.array([2e-3, 1e-3])])
def test_lifts_must_rise(lift: np.ndarray) -> None:
    with pytest.raises(ValueError):
        FlowCurve(lift, np.ones(len(lift)))


def test_duration_is_quoted_at_fifty_thou() -> None:
    # Definition (formula book): the cosine curve passes 0.050 in at half the quoted duration
    cam = Cam(to_si(0.46, "in"), to_si(220, "deg"))
    phi, period = cam.duration / 2, cam.open_period
    lift = cam.peak_lift / 2 * (1 + np.cos(2 * np.pi * phi / period))
    assert lift == pytest.approx(to_si(0.050, "in"))
    with pytest.raises(ValueError, match=r"0\.050"):
        Cam(to_si(0.05, "in"), 3.0)


def test_straight_line_through_a_cam() -> None:
    # Analytic: for Q proportional to lift the mean over a cosine lift curve is half the peak
    curve = FlowCurve(np.array([0.005, 0.010]), np.array([50.0, 100.0]))
    cam = Cam(0.010, 4.0)
    assert cam_weighted_flow(curve, cam) == pytest.approx(50.0, rel=1e-9)
    assert flow_integral(curve, cam) == pytest.approx(50.0 * cam.open_period, rel=1e-9)
    assert cam_weights(curve.lift, curve.flow, cam) @ curve.flow == pytest.approx(50.0, rel=1e-6)


def test_cam_mean_against_quadrature() -> None:
    # SciPy quad over the open period
    curve, cam = FlowCurve(LIFT, FLOW), Cam(0.0095, 3.8)
    half = cam.open_period / 2

    def at(phi: float) -> float:
        return float(curve.at(cam.peak_lift / 2 * (1 + np.cos(np.pi * phi / half))))

    reference = quad(at, -half, half, limit=400)[0] / (2 * half)
    assert cam_weighted_flow(curve, cam) == pytest.approx(reference, rel=1e-6)
    assert cam_note(curve, cam) is None
    assert "higher than was tested" in (cam_note(curve, Cam(0.012, 3.8)) or "")


def test_a_cam_table_says_what_its_formula_says() -> None:
    # The cosine curve written out as a table of one degree steps, shut on both sides
    cam = Cam(0.0095, 3.8)
    angle = np.deg2rad(np.arange(-180, 181.0))
    half = cam.open_period / 2
    lift = np.where(np.abs(angle) < half, cam.peak_lift / 2 * (1 + np.cos(np.pi * angle / half)), 0.0)
    table = TabledCam(angle, lift)
    curve = FlowCurve(LIFT, FLOW)
    assert cam_weighted_flow(curve, table) == pytest.approx(cam_weighted_flow(curve, cam), rel=5e-3)
    assert flow_integral(curve, table) == pytest.approx(flow_integral(curve, cam), rel=1e-4)
    assert table.open_period == pytest.approx(cam.open_period, abs=np.deg2rad(2))
    assert cam_mean(LIFT, FLOW, table) == pytest.approx(cam_weighted_flow(curve, table), rel=1e-12)
    assert TabledCam(angle, lift) == table
    for bad in ((angle[:2], lift[:2]), (angle, -lift), (angle, 0 * lift)):
        with pytest.raises(ValueError, match="cam table"):
            TabledCam(*bad)


@given(st.floats(0.002, 0.02), st.integers(2, 15), st.integers(0, 1000))
def test_weights_are_what_each_reading_moves_the_mean_by(peak: float, n: int, seed: int) -> None:
    """SciPy's PCHIP under SciPy's quadrature, one reading nudged at a time; their sum is the mean itself."""
    lift = np.arange(1, n + 1) * 1e-3
    flow = np.cumsum(np.random.default_rng(seed).uniform(0.5, 3.0, n))
    cam = Cam(peak, 4.0)

    def mean(q: np.ndarray) -> float:
        curve = PchipInterpolator(np.r_[0.0, lift], np.r_[0.0, q])
        phi = np.linspace(0, np.pi, 4001)
        return float(simpson(curve(np.clip(peak / 2 * (1 + np.cos(phi)), 0, lift[-1])), x=phi) / np.pi)

    weights = cam_weights(lift, flow, cam)
    assert weights @ flow == pytest.approx(mean(flow), rel=1e-5)
    assert cam_mean(lift, flow, cam) == pytest.approx(mean(flow), rel=1e-5)
    k = seed % n
    step = np.zeros(n)
    step[k] = 5e-4 * flow[k]
    up, down = mean(flow + step) - mean(flow), mean(flow) - mean(flow - step)
    assume(up == pytest.approx(down, rel=0.02))  # a monotone curve has kinks in its readings: no slope on one
    assert weights[k] * step[k] == pytest.approx((up + down) / 2, rel=0.05, abs=1e-7 * flow[-1])
    assert cam_weights(LIFT, FLOW, None) == pytest.approx(np.full(10, 0.1))


def test_a_tappet_s_duration_is_longer_at_the_valve() -> None:
    # Geometry: 0.050 in at the tappet is 0.075 in at the valve under a ratio of 1.5; the curve passes it there
    cam = Cam(to_si(0.46, "in"), to_si(220, "deg"), to_si(0.075, "in"))
    at = cam.peak_lift / 2 * (1 + np.cos(2 * np.pi * (cam.duration / 2) / cam.open_period))
    assert at == pytest.approx(to_si(0.075, "in"))
    assert cam.open_period > Cam(to_si(0.46, "in"), to_si(220, "deg")).open_period


def test_stall_and_dips() -> None:
    # Definitions of the formula book, cases by hand
    u = np.full(5, 0.5)
    assert stall_index(np.array([50.0, 90, 99, 100, 100.5]), u) == 2
    assert stall_index(np.array([20.0, 40, 60, 80, 100]), u) is None
    assert stall_index(np.array([50.0, 90, 99, 100, 100.5]), np.full(5, 10.0)) == 1
    assert list(dips(np.array([50.0, 90, 80, 100, 99]), np.full(5, 3.0))) == [2]

"""Air against print and against CoolProp."""

from __future__ import annotations

import CoolProp.CoolProp as coolprop
import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from ventrix.core.formulas.atmosphere import air_density, air_range_note, speed_of_sound


def test_cipm_2007_printed_value() -> None:
    # CIPM-2007 (Picard et al., Metrologia 45 (2008) 149-155), value of the formula book:
    # 20 degC, 1013.25 hPa, 50 % gives 1.1993; printed to four decimals.
    assert air_density(293.15, 101325, 0.5) == pytest.approx(1.1993, abs=5e-5)


@settings(max_examples=60, deadline=None)
@given(st.floats(288.15, 300.15), st.floats(60e3, 110e3), st.floats(0, 1))
def test_density_against_coolprop(temperature: float, pressure: float, humidity: float) -> None:
    # CoolProp HAPropsSI: an independent humid-air library; the two agree to a part in ten thousand.
    volume = coolprop.HAPropsSI("Vha", "T", temperature, "P", pressure, "R", humidity)
    assert air_density(temperature, pressure, humidity) == pytest.approx(1 / volume, rel=1e-4)


def test_speed_of_sound_of_the_standard_atmosphere() -> None:
    # ISO 2533:1975: 340.294 m/s at 15 degC; our R is rounded to 287.05, hence the tolerance.
    assert speed_of_sound(288.15) == pytest.approx(340.294, abs=0.01)


def test_range_is_said() -> None:
    assert air_range_note(293.15, 101325) is None
    assert "stated range" in (air_range_note(313.15, 101325) or "")
    assert "stated range" in (air_range_note(293.15, 50000) or "")


@pytest.mark.parametrize(("t", "p", "h"), [(293.15, 0, 0), (293.15, 1e5, 1.01), (293.15, 1e5, -0.1), (20, 1e5, 0)])
def test_impossible_air_is_refused(t: float, p: float, h: float) -> None:
    with pytest.raises(ValueError, match=r"must|cannot"):
        air_density(t, p, h)


def test_vectorised() -> None:
    assert air_density(np.array([288.15, 293.15]), 101325.0).shape == (2,)

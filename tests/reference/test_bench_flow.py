"""Ideal flow, scales and corrections against the trade's numbers and published laws."""

from __future__ import annotations

import CoolProp.CoolProp as coolprop
import numpy as np
import pytest
from fluids.flow_meter import orifice_expansibility
from hypothesis import given
from hypothesis import strategies as st

from ventrix.core.formulas import bench_element
from ventrix.core.formulas import bench_flow as bf
from ventrix.core.quantity.units import CFM, from_si, to_si

DP28 = to_si(28, "inH2O")


def test_ideal_velocity_at_28_inches() -> None:
    # common practice, no source: 28 inH2O is 350 ft/s
    assert from_si(float(bf.ideal_velocity(DP28)), "ft/s") == pytest.approx(350, abs=0.5)


def test_ideal_flux_at_28_inches() -> None:
    # common practice, no source: 146 CFM per square inch; the book prints 145.9
    assert from_si(float(bf.ideal_flux(DP28, "incompressible", density=1.225)), "cfm/in2") == pytest.approx(
        145.9, abs=0.05
    )
    # formula book: isentropic 140.4
    assert from_si(float(bf.ideal_flux(DP28)), "cfm/in2") == pytest.approx(140.4, abs=0.05)


def test_isentropic_flux_against_enthalpy_drop() -> None:
    # CoolProp: expand real air at constant entropy and take rho v from the enthalpy drop.
    p0, t0 = 101325.0, 288.15
    s = coolprop.PropsSI("S", "P", p0, "T", t0, "Air")
    h0 = coolprop.PropsSI("H", "P", p0, "T", t0, "Air")
    p1 = p0 - DP28
    speed = np.sqrt(2 * (h0 - coolprop.PropsSI("H", "P", p1, "S", s, "Air")))
    flux = coolprop.PropsSI("D", "P", p1, "S", s, "Air") * speed
    assert bf.isentropic_mass_flux(DP28, p0, t0) == pytest.approx(flux, rel=1e-3)  # ideal against real gas


def test_choked_flux() -> None:
    # Anderson, Modern Compressible Flow: m = p0/sqrt(T0) sqrt(gamma/R (2/(gamma+1))^((gamma+1)/(gamma-1))), from memory
    printed = 101325 / np.sqrt(288.15) * np.sqrt(1.4 / 287.05 * (2 / 2.4) ** 6)
    assert bf.isentropic_mass_flux(60_000) == pytest.approx(printed, rel=1e-12)
    assert bf.isentropic_mass_flux(90_000) == pytest.approx(printed, rel=1e-12)


@pytest.mark.parametrize(("start", "factor"), [(10, 1.6733), (25, 1.0583)])
def test_conversion_factors(start: float, factor: float) -> None:
    # common practice: printed on every converter's wall
    assert bf.convert_pressure(1.0, to_si(start, "inH2O"), DP28) == pytest.approx(factor, abs=5e-5)


@pytest.mark.parametrize(
    ("start", "nozzle", "plate", "ratio", "doubt"),
    [(10, 1.6321, 1.6544, 1.6432, 0.0065), (20, None, None, 1.1736, None)],
)
def test_conversion_between_nozzle_and_plate(start, nozzle, plate, ratio, doubt) -> None:  # type: ignore[no-untyped-def]
    # formula book's own printed digits
    first = to_si(start, "inH2O")
    assert bf.conversion_ratio(first, DP28) == pytest.approx(ratio, abs=5e-5)
    if nozzle is not None:
        assert bf.isentropic_mass_flux(DP28) / bf.isentropic_mass_flux(first) == pytest.approx(nozzle, abs=5e-5)
        assert float(bf.conversion_ratio(first, DP28)) ** 2 / nozzle == pytest.approx(plate, abs=2e-4)
        assert bf.conversion_uncertainty(first, DP28) == pytest.approx(doubt, abs=5e-5)
    assert bf.conversion_note(first, DP28)


def test_a_port_lies_between_real_gas_s_nozzle_and_iso_s_plate() -> None:
    """CoolProp's nozzle and the package fluids' expansibility of a plate bound what is converted."""
    p0, t0 = 101325.0, 288.15
    s = coolprop.PropsSI("S", "P", p0, "T", t0, "Air")
    h0 = coolprop.PropsSI("H", "P", p0, "T", t0, "Air")

    def nozzle(dp: float) -> float:
        speed = np.sqrt(2 * (h0 - coolprop.PropsSI("H", "P", p0 - dp, "S", s, "Air")))
        return float(coolprop.PropsSI("D", "P", p0 - dp, "S", s, "Air") * speed)

    def plate(dp: float) -> float:
        # ISO 5167-2:2003, via fluids, at a vanishing diameter ratio
        return float(orifice_expansibility(D=10.0, Do=0.01, P1=p0, P2=p0 - dp, k=1.4) * np.sqrt(dp))

    for start in (10, 15, 20, 25):
        first = to_si(start, "inH2O")
        ends = sorted((nozzle(DP28) / nozzle(first), plate(DP28) / plate(first)))
        found = float(bf.conversion_ratio(first, DP28))
        assert ends[0] < found < ends[1]
        assert found == pytest.approx(np.sqrt(ends[0] * ends[1]), rel=2e-4)


def test_small_changes_of_pressure_cost_no_doubt() -> None:
    assert bf.conversion_uncertainty(to_si(27.5, "inH2O"), DP28) == 0
    assert bf.conversion_note(to_si(27.5, "inH2O"), DP28) is None


def test_leak_is_scaled_and_taken_off() -> None:
    # common practice: 1 CFM at 28 is 0.598 at 10 inH2O, sqrt(10/28) = 0.5976
    off = bench_element.leak_correct(100 * CFM, 1 * CFM, to_si(10, "inH2O"), DP28)
    assert from_si(float(off), "cfm") == pytest.approx(100 - 0.5976, abs=1e-4)
    with pytest.raises(ValueError, match="not smaller"):
        bench_element.leak_correct(1.0, 1.0, DP28, DP28)
    assert bench_element.leak_notes(10.0, 0.3, DP28, DP28)
    assert not bench_element.leak_notes(100.0, 0.3, DP28, DP28)
    assert any("times off" in n for n in bench_element.leak_notes(100.0, 0.3, DP28, DP28 / 4))


def test_element_correction_at_reference_is_nothing() -> None:
    assert bench_element.element_correction(1.0, 1.225, 1.225, 1.225) == pytest.approx(1.0)
    # A scale for 0.075 lb/ft3 in its own air, referred to 1.225: sqrt(1.2014/1.225) (orifice law)
    assert bench_element.element_correction(1.0, 1.2014, 1.2014, 1.2014) == pytest.approx(np.sqrt(1.2014 / 1.225))
    assert bench_element.mass_flow_correction(1.225, 1.225) == pytest.approx(1.0)


def test_water_columns_give_a_ratio() -> None:
    assert bench_element.flow_index(40.0, 160.0) == pytest.approx(0.5)
    with pytest.raises(ValueError, match="above zero"):
        bench_element.flow_index(40.0, 0.0)


@given(st.floats(1, 1e4), st.floats(1, 1e4), st.floats(1, 1e4))
def test_conversions_chain(a: float, b: float, c: float) -> None:
    for convert in (bf.convert_pressure, bf.convert_flow):
        assert convert(convert(1.0, a, b), b, c) == pytest.approx(float(convert(1.0, a, c)), rel=1e-12)

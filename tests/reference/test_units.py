"""Unit factors against NIST SP 811 and pint; parsing of what people type."""

from __future__ import annotations

import pint
import pytest
from hypothesis import given
from hypothesis import strategies as st

from ventrix.core.quantity.units import UNITS, from_si, parse_quantity, to_si

REGISTRY = pint.UnitRegistry()
PINT = {
    "in": "inch",
    "thou": "thou",
    "in2": "inch**2",
    "in3": "inch**3",
    "cc": "cm**3",
    "L": "liter",
    "cfm": "foot**3/minute",
    "l/s": "liter/second",
    "psi": "psi",
    "bar": "bar",
    "lbf.ft": "force_pound*foot",
    "hp": "horsepower",
    "ft/s": "foot/second",
    "deg": "degree",
    "rpm": "revolution/minute",
}


@pytest.mark.parametrize(
    ("text", "inches"),
    [
        ("0.030+0.020+0.005", 0.055),  # common practice, no source: a stack of gasket, deck and face
        ("0.030 + 0.508mm + 5 thou", 0.055),
        ("1 1/2 + 1/4", 1.75),
        ("+2", 2.0),
        ("1e+1", 10.0),
    ],
)
def test_a_stack_is_added_up(text: str, inches: float) -> None:
    assert parse_quantity(text, "in") == pytest.approx(inches * 0.0254, rel=1e-12)


@pytest.mark.parametrize(("text", "unit"), [("1+", "in"), ("1 + x", "in"), ("20+5", "degC")])
def test_what_is_no_stack_is_refused(text: str, unit: str) -> None:
    with pytest.raises(ValueError, match=r"is not a number|is missing|not a unit|no unit|unknown unit"):
        parse_quantity(text, unit)


@pytest.mark.parametrize("symbol", sorted(PINT))
def test_factors_against_pint(symbol: str) -> None:
    # pint, a unit library of its own; exact definitions, so to floating point
    assert UNITS[symbol].factor == pytest.approx(REGISTRY(PINT[symbol]).to_base_units().magnitude, rel=1e-9)


@pytest.mark.parametrize(
    ("symbol", "pascal"),
    [("inH2O", 249.08891), ("inHg", 3386.389), ("mmHg", 133.3224), ("psi", 6894.757)],
)
def test_pressures_of_nist_sp_811(symbol: str, pascal: float) -> None:
    # NIST SP 811 (2008), app. B.8: conventional inch of water 2.490 889 E+02 and the like, printed to 7 digits
    assert to_si(1, symbol) == pytest.approx(pascal, rel=2e-7)


def test_cfm_of_the_formula_book() -> None:
    assert to_si(1, "cfm") == pytest.approx(4.719474e-4, rel=1e-7)  # NIST SP 811, app. B.8


@given(st.sampled_from(sorted(UNITS)), st.floats(-1e6, 1e6))
def test_round_trip(symbol: str, value: float) -> None:
    assert from_si(to_si(value, symbol), symbol) == pytest.approx(value, rel=1e-12, abs=1e-6)


@pytest.mark.parametrize(
    ("text", "unit", "si"),
    [
        ("1.77in", "mm", 1.77 * 0.0254),
        ("45 mm", "in", 0.045),
        ("1 29/64", "in", (1 + 29 / 64) * 0.0254),
        ("29/64 in", "mm", 29 / 64 * 0.0254),
        ('2.02"', "mm", 2.02 * 0.0254),
        ("28inH2O", "Pa", 28 * 249.08891),
        ("50%", "%", 0.5),
        ("20degC", "degC", 293.15),
        ("68degF", "degC", 293.15),
        ("-5", "degC", 268.15),
        ("1,5", "mm", 0.0015),
        ("255CFM", "cfm", 255 * 4.719474432e-4),
        (".5", "in", 0.0127),
        ("1e-3m", "mm", 0.001),
    ],
)
def test_what_people_type(text: str, unit: str, si: float) -> None:
    assert parse_quantity(text, unit) == pytest.approx(si, rel=1e-9)


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("", "missing"),
        ("abc", "not a number"),
        ("nan", "not a number"),
        ("inf", "not a number"),
        ("1e999", "too large"),
        ("5 furlongs", "no unit 'furlongs'"),
        ("5 cfm", "a length is needed"),
        ("1/0", "zero"),
        ("--5", "not a number"),
        ("5 5", "no unit"),
    ],
)
def test_what_is_refused(text: str, words: str) -> None:
    with pytest.raises(ValueError, match=words):
        parse_quantity(text, "mm")

"""The one unit table, and the only place that turns text into SI numbers and back.

Inside ``core`` every number is SI. Whatever a person types or reads passes through
`parse_quantity`, `to_si` or `from_si`. Factors are exact by definition unless a source is named.
"""

from __future__ import annotations

import math
import re
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ventrix.core.quantity.refused import Refused

INCH = 0.0254  # m, exact (international inch, 1959)

FOOT = 12 * INCH

INCH_OF_WATER = 249.08891  # Pa, conventional inch of water [NIST SP 811, app. B.8]

INCH_OF_MERCURY = 3386.389  # Pa, conventional [NIST SP 811, app. B.8]

POUND_FORCE = 4.4482216152605  # N, exact

HORSEPOWER = 550 * FOOT * POUND_FORCE  # W, mechanical: 550 ft.lbf/s = 745.70 W

CFM = FOOT**3 / 60  # m3/s


LONGEST_NUMBER = 200  # characters of a figure as it is typed


@dataclass(frozen=True, slots=True)
class Unit:
    """One unit: SI value = number * factor + offset."""

    symbol: str
    dimension: str
    factor: float
    offset: float = 0.0


def _table(*rows: tuple[str, str, float] | tuple[str, str, float, float]) -> dict[str, Unit]:
    return {row[0]: Unit(*row) for row in rows}


UNITS: dict[str, Unit] = _table(
    ("m", "length", 1.0),
    ("cm", "length", 1e-2),
    ("mm", "length", 1e-3),
    ("in", "length", INCH),
    ("thou", "length", INCH / 1000),
    ("ft", "length", FOOT),
    ("m2", "area", 1.0),
    ("cm2", "area", 1e-4),
    ("mm2", "area", 1e-6),
    ("in2", "area", INCH**2),
    ("m3", "volume", 1.0),
    ("L", "volume", 1e-3),
    ("cc", "volume", 1e-6),
    ("ml", "volume", 1e-6),
    ("in3", "volume", INCH**3),
    ("m3/s", "flow", 1.0),
    ("m3/h", "flow", 1 / 3600),
    ("l/s", "flow", 1e-3),
    ("cfm", "flow", CFM),
    ("kg/s", "mass flow", 1.0),
    ("cfm/in2", "flow per area", CFM / INCH**2),
    ("mm2.deg", "area over crank angle", 1e-6 * math.pi / 180),
    ("cfm.deg", "flow over crank angle", CFM * math.pi / 180),
    ("Pa", "pressure", 1.0),
    ("hPa", "pressure", 100.0),
    ("kPa", "pressure", 1000.0),
    ("mbar", "pressure", 100.0),
    ("bar", "pressure", 1e5),
    ("psi", "pressure", POUND_FORCE / INCH**2),
    ("inH2O", "pressure", INCH_OF_WATER),
    ("mmH2O", "pressure", INCH_OF_WATER / 25.4),
    ("inHg", "pressure", INCH_OF_MERCURY),
    ("mmHg", "pressure", 133.3224),  # conventional [NIST SP 811, app. B.8]
    ("K", "temperature", 1.0),
    ("degC", "temperature", 1.0, 273.15),
    ("degF", "temperature", 5 / 9, 459.67 * 5 / 9),
    ("m/s", "speed", 1.0),
    ("ft/s", "speed", FOOT),
    ("km/h", "speed", 1 / 3.6),
    ("mph", "speed", 5280 * FOOT / 3600),
    ("rpm", "rotation", 2 * math.pi / 60),
    ("rad", "angle", 1.0),
    ("deg", "angle", math.pi / 180),
    ("%", "ratio", 0.01),
    ("-", "ratio", 1.0),
    ("kg/m3", "density", 1.0),
    ("J", "energy", 1.0),
    ("J/m3", "energy density", 1.0),
    ("N", "force", 1.0),
    ("lbf", "force", POUND_FORCE),
    ("N.m", "torque", 1.0),
    ("lbf.ft", "torque", POUND_FORCE * FOOT),
    ("W", "power", 1.0),
    ("kW", "power", 1000.0),
    ("hp", "power", HORSEPOWER),
    ("g", "mass", 1e-3),
    ("kg", "mass", 1.0),
    ("min", "time", 60.0),
    ("s", "time", 1.0),
    ("h", "time", 3600.0),
    ("L/100km", "fuel over distance", 1e-8),
)

# Other ways people write the same unit; matched without regard to case.
_ALIASES = {
    '"': "in",
    "inch": "in",
    "inches": "in",
    "in²": "in2",
    "sqin": "in2",
    "mm²": "mm2",
    "cm²": "cm2",
    "m²": "m2",
    "cm3": "cc",
    "ccm": "cc",
    "l": "L",
    "°": "deg",
    "°c": "degC",
    "°f": "degF",
    "c": "degC",
    "f": "degF",
    "inwc": "inH2O",
    '"h2o': "inH2O",
    "percent": "%",
    "nm": "N.m",
    "kg/m³": "kg/m3",
    "m³/h": "m3/h",
    "m³/s": "m3/s",
    "l/s": "l/s",
}

_BY_LOWER = {symbol.lower(): symbol for symbol in UNITS} | _ALIASES

_NUMBER = re.compile(
    r"""^\s*(?P<sign>[+-]?)\s*
    (?:(?:(?P<whole>\d+)[\s-]+)?(?P<top>\d+)\s*/\s*(?P<bottom>\d+)   # 29/64 or 1 29/64
       |(?P<decimal>(?:\d+(?:\.\d*)?|\.\d+)(?:[eE][+-]?\d+)?))
    \s*(?P<unit>.*?)\s*$""",
    re.VERBOSE,
)

_PLUS = re.compile(r"(?<=[^\s+eE])\s*\+")  # between two numbers, never the sign of one or of its exponent


def unit(symbol: str) -> Unit:
    """The unit of that symbol.

    Raises
    ------
    ValueError
        If no such unit exists.
    """
    found = UNITS.get(symbol) or UNITS.get(_BY_LOWER.get(symbol.strip().lower(), ""))
    if found is None:
        raise Refused("there is no unit '{}'", symbol)
    return found


def units_of(dimension: str) -> list[str]:
    """Symbols of every unit of a dimension, in table order."""
    return [u.symbol for u in UNITS.values() if u.dimension == dimension]


def to_si(value: float, symbol: str) -> float:
    """`value` in the unit `symbol`, as SI (temperatures become kelvin)."""
    found = unit(symbol)
    return value * found.factor + found.offset


def from_si(value: float, symbol: str) -> float:
    """An SI value in the unit `symbol`."""
    found = unit(symbol)
    return (value - found.offset) / found.factor


def from_si_array(values: NDArray[np.float64], symbol: str) -> NDArray[np.float64]:
    """SI values in the unit `symbol`, any shape."""
    found = unit(symbol)
    return np.asarray((values - found.offset) / found.factor)


def tidy(value: float) -> float:
    """`value` to 15 significant digits: what survives a trip through another unit to the last bit."""
    return float(f"{value:.15g}")


def quoted(text: str) -> str:
    """What somebody typed, fit for a sentence: between quotation marks, on one line, cut where it does not end."""
    shown = "".join(c if c.isprintable() else "?" for c in text.strip())
    return f"'{shown if len(shown) <= 40 else shown[:39] + '…'}'"


def parse_quantity(text: str, default_unit: str) -> float:
    """Read what a person typed, and return SI.

    Parameters
    ----------
    text : str
        A number with or without a unit: ``"1.77"``, ``"45mm"``, ``"1 29/64 in"``, ``"50%"``; or a stack of them,
        ``"0.030+0.020+0.005"``, which is added up.
        A decimal comma is read as a point where the text holds no other one.
    default_unit : str
        The unit of a bare number; also fixes which dimension is accepted.

    Raises
    ------
    ValueError
        With a sentence: not a number, not finite, unknown unit, or a unit of something else.
    """
    if len(text) > LONGEST_NUMBER:
        raise Refused("a number of {} characters is not a measurement", len(text))
    cleaned = text.replace("−", "-")
    if cleaned.count(",") == 1 and "." not in cleaned:
        cleaned = cleaned.replace(",", ".")
    terms = _PLUS.split(cleaned)
    if len(terms) > 1 and unit(default_unit).offset == 0:  # temperatures do not add up
        return tidy(sum(parse_quantity(term, default_unit) for term in terms))
    match = _NUMBER.match(cleaned)
    if not cleaned.strip():
        raise Refused("a number is missing")
    if match is None:
        raise Refused("{} is not a number", quoted(text))
    if match["decimal"] is not None:
        number = float(match["decimal"])
    else:
        try:
            number = int(match["whole"] or 0) + int(match["top"]) / int(match["bottom"])
        except ZeroDivisionError:
            raise Refused("{} divides by zero", quoted(text)) from None
        except (OverflowError, ValueError):  # Python reads no whole number of more than 4,300 digits
            raise Refused("{} is too large", quoted(text)) from None
    if match["sign"] == "-":
        number = -number
    wanted = unit(default_unit)
    given = unit(match["unit"]) if match["unit"] else wanted
    if given.dimension != wanted.dimension:
        raise Refused("'{}' is a {}, and a {} is needed here", given.symbol, given.dimension, wanted.dimension)
    value = number * given.factor + given.offset
    if not math.isfinite(value):
        raise Refused("{} is too large", quoted(text))
    return tidy(value)


def unit_typed(text: str) -> str:
    """The unit that a figure was typed with, by its symbol in the table; empty where none was."""
    match = _NUMBER.match(text.replace(",", "."))
    return unit(match["unit"]).symbol if match is not None and match["unit"] else ""


def parse_number(text: str) -> float:
    """Read a plain finite number without a unit; a sentence if it isn't one."""
    return parse_quantity(text, "-")

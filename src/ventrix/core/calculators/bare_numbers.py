"""A bare number far outside what the trade ever measures, and inside it in another unit: asked about, never taken."""

from __future__ import annotations

import re
from typing import Final

from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import parse_quantity, to_si, unit, units_of

# What inputs of a name usually are, least and greatest, with the unit these stand in (common practice, no source).
_SMALL: Final = (0.4, 6.0, "mm")
_ACROSS: Final = (8.0, 120.0, "mm")
_ALONG: Final = (30.0, 500.0, "mm")
_COLUMN: Final = (0.5, 120.0, "inH2O")
USUAL: Final = {
    "bore": (40.0, 200.0, "mm"),
    "gasket_bore": (40.0, 210.0, "mm"),
    "stroke": (30.0, 250.0, "mm"),
    "rod_length": (70.0, 400.0, "mm"),
    "valve_diameter": (14.0, 90.0, "mm"),
    "throat_diameter": (12.0, 85.0, "mm"),
    "stem_diameter": (4.0, 14.0, "mm"),
    "seat_width": _SMALL,
    "lift": (0.2, 30.0, "mm"),
    "peak_lift": (3.0, 30.0, "mm"),
    "floor_length": _ALONG,
    "roof_length": _ALONG,
    "width": _ACROSS,
    "height": _ACROSS,
    "hole_spacing": _ACROSS,
    "port_width": _ACROSS,
    "test_pressure": _COLUMN,
    "measured_at": _COLUMN,
    "wanted_at": _COLUMN,
    "leak_pressure": _COLUMN,
}
_LIKELY: Final = ("in", "mm", "thou", "cm", "inH2O", "mmH2O", "Pa", "kPa", "hPa")  # in the order they are asked about
_CALLED: Final = {"in": "inches", "thou": "thousandths"}


def ask_unit(name: str, default_unit: str, text: str) -> None:
    """Refuse a bare number of an input that only makes sense in another unit, naming both.

    Parameters
    ----------
    name, default_unit : str
        The input, and the unit that a bare number is taken in.
    text : str
        As typed.

    Raises
    ------
    Refused
        "4.36 was taken as mm, …: inches?"

    References
    ----------
    Ranges: common practice, no source.
    """
    usual = USUAL.get(name)
    if usual is None or re.search(r"[a-zA-Z\"°%]", re.sub(r"(?<=\d)[eE](?=[+-]?\d)", "", text)):
        return
    low, high, symbol = usual
    if unit(symbol).dimension != unit(default_unit).dimension:
        return
    least, most = to_si(low, symbol), to_si(high, symbol)
    value = parse_quantity(text, default_unit)
    if value <= 0 or least <= value <= most:
        return
    others = [u for u in _LIKELY if u != default_unit and u in units_of(unit(default_unit).dimension)]
    for other in others:
        if least <= parse_quantity(text, other) <= most:
            raise Refused(
                "{} was taken as {}, and it lies between {:g} and {:g} {} as a rule: {}? Then type {}{}",
                text.strip(),
                default_unit,
                low,
                high,
                symbol,
                _CALLED.get(other, other),
                text.strip(),
                other,
            )

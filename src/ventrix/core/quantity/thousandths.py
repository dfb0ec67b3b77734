"""Small sizes as the trade types them: "three hundred" is 0.300 in. One rule for lifts, depths, walls and limits."""

from __future__ import annotations

import re
from typing import Final, NamedTuple

from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import from_si, parse_quantity, to_si

LEAST: Final = 5  # a small size of five inches is none: whole numbers from here on are thousandths
MOST_MM: Final = 50  # nor is one of more millimetres


class Small(NamedTuple):
    """A small size [m], and whether it was read as thousandths of an inch."""

    value: float
    as_thousandths: bool = False


def read_small(text: str, unit: str) -> Small:
    """A lift, depth, wall or limit as it was typed.

    Parameters
    ----------
    text : str
        With a unit or without.
    unit : str
        Of a bare number: that of the shop.

    Returns
    -------
    Small
        A bare whole number from five up is thousandths in a shop of inches.

    Raises
    ------
    Refused
        As `parse_quantity`; and a bare whole number over 50 in a metric shop, which may be meant as thousandths.

    References
    ----------
    Common practice, no source.
    """
    value = parse_quantity(text, unit)
    if not re.fullmatch(r"\s*\d+\s*", text):
        return Small(value)
    if unit == "in" and from_si(value, "in") >= LEAST:
        return Small(to_si(float(text), "thou"), True)
    if unit == "mm" and from_si(value, "mm") > MOST_MM:
        raise Refused("{} mm, or thousandths? Type {}mm or {}thou", *([text.strip()] * 3))
    return Small(value)

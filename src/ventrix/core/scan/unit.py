"""In what unit a scan was made: by its size, and always confirmed by one size that is known."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Final

from ventrix.core.model.kept_words import KnownSizeName
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.said import Said, millimetres
from ventrix.core.quantity.units import from_si, parse_quantity
from ventrix.core.scan.measure import Measured
from ventrix.words import tr

# By unit: mm of one, and between which sizes [in it] a port's largest extent lies.
UNITS: Final = {"mm": (1.0, 40.0, 400.0), "in": (25.4, 1.5, 16.0), "m": (1000.0, 0.04, 0.4)}
CENTIMETRE: Final = 10.0
LEAST_STRETCH: Final = 5.0  # mm that two scans can be laid on each other by
AGREES: Final = 0.03  # of the known size
SIZES: Final[dict[str, Callable[[Measured], float | None]]] = {
    KnownSizeName.THROAT: lambda m: _pick(m, "throat", "diameter"),
    KnownSizeName.BOWL: lambda m: _pick(m, "bowl", "diameter"),
    KnownSizeName.OPENING_WIDTH: lambda m: _pick(m, "opening", "width"),
    KnownSizeName.OPENING_HEIGHT: lambda m: _pick(m, "opening", "height"),
    KnownSizeName.PINCH_WIDTH: lambda m: _pick(m, "pinch", "width"),
    KnownSizeName.PINCH_HEIGHT: lambda m: _pick(m, "pinch", "height"),
    KnownSizeName.LENGTH: lambda m: m.length,
    KnownSizeName.FLOOR: lambda m: m.floor,
    KnownSizeName.ROOF: lambda m: m.roof,
}


@dataclass(frozen=True, slots=True)
class KnownSize:
    """A size of the port that was measured by hand [m]: one of `SIZES`."""

    name: str
    size: float


def stretch_typed(text: str, bare: str = "mm") -> tuple[float, float]:
    """A stretch along the port as it is typed [mm]: "64-98mm", "64 mm - 98 mm", "2.5-3.9in"; bare figures in a unit.

    Raises
    ------
    ValueError
        With a sentence: no two distances, or less than 5 mm of them.
    """
    first, dash, last = text.replace("–", "-").partition("-")
    unit = last.strip().lstrip("0123456789.,/ ")
    if not dash or not first.strip() or not last.strip():
        raise Refused("a stretch is two distances from the opening, as 64-98mm")
    both = (f"{first.strip()}{unit}" if first.strip()[-1].isdigit() else first, last)
    low, high = (from_si(parse_quantity(each, bare), "mm") for each in both)
    if not 0 <= low <= high - LEAST_STRETCH or high > 1000:
        raise Refused("the stretch left alone is at least 5 mm long")
    return low, high


def _pick(found: Measured, name: str, size: str) -> float | None:
    pick = found.picks.get(name)
    value = None if pick is None else getattr(pick, size)
    return None if value is None else float(value)


def units_by_size(extent: float) -> list[str]:
    """Units in which a largest extent is a port's."""
    return [unit for unit, (_, low, high) in UNITS.items() if low <= extent <= high]


def measured_in_its_unit(
    extent: float, unit: str | None, known: KnownSize | None, make: Callable[[float], Measured]
) -> tuple[str, Measured, tuple[str, ...]]:
    """Measure a scan in its unit.

    Parameters
    ----------
    extent : float
        Largest extent, in the file's unit.
    unit : str, optional
        As it was said to be; believed, and noted, where nothing confirms it.
    known : KnownSize, optional
        What the unit is confirmed by.
    make : callable
        Measures with so many mm to the file's unit.

    Returns
    -------
    unit : str
    found : Measured
    notes : tuple of str

    Raises
    ------
    ValueError
        Neither was given; no unit makes the size what it is known to be; or the scan cannot be measured.
    """
    if unit is None and known is None:
        raise Refused("Say the unit, or one size that you know: a throat, a length.")
    tried = [unit] if unit is not None else units_by_size(extent)
    if not tried:
        raise Refused("It is {:.4g} across: in no unit a port.", extent)
    if known is None:
        assert unit is not None
        scale, low, high = UNITS[unit]
        across = millimetres(extent * scale, 0)
        odd = () if low <= extent <= high else (Said("It is {} across: is the unit right?", across),)
        return unit, make(scale), (tr("The unit ({}) was said, and nothing confirms it.", unit), *odd)
    refused: Refused | None = None
    for each in tried:
        try:
            found = make(UNITS[each][0])
        except Refused as error:
            refused = refused or error
            continue
        size = _size(found, known)
        wanted = from_si(known.size, "mm")
        if abs(size / wanted - 1) <= AGREES:
            off = f"{100 * (size / wanted - 1):+.1f}"
            note = Said("The {} measures {}, {} % of what is known.", known.name, millimetres(size), off)
            return each, found, (note,)
        here, there = millimetres(size, 1), millimetres(wanted, 1)
        refused = Refused("The {} measures {} with the file in {}, not {}.", known.name, here, each, there)
    if _in_centimetres(extent, known, make):
        raise Refused("The file is in centimeters: write it in mm, in or m.")
    assert refused is not None
    raise refused


def _size(found: Measured, known: KnownSize) -> float:
    size = SIZES[known.name](found)
    if size is None:
        raise Refused("The {} was not found on the scan: give another size.", known.name)
    return size


def _in_centimetres(extent: float, known: KnownSize, make: Callable[[float], Measured]) -> bool:
    """Centimetres pass for inches by their size; none of the units that are read makes the known one of them."""
    if not UNITS["mm"][1] <= extent * CENTIMETRE <= UNITS["mm"][2]:
        return False
    try:
        return abs(_size(make(CENTIMETRE), known) / from_si(known.size, "mm") - 1) <= AGREES
    except Refused:
        return False

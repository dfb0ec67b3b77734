"""What an engine a head suits, as captions and figures."""

from __future__ import annotations

from ventrix.core.engine.suits import Suits
from ventrix.core.quantity.units import from_si
from ventrix.rooms.display_units import Units
from ventrix.words import tr


def suits_rows(found: Suits, units: Units) -> tuple[tuple[str, str], ...]:
    """Displacement, speeds, air, the lift that pays and power; what is not known is left out."""
    rows = [
        (tr("Displacement"), _between(found.displacement, "cc")),
        (tr("Speeds"), _between(found.speeds, "rpm")),
        (tr("Air the engine draws"), units.flow.with_unit(found.air)),
    ]
    if found.lift_pays is not None:
        rows.append((tr("Lift pays up to"), units.lift.with_unit(found.lift_pays)))
    if found.power is not None:
        rows.append((tr("Power"), _between(found.power, units.power.unit)))
    return tuple(rows)


def _between(values: tuple[float, float], unit: str) -> str:
    """Two figures with three digits that count: the rest is nobody's to promise."""
    low, high = (float(f"{from_si(v, unit):.3g}") for v in values)
    return tr("{:.0f} to {:.0f} {}", low, high, unit)

"""What is said of a port on its engine, in sentences: for the room, the sheet, the command."""

from __future__ import annotations

from ventrix.core.engine.of_job import OnTheEngine, RevLimit
from ventrix.core.quantity.units import from_si, from_si_array
from ventrix.words import tr


def engine_sentence(found: OnTheEngine) -> str:
    """What the change of flow is worth, at the bottom and the top of the speed range."""
    rpm = from_si_array(found.speeds, "rpm")
    parts = []
    for i in (0, -1):
        low, high = 100 * found.difference_low[i], 100 * found.difference_high[i]
        proven = low > 0 or high < 0
        said = f"{100 * found.difference[i]:+z.1f} %" if proven else tr("no more than its uncertainty")
        parts.append(tr("{} at {:,.0f}", said, rpm[i]))
    return tr("{}: VE {} rpm. One cylinder, no waves in pipes.", what_changed(found), ", ".join(parts))


def what_changed(found: RevLimit) -> str:
    """What the two sides differ in."""
    if found.other_cam:
        return tr("Cut {} with the other cam", found.after.number)
    return tr("Cut {} to {}", found.before.number, found.after.number)


def lift_sentences(found: RevLimit, unit: str = "in") -> list[str]:
    """What lift beyond the port's own end buys, and what was never tested."""
    digits = 3 if unit == "in" else 2
    said = []
    if found.stops_at is not None:
        at = f"{from_si(found.stops_at, unit):.{digits}f} {unit}"
        said.append(tr("Flow stops at {}: lift beyond buys nothing on this port, unless for the valve train.", at))
    if found.untested_from is not None:
        at = f"{from_si(found.untested_from, unit):.{digits}f} {unit}"
        said.append(tr("The cam lifts past {}, the highest tested: flow beyond is taken as there.", at))
    return said


def blow_down_sentence(found: OnTheEngine, unit: str = "in") -> str:
    """What blow-down leaves at bottom dead centre, and through which lifts it goes."""
    left = tr("{:.0f} to {:.0f} %", 100 * found.left_at_bottom[0], 100 * found.left_at_bottom[-1])
    said = tr("Blow-down leaves {} of the charge at bottom dead center", left)
    if found.low_share is not None and found.low_lift is not None:
        at = f"{from_si(found.low_lift, unit):.{3 if unit == 'in' else 2}f} {unit}"
        said += tr("; {:.0f} % of the area it goes through lies under {}", 100 * found.low_share, at)
    return f"{said}. The engine blows down past a ratio of 0.53 (choked), the bench reads at 0.93."

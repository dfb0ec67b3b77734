"""The sheet's scans: sections along the port before and after, and the metal taken."""

from __future__ import annotations

from ventrix.core.edits.cuts import BY_SCAN
from ventrix.core.model.cut import Cut, Port
from ventrix.core.quantity.units import from_si
from ventrix.reports.sheet.contents import Curve, ScanPart
from ventrix.rooms.cuts.scan_words import found_lines
from ventrix.rooms.display_units import Units


def scan_part(port: Port, before: Cut, after: Cut, units: Units) -> ScanPart | None:
    """Sections by scan of both cuts, and what each cut since the first took off; None without a scan."""
    curves = {f"cut {cut.number}": _sections(cut, units) for cut in (before, after)}
    lines = tuple(
        f"Metal taken at cut {cut.number}, by scan: {'; '.join(lines)}."
        for cut in port.cuts
        if (before.number < cut.number <= after.number or cut is after) and (lines := found_lines(cut, units))
    )
    drawn = {name: curve for name, curve in curves.items() if curve is not None}
    if not drawn and not lines:
        return None
    caption = f"Section along {port.name}, {units.area.label}, over {units.length.label} from the opening"
    return ScanPart(port.kind, caption, drawn, lines)


def _sections(cut: Cut, units: Units) -> Curve | None:
    at = [s for s in cut.stations if s.name.startswith(BY_SCAN) and s.area is not None]
    if len(at) < 3:
        return None
    return Curve(
        tuple(float(from_si(s.along, units.length.unit)) for s in at),
        tuple(float(from_si(s.area or 0.0, units.area.unit)) for s in at),
    )

"""The sheet's sections along the port before and after, and the metal taken by scan."""

from __future__ import annotations

from typing import Final

import numpy as np

from ventrix.core.metal.unrolled import unroll
from ventrix.core.model.cut import Cut, Port
from ventrix.core.model.job import Job
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import from_si_array
from ventrix.reports.sheet.contents import Curve, ScanPart
from ventrix.rooms.display_units import Units
from ventrix.rooms.shared.scan_words import found_lines
from ventrix.words import tr

FEWEST: Final = 3  # measured sections that a curve is drawn through
POINTS: Final = 81


def scan_part(job: Job, port: Port, before: Cut, after: Cut, units: Units) -> ScanPart | None:
    """Sections of both cuts, and what each cut since the first took off by scan; None where no port was scanned."""
    if not any(cut.scans for cut in port.cuts):
        return None
    curves = {tr("cut {}", cut.number): _sections(job, port, cut, units) for cut in (before, after)}
    lines = tuple(
        tr("Metal taken at cut {}, by scan: {}.", cut.number, "; ".join(lines))
        for cut in port.cuts
        if (before.number < cut.number <= after.number or cut is after) and (lines := found_lines(cut, units))
    )
    caption = tr("Section along {}, {}, over {} from the opening", port.name, units.area.label, units.length.label)
    return ScanPart(port.kind, caption, {name: c for name, c in curves.items() if c is not None}, lines)


def _sections(job: Job, port: Port, cut: Cut, units: Units) -> Curve | None:
    """The section along the port, as it is drawn on its map, where enough of it was measured."""
    try:
        here = unroll(port, cut, job.valve_of(port, cut))
    except Refused:  # said in Head, where the sizes are typed
        return None
    if sum(s.measured for s in here.sections) < FEWEST:
        return None
    along = np.linspace(0.0, here.length, POINTS)
    return Curve(
        tuple(map(float, from_si_array(along, units.length.unit))),
        tuple(map(float, from_si_array(here.area(along), units.area.unit))),
    )

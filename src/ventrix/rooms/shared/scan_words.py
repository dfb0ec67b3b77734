"""What two scans say came off at a cut, beside what was told."""

from __future__ import annotations

from collections.abc import Iterator

from ventrix.core.model.cut import Cut, Port, Work
from ventrix.core.model.scan import Scan, ScannedDepth
from ventrix.core.quantity.units import from_si
from ventrix.core.quantity.words import number_text
from ventrix.rooms.display_units import Units
from ventrix.words import tr


def newest_scan(port: Port) -> Scan | None:
    """The last scan of the newest cut that has one."""
    return next((s for cut in reversed(port.cuts) for s in reversed(cut.scans)), None)


def newest_taken(cut: Cut) -> Scan | None:
    """The newest scan of a cut that was held against an earlier one."""
    return next((s for s in reversed(cut.scans) if s.taken_volume is not None), None)


def found_lines(cut: Cut, units: Units) -> tuple[str, ...]:
    """Metal taken by scan: the volume, then every place that was worked with what was told, then the others."""
    scan = newest_taken(cut)
    if scan is None:
        return ()
    return (volume_words(scan.taken_volume or 0.0, scan.taken_uncertainty or 0.0), *_places(cut, scan, units))


def volume_words(volume: float, doubt: float) -> str:
    """A volume taken off with its doubt [m3]."""
    return tr("{} ± {:.2f} cc taken off", number_text(from_si(volume, "cc"), 2), from_si(doubt, "cc"))


def _places(cut: Cut, scan: Scan, units: Units) -> Iterator[str]:
    told = {w.place: w for operation in cut.operations for w in operation.works}
    found: dict[str, list[ScannedDepth]] = {}
    for each in scan.places:
        found.setdefault(each.place, []).append(each)
    for place in dict.fromkeys([*(p for p in told if p in found), *found]):
        deepest = max(found[place], key=lambda d: d.depth or 0.0)
        yield _place_words(deepest, told.get(place), units)


def _place_words(deepest: ScannedDepth, work: Work | None, units: Units) -> str:
    length = units.length
    words = f"{deepest.place}, {deepest.side} {length.text(deepest.depth)} ± {length.text(deepest.uncertainty)}"
    if work is None:
        return tr("{}, not logged", words)
    return words if work.depth is None else tr("{}, {} told", words, length.text(work.depth))

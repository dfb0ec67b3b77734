"""A scan in its own unit, and another one before it: measured, and held against each other."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from ventrix.core.model.scan import Scan
from ventrix.core.quantity.arrays import Array, Ints
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import from_si
from ventrix.core.scan.compare import LEAST_KEPT, Taken, compare
from ventrix.core.scan.march import Progress
from ventrix.core.scan.measure import Measured, checked, measure
from ventrix.core.scan.unit import UNITS, KnownSize, measured_in_its_unit
from ventrix.words import tr

MIRROR: Final = np.array([-1.0, 1.0, 1.0])
MISFIT: Final = 0.35  # of the surface that agrees: less is another port
Clicks = tuple[Array | None, Array | None]
Surface = tuple[Array, Ints]


@dataclass(frozen=True, slots=True)
class ScanAsked:
    """What goes with a mesh: its unit as said, a size that is known, points on face and seat in the file's own
    coordinates, the guide's bore [mm], a stretch that was left alone [mm], and whether the end found to be the face is
    the seat."""

    unit: str | None = None
    known: KnownSize | None = None
    clicks: Clicks = (None, None)
    guide_bore: float | None = None
    left_alone: tuple[float, float] | None = None
    turned_round: bool = False


@dataclass(frozen=True, slots=True)
class Scanned:
    """A scan that was measured, what came off since the one before, and what is to be said of both."""

    unit: str
    measured: Measured
    taken: Taken | None
    notes: tuple[str, ...]


def scan_of(
    points: Array,
    faces: Ints,
    asked: ScanAsked,
    before: Surface | None = None,
    said: Progress = lambda _share: None,
    asked_before: ScanAsked | None = None,
) -> Scanned:
    """Measure a mesh as it stands in its file, and what came off since the one before: as that one was measured, where
    it is known how.

    Raises
    ------
    ValueError
        As `measure` and `measured_in_its_unit`; or the earlier scan is of another port.
    """
    half = 1.0 if before is None else 0.45

    def make(scale: float) -> Measured:
        return _measured(points, faces, scale, asked, lambda share: said(half * share))

    unit, found, notes = measured_in_its_unit(_extent(points, faces), asked.unit, asked.known, make)
    if before is None:
        return Scanned(unit, found, None, notes)
    scale = UNITS[unit][0]
    try:
        earlier = _earlier(before, unit, asked, asked_before, lambda share: said(0.45 + 0.35 * share))
    except Refused as error:
        raise Refused("the scan before: {}", error) from None
    taken = compare(earlier, found, asked.left_alone, lambda share: said(0.8 + 0.2 * share))
    if taken.kept < MISFIT and asked.left_alone is None:
        mirrored = _measured(points * MIRROR, faces, scale, _mirrored(asked))
        other = compare(earlier, mirrored)
        agree = tr("only {:.0f} % of the surface agrees", 100 * taken.kept)
        if other.kept >= LEAST_KEPT:
            notes = (*notes, tr("{}; mirrored it does: this is the port of the other hand.", agree.capitalize()))
            return Scanned(unit, found, other, notes)
        notes = (*notes, tr("The two do not lie on each other: {}. Are they of one port?", agree))
    return Scanned(unit, found, taken, notes)


def _earlier(before: Surface, unit: str, asked: ScanAsked, asked_before: ScanAsked | None, said: Progress) -> Measured:
    if asked_before is None:
        return _measured(*before, UNITS[unit][0], asked, said, own_ends=True)
    return _measured(*before, _scale(asked_before.unit or unit), asked_before, said)


def _scale(unit: str) -> float:
    """Millimetres to a unit that a kept scan is said to be in: a document, or a hand, may have said another."""
    if unit not in UNITS:
        raise Refused("its unit is '{}': correct it to mm, in or m", unit)
    return UNITS[unit][0]


def asked_of(scan: Scan) -> ScanAsked:
    """What a scan that is kept was measured with."""
    face, seat = (np.array(at) if len(at) == 3 else None for at in (scan.face_at, scan.seat_at))
    bore = None if scan.guide_bore is None else from_si(scan.guide_bore, "mm")
    return ScanAsked(scan.unit, clicks=(face, seat), guide_bore=bore, turned_round=scan.seat_at_far_end)


def measured_again(surface: Surface, asked: ScanAsked, said: Progress = lambda _share: None) -> Measured:
    """A scan whose unit is known measured once more. ValueError as `measure`."""
    return _measured(*surface, _scale(asked.unit or "mm"), asked, said)


def ports_held(
    model: tuple[Surface, ScanAsked],
    other: tuple[Surface, ScanAsked],
    mirrored: bool,
    said: Progress = lambda _share: None,
) -> Taken:
    """What another port has more of than the model port [mm], place by place, along the model's own length.

    Parameters
    ----------
    model, other : pairs
        Each port's mesh in its file's unit, and what it is measured with.
    mirrored : bool
        The other is of the other hand: it is mirrored first.
    said : callable
        Told how far it is; may raise to stop.

    Returns
    -------
    Taken
        Positive where the other port is larger.

    Raises
    ------
    ValueError
        As `measure`, with which of the two it is.
    """
    (points, faces), asked = other
    if mirrored:
        points, asked = points * MIRROR, _mirrored(asked)
    try:
        first = measured_again(*model, lambda share: said(0.4 * share))
    except Refused as error:
        raise Refused("the model port's scan: {}", error) from None
    try:
        second = measured_again((points, faces), asked, lambda share: said(0.4 + 0.4 * share))
    except Refused as error:
        raise Refused("the other port's scan: {}", error) from None
    return compare(first, second, said=lambda share: said(0.8 + 0.2 * share), two_ports=True)


def _mirrored(asked: ScanAsked) -> ScanAsked:
    face, seat = (None if c is None else c * MIRROR for c in asked.clicks)
    return replace(asked, clicks=(face, seat))


def _extent(points: Array, faces: Ints) -> float:
    used = points[np.unique(faces)]
    return float(np.ptp(used, axis=0).max())


def _measured(
    points: Array,
    faces: Ints,
    scale: float,
    asked: ScanAsked,
    said: Progress = lambda _share: None,
    *,
    own_ends: bool = False,
) -> Measured:
    """In mm; an earlier scan lies anywhere, and only where its ends are not found are the clicks tried on it."""
    face, seat = (None if c is None else c * scale for c in asked.clicks)
    clicks: Clicks = (None, None) if own_ends else (face, seat)
    try:
        return checked(measure(points * scale, faces, clicks, asked.guide_bore, said, asked.turned_round))
    except Refused:
        if not own_ends or face is None or seat is None:
            raise
        return checked(measure(points * scale, faces, (face, seat), asked.guide_bore, said))

"""What moved in the air of a section between two traverses, and which half of it does more."""

from __future__ import annotations

from typing import Final, NamedTuple

import numpy as np

from ventrix.core.air.traverse import Field
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.words import percent_text
from ventrix.words import tr

FLUX_FLAG: Final = 0.10


def flux_note(field: Field, flow: float) -> tuple[float, str | None]:
    """How far the traverse's flux is off the run's flow at that lift, relative, and a sentence beyond 10 %.

    Both are mass flows over the root of entering and reference density [m3/s]: they compare as masses do.
    Source: formula book of this project.
    """
    off = field.flux / flow - 1
    if abs(off) <= FLUX_FLAG:
        return off, None
    told = percent_text(off, 0, sign=True)
    return off, tr("speeds times area are {} off the flow: over 10 %, check the section's size and the probe", told)


class PointChange(NamedTuple):
    """Difference of two fields at common points [m/s]: after less before, with U(0.05) of each."""

    names: tuple[str, ...]
    u: Array
    v: Array
    change: Array
    expanded: Array


def change_of(before: Field, after: Field) -> PointChange:
    """What changed at the points that both traverses read.

    Parameters
    ----------
    before, after : Field
        Of one station, at one lift and test pressure.

    Returns
    -------
    PointChange
        Shape (k,).

    Raises
    ------
    ValueError
        Never; no common point gives empty arrays.

    References
    ----------
    [6] JCGM 100:2008, 5.1.2, coverage factor 1.96.
    """
    common = [n for n in before.names if n in after.names]
    a = [before.names.index(n) for n in common]
    b = [after.names.index(n) for n in common]
    expanded = 1.96 * np.hypot(before.uncertainty[a], after.uncertainty[b])
    return PointChange(tuple(common), before.u[a], before.v[a], after.speed[b] - before.speed[a], expanded)


class HalfAreas(NamedTuple):
    """Upper and lower half of a section [m2], the speed of each [m/s], and the width of the lower half [m] at which
    its air would be as slow as the upper's; None where it is not faster."""

    upper: float
    lower: float
    upper_speed: float
    lower_speed: float
    width_needed: float | None


def half_areas(field: Field) -> HalfAreas | None:
    """Upper and lower half, and how wide the short side would have to be to slow its air to the roof's.

    Parameters
    ----------
    field : Field
        Of a section with points towards roof and floor.

    Returns
    -------
    HalfAreas or None
        None without points on both sides.

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    Continuity: the same flow through a wider half is slower in proportion.
    """
    roof, floor = field.side("roof"), field.side("floor")
    if roof is None or floor is None or roof <= 0:
        return None
    needed = field.width * floor / roof if floor > roof else None
    return HalfAreas(field.area / 2, field.area / 2, roof, floor, needed)

"""Where a station's section is along the port, how large it is, and where a layout's points come to lie on it. SI."""

from __future__ import annotations

from typing import Final

import numpy as np

from ventrix.core.air.layouts import Layout, Place
from ventrix.core.metal.unrolled import UnrolledPort
from ventrix.core.model.kinds import StationName

INSIDE: Final = 0.85  # of a corner's radius: no point is laid nearer to its wall

Size = tuple[float, float, float]  # width, height [m], area [m2]


def station_share(station: str) -> float:
    """Where a station stands along the port, as a share of its length; half-way for one of the user's own."""
    return StationName(station).share if station in tuple(StationName) else 0.5


def size_of(here: UnrolledPort, station: str) -> tuple[float, float, float]:
    """Width, height [m] and area [m2] of a station's section; a measured section of that name speaks first."""
    named = next((s for s in here.sections if s.name == station and s.measured), None)
    if named is not None:
        return named.width, named.height, named.area
    along = station_share(station) * here.length
    return float(here.width(along)), float(here.height(along)), float(here.area(along))


def size_is_guessed(here: UnrolledPort, station: str) -> bool:
    """Whether a station's size rests on a section that nobody measured: it was not measured itself, and neither was one
    of those that it lies between."""
    if any(s.name == station and s.measured for s in here.sections):
        return False
    along = station_share(station) * here.length
    before = [s for s in here.sections if s.along <= along]
    after = [s for s in here.sections if s.along >= along]
    return not (before and after and before[-1].measured and after[0].measured)


def corner_of(size: Size) -> float:
    """The corner radius that a section of this width, height and area has [m]: A = w h - (4 - pi) r^2."""
    width, height, area = size
    radius = np.sqrt(max(width * height - area, 0.0) / (4 - np.pi))
    return float(min(radius, width / 2, height / 2))


def places_on(layout: Layout, size: Size) -> tuple[Place, ...]:
    """The points of a layout on a real section: what a rounded corner would cut off is drawn in along its radius.

    Parameters
    ----------
    layout : Layout
        Points over a full rectangle, or a ring.
    size : tuple of float
        Width, height [m] and area [m2] of the section.

    Returns
    -------
    tuple of Place
        Same names and weights; a ring stays as it is.

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    Definition of this project.
    """
    corner = corner_of(size)
    if layout.ring or corner <= 0:
        return layout.places
    half_width, half_height = size[0] / 2, size[1] / 2
    placed = []
    for p in layout.places:
        across = abs(p.u) * half_width - (half_width - corner)
        up = abs(p.v) * half_height - (half_height - corner)
        out = float(np.hypot(across, up))
        if across > 0 and up > 0 and out > INSIDE * corner:
            drawn_in = INSIDE * corner / out
            u = (half_width - corner + across * drawn_in) / half_width
            v = (half_height - corner + up * drawn_in) / half_height
            placed.append(p._replace(u=float(np.copysign(u, p.u)), v=float(np.copysign(v, p.v))))
        else:
            placed.append(p)
    return tuple(placed)

"""How deep each place of a port may still go, as it is read at the bench."""

from __future__ import annotations

from typing import NamedTuple

from ventrix.core.metal.unrolled import ZONES
from ventrix.core.metal.walls import limit_at, spare_at
from ventrix.core.model.cut import Cut, Port
from ventrix.core.model.job import Job
from ventrix.core.model.kinds import Place
from ventrix.rooms.display_units import Units
from ventrix.words import tr


class DepthLeft(NamedTuple):
    """A place, what may come off there in words, and whether nothing may."""

    place: str
    words: str
    stops: bool


def depths_left(job: Job, port: Port, cut: Cut, units: Units) -> tuple[DepthLeft, ...]:
    """Every place with a wall, by its own readings on this port, down to its limit."""
    found = []
    for zone in (z for z in ZONES if z.name != Place.SEAT):
        spare, limit = spare_at(job, port, cut, zone.name), units.length.text(limit_at(job, port, cut, zone.name))
        if spare is None:
            found.append(DepthLeft(zone.name, tr("read the wall first"), True))
        elif spare <= 0:
            found.append(DepthLeft(zone.name, tr("stop: at your limit of {}", limit), True))
        else:
            found.append(
                DepthLeft(zone.name, tr("{} to your limit of {}", units.length.with_unit(spare), limit), False)
            )
    return tuple(found)

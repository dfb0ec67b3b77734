"""Chambers against each other, and how both valves of one are shrouded by its bore and its own outline."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np
from shapely.geometry import Point, Polygon

from ventrix.core.lineup.chambers import chamber_lines
from ventrix.core.lineup.outlines import polygon_of
from ventrix.core.lineup.shrouding import Shroud, needed_gap, shrouding
from ventrix.core.model.job import Job
from ventrix.core.model.job_parts import Face, Outline
from ventrix.core.model.kinds import FacePart
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import to_si
from ventrix.rooms.display_units import Units
from ventrix.words import tr

LIFTS: Final = tuple(to_si(x, "in") for x in (0.2, 0.3, 0.4, 0.5, 0.6))


@dataclass(frozen=True, slots=True)
class ValveSpot:
    """A valve in its chamber: intake or exhaust, its head's radius, and its middle from the bore's [m]."""

    kind: str
    radius: float
    centre: tuple[float, float]


@dataclass(frozen=True, slots=True)
class Shrouded:
    """Valves among their walls, each with what it finds round the clock; `walls` by name."""

    walls: tuple[tuple[str, Polygon], ...]
    valves: tuple[tuple[ValveSpot, Shroud], ...]


def chamber_outlines(job: Job) -> tuple[tuple[str, Face, Outline], ...]:
    """Every chamber's outline that the job keeps, with a name to choose it by."""
    faces = (f for f in job.faces if f.part == FacePart.CHAMBER)
    return tuple((f"{f.name}, {o.port}", f, o) for f in faces for o in f.outlines)


def valve_middle(face: Face, kind: str) -> tuple[float, float] | None:
    """Where a chamber's face has the middle of a valve, as one of its bolts named after it."""
    named = next((b for b in face.bolts if b.name.lower().startswith(kind[:2].lower())), None)
    return None if named is None else (float(named.at[0]), float(named.at[1]))


def shrouded(valves: Sequence[ValveSpot], bore: float | None, outline: Outline | None) -> Shrouded:
    """Both valves against bore and chamber outline. ValueError, in words, where a wall or a place makes no sense."""
    walls = []
    if bore is not None:
        walls.append(("bore", Point(0.0, 0.0).buffer(bore / 2, 128)))
    if outline is not None:
        walls.append(("chamber", polygon_of(outline)))
    for name, wall in walls:
        for valve in valves:
            if not wall.contains(Point(*valve.centre)):
                raise Refused("the {} valve's center is outside the {}", valve.kind, name)
    shapes = [wall for _, wall in walls]
    return Shrouded(tuple(walls), tuple((v, shrouding(v.centre, v.radius, shapes, LIFTS)) for v in valves))


def shroud_rows(found: Shrouded, units: Units) -> tuple[str, ...]:
    """In words: what stands nearest to each valve, then per lift the share of each curtain that is too close."""
    rows = []
    for valve, shroud in found.valves:
        at = int(np.argmin(shroud.gap))
        gap, wall = float(shroud.gap[at]), found.walls[int(shroud.nearest[at])][0]
        far = units.length.with_unit(abs(gap))
        said = tr("{} to the {}", far, wall) if gap >= 0 else tr("hangs {} over the {}", far, wall)
        rows.append(f"{valve.kind.capitalize()}: {said}.")
    for i, lift in enumerate(LIFTS):
        shares = [
            tr("{} {:.0f} % (needs {})", v.kind, 100 * s.share[i], units.length.text(float(needed_gap(v.radius, lift))))
            for v, s in found.valves
        ]
        rows.append(tr("At {} too close: {}.", units.lift.with_unit(lift), ", ".join(shares)))
    return tuple(rows)


def chamber_rows(job: Job, units: Units) -> tuple[str, ...]:
    """Every poured chamber in words, what to take out of it, and its compression. Refused as `chamber_lines`."""
    rows = []
    for line in chamber_lines(job):
        more = tr(", take {} cc out", units.volume.text(line.take_out)) if line.take_out > 5e-8 else tr(", the largest")
        ratio = "" if line.compression is None else tr(", {:.2f} to 1", line.compression)
        rows.append(tr("Cylinder {}: {} cc{}{}", line.cylinder, units.volume.text(line.volume), more, ratio))
    return tuple(rows)

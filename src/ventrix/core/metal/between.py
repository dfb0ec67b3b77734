"""What happened to the metal between two cuts of a port, flowed or not: sizes, sections, volume, walls and hours."""

from __future__ import annotations

from typing import NamedTuple

from ventrix.core.formulas.port import section_area
from ventrix.core.metal.walls import walls_at
from ventrix.core.model.cut import Cut, Port, carried_figure, poured_volume
from ventrix.core.model.job import Job
from ventrix.words import tr

SIZES = (
    ("throat_diameter", "throat"),
    ("bowl_diameter", "bowl"),
    ("boss_width", tr("guide boss")),
    ("short_side_radius", tr("short side, radius")),
    ("short_side_height", tr("short side, height")),
)
SECTIONS = (("opening", tr("opening, section")), ("pinch", tr("pinch, section")))


class MetalChange(NamedTuple):
    """A figure before and after in SI, None where it is not known: its name, and what it is ("length", "area",
    "volume", "duration")."""

    name: str
    kind: str
    before: float | None
    after: float | None


def metal_between(job: Job, port: Port, before: Cut, after: Cut) -> tuple[MetalChange, ...]:
    """Every figure of the metal that is known at both cuts, and what work lay between.

    Parameters
    ----------
    job, port : Job, Port
        Whose.
    before, after : Cut
        Of that port, in either order.

    Returns
    -------
    tuple of MetalChange
        Sizes and sections carried to each cut, volumes poured at it, the thinnest wall left by place, and the time
        worked between.

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    Geometry of what was measured.
    """
    found = []
    for field, name in SIZES:
        found.append(MetalChange(name, "length", *(carried_figure(port, c, field) for c in (before, after))))
    for which, name in SECTIONS:
        found.append(MetalChange(name, "area", *(_section(port, c, which) for c in (before, after))))
    found.append(MetalChange(tr("poured volume"), "volume", poured_volume(before), poured_volume(after)))
    had, has = (_walls(job, port, c) for c in (before, after))
    found += [MetalChange(tr("wall, {}", place), "length", had.get(place), has[place]) for place in has]
    first, last = sorted((before.number, after.number))
    worked = [
        op.duration for c in port.cuts if first < c.number <= last for op in c.operations if op.duration is not None
    ]
    found.append(MetalChange(tr("time worked between"), "duration", None, sum(worked) if worked else None))
    return tuple(f for f in found if f.after is not None)


def _section(port: Port, cut: Cut, which: str) -> float | None:
    width, height, corner = (carried_figure(port, cut, f"{which}_{part}") for part in ("width", "height", "corner"))
    return None if width is None or height is None else float(section_area(width, height, corner or 0.0))


def _walls(job: Job, port: Port, cut: Cut) -> dict[str, float]:
    """The thinnest that is left by place [m]; a place worked since to no stated depth is not known."""
    found: dict[str, float] = {}
    unknown = set()
    for wall in walls_at(job, port, cut):
        place = wall.reading.place
        if wall.unknown:
            unknown.add(place)
        else:
            found[place] = min(wall.left, found.get(place, wall.left))
    return {place: left for place, left in found.items() if place not in unknown}

"""The port unrolled: sections along its centreline, bands as wide as each side is there, zones of the map.

All SI. What was measured is used as it is; between measurements areas and sizes follow the monotone curve
of `curve`, and what was never measured is drawn at a usual proportion and said to be guessed.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property, partial
from itertools import pairwise
from typing import Final, NamedTuple

import numpy as np
from numpy.typing import ArrayLike

from ventrix.core.formulas.flow_curve import pchip
from ventrix.core.formulas.port import centreline_length, cone_angle, section_area
from ventrix.core.model.cut import Cut, Port, Station, carried, carried_figure
from ventrix.core.model.job import Job
from ventrix.core.model.job_parts import Valve
from ventrix.core.model.kinds import Band, Place
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.refused import Refused

BANDS: Final = tuple(Band)  # across the map, top to bottom


@dataclass(frozen=True, slots=True)
class Zone:
    """A named area of the map: where along (shares of the length) and on which bands."""

    name: str
    start: float
    end: float
    bands: tuple[str, ...]


ZONES: Final = (
    Zone(Place.OPENING, 0.0, 0.12, BANDS),
    Zone(Place.PINCH, 0.26, 0.52, (Band.LEFT, Band.RIGHT)),
    Zone(Place.ROOF, 0.14, 0.62, (Band.ROOF,)),
    Zone(Place.FLOOR, 0.14, 0.66, (Band.FLOOR,)),
    Zone(Place.GUIDE, 0.64, 0.80, (Band.ROOF,)),
    Zone(Place.SHORT_SIDE, 0.68, 0.90, (Band.FLOOR,)),
    Zone(Place.BOWL, 0.82, 0.95, (Band.LEFT, Band.ROOF, Band.RIGHT)),
    Zone(Place.THROAT, 0.95, 0.985, BANDS),
    Zone(Place.SEAT, 0.985, 1.0, BANDS),
)
ZONE_NAMES: Final = tuple(z.name for z in ZONES)


def zone_named(name: str) -> Zone | None:
    """The zone of that name, or None."""
    return next((z for z in ZONES if z.name == name), None)


def zone_at(share: float, band: str) -> Zone | None:
    """The zone at a place of the map; the narrowest where several lie there."""
    found = [z for z in ZONES if z.start <= share <= z.end and band in z.bands]
    return min(found, key=lambda z: (z.end - z.start) * len(z.bands)) if found else None


class Cone(NamedTuple):
    """How steeply a port widens between two sections: total angle [rad], and their names."""

    angle: float
    start: str
    end: str


class Section(NamedTuple):
    """A section of the port: distance from the opening [m], width, height [m], area [m2], its name, and
    whether all of it was measured."""

    along: float
    width: float
    height: float
    area: float
    name: str
    measured: bool


def _station(s: Station) -> Section | None:
    """A station as a section; None where it says no size."""
    if s.width is not None and s.height is not None:
        area = s.area if s.area is not None else float(section_area(s.width, s.height, s.corner_radius or 0.0))
        return Section(s.along, s.width, s.height, area, s.name, True)
    if s.area is not None:
        side = s.area**0.5
        return Section(s.along, s.width or side, s.height or side, s.area, s.name, True)
    return None


@dataclass(frozen=True)
class UnrolledPort:
    """The map of one port at one cut. `guessed` names what was drawn at a usual proportion."""

    length: float
    sections: tuple[Section, ...]
    valves: int
    guessed: tuple[str, ...] = ()

    @cached_property
    def _at(self) -> Array:
        return np.array([s.along for s in self.sections])

    def _curve(self, values: list[float], along: ArrayLike) -> Array:
        at = np.clip(np.asarray(along, dtype=float), 0.0, self.length)
        return pchip(self._at, np.array(values), at)

    def area(self, along: ArrayLike) -> Array:
        """Area [m2] at distances from the opening [m], any shape."""
        return self._curve([s.area for s in self.sections], along)

    def width(self, along: ArrayLike) -> Array:
        """Width [m], wall to wall."""
        return self._curve([s.width for s in self.sections], along)

    def height(self, along: ArrayLike) -> Array:
        """Height [m], floor to roof."""
        return self._curve([s.height for s in self.sections], along)

    def bands(self, along: ArrayLike) -> dict[str, Array]:
        """How wide each band of the map is [m]: walls as high as the port, roof and floor as wide."""
        width, height = self.width(along), self.height(along)
        return {"left": height, "roof": width, "right": height, "floor": width}

    @cached_property
    def smallest(self) -> Section:
        """The smallest section between the opening and the throat, on the curve through the stations."""
        x = np.linspace(0.0, self.length, 241)
        area = self.area(x)
        i = int(np.argmin(area))
        near = min(self.sections, key=lambda s: abs(s.along - x[i]))
        name = near.name if abs(near.along - x[i]) < 0.06 * self.length else ""
        return Section(float(x[i]), float(self.width(x[i])), float(self.height(x[i])), float(area[i]), name, False)

    @property
    def smallest_is_measured(self) -> bool:
        """The smallest place stands at a measured section, and none guessed is nearer: a speed there is no guess. Where
        along the port it stands plays no part."""
        narrowest = self.smallest
        near = min(self.sections, key=lambda s: abs(s.along - narrowest.along))
        return near.measured

    @property
    def taper(self) -> float:
        """Change of area from the opening to the smallest place, as a share of the opening's [-]."""
        return self.smallest.area / float(self.area(0.0)) - 1

    @property
    def recovery(self) -> float:
        """Change of area from the smallest place to the throat, as a share of the smallest [-]."""
        return float(self.area(self.length)) / self.smallest.area - 1

    @property
    def widest_cone(self) -> Cone | None:
        """The steepest widening between neighbouring measured sections; None without two."""
        here = [s for s in self.sections if s.measured]
        cones = [
            Cone(float(cone_angle(a.area, b.area, b.along - a.along)), a.name, b.name)
            for a, b in pairwise(here)
            if b.along > a.along
        ]
        return max(cones, key=lambda c: c.angle, default=None)

    @property
    def has_stations(self) -> bool:
        """Enough was measured for a volume: sections at both ends and at least two between."""
        return sum(s.measured for s in self.sections) >= 4


def unroll(port: Port, cut: Cut, valve: Valve | None) -> UnrolledPort:
    """The map of a port at a cut, from what was measured there or carried.

    Parameters
    ----------
    port, cut : Port, Cut
        Whose measurements.
    valve : Valve or None
        For the stem and for guessing the throat.

    Returns
    -------
    UnrolledPort
        Always something to draw; what was guessed is named.

    Raises
    ------
    ValueError
        Figures that contradict each other (a corner radius larger than the section).

    References
    ----------
    Geometry; usual proportions are common practice, no source.
    """

    figure = partial(carried_figure, port, cut)
    head = (valve.head_diameter if valve else None) or 0.046
    guessed: list[str] = []
    throat = figure("throat_diameter")
    if throat is None:
        throat = 0.88 * head
        guessed.append("throat")
    floor, roof = figure("floor_length"), figure("roof_length")
    if floor is not None and roof is not None:
        length = float(centreline_length(floor, roof))
    else:
        length = 2.3 * head
        guessed.append("length")
    stem = (valve.stem_diameter if valve else None) or 0.0
    throat_area = port.valves * np.pi / 4 * (throat**2 - stem**2)
    side = (port.valves * throat**2) ** 0.5
    sections: list[Section] = []
    found_stations = carried(port, cut, "stations")
    for s in found_stations.value if found_stations is not None else ():
        made = _station(s)
        if made is not None and 0.0 <= made.along < 0.995 * length:
            sections.append(made)
    _add_named(sections, "opening", 0.0, figure("opening_width"), figure("opening_height"), figure("opening_corner"))
    _add_named(sections, "pinch", 0.38 * length, figure("pinch_width"), figure("pinch_height"), figure("pinch_corner"))
    bowl = figure("bowl_diameter")
    if bowl is not None:
        area = port.valves * np.pi / 4 * (bowl**2 - stem**2)
        wide = bowl * port.valves**0.5
        _add(sections, Section(0.9 * length, wide, wide, float(area), "bowl", True))
    if not any(s.along < 0.02 * length for s in sections):
        guessed.append("opening")
        sections.append(Section(0.0, 0.82 * side, 1.18 * side, 1.12 * float(throat_area), "opening", False))
    measured = throat_is_known = "throat" not in guessed
    sections.append(Section(length, side, side, float(throat_area), "throat", measured and throat_is_known))
    ordered = tuple(sorted(sections, key=lambda s: s.along))
    return UnrolledPort(length, ordered, port.valves, tuple(guessed))


def _add(sections: list[Section], new: Section) -> None:
    """Put a section in, unless a station stands within three millimetres of it."""
    if all(abs(s.along - new.along) > 0.003 for s in sections):
        sections.append(new)


def _add_named(
    sections: list[Section], name: str, along: float, width: float | None, height: float | None, corner: float | None
) -> None:
    named = [s for s in sections if s.name == name]
    if named or width is None or height is None:
        return
    _add(sections, Section(along, width, height, float(section_area(width, height, corner or 0.0)), name, True))


def smallest_section(job: Job, port: Port, cut: Cut) -> float | None:
    """The smallest measured section of a port at a cut [m2], None where none was measured."""
    try:
        here = unroll(port, cut, job.valve_of(port, cut))
    except Refused:
        return None
    return here.smallest.area if here.smallest_is_measured else None

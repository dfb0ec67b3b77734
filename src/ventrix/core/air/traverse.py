"""Air speeds over a section: point layouts, mean and balance, fields between points, and what two traverses prove.

A place in a section is u from the left wall (-1) to the right and v from the floor (-1) to the roof; on a ring
they are the cosine and sine of its place on the clock. SI. Sources are numbered as in ``docs/sources.md``.
"""

from __future__ import annotations

from dataclasses import dataclass, field
from functools import cached_property
from typing import TYPE_CHECKING, Final

import numpy as np
from numpy.typing import ArrayLike

from ventrix.core.air.layouts import layout_named
from ventrix.core.formulas.atmosphere import (
    REFERENCE_DENSITY,
    REFERENCE_PRESSURE,
    REFERENCE_TEMPERATURE,
    vapour_fraction,
)
from ventrix.core.formulas.pitot import ProbedAir, local_to_reference, probed_air, reference_to_local
from ventrix.core.model.bench_kinds import TraverseKind
from ventrix.core.model.cut import Cut
from ventrix.core.model.job import Job
from ventrix.core.model.kept_words import SpeedsAt
from ventrix.core.model.kinds import Direction
from ventrix.core.model.traverse import ProbePoint, Traverse
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.limits import positive
from ventrix.words import tr

if TYPE_CHECKING:
    from scipy.spatial import Delaunay

LIMIT_MACH: Final = 0.55  # default for a local speed: common practice, no source

DEAD_SHARE: Final = 0.4  # of the mean: air that hardly moves


READING_UNCERTAINTY: Final = 0.015  # relative, of one probe reading: half of its pressure's

YAW_UNCERTAINTY: Final = 0.015  # relative: a straight probe within about ten degrees of the stream (cos 10 deg)

PLACE_UNCERTAINTY: Final = 0.0005  # m: a probe is put where it should be to about a millimetre

STATIC_UNCERTAINTY: Final = 0.01  # relative, where the static pressure at the point was not read

PROBE_LIMIT: Final = 0.02  # of the section's diameter: a larger probe disturbs what it reads (ISO 3966)

WALL_POWER: Final = 7  # near a wall air slows by the one-seventh power law (Schlichting, Boundary-Layer Theory)


@dataclass(frozen=True, slots=True)
class AirThere:
    """The air of a traverse: barometer and pressure of the air entering [Pa], its temperature [K], vapour [-], and
    which way it goes; reference air on draw by default. `typed_standard`: speeds that were typed stand at standard air,
    not at that of the probe."""

    direction: Direction = Direction.INTAKE
    room_pressure: float = REFERENCE_PRESSURE
    temperature: float = REFERENCE_TEMPERATURE
    entering_pressure: float = REFERENCE_PRESSURE
    vapour: float = 0.0
    typed_standard: bool = False


def air_of(job: Job, traverse: Traverse) -> AirThere:
    """The air a traverse was taken in, as its set-up recorded it; reference air for what was not.

    Raises ValueError where the recorded air cannot be. Source: formula book of this project.
    """
    standard = traverse.speeds_at == SpeedsAt.STANDARD
    if traverse.setup_id is None:
        return AirThere(typed_standard=standard)
    setup = job.setup(traverse.setup_id)
    room = setup.pressure or REFERENCE_PRESSURE
    temperature = setup.temperature or REFERENCE_TEMPERATURE
    vapour = 0.0 if setup.humidity is None else float(vapour_fraction(temperature, room, setup.humidity))
    if setup.direction == Direction.INTAKE:
        return AirThere(Direction.INTAKE, room, temperature, room, vapour, standard)
    entering = room + (setup.test_pressure or 0.0)
    return AirThere(Direction.EXHAUST, room, setup.plenum_temperature or temperature, entering, vapour, standard)


def point_speed(point: ProbePoint, coefficient: float = 1.0, air: AirThere | None = None) -> ProbedAir | None:
    """Speeds at one point, from a pressure or as it was read; None where it holds neither.

    Parameters
    ----------
    point : ProbePoint
        With `reading` [Pa] and perhaps `static` [Pa], or with `speed` [m/s].
    coefficient : float
        Of the probe [-].
    air : AirThere, optional
        Of the traverse.

    Returns
    -------
    ProbedAir or None
        [m/s].

    Raises
    ------
    ValueError
        A negative reading, or one that means sonic speed.

    References
    ----------
    `airspeed.probed_air`.
    """
    a = air or AirThere()
    if point.speed is not None and a.typed_standard:
        local = reference_to_local(point.speed, a.temperature, a.entering_pressure)
        return ProbedAir(local, np.asarray(point.speed))
    if point.speed is not None:
        reference = local_to_reference(point.speed, a.temperature, a.entering_pressure)
        return ProbedAir(np.asarray(point.speed), reference)
    if point.reading is None:
        return None
    return probed_air(
        point.reading,
        a.direction == Direction.EXHAUST,
        a.room_pressure,
        a.temperature,
        a.entering_pressure,
        np.nan if point.static is None else point.static,
        coefficient,
        a.vapour,
    )


@dataclass(frozen=True)
class Field:
    """Speeds [m/s] at points (u, v) of a section, shape (n,); its width and height [m], area [m2].

    `speed` is mass flux as a speed in reference air, `local` the air's own speed there. `doubt` is each point's
    relative standard uncertainty besides place, `common` what the probe itself adds to all of them alike.
    """

    station: str
    names: tuple[str, ...]
    u: Array
    v: Array
    speed: Array
    weights: Array
    width: float
    height: float
    area: float
    ring: bool = False
    local: Array = field(default_factory=lambda: np.empty(0))
    doubt: Array = field(default_factory=lambda: np.empty(0))
    common: float = 0.0
    blockage: float = 0.0
    guessed: bool = False  # its size rests on a section that nobody measured

    @property
    def mean(self) -> float:
        """Area-weighted mean [m/s]."""
        return float(self.weights @ self.speed)

    @property
    def spread(self) -> float:
        """Standard deviation of the points (n-1) over their mean [-]."""
        return float(np.std(self.speed, ddof=1) / self.mean) if len(self.speed) > 1 else 0.0

    @property
    def fastest_over_slowest(self) -> float:
        slowest = float(self.speed.min())
        return float(self.speed.max()) / slowest if slowest > 0 else float("inf")

    @property
    def centre(self) -> tuple[float, float]:
        """Centre of flow, as u and v."""
        flow = self.weights * self.speed
        whole = float(flow.sum())
        return float(flow @ self.u) / whole, float(flow @ self.v) / whole

    def side(self, name: str) -> float | None:
        """Mean speed of the points towards a side: floor, roof, left or right [m/s]; None without any."""
        along = {"floor": -self.v, "roof": self.v, "left": -self.u, "right": self.u}[name]
        there = along > 0.3
        if not np.any(there):
            return None
        w = np.maximum(self.weights[there], 1e-6)
        return float(w @ self.speed[there] / w.sum())

    @property
    def flux(self) -> float:
        """Volume flow the mean means [m3/s]."""
        return self.mean * self.area

    @property
    def dynamic_pressure(self) -> float:
        """Mean of 1/2 rho v^2 over the section at reference density [Pa]."""
        return float(0.5 * REFERENCE_DENSITY * (self.weights @ self.speed**2))

    @cached_property
    def _triangles(self) -> Delaunay | None:
        """None while all points lie on one line: a first row, read so far."""
        from scipy.spatial import Delaunay, QhullError  # late: only the Air room draws fields

        try:
            return Delaunay(np.c_[self.u, self.v])
        except QhullError:
            return None

    def at(self, u: ArrayLike, v: ArrayLike) -> Array:
        """Speed between the points by straight faces (Delaunay), NaN outside their hull [m/s].

        A straight face never lies above its corners: no maximum is invented, bound nought.
        """
        from scipy.interpolate import LinearNDInterpolator  # late, as above

        where = np.asarray(u, dtype=float), np.asarray(v, dtype=float)
        if self._triangles is None:
            return np.full(np.broadcast(*where).shape, np.nan)
        return np.asarray(LinearNDInterpolator(self._triangles, self.speed)(*where))

    @cached_property
    def uncertainty(self) -> Array:
        """Standard uncertainty of each point's speed [m/s]: reading, yaw, and where the probe really was."""
        gradient = np.zeros(len(self.speed))
        for i in range(len(self.speed)):
            du, dv = (self.u - self.u[i]) * self.width / 2, (self.v - self.v[i]) * self.height / 2
            apart = np.hypot(du, dv)
            near = (apart > 1e-9) & (apart < 1.6 * max(apart[apart > 1e-9].min(initial=np.inf), 1e-9))
            if np.any(near):
                gradient[i] = float(np.max(np.abs(self.speed[near] - self.speed[i]) / apart[near]))
        if self.ring:
            wall = (1 - np.hypot(self.u, self.v)) * self.width / 2
        else:
            wall = np.minimum((1 - np.abs(self.u)) * self.width, (1 - np.abs(self.v)) * self.height) / 2
        gradient = np.hypot(gradient, self.speed / (WALL_POWER * np.maximum(wall, PLACE_UNCERTAINTY)))
        own = self.doubt if len(self.doubt) else np.full(len(self.speed), READING_UNCERTAINTY)
        relative = np.sqrt(own**2 + YAW_UNCERTAINTY**2 + self.common**2) * self.speed
        return np.asarray(np.hypot(relative, PLACE_UNCERTAINTY * gradient))

    @property
    def mean_uncertainty(self) -> float:
        """Standard uncertainty of the mean [m/s]: yaw, static and blockage are one probe's, the rest each point's."""
        shared = np.hypot(YAW_UNCERTAINTY, self.common)
        own = np.sqrt(np.maximum(self.uncertainty**2 - (shared * self.speed) ** 2, 0.0))
        return float(np.hypot(np.sqrt(np.sum((self.weights * own) ** 2)), shared * self.mean))


def field_of(traverse: Traverse, width: float, height: float, area: float, air: AirThere | None = None) -> Field | None:
    """The field of a pitot traverse, from the points that count.

    Parameters
    ----------
    traverse : Traverse
        Of kind "pitot".
    width, height, area : float
        Of its section [m], [m2].
    air : AirThere, optional
        At the probe.

    Returns
    -------
    Field or None
        None where fewer than three points were read.

    Raises
    ------
    ValueError
        A width, height or area not above zero, or a reading that makes no sense.

    References
    ----------
    Weights of the layout; equal ones for points of the user's own or where some are missing.
    """
    positive([width, height, area], tr("a section's size"))
    layout = layout_named(traverse.layout)
    weight = {p.name: p.weight for p in layout.places} if layout is not None else {}
    rows = [
        (p.name, p.u, p.v, float(found.reference), float(found.local), p.reading is not None and p.static is None)
        for p in traverse.points
        if p.struck is None and (found := point_speed(p, traverse.coefficient or 1.0, air)) is not None
    ]
    if len(rows) < 3:
        return None
    names = tuple(r[0] for r in rows)
    whole = layout is not None and sorted(names) == sorted(weight)
    weights = np.array([weight[n] for n in names]) if whole else np.full(len(rows), 1 / len(rows))
    u, v, speed, local, no_static = (np.array([r[i] for r in rows], dtype=float) for i in (1, 2, 3, 4, 5))
    ring = layout.ring if layout is not None else False
    blocked = blockage(traverse.probe_diameter, height, area)
    common = float(np.hypot(STATIC_UNCERTAINTY * no_static.any(), blocked / np.sqrt(3)))
    doubt = np.full(len(rows), READING_UNCERTAINTY)
    return Field(
        traverse.station, names, u, v, speed, weights, width, height, area, ring, local, doubt, common, blocked
    )


def blockage(probe_diameter: float | None, height: float, area: float) -> float:
    """Share of the section that a probe reaching to its middle stands in [-]; nought under ISO 3966's limit.

    Parameters
    ----------
    probe_diameter : float or None
        [m]; None where it was not recorded.
    height, area : float
        Of the section [m], [m2].

    Returns
    -------
    float
        d h / (2 A), where d is over 0.02 of the diameter of a circle of that area.

    Raises
    ------
    ValueError
        A diameter, height or area not above zero.

    References
    ----------
    [12] ISO 3966:2008, clause on the size of the probe (0.02 of the conduit).
    """
    if probe_diameter is None:
        return 0.0
    across = float(positive(probe_diameter, tr("probe diameter")))
    if across / float(np.sqrt(4 / np.pi * positive(area, "area"))) <= PROBE_LIMIT:
        return 0.0
    return across * float(positive(height, "height")) / 2 / area


def newest_of(cut: Cut, station: str) -> Traverse | None:
    """The last pitot traverse of a station at a cut."""
    return next((t for t in reversed(cut.traverses) if t.station == station and t.kind == TraverseKind.PITOT), None)

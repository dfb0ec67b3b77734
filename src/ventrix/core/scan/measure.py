"""A scan measured: sections, volume, lengths, turning, and the places that the trade names. Everything in mm."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Final

import numpy as np
from scipy.optimize import least_squares

from ventrix.core.quantity.arrays import Array, Bools, Ints
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.said import Said, millimetres
from ventrix.core.scan.ends import End, find_ends
from ventrix.core.scan.march import March, Progress, Station, march, smoothed
from ventrix.core.scan.mesh import Mesh, clean
from ventrix.core.scan.sections import Section, across, unit_rows
from ventrix.words import tr

GUIDE: Final = 0.7  # of its bore, from the valve's axis: triangles of the guide and no port
BEYOND: Final = 1.0  # mm past an end's plane that still belongs to it
TRIMMED: Final = 0.10  # of the bend of the floor, at each end, that the circle leaves out
TURNS: Final = 0.15, 0.85  # of its turning that the circle of the short side is laid over
SHARP: Final = 4.0  # mm: a smaller radius is only known to be under it
BOX: Final = 0.1  # mm rms: worse, a section is no rounded box
NOISY: Final = 0.15  # mm
ABOUT: Final = 1.5  # mm of a ring beside a place that its noise is averaged over
STRAIGHT: Final = 0.05  # rad that a port turns in all: less is straight
GAP: Final = 0.10  # of a ring: a wider hole is said
EDGE: Final = 0.04  # of the length: a smallest section nearer to an end is none
BOWL: Final = 0.62  # of the length: from here on lie bowl and throat
UNDER_SEAT: Final = 0.86  # of the length: from here on a throat is looked for first: over a short side may be less
WAIST: Final = 3  # sections to either side that a throat is smaller than
WAISTED: Final = 0.003  # by which share at least


@dataclass(frozen=True)
class Pick:
    """A place with its section: how far from the face, area across the line [mm2]; width and height [mm] with the
    corners' radius, or as a circle its diameter; the short side's radius."""

    along: float
    area: float
    width: float
    height: float
    corner: float | None = None
    diameter: float | None = None
    radius: float | None = None


@dataclass(frozen=True)
class Measured:
    """Everything that one scan says [mm, mm2, mm3, rad]."""

    mesh: Mesh
    face: End
    seat: End
    march: March
    volume: float
    length: float
    roof: float
    floor: float
    turning: float
    noise: float
    picks: dict[str, Pick]
    notes: tuple[str, ...] = field(default=())

    @property
    def stations(self) -> tuple[Station, ...]:
        return self.march.stations

    def uncertainty(self, station: Station) -> float:
        """Relative U(0.05) of a section's area: its bridged part, the scanner's noise, planes that cross near it."""
        crossing = any(abs(station.along - s) < 2 for s in self.march.crossing)
        scatter = 2 * self.noise / max(station.section.area, 1.0) ** 0.5
        return float(np.hypot(0.004 + scatter, 0.5 * station.section.gap**1.5 + 0.02 * crossing))


def measure(
    points: Array,
    faces: Ints,
    clicks: tuple[Array | None, Array | None] = (None, None),
    guide_bore: float | None = None,
    said: Progress = lambda _share: None,
    turned_round: bool = False,
) -> Measured:
    """Measure a scan of a port or of its mould.

    Parameters
    ----------
    points, faces : array
        Shapes (n, 3) [mm] and (m, 3).
    clicks : pair of array, optional
        Points on the manifold face and on the seat.
    guide_bore : float, optional
        Of the valve guide [mm]: what stands in the port about the valve's axis is left out.
    said : callable
        Told how far it is; may raise to stop.
    turned_round : bool
        The end that is found to be the face is the seat.

    Returns
    -------
    Measured

    Raises
    ------
    ValueError
        In pieces, no two ends, no line that rests, too many holes: each a sentence.
    """
    mesh = clean(np.asarray(points, dtype=float), np.asarray(faces))
    said(0.05)
    face, seat, notes = find_ends(mesh, clicks)
    if turned_round:
        face, seat, notes = seat, face, []
    mesh, face, seat = _trim(mesh, face, seat)
    if guide_bore is not None:
        away = mesh.middles - seat.centre
        beside = np.linalg.norm(away - np.outer(away @ seat.normal, seat.normal), axis=1)
        kept = (beside > GUIDE * guide_bore) | seat.cap | face.cap
        face, seat = (End(e.centre, e.normal, e.roundness, e.cap[kept]) for e in (face, seat))
        mesh = mesh.part(kept)
    found = march(mesh, face, seat, said)
    return _of_march(mesh, face, seat, found, notes)


def _trim(mesh: Mesh, face: End, seat: End) -> tuple[Mesh, End, End]:
    """Without what a mould has beyond the planes of its two ends."""
    middles = mesh.middles
    beyond = np.zeros(len(mesh.faces), dtype=bool)
    for end in (face, seat):
        past = (middles - end.centre) @ end.normal > BEYOND
        if past.any() and not end.cap.any():
            beyond |= mesh.hangs_with(past, end.centre)  # and not another bend of the port
    if not beyond.any():
        return mesh, face, seat
    kept = ~beyond
    face, seat = (End(e.centre, e.normal, e.roundness, e.cap[kept]) for e in (face, seat))
    return mesh.part(kept), face, seat


def _of_march(mesh: Mesh, face: End, seat: End, found: March, notes: list[str]) -> Measured:
    stations = found.stations
    notes = list(notes)
    missing = found.tried - len(stations)
    if missing:
        notes.append(tr("{} of {} sections would not close: holes.", missing, found.tried))
    wide = [s.along for s in stations if s.section.gap > GAP]
    if wide:
        low, high = millimetres(min(wide), 0), millimetres(max(wide), 0)
        notes.append(Said("Between {} and {} a tenth of a section or more is a hole.", low, high))
    if found.crossing:
        low, high = millimetres(min(found.crossing), 0), millimetres(max(found.crossing), 0)
        notes.append(Said("Sections cross one another between {} and {}: a tight bend.", low, high))
    noise = _noise(mesh)
    if noise > NOISY:
        notes.append(Said("The surface is rough by {}: figures of small things are left out.", millimetres(noise)))
    inward = inward_of(stations)
    floor, roof = (_side(stations, inward, sign, face, seat) for sign in (1, -1))
    turning = float(np.arccos(np.clip(-face.normal @ seat.normal, -1, 1)))
    picks, said = _picks(stations, found.length, inward, floor)
    return Measured(
        mesh, face, seat, found, _volume(stations, face, seat), found.length, _long(roof), _long(floor), turning,
        noise, picks, (*notes, *said),
    )  # fmt: skip


def _volume(stations: tuple[Station, ...], face: End, seat: End) -> float:
    """Area times the way of the centroid along the planes' normals: exact for planes that do not cross."""
    centres = np.array([face.centre, *(s.section.centre for s in stations), seat.centre])
    flows = [s.section.area * s.normal for s in stations]
    # At the ends the section is that of the nearest, in the end's own plane.
    first = stations[0].section.area * -face.normal
    last = stations[-1].section.area * seat.normal
    vectors = np.array([first, *flows, last])
    return float(np.einsum("ij,ij->", (vectors[1:] + vectors[:-1]) / 2, np.diff(centres, axis=0)))


def _noise(mesh: Mesh) -> float:
    """How rough the surface is [mm]: the spread of points off the plane of what is about them, small things apart."""
    from scipy.spatial import cKDTree

    random = np.random.default_rng(2)
    used = np.unique(mesh.faces)
    some = random.choice(used, size=min(400, len(used)), replace=False)
    tree = cKDTree(mesh.points[used])
    edge = float(np.median(np.linalg.norm(mesh.corners[:, 0] - mesh.corners[:, 1], axis=1)))
    _, near = tree.query(mesh.points[some], k=min(13, len(used)), distance_upper_bound=max(2.5, 3 * edge))
    off = []
    for row in np.atleast_2d(np.asarray(near)):
        points = mesh.points[used[row[row < len(used)]]]
        if len(points) < 10:
            continue
        u, v = across(np.linalg.svd(points - points.mean(axis=0))[2][2])
        x, y = (points - points[0]) @ u, (points - points[0]) @ v
        z = (points - points[0]) @ np.cross(u, v)
        # A quadric through them: curvature is no noise.
        basis = np.stack([np.ones_like(x), x, y, x * x, x * y, y * y], axis=1)
        left = z - basis @ np.linalg.lstsq(basis, z, rcond=None)[0]
        off.append(np.sum(left**2) / max(len(points) - 6, 1))
    return float(np.sqrt(np.median(off))) if off else 0.0


def inward_of(stations: tuple[Station, ...]) -> Array:
    """At each station the direction in its plane towards the inside of the bend, shape (n, 3); where it runs straight,
    that of the rest."""
    along = np.array([s.along for s in stations])
    tangents = np.array([s.tangent for s in stations])
    bends = np.gradient(tangents, along, axis=0)
    axis = np.cross(tangents, bends)
    whole = (axis * np.gradient(along)[:, None]).sum(axis=0)
    if np.linalg.norm(whole) < STRAIGHT:  # nothing tells a floor from a roof
        u, _ = across(tangents[len(tangents) // 2])
        return unit_rows(u - (np.array([s.normal for s in stations]) @ u)[:, None] * [s.normal for s in stations])
    # Where the bend turns out of its plane its axis is followed, over a third of the length: a way that wobbles is
    # long.
    spread = max(len(stations) // 3, 3)
    kernel = np.hanning(spread + 2)[1:-1]
    kernel /= kernel.sum()
    local = np.stack([np.convolve(axis[:, i], kernel, "same") for i in range(3)], axis=1)
    mixed = local + np.linalg.norm(local, axis=1).max() * whole / np.linalg.norm(whole)
    found = np.cross(mixed, np.array([s.normal for s in stations]))
    return unit_rows(found)


def reach_of(one: Section, direction: Array) -> Array:
    """Where a ray from the centroid meets the ring."""
    from_centre = one.ring - one.centre
    side = np.cross(direction, _plane_normal(one))
    x, y = from_centre @ direction, from_centre @ side
    x1, y1 = np.roll(x, -1), np.roll(y, -1)
    crossing = (y <= 0) != (y1 <= 0)
    share = np.where(crossing, y / np.where(y == y1, 1.0, y - y1), 0.0)
    at = np.where(crossing, x + share * (x1 - x), -np.inf)
    out = max(float(at.max()), 0.0)
    # The ring within a millimetre to both sides, bent as the ring is there: the scanner's noise goes, the place stays.
    beside = (np.abs(y) < ABOUT) & (x > 0.7 * out)
    if beside.sum() > 5:
        out = float(np.polynomial.polynomial.polyfit(y[beside], x[beside], 2)[0])
    return np.asarray(one.centre + out * direction)


def _plane_normal(one: Section) -> Array:
    ring = one.ring - one.centre
    summed = np.cross(ring, np.roll(ring, -1, axis=0)).sum(axis=0)
    return np.asarray(summed / np.linalg.norm(summed))


def _side(stations: tuple[Station, ...], inward: Array, sign: int, face: End, seat: End) -> Array:
    """The curve along the floor (sign 1, the inside of the bend) or the roof, shape (k, 3)."""
    points = np.array([reach_of(s.section, sign * d) for s, d in zip(stations, inward, strict=True)])
    first = points[0] - ((points[0] - face.centre) @ face.normal) * face.normal
    last = points[-1] - ((points[-1] - seat.centre) @ seat.normal) * seat.normal
    return np.vstack([first, points, last])


def _smooth_curve(curve: Array) -> Array:
    """A curve of points, its noise taken out, at every quarter millimetre."""
    from scipy.interpolate import CubicSpline

    smooth = np.vstack([curve[:1], smoothed(curve[1:-1]), curve[-1:]])
    along = np.r_[0.0, np.cumsum(np.linalg.norm(np.diff(smooth, axis=0), axis=1))]
    keep = np.r_[True, np.diff(along) > 0.05]
    spline = CubicSpline(along[keep], smooth[keep])
    return np.asarray(spline(np.linspace(0, along[-1], max(int(along[-1] / 0.25), 40))))


def _long(curve: Array) -> float:
    return float(np.linalg.norm(np.diff(_smooth_curve(curve), axis=0), axis=1).sum())


def _short_side(stations: tuple[Station, ...], floor: Array) -> tuple[float | None, int | None]:
    """Radius of the floor where the line turns, and the station in the middle of that; None where it does not."""
    tangents = np.array([s.tangent for s in stations])
    axis = np.cross(tangents[:-1], tangents[1:]).sum(axis=0)
    if np.linalg.norm(axis) < np.radians(8):
        return None, None
    axis = axis / np.linalg.norm(axis)
    first = tangents[0] - (tangents[0] @ axis) * axis
    first = first / np.linalg.norm(first)
    heading = np.unwrap(np.arctan2(tangents @ np.cross(axis, first), tangents @ first))
    low, high = np.quantile(heading, [0.02, 0.98])  # what a taper or noise turns back is no bend
    share = np.maximum.accumulate(np.clip((heading - low) / max(high - low, 1e-9), 0, 1))
    bend = np.flatnonzero((share >= TURNS[0]) & (share <= TURNS[1]))
    middle = int(np.argmin(np.abs(share - 0.5)))
    trim = int(TRIMMED * len(bend))
    points = floor[1:-1][bend[trim : len(bend) - trim]]
    if len(points) < 5:
        return SHARP, middle
    centre = points.mean(axis=0)
    axes = np.linalg.svd(points - centre, full_matrices=False)[2]
    x, y = (points - centre) @ axes[0], (points - centre) @ axes[1]
    solved = np.linalg.lstsq(np.stack([2 * x, 2 * y, np.ones_like(x)], axis=1), x**2 + y**2, rcond=None)[0]
    radius = float(np.sqrt(max(solved[2] + solved[0] ** 2 + solved[1] ** 2, 0.0)))
    # That one is drawn inwards by noise: distances themselves are made small from there.
    start = [solved[0], solved[1], radius]

    def off(p: Array) -> Array:
        return np.asarray(np.hypot(x - p[0], y - p[1]) - p[2])

    found = least_squares(off, start, method="lm")
    return max(abs(float(found.x[2])), SHARP), middle


def _box(one: Section, up: Array) -> tuple[float, float, float | None]:
    """Width, height and corner radius of the rounded box that lies best on the ring; extents where none does."""
    normal = _plane_normal(one)
    side = np.cross(up, normal)
    x, y = (one.ring - one.centre) @ side, (one.ring - one.centre) @ up
    wide, high = float(np.ptp(x)), float(np.ptp(y))

    def off(p: Array) -> Array:
        cx, cy, w, h, share, angle = p
        corner = 1 / (1 + np.exp(-share)) * min(abs(w), abs(h)) / 2
        c, s = np.cos(angle), np.sin(angle)
        u, v = c * (x - cx) + s * (y - cy), -s * (x - cx) + c * (y - cy)
        qx, qy = np.abs(u) - abs(w) / 2 + corner, np.abs(v) - abs(h) / 2 + corner
        outside = np.hypot(np.maximum(qx, 0), np.maximum(qy, 0)) + np.minimum(np.maximum(qx, qy), 0)
        return np.asarray(outside - corner)

    best = least_squares(off, [(x.max() + x.min()) / 2, (y.max() + y.min()) / 2, wide, high, 0.0, 0.0], max_nfev=200)
    if np.sqrt(np.mean(best.fun**2)) > BOX or abs(best.x[5]) > np.pi / 6:
        return wide, high, None
    w, h = abs(float(best.x[2])), abs(float(best.x[3]))
    return w, h, float(1 / (1 + np.exp(-best.x[4])) * min(w, h) / 2)


def _under_seat(areas: Array, share: Array) -> int | None:
    """The last section under the seat that is smaller than those about it; None where there is none."""
    for i in range(len(areas) - 1 - WAIST, 0, -1):
        if share[i] < UNDER_SEAT:
            return None
        about = areas[max(i - WAIST, 0) : i + WAIST + 1]
        if areas[i] == about.min() and areas[i] < (1 - WAISTED) * min(about[0], about[-1]):
            return i
    return None


def _smallest(areas: Array, there: Bools) -> int | None:
    """The smallest section of a stretch; None where it lies at its edge."""
    stretch = np.flatnonzero(there)
    if not len(stretch):
        return None
    found = int(stretch[np.argmin(areas[stretch])])
    return found if stretch[0] < found < stretch[-1] else None


def _picks(
    stations: tuple[Station, ...], length: float, inward: Array, floor: Array
) -> tuple[dict[str, Pick], list[str]]:
    """Opening, pinch, short side, bowl and throat; those that stand at an edge are not named."""
    areas = np.array([s.flow_area for s in stations])
    share = np.array([s.along for s in stations]) / length
    notes, at = [], {"opening": 0}
    runner = np.flatnonzero((share > EDGE) & (share < BOWL))
    pinch = int(runner[np.argmin(areas[runner])]) if len(runner) else 0
    if len(runner) and runner[0] < pinch < runner[-1]:
        at["pinch"] = pinch
    else:
        notes.append(tr("The smallest section of the runner lies at its edge: no pinch is named."))
    valve = np.flatnonzero(share >= BOWL)
    throat = _under_seat(areas, share)
    if throat is None:
        throat = _smallest(areas, share >= BOWL)
    if throat is not None:
        at["throat"] = throat
    else:
        notes.append(tr("The smallest section by the valve lies at its edge: no throat is named."))
    before = valve if throat is None else valve[valve < throat]
    if len(before) > 2:
        at["bowl"] = int(before[np.argmax(areas[before])])
    radius, middle = _short_side(stations, floor)
    if middle is not None:
        at["short_side"] = middle
    found = {}
    for name, i in at.items():
        width, height, corner = _box(stations[i].section, -inward[i])
        circle = 2 * float(np.sqrt(areas[i] / np.pi)) if name in ("bowl", "throat") else None
        bend = radius if name == "short_side" else None
        found[name] = Pick(stations[i].along, float(areas[i]), width, height, corner, circle, bend)
    if radius is not None and radius <= SHARP:
        notes.append(Said("The short side's radius is under {}.", millimetres(SHARP, 0)))
    return found, notes


def checked(found: Measured) -> Measured:
    """The same, refused where nothing sound was measured."""
    if not found.stations or found.volume <= 0:
        raise Refused("Nothing was measured: the ends or the winding of the scan are wrong.")
    return found

"""Two scans of one port: where metal came off, and how deep. Everything in mm; removed metal is positive."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

import numpy as np
from scipy.ndimage import binary_dilation, binary_opening
from scipy.spatial import cKDTree

from ventrix.core.metal.unrolled import ZONES
from ventrix.core.model.kinds import Band, Place
from ventrix.core.quantity.arrays import Array, Bools
from ventrix.core.quantity.said import Said, millimetres
from ventrix.core.scan.march import Progress
from ventrix.core.scan.measure import Measured, inward_of, reach_of
from ventrix.words import tr

POINTS: Final = 20_000  # that the fit is made with
TRIM: Final = 1.5, 0.12  # mm off, from the first round to the last
APART: Final = 0.25  # mm off, of two ports as cast: the last round of theirs
ROUNDS: Final = 14
LEAST_KEPT: Final = 0.6
SHRUNK: Final = 0.0012
EVERY: Final = 2.0  # mm along
ANGLES: Final = 24
DISC: Final = 1.5  # mm
DEEPEST: Final = 4.0  # mm that a cut is looked for
LEAST_TOLD: Final = 0.025  # mm: what two scans at 0.05 tell apart
WORKED: Final = 0.35  # of a place: less above detection is scatter
SAME: Final = 1e-4  # mm rms: one file twice


@dataclass(frozen=True)
class PlaceTaken:
    """Metal taken at a place and side [mm], with U(0.05)."""

    place: str
    side: str
    depth: float
    u: float


@dataclass(frozen=True)
class Taken:
    """What came off between two scans.

    along, depth : stations [mm], shape (n,), and metal taken, shape (n, 24), angles from the floor by the right, roof
        and left; nan where nothing could be told
    strips : the same by side, shape (n, 4), floor, right, roof, left
    detection, speckle : the least that is told from nothing [mm], of a side or a place, and of one cell of `depth`
    volume, u_volume : of the worked patch [mm3]
    scale : of the second scan against the first; `kept`: share of its surface that did not change
    """

    along: Array
    depth: Array
    strips: Array
    detection: float
    speckle: float
    volume: float
    u_volume: float
    scale: float
    kept: float
    places: tuple[PlaceTaken, ...]
    notes: tuple[str, ...]


def compare(
    before: Measured,
    after: Measured,
    left_alone: tuple[float, float] | None = None,
    said: Progress = lambda _share: None,
    *,
    two_ports: bool = False,
) -> Taken:
    """Metal taken between two scans, or what one port has more of than another.

    Parameters
    ----------
    before, after : Measured
        Of the same port, in any pose.
    left_alone : pair of float, optional
        A stretch along the port that was not worked [mm from the face]: the two are laid on each other by it.
    said : callable
        Told how far it is; may raise to stop.
    two_ports : bool
        They are of two ports of one shape: each may differ anywhere, and they are laid on each other by all of it.

    Returns
    -------
    Taken

    References
    ----------
    Trimmed point-to-plane fit: Chen & Medioni (1992); Chetverikov et al. (2002).
    """
    turn, shift = _rigid(_marks(after), _marks(before))
    said(0.2)
    turn, shift, kept, scale = _fitted(before, after, turn, shift, left_alone, APART if two_ports else TRIM[1])
    said(0.6)
    along, grid, normals, cells = _grid(before)
    depth = _displaced(before, after, turn, shift, grid, normals)
    said(0.9)
    strips = folded(depth)
    # Of two ports the one may be smaller anywhere: what their scanners scatter by is all that is known.
    rough = float(np.hypot(before.noise, after.noise)) / 2
    scatter, apart = (rough, rough / 2) if two_ports else (_scatter(depth), _scatter(strips))
    speckle, detection = (max(LEAST_TOLD, 2 * s) for s in (scatter, apart))
    patch = np.isfinite(depth) if two_ports else _worked_patch(depth, speckle)
    volume, u_volume = _volume(depth, cells, patch, scatter)
    places = _places(along / before.length, depth, apart, np.inf if two_ports else speckle)
    notes = _same(depth) if two_ports else _notes(kept, scale, scatter, depth, left_alone)
    return Taken(along, depth, strips, detection, speckle, volume, u_volume, scale, kept, places, notes)


def folded(depth: Array) -> Array:
    """Metal taken by side, shape (n, 4), floor, right, roof and left: the mean over each side's quarter."""
    quarter = ANGLES // len(_SIDES)
    turned = np.roll(depth, quarter // 2, axis=1).reshape(len(depth), len(_SIDES), quarter)
    known = np.isfinite(turned).sum(axis=2)
    summed = np.nansum(turned, axis=2)
    return np.where(known > quarter // 2, summed / np.maximum(known, 1), np.nan)


def _scatter(depth: Array) -> float:
    """What two scans lie apart where nothing was cut [mm]: metal never grows, so by its negative half."""
    negative = depth[np.isfinite(depth) & (depth < 0)]
    return float(np.sqrt(np.mean(negative**2))) if len(negative) > 5 else 0.0


def _same(depth: Array) -> tuple[str, ...]:
    same = not np.isfinite(depth).any() or float(np.nanmax(np.abs(depth))) < SAME
    return (tr("Both scans are the same: it is one file twice, or nothing was cut."),) if same else ()


def _notes(kept: float, scale: float, scatter: float, depth: Array, left_alone: object) -> tuple[str, ...]:
    said = [*_same(depth)]
    if not said and kept < LEAST_KEPT and left_alone is None:
        said.append(tr("Too little surface is unchanged: say which stretch you left alone."))
    if abs(scale - 1) > SHRUNK:
        off = 100 * abs(scale - 1)
        said.append(tr("One mold has shrunk, by {:.2f} %: give the seat diameter of both.", off))
    if 2 * scatter > 2 * LEAST_TOLD:
        apart = millimetres(2 * scatter)
        said.append(Said("The two lie {} apart where nothing was cut: less than that is not told.", apart))
    return tuple(said)


def _marks(one: Measured) -> Array:
    """Points that both scans have: the line, floor and roof at equal shares of the length."""
    stations = one.stations
    share = np.array([s.along for s in stations]) / one.length
    inward = inward_of(stations)
    sides = [[reach_of(s.section, sign * d) for s, d in zip(stations, inward, strict=True)] for sign in (1, -1)]
    curves = [[s.section.centre for s in stations], *sides]
    at = np.linspace(0.05, 0.95, 19)
    return np.concatenate(
        [np.stack([np.interp(at, share, np.array(c)[:, i]) for i in range(3)], axis=1) for c in curves]
    )


def _rigid(these: Array, those: Array) -> tuple[Array, Array]:
    """The turn and shift that lay these points on those."""
    a, b = these.mean(axis=0), those.mean(axis=0)
    u, _, v = np.linalg.svd((these - a).T @ (those - b))
    turn = v.T @ np.diag([1, 1, np.sign(np.linalg.det(v.T @ u.T))]) @ u.T
    return turn, b - turn @ a


def _fitted(
    before: Measured,
    after: Measured,
    turn: Array,
    shift: Array,
    left_alone: tuple[float, float] | None,
    closest: float,
) -> tuple[Array, Array, float, float]:
    """Point to plane, what is off trimmed away ever closer; and the scale that what is left would have."""
    middles, normals = before.mesh.middles, before.mesh.normals
    tree = cKDTree(middles)
    random = np.random.default_rng(6)
    faces = after.mesh.areas > 0
    weights = after.mesh.areas[faces]
    chosen = random.choice(
        np.flatnonzero(faces), min(POINTS, int(faces.sum())), replace=False, p=weights / weights.sum()
    )
    points = after.mesh.middles[chosen]
    own = after.mesh.normals[chosen]
    if left_alone is not None:
        _, station = cKDTree([s.section.centre for s in before.stations]).query(points @ turn.T + shift)
        at = np.array([s.along for s in before.stations])[station]
        inside = (at >= left_alone[0]) & (at <= left_alone[1])
        points, own = points[inside], own[inside]
    trims = np.geomspace(TRIM[0], closest, ROUNDS)
    kept, scale = 0.0, 1.0
    for trim in (*trims, *[closest] * 4):
        placed = points @ turn.T + shift
        _, near = tree.query(placed)
        off = np.einsum("ij,ij->i", placed - middles[near], normals[near])
        alike = np.einsum("ij,ij->i", own @ turn.T, normals[near]) > 0.7
        good = alike & (np.abs(off - np.median(off[alike]) * (trim > 0.5)) < trim)
        kept = float(np.mean(np.abs(off[alike]) < TRIM[1])) if alike.any() else 0.0
        if good.sum() < 60:
            break
        p, n = placed[good], normals[near][good]
        about = p.mean(axis=0)
        rows = np.concatenate([np.cross(p - about, n), n], axis=1)
        step = np.linalg.lstsq(rows, -off[good], rcond=None)[0]
        with_scale = np.concatenate([rows, np.einsum("ij,ij->i", p - about, n)[:, None]], axis=1)
        scale = 1 - float(np.linalg.lstsq(with_scale, -off[good], rcond=None)[0][6])
        small = _turned(step[:3])
        turn, shift = small @ turn, small @ (shift - about) + about + step[3:]
    return turn, shift, kept, scale


def _turned(by: Array) -> Array:
    """The rotation by a small vector (Rodrigues)."""
    angle = float(np.linalg.norm(by))
    if angle < 1e-12:
        return np.eye(3)
    k = by / angle
    cross = np.array([[0, -k[2], k[1]], [k[2], 0, -k[0]], [-k[1], k[0], 0]])
    return np.asarray(np.eye(3) + np.sin(angle) * cross + (1 - np.cos(angle)) * cross @ cross)


def _grid(before: Measured) -> tuple[Array, Array, Array, Array]:
    """Points on the surface before, every 2 mm and 15 degrees, their normals, and the surface that each stands for."""
    stations, inward = before.stations, inward_of(before.stations)
    steps = max(int(EVERY / np.median(np.diff([s.along for s in stations]))), 1)
    tree = cKDTree(before.mesh.points)
    along, points = [], []
    for s, floor in list(zip(stations, inward, strict=True))[steps // 2 :: steps]:
        right = np.cross(floor, s.normal)  # looking with the air, the roof above
        angles = 2 * np.pi * np.arange(ANGLES) / ANGLES
        rows = np.array([reach_of(s.section, np.cos(a) * floor + np.sin(a) * right) for a in angles])
        along.append(s.along)
        points.append(rows)
    grid = np.array(points)
    around = np.linalg.norm(np.roll(grid, -1, axis=1) - np.roll(grid, 1, axis=1), axis=2) / 2
    forward = np.linalg.norm(np.gradient(grid, axis=0), axis=2)
    _, near = tree.query(grid.reshape(-1, 3), k=6)
    normals = before.mesh.at_points[near].mean(axis=1)
    normals /= np.maximum(np.linalg.norm(normals, axis=1), 1e-12)[:, None]
    return np.array(along), grid, normals.reshape(grid.shape), around * forward


def _displaced(before: Measured, after: Measured, turn: Array, shift: Array, grid: Array, normals: Array) -> Array:
    """Mean height of the surface after, less before, within a disc along the normal of each point of the grid."""
    heights = []
    for mesh, moved in ((after.mesh, True), (before.mesh, False)):
        middles = mesh.middles
        facing = mesh.normals
        if moved:
            middles, facing = middles @ turn.T + shift, facing @ turn.T
        tree = cKDTree(middles)
        found = np.full(grid.shape[:2], np.nan)
        near = tree.query_ball_point(grid.reshape(-1, 3), np.hypot(DISC, DEEPEST if moved else DISC))
        for i, (index, at, normal) in enumerate(zip(near, grid.reshape(-1, 3), normals.reshape(-1, 3), strict=True)):
            rows = np.array(index, dtype=int)
            if not len(rows):
                continue
            away = middles[rows] - at
            up = away @ normal
            flat = np.linalg.norm(away - up[:, None] * normal, axis=1)
            good = (flat < DISC) & (facing[rows] @ normal > 0.5)
            if good.sum() >= 3:
                found.ravel()[i] = np.average(up[good], weights=mesh.areas[rows[good]])
        heights.append(found)
    return np.asarray(heights[0] - heights[1])


def _worked_patch(depth: Array, speckle: float) -> Bools:
    """Cells that were worked, widened by two: cutting off what is small would lose a third of the volume."""
    worked = np.nan_to_num(depth) > speckle
    wrapped = np.concatenate([worked[:, -3:], worked, worked[:, :3]], axis=1)
    patch = binary_opening(wrapped, np.ones((2, 2), dtype=bool))
    return np.asarray(binary_dilation(patch, np.ones((3, 3), dtype=bool), iterations=2)[:, 3:-3])


def _volume(depth: Array, cells: Array, patch: Bools, scatter: float) -> tuple[float, float]:
    """Of a patch [mm3], summed as it is, with U(0.05)."""
    if not patch.any():
        return 0.0, float(2 * scatter * np.sqrt(cells.size) * np.median(cells))
    volume = float(np.nansum(np.where(patch, depth * cells, 0.0)))
    area = float(cells[patch].sum())
    # Cells by themselves, and what the whole patch may lie off by.
    return volume, float(2 * np.hypot(scatter * np.sqrt(np.sum(cells[patch] ** 2)), 0.006 * area))


_SIDES: Final = {Band.FLOOR: 0, Band.RIGHT: 6, Band.ROOF: 12, Band.LEFT: 18}


def _places(share: Array, depth: Array, apart: float, speckle: float) -> tuple[PlaceTaken, ...]:
    """Metal taken by place and side: the middle of what is worked there, else the mean of all of it."""
    found = []
    for zone in ZONES:
        if zone.name == Place.SEAT:
            continue
        rows = (share >= zone.start) & (share <= zone.end)
        for band in zone.bands:
            columns = (_SIDES[Band(band)] + np.arange(-2, 3)) % ANGLES
            cells = depth[np.ix_(rows, columns)]
            cells = cells[np.isfinite(cells)]
            if len(cells) < 4:
                continue
            above = cells > speckle
            worked = cells[cells > 0.7 * np.quantile(cells, 0.9)] if above.mean() > WORKED else cells
            own = float(np.std(worked)) / len(worked) ** 0.5
            u = float(max(LEAST_TOLD, 2 * np.hypot(own, apart)))
            found.append(PlaceTaken(str(zone.name), str(band), float(np.median(worked)), u))
    return tuple(found)

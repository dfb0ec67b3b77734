"""Along the middle of a port: where its line runs, and a section at every millimetre. Everything in mm."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Final

import numpy as np
from scipy.interpolate import CubicSpline, splev, splprep
from scipy.sparse import coo_matrix, diags
from scipy.sparse.linalg import spsolve
from scipy.spatial import cKDTree

from ventrix.core.quantity.arrays import Array, Bools, Ints
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.said import millimetres
from ventrix.core.scan.ends import End
from ventrix.core.scan.mesh import Mesh
from ventrix.core.scan.sections import Section, section, unit_rows

CELL: Final = 2.5  # mm of the cells that the rough line is found on
LEVELS: Final = 10
ROUGH: Final = 3.0  # mm between stations
FINE: Final = 1.0
ROUNDS: Final = 12
SETTLED: Final = 0.06  # mm
DAMPED: Final = 0.6, 3  # of a move, from this round on
SPLINE: Final = 0.15  # mm rms that the line may leave its centroids by
ROUGHLY: Final = 2.5  # mm, that it may leave the first rough levels by
NORMALS: Final = 3.0, 1.5, 14.0  # mm over which they are smoothed; times this while planes cross, at most
BLENDED: Final = 12.0  # mm from an end over which they become its own
REACH: Final = 18.0, 12.0  # mm along the line from a station: triangles that may be cut, at first and later
ODD: Final = 0.35  # off the median of seven: no section of this port
INSIDE: Final = 0.6  # mm that the first and last section stand inside the ends

Progress = Callable[[float], None]


@dataclass(frozen=True)
class Station:
    """A section and the line there: how far from the face [mm], the line's direction, the plane's normal."""

    along: float
    section: Section
    tangent: Array
    normal: Array

    @property
    def flow_area(self) -> float:
        """Across the line [mm2]."""
        return self.section.area * abs(float(self.normal @ self.tangent))


@dataclass(frozen=True)
class March:
    """Stations that closed, of `tried`; the line's length [mm]; and along which stretches planes still cross."""

    stations: tuple[Station, ...]
    tried: int
    length: float
    crossing: tuple[float, ...]


def march(mesh: Mesh, face: End, seat: End, said: Progress = lambda _share: None) -> March:
    """Sections of a port from its face to its seat.

    Parameters
    ----------
    mesh : Mesh
        Cleaned and trimmed.
    face, seat : End
        Normals out of the port.
    said : callable
        Called with how far it is, 0 to 1; may raise to stop.

    Returns
    -------
    March

    Raises
    ------
    ValueError
        The line does not come to rest, or too few sections close.
    """
    wall = Mesh(mesh.points, mesh.faces[~(face.cap | seat.cap)]) if (face.cap | seat.cap).any() else mesh
    points = _rough_line(wall, face, seat)
    middles = wall.middles
    smooth = NORMALS[0]
    for turn in range(ROUNDS):
        said(0.1 + 0.6 * turn / ROUNDS)
        line = _Line(points, face, seat, ROUGH, smooth, ROUGHLY if turn == 0 else SPLINE)
        rings = _rings(wall, middles, line, REACH[0] if turn < 3 else REACH[1])
        kept = [(s, r) for s, r in zip(line.along, rings, strict=True) if r is not None]
        if len(kept) < 5:
            raise Refused("{} of {} sections would not close: too many holes.", len(rings) - len(kept), len(rings))
        crossing = _crossing(line, rings)
        weight = 1.0 if turn < DAMPED[1] else DAMPED[0]
        moved = _moved(line, kept, weight)
        away = np.linalg.norm(moved[1:-1] - line.points, axis=1)
        off = float(away.max())
        points = moved
        if crossing and smooth < NORMALS[2]:
            smooth = min(smooth * NORMALS[1], NORMALS[2])
        elif off < SETTLED:
            break
    else:
        if off > 20 * SETTLED:
            where = float(line.along[int(np.argmax(away))])
            raise Refused("The air path does not come to rest around {}.", millimetres(where, 0))
    line = _Line(points, face, seat, FINE, smooth)
    said(0.75)
    rings = _rings(wall, middles, line, REACH[1])
    said(0.9)
    return _checked(line, rings)


def _rough_line(mesh: Mesh, face: End, seat: End) -> Array:
    """Means of ten levels of a harmonic field between the two ends, on cells of the surface."""
    used = np.unique(mesh.faces)
    cells, of_point = np.unique(np.floor(mesh.points[used] / CELL).astype(np.int64), axis=0, return_inverse=True)
    of_point = of_point.reshape(-1)
    n = len(cells)
    index = np.zeros(len(mesh.points), dtype=np.int64)
    index[used] = of_point
    links = index[mesh.faces]
    rows = np.r_[links[:, 0], links[:, 1], links[:, 2]]
    cols = np.r_[links[:, 1], links[:, 2], links[:, 0]]
    graph = coo_matrix((np.ones(len(rows)), (rows, cols)), shape=(n, n)).tocsr()
    graph = graph + graph.T
    graph.setdiag(0)
    graph.data[:] = 1.0
    graph.eliminate_zeros()
    middle = np.zeros((n, 3))
    np.add.at(middle, of_point, mesh.points[used])
    middle /= np.bincount(of_point, minlength=n)[:, None]
    held = {}
    for value, end in ((0.0, face), (1.0, seat)):
        inside = np.abs((middle - end.centre) @ end.normal) < 1.2 * CELL
        near = np.linalg.norm(middle - end.centre, axis=1) < 1.3 * _radius(mesh, end)
        for i in np.flatnonzero(inside & near):
            held[int(i)] = value
    if not {0.0, 1.0} <= set(held.values()):
        raise Refused("The ends do not lie on the scan: click them.")
    fixed = np.array(sorted(held))
    values = np.array([held[int(i)] for i in fixed])
    free = np.setdiff1d(np.arange(n), fixed)
    laplacian = (diags(np.asarray(graph.sum(axis=1)).ravel()) - graph).tocsr()
    field = np.zeros(n)
    field[fixed] = values
    isolated = np.asarray(graph.sum(axis=1)).ravel()[free] == 0
    free = free[~isolated]
    field[free] = spsolve(laplacian[free][:, free].tocsc(), -laplacian[free][:, fixed] @ values)
    levels = []
    half = 0.5 / LEVELS
    of_face = field[links].mean(axis=1)
    for level in np.linspace(half, 1 - half, LEVELS):
        near = np.abs(of_face - level) < half
        if near.sum() >= 6:
            levels.append(np.average(mesh.corners[near].mean(axis=1), axis=0, weights=mesh.areas[near]))
    if len(levels) < 4:
        raise Refused("The ends are not joined by the scan.")
    return np.vstack([face.centre, *levels, seat.centre])


def _radius(mesh: Mesh, end: End) -> float:
    """How far the outline of an end reaches from its middle [mm]."""
    near = np.abs((mesh.points - end.centre) @ end.normal) < CELL
    away = np.linalg.norm(mesh.points[near] - end.centre, axis=1)
    away = away[away < 80]
    return float(np.quantile(away, 0.98)) if len(away) else 30.0


class _Line:
    """A smooth line through points with its planes: stations every so far, the first and last just inside the ends."""

    def __init__(self, points: Array, face: End, seat: End, step: float, smooth: float, off: float = SPLINE) -> None:
        along = np.r_[0.0, np.cumsum(np.linalg.norm(np.diff(points, axis=0), axis=1))]
        keep = np.r_[True, np.diff(along) > 1e-6]
        points, along = points[keep], along[keep]
        count = len(points)
        if count > 6:
            weights = np.ones(count)
            weights[[0, -1]] = 30.0  # the ends are known
            spline, _ = splprep(points.T, w=weights, u=along, s=count * off**2)
            curve: Callable[[Array], Array] = lambda s: np.asarray(splev(s, spline)).T  # type: ignore[call-overload]  # noqa: E731
        else:
            cubic = CubicSpline(along, points)
            curve = lambda s: np.asarray(cubic(s))  # noqa: E731
        dense = curve(np.linspace(0, along[-1], max(int(along[-1] / 0.25), 40)))
        lengths = np.r_[0.0, np.cumsum(np.linalg.norm(np.diff(dense, axis=0), axis=1))]
        self.length = float(lengths[-1])
        inner = np.linspace(INSIDE, self.length - INSIDE, max(round((self.length - 2 * INSIDE) / step) + 1, 6))
        self.along = inner
        self.points = np.stack([np.interp(inner, lengths, dense[:, i]) for i in range(3)], axis=1)
        self.face, self.seat = face, seat
        tangents = np.gradient(dense, lengths, axis=0)
        tangents /= np.linalg.norm(tangents, axis=1)[:, None]
        self.tangents = unit_rows(np.stack([np.interp(inner, lengths, tangents[:, i]) for i in range(3)], axis=1))
        self.normals = _normals(lengths, tangents, inner, -face.normal, seat.normal, smooth)


def _normals(lengths: Array, tangents: Array, at: Array, first: Array, last: Array, smooth: float) -> Array:
    """Tangents smoothed, reflected at the ends, and blended there into the end planes' own normals."""
    step = lengths[-1] / (len(lengths) - 1)
    wide = min(int(4 * smooth / step), len(tangents) - 1)
    # Odd reflection: past an end the line goes on as it came.
    before = 2 * tangents[0] - tangents[1 : wide + 1][::-1]
    after = 2 * tangents[-1] - tangents[-wide - 1 : -1][::-1]
    whole = np.vstack([before, tangents, after])
    kernel = np.exp(-0.5 * (np.arange(-wide, wide + 1) * step / smooth) ** 2)
    kernel /= kernel.sum()
    made = np.stack([np.convolve(whole[:, i], kernel, "valid") for i in range(3)], axis=1)
    found = np.stack([np.interp(at, lengths, made[: len(lengths), i]) for i in range(3)], axis=1)
    # An end that lies askew to the line tilts the planes near it, by what it is askew.
    for value, own, away in ((first, tangents[0], at), (last, tangents[-1], lengths[-1] - at)):
        share = np.clip(away / BLENDED, 0, 1)[:, None]
        found = found + (1 - share * share * (3 - 2 * share)) * (value - own)
    return unit_rows(found)


def _rings(mesh: Mesh, middles: Array, line: _Line, reach: float) -> list[Section | None]:
    """The section at every station, of triangles near it along the line."""
    _, nearest = cKDTree(line.points).query(middles, workers=1)
    at = line.along[nearest]
    order: Ints = np.asarray(np.argsort(at, kind="stable"), dtype=np.int64)
    at, middles, reaches = at[order], middles[order], mesh.reaches[order]
    found = []
    for s, point, normal in zip(line.along, line.points, line.normals, strict=True):
        low, high = np.searchsorted(at, [s - reach, s + reach])
        off = np.abs((middles[low:high] - point) @ normal)
        found.append(section(mesh, order[low:high][off <= reaches[low:high]], point, normal))
    return found


def _crossing(line: _Line, rings: list[Section | None]) -> list[float]:
    """Stations whose own ring reaches past the next plane, or behind the one before."""
    found = []
    for i in range(len(rings) - 1):
        one, two = rings[i], rings[i + 1]
        if one is None or two is None:
            continue
        past = ((one.ring - line.points[i + 1]) @ line.normals[i + 1]).max() > 0
        behind = ((two.ring - line.points[i]) @ line.normals[i]).min() < 0
        if past or behind:
            found.append(float(line.along[i]))
    return found


def _moved(line: _Line, kept: list[tuple[float, Section]], weight: float) -> Array:
    """The line's points drawn to the centroids of their sections; those whose section did not close follow."""
    areas = np.array([r.area for _, r in kept])
    good = _plausible(areas)
    at = np.array([s for s, _ in kept])[good]
    centres = np.array([r.centre for _, r in kept])[good]
    there = np.stack([np.interp(line.along, at, centres[:, i]) for i in range(3)], axis=1)
    moved = line.points + weight * (there - line.points)
    return np.vstack([line.face.centre, moved, line.seat.centre])


def _plausible(areas: Array) -> Bools:
    """Sections within a third of the median of the seven about them."""
    padded = np.pad(areas, 3, mode="edge")
    middle = np.median(np.lib.stride_tricks.sliding_window_view(padded, 7), axis=1)
    return np.asarray(np.abs(areas / middle - 1) < ODD)


def _checked(line: _Line, rings: list[Section | None]) -> March:
    closed = [i for i, r in enumerate(rings) if r is not None]
    if len(closed) < 0.5 * len(rings):
        raise Refused("{} of {} sections would not close: too many holes.", len(rings) - len(closed), len(rings))
    areas = np.array([r.area for r in rings if r is not None])
    good = [i for i, fine in zip(closed, _plausible(areas), strict=True) if fine]
    stations = []
    centres = {i: rings[i].centre for i in good}  # type: ignore[union-attr]
    # The line's own direction is that of the true centroids.
    order = np.array(good)
    path = np.array([centres[i] for i in good])
    tangents = unit_rows(np.gradient(smoothed(path), line.along[order], axis=0))
    for i, tangent in zip(good, tangents, strict=True):
        ring = rings[i]
        assert ring is not None
        stations.append(Station(float(line.along[i]), ring, tangent, line.normals[i]))
    whole = np.vstack([line.face.centre, smoothed(path), line.seat.centre])
    length = float(np.linalg.norm(np.diff(whole, axis=0), axis=1).sum())
    return March(tuple(stations), len(rings), length, tuple(_crossing(line, rings)))


def smoothed(path: Array) -> Array:
    """A path of points about a millimetre apart, shape (n, 3), by cubics over eleven of them."""
    from scipy.signal import savgol_filter

    wide = min(11, len(path) - 1 + len(path) % 2)
    return np.asarray(savgol_filter(path, wide, 3, axis=0)) if wide > 3 else path

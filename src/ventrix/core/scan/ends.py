"""Where a port ends: open edges of the surface, or flats of a mould. An automatic search only proposes."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

import numpy as np
from scipy.sparse import coo_matrix
from scipy.sparse.csgraph import connected_components
from scipy.spatial import ConvexHull

from ventrix.core.quantity.arrays import Array, Bools
from ventrix.core.quantity.refused import Refused
from ventrix.core.scan.mesh import Mesh
from ventrix.core.scan.sections import across, section
from ventrix.words import tr

WIDE: Final = 18.0  # mm across: a smaller opening is a hole
FLAT: Final = 0.15  # mm, and three times the noise
LEANS: Final = 0.92  # cosine between a triangle of a flat and its plane: 23 degrees, for noise
NEAR: Final = 12.0  # mm from a click to the end it means
SEEDS: Final = 240
ROUND: Final = 1.08  # of the widest over the narrowest: rounder than that is a seat
TRIES: Final = 12  # of fitting a plane to what grew


@dataclass(frozen=True)
class End:
    """An end of a port: a point in its plane and the plane's normal, out of the port [mm]; how round its outline is
    (widest over narrowest), and which triangles lie in it: none where it is open."""

    centre: Array
    normal: Array
    roundness: float
    cap: Bools


def find_ends(mesh: Mesh, clicks: tuple[Array | None, Array | None] = (None, None)) -> tuple[End, End, list[str]]:
    """The manifold face and the seat.

    Parameters
    ----------
    mesh : Mesh
        Cleaned.
    clicks : pair of array, optional
        Points on the face and on the seat [mm]; what is not clicked is found.

    Returns
    -------
    face, seat : End
    notes : list of str
        "Both ends look alike" where nothing tells which is the seat.

    Raises
    ------
    ValueError
        Two flat ends were not found.
    """
    if clicks[0] is not None and clicks[1] is not None:
        face, seat = _near(mesh, clicks[0]), _near(mesh, clicks[1])
        swapped = face.roundness < ROUND <= seat.roundness
        return face, seat, [tr("The seat that was clicked is less round than the face: are they swapped?")] * swapped
    found = _proposed(mesh)
    for i, click in enumerate(clicks):
        if click is not None:
            mine = _near(mesh, click)
            other = max(found, key=lambda e: float(np.linalg.norm(e.centre - mine.centre)), default=None)
            if other is None:
                raise Refused("Two flat ends were not found: click them.")
            return (mine, other, []) if i == 0 else (other, mine, [])
    if len(found) < 2:
        raise Refused("Two flat ends were not found: click them.")
    one, two = found[:2]
    if (one.roundness < ROUND) == (two.roundness < ROUND):
        note = tr("Both ends look alike: which is the seat?")
        # The smaller one is proposed: a seat is rarely the larger.
        return (one, two, [note])
    return (two, one, []) if one.roundness < ROUND else (one, two, [])


def _proposed(mesh: Mesh) -> list[End]:
    """The two widest open ends, and flats where there are fewer."""
    found = sorted(_open_ends(mesh), key=lambda e: -e[0])
    ends = [end for _, end in found[:2]]
    if len(ends) < 2:
        apart = [f for f in _flats(mesh, 2) if all(np.linalg.norm(f.centre - e.centre) > WIDE for e in ends)]
        ends += apart[: 2 - len(ends)]
    return ends


def _near(mesh: Mesh, click: Array) -> End:
    """The end that a point lies in: an open edge, a flat, or a plane across the surface there."""
    rings = [
        end
        for wide, end in _open_ends(mesh)
        if abs((click - end.centre) @ end.normal) < NEAR / 2 and np.linalg.norm(click - end.centre) < wide
    ]
    if rings:
        return min(rings, key=lambda e: float(np.linalg.norm(e.centre - click)))
    middles = mesh.middles
    away = np.linalg.norm(middles - click, axis=1)
    for seed in np.argsort(away)[:SEEDS:12]:
        if away[seed] > NEAR:
            break
        grown = _grow(mesh, int(seed))
        if grown is not None:
            return grown
    # A mould that goes on past its end: a plane across it, at right angles to where it leads.
    close = mesh.points[np.linalg.norm(mesh.points - click, axis=1) < 3 * NEAR]
    if len(close) < 30:
        raise Refused("The point clicked is not on the scan.")
    faces = np.linalg.norm(middles - click, axis=1) < 3 * NEAR
    weighed = (mesh.normals[faces] * mesh.areas[faces][:, None]).T @ mesh.normals[faces]
    along = np.linalg.eigh(weighed)[1][:, 0]  # normals of a tube stand across it
    out = along if along @ (click - mesh.points.mean(axis=0)) > 0 else -along
    ring = section(mesh, np.arange(len(mesh.faces)), np.asarray(click, dtype=float), out)
    if ring is None:
        raise Refused("The scan does not close where it was clicked.")
    return End(ring.centre, out, _roundness(ring.ring, ring.centre, out), np.zeros(len(mesh.faces), dtype=bool))


def _open_ends(mesh: Mesh) -> list[tuple[float, End]]:
    """Openings wider than a hole, with how wide."""
    edges = mesh.open_edges
    if not len(edges):
        return []
    n = len(mesh.points)
    _, label = connected_components(coo_matrix((np.ones(len(edges)), edges.T), shape=(n, n)), directed=False)
    found = []
    none = np.zeros(len(mesh.faces), dtype=bool)
    for ring in np.unique(label[edges[:, 0]]):
        own = edges[label[edges[:, 0]] == ring]
        points = mesh.points[np.unique(own)]
        wide = float(np.linalg.norm(np.ptp(points, axis=0)))
        if wide < WIDE:
            continue
        lengths = np.linalg.norm(mesh.points[own[:, 0]] - mesh.points[own[:, 1]], axis=1)
        middles = mesh.points[own].mean(axis=1)
        plane = np.average(middles, axis=0, weights=lengths)
        normal = np.linalg.svd((middles - plane) * np.sqrt(lengths)[:, None], full_matrices=False)[2][2]
        if np.ptp((points - plane) @ normal) > 0.35 * wide:
            continue  # a tear along the side is no end
        out, round_by = _outward(mesh, plane, normal), _roundness(points, plane, normal)
        found.append((wide, End(_middle(points, plane, normal), out, round_by, none)))
    return found


def _outward(mesh: Mesh, at: Array, normal: Array) -> Array:
    """The side of a plane on which less of the surface near it lies."""
    away = np.linalg.norm(mesh.points - at, axis=1)
    near = away < max(2 * WIDE, 1.5 * float(away.min()) + WIDE)
    return normal if float(np.mean((mesh.points[near] - at) @ normal)) < 0 else -normal


def _in_plane(points: Array, at: Array, normal: Array) -> Array:
    u, v = across(normal)
    return np.stack([(points - at) @ u, (points - at) @ v], axis=1)


def _middle(points: Array, at: Array, normal: Array) -> Array:
    """The centroid of the area that a ring of points goes round."""
    flat = _in_plane(points, at, normal)
    hull = flat[ConvexHull(flat).vertices]
    after = np.roll(hull, -1, axis=0)
    cross = hull[:, 0] * after[:, 1] - after[:, 0] * hull[:, 1]
    centre = ((hull + after) * cross[:, None]).sum(axis=0) / (3 * cross.sum())
    u, v = across(normal)
    return np.asarray(at + centre[0] * u + centre[1] * v)


def _roundness(points: Array, at: Array, normal: Array) -> float:
    """Widest over narrowest, over all directions."""
    flat = _in_plane(points, at, normal)
    angles = np.linspace(0, np.pi, 24, endpoint=False)
    wide = np.ptp(flat @ np.stack([np.cos(angles), np.sin(angles)]), axis=0)
    return float(wide.max() / max(wide.min(), 1e-9))


def _flats(mesh: Mesh, wanted: int) -> list[End]:
    """The largest flats of a closed mould that are wider than a hole, apart from one another."""
    random = np.random.default_rng(4)
    total = mesh.areas.sum()
    found: list[tuple[float, End]] = []
    seeds = random.choice(len(mesh.faces), size=SEEDS, p=mesh.areas / total)
    taken = np.zeros(len(mesh.faces), dtype=bool)
    for seed in seeds:
        if taken[seed]:
            continue
        end = _grow(mesh, int(seed))
        if end is not None:
            taken |= end.cap
            found.append((float(mesh.areas[end.cap].sum()), end))
    found.sort(key=lambda f: -f[0])
    return [end for _, end in found[:wanted]]


def _grow(mesh: Mesh, seed: int) -> End | None:
    """The flat around a triangle: what joins it within the plane's tolerance; None where that is no wide, filled
    outline."""
    middles = mesh.middles
    near = np.linalg.norm(middles - middles[seed], axis=1) < WIDE / 3
    bulge = np.abs((middles[near] - middles[seed]) @ mesh.normals[seed])
    if np.quantile(bulge, 0.9) > 2 * FLAT:  # a wall of a port is rounder than that
        return None
    at, normal = np.average(middles[near], axis=0, weights=mesh.areas[near]), mesh.normals[seed]
    kept = near & (mesh.normals @ normal > LEANS)
    for _ in range(TRIES):
        if not kept.any():
            return None
        at = np.average(middles[kept], axis=0, weights=mesh.areas[kept])
        away = (middles[kept] - at) * np.sqrt(mesh.areas[kept])[:, None]
        normal = np.linalg.svd(away, full_matrices=False)[2][2]
        normal = normal if normal @ mesh.normals[seed] > 0 else -normal
        noise = float(np.sqrt(np.mean(((middles[kept] - at) @ normal) ** 2)))
        inside = (np.abs((mesh.corners - at) @ normal) < FLAT + 3 * min(noise, 0.15)).all(axis=1)
        candidates = inside & (mesh.normals @ normal > LEANS)
        grown = mesh.hangs_with(candidates, middles[seed])
        if (grown == kept).all():
            break
        kept = grown
    if mesh.areas[kept].sum() < np.pi / 4 * WIDE**2 * 0.8:
        return None
    points = mesh.points[np.unique(mesh.faces[kept])]
    flat = _in_plane(points, at, normal)
    filled = mesh.areas[kept].sum() / ConvexHull(flat).volume
    narrow = min(np.ptp(flat @ np.array([np.cos(a), np.sin(a)])) for a in np.linspace(0, np.pi, 12))
    if filled < 0.8 or narrow < 0.8 * WIDE:
        return None
    return End(_middle(points, at, normal), normal, _roundness(points, at, normal), kept)

"""A surface of triangles made fit to be measured: welded, of one winding, its largest piece. Everything in mm."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property
from typing import Final

import numpy as np
from scipy.sparse import coo_matrix
from scipy.sparse.csgraph import connected_components

from ventrix.core.quantity.arrays import Array, Bools, Ints
from ventrix.core.quantity.refused import Refused

WELD: Final = 1e-6  # of the diagonal
ONE_PIECE: Final = 0.8  # of the surface


@dataclass(frozen=True)
class Mesh:
    """Points, shape (n, 3) [mm], and triangles, shape (m, 3), all wound alike."""

    points: Array
    faces: Ints

    @cached_property
    def corners(self) -> Array:
        """Corner points of every triangle, shape (m, 3, 3)."""
        return self.points[self.faces]

    @cached_property
    def _cross(self) -> Array:
        a, b, c = (self.corners[:, i] for i in range(3))
        return np.cross(b - a, c - a)

    @cached_property
    def areas(self) -> Array:
        """Of every triangle [mm2], shape (m,)."""
        return np.asarray(np.linalg.norm(self._cross, axis=1) / 2)

    @cached_property
    def normals(self) -> Array:
        """Of every triangle, of length one, shape (m, 3)."""
        return np.asarray(self._cross / np.maximum(2 * self.areas, 1e-12)[:, None])

    @cached_property
    def edges(self) -> tuple[Ints, Ints]:
        """Edges once each, shape (e, 2), and the three of every triangle as indices, shape (m, 3)."""
        return edges_of(self.faces)

    @cached_property
    def open_edges(self) -> Ints:
        """Edges of one triangle only, shape (k, 2)."""
        edges, of_face = self.edges
        used = np.bincount(of_face.ravel(), minlength=len(edges))
        return np.asarray(edges[used == 1])

    @cached_property
    def at_points(self) -> Array:
        """Normals at the points, by area, shape (n, 3)."""
        summed = np.zeros_like(self.points)
        for i in range(3):
            np.add.at(summed, self.faces[:, i], self._cross)
        return np.asarray(summed / np.maximum(np.linalg.norm(summed, axis=1), 1e-12)[:, None])

    @cached_property
    def middles(self) -> Array:
        """Of every triangle, shape (m, 3)."""
        return np.asarray(self.corners.mean(axis=1))

    @cached_property
    def reaches(self) -> Array:
        """How far the corners of every triangle reach from its middle [mm], shape (m,)."""
        return np.asarray(np.linalg.norm(self.corners - self.middles[:, None, :], axis=2).max(axis=1))

    def hangs_with(self, candidates: Bools, at: Array) -> Bools:
        """Those triangles of the candidates that hang together with the one nearest to a point, shape (m,)."""
        index = np.flatnonzero(candidates)
        found = np.zeros(len(self.faces), dtype=bool)
        if not len(index):
            return found
        faces, n = self.faces[index], len(self.points)
        rows, cols = np.r_[faces[:, 0], faces[:, 1]], np.r_[faces[:, 1], faces[:, 2]]
        _, label = connected_components(coo_matrix((np.ones(len(rows)), (rows, cols)), shape=(n, n)), directed=False)
        nearest = int(np.argmin(np.linalg.norm(self.middles[index] - at, axis=1)))
        found[index[label[faces[:, 0]] == label[faces[nearest, 0]]]] = True
        return found

    def part(self, kept: Bools) -> Mesh:
        """These triangles alone; the points stay."""
        return Mesh(self.points, self.faces[kept])


def edges_of(faces: Ints) -> tuple[Ints, Ints]:
    """Edges once each, shape (e, 2), and the three of every triangle as indices into them, shape (m, 3)."""
    pairs = np.sort(np.stack([faces[:, [0, 1]], faces[:, [1, 2]], faces[:, [2, 0]]], axis=1).reshape(-1, 2), axis=1)
    keys = pairs[:, 0] * (int(faces.max()) + 1) + pairs[:, 1]
    _, first, inverse = np.unique(keys, return_index=True, return_inverse=True)
    return pairs[first], inverse.reshape(-1, 3)


def clean(points: Array, faces: Ints) -> Mesh:
    """A scan made one surface: points welded, doubles dropped, one winding outwards, the largest piece.

    Parameters
    ----------
    points, faces : array
        Shapes (n, 3) [mm] and (m, 3).

    Returns
    -------
    Mesh

    Raises
    ------
    ValueError
        The surface is in pieces: its largest is under four fifths of it; or there is none.

    References
    ----------
    Winding: two nodes a triangle (as it is, turned round) joined over shared edges; a connected component is one
    consistent choice.
    """
    size = float(np.linalg.norm(np.ptp(points[np.unique(faces)], axis=0))) if len(faces) else 0.0
    if not 0 < size < 1e7:
        raise Refused("The scan has no size.")
    grid = np.round((points - points.mean(axis=0)) / (WELD * size)).astype(np.int64)
    _, first, inverse = np.unique(grid, axis=0, return_index=True, return_inverse=True)
    welded = inverse.reshape(-1)[faces]
    good = (welded[:, 0] != welded[:, 1]) & (welded[:, 1] != welded[:, 2]) & (welded[:, 2] != welded[:, 0])
    welded = welded[good]
    if not len(welded):
        raise Refused("The scan has no surface.")
    _, once = np.unique(np.sort(welded, axis=1), axis=0, return_index=True)
    mesh = Mesh(points[first], welded[np.sort(once)])
    mesh = mesh.part(mesh.areas > 0)
    if not len(mesh.faces):
        raise Refused("The scan has no surface.")
    return _outwards(_compact(_largest(_one_winding(_no_flaps(mesh)))))


def _no_flaps(mesh: Mesh) -> Mesh:
    """Without triangles that hang from an edge which two others already share."""
    edges, of_face = mesh.edges
    used = np.bincount(of_face.ravel(), minlength=len(edges))
    crowded, hanging = (used[of_face] > 2).any(axis=1), (used[of_face] == 1).any(axis=1)
    return mesh.part(~(crowded & hanging))


def _neighbours(mesh: Mesh) -> tuple[Ints, Ints, Bools]:
    """Pairs of triangles over an edge of exactly two, and whether they run along it the same way."""
    edges, of_face = mesh.edges
    used = np.bincount(of_face.ravel(), minlength=len(edges))
    flat = of_face.ravel()
    forward = (mesh.faces < np.roll(mesh.faces, -1, axis=1)).ravel()
    order = np.argsort(flat, kind="stable")
    order = order[used[flat[order]] == 2]
    one, two = order[0::2], order[1::2]
    return one // 3, two // 3, forward[one] == forward[two]


def _one_winding(mesh: Mesh) -> Mesh:
    one, two, same = _neighbours(mesh)
    n = len(mesh.faces)
    other = np.where(same, two + n, two)
    back = np.where(same, two, two + n)
    graph = coo_matrix((np.ones(2 * len(one)), (np.r_[one, one + n], np.r_[other, back])), shape=(2 * n, 2 * n))
    _, label = connected_components(graph, directed=False)
    # The two sheets of a piece have two labels; the smaller one is kept. A piece that is one-sided keeps as it is.
    turned = label[n:] < label[:n]
    faces = mesh.faces.copy()
    faces[turned] = faces[turned][:, ::-1]
    return Mesh(mesh.points, faces)


def _largest(mesh: Mesh) -> Mesh:
    one, two, _ = _neighbours(mesh)
    n = len(mesh.faces)
    count, label = connected_components(coo_matrix((np.ones(len(one)), (one, two)), shape=(n, n)), directed=False)
    if count == 1:
        return mesh
    by_piece = np.bincount(label, weights=mesh.areas)
    if by_piece.max() < ONE_PIECE * by_piece.sum():
        raise Refused("The scan is in pieces: its largest is under four fifths of it.")
    return mesh.part(label == int(by_piece.argmax()))


def _compact(mesh: Mesh) -> Mesh:
    used, inverse = np.unique(mesh.faces, return_inverse=True)
    return Mesh(mesh.points[used], inverse.reshape(-1, 3))


def _outwards(mesh: Mesh) -> Mesh:
    """Normals away from the air: what the surface holds about its middle is positive."""
    middle = np.average(mesh.middles, axis=0, weights=mesh.areas)
    a, b, c = (mesh.corners[:, i] - middle for i in range(3))
    held = float(np.einsum("ij,ij->", a, np.cross(b, c)))
    return mesh if held >= 0 else Mesh(mesh.points, mesh.faces[:, ::-1])

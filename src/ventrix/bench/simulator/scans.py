"""Scans of ports that nobody has: a swept surface with a scanner's noise, holes and pose, and what was cut from it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Final

import numpy as np

from ventrix.core.quantity.arrays import Array, Ints

ROWS: Final = 150
COLUMNS: Final = 132


@dataclass(frozen=True, slots=True)
class Worked:
    """Metal taken off: where along (shares of the length), about which angle from the floor [rad] and how far to each
    side, and how deep [mm]."""

    start: float
    end: float
    angle: float
    reach: float
    depth: float


@dataclass(frozen=True, slots=True)
class ScannedPort:
    """A port that can be scanned [mm, rad]: straight runner, one bend (out of its plane by `twist`), an opening with
    corners that becomes a round throat."""

    runner: float = 62.0
    bend: float = 30.0
    turning: float = 1.15
    twist: float = 0.0
    stations: tuple[float, ...] = (0.0, 0.35, 0.62, 0.78, 0.87, 0.955, 1.0)
    widths: tuple[float, ...] = (31.0, 28.0, 31.0, 34.0, 37.0, 34.5, 36.5)
    heights: tuple[float, ...] = (42.0, 36.0, 36.0, 35.5, 35.5, 34.5, 36.5)
    squareness: tuple[float, ...] = (5.0, 4.0, 3.0, 2.4, 2.1, 2.0, 2.0)
    worked: tuple[Worked, ...] = field(default=())


def surface(port: ScannedPort, rows: int = ROWS, columns: int = COLUMNS) -> tuple[Array, Ints]:
    """The air's surface, open at both ends: points, shape (n, 3) [mm], and triangles wound outwards, shape (m, 3)."""
    length = port.runner + port.bend * port.turning
    along = np.linspace(0.0, length, rows)
    line, tangent, floor = _line(port, along)
    right = np.cross(floor, tangent)
    share = along / length
    angles = 2 * np.pi * np.arange(columns) / columns
    wide, high, square = (
        np.interp(share, port.stations, v) / 1.0 for v in (port.widths, port.heights, port.squareness)
    )
    wide, high, square = (_smooth(v) for v in (wide, high, square))
    radius = (
        np.abs(2 * np.cos(angles)[None, :] / high[:, None]) ** square[:, None]
        + np.abs(2 * np.sin(angles)[None, :] / wide[:, None]) ** square[:, None]
    ) ** (-1 / square[:, None])
    ways = np.cos(angles)[None, :, None] * floor[:, None, :] + np.sin(angles)[None, :, None] * right[:, None, :]
    points = line[:, None, :] + radius[:, :, None] * ways
    out = _normals(points)
    for each in port.worked:
        off = np.abs((angles - each.angle + np.pi) % (2 * np.pi) - np.pi)
        across = _plateau(off / each.reach)[None, :]
        middle, half = (each.start + each.end) / 2, (each.end - each.start) / 2
        depth = each.depth * _plateau(np.abs(share - middle) / half)[:, None] * across
        points = points + depth[:, :, None] * out
    i, j = np.meshgrid(np.arange(rows - 1), np.arange(columns), indexing="ij")
    a, b = i * columns + j, i * columns + (j + 1) % columns
    c, d = a + columns, b + columns
    faces = np.concatenate([np.stack([a, d, b], axis=-1).reshape(-1, 3), np.stack([a, c, d], axis=-1).reshape(-1, 3)])
    return points.reshape(-1, 3), faces


def _line(port: ScannedPort, along: Array) -> tuple[Array, Array, Array]:
    """The middle, its direction, and the direction to the floor."""
    turned = np.clip((along - port.runner) / port.bend, 0.0, port.turning)
    x = np.minimum(along, port.runner) + port.bend * np.sin(turned)
    down = port.bend * (1 - np.cos(turned))
    lean = port.twist * np.sin(np.pi * along / along[-1] / 2) ** 2
    line = np.stack([x, lean, -down], axis=1)
    tangent = np.gradient(line, along, axis=0)
    tangent /= np.linalg.norm(tangent, axis=1)[:, None]
    side = np.array([0.0, 1.0, 0.0]) - tangent[:, 1:2] * tangent
    side /= np.linalg.norm(side, axis=1)[:, None]
    return line, tangent, np.cross(tangent, side) * -1.0


def _smooth(values: Array) -> Array:
    kernel = np.hanning(11)
    return np.asarray(np.convolve(np.pad(values, 5, mode="edge"), kernel / kernel.sum(), "valid"))


def _plateau(x: Array) -> Array:
    """One up to two thirds, falling smoothly to nothing at one."""
    t = np.clip(3 * (1 - x), 0.0, 1.0)
    return np.asarray(t * t * (3 - 2 * t))


def _normals(points: Array) -> Array:
    forward = np.gradient(points, axis=0)
    around = np.roll(points, -1, axis=1) - np.roll(points, 1, axis=1)
    out = np.cross(around, forward)
    out /= np.linalg.norm(out, axis=2)[:, :, None]
    middle = points.mean(axis=1, keepdims=True)
    return np.asarray(out * np.sign(np.einsum("ijk,ijk->ij", out, points - middle))[:, :, None])


def scanned(
    points: Array,
    faces: Ints,
    seed: int,
    noise: float = 0.05,
    holes: int = 0,
    hole: float = 6.0,
    flipped: float = 0.0,
    moved: bool = True,
) -> tuple[Array, Ints]:
    """What a scanner makes of a surface: scatter along each axis [mm], round holes, triangles wound the wrong way, and
    any pose."""
    random = np.random.default_rng(seed)
    found = points + noise * random.standard_normal(points.shape)
    middles = found[faces].mean(axis=1)
    kept = np.ones(len(faces), dtype=bool)
    low, high = np.quantile(np.arange(len(points)), [0.15, 0.85]).astype(int)
    for _ in range(holes):
        centre = found[int(random.integers(low, high))]
        kept &= np.linalg.norm(middles - centre, axis=1) > hole / 2
    faces = faces[kept].copy()
    turned = random.random(len(faces)) < flipped
    faces[turned] = faces[turned][:, ::-1]
    if moved:
        turn = np.linalg.qr(random.standard_normal((3, 3)))[0]
        turn = turn * np.sign(np.linalg.det(turn))
        found = found @ turn.T + random.uniform(-200, 200, 3)
    return found, faces


def joined(meshes: Sequence[tuple[Array, Ints]]) -> tuple[Array, Ints]:
    """Several meshes in one."""
    counts = np.cumsum([0, *(len(p) for p, _ in meshes)])
    return np.vstack([p for p, _ in meshes]), np.vstack([f + n for (_, f), n in zip(meshes, counts, strict=False)])

"""One section of a surface: where a plane cuts it, as a closed ring, and what that ring measures. Everything in mm."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

import numpy as np

from ventrix.core.quantity.arrays import Array, Bools, Ints
from ventrix.core.scan.mesh import Mesh

MOST_GAP: Final = 0.25  # of the perimeter
LEAST_GAP: Final = 0.02  # of the perimeter: less is a chord
SIDE: Final = 5.0  # mm beside a hole that tell how the ring runs on
FEWEST_BESIDE: Final = 4
LEAST_TURN: Final = 0.05  # rad about the middle that a hole spans, to be bent
MOST_TURN: Final = 2.0
MOST_BRIDGE: Final = 30.0  # mm between two pieces of one ring
SMOOTHED: Final = 1.5  # mm over which a ring is smoothed before its length is taken
STEP: Final = 0.5  # mm along a smoothed ring


@dataclass(frozen=True)
class Section:
    """A ring in a plane: points in order, shape (k, 3); centroid, area by the plane [mm2], and the part of the ring
    that was bridged over a hole."""

    ring: Array
    centre: Array
    area: float
    gap: float


def section(mesh: Mesh, near: Ints, at: Array, normal: Array) -> Section | None:
    """The ring around a point that a plane cuts out of the triangles `near` (indices); None where there is none that
    closes with less than a quarter bridged."""
    faces = mesh.faces[near]
    heights = (mesh.points[faces] - at) @ normal
    above = heights > 0
    cut = above.any(axis=1) & ~above.all(axis=1)
    faces, heights, above = faces[cut], heights[cut], above[cut]
    if len(faces) < 3:
        return None
    after = np.roll(above, -1, axis=1)
    crossed = above != after  # two of the three edges
    rows = np.arange(len(faces))
    first = np.argmax(crossed, axis=1)
    second = 2 - np.argmax(crossed[:, ::-1], axis=1)
    ends = []
    for side in (first, second):
        i, j = faces[rows, side], faces[rows, (side + 1) % 3]
        hi, hj = heights[rows, side], heights[rows, (side + 1) % 3]
        share = hi / (hi - hj)
        ends.append(
            (np.minimum(i, j), np.maximum(i, j), mesh.points[i] + share[:, None] * (mesh.points[j] - mesh.points[i]))
        )
    size = int(faces.max()) + 1
    keys = [a * size + b for a, b, _ in ends]
    ids, flat = np.unique(np.concatenate(keys), return_inverse=True)
    places = np.zeros((len(ids), 3))
    places[flat] = np.concatenate([ends[0][2], ends[1][2]])
    links = flat.reshape(2, -1).T
    chains = _bridged(*_chains(links, len(ids)), places)
    best: Section | None = None
    u, v = across(normal)
    for chain in chains:
        ring = places[chain]
        found = _measured(ring, at, u, v)
        if found is None:
            continue
        if best is None or _nearer(found, best, at):
            best = found
    return best


def across(normal: Array) -> tuple[Array, Array]:
    """Two directions in a plane, at right angles, with the normal a right-handed three."""
    helper = np.eye(3)[int(np.argmin(np.abs(normal)))]
    u = np.cross(helper, normal)
    u = u / np.linalg.norm(u)
    return u, np.cross(normal, u)


def unit_rows(rows: Array) -> Array:
    """Vectors of length one, shape (n, 3)."""
    return np.asarray(rows / np.maximum(np.linalg.norm(rows, axis=1), 1e-12)[:, None])


def _nearer(one: Section, other: Section, at: Array) -> bool:
    """The port's own ring is the larger of those that lie about the same; one that is far away is another part's."""
    reach = 3 * (other.area / np.pi) ** 0.5
    return one.area > other.area if np.linalg.norm(one.centre - at) < reach else False


def _bridged(rings: list[list[int]], pieces: list[list[int]], places: Array) -> list[list[int]]:
    """Rings, and pieces of one put together over the holes between them, nearest end first."""
    while pieces:
        whole = pieces.pop(0)
        while pieces:
            ends = [(places[p[0]], places[p[-1]]) for p in pieces]
            away = [min(np.linalg.norm(places[whole[-1]] - a), np.linalg.norm(places[whole[-1]] - b)) for a, b in ends]
            i = int(np.argmin(away))
            if away[i] > MOST_BRIDGE or np.linalg.norm(places[whole[-1]] - places[whole[0]]) < away[i]:
                break
            piece = pieces.pop(i)
            turned = np.linalg.norm(places[whole[-1]] - ends[i][1]) < np.linalg.norm(places[whole[-1]] - ends[i][0])
            whole = whole + (piece[::-1] if turned else piece)
        rings.append(whole)
    return rings


def _chains(links: Ints, count: int) -> tuple[list[list[int]], list[list[int]]]:
    """Points in the order that segments join them: rings, and pieces with two ends."""
    order = np.argsort(links, axis=None, kind="stable")
    others: list[int] = links[:, ::-1].ravel()[order].tolist()
    until: list[int] = np.cumsum(np.bincount(links.ravel(), minlength=count)).tolist()
    joined = [others[since:to] for since, to in zip([0, *until], until, strict=False)]
    seen = [False] * count
    rings, pieces = list[list[int]](), list[list[int]]()
    open_ends = [i for i in range(count) if len(joined[i]) == 1]
    for start in (*open_ends, *range(count)):
        if seen[start]:
            continue
        chain = [start]
        seen[start] = True
        for at in chain:  # it grows as long as there is a way onward
            for onward in joined[at]:
                if not seen[onward]:
                    seen[onward] = True
                    chain.append(onward)
                    break
        if len(joined[start]) == 1:
            pieces.append(chain)
        elif len(chain) > 2:
            rings.append(chain)
    return rings, pieces


def _measured(ring: Array, at: Array, u: Array, v: Array) -> Section | None:
    x, y = (ring - at) @ u, (ring - at) @ v
    lengths = np.hypot(np.diff(x, append=x[0]), np.diff(y, append=y[0]))
    whole = float(lengths.sum())
    # A step over a hole is many of the ring's own steps long.
    bridged = lengths > np.maximum(6 * np.median(lengths), 1.5 * np.quantile(lengths, 0.9)) + 1e-9
    gap = float(lengths[bridged].sum()) / whole if whole > 0 else 1.0
    if gap > MOST_GAP:
        return None
    if gap > LEAST_GAP:
        x, y = _filled(x, y, lengths, bridged)
        ring = at + x[:, None] * u + y[:, None] * v
    x1, y1 = np.roll(x, -1), np.roll(y, -1)
    cross = x * y1 - x1 * y
    area = float(cross.sum()) / 2
    if abs(area) < 1.0:
        return None
    cx, cy = (float(((p + q) * cross).sum() / (6 * area)) for p, q in ((x, x1), (y, y1)))
    return Section(ring if area > 0 else ring[::-1], at + cx * u + cy * v, abs(area), gap)


def _filled(x: Array, y: Array, lengths: Array, bridged: Bools) -> tuple[Array, Array]:
    """A ring with every hole closed as the ring runs on both sides of it: a chord would cut off what bulges there.

    Cubic in the distance from the ring's middle over the angle about it (Hermite).
    """
    cx, cy = np.average(x, weights=lengths), np.average(y, weights=lengths)
    radius, angle = np.hypot(x - cx, y - cy), np.arctan2(y - cy, x - cx)
    whole, at = float(lengths.sum()), np.r_[0.0, np.cumsum(lengths)[:-1]]
    parts = []
    last = 0
    for i in map(int, np.flatnonzero(bridged)):
        j = (i + 1) % len(x)
        span = float((angle[j] - angle[i] + np.pi) % (2 * np.pi) - np.pi)
        back = _slope(radius, angle, (at - at[i] + SIDE) % whole - SIDE)
        ahead = _slope(radius, angle, (at[j] - at + SIDE) % whole - SIDE)
        if back is None or ahead is None or not LEAST_TURN < abs(span) < MOST_TURN:
            continue
        t = np.linspace(0.0, 1.0, max(int(lengths[i] / STEP), 2) + 1)[1:-1]
        made = (
            (2 * t**3 - 3 * t**2 + 1) * radius[i] + (t**3 - 2 * t**2 + t) * span * back
            + (3 * t**2 - 2 * t**3) * radius[j] + (t**3 - t**2) * span * ahead
        )  # fmt: skip
        turned = angle[i] + t * span
        parts += [
            np.stack([x[last : i + 1], y[last : i + 1]]),
            np.stack([cx + made * np.cos(turned), cy + made * np.sin(turned)]),
        ]
        last = i + 1
    parts.append(np.stack([x[last:], y[last:]]))
    closed = np.concatenate(parts, axis=1)
    return closed[0], closed[1]


def _slope(radius: Array, angle: Array, away: Array) -> float | None:
    """How a ring's distance from its middle goes over the angle beside a hole, from the points that lie up to 5 mm
    behind its edge, seen from the hole; None where they are too few."""
    beside = np.flatnonzero((away <= 0) & (away >= -SIDE))
    beside = beside[np.argsort(away[beside])]
    turned = np.unwrap(angle[beside])
    if len(beside) < FEWEST_BESIDE or np.ptp(turned) < 1e-6:
        return None
    return float(np.polynomial.polynomial.polyfit(turned, radius[beside], 1)[1])


def perimeter(found: Section) -> float:
    """Length of the ring [mm], its noise smoothed away."""
    lengths = np.linalg.norm(np.diff(found.ring, axis=0, append=found.ring[:1]), axis=1)
    along = np.r_[0.0, np.cumsum(lengths)]
    count = max(int(along[-1] / STEP), 24)
    at = np.linspace(0, along[-1], count, endpoint=False)
    closed = np.vstack([found.ring, found.ring[:1]])
    even = np.stack([np.interp(at, along, closed[:, i]) for i in range(3)], axis=1)
    spread = SMOOTHED / 2.355 / (along[-1] / count)  # the width at half height is what is smoothed over
    waves = np.fft.rfftfreq(count)
    kept = np.exp(-2 * (np.pi * waves * spread) ** 2)[:, None]
    smooth = np.fft.irfft(np.fft.rfft(even, axis=0) * kept, count, axis=0)
    return float(np.linalg.norm(np.diff(smooth, axis=0, append=smooth[:1]), axis=1).sum())

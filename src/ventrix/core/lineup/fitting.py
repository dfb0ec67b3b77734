"""One face laid on another: by bolts or dowels, or by the ports themselves; and what of the casting stays crooked."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from itertools import pairwise
from typing import Final

import numpy as np

from ventrix.core.lineup.outlines import polygon_of
from ventrix.core.model.job_parts import Face
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.said import Amount, Said
from ventrix.words import tr

MEASURED: Final = 0.15e-3  # m, a port's place on a face (common practice, no source)
BLAME: Final = 2.8  # of its doubt, before one port is named
FEWEST: Final = 4  # ports before one can be named


@dataclass(frozen=True, slots=True)
class Fit:
    """Where points of one face stand on the other: p' = R p + shift [m]; `turn` counter-clockwise [rad]."""

    shift: tuple[float, float]
    turn: float

    def place(self, points: Array) -> Array:
        """Points of the moved face in the axes of the one it is laid on, shape (n, 2)."""
        c, s = np.cos(self.turn), np.sin(self.turn)
        return np.asarray(np.asarray(points) @ np.array([[c, s], [-s, c]]) + np.array(self.shift))


def rigid_motion(moved: Array, onto: Array) -> Fit:
    """The turn and shift that bring points onto others best.

    .. math:: R = V \\mathrm{diag}(1, \\det VU^T) U^T, \\quad U \\Sigma V^T = \\sum (p_i - \\bar p)(q_i - \\bar q)^T

    Parameters
    ----------
    moved, onto : ndarray
        Points pair by pair [m], shape (n, 2).

    Returns
    -------
    Fit
        Never a mirror image. One pair alone shifts and does not turn; two keep the line and the midpoint.

    Raises
    ------
    ValueError
        No pair, or as many of one as of the other is wanting.

    References
    ----------
    Schönemann, A generalized solution of the orthogonal Procrustes problem, *Psychometrika* 31 (1966); Umeyama (1991)
    for the determinant.
    """
    p, q = np.asarray(moved, dtype=float), np.asarray(onto, dtype=float)
    if not len(p) or p.shape != q.shape:
        raise Refused("a fit needs pairs of points, one of each face")
    u, _, v = np.linalg.svd((p - p.mean(axis=0)).T @ (q - q.mean(axis=0)))
    r = v.T @ np.diag([1.0, float(np.sign(np.linalg.det(v.T @ u.T)) or 1.0)]) @ u.T
    if len(p) == 1 or np.ptp(p, axis=0).max() < 1e-9:
        r = np.eye(2)
    shift = q.mean(axis=0) - r @ p.mean(axis=0)
    return Fit((float(shift[0]), float(shift[1])), float(np.arctan2(r[1, 0], r[0, 0])))


def by_bolts(moved: Face, onto: Face) -> Fit | None:
    """A face by the bolts or dowels that both have by name; None where they share none."""
    there = {b.name: b.at for b in onto.bolts}
    pairs = [(b.at, there[b.name]) for b in moved.bolts if b.name in there]
    if not pairs:
        return None
    return rigid_motion(np.array([a for a, _ in pairs]), np.array([b for _, b in pairs]))


def by_ports(moved: Face, onto: Face) -> Fit:
    """A face by its port centres. ValueError where the two share no port."""
    here, there = middles(moved), middles(onto)
    both = [p for p in here if p in there]
    if not both:
        raise Refused("{} and {} share no port", moved.name, onto.name)
    return rigid_motion(np.array([here[p] for p in both]), np.array([there[p] for p in both]))


def middles(face: Face) -> dict[str, tuple[float, float]]:
    """The middle of each opening [m], by its port."""
    found = {}
    for outline in face.outlines:
        centre = polygon_of(outline).centroid
        found[outline.port] = (float(centre.x), float(centre.y))
    return found


@dataclass(frozen=True, slots=True)
class Crooked:
    """What the casting does against its bolts: the ports' best motion over that by bolts, what is left of each port
    then [m], and the one to blame; None where none can be told."""

    shift: tuple[float, float]
    turn: float
    left: Mapping[str, tuple[float, float]]
    blamed: str | None
    reason: str


def crookedness(moved: Face, onto: Face, fit: Fit) -> Crooked:
    """How a face's ports stand off where its bolts put them.

    Parameters
    ----------
    moved, onto : Face
        The face that is laid on the other.
    fit : Fit
        By bolts.

    Returns
    -------
    Crooked
        A plain fit blames the wrong port: each is left out in turn, and the one without which the others agree best is
        named, if its own offset is more than 2.8 of its doubt and the rest agree.

    Raises
    ------
    ValueError
        No port is on both.

    References
    ----------
    Leave one out; the doubt of an end port by extrapolation (Draper & Smith, *Applied Regression Analysis*, ch. 1).
    """
    here, there = middles(moved), middles(onto)
    both = [p for p in here if p in there]
    if not both:
        raise Refused("{} and {} share no port", moved.name, onto.name)
    p, q = fit.place(np.array([here[n] for n in both])), np.array([there[n] for n in both])
    whole = rigid_motion(p, q)
    off = q - whole.place(p)
    left = {n: (float(o[0]), float(o[1])) for n, o in zip(both, off, strict=True)}
    if len(both) < FEWEST:
        return Crooked(
            whole.shift, whole.turn, left, None, tr("which one is off can't be told with fewer than four ports")
        )
    trials = []
    for i in range(len(both)):
        rest = [j for j in range(len(both)) if j != i]
        without = rigid_motion(p[rest], q[rest])
        rms = float(np.sqrt(np.mean(np.sum((q[rest] - without.place(p[rest])) ** 2, axis=1))))
        trials.append((rms, float(np.linalg.norm(q[i] - without.place(p[[i]])[0])), i))
    rms, own, i = min(trials)
    doubt = _doubt(p, i)
    if own > BLAME * doubt and rms < 2 * MEASURED:
        return Crooked(whole.shift, whole.turn, left, both[i], _stands_off(both[i], own))
    return Crooked(whole.shift, whole.turn, left, None, tr("no port is off the others by more than its uncertainty"))


def _stands_off(port: str, off: float) -> str:
    return Said("{} stands {} off the others", port, Amount(off, "length", "mm", ".2f"))


def _doubt(points: Array, i: int) -> float:
    """How well the others say where one port should be [m]."""
    rest = np.delete(points, i, axis=0)
    along = rest - rest.mean(axis=0)
    reach = float(np.linalg.norm(points[i] - rest.mean(axis=0)))
    return float(MEASURED * np.sqrt(1 + 1 / len(rest) + reach**2 / max(float(np.sum(along**2)), 1e-12)))


@dataclass(frozen=True, slots=True)
class Spacing:
    """Distances from port to port along a face [m]: their mean, and the one that is off it by most, between which."""

    mean: float
    worst: float
    between: tuple[str, str]


def spacing_of(face: Face, pitch: float | None = None) -> Spacing | None:
    """How evenly the ports of a face stand.

    Parameters
    ----------
    face : Face
        With three ports at least.
    pitch : float, optional
        Bore spacing [m]; without it they are held to their own mean.

    Returns
    -------
    Spacing or None
        None with fewer than three ports.

    Raises
    ------
    ValueError
        An outline that cannot be drawn.

    References
    ----------
    Geometry.
    """
    row = sorted(middles(face).items(), key=lambda item: item[1][0])
    if len(row) < 3:
        return None
    gaps = [b[1][0] - a[1][0] for a, b in pairwise(row)]
    mean = float(np.mean(gaps)) if pitch is None else pitch
    i = max(range(len(gaps)), key=lambda n: abs(gaps[n] - mean))
    return Spacing(mean, gaps[i] - mean, (row[i][0], row[i + 1][0]))

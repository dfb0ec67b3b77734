"""Walls of a head's ports together: how thin those that were not read may be, and how far the core was shifted."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Final

import numpy as np

from ventrix.core.metal.walls import READING_UNCERTAINTY, tube_at
from ventrix.core.model.cut import Port
from ventrix.core.model.job import Job
from ventrix.core.model.kinds import Band, Direction
from ventrix.core.quantity.refused import Refused
from ventrix.words import tr

FEWEST: Final = 5  # ports read before a bound is told
CONFIDENCE: Final = 0.95
SHARE: Final = 0.95
NO_CLEARANCE: Final = tr("no clearance to cut: read each port where metal comes off")


@lru_cache(maxsize=256)
def tolerance_factor(count: int, confidence: float = CONFIDENCE, share: float = SHARE) -> float:
    """How many sample deviations under the mean a one-sided lower tolerance bound lies.

    .. math:: k = \\frac{t'_{1-\\alpha}(n - 1,\\, z_p \\sqrt n)}{\\sqrt n}

    Parameters
    ----------
    count : int
        Values.
    confidence, share : float
        That at least this share of the population lies above, with this confidence [-].

    Returns
    -------
    float
        [-].

    Raises
    ------
    ValueError
        Fewer than two values.

    References
    ----------
    ISO 16269-6:2014, by the noncentral t distribution.
    """
    from scipy.stats import nct, norm  # late: it costs a third of a second

    if count < 2:
        raise Refused("a tolerance bound needs two values at least")
    return float(nct.ppf(confidence, count - 1, norm.ppf(share) * count**0.5) / count**0.5)


@dataclass(frozen=True, slots=True)
class ZoneWalls:
    """Walls of one zone over ports of one kind, head and hand [m]: mean, deviation and least of those read, and the
    bound for ports that were not; None under five."""

    place: str
    band: str | None
    count: int
    mean: float
    spread: float
    least: float
    bound: float | None


@dataclass(frozen=True, slots=True)
class Shift:
    """How far a port's core lies off its hand's mean [m]: to the right, and towards the roof, with the standard
    uncertainty of each; None where a pair of sides was not read."""

    port: Port
    right: float | None
    up: float | None
    uncertainty: float


def hands(job: Job, kind: Direction) -> dict[tuple[str | None, bool], list[Port]]:
    """Ports of a kind by head and hand: mirrored ones apart."""
    found: dict[tuple[str | None, bool], list[Port]] = {}
    for port in (p for p in job.ports if p.of_head and p.kind == kind):
        found.setdefault((port.head_id, port.mirror_of is not None), []).append(port)
    return found


def zone_walls(ports: Sequence[Port]) -> tuple[ZoneWalls, ...]:
    """Every zone that was read on these ports of one hand, the thinnest of each.

    Parameters
    ----------
    ports : sequence of Port
        Of one kind, head and hand.

    Returns
    -------
    tuple of ZoneWalls

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    `tolerance_factor`. Always no clearance to cut.
    """
    read: dict[tuple[str, str | None], list[float]] = {}
    for port in ports:
        for key, left in _walls(port).items():
            read.setdefault(key, []).append(left)
    found = []
    for (place, band), values in read.items():
        n = len(values)
        mean, spread = float(np.mean(values)), float(np.std(values, ddof=1)) if n > 1 else 0.0
        bound = mean - tolerance_factor(n) * spread if n >= FEWEST else None
        found.append(ZoneWalls(place, band, n, mean, spread, min(values), bound))
    return tuple(found)


def core_shift(ports: Sequence[Port]) -> tuple[Shift, ...]:
    """How far each port's core lies off the mean of these ports: a core to the right leaves the right wall thinner by
    what the left one gains.

    Parameters
    ----------
    ports : sequence of Port
        Of one kind, head and hand.

    Returns
    -------
    tuple of Shift
        One a port; nothing is known of a pair that fewer than two ports were read at.

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    Geometry; uncertainty by that of two readings, each of READING_UNCERTAINTY, over every place that has the pair.
    """
    walls = {port.id: _walls(port) for port in ports}
    return tuple(_shift_of(walls, port) for port in ports)


_Walls = dict[tuple[str, str | None], float]


def _shift_of(walls: dict[str, _Walls], port: Port) -> Shift:
    right, n = _off(walls, port, Band.LEFT, Band.RIGHT)
    up, m = _off(walls, port, Band.FLOOR, Band.ROOF)
    pairs = min(v for v in (n, m) if v) if n or m else 1
    share = (1 - 1 / len(walls)) ** 0.5
    return Shift(port, right, up, READING_UNCERTAINTY / 2**0.5 / pairs**0.5 * share)


def _off(walls: dict[str, _Walls], port: Port, low: Band, high: Band) -> tuple[float | None, int]:
    """Mean over places of half of (low - high) against the same of all ports that have the pair there."""
    halves: dict[str, dict[str, float]] = {}
    for port_id, read in walls.items():
        for place in {p for p, _ in read}:
            if (place, low.value) in read and (place, high.value) in read:
                halves.setdefault(place, {})[port_id] = (read[place, low.value] - read[place, high.value]) / 2
    own = [v[port.id] - float(np.mean(list(v.values()))) for v in halves.values() if port.id in v and len(v) > 1]
    return (float(np.mean(own)), len(own)) if own else (None, 0)


def _walls(port: Port) -> dict[tuple[str, str | None], float]:
    """The thinnest wall by place and side as it was read: the casting's own; where a tube stands there is none."""
    found: dict[tuple[str, str | None], float] = {}
    for cut in port.cuts:
        for wall in (w for w in cut.walls if w.struck is None):
            if tube_at(port, port.cuts[-1], wall.place, wall.band) is None:
                key = wall.place, wall.band
                found[key] = min(found.get(key, np.inf), wall.thickness)
    return found

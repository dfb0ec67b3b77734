"""How much metal is left, and what a planned depth would leave. It reports; it never says a wall is safe.

All SI. The limits are common practice, no source; the user's own figure wins.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

from ventrix.core.model.cut import Cut, Port, WallReading
from ventrix.core.model.job import Job
from ventrix.core.model.kinds import Place
from ventrix.core.quantity.units import INCH, from_si

DEFAULT_LIMIT: Final = 0.100 * INCH  # PRACTICE: where careful people stop, iron or aluminium
READING_UNCERTAINTY: Final = 0.005 * INCH  # of an ultrasonic gauge on a curved, rough wall
DEPTH_SHARE: Final = 0.25  # of a depth that was judged by eye or caliper
LEAST_DEPTH_UNCERTAINTY: Final = 0.004 * INCH
STEEL_LIKE: Final = {"iron": 4600.0, "aluminium": 6320.0}  # speed of sound [m/s], usual gauge settings


@dataclass(frozen=True, slots=True)
class WallLeft:
    """What is known to be left at a place [m]: the reading, depth taken since, doubt of both, and what remains."""

    reading: WallReading
    read_at_cut: int
    taken_since: float
    uncertainty: float

    @property
    def left(self) -> float:
        return self.reading.thickness - self.taken_since - self.uncertainty


def limit_for(job: Job, place: str) -> float:
    """How thin a wall may get at a place [m]: the job's own figure for it, for everywhere, or the default."""
    for wanted in (place, ""):
        found = next((w.thickness for w in reversed(job.wall_limits) if w.place == wanted), None)
        if found is not None:
            return found
    return DEFAULT_LIMIT


def _taken_after(port: Port, number: int, up_to: int, place: str) -> list[float]:
    """Depths worked at a place in cuts after `number`, up to `up_to`. A cut that adds metal counts nothing."""
    return [
        op.depth
        for cut in port.cuts
        if number < cut.number <= up_to and cut.kind != "fill"
        for op in cut.operations
        if op.depth is not None and (place in op.places or Place.ALL_OVER in op.places)
    ]


def _doubt(depth: float) -> float:
    return max(DEPTH_SHARE * depth, LEAST_DEPTH_UNCERTAINTY)


def wall_left(port: Port, cut: Cut, cut_of_reading: Cut, reading: WallReading) -> WallLeft:
    """What is left at a reading's place at a cut: the reading less every later depth, less the doubt of both.

    Parameters
    ----------
    port, cut : Port, Cut
        Whose row, and the state asked about.
    cut_of_reading, reading : Cut, WallReading
        The reading and the state it was taken at.

    Returns
    -------
    WallLeft
        [m].

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    Doubts add in squares: JCGM 100:2008 [6], 5.1.2. Their sizes: common practice, no source.
    """
    depths = _taken_after(port, cut_of_reading.number, cut.number, reading.place)
    own = reading.uncertainty if reading.uncertainty is not None else READING_UNCERTAINTY
    doubt = (own**2 + sum(_doubt(d) ** 2 for d in depths)) ** 0.5
    return WallLeft(reading, cut_of_reading.number, sum(depths), doubt)


def walls_at(port: Port, cut: Cut) -> list[WallLeft]:
    """Every reading of this port up to a cut, each with what it leaves now, thinnest first.

    A reading taken later within two millimetres of an earlier one speaks in its place.
    """
    found: list[tuple[Cut, WallReading]] = []
    for earlier in port.cuts:
        if earlier.number > cut.number:
            break
        for reading in earlier.walls:
            if reading.struck is None:
                found = [(c, r) for c, r in found if not _same_spot(r, reading)]
                found.append((earlier, reading))
    return sorted((wall_left(port, cut, c, r) for c, r in found), key=lambda w: w.left)


def _same_spot(a: WallReading, b: WallReading) -> bool:
    if a.place != b.place or a.band != b.band or abs(a.across - b.across) > 0.1:
        return False
    if a.along is None or b.along is None:
        return a.along is None and b.along is None
    return abs(a.along - b.along) <= 0.002


def planned_cut_warnings(
    job: Job, port: Port, cut: Cut, place: str, depth: float | None, unit: str = "in"
) -> list[str]:
    """What has to be said before metal comes off a place: what the wall would be left at, on which reading.

    A zone without a reading on *this* port asks for one, since castings shift; a reading of another
    port, or one that was calculated, never clears a warning.

    Parameters
    ----------
    job, port, cut : Job, Port, Cut
        The state that is to be worked.
    place : str
        A zone.
    depth : float or None
        Planned depth [m].
    unit : str
        Length unit of the sentences.

    Returns
    -------
    list of str
        Sentences; empty only where a reading of this port leaves more than the limit, which is not
        the same as safe.

    Raises
    ------
    ValueError
        A depth below zero.

    References
    ----------
    Common practice, no source.
    """
    if depth is not None and depth < 0:
        raise ValueError("a depth cannot be negative")
    here = [w for w in walls_at(port, cut) if w.reading.place == place]
    limit = limit_for(job, place)
    if not here:
        return [
            f"No wall has been read at the {place} of this port. Castings shift: a reading of another port says "
            "nothing about this one. Read it before cutting."
        ]
    thinnest = here[0]
    leaves = thinnest.left - (depth or 0.0) - (_doubt(depth) if depth else 0.0)
    if leaves >= limit:
        return []
    digits = 3 if unit == "in" else 2

    def words(value: float) -> str:
        return f"{from_si(value, unit):.{digits}f}"

    read = f"read {words(thinnest.reading.thickness)} on this port"
    read += f" on {thinnest.reading.date[:10]}" if thinnest.reading.date else " on an unrecorded day"
    since = f", {words(thinnest.taken_since)} worked off since" if thinnest.taken_since else ""
    behind = f" {thinnest.reading.behind.capitalize()} is behind it." if thinnest.reading.behind else ""
    cause = f"{words(depth)} {unit} off the {place} would leave" if depth else f"The {place} has"
    if leaves <= 0:
        return [f"{cause} nothing: it breaks through ({read}{since}, less the doubt of both).{behind}"]
    return [
        f"{cause} {words(leaves)} {unit} ({read}{since}, less the doubt of both): "
        f"under your limit of {words(limit)}.{behind} One slip of a burr takes more."
    ]

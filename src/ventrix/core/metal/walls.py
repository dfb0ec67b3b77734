"""How much metal is left, and what a planned depth would leave. It reports; it never says a wall is safe.

All SI. The limits are common practice, no source; the user's own figure wins.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Final

from ventrix.core.metal.unrolled import zone_named
from ventrix.core.model.cut import Cut, Port, Tube, WallReading, Work, carried
from ventrix.core.model.job import Job
from ventrix.core.model.kept_words import Behind
from ventrix.core.model.kinds import Band, Direction, HoleWork, KnownBy, Place
from ventrix.core.quantity.moments import came_after
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import INCH, from_si
from ventrix.core.quantity.words import listed
from ventrix.words import tr

DEFAULT_LIMIT: Final = 0.100 * INCH  # PRACTICE: where careful people stop, iron or aluminium, water behind it
# Where they stop by what lies behind, and on an exhaust with water behind (common practice, no source). A pushrod
# hole at 0.075 in is a job's own choice, and no default.
BETWEEN_PORTS: Final = 0.116 * INCH
EXHAUST_TO_WATER: Final = 0.125 * INCH
UNREAD: Final = tr("No wall has been read at the")
CASTINGS_SHIFT: Final = tr("Castings shift: a reading of another port says nothing about this one.")
OTHER_WAYS: Final = tr(
    "Without a gauge: what other heads of this casting had, a reading of a sister head, a drilled plug, or feel and "
    "stop early; each is noted as a wall with its own uncertainty (W)."
)
# What is believed of a wall that no gauge read, give or take [m] (common practice, no source).
DOUBT_OF: Final = {
    KnownBy.CASTING.value: 1.0e-3,
    KnownBy.SISTER.value: 0.8e-3,
    KnownBy.PLUG.value: 0.25e-3,
    KnownBy.FEEL.value: 1.5e-3,
}
SHUT: Final = (HoleWork.TUBED, HoleWork.PLUGGED, HoleWork.WELDED)  # a breakthrough there was planned
READING_UNCERTAINTY: Final = 0.005 * INCH  # of an ultrasonic gauge on a curved, rough wall
DEPTH_SHARE: Final = 0.25  # of a depth that was judged by eye or caliper
LEAST_DEPTH_UNCERTAINTY: Final = 0.004 * INCH
STEEL_LIKE: Final = {"iron": 4600.0, "aluminium": 6320.0}  # speed of sound [m/s], usual gauge settings


@dataclass(frozen=True, slots=True)
class WallLeft:
    """What is known to be left at a place [m]: the reading, depth taken since from both of its faces, doubt of all,
    and what remains. `unknown` says that it was worked since to no stated depth: it clears nothing then."""

    reading: WallReading
    read_at_cut: int
    taken_since: float
    uncertainty: float
    taken_behind: float = 0.0
    unknown: bool = False
    tube: Tube | None = None
    limit: float = DEFAULT_LIMIT  # by place, kind of port and what lies behind

    @property
    def left(self) -> float:
        return self.reading.thickness - self.taken_since - self.taken_behind - self.uncertainty


def limit_for(
    job: Job, place: str, kind: Direction | None = None, behind: str = "", *, port_behind: bool = False
) -> float:
    """How thin a wall may get [m]: the job's own figure that fits place, kind of port and what lies behind most
    closely, the later of two; else the default for that."""
    own = [
        ((w.place != "", w.behind != "", w.kind != ""), i, w.thickness)
        for i, w in enumerate(job.wall_limits)
        if w.place in ("", place) and w.kind in ("", kind) and w.behind in ("", behind)
    ]
    if own:
        return max(own)[2]
    if port_behind:
        return BETWEEN_PORTS
    return EXHAUST_TO_WATER if kind == "exhaust" and behind == Behind.WATER else DEFAULT_LIMIT


def limit_at(job: Job, port: Port, cut: Cut, place: str) -> float:
    """The limit that is met first at a place of a port [m]: of its thinnest reading over its limit, else by kind."""
    here = [w for w in walls_at(job, port, cut) if w.reading.place == place and not w.unknown]
    nearest = min(here, key=lambda w: w.left - w.limit, default=None)
    return limit_for(job, place, port.kind) if nearest is None else nearest.limit


_OPPOSITE: Final = {Band.LEFT: Band.RIGHT, Band.RIGHT: Band.LEFT}
# Where the sides of a round place lie on the clock: 12 towards the opening, clockwise seen from the chamber.
_HOUR: Final = {Band.FLOOR: 12.0, Band.RIGHT: 3.0, Band.ROOF: 6.0, Band.LEFT: 9.0}


def on_side(work: Work, band: str | None) -> bool:
    """Whether work may have touched a side; where either is not said, it may."""
    if band is None:
        return True
    if work.side is not None:
        return work.side == band
    if work.from_hour is None or work.to_hour is None:
        return True
    middle, half = _HOUR[Band(band)], 1.5
    span = (work.to_hour - work.from_hour) % 12
    return (middle - work.from_hour + half) % 12 <= span + 2 * half


def _touches(port: Port, cut: Cut, work: Work, reading: WallReading) -> bool:
    """Whether work lies over a reading: at its place and side, or reaching into it from the zone beside."""
    if not on_side(work, reading.band):
        return False
    if work.place in (reading.place, Place.ALL_OVER):
        return True
    zone = zone_named(work.place)
    if work.reach is None or reading.along is None or zone is None:
        return False
    floor, roof = carried(port, cut, "floor_length"), carried(port, cut, "roof_length")
    if floor is None or roof is None:
        return False
    length = (floor.value + roof.value) / 2
    return bool(zone.start * length - work.reach <= reading.along <= zone.end * length + work.reach)


def _workscame_after(port: Port, read_at: Cut, reading: WallReading, up_to: int) -> Iterator[tuple[Cut, Work]]:
    """Everything taken off since a reading, up to a cut: in later cuts, and in its own where that is known to have come
    after it. A cut that only adds metal counts nothing."""
    for cut in port.cuts:
        if cut.adds_metal or not read_at.number <= cut.number <= up_to:
            continue
        for op in cut.operations:
            if cut.number > read_at.number or came_after(op.at, reading.at) is True:
                yield from ((cut, work) for work in op.works)


def _works_behind(job: Job, cut_of_reading: Cut, reading: WallReading) -> Iterator[Work]:
    """What was taken off the other face of a wall since it was read: at the same place, on the side that faces it. Work
    without a date, or of the same day without an hour, may have come after."""
    behind = next((p for p in job.ports if p.id == reading.behind_port_id), None)
    if behind is None:
        return
    read_at = reading.at or reading.date or cut_of_reading.date
    facing = _OPPOSITE.get(Band(reading.band)) if reading.band in tuple(Band) else None
    for cut in (c for c in behind.cuts if not c.adds_metal):
        for op in cut.operations:
            if came_after(op.at or op.date or cut.date, read_at) is False:
                continue
            for work in op.works:
                if work.place in (reading.place, Place.ALL_OVER) and on_side(work, facing):
                    yield work


def _doubt(depth: float) -> float:
    return max(DEPTH_SHARE * depth, LEAST_DEPTH_UNCERTAINTY)


def wall_left(job: Job, port: Port, cut: Cut, cut_of_reading: Cut, reading: WallReading) -> WallLeft:
    """What is left at a reading's place at a cut: the reading less every later depth, less the doubt of all.

    Parameters
    ----------
    job : Job
        Whose other ports may lie behind the wall.
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
    here = [w for c, w in _workscame_after(port, cut_of_reading, reading, cut.number) if _touches(port, c, w, reading)]
    behind = list(_works_behind(job, cut_of_reading, reading))
    taken, taken_behind = ([w.depth for w in works if w.depth is not None] for works in (here, behind))
    usual = DOUBT_OF.get(reading.known_by, READING_UNCERTAINTY)
    own = reading.uncertainty if reading.uncertainty is not None else usual
    doubt = (own**2 + sum(_doubt(d) ** 2 for d in (*taken, *taken_behind))) ** 0.5
    unknown = any(w.depth is None and w.until for w in (*here, *behind))
    tube = tube_at(port, cut, reading.place, reading.band)
    next_to = reading.behind_port_id is not None or reading.behind == Behind.NEXT_PORT
    limit = limit_for(job, reading.place, port.kind, reading.behind, port_behind=next_to)
    return WallLeft(reading, cut_of_reading.number, sum(taken), doubt, sum(taken_behind), unknown, tube, limit)


def tube_at(port: Port, cut: Cut, place: str, side: str | None) -> Tube | None:
    """The tube fitted at a place by a cut, if there is one: a breakthrough there was planned."""
    fitted = [t for c in port.cuts if c.number <= cut.number for t in c.tubes if t.work in SHUT]
    return next((t for t in reversed(fitted) if t.place == place and (not t.side or not side or t.side == side)), None)


def walls_at(job: Job, port: Port, cut: Cut) -> list[WallLeft]:
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
    return sorted((wall_left(job, port, cut, c, r) for c, r in found), key=lambda w: w.left)


def spare_of(wall: WallLeft, limit: float) -> float:
    """How deep a pass may be meant at a reading [m]: down to the limit, less the doubt of a depth judged by eye."""
    return (wall.left - limit) / (1 + DEPTH_SHARE)


def spare_at(job: Job, port: Port, cut: Cut, place: str, band: str | None = None) -> float | None:
    """How deep a pass may be meant at a place, or on one side of it, by its thinnest reading there on this port [m].
    None where it was not read, or was worked since to no stated depth."""
    here = [w for w in walls_at(job, port, cut) if w.reading.place == place and band in (None, w.reading.band)]
    if not here or any(w.unknown for w in here):
        return None
    return max(min(spare_of(w, w.limit) for w in here), 0.0)


def _same_spot(a: WallReading, b: WallReading) -> bool:
    if a.place != b.place or a.band != b.band or abs(a.across - b.across) > 0.1:
        return False
    if a.along is None or b.along is None:
        return a.along is None and b.along is None
    return abs(a.along - b.along) <= 0.002


def planned_cut_warnings(job: Job, port: Port, cut: Cut, work: Work, unit: str = "in") -> list[str]:
    """What has to be said before metal comes off a place: what the wall would be left at, on which reading.

    A place without a reading on *this* port, on the side worked, asks for one, since castings shift; a reading of
    another port, or one that was calculated, never clears a warning, and neither does one worked over since to no
    stated depth.

    Parameters
    ----------
    job, port, cut : Job, Port, Cut
        The state that is to be worked.
    work : Work
        The place, side and planned depth [m].
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
    depth, place = work.depth, work.place
    if depth is not None and depth < 0:
        raise Refused("a depth cannot be negative")
    where = _where(place, work.side)
    tube = tube_at(port, cut, place, work.side)
    if tube is not None:
        return [_tube_sentence(tube, where, unit)]
    here = [w for w in walls_at(job, port, cut) if w.reading.place == place and on_side(work, w.reading.band)]
    if not here:
        return [tr("{} {} of this port. {} Read it before cutting.", UNREAD, where, CASTINGS_SHIFT)]
    thinnest = next((w for w in here if w.unknown), here[0])
    if thinnest.unknown:
        return [tr("The {} was worked since it was read, to no stated depth: read it again before cutting.", where)]
    leaves = thinnest.left - (depth or 0.0) - (_doubt(depth) if depth else 0.0)
    limit = thinnest.limit
    if leaves >= limit:
        return []
    cause = tr("{} {} off the {} would leave", _size(depth, unit), unit, where) if depth else tr("The {} has", where)
    basis = tr("({}, less the uncertainty of both)", _basis(thinnest, unit))
    behind = tr(" {} is behind it.", thinnest.reading.behind.capitalize()) if thinnest.reading.behind else ""
    if leaves <= 0:
        return [tr("{} nothing: it breaks through {}.{}", cause, basis, behind)]
    return [
        tr(
            "{} {} {} {}: under your limit of {}.{} One slip of a burr takes more.",
            cause,
            _size(leaves, unit),
            unit,
            basis,
            _size(limit, unit),
            behind,
        )
    ]


def cut_warnings(job: Job, port: Port, cut: Cut, works: Sequence[Work], unit: str = "in") -> list[str]:
    """What has to be said before metal comes off several places at once.

    Places that nobody read are one sentence. In a shop that has no gauge it names the other ways to know, and says so
    once a stage: not again of a place that was worked already.

    Parameters
    ----------
    job, port, cut, works : Job, Port, Cut, sequence of Work
        The state that is to be worked, and where.
    unit : str
        Length unit of the sentences.

    Returns
    -------
    list of str
        As `planned_cut_warnings` of each.

    Raises
    ------
    ValueError
        A depth below zero.
    """
    no_gauge = not any(w.known_by == "" for p in job.ports for c in p.cuts for w in c.walls)
    worked = {w.place for c in port.cuts if c.number <= cut.number for op in c.operations for w in op.works}
    said: list[str] = []
    unread: list[str] = []
    for work in works:
        found = planned_cut_warnings(job, port, cut, work, unit)
        if found and found[0].startswith(UNREAD):
            if not (no_gauge and work.place in worked):
                unread.append(_where(work.place, work.side))
        else:
            said += found
    if unread:
        ways = f" {OTHER_WAYS}" if no_gauge else tr(" Read it before cutting.")
        said.append(tr("{} {} of this port. {}{}", UNREAD, listed(list(dict.fromkeys(unread))), CASTINGS_SHIFT, ways))
    return said


def wall_sentence(job: Job, wall: WallLeft, unit: str = "in") -> str:
    """What is left at a reading, in a sentence: it reports what was measured, and never says that a wall is safe."""
    reading = wall.reading
    where = _where(reading.place, reading.band)
    if wall.tube is not None:
        return _tube_sentence(wall.tube, where, unit)
    if wall.unknown:
        return tr("{}: worked since, depth unknown: read again.", where.capitalize())
    limit = wall.limit
    left = max(wall.left, 0.0)
    said = tr(
        "{}: {} {} left ({}, less the uncertainty of all)",
        where.capitalize(),
        _size(left, unit),
        unit,
        _basis(wall, unit),
    )
    return tr("{}: under the limit of {}.", said, _size(limit, unit)) if wall.left < limit else f"{said}."


def _where(place: str, side: str | None) -> str:
    return place if side in (None, "", place) else f"{place}, {side}"


def _size(value: float, unit: str) -> str:
    return f"{from_si(value, unit):.{3 if unit == 'in' else 2}f}"


def _basis(wall: WallLeft, unit: str) -> str:
    """The reading and what was worked off since."""
    reading = wall.reading
    said = tr("read {} on this port", _size(reading.thickness, unit))
    said += tr(" on {}", reading.date[:10]) if reading.date else tr(" on an unrecorded day")
    said += tr(", {} worked off since", _size(wall.taken_since, unit)) if wall.taken_since else ""
    return said + (tr(", {} off its other face", _size(wall.taken_behind, unit)) if wall.taken_behind else "")


def _tube_sentence(tube: Tube, where: str, unit: str) -> str:
    size = tr(" of {} {}", _size(tube.size, unit), unit) if tube.size is not None else ""
    held = tr(", set in {}", tube.adhesive) if tube.adhesive else ""
    tested = "pressure-tested" if tube.tested else tr("not pressure-tested yet")
    what = tr("Tube present") if tube.work == HoleWork.TUBED else tr("The hole was {}", tube.work)
    return tr("{} at the {}{}{}, {}: cut no further than it stands proud.", what, where, size, held, tested)

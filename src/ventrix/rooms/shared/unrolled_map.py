"""What the unrolled port is drawn from, made from the job."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field

from ventrix.core.castings.casting_file import Casting, CastingWall
from ventrix.core.matching.core_shift import Shift, core_shift, hands
from ventrix.core.metal.unrolled import ZONES, UnrolledPort, unroll, zone_named
from ventrix.core.metal.walls import WallLeft, on_side, wall_sentence, walls_at
from ventrix.core.model.cut import Cut, Port, Slip
from ventrix.core.model.job import Job
from ventrix.core.model.kinds import Band, Place, SlipKind
from ventrix.rooms.display_units import Units
from ventrix.rooms.shared.scan_words import newest_taken
from ventrix.words import tr


@dataclass(frozen=True, slots=True)
class Pin:
    """A wall reading on the map: text to show, where, and whether it is under its limit; `of_casting` where other heads
    of the casting say it, and nobody read this one."""

    band: str
    along: float
    across: float
    text: str
    thin: bool
    behind: str = ""
    tip: str = ""
    slip: bool = False
    of_casting: bool = False


@dataclass(frozen=True, slots=True)
class Tint:
    """A zone worked at a cut, and on which of its sides: which cut, and whether it is the one looked at."""

    zone: str
    number: int
    present: bool
    added: bool = False
    bands: tuple[str, ...] = tuple(Band)


@dataclass(frozen=True, slots=True)
class MapSpot:
    """A busy or idle place: a number from 0 (idle) to 1 (busiest), and its words."""

    band: str
    along: float
    across: float
    share: float
    text: str


@dataclass(frozen=True, slots=True)
class CoreShift:
    """How far the core lies off its hand's mean [m]: right and up, nought where that pair was not read; words."""

    right: float
    up: float
    text: str


@dataclass(frozen=True, slots=True)
class MetalTaken:
    """What two scans say came off at the cut looked at [m]: along the port, by side, None where nothing could be told;
    and the least that they tell from nothing."""

    along: tuple[float, ...]
    depths: Mapping[Band, tuple[float | None, ...]]
    least: float

    @property
    def deepest(self) -> float:
        return max((d for row in self.depths.values() for d in row if d is not None), default=0.0)


@dataclass(frozen=True, slots=True)
class MapPicture:
    """Everything the map shows."""

    port: UnrolledPort
    kind: str = "intake"
    before: UnrolledPort | None = None
    pins: tuple[Pin, ...] = ()
    tints: tuple[Tint, ...] = ()
    spots: tuple[MapSpot, ...] = ()
    chosen: str = ""
    shift: CoreShift | None = None
    taken: MetalTaken | None = None
    numbers: tuple[int, int | None] = field(default=(0, None))


def map_of(job: Job, port: Port, cut: Cut) -> UnrolledPort:
    return unroll(port, cut, job.valve_of(port, cut))


def map_picture(
    job: Job,
    port: Port,
    cut: Cut,
    against: Cut | None,
    chosen: str,
    units: Units,
    castings: Sequence[Casting] = (),
) -> MapPicture:
    """The unrolled port at a cut, over the pinned one; where no wall was read, what other heads of its casting had."""
    here = map_of(job, port, cut)
    latest: dict[tuple[str, Band], Cut] = {}
    for each in (c for c in port.cuts if c.number <= cut.number):
        for work in (w for op in each.operations for w in op.works):
            for band in (b for b in Band if on_side(work, b)):
                latest[work.place, band] = each
    sides: dict[tuple[str, str], list[Band]] = {}
    for (place, band), each in latest.items():
        sides.setdefault((place, each.id), []).append(band)
    cuts = {c.id: c for c in port.cuts}
    tints = [
        Tint(place, cuts[i].number, i == cut.id, cuts[i].adds_metal, tuple(bands))
        for (place, i), bands in sides.items()
    ]
    return MapPicture(
        port=here,
        kind=port.kind,
        before=map_of(job, port, against) if against is not None else None,
        pins=(
            *(_pin(job, wall, here, units) for wall in walls_at(job, port, cut)),
            *(_slip_pin(slip, here, units) for slip in port.slips),
            *_casting_pins(job, port, cut, castings, here, units),
        ),
        tints=tuple(sorted(tints, key=lambda t: t.present)),
        chosen=chosen,
        shift=_shift(job, port, units),
        taken=_taken(cut),
        numbers=(cut.number, against.number if against is not None else None),
    )


def _taken(cut: Cut) -> MetalTaken | None:
    scan = newest_taken(cut)
    if scan is None or len(scan.strips) < 2:
        return None
    rows = scan.strips
    sides = {
        Band.LEFT: tuple(r.left for r in rows),
        Band.ROOF: tuple(r.roof for r in rows),
        Band.RIGHT: tuple(r.right for r in rows),
        Band.FLOOR: tuple(r.floor for r in rows),
    }
    return MetalTaken(tuple(r.along for r in rows), sides, scan.least_told or 0.0)


def _shift(job: Job, port: Port, units: Units) -> CoreShift | None:
    """The core's shift, where it is more than its doubt and other ports of this hand were read."""
    mine = next((ports for ports in hands(job, port.kind).values() if port in ports), [])
    if len(mine) < 2:
        return None
    found = next(s for s in core_shift(mine) if s.port is port)
    words = shift_words(found, units)
    return CoreShift(found.right or 0.0, found.up or 0.0, tr("core {}", words)) if words else None


def shift_words(shift: Shift, units: Units) -> str:
    """Which way a core lies off and by how much, where that is more than its doubt; empty where it is not."""
    parts = [
        f"{units.length.text(abs(v))} {units.length.label} {low if v < 0 else high}"
        for v, low, high in ((shift.right, "left", "right"), (shift.up, "down", "up"))
        if v is not None and abs(v) > 1.96 * shift.uncertainty
    ]
    return " and ".join(parts)


def _pin_text(wall: WallLeft, units: Units) -> str:
    """What is left there; "?" where it was worked since to no stated depth, "tube" where one is fitted."""
    if wall.tube is not None:
        return "tube"
    if wall.unknown:
        return "?"
    return units.length.text(max(wall.reading.thickness - wall.taken_since - wall.taken_behind, 0.0))


def _middle_of(place: str, here: UnrolledPort) -> tuple[str, float]:
    """The band that a place is first drawn in, and how far along its middle lies [m]."""
    zone = zone_named(place)
    if zone is None:
        return Band.FLOOR, 0.5 * here.length
    return zone.bands[0], (zone.start + zone.end) / 2 * here.length


def _casting_pins(
    job: Job, port: Port, cut: Cut, castings: Sequence[Casting], here: UnrolledPort, units: Units
) -> Iterator[Pin]:
    """The least of other heads at every place that was not read on this port: where to read first, and no clearance."""
    read = {wall.reading.place for wall in walls_at(job, port, cut)}
    for zone in (z for z in ZONES if z.name not in read):
        found = [(w, c) for c in castings if (w := c.least_at(port.kind, zone.name)) is not None]
        least = min(found, key=lambda each: each[0].least, default=None)
        if least is not None:
            wall, known = least
            band, along = _middle_of(zone.name, here)
            tip = tr("{}: {}. Read it on this port: castings shift.", zone.name, casting_words(known, wall, units))
            side = wall.side if wall.side in tuple(Band) else band
            yield Pin(side or band, along, 0.0, units.length.text(wall.least), False, tip=tip, of_casting=True)


def casting_words(known: Casting, wall: CastingWall, units: Units) -> str:
    """What a casting's other heads had at a place: "least 0.118 of 6 readings, 3 heads"."""
    of = tr(" of {}", known.whose) if known.whose else ""
    readings = tr("{} reading{}", wall.count, "s" * (wall.count != 1))
    heads = tr(", {} head{}{}", known.heads, "s" * (known.heads != 1), of) if known.heads else of or tr(", a sawn head")
    return tr("least {} of {}{}", units.length.with_unit(wall.least), readings, heads)


def _slip_pin(slip: Slip, here: UnrolledPort, units: Units) -> Pin:
    """Where something went wrong; a nicked seat or a cut guide stands at the bowl's end."""
    band, along = _middle_of(slip.place or Place.BOWL, here)
    deep = "" if slip.depth is None else tr(", {} deep", units.length.with_unit(slip.depth))
    return Pin(slip.side or band, along, 0.0, "slip", True, tip=f"{SlipKind(slip.kind).words}{deep}", slip=True)


def _pin(job: Job, wall: WallLeft, here: UnrolledPort, units: Units) -> Pin:
    reading = wall.reading
    first, middle = _middle_of(reading.place, here)
    band, along = reading.band or first, middle if reading.along is None else reading.along
    since = tr(", {} worked off since", units.length.text(wall.taken_since)) if wall.taken_since else ""
    when = tr(" on {}", reading.date[:10]) if reading.date else ""
    tip = wall_sentence(job, wall, units.length.unit)
    if not wall.unknown and wall.tube is None:
        read = tr("read {}{} at cut {}{}", units.length.with_unit(reading.thickness), when, wall.read_at_cut, since)
        tip = tr(
            "{}: {}; {} left after the uncertainty of both", reading.place, read, units.length.text(max(wall.left, 0.0))
        )
    return Pin(
        band=band,
        along=along,
        across=reading.across,
        text=_pin_text(wall, units),
        thin=wall.tube is None and not wall.unknown and wall.left < wall.limit,
        behind=reading.behind,
        tip=tip,
    )

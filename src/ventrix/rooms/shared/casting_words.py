"""What a casting taught, in lines: where it is thin, what to look for, ports as cast, hours, and whose it is."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from ventrix.core.castings.casting_file import Casting
from ventrix.core.model.kinds import Direction
from ventrix.core.quantity.units import from_si
from ventrix.core.quantity.words import sentence
from ventrix.rooms.display_units import Units
from ventrix.words import tr

CLEARS_NOTHING = tr(
    "It says what to look for and what to read first. Castings shift: it clears no warning on this head."
)


def casting_lines(castings: Sequence[Casting], units: Units) -> tuple[str, ...]:
    """Every file of a number, a paragraph of lines each."""
    return tuple(line for each in castings for line in _of_one(each, units))


def _of_one(found: Casting, units: Units) -> Iterator[str]:
    heads = tr("{} head{}", found.heads, "s" * (found.heads != 1))
    yield f"From {found.whose}, {heads}:" if found.whose else f"By your own {heads}:"
    for wall in found.walls:
        side = f", {wall.side}" if wall.side else ""
        spread = tr(", spread {}", units.length.text(wall.spread)) if wall.spread is not None else ""
        least, middle = units.length.text(wall.least), units.length.with_unit(wall.median)
        where = f"{sentence(wall.kind).rstrip('.')}, {wall.place}{side}"
        yield f"{where}: least {least}, median {middle}{spread}, of {wall.count}"
    for section in found.sections:
        walls = ", ".join(f"{side} {units.length.text(v)}" for side, v in section.walls)
        yield f"Sawn at the {section.place} of an {section.kind}: {walls} {units.length.label}"
    for fault in found.faults:
        yield f"{sentence(fault.kind).rstrip('.')} at the {fault.place or 'port'}: {fault.count} times"
    for port in found.as_cast:
        volume = "" if port.volume is None else f" {units.volume.with_unit(port.volume)}"
        flow = "" if port.flow is None else tr(" {} at its best lift", units.flow.with_unit(port.flow))
        yield f"{sentence(port.kind).rstrip('.')} as cast:{volume}{flow}"
    if found.minutes:
        timed = ", ".join(f"{stage} {from_si(seconds, 'min'):.0f}" for stage, seconds in found.minutes.items())
        yield f"Minutes a stage took: {timed}"
    if found.told:
        ports = ", ".join(f"{told.ports} {kind}s" for kind, told in found.told.items())
        yield f"Plan begins with {ports} of it"


def read_first(castings: Sequence[Casting], kind: Direction, units: Units) -> tuple[str, ...]:
    """Where a kind of port of this casting is thinnest, thinnest first."""
    places = dict.fromkeys(w.place for c in castings for w in c.walls if w.kind == kind)
    leasts = {p: min(w.least for c in castings if (w := c.least_at(kind, p)) is not None) for p in places}
    thinnest = sorted(leasts, key=lambda place: leasts[place])[:3]
    return tuple(tr("{}, least {}", place, units.length.with_unit(leasts[place])) for place in thinnest)

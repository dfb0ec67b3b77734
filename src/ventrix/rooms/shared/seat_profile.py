"""A seat in section, true to size, and what its recipe has brought so far."""

from __future__ import annotations

import math
from dataclasses import dataclass

from ventrix.core.judging.findings import Findings
from ventrix.core.model.job_parts import Seat
from ventrix.core.model.kinds import Direction
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import from_si, to_si
from ventrix.rooms.display_units import Units
from ventrix.rooms.shared.gain_words import doubt_text, gain_text
from ventrix.words import tr

# Usual widths of the contact and the margin [in]: common practice, no source.
USUAL_CONTACT: dict[Direction, tuple[float, float]] = {
    Direction.INTAKE: (0.045, 0.050),
    Direction.EXHAUST: (0.050, 0.055),
}
USUAL_MARGIN = 0.010
ARC = 12  # points that a radius is drawn with

Point = tuple[float, float]  # towards the throat, into the port [m]


@dataclass(frozen=True, slots=True)
class Profile:
    """The line of a seat from the chamber's edge inwards, and the stretch of it that the valve touches."""

    line: tuple[Point, ...]
    contact: tuple[Point, Point] | None

    @property
    def size(self) -> Point:
        """How far it goes inwards and down [m]."""
        return max(x for x, _ in self.line), max(y for _, y in self.line)


def seat_profile(seat: Seat) -> Profile:
    """The seat's line: each face at its angle and its width along it; or a radius up to the contact.

    ValueError, with a sentence, where angles and widths do not fit together.
    """
    if seat.radius is None and len(seat.angles) != len(seat.widths):
        raise Refused("{} angles and {} widths: each face needs both", len(seat.angles), len(seat.widths))
    if seat.radius is None and not seat.angles:
        raise Refused("name the angles, or a radius")
    if any(b <= a for a, b in zip(seat.angles, seat.angles[1:], strict=False)):
        raise Refused("angles grow steeper from the chamber to the throat")
    at: Point = (0.0, 0.0)
    line, contact = [at], None
    touches = _contact_face(seat)
    for i, (angle, width) in enumerate(zip(seat.angles, seat.widths, strict=False)):
        end = at[0] + width * math.cos(angle), at[1] + width * math.sin(angle)
        if i == touches:
            contact = at, end
        line.append(end)
        at = end
    if seat.radius is not None:
        start = seat.angles[-1] if seat.angles else math.radians(30)
        for k in range(1, ARC + 1):
            turn = start + (math.pi / 2 - start) * k / ARC
            line.append(
                (
                    at[0] + seat.radius * (math.sin(turn) - math.sin(start)),
                    at[1] + seat.radius * (math.cos(start) - math.cos(turn)),
                )
            )
    return Profile(tuple(line), contact)


def _contact_face(seat: Seat) -> int | None:
    """Which face the valve touches: the one of the contact's angle, else the middle one."""
    if not seat.angles:
        return None
    if seat.contact_angle is not None:
        return min(range(len(seat.angles)), key=lambda i: abs(seat.angles[i] - (seat.contact_angle or 0.0)))
    return len(seat.angles) // 2


def seat_hint(kind: Direction, units: Units) -> str:
    """What is usual, beside the fields."""
    low, high, margin = (to_si(v, "in") for v in (*USUAL_CONTACT[kind], USUAL_MARGIN))
    length = units.length
    contact = tr("{} to {}", length.text(low), length.with_unit(high))
    return tr("Usual on {}s: contact {}, margin {} (common practice).", kind, contact, length.with_unit(margin))


def seat_words(seat: Seat, units: Units) -> str:
    """A seat in a line: recipe, version, angles, contact."""
    name = f"{seat.recipe or tr('no name')} v{seat.version}"
    faces = "/".join(f"{from_si(a, 'deg'):g}" for a in seat.angles)
    parts = [f"{faces}°" if faces else "", tr("radius {}", units.length.text(seat.radius)) if seat.radius else ""]
    if seat.contact is not None:
        parts.append(tr("contact {}", units.length.text(seat.contact)))
    return ", ".join((name, *(p for p in parts if p)))


def recipe_gains(findings: Findings, units: Units) -> list[str]:
    """What each recipe of the job has brought, a line for each port that it was cut and flowed at."""
    said = []
    for seat in findings.job.seats:
        for port in findings.job.ports:
            for before, cut in zip(port.cuts, port.cuts[1:], strict=False):
                if seat.id not in cut.seat_ids:
                    continue
                gain = findings.gain(findings.pair(port, before, cut)) if before.runs and cut.runs else None
                what = (
                    tr("not flowed both sides")
                    if gain is None
                    else f"{gain_text(gain, units)} {doubt_text(gain, units)}"
                )
                said.append(tr("{}: {}, cut {}, {}", seat_words(seat, units), port.name, cut.number, what))
    return said

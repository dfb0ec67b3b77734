"""A slip in words, for the card, the map and the sheet."""

from __future__ import annotations

from ventrix.core.metal.slips import SeatLeft
from ventrix.core.model.cut import Port, Slip
from ventrix.core.model.kinds import SlipDecision, SlipKind
from ventrix.core.quantity.words import percent_text
from ventrix.rooms.display_units import Units
from ventrix.words import tr


def slip_words(port: Port, slip: Slip, units: Units) -> str:
    """What went wrong, where, what it took, and what was decided: "Intake 3, seat nicked, 4 to 5 o'clock …"."""
    said = [port.name, SlipKind(slip.kind).words]
    if slip.place and slip.place != slip.kind:
        said.append(slip.place + (f", {slip.side}" if slip.side else ""))
    if slip.from_hour is not None and slip.to_hour is not None:
        said.append(tr("{:g} to {:g} o'clock", slip.from_hour, slip.to_hour))
    if slip.depth is not None:
        said.append(tr("{} deep", units.length.with_unit(slip.depth)))
    if slip.width_left is not None:
        said.append(tr("{} of the face left", units.length.with_unit(slip.width_left)))
    if slip.volume is not None:
        said.append(f"{units.volume.text(slip.volume)} cc")
    if slip.photo:
        said.append("photo")
    known = {d.value: d.words for d in SlipDecision}
    by = tr(" by {}", slip.decided_by) if slip.decided_by else ""
    decided = f"{known.get(slip.decision, slip.decision)}{by}" if slip.decision else tr("nothing decided yet")
    return f"{', '.join(said)}: {decided}"


def seat_left_words(left: SeatLeft, units: Units) -> str:
    """What is left of a nicked seat's face, and what a recut does."""
    had, has = units.length.with_unit(left.width), units.length.with_unit(left.left)
    said = tr("{} of {} left: {} of the face is lost.", has, had, percent_text(left.lost, 0))
    sinks = ""
    if left.sinks is not None:
        sinks = tr(" A recut to the old width sinks the valve {}.", units.length.with_unit(left.sinks))
    return f"{said}{sinks}{tr(' A third or more lost is usually recut.') if left.recut else ''}"

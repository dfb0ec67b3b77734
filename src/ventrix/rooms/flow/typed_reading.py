"""A reading as it is typed at the bench: what it says, and what is asked about it before it is kept."""

from __future__ import annotations

import re
from typing import Final, NamedTuple

from ventrix.bench.procedure.lift_plan import Rung
from ventrix.core.model.bench_kinds import ElementKind
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import parse_quantity
from ventrix.core.quantity.words import percent_text
from ventrix.rooms.display_units import Units
from ventrix.rooms.flow.element_in_hand import unit_typed
from ventrix.rooms.flow.odd_at_bench import far_off
from ventrix.rooms.flow.run_in_hand import RunInHand
from ventrix.words import tr

SLIP: Final = 0.35  # relative: a figure typed this far from what is expected is asked about before it is kept
_SWIRL: Final = re.compile(r"\s*(?P<flow>[0-9][0-9.,]*)\s+(?P<swirl>[+\-−]?[0-9][0-9.,]*)\s*")


class TypedReading(NamedTuple):
    """A figure of the bench's element in its measure, the pressure it was read at [Pa], and swirl [rad/s]."""

    figure: float
    pressure: float | None = None
    swirl: float | None = None


def typed_pressure(text: str, units: Units) -> TypedReading:
    """A pressure alone, as the zero of the bench is read."""
    return TypedReading(parse_quantity(text, units.pressure.unit))


def typed_reading(text: str, kind: ElementKind, units: Units, *, with_swirl: bool) -> TypedReading:
    """A figure, its pressure and its swirl in rpm: "31.2", "31.2 @ 27.6", "31.2 1450"; two columns as "412 903".

    ValueError, in words, for what is no figure, one column of two, or a pressure that is not above zero.
    """
    if kind == ElementKind.COLUMNS:
        return _columns(text, units)
    main, mark, rest = text.partition("@")
    pressure = parse_quantity(rest, units.pressure.unit) if mark else None
    if pressure is not None and pressure <= 0:
        raise Refused("the pressure must be above zero")
    unit = unit_typed(kind, units)
    behind = _SWIRL.fullmatch(main) if with_swirl else None
    if behind is None:
        return TypedReading(parse_quantity(main, unit), pressure)
    return TypedReading(parse_quantity(behind["flow"], unit), pressure, parse_quantity(behind["swirl"], "rpm"))


def _columns(text: str, units: Units) -> TypedReading:
    cells = [c for c in re.split(r"[\s/;]+", text) if c]
    if len(cells) != 2:
        raise Refused("two columns are needed: element, then port, as 412 903")
    element, port = (parse_quantity(c, units.pressure.unit) for c in cells)
    if port <= 0:
        raise Refused("the port's column must be above zero")
    return TypedReading(element, port)


def asked_about(hand: RunInHand, rung: Rung, typed: TypedReading, units: Units) -> str:
    """What is asked about a reading at a lift before it is kept; nothing where it is as expected."""
    if hand.element.kind == ElementKind.PERCENT and typed.figure > 1:
        return tr("{} is past the end of the range.", percent_text(typed.figure, 0))
    value = hand.element.as_reported(typed.figure, typed.pressure)
    off = "" if value is None else far_off(hand, rung.lift, value, least=SLIP)
    return f"{units.lift.text(rung.lift)}: {off}." if off else ""

"""The conditions of a run that can be chosen or typed, and what may stand in each."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, Final

from ventrix.core.model.kinds import Direction, Entry, Pipe
from ventrix.core.model.run import SetUp
from ventrix.core.quantity.field_checks import Check, positive
from ventrix.core.quantity.refused import Refused
from ventrix.rooms.display_units import Units
from ventrix.words import tr

NOT_RECORDED: Final = tr("not recorded")


@dataclass(frozen=True, slots=True)
class Choice:
    """A condition chosen from a list: words on screen and the value they stand for."""

    key: str
    caption: str
    options: tuple[tuple[str, Any], ...]
    exhaust_only: bool = False


CHOICES: Final = (
    Choice("centred", tr("Head centered on the bore"), ((tr("yes"), True), (tr("no"), False))),
    Choice(
        "entry",
        tr("Entry"),
        tuple((e.words, e) for e in Entry),
    ),
    Choice("pipe", tr("Exhaust pipe"), tuple((p.words, p) for p in Pipe), exhaust_only=True),
    Choice(
        "valve",
        tr("Valve fitted"),
        ((tr("the job's own"), "job"), (tr("test valve"), "test"), (tr("valve out"), "out")),
    ),
    Choice("valves_open", tr("Valves opened"), ((tr("both of a pair"), "both"), (tr("one of a pair"), "one"))),
    Choice("springs", tr("Springs"), ((tr("light"), "light"), (tr("the job's own"), "job"))),
    Choice("plug", tr("Plug hole"), ((tr("plug in"), "in"), (tr("open"), "out"))),
    Choice("clean", tr("Valve and chamber"), ((tr("clean"), True), (tr("carbon on"), False))),
    Choice("swirl_meter", tr("Swirl meter"), ((tr("paddle"), "paddle"), (tr("impulse (torque)"), "impulse"))),
    Choice("swirl_axis", tr("The meter turns with"), ((tr("swirl"), "swirl"), (tr("tumble"), "tumble"))),
)


def _any(value: float) -> None:
    """Every finite figure is allowed."""


def _not_negative(value: float) -> None:
    if value < 0:
        raise Refused("cannot be negative")


def _share(value: float) -> None:
    if not 0 <= value <= 1:
        raise Refused("must lie between 0 and 100 %")


@dataclass(frozen=True, slots=True)
class Figure:
    """A condition typed as a figure."""

    key: str
    caption: str
    unit: str
    check: Check
    exhaust_only: bool = False


FIGURES: Final = (
    Figure("test_pressure", tr("Test pressure"), "pressure", positive),
    Figure("bore", tr("Bore sleeve"), "length", positive),
    Figure("pipe_diameter", tr("Stub diameter"), "length", positive, exhaust_only=True),
    Figure("pipe_length", tr("Stub length"), "length", positive, exhaust_only=True),
    Figure("leak", tr("Leak, opening sealed"), "flow", _not_negative),
    Figure("seat_leak", tr("Seat leak, not taken off"), "flow", _not_negative),
    Figure("temperature", tr("Air temperature"), "temperature", _any),
    Figure("plenum_temperature", tr("Air in the plenum"), "temperature", _any, exhaust_only=True),
    Figure("pressure", tr("Barometer"), "barometer", positive),
    Figure("humidity", tr("Humidity"), "humidity", _share),
)


def condition_words(key: str, value: Any, units: Units) -> str:
    """The value of a condition as a screen says it; "not recorded" for None."""
    if value is None:
        return NOT_RECORDED
    choice = next((c for c in CHOICES if c.key == key), None)
    if choice is not None:
        return next((words for words, option in choice.options if option == value), str(value))
    figure = next((f for f in FIGURES if f.key == key), None)
    return units[figure.unit].with_unit(value) if figure is not None else str(value)


# What a first flow test is asked for, in the order of its line; an exhaust is asked for its pipe in place of its entry.
ASKED_FIRST: Final = ("bore", "entry", "pipe", "valve", "plug", "centred")


def asked_first(setup: SetUp) -> tuple[str, ...]:
    """The five conditions without which a later cut can't be compared with this one, by key."""
    other = "entry" if setup.direction == Direction.EXHAUST else "pipe"
    return tuple(key for key in ASKED_FIRST if key != other)

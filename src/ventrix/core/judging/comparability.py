"""May two runs be compared? The one rule set over their conditions, and what carries one over to the other."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from enum import StrEnum
from typing import Any, Final

from ventrix.core.formulas.knowledge import Adjustment
from ventrix.core.model.kinds import CutKind, Direction
from ventrix.core.model.run import SetUp
from ventrix.core.quantity.said import Amount, Said, joined
from ventrix.core.quantity.units import from_si
from ventrix.core.runs.geometry import Geometry
from ventrix.words import tr


class Level(StrEnum):
    """Whether figures can be held against each other."""

    YES = "yes"
    CONVERTED = "converted"
    UNKNOWN = "unknown"
    NO = "no"


def _plain(value: Any) -> str:
    return str(value)


def _length(value: Any) -> str:
    return Amount(value, "length", "mm")


def _pressure(value: Any) -> str:
    return Amount(value, "pressure", "inH2O", ".4g")


def _degrees(value: Any) -> str:
    return f"{from_si(value, 'deg'):g}°"


def _yes_no(value: Any) -> str:
    return "yes" if value else "no"


@dataclass(frozen=True, slots=True)
class Condition:
    """A condition two runs must share: its field of `SetUp`, its name, and which way it moves flow."""

    key: str
    name: str
    moves: str
    words: Callable[[Any], str] = _plain
    exhaust_only: bool = False
    optional: bool = False  # not recording it is no gap


CONDITIONS: Final = (
    Condition("direction", tr("direction"), tr("draw and blow are different tests")),
    Condition("bench", tr("bench"), tr("two benches differ by several CFM on the very same head")),
    Condition("bore", tr("bore sleeve"), tr("a bigger bore unshrouds the valve and reads high"), _length),
    Condition("entry", tr("entry"), tr("a bare edge reads several percent below a radius")),
    Condition("pipe", tr("pipe"), tr("a stub pipe usually reads high"), exhaust_only=True),
    Condition(
        "pipe_diameter",
        tr("pipe diameter"),
        tr("another stub is another test"),
        _length,
        exhaust_only=True,
        optional=True,
    ),
    Condition(
        "pipe_length",
        tr("pipe length"),
        tr("a longer stub usually reads high"),
        _length,
        exhaust_only=True,
        optional=True,
    ),
    Condition("valve", tr("valve fitted"), tr("another valve or no valve is another test")),
    Condition("valves_open", tr("valves opened"), tr("one valve of a pair passes less than both"), optional=True),
    Condition("plug", tr("plug"), tr("an open plug hole lets air past the port")),
    Condition(
        "centred",
        tr("head centered on the bore"),
        tr("an off-center head unshrouds the valve and reads high"),
        _yes_no,
    ),
    Condition("clean", tr("clean"), tr("carbon on valve and chamber costs flow"), _yes_no, optional=True),
)
# Sizes of the valve that a run was flowed with: known and different is no, missing is no gap. The throat is metal.
SIZES: Final = (
    ("valve_diameter", tr("valve head"), tr("another valve is another test"), _length),
    ("stem_diameter", "stem", tr("another stem is another test"), _length),
    ("seat_angle", tr("seat angle"), tr("another seat flows differently at every low lift"), _degrees),
)
# What each kind of change, declared anywhere between the two, allows to differ.
_ALLOWED: Final[dict[CutKind, tuple[str, ...]]] = {
    CutKind.VALVE: ("valve", "valve_diameter", "stem_diameter", "seat_angle"),
    CutKind.SEAT: ("seat_angle",),
    CutKind.CLEAN: ("clean",),
    CutKind.ENTRY: ("entry",),
    CutKind.PIPE: ("pipe",),
}


@dataclass(frozen=True, slots=True)
class ConditionDifference:
    """One condition that differs or is missing; before and after in words, None where not recorded."""

    key: str
    level: Level
    before: str | None
    after: str | None
    sentence: str


_DIFFERS: Final = tr("{} differs, {} before and {} after: {}.")
CANT_YET: Final = tr("Can't compare yet.")
_STARTS: Final[dict[Level, str]] = {
    Level.YES: tr("May be compared: bench, bore, entry, valve, plug and centering agree."),
    Level.NO: tr("Not to be compared."),
    Level.UNKNOWN: tr("A condition wasn't recorded, so it may have differed."),
    Level.CONVERTED: tr("Compared after conversion."),
}


@dataclass(frozen=True, slots=True)
class Comparability:
    """Whether two set-ups may be compared, and everything that differs."""

    level: Level
    differences: tuple[ConditionDifference, ...]

    @property
    def sentence(self) -> str:
        """The line above the curves."""
        if self.level == Level.YES:
            return _STARTS[Level.YES]
        return Said("{} {}", _STARTS[self.level], self.reason)

    @property
    def start(self) -> str:
        """The same without what differs or is missing, where that is told beside it."""
        return _STARTS[self.level]

    @property
    def gaps(self) -> str:
        """How many conditions are missing, as a headline."""
        count = sum(d.level == Level.UNKNOWN for d in self.differences)
        return tr("{}: {} condition{} missing.", CANT_YET[:-1], count, "s" * (count != 1))

    @property
    def reason(self) -> str:
        """What differs or is missing, a sentence each."""
        return joined([d.sentence for d in self.differences if d.level == self.level])


_ORDER: Final[dict[Level, int]] = {Level.YES: 0, Level.CONVERTED: 1, Level.UNKNOWN: 2, Level.NO: 3}


def same_condition(key: str, a: Any, b: Any) -> bool:
    """Whether two recorded values of a condition are one."""
    if key in ("bore", "pipe_diameter", "pipe_length"):
        return bool(abs(a - b) <= 5e-5)  # m: half a tenth of a millimetre, the rounding of an inch sleeve
    if isinstance(a, str):
        return a.strip().lower() == str(b).strip().lower()
    return bool(a == b)


BRIDGED: Final = ("bench", "bore", "entry", "pipe", "pipe_diameter", "pipe_length")


def comparability(
    before: SetUp,
    after: SetUp,
    changes: Iterable[CutKind] = (CutKind.PORT,),
    transfer: Adjustment | None = None,
    bridge: Adjustment | None = None,
    sizes: tuple[Geometry, Geometry] | None = None,
) -> Comparability:
    """May runs under these two set-ups be compared, when `changes` were declared between them?

    A known difference is *no*; one missing on either side is *unknown*; another test pressure is
    *converted*, and so is another bench where a `transfer` between the two is known, or another sleeve, entry, pipe
    or bench where one cut was flowed both ways (`bridge`). No beats unknown beats converted. The valve's
    `sizes` are conditions too, where both are known. A valve, seat or cleaning cut anywhere between allows its own.
    """
    found: list[ConditionDifference] = []
    allowed = {key for change in changes for key in _ALLOWED.get(change, ())}
    exhaust = Direction.EXHAUST in (before.direction, after.direction)
    for c in CONDITIONS:
        if (c.exhaust_only and not exhaust) or c.key in allowed:
            continue
        a, b = getattr(before, c.key), getattr(after, c.key)
        a_words = None if a is None else c.words(a)
        b_words = None if b is None else c.words(b)
        if a is None or b is None:
            if c.optional or (exhaust and c.key == "entry"):
                continue  # an exhaust is blown from the bore: no entry is laid on it
            where = tr("on either side") if a is None and b is None else ("before" if a is None else "after")
            said: str = tr("{} was not recorded {}: {}.", c.name.capitalize(), where, c.moves)
            found.append(ConditionDifference(c.key, Level.UNKNOWN, a_words, b_words, said))
        elif c.key == "bench" and not same_condition(c.key, a, b) and transfer is not None and bridge is None:
            said = Said(_DIFFERS, tr("Bench"), a_words, b_words, transfer.sentence)
            found.append(ConditionDifference(c.key, Level.CONVERTED, a_words, b_words, said))
        elif not same_condition(c.key, a, b) and bridge is not None and c.key in BRIDGED:
            said = Said(_DIFFERS, c.name.capitalize(), a_words, b_words, bridge.sentence)
            found.append(ConditionDifference("bridge", Level.CONVERTED, a_words, b_words, said))
        elif not same_condition(c.key, a, b):
            said = Said(_DIFFERS, c.name.capitalize(), a_words, b_words, c.moves)
            found.append(ConditionDifference(c.key, Level.NO, a_words, b_words, said))
    if sizes is not None:
        found += _size_differences(*sizes, allowed)
    pressure = _pressure_difference(before, after)
    if pressure is not None:
        found.append(pressure)
    levels: list[Level] = [Level.YES, *(d.level for d in found)]
    level = max(levels, key=_ORDER.__getitem__)
    return Comparability(level, tuple(found))


def _size_differences(before: Geometry, after: Geometry, allowed: set[str]) -> list[ConditionDifference]:
    found = []
    for key, name, moves, words in SIZES:
        a, b = getattr(before, key), getattr(after, key)
        grain = 2e-3 if key == "seat_angle" else 5e-5  # rad, m: the rounding of a catalogue
        if key in allowed or a is None or b is None or abs(a - b) <= grain:
            continue
        undeclared = tr("{} differs, {} before and {} after, and no cut between says so: {}.")
        said = Said(undeclared, name.capitalize(), words(a), words(b), moves)
        found.append(ConditionDifference(key, Level.NO, words(a), words(b), said))
    return found


def _pressure_difference(before: SetUp, after: SetUp) -> ConditionDifference | None:
    a, b = before.test_pressure, after.test_pressure
    if a is None or b is None or abs(a / b - 1) < 1e-3:
        return None
    how = tr("brought to one pressure, with the uncertainty of that counted")
    said = Said(_DIFFERS, tr("Test pressure"), _pressure(a), _pressure(b), how)
    return ConditionDifference("test_pressure", Level.CONVERTED, _pressure(a), _pressure(b), said)

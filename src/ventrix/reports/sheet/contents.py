"""What a sheet says, as values: every text ready to be drawn, every number with the mark it has to carry."""

from __future__ import annotations

from dataclasses import dataclass, field
from enum import StrEnum
from typing import Final


class Mark(StrEnum):
    """Why a number is not simply measured. Its sign stands behind the number, and is explained at the foot."""

    sign: str
    words: str

    def __new__(cls, value: str, sign: str = "", words: str = "") -> Mark:
        member = str.__new__(cls, value)
        member._value_ = value
        member.sign, member.words = sign, words
        return member

    CONVERTED = "converted", "†", "converted from another test pressure"
    CARRIED = "transferred", "‡", "carried over from other conditions by parts or a state flowed both ways"
    CLAIMED = "claimed", "§", "claimed, and not measured here"
    INTERPOLATED = "interpolated", "°", "between tested lifts: never proven"
    INCOMPARABLE = "not comparable", "*", "conditions differ or were not recorded: not to be compared"
    NOT_FLOWED = "not flowed", "·", "taken to be like another port, and not flowed itself"


class Part(StrEnum):
    """A part of the sheet, in the order it comes in unless another is chosen."""

    words: str

    def __new__(cls, value: str, words: str = "") -> Part:
        member = str.__new__(cls, value)
        member._value_ = value
        member.words = words
        return member

    MINE = "mine", "my lifts, large"
    VERDICT = "verdict", "verdict"
    CURVES = "curves", "curves, both kinds"
    LIFTS = "lifts", "every lift, before and after"
    FIGURES = "figures", "volume, sections, speed"
    DONE = "done", "what was done"
    DOUBT = "doubt", "every lift with its uncertainty"
    ENGINE = "engine", "on the engine"
    PORTS = "ports", "all ports in one table"
    HOURS = "hours", "hours by cut"
    PHOTOS = "photos", "photos"
    CONDITIONS = "conditions", "conditions, cautions, what was left out"


ALWAYS: Final = (Part.CONDITIONS,)
USUAL: Final = tuple(p for p in Part if p not in (Part.ENGINE, Part.PORTS, Part.HOURS, Part.PHOTOS))


@dataclass(frozen=True, slots=True)
class Choices:
    """How a sheet is made: its parts in order, paper ("A4", "Letter"), ink ("colour", "grey"), whom it is for."""

    parts: tuple[Part, ...] = USUAL
    paper: str = "A4"
    ink: str = "colour"
    audience: str = "customer"

    def has(self, part: Part) -> bool:
        return part in self.parts or part in ALWAYS


@dataclass(frozen=True, slots=True)
class Shop:
    """Whose sheet it is: name, a line below it, and a picture file's bytes."""

    name: str = ""
    line: str = ""
    logo: bytes = b""


@dataclass(frozen=True, slots=True)
class Large:
    """One of the large figures at the head."""

    caption: str
    text: str
    change: str = ""
    result: str = ""
    was: str = ""
    mark: str = ""


@dataclass(frozen=True, slots=True)
class LiftFigures:
    """One lift of a pair: texts, and what is proven."""

    lift: str
    before: str
    after: str
    gain: str
    doubt: str
    result: str
    mark: str = ""


@dataclass(frozen=True, slots=True)
class Curve:
    """A curve in display units."""

    x: tuple[float, ...]
    y: tuple[float, ...]


@dataclass(frozen=True, slots=True)
class PairPart:
    """One kind of port on the sheet: the pair, what it proves, and its conditions in words."""

    kind: str
    port: str
    before_name: str
    after_name: str
    unit: str
    verdict: str
    sentence: str
    comparability: str
    conditions: tuple[str, ...]
    lifts: tuple[LiftFigures, ...]
    before: Curve
    after: Curve
    warnings: tuple[str, ...] = ()
    marks: tuple[Mark, ...] = ()

    @property
    def sign(self) -> str:
        """The signs that stand behind its name."""
        return "".join(m.sign for m in self.marks if m is not Mark.INTERPOLATED)


@dataclass(frozen=True, slots=True)
class FigureRow:
    """A figure before and after. `missing` where it was not measured."""

    caption: str
    before: str
    after: str
    result: str = ""
    mark: str = ""
    missing: bool = False


@dataclass(frozen=True, slots=True)
class Owned:
    """A limit printed on the page: a shape, a title and what it is about."""

    shape: str  # converted, missing, unproven, left, same
    title: str
    says: str


@dataclass(frozen=True, slots=True)
class PhotoPart:
    """A picture of the work: its file's bytes, and what stands beneath it."""

    data: bytes
    caption: str


@dataclass(frozen=True, slots=True)
class Sheet:
    """Everything a sheet says."""

    shop: Shop
    title: str
    author: str
    customer: str
    date: str
    casting: str
    conditions: tuple[str, ...]
    large: tuple[Large, ...]
    pairs: tuple[PairPart, ...]
    lift_label: str
    figures: tuple[FigureRow, ...]
    done: tuple[str, ...]
    engine: tuple[str, ...]
    hours: tuple[tuple[str, str], ...]
    ports_head: tuple[str, ...]
    ports: tuple[tuple[str, ...], ...]
    photos: tuple[PhotoPart, ...]
    notes: tuple[str, ...]
    cautions: tuple[str, ...]
    faults: tuple[str, ...]
    owned: tuple[Owned, ...]
    not_ready: str = ""
    port: str = ""
    choices: Choices = field(default_factory=Choices)

    @property
    def marks(self) -> tuple[Mark, ...]:
        """Every mark that stands somewhere on the sheet, once."""
        used = {m for p in self.pairs for m in p.marks}
        return tuple(m for m in Mark if m in used)

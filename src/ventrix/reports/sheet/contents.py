"""What a sheet says, as values: every text ready to be drawn, every number with the mark it has to carry."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Final

from ventrix.core.model.kinds import KeptWord, Worded
from ventrix.words import tr


class Mark(KeptWord):
    """Why a number is not simply measured. Its sign stands behind the number, and is explained at the foot."""

    sign: str
    words: str

    def __new__(cls, value: str, sign: str = "", words: str = "") -> Mark:
        member = str.__new__(cls, value)
        member._value_ = value
        member.sign, member.words = sign, tr(words)
        return member

    CONVERTED = "converted", "†", "converted from another test pressure"
    CARRIED = "transferred", "‡", "carried over from other conditions by parts or a state flowed both ways"
    CLAIMED = "claimed", "§", "claimed, and not measured here"
    INTERPOLATED = "interpolated", "°", "between tested lifts: never proven"
    INCOMPARABLE = "not comparable", "*", "conditions differ or were not recorded: not to be compared"
    NOT_FLOWED = "not flowed", "·", "taken to be like another port, and not flowed itself"


class PaperKind(KeptWord):
    """What a sheet is: two states held against each other, or one that is described."""

    words: str
    below: str

    def __new__(cls, value: str, words: str = "", below: str = "") -> PaperKind:
        member = str.__new__(cls, value)
        member._value_ = value
        member.words, member.below = tr(words), tr(below)
        return member

    PAIR = "pair", "before and after", "two flowed cuts compared"
    BASELINE = "baseline", "as it flows", "one flowed cut: what it flows, what limits it, what it suits"
    WORK = "work", "work done", "metal, faults, walls, volume and hours, without a flow test"
    JUDGED = "judged", "head judged", "what it suits, and what it would take"


class Part(Worded):
    """A part of the sheet, in the order it comes in unless another is chosen."""

    MINE = "mine", "large figures"
    VERDICT = "verdict", "verdict"
    CURVES = "curves", "curves, both kinds"
    LIFTS = "lifts", "every lift"
    FIGURES = "figures", "volume, sections, speed"
    DONE = "done", "what was done"
    SUITS = "suits", "what it suits"
    LIMITS = "limits", "what limits it, what it would take"
    METAL = "metal", "walls, faults, slips"
    SCAN = "scan", "sections and metal taken, by scan"
    DOUBT = "doubt", "every lift with its uncertainty"
    ENGINE = "engine", "on the engine"
    PORTS = "ports", "all ports in one table"
    HOURS = "hours", "hours"
    PHOTOS = "photos", "photos"
    CONDITIONS = "conditions", "conditions, cautions, what was left out"


ALWAYS: Final = (Part.CONDITIONS,)
_OFFERED: Final = {
    PaperKind.PAIR: tuple(p for p in Part if p not in (Part.SUITS, Part.LIMITS, Part.METAL)),
    PaperKind.BASELINE: (
        Part.MINE, Part.CURVES, Part.LIFTS, Part.FIGURES, Part.LIMITS, Part.SUITS, Part.METAL, Part.SCAN, Part.PORTS,
        Part.PHOTOS, Part.CONDITIONS,
    ),
    PaperKind.WORK: (
        Part.MINE, Part.FIGURES, Part.DONE, Part.METAL, Part.SCAN, Part.HOURS, Part.PORTS, Part.PHOTOS, Part.CONDITIONS,
    ),
    PaperKind.JUDGED: (
        Part.MINE, Part.SUITS, Part.LIMITS, Part.FIGURES, Part.METAL, Part.SCAN, Part.PHOTOS, Part.CONDITIONS,
    ),
}  # fmt: skip
USUAL: Final = tuple(p for p in Part if p not in (Part.ENGINE, Part.PORTS, Part.HOURS, Part.PHOTOS))


def usual_parts(kind: PaperKind) -> tuple[Part, ...]:
    """The parts that are on a paper of this kind where nobody chose."""
    return USUAL if kind is PaperKind.PAIR else tuple(p for p in _OFFERED[kind] if p is not Part.PORTS)


def offered(kind: PaperKind) -> tuple[Part, ...]:
    """The parts that a paper of this kind can have, in their usual order."""
    return _OFFERED[kind]


@dataclass(frozen=True, slots=True)
class Choices:
    """How a sheet is made: its parts in order, paper ("A4", "Letter"), ink ("colour", "grey"), whom it is for.

    Parts that the kind of paper does not offer are passed over.
    """

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
class ScanPart:
    """Sections along a port by scan, a curve a cut in display units, and sentences of the metal taken."""

    kind: str
    caption: str
    sections: Mapping[str, Curve]
    lines: tuple[str, ...]


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
    def states(self) -> str:
        """Port and states, in words."""
        one = self.before_name == self.after_name
        return f"{self.port}{self.sign}: " + (
            self.after_name if one else tr("{} to {}", self.before_name, self.after_name)
        )

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
class SectionLine:
    """A line of a section: a caption with its figure, or a sentence alone (no figure)."""

    words: str
    figure: str | None = None


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
    sections: Mapping[Part, tuple[SectionLine, ...]]
    ports_head: tuple[str, ...]
    ports: tuple[tuple[str, ...], ...]
    photos: tuple[PhotoPart, ...]
    notes: tuple[str, ...]
    cautions: tuple[str, ...]
    faults: tuple[str, ...]
    owned: tuple[Owned, ...]
    not_ready: str = ""
    port: str = ""
    kind: PaperKind = PaperKind.PAIR
    choices: Choices = field(default_factory=Choices)
    scan: ScanPart | None = None

    @property
    def subject(self) -> str:
        """What the document is, where no shop's name stands over it."""
        flowed = self.kind in (PaperKind.PAIR, PaperKind.BASELINE)
        return tr("Flow test of a cylinder head") if flowed else tr("Work on a cylinder head")

    @property
    def marks(self) -> tuple[Mark, ...]:
        """Every mark that stands somewhere on the sheet, once."""
        used = {m for p in self.pairs for m in p.marks}
        return tuple(m for m in Mark if m in used)

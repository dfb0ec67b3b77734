"""The closed vocabularies of the trade: one list each, for tables, documents, commands, sheets and the simulator.

The value is the word that documents, run tables and the book hold; `words` is what a person reads.
"""

from __future__ import annotations

from enum import StrEnum
from typing import Final, Self

from ventrix.words import tr


class KeptWord(StrEnum):
    """A word that documents hold as it is; put into a sentence it stands in the language that is spoken."""

    def __format__(self, spec: str) -> str:
        return format(tr(self._value_), spec)


class Worded(KeptWord):
    """A word that is kept, and the words it is shown by."""

    words: str

    def __new__(cls, value: str, words: str = "") -> Self:
        member = str.__new__(cls, value)
        member._value_ = value
        member.words = tr(words or value)
        return member


class Direction(StrEnum):
    """Which way a port flows, and so which kind it is."""

    INTAKE = "intake"
    EXHAUST = "exhaust"


class CutKind(Worded):
    """What kind of change a cut is. ENTRY and PIPE are only ever a trial's stand-in."""

    PORT = "port", "metal off the port"
    VALVE = "valve", "valve change"
    SEAT = "seat", "valve job"
    CHAMBER = "chamber"
    CLEAN = "clean", "cleaning"
    FINISH = "finish", "finish only"
    FILL = "fill", "fill, metal or epoxy added"
    ENTRY = "entry"
    PIPE = "pipe"


CUT_KINDS: Final = tuple(k for k in CutKind if k not in (CutKind.ENTRY, CutKind.PIPE))


class TrialKind(Worded):
    """What is tried and can be taken back."""

    CLAY = "clay", "clay, narrowing a place"
    VALVE = "valve", "another valve"
    ENTRY = "entry", "another entry"
    PIPE = "pipe", "a pipe"


class FacePart(Worded):
    """What a face belongs to."""

    HEAD = "head"
    GASKET = "gasket"
    MANIFOLD = "manifold"
    HEADER = "header"
    CHAMBER = "chamber"  # its outlines are chambers about the middles of their bores, its bolts the valves' middles


class OutlineShape(Worded):
    """How an opening is described."""

    RECTANGLE = "rectangle", "rectangle with radii"
    ROUND = "round"
    D = "d", "D, its floor flat"
    OVAL = "oval"
    POLYGON = "polygon", "traced points"


class KnownBy(Worded):
    """How a wall is known where no gauge read it."""

    CASTING = "casting file", "the casting file: other heads of this number"
    SISTER = "sister head", "a gauge on a sister head of this number"
    PLUG = "drilled plug", "drilled through, measured and plugged"
    FEEL = "feel", "feel, and stop early"


class HoleWork(Worded):
    """What was done to a hole at a port's wall."""

    TUBED = "tubed", "a tube set in it"
    PLUGGED = "plugged", "plugged"
    WELDED = "welded", "welded shut"
    MOVED = "moved", "moved, a new hole beside it"
    TAPPED = "tapped", "tapped for a thread"


class ValveMetal(Worded):
    """What a valve is made of: its guide's clearance goes by it."""

    STEEL = "steel"
    STAINLESS = "stainless", "stainless steel"
    TITANIUM = "titanium"
    SODIUM = "sodium", "sodium-filled"


class FitKind(Worded):
    """A fit that is held against a limit."""

    COIL_BIND = "coil bind", "left of the spring at full lift"
    GUIDE = "guide", "stem's clearance in its guide"
    LAP = "lap", "lapped contact, width"
    HEIGHTS = "heights", "fitted heights lie apart by"
    FLATNESS = "flatness"


class PartState(Worded):
    """How far a part of the job is."""

    NEEDED = "needed"
    ORDERED = "ordered"
    HERE = "here"
    FITTED = "fitted"


class PartKind(Worded):
    """What a job may wait for, or be charged for."""

    SLEEVE = "sleeve"
    PLUG = "plug"
    GUIDE = "guide"
    VALVE = "valve"
    SPRING = "spring"
    ROCKER = "rocker"
    GASKET = "gasket"
    OTHER = "other"


class Piece(Worded):
    """What is bolted to a port and flowed as a piece of its own."""

    RUNNER = "runner", "manifold runner"
    SPACER = "spacer", "carburetor spacer"
    HEADER = "header", "header primary"


class Induction(Worded):
    """What the engine breathes through before its manifold."""

    CARBURETTOR = "carburettor"
    THROTTLE_BODY = "throttle body"
    BOOSTED = "boosted"


class ResultKind(Worded):
    """Where an engine showed what it does."""

    DYNO = "dyno", "dyno table"
    STRIP = "strip", "strip, time and speed"
    ROAD = "road"
    FUEL = "fuel"


class Entry(Worded):
    """How the air is led into the port or out of the pipe."""

    RADIUS = "radius"
    BARE = "bare", "bare edge"
    MANIFOLD = "manifold"
    PLATE = "plate", "entry plate"


class Pipe(Worded):
    """What hangs from an exhaust port."""

    NONE = "none"
    STUB = "stub"


class RungNoteKind(KeptWord):
    """What is noticed at a lift. Its letter is its key at the bench and its mark on the ladder and the curves."""

    letter: str

    def __new__(cls, value: str, letter: str = "") -> Self:
        member = str.__new__(cls, value)
        member._value_ = value
        member.letter = letter
        return member

    NOISE = "noise", "N"
    DIP = "dip", "I"
    OUT_OF_TRAVEL = "out of travel", "T"
    OUT_OF_BREATH = "out of breath", "O"
    SKIPPED = "skipped", "–"


class StepKind(KeptWord):
    """The steps of preparing a bench, in order."""

    WARM_UP = "warm-up"
    ZERO = "zero"
    LEAK = "leak"
    SEAT_LEAK = "seat leak"
    PLATE = "plate"
    OPEN_PORT = "open port"


class Result(KeptWord):
    """What a bench proved: of one lift (better, worse, not proven), or of a whole cut."""

    BETTER = "better"
    WORSE = "worse"
    NOT_PROVEN = "not proven"
    NO_GAIN = "no gain"
    CANT_TELL = "can't tell"


class School(KeptWord):
    """Which lifts count."""

    CAM = "cam-weighted"
    LOW = "low lift first"
    PEAK = "peak and near-peak"
    MINE = "my lifts"


class Band(Worded):
    """A side of the port, in the order of the unrolled map, top to bottom."""

    LEFT = "left", "wall, left"
    ROOF = "roof"
    RIGHT = "right", "wall, right"
    FLOOR = "floor"


class Place(KeptWord):
    """Where work is done and walls are read."""

    BOWL = "bowl"
    THROAT = "throat"
    SHORT_SIDE = "short side"
    GUIDE = "guide"
    PINCH = "pinch"
    OPENING = "opening"
    ROOF = "roof"
    FLOOR = "floor"
    CHAMBER = "chamber"
    SEAT = "seat"
    ALL_OVER = "all over"


class Until(Worded):
    """How far work went where no depth was taken."""

    FLUSH = "flush", "until flush"
    SCRIBE = "scribe", "to the scribe"


class FaultKind(Worded):
    """What castings come with."""

    FLASH = "flash", "casting line or flash"
    SLAG = "slag"
    LEDGE = "ledge", "ledge where machining stopped"
    ROUGH = "roughness"
    OVERHANG = "overhang", "overhang under the seat"
    SEAT_OVERHANG = "seat overhang", "seat overhanging the bowl"
    GUIDE_STEP = "guide step", "guide tip or step"
    OFF_GASKET = "off gasket", "port off its gasket"
    CORE_SHIFT = "core shift", "core shift seen"
    CRACK = "crack"
    CORROSION = "corrosion"


class FaultState(Worded):
    """What became of a fault."""

    OPEN = "open"
    LEFT = "left", "left on purpose"
    GONE = "gone"


class SlipKind(Worded):
    """What went wrong with the metal."""

    SEAT = "seat", "seat nicked"
    GUIDE = "guide", "guide cut"
    WALL = "wall", "wall cut through"
    LAND = "land", "gasket land cut"
    OTHER = "other"


class SlipDecision(Worded):
    """What was decided about a slip."""

    WATCH = "watch", "leave it and watch"
    LAP = "lap", "lap the seat"
    RECUT = "recut", "recut the seat"
    INSERT = "insert", "fit an insert"
    WELD = "weld"
    SLEEVE = "sleeve"
    SCRAP = "scrap", "scrap the head"


class RunBasis(Worded):
    """Where a run comes from: flowed on a bench of this shop, or read off another shop's paper."""

    BENCH = "bench"
    PAPER = "paper"


class StageUnit(Worded):
    """What a stage of the work is done to."""

    PORT = "port"
    CHAMBER = "chamber"
    HEAD = "head"
    JOB = "job"


class ExpectedAs(Worded):
    """Which number a gain that was said first was meant as."""

    WEIGHTED = "weighted", "across the lifts that count"
    PEAK = "peak", "at peak"
    LIFT = "lift", "at one lift"


class JobState(Worded):
    """Where a job stands. Late is not one of them: that is the promise, held against the day."""

    OPEN = "open", "on the bench"
    WAITING = "waiting", "waits"
    HANDED_OVER = "handed over"
    LEFT = "left", "not finished"


class LibraryKind(Worded):
    """What the book's library holds, for every job."""

    CLAIM = "claim", "claimed curve"
    SEAT = "seat", "seat recipe"
    OUTLINE = "outline", "gasket or face outline"
    CASTING = "casting", "casting file"


class Use(KeptWord):
    """What a head is for, and what that puts first (common practice, no source)."""

    words: str
    order: str

    def __new__(cls, value: str, words: str = "", order: str = "") -> Self:
        member = str.__new__(cls, value)
        member._value_ = value
        member.words, member.order = tr(words), tr(order)
        return member

    TRUCK = (
        "truck",
        "truck or tow",
        "Truck: exhaust first (bowl, guide, cast hump); the intake cleaned, its ridge blended, left small for speed.",
    )
    STREET = "street", "street", "Street: bowls and seats of both kinds of port."
    OVAL = "oval", "oval track", "Oval: smaller sections, and the middle lifts."
    DRAG = "drag", "drag", "Drag: area, and the larger valve."


class StationName(KeptWord):
    """A section the air is probed at. `share` is where along the port it stands, from the opening to the seat."""

    share: float

    def __new__(cls, value: str, share: float = 0.5) -> Self:
        member = str.__new__(cls, value)
        member._value_ = value
        member.share = share
        return member

    OPENING = "opening", 0.0
    PINCH = "pinch", 0.38
    GUIDE = "guide", 0.66
    SHORT_SIDE = "short side", 0.80
    BOWL = "bowl", 0.90
    SEAT = "seat", 1.0
    EXIT = "exit", 1.0

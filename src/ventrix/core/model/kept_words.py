"""Lists that sheets offer and documents hold: what lies behind a wall, how it was poured, what closes a stage."""

from __future__ import annotations

from ventrix.core.model.kinds import KeptWord, Worded


class Behind(KeptWord):
    """What lies behind a wall."""

    NOTHING_KNOWN = "nothing known"
    WATER = "water"
    OIL = "oil"
    PUSHROD = "a pushrod hole"
    BOLT = "a bolt boss"
    NEXT_PORT = "the next port"
    OUTSIDE = "outside"


class PourMethod(KeptWord):
    """How a port is poured."""

    VALVE_IN = "burette and plate, valve in"
    VALVE_OUT = "burette and plate, valve out"
    TO_SEAT = "to the seat, valve's volume taken off"


class ClosedBy(KeptWord):
    """What closes a stage."""

    GAUGE = "gauge"
    CC = "cc"
    FEEL = "feel"
    PHOTO = "photo"
    FLOW = "flow"


class LayoutName(KeptWord):
    """The points that a section is probed at."""

    FIVE = "five points"
    NINE = "nine points"
    EIGHT_RING = "ring of eight"
    CLOCK = "seat clock"


class KnownSizeName(KeptWord):
    """A size that a scan's unit is told by."""

    THROAT = "throat"
    BOWL = "bowl"
    OPENING_WIDTH = "opening width"
    OPENING_HEIGHT = "opening height"
    PINCH_WIDTH = "pinch width"
    PINCH_HEIGHT = "pinch height"
    LENGTH = "length"
    FLOOR = "floor"
    ROOF = "roof"


class SpeedsAt(Worded):
    """What air the typed speeds of a probe stand at."""

    STANDARD = "standard", "standard air, as charts and readouts have it"
    LOCAL = "local", "the air at the probe"


class EngineLayout(Worded):
    """How the cylinders stand."""

    INLINE = "inline"
    V = "v", "V"

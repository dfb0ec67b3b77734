"""The stages of a head: what each is done to, which places it covers, and what its card says. One list a job; the usual
one is common practice, no source."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

from ventrix.core.model.job import Job
from ventrix.core.model.kinds import CutKind, Place, StageUnit
from ventrix.core.quantity.refused import Refused

GAUGE, CC, FEEL, PHOTO, FLOW = CLOSED_BY = ("gauge", "cc", "feel", "photo", "flow")


@dataclass(frozen=True, slots=True)
class Stage:
    """A line of the list: its key and name, what it is done to (a valve job a kind of port at a time), the places and
    kinds of cut that belong to it; the words of its card, and what closes it."""

    key: str
    name: str
    units: tuple[StageUnit, ...] = (StageUnit.PORT,)
    places: tuple[Place, ...] = ()
    cuts: tuple[CutKind, ...] = ()
    a_kind_at_a_time: bool = False
    look: str = ""
    measure: str = ""
    cut: str = "As you wrote it."
    leave: str = ""
    stop_when: str = "It is as you want it."
    caution: str = ""
    closed_by: str = FEEL


_WEAR: Final = "Eye guard, dust mask, long sleeves off the burr; a brazed burr may throw its head."
_READ: Final = "A wall that was not read on this very port has no clearance; one jump of the burr goes through."
PORT, CHAMBER, HEAD, JOB = ((unit,) for unit in (StageUnit.PORT, StageUnit.CHAMBER, StageUnit.HEAD, StageUnit.JOB))
USUAL: Final = (
    Stage("clean", "clean", HEAD, (), (CutKind.CLEAN,), False,
          "Carbon, cracks between the seats and at the plug hole; straight edge along and across.",
          "Flatness; pour the ports as received.", "Nothing yet.", "All of it.",
          "It is bare metal and no crack shows.", "A crack, or a seat that moves, is for the machine shop.", GAUGE),
    Stage("faults", "faults looked for", PORT, (), (), False,
          "Finger and lamp all round: flash, slag, ledges, overhang, guide step, a bump in an exhaust.",
          "Where each is, and how large.", "Nothing yet.", "All of it.",
          "The whole grid was gone through, and every fault is on it.", "", FEEL),
    Stage("walls", "walls read", PORT, (), (), False, "Where water, oil, bolts and pushrods lie behind.",
          "Walls at bowl, short side, pinch and roof.", "Nothing yet.", "All of it.",
          "Every place that is to be worked was read on this port.",
          "A gauge needs its speed set to this metal; corrosion counts as thin.", GAUGE),
    Stage("scribe", "scribed", PORT, (), (), False, "The opening against gasket, manifold or header.",
          "Opening, gasket land.", "Nothing past the scribe.", "The land that seals.",
          "The scribe is set from machined edges.", "A land left too thin does not seal.", GAUGE),
    Stage("casting lines", "casting lines", PORT, (), (), False, "Flash and slag along roof, walls and floor.", "",
          "Lines and slag, until flush.", "The floor itself.", "The finger feels no line.", _WEAR, FEEL),
    Stage("ridge", "bowl and ridge", PORT, (Place.BOWL, Place.THROAT), (), False,
          "The ridge under the seat and the bowl's overhang.", "Throat, bowl.",
          "The ridge, until nothing overhangs all round.", "The seat: stop at its edge, an old valve in place.",
          "The bowl runs into the seat without a step.", f"{_WEAR} {_READ}", GAUGE),
    Stage("short side", "short side", PORT, (Place.SHORT_SIDE,), (), False, "Its height, radius and width.",
          "Radius and height of the short side; its wall.", "Round and widen it.",
          "Its height, where water lies under.", "It is round, its wall above your limit.", _READ, GAUGE),
    Stage("guide", "guide", PORT, (Place.GUIDE,), (), False, "The boss in the air's way.",
          "Boss width, guide protrusion.", "The boss, on both sides alike.", "Enough of it that the guide is held.",
          "It is as slim as your way has it.", "A guide that is not held wears; deburr its tip.", FEEL),
    Stage("walls and roof", "walls and roof", PORT, (Place.PINCH, Place.ROOF, Place.OPENING, Place.FLOOR), (), False,
          "Along the air's line of sight, from the opening to the guide.", "Pinch width and height.",
          "High places of wall and roof.", "Low ones, and the floor.", "No high place is left in sight.",
          f"Beside a pushrod hole the wall is thin on one side. {_READ}", GAUGE),
    Stage("valve job", "valve job", HEAD, (Place.SEAT,), (CutKind.SEAT,), True,
          "Contact, width, margin; sunk seats.", "Seat width, angle, margin.", "Seat angles, top and throat cuts.",
          "Nothing by hand on a seat.", "Contact is whole, width as wanted.",
          "A seat sunk or too narrow is for the machine shop; the maker's data go first.", GAUGE),
    Stage("re-blend", "re-blend", PORT, (Place.BOWL, Place.THROAT), (), False, "Below the lowest cut of the valve job.",
          "Throat.", "The fillet that is left there.", "The seat and its throat cut.",
          "No fillet below the lowest cut.", _WEAR, FEEL),
    Stage("finish", "finish", PORT, (Place.ALL_OVER,), (CutKind.FINISH,), False, "The whole port, wet.", "",
          "Surface alone.", "Sizes.", "It is even all over.", _WEAR, FEEL),
    Stage("chamber", "chamber", CHAMBER, (Place.CHAMBER,), (CutKind.CHAMBER,), False,
          "Sharp edges, the wall that shrouds the valve.", "Chamber volume.", "Edges, with old valves in the seats.",
          "The deck and the seats.", "No edge is sharp.", "A sharp edge glows; compression changes with every cc.", CC),
    Stage("pour", "pour", (StageUnit.PORT, StageUnit.CHAMBER), (), (), False,
          "Against its neighbours, by finger and by burette.", "Poured volume.", "The port that is behind.",
          "The port that is largest.", "It is within 1 cc of its kind.", "", CC),
    Stage("deburr", "deburr", HEAD, (), (), False, "Every edge that was made, and every passage.", "",
          "Burrs and sharp edges.", "The deck, the seats and the gasket land.", "No burr catches a finger or a rag.",
          _WEAR, FEEL),
    Stage("wash", "wash", HEAD, (), (), False, "Corners, passages and threads.", "", "Nothing.", "All of it.",
          "A white rag comes out white.", "Grit left in a passage ends an engine.", FEEL),
    Stage("end list", "end list", JOB, (), (), False, "Threads, passages, chips, flatness, manifold.",
          "Flatness again.", "Burrs.", "", "Every line of the list is ticked.",
          "Chips left in a passage end an engine.", FEEL),
)  # fmt: skip
# What earlier versions, and shops, call them.
ALSO: Final = {
    "faults looked for": "faults",
    "walls read": "walls",
    "scribed": "scribe",
    "bowl and ridge": "ridge",
    "bowl": "ridge",
    "blend": "re-blend",
    "texture": "finish",
}
_OF: Final = {f"({unit})": unit for unit in StageUnit}


def key_of(name: str) -> str:
    """The key that a stage of this name goes by."""
    plain = name.strip().lower()
    return ALSO.get(plain, plain)


def stages_of(job: Job) -> tuple[Stage, ...]:
    """The stages of a job, in order: its own list, else the usual one; and whatever was marked, clocked or sent out
    under another name, so that nothing drops out of sight.

    Raises
    ------
    ValueError
        A name stands twice in the job's own list.
    """
    own = tuple(_read(name) for name in job.stages) or USUAL
    keys = [stage.key for stage in own]
    twice = next((key for key in keys if keys.count(key) > 1), None)
    if twice is not None:
        raise Refused("the stage '{}' is in the list twice", twice)
    named = [op.stage for p in job.ports for c in p.cuts for op in c.operations if op.stage]
    named += [mark.stage for mark in job.stage_marks] + [wait.stage for wait in job.waits]
    others = dict.fromkeys(key_of(name) for name in named if key_of(name) not in keys)
    return (*own, *(_read(name) for name in others))


def _read(name: str) -> Stage:
    """A stage from its line in a job's list: one of the usual, or the shop's own. "(head)" behind a name says what it
    is done to; places that its name names belong to it."""
    plain = name.strip()
    key = key_of(plain)
    usual = next((stage for stage in USUAL if stage.key == key), None)
    if usual is not None:
        return usual
    unit = next((unit for said, unit in _OF.items() if key.endswith(said)), StageUnit.PORT)
    if key.endswith(")") and not any(key.endswith(said) for said in _OF):
        raise Refused("'{}': a stage is done to a port, a chamber, a head or the job", plain)
    places = tuple(place for place in Place if place in key)
    return Stage(key, plain, (unit,), places)

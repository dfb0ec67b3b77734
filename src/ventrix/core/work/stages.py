"""The stages of a head: what each is done to, which places it covers, and what its card says. One list a job; the usual
one is common practice, no source."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

from ventrix.core.model.job import Job
from ventrix.core.model.kept_words import ClosedBy
from ventrix.core.model.kinds import CutKind, Place, StageUnit
from ventrix.core.quantity.refused import Refused
from ventrix.words import tr

GAUGE, CC, FEEL, PHOTO, FLOW = ClosedBy


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
    cut: str = tr("As you wrote it.")
    leave: str = ""
    stop_when: str = tr("It is as you want it.")
    caution: str = ""
    closed_by: str = FEEL


_WEAR: Final = tr("Eye guard, dust mask, long sleeves off the burr; a brazed burr may throw its head.")
_READ: Final = tr("A wall that was not read on this very port has no clearance; one jump of the burr goes through.")
PORT, CHAMBER, HEAD, JOB = ((unit,) for unit in (StageUnit.PORT, StageUnit.CHAMBER, StageUnit.HEAD, StageUnit.JOB))
USUAL: Final = (
    Stage("clean", tr("clean"), HEAD, (), (CutKind.CLEAN,), False,
          tr("Carbon, cracks between the seats and at the plug hole; straight edge along and across."),
          tr("Flatness; pour the ports as received."), tr("Nothing yet."), tr("All of it."),
          tr("It is bare metal and no crack shows."),
          tr("A crack, or a seat that moves, is for the machine shop."), GAUGE),
    Stage("faults", tr("faults looked for"), PORT, (), (), False,
          tr("Finger and lamp all round: flash, slag, ledges, overhang, guide step, a bump in an exhaust."),
          tr("Where each is, and how large."), tr("Nothing yet."), tr("All of it."),
          tr("The whole grid was gone through, and every fault is on it."), "", FEEL),
    Stage("walls", tr("walls read"), PORT, (), (), False, tr("Where water, oil, bolts and pushrods lie behind."),
          tr("Walls at bowl, short side, pinch and roof."), tr("Nothing yet."), tr("All of it."),
          tr("Every place that is to be worked was read on this port."),
          tr("A gauge needs its speed set to this metal; corrosion counts as thin."), GAUGE),
    Stage("scribe", tr("scribed"), PORT, (), (), False, tr("The opening against gasket, manifold or header."),
          tr("Opening, gasket land."), tr("Nothing past the scribe."), tr("The land that seals."),
          tr("The scribe is set from machined edges."), tr("A land left too thin does not seal."), GAUGE),
    Stage("casting lines", tr("casting lines"), PORT, (), (), False,
          tr("Flash and slag along roof, walls and floor."), "",
          tr("Lines and slag, until flush."), tr("The floor itself."), tr("The finger feels no line."), _WEAR, FEEL),
    Stage("ridge", tr("bowl and ridge"), PORT, (Place.BOWL, Place.THROAT), (), False,
          tr("The ridge under the seat and the bowl's overhang."), tr("Throat, bowl."),
          tr("The ridge, until nothing overhangs all round."), tr("The seat: stop at its edge, an old valve in place."),
          tr("The bowl runs into the seat without a step."), f"{_WEAR} {_READ}", GAUGE),
    Stage("short side", tr("short side"), PORT, (Place.SHORT_SIDE,), (), False, tr("Its height, radius and width."),
          tr("Radius and height of the short side; its wall."), tr("Round and widen it."),
          tr("Its height, where water lies under."), tr("It is round, its wall above your limit."), _READ, GAUGE),
    Stage("guide", tr("guide"), PORT, (Place.GUIDE,), (), False, tr("The boss in the air's way."),
          tr("Boss width, guide protrusion."), tr("The boss, on both sides alike."),
          tr("Enough of it that the guide is held."),
          tr("It is as slim as your way has it."), tr("A guide that is not held wears; deburr its tip."), FEEL),
    Stage("walls and roof", tr("walls and roof"), PORT, (Place.PINCH, Place.ROOF, Place.OPENING, Place.FLOOR), (),
          False,
          tr("Along the air's line of sight, from the opening to the guide."), tr("Pinch width and height."),
          tr("High places of wall and roof."), tr("Low ones, and the floor."), tr("No high place is left in sight."),
          tr("Beside a pushrod hole the wall is thin on one side. {}", _READ), GAUGE),
    Stage("valve job", tr("valve job"), HEAD, (Place.SEAT,), (CutKind.SEAT,), True,
          tr("Contact, width, margin; sunk seats."), tr("Seat width, angle, margin."),
          tr("Seat angles, top and throat cuts."),
          tr("Nothing by hand on a seat."), tr("Contact is whole, width as wanted."),
          tr("A seat sunk or too narrow is for the machine shop; the maker's data go first."), GAUGE),
    Stage("re-blend", tr("re-blend"), PORT, (Place.BOWL, Place.THROAT), (), False,
          tr("Below the lowest cut of the valve job."),
          "Throat.", tr("The fillet that is left there."), tr("The seat and its throat cut."),
          tr("No fillet below the lowest cut."), _WEAR, FEEL),
    Stage("finish", tr("finish"), PORT, (Place.ALL_OVER,), (CutKind.FINISH,), False, tr("The whole port, wet."), "",
          tr("Surface alone."), "Sizes.", tr("It is even all over."), _WEAR, FEEL),
    Stage("chamber", tr("chamber"), CHAMBER, (Place.CHAMBER,), (CutKind.CHAMBER,), False,
          tr("Sharp edges, the wall that shrouds the valve."), tr("Chamber volume."),
          tr("Edges, with old valves in the seats."),
          tr("The deck and the seats."), tr("No edge is sharp."),
          tr("A sharp edge glows; compression changes with every cc."), CC),
    Stage("pour", tr("pour"), (StageUnit.PORT, StageUnit.CHAMBER), (), (), False,
          tr("Against its neighbours, by finger and by burette."), tr("Poured volume."), tr("The port that is behind."),
          tr("The port that is largest."), tr("It is within 1 cc of its kind."), "", CC),
    Stage("deburr", tr("deburr"), HEAD, (), (), False, tr("Every edge that was made, and every passage."), "",
          tr("Burrs and sharp edges."), tr("The deck, the seats and the gasket land."),
          tr("No burr catches a finger or a rag."),
          _WEAR, FEEL),
    Stage("wash", tr("wash"), HEAD, (), (), False, tr("Corners, passages and threads."), "", "Nothing.",
          tr("All of it."),
          tr("A white rag comes out white."), tr("Grit left in a passage ends an engine."), FEEL),
    Stage("end list", tr("end list"), JOB, (), (), False, tr("Threads, passages, chips, flatness, manifold."),
          tr("Flatness again."), "Burrs.", "", tr("Every line of the list is ticked."),
          tr("Chips left in a passage end an engine."), FEEL),
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

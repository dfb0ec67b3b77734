"""A route through a head without a bench: what to look at, measure, cut and leave at each stage, and what closes it.

The stages and what they say are common practice, no source. No measurement is required: one that is missing would
sharpen its stage.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from typing import Final

from ventrix.core.metal.walls import limit_for
from ventrix.core.model.cut import Port, carried
from ventrix.core.model.job import Job
from ventrix.core.model.kinds import CutKind, FaultState, Place, Use
from ventrix.core.model.school_questions import side_taken
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import from_si

GAUGE, CC, FEEL, PHOTO, FLOW = CLOSED_BY = ("gauge", "cc", "feel", "photo", "flow")


@dataclass(frozen=True, slots=True)
class Card:
    """One stage at one port: what to look at, what to measure (it would sharpen the stage), what to cut and what to
    leave, when to stop, the usual caution, what closes it, and whether the job shows it done."""

    stage: str
    port: str
    look: str
    measure: str
    cut: str
    leave: str
    stop_when: str
    caution: str
    closed_by: str
    done: bool


Told = Callable[[Job, Port], bool]


@dataclass(frozen=True, slots=True)
class _Stage:
    key: str
    look: str
    measure: str
    cut: str
    leave: str
    stop_when: str
    caution: str
    closed_by: str
    told: Told


def _worked(*places: Place) -> Told:
    return lambda job, port: any(
        w.place in places for c in port.cuts if c.number for op in c.operations for w in op.works
    )


def _kind(kind: CutKind) -> Told:
    return lambda job, port: any(kind in c.kinds for c in port.cuts if c.number)


def _measured(*names: str) -> Told:
    return lambda job, port: bool(port.cuts) and all(carried(port, port.cuts[-1], n) is not None for n in names)


def _never(job: Job, port: Port) -> bool:
    """Nothing else that the job keeps shows it: it is closed by hand."""
    return False


def _faults_seen(job: Job, port: Port) -> bool:
    return bool(port.faults)


def _faults_closed(job: Job, port: Port) -> bool:
    return bool(port.faults) and all(f.state != FaultState.OPEN for f in port.faults)


def _ticked(job: Job, port: Port) -> bool:
    return bool(job.check_marks)


def _walls(job: Job, port: Port) -> bool:
    return any(c.walls for c in port.cuts)


def _poured_twice(job: Job, port: Port) -> bool:
    return bool(port.cuts) and bool(port.cuts[0].pours) and any(c.pours for c in port.cuts if c.number)


def _textured(job: Job, port: Port) -> bool:
    return any(op.finish for c in port.cuts if c.number for op in c.operations)


_WEAR: Final = "Eye guard, dust mask, long sleeves off the burr; a brazed burr may throw its head."
_READ: Final = "A wall that was not read on this very port has no clearance; one jump of the burr goes through."
STAGES: Final = (
    _Stage("clean", "Carbon, cracks between the seats and at the plug hole; straight edge along and across.",
           "Flatness; pour the port as received.", "Nothing yet.", "All of it.", "It is bare metal and no crack shows.",
           "A crack, or a seat that moves, is for the machine shop.", GAUGE, _never),
    _Stage("faults", "Finger and lamp all round: flash, slag, ledges, overhang, guide step, a bump in an exhaust.",
           "Where each is, and how large.", "Nothing yet.", "All of it.", "Every fault stands on the grid.",
           "", FEEL, _faults_seen),
    _Stage("walls", "Where water, oil, bolts and pushrods lie behind.", "Walls at bowl, short side, pinch and roof.",
           "Nothing yet.", "All of it.", "Every place that is to be worked was read on this port.",
           "A gauge needs its speed set to this metal; corrosion counts as thin.", GAUGE, _walls),
    _Stage("scribe", "The opening against gasket, manifold or header.", "Opening, gasket land.",
           "Nothing past the scribe.", "The land that seals.", "The scribe stands from machined edges.",
           "A land left too thin does not seal.", GAUGE, _measured("opening_width", "opening_height")),
    _Stage("casting lines", "Flash and slag along roof, walls and floor.", "", "Lines and slag, until flush.",
           "The floor itself.", "The finger feels no line.", _WEAR, FEEL, _faults_closed),
    _Stage("ridge", "The ridge under the seat and the bowl's overhang.", "Throat, bowl.",
           "The ridge, until nothing overhangs all round.", "The seat: stop at its edge, an old valve in place.",
           "The bowl runs into the seat without a step.", f"{_WEAR} {_READ}", GAUGE, _worked(Place.BOWL, Place.THROAT)),
    _Stage("guide", "The boss in the air's way.", "Boss width, guide standing out.", "The boss, on both sides alike.",
           "Enough of it that the guide is held.", "It is as slim as your way has it.",
           "A guide that is not held wears; deburr its tip.", FEEL, _worked(Place.GUIDE)),
    _Stage("short side", "Its height, radius and width.", "Radius and height of the short side; its wall.",
           "Round and widen it.", "Its height, where water lies under.", "It is round, its wall above your limit.",
           _READ, GAUGE, _worked(Place.SHORT_SIDE)),
    _Stage("walls and roof", "Along the air's line of sight, from the opening to the guide.", "Pinch width and height.",
           "High places of wall and roof.", "Low ones, and the floor.", "No high place is left in sight.",
           f"Beside a pushrod hole the wall is thin on one side. {_READ}", GAUGE,
           _worked(Place.PINCH, Place.ROOF, Place.OPENING)),
    _Stage("valve job", "Contact, width, margin; sunk seats.", "Seat width, angle, margin.",
           "Seat angles, top and throat cuts.", "Nothing by hand on a seat.", "Contact is whole, width as wanted.",
           "A seat sunk or too narrow is for the machine shop; the maker's data go first.", GAUGE, _kind(CutKind.SEAT)),
    _Stage("blend", "Below the lowest cut of the valve job.", "Throat.", "The fillet that is left there.",
           "The seat and its throat cut.", "No fillet below the lowest cut.", _WEAR, FEEL, _never),
    _Stage("texture", "The whole port, wet.", "", "Surface alone.", "Sizes.", "It is even all over.", _WEAR, FEEL,
           _textured),
    _Stage("chamber", "Sharp edges, the wall that shrouds the valve.", "Chamber volume.",
           "Edges, with old valves in the seats.", "The deck and the seats.", "No edge is sharp.",
           "A sharp edge glows; compression changes with every cc.", CC, _worked(Place.CHAMBER)),
    _Stage("pour", "Against its neighbours, by finger and by burette.", "Poured volume.", "The port that is behind.",
           "The port that is largest.", "It is within 1 cc of its kind.", "", CC, _poured_twice),
    _Stage("end list", "Threads, passages, chips, flatness, manifold.", "Flatness again.", "Burrs.", "",
           "Every line of the list is ticked.", "Chips left in a passage end an engine.", FEEL, _ticked),
)  # fmt: skip


def route(job: Job, port: Port | None = None) -> tuple[Card, ...]:
    """The cards of a job in order: one port finished first, then stage by stage over all others.

    Parameters
    ----------
    job : Job
        Its use puts exhausts or intakes first, its schools say how.
    port : Port, optional
        Of this port alone.

    Returns
    -------
    tuple of Card
        One a stage and port.

    Raises
    ------
    ValueError
        No port.

    References
    ----------
    Common practice, no source.
    """
    ports = [port] if port is not None else _ordered(job)
    if not ports:
        raise Refused("a route needs a port")
    first, rest = ports[0], ports[1:]
    cards = [_card(job, first, s) for s in STAGES]
    cards += [_card(job, each, stage) for stage in STAGES for each in rest]
    return tuple(cards)


def next_card(cards: tuple[Card, ...]) -> Card | None:
    """The first that is not done."""
    return next((c for c in cards if not c.done), None)


def _ordered(job: Job) -> list[Port]:
    """A truck's exhausts come first, otherwise intakes; witness ports are never cut."""
    kinds = ("exhaust", "intake") if job.use == Use.TRUCK else ("intake", "exhaust")
    return sorted((p for p in job.ports if p.of_head), key=lambda p: kinds.index(p.kind))


def _card(job: Job, port: Port, stage: _Stage) -> Card:
    own = _own(job, port, stage)

    def words(name: str) -> str:
        return " ".join((getattr(stage, name), *own.get(name, ()))).strip()

    by_hand = next((m for m in job.stage_marks if (m.stage, m.port_id) == (stage.key, port.id)), None)
    told = by_hand is not None or (job.flatness is not None if stage.key == "clean" else stage.told(job, port))
    return Card(
        stage.key,
        port.name,
        words("look"),
        words("measure"),
        words("cut"),
        words("leave"),
        words("stop_when"),
        words("caution"),
        (by_hand.closed_by if by_hand is not None else "") or stage.closed_by,
        told,
    )


def _own(job: Job, port: Port, stage: _Stage) -> dict[str, list[str]]:
    """What this job's use and schools add to a stage, by the field of the card."""
    added: dict[str, list[str]] = {}

    def say(where: str, what: str) -> None:
        if what:
            added.setdefault(where, []).append(what)

    for where, question in _asks(port, stage.key):
        say(where, side_taken(job, question).says)
    if stage.key in _LIMITED:
        limit = from_si(limit_for(job, _LIMITED[stage.key]), "in")
        say("stop_when", f"Your limit here is {limit:.3f} in.")
    small = job.use == Use.TRUCK and port.kind == "intake"
    if small and stage.key in ("short side", "walls and roof", "guide"):
        say("leave", "For a truck the intake is left small, for speed: cleaned, its ridge blended.")
    if job.use == Use.OVAL and stage.key == "walls and roof":
        say("leave", "For an oval the section stays small: it is the middle lifts that count.")
    if job.use == Use.DRAG and stage.key == "walls and roof":
        say("cut", "For drag area comes first, as far as the walls let it.")
    return added


_LIMITED: Final = {"ridge": Place.BOWL, "short side": Place.SHORT_SIDE, "walls and roof": Place.PINCH}


def _asks(port: Port, stage: str) -> Iterator[tuple[str, str]]:
    """Questions of the schools that a stage rests on, and the field of the card they speak in."""
    exhaust = port.kind == "exhaust"
    yield from {
        "scribe": [("leave", "gasket")],
        "casting lines": [("cut", "bumps"), ("leave", "floor")] if exhaust else [("leave", "floor")],
        "ridge": [("stop_when", "throat")],
        "guide": [("cut", "boss")],
        "valve job": [("cut", "seat"), ("cut", "seat_form"), *([("leave", "back_cut")] if exhaust else [])],
        "texture": [("stop_when", "exhaust_surface" if exhaust else "surface")],
    }.get(stage, [])

"""What schools of porting differ on, asked of the job: each question, its sides, and what each side says at the cut."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, Final

from ventrix.core.model.job import Job
from ventrix.core.model.kinds import CutKind, Direction, Pipe, Place, School
from ventrix.words import tr


@dataclass(frozen=True, slots=True)
class Side:
    """One answer. `words` is what the job keeps, `says` what stands beside the work, `value` what is reckoned with."""

    words: str
    says: str = ""
    value: Any = None


@dataclass(frozen=True, slots=True)
class Question:
    """A question with its sides; the first is the default. It speaks at these places and kinds of cut."""

    key: str
    caption: str
    sides: tuple[Side, ...]
    places: tuple[Place, ...] = ()
    kinds: tuple[CutKind, ...] = ()
    of: Direction | None = None


# The sides and their order are PRACTICE.md's: common practice, no source.
QUESTIONS: Final = (
    Question("lifts", tr("Which lifts count"), tuple(Side(s, value=s) for s in School)),
    Question(
        "throat",
        tr("Throat, of the valve"),
        (
            Side("88-90 %", tr("You keep throats at 88 to 90 % of the valve."), (0.88, 0.90)),
            Side("85-88 %, for speed", tr("You keep throats at 85 to 88 % of the valve, for speed."), (0.85, 0.88)),
            Side("90-93 %, for peak", tr("You open throats to 90 to 93 % of the valve, for peak."), (0.90, 0.93)),
        ),
        places=(Place.THROAT,),
    ),
    Question(
        "seat",
        tr("Seat angle"),
        (
            Side("45", tr("Your seats are 45 degrees."), 45.0),
            Side("30", tr("Your seats are 30 degrees: more at low lift, and they seal less surely."), 30.0),
            Side("39", tr("Your seats are 39 degrees: more at low lift, and they seal less surely."), 39.0),
            Side("50", tr("Your seats are 50 degrees: more at high lift, less at low."), 50.0),
            Side("55", tr("Your seats are 55 degrees: more at high lift, less at low."), 55.0),
        ),
        kinds=(CutKind.SEAT,),
    ),
    Question(
        "seat_form",
        tr("Seat form"),
        (
            Side("three to five angles", tr("You cut three to five angles."), "angles"),
            Side("a radius", tr("You cut a radius up to the seat."), "radius"),
        ),
        kinds=(CutKind.SEAT,),
    ),
    Question(
        "target",
        tr("A target is met"),
        (
            Side("as read", tr("You stop at a target that is met as read."), False),
            Side("when proven", tr("You stop at a target once it is proven."), True),
        ),
    ),
    Question(
        "back_cut",
        tr("Back cut, exhaust valve"),
        (
            Side("none, for reversion", tr("You leave exhaust valves without a back cut, for reversion."), False),
            Side("yes", tr("You back-cut exhaust valves too."), True),
        ),
        kinds=(CutKind.VALVE,),
        of=Direction.EXHAUST,
    ),
    Question(
        "boss",
        tr("Guide boss"),
        (
            Side("shape it to a fin", tr("You taper the guide boss: it keeps the volume down and steers the air.")),
            Side("cut it away", tr("You cut the boss away: pour the port again, it grows and the air slows.")),
        ),
        places=(Place.GUIDE,),
    ),
    Question(
        "bumps",
        tr("Cast bumps, exhaust"),
        (
            Side("remove", tr("You take cast bumps out.")),
            Side("shape into a vane", tr("You shape cast bumps into a vane.")),
        ),
        places=(Place.ROOF, Place.FLOOR, Place.SHORT_SIDE),
        kinds=(CutKind.PORT,),
        of=Direction.EXHAUST,
    ),
    Question(
        "surface",
        tr("Surface, intake"),
        (
            Side("60 grit or cutter texture", tr("You leave intakes at 60 grit or the cutter's texture.")),
            Side(
                "80-120 grit", tr("You finish intakes at 80 to 120 grit: the finish alone usually measures as nothing.")
            ),
            Side("mirror, for looks", tr("You polish intakes, for looks: it usually measures as nothing.")),
        ),
        kinds=(CutKind.FINISH,),
        of=Direction.INTAKE,
    ),
    Question(
        "exhaust_surface",
        tr("Surface, exhaust"),
        (
            Side("80-120 grit", tr("You finish exhausts at 80 to 120 grit.")),
            Side("60 grit or cutter texture", tr("You leave exhausts at 60 grit or the cutter's texture.")),
            Side("mirror, for looks", tr("You polish exhausts, for looks: it usually measures as nothing.")),
        ),
        kinds=(CutKind.FINISH,),
        of=Direction.EXHAUST,
    ),
    Question(
        "floor",
        tr("Floor"),
        (
            Side("leave it", tr("You leave floors alone."), False),
            Side("worked", tr("You work floors: read the wall first."), True),
        ),
        places=(Place.FLOOR,),
    ),
    Question(
        "gasket",
        tr("Opening and gasket"),
        (
            Side(
                "keep the port smaller",
                tr("You keep the port smaller than its gasket where the manifold is smaller."),
                False,
            ),
            Side("open to the gasket", tr("You open to the gasket: leave no step facing the air."), True),
        ),
        places=(Place.OPENING,),
    ),
    Question(
        "pipe",
        tr("Exhaust flowed"),
        (
            Side("without a pipe", tr("This job flows exhausts without a pipe, to compare between shops."), Pipe.NONE),
            Side("with a stub pipe", tr("This job flows exhausts with a stub pipe, nearer the engine."), Pipe.STUB),
        ),
    ),
    Question(
        "ratio",
        tr("Exhaust over intake"),
        (Side("75 %", value=0.75), Side("70 %", value=0.70), Side("80 %", value=0.80)),
    ),
)
_BY_KEY: Final = {q.key: q for q in QUESTIONS}


def side_taken(job: Job, key: str) -> Side:
    """The side that the job's porter takes on a question; the default where nothing, or nothing known, is kept."""
    sides = _BY_KEY[key].sides
    kept = job.schools.get(key)
    return next((s for s in sides if s.words == kept), sides[0])


def own_way(job: Job, direction: Direction, kinds: tuple[str, ...], places: tuple[str, ...]) -> list[str]:
    """What this job's porter has said of such work: a sentence for each question that it touches.

    Parameters
    ----------
    job : Job
        Its schools.
    direction : str
        Kind of the port.
    kinds, places : tuple of str
        What is done, and where.

    Returns
    -------
    list of str

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    Common practice, no source.
    """
    said = []
    for question in QUESTIONS:
        if question.of not in (None, direction) or not (question.places or question.kinds):
            continue
        here = not question.places or any(p in question.places for p in places)
        such = not question.kinds or any(k in question.kinds for k in kinds)
        if here and such:
            said.append(side_taken(job, question.key).says)
    return said


def throat_against_school(job: Job, throat_ratio: float) -> str:
    """Where a throat [share of the valve's head] stands against the range wanted; nothing where it lies inside."""
    low, high = side_taken(job, "throat").value
    share = tr("The throat is {:.1f} % of the valve", 100 * throat_ratio)
    if throat_ratio < low:
        return tr("{}: below the {:.0f} to {:.0f} % wanted.", share, 100 * low, 100 * high)
    if throat_ratio > high:
        return tr("{}: past the {:.0f} to {:.0f} % wanted.", share, 100 * low, 100 * high)
    return ""


def pipe_against_school(job: Job, direction: Direction, pipe: str | None) -> str:
    """A sentence where an exhaust is flowed otherwise than this job's others are meant to be."""
    wanted = side_taken(job, "pipe")
    if direction != Direction.EXHAUST or pipe is None or pipe == wanted.value:
        return ""
    return tr("{}; here {} fitted.", wanted.says[:-1], tr("a stub is") if pipe == Pipe.STUB else tr("none is"))

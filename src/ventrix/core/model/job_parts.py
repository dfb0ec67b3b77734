"""What hangs from a job: valves, seats, heads, lifts, goals, stages, outlines of faces, parts, results."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any

from ventrix.core.model.cut import Pour
from ventrix.core.model.kinds import Direction, FitKind, StageUnit
from ventrix.core.model.noun import Noun, quantity


@dataclass(frozen=True, slots=True, kw_only=True)
class Valve(Noun):
    """A valve, the seat it sits on and its spring. The seat width is measured along the face; `fitted_height` is the
    stem's tip over the spring's seat, `spring_height` the closed valve's spring, `seat_force` and `nose_force` are its
    at closed and at full lift."""

    name: str = ""
    head_diameter: float | None = quantity("mm")
    stem_diameter: float | None = quantity("mm")
    seat_width: float | None = quantity("mm")
    seat_angle: float | None = quantity("deg")
    seat_margin: float | None = quantity("mm")
    seat_insert: bool | None = None
    back_cut_angle: float | None = quantity("deg")
    back_cut_width: float | None = quantity("mm")
    back_shape: str = ""
    weight: float | None = quantity("g")
    metal: str = ""
    guide_clearance: float | None = quantity("mm")
    lap_width: float | None = quantity("mm")
    fitted_height: float | None = quantity("mm")
    spring_height: float | None = quantity("mm")
    coil_bind: float | None = quantity("mm")
    seat_force: float | None = quantity("N")
    nose_force: float | None = quantity("N")


@dataclass(frozen=True, slots=True, kw_only=True)
class Seat(Noun):
    """A seat as it is cut: angles from the top (chamber) to the throat with the width of each face along it, or a
    radius up to the contact. `recipe` and `version` name it in the shop."""

    recipe: str = ""
    version: int = 1
    angles: tuple[float, ...] = field(default=(), metadata={"unit": "deg"})
    widths: tuple[float, ...] = field(default=(), metadata={"unit": "mm"})
    radius: float | None = quantity("mm")
    contact: float | None = quantity("mm")
    contact_angle: float | None = quantity("deg")
    margin: float | None = quantity("mm")
    throat: float | None = quantity("mm")
    sunk: float | None = quantity("mm")
    insert: bool | None = None
    note: str = ""


def plain_casting(number: str) -> str:
    """A casting number as it is compared: capitals and spaces do not count."""
    return "".join(number.lower().split())


@dataclass(frozen=True, slots=True, kw_only=True)
class Head(Noun):
    """One of the heads of a job."""

    name: str
    casting: str = ""
    milled: float | None = quantity("mm")
    flatness: float | None = quantity("mm")


@dataclass(frozen=True, slots=True, kw_only=True)
class Chamber(Noun):
    """One combustion chamber and its pours."""

    cylinder: int
    head_id: str | None = None
    pours: tuple[Pour, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class MyLift(Noun):
    """A lift that this porter looks at first, by a name of their own."""

    kind: Direction
    lift: float = field(metadata={"unit": "mm"})
    name: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class SwirlWish(Noun):
    """The least swirl wanted over a range of lifts, for one kind of port."""

    kind: Direction
    low: float = field(metadata={"unit": "mm"})
    high: float = field(metadata={"unit": "mm"})
    swirl: float = field(metadata={"unit": "rpm"})


@dataclass(frozen=True, slots=True, kw_only=True)
class Binned(Noun):
    """Something taken out of the job: what it was, its document, where it hung, why and when. It can be put back."""

    noun: str
    name: str
    parent_id: str = ""
    at: int = 0
    document: Mapping[str, Any] = field(default_factory=dict)
    reason: str = ""
    date: str | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class CamPoint(Noun):
    """One line of a cam's table: crank angle and valve lift."""

    kind: Direction
    angle: float = field(metadata={"unit": "deg"})
    lift: float = field(metadata={"unit": "mm"})


@dataclass(frozen=True, slots=True, kw_only=True)
class Target(Noun):
    """Flow wanted at a lift, for one kind of port, and the test pressure it is meant at."""

    kind: Direction
    lift: float = field(metadata={"unit": "mm"})
    flow: float = field(metadata={"unit": "cfm"})
    test_pressure: float | None = quantity("Pa")


@dataclass(frozen=True, slots=True, kw_only=True)
class WallLimit(Noun):
    """How thin a wall may get at a place; an empty place means everywhere. `kind` of port and what lies `behind` narrow
    it further, where they are given."""

    place: str
    kind: str = ""
    behind: str = ""
    thickness: float = field(metadata={"unit": "mm"})


@dataclass(frozen=True, slots=True, kw_only=True)
class FitLimit(Noun):
    """Between what a fit may lie, for a kind of port and a valve's metal where they are given; no end is no limit."""

    what: FitKind
    kind: str = ""
    metal: str = ""
    low: float | None = quantity("mm")
    high: float | None = quantity("mm")


@dataclass(frozen=True, slots=True, kw_only=True)
class CheckMark(Noun):
    """A line of the list for the end of a head, ticked with date and initials."""

    item: str
    initials: str = ""
    date: str | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class StageMark(Noun):
    """A stage of one port, chamber, head or of the job closed by hand: by gauge, cc, feel, photo or flow, by whom, and
    when it was begun and ended. `of` names the head, or the cylinder's number; a mark with a `port_id` is a port's."""

    stage: str
    port_id: str = ""
    unit: StageUnit = StageUnit.PORT
    of: str = ""
    closed_by: str = ""
    by: str = ""
    date: str | None = None
    started_at: str | None = None
    ended_at: str | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Wait(Noun):
    """A stage that waits for outside work or parts: who has it, since when, promised when; ended when it came back."""

    stage: str
    port_ids: tuple[str, ...] = ()
    who: str = ""
    since: str | None = None
    promised: str | None = None
    ended: str | None = None
    price: float | None = quantity("-")
    note: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class Outline(Noun):
    """An opening in a face's own axes: x along the face, y up. `corner` is one radius or four, from the roof's left on
    clockwise; `points` are x and y in turn, of a traced one. `port` is the port's name."""

    port: str
    shape: str = "rectangle"
    centre: tuple[float, ...] = field(default=(0.0, 0.0), metadata={"unit": "mm"})
    width: float | None = quantity("mm")
    height: float | None = quantity("mm")
    corner: tuple[float, ...] = field(default=(), metadata={"unit": "mm"})
    points: tuple[float, ...] = field(default=(), metadata={"unit": "mm"})


@dataclass(frozen=True, slots=True, kw_only=True)
class Bolt(Noun):
    """A bolt or dowel of a face, by the name that the other face's has."""

    name: str
    at: tuple[float, ...] = field(default=(0.0, 0.0), metadata={"unit": "mm"})


@dataclass(frozen=True, slots=True, kw_only=True)
class Face(Noun):
    """Where two parts meet: its outlines, and its bolts or dowels. `source` says how it was measured."""

    name: str
    part: str = "head"
    outlines: tuple[Outline, ...] = ()
    bolts: tuple[Bolt, ...] = ()
    source: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class PartOfJob(Noun):
    """A part: needed, ordered, here or fitted. A guide's or sleeve's `size` is the bore that calculators use; `due` is
    the day it is promised for, `stage` what cannot be done before it is here."""

    kind: str
    name: str = ""
    state: str = "needed"
    count: int = 1
    size: float | None = quantity("mm")
    port_ids: tuple[str, ...] = ()
    price: float | None = quantity("-")
    beyond_quote: bool = False
    due: str | None = None
    stage: str = ""
    date: str | None = None
    note: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class EngineResult(Noun):
    """What the engine did with the head on: dyno, strip, road or fuel. `moment` is before or after this job's work.

    `also_changed` says what else was changed since the result before: "nothing" where nothing was, empty where nobody
    said. `conditions` and `correction` stand as they were stated. A dyno's table is `speeds` with `powers`.
    """

    kind: str
    moment: str = "after"
    date: str | None = None
    speeds: tuple[float, ...] = field(default=(), metadata={"unit": "rpm"})
    powers: tuple[float, ...] = field(default=(), metadata={"unit": "kW"})
    time: float | None = quantity("s")
    speed: float | None = quantity("km/h")
    fuel: float | None = quantity("L/100km")
    also_changed: str = ""
    conditions: str = ""
    correction: str = ""
    note: str = ""

    @property
    def peak_power(self) -> float | None:
        """[W]; None without a table."""
        return max(self.powers, default=None)


@dataclass(frozen=True, slots=True, kw_only=True)
class Call(Noun):
    """What was said before a state was flowed: flows at lifts, the best place to cut next, and whether it gains over
    the state before ("yes", "no" or nothing). `date` is when it was said: only a later run scores it."""

    cut_id: str
    date: str = ""
    lifts: tuple[float, ...] = field(default=(), metadata={"unit": "mm"})
    flows: tuple[float, ...] = field(default=(), metadata={"unit": "cfm"})
    best_place: str = ""
    gains: str = ""

"""Where the air was probed, and what was seen and heard."""

from __future__ import annotations

from dataclasses import dataclass, field

from ventrix.core.model.kept_words import SpeedsAt
from ventrix.core.model.noun import Noun, quantity


@dataclass(frozen=True, slots=True, kw_only=True)
class ProbePoint(Noun):
    """One reading at a named point of a station: of a pitot probe, as pressure or speed, or the flow
    with a ball held there. `static` is how far the static pressure there is off the room's. `u` goes from the
    left wall (-1) to the right, `v` from the floor (-1) to the roof; on a ring they are cosine and sine of its place.
    """

    name: str
    u: float = field(default=0.0, metadata={"unit": "-"})
    v: float = field(default=0.0, metadata={"unit": "-"})
    reading: float | None = quantity("Pa")
    static: float | None = quantity("Pa")
    speed: float | None = quantity("m/s")
    flow: float | None = quantity("cfm")
    struck: str | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Traverse(Noun):
    """Named points of one station, read at one lift and pressure. `kind` is one of `TraverseKind`: a pitot's pressures
    or speeds, flows with a ball held there (`base_flow` without it), or by how much the total head there is under the
    room's. `speeds_at` says what air typed speeds stand at."""

    station: str
    kind: str = "pitot"
    layout: str = ""
    setup_id: str | None = None
    mount_id: str | None = None
    lift: float | None = quantity("mm")
    probe: str = ""
    probe_diameter: float | None = quantity("mm")
    coefficient: float | None = quantity("-")
    speeds_at: SpeedsAt = SpeedsAt.STANDARD
    base_flow: float | None = quantity("cfm")
    date: str | None = None
    points: tuple[ProbePoint, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Observation(Noun):
    """What was heard or seen: noise, a wet pattern. `clock` is the hour on the seat clock."""

    kind: str
    text: str = ""
    place: str = ""
    clock: float | None = quantity("-")
    lift: float | None = quantity("mm")
    photo: str = ""
    date: str | None = None

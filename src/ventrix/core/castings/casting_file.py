"""What a casting taught over all heads of its number: walls, usual faults, ports as cast, and hours.

It says where to look and what to read first. It never clears a warning: castings shift, each by itself.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Final

import numpy as np

from ventrix.core.judging.findings import Findings
from ventrix.core.metal.walls import on_side
from ventrix.core.model.bench_kinds import FlowKind
from ventrix.core.model.cut import Cut, Port, WallReading, poured_volume
from ventrix.core.model.job import Job
from ventrix.core.model.job_parts import plain_casting
from ventrix.core.model.kinds import Direction
from ventrix.core.planning.learned import CastingPrior
from ventrix.core.work.hours import pace_of
from ventrix.words import tr

MOST_TOLD: Final = 4  # faults of a casting


@dataclass(frozen=True, slots=True)
class CastingWall:
    """Walls of a kind of port at a place and side, as cast [m]: the least, the median, their spread (None of one), and
    how many were read."""

    kind: str
    place: str
    side: str | None
    least: float
    median: float
    spread: float | None
    count: int


@dataclass(frozen=True, slots=True)
class CastingFault:
    """How often a fault was found at a place."""

    kind: str
    place: str
    count: int


@dataclass(frozen=True, slots=True)
class AsCast:
    """A kind of port before anybody worked it: median poured volume [m3] and greatest flow [m3/s], None unmeasured."""

    kind: str
    volume: float | None
    flow: float | None


@dataclass(frozen=True, slots=True)
class SawnSection:
    """A head that was sawn through: the metal around a kind of port at a place, by side [m]; whence it is known."""

    kind: str
    place: str
    walls: tuple[tuple[str, float], ...]
    source: str = ""


@dataclass(frozen=True, slots=True)
class Casting:
    """Everything that is known of a casting number. `heads` is how many heads it is from, `minutes` what a stage took
    at one of its units, the median of them [s]; `whose` names the shop that it came from, empty for one's own; `told`
    is what its finished ports tell of the next, by kind."""

    number: str
    heads: int
    walls: tuple[CastingWall, ...]
    faults: tuple[CastingFault, ...]
    as_cast: tuple[AsCast, ...]
    minutes: Mapping[str, float]
    sections: tuple[SawnSection, ...] = ()
    whose: str = ""
    told: Mapping[str, CastingPrior] = field(default_factory=dict)

    def least_at(self, kind: Direction, place: str) -> CastingWall | None:
        """The thinnest that was ever read on a kind of port at a place, sections of sawn heads with it."""
        read = [w for w in self.walls if (w.kind, w.place) == (kind, place)]
        for section in (s for s in self.sections if (s.kind, s.place) == (kind, place)):
            read += [CastingWall(kind, place, side, v, v, None, 1) for side, v in section.walls]
        return min(read, key=lambda w: w.least, default=None)


def castings_of(jobs: Iterable[Job]) -> tuple[str, ...]:
    """Every casting number that a head of these jobs bears, each once however it is written, in order."""
    names: dict[str, str] = {}
    for job in jobs:
        for head in job.heads:
            if head.casting.strip():
                names.setdefault(plain_casting(head.casting), head.casting.strip())
    return tuple(sorted(names.values(), key=str.lower))


def casting(number: str, jobs: Sequence[Findings]) -> Casting:
    """What the heads of a casting number taught.

    Parameters
    ----------
    number : str
        As cast; capitals and spaces do not count.
    jobs : sequence of Findings
        Of every job that may hold one.

    Returns
    -------
    Casting
        Empty where no head bears it.

    Raises
    ------
    ValueError
        A job's list of stages cannot be read.

    References
    ----------
    Definitions of this project. A reading counts as cast while nobody had worked that place and side before it.
    """
    wanted = plain_casting(number)
    walls: dict[tuple[str, str, str | None], list[float]] = {}
    faults: dict[tuple[str, str], int] = {}
    volumes: dict[str, list[float]] = {}
    flows: dict[str, list[float]] = {}
    paces: dict[str, list[float]] = {}
    heads = 0
    for findings in jobs:
        job = findings.job
        own = [h.id for h in job.heads if plain_casting(h.casting) == wanted]
        if not own:
            continue
        heads += len(own)
        for stage, seconds in pace_of(job).items():
            paces.setdefault(stage, []).append(seconds)
        for port in (p for p in job.ports if p.of_head and (p.head_id in own or len(job.heads) == 1)):
            for reading in _as_cast(port):
                walls.setdefault((port.kind, reading.place, reading.band), []).append(reading.thickness)
            for fault in port.faults:
                faults[fault.kind, fault.place] = faults.get((fault.kind, fault.place), 0) + 1
            _add_as_cast(findings, port, volumes, flows)
    return Casting(
        number.strip(),
        heads,
        tuple(_wall(*key, values) for key, values in sorted(walls.items(), key=str)),
        tuple(CastingFault(kind, place, n) for (kind, place), n in sorted(faults.items(), key=lambda f: -f[1])),
        tuple(
            AsCast(kind, _median(volumes.get(kind)), _median(flows.get(kind)))
            for kind in Direction
            if volumes.get(kind) or flows.get(kind)
        ),
        {stage: float(np.median(each)) for stage, each in paces.items()},
    )


def merged(one: Casting, other: Casting, whose: str) -> Casting:
    """Two files of one casting number as one.

    Parameters
    ----------
    one, other : Casting
        Of different heads, of one shop or of two.
    whose : str
        Whose it then is.

    Returns
    -------
    Casting
        Leasts are the lesser; medians and spreads are of both in proportion to their counts, since the readings
        themselves are not in a file; counts add up.

    References
    ----------
    Pooled variance: [6] JCGM 100:2008, H.5.2.2, form of the mean squares within and between.
    """
    walls: dict[tuple[str, str, str | None], CastingWall] = {}
    for wall in (*one.walls, *other.walls):
        key = wall.kind, wall.place, wall.side
        walls[key] = _both(walls[key], wall) if key in walls else wall
    faults: dict[tuple[str, str], int] = {}
    for fault in (*one.faults, *other.faults):
        faults[fault.kind, fault.place] = faults.get((fault.kind, fault.place), 0) + fault.count
    share = one.heads / max(one.heads + other.heads, 1)

    def between(a: float | None, b: float | None) -> float | None:
        return b if a is None else a if b is None else share * a + (1 - share) * b

    own, theirs = ({a.kind: a for a in each.as_cast} for each in (one, other))
    none = AsCast("", None, None)
    as_cast = [
        AsCast(
            kind,
            between(own.get(kind, none).volume, theirs.get(kind, none).volume),
            between(own.get(kind, none).flow, theirs.get(kind, none).flow),
        )
        for kind in dict.fromkeys((*own, *theirs))
    ]
    minutes = {
        stage: between(one.minutes.get(stage), other.minutes.get(stage)) or 0.0
        for stage in dict.fromkeys((*one.minutes, *other.minutes))
    }
    return Casting(
        one.number,
        one.heads + other.heads,
        tuple(walls[key] for key in sorted(walls, key=str)),
        tuple(CastingFault(kind, place, n) for (kind, place), n in sorted(faults.items(), key=lambda f: -f[1])),
        tuple(as_cast),
        minutes,
        tuple(dict.fromkeys((*one.sections, *other.sections))),
        whose,
        {**other.told, **one.told} if one.heads >= other.heads else {**one.told, **other.told},
    )


def _both(a: CastingWall, b: CastingWall) -> CastingWall:
    n = a.count + b.count
    mean = (a.count * a.median + b.count * b.median) / n
    within = sum((w.count - 1) * (w.spread or 0.0) ** 2 for w in (a, b))
    between = sum(w.count * (w.median - mean) ** 2 for w in (a, b))
    spread = float(np.sqrt((within + between) / (n - 1)))
    return CastingWall(a.kind, a.place, a.side, min(a.least, b.least), mean, spread, n)


def look_first(castings: Sequence[Casting], kind: Direction) -> tuple[str, ...]:
    """Faults that castings of this number usually have, most often found first."""
    said = []
    for each in castings:
        of = tr("{} head{}{}", each.heads, "s" * (each.heads != 1), tr(" of {}", each.whose) if each.whose else "")
        said += [
            tr("{} at the {}, found {} times on {}", f.kind, f.place or "port", f.count, of)
            for f in each.faults[:MOST_TOLD]
        ]
    return tuple(said)


def _as_cast(port: Port) -> Iterable[WallReading]:
    """Readings of a port at places and sides that nobody had worked yet."""
    for cut in port.cuts:
        before = [w for c in port.cuts if c.number <= cut.number for op in c.operations for w in op.works]
        for reading in cut.walls:
            worked = any(w.place == reading.place and on_side(w, reading.band) for w in before)
            if reading.struck is None and not reading.known_by and not worked:
                yield reading


def _add_as_cast(
    findings: Findings, port: Port, volumes: dict[str, list[float]], flows: dict[str, list[float]]
) -> None:
    first: Cut | None = port.cuts[0] if port.cuts else None
    if first is None or first.number:
        return
    volume = poured_volume(first)
    if volume is not None:
        volumes.setdefault(port.kind, []).append(volume)
    runs = [r for r in findings.runs_of(first, port) if r.kind == FlowKind.FLOW]
    if runs:
        flows.setdefault(port.kind, []).append(float(runs[-1].flow.max()))


def _wall(kind: str, place: str, side: str | None, values: list[float]) -> CastingWall:
    spread = float(np.std(values, ddof=1)) if len(values) > 1 else None
    return CastingWall(kind, place, side, min(values), float(np.median(values)), spread, len(values))


def _median(values: list[float] | None) -> float | None:
    return float(np.median(values)) if values else None

"""Passes at the places of a port: how deep each may go, what it is expected to bring, and what blocks it."""

from __future__ import annotations

from dataclasses import replace
from functools import partial
from typing import Final

import numpy as np

from ventrix.core.metal.unrolled import ZONES
from ventrix.core.metal.walls import limit_at, spare_at, walls_at
from ventrix.core.model.cut import carried_figure
from ventrix.core.model.kinds import Direction, Place
from ventrix.core.model.school_questions import side_taken
from ventrix.core.planning.chain import ChainWork
from ventrix.core.planning.moves import READ_FIRST, Ground, Move, MoveKind
from ventrix.core.quantity.units import from_si
from ventrix.words import tr

DEPTHS: Final = (0.25e-3, 0.5e-3, 0.75e-3, 1.0e-3)
# Minutes to begin with, and for each millimetre, by place (common practice, no source).
MINUTES: Final = {
    Place.OPENING.value: (10.0, 30.0),
    Place.PINCH.value: (10.0, 40.0),
    Place.GUIDE.value: (10.0, 25.0),
    Place.SHORT_SIDE.value: (15.0, 50.0),
    Place.BOWL.value: (10.0, 35.0),
    Place.THROAT.value: (15.0, 35.0),
}
LEAST_LAND: Final = 2.5e-3  # m of gasket land (common practice, no source)
LEAST_BOSS: Final = 3.0e-3  # m of boss around the stem, both sides together (common practice, no source)


def best_passes(ground: Ground) -> list[Move]:
    """For each place the depth whose hour is best, or what blocks it: a place that is logged waits to be flowed, and
    one whose last cut lost flow is done."""
    found = []
    for place in MINUTES:
        allowed, blocked = _allowed(ground, place)
        logged, brought = ground.logged_at(place), ground.brought(place)
        if logged is not None:
            blocked = tr("cut {} worked it: flow it first", logged.number)
        elif brought is not None and brought.gain + brought.doubt <= 0:
            blocked = tr("cut {} here lost flow", brought.cut)
        depths = [d for d in DEPTHS if d <= allowed + 1e-9] if not blocked else []
        tried = [a_pass(ground, place, d) for d in (depths or [DEPTHS[1]])]
        free = [m for m in tried if not m.blocked_by] or tried
        best = max(free, key=lambda m: m.rate)
        if not depths:
            best = replace(best, blocked_by=(blocked or _spent(ground, place, allowed),))
        if best.blocked_by:
            best = replace(best, sentence=f"{best.sentence} Blocked: {best.blocked_by[0]}.")
        found.append(replace(best, brought=brought))
    return found


def a_pass(ground: Ground, place: str, depth: float, side: str | None = None, edge: float = 1.0) -> Move:
    """What a pass at a place, or at a share of its edge, is expected to bring; blocked where the job's ceilings of
    volume and air speed forbid it."""
    gains = ground.fit.gain([ChainWork(place, depth, place in ground.before, edge)], ground.planned.lift)
    start, each = MINUTES.get(place, (10.0, 35.0))
    seconds = 60 * (start + edge * each * from_si(depth, "mm"))
    factor = ground.his.get(place)
    if factor is not None and factor.gain is not None:
        gains = gains * factor.gain
    if factor is not None and factor.time is not None:
        seconds *= factor.time
    wall = _wall(ground, place)
    volume = depth * edge * ground.edges.get(place, 0.0) * _reach(ground, place)
    said = tr("A pass at the {}, flowed again.{}", place, _what_was_not_reckoned(ground))
    move = ground.move(place, MoveKind.CUT, gains, seconds, said, depth, volume,
                       None if wall is None else wall - depth)  # fmt: skip
    section, speed = _smallest_after(ground, place, depth * edge)
    return replace(move, side=side, section=section, speed=speed, blocked_by=_past_ceilings(ground, volume, speed))


def _what_was_not_reckoned(ground: Ground) -> str:
    wished = [w for w in ground.findings.job.swirl_wishes if w.kind == ground.port.kind]
    return tr(" Swirl is not calculated: read it again, since it is to stay.") if wished else ""


def _smallest_after(ground: Ground, place: str, depth: float) -> tuple[float | None, float | None]:
    """The smallest measured section that a pass would leave, and the mean air speed in it at the top of the range."""
    job, here = ground.findings.job, ground.here
    measured = [s for s in here.sections if s.measured]
    if not measured:
        return None, None
    zone = next((z for z in ZONES if z.name == place), None)
    low, high = (zone.start * here.length, zone.end * here.length) if zone is not None else (-1.0, -1.0)
    grown = depth * ground.edges.get(place, 0.0)
    section = min(s.area + (grown if low <= s.along <= high else 0.0) for s in measured)
    if job.bore is None or job.stroke is None or job.speed_high is None:
        return section, None
    swept = np.pi / 4 * job.bore**2 * job.stroke
    return section, float(swept * job.speed_high / np.pi / (section * job.ports_beside(ground.port)))


def _past_ceilings(ground: Ground, volume: float, speed: float | None) -> tuple[str, ...]:
    """The job's own ceilings that a pass would break, in words."""
    job, found = ground.findings.job, []
    had, most = carried_figure(ground.port, ground.cut, "volume"), job.volume_ceiling
    if had is not None and most is not None and ground.port.kind == Direction.INTAKE and had + volume > most:
        cc = tr("{:.1f} cc, and no more than {:.0f} cc is wanted", from_si(had + volume, "cc"), from_si(most, "cc"))
        found.append(tr("it would hold {}", cc))
    if speed is not None and job.lowest_speed is not None and speed < job.lowest_speed:
        least = f"{ground.words.speed(job.lowest_speed)} {ground.words.speed_unit}"
        found.append(tr("air speed would fall to {}, under your {}", ground.words.speed(speed), least))
    return tuple(found)


def _reach(ground: Ground, place: str) -> float:
    zone = next((z for z in ZONES if z.name == place), None)
    return 0.1 * ground.here.length if zone is None else (zone.end - zone.start) * ground.here.length


def _wall(ground: Ground, place: str) -> float | None:
    """The thinnest metal known to be left at a place [m]."""
    left = [w.left for w in walls_at(ground.findings.job, ground.port, ground.cut) if w.reading.place == place]
    return min(left) if left else None


def _allowed(ground: Ground, place: str) -> tuple[float, str]:
    """How deep a pass may be [m], and what blocks every one."""
    job, port, cut = ground.findings.job, ground.port, ground.cut
    figure = partial(carried_figure, port, cut)
    if place == Place.GUIDE.value:
        boss, stem = figure("boss_width"), ground.planned.chain.states[-1].valve.stem
        return (1.0e-3 if boss is None else max((boss - stem - LEAST_BOSS) / 2, 0.0)), ""
    if place == Place.OPENING.value:
        land = figure("gasket_land")
        return (0.0, tr("the gasket land was not measured")) if land is None else (max(land - LEAST_LAND, 0.0), "")
    if place == Place.THROAT.value:
        throat, most = figure("throat_diameter"), side_taken(job, "throat").value
        if throat is None:
            return 0.0, tr("the throat was not measured")
        head = ground.planned.chain.states[-1].valve.diameter
        wide = max((float(most[1]) * head - throat) / 2, 0.0)
        spare = spare_at(job, port, cut, place)
        return (0.0, READ_FIRST) if spare is None else (min(wide, spare), "")
    spare = spare_at(job, port, cut, place)
    return (0.0, READ_FIRST) if spare is None else (spare, "")


def _spent(ground: Ground, place: str, allowed: float) -> str:
    job = ground.findings.job
    spare = spare_at(job, ground.port, ground.cut, place)
    if place == Place.THROAT.value and (spare is None or spare > allowed):
        return tr("the throat is at your {}", side_taken(job, "throat").words)
    if place == Place.GUIDE.value:
        return tr("the boss is down to the guide")
    if place == Place.OPENING.value:
        return tr("the gasket land is spent")
    words = ground.words
    left, limit = (
        f"{words.lift(v)} {words.lift_unit}" for v in (allowed, limit_at(job, ground.port, ground.cut, place))
    )
    return tr("{} to your limit of {}", left, limit)

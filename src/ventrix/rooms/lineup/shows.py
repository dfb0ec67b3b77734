"""What the Line-up room shows: the worst edge, both faces as curves, every edge worst first, and what a gauge is set
to."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray

from ventrix.core.lineup.fitting import MEASURED, spacing_of
from ventrix.core.lineup.of_job import LineUp
from ventrix.core.lineup.outlines import polygon_of
from ventrix.core.lineup.steps import ACROSS, Edge, Proposal, spared_by_sliding
from ventrix.core.metal.walls import walls_at
from ventrix.core.model.cut import Port
from ventrix.core.model.job import Job
from ventrix.core.model.kinds import Direction, FacePart, Place
from ventrix.core.quantity.words import number_text
from ventrix.rooms.display_units import Units
from ventrix.words import tr

Curve = NDArray[np.float64]
UNEVEN: Final = 2 * MEASURED
LARGE: Final = 4.0  # how many times larger steps are drawn in the near view
NOT_READ: Final = tr("not read")


@dataclass(frozen=True, slots=True)
class Strip:
    """The answer on top, its reason, and how the casting runs."""

    verdict: str
    worse: bool
    reason: str
    runs: str
    runs_below: str


@dataclass(frozen=True, slots=True)
class EdgeLine:
    """An edge as a line. `mark` is down (faces the air), dash (flush) or ledge (let go)."""

    edge: Edge
    proposal: Proposal | None
    mark: str
    name: str
    step: str
    air: str
    land: str
    wall: str
    take_off: str


@dataclass(frozen=True, slots=True)
class PortCurves:
    """A port on the face: the head's opening and the other's, in the head's axes [m], and its worst edge in words."""

    port: str
    short: str
    kind: str
    head: Curve
    other: Curve
    worst: str
    mark: str


@dataclass(frozen=True, slots=True)
class Gauge:
    """What a height gauge is set to for the picked edge."""

    over: str
    height: str
    said: str


@dataclass(frozen=True, slots=True)
class Shown:
    """Everything the room shows of two faces; edges worst first."""

    strip: Strip
    lines: tuple[EdgeLine, ...]
    spared: str
    ports: tuple[PortCurves, ...]
    bolts: tuple[tuple[str, float, float], ...]
    caption: str


_RANK: Final = {"down": 0, "dash": 1, "ledge": 2}


def shown_of(job: Job, found: LineUp, units: Units) -> Shown:
    """Everything of a line-up."""
    ports = {p.name: p for p in job.ports}
    off = {(p.port, p.edge): p for p in found.proposals}
    lines = [_line(job, ports.get(e.port), e, off.get((e.port, e.edge)), units) for j in found.joints for e in j.edges]
    lines.sort(key=lambda line: (_RANK[line.mark], -abs(line.edge.step)))
    curves = []
    theirs = {o.port: polygon_of(o) for o in found.other.outlines}
    for outline in found.head.outlines:
        if outline.port not in theirs:
            continue
        own = [line for line in lines if line.edge.port == outline.port]
        worst = own[0] if own and own[0].mark == "down" else None
        port = ports.get(outline.port)
        head = np.array(polygon_of(outline).exterior.coords)
        other = found.fit.place(np.array(theirs[outline.port].exterior.coords))
        said = f"{worst.edge.edge} {worst.step}" if worst else tr("within tolerance, or ignored")
        last = outline.port.rsplit(" ", 1)[-1]
        curves.append(
            PortCurves(outline.port, last, port.kind if port is not None else Direction.INTAKE, head, other, said,
                       worst.mark if worst else "dash")
        )  # fmt: skip
    bolts = tuple((b.name, float(b.at[0]), float(b.at[1])) for b in found.head.bolts)
    air = (
        tr("air comes from the head")
        if found.other.part == FacePart.HEADER
        else tr("air comes from the {}", found.other.part)
    )
    caption = tr(
        "{} on {}, fitted by {}, seen from the {}; {}",
        found.other.name,
        found.head.name,
        found.by,
        found.other.part,
        air,
    )
    return Shown(_strip(found, lines, units), tuple(lines), _spared(found, units), tuple(curves), bolts, caption)


def _spared(found: LineUp, units: Units) -> str:
    """What moving the other face along the head's would spare."""
    slide = spared_by_sliding(found.joints, found.other.part == FacePart.HEADER)
    if slide is None:
        return ""
    way = "up" if slide.up > 0 else "down"
    far = units.length.with_unit(abs(slide.up))
    left = "none" if slide.after == 0 else str(slide.after)
    said = tr(
        "With the {} {} further {} along the face {} of {} would face the air",
        found.other.part,
        far,
        way,
        left,
        slide.before,
    )
    return tr("{}: M says what milling that is. A valley's seal moves with it.", said)


def _strip(found: LineUp, lines: list[EdgeLine], units: Units) -> Strip:
    facing = [line for line in lines if line.mark == "down"]
    flush = sum(line.mark == "dash" for line in lines)
    let_go = len(lines) - len(facing) - flush
    if facing:
        first = facing[0]
        verdict = tr(
            "{}, {}: {} {} step facing the air", first.edge.port, first.edge.edge, first.step, units.length.label
        )
        stands = tr("other part") if first.proposal is None else first.proposal.part
        said = [tr("The {} faces the air", stands)]
        if first.proposal is not None:
            said.append(take_off_words(first.proposal, units))
        else:
            said.append(tr("you chose to leave the port smaller than its gasket"))
        rest = len(facing) - 1
        if rest:
            said.append(tr("{} more facing the air", rest))
        said.append(tr("{} edges flush, {} ignored", flush, let_go))
        reason = ". ".join(s[:1].upper() + s[1:] for s in said) + "."
    else:
        verdict, reason = tr("No edge faces the air"), tr("{} edges flush, {} ignored.", flush, let_go)
    turn = float(np.degrees(found.crooked.turn))
    runs = (
        tr("ports run {}° to the bolts", number_text(turn, 2, sign=True))
        if found.by == "bolts"
        else tr("fitted by {}", found.by)
    )
    return Strip(
        verdict, bool(facing), reason, runs, ". ".join([units.say(found.crooked.reason), *_spacing(found, units)])
    )


def _spacing(found: LineUp, units: Units) -> list[str]:
    """The two ports whose distance is off by most, where it is more than both were measured to."""
    spacing = spacing_of(found.head)
    if spacing is None or abs(spacing.worst) < UNEVEN:
        return []
    first, second = spacing.between
    way = "wide" if spacing.worst > 0 else "close"
    return [tr("{} and {} stand {} too {}", first, second, units.length.with_unit(abs(spacing.worst)), way)]


def take_off_words(p: Proposal, units: Units) -> str:
    """What to take off, and what stops it short."""
    if p.depth <= 0:
        return tr("leave it: {}", units.say(p.stopped_by))
    stopped = f": {units.say(p.stopped_by)}" if p.stopped_by else ""
    return tr("take {} off the {}{}", units.length.with_unit(p.depth), p.part, stopped)


def _line(job: Job, port: Port | None, edge: Edge, proposal: Proposal | None, units: Units) -> EdgeLine:
    mark = "down" if edge.faces_air else "dash" if edge.flush else "ledge"
    air = {"down": tr("facing the air"), "dash": "flush", "ledge": "ignored"}[mark]
    off = "nothing"
    if proposal is not None:
        off = f"{proposal.part}, {units.length.text(proposal.depth)}" if proposal.depth > 0 else "leave"
    elif mark == "down":
        off = "leave"
    return EdgeLine(
        edge,
        proposal,
        mark,
        f"{edge.port.rsplit(' ', 1)[-1]}, {edge.edge}",
        units.length.text(abs(edge.step)),
        air,
        "·" if edge.land is None else units.length.text(edge.land),
        _wall(job, port, edge, units),
        off,
    )


def _wall(job: Job, port: Port | None, edge: Edge, units: Units) -> str:
    """The wall left at the opening on that side, where it was read."""
    if port is None or not port.cuts:
        return NOT_READ
    read = [
        w.left
        for w in walls_at(job, port, port.cuts[-1])
        if w.reading.place == Place.OPENING and w.reading.band in (None, edge.edge) and not w.unknown
    ]
    return units.length.text(min(read)) if read else NOT_READ


def gauge_of(line: EdgeLine, units: Units) -> Gauge:
    """What a height gauge is set to for an edge: from which bolt, and how far."""
    p = line.proposal
    if p is None or p.from_edge is None or p.depth <= 0:
        return Gauge("", "", tr("Nothing is scribed at this edge."))
    upright = line.edge.edge in ("roof", "floor")
    edge = tr("{} from the {}'s edge", units.length.with_unit(p.from_edge), ACROSS[line.edge.edge])
    if p.from_bolt is None:
        return Gauge(
            tr("the {}", ACROSS[line.edge.edge]), units.length.with_unit(p.from_edge), tr("Scribe {}. {}", edge, _STOPS)
        )
    way = ("up" if p.from_bolt >= 0 else "down") if upright else ("right" if p.from_bolt >= 0 else "left")
    said = tr(
        "Scribe {} {} from the middle of bolt {}; that is {}.",
        units.length.with_unit(abs(p.from_bolt)),
        way,
        p.bolt,
        edge,
    )
    return Gauge(tr("bolt {}", p.bolt), units.length.with_unit(abs(p.from_bolt)), f"{said} {_STOPS}")


_STOPS: Final = tr("Stop at the scribe; never past the land or a wall that was not read.")


def near_curves(port: PortCurves, times: float) -> tuple[Curve, Curve]:
    """Both openings of a port about the head's middle [m], the other's steps drawn that many times."""
    middle = port.head.mean(axis=0)
    head, other = port.head - middle, port.other - middle
    if times == 1:
        return head, other
    # Each edge is moved to so many times its step, and what lies between goes along.
    low, high = other.min(axis=0), other.max(axis=0)
    far_low = head.min(axis=0) + times * (low - head.min(axis=0))
    far_high = head.max(axis=0) + times * (high - head.max(axis=0))
    return head, far_low + (other - low) / (high - low) * np.maximum(far_high - far_low, 0.2 * (high - low))

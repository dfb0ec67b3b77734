"""Where two faces meet: the step at each edge, which way it faces the air, the land left, and what to take off."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np
from shapely.affinity import affine_transform
from shapely.geometry import Polygon, box

from ventrix.core.lineup.fitting import Fit
from ventrix.core.lineup.outlines import polygon_of
from ventrix.core.metal.walls import spare_at
from ventrix.core.model.cut import Port, carried_figure
from ventrix.core.model.job import Job
from ventrix.core.model.job_parts import Face
from ventrix.core.model.kinds import Direction, FacePart, Place
from ventrix.core.model.school_questions import side_taken
from ventrix.core.quantity.said import Amount, Said
from ventrix.words import tr

FLUSH: Final = 0.1e-3  # m: nearer than that an edge is flush (common practice, no source)
LEAST_LAND: Final = 2.5e-3  # m (common practice, no source)
_LAND_STAYS: Final = Said("the land stays at {}", Amount(LEAST_LAND, "length", "mm", ".1f"))
EDGES: Final = ("roof", "floor", "left", "right")
MOST_SLIDE: Final = 2.0e-3  # m that a face is thought to be moved by milling
STRIP: Final = 0.25  # of a side: where an edge is looked for about its middle


@dataclass(frozen=True, slots=True)
class Edge:
    """An edge of a joint: how far the opening that the air goes into stands outside the one it comes from [m], whether
    that faces the air, and the land between it and what it must not run into [m]; None where nobody measured one."""

    port: str
    edge: str
    step: float
    faces_air: bool
    land: float | None

    @property
    def flush(self) -> bool:
        return abs(self.step) < FLUSH


@dataclass(frozen=True, slots=True)
class Joint:
    """A port where two faces meet: its edges, the area the air goes into over the one it comes from, and the share of
    the smaller opening that both have."""

    port: str
    edges: tuple[Edge, ...]
    area_ratio: float
    overlap: float


ACROSS: Final = {"roof": "floor", "floor": "roof", "left": "right", "right": "left"}


@dataclass(frozen=True, slots=True)
class Proposal:
    """What to take off which part at an edge [m], what stops it short, and how far the edge of the head's opening is
    then from a bolt and from the edge across from it [m]."""

    port: str
    edge: str
    part: str
    depth: float
    wanted: float
    stopped_by: str
    bolt: str
    from_bolt: float | None
    from_edge: float | None
    sentence: str


def is_upstream(part: str) -> bool:
    """Whether the air comes from this part into the head: a manifold's does, a header's goes on; so does a gasket's of
    an intake, which lies between."""
    return part != FacePart.HEADER


def joints(job: Job, head: Face, other: Face, fit: Fit) -> tuple[Joint, ...]:
    """Every port that both faces have.

    Parameters
    ----------
    job : Job
        Its ports' gasket lands and kinds.
    head, other : Face
        The head's face, and the one that lies on it.
    fit : Fit
        Where the other's points stand in the head's axes.

    Returns
    -------
    tuple of Joint
        In the order of the head's outlines.

    Raises
    ------
    ValueError
        An outline that cannot be drawn.

    References
    ----------
    Geometry by shapely. A step that the air meets faces it: an intake's manifold larger than its head, an exhaust's
    head larger than its header.
    """
    kinds = {p.name: p for p in job.ports}
    theirs = {o.port: _moved(polygon_of(o), fit) for o in other.outlines}
    mine = {o.port: polygon_of(o) for o in head.outlines}
    lands = _lands(job, mine)
    found = []
    for name, here in mine.items():
        there = theirs.get(name)
        if there is None:
            continue
        port = kinds.get(name)
        exhaust = (port is not None and port.kind == Direction.EXHAUST) or other.part == FacePart.HEADER
        comes, goes = (here, there) if exhaust else (there, here)
        shared = float(comes.intersection(goes).area) / min(float(comes.area), float(goes.area))
        edges = tuple(_edge(name, edge, comes, goes, lands[name, edge]) for edge in EDGES)
        found.append(Joint(name, edges, float(goes.area) / float(comes.area), shared))
    return tuple(found)


def _moved(polygon: Polygon, fit: Fit) -> Polygon:
    c, s = float(np.cos(fit.turn)), float(np.sin(fit.turn))
    return affine_transform(polygon, [c, -s, s, c, fit.shift[0], fit.shift[1]])


def edge_at(polygon: Polygon, edge: str) -> float:
    """Where an edge of an opening lies about its middle [m]: y of roof and floor, x of left and right."""
    left, low, right, high = polygon.bounds
    x, y = (left + right) / 2, (low + high) / 2
    wide, tall = STRIP * (right - left), STRIP * (high - low)
    upright = edge in ("roof", "floor")
    strip = box(x - wide, low - 1, x + wide, high + 1) if upright else box(left - 1, y - tall, right + 1, y + tall)
    part = polygon.intersection(strip).bounds
    return float({"roof": part[3], "floor": part[1], "left": part[0], "right": part[2]}[edge])


def _edge(name: str, edge: str, comes: Polygon, goes: Polygon, land: float | None) -> Edge:
    outward = 1.0 if edge in ("roof", "right") else -1.0
    step = outward * (edge_at(goes, edge) - edge_at(comes, edge))
    return Edge(name, edge, step, step < -FLUSH, land)


def _lands(job: Job, mine: dict[str, Polygon]) -> dict[tuple[str, str], float | None]:
    """Between each opening and the next one beside it, and what the head's gasket has left, by port and edge."""
    kinds = {p.name: p for p in job.ports}
    lands: dict[tuple[str, str], float | None] = {}
    row = sorted(mine, key=lambda name: mine[name].bounds[0])
    for i, name in enumerate(row):
        port = kinds.get(name)
        own = carried_figure(port, port.cuts[-1], "gasket_land") if port is not None and port.cuts else None
        for edge in EDGES:
            gaps = [] if own is None else [own]
            if edge in ("left", "right"):
                rest = row[i + 1 :] if edge == "right" else row[:i][::-1]
                beside = next((o for o in rest if _beside(mine[name], mine[o])), None)
                gaps += [] if beside is None else [float(mine[name].distance(mine[beside]))]
            lands[name, edge] = min(gaps) if gaps else None
    return lands


def _beside(a: Polygon, b: Polygon) -> bool:
    return bool(a.bounds[1] < b.bounds[3] and b.bounds[1] < a.bounds[3])


def proposals(job: Job, head: Face, other: Face, found: Sequence[Joint]) -> tuple[Proposal, ...]:
    """What to take off, by the porter's school, worst step first; never past the land or the wall, and an exhaust never
    past its header.

    Parameters
    ----------
    job : Job
        Its schools, lands and walls.
    head, other : Face
        As `joints`.
    found : sequence of Joint
        Of the two.

    Returns
    -------
    tuple of Proposal
        For every edge that faces the air; of a gasket's only where the school opens to it.

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    Schools of the trade; least land: common practice, no source.
    """
    ports = {p.name: p for p in job.ports}
    made = []
    opens = bool(side_taken(job, "gasket").value)
    for joint in found:
        port = ports.get(joint.port)
        for edge in joint.edges:
            if edge.faces_air and (opens or other.part != FacePart.GASKET):
                made.append(_proposal(job, head, other, port, edge, -edge.step))
    return tuple(sorted(made, key=lambda p: -p.wanted))


def _proposal(job: Job, head: Face, other: Face, port: Port | None, edge: Edge, wanted: float) -> Proposal:
    # An intake's step stands on the head, which the air goes into; an exhaust's on the header.
    exhaust = other.part == FacePart.HEADER or (port is not None and port.kind == Direction.EXHAUST)
    part = other.part if exhaust else FacePart.HEAD.value
    depth, stopped = wanted, ""
    if part == FacePart.HEAD:
        land = edge.land
        if land is not None and land - depth < LEAST_LAND:
            depth, stopped = max(land - LEAST_LAND, 0.0), _LAND_STAYS
        cut = port.cuts[-1] if port is not None and port.cuts else None
        spare = None if port is None or cut is None else spare_at(job, port, cut, Place.OPENING, edge.edge)
        if spare is not None and spare < depth:
            depth, stopped = spare, tr("the wall is at your limit")
        elif spare is None and cut is not None and depth > FLUSH and not stopped:
            stopped = tr("read its wall first")
    bolt, from_bolt, from_edge = _scribed(head, edge, depth if part == FacePart.HEAD else 0.0)
    size = Amount(depth, "length", "mm", ".2f")
    said: str = Said("take {} off the {} at {}'s {}", size, part, edge.port, edge.edge)
    if depth <= FLUSH:
        said = tr("leave {}'s {}", edge.port, edge.edge)
    return Proposal(
        edge.port,
        edge.edge,
        part,
        depth,
        wanted,
        stopped,
        bolt,
        from_bolt,
        from_edge,
        Said("{}: {}", said, stopped) if stopped else said,
    )


def _scribed(head: Face, edge: Edge, depth: float) -> tuple[str, float | None, float | None]:
    """How far the scribed edge lies from the nearest bolt of the head, along the way it is moved, and from the edge
    across from it [m]: what a height gauge, or callipers, are set to."""
    outline = next((o for o in head.outlines if o.port == edge.port), None)
    if outline is None:
        return "", None, None
    polygon = polygon_of(outline)
    outward = 1.0 if edge.edge in ("roof", "right") else -1.0
    line = edge_at(polygon, edge.edge) + outward * depth
    axis = 1 if edge.edge in ("roof", "floor") else 0
    across = abs(line - edge_at(polygon, ACROSS[edge.edge]))
    if not head.bolts:
        return "", None, across
    middle = np.array([polygon.centroid.x, polygon.centroid.y])
    bolt = min(head.bolts, key=lambda b: float(np.linalg.norm(np.array(b.at) - middle)))
    return bolt.name, float(line - bolt.at[axis]), across


@dataclass(frozen=True, slots=True)
class Slide:
    """How far the other face would have to come up along the head's [m] for the fewest edges to face the air, and how
    many do so before and then."""

    up: float
    before: int
    after: int


def spared_by_sliding(found: Sequence[Joint], downstream: bool) -> Slide | None:
    """What moving the other face along the head's would spare: what milling it, or the head, does.

    Parameters
    ----------
    found : sequence of Joint
        As they lie.
    downstream : bool
        The other face is a header: the air goes into it.

    Returns
    -------
    Slide or None
        The least way that spares most; None where none spares any.

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    Geometry: roofs lose by it what floors gain.
    """
    sign = 1.0 if downstream else -1.0
    roofs = np.array([e.step for j in found for e in j.edges if e.edge == "roof"])
    floors = np.array([e.step for j in found for e in j.edges if e.edge == "floor"])
    rest = sum(e.faces_air for j in found for e in j.edges if e.edge in ("left", "right"))

    def facing(up: float) -> int:
        return int(np.sum(roofs + sign * up < -FLUSH) + np.sum(floors - sign * up < -FLUSH)) + rest

    now = facing(0.0)
    ways = sorted((float(w) for w in np.linspace(-MOST_SLIDE, MOST_SLIDE, 161)), key=abs)
    best = min(ways, key=lambda w: (facing(w), abs(w)))
    return Slide(best, now, facing(best)) if facing(best) < now else None

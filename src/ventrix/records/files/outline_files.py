"""Outlines from drawings: DXF (lines, arcs, circles, bulges, splines; inches and millimetres) and SVG paths. What
cannot be read is refused with a sentence."""

from __future__ import annotations

import io
import logging
from pathlib import Path
from typing import Any, Final

import numpy as np

from ventrix.core.quantity.units import to_si
from ventrix.records.bad_input import InputError
from ventrix.records.files.whole_file import read_whole
from ventrix.words import tr

LARGEST: Final = 30_000_000  # bytes
JOIN: Final = 0.05  # drawing's millimetres: ends nearer than that are one
SAG: Final = 0.02  # mm that a chord may lie inside its curve
FARTHEST: Final = 1e3  # m
FEWEST: Final = 3
MOST_ENTITIES: Final = 20_000  # of a drawing of one face
MOST: Final = 400  # points of an outline that is kept
# DXF header $INSUNITS: metres a drawing unit.
_UNITS: Final = {0: 1e-3, 1: 0.0254, 2: 0.3048, 4: 1e-3, 5: 1e-2, 6: 1.0}

_NO_SIZE: Final = ("%", "em", "ex", "ch", "vw", "vh")  # endings of an SVG's lengths that say nothing of a face

Points = list[tuple[float, float]]


def read_outlines(path: Path) -> list[Points]:
    """Every closed curve of a drawing, left to right, as points in metres.

    Raises InputError naming the file where it is no drawing, too large, or holds no closed curve.
    """
    kind = path.suffix.lower()
    if kind not in (".dxf", ".svg"):
        raise InputError(tr("is not a drawing that is read: DXF or SVG"), file=path.name)
    data = read_whole(path, LARGEST, tr("a drawing"))
    curves = _from_dxf(data, path.name) if kind == ".dxf" else _from_svg(data, path.name)
    closed = [_thinned(c) for c in curves if len(c) >= FEWEST and _area(c) > 0]
    if not closed:
        raise InputError(tr("holds no closed curve"), file=path.name)
    return sorted(closed, key=lambda c: float(np.mean([x for x, _ in c])))


def _from_dxf(data: bytes, name: str) -> list[Points]:
    from ezdxf import path as paths  # late: it costs half a second
    from ezdxf.entities.spline import Spline
    from ezdxf.lldxf.const import DXFError
    from ezdxf.math import fit_points_to_cad_cv
    from ezdxf.recover import read as recover

    logging.getLogger("ezdxf").setLevel(logging.CRITICAL)  # what it mends of a damaged file is nobody's to read
    try:
        drawing, _ = recover(io.BytesIO(data))
    except (DXFError, OSError, ValueError, UnicodeError, LookupError, TypeError, AttributeError, ArithmeticError,
            AssertionError):  # fmt: skip
        raise InputError(tr("is not a DXF that can be read"), file=name) from None
    unit = _UNITS.get(int(drawing.header.get("$INSUNITS", 0) or 0))
    if unit is None:
        raise InputError(tr("is drawn in a unit that is not read: inches or millimeters"), file=name)
    closed: list[Points] = []
    open_ones: list[Points] = []
    sag = SAG * 1e-3 / unit
    entities = drawing.modelspace()
    if len(entities) > MOST_ENTITIES:
        raise InputError(
            tr("holds {:,} things: a face is drawn with {:,} at most", len(entities), MOST_ENTITIES), file=name
        )
    for entity in entities:
        if entity.dxftype() not in ("LINE", "ARC", "CIRCLE", "ELLIPSE", "LWPOLYLINE", "POLYLINE", "SPLINE"):
            continue
        try:
            if isinstance(entity, Spline) and not len(entity.control_points):
                drawn: Any = fit_points_to_cad_cv(entity.fit_points)  # as some programs write it
            else:
                drawn = paths.make_path(entity)
            points = _near([(unit * p.x, unit * p.y) for p in drawn.flattening(sag)])
        except (TypeError, ValueError, ArithmeticError, DXFError):
            continue
        if not points:
            continue
        (closed if _is_closed(points) else open_ones).append(points)
    return closed + _joined(open_ones)


def _from_svg(data: bytes, name: str) -> list[Points]:
    from defusedxml import ElementTree
    from svgelements import SVG, Shape  # late: it is seldom wanted

    try:
        root = ElementTree.fromstring(data)  # nothing that reaches outside the file is let in
    except Exception:
        raise InputError(tr("is not an SVG that can be read"), file=name) from None
    if any(str(root.get(side, "")).strip().endswith(_NO_SIZE) for side in ("width", "height")):
        raise InputError(tr("is as large as a page or a letter (%, em): draw it in mm, in or px"), file=name)
    try:
        drawing = SVG.parse(io.BytesIO(data), reify=True, ppi=96.0)
    except Exception:
        raise InputError(tr("is not an SVG that can be read"), file=name) from None
    found: list[Points] = []
    scale = to_si(1.0, "in") / 96.0
    try:
        with np.errstate(all="ignore"):  # what comes to nothing is refused by `_near`
            for element in drawing.elements():
                for sub in _subpaths(element) if isinstance(element, Shape) else ():
                    points = _sampled(sub, scale)
                    if _is_closed(points):
                        found.append(points)
    except (AttributeError, TypeError, ValueError, ArithmeticError):  # a length in em or %, a transform that is none
        raise InputError(tr("holds a shape that cannot be read: draw it in mm, in or px"), file=name) from None
    return found


def _subpaths(element: Any) -> list[Any]:
    from svgelements import Path as SvgPath

    whole = SvgPath(element)
    return [SvgPath(sub) for sub in whole.as_subpaths()]


def _sampled(path: Any, scale: float) -> Points:
    """Points along a path; y goes down on a screen and up on a face."""
    from svgelements import Close, Line, Move

    points: Points = []
    for segment in path:
        if isinstance(segment, Move):
            points.append((segment.end.x, segment.end.y))
        elif isinstance(segment, Line | Close):
            if segment.end is not None:
                points.append((segment.end.x, segment.end.y))
        else:
            points += [(p.x, p.y) for p in (segment.point(t) for t in np.linspace(0, 1, 25)[1:])]
    return _near([(scale * float(x), -scale * float(y)) for x, y in points])


def _near(points: Points) -> Points:
    """Points as they are, where all of them lie within `FARTHEST`; a ValueError otherwise."""
    if not all(abs(x) <= FARTHEST and abs(y) <= FARTHEST for x, y in points):
        raise ValueError("lies too far off, or nowhere")
    return points


def _is_closed(points: Points) -> bool:
    if len(points) < FEWEST:
        return False
    (a, b), (c, d) = points[0], points[-1]
    return float(np.hypot(a - c, b - d)) <= JOIN * 1e-3


def _joined(pieces: list[Points]) -> list[Points]:
    """Open pieces laid end to end into closed curves."""
    left = [list(p) for p in pieces if len(p) > 1]
    found: list[Points] = []
    while left:
        chain = left.pop()
        grown = True
        while grown and not _is_closed(chain):
            grown = False
            for i, other in enumerate(left):
                for piece in (other, other[::-1]):
                    if np.hypot(chain[-1][0] - piece[0][0], chain[-1][1] - piece[0][1]) <= JOIN * 1e-3:
                        chain += piece[1:]
                        del left[i]
                        grown = True
                        break
                if grown:
                    break
        if _is_closed(chain):
            found.append(chain)
    return found


def _area(points: Points) -> float:
    x, y = np.array(points).T
    return abs(float(np.sum(x * np.roll(y, -1) - y * np.roll(x, -1)))) / 2


def _thinned(points: Points) -> Points:
    """Without the end that is the beginning, and no more points than an outline wants."""
    open_end = points[:-1] if _is_closed(points) else points
    step = max(len(open_end) // MOST, 1)
    return open_end[::step]

"""Two faces that meet as a JSON document (a contract) and as text."""

from __future__ import annotations

from typing import Any

import numpy as np

from ventrix.core.lineup.fitting import spacing_of
from ventrix.core.lineup.of_job import LineUp
from ventrix.core.quantity.units import from_si
from ventrix.words import tr


def _mm(pair: tuple[float, float]) -> list[float]:
    return [from_si(pair[0], "mm"), from_si(pair[1], "mm")]


def lineup_document(found: LineUp) -> dict[str, Any]:
    """JSON: the other face laid on the head's. `shift_mm` and `rotation_deg` are how far the head lies off the other,
    `residual_mm` how far each of its ports still does; a step is how high it stands, and `faces_air` whether the air
    meets it."""
    return {
        "head": found.head.name,
        "face": found.other.name,
        "fit": {
            "by": found.by,
            "shift_mm": _mm(found.fit.shift),
            "rotation_deg": float(np.degrees(found.fit.turn)),
            "residual_mm": {port: _mm(off) for port, off in found.left.items()},
        },
        "crooked": {
            "shift_mm": _mm(found.crooked.shift),
            "rotation_deg": float(np.degrees(found.crooked.turn)),
            "residual_mm": {port: _mm(off) for port, off in found.crooked.left.items()},
            "blamed": found.crooked.blamed,
            "reason": found.crooked.reason,
        },
        "spacing": None
        if (spacing := spacing_of(found.head)) is None
        else {
            "mean_mm": from_si(spacing.mean, "mm"),
            "worst_mm": from_si(spacing.worst, "mm"),
            "between": list(spacing.between),
        },
        "edges": [
            {
                "port": e.port,
                "edge": e.edge,
                "step_mm": from_si(abs(e.step), "mm"),
                "faces_air": e.faces_air,
                "flush": e.flush,
                "land_mm": None if e.land is None else from_si(e.land, "mm"),
            }
            for j in found.joints
            for e in sorted(j.edges, key=lambda e: (not e.faces_air, -abs(e.step)))
        ],
        "area_ratio": {j.port: j.area_ratio for j in found.joints},
        "overlap": {j.port: j.overlap for j in found.joints},
        "proposals": [
            {
                "port": p.port,
                "edge": p.edge,
                "part": p.part,
                "take_off_mm": from_si(p.depth, "mm"),
                "wanted_mm": from_si(p.wanted, "mm"),
                "stopped_by": p.stopped_by or None,
                "bolt": p.bolt or None,
                "from_bolt_mm": None if p.from_bolt is None else from_si(p.from_bolt, "mm"),
                "from_edge_mm": None if p.from_edge is None else from_si(p.from_edge, "mm"),
                "sentence": p.sentence,
            }
            for p in found.proposals
        ],
    }


def lineup_text(document: dict[str, Any]) -> str:
    """The document in lines."""
    fit, crooked = document["fit"], document["crooked"]
    x, y = fit["shift_mm"]
    rows = [
        tr(
            "{} on {}, by {}: the head lies {:+z.2f}, {:+z.2f} mm off, turned {:+z.2f} deg.",
            document["face"],
            document["head"],
            fit["by"],
            x,
            y,
            fit["rotation_deg"],
        ),
        tr("Against its bolts the casting runs {:+z.2f} deg; {}.", crooked["rotation_deg"], crooked["reason"]),
    ]
    for e in document["edges"]:
        way = tr("faces the air") if e["faces_air"] else "flush" if e["flush"] else tr("let go")
        land = "" if e["land_mm"] is None else tr(", land {:.2f} mm", e["land_mm"])
        rows.append(f"{e['port']}, {e['edge']}: {e['step_mm']:.2f} mm, {way}{land}")
    rows += [p["sentence"] + "." for p in document["proposals"]]
    return "\n".join(rows)

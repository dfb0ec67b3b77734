"""A scan that was measured, as a JSON document (a contract) and as text."""

from __future__ import annotations

from typing import Any, Final

import numpy as np

from ventrix.core.scan.compare import Taken
from ventrix.core.scan.measure import Measured, Pick
from ventrix.core.scan.sections import perimeter
from ventrix.words import tr

PICKS: Final = ("opening", "pinch", "short_side", "bowl", "throat")


def scan_document(
    unit: str, found: Measured, taken: Taken | None = None, notes: tuple[str, ...] = ()
) -> dict[str, Any]:
    """JSON of a scan, and of what came off since another one; the unit is the file's."""
    return {
        "unit": unit,
        "volume_cc": found.volume / 1e3,
        "length_mm": found.length,
        "roof_mm": found.roof,
        "floor_mm": found.floor,
        "turning_deg": float(np.degrees(found.turning)),
        "sections": [
            {
                "along_mm": s.along,
                "area_cm2": s.flow_area / 100,
                "perimeter_mm": perimeter(s.section),
                "u_percent": 100 * found.uncertainty(s),
            }
            for s in found.stations
        ],
        "picks": {name: _pick(found.picks.get(name)) for name in PICKS},
        "removed": None if taken is None else _removed(taken),
        "notes": [*notes, *found.notes, *(() if taken is None else taken.notes)],
    }


def _pick(pick: Pick | None) -> dict[str, float | None] | None:
    if pick is None:
        return None
    return {
        "along_mm": pick.along,
        "area_cm2": pick.area / 100,
        "width_mm": pick.width,
        "height_mm": pick.height,
        "corner_mm": pick.corner,
        "diameter_mm": pick.diameter,
        "radius_mm": pick.radius,
    }


def _removed(taken: Taken) -> dict[str, Any]:
    return {
        "volume_mm3": taken.volume,
        "u_mm3": taken.u_volume,
        "scale": taken.scale,
        "kept": taken.kept,
        "places": [{"place": str(p.place), "side": p.side, "depth_mm": p.depth, "u_mm": p.u} for p in taken.places],
    }


def scan_text(document: dict[str, Any]) -> str:
    """The same in lines."""
    lines = [
        tr(
            "Volume {:.2f} cc, along the middle {:.1f} mm (roof {:.1f}, floor {:.1f}), turns {:.1f}°",
            document["volume_cc"],
            document["length_mm"],
            document["roof_mm"],
            document["floor_mm"],
            document["turning_deg"],
        )
    ]
    for name, pick in document["picks"].items():
        if pick is None:
            continue
        size = f"{pick['width_mm']:.2f} x {pick['height_mm']:.2f} mm"
        size = f"⌀ {pick['diameter_mm']:.2f} mm" if pick["diameter_mm"] is not None else size
        bend = tr(", radius {:.1f} mm", pick["radius_mm"]) if pick["radius_mm"] is not None else ""
        said = tr("{:6.3f} cm² at {:5.1f} mm, {}{}", pick["area_cm2"], pick["along_mm"], size, bend)
        lines.append(f"{name.replace('_', ' '):12}{said}")
    removed = document["removed"]
    if removed is not None:
        lines.append(tr("Taken off: {:.0f} ± {:.0f} mm³", removed["volume_mm3"], removed["u_mm3"]))
        for each in removed["places"]:
            if each["depth_mm"] > each["u_mm"]:
                where = f"{each['place']}, {each['side']}"
                lines.append(f"  {where:22}{each['depth_mm']:.3f} ± {each['u_mm']:.3f} mm")
    return "\n".join([*lines, *document["notes"]])

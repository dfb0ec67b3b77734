"""Job documents of an earlier version, brought to the present one before they are validated.

Only keys that changed are touched; what is malformed is left for validation to name.
"""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from ventrix.words import tr


def from_version_1(document: dict[str, Any]) -> None:
    """Bring a version 1 document to version 2, in place.

    A cut had one `kind`, and has `kinds`; an operation had `places` with one depth, and has `works`, one a place; a
    chamber's volume stood at each port's cut, and is poured once a cylinder: where two disagree, both are kept.
    """
    chambers: dict[int, dict[str, Any]] = {}
    for port in _objects(document.get("ports")):
        for cut in _objects(port.get("cuts")):
            if "kind" in cut:
                cut["kinds"] = [cut.pop("kind")]
            for operation in _objects(cut.get("operations")):
                _works(operation)
            if "chamber_volume_cc" in cut and "chambers" not in document:
                _poured(chambers, port, cut)
    if chambers:
        document["chambers"] = list(chambers.values())


def faces_as_written(document: dict[str, Any]) -> None:
    """Faces in the handier ways they may be written, in place: without ids, one corner's radius as a number, points as
    pairs."""
    for i, face in enumerate(_objects(document.get("faces")), 1):
        face.setdefault("id", f"face-{i}")
        for j, outline in enumerate(_objects(face.get("outlines")), 1):
            outline.setdefault("id", f"{face['id']}-outline-{j}")
            corner, points = outline.get("corner_mm"), outline.get("points_mm")
            if isinstance(corner, int | float) and not isinstance(corner, bool):
                outline["corner_mm"] = [corner]
            if isinstance(points, list) and points and all(isinstance(p, list) and len(p) == 2 for p in points):
                outline["points_mm"] = [value for pair in points for value in pair]
        for j, bolt in enumerate(_objects(face.get("bolts")), 1):
            bolt.setdefault("id", f"{face['id']}-bolt-{j}")


def _objects(value: Any) -> Iterator[dict[str, Any]]:
    return (each for each in value if isinstance(each, dict)) if isinstance(value, list) else iter(())


def _works(operation: dict[str, Any]) -> None:
    places, depth = operation.get("places", []), operation.get("depth_mm")
    if not isinstance(places, list) or not all(isinstance(p, str) for p in places):
        return
    operation.pop("places", None)
    operation.pop("depth_mm", None)
    if not places and depth is None:
        return
    operation["works"] = [
        {"id": f"{operation.get('id', '')}-{i}", "place": place} | ({} if depth is None else {"depth_mm": depth})
        for i, place in enumerate(places or [""], 1)
    ]


def _poured(chambers: dict[int, dict[str, Any]], port: dict[str, Any], cut: dict[str, Any]) -> None:
    volume = cut.pop("chamber_volume_cc")
    name = str(port.get("name", ""))
    last, cylinder = name.rsplit(" ", 1)[-1], port.get("cylinder")
    own = int(last) if last.isascii() and last.isdecimal() and len(last) < 3 and 0 < int(last) <= 48 else 1
    which = cylinder if isinstance(cylinder, int) and cylinder > 0 else own
    chamber = chambers.setdefault(which, {"id": f"chamber-{which}", "cylinder": which, "pours": []})
    if volume is None or any(p["volume_cc"] == volume for p in chamber["pours"]):
        return
    pour = {
        "id": f"{cut.get('id', '')}-chamber",
        "volume_cc": volume,
        "how": tr("{}, cut {}", name, cut.get("number", 0)),
    }
    chamber["pours"].append(pour)

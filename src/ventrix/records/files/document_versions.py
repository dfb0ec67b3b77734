"""Job documents of an earlier version, brought to the present one before they are validated.

Only keys that changed are touched; what is malformed is left for validation to name.
"""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any


def from_version_1(document: dict[str, Any]) -> None:
    """Bring a version 1 document to version 2, in place.

    A cut had one `kind`, and has `kinds`; an operation had `places` with one depth, and has `works`, one a place.
    """
    for port in _objects(document.get("ports")):
        for cut in _objects(port.get("cuts")):
            if "kind" in cut:
                cut["kinds"] = [cut.pop("kind")]
            for operation in _objects(cut.get("operations")):
                _works(operation)


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

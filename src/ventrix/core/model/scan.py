"""A scan that hangs from a cut, and what it said."""

from __future__ import annotations

from dataclasses import dataclass, field

from ventrix.core.model.noun import Noun, quantity


@dataclass(frozen=True, slots=True, kw_only=True)
class ScannedSize(Noun):
    """A length of the cut as a scan has it, by its field's name, with U(0.05)."""

    name: str
    size: float | None = quantity("mm")
    uncertainty: float | None = quantity("mm")


@dataclass(frozen=True, slots=True, kw_only=True)
class ScannedDepth(Noun):
    """Metal that came off a place between two scans, with U(0.05)."""

    place: str
    side: str
    depth: float | None = quantity("mm")
    uncertainty: float | None = quantity("mm")


@dataclass(frozen=True, slots=True, kw_only=True)
class ScannedStrip(Noun):
    """Metal that came off each side between two scans, so far along the port; None where nothing could be told."""

    along: float = field(metadata={"unit": "mm"})
    left: float | None = quantity("mm")
    roof: float | None = quantity("mm")
    right: float | None = quantity("mm")
    floor: float | None = quantity("mm")


@dataclass(frozen=True, slots=True, kw_only=True)
class Scan(Noun):
    """A scan of the port or of its mould, by its file in the book's own folder.

    `known` is the size its unit was confirmed by, as typed; `face_at` and `seat_at` are points on its ends, in the
    file's own unit, and `seat_at_far_end` says that the end found to be the face is the seat. What came off since an
    earlier scan, `held_against` by its file: a volume, the least depth that the two tell from nothing, places and
    strips along the port.
    """

    file: str
    unit: str = "mm"
    known: str = ""
    guide_bore: float | None = quantity("mm")
    face_at: tuple[float, ...] = field(default=(), metadata={"unit": "-"})
    seat_at: tuple[float, ...] = field(default=(), metadata={"unit": "-"})
    seat_at_far_end: bool = False
    sizes: tuple[ScannedSize, ...] = ()
    held_against: str = ""
    taken_volume: float | None = quantity("cc")
    taken_uncertainty: float | None = quantity("cc")
    least_told: float | None = quantity("mm")
    places: tuple[ScannedDepth, ...] = ()
    strips: tuple[ScannedStrip, ...] = ()
    date: str | None = None
    note: str = ""

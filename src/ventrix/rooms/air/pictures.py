"""What a section's picture is drawn from: values, no widget."""

from __future__ import annotations

from dataclasses import dataclass

from ventrix.core.air.traverse import Field


@dataclass(frozen=True, slots=True)
class SectionSpot:
    """A point: its name, place, text, and share of the scale; `result` gives a difference its mark."""

    name: str
    u: float
    v: float
    text: str = ""
    share: float | None = None
    result: str = ""


@dataclass(frozen=True, slots=True)
class SectionView:
    """What a picture shows. `field` and `scale` fill it; a difference shows its spots only."""

    title: str
    width: float
    height: float
    ring: bool = False
    spots: tuple[SectionSpot, ...] = ()
    field: Field | None = None
    scale: tuple[float, float] = (0.0, 1.0)
    wanted: str = ""
    corner: float = 0.0  # radius [m]
    guessed: bool = False  # nobody measured this section

"""What a grinder card says, as values. Sizes of templates are in SI: they are drawn at true size."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Stop:
    """How far a place may still go: texts; `read` is empty where nobody read it; `first` where the wall has to be read
    first, `stops` where nothing more may come off."""

    place: str
    read: str
    left: str
    limit: str
    take: str
    behind: str
    first: bool = False
    stops: bool = False


@dataclass(frozen=True, slots=True)
class Gauge:
    """A width on the gauge: this port now, the size that has to pass, and the one that must not."""

    what: str
    now: str
    go: str
    no_go: str


@dataclass(frozen=True, slots=True)
class Template:
    """A section to cut out: a rectangle with corner radii, or a circle where `round` is set [m]."""

    name: str
    width: float
    height: float
    corner: float
    words: str
    round: bool = False


@dataclass(frozen=True, slots=True)
class Card:
    """One port for the wall above the bench."""

    title: str
    line: str
    date: str
    stops: tuple[Stop, ...]
    gauges: tuple[Gauge, ...]
    gauge_note: str
    seat: tuple[str, ...]
    seat_line: tuple[tuple[float, float], ...]
    faults: tuple[str, ...]
    templates: tuple[Template, ...]
    cautions: tuple[str, ...]
    length_label: str
    paper: str = "A4"
    ink: str = "colour"

"""The shop's benches as frozen values: what each is, and what is known of it from checks. SI throughout."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any

from ventrix.core.model.bench_kinds import ElementKind, LinkKind
from ventrix.core.model.noun import Noun, quantity


@dataclass(frozen=True, slots=True, kw_only=True)
class PlateCheck(Noun):
    """The reference plate flowed before a day's work: what it should and did flow, at one pressure."""

    nominal: float = field(metadata={"unit": "cfm"})
    flow: float = field(metadata={"unit": "cfm"})
    pressure: float | None = quantity("Pa")
    date: str | None = None
    struck: str | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class StudyReading(Noun):
    """One reading of an unchanged head: which bolting-down it was, lift, and flow."""

    mount: int
    lift: float = field(metadata={"unit": "mm"})
    flow: float = field(metadata={"unit": "cfm"})


@dataclass(frozen=True, slots=True, kw_only=True)
class ScatterStudy(Noun):
    """Know your bench: one unchanged head, mounted several times, a few lifts, repeats."""

    date: str | None = None
    head: str = ""
    readings: tuple[StudyReading, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class TransferPart(Noun):
    """One part flowed on both benches under like conditions."""

    name: str = ""
    here: float = field(metadata={"unit": "cfm"})
    there: float = field(metadata={"unit": "cfm"})
    lift: float | None = quantity("mm")


@dataclass(frozen=True, slots=True, kw_only=True)
class Transfer(Noun):
    """What carries a flow of the bench named `other` over to this one, from parts flowed on both."""

    other: str
    date: str | None = None
    parts: tuple[TransferPart, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Bench(Noun):
    """A flow bench: its flow element, its reach, how it is read, and the history of its checks.

    element : what the readout is: a corrected flow, percent of a range, an orifice's pressure drop,
        a mass flow; or, uncalibrated, two columns of water, or one against that of a fixed opening
    fixed_column : what the one column showed at the fixed opening
    ranges : full-scale flows of a percent readout, rising
    element_place : "upstream" where the flow element stands before the plenum on blow
    leak_taken_off : the readout has the leak off already; None where nobody has said yet
    reading_step : the step of its readout, where it is coarser than its last digit
    easy_dial, easy_factor, easy_leak : the largest mistake of each kind that passes unnoticed here
    text_format : columns of a bench that streams text lines, as `ventrix.bench.text_lines` has them
    """

    name: str
    element: ElementKind = field(default=ElementKind.FLOW, metadata={"always": True})
    ranges: tuple[float, ...] = field(default=(), metadata={"unit": "cfm"})
    corrected: bool = True
    scale_density: float | None = quantity("kg/m3")
    orifice_diameter: float | None = quantity("mm")
    orifice_pipe: float | None = quantity("mm")
    orifice_coefficient: float | None = quantity("-")
    fixed_column: float | None = quantity("mmH2O")
    element_place: str | None = None
    leak_taken_off: bool | None = None
    reading_step: float | None = quantity("cfm")
    blower_limit: float | None = quantity("cfm")
    test_pressure: float | None = quantity("Pa")
    dial_resolution: float | None = quantity("mm")
    easy_dial: float | None = quantity("mm")
    easy_factor: float | None = quantity("%")
    easy_leak: float | None = quantity("cfm")
    link: LinkKind = field(default=LinkKind.TYPED, metadata={"always": True})
    address: str = ""
    text_format: Mapping[str, Any] = field(default_factory=dict)
    plate_name: str = ""
    plate_flow: float | None = quantity("cfm")
    plates: tuple[PlateCheck, ...] = ()
    studies: tuple[ScatterStudy, ...] = ()
    transfers: tuple[Transfer, ...] = ()


def is_index(element: ElementKind) -> bool:
    """Whether a readout is good for ratios on its own bench only."""
    return element in (ElementKind.COLUMNS, ElementKind.COLUMN)


def same_name(a: str | None, b: str | None) -> bool:
    """Whether two bench names are one: case and space around them do not count."""
    return a is not None and b is not None and a.strip().lower() == b.strip().lower()


def bench_named(benches: tuple[Bench, ...], name: str | None) -> Bench | None:
    """The bench of that name, or None."""
    return next((b for b in benches if same_name(b.name, name)), None)

"""What a casting taught, as a document between shops: whose it is, and nothing of a customer."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any, Final

import numpy as np
from pydantic import BaseModel, ConfigDict, Field

from ventrix.core.castings.casting_file import AsCast, Casting, CastingFault, CastingWall, SawnSection
from ventrix.core.planning.learned import RESIDUAL_AT, CastingPrior
from ventrix.core.quantity.units import from_si, to_si
from ventrix.records.bad_input import InputError
from ventrix.records.files.small_document import read_object, validated
from ventrix.records.files.whole_file import write_whole
from ventrix.words import tr

VERSION_KEY, VERSION = "ventrix_casting", 1
SUFFIX: Final = ".ventrix-casting.json"
LARGEST: Final = 4_000_000  # bytes
_STRICT: Final = ConfigDict(extra="forbid", allow_inf_nan=False)
_KIND: Final = Field(pattern="^(intake|exhaust)$")
_NAME: Final = Field(max_length=120)
_WALL: Final = Field(gt=0.0, le=100.0)  # mm
_COUNT: Final = Field(ge=1, le=100_000)
MOST: Final = 64  # parameters that ports of a casting share


class WallRow(BaseModel):
    """Walls as cast at a place and side [mm]."""

    model_config = _STRICT
    kind: str = _KIND
    place: str = _NAME
    side: str | None = Field(default=None, max_length=40)
    least_mm: float = _WALL
    median_mm: float = _WALL
    spread_mm: float | None = Field(default=None, ge=0.0, le=100.0)
    count: int = _COUNT


class FaultRow(BaseModel):
    """How often a fault was found at a place."""

    model_config = _STRICT
    kind: str = _NAME
    place: str = _NAME
    count: int = _COUNT


class AsCastRow(BaseModel):
    """A kind of port before anybody worked it."""

    model_config = _STRICT
    kind: str = _KIND
    volume_cc: float | None = Field(default=None, gt=0.0, le=5000.0)
    flow_cfm: float | None = Field(default=None, gt=0.0, le=4000.0)


class SectionRow(BaseModel):
    """A head that was sawn through: the metal by side [mm]."""

    model_config = _STRICT
    kind: str = _KIND
    place: str = _NAME
    walls_mm: dict[str, float] = Field(min_length=1, max_length=12)
    source: str = Field(default="", max_length=200)


class ToldRow(BaseModel):
    """What finished ports tell of the next one, in units of the book's own spread."""

    model_config = _STRICT
    ports: int = _COUNT
    mean: list[float] = Field(max_length=MOST)
    covariance: list[list[float]] = Field(max_length=MOST)
    removal: dict[str, float] = Field(default_factory=dict, max_length=40)
    residual: list[float] = Field(min_length=len(RESIDUAL_AT), max_length=len(RESIDUAL_AT))


class CastingDocument(BaseModel):
    """A casting file; `whose` names the shop, `minutes` are by stage."""

    model_config = _STRICT
    casting: str = Field(min_length=1, max_length=120)
    whose: str = _NAME
    date: str = Field(default="", max_length=40)
    heads: int = Field(ge=0, le=100_000)
    walls: list[WallRow] = Field(default_factory=list, max_length=2000)
    faults: list[FaultRow] = Field(default_factory=list, max_length=2000)
    as_cast: list[AsCastRow] = Field(default_factory=list, max_length=4)
    sections: list[SectionRow] = Field(default_factory=list, max_length=500)
    minutes: dict[str, float] = Field(default_factory=dict, max_length=200)
    told: dict[str, ToldRow] = Field(default_factory=dict, max_length=2)


def casting_document(found: Casting, whose: str, date: str) -> dict[str, Any]:
    """A casting as the document another shop can read."""
    document = CastingDocument(
        casting=found.number,
        whose=whose,
        date=date,
        heads=found.heads,
        walls=[
            WallRow(
                kind=w.kind, place=w.place, side=w.side, least_mm=from_si(w.least, "mm"),
                median_mm=from_si(w.median, "mm"), count=w.count,
                spread_mm=None if w.spread is None else from_si(w.spread, "mm"),
            )
            for w in found.walls
        ],
        faults=[FaultRow(kind=f.kind, place=f.place, count=f.count) for f in found.faults],
        as_cast=[
            AsCastRow(
                kind=a.kind,
                volume_cc=None if a.volume is None else from_si(a.volume, "cc"),
                flow_cfm=None if a.flow is None else from_si(a.flow, "cfm"),
            )
            for a in found.as_cast
        ],
        sections=[
            SectionRow(
                kind=s.kind, place=s.place, source=s.source,
                walls_mm={side: from_si(v, "mm") for side, v in s.walls},
            )
            for s in found.sections
        ],
        minutes={stage: from_si(seconds, "min") for stage, seconds in found.minutes.items()},
        told={
            kind: ToldRow(
                ports=t.ports, mean=t.mean.tolist(), covariance=t.covariance.tolist(), removal=dict(t.removal),
                residual=t.residual.tolist(),
            )
            for kind, t in found.told.items()
        },
    )  # fmt: skip
    return {VERSION_KEY: VERSION} | document.model_dump()


def casting_from(document: object, name: str) -> Casting:
    """A casting from such a document. InputError, naming file and field, where it is none."""
    read = validated(CastingDocument, document, (VERSION_KEY, VERSION), name, tr("casting file"))
    return Casting(
        read.casting.strip(),
        read.heads,
        tuple(
            CastingWall(
                w.kind, w.place, w.side, to_si(w.least_mm, "mm"), to_si(w.median_mm, "mm"),
                None if w.spread_mm is None else to_si(w.spread_mm, "mm"), w.count,
            )
            for w in read.walls
        ),
        tuple(CastingFault(f.kind, f.place, f.count) for f in read.faults),
        tuple(
            AsCast(
                a.kind,
                None if a.volume_cc is None else to_si(a.volume_cc, "cc"),
                None if a.flow_cfm is None else to_si(a.flow_cfm, "cfm"),
            )
            for a in read.as_cast
        ),
        {stage: to_si(minutes, "min") for stage, minutes in read.minutes.items()},
        tuple(
            SawnSection(s.kind, s.place, tuple((side, to_si(v, "mm")) for side, v in s.walls_mm.items()), s.source)
            for s in read.sections
        ),
        read.whose.strip(),
        {kind: _told(row, name, kind, read.whose.strip()) for kind, row in read.told.items()},
    )  # fmt: skip


def _told(row: ToldRow, name: str, kind: str, whose: str) -> CastingPrior:
    mean, covariance = np.array(row.mean), np.array(row.covariance)
    n = len(mean)
    square = covariance.shape == (n, n) and np.allclose(covariance, covariance.T, atol=1e-6)
    if not n or not square or float(np.linalg.eigvalsh(covariance).min()) <= 0:
        raise InputError(tr("is not a covariance of its mean"), file=name, field=f"told.{kind}.covariance")
    return CastingPrior(row.ports, mean, covariance, row.removal, np.array(row.residual), whose)


def read_casting(path: Path) -> Casting:
    """A casting file of another shop. InputError naming file and field where it is none."""
    return casting_from(read_object(path, LARGEST, tr("a casting file")), path.name)


def write_casting(found: Casting, path: Path, whose: str, date: str) -> None:
    """Write a casting for another shop, whole or not at all. InputError where the place cannot be written."""
    write_whole(path, json.dumps(casting_document(found, whose, date), indent=1, ensure_ascii=False) + "\n")


def casting_schema() -> dict[str, Any]:
    """The JSON schema of casting files, as it is published."""
    found = CastingDocument.model_json_schema()
    found["properties"] = {VERSION_KEY: {"const": VERSION}} | found["properties"]
    found["required"] = [VERSION_KEY, *found.get("required", [])]
    return found

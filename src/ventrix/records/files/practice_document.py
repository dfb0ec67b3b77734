"""A practice as a document: which head and seed, and every act in order. It is saved, sent, and played again."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Final

from pydantic import BaseModel, ConfigDict, Field

from ventrix.core.model.bench_kinds import ActKind
from ventrix.core.quantity.units import to_si
from ventrix.records.files.small_document import read_object, validated
from ventrix.records.files.whole_file import write_whole
from ventrix.words import tr

VERSION_KEY, VERSION = "ventrix_practice", 1
LARGEST: Final = 2_000_000  # bytes
DEEPEST: Final = 10.0  # mm of a pass


class PracticeAct(BaseModel):
    """One act: a flow test, a wall reading, a pour, clay, or a pass; `said_cfm` is the gain that was said first,
    `record` the id of what the book kept of it, `port` which of the head's it was done to, from 0."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)
    act: ActKind
    place: str | None = None
    depth_mm: float = Field(default=0.0, ge=0.0, le=DEEPEST)
    said_cfm: float | None = Field(default=None, ge=-500.0, le=500.0)
    area_mm2: float = Field(default=0.0, ge=0.0, le=20_000.0)
    record: str = Field(default="", max_length=200)
    port: int = Field(default=0, ge=0, le=31)

    @property
    def depth(self) -> float:
        """[m]"""
        return to_si(self.depth_mm, "mm")

    @property
    def area(self) -> float:
        """[m2]"""
        return to_si(self.area_mm2, "mm2")

    @property
    def said(self) -> float | None:
        """[m3/s]"""
        return None if self.said_cfm is None else to_si(self.said_cfm, "cfm")


class PracticeDocument(BaseModel):
    """A whole practice; `asked` where its owner was asked what the engine is for, `over` once it was reckoned.
    `live` is what live tests read, by the id of their run: lift [mm] and flow [CFM]."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)
    head: str
    seed: int = Field(ge=0, le=2**31 - 1)
    hours: float | None = Field(default=None, gt=0.0, le=200.0)
    asked: bool = False
    over: bool = False
    live: dict[str, list[tuple[float, float]]] = Field(default_factory=dict, max_length=1000)
    acts: list[PracticeAct] = Field(default_factory=list, max_length=5000)


def read_practice(path: Path) -> PracticeDocument:
    """A practice from its file; InputError naming file and field where it is none."""
    document = read_object(path, LARGEST, tr("a practice"))
    return validated(PracticeDocument, document, (VERSION_KEY, VERSION), path.name, "practice")


def write_practice(practice: PracticeDocument, path: Path) -> None:
    """Write a practice, whole or not at all. InputError where the place cannot be written."""
    text = json.dumps({VERSION_KEY: VERSION} | practice.model_dump(exclude_defaults=True), indent=1) + "\n"
    write_whole(path, text)

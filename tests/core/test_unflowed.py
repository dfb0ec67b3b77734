"""Two cuts that nobody flowed are held against each other by their metal."""

from __future__ import annotations

from dataclasses import replace

import pytest

from ventrix.core.judging.findings import Findings
from ventrix.core.metal.between import MetalChange, metal_between
from ventrix.core.model.cut import Cut, Operation, Port, Pour, WallReading, Work
from ventrix.demo.job import demo_benches, demo_job
from ventrix.reports.results import pair_document, unflowed_pairs
from ventrix.rooms.compare.unflowed import metal_rows
from ventrix.rooms.display_units import US

CAST = Cut(
    id="a",
    number=0,
    throat_diameter=0.040,
    pinch_width=0.026,
    pinch_height=0.040,
    pours=(Pour(id="p", volume=118e-6),),
    walls=(WallReading(id="w", place="bowl", thickness=0.0040, band="left"),),
)
BLENDED = Cut(
    id="b",
    number=1,
    throat_diameter=0.041,
    pours=(Pour(id="q", volume=120e-6),),
    operations=(Operation(id="o", kind="port", works=(Work(id="k", place="bowl", depth=0.0005),), duration=1800.0),),
)
PORT = Port(id="x", name="Intake 9", kind="intake", cuts=(CAST, BLENDED))
JOB = replace(demo_job(), ports=(PORT,))


def by_name() -> dict[str, MetalChange]:
    return {c.name: c for c in metal_between(JOB, PORT, CAST, BLENDED)}


def test_sizes_sections_volume_walls_and_time() -> None:
    """By hand: what was measured at each, carried where it was not; the wall loses what came off it."""
    found = by_name()
    assert (found["throat"].before, found["throat"].after) == (0.040, 0.041)
    assert found["pinch, section"].before == found["pinch, section"].after == pytest.approx(0.026 * 0.040)
    assert (found["poured volume"].before, found["poured volume"].after) == (118e-6, 120e-6)
    had, has = found["wall, bowl"].before, found["wall, bowl"].after
    assert had is not None
    assert has is not None
    assert 0.0036 < had <= 0.0040, "a reading less its doubt"
    assert 0.0005 <= had - has < 0.0008, "what came off, and the doubt of that"
    assert found["time worked between"].after == 1800.0
    assert "bowl" not in found, "what nobody measured is left out"


def test_the_document_has_no_summary_and_says_the_metal() -> None:
    pairs = unflowed_pairs(Findings(JOB))
    assert [(p.before.number, p.after.number) for p in pairs] == [(0, 1)]
    document = pair_document(Findings(JOB), pairs[0])
    assert document["summary"] is None
    assert document["points"] == []
    metal = {m["name"]: m for m in document["metal"]}
    assert metal["poured volume"]["after"] == pytest.approx(120.0)
    assert metal["poured volume"]["unit"] == "cc"
    assert metal["wall, bowl"]["unit"] == "mm"


def test_flowed_ports_are_not_among_the_unflowed() -> None:
    names = {p.port.name for p in unflowed_pairs(Findings(demo_job(), benches=demo_benches()))}
    assert names == {"Intake 4"}


def test_rows_as_they_are_shown() -> None:
    pair = unflowed_pairs(Findings(JOB))[0]
    rows = {r[0]: r[1:] for r in metal_rows(JOB, pair, US)}
    assert rows["poured volume, cc"] == ("118.0", "120.0", "+2.0")
    assert rows["time worked between, min"][1:] == ("30", "")

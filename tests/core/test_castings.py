"""A casting file over simulated heads with core shift: least, median and spread by a generator of the tests' own."""

from __future__ import annotations

import json
from dataclasses import replace
from pathlib import Path

import numpy as np
import pytest

from tests.cli.test_cli import ask, refused
from ventrix.core.castings.casting_file import casting, castings_of
from ventrix.core.judging.findings import Findings
from ventrix.core.matching.copying import Answer, copies
from ventrix.core.model.cut import Cut, Fault, Operation, Port, Pour, WallReading, Work
from ventrix.core.model.job import Job
from ventrix.core.model.job_parts import Head
from ventrix.records.book.book import Book

NUMBER = "T 4411"


def shifted_head(n: int, shift: float) -> Job:
    """A head whose core lies off by a shift [m]: its bowl's right wall thicker by it, its left one thinner."""
    walls = (
        WallReading(id=f"{n}r", place="bowl", band="right", thickness=0.005 + shift),
        WallReading(id=f"{n}l", place="bowl", band="left", thickness=0.005 - shift),
    )
    worked = Operation(id=f"{n}o", kind="burr", works=(Work(id=f"{n}w", place="bowl", depth=0.001),))
    later = WallReading(id=f"{n}x", place="bowl", band="left", thickness=0.001)  # after metal came off: not as cast
    cuts = (
        Cut(id=f"{n}c0", number=0, name="as cast", walls=walls, pours=(Pour(id=f"{n}p", volume=(150 + n) * 1e-6),)),
        Cut(id=f"{n}c1", number=1, name="bowl", operations=(worked,), walls=(later,)),
    )
    fault = Fault(id=f"{n}f", kind="flash", place="roof")
    port = Port(id=f"{n}i", name="Intake 1", kind="intake", head_id=f"{n}h", cuts=cuts, faults=(fault,))
    spelled = NUMBER if n % 2 else NUMBER.lower().replace(" ", "")
    return Job(id=f"job{n}", title=f"Head {n}", heads=(Head(id=f"{n}h", name="head", casting=spelled),), ports=(port,))


SHIFTS = np.array([0.0004, -0.0002, 0.0001, -0.0006, 0.0003, 0.0])
HEADS = [shifted_head(n, s) for n, s in enumerate(SHIFTS)]


def test_walls_of_six_heads_have_their_least_median_and_spread() -> None:
    found = casting("t4411", [Findings(job) for job in HEADS])
    assert found.heads == 6
    by_side = {w.side: w for w in found.walls}
    for side, sign in (("right", 1), ("left", -1)):
        true = 0.005 + sign * SHIFTS
        wall = by_side[side]
        assert wall.count == 6, "what was read after metal came off does not count"
        assert wall.least == pytest.approx(true.min())
        assert wall.median == pytest.approx(np.sort(true)[2:4].mean())
        deviations = true - true.sum() / 6
        assert wall.spread == pytest.approx(np.sqrt((deviations**2).sum() / 5))
    assert [(f.kind, f.place, f.count) for f in found.faults] == [("flash", "roof", 6)]
    assert found.as_cast[0].volume == pytest.approx(152.5e-6)
    assert castings_of(HEADS) == (NUMBER.lower().replace(" ", ""),)


def test_an_unread_wall_of_a_seventh_still_blocks_a_cut() -> None:
    seventh = shifted_head(7, 0.0)
    model = seventh.ports[0]
    bare = replace(model, id="unread", name="Intake 2", cuts=(Cut(id="u", number=0, name="as cast"),))
    job = replace(seventh, ports=(model, bare))
    assert [c.answer for c in copies(job, model, model.cuts[-1], bare)] == [Answer.READ_FIRST]


def test_a_casting_of_no_head_and_one_reading_alone() -> None:
    assert casting("nothing", [Findings(job) for job in HEADS]).heads == 0
    one = casting(NUMBER, [Findings(HEADS[0])])
    assert {w.spread for w in one.walls} == {None}


def test_the_command_holds_its_contract(capsys: pytest.CaptureFixture[str], tmp_path: Path) -> None:
    where = tmp_path / "book.sqlite"
    with Book.open(where) as book:
        for job in HEADS:
            book.add_job(job)
    code, out, _ = ask(capsys, "casting", NUMBER, "--book", str(where), "--json")
    assert code == 0
    told = json.loads(out)
    assert set(told) == {"casting", "heads", "walls", "faults", "as_cast"}
    assert set(told["walls"][0]) == {"kind", "place", "side", "least_mm", "median_mm", "spread_mm", "count"}
    assert told["heads"] == 6
    assert NUMBER.lower().replace(" ", "") in refused(capsys, "casting", "Q1", "--book", str(where))
    code, out, _ = ask(capsys, "casting", "--book", str(where), "--json")
    assert code == 0 and [c["heads"] for c in json.loads(out)] == [6]

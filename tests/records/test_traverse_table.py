"""Air speeds as CSV: the same points come back, and bad input is named by line and field."""

from __future__ import annotations

from itertools import count
from pathlib import Path

import pytest

from ventrix.demo.job import demo_job
from ventrix.records.bad_input import InputError
from ventrix.records.files.traverse_table import COLUMNS, FIRST, read_traverses, write_traverses

CUT = demo_job().ports[0].cuts[2]
HEADER = ",".join(COLUMNS)
GOOD = "pinch,pitot,nine points,12.7,straight,,1,,,standard,centre,0,0,4000,,,,"


def ids() -> object:
    numbers = count()
    return lambda: f"new-{next(numbers)}"


def test_every_traverse_of_the_demo_comes_back(tmp_path: Path) -> None:
    path = tmp_path / "air.csv"
    path.write_text(write_traverses(CUT), encoding="utf-8")
    found = read_traverses(path, ids())
    assert [(t.station, t.kind, t.layout, t.probe, t.date) for t in found] == [
        (t.station, t.kind, t.layout, t.probe, t.date) for t in CUT.traverses
    ]
    for had, has in zip(CUT.traverses, found, strict=True):
        assert has.lift == pytest.approx(had.lift)
        for a, b in zip(had.points, has.points, strict=True):
            assert (a.name, a.struck) == (b.name, b.struck)
            for key in ("u", "v", "reading", "speed", "flow"):
                mine, other = getattr(a, key), getattr(b, key)
                assert other == (None if mine is None else pytest.approx(mine, rel=1e-5, abs=1e-9))
    assert write_traverses(CUT).startswith(FIRST)


@pytest.mark.parametrize(
    ("text", "says", "line"),
    [
        ("", "first line", 1),
        ("lift,reading\n1,2", "first line", 1),
        (f"{FIRST}\nstation,point\n", "header", 2),
        (f"{FIRST}\n{HEADER}\npinch,pitot", "fields", 3),
        (f"{FIRST}\n{HEADER}\n{GOOD}\n{GOOD.replace('4000', 'fast')}", "fast", 4),
        (f"{FIRST}\n{HEADER}\n{GOOD.replace('4000', 'nan')}", "nan", 3),
        (f"{FIRST}\n{HEADER}\n{GOOD.replace('4000', '-40')}", "negative", 3),
        (f"{FIRST}\n{HEADER}\n{GOOD.replace('12.7', '-1')}", "negative", 3),
        (f"{FIRST}\n{HEADER}\n{GOOD.replace('pitot', 'kite')}", "kite", 3),
        (f"{FIRST}\n{HEADER}\n{GOOD.replace('centre,0', 'centre,7')}", "between -1 and 1", 3),
        (f"{FIRST}\n{HEADER}\n{GOOD.replace('straight,,1', 'straight,,-1')}", "negative", 3),
    ],
)
def test_bad_tables_are_named_by_line(tmp_path: Path, text: str, says: str, line: int) -> None:
    path = tmp_path / "air.csv"
    path.write_text(text, encoding="utf-8")
    with pytest.raises(InputError) as caught:
        read_traverses(path, ids())
    assert says in str(caught.value)
    assert caught.value.line == line


def test_a_binary_or_missing_file_has_its_sentence(tmp_path: Path) -> None:
    path = tmp_path / "air.csv"
    path.write_bytes(bytes(range(256)))
    for bad in (path, tmp_path / "none.csv"):
        with pytest.raises(InputError):
            read_traverses(bad, ids())

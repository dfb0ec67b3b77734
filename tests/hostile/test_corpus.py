"""Everything in the corpus is accepted, or refused in one line; nothing else, and nothing takes long to be refused."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path

import pytest
from benchmarks.importers import corpus, readers, run_table

from ventrix.core.quantity.refused import Refused
from ventrix.records.files.run_table import parse_run_table

CORPUS = corpus()


@pytest.fixture(scope="module")
def ways(tmp_path_factory: pytest.TempPathFactory) -> dict[str, Callable[[bytes], object]]:
    return readers(tmp_path_factory.mktemp("ways"))


@pytest.mark.parametrize(("kind", "data"), [pytest.param(k, d, id=f"{k}-{name}") for k, name, d in CORPUS])
def test_it_is_taken_or_refused_in_a_sentence(
    ways: dict[str, Callable[[bytes], object]], kind: str, data: bytes
) -> None:
    try:
        ways[kind](data)
    except Refused as refused:
        said = str(refused)
        assert said.strip()
        assert "\n" not in said and len(said) < 500
        assert "Traceback" not in said and "Error" not in said


@pytest.mark.parametrize(
    ("name", "words"),
    [
        ("drawing/in-em.svg", "mm, in or px"),
        ("drawing/in-percent.svg", "mm, in or px"),
        ("drawing/blocks-in-blocks.dxf", "no closed curve"),
        ("drawing/block-in-itself.dxf", "no closed curve"),
        ("drawing/a-million-of-one-block.dxf", "no closed curve"),
        ("pasted/a-newline.txt", "no table"),
        ("mesh/says-a-billion.stl", "cut short"),
    ],
)
def test_the_old_surprises_are_refused_for_what_they_are(
    ways: dict[str, Callable[[bytes], object]], name: str, words: str
) -> None:
    kind, data = next((k, d) for k, n, d in CORPUS if n == Path(name).name)
    with pytest.raises(Refused, match=words):
        ways[kind](data)


@pytest.mark.parametrize(
    ("key", "value"),
    [("stem_diameter", "400 mm"), ("throat_diameter", "0.001 mm"), ("test_pressure", "1e30 Pa"), ("bore", "1e-30 mm")],
)
def test_a_run_table_whose_sizes_make_no_sense_is_refused_when_it_is_reduced(key: str, value: str) -> None:
    """A stem wider than its throat, and figures that grow over every limit on the way."""
    lines = run_table().split("\n")
    assert any(line.startswith(f"# {key}:") for line in lines)
    changed = "\n".join(f"# {key}: {value}" if line.startswith(f"# {key}:") else line for line in lines)
    with pytest.raises(Refused) as told:
        parse_run_table(changed.encode(), "t.csv").reduce()
    assert "\n" not in str(told.value)

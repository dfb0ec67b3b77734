"""A practice's document: what goes out comes back, and what cannot be is refused with file and field."""

from __future__ import annotations

import json
from pathlib import Path

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from ventrix.core.quantity.units import to_si
from ventrix.records.bad_input import InputError
from ventrix.records.files.practice_document import (
    LARGEST,
    PracticeAct,
    PracticeDocument,
    read_practice,
    write_practice,
)

PLACES = ("opening", "pinch", "guide", "short side", "bowl", "throat")
acts = st.builds(
    PracticeAct,
    act=st.sampled_from(("flow", "live", "wall", "cut", "pour", "clay")),
    place=st.none() | st.sampled_from(PLACES),
    depth_mm=st.floats(0, 10),
    said_cfm=st.none() | st.floats(-500, 500),
    area_mm2=st.floats(0, 20_000),
    record=st.text(max_size=40),
)
documents = st.builds(
    PracticeDocument,
    head=st.text(max_size=40),
    seed=st.integers(0, 2**31 - 1),
    hours=st.none() | st.floats(0.1, 200),
    asked=st.booleans(),
    over=st.booleans(),
    live=st.dictionaries(
        st.text(max_size=20), st.lists(st.tuples(st.floats(0, 50), st.floats(0, 900)), max_size=4), max_size=3
    ),
    acts=st.lists(acts, max_size=6),
)


@settings(max_examples=60, deadline=None)
@given(document=documents)
def test_what_goes_out_comes_back(document: PracticeDocument, tmp_path_factory: pytest.TempPathFactory) -> None:
    path = tmp_path_factory.mktemp("out") / "a.json"
    try:
        write_practice(document, path)
    except (InputError, UnicodeEncodeError):
        return  # lone surrogates are no text
    assert read_practice(path) == document


def test_figures_are_taken_in_si() -> None:
    act = PracticeAct(act="cut", place="bowl", depth_mm=0.5, said_cfm=2.0, area_mm2=80.0)
    assert act.depth == pytest.approx(0.5e-3)
    assert act.said == pytest.approx(to_si(2.0, "cfm"))
    assert act.area == pytest.approx(80e-6)
    assert PracticeAct(act="flow").said is None


def written(tmp_path: Path, **changed: object) -> Path:
    path = tmp_path / "practice.json"
    path.write_text(json.dumps({"ventrix_practice": 1, "head": "a", "seed": 1} | changed), encoding="utf-8")
    return path


@pytest.mark.parametrize(
    ("changed", "field"),
    [
        ({"ventrix_practice": 2}, "ventrix_practice"),
        ({"seed": -1}, "seed"),
        ({"seed": 2**31}, "seed"),
        ({"seed": "one"}, "seed"),
        ({"hours": 0}, "hours"),
        ({"hours": 1e9}, "hours"),
        ({"head": 5}, "head"),
        ({"truth": {}}, "truth"),
        ({"acts": {}}, "acts"),
        ({"acts": [{}]}, "acts.0.act"),
        ({"acts": [{"act": "flow"}, {"act": "undo"}]}, "acts.1.act"),
        ({"acts": [{"act": "cut", "depth_mm": -0.1}]}, "acts.0.depth_mm"),
        ({"acts": [{"act": "cut", "depth_mm": "deep"}]}, "acts.0.depth_mm"),
        ({"acts": [{"act": "cut", "said_cfm": 501}]}, "acts.0.said_cfm"),
        ({"acts": [{"act": "clay", "area_mm2": 1e6}]}, "acts.0.area_mm2"),
        ({"acts": [{"act": "flow", "record": "x" * 201}]}, "acts.0.record"),
        ({"acts": [{"act": "flow", "gain": 5}]}, "acts.0.gain"),
        ({"acts": [{"act": "flow"}] * 5001}, "acts"),
        ({"live": {"r": [[1]]}}, "live.r.0"),
        ({"live": {"r": [["a", 2]]}}, "live.r.0.0"),
    ],
)
def test_what_cannot_be_is_refused_by_its_field(tmp_path: Path, changed: dict[str, object], field: str) -> None:
    with pytest.raises(InputError) as refused:
        read_practice(written(tmp_path, **changed))
    assert field in str(refused.value)
    assert "practice.json" in str(refused.value)


@pytest.mark.parametrize("text", ["", "{", "null", "[]", "1", '"x"', "\x00\x01", "[" * 5000])
def test_what_is_no_document_is_said(tmp_path: Path, text: str) -> None:
    path = tmp_path / "practice.json"
    path.write_text(text, encoding="utf-8")
    with pytest.raises(InputError, match=r"practice\.json"):
        read_practice(path)


@pytest.mark.parametrize("number", ["NaN", "Infinity", "-Infinity", "1e999"])
def test_no_figure_is_endless(tmp_path: Path, number: str) -> None:
    path = tmp_path / "practice.json"
    acts = f'[{{"act": "cut", "place": "bowl", "depth_mm": {number}}}]'
    path.write_text(f'{{"ventrix_practice": 1, "head": "a", "seed": 1, "acts": {acts}}}', encoding="utf-8")
    with pytest.raises(InputError):
        read_practice(path)


def test_a_file_too_large_or_gone_is_said(tmp_path: Path) -> None:
    with pytest.raises(InputError):
        read_practice(tmp_path / "gone.json")
    large = tmp_path / "large.json"
    with large.open("wb") as file:
        file.truncate(LARGEST + 1)
    with pytest.raises(InputError):
        read_practice(large)

"""`ventrix engine` to its contract."""

from __future__ import annotations

import json
from dataclasses import replace
from pathlib import Path

import pytest

from tests.cli.test_cli import ask, refused
from ventrix.core.quantity.units import to_si
from ventrix.demo.job import demo_benches, demo_job
from ventrix.records.files.job_document import write_job

KEYS = {"speeds_rpm", "filling", "filling_before", "low", "high", "residual", "limit_rpm", "mach_index", "choke_rpm",
        "least_section_cm2", "difference", "difference_low", "difference_high"}  # fmt: skip


@pytest.fixture
def document(tmp_path: Path) -> Path:
    path = tmp_path / "job.json"
    timed = replace(demo_job(), intake_centreline=to_si(108, "deg"), exhaust_centreline=to_si(112, "deg"))
    write_job(timed, path, benches=demo_benches())
    return path


def test_the_contract(capsys: pytest.CaptureFixture[str], document: Path) -> None:
    code, out, _ = ask(capsys, "engine", document, "--cut", "2", "--against", "0", "--json")
    found = json.loads(out)
    assert code == 0
    assert set(found) >= KEYS
    assert (found["before"], found["after"]) == (0, 2)
    for key in ("filling", "filling_before", "low", "high", "residual", "mach_index", "difference"):
        assert len(found[key]) == len(found["speeds_rpm"]) == 12, key
    for low, value, high in zip(found["low"], found["filling"], found["high"], strict=True):
        assert low <= value <= high


def test_no_absolute_figure_without_timing(capsys: pytest.CaptureFixture[str], tmp_path: Path) -> None:
    path = tmp_path / "job.json"
    write_job(replace(demo_job(), intake_centreline=None, exhaust_centreline=None), path, benches=demo_benches())
    _, out, _ = ask(capsys, "engine", path, "--json")
    found = json.loads(out)
    assert found["filling"] is None
    assert found["low"] is None
    assert found["difference"] is not None
    assert found["missing"] == ["intake centerline", "exhaust centerline"]
    code, out, _ = ask(capsys, "engine", path)
    assert code == 0
    assert "No absolute volumetric efficiency: intake centerline and exhaust centerline not given (Head)." in out


@pytest.mark.parametrize(
    ("args", "words"),
    [
        (("--cut", "9"), "Intake 1 has no cut 9: it has 0, 1, 2, 3"),
        (("--port", "Exhaust 1"), "is an exhaust"),
        (("--port", "Intake 4"), "Intake 4 was not flowed"),
        (("--port", "none"), "'none' is not one of"),
    ],
)
def test_what_it_refuses(capsys: pytest.CaptureFixture[str], document: Path, args: tuple[str, ...], words: str) -> None:
    assert words in refused(capsys, "engine", document, *args)

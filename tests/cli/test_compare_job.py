"""`ventrix compare JOB.json`, and a command line on which nothing works: sentences and exit codes."""

from __future__ import annotations

import itertools
import json
import subprocess
import sys
from dataclasses import replace
from pathlib import Path

import pytest

from tests.cli.test_cli import ask, refused
from ventrix.demo.job import demo_benches, demo_job
from ventrix.records.files.job_document import write_job


@pytest.fixture
def job_file(tmp_path: Path) -> Path:
    path = tmp_path / "job.json"
    write_job(demo_job(), path, demo_benches())
    return path


def test_a_whole_job_is_judged_cut_by_cut_and_as_a_whole(
    capsys: pytest.CaptureFixture[str], job_file: Path, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    code, out, _ = ask(capsys, "compare", job_file, "--json")
    pairs = json.loads(out)["pairs"]
    assert code == 0
    assert set(pairs[0]) >= {"port", "before", "after", "comparable", "differences", "points", "summary", "verdict"}
    for port in demo_job().ports:
        flowed = [c.number for c in port.cuts if c.runs]
        if not flowed:  # held by the metal alone, each against the one before
            unflowed = [p for p in pairs if p["port"] == port.name]
            assert [p["after"] for p in unflowed] == [c.number for c in port.cuts[1:]]
            assert all(p["summary"] is None and p["metal"] for p in unflowed)
            continue
        mine = [(p["before"], p["after"]) for p in pairs if p["port"] == port.name]
        steps = list(itertools.pairwise(flowed))
        whole = [(flowed[0], flowed[-1])] if len(flowed) > 2 else []
        assert mine == steps + whole
    _, text, _ = ask(capsys, "compare", job_file)
    assert all(p["verdict"].split(".")[0] in text for p in pairs)
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path / "empty"))
    assert ask(capsys, "compare", job_file, "--json")[1] == out  # an empty home knows no bench of its own


def test_the_benches_that_came_along_are_what_the_verdict_stands_on(
    capsys: pytest.CaptureFixture[str], tmp_path: Path
) -> None:
    """A bench whose dial is 20 times as coarse leaves every lift with more doubt."""
    doubts = []
    for dial in (0.0127e-3, 0.254e-3):
        path = tmp_path / f"{dial}.json"
        write_job(demo_job(), path, tuple(replace(b, dial_resolution=dial) for b in demo_benches()))
        pairs = json.loads(ask(capsys, "compare", path, "--json")[1])["pairs"]
        doubts.append([p["expanded_uncertainty_cfm"] for p in pairs[0]["points"][:4]])
    assert all(coarse > fine for fine, coarse in zip(*doubts, strict=True))


def test_options_that_do_not_go_with_a_job(capsys: pytest.CaptureFixture[str], job_file: Path, tmp_path: Path) -> None:
    bad = tmp_path / "bad.json"
    bad.write_text("{", encoding="utf-8")
    assert "bad.json, line 1" in refused(capsys, "compare", bad)
    assert "no such file" in refused(capsys, "compare", tmp_path / "none.json")


def run(*args: str, out: str | None = None) -> subprocess.CompletedProcess[str]:
    with open(out or "/dev/null", "w", encoding="utf-8") as stdout:
        return subprocess.run(
            [sys.executable, "-m", "ventrix", *args],
            stdout=stdout,
            stderr=subprocess.PIPE,
            text=True,
            check=False,
            timeout=60,
        )


def test_a_full_standard_output_is_a_sentence() -> None:
    done = run("calc", "curtain_area", "lift=0.5", "valve_diameter=2", out="/dev/full")
    assert done.returncode == 2
    assert done.stderr.count("\n") == 1
    assert "space" in done.stderr


@pytest.mark.parametrize("seed", ["-1", "x", "9" * 5000])
def test_a_seed_that_is_none(seed: str) -> None:
    done = run("simbench", "--seed", seed)
    assert done.returncode == 2
    assert "seed" in done.stderr
    assert "Traceback" not in done.stderr
    assert "Exceeds" not in done.stderr

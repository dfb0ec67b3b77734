"""`ventrix match`: the contract's keys, on the demo's whole head and on what nobody measured."""

from __future__ import annotations

import json
from dataclasses import replace
from datetime import date
from pathlib import Path

import pytest

from tests.cli.test_plan_command import ask, refused
from ventrix.demo.job import demo_benches
from ventrix.demo.whole_head import whole_head
from ventrix.records.files.job_document import write_job
from ventrix.workspace.new_job import new_head


@pytest.fixture
def document(tmp_path: Path) -> Path:
    path = tmp_path / "job.json"
    write_job(whole_head(date.today()), path, benches=demo_benches())
    return path


def test_the_contract(capsys: pytest.CaptureFixture[str], document: Path) -> None:
    code, out, _ = ask(capsys, "match", document, "--json")
    found = json.loads(out)
    assert code == 0
    assert set(found) >= {"ports", "spread", "hours", "copy"}
    assert set(found["hours"]) >= {"used", "low", "likely", "high"}
    assert found["hours"]["low"] <= found["hours"]["likely"] <= found["hours"]["high"]
    for port in found["ports"]:
        assert set(port) >= {"name", "volume_cc", "flow_cfm", "differs", "stages"}
        assert set(port["stages"].values()) <= {"done", "running", "waiting", "open"}
    assert [p["name"] for p in found["ports"] if p["differs"]] == ["Intake 3"]
    assert found["ports"][2]["differs"] == ["volume", "flow at 11.43 mm"]
    for copy in found["copy"]:
        assert set(copy) >= {"port", "place", "depth_mm", "answer", "sentence"}
        assert copy["answer"] in ("whole", "part", "no", "read first")
    assert {s["figure"] for s in found["spread"]["intake"]} == {"volume", "flow at 11.43 mm"}


def test_in_lines(capsys: pytest.CaptureFixture[str], document: Path) -> None:
    code, out, _ = ask(capsys, "match", document)
    assert code == 0
    assert "Intake 3" in out
    assert "volume, flow at 11.43 mm" in out
    assert "h to go." in out
    assert "Chance of meeting" in out


def test_a_head_that_nobody_measured(capsys: pytest.CaptureFixture[str], tmp_path: Path) -> None:
    path = tmp_path / "bare.json"
    write_job(replace(new_head("bare", 4, 4), promise_date=None), path)
    _, out, _ = ask(capsys, "match", path, "--json")
    found = json.loads(out)
    assert len(found["ports"]) == 8
    assert found["copy"] == []
    assert found["hours"]["used"] == 0
    assert not any(p["developed"] or p["differs"] for p in found["ports"])
    assert "lies" not in refused(capsys, "match", tmp_path / "none.json")

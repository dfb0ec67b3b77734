"""`ventrix plan` to its contract, as a stranger uses it."""

from __future__ import annotations

import json
from dataclasses import replace
from pathlib import Path
from typing import Any

import pytest

from tests.cli.test_cli import ask, refused
from ventrix.demo.job import demo_benches, demo_job
from ventrix.records.files.job_document import write_job


@pytest.fixture
def document(tmp_path: Path) -> Path:
    path = tmp_path / "job.json"
    write_job(demo_job(), path, benches=demo_benches())
    return path


def planned(capsys: pytest.CaptureFixture[str], *args: str | Path) -> dict:  # type: ignore[type-arg]
    code, out, _ = ask(capsys, "plan", *args, "--json")
    assert code == 0
    return json.loads(out)  # type: ignore[no-any-return]


def test_the_contract(capsys: pytest.CaptureFixture[str], document: Path) -> None:
    found = planned(capsys, document)
    assert set(found) >= {"limits", "candidates", "stop"}
    assert set(found["stop"]) == {"now", "reason"}
    assert len(found["limits"]) == 12
    for at in found["limits"]:
        assert sum(p["share"] for p in at["places"].values()) == pytest.approx(1)
        assert {p["from"] for p in at["places"].values()} <= {"data", "prior"}
    wanted = {"place", "side", "depth_mm", "kind", "gain_percent", "gain_cfm", "low_cfm", "high_cfm", "points",
              "minutes", "volume_cc", "gain_per_hour", "blocked_by", "sentence"}  # fmt: skip
    for move in found["candidates"]:
        assert set(move) >= wanted
        assert move["kind"] in ("cut", "seat", "valve", "entry", "clay", "wall", "mount", "batch")
        if move["kind"] == "cut":
            assert [set(p) for p in move["points"]] == [{"lift_mm", "gain_cfm", "low_cfm", "high_cfm"}] * 12
    rates = [m["gain_per_hour"] for m in found["candidates"] if not m["blocked_by"]]
    assert rates == sorted(rates, reverse=True)


def test_these_moves_only(capsys: pytest.CaptureFixture[str], document: Path) -> None:
    found = planned(
        capsys, document, "--port", "intake 1", "--what", "bowl:0.5mm", "--what", "short side/floor:0.010in"
    )
    assert [(m["place"], m["side"], round(m["depth_mm"], 3)) for m in found["candidates"]] == [
        ("bowl", None, 0.5),
        ("short side", "floor", 0.254),
    ]


def test_a_port_never_flowed_is_told_as_such(capsys: pytest.CaptureFixture[str], document: Path) -> None:
    found = planned(capsys, document, "--port", "Intake 4")
    assert found["flowed"] is False
    assert {p["from"] for at in found["limits"] for p in at["places"].values()} == {"prior"}


def test_as_text(capsys: pytest.CaptureFixture[str], document: Path) -> None:
    code, out, _ = ask(capsys, "plan", document)
    assert code == 0
    assert out.startswith(("Go on: ", "Stop: "))
    assert "What limits at 0.600 in:" in out


@pytest.mark.parametrize(
    ("args", "words"),
    [
        (("--port", "Intake 9"), "'Intake 9' is not one of Intake 1"),
        (("--what", "bowl"), "'bowl' is not PLACE:DEPTH"),
        (("--what", "moon:0.5mm"), "'moon:0.5mm' is not PLACE:DEPTH with a place of entry"),
        (("--what", "bowl/up:1mm"), "'up' is not a side (left, roof, right, floor) and not hours as 4-8"),
        (("--what", "bowl/4-13:1mm"), "not hours"),
        (("--what", "bowl:deep"), "deep"),
        (("--what", "bowl:-1mm"), "at most 10 mm"),
        (("--what", "bowl:2in"), "at most 10 mm"),
    ],
)
def test_what_it_refuses(capsys: pytest.CaptureFixture[str], document: Path, args: tuple[str, ...], words: str) -> None:
    assert words in refused(capsys, "plan", document, *args)


def test_a_job_without_ports_or_valves(capsys: pytest.CaptureFixture[str], tmp_path: Path) -> None:
    bare = tmp_path / "bare.json"
    write_job(replace(demo_job(), ports=()), bare)
    assert "bare.json: a job needs a port" in refused(capsys, "plan", bare)
    job = demo_job()
    unmeasured = tmp_path / "unmeasured.json"
    write_job(replace(job, valves=tuple(replace(v, head_diameter=None) for v in job.valves)), unmeasured)
    said = refused(capsys, "plan", unmeasured)
    assert "unmeasured.json" in said
    assert "valve" in said


def test_the_route_of_a_job_and_of_one_port(capsys: pytest.CaptureFixture[str], document: Path) -> None:
    code, out, _ = ask(capsys, "route", document, "--json")
    assert code == 0
    assert len(json.loads(out)) == 17 * 4
    code, out, _ = ask(capsys, "route", document, "--port", "intake 4", "--json")
    cards = json.loads(out)
    assert {c["port"] for c in cards} == {"Intake 4"}
    assert isinstance(cards[0]["done"], bool)
    code, out, _ = ask(capsys, "route", document)
    assert code == 0
    assert out.count("\n> ") == 1, "one card is the next"
    assert "is not one of" in refused(capsys, "route", document, "--port", "Intake 12")


def told(capsys: pytest.CaptureFixture[str], *args: str | Path) -> Any:
    code, out, _ = ask(capsys, *args, "--json")
    assert code == 0
    return json.loads(out)


def test_work_tells_the_record_what_is_next_and_the_hours(capsys: pytest.CaptureFixture[str], document: Path) -> None:
    found = told(capsys, "work", document)
    assert {"stages", "next", "hours"} <= set(found)
    assert set(found["stages"][0]) == {"stage", "unit", "of", "state", "missing", "minutes", "closed_by"}
    assert set(found["next"][0]) == {
        "what", "kind", "port", "place", "minutes", "worth_cfm", "an_hour", "waits_for", "sentence",
    }  # fmt: skip
    assert found["next"][0]["waits_for"] == []
    assert {i["kind"] for i in found["next"]} <= {
        "look", "cut", "copy", "fault", "seat", "valve", "part", "outside", "finish",
    }  # fmt: skip
    assert found["hours"]["low"] < found["hours"]["likely"] < found["hours"]["high"]
    short = told(capsys, "work", document, "--hours", "1")["next"]
    assert short and sum(i["minutes"] for i in short) <= 60
    route = told(capsys, "route", document)
    walls = {s["of"]: s["state"] == "done" for s in found["stages"] if s["stage"] == "walls"}
    assert {c["port"]: c["done"] for c in route if c["stage"] == "walls"} == walls


def test_no_evening_has_no_hours(capsys: pytest.CaptureFixture[str], document: Path) -> None:
    assert "more than 0 hours" in refused(capsys, "work", document, "--hours", "0")

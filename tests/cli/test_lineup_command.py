"""`ventrix lineup`: the contract's keys, faces in the handier ways they may be written, and what it refuses."""

from __future__ import annotations

import json
from pathlib import Path

import pytest

from tests.cli.test_plan_command import ask, refused
from ventrix.records.files.job_document import dumps_job, read_document


def document(tmp_path: Path, **other: object) -> Path:
    """Faces without ids, one corner as a number, points as pairs."""
    ports = [
        {"id": f"p{n}", "name": f"Intake {n}", "kind": "intake", "cuts": [{"id": f"c{n}", "number": 0}]} for n in (1, 2)
    ]
    head = {
        "name": "head",
        "part": "head",
        "outlines": [
            {"port": "Intake 1", "shape": "rectangle", "centre_mm": [-50, 0.6], "width_mm": 30, "height_mm": 40,
             "corner_mm": 6},
            {"port": "Intake 2", "shape": "polygon", "points_mm": [[35, -20], [65, -20], [65, 20], [35, 20]]},
        ],
        "bolts": [{"name": "A", "at_mm": [-100, 0]}, {"name": "B", "at_mm": [100, 0]}],
    }  # fmt: skip
    manifold = {
        "name": "own manifold",
        "part": "manifold",
        "outlines": [
            {"port": f"Intake {n}", "shape": "rectangle", "centre_mm": [x, 0], "width_mm": 30, "height_mm": 40,
             "corner_mm": [6, 6, 6, 6]}
            for n, x in ((1, -50), (2, 50))
        ],
        "bolts": head["bolts"],
    }  # fmt: skip
    found = {"ventrix_job": 2, "id": "j", "title": "j", "ports": ports, "faces": [head, manifold | other]}
    path = tmp_path / "job.json"
    path.write_text(json.dumps(found), encoding="utf-8")
    return path


def test_the_contract(capsys: pytest.CaptureFixture[str], tmp_path: Path) -> None:
    path = document(tmp_path)
    code, out, _ = ask(capsys, "lineup", path, "--json")
    found = json.loads(out)
    assert code == 0
    assert set(found) >= {"fit", "edges", "area_ratio", "proposals"}
    assert set(found["fit"]) >= {"shift_mm", "rotation_deg", "residual_mm"}
    assert found["fit"]["residual_mm"]["Intake 1"] == pytest.approx([0, 0.6], abs=1e-6)
    assert found["fit"]["residual_mm"]["Intake 2"] == pytest.approx([0, 0], abs=1e-6)
    edges = {(e["port"], e["edge"]): e for e in found["edges"]}
    assert set(edges["Intake 1", "floor"]) >= {"port", "edge", "step_mm", "faces_air", "land_mm"}
    assert edges["Intake 1", "floor"]["faces_air"]
    assert edges["Intake 1", "floor"]["step_mm"] == pytest.approx(0.6)
    assert not edges["Intake 2", "left"]["faces_air"]
    assert [p["port"] for p in found["proposals"]] == ["Intake 1"]
    assert found["proposals"][0]["take_off_mm"] == pytest.approx(0.6)


def test_in_lines_by_name_and_round_again(capsys: pytest.CaptureFixture[str], tmp_path: Path) -> None:
    path = document(tmp_path)
    code, out, _ = ask(capsys, "lineup", path, "--face", "OWN manifold")
    assert code == 0
    assert "own manifold on head, by bolts" in out
    assert "Intake 1, floor: 0.60 mm, faces the air" in out
    job, _ = read_document(path)
    assert job.faces[0].outlines[1].points[:2] == pytest.approx((0.035, -0.020))
    again = tmp_path / "again.json"
    again.write_text(dumps_job(job), encoding="utf-8")
    assert read_document(again)[0].faces == job.faces


@pytest.mark.parametrize(("args", "words"), [(("--face", "none"), "'none' is not one of head, own manifold"), ((), "")])
def test_what_it_refuses(capsys: pytest.CaptureFixture[str], tmp_path: Path, args: tuple[str, ...], words: str) -> None:
    path = document(tmp_path, **({} if args else {"outlines": []}))
    said = refused(capsys, "lineup", path, *args) if args else ask(capsys, "lineup", path)[1]
    assert words in said

"""The command line as a stranger uses it: whole processes where exit codes count, in-process where JSON does."""

from __future__ import annotations

import contextlib
import json
import math
import re
import subprocess
import sys
from collections.abc import Callable
from importlib import import_module
from pathlib import Path

import pytest

from ventrix.cli.app import app
from ventrix.cli.main import COMMANDS, main
from ventrix.core.calculators.answer import calculate, registry
from ventrix.core.quantity.words import sentence
from ventrix.demo.job import demo_job
from ventrix.records.files.job_document import write_job

ROWS = "1,31.2\n2,62.0\n3,90.1\n4,115\n5,140\n6,160\n7,175\n8,185\n9,190\n10,192"


def ask(capsys: pytest.CaptureFixture[str], *args: str | Path) -> tuple[int, str, str]:
    with pytest.raises(SystemExit) as left:
        main([str(a) for a in args])
    out, err = capsys.readouterr()
    return int(left.value.code or 0), out, err


def refused(capsys: pytest.CaptureFixture[str], *args: str | Path) -> str:
    code, out, err = ask(capsys, *args)
    assert code == 2
    assert out == ""
    assert err.count("\n") == 1
    assert "Traceback" not in err
    return err


# -- calc


@pytest.mark.parametrize(
    ("line", "name", "value", "unit", "within"),
    [
        # Values and sources as in the formula book; digits are its own.
        ("air_density temperature=20 pressure=1013.25 humidity=50", "density", 1.1993, "kg/m3", 5e-5),
        ("speed_of_sound temperature=15degC", "speed", 340.3, "m/s", 0.05),
        ("ideal_velocity pressure_drop=28", "velocity", 350, "ft/s", 0.5),
        ("ideal_flux pressure_drop=28inH2O", "flux", 145.9, "cfm/in2", 0.05),
        ("convert_pressure flow=100 measured_at=10", "flow", 167.33, "cfm", 0.005),
        ("convert_pressure flow=100 measured_at=10", "compressible_flow", 164.32, "cfm", 0.005),
        ("convert_pressure flow=100 measured_at=10", "doubt", 0.647, "%", 0.001),
        ("convert_pressure flow=100 measured_at=25", "flow", 105.83, "cfm", 0.005),
        ("range_flow percent=73% range=300", "flow", 219, "cfm", 1e-9),
        ("leak_correct flow=100 leak=0.8", "flow", 99.2, "cfm", 1e-9),
        ("curtain_area valve_diameter=2 lift=0.5", "area", 3.14159, "in2", 1e-5),
        ("lift_ratio lift=0.5 valve_diameter=2", "ratio", 0.25, "-", 1e-12),
        ("throat_percent valve_diameter=2.02 throat_diameter=1.77", "percent", 87.6, "%", 0.05),
        ("change before=181 after=208.9", "percent", 15.4, "%", 0.05),
        ("change before=0.502 after=0.343", "percent", -32, "%", 0.5),
        # a stack of head, gasket and deck, typed as it is added up; by hand, a = 45 and e = 0: as deep as the deck
        ("intake_face face_angle=0 deck_cut=0.030+0.020+0.005", "face_cut", 0.055, "in", 1e-9),
        ("throat_area throat_diameter=1.77", "area", 2.46, "in2", 0.005),
        ("centreline_length floor_length=3.7 roof_length=5.64", "length", 4.67, "in", 1e-9),
        ("section_area width=1.12 height=2.01", "area", 2.25, "in2", 0.005),
        ("break_even_flow flow=300 volume_before=200 volume_after=205", "flow", 307.5, "cfm", 1e-9),
        ("hole_wall hole_spacing=1.29 port_width=1.14", "wall", 0.075, "in", 1e-9),
        ("mean_section volume=16.387064 length=1in", "area", 1.0, "in2", 1e-9),
        ("station_velocity flow=60 area=144", "velocity", 1.0, "ft/s", 1e-9),
        ("cam_weighted lifts=0.2,0.4 flows=50,100 duration=220 peak_lift=0.4", "mean_flow", 50, "cfm", 1e-6),
    ],
)
def test_calculators_answer(
    capsys: pytest.CaptureFixture[str], line: str, name: str, value: float, unit: str, within: float
) -> None:
    code, out, _ = ask(capsys, "calc", *line.split(), "--json")
    answer = json.loads(out)
    assert code == 0
    assert set(answer) == {"id", "inputs", "outputs", "notes"}
    assert answer["outputs"][name]["value"] == pytest.approx(value, abs=within)
    assert answer["outputs"][name]["unit"] == unit


def test_discharge_coefficient_of_an_ideal_opening(capsys: pytest.CaptureFixture[str]) -> None:
    # formula book: 140.4 CFM/in2 isentropic and 145.9 incompressible at 28 inH2O, so Cd is one
    for model, flow in (("isentropic", "140.4"), ("incompressible", "145.9")):
        _, out, _ = ask(capsys, "calc", "discharge_coefficient", f"flow={flow}", "area=1", f"model={model}", "--json")
        assert json.loads(out)["outputs"]["cd"]["value"] == pytest.approx(1.0, abs=1e-3)


def test_stage_is_named(capsys: pytest.CaptureFixture[str]) -> None:
    line = "valve_flow_area valve_diameter=41mm seat_width=1.5mm throat_diameter=36mm stem_diameter=7mm lift=5mm"
    _, out, _ = ask(capsys, "calc", *line.split())
    assert "stage = 2" in out
    assert "curtain" in out


def test_every_calculator_is_listed(capsys: pytest.CaptureFixture[str]) -> None:
    _, out, _ = ask(capsys, "calc", "--list")
    listed = {line.split(":")[0] for line in out.splitlines()}
    assert listed == set(registry())


@pytest.mark.parametrize(
    ("line", "words"),
    [
        ("", "which calculator"),
        ("curtain_aria lift=1", "did you mean curtain_area"),
        ("curtain_area lift=1", "valve_diameter: is missing"),
        ("curtain_area lift=1 lift=2 valve_diameter=2", "lift: given twice"),
        ("curtain_area lift=1 valve_diameter=2 bore=3", "no input 'bore'"),
        ("curtain_area 1 2", "not name=value"),
        ("curtain_area lift=nan valve_diameter=2", "'nan' is not a number"),
        ("curtain_area lift=inf valve_diameter=2", "'inf' is not a number"),
        ("curtain_area lift=1e999 valve_diameter=2", "too large"),
        ("curtain_area lift=5parsec valve_diameter=2", "no unit 'parsec'"),
        ("curtain_area lift=5cfm valve_diameter=2", "a length is needed"),
        ("curtain_area lift=-1 valve_diameter=2", "negative"),
        ("throat_area throat_diameter=1 stem_diameter=2", "stem must be smaller"),
        ("discharge_coefficient flow=100 area=1 model=magic", "not one of isentropic"),
        ("cam_weighted lifts=1,2 flows=3 duration=220 peak_lift=0.5", "2 lifts and 1 flows"),
        ("--bogus", "bogus"),
    ],
)
def test_calc_says_what_is_wrong(capsys: pytest.CaptureFixture[str], line: str, words: str) -> None:
    assert words in refused(capsys, "calc", *line.split())


# -- reduce and compare


def test_reduce_to_the_contract(capsys: pytest.CaptureFixture[str], write_table: Callable[..., Path]) -> None:
    path = write_table(
        "a.csv", ROWS, leak="0.3 cfm", valve_diameter="41 mm", port_volume="118 cc", port_length="104 mm"
    )
    _, out, _ = ask(capsys, "reduce", path, "--json")
    document = json.loads(out)
    assert set(document) == {"conditions", "points", "peak", "stall_lift_mm", "flags"}
    point = document["points"][0]
    assert set(point) == {
        "lift_mm", "flow_cfm", "u_cfm", "lift_ratio", "cd_curtain", "cd_valve", "cd_least", "mean_velocity_ft_s",
        "energy_density_J_m3",
    }  # fmt: skip
    assert point["flow_cfm"] == pytest.approx(30.9)  # 31.2 less the leak of 0.3, both at 28 inH2O
    assert point["lift_ratio"] == pytest.approx(1 / 41)
    assert point["cd_least"] is None  # no seat was measured
    assert document["peak"] == {"lift_mm": 10, "flow_cfm": pytest.approx(191.7)}
    assert document["conditions"]["bore_mm"] == pytest.approx(89)


def test_leak_and_pressure_point_by_point(capsys: pytest.CaptureFixture[str], write_table: Callable[..., Path]) -> None:
    # By hand: at 25 inH2O the leak of 1 is sqrt(25/28); what is left goes to 28 by 1.05504, nozzle and plate
    path = write_table("a.csv", "5,100,25", "lift_mm,reading_cfm,measured_pressure_inH2O", leak="1 cfm")
    _, out, _ = ask(capsys, "reduce", path, "--json")
    by_hand = (100 - (25 / 28) ** 0.5) * 1.05504
    document = json.loads(out)
    assert document["points"][0]["flow_cfm"] == pytest.approx(by_hand, rel=1e-4)
    assert any("over 3 %" in flag for flag in document["flags"])


def test_struck_rows_are_kept_and_not_counted(
    capsys: pytest.CaptureFixture[str], write_table: Callable[..., Path]
) -> None:
    path = write_table("a.csv", "5,100,\n5,102\n5,150,struck: hand slipped", "lift_mm,reading_cfm,note")
    _, out, _ = ask(capsys, "reduce", path, "--json")
    document = json.loads(out)
    assert document["points"][0]["flow_cfm"] == pytest.approx(101)
    assert any("struck" in flag for flag in document["flags"])


@pytest.mark.parametrize(
    ("columns", "rows", "expected"),
    [
        ("lift_in,reading_l_s", "0.2,47.19474432", 100.0),
        ("lift_mm,reading_percent,range_cfm", "5,50,200", 100.0),
        ("lift_mm,reading_m3_h", "5,169.9010795520", 100.0),
    ],
)
def test_other_readings(
    capsys: pytest.CaptureFixture[str], write_table: Callable[..., Path], columns: str, rows: str, expected: float
) -> None:
    _, out, _ = ask(capsys, "reduce", write_table("a.csv", rows, columns), "--json")
    assert json.loads(out)["points"][0]["flow_cfm"] == pytest.approx(expected)


def test_water_columns_give_an_index(capsys: pytest.CaptureFixture[str], write_table: Callable[..., Path]) -> None:
    path = write_table("a.csv", "5,40,160", "lift_mm,element_mm,port_mm")
    _, out, _ = ask(capsys, "reduce", path, "--json")
    point = json.loads(out)["points"][0]
    assert point["index"] == pytest.approx(0.5)
    assert "flow_cfm" not in point
    assert point["cd_valve"] is None
    code, out, _ = ask(capsys, "compare", path, path, "--json")
    assert code == 0
    assert "difference_index" in json.loads(out)["points"][0]


def test_compare_to_the_contract(capsys: pytest.CaptureFixture[str], write_table: Callable[..., Path]) -> None:
    before = write_table("before.csv", ROWS)
    gained = "\n".join(f"{a},{float(b) * 1.06}" for a, b in (row.split(",") for row in ROWS.splitlines()))
    after = write_table("after.csv", gained)
    _, out, _ = ask(capsys, "compare", before, after, "--json")
    document = json.loads(out)
    assert set(document) >= {"comparable", "differences", "points", "summary", "verdict"}
    assert document["comparable"] == "yes"
    assert document["summary"]["result"] == "better"
    assert {p["result"] for p in document["points"]} <= {"better", "worse", "not proven"}
    assert set(document["points"][0]) >= {
        "lift_mm", "before_cfm", "after_cfm", "difference_cfm", "expanded_uncertainty_cfm", "result",
    }  # fmt: skip
    _, text, _ = ask(capsys, "compare", before, after)
    assert "Keep, if re-mounting repeats within" in text


def test_compare_says_what_differs(capsys: pytest.CaptureFixture[str], write_table: Callable[..., Path]) -> None:
    before = write_table("before.csv", ROWS)
    other = write_table("other.csv", ROWS, bore="91 mm", entry=None)
    _, out, _ = ask(capsys, "compare", before, other, "--json")
    document = json.loads(out)
    assert document["comparable"] == "no"
    assert {d["key"] for d in document["differences"]} == {"bore", "entry"}
    assert document["summary"]["result"] == "can't tell"
    valve = write_table("valve.csv", ROWS, valve="big one")
    _, out, _ = ask(capsys, "compare", before, valve, "--change", "valve", "--json")
    assert json.loads(out)["comparable"] == "yes"
    assert "above zero" in refused(capsys, "compare", before, before, "--worthwhile", "0")
    assert "not a number" in refused(capsys, "compare", before, before, "--worthwhile", "lots")
    assert "--change" in refused(capsys, "compare", before, before, "--change", "paint")


def test_no_gain_with_a_large_threshold(capsys: pytest.CaptureFixture[str], write_table: Callable[..., Path]) -> None:
    path = write_table("a.csv", ROWS)
    _, out, _ = ask(capsys, "compare", path, path, "--worthwhile", "20", "--json")
    assert json.loads(out)["summary"]["result"] == "no gain"


HEAD = "# ventrix-run: 1\n# direction: intake\n# test_pressure: 28 inH2O\n"


@pytest.mark.parametrize(
    ("content", "words"),
    [
        (b"", "is empty"),
        (b"\xff\xfe\x00\x01\x80", "not a text file"),
        (b"# ventrix-run: 1\n\x00\n", "not a text file"),
        (b"lift_mm,reading_cfm\n1,2\n", "ventrix-run"),
        (b"# ventrix-run: 1\n# direction: up\n", "line 2, direction"),
        (b"# ventrix-run: 9\n# direction: intake\n# test_pressure: 28\n", "newer Ventrix"),
        (HEAD.encode(), "no header line"),
        (HEAD.encode() + b"lift_mm,reading_cfm\n", "no readings"),
        (HEAD.encode() + b"lift_mm\n1\n", "line 4, reading_cfm"),
        (HEAD.encode() + b"reading_cfm\n1\n", "lift_mm or lift_in"),
        (HEAD.encode() + b"lift_mm,reading_cfm\n1,abc\n", "line 5, reading_cfm: 'abc' is not a number"),
        (HEAD.encode() + b"lift_mm,reading_cfm\n1,nan\n", "line 5, reading_cfm: 'nan' is not a number"),
        (HEAD.encode() + b"lift_mm,reading_cfm\n-1,30\n", "line 5, lift_mm: '-1' is negative"),
        (HEAD.encode() + b"lift_mm,reading_cfm\n1,30\n2\n", "line 6, reading_cfm: 1 field where the header has 2"),
        (HEAD.encode() + b"lift_mm,reading_cfm\n1,30,4\n", "3 fields where the header has 2"),
        (HEAD.encode() + b"lift_mm,reading_cfm\n1,\n", "line 5, reading_cfm: is empty"),
        (HEAD.encode() + b"lift_furlong,reading_cfm\n1,30\n", "no unit 'furlong'"),
        (HEAD.encode() + b"# bore: 89 parsec\nlift_mm,reading_cfm\n1,30\n", "line 4, bore: there is no unit 'parsec'"),
        (HEAD.encode() + b"# bore: 89 cfm\nlift_mm,reading_cfm\n1,30\n", "a length is needed"),
        (HEAD.encode() + b"# bore: -89 mm\nlift_mm,reading_cfm\n1,30\n", "above zero"),
        (HEAD.encode() + b"# entry: hole\nlift_mm,reading_cfm\n1,30\n", "not one of radius"),
        (HEAD.encode() + b"# direction: intake\nlift_mm,reading_cfm\n1,30\n", "a second time"),
        (HEAD.encode() + b"lift_mm,reading_percent\n1,30\n", "range_cfm"),
        (HEAD.encode() + b"lift_mm,element_mm\n1,30\n", "port_mm"),
        (HEAD.encode() + b"lift_mm,reading_cfm,reading_l_s\n1,30,4\n", "stands twice|more than one"),
        (HEAD.encode() + b"# leak: 50 cfm\nlift_mm,reading_cfm\n1,30\n", "leak is not smaller"),
        (HEAD.encode() + b"lift_mm,reading_cfm\n0,30\n", "no reading that counts"),
    ],
)
def test_bad_tables(capsys: pytest.CaptureFixture[str], tmp_path: Path, content: bytes, words: str) -> None:
    import re

    path = tmp_path / "bad.csv"
    path.write_bytes(content)
    said = refused(capsys, "reduce", path)
    assert "bad.csv" in said
    assert re.search(words, said), said


def test_files_that_are_not_there(capsys: pytest.CaptureFixture[str], tmp_path: Path) -> None:
    assert "no such file" in refused(capsys, "reduce", tmp_path / "none.csv")
    assert "folder" in refused(capsys, "reduce", tmp_path)
    assert "no such file" in refused(capsys, "nonsense")


def test_a_process_of_its_own_exits_two() -> None:
    done = subprocess.run(
        [sys.executable, "-m", "ventrix", "calc", "curtain_area", "lift=x", "valve_diameter=1"],
        capture_output=True,
        text=True,
        check=False,
    )
    assert done.returncode == 2
    assert done.stdout == ""
    assert done.stderr == "ventrix: calc curtain_area: lift: 'x' is not a number\n"


def test_jobs_in_and_out(capsys: pytest.CaptureFixture[str], tmp_path: Path) -> None:
    from ventrix.demo.job import demo_job
    from ventrix.records.files.job_document import read_job, write_job

    write_job(demo_job(), tmp_path / "job.json")
    code, out, _ = ask(capsys, "import", tmp_path / "job.json")
    assert code == 0
    assert "Corvane" in out
    assert "already" in refused(capsys, "import", tmp_path / "job.json")
    ask(capsys, "export", "Corvane 22H head", tmp_path / "again.json")
    assert read_job(tmp_path / "again.json") == demo_job()
    assert "no job 'Other'" in refused(capsys, "export", "Other", tmp_path / "x.json")
    assert "directory" in refused(capsys, "export", "Corvane 22H head", tmp_path / "no" / "x.json")


# -- swirl meters, schools, kinds of cut


@pytest.mark.parametrize(
    ("columns", "cells"),
    [("lift_mm,reading_cfm,swirl_rpm", ",900"), ("lift_mm,reading_cfm,torque_Nm", ",0.0065")],
)
def test_swirl_by_paddle_or_torque_is_taken_and_blank_cells_are_no_reading(
    capsys: pytest.CaptureFixture[str], write_table: Callable[..., Path], columns: str, cells: str
) -> None:
    rows = [f"{row}{cells if i else ','}" for i, row in enumerate(ROWS.splitlines())]
    path = write_table("swirl.csv", "\n".join(rows), columns)
    code, out, _ = ask(capsys, "reduce", path, "--json")
    assert code == 0
    assert len(json.loads(out)["points"]) == 10


@pytest.mark.parametrize("cell", ["fast", "nan", "inf", "0.01 N.m"])
def test_a_torque_that_is_no_number_is_named(
    capsys: pytest.CaptureFixture[str], write_table: Callable[..., Path], cell: str
) -> None:
    path = write_table("swirl.csv", f"1,31.2,{cell}", "lift_mm,reading_cfm,torque_Nm")
    said = refused(capsys, "reduce", path)
    assert "swirl.csv" in said
    assert "torque_Nm" in said


def test_an_unknown_torque_unit_is_named(capsys: pytest.CaptureFixture[str], write_table: Callable[..., Path]) -> None:
    path = write_table("swirl.csv", "1,31.2,4", "lift_mm,reading_cfm,torque_stone")
    assert "stone" in refused(capsys, "reduce", path)


@pytest.mark.parametrize("school", ["cam-weighted", "low lift first", "peak and near-peak"])
@pytest.mark.parametrize("change", ["port", "seat", "fill", "valve", "chamber", "clean", "finish"])
def test_every_school_judges_every_kind_of_cut(
    capsys: pytest.CaptureFixture[str], write_table: Callable[..., Path], school: str, change: str
) -> None:
    before = write_table("before.csv", ROWS, mount="1")
    more = "\n".join(f"{a},{float(b) * 1.06:.1f}" for a, b in (r.split(",") for r in ROWS.splitlines()))
    after = write_table("after.csv", more, mount="2")
    code, out, _ = ask(capsys, "compare", before, after, "--json", "--school", school, "--change", change)
    assert code == 0
    assert json.loads(out)["verdict"].startswith("Keep")


@pytest.mark.parametrize("option", [("--school", "loudest"), ("--change", "paint"), ("--worthwhile", "much")])
def test_options_that_mean_nothing_are_refused(
    capsys: pytest.CaptureFixture[str], write_table: Callable[..., Path], option: tuple[str, str]
) -> None:
    before, after = write_table("a.csv", ROWS, mount="1"), write_table("b.csv", ROWS, mount="2")
    said = refused(capsys, "compare", before, after, *option)
    assert option[1] in said


@pytest.mark.parametrize("identifier", sorted(registry()))
@pytest.mark.parametrize("figure", ["0", "1e-300", "1e300", "1e-320"])
def test_no_calculator_falls_over_a_figure_at_the_end_of_the_scale(identifier: str, figure: str) -> None:
    """Every input in turn at a figure that divides by nothing or runs over: an answer with an end, or a sentence."""
    calculator = registry()[identifier]
    for at in calculator.inputs:
        if at.choices:
            continue
        given = {i.name: "2" for i in calculator.inputs if not i.choices and i.required} | {at.name: figure}
        with contextlib.suppress(ValueError):  # a sentence; anything else falls through
            assert all(math.isfinite(value) for value, _ in calculate(identifier, given).outputs.values())


def test_a_question_keeps_its_question_mark() -> None:
    assert sentence("how many minutes was it?") == "How many minutes was it?"
    assert sentence("the disk is full") == "The disk is full."
    assert sentence("Done.") == "Done."


# -- walls, and what was declared between two runs


def demo_file(tmp_path: Path) -> Path:
    path = tmp_path / "demo.json"
    write_job(demo_job(), path)
    return path


def test_walls_of_a_job_are_told_thinnest_first(capsys: pytest.CaptureFixture[str], tmp_path: Path) -> None:
    code, out, _ = ask(capsys, "walls", demo_file(tmp_path), "--port", "intake 1", "--json")
    rows = json.loads(out)
    assert code == 0 and {row["port"] for row in rows} == {"Intake 1"}
    assert set(rows[0]) == {"port", "place", "side", "read_mm", "taken_mm", "left_mm", "limit_mm", "sentence"}
    assert [row["left_mm"] for row in rows] == sorted(row["left_mm"] for row in rows)
    floor = next(row for row in rows if row["place"] == "short side" and row["read_mm"] == pytest.approx(3.0734))
    assert floor["limit_mm"] == pytest.approx(2.794)  # the demo's own 0.110 in
    _, plain, _ = ask(capsys, "walls", demo_file(tmp_path))
    assert "left (read" in plain and "safe" not in plain


def test_walls_of_a_port_that_is_not_there(capsys: pytest.CaptureFixture[str], tmp_path: Path) -> None:
    assert "'Intake 9' is not one of" in refused(capsys, "walls", demo_file(tmp_path), "--port", "Intake 9")


def two_tables(tmp_path: Path, before: str, after: str) -> tuple[Path, Path]:
    head = (
        "# ventrix-run: 1\n# direction: intake\n# test_pressure: 28 inH2O\n# bench: b\n# bore: 100 mm\n"
        "# centred: yes\n# entry: radius\n# plug: in\n# valve: job\n"
    )
    paths = tmp_path / "a.csv", tmp_path / "b.csv"
    for path, own in zip(paths, (before, after), strict=True):
        path.write_text(f"{head}{own}lift_mm,reading_cfm\n{ROWS}\n", encoding="utf-8")
    return paths


@pytest.mark.parametrize(
    ("before", "after", "change", "level", "keys"),
    [
        ("# valve_diameter: 51 mm\n", "# valve_diameter: 52.8 mm\n", (), "no", ["valve_diameter"]),
        ("# valve_diameter: 51 mm\n", "# valve_diameter: 52.8 mm\n", ("port", "valve"), "yes", []),
        ("# valve_diameter: 51 mm\n", "", (), "yes", []),
        ("# seat_angle: 45 deg\n", "# seat_angle: 30 deg\n", ("clean",), "no", ["seat_angle"]),
        ("# seat_angle: 45 deg\n", "# seat_angle: 30 deg\n", ("clean", "seat"), "yes", []),
        ("# throat_diameter: 44 mm\n", "# throat_diameter: 46 mm\n", (), "yes", []),
        ("# stem_diameter: 8 mm\n", "# stem_diameter: 7 mm\n", ("seat",), "no", ["stem_diameter"]),
    ],
)
def test_the_valves_sizes_are_conditions_unless_a_cut_says_so(
    capsys: pytest.CaptureFixture[str], tmp_path: Path, before: str, after: str, change: tuple[str, ...], level: str,
    keys: list[str],
) -> None:  # fmt: skip
    options = [word for kind in change for word in ("--change", kind)]
    code, out, _ = ask(capsys, "compare", *two_tables(tmp_path, before, after), *options, "--json")
    found = json.loads(out)
    assert code == 0 and found["comparable"] == level
    assert [d["key"] for d in found["differences"]] == keys


def test_a_change_that_is_none_is_refused(capsys: pytest.CaptureFixture[str], tmp_path: Path) -> None:
    said = refused(capsys, "compare", *two_tables(tmp_path, "", ""), "--change", "port", "--change", "paint")
    assert "'paint' is not one of port, valve, seat" in said


def test_every_command_is_known_by_the_module_it_lives_in() -> None:
    for module in set(COMMANDS.values()):
        import_module(f"ventrix.cli.{module}")
    there = {c.name or c.callback.__name__: c.callback.__module__ for c in app.registered_commands if c.callback}
    assert there == {name: f"ventrix.cli.{module}" for name, module in COMMANDS.items()}


def test_a_calculator_wants_nothing_of_a_window_or_a_book() -> None:
    code = (
        "import sys; from ventrix.cli.main import main\n"
        "try: main(['calc', 'throat_percent', 'valve_diameter=2in', 'throat_diameter=1.8in'])\n"
        "except SystemExit: print(*sorted(m for m in sys.modules))"
    )
    done = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=True)
    loaded = done.stdout.splitlines()[-1].split()
    strange = (
        "PySide6",
        "sqlalchemy",
        "scipy",
        "shapely",
        "ventrix.core.judging",
        "ventrix.core.model.job",
        "ventrix.ui",
    )
    assert not [m for m in loaded if m.startswith(strange)]


def test_the_version_says_what_is_installed(capsys: pytest.CaptureFixture[str]) -> None:
    code, out, _ = ask(capsys, "--version")
    assert code == 0
    assert re.fullmatch(r"Ventrix \d+\.\d+\S*, Python 3\.\d+\.\d+\S*, Qt \d+\.\d+\S*, book \d{4}\n", out)


@pytest.mark.parametrize(
    "told", [("--same-house",), ("--change", "seat"), ("--worthwhile", "1"), ("--school", "low lift first")]
)
def test_what_is_asked_of_two_tables_is_refused_beside_a_job_document(
    capsys: pytest.CaptureFixture[str], tmp_path: Path, told: tuple[str, ...]
) -> None:
    """A job says itself what its cuts were and whose number speaks: an option is never passed over in silence."""
    path = tmp_path / "job.json"
    write_job(demo_job(), path)
    said = refused(capsys, "compare", path, *told)
    assert told[0] in said and "a job document says that itself" in said

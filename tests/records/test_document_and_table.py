"""Documents and tables come back as they went out, and say what is wrong with them."""

from __future__ import annotations

import json
from dataclasses import fields, replace
from pathlib import Path

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scripts.demo_head.job import make_job

from ventrix.core.model.cut import Cut, Fault, Operation, Port, Pour, Trial, Tube, WallReading, Work
from ventrix.core.model.job import Job
from ventrix.core.model.job_parts import Binned, Chamber, Head, MyLift, Seat, SwirlWish, Valve
from ventrix.core.model.kinds import CutKind, LibraryKind
from ventrix.core.model.library import LibraryItem
from ventrix.core.model.run import Correction, FlowRun, Mount, Reading, SetUp
from ventrix.core.model.traverse import Observation, ProbePoint, Traverse
from ventrix.demo.job import demo_job, keep_demo_scans
from ventrix.records.bad_input import InputError
from ventrix.records.book.tables import TABLES
from ventrix.records.files.job_document import dumps_job, from_document, loads_job, schema
from ventrix.records.files.job_folder import photos_of
from ventrix.records.files.run_table import parse_run_table
from ventrix.records.files.run_table_out import write_run_table

ROOT = Path(__file__).parents[2]


def test_demo_comes_from_the_simulator() -> None:
    shipped = demo_job()
    first = replace(shipped.ports[0], cuts=tuple(replace(c, scans=()) for c in shipped.ports[0].cuts))
    made = loads_job(dumps_job(make_job()))
    assert made == replace(shipped, ports=(first, *shipped.ports[1:])), "run python -m scripts.demo_head.job"


def test_the_demo_heads_scans_ship_with_it(tmp_path: Path) -> None:
    keep_demo_scans(tmp_path)
    files, missing = photos_of(demo_job(), tmp_path)
    assert len(files) == 2 and not missing and all(len(data) < 1_500_000 for data in files.values())


def test_the_same_job_comes_back() -> None:
    job = demo_job()
    assert loads_job(dumps_job(job)) == job


def full_job() -> Job:
    """A job that uses every noun."""
    run = FlowRun(
        id="r",
        setup_id="s",
        mount_id="m",
        readings=(
            Reading(id="a", lift=0.00254, flow=0.05, struck="hand slipped", unsteady=True),
            Reading(id="b", lift=0.003, percent=0.5, full_scale=0.1),
            Reading(id="c", lift=0.004, element_column=400.0, port_column=900.0),
        ),
        stands_for_port_ids=("x2", "x3"),
        corrections=(Correction(id="k", what="bore", was="not recorded", became="89 mm", reason="found the sheet"),),
    )
    cut = Cut(
        id="c",
        number=0,
        kinds=(CutKind.PORT, CutKind.SEAT),
        seat_ids=("seat",),
        operations=(
            Operation(
                id="o",
                kind="grind",
                works=(
                    Work(id="w1", place="bowl", from_hour=4.0, to_hour=8.0, depth=0.0005),
                    Work(id="w2", place="guide", side="roof", until="flush"),
                ),
                duration=3600.0,
            ),
        ),
        tubes=(Tube(id="tube", place="pinch", side="left", size=0.011, adhesive="epoxy", tested=True),),
        trials=(Trial(id="t", kind="clay", name="roof", runs=(replace(run, id="r2", readings=(), corrections=()),)),),
        runs=(run,),
        pours=(Pour(id="p", volume=1.18e-4, how="burette"),),
        walls=(WallReading(id="w", place="pinch", thickness=0.003),),
        traverses=(Traverse(id="v", station="pinch", points=(ProbePoint(id="q", name="roof", reading=900.0),)),),
        observations=(Observation(id="n", kind="noise", lift=0.008),),
    )
    return Job(
        id="j",
        title="T",
        extra={"colour of the shop": ["blue", 3]},
        valves=(Valve(id="v", head_diameter=0.041, seat_angle=0.785398163397),),
        setups=(SetUp(id="s", direction="intake", temperature=294.15, humidity=0.45, centred=False),),
        mounts=(Mount(id="m", number=3),),
        ports=(
            Port(
                id="x",
                name="Intake 1",
                kind="intake",
                valve_id="v",
                head_id="h",
                position_on_head=2,
                cuts=(cut,),
                faults=(Fault(id="f", kind="slag", place="bowl", from_hour=3.0, to_hour=5.0, size=0.004),),
            ),
        ),
        heads=(Head(id="h", name="left bank", milled=0.0005),),
        chambers=(Chamber(id="ch", cylinder=1, head_id="h", pours=(Pour(id="cp", volume=6.4e-5),)),),
        seats=(Seat(id="seat", recipe="street", angles=(0.5, 0.8, 1.0), widths=(0.001, 0.0012, 0.001), sunk=0.0002),),
        my_lifts=(MyLift(id="ml", kind="intake", lift=0.0127, name="half inch"),),
        swirl_wishes=(SwirlWish(id="sw", kind="intake", low=0.005, high=0.012, swirl=30.0),),
        bin=(Binned(id="b", noun="Pour", name="pour", parent_id="c", document={"volume_cc": 118}, reason="slipped"),),
    )


def test_a_document_of_version_1_keeps_its_meaning() -> None:
    document = json.loads(dumps_job(full_job()))
    assert document["ventrix_job"] == 5 and document["ports"][0]["position"] == 2
    job = replace(demo_job(), ports=demo_job().ports[:2])  # what version 1 could say: one kind a cut, one depth
    old = json.loads(dumps_job(job))
    old["ventrix_job"] = 1
    for port in old["ports"]:
        for old_cut in port["cuts"]:
            (old_cut["kind"],) = old_cut.pop("kinds", ["port"])
            for operation in old_cut.get("operations", []):
                works = operation.pop("works", [])
                operation["places"] = [w["place"] for w in works]
                if works and "depth_mm" in works[0]:
                    operation["depth_mm"] = works[0]["depth_mm"]
    again = loads_job(json.dumps(old))

    def told(job: Job) -> list[object]:
        return [
            (c.kinds, c.runs, c.walls, [[(w.place, w.depth) for w in o.works] for o in c.operations])
            for p in job.ports
            for c in p.cuts
        ]

    assert told(again) == told(job)


def test_version_1_with_nonsense_in_its_place_is_refused_with_its_field() -> None:
    for bad in (7, "x", [3], [{"cuts": 5}], [{"cuts": [{"operations": 4}]}]):
        with pytest.raises(InputError):
            loads_job(json.dumps({"ventrix_job": 1, "id": "j", "title": "t", "ports": bad}))


def test_every_noun_comes_back() -> None:
    job = full_job()
    assert loads_job(dumps_job(job)) == job


@settings(max_examples=50, deadline=None)
@given(st.decimals(min_value="10", max_value="400", places=3))
def test_what_was_typed_comes_back_to_the_bit(number: object) -> None:
    # Figures of up to a dozen digits in mm, as anyone types them, survive the trip through SI.
    ports = [{"id": "p", "name": "Intake 1", "kind": "intake", "cuts": [{"id": "c", "number": 0}]}]
    document = {"ventrix_job": 1, "id": "j", "title": "T", "bore_mm": float(str(number)), "ports": ports}
    job = loads_job(json.dumps(document))
    assert loads_job(dumps_job(job)) == job
    assert json.loads(dumps_job(job))["bore_mm"] == pytest.approx(float(str(number)), rel=1e-14)


def test_unknown_keys_are_kept() -> None:
    document = json.loads(dumps_job(full_job()))
    document["ports"][0]["cuts"][0]["runs"][0]["readings"][0]["mood"] = "sure"
    again = json.loads(dumps_job(loads_job(json.dumps(document))))
    assert again["colour of the shop"] == ["blue", 3]
    assert again["ports"][0]["cuts"][0]["runs"][0]["readings"][0]["mood"] == "sure"


def test_published_schema_is_the_one_in_force() -> None:
    published = json.loads((ROOT / "docs/formats/job.schema.json").read_text(encoding="utf-8"))
    assert published == schema(), "run python scripts/write_schema.py"


def test_every_quantity_names_its_unit() -> None:
    for kind in TABLES:
        for each in fields(kind):
            if "float" in str(each.type):
                assert "unit" in each.metadata, f"{kind.__name__}.{each.name}"


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("", "is empty"),
        ("{", "line 1"),
        ("[1]", "not a job document"),
        ('{"ventrix_job": 99}', "version 99"),
        ('{"ventrix_job": 1, "id": "a"}', "title"),
        ('{"ventrix_job": 1, "id": "a", "title": "b", "bore_mm": "wide"}', "bore_mm"),
        ('{"ventrix_job": 1, "id": "a", "title": "b", "bore_mm": NaN}', "bore_mm"),
        (
            '{"ventrix_job": 1, "id": "a", "title": "b", "ports": [{"id": "p", "name": "x", "kind": "up"}]}',
            "ports.0.kind",
        ),
        (
            '{"ventrix_job": 1, "id": "a", "title": "b", "ports": [{"id": "p", "name": "x", "kind": "intake", '
            '"cuts": [{"id": "c", "number": 0, "runs": [{"id": "r", "setup_id": "gone"}]}]}]}',
            "names a set-up that is not here",
        ),
        (
            '{"ventrix_job": 1, "id": "a", "title": "b", '
            '"mounts": [{"id": "m", "number": 1}, {"id": "m", "number": 2}]}',
            "two",
        ),
    ],
)
def test_bad_documents_say_where(text: str, words: str) -> None:
    with pytest.raises(InputError, match=words):
        loads_job(text, "job.json")


TABLE = """# ventrix-run: 1
# direction: exhaust
# test_pressure: 25 inH2O
# pipe: stub
# bench: back-room
# mount: 3
# date: 2026-05-02
# shop mood: fine
# temperature: 21 degC
# leak: 0.8 cfm
# leak_taken_off: yes
# swirl_axis: tumble
lift_in,reading_cfm,measured_pressure_inH2O,swirl_rpm,note
0.1,31.2,25.1,0,
0.2,62.25,,-120,struck: hand slipped
"""


def test_a_run_table_comes_back() -> None:
    first = parse_run_table(TABLE.encode())
    second = parse_run_table(write_run_table(first).encode())
    assert second.setup == first.setup
    assert second.mount == "3"
    assert second.extra == {"shop mood": "fine"}
    assert second.lift_unit == "in"
    for one, two in zip(first.run.readings, second.run.readings, strict=True):
        assert two.flow == pytest.approx(one.flow, rel=1e-11)
        assert two.struck == one.struck
        assert two.swirl == pytest.approx(one.swirl)


@pytest.mark.parametrize("mark", [";", "\t"])
def test_spreadsheets_use_other_marks(mark: str) -> None:
    text = TABLE.replace("31.2", "31,2") if mark == ";" else TABLE
    lines = text.splitlines()
    body = [line.replace("31,2", "31#2").replace(",", mark).replace("31#2", "31,2") for line in lines[12:]]
    table = parse_run_table("\r\n".join([*lines[:12], *body]).encode("utf-8-sig"))
    assert table.run.readings[0].flow == pytest.approx(31.2 * 4.719474432e-4)


@pytest.mark.parametrize("of", ["sideways", "Intake", 3])
def test_a_word_that_may_be_left_out_is_one_of_its_list_where_it_stands(of: object) -> None:
    item = {"id": "item", "kind": next(iter(LibraryKind)).value, "name": "usual"}
    assert from_document(LibraryItem, item).of is None
    assert from_document(LibraryItem, item | {"of": "exhaust"}).of == "exhaust"
    with pytest.raises(InputError, match="of: is not one of intake or exhaust"):
        from_document(LibraryItem, item | {"of": of}, "item.json")

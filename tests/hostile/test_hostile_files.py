"""Files made to break an importer, and texts made to break an export: one sentence each, or back as it was."""

from __future__ import annotations

import json
import os
import sqlite3
from collections.abc import Callable
from dataclasses import fields, replace
from itertools import count
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from ventrix.core.edits.cuts import edit_port
from ventrix.core.edits.runs import add_reading
from ventrix.core.model.cut import Port
from ventrix.core.model.job import Job
from ventrix.core.model.plausible import implausible, limit_of
from ventrix.core.model.run import Reading
from ventrix.core.quantity.units import to_si
from ventrix.demo.job import demo_benches, demo_job
from ventrix.records.bad_input import InputError
from ventrix.records.book.book import Book
from ventrix.records.book.tables import TABLES
from ventrix.records.files.job_document import dumps_job, loads_document, loads_job
from ventrix.records.files.outline_files import read_outlines
from ventrix.records.files.run_table import LARGEST_FILE, MOST_ROWS, parse_run_table, read_run_table
from ventrix.records.files.run_table_out import write_run_table
from ventrix.records.files.text_cells import cell_of, from_one_line, one_line, text_of
from ventrix.records.files.traverse_table import COLUMNS, FIRST, read_traverses, write_traverses
from ventrix.records.files.whole_file import write_whole

HEAD = "# ventrix-run: 1\n# direction: intake\n# test_pressure: 28 inH2O\n"
PYTHON = ("Traceback", "int()", "float(", "ValueError", "codec", "surrogate", "Exceeds the limit", "dtype", "NoneType")


def document() -> dict[str, Any]:
    found: dict[str, Any] = json.loads(dumps_job(demo_job(), demo_benches()))
    return found


def refused(call: Callable[[], object]) -> str:
    with pytest.raises(InputError) as caught:
        call()
    said = str(caught.value)
    assert "\n" not in said
    assert len(said) < 400
    assert not any(word in said for word in PYTHON), said
    return said


@pytest.mark.parametrize(
    ("row", "words"),
    [
        ("1," + "9" * 5000, "reading_cfm"),
        ("1," + "9" * 400 + "/3", "reading_cfm"),
        ("1,1/" + "0" * 400, "reading_cfm"),
        ("1,3e308", "reading_cfm"),
        ('1,"' + "a" * 140_000 + '"', "over 20000 characters"),
        ('1,"30', "quotation mark"),
        ("200,30", "lift_mm: a lift of 200 mm is past 30 mm: did you mean 20"),
    ],
)
def test_a_run_table_made_to_break_says_line_and_field(row: str, words: str) -> None:
    said = refused(lambda: parse_run_table(f"{HEAD}lift_mm,reading_cfm\n{row}\n".encode(), "bad.csv"))
    assert "bad.csv, line 5" in said
    assert words in said


@pytest.mark.parametrize(
    ("line", "words"),
    [
        ("# ventrix-run: " + "1" * 5000, "line 1, ventrix-run"),
        ("# ventrix-run: 1\n# mount: " + "9" * 21_000, "too long"),
        ("# ventrix-run: 1\n# valves: 0", "line 2, valves: '0' is not a whole number from 1"),
        ("# ventrix-run: 1\n# test_pressure: 1e308", "test_pressure"),
    ],
)
def test_keys_made_to_break(line: str, words: str) -> None:
    text = f"{line}\n# direction: intake\n{HEAD.splitlines()[2]}\nlift_mm,reading_cfm\n1,30\n"
    assert words in refused(lambda: parse_run_table(text.encode(), "bad.csv"))


def test_lifts_in_thousandths_are_asked_about_in_a_file() -> None:
    text = f"{HEAD}# valve_diameter: 2.02 in\nlift_in,reading_cfm\n50,24\n".encode()
    assert "did you mean 0.050?" in refused(lambda: parse_run_table(text, "t.csv"))
    # the boundary named in words: 0.6 of 50 mm, and past the 30 mm that no one doubts
    fine = f"{HEAD}# valve_diameter: 60 mm\nlift_mm,reading_cfm\n36,24\n".encode()
    assert parse_run_table(fine).run.readings[0].lift == pytest.approx(0.036)
    assert "0.6 of the valve's diameter" in refused(lambda: parse_run_table(fine.replace(b"\n36,", b"\n36.1,"), "t"))


def put(path: str, value: Any) -> Callable[[], object]:
    """Reads the demo's document with one place changed."""
    whole = document()
    at: Any = whole
    *way, last = path.split(".")
    for key in way:
        at = at[int(key)] if key.isdigit() else at[key]
    at[int(last) if last.isdigit() else last] = value
    return lambda: loads_document(json.dumps(whole), "job.json")


@pytest.mark.parametrize(
    ("path", "value", "words"),
    [
        ("ports.0.cuts.0.pours.0.volume_cc", 0, "between 0.1 and 5000 cc"),
        ("ports.0.valves", 0, "between 1 and 8"),
        ("ports.0.cuts.0.runs.0.readings.0.flow_cfm", 1e308, "flow"),
        ("ports.0.cuts.0.runs.0.readings.0.lift_mm", 101, "a lift lies between 0 and 100 mm"),
        ("ports.0.cuts.0.runs.0.readings.0.lift_mm", 1e308, "lift"),
        ("ports", [], "a job needs a port"),
        ("ports.0.cuts", [], "has no cut"),
        ("mounts.0.number", 99999999999999999999, "number"),
        ("ports.0.cuts.0.number", 10**20, "number"),
        ("title", "a\ud800b", "broken character"),
        ("photos", [{"id": "p", "file": "../../secret.png"}], "without a folder"),
        ("photos", [{"id": "p", "file": "/dev/sda"}], "without a folder"),
        (
            "benches.0.studies",
            [{"id": "s", "readings": [{"id": "r", "mount": 1, "lift_mm": 5, "flow_cfm": 1e9}]}],
            "flow",
        ),
    ],
)
def test_a_document_made_to_lock_a_book_is_refused(path: str, value: Any, words: str) -> None:
    said = refused(put(path, value))
    assert said.startswith("job.json")
    assert words in said


def test_mirrors_in_a_circle_are_refused() -> None:
    whole = document()
    first = whole["ports"][0]
    other = json.loads(json.dumps(first).replace('"id": "', '"id": "other-'))
    for port, of in ((first, "other-" + first["id"]), (other, first["id"])):
        port["mirror_of"] = of
    for name in ("runs", "traverses"):
        for cut in other["cuts"]:
            cut[name] = []
    other["valve_id"] = None
    whole["ports"] = [first, other]
    assert "circle" in refused(lambda: loads_document(json.dumps(whole), "job.json"))


@pytest.mark.parametrize(
    "text",
    [
        '{"ventrix_job": 1, "id": "a", "title": "b", "mine": NaN}',
        '{"ventrix_job": 1, "id": "a", "title": "b", "mine": {"deep": [Infinity]}}',
        '{"ventrix_job": 1, "id": "a", "title": "b", "mine": 1e999}',
        '{"ventrix_job": 1, "id": "a", "title": "b", "bore_mm": ' + "9" * 5000 + "}",
        '{"ventrix_job": ' + "9" * 5000 + "}",
        '{"ventrix_job": 1, "id": "a", "title": "\\ud800"}',
        "[" * 100_000,
        '{"a":' * 50_000,
        "\x00",
        "null",
        '"x"',
    ],
)
def test_json_made_to_break_has_a_line_of_our_own(text: str) -> None:
    assert refused(lambda: loads_job(text, "job.json")).startswith("job.json")


def test_bytes_that_are_no_text() -> None:
    for data in (b"\xff\xfe\x00", b"\x80" * 50, b'{"id": "\xed\xa0\x80"}'):
        refused(lambda data=data: loads_job(data, "job.json"))  # type: ignore[misc]


def test_every_figure_that_the_book_keeps_has_a_limit_with_a_sentence() -> None:
    for kind in TABLES:
        for each in fields(kind):
            if "float" in str(each.type) or each.type in ("int", "int | None"):
                found = limit_of(kind, each.name)
                assert found is not None, f"{kind.__name__}.{each.name}"
                assert found.low < found.high
                assert found.words in found.sentence
    bad = replace(demo_job(), bore=5.0)
    assert list(implausible(bad)) == [("bore", "a bore lies between 10 and 600 mm")]


def test_a_limit_takes_its_ends_and_not_what_is_past_them() -> None:
    limit = limit_of(Port, "valves")
    assert limit is not None
    assert [limit.allows(n) for n in (0, 1, 8, 9)] == [False, True, True, False]
    lift = limit_of(Reading, "lift")
    assert lift is not None
    assert lift.allows(0.1)
    assert not lift.allows(0.1001)
    assert lift.allows(to_si(100 / 25.4, "in"))


# -- sizes


def test_too_many_rows_are_refused_early_and_too_many_bytes_at_once(tmp_path: Path) -> None:
    rows = "1,30\n" * (MOST_ROWS + 5) + "1,broken\n" * 10
    assert f"more than {MOST_ROWS} rows" in refused(
        lambda: parse_run_table(f"{HEAD}lift_mm,reading_cfm\n{rows}".encode(), "t.csv")
    )
    path = tmp_path / "large.csv"
    with open(path, "wb") as file:
        file.truncate(LARGEST_FILE + 1)
    assert "too large" in refused(lambda: read_run_table(path))


def ids() -> Callable[[], str]:
    numbers = count()
    return lambda: f"new-{next(numbers)}"


def traverse_of(points: int, folder: Path) -> Path:
    path = folder / f"{points}.csv"
    row = "pinch,pitot,grid,12.7,straight,,1,,,,p{},0,0,4000,,,,"
    path.write_text("\n".join([FIRST, ",".join(COLUMNS), *(row.format(i) for i in range(points))]), encoding="utf-8")
    return path


def test_a_traverse_of_ten_thousand_points_is_read(tmp_path: Path) -> None:
    found = read_traverses(traverse_of(10_000, tmp_path), ids())
    assert [p.name for p in found[0].points] == [f"p{i}" for i in range(10_000)]


# -- devices, pipes, links


def test_a_pipe_or_device_is_refused_and_not_waited_for(tmp_path: Path) -> None:
    pipe = tmp_path / "pipe.csv"
    os.mkfifo(pipe)
    for path in (pipe, Path("/dev/zero")):
        assert "a device or a pipe" in refused(lambda path=path: read_run_table(path))  # type: ignore[misc]


def test_an_export_follows_a_link_and_writes_to_a_device_without_replacing_either(tmp_path: Path) -> None:
    real, link = tmp_path / "real.csv", tmp_path / "link.csv"
    real.write_text("old", encoding="utf-8")
    link.symlink_to(real)
    write_whole(link, "new")
    assert link.is_symlink()
    assert real.read_text(encoding="utf-8") == "new"
    null = tmp_path / "null"
    null.symlink_to("/dev/null")
    write_whole(null, "gone")
    assert null.is_symlink()
    assert not Path("/dev/null").is_file()
    full = tmp_path / "full"
    full.symlink_to("/dev/full")
    assert "no space left" in refused(lambda: write_whole(full, "x"))
    assert sorted(p.name for p in tmp_path.iterdir()) == ["full", "link.csv", "null", "real.csv"]


# -- what Ventrix writes it can read

awkward = st.text(st.sampled_from("a=+-@,;\"'\\nr\n\r\t\u2028\u2029\x0b\x0c\x1c #:é"), max_size=30)


@given(awkward)
def test_any_text_goes_through_a_cell_and_nothing_is_carried_out(text: str) -> None:
    cell = cell_of(text)
    assert text_of(cell) == text
    assert cell[:1] not in set("=+-@\t\r")
    assert from_one_line(one_line(text)) == text
    assert not set("\n\r") & set(one_line(text))


@given(awkward)
def test_any_note_and_name_comes_back_from_a_run_table(text: str) -> None:
    table = parse_run_table(f"{HEAD}lift_mm,reading_cfm\n1,30\n2,60\n".encode())
    told = text.strip() or "x"
    struck = replace(table.run.readings[0], struck=told)
    table = replace(
        table,
        run=replace(table.run, readings=(struck, table.run.readings[1])),
        setup=replace(table.setup, bench=told),
        extra={"shop": told},
    )
    again = parse_run_table(write_run_table(table).encode())
    assert again.run.readings[0].struck == told
    assert again.setup.bench == told
    assert again.extra["shop"] == told


@settings(deadline=None, max_examples=40)
@given(awkward)
def test_any_text_comes_back_from_a_document_and_a_traverse_table(text: str) -> None:
    import tempfile

    job = replace(demo_job(), note=text, title=text or "t")
    assert loads_job(dumps_job(job)) == job
    cut = demo_job().ports[0].cuts[2]
    told = text.strip() or "p"
    named = replace(cut.traverses[0], station=told, points=(replace(cut.traverses[0].points[0], name=told),))
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "air.csv"
        path.write_bytes(write_traverses(replace(cut, traverses=(named,))).encode())
        found = read_traverses(path, ids())
    assert (found[0].station, found[0].points[0].name) == (told, told)


def test_columns_of_the_users_own_called_as_ours_come_back(tmp_path: Path) -> None:
    text = f"{HEAD}id,lift_mm,reading_cfm,struck,extra\nseven,1,30,no,yes\n".encode()
    run = parse_run_table(text, "t.csv").run
    job = demo_job()
    kept = add_reading(job, job.ports[0].cuts[-1].runs[0].id, replace(run.readings[0], id="x"))
    again = loads_job(dumps_job(kept))
    assert again == kept
    assert "seven" in next(r for x in again.runs() for r in x.readings if r.id == "x").extra.values()
    with Book.open(tmp_path / "book.sqlite") as book:
        book.add_job(kept)
        assert book.load(kept.id) == kept


# -- books


def test_a_book_of_a_version_never_written_and_a_newer_one(tmp_path: Path) -> None:
    path = tmp_path / "book.sqlite"
    Book.open(path).close()
    for version, words in (("0002x", "none that Ventrix ever wrote"), ("0099", "newer Ventrix"), ("", "none that")):
        raw = sqlite3.connect(path)
        raw.execute("UPDATE alembic_version SET version_num = ?", (version,))
        raw.commit()
        raw.close()
        assert words in refused(lambda: Book.open(path))
    assert [p.name for p in tmp_path.iterdir() if "before" in p.name] == []


def told(path: Path) -> list[str]:
    """Everything that a book says, in SQL."""
    raw = sqlite3.connect(path)
    found = list(raw.iterdump())
    raw.close()
    return found


def test_a_migration_that_fails_leaves_the_book_as_it_was_and_no_empty_backup(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    path = tmp_path / "book.sqlite"
    raw = sqlite3.connect(path)
    raw.executescript((Path(__file__).parents[1] / "records/books" / "0003.sql").read_text(encoding="utf-8"))
    raw.execute("DROP TABLE reading")  # what a migration then trips over
    raw.commit()
    raw.close()
    before = told(path)
    from ventrix.records.migrations import run

    def trips(_engine: object) -> None:
        raise OSError(28, "No space left on device")

    monkeypatch.setattr(run, "upgrade", trips)
    refused(lambda: Book.open(path))
    assert told(path) == before
    copies = [p for p in tmp_path.iterdir() if "before" in p.name]
    assert all(p.stat().st_size > 0 for p in copies)
    for copy in copies:
        copy.unlink()

    def no_room(_handle: int) -> None:
        raise OSError(28, "No space left on device")

    monkeypatch.setattr(os, "fsync", no_room)
    assert "no space left" in refused(lambda: Book.open(path))
    assert [p.name for p in tmp_path.iterdir() if "before" in p.name] == []


def test_what_would_lock_a_book_is_refused_by_the_book_itself(tmp_path: Path) -> None:
    with Book.open(tmp_path / "book.sqlite") as book:
        job = demo_job()
        book.add_job(job)
        with pytest.raises(ValueError, match="valves"):
            book.write((job, edit_port(job, job.ports[0].id, lambda p: replace(p, valves=0))))
        assert book.load(job.id) == job
        with pytest.raises(ValueError, match="bore"):
            book.write((None, Job(id="new", title="n", bore=1e308)))
        assert [j.id for j in book.jobs()] == [job.id]


@pytest.mark.parametrize(
    "body",
    [
        '<circle r="2em"/>',
        '<rect width="50%" height="20%"/>',
        '<circle r=""/>',
        '<path d="M0 0 L"/>',
        '<path d="M 0 0 A 0 0 0 0 0 1 1 z"/>',
        '<ellipse rx="a" ry="2"/>',
        '<g transform="matrix(0,0,0,0,0,0)"><circle r="5"/></g>',
        '<path d="M1e400 0 L 1 1 z"/>',
    ],
)
def test_an_odd_shape_is_taken_or_refused_in_a_sentence(tmp_path: Path, body: str) -> None:
    path = tmp_path / "face.svg"
    path.write_text(f'<svg xmlns="http://www.w3.org/2000/svg" width="10" height="10">{body}</svg>')
    try:
        found = read_outlines(path)
    except InputError:
        return  # a sentence, and nothing else
    assert all(len(points) >= 3 for points in found)

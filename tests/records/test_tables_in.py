"""Tables from elsewhere: what is guessed of the common layouts, all or nothing, and files that mean harm."""

from __future__ import annotations

import io
import random
import zipfile
from pathlib import Path

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from openpyxl import Workbook

from ventrix.core.model.kinds import Direction
from ventrix.core.model.run import SetUp
from ventrix.core.quantity.units import from_si, to_si
from ventrix.demo.job import demo_job
from ventrix.records.bad_input import InputError
from ventrix.records.book.book import Book
from ventrix.records.files.column_guess import guess_layout
from ventrix.records.files.grid import Grid, read_grid, text_grid, workbook_grid
from ventrix.records.files.layout import Conditions, Role, layout_sentence
from ventrix.records.files.layout_reading import read_by
from ventrix.rooms.book.import_steps import begin, remember, turned_round, with_cell, with_role
from ventrix.workspace.bring_in_table import Goal, bring_in, default_goals, setup_for, with_runs
from ventrix.workspace.workspace import Workspace

# Layouts as people keep them (common practice, no source). Each says 62, 125 and 170 CFM at 0.1, 0.2 and 0.3 in in its
# first run, and how many runs there are, and how many of them exhaust.
LAYOUTS = {
    "lift down, cuts across": ("Lift,Stock,Bowl\n0.1,62,63\n0.2,125,130\n0.3,170,180\n", 2, 0),
    "lift across": ("lift;0.1;0.2;0.3\nstock;62;125;170\nbowl;63;130;180\n", 2, 0),
    "lift across, decimal comma": ("lift;0,1;0,2;0,3\nstock;62,0;125,0;170,0\n", 1, 0),
    "side by side": ("lift in,Intake cfm,Exhaust cfm\n.100,62,50\n.200,125,99\n.300,170,130\n", 2, 1),
    "two lift columns": ("Intake,,Exhaust,\nlift,cfm,lift,cfm\n0.1,62,0.1,50\n0.2,125,0.2,99\n0.3,170,,\n", 2, 1),
    "thousandths": ("100\t62\n200\t125\n300\t170\n", 1, 0),
    "percent of a range": ("lift,% of 200\n100,31\n200,62.5\n300,85\n", 1, 0),
    "millimetres, litres": ("lift mm;l/s\n2,54;29,2609\n5,08;58,9937\n7,62;80,2314\n", 1, 0),
    "title above": ("My head, flowed in May\n\nlift,cfm\n0.1,62\n0.2,125\n0.3,170\n", 1, 0),
    "blanks": ("0.1   62\n0.2   125\n0.3   170\n", 1, 0),
    "comma decimals, blanks": ("0,1  62,0\n0,2  125,0\n0,3  170,0\n", 1, 0),
    "a gap": ("lift,a,b\n0.1,62,\n0.2,125,130\n0.3,170,180\n", 2, 0),
    "gain columns are passed over": ("lift,stock,gain\n0.1,62,1\n0.2,125,2\n0.3,170,3\n", 1, 0),
    "thousands are parted": ("lift thou,cfm\n100,62\n200,125\n300,170\n1 000,210\n", 1, 0),
}


def sides(said: Conditions) -> dict[Direction, SetUp]:
    return {side: setup_for(side, said) for side in ("intake", "exhaust")}


@pytest.mark.parametrize("name", LAYOUTS)
def test_common_layouts_are_guessed(name: str) -> None:
    text, runs, exhaust = LAYOUTS[name]
    grid = text_grid(text)
    layout = guess_layout(grid)
    assert layout is not None
    read = read_by(grid, layout)
    assert len(read.runs) == runs
    assert sum(r.kind == "exhaust" for r in read.runs) == exhaust
    rows = read.runs[0].rows
    assert [round(from_si(r.lift, "in"), 3) for r in rows][:3] == [0.1, 0.2, 0.3]
    flows = [r.flow if r.flow is not None else (r.share or 0) * (r.full_scale or 0) for r in rows]
    assert [round(from_si(q, "cfm"), 1) for q in flows][:3] == [62.0, 125.0, 170.0]
    assert layout_sentence(grid, layout)


def test_what_stands_beside_a_table_is_taken_for_what_it_says() -> None:
    text = (
        "Head: Corvane 24H\nTest pressure: 25 in H2O\nBore;89 mm\nBench;back room\nDate: 2026-05-02\nTemp: 72 F\n\n"
        "lift;Intake\n0.1;62\n0.2;125\n0.3;170\nBarometer;29.92 inHg\n"
    )
    layout = guess_layout(text_grid(text.replace(": ", ";")))
    assert layout is not None
    said = layout.conditions
    assert said.test_pressure == pytest.approx(to_si(25, "inH2O"))
    assert said.bore == pytest.approx(0.089) and said.bench == "back room"
    assert said.date == "2026-05-02" and said.title == "Corvane 24H"
    assert said.temperature == pytest.approx(to_si(72, "degF"))
    assert said.barometer == pytest.approx(101_325, rel=1e-3)  # ISO 2533: 29.92 inHg is one atmosphere


def test_a_table_without_lifts_is_no_guess_and_can_be_told() -> None:
    grid = text_grid("a,b\nx,y\n")
    assert guess_layout(grid) is None
    match = begin(grid, "cfm")
    assert "rises like lifts" in match.guessed and match.problem([])
    grid = text_grid("q,62,125\nr,63,130\ns,61,128\n")
    match = with_role(begin(grid, "cfm"), 1, Role.LIFT)
    assert match.layout.columns[1].role is Role.LIFT


def test_refused_cells_are_named_and_can_be_put_right_or_left_out() -> None:
    match = begin(text_grid("lift,stock,bowl\n0.1,62,63\n0.2,125,x\n0.3,170,180\n"), "cfm")
    (cell,) = match.read.refused
    assert (cell.row, cell.column, cell.text) == (2, 2, "x")
    goals = [Goal("intake"), Goal("intake")]
    assert "1 cell" in match.problem(goals)
    assert match.problem([goals[0], Goal("intake", left_out=True)]) == ""
    mended = with_cell(match, 2, 2, "130")
    assert mended.read.refused == () and mended.problem(goals) == ""
    across = turned_round(begin(text_grid("lift,0.1,0.2,0.3\nstock,62,x,170\n"), "cfm"), "cfm")
    assert across is not None


def test_a_layout_is_remembered_by_its_headings() -> None:
    text = "lift,first,second\n0.1,62,63\n0.2,125,130\n0.3,170,180\n"
    match = with_role(begin(text_grid(text), "cfm"), 2, Role.NOTHING)
    memory = remember("", match)
    again = begin(text_grid(text.replace("62", "64")), "cfm", memory)
    assert again.remembered and len(again.read.runs) == 1 and "last time" in again.guessed
    other = begin(text_grid("lift,else\n0.1,62\n0.2,125\n"), "cfm", memory)
    assert not other.remembered
    for broken in ("{", "[]", '{"x": 3}', memory.replace("flow", "floww")):
        assert begin(text_grid(text), "cfm", broken).read.runs


def test_runs_go_where_they_belong_in_one_edit(tmp_path: Path) -> None:
    with Book.open(tmp_path / "book.sqlite") as book:
        book.add_job(demo_job())
        space = Workspace.open(book, demo_job().id)
        grid = text_grid("lift,Intake stock,Intake bowl,Exhaust\n0.1,62,63,50\n0.2,125,130,99\n", "mine.csv")
        match = begin(grid, "cfm")
        goals = default_goals(space.job, space.port, match.read.runs)
        assert [g.kind for g in goals] == ["intake", "intake", "exhaust"]
        assert all(g.cut_id is None for g in goals), "every cut of the demo is flowed: new ones follow"
        said = match.layout.conditions._replace(test_pressure=7000.0)
        before = space.job
        with pytest.raises(ValueError, match="test pressure"):
            bring_in(book, space, match.read.runs, goals, sides(match.layout.conditions), "mine.csv")
        assert space.job is before
        bring_in(book, space, match.read.runs, goals, sides(said), "mine.csv")
        port = space.job.ports[0]
        assert [c.name for c in port.cuts[-2:]] == ["Intake stock", "Intake bowl"]
        assert [from_si(r.flow or 0, "cfm") for r in port.cuts[-1].runs[0].readings] == pytest.approx([63, 130])
        assert len(space.job.ports[1].cuts) == len(demo_job().ports[1].cuts) + 1
        assert space.undo_name == "table mine.csv" and space.undo()
        brought = [r for run in space.job.runs() if run.source == "table mine.csv" for r in run.readings]
        assert brought and {r.struck for r in brought} == {"undone"}, (
            "one edit, taken back whole; readings stay, struck"
        )


def test_a_table_makes_a_job_where_none_is_open(tmp_path: Path) -> None:
    grid = text_grid("lift,Exhaust\n0.1,50\n0.2,99\n", "ex.csv")
    match = begin(grid, "cfm")
    said = match.layout.conditions._replace(test_pressure=7000.0)
    with Book.open(tmp_path / "book.sqlite") as book:
        space = bring_in(book, None, match.read.runs, [Goal("exhaust")], sides(said), "ex.csv", "Brought")
        assert space.job.title == "Brought"
        assert [(p.kind, len(list(p.cuts[0].runs))) for p in space.job.ports] == [("exhaust", 1)]
        with pytest.raises(ValueError, match="left out"):
            bring_in(book, None, match.read.runs, [Goal("exhaust", left_out=True)], sides(said), "ex.csv")
        assert len(book.jobs()) == 1, "nothing came of what was refused"


# -- files


def workbook(rows: list[list[object]], name: str = "flows") -> bytes:
    book = Workbook()
    sheet = book.active
    assert sheet is not None
    sheet.title = name
    for row in rows:
        sheet.append(row)
    book.create_sheet("second")
    out = io.BytesIO()
    book.save(out)
    return out.getvalue()


def test_a_spreadsheet_comes_in_with_its_sheets_and_no_formula_is_worked_out() -> None:
    data = workbook([["lift", "cfm", "sum"], [0.1, 62, "=1+1"], [0.2, 125, '=WEBSERVICE("x")'], [0.3, 170.5, None]])
    grid = workbook_grid(data, "flows.xlsx")
    assert grid.sheets == ("flows", "second") and grid.rows[3][:2] == ("0.3", "170.5")
    assert all("WEBSERVICE" not in c and c != "2" for r in grid.rows for c in r)
    layout = guess_layout(grid)
    assert layout is not None and len(read_by(grid, layout).runs) == 1
    with pytest.raises(InputError, match="empty"):
        workbook_grid(data, "flows.xlsx", "second")


def rezipped(data: bytes, **changed: bytes) -> bytes:
    """A workbook with some of its parts exchanged."""
    out = io.BytesIO()
    with zipfile.ZipFile(io.BytesIO(data)) as old, zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as new:
        for entry in old.infolist():
            part = entry.filename.rsplit("/", 1)[-1].replace(".xml", "")
            new.writestr(entry.filename, changed.get(part, old.read(entry)))
    return out.getvalue()


BOMB = (
    b'<?xml version="1.0"?><!DOCTYPE x [<!ENTITY a "aaaaaaaaaa">'
    + b"".join(b'<!ENTITY a%d "%s">' % (i, b"&a%s;" % (str(i - 1).encode() if i else b"") * 10) for i in range(9))
    + b"]><worksheet>&a8;</worksheet>"
)
OUTSIDE = b'<?xml version="1.0"?><!DOCTYPE x [<!ENTITY a SYSTEM "file:///etc/passwd">]><worksheet>&a;</worksheet>'


@pytest.mark.parametrize("part", [BOMB, OUTSIDE, b"<worksheet", b""])
def test_xml_that_means_harm_is_refused(part: bytes) -> None:
    data = workbook([["lift", "cfm"], [0.1, 62], [0.2, 125]])
    with pytest.raises(InputError):
        workbook_grid(rezipped(data, sheet1=part), "bad.xlsx")


def test_an_archive_that_swells_is_refused_before_it_is_read() -> None:
    data = workbook([["lift", "cfm"], [0.1, 62]])
    with pytest.raises(InputError, match="swells"):
        workbook_grid(rezipped(data, sheet1=b" " * 40_000_000), "bomb.xlsx")


def test_sizes_have_ends(tmp_path: Path) -> None:
    with pytest.raises(InputError, match="more than 20000 rows"):
        text_grid("1,2\n" * 20_001)
    with pytest.raises(InputError, match="columns"):
        text_grid(",".join("1" * 400) + "\n")
    with pytest.raises(InputError, match="cell of over"):
        text_grid("1," + "x" * 3000 + "\n")
    with pytest.raises(InputError, match="not a text file"):
        text_grid(b"\x00\x01\x02")
    large = tmp_path / "large.csv"
    with open(large, "wb") as file:
        file.truncate(2 * 1024**3)  # two gigabytes that take no room
    with pytest.raises(InputError, match="too large"):
        read_grid(large)
    with pytest.raises(InputError, match="too large"):
        read_grid(large.rename(tmp_path / "large.xlsx"))


@pytest.mark.parametrize("encoding", ["utf-8", "utf-8-sig", "utf-16", "cp1252"])
def test_encodings(encoding: str) -> None:
    assert text_grid("lift;Größe\n0,1;62\n".encode(encoding)).rows[0] == ("lift", "Größe")


CELLS = st.sampled_from(
    ["lift", "0.1", "0,2", "1e5", "-3", "", "cfm", "%", "=A1", "Intake", "∞", "\u202e", "1 000", "nan"]
)


@settings(max_examples=120, deadline=None, suppress_health_check=[HealthCheck.too_slow])
@given(st.lists(st.lists(CELLS, min_size=1, max_size=6), min_size=1, max_size=8))
def test_any_table_is_read_or_refused_and_never_both(rows: list[list[str]]) -> None:
    """Property: whatever a table holds, what comes out are finite lifts and flows above zero, or refusals."""
    try:
        grid = text_grid("\n".join("\t".join(r) for r in rows))
    except InputError:
        return
    layout = guess_layout(grid)
    if layout is None:
        return
    read = read_by(grid, layout)
    for run in read.runs:
        for row in run.rows:
            assert 0 < row.lift <= 0.0301
            assert (row.flow is None) != (row.share is None)
            assert row.flow is None or 0 < row.flow < 2
    goals = [Goal(r.kind or "intake") for r in read.runs]
    if read.runs:
        job, words = with_runs(
            demo_job(), read.runs, goals, sides(layout.conditions._replace(test_pressure=7000.0)), "t"
        )
        assert "brought in" in words and len(list(job.runs())) == len(list(demo_job().runs())) + len(read.runs)


def test_fuzzed_files_are_tables_or_refused(long: bool) -> None:
    """Bounded fuzz: good files with bytes exchanged, cut off, doubled."""
    draw = random.Random(13)
    good = [t.encode() for t, *_ in LAYOUTS.values()] + [workbook([["lift", "cfm"], [0.1, 62], [0.2, 125], [0.3, 170]])]
    for _ in range(600 if long else 120):
        data = bytearray(draw.choice(good))
        for _ in range(draw.randint(1, 6)):
            at = draw.randrange(len(data))
            kind = draw.random()
            if kind < 0.5:
                data[at] = draw.randrange(256)
            elif kind < 0.75:
                del data[at : at + draw.randint(1, 40)]
            else:
                data[at:at] = data[at : at + 30]
            if not data:
                data = bytearray(b"x")
        for reader in (text_grid, workbook_grid):
            try:
                grid = reader(bytes(data))
            except InputError:
                continue
            layout = guess_layout(grid)
            if layout is not None:
                read_by(grid, layout)
            assert isinstance(grid, Grid)


@pytest.mark.parametrize(
    ("heading", "pascal"),
    [
        ("Flow @ 7 kPa", 7000.0),
        ("Intake 1 @ 70 mbar", 7000.0),
        ("CFM @ 250 mmH2O", 2451.7),  # BS 350-1: conventional millimetre of water, 9.80665 Pa
        ('CFM @ 28" H2O', 6974.5),  # 28 times 249.089 Pa
        ("at 28 inches of water", 6974.5),
    ],
)
def test_a_pressure_in_a_heading_is_the_tables_test_pressure(heading: str, pascal: float) -> None:
    grid = Grid((("lift in", heading), ("0.1", "62"), ("0.2", "124"), ("0.3", "176"), ("0.4", "207")))
    layout = guess_layout(grid)
    assert layout is not None
    assert layout.conditions.test_pressure == pytest.approx(pascal, rel=1e-4)


def test_a_workbook_with_millions_of_words_is_refused_by_its_directory(tmp_path: Path) -> None:
    """Nothing of it is unpacked: what it would hold is said in the archive's own directory."""
    path = tmp_path / "words.xlsx"
    with zipfile.ZipFile(path, "w", zipfile.ZIP_DEFLATED) as archive:
        words = b"".join(b"<si><t>%09d</t></si>" % (i * 7919 % 10**9) for i in range(1_300_000))
        archive.writestr("xl/sharedStrings.xml", words)
    with pytest.raises(InputError, match="MiB of words"):
        read_grid(path)

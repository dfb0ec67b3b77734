"""Everything of a job out and in again: workbook, archive, folder; and archives that mean harm."""

from __future__ import annotations

import io
import json
import random
import shutil
import stat
import subprocess
import zipfile
from dataclasses import replace
from datetime import date
from pathlib import Path
from xml.etree import ElementTree

import jsonschema
import pytest
from openpyxl import load_workbook
from PIL import Image

from ventrix.cli.main import main
from ventrix.core.judging.findings import Findings
from ventrix.core.model.cut import Photo
from ventrix.core.model.job import Job
from ventrix.core.quantity.units import from_si
from ventrix.demo.job import demo_benches, demo_job
from ventrix.records.bad_input import InputError
from ventrix.records.book.book import Book
from ventrix.records.book.store import default_book_path
from ventrix.records.files.desktop_files import ID, desktop_files, install_desktop, remove_desktop
from ventrix.records.files.job_document import dumps_job, schema
from ventrix.records.files.job_folder import read_packed, write_archive
from ventrix.records.files.new_ids import renewed
from ventrix.records.files.whole_file import safe_name
from ventrix.reports.results import job_pairs
from ventrix.reports.sheet.contents import Choices, Shop
from ventrix.reports.workbook import job_workbook
from ventrix.rooms.display_units import US
from ventrix.rooms.sheet.everything import everything


def picture() -> bytes:
    out = io.BytesIO()
    Image.new("RGB", (8, 8), "teal").save(out, "PNG")
    return out.getvalue()


def job_with_photo() -> Job:
    return replace(demo_job(), photos=(Photo(id="ph", file="a.png"), Photo(id="gone", file="b.png")))


def run(*arguments: str) -> int:
    with pytest.raises(SystemExit) as left:
        main(list(arguments))
    return int(left.value.code or 0)


def test_a_workbook_holds_numbers_as_numbers_and_text_as_text() -> None:
    job = replace(demo_job(), title="=HYPERLINK(1)")
    port = replace(job.ports[0], name="=cmd|' /C calc'!A0")
    findings = Findings(replace(job, ports=(port, *job.ports[1:])), benches=demo_benches())
    book = load_workbook(io.BytesIO(job_workbook(findings)))
    assert book.sheetnames[:2] == ["Verdicts", "Ports"]
    assert len(book.sheetnames) == 2 + sum(1 for _ in findings.job.runs())
    assert len({n.lower() for n in book.sheetnames}) == len(book.sheetnames)
    for sheet in book.worksheets:
        for row in sheet.iter_rows():
            assert all(cell.data_type != "f" for cell in row), "nothing is a formula"
    verdicts = list(book["Verdicts"].iter_rows(values_only=True))
    pairs = job_pairs(findings)
    assert len(verdicts) == len(pairs) + 1 and "CFM" in str(verdicts[0])
    told = findings.verdict(pairs[0])
    assert told is not None and told.weighted is not None
    assert verdicts[1][5] == pytest.approx(from_si(told.weighted, "cfm"))


def test_everything_comes_out_and_in_again(tmp_path: Path) -> None:
    photos = tmp_path / "photos"
    photos.mkdir()
    (photos / "a.png").write_bytes(picture())
    job = job_with_photo()
    findings = Findings(job, benches=demo_benches())
    files, missing = everything(findings, US, Choices(), Shop(), date(2026, 5, 20), photos)
    assert missing[0] == "b.png" and all(name.endswith(".stl") for name in missing[1:])
    assert {"job.json", "job.xlsx", "sheet.pdf", "cards.pdf", "photos/a.png"} <= set(files)
    assert sum(n.startswith("runs/") for n in files) == sum(1 for _ in job.runs())
    path = tmp_path / "all.zip"
    write_archive(path, files)
    packed = read_packed(path)
    assert packed.document.job == job and dict(packed.photos) == {"a.png": picture()}
    again = tmp_path / "again.zip"
    write_archive(again, files)
    assert again.read_bytes() == path.read_bytes(), "the same files make the same archive"


def test_the_command_takes_jobs_out_and_in(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    with Book.open(default_book_path()) as book:
        book.add_job(job_with_photo(), benches=demo_benches())
        book.photo_folder.mkdir()
        (book.photo_folder / "a.png").write_bytes(picture())
    title = demo_job().title
    for name in ("job.json", "job.xlsx", "job.zip", "folder"):
        assert run("export", title, str(tmp_path / name)) == 0
    assert run("export", title, str(tmp_path / "job.doc")) == 2
    assert run("export", title, str(tmp_path / "folder")) == 2, "an old folder is not written over"
    capsys.readouterr()
    assert run("import", str(tmp_path / "job.zip")) == 2 and "already" in capsys.readouterr().err
    assert run("import", str(tmp_path / "job.zip"), "--copy") == 0
    other = tmp_path / "other.sqlite"
    assert run("import", str(tmp_path / "folder"), "--book", str(other)) == 0
    with Book.open(other) as book:
        assert book.load(demo_job().id) == job_with_photo()
        assert (book.photo_folder / "a.png").read_bytes() == picture()
    with Book.open(default_book_path()) as book:
        assert len(book.jobs()) == 2


def test_a_copy_is_the_same_job_under_other_ids() -> None:
    job = demo_job()
    copy = renewed(job)
    assert copy.id != job.id and copy.title == job.title
    mine, theirs = dumps_job(job), dumps_job(copy)
    ids = {n["id"] for p in json.loads(mine)["ports"] for n in p["cuts"]}
    assert not any(f'"{i}"' in theirs for i in ids if i not in ("street",))
    before, after = (Findings(j, benches=demo_benches()) for j in (job, copy))
    for a, b in zip(job_pairs(before), job_pairs(after), strict=True):
        va, vb = before.verdict(a), after.verdict(b)
        assert (va is None) == (vb is None) and (va is None or vb is None or va.sentence == vb.sentence)


# -- archives that mean harm


def archive(*entries: tuple[str | zipfile.ZipInfo, bytes]) -> bytes:
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as made:
        for name, data in entries:
            made.writestr(name, data)
    return out.getvalue()


DOCUMENT = dumps_job(demo_job(), demo_benches()).encode()


def link() -> zipfile.ZipInfo:
    found = zipfile.ZipInfo("photos/a.png")
    found.external_attr = (stat.S_IFLNK | 0o777) << 16
    return found


@pytest.mark.parametrize(
    ("data", "words"),
    [
        (archive(("../../evil", b"x"), ("job.json", DOCUMENT)), "leaves its folder"),
        (archive(("/etc/passwd", b"x"), ("job.json", DOCUMENT)), "leaves its folder"),
        (archive(("a\\..\\..\\evil", b"x"), ("job.json", DOCUMENT)), "leaves its folder"),
        (archive(("C:evil", b"x"), ("job.json", DOCUMENT)), "leaves its folder"),
        (archive((link(), b"/etc/passwd"), ("job.json", DOCUMENT)), "link or a device"),
        (archive(("big", b"\0" * 60_000_000), ("job.json", DOCUMENT)), "swells"),
        (archive(*((f"f{i}", b"") for i in range(5001))), "more than 5000"),
        (archive(("other.json", DOCUMENT)), "holds no job.json"),
        (archive(("job.json", b"{")), "not JSON"),
        (archive(("job.json", b"[" * 100_000)), "nested too deep|no job document|no JSON"),
        (archive(("job.json", dumps_job(job_with_photo()).encode()), ("photos/a.png", b"<svg/>")), "not a JPEG or PNG"),
        (b"PK\x03\x04 nothing", "not an archive"),
        (b"", "not an archive"),
    ],
)
def test_archives_that_mean_harm_are_refused(tmp_path: Path, data: bytes, words: str) -> None:
    path = tmp_path / "bad.zip"
    path.write_bytes(data)
    with pytest.raises(InputError, match=words):
        read_packed(path)
    assert sorted(p.name for p in tmp_path.iterdir()) == ["bad.zip"], "nothing was written anywhere"


def test_fuzzed_archives_are_read_or_refused(tmp_path: Path, long: bool) -> None:
    draw = random.Random(7)
    good = archive(("job.json", DOCUMENT), ("photos/a.png", picture()))
    path = tmp_path / "fuzz.zip"
    for _ in range(150 if long else 30):
        data = bytearray(good)
        for _ in range(draw.randint(1, 8)):
            data[draw.randrange(len(data))] = draw.randrange(256)
        path.write_bytes(bytes(data))
        try:
            read_packed(path)
        except InputError:
            continue


@pytest.mark.parametrize(
    "text", ["../../x", "a/b", "", "...", "con:", "\0", "\u202e名前", "x" * 500, "Intake 1, 22H (late)"]
)
def test_file_names_from_any_text(text: str) -> None:
    name = safe_name(text)
    assert name and len(name) <= 80 and "/" not in name and "\\" not in name
    assert name.isascii() and Path(name).name == name


# -- the published schema, and the desktop's own checks


def test_documents_pass_the_published_schema_by_its_own_dialect() -> None:
    published = json.loads((Path(__file__).parents[2] / "docs/formats/job.schema.json").read_text(encoding="utf-8"))
    assert published == json.loads(json.dumps(schema()))
    assert published["$schema"] == "https://json-schema.org/draft/2020-12/schema"
    checker = jsonschema.validators.validator_for(published)
    assert checker is jsonschema.Draft202012Validator
    checker.check_schema(published)
    checker(published).validate(json.loads(DOCUMENT))
    wrong = json.loads(DOCUMENT)
    wrong["bore_mm"] = "wide"
    assert not checker(published).is_valid(wrong)


def test_the_desktop_files_go_into_the_users_folders_and_away_again(tmp_path: Path) -> None:
    paths = install_desktop(tmp_path)
    assert set(paths) == set(desktop_files(tmp_path)) and all(p.is_file() for p in paths)
    assert all(tmp_path in p.parents for p in paths)
    for size in (16, 48, 256):
        with Image.open(tmp_path / f"icons/hicolor/{size}x{size}/apps/{ID}.png") as icon:
            assert icon.size == (size, size)
    entry = (tmp_path / f"applications/{ID}.desktop").read_text(encoding="utf-8")
    types = ElementTree.parse(tmp_path / f"mime/packages/{ID}.xml").getroot()
    named = {e.get("type") for e in types}
    assert all(f"{t};" in entry for t in named if t)
    gone = remove_desktop(tmp_path)
    assert set(gone) == set(paths) and not any(p.exists() for p in paths)


@pytest.mark.parametrize(
    ("program", "arguments", "file"),
    [
        ("appstreamcli", ["validate", "--no-net"], f"{ID}.metainfo.xml"),
        ("desktop-file-validate", [], f"{ID}.desktop"),
    ],
)
def test_the_desktops_own_checkers_pass_them(program: str, arguments: list[str], file: str) -> None:
    if shutil.which(program) is None:
        pytest.skip(f"{program} is not installed (scripts/test installs it, as root)")
    path = Path(__file__).parents[2] / "src/ventrix/desktop" / file
    done = subprocess.run([program, *arguments, str(path)], capture_output=True, text=True, check=False)
    assert done.returncode == 0, done.stdout + done.stderr
